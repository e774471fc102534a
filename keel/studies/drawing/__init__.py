"""What the drawing shows of the solid."""
