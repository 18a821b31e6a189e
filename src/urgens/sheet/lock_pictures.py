"""Which axle locks first, as a small picture that is read in passing, in black and white too."""

from functools import cache

from urgens.sheet.blocks import Drawing
from urgens.sheet.plot import INK
from urgens.solve import AxleName

WIDE, HIGH = 1.12, 0.47  # inches
WHEELS = {AxleName.FRONT: 20.0, AxleName.REAR: 64.0}  # px; the front is to the left
RADIUS = 9.0  # px
ROAD = 33.0  # px
WORDS = {
    AxleName.NONE: "nothing locks",
    AxleName.FRONT: "front first",
    AxleName.REAR: "REAR FIRST",
}


@cache
def lock_picture(axle: AxleName) -> Drawing:
    """Return a vehicle from its left side, the wheel that locks first black, the others open.

    axle: that locks first. A wheel that slides leaves its mark on the road behind it.
    """
    drawn = [
        f'<path d="M5 24 L7 15 L25 13 L35 5 L57 5 L66 13 L79 15 L80 24 Z" fill="#FFFFFF" '
        f'stroke="{INK}" stroke-width="1.4" stroke-linejoin="round"/>',
        f'<line x1="0" y1="{ROAD}" x2="86" y2="{ROAD}" stroke="{INK}" stroke-width="0.7"/>',
    ]
    for name, x in WHEELS.items():
        locked = name is axle
        drawn.append(
            f'<circle cx="{x}" cy="{ROAD - RADIUS}" r="{RADIUS - 0.7}" stroke="{INK}" '
            f'stroke-width="1.4" fill="{INK if locked else "#FFFFFF"}"/>'
        )
        if locked:
            drawn.append(
                f'<line x1="{x}" y1="{ROAD + 1.2}" x2="{x + 20}" y2="{ROAD + 1.2}" '
                f'stroke="{INK}" stroke-width="2.4"/>'
            )
    head = '<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 86 36">'
    svg = "\n".join([head, *drawn, "</svg>", ""]).encode()
    return Drawing(svg, WIDE, HIGH, WORDS[axle])
