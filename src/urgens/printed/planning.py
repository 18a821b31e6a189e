"""A plan as the JSON object the command line prints."""

from typing import Any

from urgens.guidance.planning.due import Due
from urgens.guidance.planning.plan import Plan
from urgens.guidance.planning.schedule import Schedule


def printed_plan(found: Plan, when: Schedule, due: tuple[Due, ...]) -> dict[str, Any]:
    """Return jobs, bleeds and what is due, times of the wall's clock.

    found: the plan [object]; when: its times [object]; due: after it [objects].
    Source: the contract.
    """
    starts = {slot.job: slot.start for slot in reversed(when.slots)}
    return {
        "jobs": [
            {"name": job.name, "minutes": job.minutes, "people": job.people,
             "opens": list(job.opens), "bleeds": list(job.bleeds), "after": list(job.after),
             "why": job.why, "place": job.place, "start": starts[at].isoformat(timespec="minutes"),
             "procedure": job.procedure or None}
            for at, job in enumerate(found.jobs)
        ],
        "bleeds": found.order.bleeds,
        "one_by_one": found.order.one_by_one,
        "minutes": found.minutes,
        "minutes_together": found.together,
        "supposed": found.work.supposed,
        "missing": [
            {"what": one.what, "count": one.count, "job": one.job} for one in found.missing
        ],
        "holds": [{"what": one.what, "job": one.job or None} for one in found.holds],
        "due": [
            {"what": one.what, "when": None if one.when is None else one.when.isoformat(),
             "why": one.why}
            for one in due
        ],
    }  # fmt: skip
