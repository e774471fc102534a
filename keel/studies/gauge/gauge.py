"""What the needle says against what is in the tank."""

from collections.abc import Sequence

from manifold3d import Manifold

from keel.analysis.parts import GAUGE, PORTS, SOLIDS
from keel.analysis.study import study
from keel.design.gauge import Gauge, Sender, SwingArm
from keel.design.ports import Port
from keel.solid.solids import Cell, Solids
from keel.studies.gauge.column import Column, column_of
from keel.studies.gauge.fitting import fitting_methods
from keel.studies.gauge.motion import motion_of
from keel.studies.gauge.readings import GaugeTruth, Joined, NeedlePoint, Reading, TruePoint
from keel.studies.gauge.sweep import float_meets, float_path, place_over
from keel.studies.gauge.swing import Slide, Swing, made_travel_mm
from keel.studies.liquid.capacity import ULLAGE
from keel.studies.ports.hung_solids import hanging
from keel.studies.result import Point

BREAKPOINTS = 12


def gauge_truth(gauge: Gauge, solids: Solids, ports: Sequence[Port], ullage: float) -> GaugeTruth:
    """Every sender of a gauge against the tank it hangs in, on the level.

    Parameters
    ----------
    gauge : Gauge
        Senders, how they are joined, and the reserve.
    solids : Solids
        The shell worked out.
    ports : sequence of Port
        What hangs from them is in the float's way.
    ullage : float
        Share of brimful left empty: the needle's full means the rated capacity.

    Returns
    -------
    GaugeTruth
        Senders that hang in no cell are left out; a finding says so.
    """
    found = [(sender, column) for sender in gauge.senders if (column := column_of(solids, sender)) is not None]
    obstacles = [(port.name, solid) for port in ports if (solid := hanging(solids, port)) is not None]
    readings = [_reading(sender, cell, column, gauge, solids, obstacles, ullage) for sender, (cell, column) in found]
    joined = []
    if gauge.joined != "each its own needle":
        for name in sorted({cell.name for _, (cell, _) in found}):
            several = [(sender, column) for sender, (cell, column) in found if cell.name == name]
            if len(several) > 1:
                joined.append(_joined(name, gauge.joined, several, ullage))
    return GaugeTruth(readings, joined)


def _reading(
    sender: Sender,
    cell: Cell,
    column: Column,
    gauge: Gauge,
    solids: Solids,
    obstacles: list[tuple[str, Manifold]],
    ullage: float,
) -> Reading:
    motion, rated = motion_of(sender, column), column.brimful_l * (1 - ullage)
    eighths = _needle_points(sender, motion, column, rated, 8)
    arm = sender.action if isinstance(sender.action, SwingArm) else None
    swing = motion if isinstance(motion, Swing) else None
    path = float_path(sender, motion, column, solids)
    return Reading(
        id=sender.id,
        name=sender.name,
        cell=cell.name,
        kind=sender.action.kind,
        depth_mm=column.depth_mm,
        empty_mm=motion.height(0),
        full_mm=motion.height(1),
        made_travel_mm=made_travel_mm(arm) if arm else None,
        arm_mm=swing.arm_mm if swing else None,
        arm_more_mm=swing.arm_mm - arm.made_arm_mm if arm and swing else None,
        pivot_mm=swing.pivot_mm if swing else None,
        brimful_l=column.brimful_l,
        rated_l=rated,
        left_at_empty_l=eighths[0].litres,
        above_full_l=column.brimful_l - eighths[-1].litres,
        worst_l=max((point.error_l for point in eighths), key=abs),
        eighths=eighths,
        tenths=true_tenths(motion, column, rated),
        breakpoints=_needle_points(sender, motion, column, rated, BREAKPOINTS),
        methods=fitting_methods(arm, sender, column, rated) if arm else [],
        sweep=[Point.of(place) for place in path],
        pivot=Point.of(place_over(sender, column, solids, swing.pivot_mm)) if swing else None,
        float_mm=arm.float_mm if arm else 0.0,
        meets=float_meets(path, arm.float_mm / 2, solids, obstacles) if arm else [],
        switch_mm=_switch_mm(gauge.reserve_l, column),
    )


def _needle_points(
    sender: Sender, motion: Swing | Slide, column: Column, rated_l: float, steps: int
) -> list[NeedlePoint]:
    """Even steps of the needle's travel."""
    points = []
    for step in range(steps + 1):
        needle = step / steps
        height = motion.height(needle)
        litres = column.litres(height)
        ohms = sender.ohms_empty + needle * (sender.ohms_full - sender.ohms_empty)
        points.append(NeedlePoint(needle, ohms, height, litres, litres - needle * rated_l))
    return points


def _switch_mm(reserve_l: float | None, column: Column) -> float | None:
    """Height of the switch for the reserve, over the lowest place of the cell [mm]."""
    return None if reserve_l is None else column.height(min(reserve_l, column.brimful_l)) + column.offset


def true_tenths(motion: Swing | Slide, column: Column, rated_l: float) -> list[TruePoint]:
    """The needle at each true tenth of the rated capacity."""
    return [
        TruePoint(n / 10, litres, motion.needle(height)) for n, (litres, height) in enumerate(column.tenths(rated_l))
    ]


def _joined(cell: str, how: str, several: list[tuple[Sender, Column]], ullage: float) -> Joined:
    motions = [(sender, column, motion_of(sender, column)) for sender, column in several]
    column = several[0][1]
    rated = column.brimful_l * (1 - ullage)
    empty, full = sum(s.ohms_empty for s, _ in several), sum(s.ohms_full for s, _ in several)
    tenths = []
    for n, (litres, height) in enumerate(column.tenths(rated)):
        surface = column.line.lowest + height + column.offset
        shares = [m.needle(surface - c.line.lowest - c.offset) for _, c, m in motions]
        if how == "averaged" or empty == full:
            needle = sum(shares) / len(shares)
        else:
            ohms = sum(
                s.ohms_empty + share * (s.ohms_full - s.ohms_empty)
                for (s, _, _), share in zip(motions, shares, strict=True)
            )
            needle = (ohms - empty) / (full - empty)
        tenths.append(TruePoint(n / 10, litres, needle))
    worst = max((t.litres - t.needle * rated for t in tenths), key=abs)
    return Joined(cell, how, rated, tenths, worst)


GAUGE_TRUTH = study(gauge_truth, GAUGE, SOLIDS, PORTS, ULLAGE)
