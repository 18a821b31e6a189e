"""The last card: what was taken off or loosened is back, what was fitted is off again."""

from urgens.guidance.procedures.step import ProcedureStep, StepReading

OFF = ("fit", "remove")
BACK = (("remove", "fit"), ("loosen", "tighten"))
LOCAL = "Local rules and a look by a qualified person come before the road."


def closing(steps: tuple[ProcedureStep, ...]) -> ProcedureStep | None:
    """Return the card that names each thing once more, None where nothing was moved.

    steps: of a procedure. Source: common practice.
    """
    first: dict[str, str] = {}
    last: dict[str, str] = {}
    for step in steps:
        moves = step.action in ("fit", "remove", "loosen", "tighten") and not step.for_good
        if step.thing and moves:
            first.setdefault(step.thing, step.action)
            last[step.thing] = step.action
    off = [thing for thing in first if (first[thing], last[thing]) == OFF]
    back = [thing for thing in first if (first[thing], last[thing]) in BACK]
    said = []
    if back:
        said.append(f"Back and tight: {', '.join(back)}.")
    if off:
        said.append(f"Off again: {', '.join(off)}.")
    if any(step.action == "open" for step in steps):
        said.append("Every bleed screw shut and capped.")
    if not said:
        return None
    return ProcedureStep(
        " ".join(said), f"Look at each once more. {LOCAL}", "check", record=StepReading("ok")
    )
