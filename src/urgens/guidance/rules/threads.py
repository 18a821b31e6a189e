"""What is screwed into what: threads, seats, nuts, and ports that nothing is in."""

import difflib
from collections.abc import Iterator

from urgens.document.circuits import Circuits, circuits_of
from urgens.document.layout.layout import BrakeLine
from urgens.document.layout.threads import thread_table
from urgens.guidance.rules.finding import Fix, Remark, Severity
from urgens.guidance.rules.layout_fixes import other_parts, tee_at
from urgens.guidance.rules.registry import rule
from urgens.guidance.words.figures import FigureWords
from urgens.guidance.words.parts import joint_name, line_called, port_name
from urgens.plumbing.branches import BadJoin, Problem, bad_joins
from urgens.plumbing.edits import with_plug
from urgens.solve import Solution

SOURCE = "SAE J512 and J514, ISO 4038 (from memory)"
WHY = {
    "thread": "It does not go in, or holds by two turns and lets go under pressure.",
    "strips": "It starts, feels right for a turn, and strips: the thread holds nothing.",
    "seat": "The thread holds and the seats do not meet: it leaks however hard it is pulled.",
    "taper": "A taper thread seals on the thread and splits a flare port, and a flare never seals "
    "in a taper port.",
    "nut": "The nut slips over the tube or does not go on, and no flare of this kind holds in it.",
}


def _bad(solution: Solution, *problems: Problem) -> Iterator[BadJoin]:
    layout = solution.build.plumbing
    if layout is not None:
        yield from (one for one in bad_joins(layout) if one.problem in problems)


def _at(laid: Circuits, bad: BadJoin) -> str:
    """Return where a join is: the line and the port it comes into, or the two parts."""
    if bad.line.direct:
        words = joint_name(laid, bad.line, 1)
    else:
        number = bad.line.id.removeprefix("L")
        words = f"line {number}, {joint_name(laid, bad.line, bad.end)}"
    return f"{words[:1].upper()}{words[1:]}"


def _remark(solution: Solution, bad: BadJoin, said: str) -> Remark:
    laid = circuits_of(solution.build)
    assert laid is not None
    mend = ""
    if bad.mend:
        head = "Keeps its flare" if bad.line.made else "Cheapest"
        mend = f" {head}: {', then '.join(step.words for step in bad.mend)}."
        if bad.instead:
            mend += f" Or {', then '.join(step.words for step in bad.instead)}."
    elif bad.problem != "nut":
        mend = " Nothing that is sold for it mends that: take another port or tube."
    return Remark(
        message=f"{_at(laid, bad)}: {said}.{mend}",
        why=WHY[bad.problem],
        basis=SOURCE,
        where=bad.line.id,
        fixes=other_parts(solution.build, bad),
    )


@rule("thread-mismatch", Severity.DANGER)
def thread_mismatch(solution: Solution, words: FigureWords) -> Iterator[Remark]:
    """Tell of a thread that does not go into its port."""
    for bad in _bad(solution, "thread", "strips"):
        said = f"{bad.given} does not go into {bad.wanted}"
        if bad.problem == "strips":
            said = f"{bad.given} starts in {bad.wanted} and strips it"
        yield _remark(solution, bad, said)


@rule("seat-mismatch", Severity.DANGER)
def seat_mismatch(solution: Solution, words: FigureWords) -> Iterator[Remark]:
    """Tell of a flare that does not meet its seat."""
    for bad in _bad(solution, "seat"):
        said = f"{bad.given} has the thread of {bad.wanted}, and not its seat"
        yield _remark(solution, bad, said)


@rule("taper-in-flare-port", Severity.DANGER)
def taper_in_flare_port(solution: Solution, words: FigureWords) -> Iterator[Remark]:
    """Tell of a taper thread in a port that seals by its seat, or the other way about."""
    for bad in _bad(solution, "taper"):
        said = f"{bad.given} in {bad.wanted}"
        yield _remark(solution, bad, said)


@rule("nut-does-not-fit-tube", Severity.WARNING)
def nut_does_not_fit_tube(solution: Solution, words: FigureWords) -> Iterator[Remark]:
    """Tell of a nut that is not made for its tube."""
    for bad in _bad(solution, "nut"):
        said = f"{bad.given} is no nut and flare of {bad.wanted}"
        yield _remark(solution, bad, said)


@rule("port-open", Severity.WARNING)
def port_open(solution: Solution, words: FigureWords) -> Iterator[Remark]:
    """Tell of ports that nothing is screwed into."""
    laid = circuits_of(solution.build)
    if laid is None:
        return
    for name in laid.open_ports:
        yield Remark(
            message=f"Nothing is screwed into the {port_name(laid, name)}.",
            why="An open port pumps the fluid out at the first press: join it, or plug it.",
            where=name.partition(".")[0],
            fixes=(
                Fix(
                    f"Plug the {port_name(laid, name)}", "plumbing", with_plug(laid.plumbing, name)
                ),
            ),
        )


@rule("thread-unknown", Severity.WARNING)
def thread_unknown(solution: Solution, words: FigureWords) -> Iterator[Remark]:
    """Tell of threads that are in no table: nothing is told of what goes into them."""
    laid = circuits_of(solution.build)
    if laid is None:
        return
    known = [one.name for one in thread_table().threads]
    ports = [(part.id, f"{part.id}.{name}", port.thread)
             for part in laid.plumbing.parts for name, port in part.ports.items()]  # fmt: skip
    for part, name, thread in ports:
        if thread is None or thread in known:
            continue
        near = difflib.get_close_matches(thread, known, n=1)
        yield Remark(
            message=f"The {port_name(laid, name)} has a thread “{thread}”, which is none of those "
            "known here.",
            why="Whether anything goes into it is not told"
            + (f"; did you mean {near[0]}?" if near else ": measure its diameter and pitch."),
            where=part,
        )


@rule("port-joined-twice", Severity.WARNING)
def port_joined_twice(solution: Solution, words: FigureWords) -> Iterator[Remark]:
    """Tell of ports that two lines end in."""
    laid = circuits_of(solution.build)
    if laid is None:
        return
    for name, count in laid.joined.items():
        if count > 1:
            lines = [line for line in laid.plumbing.lines if name in (line.start, line.to)]
            yield Remark(
                message=f"{_listed(laid, lines)} end in one port, {port_name(laid, name)}.",
                why="One port takes one nut: a tee or a block makes two of it.",
                where=lines[-1].id,
                fixes=tee_at(laid, name),
            )


def _listed(laid: Circuits, lines: list[BrakeLine]) -> str:
    words = " and ".join(line_called(laid, line) for line in lines)
    return f"{words[:1].upper()}{words[1:]}"
