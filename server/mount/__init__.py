"""Mounting: the way in, searched on the task queue."""
