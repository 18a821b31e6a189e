"""Turning a document's faults into words with the path a builder would write."""

import difflib
import json
from collections.abc import Iterator, Mapping, Sequence
from types import NoneType, UnionType
from typing import Annotated, Any, Literal, TypeVar, Union, get_args, get_origin

from pydantic import BaseModel, ValidationError
from pydantic_core import ErrorDetails

from urgens.document.build import Build
from urgens.document.errors import BuildError, BuildErrors
from urgens.document.model import RULE, in_words

Model = TypeVar("Model", bound=BaseModel)
HALF = "holds half a character, which no file can hold"
UNKNOWN = "is not a field known here"
EVERY_FIELD = "`urgens new OUT.urgens.json` writes a small build to look at"
_COMPARISONS = {
    "greater_than": ("gt", "above"),
    "greater_than_equal": ("ge", "of at least"),
    "less_than": ("lt", "below"),
    "less_than_equal": ("le", "of at most"),
}
_SHAPES = {
    "model_type": "an object in braces",
    "model_attributes_type": "an object in braces",
    "mapping_type": "an object in braces",
    "dict_type": "an object in braces",
    "tuple_type": "a list in brackets",
    "string_type": "text in quotes",
    "float_type": "a plain number, without quotes",
    "int_type": "a whole number, without quotes",
    "bool_type": "true or false",
}


def validated(document: object, kept: Mapping[str, object] | None = None) -> Build:
    """Return the build that `document`, parsed JSON, describes; kept: parts that are made already.

    Raises BuildErrors with every fault found.
    """
    return validated_as(Build, document, kept)


def validated_as(
    model: type[Model], document: object, kept: Mapping[str, object] | None = None
) -> Model:
    """Return what `document`, parsed JSON, describes; model: of what [type].

    kept: fields of it that are made and checked already, by name. Raises BuildErrors with every
    fault found.
    """
    _writable(document)
    if kept and isinstance(document, dict):
        document = {**document, **kept}
    try:
        return model.model_validate(document)
    except ValidationError as error:
        details = [one for one in error.errors(include_url=False) if _tells(one)]
        raise BuildErrors([e for d in details for e in _translated(d, model)]) from None


def _writable(document: object) -> None:
    """Raise BuildErrors where a text is none that a file can hold: half of a character."""
    try:
        json.dumps(document, ensure_ascii=False).encode()
    except UnicodeEncodeError:
        raise BuildErrors(
            BuildError(place, HALF, "type it anew: another program gave half of it")
            for place in _halves(document, "")
        ) from None


def _halves(value: object, place: str) -> Iterator[str]:
    """Yield the places at which half a character stands, in a text or in a name."""
    if isinstance(value, Mapping):
        for name, inside in value.items():
            shown = str(name).encode(errors="replace").decode()
            where = f"{place}.{shown}" if place else shown
            if shown != name:
                yield where
            yield from _halves(inside, where)
    elif isinstance(value, list | tuple):
        for index, inside in enumerate(value):
            yield from _halves(inside, f"{place}[{index}]")
    elif isinstance(value, str) and value.encode(errors="replace").decode() != value:
        yield place


def _tells(detail: ErrorDetails) -> bool:
    """Return whether an error says anything: a list is no shorter for a wrong entry in it."""
    return detail["type"] != "too_short" or not detail["input"]


def _translated(detail: ErrorDetails, model: type[BaseModel]) -> Iterator[BuildError]:
    path, parent = _place(detail["loc"], model)
    if detail["type"] == RULE:
        for fault in detail["ctx"]["faults"]:
            place = f"{path}.{fault.at}" if path and fault.at else path or fault.at
            yield BuildError(place, fault.problem, fault.remedy)
    else:
        yield BuildError(path, *_words(detail, parent))


def _words(detail: ErrorDetails, parent: Any) -> tuple[str, str]:
    """Return problem and remedy of one of pydantic's own errors."""
    kind, given, context = detail["type"], detail["input"], detail.get("ctx", {})
    if kind == "missing":
        return "is missing", f"add it; {EVERY_FIELD}"
    if kind == "extra_forbidden":
        return UNKNOWN, _did_you_mean(str(detail["loc"][-1]), parent)
    if kind == "union_tag_not_found":
        return "has no kind", f'add "kind": {_tags(parent)}'
    if kind == "union_tag_invalid":
        return f'is of the unknown kind "{context["tag"]}"', f"write {_tags(parent)}"
    if kind == "literal_error":
        return f"is {in_words(given)}, which is not known here", f"write {context['expected']}"
    if kind in _COMPARISONS:
        key, words = _COMPARISONS[kind]
        return f"is {in_words(given)}", f"write a number {words} {context[key]:g}"
    if kind == "finite_number":
        return "is not a finite number", "write a plain number"
    if kind in ("too_short", "string_too_short"):
        return "is empty", "give at least one" if kind == "too_short" else "write a name"
    if kind == "too_long":
        return "has too many entries", f"give at most {context['max_length']}"
    if kind in _SHAPES:
        return f"is {in_words(given)}", f"write {_SHAPES[kind]}"
    return detail["msg"].lower(), EVERY_FIELD


def _did_you_mean(name: str, parent: Any) -> str:
    known = list(parent.model_fields) if _is_model(parent) else []
    near = difflib.get_close_matches(name, known, n=1)
    return f'write "{near[0]}"' if near else f"take it out; {EVERY_FIELD}"


def _tags(union: Any) -> str:
    tags = [f'"{tag}"' for option in _options(union) for tag in _tag_of(option)]
    return tags[0] if len(tags) == 1 else ", ".join(tags[:-1]) + " or " + tags[-1]


def _place(loc: Sequence[str | int], model: type[BaseModel]) -> tuple[str, Any]:
    """Return the path as a builder writes it, and the type that holds its last element.

    Pydantic puts the tag of a union into the location; it is no part of the document's path.
    """
    here: Any = model
    parent: Any = model
    path = ""
    for element in loc:
        if element == "[key]":  # of an object whose names are free; the name stands before it
            continue
        parent = here
        options = _options(here)
        tagged = [o for o in options if _is_model(o) and element in _tag_of(o)]
        if len(options) > 1 and tagged:
            here = tagged[0]
            continue
        if isinstance(element, int):
            path += f"[{element}]"
            here = _item(options[0], element)
        elif get_origin(options[0]) is Mapping:
            path += f'["{element}"]'
            here = get_args(options[0])[1]
        else:
            path += f".{element}" if path else element
            field = options[0].model_fields.get(element) if _is_model(options[0]) else None
            here = field.annotation if field is not None else None
    return path, parent if loc and not _is_union(here) else here


def _options(annotation: Any) -> list[Any]:
    """Return the types `annotation` may be, without None and without what annotates them."""
    origin = get_origin(annotation)
    if origin is Annotated:
        return _options(get_args(annotation)[0])
    if origin in (Union, UnionType):
        return [o for arg in get_args(annotation) if arg is not NoneType for o in _options(arg)]
    return [annotation]


def _is_union(annotation: Any) -> bool:
    return len(_options(annotation)) > 1


def _is_model(candidate: Any) -> bool:
    return isinstance(candidate, type) and issubclass(candidate, BaseModel)


def _tag_of(option: Any) -> tuple[Any, ...]:
    field = option.model_fields.get("kind") if _is_model(option) else None
    literal = field.annotation if field is not None else None
    return get_args(literal) if get_origin(literal) is Literal else ()


def _item(sequence: Any, index: int) -> Any:
    arguments = get_args(sequence)
    if not arguments:
        return None
    if len(arguments) == 2 and arguments[1] is Ellipsis:
        return arguments[0]
    return arguments[index] if index < len(arguments) else None
