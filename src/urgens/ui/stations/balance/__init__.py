"""Balance: rear against front, and which valve brings them together."""
