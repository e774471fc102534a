"""Slosh runs on request, and the laps that a workshop keeps."""
