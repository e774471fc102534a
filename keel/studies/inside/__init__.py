"""What stands inside: baffles, what they leave, what they brace, how they go in."""
