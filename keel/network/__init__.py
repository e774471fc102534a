"""Fuel in pipes: what flows where, at which pressure, in every running mode at once."""
