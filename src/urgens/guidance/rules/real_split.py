"""What wear and heat say of the split between the axles, beside what is computed."""

from collections.abc import Iterator

from urgens.document.ledger.proof import Proof
from urgens.guidance.rules.finding import Remark, Severity
from urgens.guidance.rules.registry import rule
from urgens.guidance.words.figures import FigureWords
from urgens.physics.axle import Pair
from urgens.solve import Solution
from urgens.studies.real_split import Computed, Split, computed_split, splits

BASIS = "worn volume and heat follow the work of each axle: common practice"


def compared(solution: Solution) -> tuple[Pair[Split | str], Computed]:
    """Return what wear and heat tell, and what is computed.

    Studies.real_split, over the build's usual stops.
    """
    proof = solution.build.proof or Proof()
    return splits(solution), computed_split(solution, proof.usual_stops)


def is_rearward(real: Split, computed: Computed) -> bool:
    """Tell whether the rear does more than computed, by more than both errors.

    real, computed: splits. Source: by definition.
    """
    return real.rear_share - computed.rear_share > real.error + computed.spread


@rule("real-split-rearward", Severity.WARNING)
def real_split_rearward(solution: Solution, words: FigureWords) -> Iterator[Remark]:
    """Tell of a rear that really does more than the build computes."""
    build = solution.build
    worn = build.proof is not None and build.proof.wear
    measured = build.heat is not None and build.heat.rear_measured is not None
    if not worn and not measured:
        return
    found, computed = compared(solution)
    for real in found:
        if isinstance(real, str) or not is_rearward(real, computed):
            continue
        yield Remark(
            message=f"By {real.source} the rear does {_percent(real.rear_share)} ± "
            f"{_percent(real.error)} of the work; computed are {_percent(computed.rear_share)} ± "
            f"{_percent(computed.spread)}.",
            why="A rear that does more than it was computed for locks earlier than every figure "
            "here says.",
            basis=BASIS,
            where="proof.wear" if real.source == "wear" else "heat",
        )


def _percent(share: float) -> str:
    return f"{100.0 * share:.0f} %"
