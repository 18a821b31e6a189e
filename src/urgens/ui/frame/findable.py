"""All that can be found by typing: commands, pages, figures, parts, procedures, faults, terms."""

import tomllib
from collections.abc import Callable, Iterable, Iterator
from dataclasses import dataclass
from functools import lru_cache, partial

from PySide6.QtGui import QAction

from urgens.data import data_text
from urgens.document import Build
from urgens.document.catalogue import figures, named
from urgens.document.circuits import circuits_of
from urgens.guidance.faults.tables import tables
from urgens.guidance.procedures.records import records
from urgens.guidance.words.parts import part_name
from urgens.guidance.words.terms import Term, of_the_trade, terms
from urgens.ui.frame.stations import STATIONS

# How well words are found: at the beginning of the name, in it, or only in what goes with it.
FIRST, IN_NAME, BESIDE = range(3)


@dataclass(frozen=True)
class Findable:
    """One thing: its name, where it leads, its key, what else it is looked for by, what it does."""

    words: str
    where: str
    act: Callable[[], object]
    key: str = ""
    also: str = ""

    def rank(self, wanted: Iterable[str]) -> int | None:
        """Return how well typed words find it, by parts of words; None where one is nowhere."""
        name = self.words.lower()
        beside = f"{name} {self.where} {self.also}".lower()
        wanted = list(wanted)
        if not all(one in beside for one in wanted):
            return None
        if not all(one in name for one in wanted):
            return BESIDE
        starts = {word[: len(one)] for word in name.split() for one in wanted}
        return FIRST if all(one in starts for one in wanted) else IN_NAME


@lru_cache(maxsize=1)
def page_words() -> dict[str, dict[str, str]]:
    """Return what else each page of each station is looked for by."""
    return tomllib.loads(data_text("help/pages.toml"))


def of_commands(actions: Iterable[QAction]) -> Iterator[Findable]:
    """Yield the commands that can be given now."""
    for one in actions:
        if one.isEnabled():
            yield Findable(one.text(), "", one.trigger, one.shortcut().toString())


def of_pages(show: Callable[[str, str], object]) -> Iterator[Findable]:
    """Yield every page; `show` brings one by its station and its name."""
    for kind in STATIONS:
        for page in kind.pages or ("",):
            where = f"page of {kind.name}" if page else "station"
            also = page_words().get(kind.name, {}).get(page, "")
            yield Findable(page or kind.name, where, partial(show, kind.name, page), also=also)


def of_build(build: Build, go_to: Callable[[str], object]) -> Iterator[Findable]:
    """Yield the figures and the parts of a build; `go_to` brings a place of it."""
    for one in figures(build):
        where = f"figure, {one.text}" if one.text else "figure"
        yield Findable(named(build, one.path), where, partial(go_to, one.path), also=one.entry.help)
    circuits = circuits_of(build)
    if circuits is not None:
        for part in circuits.plumbing.parts:
            yield Findable(part_name(circuits, part), "part of the layout", partial(go_to, part.id))


def of_work(go_to: Callable[[str], object]) -> Iterator[Findable]:
    """Yield procedures and signs of faults; `go_to` brings a place."""
    for name, record in records().items():
        yield Findable(record.title, "procedure", partial(go_to, f"procedure:{name}"))
    for sign in tables().signs:
        if not sign.when:
            where = "sign of a fault"
            yield Findable(sign.words, where, partial(go_to, f"sign:{sign.id}"), also=sign.look)


def of_words(explain: Callable[[Term], object]) -> Iterator[Findable]:
    """Yield terms and what shops call things; `explain` shows one."""
    for where, known in (("term", terms()), ("trade name", of_the_trade())):
        for one in known:
            if one.said:
                said = ", ".join(one.said)
                yield Findable(said, where, partial(explain, one), also=one.meaning)


def found(things: Iterable[Findable], typed: str, most: int) -> list[Findable]:
    """Return what has all typed words, the best found first; at most so many."""
    wanted = typed.lower().split()
    ranked = [(rank, place, one) for place, one in enumerate(things)
              if (rank := one.rank(wanted)) is not None]  # fmt: skip
    return [one for _, _, one in sorted(ranked, key=lambda row: row[:2])[:most]]
