"""The shop floor: the log of a job, which only grows, its photos, and what the core reads from both."""
