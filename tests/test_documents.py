"""What the documents name is there: files, packages, commands, pictures."""

import re
from pathlib import Path

import pytest

from urgens.cli.arguments import parser

ROOT = Path(__file__).parent.parent
SOURCE = ROOT / "src" / "urgens"
PAGES = ("README.md", "CONTRIBUTING.md", "docs/architecture.md", "docs/stations.md",
         "docs/nomenclature.md")  # fmt: skip


def read(page: str) -> str:
    return (ROOT / page).read_text(encoding="utf-8")


@pytest.mark.parametrize("page", PAGES)
def test_links_lead_somewhere(page: str) -> None:
    links = re.findall(r"\]\(([^)#:]+)", read(page))

    assert [link for link in links if not (ROOT / page).parent.joinpath(link).exists()] == []


@pytest.mark.parametrize("page", ["CONTRIBUTING.md", "docs/architecture.md"])
def test_files_that_are_named_are_there(page: str) -> None:
    """By their place in the package or the project; a bare name is a file of some folder."""
    named = set(re.findall(r"`([\w/-]+(?:\.py|\.toml|\.sh|/))`", read(page)))
    names = {path.name for path in SOURCE.rglob("*") if path.is_file()}
    rooms = {path.name + "/" for path in SOURCE.rglob("*") if path.is_dir()}
    missing = [
        name
        for name in sorted(named)
        if not (SOURCE / name).exists() and not (ROOT / name).exists()
        and not ("/" not in name and name in names) and name not in rooms
    ]  # fmt: skip

    assert len(named) > 5
    assert missing == []


def test_the_packages_are_those_of_the_architecture() -> None:
    listed = set(re.findall(r"^\| `(\w+)` \|", read("docs/architecture.md"), re.MULTILINE))
    packages = {path.name for path in SOURCE.iterdir() if (path / "__init__.py").exists()}

    assert listed == packages


def test_the_readme_is_short_and_lists_every_command() -> None:
    text = read("README.md")
    table = text.partition("|command|")[2].partition("\n\n")[0]
    listed = set(re.findall(r"`([a-z-]+)", table))
    known = set(next(a for a in parser()._actions if a.dest == "command").choices or ())

    assert len(text.split()) < 900
    assert listed == known
