"""How a design is worked out: studies that say what they read, and a memory of what was worked out before."""
