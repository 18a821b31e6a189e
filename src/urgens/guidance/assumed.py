"""Whether an assumed figure decides who locks first."""

from collections.abc import Iterator

import numpy as np

from urgens.build import BuildErrors, edited, value_at
from urgens.build.facts import half_width
from urgens.guidance.finding import Finding, Severity
from urgens.guidance.registry import rule
from urgens.guidance.words import Words, state
from urgens.physics.vehicle import Standing
from urgens.quantity import Quantity
from urgens.solve import AxleName, Solution, first_lock, system
from urgens.solve.spread import default_spread


@rule("assumed-figure-decides")
def assumed_figure_decides(solution: Solution, words: Words) -> Iterator[Finding]:
    """Tell of an assumed figure at one end of whose spread the rear locks first."""
    count = solution.judged
    if (solution.lock.axle[:, :count] == AxleName.REAR).any():
        return
    for path, known in solution.build.evidence.items():
        if known.state != "assumed":
            continue
        value = value_at(solution.build, path)
        spread = known.spread or default_spread(solution.build, path)
        if (
            spread is None
            or isinstance(value, bool)
            or not isinstance(value, Quantity | float | int)
        ):
            continue
        for sign, end in ((-1.0, "low"), (1.0, "high")):
            found = _rear_first(solution, path, value, sign * half_width(spread, value))
            if found is None:
                continue
            case, surface = found
            text = value.text if isinstance(value, Quantity) else f"{value:g}"
            yield Finding(
                code="assumed-figure-decides",
                severity=Severity.WARNING,
                message=f"{path} is assumed at {text}; at the {end} end of its spread "
                f"({spread}) the rear locks first: {state(case, surface)}.",
                why="What nobody measured decides whether the vehicle spins: settle it first.",
                basis="the build's own evidence",
                where=path,
            )
            return


def _rear_first(
    solution: Solution, path: str, value: Quantity | float, change: float
) -> tuple[str, float] | None:
    """Return the load case and surface where the rear locks first with the figure changed."""
    if isinstance(value, Quantity):
        new: object = f"{value.value + change:.9g} {value.kind.si}"
    else:
        new = value + change
    try:
        made = system(edited(solution.build, path, new))
    except BuildErrors:
        return None  # the end of the spread is no build at all
    cases = Standing(*(np.asarray(v)[:, None] for v in made.standing))
    lock = first_lock(made, cases, np.array(solution.surfaces[: solution.judged]))
    rear = np.argwhere(lock.axle == AxleName.REAR)
    if not rear.size:
        return None
    case, road = rear[-1]
    return made.case_names[case], solution.surfaces[road]
