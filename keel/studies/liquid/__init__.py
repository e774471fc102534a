"""The liquid at rest: capacity, levels, what stays and what traps air."""
