"""Figures of the trade: one table, and sentences that take them from it in the units shown."""

import re
from collections.abc import Iterator

import pytest

from urgens.document import Build, BuildErrors, demo, edited
from urgens.document.practice import pitch_of, practice, practice_words, turns_of
from urgens.guidance import findings
from urgens.guidance.planning.plan import plan
from urgens.guidance.procedures import METHODS, NAMES, Facts, procedure
from urgens.guidance.procedures.step import filled
from urgens.quantity import UnitSystem, parse
from urgens.solve import solve

DEMOS = ("library", "roadster", "tender", "tractor")
FIGURE = re.compile(
    r"[\d½¼¾⅛⅜⅝⅞][\d,./½¼¾⅛⅜⅝⅞\- ]*\s?"
    r"(psi|lbf|lb|in|ft|mph|°F|inHg|bar|N|kg|mm|m|km/h|°C|cm³|ml)(?![\w/²])"
)
OF_INCHES = {"psi", "lbf", "lb", "in", "ft", "mph", "°F", "inHg"}
OF_METRES = {"bar", "N", "kg", "mm", "m", "km/h", "°C", "cm³"}
EACH = pytest.mark.parametrize(
    ("name", "units"), [(name, units) for name in DEMOS for units in UnitSystem]
)
SOLD = ("3/16 in", "1/4 in")  # tubes have names of their own
# Written of the cold itself: a temperature at which the fluid's class is measured
AS_PUBLISHED = ("−40 °C",)


def wrong(units: UnitSystem) -> set[str]:
    return OF_METRES if units is UnitSystem.INCH else OF_INCHES


def sentences(build: Build, units: UnitSystem) -> Iterator[str]:
    """All that steps of procedures say, by every method."""
    words = Facts(build).figures(units)
    for name in NAMES:
        for method in METHODS if name == "bleed" else (None,):
            try:
                made = procedure(build, name, method).spelt(words)
            except BuildErrors:
                continue
            yield from made.tools
            yield from made.cautions
            for step in made.steps:
                yield from (step.text, step.why, step.no)


@EACH
def test_a_figure_in_a_procedure_is_of_the_table_or_of_the_build(
    name: str, units: UnitSystem
) -> None:
    build = demo(name)
    known = {*practice_words(units).values(), *Facts(build).figures(units).values()}
    said = 0
    for sentence in sentences(build, units):
        assert "{" not in sentence
        for found in FIGURE.finditer(sentence):
            said += 1
            assert found[1] not in wrong(units), sentence
            assert any(found[0].strip() in one for one in known), sentence
    assert said >= 4


@EACH
def test_findings_and_jobs_say_their_figures_in_the_units_shown(
    name: str, units: UnitSystem
) -> None:
    build = demo(name)
    told = []
    for one in findings(solve(build), units):
        told += [one.message, one.why, one.basis, *(fix.label for fix in one.fixes)]
    told += [job.why for job in plan(build).jobs]
    typed = {figure.removesuffix(".") for figure in re.findall(r'"([^"]+)"', repr(build))}
    for sentence in told:
        assert "{" not in sentence
        left = sentence
        for size in (*SOLD, *AS_PUBLISHED):
            left = left.replace(size, "")
        odd = {found[0] for found in FIGURE.finditer(left) if found[1] in wrong(units)}
        assert not {one for one in odd if one.strip() not in typed}, sentence


def test_a_gap_in_turns_of_the_thread_that_is_typed() -> None:
    """By hand: 0.5 mm of 1.25 is 3.2 eighths, of 25.4/24 = 1.058 mm 3.8; 1 mm is 6.4 and 7.6."""
    assert turns_of(0.5e-3, "M8 × 1.25") == "⅜ of a turn of M8 × 1.25"
    assert turns_of(0.5e-3, "3/8-24") == "½ of a turn of 3/8-24"
    assert turns_of(1e-3, "M8 × 1.25") == "¾ of a turn of M8 × 1.25"
    assert turns_of(1e-3, "3/8-24") == "1 turn of 3/8-24"
    assert turns_of(1.5e-3, "M10x1") == "1½ turns of M10x1"
    typed = edited(demo("roadster"), "pedal.pushrod_thread", "M10 x 1")
    said = Facts(typed).figures(UnitSystem.METRIC)["rod_gap_manual_turns"]
    assert said == "1 turn of M10 x 1"


@pytest.mark.parametrize("thread", ["M8", "24", "3/8", "M8 x 0", "1/2-0", "", "fine"])
def test_what_is_no_thread_is_refused(thread: str) -> None:
    assert pitch_of(thread) is None
    with pytest.raises(BuildErrors, match="not a thread known here"):
        edited(demo("roadster"), "pedal.pushrod_thread", thread)


def test_both_words_of_a_figure_say_about_the_same() -> None:
    """Each system rounds as its trade does: within a twelfth."""
    for one in practice().values():
        metric, inch = (parse(text, one.kind).value for text in (one.metric, one.inch))
        assert inch == pytest.approx(metric, rel=0.09), one.says


def test_braces_of_the_builders_own_words_stay_as_they_are() -> None:
    """A part called "{odd" or "{pin" is no place of a text; a place that is not known stays."""
    words = {"pin": "50 mm"}
    assert filled("Pin at {pin}, {odd, } and {gone}", words) == "Pin at 50 mm, {odd, } and {gone}"
