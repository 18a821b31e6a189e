"""Public core functions say what they take, in which unit, and where it comes from."""

import ast
import re
from collections.abc import Iterator
from pathlib import Path

import pytest

SOURCE = Path(__file__).parent.parent / "src" / "urgens"
CORE = ("physics", "solve", "studies", "plumbing", "bench", "printed")
PROPERTIES = {"property", "cached_property"}
SELF_EXPLAINED = {"made", "standing", "solution", "build"}  # the objects that solving passes on


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
    """Return what the docstring of a function does not say."""
    text = ast.get_docstring(node) or ""
    arguments = [a.arg for a in (*node.args.args, *node.args.kwonlyargs) if a.arg != "self"]
    missing = [] if "Source:" in text else ["Source"]
    for name in arguments:
        said = re.search(rf"\b{name}\b[^.;]*?:([^;]*?)(;|\n\n|\n[a-z_ ]+:|$)", text, re.DOTALL)
        if said is None:
            said_with_unit = False
        else:
            said_with_unit = name in SELF_EXPLAINED or re.search(r"\[[^\]]+\]", said[0]) is not None
        if not said_with_unit:
            missing.append(name)
    return missing


@pytest.mark.parametrize(
    ("name", "node"), list(public_functions()), ids=lambda v: v if isinstance(v, str) else ""
)
def test_a_public_core_function_documents_itself(name: str, node: ast.FunctionDef) -> None:
    assert undocumented(node) == []


def test_a_bad_docstring_is_seen() -> None:
    bare = 'def area(diameter):\n    """Return the area.\n\n    diameter: of the bore.\n    """'
    tree = ast.parse(bare).body[0]
    assert isinstance(tree, ast.FunctionDef)

    assert undocumented(tree) == ["Source", "diameter"]
