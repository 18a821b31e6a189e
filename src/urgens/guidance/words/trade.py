"""What parts are called over the counter, beside what they are called here."""

import tomllib
from dataclasses import dataclass
from functools import lru_cache

from urgens.data import data_text
from urgens.document.kinds.valves import kind_of
from urgens.guidance.words.parts import KINDS

PLACE = "help/trade_names.toml"


@dataclass(frozen=True)
class TradeName:
    """What one thing is sold as, what it is, and the kind of part that it is here, if it is one."""

    sold_as: tuple[str, ...]
    meaning: str
    kind: str = ""
    beside: bool = False  # it stands beside the term wherever that is bought


@lru_cache(maxsize=1)
def trade_names() -> tuple[TradeName, ...]:
    """Return the trade names, in the order of their table."""
    rows = tomllib.loads(data_text(PLACE))["trade"]
    return tuple(
        TradeName(
            tuple(row["sold_as"]), row["meaning"], row.get("kind", ""), row.get("beside", False)
        )
        for row in rows
    )


def kind_called(kind: str) -> str:
    """Return what a kind of part, or of valve, is called here; kind: [text]."""
    return KINDS[kind] if kind in KINDS else kind_of(kind).name


def sold_as(kind: str) -> str:
    """Return what a kind of part is sold as, empty where shops know it by its name here.

    kind: of a part [text]. Source: common practice.
    """
    told = (one.sold_as[0] for one in trade_names() if one.kind == kind and one.beside)
    return next(told, "")


def item_name(item: str) -> str:
    """Return a row of a buying list as it is read; item: as it stands in a build [text]."""
    kind, _, rest = item.partition(" ")
    if kind in KINDS:
        return f"{KINDS[kind]} {rest}".strip()
    return f"{item[:1].upper()}{item[1:]}"


def item_sold_as(item: str) -> str:
    """Return what a row of a buying list is sold as, empty for most; item: of a build [text]."""
    return sold_as(item.partition(" ")[0])
