"""The interface, driven for real in headless Chromium."""
