"""Every joint where a hose is pushed on: how far, on a bead or not, helped by what, and where its clamp goes."""

from collections.abc import Sequence
from dataclasses import dataclass

from keel.analysis.parts import LINES, PORTS, RULES, WORKSHOP
from keel.analysis.study import study
from keel.design.connections import Connection
from keel.design.lines import LineRun, Lines
from keel.design.ports import Port
from keel.design.workshop import HouseRules, Workshop
from keel.reference.connections import CLAMPED
from keel.reference.pushed import HELPED, WARM_C, clamp_from_end_mm, insertion_mm
from keel.studies.lines.hose_stock import outside_of_hose
from keel.studies.lines.mating import named
from keel.studies.lines.places import connection_at
from keel.studies.lines.stretches import STRETCHES, Stretch
from keel.studies.result import Words, words


@dataclass(frozen=True, slots=True)
class Pushed:
    """A hose on a tail or a tube.

    Attributes
    ----------
    on : str
        What it is pushed on, by its standard and size.
    pushed_mm, least_mm : float
        How far it is pushed on, as typed or as usual, and at least.
    has_bead, needs_bead : bool
        Whether there is one, or barbs, and whether the pressure asks for one.
    clamp_from_mm, clamp_to_mm : float
        Where the clamp's middle may be, from the hose's end; the second below the first: there is no room for it.
    clamp_for_mm : float
        Outside of what it presses together.
    """

    run: str
    name: str
    side: str
    on: str
    outside_mm: float
    pushed_mm: float
    least_mm: float
    has_bead: bool
    needs_bead: bool
    highest_kpa: float
    lubricant: str
    warming: Words
    clamp_from_mm: float
    clamp_to_mm: float
    clamp_for_mm: float


def pushed_joints(
    lines: Lines, ports: Sequence[Port], stretches: Sequence[Stretch], workshop: Workshop, rules: HouseRules
) -> list[Pushed]:
    """Every such joint.

    Parameters
    ----------
    lines : Lines
        Hoses and parts.
    ports : sequence of Port
        The tank's.
    stretches : sequence of Stretch
        The highest pressure in each run.
    workshop : Workshop
        Hoses by the metre.
    rules : HouseRules
        From which pressure a bead is asked for.

    Returns
    -------
    list of Pushed
        Run by run, start before end.
    """
    kpa = {one.id: one.highest_kpa for one in stretches}
    found = []
    for run in lines.runs:
        if run.kind != "hose":
            continue
        for side, end in (("start", run.start), ("end", run.end)):
            made = connection_at(end, lines, ports)
            if made is not None and made.standard in CLAMPED and end.adapter is None:
                found.append(_pushed(run, side, end.pushed_mm, made, kpa.get(run.id, 0.0), workshop, rules))
    return found


def _pushed(
    run: LineRun,
    side: str,
    typed_mm: float | None,
    made: Connection,
    kpa: float,
    workshop: Workshop,
    rules: HouseRules,
) -> Pushed:
    outside = made.sized.diameter_mm
    least = insertion_mm(outside)
    pushed = least if typed_mm is None else typed_mm
    beaded = made.standard != "plain tube"
    near, far = clamp_from_end_mm(pushed, beaded=beaded)
    wall = (outside_of_hose(run, workshop.hoses) - run.bore_mm) / 2
    helped = HELPED[run.hose]
    return Pushed(
        run=run.id,
        name=run.name,
        side=side,
        on=named(made),
        outside_mm=outside,
        pushed_mm=pushed,
        least_mm=least,
        has_bead=beaded,
        needs_bead=kpa > rules.beaded_above_kpa,
        highest_kpa=kpa,
        lubricant=helped.lubricant,
        warming=words(helped.warming, warm_c=WARM_C) if "{" in helped.warming else words(helped.warming),
        clamp_from_mm=near,
        clamp_to_mm=far,
        clamp_for_mm=outside + 2 * wall,
    )


PUSHED = study(pushed_joints, LINES, PORTS, STRETCHES, WORKSHOP, RULES)
