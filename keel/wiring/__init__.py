"""Wires: their resistance, what is left of the voltage at their end, their size and their fuse."""
