"""The shipped diameters of wheel cylinders and of caliper pistons."""

from functools import lru_cache

from urgens.data import data_text
from urgens.document.model import Length, TableRow


class PistonTable(TableRow):
    """Diameters of wheel cylinders and of caliper pistons."""

    source: str
    wheel_cylinders: tuple[Length, ...]
    calipers: tuple[Length, ...]


@lru_cache(maxsize=1)
def piston_table() -> PistonTable:
    """Return the shipped pistons."""
    return PistonTable.model_validate_json(data_text("pistons.json"))
