"""Wiring: what is joined, what it carries and loses, which fuse is before it, and what stops the pumps."""
