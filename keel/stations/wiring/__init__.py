"""The station Wiring."""
