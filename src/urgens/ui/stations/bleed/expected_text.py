"""What is expected at a step of bleeding beside what is read there, and what the lines hold."""

from urgens.guidance.advice.travel_reading import flow_words
from urgens.guidance.procedures import Procedure, ProcedureStep
from urgens.guidance.procedures.bled_run import ExpectedBleeding, expected_bleeding
from urgens.guidance.procedures.bled_words import bleeding_words, travel_words
from urgens.guidance.procedures.workshop import HOSE
from urgens.guidance.words.figures import FigureWords
from urgens.ui.session import Session
from urgens.ui.stations.bleed.run import PRESSED, CurrentRun


def expected_now(session: Session, run: CurrentRun, found: Procedure) -> ExpectedBleeding | None:
    """Return what a run has moved so far; None where nothing is bled, or its steps are others."""
    record = run.record
    if record is None or run.name not in PRESSED or run.stale:
        return None
    return expected_bleeding(session.build, found.steps, record, run.bled_before)


def expected_text(
    session: Session, run: CurrentRun, found: Procedure, step: ProcedureStep, now: ExpectedBleeding
) -> str:
    """Return what is expected at a step, and what a wheel that is done has told; else empty."""
    words, record = FigureWords(session.units), run.record
    told = [bleeding_words(now, step, found.method, words)]
    done = step.thing == HOSE and step.action == "remove"
    if done and record is not None:
        told += [flow_words(record, wheel, now.swept[wheel]) for wheel in step.wheels]
    if done or (step.record is not None and step.record.field == "travel"):
        told.append(travel_words(session.solution, now, session.effort, words))
    said = ". ".join(filter(None, told))
    return f"{said[:1].upper()}{said[1:]}"
