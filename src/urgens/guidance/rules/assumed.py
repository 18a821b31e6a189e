"""Whether an assumed figure decides who locks first."""

from collections.abc import Iterator

import numpy as np

from urgens.document.catalogue import named
from urgens.document.evidence import open_figures
from urgens.document.facts import UNSEEN
from urgens.guidance.rules.finding import Remark, Severity
from urgens.guidance.rules.registry import rule
from urgens.guidance.words.figures import FigureWords, state
from urgens.solve import AxleName, Solution
from urgens.studies.settle import at_both_ends


@rule("assumed-figure-decides", Severity.WARNING)
def assumed_figure_decides(solution: Solution, words: FigureWords) -> Iterator[Remark]:
    """Tell of an assumed or planned figure at one end of whose spread the rear locks first."""
    roads = list(solution.roads)
    if (solution.lock.axle[:, roads] == AxleName.REAR).any():
        return
    figures = tuple(
        figure
        for figure in open_figures(solution.build)
        if figure.state in UNSEEN and figure.spread is not None
    )
    if not figures:
        return
    surfaces = np.array([solution.surfaces[road] for road in roads])
    rear = at_both_ends(solution.build, figures, surfaces).axle == AxleName.REAR
    for index, figure in enumerate(figures):
        for end, name in ((rear[index], "low"), (rear[len(figures) + index], "high")):
            if not end.any():
                continue
            case, road = np.argwhere(end)[-1]
            place = state(solution.system.case_names[case], float(surfaces[road]))
            called = named(solution.build, figure.path)
            yield Remark(
                message=f"{called} is {figure.state} at {figure.text}; at the {name} end of its "
                f"spread ({figure.spread}) the rear locks first: {place}.",
                why="What nobody measured decides whether the vehicle spins: settle it "
                f"first: {figure.figure.entry.settled}.",
                basis="the build's own evidence",
                where=figure.path,
            )
            return
