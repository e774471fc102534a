"""A run taken round what is in its way: out of both its ports, along the axes, through holes that are there."""

from collections.abc import Iterator, Sequence

import numpy as np

from keel.analysis.parts import PORTS
from keel.analysis.tank import TankAnalysis
from keel.design.lines import LineRun, RunCorner
from keel.routes.around import pulled_tight, turning, way_round
from keel.routes.rounded import rounded
from keel.solid.polyhedron import Array
from keel.studies.lines.crossings import GROMMET_MM
from keel.studies.lines.hose_stock import radius_of_hose
from keel.studies.lines.places import LINE_PLACES, out_of
from keel.studies.lines.route_gaps import AT_ENDS_MM
from keel.studies.lines.run_shapes import CROWDED_MM, RUN_SHAPES
from keel.studies.lines.surroundings import SURROUNDINGS, Sheet, Surroundings
from keel.studies.lines.tube_stock import radius_of

MORE_MM = 2.0
LEAD_STEP_MM, LEAD_MOST_MM = 20.0, 600.0
TURNS = 2.0
"""What a turn costs, in radii of the run."""
ROOMS = (0.0, 0.5, 1.0, 2.0)
"""More room that is tried about everything, in radii, until corners are far enough apart to be bent."""
Boxes = tuple[Array, Array]


def taken_round(tank: TankAnalysis, run: LineRun) -> tuple[RunCorner, ...] | None:
    """Corners with which a run clears all that stands about it.

    Parameters
    ----------
    tank : TankAnalysis
        The design.
    run : LineRun
        One of its runs.

    Returns
    -------
    tuple of RunCorner or None
        None where no such way is found.
    """
    shape = next((one for one in tank[RUN_SHAPES] if one.id == run.id), None)
    way = next((one.way for one in tank[LINE_PLACES].runs if one.id == run.id), None)
    if shape is None or way is None:
        return None
    radius = _radius(tank, run)
    ends = [np.array([at.x, at.y, at.z]) for at in (way[0], way[-1])]
    facing = [out_of(end, tank.design.lines, tank[PORTS]) for end in (run.start, run.end)]
    found = [way for more in ROOMS for way in _ways(tank, run, ends, facing, radius, shape.outside_mm / 2, more)]
    best = min(found, key=lambda way: (_crowded(way, radius), _cost(way, radius)), default=None)
    if best is None:
        return None
    return tuple(RunCorner(x_mm=float(x), y_mm=float(y), z_mm=float(z)) for x, y, z in np.round(best[1:-1]))


def lead_mm(tank: TankAnalysis, run: LineRun) -> float:
    """How far a run goes straight from a port: its bend begins behind the fitting."""
    return float(np.ceil(max(_radius(tank, run), AT_ENDS_MM) / 5) * 5)


def _radius(tank: TankAnalysis, run: LineRun) -> float:
    workshop = tank.workshop
    return radius_of(run, workshop.benders) if run.kind == "tube" else radius_of_hose(run, workshop.hoses)


def _ways(
    tank: TankAnalysis,
    run: LineRun,
    ends: Sequence[Array],
    facing: Sequence[Array | None],
    radius: float,
    half: float,
    more: float,
) -> Iterator[Array]:
    """A way along the axes, and the same pulled tight."""
    lows, highs = _boxes(tank, run, half, more * radius)
    leads = [_led_out(at, out, radius, lows, highs) for at, out in zip(ends, facing, strict=True)]
    found = way_round(leads[0], leads[1], lows, highs, turn_mm=TURNS * radius)
    if found is not None:
        square = np.vstack([ends[0], found, ends[1]])
        yield turning(square, MORE_MM)
        yield turning(pulled_tight(square, lows, highs), MORE_MM)


def _crowded(way: Array, radius: float) -> bool:
    """Its corners are too near each other to be bent."""
    try:
        return bool((rounded(way, radius).straights_mm < -CROWDED_MM).any())
    except ValueError:
        return True


def _cost(way: Array, radius: float) -> float:
    return float(np.linalg.norm(np.diff(way, axis=0), axis=1).sum()) + TURNS * radius * (len(way) - 2)


def _led_out(at: Array, out: Array | None, radius: float, lows: Array, highs: Array) -> Array:
    """Straight out of a port until nothing is in the way."""
    if out is None:
        return at
    far = max(radius, AT_ENDS_MM)
    while far < LEAD_MOST_MM:
        spot = np.asarray(at + far * out)
        if not ((spot > lows) & (spot < highs)).all(axis=1).any():
            return spot
        far += LEAD_STEP_MM
    return at


def _boxes(tank: TankAnalysis, run: LineRun, half: float, more: float) -> Boxes:
    """Everything that the run's middle stays out of."""
    about, rules = tank[SURROUNDINGS], tank.workshop.rules
    rub, edge = rules.rub_mm, rules.edge_mm
    lows, highs = list[Array](), list[Array]()

    def add(low: Array, high: Array, room: float) -> None:
        lows.append(low - room)
        highs.append(high + room)

    bounds = tank.solids.bounds
    add(np.array(bounds.low), np.array(bounds.high), half + rub + MORE_MM + more)
    sheets = {sheet.key: sheet for sheet in about.sheets}
    for thing, low, high in zip(about.boxes, about.lows, about.highs, strict=True):
        sheet = sheets.get(thing.key)
        if sheet is None:
            add(low, high, half + _needed(about, thing.key, thing.needed_mm, rub) + MORE_MM + more)
            continue
        for left in _round_holes(sheet, half + GROMMET_MM + MORE_MM, half + edge + MORE_MM):
            room = np.where(np.arange(3) == sheet.axis, half + rub + MORE_MM, 0.0)
            lows.append(left[0] - room)
            highs.append(left[1] + room)
    for part in tank.design.lines.parts:
        if part.id not in (run.start.part, run.end.part) and part.hangs_in is None:
            reach = np.array([part.long_mm / 2, part.long_mm / 2, part.across_mm / 2])
            middle = np.array([part.x_mm, part.y_mm, part.z_mm])
            add(middle - reach, middle + reach, half + MORE_MM)
    return np.array(lows), np.array(highs)


def _needed(about: Surroundings, key: str, needed: float, rub: float) -> float:
    """What is only metal needs no more than not to be rubbed on."""
    kind = next(thing.kind for thing in about.boxes if thing.key == key)
    return rub if kind in ("hard metal", "pad-mounted face", "cover or body skin") else needed


def _round_holes(sheet: Sheet, room: float, edge: float) -> Iterator[Boxes]:
    """A sheet, as much larger as a run stays off its edge, as boxes that leave its open holes free for the run."""
    first, second = sheet.others
    pieces = [(sheet.low[[first, second]] - edge, sheet.high[[first, second]] + edge)]
    for hole in sheet.holes:
        low, high = np.array(hole.low) + room, np.array(hole.high) - room
        if hole.sealed or (low >= high).any():
            continue
        pieces = [left for piece in pieces for left in _less(piece, low, high)]
    for low, high in pieces:
        start, end = sheet.low.copy(), sheet.high.copy()
        start[[first, second]], end[[first, second]] = low, high
        yield start, end


def _less(piece: Boxes, low: Array, high: Array) -> Iterator[Boxes]:
    """A rectangle less another: up to four rectangles."""
    (a, b), (c, d) = piece
    u0, u1 = max(a, low[0]), min(c, high[0])
    v0, v1 = max(b, low[1]), min(d, high[1])
    if u0 >= u1 or v0 >= v1:
        yield piece
        return
    for box in ((a, b, u0, d), (u1, b, c, d), (u0, b, u1, v0), (u0, v1, u1, d)):
        if box[0] < box[2] and box[1] < box[3]:
            yield np.array(box[:2]), np.array(box[2:])
