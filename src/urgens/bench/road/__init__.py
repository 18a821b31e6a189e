"""Stops in time on a test road."""
