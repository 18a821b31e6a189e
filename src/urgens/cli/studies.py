"""Commands that solve a build many times: sizes, ways to balance, draws."""

import argparse
from collections.abc import Sequence

import numpy as np

from urgens.cli.exits import DONE
from urgens.cli.printing import loaded, print_json
from urgens.document import BuildErrors
from urgens.document.kinds.bores import sold_bores
from urgens.guidance.advice.ranked_ways import ranked_ways
from urgens.guidance.advice.wish_cards import offered, wish_words
from urgens.printed.robustness import printed_robustness
from urgens.printed.sizing import printed_sizing
from urgens.printed.valve_choice import printed_choice
from urgens.printed.wishing import printed_wishes
from urgens.quantity.spelling import items_of
from urgens.solve import every_road
from urgens.solve.solution import case_index
from urgens.studies.rear_first_chance import rear_first_chances
from urgens.studies.robustness import robustness
from urgens.studies.sizing import RATIOS, rear_bores_of, sizing_map
from urgens.studies.wishes.freedom import MAY, USUALLY
from urgens.studies.wishes.systems import search
from urgens.studies.wishes.wanted import wished


def _size(options: argparse.Namespace) -> int:
    build = loaded(options)
    if not build.master.has_bar and any(rear is not None for _, rear in options.bore or ()):
        raise BuildErrors.one(
            "--bore",
            f"names a front and a rear bore, and this build has one {build.master.kind} cylinder",
            "write one bore, such as 19 mm; FRONT:REAR goes with twin cylinders",
        )
    given = options.bore or [(bore.value, None) for bore in sold_bores()]
    bores = np.array([front for front, _ in given])
    apart = rear_bores_of(build, bores)
    named = np.array([np.nan if rear is None else rear for _, rear in given])
    rears = np.where(np.isnan(named), apart, named)
    kept = rears > 0
    ratios = RATIOS if options.ratio is None else np.array(sorted(set(options.ratio)))
    case = case_index(build, options.load_case)
    found = sizing_map(build, case, bores[kept], rears[kept], ratios)
    print_json(printed_sizing(build, case, found))
    return DONE


def _valves(options: argparse.Namespace) -> int:
    build = loaded(options)
    asked = tuple(dict.fromkeys(options.surface)) if options.surface else None
    ways = ranked_ways(build, asked, options.margin)
    assert ways is not None  # nobody tells it to stop
    print_json(printed_choice(build, ways, asked or every_road(build)))
    return DONE


def _robustness(options: argparse.Namespace) -> int:
    build = loaded(options)
    case = case_index(build, options.load_case)
    found = robustness(build, case, options.draws, options.seed)
    assert found is not None  # nobody tells it to stop
    (anywhere,) = rear_first_chances([build])  # what `valves` says, whichever the seed
    print_json(printed_robustness(found, anywhere))
    return DONE


def _wish(options: argparse.Namespace) -> int:
    build = loaded(options)
    wishes = wished(build, _named("--want", options.want))
    may = _named("--may", options.may, bare=True) if options.may else dict.fromkeys(USUALLY)
    choices = {name: [*items_of(text)] if text else None for name, text in may.items()}
    for name in choices:
        if name not in MAY:
            raise BuildErrors.one(f"may {name}", "is nothing that may change",
                                  f"write one of {', '.join(MAY)}")  # fmt: skip
    answer = search(build, wishes, choices)
    assert answer is not None  # nobody tells it to stop
    units = build.natural_units
    offer = offered(build, wishes, answer.systems, units)
    assert offer is not None
    if options.json:
        print_json(printed_wishes(answer, offer))
        return DONE
    for line in wish_words(answer, offer, units):
        print(line)
    return DONE


def _named(option: str, given: Sequence[str] | None, *, bare: bool = False) -> dict[str, str]:
    """Return what was typed after an option by name; bare: whether a name alone will do."""
    found = {}
    for text in given or ():
        name, equals, value = text.partition("=")
        if not name or not (value.strip() or (bare and not equals)):
            form = "NAME=A;B or NAME" if bare else "NAME=VALUE"
            raise BuildErrors.one(option, f'"{text}" is not {form}', f"write {form}")
        found[name.strip()] = value.strip()
    return found


RUN = {"size": _size, "valves": _valves, "robustness": _robustness, "wish": _wish}
