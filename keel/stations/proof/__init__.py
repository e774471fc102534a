"""Proof: the leak test, planned, judged, remembered."""
