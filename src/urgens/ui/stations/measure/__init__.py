"""The Measure station."""
