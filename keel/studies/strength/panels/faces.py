"""Which flat faces a shell has before plates split them, what they meet, and what presses on them."""

from collections.abc import Iterator
from dataclasses import dataclass

from keel.solid.section import face_names
from keel.solid.solids import Solids
from keel.studies.result import Words
from keel.studies.strength.panels.loads import Loads
from keel.studies.strength.panels.panel import BEND, FLANGE, WELD, PanelEdge, edge_at


@dataclass(frozen=True)
class Face:
    """A flat face before plates split it: sides with the axis that each lies along, -1 where none splits it."""

    name: str
    what: str
    sides: tuple[float, float]
    axes: tuple[int, int]
    edges: tuple[PanelEdge, PanelEdge, PanelEdge, PanelEdge]
    thickness_mm: float
    pressed: tuple[float, Words]


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
        yield Face(
            name=own if flat else names[across],
            what=what,
            sides=(size[wrap], along),
            axes=(wrap, across if flat else -1),
            edges=(at_ends[0], at_ends[1], *sides),
            thickness_mm=shell.thickness_mm,
            pressed=loads.bump() if flat else loads.upright(loads.run_mm(across)),
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
    )
