"""Friction code letters on the edge of a pad or lining."""

# letter: friction from, to; the first and last class are open at one end
CLASSES: dict[str, tuple[float, float]] = {
    "C": (0.0, 0.15),
    "D": (0.15, 0.25),
    "E": (0.25, 0.35),
    "F": (0.35, 0.45),
    "G": (0.45, 0.55),
    "H": (0.55, float("inf")),
}


def friction_range(code: str) -> tuple[float, float]:
    """Return the lowest and the highest friction [-] that a code's letters stand for.

    code: one letter, or two: cold and hot [text].
    Raises ValueError where it is no such code.
    Source: SAE J866 (from memory). The letters say nothing about wear or quality.
    """
    letters = code.strip().upper()
    if not 1 <= len(letters) <= 2 or any(letter not in CLASSES for letter in letters):
        raise ValueError(code)
    ranges = [CLASSES[letter] for letter in letters]
    return min(low for low, _ in ranges), max(high for _, high in ranges)
