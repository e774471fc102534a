"""Mount: what holds the tank."""
