"""Demo builds with a few figures changed."""

from collections.abc import Mapping

from urgens.document import Build, demo, with_changes


def pickup_with(changes: Mapping[str, object]) -> Build:
    """The pickup after changes {path: value}."""
    return with_changes(demo("pickup"), changes)
