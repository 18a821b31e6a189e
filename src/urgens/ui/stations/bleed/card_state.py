"""What the card is about: a step, a question, or why it does not go on; and its words."""

from typing import Any

from urgens.document.ledger.records import ProcedureRun
from urgens.guidance.advice.travel_reading import travel_words
from urgens.guidance.condition.halt import SPONGY, Halt, halt
from urgens.guidance.condition.joints import held_by_joints
from urgens.guidance.condition.limits import limits_of
from urgens.guidance.procedures.workshop import standing_before
from urgens.guidance.words.figures import FigureWords
from urgens.ui.session import Session
from urgens.ui.stations.bleed.run import PRESSED, CurrentRun
from urgens.ui.stations.bleed.work_buttons import Mode

GIVEN_UP = "Given up, it ends here: what was read and done so far stays on record."
STALE = "Give it up and begin it again: what was done so far stays on record, and counts."


class CardState:
    """Beside the run itself: whether it is paused, or is being left, and what has stopped it.

    `gone_past` are the places of entries that stopped it, and that a hand has gone past.
    """

    def __init__(self, session: Session, run: CurrentRun) -> None:
        self._session, self._run = session, run
        self.paused = self.leaving = False
        self.gone_past: set[int] = set()
        self.halt: Halt | None = None

    @property
    def mode(self) -> Mode:
        """What the card is about now."""
        if self._run.record is None:
            return Mode.IDLE
        if self._run.stale:
            return Mode.STALE
        if self.paused:
            return Mode.PAUSED
        if self.leaving:
            return Mode.LEAVING
        return Mode.GOING if self.halt is None or self.in_hand else Mode.HALTED

    @property
    def in_hand(self) -> bool:
        """Whether a screw is open or the pedal is held down by this run: that is ended first."""
        made = self._run.procedure(None)
        now = standing_before(made.steps, self._run.number, made.begins)
        return now.held or bool(now.open_)

    @property
    def loose(self) -> str:
        """What joint has come loose since a bleeding was begun, in words; empty where none has."""
        if self._run.record is None or self._run.name not in PRESSED:
            return ""
        words = held_by_joints(self._session.base)
        return f"{words}, and note it." if words else ""

    def look(self) -> None:
        """Look what stops the run as it is now."""
        record = None if self._run.stale else self._run.record
        read = 0 if record is None else len(record.entries)
        self.gone_past = {place for place in self.gone_past if place < read}  # some were undone
        self.halt = None if record is None else self._halt(record)

    def stops(self, readings: list[dict[str, Any]]) -> bool:
        """Tell whether readings stop the card where it stands; they are not on record yet."""
        record = self._run.record_with(readings)
        found = None if record is None else self._halt(record)
        if record is None or found is None or self.in_hand:
            return False
        return found.entry >= len(record.entries) - len(readings)

    def _halt(self, record: ProcedureRun) -> Halt | None:
        found = halt(self._session.base, record, self._run.procedure(None).steps)
        return None if found is None or found.entry in self.gone_past else found

    # --- in words ----------------------------------------------------------------------------

    def asked(self, mode: Mode, open_: str) -> tuple[str, str]:
        """Return what stands on a card that does not go on by itself, and what is to be known.

        open_: the screws that stand open, in words.
        """
        number = self._run.number
        if mode is Mode.PAUSED:
            stays = f"{open_.capitalize()}: open. " if open_ else ""
            return f"Paused at step {number}.", f"{stays}Enter goes on from there."
        if mode is Mode.LEAVING:
            stays = f"{open_.capitalize()}: open; left so it holds the vehicle."
            return "Pause, to go on from here later, or give it up?", stays if open_ else GIVEN_UP
        if mode is Mode.STALE:
            return "The steps of this run are others now: the build has changed, or Urgens.", STALE
        assert self.halt is not None  # it is what halts
        read = f"Step {self.halt.step}: {self.halt.read}."
        return read, " ".join(filter(None, [self._air(self.halt), self.halt.words]))

    def first(self, why: str) -> str:
        """Return why a step is done, with what has stopped the run and is shown once all is shut.

        why: of the step.
        """
        if self.halt is None:
            return why
        return f"Step {self.halt.step}: {self.halt.read}. First shut and let go. {why}"

    def _air(self, found: Halt) -> str:
        """Return how much air a travel would be that stopped the card, empty where it is none."""
        record = self._run.record
        if record is None or found.sign != SPONGY:
            return ""
        words = FigureWords(self._session.units)
        told = travel_words(limits_of(self._session.base), record.entries[found.entry], words)
        return f"{told[:1].upper()}{told[1:]}." if told else ""
