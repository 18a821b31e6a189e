"""The lines of a layout as the JSON object, and the words, that the command line prints."""

from collections.abc import Iterable, Iterator, Mapping, Sequence
from typing import Any

from urgens.document.layout.layout import Plumbing
from urgens.document.layout.line_sheets import MadeLine
from urgens.guidance import Finding
from urgens.guidance.advice.layouts import Alternative
from urgens.plumbing.shopping import Cut, counted
from urgens.quantity import ANGLE, LENGTH, Units, show


def printed_lines(
    plumbing: Plumbing, lines: Sequence[MadeLine], cut: Sequence[Cut], findings: Sequence[Finding]
) -> dict[str, Any]:
    """Return lines, stock and parts as plain JSON values, SI throughout.

    lines: its lines; cut: from which stock.
    findings: what there is to say about the build.
    Source: RFC 8259; the names are those of the contract.
    """
    return {
        "lines": [_line(one, findings) for one in lines],
        "stock": [
            {
                "tube": tube.text,
                "pieces": [list(piece) for piece in stick.pieces],
                "left": stick.left,
            }
            for tube, sticks in cut
            for stick in sticks
        ],
        "parts": [{"part": part, "count": count} for part, count in counted(plumbing)],
    }


def printed_alternatives(
    alternatives: Iterable[Alternative], prices: Mapping[str, float]
) -> list[dict[str, Any]]:
    """Return what could be laid instead as plain JSON values.

    alternatives: the alternatives, in order; prices: by kind of part and for a line [-].
    Source: RFC 8259; the names are those of the contract.
    """
    return [
        {
            "name": one.school.name,
            "what": one.school.words,
            "joints": one.joints,
            "parts": one.parts,
            "minutes": one.minutes,
            "price": None if not prices else one.price(prices)[0],
            "unpriced": list(one.price(prices or {})[1]),
            "loses": one.school.loses,
            "changes": sorted({*one.change.values, *one.change.orders} - {"plumbing"}),
        }
        for one in alternatives
    ]


def _line(line: MadeLine, findings: Sequence[Finding]) -> dict[str, Any]:
    sheet = line.sheet
    bends = [] if sheet is None else zip(
        sheet.feed.tolist(), sheet.rotation.tolist(), sheet.angle.tolist(),
        line.settings.tolist(), strict=True,
    )  # fmt: skip
    return {
        "id": line.line.id,
        "length": None if sheet is None else line.length,
        "bends": [
            {"feed": feed, "rotation": rotation, "angle": angle, "set": setting}
            for feed, rotation, angle, setting in bends
        ],
        "last": None if sheet is None else sheet.last,
        "before_flare": list(line.before_flare),
        "findings": [one.printed() for one in findings if one.where == line.line.id],
    }


def bend_words(lines: Sequence[MadeLine], units: Units) -> Iterator[str]:
    """Yield the bend sheets as a builder reads them.

    lines: lines.

    Feed, rotation and angle, in the order of the work.
    """
    for one in lines:
        if one.sheet is None:
            yield f"{one.line.id}: cannot be bent: {one.fault}"
            continue
        yield f"{one.line.id}: cut {show(one.length, LENGTH, units)}"
        if one.before_flare:
            yield f"  on first: {', '.join(one.before_flare)}"
        rows = zip(one.sheet.feed, one.sheet.rotation, one.settings, strict=True)
        for place, (feed, rotation, angle) in enumerate(rows, start=1):
            yield (
                f"  bend {place}: feed {show(feed, LENGTH, units)}, "
                f"turn {show(rotation, ANGLE, units)}, bend {show(angle, ANGLE, units)}"
            )
        yield f"  last straight {show(one.sheet.last, LENGTH, units)}"
