"""The made-up tanks, a module each: documents as a bench would save them."""
