"""Every figure of a build, with what the catalogue says of it."""

import math
import re
from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace
from functools import cached_property, lru_cache
from types import NoneType, UnionType
from typing import Annotated, Any, Literal, Union, get_args, get_origin

from annotated_types import Ge, Gt, Le, Lt
from pydantic.fields import FieldInfo

from urgens.document.build import Build
from urgens.document.entry import Entry
from urgens.document.errors import BuildErrors
from urgens.document.laid_fluid import replaced
from urgens.document.model import DocumentModel, SignRule, Typed
from urgens.document.paths import steps, value_at
from urgens.quantity import Quantity, QuantityKind, Units, UnitSystem, with_unit

LEAST_SHARE = 1e-3  # of a figure, or of what is left to a limit: ends of a spread stay inside
NUMBER_STEP = 0.01
_AXLE = re.compile(r"(front|rear)\.")
_VALVE = re.compile(r"valves\.(front|rear)\[\d+\]\.")
_ROW = re.compile(r".*\[(\d+)\]\[\d+\]")
_SPACES = {"booster.envelope.": "Shell", "booster.room.": "Room"}
_POINT = re.compile(r"(plumbing\.lines\[\d+\])\.route\[(\d+)\]\[(\d+)\]")
_LAID = re.compile(r"(plumbing\.(?:lines|parts)\[\d+\])\.")
_MEASURED = re.compile(r"proof\.(gauges|stops|logs|wear)\[(\d+)\]\.")
_RUNS = {"gauges": "Gauges", "stops": "Stop", "logs": "Log", "wear": "Wear"}
_CASE = re.compile(r"vehicle\.load_cases\[(\d+)\]\.")
NOTHING = (0.0, 1.0)  # defaults that stand for: not there, no loss, as the other axle


@dataclass(frozen=True)
class Figure:
    """One figure: its path and entry, what stands there, and between what it has to stay [SI].

    `kind` None is a pure number, "text" a code such as a tyre's; `value` None where it is not
    given. `low` and `high` are allowed themselves where they are `closed`; `part` is what it
    stands in; `whole` is a number that counts things; `unit` is one of its own.
    """

    path: str
    entry: Entry
    kind: QuantityKind | Literal["text"] | None
    value: Quantity | float | str | None
    part: DocumentModel
    low: float
    high: float
    closed: tuple[bool, bool]
    whole: bool
    unit: str | None = None

    @property
    def number(self) -> float:
        """What stands there [SI]; raises TypeError where it is no number."""
        if isinstance(self.value, Quantity):
            return self.value.value
        if isinstance(self.value, str) or self.value is None:
            raise TypeError(f"{self.path} is no number")
        return float(self.value)

    @property
    def text(self) -> str:
        """What stands there, as typed."""
        if isinstance(self.value, Quantity):
            return self.value.text
        return "" if self.value is None else str(self.value)

    @property
    def is_given(self) -> bool:
        """Whether it stands in the build, and is not the default of its part."""
        return self.path.rpartition(".")[2].partition("[")[0] in self.part.model_fields_set

    @property
    def usual_spread(self) -> str | None:
        """What it is usually off by, None where it counts as exact."""
        return self.entry.spread_in(self.part)

    @property
    def step(self) -> float:
        """The natural step of a pure number."""
        step = self.entry.step_in(self.part)
        return NUMBER_STEP if step is None else step

    def shown_in(self, units: Units) -> Units:
        """Return the units it is shown in: its own where it has some."""
        if self.unit is not None and isinstance(self.kind, QuantityKind):
            own = with_unit(units, self.kind, self.unit)
            if own is not None:
                return own
        if self.entry.units is None or not isinstance(self.kind, QuantityKind):
            return units
        name = self.entry.units[0 if units.system is UnitSystem.INCH else 1]
        return Units(units.system, ((self.kind, name), *units.overrides))

    def inside(self, value: float) -> float:
        """Return a value [SI], or one just inside the limit beyond which it is."""
        if value <= self.low and not (self.closed[0] and value == self.low):
            room = LEAST_SHARE * (self.number - self.low)
            return self.low if self.closed[0] else self.low + room
        if value >= self.high and not (self.closed[1] and value == self.high):
            room = LEAST_SHARE * (self.high - self.number)
            return self.high if self.closed[1] else self.high - room
        return value


def figure(build: Build, path: str) -> Figure:
    """Return the figure at `path`; raises BuildErrors where there is none."""
    field, here, part = _found(build, path)
    if field.entry is None or isinstance(here, DocumentModel | tuple):
        raise BuildErrors.one(path, "is no figure", "name a figure, such as pedal.pivot_to_pad")
    return replace(field.figure(path, here, part), unit=build.units.get(path))


def entry(build: Build, path: str) -> Entry:
    """Return what the catalogue says at `path`, of a figure or of a table of them.

    Raises BuildErrors where it says nothing.
    """
    found = _found(build, path)[0].entry
    if found is None:
        raise BuildErrors.one(path, "is no figure", "name a figure, such as pedal.pivot_to_pad")
    return found


def _found(build: Build, path: str) -> tuple["_Field", Any, DocumentModel]:
    """Return the field at `path`, what stands in it, and the part it is of."""
    here: Any = build
    part: DocumentModel = build
    field = _Field.of(Build)
    for step in steps(path):
        if (
            isinstance(here, DocumentModel)
            and isinstance(step, str)
            and step in type(here).model_fields
        ):
            part, field = here, _field(type(here), step)
            here = getattr(here, step)
        elif isinstance(here, tuple) and isinstance(step, int) and step < len(here):
            field, here = field.item(step), here[step]
        else:
            raise BuildErrors.one(path, "is not in this build", "choose a field that is there")
    return field, here, part


def figures(build: Build) -> Iterator[Figure]:
    """Yield every figure that stands in a build, given or by default."""
    for one in _of_part(build, ""):
        yield replace(one, unit=build.units[one.path]) if one.path in build.units else one


def places(build: Build, path: str) -> Iterator[str]:
    """Yield where figures stand in the part at `path`, or could stand and are not given."""
    yield from _places(value_at(build, path), path)


def _places(part: DocumentModel, place: str) -> Iterator[str]:
    for name in type(part).model_fields:
        here, path = getattr(part, name), f"{place}.{name}"
        if isinstance(here, DocumentModel):
            yield from _places(here, path)
        elif isinstance(here, tuple):
            yield from _in_list(here, path)
        elif _field(type(part), name).entry is not None:
            yield path


def _in_list(values: tuple[Any, ...], path: str) -> Iterator[str]:
    for index, value in enumerate(values):
        if isinstance(value, tuple):
            yield from _in_list(value, f"{path}[{index}]")
        elif not isinstance(value, DocumentModel):
            yield f"{path}[{index}]"


def counting(build: Build) -> Iterator[Figure]:
    """Yield every figure that counts: not those beside which another one counts before."""
    drawn = replaced(build)
    yield from (one for one in _of_part(build, "", idle=False) if one.path not in drawn)


def _of_part(part: DocumentModel, place: str, *, idle: bool = True) -> Iterator[Figure]:
    left_out = () if idle else part.idle
    for name in type(part).model_fields:
        if name in ("evidence", "setups") or name in left_out:
            continue
        path = f"{place}.{name}" if place else name
        value, field = getattr(part, name), _field(type(part), name)
        if place or not _is_section(value):
            yield from _of_field(value, field, path, part, idle=idle)
        else:
            yield from _of_section(value, field, path, part, idle=idle)


def _is_section(value: Any) -> bool:
    """Tell whether a field of a build is made of parts, which an edit elsewhere keeps."""
    if isinstance(value, tuple):
        return bool(value) and all(isinstance(one, DocumentModel) for one in value)
    return isinstance(value, DocumentModel)


# The figures of each section that was last asked for: most edits touch one of them.
_sections: dict[tuple[str, bool], tuple[Any, tuple[Figure, ...]]] = {}


def _of_section(
    value: Any, field: "_Field", path: str, part: DocumentModel, *, idle: bool
) -> tuple[Figure, ...]:
    kept = _sections.get((path, idle))
    if kept is None or kept[0] is not value:
        kept = value, tuple(_of_field(value, field, path, part, idle=idle))
        _sections[path, idle] = kept
    return kept[1]


def _of_field(
    value: Any, field: "_Field", path: str, part: DocumentModel, *, idle: bool
) -> Iterator[Figure]:
    if isinstance(value, DocumentModel):
        yield from _of_part(value, path, idle=idle)
    elif isinstance(value, tuple):
        for index, item in enumerate(value):
            yield from _of_field(item, field.item(index), f"{path}[{index}]", part, idle=idle)
    elif value is not None and field.entry is not None:
        yield field.figure(path, value, part)


def named(build: Build, path: str) -> str:
    """Return what a builder calls the figure at `path`, beside all others of the build.

    Raises BuildErrors where there is none.
    """
    name = _numbered(build, path, entry(build, path).name)
    valve, case, axle = _VALVE.match(path), _CASE.match(path), _AXLE.match(path)
    if valve is not None:
        return f"{valve[1].capitalize()} valve's {name[0].lower()}{name[1:]}"
    if case is not None:
        cases = build.vehicle.load_cases
        return f"{name}, {cases[int(case[1])].name}" if len(cases) > 1 else name
    if axle is not None:
        return f"{axle[1].capitalize()} {name[0].lower()}{name[1:]}"
    point, laid = _POINT.match(path), _LAID.match(path)
    if point is not None:
        at, axis = int(point[2]) + 1, ("forward", "to the left", "up")[int(point[3])]
        return f"{value_at(build, point[1]).id}: point {at}, {axis}"
    if laid is not None:
        return f"{value_at(build, laid[1]).id}: {name[0].lower()}{name[1:]}"
    measured = _MEASURED.match(path)
    if measured is not None:
        run = f"{_RUNS[measured[1]]} {int(measured[2]) + 1}"
        return f"{run}: {name[0].lower()}{name[1:]}"
    of = next((of for place, of in _SPACES.items() if path.startswith(place)), None)
    return name if of is None else f"{of} {name[0].lower()}{name[1:]}"


def column_name(build: Build, path: str) -> str:
    """Return what a column beside its part calls the figure at `path`; raises BuildErrors."""
    return _numbered(build, path, entry(build, path).column)


def _numbered(build: Build, path: str, name: str) -> str:
    """Return the name of a figure of several alike with its number."""
    row = _ROW.match(path)
    if row is not None:
        return name.replace("row", f"row {int(row[1]) + 1}")
    place, _, index = path.removesuffix("]").rpartition("[")
    if not path.endswith("]") or place.endswith("]"):
        return name
    alike = value_at(build, place)
    same = len({entry(build, f"{place}[{i}]").name for i in range(len(alike))}) == 1
    return f"{name} {int(index) + 1}" if same and len(alike) > 1 else name


def is_figure(build: Build, path: str) -> bool:
    """Tell whether a figure stands at `path`."""
    try:
        return figure(build, path).value is not None
    except BuildErrors:
        return False


@dataclass(frozen=True)
class _Field:
    """What a model says of one field, or of one item of a list: its types and their marks."""

    options: tuple[Any, ...]
    marks: tuple[Any, ...]

    @classmethod
    def of(cls, annotation: Any, marks: Sequence[Any] = ()) -> "_Field":
        """Return what an annotation says, its marks flattened."""
        origin = get_origin(annotation)
        if origin is Annotated:
            inner, *more = get_args(annotation)
            return cls.of(inner, (*marks, *_flat(more)))
        if origin in (Union, UnionType):
            inner_fields = [cls.of(a) for a in get_args(annotation) if a is not NoneType]
            options = tuple(option for f in inner_fields for option in f.options)
            inner_marks = tuple(mark for f in inner_fields for mark in f.marks)
            return cls(options, (*marks, *inner_marks))
        return cls((annotation,), tuple(marks))

    @cached_property
    def _items(self) -> dict[int, "_Field"]:
        """Fields of items that were asked for."""
        return {}

    def item(self, index: int) -> "_Field":
        """Return what is said of an item of a list."""
        if index not in self._items:
            self._items[index] = self._item(index)
        return self._items[index]

    def _item(self, index: int) -> "_Field":
        for option in self.options:
            arguments = get_args(option)
            if get_origin(option) is not tuple:
                continue
            if len(arguments) == 2 and arguments[1] is Ellipsis:
                return _Field.of(arguments[0])
            return _Field.of(arguments[index])
        return _Field((), ())

    @cached_property
    def entry(self) -> Entry | None:
        """The catalogue's entry."""
        return next((mark for mark in self.marks if isinstance(mark, Entry)), None)

    def figure(self, path: str, value: Any, part: DocumentModel) -> Figure:
        """Return the figure of this field."""
        assert self.entry is not None
        low, high, closed = self._limits
        whole = int in self.options
        return Figure(path, self.entry, self._kind, value, part, low, high, closed, whole)

    @cached_property
    def _kind(self) -> QuantityKind | Literal["text"] | None:
        typed = next((mark for mark in self.marks if isinstance(mark, Typed)), None)
        if typed is not None:
            return typed.kind
        return "text" if str in self.options else None

    @cached_property
    def _limits(self) -> tuple[float, float, tuple[bool, bool]]:
        low, high, closed = -math.inf, math.inf, [False, False]
        for mark in self.marks:
            match mark:
                case Typed():
                    if mark.sign is not SignRule.ANY:
                        low, closed[0] = 0.0, mark.sign is SignRule.NOT_NEGATIVE
                    if mark.largest is not None:
                        high, closed[1] = mark.largest, True
                case Ge():
                    low, closed[0] = float(mark.ge), True  # type: ignore[arg-type]
                case Gt():
                    low, closed[0] = float(mark.gt), False  # type: ignore[arg-type]
                case Le():
                    high, closed[1] = float(mark.le), True  # type: ignore[arg-type]
                case Lt():
                    high, closed[1] = float(mark.lt), False  # type: ignore[arg-type]
        return low, high, (closed[0], closed[1])


def _flat(marks: Sequence[Any]) -> tuple[Any, ...]:
    """Return marks with those that pydantic keeps inside a field's own laid open."""
    return tuple(
        inner
        for mark in marks
        for inner in (_flat(mark.metadata) if isinstance(mark, FieldInfo) else (mark,))
    )


@lru_cache(maxsize=1024)
def _field(model: type[DocumentModel], name: str) -> _Field:
    info = model.model_fields[name]
    return _Field.of(info.annotation, _flat(info.metadata))
