"""A profile or a cylinder as wrapper pieces and two flat ends: flats, bends, rolls, seams."""

from dataclasses import dataclass
from math import cos, degrees, pi, sin, tan

from shapely.geometry import Polygon

from keel.design.document import Design
from keel.design.shell import BoxShell, ProfileShell
from keel.design.workshop import Workshop
from keel.solid.polygon import Edge, ShapeError, inset, turn_at
from keel.solid.section import Section, face_names, section_of
from keel.studies.sheet.bends import bend_deduction
from keel.studies.sheet.model import Seam, SeamAt, Sheet, flat_part
from keel.studies.sheet.parts import Bend, Direction, FlatPart, Mark, Roll, Spot, rectangle
from keel.studies.sheet.placing import end_places, wound
from keel.studies.sheet.seam import left_after, seam_edge, seam_place
from keel.studies.sheet.wrapper import folding_order

JUST_PAST_MM = 1e-3
"""So far past its beginning a roll's first panel is looked for [mm]."""
SMOOTH_RAD, STRAIGHT_RAD = 0.02, 1e-3
"""A roll that meets a flat at less than this runs on into it; two flats that do are one."""
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
    begins: Spot
    """Where it begins, on the outside or the bend's far face made longer."""
    heading: float


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
    return section_sheet(shell, section_of(shell), design, workshop, "wrapper and flat ends")


def section_sheet(
    shell: BoxShell | ProfileShell, section: Section, design: Design, workshop: Workshop, scheme: str
) -> Sheet:
    """Flat parts of a wrapper round any section, parted at its welded corners, and two flat ends set in.

    Parameters
    ----------
    shell : BoxShell or ProfileShell
        The design's.
    section : Section
        Its section as it is put together.
    design, workshop
        Seam and gap, K factors and house rules.
    scheme : str
        What it is called.
    """
    t, r = shell.thickness_mm, shell.bend_radius_mm
    k = workshop.k_for(shell.metal, t, r)
    edges = section.edges
    pieces = _pieces(section, design.sheet.seam, design.sheet.seam_share)
    parts, bends, seams = [], 0, []
    for number, piece in enumerate(pieces, start=1):
        part = _wrapper(shell, section, piece, k, number if len(pieces) > 1 else 0)
        bends += len(part.bends)
        parts.append(part)
    for corner in _welded(section):
        seams.append(_lengthwise(edges[corner].start, section, f"seam at corner {corner + 1}"))
    if not seams:
        seams.append(
            _lengthwise(seam_place(section, design.sheet.seam, design.sheet.seam_share), section, "closing seam")
        )
    gap = workshop.rules.pan_gap_mm if design.sheet.pan_gap_mm is None else design.sheet.pan_gap_mm
    parts.append(_end(shell, section, gap))
    seams += _end_seams(section)
    rolls = [e.radius for e in edges if e.centre]
    return made(
        scheme,
        parts,
        seams,
        bends,
        k=k,
        deduction=bend_deduction(90, r, t, k),
        gap=gap,
        inside=None if len(pieces) > 1 else _least_inside(section),
        roll=min(rolls) if rolls else None,
        overall=section.span[1] - section.span[0],
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
    """Whether the wrapper goes on smoothly at a corner: a roll running into a flat, or two flats in one line."""
    rolled = section.edges[corner].centre is not None or section.edges[corner - 1].centre is not None
    return abs(turn_at(section.edges, corner)) < (SMOOTH_RAD if rolled else STRAIGHT_RAD)


def _welded(section: Section) -> list[int]:
    return [n for n in range(len(section.edges)) if not section.bent[n] and not _runs_on(section, n)]


def _pieces(section: Section, seam: str, share: float) -> list[list[tuple[int, float]]]:
    """The wrapper's pieces: runs of (edge, share of it), split at welded corners or at the closing seam."""
    count, welded = len(section.edges), _welded(section)
    if not welded:
        at = seam_edge(section.edges, seam)
        after = left_after(section.edges[at], share)
        around = [(at + step) % count for step in range(1, count)]
        return [[(at, after), *((n, 1.0) for n in around), (at, 1 - after)]]
    pieces = []
    for here, start in enumerate(welded):
        stop = welded[(here + 1) % len(welded)]
        span = (stop - start) % count or count
        pieces.append([((start + step) % count, 1.0) for step in range(span)])
    return pieces


def _leg(shell: BoxShell | ProfileShell, section: Section, n: int, share: float, first: bool, last: bool) -> _Leg:
    e, t = section.edges[n], shell.thickness_mm
    after = (n + 1) % len(section.edges)
    if e.centre is not None:
        radius = e.radius - t / 2 if e.turn > 0 else e.radius + t / 2
        # A wrapper without a straight edge closes half way along a roll.
        begins, heading = (e.start, e.heading(False)) if share == 1.0 or last else _half_way(e)
        return _Leg(radius * abs(e.turn) * share, radius, e.turn * share, 0.0, begins, heading)
    length, late = e.chord * share, e.chord * (1 - share) if first else 0.0
    for corner, at_edge in ((n, first), (after, last)):
        turn = turn_at(section.edges, corner)
        meets = share == 1.0 or (corner == after) == first
        if not meets or _runs_on(section, corner):
            continue
        more = 0.0
        if section.bent[corner] and turn < 0:
            more = t * tan(-turn / 2)
        elif at_edge and not section.bent[corner] and turn > 0:
            more = -t * tan(min(turn, 0.95 * pi) / 2)
        length += more
        late -= more if corner == n else 0.0
    bend, heading = turn_at(section.edges, n) if section.bent[n] and not first else 0.0, e.heading(False)
    begins = (e.start[0] + late * cos(heading), e.start[1] + late * sin(heading))
    return _Leg(length, 0.0, 0.0, bend, begins, heading)


def _half_way(e: Edge) -> tuple[Spot, float]:
    """The middle of a roll, and which way it runs there."""
    assert e.centre is not None
    out = e.heading(False) - (pi / 2 if e.turn > 0 else -pi / 2) + e.turn / 2
    return (e.centre[0] + e.radius * cos(out), e.centre[1] + e.radius * sin(out)), e.heading(False) + e.turn / 2


def _wrapper(
    shell: BoxShell | ProfileShell, section: Section, piece: list[tuple[int, float]], k: float, number: int
) -> FlatPart:
    t, r, run = shell.thickness_mm, shell.bend_radius_mm, section.span[1] - section.span[0]
    legs = [
        _leg(shell, section, n, share, place == 0, place == len(piece) - 1) for place, (n, share) in enumerate(piece)
    ]
    bends, marks, rolls, begun, along = [], [], [], [], 0.0
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
        begun.append(along)
        if leg.roll:
            angle, until = degrees(abs(leg.roll)), along + leg.length
            for at, word in ((along, "starts"), (until, "ends")):
                label = f"roll to {leg.rolled_radius:.1f} mm at the middle line, {angle:.0f} deg, {word}"
                marks.append(Mark(start=(at, 0.0), end=(at, run), label=label))
            way: Direction = "up" if leg.roll > 0 else "down"
            ends = ((along, 0.0), (along, run), (until, 0.0), (until, run))
            rolls.append(Roll(*ends, direction=way, angle_deg=angle, radius_mm=leg.rolled_radius))
        along += leg.length
    alone = face_names(section)[piece[0][0]] if len(piece) == 1 else ""
    base = max(range(len(legs)), key=lambda place: legs[place].length * (not legs[place].roll))
    past = JUST_PAST_MM if legs[base].roll else legs[base].length / 2
    place = wound(section, begun[base], past, legs[base].begins, legs[base].heading, section.span)
    return flat_part(
        shell.metal,
        name=f"wrapper-{number}" if number else "wrapper",
        title=alone.capitalize() or (f"Wrapper, piece {number}" if number else "Wrapper"),
        quantity=1,
        thickness_mm=t,
        outline=rectangle(along, run),
        bends=bends,
        marks=marks,
        note="Inside of the tank faces you. Bend from the free edges inward; etched lines bound what is rolled.",
        rolls=rolls,
        places=[place],
    )


def _end(shell: BoxShell | ProfileShell, section: Section, gap: float) -> FlatPart:
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
        places=end_places(section, (plate.bounds[0], plate.bounds[1]), shell.end_wall_mm),
    )


def _inset_or_none(section: Section, by: float) -> list[Edge]:
    """The outline's edges moved inward; none where the gap eats an edge up: its DXF still has the outline."""
    try:
        return inset(section.edges, by)
    except ShapeError:
        return []


def _lengthwise(at: Spot, section: Section, name: str) -> Seam:
    return Seam(name, section.span[1] - section.span[0], _where(section, at[1], at[1]))


def _where(section: Section, low: float, high: float) -> SeamAt:
    """Where a seam lies that reaches from one height to another."""
    (_, floor), (_, top) = section.extents
    return "floor" if high < floor + FLOOR_MM else "top" if low > top - FLOOR_MM else "side"


def _end_seams(section: Section) -> list[Seam]:
    """Round both ends: what lies at the floor, at the top and between."""
    names: dict[SeamAt, str] = {"floor": "floor edge", "side": "upright edges", "top": "lid edge"}
    long: dict[SeamAt, float] = dict.fromkeys(names, 0.0)
    for e in section.edges:
        heights = e.start[1], e.end[1]
        long["side" if e.centre else _where(section, min(heights), max(heights))] += e.length
    ends = ("rear", "front") if section.axis == 0 else ("right", "left")
    return [Seam(f"{end} end, {names[at]}", long[at], at) for end in ends for at in names if long[at]]


def _least_inside(section: Section) -> tuple[float, float]:
    """Width and height inside the wrapper [mm]: what the brake's beam has to come out of."""
    low, high = section.inner.min(axis=0), section.inner.max(axis=0)
    return float(high[0] - low[0]), float(high[1] - low[1])
