"""What the needle says against what is in the tank."""

from collections.abc import Callable, Sequence
from dataclasses import dataclass
from functools import lru_cache
from itertools import pairwise
from math import asin, cos, degrees, radians, sin

import numpy as np
from manifold3d import Manifold, OpType

from keel.analysis.parts import GAUGE, PORTS, SOLIDS
from keel.analysis.study import study
from keel.design.gauge import Gauge, Sender, SwingArm
from keel.design.ports import Port
from keel.reference.units import MM3_PER_LITRE
from keel.solid.build import Cell, Solids
from keel.solid.polyhedron import Waterline
from keel.studies.liquid.capacity import ULLAGE
from keel.studies.liquid.draining import inside
from keel.studies.ports.hung_solids import HIT_MM3, hanging, names_outside
from keel.studies.result import Point

UP = np.array([0.0, 0.0, 1.0])
CLEAR_MM = 3.0
"""Room kept between float and floor or roof where no mark is typed [mm]."""
TUBE_ENDS_MM = 8.0
"""A tube sender stops this far off floor and roof [mm]."""
SWEEP_STEPS = 12
BREAKPOINTS = 12


@dataclass(frozen=True, slots=True)
class Mark:
    """One position of the needle: where the float is, and what is in the tank."""

    needle: float
    ohms: float
    float_mm: float
    litres: float
    error_l: float
    """True litres less what the needle lets believe: that share of the rated capacity."""


@dataclass(frozen=True, slots=True)
class Tenth:
    """A true share of the rated capacity, which is what the needle's full means, and where the needle stands then."""

    share: float
    litres: float
    needle: float


@dataclass(frozen=True, slots=True)
class Method:
    """One way of fitting a sender to this depth, with its figures."""

    name: str
    arm_mm: float
    pivot_mm: float
    empty_mm: float
    full_mm: float
    left_at_empty_l: float
    above_full_l: float
    worst_l: float
    fits: bool
    """The float clears floor and roof at both stops."""
    favoured: bool


@dataclass(frozen=True, slots=True)
class Reading:
    """One sender worked out in the cell it hangs in. Heights go up from the inner floor below it [mm]."""

    id: str
    name: str
    cell: str
    kind: str
    depth_mm: float
    empty_mm: float
    full_mm: float
    made_travel_mm: float | None
    arm_mm: float | None
    arm_more_mm: float | None
    pivot_mm: float | None
    brimful_l: float
    rated_l: float
    """What the needle's full means: every error, tenth and printed face counts from it."""
    left_at_empty_l: float
    above_full_l: float
    worst_l: float
    eighths: list[Mark]
    tenths: list[Tenth]
    breakpoints: list[Mark]
    methods: list[Method]
    sweep: list[Point]
    """The float's middle from empty to full, in vehicle axes."""
    pivot: Point | None
    float_mm: float
    meets: list[str]
    """What the float meets on its way."""
    switch_mm: float | None
    """Height of the low-level switch for the reserve, over the lowest place of the cell."""


@dataclass(frozen=True, slots=True)
class Joined:
    """Several senders of one cell on one needle: true tenths of rated, and where it stands."""

    cell: str
    how: str
    rated_l: float
    tenths: list[Tenth]
    worst_l: float


@dataclass(frozen=True, slots=True)
class GaugeTruth:
    """All senders, and those that are joined."""

    readings: list[Reading]
    joined: list[Joined]


@dataclass(frozen=True, slots=True)
class Swing:
    """An arm about its pivot: the float's height is pivot + arm · sin θ."""

    arm_mm: float
    pivot_mm: float
    empty_deg: float
    full_deg: float

    def height(self, needle: float) -> float:
        """Float's middle at a share of the needle's travel; θ is linear in it [mm]."""
        angle = radians(self.empty_deg + needle * (self.full_deg - self.empty_deg))
        return self.pivot_mm + self.arm_mm * sin(angle)

    def needle(self, height_mm: float) -> float:
        """Where the needle stands with the float at a height; it stays at its stops beyond them."""
        reach = (height_mm - self.pivot_mm) / self.arm_mm
        angle = degrees(asin(min(1.0, max(-1.0, reach))))
        return min(1.0, max(0.0, (angle - self.empty_deg) / (self.full_deg - self.empty_deg)))


@dataclass(frozen=True, slots=True)
class Slide:
    """A float in a tube: height and needle go straight with each other."""

    empty_mm: float
    full_mm: float

    def height(self, needle: float) -> float:
        """Float's middle at a share of the needle's travel [mm]."""
        return self.empty_mm + needle * (self.full_mm - self.empty_mm)

    def needle(self, height_mm: float) -> float:
        """Where the needle stands with the float at a height."""
        return min(1.0, max(0.0, (height_mm - self.empty_mm) / (self.full_mm - self.empty_mm)))


def made_travel_mm(arm: SwingArm) -> float:
    """Travel that a sender as delivered is made for: H0 = R0 (sin full − sin empty) [mm]."""
    return arm.made_arm_mm * (sin(radians(arm.full_stop_deg)) - sin(radians(arm.empty_stop_deg)))


def swing_for(arm: SwingArm, empty_mm: float, full_mm: float) -> Swing:
    """Arm and pivot that take the float from one height to the other between the same stops.

    R = R0 · H / H0; the pivot stands at z_full − R sin(full).
    """
    radius = arm.made_arm_mm * (full_mm - empty_mm) / made_travel_mm(arm)
    return Swing(radius, full_mm - radius * sin(radians(arm.full_stop_deg)), arm.empty_stop_deg, arm.full_stop_deg)


class Column:
    """The cell under a sender: litres for a height over the inner floor there."""

    def __init__(self, cell: Cell, floor_z: float, roof_z: float) -> None:
        self.line = Waterline(cell.mesh, UP)
        self.offset, self.depth_mm = floor_z - self.line.lowest, roof_z - floor_z
        self.brimful_l = cell.mesh.volume_mm3 / MM3_PER_LITRE

    def litres(self, height_mm: float) -> float:
        """Litres with the surface at a height [L]."""
        level = min(self.line.depth, max(0.0, height_mm + self.offset))
        return float(self.line.volume(level)) / MM3_PER_LITRE

    def tenths(self, rated_l: float) -> list[tuple[float, float]]:
        """True tenths of the rated capacity: litres, and the height of their surface [mm]."""
        litres = rated_l * np.arange(11) / 10
        heights = self.line.levels(litres * MM3_PER_LITRE) - self.offset
        return list(zip(litres.tolist(), heights.tolist(), strict=True))

    def height(self, litres: float) -> float:
        """Height of the surface for litres [mm]."""
        return float(self.line.level(litres * MM3_PER_LITRE)) - self.offset


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


def column_of(solids: Solids, sender: Sender) -> tuple[Cell, Column] | None:
    """The cell a sender hangs in, and its column there."""
    x, y = solids.datum[0] + sender.x_mm, solids.datum[1] + sender.y_mm
    low, high = solids.bounds.low[2] - 1.0, solids.bounds.high[2] + 1.0
    hits = sorted(
        hit.position[2] for hit in solids.inner.ray_cast([x + 1e-5, y + 1e-5, low], [x + 1e-5, y + 1e-5, high])
    )
    if len(hits) < 2:
        return None
    floor, roof = hits[-2], hits[-1]
    middle = np.array([x, y, (floor + roof) / 2])
    cell = next((cell for cell in solids.cells if inside(cell, middle)), None)
    return None if cell is None else (cell, Column(cell, floor, roof))


def marks_of(sender: Sender, column: Column) -> tuple[float, float]:
    """Heights of the empty and the full mark: typed, or just clear of floor and roof [mm]."""
    if isinstance(sender.action, SwingArm):
        clear = sender.action.float_mm / 2 + CLEAR_MM
    else:
        clear = TUBE_ENDS_MM
        if sender.action.length_mm is not None:
            bottom = column.depth_mm - TUBE_ENDS_MM - sender.action.length_mm
            return (
                max(0.0, bottom) if sender.empty_mm is None else sender.empty_mm,
                column.depth_mm - clear if sender.full_mm is None else sender.full_mm,
            )
    return (
        min(clear, column.depth_mm / 4) if sender.empty_mm is None else sender.empty_mm,
        max(column.depth_mm - clear, column.depth_mm * 3 / 4) if sender.full_mm is None else sender.full_mm,
    )


def motion_of(sender: Sender, column: Column) -> Swing | Slide:
    """How the needle follows the float."""
    empty, full = marks_of(sender, column)
    arm = sender.action
    if not isinstance(arm, SwingArm):
        return Slide(empty, full)
    if arm.method == "new arm and pivot":
        return swing_for(arm, empty, full)
    pivot = full - arm.made_arm_mm * sin(radians(arm.full_stop_deg)) if arm.pivot_mm is None else arm.pivot_mm
    return Swing(arm.made_arm_mm, pivot, arm.empty_stop_deg, arm.full_stop_deg)


def litres_for_ohms(sender: Sender, column: Column, ohms: float) -> float:
    """Litres that a sender's ohms stand for; beyond its stops those at the stop [L]."""
    needle = (ohms - sender.ohms_empty) / (sender.ohms_full - sender.ohms_empty)
    return column.litres(motion_of(sender, column).height(min(1.0, max(0.0, needle))))


def ohms_for_litres(sender: Sender, column: Column, litres: float) -> float:
    """Ohms that a sender reads with so much in its cell."""
    needle = motion_of(sender, column).needle(column.height(min(max(litres, 0.0), column.brimful_l)))
    return sender.ohms_empty + needle * (sender.ohms_full - sender.ohms_empty)


def needle_reader(gauge: Gauge, solids: Solids) -> Callable[[float], float] | None:
    """Where the needle stands for litres on the level: the first sender's, or the mean of averaged ones.

    None without a sender, or with several cells, where litres in all don't say which cell they are in.
    """
    if len(solids.cells) != 1:
        return None
    found = [(motion_of(s, place[1]), place[1]) for s in gauge.senders if (place := column_of(solids, s))]
    if not found:
        return None
    read = found if gauge.joined == "averaged" else found[:1]
    return lambda litres: sum(motion.needle(column.height(litres)) for motion, column in read) / len(read)


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

    def mark(needle: float) -> Mark:
        height = motion.height(needle)
        litres = column.litres(height)
        ohms = sender.ohms_empty + needle * (sender.ohms_full - sender.ohms_empty)
        return Mark(needle, ohms, height, litres, litres - needle * rated)

    eighths = [mark(n / 8) for n in range(9)]
    arm = sender.action if isinstance(sender.action, SwingArm) else None
    sweep = _sweep(sender, motion, column, solids)
    return Reading(
        id=sender.id,
        name=sender.name,
        cell=cell.name,
        kind=sender.action.kind,
        depth_mm=column.depth_mm,
        empty_mm=motion.height(0),
        full_mm=motion.height(1),
        made_travel_mm=made_travel_mm(arm) if arm else None,
        arm_mm=motion.arm_mm if isinstance(motion, Swing) else None,
        arm_more_mm=motion.arm_mm - arm.made_arm_mm if arm and isinstance(motion, Swing) else None,
        pivot_mm=motion.pivot_mm if isinstance(motion, Swing) else None,
        brimful_l=column.brimful_l,
        rated_l=rated,
        left_at_empty_l=eighths[0].litres,
        above_full_l=column.brimful_l - eighths[-1].litres,
        worst_l=max((m.error_l for m in eighths), key=abs),
        eighths=eighths,
        tenths=tenths_of(motion, column, rated),
        breakpoints=[mark(n / BREAKPOINTS) for n in range(BREAKPOINTS + 1)],
        methods=_methods(arm, sender, column, rated) if arm else [],
        sweep=[Point.of(place) for place in sweep],
        pivot=Point.of(_over(sender, column, solids, motion.pivot_mm)) if isinstance(motion, Swing) else None,
        float_mm=arm.float_mm if arm else 0.0,
        meets=_meets(sweep, arm.float_mm / 2, solids, obstacles) if arm else [],
        switch_mm=None
        if gauge.reserve_l is None
        else column.height(min(gauge.reserve_l, column.brimful_l)) + column.offset,
    )


def tenths_of(motion: Swing | Slide, column: Column, rated_l: float) -> list[Tenth]:
    """The needle at each true tenth of the rated capacity."""
    return [Tenth(n / 10, litres, motion.needle(height)) for n, (litres, height) in enumerate(column.tenths(rated_l))]


def _methods(arm: SwingArm, sender: Sender, column: Column, rated: float) -> list[Method]:
    empty, full = marks_of(sender, column)
    hung = full - arm.made_arm_mm * sin(radians(arm.full_stop_deg))
    stood = empty - arm.made_arm_mm * sin(radians(arm.empty_stop_deg))
    ways = {
        "new arm and pivot": swing_for(arm, empty, full),
        "as supplied, true at full": Swing(arm.made_arm_mm, hung, arm.empty_stop_deg, arm.full_stop_deg),
        "as supplied, true at empty": Swing(arm.made_arm_mm, stood, arm.empty_stop_deg, arm.full_stop_deg),
        "as supplied, halfway": Swing(arm.made_arm_mm, (hung + stood) / 2, arm.empty_stop_deg, arm.full_stop_deg),
    }
    found = []
    for name, swing in ways.items():
        low, high = swing.height(0), swing.height(1)
        errors = [column.litres(swing.height(n / 8)) - n / 8 * rated for n in range(9)]
        fits = low >= arm.float_mm / 2 - 1e-6 and high <= column.depth_mm - arm.float_mm / 2 + 1e-6
        left, above = column.litres(low), column.brimful_l - column.litres(high)
        found.append(
            (
                fits,
                max(errors, key=abs),
                Method(name, swing.arm_mm, swing.pivot_mm, low, high, left, above, 0, fits, False),
            )
        )
    best = min((abs(worst) for fits, worst, _ in found if fits), default=None)
    return [
        Method(
            s.name,
            s.arm_mm,
            s.pivot_mm,
            s.empty_mm,
            s.full_mm,
            s.left_at_empty_l,
            s.above_full_l,
            worst,
            fits,
            fits and best is not None and abs(worst) <= best,
        )
        for fits, worst, s in found
    ]


def _over(sender: Sender, column: Column, solids: Solids, height_mm: float, out_mm: float = 0.0) -> np.ndarray:
    """A place over the inner floor below a sender, in vehicle axes, so far out in its arm's direction."""
    heading = radians(sender.action.heading_deg) if isinstance(sender.action, SwingArm) else 0.0
    return np.array(
        [
            solids.datum[0] + sender.x_mm + out_mm * cos(heading),
            solids.datum[1] + sender.y_mm + out_mm * sin(heading),
            column.line.lowest + column.offset + height_mm,
        ]
    )


def _sweep(sender: Sender, motion: Swing | Slide, column: Column, solids: Solids) -> list[np.ndarray]:
    """The float's middle from empty to full."""
    places = []
    for step in range(SWEEP_STEPS + 1):
        needle, out = step / SWEEP_STEPS, 0.0
        if isinstance(motion, Swing):
            out = motion.arm_mm * cos(radians(motion.empty_deg + needle * (motion.full_deg - motion.empty_deg)))
        places.append(_over(sender, column, solids, motion.height(needle), out))
    return places


def _meets(sweep: list[np.ndarray], radius: float, solids: Solids, obstacles: list[tuple[str, Manifold]]) -> list[str]:
    """What a float of that radius runs into along its sweep: walls and plates by name, what hangs."""
    start = sweep[0]
    way = _swept(tuple(tuple((place - start).round(6).tolist()) for place in sweep), radius)
    way = way.translate([float(v) for v in start])
    return names_outside(solids, way) + [name for name, solid in obstacles if (way ^ solid).volume() > HIT_MM3]


@lru_cache(maxsize=64)
def _swept(places: tuple[tuple[float, ...], ...], radius: float) -> Manifold:
    """The space that a ball passes through; while something else is dragged it stays the same."""
    ball = Manifold.sphere(radius, 16)
    balls = [ball.translate(list(place)) for place in places]
    way = Manifold.batch_boolean([Manifold.batch_hull([a, b]) for a, b in pairwise(balls)], OpType.Add)
    way.num_tri()  # worked out now, not each time it is used
    return way


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
        tenths.append(Tenth(n / 10, litres, needle))
    worst = max((t.litres - t.needle * rated for t in tenths), key=abs)
    return Joined(cell, how, rated, tenths, worst)


GAUGE_TRUTH = study(gauge_truth, GAUGE, SOLIDS, PORTS, ULLAGE)
