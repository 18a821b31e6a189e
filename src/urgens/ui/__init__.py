"""The window: stations over one session, and the press beside them."""
