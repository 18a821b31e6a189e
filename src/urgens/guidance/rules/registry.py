"""The rules, and the one way to ask them all."""

from collections.abc import Callable, Iterator

from urgens.guidance.rules.finding import Finding, Remark, Severity
from urgens.guidance.words.figures import FigureWords
from urgens.quantity import Units, UnitSystem
from urgens.solve import Solution

Rule = Callable[[Solution, FigureWords], Iterator[Remark]]
# Areas in the order in which they are asked; findings of one severity keep it.
AREAS = (
    "assumed", "balance", "circuit", "open_faults", "feeding", "parts_match", "switches",
    "fittings",
    "tyre_grip", "threads", "joints", "line_limits", "proofs", "held",
    "real_split", "residual", "sizing",
    "travel",
)  # fmt: skip
_RULES: dict[str, Rule] = {}
_SEVERITIES: dict[str, Severity] = {}
_AREAS: dict[str, str] = {}  # the file a rule stands in


def rule(code: str, severity: Severity) -> Callable[[Rule], Rule]:
    """Register a function as the rule that gives findings of `code`, of the usual severity."""

    def register(function: Rule) -> Rule:
        if code in _RULES:
            raise KeyError(f"two rules give {code}")
        area = function.__module__.rpartition(".")[2]
        if area not in AREAS:
            raise KeyError(f"the area {area} is not in the order of areas")
        _RULES[code], _SEVERITIES[code] = function, severity
        _AREAS[code] = area
        return function

    return register


def known_codes() -> tuple[str, ...]:
    """Return the codes of all rules."""
    return tuple(_RULES)


def area_of(code: str) -> str:
    """Return the area of a code: sizing, travel, balance, circuit and so on."""
    return _AREAS[code]


def findings(solution: Solution, units: UnitSystem | Units | None = None) -> tuple[Finding, ...]:
    """Return what there is to say about `solution`, worst first.

    Figures in the messages are in `units`, else in those the builder typed.
    """
    words = FigureWords(units or solution.build.natural_units)
    asked = sorted(_RULES.items(), key=lambda item: AREAS.index(_AREAS[item[0]]))
    found = [
        Finding(code, **(vars(remark) | {"severity": _severity(code, remark)}))
        for code, judge in asked
        for remark in judge(solution, words)
    ]
    return tuple(sorted(found, key=lambda finding: finding.severity))


def _severity(code: str, remark: Remark) -> Severity:
    return _SEVERITIES[code] if remark.severity is None else remark.severity
