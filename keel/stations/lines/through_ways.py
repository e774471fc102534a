"""Ways through a sheet for all lines that cross it, side by side: grommets, bulkhead fittings, one removable board."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace
from math import pi

import numpy as np

from keel.analysis.tank import TankAnalysis
from keel.design.line_functions import PassageDoes
from keel.reference.connections import TAKES_MM, Size
from keel.solid.polyhedron import Array
from keel.stations.lines.bulkheads import LONG_MM
from keel.studies.buying.names import bulkhead_fitting, grommet, hose_end
from keel.studies.lines.crossings import CROSSINGS, THREAD_ROOM_MM, Crossing, WayThrough, bulkhead_size, grommet_hole_mm
from keel.studies.lines.joint_places import seen_from
from keel.studies.lines.places import LINE_PLACES
from keel.studies.lines.run_shapes import RUN_SHAPES, RunShape
from keel.studies.lines.surroundings import SURROUNDINGS, Sheet
from keel.studies.result import Words, words

FAR_MM = 1000.0
SPANNER_MM = 12.0
"""Between two nuts on a board, and round them to its seal (house rule)."""
BOARD_LAPS_MM = 15.0
MANY, BOTH = 3, 2
EYE_OFF_MM = 40.0


@dataclass(frozen=True, slots=True)
class ThroughWay:
    """One way for all lines through a sheet.

    Attributes
    ----------
    lines, joints, holes : int
        Lines through it; joints more than without the sheet; holes cut.
    cut_cm2 : float
        Of the sheet, cut out.
    needs_mm, free_mm : float
        Straight off the sheet for fitting and hose end, and what there is on the narrower side.
    sees : float
        Share of the ways that an eye may look from which the place is seen, on the worse side.
    gives_mm : float or None
        How far the ends of the tightest hose come apart before it is tight; None where no hose is joined.
    closes : bool
        Metal all through: flame doesn't come with the line.
    undone : int
        Joints undone to take all of it off one side.
    price : float or None
        Fittings and hose ends; None where one isn't typed.
    """

    panel: str
    panel_name: str
    way: WayThrough
    chosen: bool
    lines: int
    joints: int
    holes: int
    cut_cm2: float
    needs_mm: float
    free_mm: float
    sees: float
    gives_mm: float | None
    closes: bool
    undone: int
    price: float | None
    means: Words
    favoured: bool = False
    why: Words | None = None


def through_ways(tank: TankAnalysis) -> list[ThroughWay]:
    """Every sheet that lines go through, each of its ways.

    Parameters
    ----------
    tank : TankAnalysis
        The design under evaluation.

    Returns
    -------
    list of ThroughWay
        Between tank and people metal that flame doesn't pass is favoured, a board from three lines on; elsewhere
        grommets: a line without joints.
    """
    found: list[ThroughWay] = []
    for sheet in tank[SURROUNDINGS].sheets:
        through = [one for one in tank[CROSSINGS] if one.panel == sheet.key]
        if through:
            found += _favoured(tank, sheet, list(_ways(tank, sheet, through)))
    return found


def _ways(tank: TankAnalysis, sheet: Sheet, through: Sequence[Crossing]) -> Iterator[ThroughWay]:
    sizes = [_size(tank, one) for one in through]
    outsides = [_outside(tank, one) for one in through]
    free, sees = _free(tank, sheet, through), _sees(tank, sheet, through)
    count = len(through)
    ends = [hose_end(name, 0.0) for name, _ in sizes]
    price = _price(tank, [*(bulkhead_fitting(name) for name, _ in sizes), *ends, *ends])
    rubber = [grommet(one, grommet_hole_mm(one)) for one in outsides]
    takes = max(TAKES_MM[name] for name, _ in sizes)

    def way(kind: WayThrough, means: Words, **figures: float | int | bool | None) -> ThroughWay:
        return ThroughWay(
            panel=sheet.key,
            panel_name=sheet.name,
            way=kind,
            chosen=all(one.way == kind for one in through),
            lines=count,
            free_mm=free,
            sees=sees,
            means=means,
            **figures,  # type: ignore[arg-type]
        )

    yield way(
        "grommet",
        words("No joint at the sheet. The rubber burns away and lets flame by; a sheet that shifts shears the hose."),
        joints=0,
        holes=count,
        cut_cm2=sum(pi / 4 * grommet_hole_mm(one) ** 2 for one in outsides) / 100,
        needs_mm=0.0,
        gives_mm=_gives(tank, through, parted=False),
        closes=False,
        undone=count,
        price=_price(tank, rubber),
    )
    yield way(
        "bulkhead fitting",
        words("Metal all through, and the line is undone at the sheet. Two joints more a line, and room for spanners."),
        joints=2 * count,
        holes=count,
        cut_cm2=sum(pi / 4 * (size.diameter_mm + THREAD_ROOM_MM) ** 2 for _, size in sizes) / 100,
        needs_mm=LONG_MM / 2 + takes,
        gives_mm=_gives(tank, through, parted=True),
        closes=True,
        undone=count,
        price=price,
    )
    wide = sum(size.diameter_mm * 1.6 + SPANNER_MM for _, size in sizes) + SPANNER_MM
    tall = max(size.diameter_mm for _, size in sizes) * 1.6 + 2 * SPANNER_MM
    yield way(
        "removable board",
        words(
            "One opening, sealed and screwed: all lines come off with it, and it lets a hand in. It tears out as one."
        ),
        joints=2 * count,
        holes=1,
        cut_cm2=wide * tall / 100,
        needs_mm=LONG_MM / 2 + takes,
        gives_mm=_gives(tank, through, parted=True),
        closes=True,
        undone=count,
        price=price,
    )


def _favoured(tank: TankAnalysis, sheet: Sheet, found: list[ThroughWay]) -> list[ThroughWay]:
    """The one that the figures favour, with why."""
    person = _behind(tank, sheet)
    by_way = {one.way: one for one in found}
    if person:
        count = found[0].lines
        kind: WayThrough = "removable board" if count >= MANY else "bulkhead fitting"
        why = words(
            "{panel} stands between the tank and {person}: no flame with the line", panel=sheet.name, person=person
        )
        if by_way[kind].free_mm < by_way[kind].needs_mm:
            why = words(
                "{panel} stands between the tank and {person}; make room: it needs {needs_mm} and has {free_mm}",
                panel=sheet.name,
                person=person,
                needs_mm=by_way[kind].needs_mm,
                free_mm=by_way[kind].free_mm,
            )
    else:
        kind, why = "grommet", words("nobody sits behind {panel}: no joint is better than two", panel=sheet.name)
    return [replace(one, favoured=one.way == kind, why=why if one.way == kind else None) for one in found]


def _behind(tank: TankAnalysis, sheet: Sheet) -> str:
    """Who sits on the other side of a sheet than the tank; empty: nobody."""
    at = float(sheet.low[sheet.axis])
    box = tank.solids.bounds
    own = (box.low[sheet.axis] + box.high[sheet.axis]) / 2 < at
    vehicle = tank.workshop.vehicle(tank.design.mount.vehicle)
    corner = tank.design.mount.corner
    shift = (corner.x_mm, corner.y_mm, corner.z_mm)[sheet.axis]
    for part in vehicle.parts if vehicle else []:
        low = (part.x_mm, part.y_mm, part.z_mm)[sheet.axis] - shift
        size = (part.length_mm, part.width_mm, part.height_mm)[sheet.axis]
        if part.kind == "person" and (low + size / 2 < at) != own:
            return part.name
    return ""


def _shape(tank: TankAnalysis, one: Crossing) -> RunShape | None:
    return next((shape for shape in tank[RUN_SHAPES] if shape.id == one.id), None)


def _outside(tank: TankAnalysis, one: Crossing) -> float:
    shape = _shape(tank, one)
    return shape.outside_mm if shape else one.needed_mm


def _size(tank: TankAnalysis, one: Crossing) -> tuple[str, Size]:
    """The bulkhead fitting for a line."""
    lines = tank.design.lines
    run = next((run for run in lines.runs if run.id == one.id), None)
    part = lines.part(one.id)
    if run is None and part is not None and isinstance(part.does, PassageDoes):
        return bulkhead_size(part.does.bore_mm)
    return bulkhead_size(run.bore_mm if run else 8.0)


def _gives(tank: TankAnalysis, through: Sequence[Crossing], *, parted: bool) -> float | None:
    """How far the tightest line's ends come apart; parted at the sheet, of its tighter piece."""
    gaps = [long - float(np.linalg.norm(b - a)) for one in through for a, b, long in _spans(tank, one, parted=parted)]
    return max(0.0, min(gaps)) if gaps else None


def _spans(tank: TankAnalysis, one: Crossing, *, parted: bool) -> Iterator[tuple[Array, Array, float]]:
    """Between which places a line is held, and how long it is there: a run, or the runs on both sides of a fitting."""
    longs = {way.id: way.length_mm for way in tank[LINE_PLACES].runs}
    shapes = {shape.id: shape for shape in tank[RUN_SHAPES]}
    at = np.array([one.at.x, one.at.y, one.at.z])
    pieces: list[tuple[Array, Array, float]] = []
    shape = shapes.get(one.id)
    if shape is not None:
        ratio = longs[one.id] / max(shape.length_mm, 1.0)
        pieces.append((shape.line[0], at, ratio * one.along_mm))
        pieces.append((shape.line[-1], at, ratio * (shape.length_mm - one.along_mm)))
    for run in tank.design.lines.runs:
        if shape is None and run.id in shapes and one.id in (run.start.part, run.end.part):
            first, last = shapes[run.id].line[[0, -1]]
            pieces.append((last, first, longs[run.id]) if run.start.part == one.id else (first, last, longs[run.id]))
    if parted:
        yield from pieces
    elif len(pieces) == BOTH:
        yield pieces[0][0], pieces[1][0], pieces[0][2] + pieces[1][2]


def _free(tank: TankAnalysis, sheet: Sheet, through: Sequence[Crossing]) -> float:
    """Straight off the sheet until something stands there, at the worst of its lines, on the narrower side [mm]."""
    about, least = tank[SURROUNDINGS], FAR_MM
    keys = [n for n, thing in enumerate(about.boxes) if thing.key != sheet.key]
    for one in through:
        at = np.array([one.at.x, one.at.y, one.at.z])
        for way in (-1.0, 1.0):
            off = way * FAR_MM * np.eye(3)[sheet.axis]
            hits = [hit.distance * FAR_MM for hit in tank.solids.outer.ray_cast(list(at + 1e-3 * off), list(at + off))]
            for n in keys:
                hits += _ahead(at, way, sheet.axis, about.lows[n], about.highs[n])
            least = min([least, *hits])
    return least


def _ahead(at: Array, way: float, axis: int, low: Array, high: Array) -> list[float]:
    """How far ahead along an axis a box stands, if it does."""
    others = [one for one in range(3) if one != axis]
    if not all(low[one] <= at[one] <= high[one] for one in others):
        return []
    gap = float(low[axis] - at[axis]) if way > 0 else float(at[axis] - high[axis])
    return [gap] if gap >= 0 else []


def _sees(tank: TankAnalysis, sheet: Sheet, through: Sequence[Crossing]) -> float:
    off = EYE_OFF_MM * np.eye(3)[sheet.axis]
    spots = [np.array([one.at.x, one.at.y, one.at.z]) + way * off for one in through for way in (-1.0, 1.0)]
    return min(seen_from(spot, tank[SURROUNDINGS], tank.solids) for spot in spots)


def _price(tank: TankAnalysis, wanted: Sequence[Words]) -> float | None:
    """By the price book; None where one of them isn't in it."""
    found = [tank.workshop.booked(title.plain()) for title in wanted]
    prices = [one.price for one in found if one is not None and one.price is not None]
    return sum(prices) if len(prices) == len(wanted) else None
