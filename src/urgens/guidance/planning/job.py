"""What a plan is made of: jobs, what each opens, and what it needs before it."""

from dataclasses import dataclass
from typing import Literal

Lane = Literal["bench", "car"]
# Where the work is done, in the order in which a vehicle is usually gone through.
Place = Literal[
    "bench", "rear axle", "front axle", "pedal box", "underneath", "all round", "road",
]  # fmt: skip


@dataclass(frozen=True)
class Job:
    """One job: minutes and people, the circuits it opens, and those that have to be bled for it.

    `after` names the jobs before it by `name`; `waits` hours pass between those and it, and
    `waits_for` says what happens in them. `bleeds` are the circuits that it bleeds, `brings`
    what it puts in beside the parts of the layout.
    """

    name: str
    minutes: int
    why: str
    place: Place = "all round"
    people: int = 1
    opens: tuple[str, ...] = ()
    shut: tuple[str, ...] = ()
    after: tuple[str, ...] = ()
    waits: float = 0.0
    waits_for: str = ""
    bleeds: tuple[str, ...] = ()
    procedure: str = ""
    brings: tuple[str, ...] = ()

    @property
    def lane(self) -> Lane:
        """Whether it is done at the bench or at the vehicle."""
        return "bench" if self.place == "bench" else "car"
