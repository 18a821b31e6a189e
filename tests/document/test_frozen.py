"""A build cannot be changed in place, at any depth: only another one can be made of it."""

from collections.abc import Iterator, Mapping
from datetime import date
from typing import Any

import pytest

from tests.builds import EVERYTHING, bakery_with, bed
from urgens.document import Build, demo, demo_names, dumps, edited, with_setup
from urgens.document.model import DocumentModel
from urgens.quantity import Quantity

BUILDS = [*map(demo, demo_names()), bakery_with(EVERYTHING)]
PLAIN = (str, int, float, bool, date, Quantity, type(None))


def held(value: Any, place: str) -> Iterator[tuple[str, Any]]:
    """Everything a value holds, by its place."""
    yield place, value
    if isinstance(value, DocumentModel):
        inner = [(f"{place}.{name}", getattr(value, name)) for name in type(value).model_fields]
    elif isinstance(value, Mapping):
        inner = [(f"{place}[{name}]", one) for name, one in value.items()]
    elif isinstance(value, tuple):
        inner = [(f"{place}[{index}]", one) for index, one in enumerate(value)]
    else:
        inner = []
    for name, one in inner:
        yield from held(one, name)


@pytest.mark.parametrize("build", BUILDS, ids=lambda build: build.name)
def test_nothing_in_a_build_can_be_changed(build: Build) -> None:
    everything = dict(held(build, "build"))

    assert len(everything) > 100
    for place, value in everything.items():
        assert isinstance(value, (DocumentModel, Mapping, tuple, *PLAIN)), place
        if isinstance(value, Mapping):
            with pytest.raises(TypeError, match="does not support item assignment"):
                value["x"] = 1  # type: ignore[index]
        elif isinstance(value, DocumentModel) and type(value).model_fields:
            name = next(iter(type(value).model_fields))
            with pytest.raises(ValueError, match="frozen"):
                setattr(value, name, None)


def test_what_is_given_can_be_changed_afterwards_and_the_build_stays() -> None:
    part = {"kind": "tandem", "bore": "1 in", "stroke": "1.4 in"}
    changes = {"master": part, "targets.surface": 0.8}
    build = edited(bed("roadster"), "setups", [{"name": "other", "changes": changes}])
    text = dumps(build)
    part["bore"] = "2 in"
    changes["targets.surface"] = 0.1
    laid = with_setup(build, "other")

    assert dumps(build) == text
    assert laid.master.bore.text == "1 in"  # type: ignore[union-attr]
    assert laid.targets.surface == 0.8
