"""A hardest foot that does not even move the booster: every command says what there is to say."""

from pathlib import Path

import pytest

from tests.builds import bed
from urgens.cli.main import main
from urgens.document import save, with_changes

COMMANDS = [
    ["solve"], ["check"], ["prove"], ["prove", "--json"], ["trace"], ["size"], ["plan"],
    ["sheet", "-o", "OUT.pdf"], ["sheet", "-o", "OUT.html"], ["sheet", "-o", "OUT.csv"],
]  # fmt: skip


@pytest.mark.parametrize("command", COMMANDS, ids=lambda one: " ".join(one))
def test_a_foot_that_moves_nothing_ends_no_command(
    command: list[str], tmp_path: Path, capsys: pytest.CaptureFixture[str]
) -> None:
    foot = {"targets.max_effort": "0.5 N", "targets.comfortable_effort": "0.5 N"}
    file = tmp_path / "van.urgens.json"
    save(with_changes(bed("library"), foot), file)
    name, *more = (one.replace("OUT", str(tmp_path / "out")) for one in command)
    assert main([name, str(file), *more]) in (0, 1)
    assert "Traceback" not in capsys.readouterr().err
