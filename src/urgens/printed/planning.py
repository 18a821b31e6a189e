"""A plan as the JSON object the command line prints."""

from typing import Any

from urgens.guidance.planning.due import Due
from urgens.guidance.planning.plan import WorkPlan
from urgens.guidance.planning.schedule import Schedule


def printed_plan(plan: WorkPlan, when: Schedule, due: tuple[Due, ...]) -> dict[str, Any]:
    """Return jobs, bleeds and what is due, times of the wall's clock.

    plan: the plan; when: its times; due: after it.
    """
    starts = {slot.job: slot.start for slot in reversed(when.slots)}
    return {
        "jobs": [
            {"name": job.name, "minutes": job.minutes, "people": job.people,
             "opens": list(job.opens), "bleeds": list(job.bleeds), "after": list(job.after),
             "why": job.why, "place": job.place, "start": starts[at].isoformat(timespec="minutes"),
             "procedure": job.procedure or None}
            for at, job in enumerate(plan.jobs)
        ],
        "bleeds": plan.order.bleeds,
        "one_by_one": plan.order.one_by_one,
        "minutes": plan.minutes,
        "minutes_together": plan.together,
        "supposed": plan.work.supposed,
        "easy": [
            {"while_out": one.out, "things": list(one.things), "still": list(one.still)}
            for one in plan.easy
        ],
        "missing": [
            {"what": one.what, "count": one.count, "job": one.job} for one in plan.missing
        ],
        "holds": [{"what": one.what, "job": one.job or None} for one in plan.holds],
        "due": [
            {"what": one.what, "when": None if one.when is None else one.when.isoformat(),
             "why": one.why}
            for one in due
        ],
    }  # fmt: skip
