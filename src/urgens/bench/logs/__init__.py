"""Logs of pressures and deceleration as open files."""
