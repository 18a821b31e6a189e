"""Odd documents: refused in a few plain words, or a build that can be solved, drawn and saved."""

import json
import unicodedata
from typing import Any

from hypothesis import HealthCheck, given, settings

from tests.document.odd import odd_documents
from urgens.document import Build, BuildErrors, dumps, loads
from urgens.document.evidence import open_figures
from urgens.guidance import findings
from urgens.printed.solution import printed_solution
from urgens.solve import solve
from urgens.studies.robustness import robustness


@settings(max_examples=80, suppress_health_check=[HealthCheck.too_slow])
@given(odd_documents())
def test_an_odd_document_is_refused_plainly_or_is_a_build(document: dict[str, Any]) -> None:
    build, said = read(document)
    if build is None:
        assert 0 < len(said) < 10_000
        assert "; " in said
        assert not [x for x in said if x != "\n" and unicodedata.category(x) == "Cc"]
        return
    assert dumps(loads(dumps(build))) == dumps(build)
    solution = solve(build)
    findings(solution)
    open_figures(build)
    json.dumps(printed_solution(solution), allow_nan=False)
    assert drawn(build) in ("", "write a smaller spread", "write smaller spreads")


def read(document: dict[str, Any]) -> tuple[Build | None, str]:
    try:
        return loads(json.dumps(document)), ""
    except BuildErrors as refused:
        return None, str(refused)


def drawn(build: Build) -> str:
    """Draw a few builds; return the remedy where the spreads leave hardly any."""
    try:
        robustness(build, draws=20)
    except BuildErrors as refused:
        return refused.errors[0].remedy
    return ""
