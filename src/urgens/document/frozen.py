"""JSON that cannot be changed once it stands in a build, and back again."""

from collections.abc import Mapping
from types import MappingProxyType
from typing import Any


def frozen(value: Any) -> Any:
    """Return parsed JSON whose objects and lists cannot be changed, however deep they lie."""
    if isinstance(value, Mapping):
        return MappingProxyType({name: frozen(inner) for name, inner in value.items()})
    if isinstance(value, list | tuple):
        return tuple(frozen(inner) for inner in value)
    return value


def thawed(value: Any) -> Any:
    """Return a copy of frozen JSON that is parsed JSON again."""
    if isinstance(value, Mapping):
        return {name: thawed(inner) for name, inner in value.items()}
    if isinstance(value, list | tuple):
        return [thawed(inner) for inner in value]
    return value
