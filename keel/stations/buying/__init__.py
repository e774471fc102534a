"""The station Buying."""
