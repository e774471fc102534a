"""Wires led round what is in their way: along the axes, through sheet where they have grommets."""

import numpy as np

from keel.analysis.tank import TankAnalysis
from keel.design.lines import RunCorner
from keel.design.wiring import Wire
from keel.routes.around import is_clear, pulled_tight, turning, way_round
from keel.solid.polyhedron import Array
from keel.studies.lines.surroundings import SURROUNDINGS
from keel.studies.wiring.runs import WireRun

HALF_MM, MORE_MM, TURN_MM, BEYOND_MM = 4.0, 6.0, 30.0, 700.0


def corners_round(tank: TankAnalysis, wire: Wire, run: WireRun) -> tuple[RunCorner, ...] | None:
    """Corners with which a wire clears all that stands about it.

    Parameters
    ----------
    tank : TankAnalysis
        The design.
    wire : Wire
        Any wire; of one that is tied to hoses the corners are behind the last of them.
    run : WireRun
        Its way without corners.

    Returns
    -------
    tuple of RunCorner or None
        Empty where it is clear as it is; None where no way is found.
    """
    own = [place for place, mine in enumerate(run.own) if not mine]
    spots = np.array([[at.x, at.y, at.z] for at in run.way])
    start, end = spots[own[-1] + 1 if own else 0], spots[-1]
    lows, highs = _in_the_way(tank, start, end)
    if is_clear(start, end, lows, highs):
        return ()
    found = way_round(start, end, lows, highs, turn_mm=TURN_MM, beyond_mm=BEYOND_MM)
    if found is None:
        return None
    tight = turning(pulled_tight(np.vstack([start, found, end]), lows, highs), MORE_MM)
    return tuple(RunCorner(x_mm=float(x), y_mm=float(y), z_mm=float(z)) for x, y, z in np.round(tight[1:-1]))


def _in_the_way(tank: TankAnalysis, start: Array, end: Array) -> tuple[Array, Array]:
    """What the wire stays out of: not sheet, which it goes through, nor what one of its ends stands in or on."""
    about, bounds = tank[SURROUNDINGS], tank.solids.bounds
    sheets = {sheet.key for sheet in about.sheets}
    boxes = [(np.array(bounds.low), np.array(bounds.high), 0.0)]
    boxes += [
        (low, high, thing.needed_mm)
        for thing, low, high in zip(about.boxes, about.lows, about.highs, strict=True)
        if thing.key not in sheets
    ]
    grown = [(low - room - HALF_MM - MORE_MM, high + room + HALF_MM + MORE_MM) for low, high, room in boxes]
    kept = [pair for pair in grown if not any(((at > pair[0]) & (at < pair[1])).all() for at in (start, end))]
    lows, highs = (np.array([pair[side] for pair in kept]).reshape(-1, 3) for side in (0, 1))
    return lows, highs
