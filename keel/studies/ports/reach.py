"""Whether what hangs from a flange reaches the floor, goes in, clears and lands; and how it is cut."""

from collections.abc import Sequence
from dataclasses import dataclass
from itertools import pairwise
from math import cos, hypot, pi, sin

from manifold3d import Manifold

from keel.analysis.parts import GAUGE, PORTS, RULES, SEAM, SOLIDS
from keel.analysis.study import study
from keel.design.attitude import Attitude
from keel.design.features import Face
from keel.design.gauge import Gauge
from keel.design.ports import DRAWS, Hanger, Port
from keel.design.workshop import HouseRules
from keel.solid.build import Solids
from keel.solid.cuts import FACE_AXIS
from keel.solid.polyhedron import Array
from keel.studies.gauge.gauge import needle_reader
from keel.studies.liquid.draining import drained, inlet_off_mm, place_of, seat_height, short_by_mm
from keel.studies.ports.hung_solids import floor_under, hanging, names_outside
from keel.studies.result import Words, words

SLOPE_DEG = 8.0
TURN_G = 0.5
"""Attitudes that a pickup and a vent are tried in."""
ATTITUDES: dict[str, Attitude] = {
    "on the level": Attitude(),
    "nose up": Attitude(pitch_deg=SLOPE_DEG),
    "nose down": Attitude(pitch_deg=-SLOPE_DEG),
    "left turn": Attitude(left_g=TURN_G),
    "right turn": Attitude(left_g=-TURN_G),
}
RING = 24
CLOSING_SEAM = "the closing seam"
FLAT_MM = 0.05
"""Sheet that stays within this of the middle counts as flat [mm]."""


@dataclass(frozen=True, slots=True)
class CutStep:
    """One step of the hanger's cut sheet."""

    what: str
    length_mm: float | None
    how: Words
    undone: bool
    """Whether it can be undone; before one that can't, the second measurement has to agree."""


@dataclass(frozen=True, slots=True)
class Reach:
    """One hanger at its place. A negative `short_mm` is what has to be cut off."""

    id: str
    name: str
    depth_mm: float
    made_for_mm: float
    short_mm: float
    too_long_mm: float
    """What it stays too long by with bracket and tube cut to their least."""
    drop_mm: float
    """Flange seat to inlet, as it has to be."""
    inlet_off_mm: float
    second_mm: float | None
    agrees: bool | None
    """Whether the second measurement agrees; empty before it is taken."""
    steps: list[CutStep]


@dataclass(frozen=True, slots=True)
class Hung:
    """What hangs from a port, hanger or not: through its hole, clear of everything."""

    id: str
    name: str
    passes: bool | None
    """Whether it passes its own hole; empty where sizes are missing."""
    hole_mm: float | None
    widest_mm: float
    meets: list[str]


@dataclass(frozen=True, slots=True)
class Landing:
    """The sheet round a port's seat."""

    id: str
    name: str
    face: Face
    flat_mm: float
    """Radius of sheet that is flat round its middle."""
    needed_mm: float
    on_sheet: bool
    seam_mm: float | None
    """From its edge to the nearest seam or plate weld on that face."""
    by: str


@dataclass(frozen=True, slots=True)
class Unreached:
    """Litres that all pickups together leave, brimful to dry, in an attitude; and air that stays."""

    attitude: str
    stranded_l: float | None
    trapped_l: float | None
    needle: float | None
    """Where the needle stands with that much left, back on the level; empty with several cells or no sender."""


@dataclass(frozen=True, slots=True)
class Crowd:
    """Two ports whose seats and spanner room overlap."""

    first: str
    second: str
    apart_mm: float
    needed_mm: float


def reaches(solids: Solids, ports: Sequence[Port], rules: HouseRules) -> list[Reach]:
    """Every hanger in the roof against the depth at its place."""
    found = []
    for port in ports:
        if port.hanger is None or port.role not in DRAWS or port.face != "roof":
            continue
        floor = floor_under(solids, port)
        if floor is not None:
            found.append(_reach(solids, port, port.hanger, floor, rules))
    return found


def _reach(solids: Solids, port: Port, hanger: Hanger, floor: float, rules: HouseRules) -> Reach:
    depth = seat_height(solids, port) - floor
    off = inlet_off_mm(port)
    drop = depth + rules.sleeve_mm if hanger.sprung else depth - off
    second = hanger.measured_mm
    bracket, tube = _lengths(hanger, depth, drop)
    return Reach(
        id=port.id,
        name=port.name,
        depth_mm=depth,
        made_for_mm=hanger.made_for_mm,
        short_mm=short_by_mm(solids, port, floor),
        too_long_mm=max(0.0, 2 * hanger.grip_mm - tube),
        drop_mm=drop,
        inlet_off_mm=off,
        second_mm=second,
        agrees=None if second is None else abs(second - depth) <= rules.measure_mm,
        steps=_cut_sheet(hanger, bracket, max(tube, 2 * hanger.grip_mm), drop, rules),
    )


def _lengths(hanger: Hanger, depth: float, drop: float) -> tuple[float, float]:
    """Bracket and tube that bring the inlet to its place: the bracket gives first, no further than it may [mm]."""
    surplus = max(0.0, hanger.made_for_mm + hanger.extend_mm - depth)
    bracket = max(min(hanger.bracket_least_mm, hanger.bracket_mm), hanger.bracket_mm - surplus)
    return bracket, drop - bracket - hanger.pump_mm - hanger.strainer_mm + 2 * hanger.grip_mm


def _cut_sheet(hanger: Hanger, bracket: float, tube: float, drop: float, rules: HouseRules) -> list[CutStep]:
    """Bracket first, then the tube: each with its grip; what must be slid on stands before the piece it goes on."""
    steps = []
    less = hanger.bracket_mm - bracket
    if less > rules.measure_mm:
        how = words("{made_mm} as supplied less {less_mm}", made_mm=hanger.bracket_mm, less_mm=less)
        if bracket <= hanger.bracket_least_mm:
            how = words(how.text + ", the least that it may be; the tube gives the rest", **how.values)
        steps.append(CutStep("bracket", bracket, how, False))
    if hanger.grip_mm:
        steps.append(CutStep("clamps", None, words("slide both on before the tube's second end is pushed home"), True))
    said = (
        "{drop_mm} from seat to inlet less bracket {bracket_mm}, pump {pump_mm} and strainer {strainer_mm}, "
        "and {grip_mm} in each clamp"
    )
    if hanger.sprung:
        said += "; {sleeve_mm} of it squeezes the sleeve"
    how = words(
        said,
        drop_mm=drop,
        bracket_mm=bracket,
        pump_mm=hanger.pump_mm,
        strainer_mm=hanger.strainer_mm,
        grip_mm=hanger.grip_mm,
        sleeve_mm=rules.sleeve_mm,
    )
    steps.append(CutStep("tube", tube, how, False))
    if hanger.strainer_mm:
        steps.append(CutStep("strainer", None, words("push on last, pull on it: it must not come off"), True))
    return steps


def hung(solids: Solids, ports: Sequence[Port]) -> list[Hung]:
    """Everything that hangs: whether it goes through its hole, and what it meets inside."""
    solid_of = {port.id: solid for port in ports if (solid := hanging(solids, port)) is not None}
    found = []
    for port in ports:
        widest = max(port.hangs_across_mm, port.diagonal_mm)
        if not widest and port.id not in solid_of:
            continue
        hole = port.seat.hole_mm if port.seat else None
        meets = [] if port.id not in solid_of else names_outside(solids, solid_of[port.id])
        meets += [
            p.name
            for p in ports
            if p.id != port.id
            and p.id in solid_of
            and port.id in solid_of
            and _cross(solid_of[p.id], solid_of[port.id])
        ]
        found.append(
            Hung(port.id, port.name, None if hole is None or not widest else widest <= hole, hole, widest, meets)
        )
    return found


def _cross(a: Manifold, b: Manifold) -> bool:
    return bool((a ^ b).volume() > 1.0)


def landings(solids: Solids, ports: Sequence[Port], rules: HouseRules, seam: str) -> list[Landing]:
    """The sheet round every seat: flat, and far enough from bends, seams and plates."""
    return [_landing(solids, port, port.seat.outer_mm / 2, rules, seam) for port in ports if port.seat]


def _landing(solids: Solids, port: Port, radius: float, rules: HouseRules, seam: str) -> Landing:
    needed = radius + rules.land_mm
    place = place_of(solids, port)
    middle = _sheet_at(solids, port.face, place, (0.0, 0.0))
    gap, by = _to_weld(solids, port, seam)
    return Landing(
        id=port.id,
        name=port.name,
        face=port.face,
        flat_mm=0.0 if middle is None else _flat_radius(solids, port.face, place, middle, needed),
        needed_mm=needed,
        on_sheet=middle is not None,
        seam_mm=None if gap is None else gap - radius,
        by=by,
    )


Sheet = tuple[float, float, float]
"""How far out the sheet is, and how it slopes along the face's two axes."""


def _sheet_at(solids: Solids, face: Face, place: Array, off: tuple[float, float]) -> Sheet | None:
    """The sheet on a face, so far from a place along the face's axes."""
    axis, high = FACE_AXIS[face]
    across = [i for i in range(3) if i != axis]
    start, end = [float(v) for v in place], [float(v) for v in place]
    for i, mm in zip(across, off, strict=True):
        start[i] += mm + 1e-5
        end[i] += mm + 1e-5
    start[axis] = solids.bounds.high[axis] + 1.0 if high else solids.bounds.low[axis] - 1.0
    end[axis] = solids.bounds.low[axis] - 1.0 if high else solids.bounds.high[axis] + 1.0
    hits = solids.outer.ray_cast(start, end)
    if not hits:
        return None
    hit = min(hits, key=lambda found: abs(found.position[axis] - start[axis]))
    steep = [-float(hit.normal[i]) / float(hit.normal[axis]) if hit.normal[axis] else 0.0 for i in across]
    return float(hit.position[axis]), steep[0], steep[1]


def _flat_radius(solids: Solids, face: Face, place: Array, middle: Sheet, enough: float) -> float:
    """Radius of sheet that lies in one plane round a place, by halving, to half a millimetre [mm].

    A lid that slopes is as flat as a level one. What is flat for more than `enough` isn't looked at further.
    """
    height, first, second = middle

    def flat(radius: float) -> bool:
        for n in range(RING):
            off = (radius * cos(2 * pi * n / RING), radius * sin(2 * pi * n / RING))
            there = _sheet_at(solids, face, place, off)
            if there is None or abs(there[0] - height - first * off[0] - second * off[1]) > FLAT_MM:
                return False
        return True

    if flat(enough):
        return enough
    low, high = 0.0, enough
    while high - low > 0.5:
        radius = (low + high) / 2
        low, high = (radius, high) if flat(radius) else (low, radius)
    return low


def _to_weld(solids: Solids, port: Port, seam: str) -> tuple[float | None, str]:
    """From a port's middle to the nearest plate's weld under it, or the closing seam of a box's lid or floor [mm]."""
    if port.face not in ("roof", "floor"):
        return None, ""
    at = (port.x_mm, port.y_mm)
    found: list[tuple[float, str]] = []
    for feature in solids.shell.features:
        if feature.kind in ("partition", "baffle"):
            wide = feature.wall_mm(solids.shell.feature_wall_mm)
            where = at["xy".index(feature.axis)]
            found.append((max(feature.at_mm - where, where - feature.at_mm - wide, 0.0), feature.name))
    if solids.shell.kind == "box" and seam == ("lid" if port.face == "roof" else "floor"):
        across = 1 - solids.section.axis
        found.append((abs(at[across] - solids.body.size[across] / 2), CLOSING_SEAM))
    return min(found, default=(None, ""))


def crowds(solids: Solids, ports: Sequence[Port]) -> list[Crowd]:
    """Ports of one face whose seats, or hand and spanner room, run into each other."""
    found = []
    for place, one in enumerate(ports):
        for other in ports[place + 1 :]:
            if one.face != other.face or not (one.seat or one.spanner_mm) or not (other.seat or other.spanner_mm):
                continue
            a, b = place_of(solids, one), place_of(solids, other)
            across = [i for i in range(3) if i != FACE_AXIS[one.face][0]]
            apart = hypot(*(float(a[i] - b[i]) for i in across))
            seats = [(port.seat.outer_mm / 2 if port.seat else 0.0) for port in (one, other)]
            needed = max(one.spanner_mm + seats[1], other.spanner_mm + seats[0], seats[0] + seats[1])
            if apart < needed - 1e-6:
                found.append(Crowd(one.name, other.name, apart, needed))
    return found


def in_attitudes(solids: Solids, ports: Sequence[Port], gauge: Gauge | None = None) -> list[Unreached]:
    """What the pickups leave and the vents trap on the level, nose up and down and in turns."""
    if not ports:
        return []
    found = []
    read = needle_reader(gauge, solids) if gauge else None
    for name, attitude in ATTITUDES.items():
        cells = drained(solids, ports, attitude)
        stranded = [cell.stranded_l for cell in cells if cell.stranded_l is not None]
        trapped = [cell.trapped_l for cell in cells if cell.trapped_l is not None]
        left = sum(stranded) if stranded else None
        needle = read(left) if read and left is not None else None
        found.append(Unreached(name, left, sum(trapped) if trapped else None, needle))
    return found


def star_order(bolts: int) -> list[int]:
    """Bolts in tightening order, numbered from 1 round the circle: each as far as possible from the last.

    An odd number goes on by (n − 1)/2 each time; an even one to the opposite bolt, then to the one beside it.
    """
    if bolts % 2:
        return [n * ((bolts - 1) // 2) % bolts + 1 for n in range(bolts)]
    return [bolt for n in range(bolts // 2) for bolt in (n + 1, n + 1 + bolts // 2)]


def least_jump_deg(order: Sequence[int]) -> float:
    """The least angle between successive bolts of an order [°]."""
    n = len(order)
    return min(360 / n * min((b - a) % n, (a - b) % n) for a, b in pairwise(order))


PASSES = (0.30, 0.60, 1.00)
"""Shares of the full torque, one pass each."""


REACHES = study(reaches, SOLIDS, PORTS, RULES)
HUNG = study(hung, SOLIDS, PORTS)
LANDINGS = study(landings, SOLIDS, PORTS, RULES, SEAM)
CROWDS = study(crowds, SOLIDS, PORTS)
IN_ATTITUDES = study(in_attitudes, SOLIDS, PORTS, GAUGE).at_rest()
