"""What is read at a step: units, bounds, and what it should be; figures by hand."""

import pytest

from tests.builds import bed
from urgens.document import demo, with_changes
from urgens.document.ledger.records import ProcedureRun
from urgens.guidance.advice.travel_reading import flow_words, later_words, strokes_words
from urgens.guidance.procedures import procedure
from urgens.guidance.procedures.amounts import swept
from urgens.guidance.procedures.step_readings import (
    clearance_words,
    expected,
    shown_reading,
    taken,
    unit_of,
)
from urgens.guidance.rules.fluids import age_words, fluid_rows, may_top_up
from urgens.guidance.words.figures import FigureWords
from urgens.quantity import QuantityError, UnitSystem
from urgens.solve import solve

INCH, METRIC = UnitSystem.INCH, UnitSystem.METRIC
MM = FigureWords(METRIC)


@pytest.mark.parametrize(
    ("field", "typed", "units", "kept"),
    [
        ("travel", "2-1/2", INCH, 63.5), ("travel", "63.5", METRIC, 63.5),
        ("travel", "2-1/2 in", METRIC, 63.5), ("pressure", "500", INCH, 34.4738),
        ("pressure", "35", METRIC, 35.0), ("temperature", "212", INCH, 100.0),
        ("temperature", "100", METRIC, 100.0), ("amount", "40", INCH, 40.0),
        ("gap", "1", METRIC, 1.0), ("clicks", "4", INCH, 4.0), ("ok", "no", INCH, False),
        ("colour", "rust", INCH, "rust"), ("note", " as was ", INCH, "as was"),
        ("travel", "  ", INCH, None),
    ],
)  # fmt: skip
def test_a_reading_is_kept_in_the_units_of_the_record(
    field: str, typed: str, units: UnitSystem, kept: object
) -> None:
    """1 in is 25.4 mm, 1 psi 0.0689476 bar, 212 °F are 100 °C; NIST SP 811 (from memory)."""
    found = taken(bed("bakery"), field, typed, units)
    assert found == (pytest.approx(kept, abs=1e-3) if isinstance(kept, float) else kept)


@pytest.mark.parametrize(
    ("field", "typed", "said"),
    [
        ("travel", "-1", "less than nothing"), ("travel", "70 in", "beyond the floor"),
        ("pressure", "9000 bar", "beyond anything"), ("amount", "3 psi", "not"),
        ("clicks", "2.5", "whole number"), ("clicks", "many", "whole number"),
        ("gap", "a lot", "a lot"), ("temperature", "4000 °C", "beyond anything"),
    ],
)  # fmt: skip
def test_a_reading_that_cannot_be_is_refused_in_words(field: str, typed: str, said: str) -> None:
    with pytest.raises(QuantityError) as refused:
        taken(bed("bakery"), field, typed, INCH)
    assert said in str(refused.value)
    assert "; " in str(refused.value)


@pytest.mark.parametrize(
    ("field", "value", "units", "said"),
    [
        ("travel", 63.5, METRIC, "63.5 mm"), ("pressure", 100.0, METRIC, "100.0 bar"),
        ("temperature", 100.0, INCH, "212 °F"), ("amount", 40.0, INCH, "40 ml"),
        ("strokes", 12.0, INCH, "12"), ("ok", True, INCH, "yes"), ("colour", "dark", INCH, "dark"),
    ],
)  # fmt: skip
def test_a_reading_is_shown_in_the_units_of_the_window(
    field: str, value: float | str | bool, units: UnitSystem, said: str
) -> None:
    assert str(shown_reading(field, value, units)) == said


def test_units_stand_beside_a_field() -> None:
    assert [unit_of(one, INCH) for one in ("travel", "amount", "clicks", "note")] == [
        "in", "ml", "", ""]  # fmt: skip


def test_what_a_step_should_read_is_what_the_press_shows() -> None:
    solution = solve(demo("roadster"))
    pressed = solution.press(200.0)
    step = procedure(demo("roadster"), "three-strokes").steps[0]
    said = expected(solution, pressed, "three-strokes", step, MM)
    assert f"{1e3 * float(pressed.pedal_travel):.0f} mm at 200 N" in said
    lost = procedure(demo("roadster"), "half-lost-test")
    read = [one for one in lost.steps if one.record is not None and one.record.field == "travel"]
    found = [expected(solution, pressed, lost.name, one, MM) for one in read]
    assert len(set(found)) == 2  # each half by itself
    gauge = procedure(demo("roadster"), "gauge-valve")
    hard = next(one for one in gauge.steps if one.press == "hard")
    said = expected(solution, pressed, gauge.name, hard, MM)
    assert "front" in said
    assert "rear" in said


def record(*entries: dict[str, object]) -> ProcedureRun:
    rows = [{"at": "2026-05-02T14:22", "step": 1, **one} for one in entries]
    build = with_changes(
        bed("bakery"),
        {"records": [{"procedure": "bleed", "started": "2026-05-02T14:00", "entries": rows}]},
    )
    return build.records[0]


def depths(*figures: float) -> ProcedureRun:
    return record(*({"field": "gap", "value": v, "step": n} for n, v in enumerate(figures, 1)))


@pytest.mark.parametrize(
    ("figures", "said"),
    [
        ((12.0, 12.0, 1.0), "leaves 1.0 mm: as it is wanted"),
        ((12.0, 12.6, 1.0), "leaves 0.4 mm: shorten it by 0.6 mm"),
        ((12.0, 10.0, 1.0), "leaves 3.0 mm: lengthen it by 2.0 mm"),
        ((12.0, 14.0, 1.0), "1.0 mm too long"),
        ((12.0, 14.0), "worked out once"),
    ],
)
def test_a_rods_clearance(figures: tuple[float, ...], said: str) -> None:
    """Depth and gasket less stand-out; by hand."""
    assert clearance_words(depths(*figures), MM).startswith(said)


def travels(**read: float) -> ProcedureRun:
    return record(*({"field": "travel", "value": v, "effort": "200 N",
                     "when": w.replace("stroke", "stroke-")} for w, v in read.items()))  # fmt: skip


@pytest.mark.parametrize(
    ("third", "said"), [(70.0, "falls by 20 mm"), (90.0, "does not fall"), (99.0, "grows by 9 mm")]
)
def test_clearance_is_told_from_air_by_three_strokes(third: float, said: str) -> None:
    """Clearance is gone on the second stroke, air stays: common practice."""
    assert said in strokes_words(travels(stroke1=90.0, stroke3=third), MM)


@pytest.mark.parametrize(
    ("later", "said"), [({"morning": 60.0}, "grown by 10 mm next morning"),
                        ({"hour": 51.0}, "after an hour is within 1 mm"), ({}, "")],
)  # fmt: skip
def test_a_pedal_that_is_low_after_hours_hid_air(later: dict[str, float], said: str) -> None:
    assert said in later_words(travels(now=50.0, **later), MM)


@pytest.mark.parametrize(
    ("amount", "bubbles", "said"),
    [(20.0, "none", "little comes"), (95.0, "fine", "with bubbles: air"),
     (95.0, "none", "all of it comes"), (200.0, "none", "more than the cylinder moves")],
)  # fmt: skip
def test_little_comes_is_told_from_bubbles_come(amount: float, bubbles: str, said: str) -> None:
    """Ten strokes of 10 ml each."""
    rows = {"strokes": 10.0, "amount": amount, "bubbles": bubbles}
    read = record(*({"field": f, "value": v, "wheel": "rear-left"} for f, v in rows.items()))
    assert said in flow_words(read, "rear-left", 10e-6)
    assert flow_words(read, "front-left", 10e-6) == ""


def test_a_stroke_moves_bore_area_times_stroke() -> None:
    """1-1/8 in, 1.4 in for two chambers: π/4 × 28.575² × 17.78 mm is 11.40 ml; by hand."""
    assert swept(bed("bakery"), "rear-left") == pytest.approx(11.40e-6, rel=1e-3)


@pytest.mark.parametrize(
    ("there", "new", "said"),
    [
        ("DOT 3", "DOT 4", "may top it up"), ("DOT 4", "DOT 5.1", "may top it up"),
        ("DOT 3", "DOT 5.1", "may top it up"), ("DOT 4", "DOT 3", "takes the boiling point down"),
        ("DOT 5.1", "DOT 4", "takes the boiling point down"), ("DOT 4", "DOT 5", "never"),
        ("DOT 5", "DOT 4", "never"), ("DOT 5", "DOT 5", "the same"),
    ],
)  # fmt: skip
def test_what_may_top_up_what(there: str, new: str, said: str) -> None:
    """Silicone and glycol never; 4 tops up 3, 5.1 both, not the other way: common practice."""
    assert said in may_top_up(there, new)


def test_fluids_are_those_of_the_standard_and_age_is_told() -> None:
    """FMVSS 116: DOT 4 boils at 230 °C dry and 155 °C wet at least (from memory)."""
    from datetime import date

    build = with_changes(bed("bakery"), {"fluid": {"class": "DOT 4", "filled": "2024-05-01"}})
    rows = {row.name: row for row in fluid_rows(build)}
    assert (rows["DOT 4"].dry, rows["DOT 4"].wet) == ("230 °C", "155 °C")
    assert "renew it within 2 years" in age_words(build, date(2025, 5, 1))
    assert "old" in age_words(build, date(2026, 11, 1))
    assert "still to come" in age_words(build, date(2023, 1, 1))
    assert "not told" in age_words(with_changes(bed("bakery"), {"fluid": None}), date(2025, 5, 1))
