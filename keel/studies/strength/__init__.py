"""What faces and plates bear."""
