"""The layout's drawing for the sheet; what draws it is loaded once it is wanted."""

from urgens.document import Build


def drawing_of(build: Build) -> bytes:
    """Return the plan of a build's layout as SVG, in the light colours of paper."""
    from urgens.ui.stations.plumb.plan_file import drawing

    return drawing(build)
