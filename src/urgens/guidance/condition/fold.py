"""The fold over what happened: what stands open, fitted, answered and lapsed at the end of it."""

from collections.abc import Callable, Iterable
from dataclasses import dataclass, field
from datetime import datetime
from typing import get_args

from urgens.document import Build
from urgens.document.circuits import circuits_of
from urgens.guidance.condition.deeds import LOOSE, Deed, What
from urgens.guidance.condition.lapses import (
    CLASS,
    OPENED,
    THINGS,
    WHEELS,
    behind_joint,
    by_changes,
    by_mend,
    wheels_of,
)
from urgens.guidance.procedures.step_readings import HALF_LOST
from urgens.guidance.words.parts import joint_called

SCREW = "bleed screw"


@dataclass
class WheelFold:
    """What is known of one wheel's fluid: screws open, when it was last opened, what came then."""

    open_: dict[str, Deed] = field(default_factory=dict)
    worked: bool = False  # a screw was opened and shut, or strokes were made, since it was dry
    bubbles: str | None = None  # the last note since then
    dry: Deed | None = None  # what opened it since it was last bled

    @property
    def state(self) -> str:
        """Dry, open, not-clear, bled or unknown."""
        if self.open_:
            return "open"
        if self.worked:
            return "bled" if self.bubbles == "none" else "not-clear"
        return "unknown" if self.dry is None else "dry"


@dataclass(frozen=True)
class Lapse:
    """What took a proof its ground: when, and in words."""

    at: datetime | None
    why: str


@dataclass
class Fold:
    """What stands after the deeds so far."""

    build: Build
    wheels: dict[str, WheelFold] = field(default_factory=lambda: {w: WheelFold() for w in WHEELS})
    loose: dict[str, Deed] = field(default_factory=dict)
    fitted: dict[tuple[str, tuple[str, ...]], Deed] = field(default_factory=dict)
    missing: dict[tuple[str, tuple[str, ...]], Deed] = field(default_factory=dict)
    answers: dict[tuple[str, int, str], Deed] = field(default_factory=dict)
    passed: dict[str, set[int]] = field(default_factory=dict)
    lapses: dict[str, Lapse] = field(default_factory=dict)
    noes: dict[tuple[str, int, str, tuple[str, ...]], Deed] = field(default_factory=dict)
    lifted: dict[tuple[str, str], Deed] = field(default_factory=dict)  # by hold and place
    travels: list[Deed] = field(default_factory=list)
    mended: dict[str, Deed] = field(default_factory=dict)
    moves: list[Deed] = field(default_factory=list)
    asked: dict[str, tuple[str, ...]] = field(default_factory=dict)  # fields, by the latest run
    since_bled: list[Deed] = field(default_factory=list)  # leak checks and travels
    fluid: str = ""
    begun: bool = False  # something happened that is no change on paper, and no reason given

    # --- screws and wheels -----------------------------------------------------------------

    def _open(self, deed: Deed) -> None:
        for wheel in deed.wheels:
            one = self.wheels[wheel]
            one.open_[deed.thing or SCREW] = deed
            one.worked, one.bubbles = True, None
        self.since_bled.clear()
        self._lapse(OPENED, deed, "a bleed screw was open", deed.owner)

    def _shut(self, deed: Deed) -> None:
        for wheel in deed.wheels:
            self.wheels[wheel].open_.pop(deed.thing or SCREW, None)

    def _worked(self, deed: Deed) -> None:
        """Take what an older record tells of a wheel: what came of it came of an open screw."""
        for wheel in deed.wheels:
            self.wheels[wheel].worked = True
            if deed.field == "strokes":
                self.wheels[wheel].bubbles = None
        self._note(deed)
        self._lapse(OPENED, deed, "a bleed screw was open")

    def _note(self, deed: Deed) -> None:
        """Take what came of a wheel; of a screw that nobody opened it bleeds nothing."""
        self.since_bled.clear()
        for wheel in deed.wheels if deed.field == "bubbles" else ():
            self.wheels[wheel].bubbles = str(deed.value)

    def _dry(self, wheels: Iterable[str], deed: Deed) -> None:
        for wheel in wheels:
            self.wheels[wheel] = WheelFold(self.wheels[wheel].open_, dry=deed)
            self.since_bled.clear()

    # --- things ----------------------------------------------------------------------------

    def _loosen(self, deed: Deed) -> None:
        self.loose[deed.thing] = deed
        self._opened_thing(deed)

    def _tighten(self, deed: Deed) -> None:
        self.loose.pop(deed.thing, None)

    def _fit(self, deed: Deed) -> None:
        key = deed.thing, deed.wheels
        if self.missing.pop(key, None) is None:
            self.fitted[key] = deed
        self._opened_thing(deed)

    def _remove(self, deed: Deed) -> None:
        key = deed.thing, deed.wheels
        if self.fitted.pop(key, None) is None:
            self.missing[key] = deed
        self._opened_thing(deed)

    def _opened_thing(self, deed: Deed) -> None:
        proofs, circuit = THINGS.get(deed.thing, ((), ""))
        if proofs:
            self._dry(wheels_of(circuit), deed)
            self._lapse(proofs, deed, f"{deed.thing}: opened or moved", deed.owner)
        if deed.thing in ("lines", "booster"):  # they are parts of the vehicle, no tool
            self.fitted.pop((deed.thing, deed.wheels), None)

    def _joint(self, deed: Deed) -> None:
        if deed.value in (*LOOSE, "tight"):
            proofs, wheels = behind_joint(self.build, deed.thing)
            self._dry(wheels, deed)
            self._lapse(
                proofs,
                deed,
                f"the joint “{joint_called(circuits_of(self.build), deed.thing)}” was open",
            )

    # --- what is read ----------------------------------------------------------------------

    def _answer(self, deed: Deed) -> None:
        if deed.ordinal:
            self.answers[deed.owner, deed.ordinal, deed.field] = deed
            self.passed.get(deed.owner, set()).discard(deed.ordinal)
        key = deed.owner, deed.ordinal, deed.field, deed.wheels
        if deed.hold:  # the same kind of check, wherever it is made
            key = deed.hold, 0, deed.field, ()
            self.since_bled.append(deed)
        if deed.value is False:
            self.noes[key] = deed
        else:
            self.noes.pop(key, None)
        # In older files a travel may be words; with one half lost it is none of the whole vehicle.
        if deed.field == "travel" and isinstance(deed.value, float) and deed.owner != HALF_LOST:
            self.travels.append(deed)
            self.since_bled.append(deed)

    def _asked(self, deed: Deed) -> None:
        assert isinstance(deed.value, tuple)
        self.asked[deed.owner] = deed.value
        passed = self.passed.get(deed.owner, set())
        passed -= {ordinal for ordinal in passed if ordinal > len(deed.value)}

    def _passed(self, deed: Deed) -> None:
        if (deed.owner, deed.ordinal, deed.field) not in self.answers:
            self.passed.setdefault(deed.owner, set()).add(deed.ordinal)

    # --- the rest --------------------------------------------------------------------------

    def _fluid(self, deed: Deed) -> None:
        if self.fluid and self.fluid != deed.value:
            self._dry(WHEELS, deed)
            self._lapse(CLASS, deed, f"fluid of another class: {deed.value}")
        self.fluid = str(deed.value)

    def _changed(self, deed: Deed) -> None:
        assert isinstance(deed.value, tuple)
        proofs, wheels = by_changes(self.build, deed.value)
        self._dry(wheels, deed)
        self._lapse(proofs, deed, f"changed on {deed.at:%Y-%m-%d}")

    def _looked(self, deed: Deed) -> None:
        """Gauges were read, or a fault was followed: nothing is opened by it."""

    def _mended(self, deed: Deed) -> None:
        self.mended[deed.place] = deed
        proofs, wheels = by_mend(self.build, str(deed.value))
        self._dry(wheels, deed)
        self._lapse(proofs, deed, "a fault was mended")

    def _noted(self, deed: Deed) -> None:
        place = str(deed.value)
        if deed.field == "shut":
            for wheel in (place,) if place in self.wheels else WHEELS:
                self.wheels[wheel].open_.pop(deed.thing or SCREW, None)
            self.loose.pop(deed.thing, None)
        elif deed.field == "off":
            for things in (self.fitted, self.missing):
                for key in [one for one in things if one[0] == deed.thing]:
                    del things[key]
        elif deed.field == "ran-dry":
            self._dry(WHEELS, deed)
            self._lapse(OPENED, deed, "the cylinder ran dry")
        else:
            self.lifted[deed.owner, place] = deed

    def _moved(self, deed: Deed) -> None:
        self.moves.append(deed)

    def _lapse(self, proofs: Iterable[str], deed: Deed, why: str, own: str = "") -> None:
        """Take from proofs what was answered so far; a proof's own openings never do."""
        for proof in proofs:
            if proof == own:
                continue
            known = [key for key in self.answers if key[0] == proof]
            for key in known:
                del self.answers[key]
            for no in [key for key in self.noes if key[0] == proof]:
                del self.noes[no]
            if known or proof in self.lapses or self.passed.get(proof):
                self.lapses[proof] = Lapse(deed.at, why)
            self.passed.pop(proof, None)
            for lifted in [key for key in self.lifted if key[1] == proof]:
                del self.lifted[lifted]


# What takes a deed in, by what it is.
_TAKES: dict[str, Callable[[Fold, Deed], None]] = {
    what: getattr(Fold, f"_{what}") for what in get_args(What)
}


def folded(build: Build, happened: Iterable[Deed]) -> Fold:
    """Return what stands once all of it happened."""
    made = Fold(build)
    for deed in happened:
        _TAKES[deed.what](made, deed)
        if deed.what != "changed" and deed.field != "lifted":
            made.begun = True
    return made
