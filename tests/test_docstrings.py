"""Public core functions say what they take, in which unit and shape, and where it comes from."""

import ast
import re
from collections.abc import Iterator
from pathlib import Path

import pytest

SOURCE = Path(__file__).parent.parent / "src" / "urgens"
CORE = ("physics", "solve", "studies", "plumbing", "bench", "printed")
PROPERTIES = {"property", "cached_property"}
NUMBERS = re.compile(r"\b(float|int|ArrayLike|Array|Bools)\b")
ARRAY = re.compile(r"(ArrayLike|Array|Bools)( \| None)?")
SHAPE = re.compile(r"shape|broadcast|\([a-z]+[,)]|\(\.\.\.")
# What names nothing: another function, an object at hand, a word for everything.
FILLER = re.compile(
    r"Source: (`[^`]*`|(the|its|it|as)( \w+){0,2})\.?\s*$|\[objects?\]|: the (document|object)[;.,]"
)


def public_functions() -> Iterator[tuple[str, ast.FunctionDef]]:
    for package in CORE:
        for path in sorted((SOURCE / package).rglob("*.py")):
            tree = ast.parse(path.read_text(encoding="utf-8"))
            classes = [c for c in tree.body if isinstance(c, ast.ClassDef)]
            methods = [n for c in classes if not c.name.startswith("_") for n in c.body]
            for node in (*tree.body, *methods):
                if isinstance(node, ast.FunctionDef) and not node.name.startswith("_"):
                    property_ = any(
                        isinstance(d, ast.Name) and d.id in PROPERTIES for d in node.decorator_list
                    )
                    if not property_:
                        place = ".".join(path.relative_to(SOURCE).with_suffix("").parts)
                        yield f"{place}.{node.name}", node


def undocumented(node: ast.FunctionDef) -> list[str]:
    """Return what the docstring of a function does not say, and what it says for nothing."""
    text = ast.get_docstring(node) or ""
    missing = [found[0].strip() for found in FILLER.finditer(text)]
    for argument in (*node.args.args, *node.args.kwonlyargs):
        annotation = "" if argument.annotation is None else ast.unparse(argument.annotation)
        if argument.arg == "self" or not NUMBERS.search(annotation) or "[" in annotation:
            continue
        said = re.search(
            rf"\b{argument.arg}\b[^.;]*?:([^;]*?)(;|\n\n|\n[a-z_ ]+:|$)", text, re.DOTALL
        )
        if said is None or re.search(r"\[[^\]]+\]", said[0]) is None:
            missing.append(argument.arg)
        elif ARRAY.fullmatch(annotation) and SHAPE.search(text) is None:
            missing.append(f"shape of {argument.arg}")
    return missing


@pytest.mark.parametrize(
    ("name", "node"), list(public_functions()), ids=lambda v: v if isinstance(v, str) else ""
)
def test_a_public_core_function_documents_itself(name: str, node: ast.FunctionDef) -> None:
    assert undocumented(node) == []


def test_a_bad_docstring_is_seen() -> None:
    bare = (
        'def area(build, diameter: float, length: Array):\n    """Return the area.\n\n    '
        'build: the document; diameter: of the bore; length: [m]. Source: `physics.area`.\n    """'
    )
    tree = ast.parse(bare).body[0]
    assert isinstance(tree, ast.FunctionDef)

    assert undocumented(tree) == [
        ": the document;", "Source: `physics.area`.", "diameter", "shape of length"
    ]  # fmt: skip
