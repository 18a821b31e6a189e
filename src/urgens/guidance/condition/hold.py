"""What one hold is: its code, which are grave, which a typed reason lifts."""

from dataclasses import dataclass
from datetime import datetime
from typing import Literal

Code = Literal[
    "screw-open", "joint-open", "joint-not-dry", "tool-fitted", "wheel-not-bled", "leak",
    "pedal-long", "air-shows-late", "clearance", "check-no", "proof-open", "proof-failed",
    "proof-lapsed", "open-item", "fault-stops", "fault-mended-unproved",
]  # fmt: skip
LIFTED_BY_REASON: tuple[Code, ...] = ("proof-open", "proof-lapsed", "open-item", "clearance")
GRAVE: tuple[Code, ...] = ("screw-open", "joint-open", "leak", "fault-stops", "proof-failed")


@dataclass(frozen=True)
class Hold:
    """One thing that holds the vehicle: in words, since when, where it stands, what ends it."""

    code: Code
    words: str
    since: datetime | None
    place: str
    ends_by: str
