"""One record a kind of part, with all that others ask of it."""
