"""Simulated gauges, logger and road; logs as open files; what was measured, and what it says."""
