"""Words with figures in them, which are filled in the units shown."""

import re

from urgens.quantity import FORCE, LENGTH, PRESSURE, Units, UnitSystem, parse, shown, unit_shown

KINDS = {"length": LENGTH, "force": FORCE, "pressure": PRESSURE}
_FIGURE = re.compile(r"\{(\w+):([^}]+)\}")


def filled(words: str, units: UnitSystem | Units) -> str:
    """Return words with each figure in braces as a builder reads it in `units`.

    words: such as "about {pressure:25 bar}", or "in {unit:pressure}" [text].
    """

    def figure(found: re.Match[str]) -> str:
        if found[1] == "unit":
            return unit_shown(KINDS[found[2]], units)
        kind = KINDS[found[1]]
        return str(shown(parse(found[2], kind), kind, units))

    return _FIGURE.sub(figure, words)
