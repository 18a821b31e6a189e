"""What a judgement is made of."""

from dataclasses import dataclass
from enum import IntEnum
from typing import Any

from urgens.document import BuildChange
from urgens.guidance.words.figures import COMMON_PRACTICE


class Severity(IntEnum):
    """How much a finding matters, worst first."""

    DANGER = 0
    WARNING = 1
    ADVICE = 2

    @property
    def word(self) -> str:
        """The word on screen and in JSON."""
        return self.name.lower()


@dataclass(frozen=True)
class Fix:
    """A named edit of the build: `value`, as typed or as JSON, goes to `path`.

    Where a list is put in another order, `order` names what stays by the place it had, and holds
    what is new as JSON: what is known of an entry goes with it. `more` goes with it, by path.
    What it writes is planned until somebody has seen it fitted.
    """

    label: str
    path: str
    value: Any
    order: tuple[int | dict[str, Any], ...] | None = None
    more: tuple[tuple[str, Any], ...] = ()

    @property
    def change(self) -> BuildChange:
        """The step it is."""
        more = dict(self.more)
        if self.order is None:
            return BuildChange.planning(self.label, {self.path: self.value, **more})
        new = {f"{self.path}[{place}]": one for place, one in enumerate(self.order)
               if not isinstance(one, int)}  # fmt: skip
        return BuildChange(
            self.label, more, orders={self.path: self.order}, planned={**more, **new}
        )


@dataclass(frozen=True)
class Remark:
    """What a rule has to say; its code and its usual severity are given where it registers."""

    message: str
    why: str
    where: str
    basis: str = COMMON_PRACTICE
    fixes: tuple[Fix, ...] = ()
    chosen: bool = False
    severity: Severity | None = None  # where it is not the rule's usual one


@dataclass(frozen=True)
class Finding:
    """A fact with figures, the mechanism behind it, the rule it rests on, and what to do."""

    code: str
    severity: Severity
    message: str
    why: str
    basis: str
    where: str
    fixes: tuple[Fix, ...] = ()
    chosen: bool = False  # the fix is found by `guidance.advice.recommendation`, later

    def printed(self) -> dict[str, Any]:
        """Return the finding as plain JSON values."""
        return {
            "code": self.code,
            "severity": self.severity.word,
            "message": self.message,
            "why": self.why,
            "basis": self.basis,
            "where": self.where,
            "fixes": [
                {"label": fix.label, "path": fix.path, "value": fix.value} for fix in self.fixes
            ],
        }
