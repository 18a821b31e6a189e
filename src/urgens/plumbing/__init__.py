"""The hydraulic layout: what may be joined to what, and how each line is made."""
