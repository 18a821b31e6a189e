"""The press: the pedal that is always there, and what it does."""
