"""Which flat faces a shell has before plates split them, what they meet, and what presses on them."""

from collections.abc import Iterator
from dataclasses import dataclass
from math import hypot

from keel.solid.box import Cuboid, Triple
from keel.solid.section import Section, face_names
from keel.solid.solids import Solids
from keel.studies.result import Words
from keel.studies.strength.panels.loads import Loads
from keel.studies.strength.panels.panel import BEND, FLANGE, WELD, PanelEdge, edge_at

UNIT: tuple[Triple, Triple, Triple] = ((1.0, 0.0, 0.0), (0.0, 1.0, 0.0), (0.0, 0.0, 1.0))


@dataclass(frozen=True, slots=True)
class Frame:
    """Where a face lies: its low corner [mm, vehicle axes], and unit vectors along its sides and outward."""

    corner: Triple
    first: Triple
    second: Triple
    out: Triple


@dataclass(frozen=True)
class Face:
    """A flat face before plates split it: sides with the axis that each lies along, -1 where none splits it.

    Two that are alike share one, with a frame each.
    """

    name: str
    what: str
    sides: tuple[float, float]
    axes: tuple[int, int]
    edges: tuple[PanelEdge, PanelEdge, PanelEdge, PanelEdge]
    thickness_mm: float
    pressed: tuple[float, Words]
    frames: tuple[Frame, ...] = ()


def square(axis: int, high: bool, corner: Triple, first: int, second: int) -> Frame:
    """A face square to an axis, at its high or low end."""
    out = UNIT[axis] if high else (-UNIT[axis][0], -UNIT[axis][1], -UNIT[axis][2])
    return Frame(corner, UNIT[first], UNIT[second], out)


def _at(body: Cuboid, axis: int, high: bool) -> Triple:
    """The low corner of a body's side."""
    x, y, z = (body.high[n] if high and n == axis else body.low[n] for n in range(3))
    return x, y, z


def _along(section: Section, n: int) -> Frame:
    """Where the face of a section's edge lies."""
    edge, across = section.edges[n], section.across
    (u0, v0), (u1, v1) = edge.start, edge.end
    long = hypot(u1 - u0, v1 - v0)
    up = 2 if section.axis != 2 else 1

    def placed(u: float, v: float, w: float) -> Triple:
        found = [w, w, w]
        found[across], found[up], found[section.axis] = u, v, w
        return found[0], found[1], found[2]

    second = placed((u1 - u0) / long, (v1 - v0) / long, 0.0)
    out = placed((v1 - v0) / long, (u0 - u1) / long, 0.0)
    return Frame(placed(u0, v0, section.span[0]), UNIT[section.axis], second, out)


def box_faces(solids: Solids, loads: Loads) -> Iterator[Face]:
    """Floor and lid, and both of each pair of uprights: a wrapper's edges at its pans end in a lip."""
    shell, section = solids.shell, solids.section
    size, wrap, across = solids.body.size, section.axis, section.across
    pairs = (("rear end", "front end"), ("right side", "left side"))
    names = ("rear and front", "right and left")
    bend = [BEND if bent else WELD for bent in section.bent]
    low, high = pairs[across]
    ends, bent_up = [edge_at(end, WELD) for end in pairs[wrap]], section.ends == "bent up"
    what = "wrapper" if any(section.bent) and not bent_up else "plate"
    # Corners in turn from the low side's foot; edge n goes from corner n to the next: floor, high side, lid, low side.
    round_it = ("floor", high, "lid", low)
    for n, own in enumerate(round_it):
        first, second = round_it[n - 1], round_it[(n + 1) % 4]
        sides = (edge_at(first, bend[n]), edge_at(second, bend[(n + 1) % 4]))
        flat = own in ("floor", "lid")
        at_ends = [edge_at(end, BEND) for end in pairs[wrap]] if own == "floor" and bent_up else ends
        if n in (2, 3):
            sides = (sides[1], sides[0])
        along = size[across] if flat else size[2]
        lies = 2 if flat else across
        yield Face(
            name=own if flat else names[across],
            what=what,
            sides=(size[wrap], along),
            axes=(wrap, across if flat else -1),
            edges=(at_ends[0], at_ends[1], *sides),
            thickness_mm=shell.thickness_mm,
            pressed=loads.bump() if flat else loads.upright(loads.run_mm(across)),
            frames=(square(lies, n in (1, 2), _at(solids.body, lies, n in (1, 2)), wrap, across if flat else 2),),
        )
    joint = FLANGE if section.ends == "pans" else WELD
    foot = BEND if bent_up else joint
    yield Face(
        name=names[wrap],
        what={"pans": "end pan", "flat": "flat end", "bent up": "wall"}[section.ends],
        sides=(size[across], size[2]),
        axes=(across, -1),
        edges=(edge_at(low, joint), edge_at(high, joint), edge_at("floor", foot), edge_at("lid", joint)),
        thickness_mm=shell.end_wall_mm,
        pressed=loads.upright(loads.run_mm(wrap)),
        frames=tuple(square(wrap, far, _at(solids.body, wrap, far), across, 2) for far in (False, True)),
    )


def profile_faces(solids: Solids, loads: Loads) -> Iterator[Face]:
    """The flat faces of a wrapper and its flat ends, which are set in and welded from outside."""
    shell, section = solids.shell, solids.section
    size, names = solids.body.size, face_names(section)
    far = ("rear end", "front end") if section.axis == 0 else ("right end", "left end")
    ends = (edge_at(far[0], WELD), edge_at(far[1], WELD))
    for n, e in enumerate(section.edges):
        if e.centre is not None:
            continue
        after = (n + 1) % len(names)
        upright = names[n].startswith(("front", "rear", "left", "right"))
        yield Face(
            name=names[n],
            what="wrapper",
            sides=(size[section.axis], e.chord),
            axes=(section.axis, -1),
            edges=(
                *ends,
                edge_at(names[n - 1], BEND if section.bent[n] else WELD),
                edge_at(names[after], BEND if section.bent[after] else WELD),
            ),
            thickness_mm=shell.thickness_mm,
            pressed=loads.upright(loads.run_mm(section.across)) if upright else loads.bump(),
            frames=(_along(section, n),),
        )
    sides = ("right side", "left side") if section.across == 1 else ("rear face", "front face")
    yield Face(
        name="ends",
        what="flat end",
        sides=(size[section.across], size[2]),
        axes=(section.across, -1),
        edges=(edge_at(sides[0], WELD), edge_at(sides[1], WELD), edge_at("floor", WELD), edge_at("lid", WELD)),
        thickness_mm=shell.end_wall_mm,
        pressed=loads.upright(loads.run_mm(section.axis)),
        frames=tuple(
            square(section.axis, far_end, _at(solids.body, section.axis, far_end), section.across, 2)
            for far_end in (False, True)
        ),
    )
