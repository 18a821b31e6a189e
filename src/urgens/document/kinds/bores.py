"""The shipped table of bores in which master cylinders are sold."""

from functools import lru_cache

from pydantic import BaseModel, ConfigDict

from urgens.data import data_text
from urgens.document.kinds.cylinders.kind import Bore
from urgens.quantity import Quantity


class BoreTable(BaseModel):
    """Bores, and where they are from."""

    model_config = ConfigDict(extra="forbid", frozen=True)

    source: str
    bores: tuple[Bore, ...]
    also_met: tuple[Bore, ...] = ()  # on vehicles, and hardly sold new


@lru_cache(maxsize=1)
def bore_table() -> BoreTable:
    """Return the shipped table."""
    return BoreTable.model_validate_json(data_text("bores.json"))


def met_bores() -> tuple[Quantity, ...]:
    """Return the bores that a caliper may meet, sold or not, the smallest first."""
    table = bore_table()
    return tuple(sorted((*table.bores, *table.also_met), key=lambda bore: bore.value))


def sold_bores() -> tuple[Quantity, ...]:
    """Return the bores there are, the smallest first."""
    return tuple(sorted(bore_table().bores, key=lambda bore: bore.value))
