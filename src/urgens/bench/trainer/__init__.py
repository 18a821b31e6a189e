"""A hidden fault to trace, and what it cost."""
