"""The builds that ship with Urgens: invented vehicles, and one to start from."""

from urgens.data import BUILDS, FOLDER, SUFFIX, demo_names
from urgens.document.build import Build
from urgens.document.errors import BuildErrors
from urgens.document.files import loads

_OWN = FOLDER / f"own{SUFFIX}"


def demo_text(name: str) -> str:
    """Return the content of the shipped build file `name`; raises BuildErrors if there is none."""
    if name not in demo_names():
        known = " or ".join(demo_names())
        raise BuildErrors.one(name, "is no demo build", f"choose {known}")
    return (BUILDS / f"{name}{SUFFIX}").read_text(encoding="utf-8")


def own_vehicle_text() -> str:
    """Return the file of the build a builder starts from."""
    return _OWN.read_text(encoding="utf-8")


def own_vehicle() -> Build:
    """Return the build a builder starts from: common figures, every one marked as assumed."""
    return loads(own_vehicle_text())


def demo(name: str) -> Build:
    """Return the shipped build `name`; raises BuildErrors if there is none."""
    return loads(demo_text(name))
