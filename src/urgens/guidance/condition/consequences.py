"""What a change asks for: what is worked out again, what is bled, what is proved again."""

from collections.abc import Iterable
from dataclasses import dataclass
from typing import Literal

from urgens.document import Build
from urgens.guidance.procedures import procedure
from urgens.physics.axle import Axle

Opens = Literal["", "axle", "all", "layout"]
BALANCE = "who locks first, on every load and road"
FOOT = "foot, pressure and pedal travel"
ALL_PROOFS = ("leak-test", "ports-test", "half-lost-test", "switch-test", "three-strokes")
FED = ("leak-test", "half-lost-test", "three-strokes")
VALVE = ("gauge-valve", "load-sensing-test", "metering-test")


@dataclass(frozen=True)
class _Rule:
    """A place of the build: what of it is worked out, what it opens, what is proved standing."""

    place: str
    works: tuple[str, ...] = ()
    opens: Opens = ""
    proves: tuple[str, ...] = ()
    moves: bool = False


# The first that fits counts: what is set or worn comes before the part it is of. Common practice.
RULES = (
    _Rule("vehicle.load_cases", (BALANCE,)),
    _Rule("vehicle.launch", ("whether a launch holds",)),
    _Rule("vehicle", (BALANCE,)),
    *(rule for axle in Axle for rule in (
        _Rule(f"{axle}.tyre", (BALANCE,), moves=True),
        _Rule(f"{axle}.brake.pad", (BALANCE, FOOT), moves=True),
        _Rule(f"{axle}.brake.rotor", (BALANCE, "heat"), moves=True),
        _Rule(f"{axle}.brake.effective_radius", (BALANCE,), moves=True),
        _Rule(f"{axle}.brake.sho", (BALANCE, FOOT), proves=("three-strokes",), moves=True),
        _Rule(f"{axle}.brake.drum", (BALANCE, "heat"), moves=True),
        _Rule(f"{axle}.brake.clearance", (FOOT,), proves=("three-strokes",)),
        _Rule(f"{axle}.brake", (BALANCE, FOOT), "axle", FED, True),
        _Rule(f"valves.{axle}[", (BALANCE,), "", VALVE, True),
        _Rule(f"valves.{axle}", (BALANCE,), "axle", (*FED, *VALVE), True),
    )),
    _Rule("pedal", (FOOT,), proves=("ports-test",), moves=True),
    _Rule("booster.vacuum", (FOOT,), proves=("booster-test",)),
    _Rule("booster", (FOOT, BALANCE), "all", ("booster-test", *ALL_PROOFS), True),
    _Rule("master.bar", (BALANCE,), moves=True),
    _Rule("master", (FOOT, BALANCE), "all", ALL_PROOFS, True),
    _Rule("circuits", ("what one half lost leaves",), "all", ALL_PROOFS, True),
    _Rule("plumbing", ("pedal travel", "each line that is laid"), "layout", ALL_PROOFS, True),
    _Rule("lines", ("pedal travel",)),
    _Rule("fluid", ("when the fluid boils",), "all", ("three-strokes",)),
    _Rule("warning_switch", (), "", ("switch-test",)),
    _Rule("heat", ("heat",)),
)  # fmt: skip


@dataclass(frozen=True)
class Consequences:
    """What changes ask for.

    `opens` tells which circuits are open for them: those of axles, all, or what the layout says;
    `proves` are standing proofs that this layout has; `moves` that the moving one is made again.
    """

    works: tuple[str, ...]
    opens: tuple[str, ...]
    proves: tuple[str, ...]
    moves: bool

    @property
    def anything(self) -> bool:
        """Whether there is anything to do."""
        return bool(self.works or self.opens or self.proves or self.moves)


def asked_by(build: Build, paths: Iterable[str]) -> Consequences:
    """Return what changes at some paths of a build ask for; build: after them.

    paths: of figures that are others now [text]. Source: RULES, common practice.
    """
    rules = [found for path in paths if (found := _rule_of(path)) is not None]
    opens = {
        rule.place.removeprefix("valves.").partition(".")[0] if rule.opens == "axle" else rule.opens
        for rule in rules
        if rule.opens
    }
    proofs = dict.fromkeys(name for rule in rules for name in rule.proves)
    return Consequences(
        tuple(dict.fromkeys(words for rule in rules for words in rule.works)),
        ("all",) if "all" in opens else tuple(sorted(opens)),
        tuple(name for name in proofs if procedure(build, name).allowed),
        any(rule.moves for rule in rules),
    )


def _rule_of(path: str) -> _Rule | None:
    return next((rule for rule in RULES if path.startswith(rule.place)), None)
