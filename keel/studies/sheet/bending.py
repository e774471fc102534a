"""How each part is bent on the shop's brakes: an order that works, how far for springback, how it looks."""

from collections.abc import Sequence
from dataclasses import dataclass, field
from itertools import pairwise
from math import floor

from keel.analysis.parts import SHELL, WORKSHOP, only
from keel.analysis.study import study
from keel.design.document import Design
from keel.design.workshop import Brake, Workshop
from keel.reference.metals import METALS, MetalName
from keel.solid.solids import AnyShell
from keel.studies.sheet.bend_order import Bent, Search, Way, looks
from keel.studies.sheet.brakes import machine_of
from keel.studies.sheet.hems import is_hem
from keel.studies.sheet.let_in import BENT
from keel.studies.sheet.machines import bends_it, in_house
from keel.studies.sheet.model import Sheet
from keel.studies.sheet.parts import Bend, FlatPart, Spot
from keel.studies.sheet.springback import bend_to_deg, left_of_bent, yield_of_strip

SAME_MM = 1e-6
LEAST_CHECKED_DEG, MOST_CHECKED_DEG, BEFORE_DEG = 20.0, 175.0, 4.0
"""Bends that are checked on their way, and how long before the end of it [°]."""
SAME_TOOL_MM = 0.1
"""A strip bent round a radius so near was bent on the same tool."""


@dataclass(frozen=True, slots=True)
class AngleCheck:
    """A stop on the way to a bend: bent so far and let go, so much has to be left [°]."""

    bent_to_deg: float
    left_deg: float


@dataclass(frozen=True, slots=True)
class BendStep:
    """One bend: which it is along the flat, how far to bend it so that the angle is left, which end is clamped.

    `bend_to_deg` is empty where the sheet would spring back flat; `turned_over` says that the part lies with its
    reader's side down.
    """

    bend: int
    angle_deg: float
    bend_to_deg: float | None
    direction: str
    clamped: Way
    turned_over: bool
    before: list[Spot]
    after: list[Spot]
    """The part as a line across the brake, the bend at the origin, before and after [mm]."""
    on_the_way: list[AngleCheck] = field(default_factory=list)
    """Where to stop and look: half way, and just before the end."""


@dataclass(frozen=True, slots=True)
class Bending:
    """How one part is bent.

    `orders` says how many orders the brake can make; it is empty for a pan, whose fingers are judged instead. Where
    there is none, `stuck` is the bend that can't be made after as many others as can, counted along the flat. `tool`,
    `under` and `leaf` are outlines of the machine [mm]: its beam or punch, its bed or die, and at rest a folder's leaf.
    """

    name: str
    title: str
    machine: str
    tool: list[Spot]
    under: list[Spot]
    leaf: list[Spot]
    steps: list[BendStep]
    orders: int | None
    stuck: int | None


@dataclass(frozen=True, slots=True)
class Bendings:
    """Every part that is bent here, each with its machine."""

    parts: list[Bending]


def bendings(made: Sheet, shell: AnyShell, workshop: Workshop, design: Design) -> Bendings:
    """Work out how each part with parallel bends is bent.

    Parameters
    ----------
    made : Sheet
        All parts.
    shell : AnyShell
        Its metal springs back.
    workshop : Workshop
        The brakes, K, and the shop's own strips.
    design : Design
        Which parts are sent out.

    Returns
    -------
    Bendings
        Each on the first brake whose sizes let it and that has an order; where none has, on the first of those. Of a
        part that is bent both ways, as a pan, only how far: its fingers are judged by themselves.
    """
    parts = in_house(made, design.sheet.sent_out)
    return Bendings([_on_the_best(part, shell.metal, workshop) for part in parts])


def _on_the_best(part: FlatPart, metal: MetalName, workshop: Workshop) -> Bending:
    able = [brake for brake in workshop.brakes if bends_it(brake, part, metal)] or [workshop.brake]
    first: Bending | None = None
    for brake in able:
        bent = _bending(part, brake, metal, workshop)
        if bent.stuck is None:
            return bent
        first = first or bent
    assert first is not None
    return first


def _bending(part: FlatPart, brake: Brake, metal: MetalName, workshop: Workshop) -> Bending:
    machine = machine_of(brake)
    shapes = machine.shown
    to = {bend.order: _bend_to(bend, part.thickness_mm, metal, workshop) for bend in part.bends}
    bends = along(part)
    if not bends:
        plain = sorted(part.bends, key=lambda bend: bend.order)
        steps = [
            BendStep(
                bend.order,
                bend.angle_deg,
                to[bend.order],
                bend.direction,
                "low",
                False,
                [],
                [],
                on_the_way(bend.angle_deg, to[bend.order]),
            )
            for bend in plain
        ]
        return Bending(part.name, part.title, brake.name, *shapes, steps, None, None)
    hems = [bend for bend in part.bends if is_hem(bend)]
    legs = _legs(part, bends)
    signed = [bend.angle_deg * (1 if bend.direction == "up" else -1) for bend in bends]
    search = Search(machine.obstacles, legs, signed)
    orders = search.count()
    order = _wanted(search, bends) if orders else _as_far_as_it_goes(search, len(bends))
    first = len(bends) + 1
    steps = [
        BendStep(number, hem.angle_deg, hem.angle_deg, hem.direction, "low", hem.direction == "down", [], [])
        for number, hem in enumerate(hems, start=first)
    ]
    made = frozenset[int]()
    for one in order:
        drawn = list(looks(legs, signed, made, one.bend, one.way, machine.free))
        bend = bends[one.bend]
        over = bend.direction == "down"
        before, after = ([(float(x), float(y)) for x, y in look] for look in (drawn[0], drawn[-1]))
        angles = bend.angle_deg, to[bend.order]
        steps.append(BendStep(one.bend + 1, *angles, bend.direction, one.way, over, before, after, on_the_way(*angles)))
        made |= {one.bend}
    stuck = None if orders else min(set(range(len(bends))) - made) + 1
    return Bending(part.name, part.title, brake.name, *shapes, steps, orders, stuck)


def on_the_way(wanted_deg: float, to_deg: float | None) -> list[AngleCheck]:
    """Angles to check before a bend is made whole.

    Parameters
    ----------
    wanted_deg : float
        That is to be left [°].
    to_deg : float or None
        How far it is bent for that [°]; None where nothing would be left.

    Returns
    -------
    list of AngleCheck
        At whole degrees of the machine, half way and a little before the end; none of a hem or a slight bend.

    References
    ----------
    The share that is left doesn't go with the angle (`left_of_bent`).
    """
    if to_deg is None or to_deg < LEAST_CHECKED_DEG or wanted_deg > MOST_CHECKED_DEG:
        return []
    stops = round(to_deg / 2), floor(to_deg - BEFORE_DEG)
    return [AngleCheck(float(stop), stop * wanted_deg / to_deg) for stop in stops]


def _bend_to(bend: Bend, thickness_mm: float, metal: MetalName, workshop: Workshop) -> float | None:
    """How far to bend: by the shop's strip on that tool, else by the yield that one shows, else by the table's.

    A hem is bent as far as the brake goes and then pressed down.
    """
    if is_hem(bend):
        return bend.angle_deg
    data, strip = METALS[metal], workshop.strip_for(metal, thickness_mm, bend.radius_mm)
    k = workshop.k_for(metal, thickness_mm, bend.radius_mm)
    yields, share = data.yield_mpa, strip.share_left if strip else None
    if strip is not None and share is not None:
        if abs(strip.radius_mm - bend.radius_mm) < SAME_TOOL_MM:
            return bend_to_deg(bend.angle_deg, share)
        own = strip.radius_mm + strip.k * strip.thickness_mm
        yields = yield_of_strip(share, own, strip.thickness_mm, data.youngs_modulus_gpa)
    neutral = bend.radius_mm + k * thickness_mm
    left = left_of_bent(neutral, thickness_mm, data.youngs_modulus_gpa, yields)
    return bend_to_deg(bend.angle_deg, left) if left > 0 else None


def along(part: FlatPart) -> list[Bend]:
    """Bends in turn along a part whose bends are all parallel, hems left out; none of others.

    Parameters
    ----------
    part : FlatPart
        Any part.

    Returns
    -------
    list of Bend
        From its left or its lower edge.
    """
    bends = [bend for bend in part.bends if not is_hem(bend)]
    for way in (0, 1):
        if all(abs(bend.start[way] - bend.end[way]) < SAME_MM for bend in bends):
            return sorted(bends, key=lambda bend: bend.start[way])
    return []


def _legs(part: FlatPart, bends: Sequence[Bend]) -> list[float]:
    """Outside legs between bends that are parallel [mm]."""
    way = 0 if abs(bends[0].start[0] - bends[0].end[0]) < SAME_MM else 1
    places = [0.0, *(bend.start[way] for bend in bends), (part.length_mm, part.width_mm)[way]]
    taken = [0.0, *(bend.deduction_mm / 2 for bend in bends), 0.0]
    return [b - a + taken[n] + taken[n + 1] for n, (a, b) in enumerate(pairwise(places))]


def _wanted(search: Search, bends: Sequence[Bend]) -> list[Bent]:
    """The order on the flat where the brake can make it, from the free edges inward; else the first that it can."""
    made, order = frozenset[int](), []
    for place in sorted(range(len(bends)), key=lambda n: bends[n].order):
        way = search.way_of(made, place)
        if way is None:
            return next(search.orders())
        order.append(Bent(place, way))
        made |= {place}
    return order


def _as_far_as_it_goes(search: Search, count: int) -> list[Bent]:
    """The most bends that can be made one after the other."""
    best: list[Bent] = []
    waiting: list[list[Bent]] = [[]]
    seen = {frozenset[int]()}
    while waiting:
        so_far = waiting.pop(0)
        best = so_far
        made = frozenset(one.bend for one in so_far)
        for bend in range(count):
            way = search.way_of(made, bend) if bend not in made else None
            if way is not None and made | {bend} not in seen:
                seen.add(made | {bend})
                waiting.append([*so_far, Bent(bend, way)])
    return best


BENDINGS = study(bendings, BENT, SHELL, WORKSHOP, only("sheet.sent_out")).at_rest()
"""How each part is bent."""
