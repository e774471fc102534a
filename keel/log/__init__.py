"""What the shop's log of a job means: entries in, states out. Nothing here looks at a clock."""
