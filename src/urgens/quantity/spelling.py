"""How builders write units and fractions: what stands for what, where nothing is ambiguous."""

import re
import unicodedata

INCH_MARKS = ('"', "″", "''", "”", "“", "′′", "’’")
FOOT_MARKS = ("'", "′", "’", "‘")
_PLAIN = str.maketrans(
    {
        "⁄": "/",
        "∕": "/",
        "÷": "/",
        "\N{EN DASH}": "-",
        "\N{NO-BREAK SPACE}": " ",
        "\N{THIN SPACE}": " ",
    }
)
# lower case, so that any case is read
SPELLINGS = {
    "inch": "in", "inches": "in", "foot": "ft", "feet": "ft",
    "metre": "m", "metres": "m", "meter": "m", "meters": "m",
    "lbs": "lb", "pound": "lb", "pounds": "lb", "lbsf": "lbf",
    "kilo": "kg", "kilos": "kg", "kgs": "kg",
    "newton": "N", "newtons": "N",
    "in hg": "inHg", "inches hg": "inHg", "\" hg": "inHg", "mmhg": "mmHg",
    "cc": "cm^3", "ccm": "cm^3", "litre": "l", "litres": "l", "liter": "l", "liters": "l",
    "fl oz": "fl_oz", "floz": "fl_oz",
    "kph": "km/h", "kmh": "km/h",
    "degree": "deg", "degrees": "deg", "c": "°C", "f": "°F", "deg c": "°C", "deg f": "°F",
    "sec": "s", "second": "s", "seconds": "s",
}  # fmt: skip
_BETWEEN = re.compile(r";|(?<!\d),|,(?!\d)")
_POUND = re.compile(r"\b(?:lbs?|pounds?)\b", re.IGNORECASE)


def with_plain_fractions(text: str) -> str:
    """Return a text with fraction signs written out: "1⅛ in" as "1 1/8 in"; text: typed.

    Source: the Unicode character database.
    """
    written = "".join(_written(sign) for sign in text)
    return written.translate(_PLAIN).strip()


def items_of(text: str) -> list[str]:
    """Return the items of a list: between semicolons, or commas that are no decimal ones.

    text: as typed. Source: by definition: a comma between two digits is a decimal comma.
    """
    return [item.strip() for item in _BETWEEN.split(text) if item.strip()]


def _written(sign: str) -> str:
    if unicodedata.category(sign) != "No" or "VULGAR FRACTION" not in unicodedata.name(sign, ""):
        return sign
    return " " + unicodedata.normalize("NFKC", sign)


def with_pounds_of_force(name: str) -> str | None:
    """Return a unit with its pounds as those of force, None where it has none; name: of the unit.

    Source: common practice: in a force field lb means lbf.
    """
    found = _POUND.sub("lbf", name)
    return None if found == name else found
