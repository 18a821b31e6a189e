"""One row of a buying list, and the shelves of a shop that it is sorted by."""

from dataclasses import dataclass

from urgens.document.kinds.valves import LAID

# As one walks through a shop.
SHELVES = ("Cylinder and booster", "Brakes", "Valves and switches", "Hoses", "Tube and nuts",
           "Fittings", "Small parts", "Fluid")  # fmt: skip
SHELF_OF = {
    **dict.fromkeys((*LAID, "combination", "switch", "light-switch", "gauge", "sensor"),
                    "Valves and switches"),
    "hose": "Hoses", "reservoir": "Cylinder and booster",
}  # fmt: skip


@dataclass(frozen=True)
class Needed:
    """One row of the buying list: what it is, how many, how it is counted, and why so many.

    `shelf` is where one finds it; `check` what to look at before it can no longer go back.
    """

    item: str
    count: int
    unit: str = ""
    why: str = ""
    shelf: str = "Fittings"
    check: str = ""

    @property
    def counted_in(self) -> str:
        """Its unit for as many as there are."""
        return self.unit if self.count != 1 else self.unit.removesuffix("s")
