"""What was done and read: bleeding wheel by wheel, proofs with their plots, stops."""

from collections.abc import Iterator

import numpy as np

from urgens.bench.proof_state import Gauged, brakes, gauged
from urgens.bench.sentences import brakes_words, verdict_words
from urgens.document.ledger.proof import GaugeRun, MeasuredStop
from urgens.document.ledger.records import ProcedureRun
from urgens.guidance.condition.proofs import standing_proofs
from urgens.guidance.condition.standing import outcome_of
from urgens.guidance.procedures.records import title_of
from urgens.guidance.procedures.step_readings import shown_reading
from urgens.guidance.tracing.chronicle import valve_name
from urgens.quantity import PRESSURE, SPEED, TEMPERATURE, ShownFigure, shown, unit_shown
from urgens.quantity.display import in_units
from urgens.sheet.blocks import Beside, Block, Drawing, Paragraphs, Rows
from urgens.sheet.chapters.told import SheetContext
from urgens.sheet.plot import INK, REAR, Plot
from urgens.sheet.table import Cell, Table
from urgens.studies.expected_pressures import Expected
from urgens.studies.valve_verdict import falling, rising

PRESSED = ("bleed", "rebleed")
WHEEL_FIELDS = ("strokes", "amount", "bubbles", "colour", "clicks", "temperature")
POINTS = 120


def bleeding(context: SheetContext) -> Iterator[Block]:
    """Yield each bleeding, wheel by wheel; context: of a build."""
    for run in context.base.records:
        if run.procedure in PRESSED:
            yield Paragraphs((_run_words(context, run),), "lead")
            rows = tuple(_wheel_rows(context, run))
            if rows:
                heads = ("Wheel", *(name.capitalize() for name in WHEEL_FIELDS))
                yield Rows(Table("At each wheel, as last read", heads, rows))
            read = tuple(_travel_rows(context, run))
            if read:
                yield Rows(Table("Pedal travel", ("When", "Travel", "Foot", "Read on"), read))


def _run_words(context: SheetContext, run: ProcedureRun) -> str:
    how = f", {run.method.replace('-', ' ')}" if run.method else ""
    fluid = ""
    if run.fluid is not None:
        batch = f", batch {run.fluid.batch}" if run.fluid.batch else ""
        opened = f", opened {run.fluid.opened}" if run.fluid.opened is not None else ""
        fluid = f"; {run.fluid.grade}{batch}{opened}"
    people = f"; by {', '.join(run.people)}" if run.people else ""
    checked = (
        f"; checked by {run.checked_by}" if run.checked_by else "; not checked by anyone named"
    )
    told = outcome_of(context.base, run).words
    left = f"; {told}" if told else ""
    setup = f", with {run.setup}" if run.setup else ""
    title = title_of(run.procedure)
    return f"{run.started:%Y-%m-%d}: {title}{how}{setup}{fluid}{people}{checked}{left}."


def _wheel_rows(context: SheetContext, run: ProcedureRun) -> Iterator[tuple[str, ...]]:
    wheels = dict.fromkeys(one.wheel for one in run.entries if one.wheel is not None)
    for wheel in wheels:
        last = {one.field: one.value for one in run.entries if one.wheel == wheel}
        cells = (
            Cell(shown_reading(name, last[name], context.units)) if name in last else "not read"
            for name in WHEEL_FIELDS
        )
        yield (wheel.replace("-", " "), *cells)


def _travel_rows(context: SheetContext, run: ProcedureRun) -> Iterator[tuple[str, ...]]:
    for one in run.entries:
        if one.field == "travel":
            when = (one.when or "now").replace("-", " ")
            travel = Cell(shown_reading("travel", one.value, context.units))
            yield when, travel, one.effort or "not told", f"{one.at:%Y-%m-%d %H:%M}"


def proved(context: SheetContext) -> Iterator[Block]:
    """Yield the standing proofs, then each valve as gauges read it; context: of a build."""
    read = gauged(context.build)
    rows = tuple((title_of(one.name), one.state.replace("-", " "), one.why)
                 for one in standing_proofs(context.build))  # fmt: skip
    yield Rows(Table("Standing", ("Proof", "State", "On record"), rows))
    for one in read:
        if one.run is not None and one.read is not None:
            verdict, more = verdict_words(one.read, context.words)
            which = valve_name(one.valve)
            said = f"{which.capitalize()}, {one.run.at:%Y-%m-%d}: {verdict} {more}"
            words = f"Out of the {which} against into it, as read, beside what the build expects"
            plot = Drawing(gauge_plot(one, one.run, context), 3.55, 3.0, words)
            told = (Paragraphs((said.rstrip(),), "lead"), Paragraphs((f"{words}.",), "muted"))
            yield Beside((plot,), told, 55)
    moved = [run for run in context.base.records if run.procedure == "prove-moving"]
    for run in moved:
        yield Paragraphs((_run_words(context, run),), "lead")


def gauge_plot(gauged: Gauged, run: GaugeRun, context: SheetContext) -> bytes:
    """Return readings across a valve as SVG, with the line that is expected and the one fitted.

    gauged: the valve; run: its readings; context: of the build.
    """
    scale = in_units(PRESSURE, context.units)
    pressed, let_go = rising(run), falling(run)
    most = 1.05 * max(float(np.max(p, initial=1e5)) for p in (*pressed, *let_go))
    plot = Plot(most / scale, most / scale, high=300.0)
    inlet = np.linspace(0.0, most, POINTS)
    low, high = gauged.wanted.band(inlet)
    plot.band(inlet / scale, low / scale, high / scale, "expected, usual tolerance")
    unit = unit_shown(PRESSURE, context.units)
    plot.axes(f"into it, {unit}", f"out of it, {unit}")
    _lines(plot, gauged.wanted, gauged, inlet, scale)
    plot.dots(pressed[0] / scale, pressed[1] / scale, INK, name="pressed")
    plot.dots(let_go[0] / scale, let_go[1] / scale, INK, full=False, name="let go")
    plot.legend()
    return plot.svg()


def _lines(plot: Plot, wanted: Expected, gauged: Gauged, inlet: np.ndarray, scale: float) -> None:
    expected = f'stroke="{INK}" stroke-width="0.9" stroke-dasharray="6 2"'
    plot.line(inlet / scale, wanted.outlet(inlet) / scale, expected, "expected")
    fit = None if gauged.read is None or not gauged.read.knows_line else gauged.read.fitted
    if fit is not None:
        out = np.where(inlet <= fit.knee, inlet, fit.knee + fit.slope * (inlet - fit.knee))
        plot.line(inlet / scale, (out + fit.offset) / scale,
                  f'stroke="{REAR}" stroke-width="1.8"', "as read")  # fmt: skip


def stopped(context: SheetContext) -> Iterator[Block]:
    """Yield the stops, and what they say of the brakes; context: of a build."""
    stops = () if context.base.proof is None else context.base.proof.stops
    if not stops:
        return
    heads = ("On", "Load", "Road", "Setting", "From", "Deceleration", "Locked", "Note")
    rows = tuple(_stop_row(context, one) for one in sorted(stops, key=lambda one: one.at))
    yield Rows(Table("Stops", heads, rows))
    known = brakes(context.build)
    if known is not None:
        yield Paragraphs((brakes_words(known, context.build.targets.surface),))


def _stop_row(context: SheetContext, stop: MeasuredStop) -> tuple[str, ...]:
    setting = ", ".join(
        f"{path.rpartition('.')[2]} {value}" for path, value in stop.setting.items()
    )
    g = stop.deceleration
    felt = "not told" if g is None else Cell(ShownFigure(f"{g:.2f}", "g"))
    warm = [f"{axle} {shown(read, TEMPERATURE, context.units)}"
            for axle, read in (("front", stop.front_temperature), ("rear", stop.rear_temperature))
            if read is not None]  # fmt: skip
    pull = f"pulls {stop.pull}" if stop.pull in ("left", "right") else ""
    note = "; ".join(words for words in (pull, *warm, stop.note) if words)
    counts = "" if stop.counts else "left out; "
    return (
        f"{stop.at:%Y-%m-%d %H:%M}", stop.load_case, f"μ {stop.surface:.2f}", setting or "not told",
        Cell(shown(stop.speed, SPEED, context.units)), felt, stop.locked, counts + note,
    )  # fmt: skip
