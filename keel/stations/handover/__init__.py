"""The station Hand-over."""
