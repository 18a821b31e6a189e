"""What a step brings with it: dangers and warnings that were not there, dangers that it ends."""

from dataclasses import dataclass

from urgens.document import Build, BuildChange, changed
from urgens.guidance.rules.finding import Finding, Severity
from urgens.guidance.rules.registry import findings
from urgens.solve import solve

# What follows from nobody having seen it fitted, opened or proved yet.
OF_THE_CONDITION = ("held", "proof-open", "assumed-figure-decides")


@dataclass(frozen=True)
class Brought:
    """What is new after a step, the worst first, whether it ends a danger, and leaves less.

    `leaves_less` where fewer dangers are left, of as many fewer warnings, of as many less advice:
    what is offered leaves less each time, so that it comes to an end.
    """

    new: tuple[Finding, ...] = ()
    ends_danger: bool = False
    leaves_less: bool = False

    @property
    def danger(self) -> bool:
        """Whether a danger is new."""
        return any(one.severity is Severity.DANGER for one in self.new)

    @property
    def is_worth_it(self) -> bool:
        """Whether no danger is new, and a new warning comes only where a danger ends."""
        return not self.danger and (not self.new or self.ends_danger)

    @property
    def counted(self) -> str:
        """How much is new, as "a danger and 2 warnings", empty where nothing is."""
        counts = [(severity, sum(one.severity is severity for one in self.new))
                  for severity in Severity]  # fmt: skip
        return " and ".join(
            f"a {severity.word}" if count == 1 else f"{count} {severity.word}s"
            for severity, count in counts
            if count
        )

    @property
    def words(self) -> str:
        """What is new in words, empty where nothing is."""
        return " ".join(f"It brings a {one.severity.word}: {one.message}" for one in self.new)


def brought(
    build: Build, change: BuildChange, before: tuple[Finding, ...] | None = None
) -> Brought:
    """Return what a step brings; before: what is found without it, where that is known.

    build: as it is; change: the step. Raises BuildErrors where it cannot be made.
    """
    found = findings(solve(build)) if before is None else before
    found, after = (
        tuple(one for one in each if one.code not in OF_THE_CONDITION)
        for each in (found, findings(solve(changed(build, change))))
    )
    was, is_ = _worst(found), _worst(after)
    new = tuple(
        one
        for one in after
        if one.severity is not Severity.ADVICE and one.severity < was.get(one.code, Severity.ADVICE)
    )
    ended = any(
        severity is Severity.DANGER and is_.get(code, Severity.ADVICE) is not Severity.DANGER
        for code, severity in was.items()
    )
    return Brought(new, ended, _counts(after) < _counts(found))


def _counts(found: tuple[Finding, ...]) -> list[int]:
    return [sum(one.severity is severity for one in found) for severity in Severity]


def _worst(found: tuple[Finding, ...]) -> dict[str, Severity]:
    """Return how bad each code is at most."""
    worst: dict[str, Severity] = {}
    for one in found:
        worst[one.code] = min(one.severity, worst.get(one.code, Severity.ADVICE))
    return worst
