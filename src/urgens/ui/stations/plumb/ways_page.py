"""What could be laid instead: every school and every conversion, what it takes and loses."""

from collections.abc import Mapping
from functools import partial

from PySide6.QtWidgets import QHBoxLayout, QVBoxLayout, QWidget

from urgens.document import Build, BuildChange, changed, with_changes, with_setup
from urgens.document.circuits import Circuits
from urgens.guidance.advice.conversions import Changes, ConversionWay, conversions
from urgens.guidance.advice.layouts import Alternative, alternatives
from urgens.guidance.words.parts import thing_called
from urgens.plumbing.conversion import Conversion, conversion, layout_of
from urgens.ui.session import Session
from urgens.ui.stations.plumb.prices import PriceRows, priced_name
from urgens.ui.stations.plumb.way_card import WayCard
from urgens.ui.widgets.buttons import push_button
from urgens.ui.widgets.cleared import clear
from urgens.ui.widgets.layouts import spaced
from urgens.ui.widgets.page import Page
from urgens.ui.widgets.scrolled import rolled
from urgens.ui.widgets.worded import worded, wrapped

MINUTES = 60
SHOWN_UNPRICED = 2
TAKES = (
    "Joints, parts and hours of the usual layout of each way (common practice: 25 min a line, "
    "15 min a part)."
)
PRICES = "Typed once, they are known to every build on this machine."


def hours(minutes: int) -> str:
    """Return minutes as hours, to the quarter."""
    quarters = round(minutes / (MINUTES / 4))
    return f"{quarters / 4:g} h"


class WaysPage(Page):
    """Cards of the schools, the conversions and the set-ups; beside them what a change needs."""

    def __init__(self, session: Session) -> None:
        super().__init__(session)
        self.found: tuple[Alternative, ...] = ()
        self.cards: list[WayCard] = []
        self._of: Build | None = None
        self._list = QVBoxLayout()
        self._list.setSpacing(6)
        self._list.setContentsMargins(0, 0, 8, 0)
        inner = QWidget()
        inner.setLayout(self._list)
        area = rolled(inner)
        self.title = wrapped("heading", "What a change needs")
        self.needs = {
            name: wrapped("muted") for name in ("Stays", "Goes", "New", "Plugged", "Lost")
        }
        self.column.addWidget(self.title)
        for label in self.needs.values():
            self.column.addWidget(label)
        self._setup = ""
        row = spaced(QHBoxLayout(), 6)
        self.buy = push_button("What to buy", "small", self._show_list)
        self.jobs = push_button("Its jobs", "small", self._show_jobs)
        for button in (self.buy, self.jobs):
            row.addWidget(button)
        row.addStretch()
        self.column.addLayout(row)
        self.head("Prices, each in your own money")
        self.prices = PriceRows(session)
        self.prices.changed.connect(self._priced)
        self.column.addWidget(self.prices)
        self.column.addWidget(wrapped("muted", f"{PRICES} {TAKES}"))
        self.column.addStretch()
        self.lay_out(area)
        self.said.hide()

    @property
    def price_labels(self) -> Mapping[str, QWidget]:
        """The prices that are typed, by kind."""
        return self.prices.labels

    @property
    def summary(self) -> str:
        """How many there are."""
        return f"{len(self.found)} ways to lay this build, the fewest joints first"

    def show_figures(self) -> None:
        """Show the ways of the build as it is now."""
        build = self.session.build
        if build is self._of:
            return
        self._of = build
        self.found = tuple(alternatives(build))
        for card in self.cards:
            card.blockSignals(True)  # the focus goes over them as they are taken away
        clear(self._list)
        self.cards = []
        self._show_setups()
        self._show_conversions()
        self._list.addWidget(worded("Ways to lay it", "heading"))
        prices = self.prices.known()
        for one in self.found:
            self._add_school(one, prices)
        self._list.addStretch()
        self.prices.show_prices(dict.fromkeys(kind for one in self.found for kind in one.kinds))
        self._show_needs("", None)

    # --- cards -----------------------------------------------------------------------------

    def _show_setups(self) -> None:
        """Show what it takes from the build itself to each of its set-ups."""
        base = self.session.base
        if base.setups:
            self._list.addWidget(worded("From the vehicle to its set-ups", "heading"))
        for setup in base.setups:
            needed = conversion(base, with_setup(base, setup.name))
            takes = f"{len(needed.new)} new, {len(needed.goes)} come off"
            chosen = self.session.setup == setup.name
            card = WayCard(f"To “{setup.name}”", _lost(needed), takes, action="Look at it",
                           done="looked at" if chosen else "")  # fmt: skip
            card.chosen.connect(partial(self._show_needs, setup.name, needed, setup.name))
            card.laid.connect(partial(self.session.set_setup, setup.name))
            self._put(card)

    def _show_conversions(self) -> None:
        """Show what the vehicle itself could become: each a set-up with its layout."""
        if self.session.setup is not None:
            return  # of the build itself: a set-up is not converted again
        found = list(conversions(self.session.base))
        if found:
            self._list.addWidget(worded("Conversions: each becomes a set-up", "heading"))
        for way, changes in found:
            then = with_changes(self.session.base, {
                path: value for path, value in changes.items() if not path.startswith("evidence")
            } | {"setups": [], "evidence": {}})  # fmt: skip
            needed = conversion(self.session.base, then)
            takes = f"{len(needed.new)} new, {len(needed.goes)} come off"
            card = WayCard(way.words, f"Gives up {way.gives_up}.", takes, action="Add it")
            card.chosen.connect(partial(self._show_needs, way.words, needed, "", then))
            card.laid.connect(partial(self._add_setup, way, changes))
            self._put(card)

    def _add_setup(self, way: ConversionWay, changes: Changes) -> None:
        """Add a conversion as a set-up, and look at it."""
        setup = {"name": way.name, "changes": changes}
        kept = range(len(self.session.base.setups))
        change = BuildChange(f"Set-up “{way.name}”", orders={"setups": [*kept, setup]})
        self.session.make(change, in_setup=False)
        if any(one.name == way.name for one in self.session.base.setups):
            self.session.set_setup(way.name)

    def _add_school(self, alternative: Alternative, prices: Mapping[str, float]) -> None:
        spent = f"about {hours(alternative.minutes)}"
        takes = f"{alternative.joints} joints  ·  {alternative.parts} parts  ·  {spent}"
        known, missing = alternative.price(prices)
        if known:
            names = [priced_name(kind).lower() for kind in missing]
            more = f" and {len(names) - SHOWN_UNPRICED} more"
            rest = ", ".join(names[:SHOWN_UNPRICED]) + more * (len(names) > SHOWN_UNPRICED)
            takes += f"  ·  {known:g}{f', without {rest}' if names else ''}"
        card = WayCard(
            alternative.school.words, f"Loses {alternative.school.loses}.", takes,
            action="Lay it", done="laid" if self._is_laid(alternative) else "",
        )  # fmt: skip
        card.chosen.connect(partial(self._look_at, alternative))
        card.laid.connect(partial(self.session.make, alternative.change))
        self._put(card)

    def _put(self, card: WayCard) -> None:
        self.cards.append(card)
        self._list.addWidget(card)

    def _is_laid(self, alternative: Alternative) -> bool:
        """Tell whether a way is what is laid: the same parts with the same lines between them."""
        plumbing, section = self.session.build.plumbing, alternative.change.values["plumbing"]
        assert isinstance(section, dict)
        if plumbing is None:
            return False
        its = {(line["from"], line["to"]) for line in section["lines"]}
        return its == {(line.start, line.to) for line in plumbing.lines} and {
            (part["id"], part["kind"]) for part in section["parts"]
        } == {(part.id, part.kind) for part in plumbing.parts}

    # --- what a change needs ---------------------------------------------------------------

    def _look_at(self, alternative: Alternative) -> None:
        build = self.session.build
        then = changed(build, alternative.change)
        self._show_needs(alternative.school.words, conversion(build, then), "", then)

    def _show_needs(
        self, name: str, needed: Conversion | None, setup: str = "", then: Build | None = None
    ) -> None:
        self._setup = setup
        self.title.setText(name or "Choose a way: what stays, goes and is new stands here")
        for label in self.needs.values():
            label.setVisible(needed is not None)
        for button in (self.buy, self.jobs):
            button.setVisible(bool(setup))
        if needed is None:
            return
        if then is None and setup:
            then = with_setup(self.session.base, setup)
        rows = (needed.stays, needed.goes, needed.new, needed.plugged, needed.lost)
        for (word, label), names in zip(self.needs.items(), rows, strict=True):
            builds = (then, self.session.build) if word in ("New", "Plugged") else (
                self.session.build, then
            )  # fmt: skip
            said = ", ".join(
                names if word == "Lost" else (self._name(one, builds) for one in names)
            )
            label.setText(f"{word}: {said or 'nothing'}")

    @staticmethod
    def _name(thing: str, builds: tuple[Build | None, ...]) -> str:
        """Return what a part or a port is called, of the first layout that has it."""
        for build in builds:
            if build is None:
                continue
            circuits = Circuits(build, layout_of(build))
            part, _, port = thing.partition(".")
            if part in circuits.parts:
                named = thing_called(circuits, part)
                return f"{named}, {port.replace('-', ' ')}" if port else named
        return thing

    def _show_list(self) -> None:
        self.session.set_setup(self._setup)
        self.place_asked.emit("buy:")

    def _show_jobs(self) -> None:
        self.place_asked.emit(f"plan:{self._setup}")

    def _priced(self) -> None:
        self._of = None
        self._show()


def _lost(needed: Conversion) -> str:
    return f"Loses {', '.join(needed.lost)}." if needed.lost else "Loses nothing."
