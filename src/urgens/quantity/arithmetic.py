"""What a builder types into a field: a bare number in the unit shown, a small sum."""

import ast
import math
import operator
import re

from urgens.quantity.display import Units, UnitSystem, unit_shown
from urgens.quantity.kinds import QuantityKind
from urgens.quantity.quantity import QuantityError, decimal, less_a_fraction, parse, with_point
from urgens.quantity.spelling import with_plain_fractions

_SUM = re.compile(r"(?P<sum>[-+−]?[\d.(][\d.\s()+*/×·−-]*[\d.)])\s*(?P<unit>[^\d\s(].*)?")
_MIXED = re.compile(r"(?<![\d./])(\d+)(?:\s+|-)(\d+\s*/\s*\d+)")
_DOES = {
    ast.Add: operator.add,
    ast.Sub: operator.sub,
    ast.Mult: operator.mul,
    ast.Div: operator.truediv,
}
LONGEST = 60  # characters of a sum; what is pasted can be too deep to be read as one


def completed(typed: str, kind: QuantityKind, units: Units | UnitSystem) -> str:
    """Return what is typed as the build keeps it: a sum worked out, a bare number with its unit.

    typed: into a field [text]; kind: of the field; units: it is shown in.
    What can be read as it stands stays as it was typed. Raises QuantityError where it is neither.
    Source: arithmetic.
    """
    text, unit = less_a_fraction(typed.strip()), unit_shown(kind, units)
    commas = with_point(text)
    try:
        return parse(text, kind).text
    except QuantityError as error:
        refused = error
    for tried in (f"{text} {unit}", _worked_out(commas, unit)):
        if tried is not None:
            try:
                return parse(tried, kind).text
            except QuantityError:
                continue
    raise refused


def number_of(typed: str) -> float | None:
    """Return a pure number or a small sum of them, None where it is neither; typed: the text.

    Source: arithmetic.
    """
    try:
        found = _SUM.fullmatch(with_plain_fractions(with_point(typed)))
        if found is None or found["unit"]:
            return decimal(typed)
    except ValueError:
        return None
    return _value(found["sum"])


def _worked_out(text: str, unit: str) -> str | None:
    found = _SUM.fullmatch(with_plain_fractions(text))
    if found is None:
        return None
    value = _value(found["sum"])
    return None if value is None else f"{value:.9g} {found['unit'] or unit}"


def _value(written: str) -> float | None:
    """Return what a sum comes to, None where it is none."""
    if len(written) > LONGEST:
        return None
    plain = _MIXED.sub(r"(\1+\2)", written)
    plain = plain.replace("×", "*").replace("·", "*").replace("−", "-")
    try:
        tree = ast.parse(plain.strip(), mode="eval")
        value = _of(tree.body)
    except (SyntaxError, ZeroDivisionError, OverflowError):
        return None
    return value if value is not None and math.isfinite(value) else None


def _of(node: ast.expr) -> float | None:
    match node:
        case ast.Constant(value=int() | float() as number):
            return float(number)
        case ast.UnaryOp(op=ast.USub(), operand=inner):
            value = _of(inner)
            return None if value is None else -value
        case ast.UnaryOp(op=ast.UAdd(), operand=inner):
            return _of(inner)
        case ast.BinOp(left=left, op=does, right=right) if type(does) in _DOES:
            one, other = _of(left), _of(right)
            return None if one is None or other is None else _DOES[type(does)](one, other)
    return None
