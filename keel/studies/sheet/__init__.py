"""Flat parts: the shell unfolded, and what stands inside."""
