"""The session alone, without a window: what is looked at, what is kept, what is taken back."""

import pytest
from PySide6.QtWidgets import QApplication

from urgens.document import Change, demo
from urgens.ui.session import Session

pytestmark = pytest.mark.usefixtures("dressed")


# --- what is looked at ---


def cases(session: Session) -> list[str]:
    return [case.name for case in session.build.vehicle.load_cases]


def test_a_load_case_that_goes_is_no_longer_looked_at() -> None:
    session = Session(demo("pickup"))
    first, second, *_ = cases(session)
    session.set_load_case(second)
    kept = [index for index, name in enumerate(cases(session)) if name != second]
    session.make(Change("out", orders={"vehicle.load_cases": kept}))

    assert second not in cases(session)
    assert session.view.load_case is None
    assert session.solution.case_name == first


def test_a_load_case_that_is_renamed_is_still_looked_at(dressed: QApplication) -> None:
    session = Session(demo("pickup"))
    second = cases(session)[1]
    session.set_load_case(second)
    session.edit("vehicle.load_cases[1].name", "With the trailer")

    assert session.view.load_case == session.solution.case_name == "With the trailer"
