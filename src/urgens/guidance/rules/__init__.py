"""Findings, one file an area."""
