"""Build: the order of work."""
