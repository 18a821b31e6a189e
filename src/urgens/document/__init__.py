"""The document: one vehicle's brake system, its file, its faults in words, its edits."""

from urgens.data import SUFFIX, demo_names
from urgens.document.build import Build
from urgens.document.demo import demo, demo_text, own_vehicle
from urgens.document.edits.change import BuildChange, changed
from urgens.document.edits.edit import edited, with_changes
from urgens.document.edits.setups import whole, with_setup
from urgens.document.errors import BuildError, BuildErrors
from urgens.document.files import dumps, load, loads, save
from urgens.document.paths import value_at
from urgens.document.schema import schema

__all__ = [
    "SUFFIX",
    "Build",
    "BuildChange",
    "BuildError",
    "BuildErrors",
    "changed",
    "demo",
    "demo_names",
    "demo_text",
    "dumps",
    "edited",
    "load",
    "loads",
    "own_vehicle",
    "save",
    "schema",
    "value_at",
    "whole",
    "with_changes",
    "with_setup",
]
