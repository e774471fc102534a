"""Trying a design with something changed over the same lap: other insides, or a search over ranges."""
