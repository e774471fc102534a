"""What hangs from ports inside the tank."""

from math import cos, pi, sin

import numpy as np
from manifold3d import Manifold

from keel.design.ports import Port
from keel.solid.rings import circle
from keel.solid.shapes import drawn_out
from keel.solid.solids import Solids
from keel.solid.standing import lid_height
from keel.studies.liquid.draining import short_by_mm, span_at

LIFT_MM = 0.5
"""What hangs is taken this much shorter and thinner, so that touching isn't meeting [mm]."""


def hanging(solids: Solids, port: Port) -> Manifold | None:
    """What hangs from a port in the roof, as an upright cylinder under the sheet; None without a size.

    Parameters
    ----------
    solids : Solids
        The shell worked out.
    port : Port
        A port in the roof.

    Returns
    -------
    Manifold or None
        In vehicle axes [mm].
    """
    if port.face != "roof" or port.hangs_mm <= LIFT_MM or port.hangs_across_mm <= 2 * LIFT_MM:
        return None
    x, y = solids.datum[0] + port.x_mm, solids.datum[1] + port.y_mm
    top = lid_height(solids, x, y, solids.datum[2])
    ring = np.array([x, y]) + circle(port.hangs_across_mm / 2 - LIFT_MM)
    lids = [lid_height(solids, float(u), float(v), solids.datum[2]) for u, v in ring[:: max(1, len(ring) // 12)]]
    under = min(top, *lids) - solids.shell.thickness_mm - LIFT_MM
    plate = (port.seat.plate_mm or 0.0) if port.seat else 0.0
    bottom = top + plate - port.hangs_mm + LIFT_MM
    bottom += cut_off_mm(solids, port)
    return drawn_out(ring, 2, bottom, under) if bottom < under else None


def cut_off_mm(solids: Solids, port: Port) -> float:
    """What a hanger is too long for its place, which is cut off before it goes in [mm]."""
    floor = floor_under(solids, port) if port.hanger else None
    return 0.0 if floor is None else max(0.0, -short_by_mm(solids, port, floor))


def floor_under(solids: Solids, port: Port) -> float | None:
    """Height of the floor that it lands on: the highest under its footprint, so that bends and ledges count [mm]."""
    x, y = solids.datum[0] + port.x_mm, solids.datum[1] + port.y_mm
    radius = 0.0 if port.hanger and port.hanger.kind in ("tube", "sock") else port.hangs_across_mm / 2
    spots = [(x, y)] + [
        (x + radius * cos(2 * pi * n / 12), y + radius * sin(2 * pi * n / 12)) for n in range(12 if radius else 0)
    ]
    heights = [span[0] for spot in spots if (span := span_at(solids, *spot)) is not None]
    return max(heights, default=None)


HIT_MM3 = 20.0
"""Less than this in the way is rounding [mm³]."""


def names_outside(solids: Solids, solid: Manifold) -> list[str]:
    """What a solid inside the tank runs into: plates, wells and the like by name, else the wall.

    Parameters
    ----------
    solids : Solids
        The shell worked out.
    solid : Manifold
        Any solid inside the tank [mm].

    Returns
    -------
    list of str
        Names; empty where it runs into nothing.
    """
    outside = solid - solids.inner
    rest = float(outside.volume())
    if rest < HIT_MM3:
        return []
    found = []
    for cost in solids.costs:
        if cost.kind == "sump":
            continue
        block = Manifold.cube([b - a for a, b in zip(cost.box.low, cost.box.high, strict=True)])
        within = float((outside ^ block.translate(list(cost.box.low))).volume())
        if within > HIT_MM3:
            found.append(cost.name)
            rest -= within
    return found + (["the wall"] if rest > HIT_MM3 else [])
