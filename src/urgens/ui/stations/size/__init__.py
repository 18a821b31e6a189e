"""The Size station."""
