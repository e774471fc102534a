"""What the engine needs, what pumps give, and how surge is met."""
