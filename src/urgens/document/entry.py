"""What is said of a figure once: the entry of the catalogue that its field carries."""

from collections.abc import Callable
from dataclasses import dataclass
from typing import Any

from pydantic.json_schema import JsonSchemaValue

Spread = str | Callable[[Any], str]  # the latter of the part it stands in

TAPE = "tape"
RULE = "rule"
CALIPER = "caliper gauge"
VALVE_GAUGES = "two gauges across the valve"
CHOSEN = "choose it"  # a wish is not found out


@dataclass(frozen=True)
class Entry:
    """One figure of the catalogue.

    `name` is what it is called wherever it stands, `beside` in a column beside its part; `settled`
    how it is found out; `help` what it is, in a sentence. `spread` is what it is usually off by
    where nothing is said, None where it counts as exact. `units` are its own in the inch and the
    metric system, where it is read in others than its kind; `step` its natural one, where it is a
    pure number; a `wish` is the builder's to choose; something `wanted` is missing where it is not
    given.
    """

    name: str
    settled: str
    help: str
    spread: Spread | None = None
    units: tuple[str, str] | None = None
    step: float | Callable[[Any], float] | None = None
    wish: bool = False
    beside: str = ""
    wanted: bool = False

    @property
    def column(self) -> str:
        """What a column beside its part calls it."""
        return self.beside or self.name

    def step_in(self, part: object) -> float | None:
        """Return the natural step of a pure number in its part."""
        return self.step(part) if callable(self.step) else self.step

    def spread_in(self, part: object) -> str | None:
        """Return the usual spread of the figure in its part."""
        return self.spread(part) if callable(self.spread) else self.spread

    def __get_pydantic_json_schema__(
        self, schema: Any, handler: Callable[[Any], JsonSchemaValue]
    ) -> JsonSchemaValue:
        found = handler(schema)
        found["title"] = self.name
        said = [self.help, found.get("description", "")]
        found["description"] = " ".join(s.rstrip(".") + "." for s in said if s)
        found["x-settled"] = self.settled
        if isinstance(self.spread, str):
            found["x-spread"] = self.spread
        return found


def wish(name: str, help: str, **more: Any) -> Entry:
    """Return the entry of what a builder wants rather than finds."""
    return Entry(name, CHOSEN, help, wish=True, **more)
