"""A profile or a cylinder as wrapper pieces and two flat ends: flats, bends, rolls, seams."""

from dataclasses import dataclass
from math import degrees, pi, tan

from shapely.geometry import Polygon

from keel.design.document import Design
from keel.design.shell import ProfileShell
from keel.design.workshop import Workshop
from keel.solid.polygon import Edge, ShapeError, inset, turn_at
from keel.solid.section import Section, section_of
from keel.studies.sheet.bends import bend_deduction
from keel.studies.sheet.model import Seam, Sheet, flat_part
from keel.studies.sheet.parts import Bend, FlatPart, Mark, Spot, rectangle
from keel.studies.sheet.wrapper import folding_order

FLOOR_MM = 1.0
"""An edge this near the lowest point counts as at the floor [mm]."""


@dataclass(frozen=True)
class _Leg:
    """A piece of the wrapper between two corners on the flat: straight or rolled."""

    length: float
    rolled_radius: float
    roll: float
    bend: float
    """Angle of the bend at its start [rad], left above zero; 0 where it only runs on."""


def profile_sheet(shell: ProfileShell, design: Design, workshop: Workshop) -> Sheet:
    """Flat parts of a profile shell: the wrapper, in as many pieces as it has welded corners, and two end plates.

    Parameters
    ----------
    shell : ProfileShell
        The design's.
    design : Design
        Where the seam of a wrapper in one piece lies.
    workshop : Workshop
        K factors and house rules.

    Notes
    -----
    A bend's deduction is taken from legs to where the faces outside that bend meet: at a bend that turns
    outward of the tank (a step's inner corner) those are the inner faces, t·tan(θ/2) further out. Rolled
    edges are as long as their middle line. At a welded corner both plates stop where their inner edges touch.
    """
    section, k, t, r = section_of(shell), workshop.k_for(shell.metal), shell.thickness_mm, shell.bend_radius_mm
    edges = section.edges
    pieces = _pieces(section, design.sheet.seam)
    parts, bends, seams = [], 0, []
    for number, piece in enumerate(pieces, start=1):
        part = _wrapper(shell, section, piece, k, number if len(pieces) > 1 else 0)
        bends += len(part.bends)
        parts.append(part)
    for corner in _welded(section):
        seams.append(_lengthwise(edges[corner].start, section, f"seam at corner {corner + 1}"))
    if not seams:
        edge = _seam_edge(edges, design.sheet.seam)
        middle = ((edges[edge].start[0] + edges[edge].end[0]) / 2, (edges[edge].start[1] + edges[edge].end[1]) / 2)
        seams.append(_lengthwise(middle, section, "closing seam"))
    gap = workshop.rules.pan_gap_mm if design.sheet.pan_gap_mm is None else design.sheet.pan_gap_mm
    parts.append(_end(shell, section, gap))
    seams += _end_seams(section)
    rolls = [e.radius for e in edges if e.centre]
    return made(
        "wrapper and flat ends",
        parts,
        seams,
        bends,
        k=k,
        deduction=bend_deduction(90, r, t, k),
        gap=gap,
        inside=None if len(pieces) > 1 else _least_inside(section),
        roll=min(rolls) if rolls else None,
        overall=shell.run_mm,
    )


def made(
    scheme: str,
    parts: list[FlatPart],
    seams: list[Seam],
    bends: int,
    *,
    k: float,
    deduction: float,
    gap: float,
    inside: tuple[float, float] | None,
    roll: float | None,
    overall: float,
) -> Sheet:
    return Sheet(
        scheme=scheme,
        parts=parts,
        impossible=None,
        k=k,
        bend_deduction_mm=deduction,
        flange_mm=None,
        pan_gap_mm=gap,
        notch=None,
        section_inside_mm=inside,
        roll_radius_mm=roll,
        overall_mm=overall,
        seams=seams,
        weld_mm=sum(seam.length_mm for seam in seams),
        weld_at_floor_mm=sum(seam.length_mm for seam in seams if seam.at_floor),
        corner_fill_mm=0.0,
        bends=bends,
        mass_kg=sum(part.mass_kg * part.quantity for part in parts),
    )


def _runs_on(section: Section, corner: int) -> bool:
    """Whether the wrapper goes on smoothly at a corner: a roll running into a flat."""
    return abs(turn_at(section.edges, corner)) < 0.02


def _welded(section: Section) -> list[int]:
    return [n for n in range(len(section.edges)) if not section.bent[n] and not _runs_on(section, n)]


def _seam_edge(edges: list[Edge], seam: str) -> int:
    """The straight edge that a wrapper in one piece closes on: topmost, lowest, or the most upright other."""
    straight = [n for n, e in enumerate(edges) if e.centre is None] or list(range(len(edges)))
    height = {n: (edges[n].start[1] + edges[n].end[1]) / 2 for n in straight}
    if seam == "floor":
        return min(straight, key=lambda n: (height[n], -edges[n].length))
    if seam == "side":
        return max(straight, key=lambda n: abs(edges[n].end[1] - edges[n].start[1]))
    return max(straight, key=lambda n: (height[n], edges[n].length))


def _pieces(section: Section, seam: str) -> list[list[tuple[int, float]]]:
    """The wrapper's pieces: runs of (edge, share of it), split at welded corners or at the closing seam."""
    count, welded = len(section.edges), _welded(section)
    if not welded:
        at = _seam_edge(section.edges, seam)
        around = [(at + step) % count for step in range(1, count)]
        return [[(at, 0.5), *((n, 1.0) for n in around), (at, 0.5)]]
    pieces = []
    for here, start in enumerate(welded):
        stop = welded[(here + 1) % len(welded)]
        span = (stop - start) % count or count
        pieces.append([((start + step) % count, 1.0) for step in range(span)])
    return pieces


def _leg(shell: ProfileShell, section: Section, n: int, share: float, first: bool, last: bool) -> _Leg:
    e, t = section.edges[n], shell.thickness_mm
    after = (n + 1) % len(section.edges)
    if e.centre is not None:
        radius = e.radius - t / 2 if e.turn > 0 else e.radius + t / 2
        return _Leg(radius * abs(e.turn) * share, radius, degrees(abs(e.turn)), 0.0)
    length = e.chord * share
    for corner, at_edge in ((n, first), (after, last)):
        turn = turn_at(section.edges, corner)
        meets = share == 1.0 or (corner == after) == first
        if not meets or _runs_on(section, corner):
            continue
        if section.bent[corner] and turn < 0:
            length += t * tan(-turn / 2)
        elif at_edge and not section.bent[corner] and turn > 0:
            length -= t * tan(min(turn, 0.95 * pi) / 2)
    bend = turn_at(section.edges, n) if section.bent[n] and not first else 0.0
    return _Leg(length, 0.0, 0.0, bend)


def _wrapper(shell: ProfileShell, section: Section, piece: list[tuple[int, float]], k: float, number: int) -> FlatPart:
    t, r, run = shell.thickness_mm, shell.bend_radius_mm, section.span[1] - section.span[0]
    legs = [
        _leg(shell, section, n, share, place == 0, place == len(piece) - 1) for place, (n, share) in enumerate(piece)
    ]
    bends, marks, along = [], [], 0.0
    order = iter(folding_order(sum(1 for leg in legs if leg.bend)))
    for leg in legs:
        if leg.bend:
            angle = degrees(abs(leg.bend))
            deduction = bend_deduction(angle, r, t, k)
            along -= deduction / 2
            bends.append(
                Bend(
                    start=(along, 0.0),
                    end=(along, run),
                    direction="up" if leg.bend > 0 else "down",
                    angle_deg=angle,
                    radius_mm=r,
                    order=next(order),
                    deduction_mm=deduction,
                )
            )
            along -= deduction / 2
        if leg.roll:
            for at, word in ((along, "starts"), (along + leg.length, "ends")):
                label = f"roll to {leg.rolled_radius:.1f} mm at the middle line, {leg.roll:.0f} deg, {word}"
                marks.append(Mark(start=(at, 0.0), end=(at, run), label=label))
        along += leg.length
    return flat_part(
        shell.metal,
        name=f"wrapper-{number}" if number else "wrapper",
        title=f"Wrapper, piece {number}" if number else "Wrapper",
        quantity=1,
        thickness_mm=t,
        outline=rectangle(along, run),
        bends=bends,
        marks=marks,
        note="Inside of the tank faces you. Bend from the free edges inward; etched lines bound what is rolled.",
    )


def _end(shell: ProfileShell, section: Section, gap: float) -> FlatPart:
    plate = Polygon(section.inner).buffer(-gap, join_style="mitre") if gap else Polygon(section.inner)
    outline: list[Spot] = [(float(x), float(y)) for x, y in list(plate.exterior.coords)[:-1]]
    return flat_part(
        shell.metal,
        name="end",
        title="End",
        quantity=2,
        thickness_mm=shell.end_wall_mm,
        outline=outline,
        bends=[],
        marks=[],
        note="Set into the wrapper, flush with its edge. One is turned over: they are a left and a right.",
        corners=[e.start for e in _inset_or_none(section, shell.thickness_mm + gap)],
    )


def _inset_or_none(section: Section, by: float) -> list[Edge]:
    """The outline's edges moved inward; none where the gap eats an edge up: its DXF still has the outline."""
    try:
        return inset(section.edges, by)
    except ShapeError:
        return []


def _lengthwise(at: Spot, section: Section, name: str) -> Seam:
    floor = section.extents[0][1]
    return Seam(name, section.span[1] - section.span[0], at[1] < floor + FLOOR_MM)


def _end_seams(section: Section) -> list[Seam]:
    floor = section.extents[0][1]
    low = sum(e.length for e in section.edges if max(e.start[1], e.end[1]) < floor + FLOOR_MM and not e.centre)
    rest = sum(e.length for e in section.edges) - low
    ends = ("rear", "front") if section.axis == 0 else ("right", "left")
    found = [Seam(f"{end} end, floor edge", low, True) for end in ends if low]
    return found + [Seam(f"{end} end, the rest", rest, False) for end in ends]


def _least_inside(section: Section) -> tuple[float, float]:
    """Width and height inside the wrapper [mm]: what the brake's beam has to come out of."""
    low, high = section.inner.min(axis=0), section.inner.max(axis=0)
    return float(high[0] - low[0]), float(high[1] - low[1])
