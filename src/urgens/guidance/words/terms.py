"""The terms of the field as they are used here, each with what it means."""

import re
import tomllib
from dataclasses import dataclass
from functools import lru_cache

from urgens.data import data_text
from urgens.guidance.words.trade import kind_called, trade_names

_NAMES = re.compile(r"[:,;]\s*| and | \(|\)")  # between names of one row
_WORD = re.compile(r"\w+")
NO_NAMES = (
    "study", "of gauges", "of a lock", "of a cause", "of a way to balance", "of a plan",
    "of a circuit", "",
)  # fmt: skip


@dataclass(frozen=True)
class Term:
    """One row: its names as written and as said, symbol, unit inside, and what it means.

    `usual` says what is usual, with figures of practice by their names in braces; `drawing` names
    one that shows it; both are empty for most.
    """

    name: str
    symbol: str
    unit: str
    meaning: str
    usual: str = ""
    drawing: str = ""

    @property
    def said(self) -> tuple[str, ...]:
        """What a builder may read for it, in small letters."""
        parts = (part.strip().replace("_", " ").lower() for part in _NAMES.split(self.name))
        return tuple(part for part in parts if part not in NO_NAMES)

    @property
    def words(self) -> str:
        """What it means, with symbol and unit where it has some."""
        beside = [one for one in (self.symbol, self.unit) if one.strip("–, ")]
        more = f" ({'; '.join(beside)})" if beside else ""
        return f"{self.said[0]}: {self.meaning}{more}"


@lru_cache(maxsize=1)
def terms() -> tuple[Term, ...]:
    """Return every term, in the order of the work."""
    text = data_text("help/terms.toml")
    return tuple(Term(**row) for row in tomllib.loads(text)["term"])


@lru_cache(maxsize=1)
def _by_words() -> dict[tuple[str, ...], Term]:
    found: dict[tuple[str, ...], Term] = {}
    for term in terms():
        for name in term.said:
            found.setdefault(tuple(_WORD.findall(name)), term)
    return found


@lru_cache(maxsize=4096)
def term_in(text: str, *, loosely: bool = False) -> Term | None:
    """Return the term that a text names, the longest where it names several, None for none.

    text: of a label [text]; loosely: also a single word anywhere in it, which else has to be the
    whole text: "rest" is no term in "the rest".
    """
    words = _WORD.findall(text.lower().replace("_", " "))
    known = _by_words()
    for length in range(min(len(words), 4), 0, -1):
        whole = length == len(words)
        if length == 1 and not (whole or loosely):
            return None
        for start in range(len(words) - length + 1):
            term = known.get(tuple(words[start : start + length]))
            if term is not None:
                return term
    return None


def matching(typed: str) -> tuple[Term, ...]:
    """Return the terms in whose names or meaning all the typed words occur; typed: [text].

    What things are called over the counter comes behind the terms that are named so.
    """
    wanted = typed.lower().split()
    named = [t for t in terms() if all(any(w in name for name in t.said) for w in wanted)]
    told = [t for t in terms() if t not in named
            and all(w in f"{t.name} {t.meaning}".lower() for w in wanted)]  # fmt: skip
    sold = [t for t in of_the_trade() if all(any(w in name for name in t.said) for w in wanted)]
    return (*named, *sold, *told)


@lru_cache(maxsize=1)
def of_the_trade() -> tuple[Term, ...]:
    """Return the names of shops as terms: what is meant by them here."""
    found = []
    for one in trade_names():
        here = f"; here: {kind_called(one.kind).lower()}" if one.kind else ""
        found.append(Term(", ".join(one.sold_as), "–", "–", f"{one.meaning}{here}"))
    return tuple(found)
