"""What the lines of a layout are cut from, and what else they take."""

from collections import Counter
from collections.abc import Iterable, Sequence

from urgens.document.layout.layout import BrakeLine, Plumbing
from urgens.document.layout.line_sheets import MadeLine
from urgens.plumbing.cut_list import Stick, nested
from urgens.quantity import LENGTH, Quantity, parse

# As tube is usually sold, and what a saw takes: common practice
STOCK, SAW = parse("25 ft", LENGTH), parse("1 mm", LENGTH)

Cut = tuple[Quantity, tuple[Stick, ...]]


def cut_from(lines: Sequence[MadeLine], stock: float, saw: float) -> tuple[Cut, ...]:
    """Return the stock lengths of each tube, and what is cut from them.

    lines: lines as they are made; stock: length that is sold [m]; saw: lost in a cut [m].
    Lines that cannot be bent, or whose tube is not said, are not among them.
    Raises TooLongError as `nested`.
    """
    tubes: dict[float, Quantity] = {}
    pieces: dict[float, list[tuple[str, float]]] = {}
    for one in lines:
        tube = one.line.tube
        if tube is None or one.sheet is None:
            continue
        size = round(tube.value, 6)
        tubes.setdefault(size, tube)
        pieces.setdefault(size, []).append((one.line.id, one.length))
    return tuple((tubes[size], nested(cut, stock, saw)) for size, cut in sorted(pieces.items()))


def counted(plumbing: Plumbing) -> tuple[tuple[str, int], ...]:
    """Return what a whole layout takes besides tube, and how many of each, in order of its name.

    Washers go by the eyes on a bolt, one more than them. Source: common practice: used once.
    """
    found = fittings_on(plumbing.lines)
    for part in plumbing.parts:
        if part.kind == "banjo":
            found["copper washer"] += part.washers_wanted
        if part.kind not in ("wheel-brake", "master"):
            found[part.kind] += 1
    return tuple(sorted(found.items()))


def fittings_on(lines: Iterable[BrakeLine]) -> Counter[str]:
    """Return the nuts of some lines, and what is slid on before the flare, counted; lines: some.

    Source: by definition.
    """
    found: Counter[str] = Counter()
    for line in lines:
        found.update(f"nut {end.nut}" for end in line.ends)
        found.update(line.slide_on_first)
    return found
