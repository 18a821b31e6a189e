"""Prices that were typed once: a file of their own, for every build on this machine."""

import json
from collections.abc import Mapping
from pathlib import Path
from typing import Annotated, Literal

from pydantic import Field

from urgens.document.files import read_json
from urgens.document.layout.layout import KEPT, Price, Priced, nothing
from urgens.document.model import DocumentModel
from urgens.document.validation import validated_as
from urgens.document.whole_file import write_whole
from urgens.quantity import QuantityError, decimal


class PriceList(DocumentModel):
    """A file of prices in one money, by kind of part and for a line: open JSON."""

    format: Literal["urgens.prices"] = "urgens.prices"
    version: Literal[1] = 1
    prices: Annotated[Mapping[Priced, Price], *KEPT] = Field(default_factory=nothing)

    def with_price(self, kind: str, price: float | None) -> "PriceList":
        """Return the list with a price, without one where it is None; kind: priced [text].

        price: in the builder's own money [-].
        """
        kept = {name: one for name, one in self.prices.items() if name != kind}
        return self.model_copy(update={"prices": kept if price is None else {**kept, kind: price}})


def load_prices(path: Path) -> PriceList:
    """Return the prices in a file, none where there is no file; raises BuildErrors."""
    return validated_as(PriceList, read_json(path)) if path.exists() else PriceList()


def save_prices(found: PriceList, path: Path) -> None:
    """Write prices to a file so that a whole one is there at every moment; raises OSError."""
    document = {"format": found.format, "version": found.version, "prices": dict(found.prices)}
    text = json.dumps(document, indent=2, ensure_ascii=False) + "\n"
    path.parent.mkdir(parents=True, exist_ok=True)
    write_whole(path, text.encode(), keep=path.exists())


def price_of(typed: str) -> float | None:
    """Return what is typed as a price in the builder's own money [-], None for nothing.

    typed: as a figure [text]. Raises QuantityError where it is none.
    """
    if not typed.strip():
        return None
    try:
        price = decimal(typed)
    except ValueError:
        raise QuantityError(f'"{typed}" is no price', "write a number, as 12.50") from None
    if not 0 <= price < float("inf"):
        raise QuantityError(f'"{typed}" is no price', "write a number from 0 up")
    return price
