"""Gauges across a valve, and the box that they are in."""
