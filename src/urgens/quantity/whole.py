"""Whole numbers as they are typed: counts, turns of a clock, numbers of vehicles."""

LARGEST = 10**9  # what is counted here is far less


def whole_number(text: str, largest: int = LARGEST) -> int | None:
    """Return the whole number that is typed [-], None where it is none or larger than any.

    text: as typed [text]; largest: that is taken [-]. Source: digits 0 to 9; other scripts' digits
    and raised ones are none.
    """
    typed = text.strip()
    if not (typed.isascii() and typed.isdecimal()) or len(typed) > len(str(largest)):
        return None
    number = int(typed)
    return number if number <= largest else None
