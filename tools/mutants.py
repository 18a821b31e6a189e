"""Plants small changes in code that decides, and tells which of them no test sees.

mutants.py [--count 150] [--seed 1] [--since REV] [--tests PATH ...] [FILE ...]: the files named,
else those changed since a revision. Each change is tried with the tests that go through its line,
as coverage tells it, or with those named; what lives is printed with its place. The exit code is 1
where something lives.
"""

import argparse
import ast
import os
import random
import shutil
import subprocess
import sys
import tempfile
from collections.abc import Iterator
from concurrent.futures import ThreadPoolExecutor
from dataclasses import dataclass
from pathlib import Path

from coverage import CoverageData

ROOT = Path(__file__).parents[1]
PACKAGE = ROOT / "src" / "urgens"
TESTS = (
    "physics", "quantity", "document", "solve", "studies", "plumbing", "guidance", "bench",
    "sources", "sheet",
)  # fmt: skip
FILES = ("test_cli.py", "test_cli_trace.py", "test_cli_record.py", "test_little_effort.py")
MOST_TESTS = 120  # of those that go through a line; the rest would tell the same
PATIENCE = 240  # s: a change that makes a loop endless is seen by that
SWAPPED: dict[type, type] = {
    ast.Lt: ast.LtE, ast.LtE: ast.Lt, ast.Gt: ast.GtE, ast.GtE: ast.Gt, ast.Eq: ast.NotEq,
    ast.NotEq: ast.Eq, ast.In: ast.NotIn, ast.NotIn: ast.In, ast.Is: ast.IsNot, ast.IsNot: ast.Is,
    ast.Add: ast.Sub, ast.Sub: ast.Add, ast.Mult: ast.Div, ast.Div: ast.Mult, ast.And: ast.Or,
    ast.Or: ast.And,
}  # fmt: skip
NAMES = {"min": "max", "max": "min", "any": "all", "all": "any", "front": "rear", "rear": "front"}


@dataclass(frozen=True)
class Mutant:
    """One change: file, line, the source before and after it."""

    path: Path
    line: int
    before: str
    after: str
    text: str  # of the whole file


def changes(node: ast.AST) -> Iterator[ast.AST]:
    """Yield what may stand in place of a node."""
    match node:
        case ast.Compare(ops=[op]) if type(op) in SWAPPED:
            yield ast.Compare(node.left, [SWAPPED[type(op)]()], node.comparators)
        case ast.BinOp() | ast.BoolOp() if type(node.op) in SWAPPED:
            yield type(node)(**{**dict(ast.iter_fields(node)), "op": SWAPPED[type(node.op)]()})
            if isinstance(node, ast.BoolOp):
                yield from node.values  # one of them alone
        case ast.Call(func=ast.Name(id="sorted" | "min" | "max"), keywords=[_, *_]):
            yield ast.Call(node.func, node.args, [])  # in another order
        case ast.UnaryOp(op=ast.Not()):
            yield node.operand
        case ast.IfExp():
            yield ast.IfExp(node.test, node.orelse, node.body)
        case ast.Constant(value=bool()):
            yield ast.Constant(not node.value)
        case ast.Constant(value=int() | float()):
            yield ast.Constant(node.value + 1)
        case ast.Name(id=name) if name in NAMES:
            yield ast.Name(NAMES[name], node.ctx)
        case ast.Attribute(attr=name) if name in NAMES:
            yield ast.Attribute(node.value, NAMES[name], node.ctx)


def mutants(path: Path) -> Iterator[Mutant]:
    """Yield every change of a file, but in docstrings, annotations, imports and texts of errors."""
    source = path.read_text(encoding="utf-8")
    tree, data = ast.parse(source), source.encode()
    starts = [0]
    for row in data.splitlines(keepends=True):
        starts.append(starts[-1] + len(row))
    for node in _deciding(tree):
        for other in changes(node):
            first, last = (
                starts[node.lineno - 1] + node.col_offset,
                starts[node.end_lineno - 1] + node.end_col_offset,
            )
            after = (
                f"({ast.unparse(other)})"
                if not isinstance(other, ast.Constant | ast.Name)
                else ast.unparse(other)
            )
            text = (data[:first] + after.encode() + data[last:]).decode()
            yield Mutant(path, node.lineno, data[first:last].decode(), after, text)


def _deciding(node: ast.AST) -> Iterator[ast.AST]:
    if isinstance(
        node, ast.Raise | ast.Assert | ast.Import | ast.ImportFrom | ast.arguments | ast.JoinedStr
    ):
        return
    for name, value in ast.iter_fields(node):
        if name in ("annotation", "returns", "decorator_list"):
            continue
        for child in value if isinstance(value, list) else [value]:
            if isinstance(child, ast.expr):
                yield child
            if isinstance(child, ast.AST):
                yield from _deciding(child)


def covered(data: Path) -> CoverageData:
    """Return which test goes through which line, from one run of all tests of the core."""
    if not data.exists():
        data.parent.mkdir(parents=True, exist_ok=True)
        places = [str(ROOT / "tests" / name) for name in (*TESTS, *FILES)]
        subprocess.run(
            [sys.executable, "-m", "pytest", "-q", "-n", "2", *places, "--cov=urgens",
             "--cov-context=test", "--cov-report="],
            cwd=ROOT, check=True,
            env={**os.environ, "COVERAGE_FILE": str(data), "QT_QPA_PLATFORM": "offscreen"},
        )  # fmt: skip
    found = CoverageData(str(data))
    found.read()
    return found


def tests_of(data: CoverageData, mutant: Mutant, chance: random.Random) -> list[str]:
    """Return tests that go through a line, none where none does."""
    contexts = data.contexts_by_lineno(str(mutant.path)).get(mutant.line, [])
    named = sorted({one.partition("|")[0] for one in contexts if one})
    return named if len(named) <= MOST_TESTS else chance.sample(named, MOST_TESTS)


def lives(mutant: Mutant, tests: list[str]) -> bool:
    """Tell whether no test sees a change; each has a tree of its own."""
    with tempfile.TemporaryDirectory() as folder:
        tree = Path(folder) / "src"
        shutil.copytree(
            ROOT / "src", tree
        )  # compiled files too: what is not changed is not compiled
        (tree / mutant.path.relative_to(ROOT / "src")).write_text(mutant.text, encoding="utf-8")
        try:
            run = subprocess.run(
                [sys.executable, "-m", "pytest", "-x", "-q", "-p", "no:xdist", *tests],
                cwd=ROOT, capture_output=True, timeout=PATIENCE, check=False,
                env={**os.environ, "PYTHONPATH": str(tree), "QT_QPA_PLATFORM": "offscreen"},
            )  # fmt: skip
        except subprocess.TimeoutExpired:
            return False
    return run.returncode == 0


def main() -> int:
    """Plant and try; see the file's own words."""
    asked = argparse.ArgumentParser(description=__doc__)
    asked.add_argument("--count", type=int, default=150)
    asked.add_argument("--seed", type=int, default=1)
    asked.add_argument("--since", default="HEAD~1")
    asked.add_argument("--tests", nargs="+", default=[])
    asked.add_argument("files", nargs="*", type=Path)
    options = asked.parse_args()
    files = [path.resolve() for path in options.files] or changed(options.since)
    chance = random.Random(options.seed)
    known = [mutant for path in files for mutant in mutants(path)]
    chosen = chance.sample(known, min(options.count, len(known)))
    data = None if options.tests else covered(ROOT / ".mutants" / "coverage")
    tried = [(m, options.tests if data is None else tests_of(data, m, chance)) for m in chosen]
    with ThreadPoolExecutor(2) as pool:
        alive = list(pool.map(lambda one: not one[1] or lives(*one), tried))
    for (mutant, tests), living in zip(tried, alive, strict=True):
        if living:
            why = "lives" if tests else "no test goes there"
            place = f"{mutant.path.relative_to(ROOT)}:{mutant.line}"
            print(f"{place}: {why}: {mutant.before} -> {mutant.after}")
    of = f"of {len(known)} there are in {len(files)} files"
    print(f"{sum(alive)} of {len(chosen)} live, {of} (seed {options.seed})")
    return int(any(alive))


def changed(since: str) -> list[Path]:
    """Return the files of the core that differ from a revision."""
    names = subprocess.run(
        ["git", "diff", "--name-only", "--diff-filter=d", since, "--", "src/urgens"],
        cwd=ROOT, capture_output=True, text=True, check=True,
    ).stdout.split()  # fmt: skip
    paths = [
        ROOT / name for name in names if name.endswith(".py") and not name.endswith("__init__.py")
    ]
    return [path for path in paths if PACKAGE / "ui" not in path.parents]


if __name__ == "__main__":
    sys.exit(main())
