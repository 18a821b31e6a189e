"""Changing a build: one way, there and back, and as of a day."""
