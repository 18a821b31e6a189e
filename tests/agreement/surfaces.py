"""Where an answer is read, a surface an entry: each says what it answers to which question.

An answer is what a builder would compare: a figure, a judgement, or None where there is none.
"""

import math
import re
import unicodedata
from collections.abc import Callable, Iterator
from io import BytesIO
from typing import Any

import numpy as np
from pypdf import PdfReader

from urgens.document import Build
from urgens.guidance import findings
from urgens.guidance.advice.build_comparison import compared
from urgens.guidance.words.half_lost import lost_halves
from urgens.guidance.words.setups import ON_FLOOR, rows
from urgens.printed.sizing import printed_sizing
from urgens.printed.solution import printed_solution
from urgens.quantity import UnitSystem
from urgens.sheet.blocks import Bound
from urgens.sheet.figure_rows import Row, figure_rows
from urgens.sheet.files import SheetRequest, chapters_of
from urgens.sheet.pdf import SheetDocument
from urgens.solve import solve
from urgens.solve.first_rise import AxleName
from urgens.solve.half_failed import worst_half
from urgens.solve.solution import Solution
from urgens.studies.balance_verdict import verdict_of
from urgens.studies.compare import column
from urgens.studies.sizing import rear_bores_of, sizing_map
from urgens.studies.sizing_regions import regions
from urgens.studies.sizing_windows import MissedWindow
from urgens.studies.vehicle_changes import outcome
from urgens.studies.wishes.survey import quick, slow
from urgens.studies.wishes.wanted import usual_wishes

EQUAL = 1e-9  # of a deceleration
Answers = dict[str, Any]
Surface = Callable[[Build, Solution], Answers]
PEDAL_LEFT = "half lost: pedal left [m]"
G_LEFT = "half lost: deceleration left [g]"
KEEPS_RULE = "half lost: the rule is kept with every load"
WANTED = "foot for the wanted deceleration [N]"
FITS = "what the choice misses"
REAR_FIRST = "rear first with any load on any road"
LOCKS = "Which axle locks first"  # the sheet's table of it
FIRST = "who locks first as it is looked at"


def _figure(value: float) -> float | None:
    return None if math.isnan(value) else float(value)


def solved(build: Build, solution: Solution) -> Answers:
    """The solution itself."""
    found: Answers = {WANTED: _figure(solution.wanted_effort)}
    at = solution.case, solution.road
    found[FIRST] = AxleName(int(solution.lock.axle[at])).name.lower()
    axles = solution.lock.axle[:, list(solution.roads)]
    found[REAR_FIRST] = bool((axles == AxleName.REAR).any())
    if build.split != "single":
        half = worst_half(solution.half_failed, solution.case)
        reached = bool(half.reached[solution.case])
        found[G_LEFT] = float(half.z[solution.case]) if reached else None
        floor = float(solution.system.volumes.floor)
        left = [floor - float(one.pedal_travel[solution.case]) for one in solution.half_failed]
        found[PEDAL_LEFT] = _figure(float(np.min(left)))
        found[KEEPS_RULE] = bool(np.all([one.meets_rule for one in solution.half_failed]))
    return found


def printed(build: Build, solution: Solution) -> Answers:
    """What `solve` prints."""
    told = printed_solution(solution)
    found: Answers = {FIRST: told["first_lock"]["axle"]}
    if build.split != "single":
        halves = told["half_failed"]
        assert all(one["reached"] is (one["pedal_travel"] is not None) for one in halves)
        assert not any(one["meets_rule"] and not one["reached"] for one in halves)
        gone = not all(one["reached"] for one in halves)
        floor = build.pedal.travel_available.value
        found[PEDAL_LEFT] = (
            None if gone else floor - max(float(one["pedal_travel"]) for one in halves)
        )
        found[G_LEFT] = None if gone else min(float(one["z"]) for one in halves)
    return found


def set_ups(build: Build, solution: Solution) -> Answers:
    """The rows of Set-ups."""
    told = {row.field: row.values[0] for row in rows((column(build, None, None, None),))}
    found: Answers = {WANTED: _figure(float(told["wanted"])), FIRST: told["locks_first"]}
    found[FIRST] = "none" if found[FIRST] == "nothing" else found[FIRST]
    if build.split != "single":
        for field, question in (("half_lost", G_LEFT), ("half_lost_pedal", PEDAL_LEFT)):
            said = told[field]
            found[question] = None if said == ON_FLOOR else float(said)
    return found


def half_lost(build: Build, solution: Solution) -> Answers:
    """The page Half lost."""
    if build.split == "single":
        return {}
    halves = lost_halves(solution, UnitSystem.METRIC)
    gone = any(math.isnan(one.travel) for one in halves)
    for one in halves:
        assert math.isnan(one.travel) == ("no pedal is left" in one.steps[-1])
        assert not (one.meets_rule and math.isnan(one.travel))
    floor = build.pedal.travel_available.value
    return {
        PEDAL_LEFT: None if gone else floor - max(one.travel for one in halves),
        G_LEFT: None if gone else min(one.left for one in halves),
    }


def sized(build: Build, solution: Solution) -> Answers:
    """The map, at what is chosen; what `size` prints of it; the region it lies in."""
    master = build.master
    bores, ratios = np.array([master.main_bore.value]), np.array([solution.system.pedal_ratio])
    rears = rear_bores_of(build, bores)
    found = sizing_map(build, solution.case, bores, rears, ratios)
    told = printed_sizing(build, solution.case, found)
    assert told["verdict"][0][0] == MissedWindow(int(found.verdict[0, 0])).word
    assert bool(told["ranked"]) == (found.verdict[0, 0] == MissedWindow.FITS)
    answers: Answers = {WANTED: _figure(float(found.effort[0, 0])), FITS: told["verdict"][0][0]}
    if build.split != "single":
        travel = float(found.half_failed_travel[0, 0])
        answers[PEDAL_LEFT] = (
            None if math.isnan(travel) else build.pedal.travel_available.value - travel
        )
    return answers


def region(build: Build, solution: Solution) -> Answers:
    """The region of the map that the choice lies in, where it lies in none's edge."""
    ratio = float(solution.system.pedal_ratio)
    if not 3.0 < ratio < 9.0:
        return {}
    bores = np.array([build.master.main_bore.value])
    found = regions(build, solution.case, bores, rear_bores_of(build, bores), (3.0, 9.0))
    near = {kind for start, end, kind in found.row(0) if start - 1e-6 <= ratio <= end + 1e-6}
    return {FITS: next(iter(near)).word} if len(near) == 1 else {}


def judged(build: Build, solution: Solution) -> Answers:
    """The findings."""
    codes = {one.code for one in findings(solution)}
    found: Answers = {REAR_FIRST: "rear-locks-first" in codes}
    if build.split != "single":
        found[KEEPS_RULE] = "half-failed-weak" not in codes
    return found


def ranked(build: Build, solution: Solution) -> Answers:
    """The verdict that ways are ranked by; what Choose and `valves` say of the build as it is."""
    verdict = verdict_of(build)
    found: Answers = {REAR_FIRST: bool(verdict.rear_first)}
    if build.split != "single":
        found[KEEPS_RULE] = "half-failed" not in verdict.out_of_reach
    return found


def changed_vehicle(build: Build, solution: Solution) -> Answers:
    """The page What changed, of no change."""
    return {REAR_FIRST: outcome(build).rear_first > 0}


def beside_itself(build: Build, solution: Solution) -> Answers:
    """Compare: a build beside itself differs in nothing."""
    assert compared(build, build) == ()
    return {}


def sheet_csv(build: Build, solution: Solution) -> Answers:
    """The sheet's rows, as its CSV has them: who locks first, and the findings."""
    return _sheet_says(figure_rows(_sheet(build, solution)), build, solution)


def _sheet(build: Build, solution: Solution) -> Bound:
    return chapters_of(solution, build.natural_units, SheetRequest(("balance",)))


def _sheet_says(told: list[Row], build: Build, solution: Solution) -> Answers:
    case = solution.case_name
    road = next(
        row[4] for row in told
        if row[1] == LOCKS and row[2] == case and row[3].endswith(f"μ {solution.surface:.2f}")
    )  # fmt: skip
    codes = {row[3] for row in told if row[1] == "finding"}
    found: Answers = {
        FIRST: road.partition(",")[0].partition(" up to")[0],
        REAR_FIRST: "rear-locks-first" in codes,
    }
    if build.split != "single":
        found[KEEPS_RULE] = "half-failed-weak" not in codes
    return found


def sheet_pdf(build: Build, solution: Solution) -> Answers:
    """The sheet on paper, read back: who locks first with the load and on the road looked at."""
    printed_on = PdfReader(BytesIO(SheetDocument(_sheet(build, solution)).pdf()))
    text = _letters(" ".join(page.extract_text() for page in printed_on.pages))
    row = text[text.index(_letters(LOCKS)) :].partition(_letters(solution.case_name))[2]
    cells = re.findall(r"(front|rear|none)(?:,|upto)", row)
    return {FIRST: cells[solution.shown.index(solution.road)]}


def _letters(text: str) -> str:
    """What is written, without the gaps that kerning leaves in a PDF's text."""
    return re.sub(r"\s", "", unicodedata.normalize("NFKC", text))


ON_PAPER: tuple[Surface, ...] = (sheet_pdf,)  # needs an application


def wished(build: Build, solution: Solution) -> Answers:
    """What Wishes and `wish` know of the build as it is, one row of many."""
    wishes = usual_wishes(build)
    effort = float(quick(build, {}, 1).figures["effort"][0])
    later = slow(build, {}, 1, wishes)
    reached = effort <= float(solution.system.max_effort)
    found: Answers = {WANTED: effort if reached else None}
    if np.isfinite(later.margin[0]):  # else the front locks on no road at all
        found[REAR_FIRST] = not bool(later.holds[0])
    if build.split != "single":
        left = later.figures["half-lost"][0]
        kept = bool(np.isfinite(left) and left >= wishes.half_lost * (1.0 - EQUAL))
        found[KEEPS_RULE] = kept
    return found


SURFACES: tuple[Surface, ...] = (
    solved, printed, set_ups, half_lost, sized, region, judged, ranked, changed_vehicle,
    beside_itself, sheet_csv, wished,
)  # fmt: skip


def answers(
    build: Build, surfaces: tuple[Surface, ...] = SURFACES
) -> Iterator[tuple[str, str, Any]]:
    """Yield surface, question and answer, of every surface to every question that it answers."""
    solution = solve(build)
    for surface in surfaces:
        for question, answer in surface(build, solution).items():
            yield surface.__name__, question, answer
