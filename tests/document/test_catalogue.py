"""The catalogue: every figure a build can have is described once, and read from there."""

import math
from collections.abc import Iterator
from typing import Any, get_args, get_origin

import pytest
from hypothesis import given, settings

from tests.builds import bed
from tests.strategies import documents
from urgens.document import BuildErrors, demo_names, schema
from urgens.document.build import Build
from urgens.document.catalogue import (
    _Field,
    _field,
    column_name,
    counting,
    figure,
    figures,
    is_figure,
    named,
    places,
)
from urgens.document.model import DocumentModel, Typed
from urgens.document.numeric import NumericBuild
from urgens.document.validation import validated

NO_FIGURES = {
    "version",
    "working",
    "drawn_at",
    "count",
    "washers",
    "eyes",
    "step",
    "done",
    "strokes",
    "since_filled",  # of a record
    "value",  # that was read: its field says of what
    "points",  # read off gauges
    "lever",
    "setting",  # of a stop, by path
    "price",  # of a set-up, in a money of its builder's own
}  # numbers and marks of the file itself


def fields(
    model: type[DocumentModel], seen: set[type[DocumentModel]]
) -> Iterator[tuple[str, _Field]]:
    """Every field of a model and of the parts in it, with what the model says of it."""
    if model in seen:
        return
    seen.add(model)
    for name in model.model_fields:
        yield from leaves(f"{model.__name__}.{name}", _field(model, name), seen)


def leaves(
    place: str, field: _Field, seen: set[type[DocumentModel]]
) -> Iterator[tuple[str, _Field]]:
    for option in field.options:
        if isinstance(option, type) and issubclass(option, DocumentModel):
            yield from fields(option, seen)
        elif get_origin(option) is tuple:
            arguments = [a for a in get_args(option) if a is not Ellipsis]
            for index, _ in enumerate(arguments):
                yield from leaves(f"{place}[{index}]", field.item(index), seen)
        else:
            yield place, field


def test_every_quantity_and_every_number_has_an_entry() -> None:
    found = list(fields(Build, set()))
    lacking = [
        place
        for place, field in found
        if (any(isinstance(mark, Typed) for mark in field.marks) or {float, int} & {*field.options})
        and field.entry is None
        and place.rpartition(".")[2].partition("[")[0] not in NO_FIGURES
    ]

    assert len(found) > 150
    assert lacking == []


def test_an_entry_says_what_a_builder_needs() -> None:
    for place, field in fields(Build, set()):
        entry = field.entry
        if entry is None:
            continue
        assert entry.name[0].isupper(), place
        assert entry.settled, place
        assert len(entry.help) > 10, place
        assert not entry.help.endswith("."), place


@pytest.mark.parametrize("name", demo_names())
def test_figures_of_a_demo_build_are_told_apart_by_name(name: str) -> None:
    build = bed(name)
    paths = [one.path for one in figures(build)]
    names = [named(build, path) for path in paths]

    assert len(paths) == len(set(paths)) > 50
    assert {n for n in names if names.count(n) > 1} == set()
    assert all(figure(build, path).path == path for path in paths)
    assert all(column_name(build, path) for path in paths)


@settings(max_examples=40)
@given(documents())
def test_a_figure_is_what_stands_in_the_document(document: dict[str, Any]) -> None:
    """Its number is the document's, inside its limits; what counts is part of what is there."""
    build = validated(document)
    found = {one.path: one for one in figures(build)}
    for one in found.values():
        if one.kind == "text":
            continue
        assert one.low <= one.number <= one.high, one.path
        assert one.inside(one.number) == one.number
        assert one.low <= one.inside(-math.inf if one.low > -math.inf else 0.0)
        assert one.inside(math.inf if one.high < math.inf else 1.0) <= one.high
    assert {one.path for one in counting(build)} <= set(found)


def test_a_reading_takes_what_is_laid_over_it() -> None:
    build = bed("roadster")
    for one in figures(build):
        if one.kind == "text":
            continue
        steps = one.path.replace("]", "").replace("[", ".").split(".")
        over = {one.path: one.number + 1.0}
        for reading, value in ((NumericBuild(build), 0.0), (NumericBuild(build, over), 1.0)):
            assert read(reading, steps) == pytest.approx(one.number + value), one.path


def read(reading: NumericBuild, steps: list[str]) -> Any:
    name, *rest = steps
    if not rest:
        return reading[name]
    here = getattr(reading.part, name)
    if not rest[0].isdigit():
        return read(reading.of(name), rest)
    index = int(rest[0])
    if isinstance(here[index], DocumentModel):
        return read(reading.each(name)[index], rest[1:])
    if isinstance(here[index], tuple):
        return reading.table(name)[index][int(rest[1])]
    return reading.row(name)[index]


def test_what_is_no_figure_is_refused_in_words() -> None:
    build = bed("bakery")
    for path, words in (
        ("rear.brake", "rear.brake: is no figure"),
        ("rear.brake.kind", "rear.brake.kind: is no figure"),
        ("rear.brake.pad_friction", "is not in this build"),
        ("valves.rear[4].knee", "is not in this build"),
        ("__class__", "is not in this build"),
        ("rules", "is not in this build"),
        ("not a path", "is not a path"),
    ):
        with pytest.raises(BuildErrors, match=words.replace(".", r"\.").replace("[", r"\[")):
            figure(build, path)
        assert not is_figure(build, path)


def test_what_could_be_given_has_a_place() -> None:
    found = list(places(bed("bakery"), "valves.front[0]"))

    assert found == [f"valves.front[0].{name}" for name in ("close", "open", "full")]
    assert figure(bed("bakery"), "valves.front[0].full").value is None
    assert not is_figure(bed("bakery"), "valves.front[0].full")


def test_the_schema_reads_the_catalogue() -> None:
    knee = schema()["$defs"]["Reducing"]["properties"]["knee"]

    assert knee["title"] == "Knee"
    assert knee["description"].startswith("Inlet pressure from which the valve passes only a share")
    assert knee["x-settled"] == "two gauges across the valve"
    assert knee["x-spread"] == "5 %"
    assert knee["x-unit"] == "Pa"
