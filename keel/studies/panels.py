"""The flat faces of a tank and its partitions under pressure: how each is held, what it bears, what it wants."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace
from itertools import pairwise, product
from math import inf, sqrt

from keel.design.brief import Brief
from keel.design.features import Baffle, Feature, Partition
from keel.design.shell import BoxShell, CylinderShell, ProfileShell
from keel.design.workshop import HouseRules
from keel.reference.fuels import FUELS
from keel.reference.metals import METALS
from keel.reference.plates import HELD, Held
from keel.solid.build import Solids
from keel.solid.section import face_names
from keel.studies.result import Words, words
from keel.studies.strength import (
    fuel_head_kpa,
    large_deflection_mm,
    panel_deflection_mm,
    panel_stress_mpa,
    pushed_kpa,
    round_plate_deflection_mm,
    round_plate_stress_mpa,
)

PROOF_CAP_KPA = 20.0
BEND, WELD, FLANGE, OVER = "bend", "weld on one side", "flange", "goes on over it"
TYPED = "as typed"
HOLDS: dict[str, Held] = {BEND: "clamped", WELD: "simply supported", FLANGE: "clamped", OVER: "clamped"}
"""How an edge is held by its joint: carried on over a bend it can't turn, beside a weld on one side it can."""


@dataclass(frozen=True, slots=True)
class PanelEdge:
    """One edge of a panel: what it meets there, how it is joined, and so how it is held."""

    beside: str
    joint: str
    held: Held


@dataclass(frozen=True, slots=True)
class Panel:
    """One flat panel, the widest-spread of its fields, under the most that presses on it.

    Attributes
    ----------
    name, what : str
        Which panel, and what it is.
    first_mm, second_mm : float
        Its sides: the first lies across in its drawing, the second upward.
    edges : list of PanelEdge
        At the low and the high end of the first side, then of the second; one for a round panel, none for a wall that
        is rolled.
    load : Words
        What presses on it.
    stress_share : float
        Greatest stress as a share of the yield beside a weld.
    allowed_share : float
        What share is allowed: the house rule.
    """

    name: str
    what: str
    first_mm: float
    second_mm: float
    long_mm: float
    short_mm: float
    thickness_mm: float
    edges: list[PanelEdge]
    round: bool
    load: Words
    pressure_kpa: float
    stress_mpa: float
    stress_share: float
    deflection_mm: float
    large_deflection_mm: float
    allowed_mpa: float
    allowed_share: float
    least_thickness_mm: float
    proof_kpa: float
    errs_safe: bool
    swaged: bool


@dataclass(frozen=True)
class _Face:
    """A flat face before plates split it: sides with the axis that each lies along, -1 where none splits it."""

    name: str
    what: str
    sides: tuple[float, float]
    axes: tuple[int, int]
    edges: tuple[PanelEdge, PanelEdge, PanelEdge, PanelEdge]
    thickness_mm: float
    pressed: tuple[float, Words]


def panels(brief: Brief, solids: Solids, rules: HouseRules, features: Sequence[Feature] | None = None) -> list[Panel]:
    """The flat faces of a full shell and its partitions, each under the worse of the house rule's loads.

    Parameters
    ----------
    brief, rules
        Fuel, the extra g of a bump, the g of a push, and the share of the yield.
    solids : Solids
        The shell worked out.
    features : sequence of Feature, optional
        Taken instead of the shell's own, to see what other plates would do.

    Returns
    -------
    list of Panel
        Each with the full depth of fuel over its whole face, which errs safe for the uprights; a partition from one
        side, with its whole cell pushed against it. Edges follow the joints of the scheme unless the shell says
        otherwise. Sizes go over the plates. The end of a profile is taken as the rectangle round it, which errs safe; a
        swage across a panel halves its long side. Partitions, and baffles that reach the roof, split the panels they
        are welded across: the field that bears least counts.
    """
    plates = solids.shell.features if features is None else features
    loads = _Loads(brief, solids, rules, plates)
    if isinstance(solids.shell, CylinderShell):
        return [*_round_panels(solids.shell, loads), *_partitions(solids, plates, loads)]
    faces = _box_faces(solids, loads) if isinstance(solids.shell, BoxShell) else _profile_faces(solids, loads)
    found = [_worst_field(face, solids, plates, loads) for face in faces]
    return [*_least_of_each(found), *_partitions(solids, plates, loads)]


def safe_proof_kpa(found: list[Panel]) -> float:
    """Safe proof pressure [kPa]: the least over the panels, never above 20 kPa without the user's say-so."""
    return min(PROOF_CAP_KPA, *(panel.proof_kpa for panel in found))


def how_held(panel: Panel) -> str:
    """How a panel's edges are held, in words."""
    by = {held: [edge.beside for edge in panel.edges if edge.held == held] for held in HELD}
    if not panel.edges:
        return "stretched, not bent"
    if not all(by.values()):
        return next(f"{held} all round" for held, beside in by.items() if beside)
    return ", ".join(f"{held} at {' and '.join(beside)}" for held, beside in by.items())


def stations(features: Sequence[Feature], axis: int, size_mm: float) -> list[tuple[float, str]]:
    """Where plates brace the sheet along x (0) or y (1): places from the low end [mm] and names, both ends counted."""
    plates = [f for f in features if isinstance(f, Partition) or (isinstance(f, Baffle) and f.top_gap_mm == 0)]
    inner = sorted((f.at_mm, f.name) for f in plates if "xy".index(f.axis) == axis)
    return [(0.0, ""), *inner, (size_mm, "")]


class _Loads:
    """What presses on a panel, and what its metal may bear."""

    def __init__(self, brief: Brief, solids: Solids, rules: HouseRules, plates: Sequence[Feature]) -> None:
        self.rules, self.metal = rules, METALS[solids.shell.metal]
        self.density, self.solids, self.plates = FUELS[brief.fuel].density_kg_per_l, solids, plates
        self.allowed_mpa = rules.stress_share * self.metal.welded_yield_mpa
        self.depth_mm = solids.inner_body.size[2]

    def bump(self) -> tuple[float, Words]:
        """The full depth under a bump."""
        return fuel_head_kpa(self.density, self.depth_mm, self.rules.bump_g), words(
            "{deep_mm} of fuel in a bump of {bump_g} extra", deep_mm=self.depth_mm, bump_g=self.rules.bump_g
        )

    def upright(self, run_mm: float) -> tuple[float, Words]:
        """The worse of a bump and of a cell pushed against an upright panel."""
        bump, pushed = self.bump(), pushed_kpa(self.density, self.depth_mm, run_mm, self.rules.push_g)
        if bump[0] >= pushed:
            return bump
        return pushed, words(
            "{deep_mm} of fuel and {run_mm} of it pushed against the panel at {push_g}",
            deep_mm=self.depth_mm,
            run_mm=run_mm,
            push_g=self.rules.push_g,
        )

    def run_mm(self, axis: int, at_mm: float | None = None) -> float:
        """The longest cell along an axis; with a place the longer of the cells on its two sides."""
        walls = sorted(f.at_mm for f in self.plates if isinstance(f, Partition) and "xyz".index(f.axis) == axis)
        runs = list(pairwise([0.0, *walls, self.solids.body.size[axis]]))
        return max(b - a for a, b in runs if at_mm is None or at_mm in (a, b))


def _edge(beside: str, joint: str) -> PanelEdge:
    return PanelEdge(beside, joint, HOLDS[joint])


def _box_faces(solids: Solids, loads: _Loads) -> Iterator[_Face]:
    """Floor and lid, and both of each pair of uprights: the wrapper's edges at the pans end in a lip."""
    shell, section = solids.shell, solids.section
    size, wrap, across = solids.body.size, section.axis, section.across
    pairs = (("rear end", "front end"), ("right side", "left side"))
    names = ("rear and front", "right and left")
    bend = [BEND if bent else WELD for bent in section.bent]
    low, high = pairs[across]
    ends = (_edge(pairs[wrap][0], WELD), _edge(pairs[wrap][1], WELD))
    # Corners in turn from the low side's foot; edge n goes from corner n to the next: floor, high side, lid, low side.
    round_it = ("floor", high, "lid", low)
    for n, own in enumerate(round_it):
        first, second = round_it[n - 1], round_it[(n + 1) % 4]
        sides = (_edge(first, bend[n]), _edge(second, bend[(n + 1) % 4]))
        flat = own in ("floor", "lid")
        if n in (2, 3):
            sides = (sides[1], sides[0])
        along = size[across] if flat else size[2]
        yield _Face(
            name=own if flat else names[across],
            what="wrapper",
            sides=(size[wrap], along),
            axes=(wrap, across if flat else -1),
            edges=(*ends, *sides),
            thickness_mm=shell.thickness_mm,
            pressed=loads.bump() if flat else loads.upright(loads.run_mm(across)),
        )
    yield _Face(
        name=names[wrap],
        what="end pan",
        sides=(size[across], size[2]),
        axes=(across, -1),
        edges=(_edge(low, FLANGE), _edge(high, FLANGE), _edge("floor", FLANGE), _edge("lid", FLANGE)),
        thickness_mm=shell.end_wall_mm,
        pressed=loads.upright(loads.run_mm(wrap)),
    )


def _profile_faces(solids: Solids, loads: _Loads) -> Iterator[_Face]:
    """The flat faces of a wrapper and its flat ends, which are set in and welded from outside."""
    shell, section = solids.shell, solids.section
    size, names = solids.body.size, face_names(section)
    far = ("rear end", "front end") if section.axis == 0 else ("right end", "left end")
    ends = (_edge(far[0], WELD), _edge(far[1], WELD))
    for n, e in enumerate(section.edges):
        if e.centre is not None:
            continue
        after = (n + 1) % len(names)
        upright = names[n].startswith(("front", "rear", "left", "right"))
        yield _Face(
            name=names[n],
            what="wrapper",
            sides=(size[section.axis], e.chord),
            axes=(section.axis, -1),
            edges=(
                *ends,
                _edge(names[n - 1], BEND if section.bent[n] else WELD),
                _edge(names[after], BEND if section.bent[after] else WELD),
            ),
            thickness_mm=shell.thickness_mm,
            pressed=loads.upright(loads.run_mm(section.across)) if upright else loads.bump(),
        )
    sides = ("right side", "left side") if section.across == 1 else ("rear face", "front face")
    yield _Face(
        name="ends",
        what="flat end",
        sides=(size[section.across], size[2]),
        axes=(section.across, -1),
        edges=(_edge(sides[0], WELD), _edge(sides[1], WELD), _edge("floor", WELD), _edge("lid", WELD)),
        thickness_mm=shell.end_wall_mm,
        pressed=loads.upright(loads.run_mm(section.axis)),
    )


def _partitions(solids: Solids, plates: Sequence[Feature], loads: _Loads) -> Iterator[Panel]:
    """Partitions, pressed from one side with all of the longer cell beside them."""
    for plate in plates:
        if not isinstance(plate, Partition):
            continue
        axis, shell = "xy".index(plate.axis), solids.shell
        load = loads.upright(loads.run_mm(axis, plate.at_mm))
        thick = plate.wall_mm(shell.feature_wall_mm)
        joint = WELD if (loads.rules.flange_mm if plate.flange_mm is None else plate.flange_mm) == 0 else FLANGE
        if isinstance(shell, CylinderShell) and shell.axis == plate.axis:
            edge = _typed(shell, plate.name, [_edge("wall", joint)])
            yield _round_plate(plate.name, "partition", shell.diameter_mm, thick, edge, load, loads)
            continue
        low, high, wide, tall = _reach(solids, plate, axis)
        sides = ("right side", "left side") if axis == 0 else ("rear end", "front end")
        face = _Face(
            name=plate.name,
            what="partition",
            sides=(wide, tall),
            axes=(1 - axis, -1),
            edges=(_edge(sides[0], joint), _edge(sides[1], joint), _edge("floor", joint), _edge("lid", joint)),
            thickness_mm=thick,
            pressed=load,
        )
        yield _worst_field(face, solids, plates, loads, (low, high))


def _reach(solids: Solids, plate: Partition, axis: int) -> tuple[float, float, float, float]:
    """From where to where a partition reaches along itself from the body's low side, and its width and height [mm]."""
    low, up, high, top = (
        solids.plates[plate.id].section.bounds() if plate.id in solids.plates else _inside(solids, axis)
    )
    from_side = solids.body.low[1 - axis]
    return low - from_side, high - from_side, high - low, top - up


def _inside(solids: Solids, axis: int) -> tuple[float, float, float, float]:
    room = solids.inner_body
    return room.low[1 - axis], room.low[2], room.high[1 - axis], room.high[2]


def _worst_field(
    face: _Face, solids: Solids, plates: Sequence[Feature], loads: _Loads, span: tuple[float, float] | None = None
) -> Panel:
    """Of the fields between the plates that a face is welded to, the one that bears least."""
    along = [
        list(_fields(plates, axis, size, edges, span if number == 0 else None))
        for number, (axis, size, edges) in enumerate(
            zip(face.axes, face.sides, (face.edges[:2], face.edges[2:]), strict=True)
        )
    ]
    made = [
        _rectangle(face, (first[0], second[0]), [*first[1], *second[1]], solids.shell, loads)
        for first, second in product(*along)
    ]
    return min(made, key=lambda panel: panel.proof_kpa)


def _fields(
    plates: Sequence[Feature],
    axis: int,
    size_mm: float,
    ends: Sequence[PanelEdge],
    span: tuple[float, float] | None,
) -> Iterator[tuple[float, tuple[PanelEdge, PanelEdge]]]:
    """Lengths along one side between braces, and how each is held at its two ends."""
    low, high = span or (0.0, size_mm)
    places = stations(plates, axis, size_mm) if axis in (0, 1) else [(0.0, ""), (size_mm, "")]
    inner = [(at, name) for at, name in places[1:-1] if low < at < high]
    for (a, before), (b, after) in pairwise([(low, ""), *inner, (high, "")]):
        if a == b:
            continue
        held = (_edge(before, OVER) if before else ends[0], _edge(after, OVER) if after else ends[1])
        yield b - a, held


def _typed(shell: BoxShell | ProfileShell | CylinderShell, panel: str, edges: Sequence[PanelEdge]) -> list[PanelEdge]:
    """Edges as the shell says, where it does."""
    said = {(edge.panel, edge.beside): edge.held for edge in shell.edges}
    return [
        replace(edge, held=said[panel, edge.beside], joint=TYPED) if (panel, edge.beside) in said else edge
        for edge in edges
    ]


def _rectangle(
    face: _Face,
    sides: tuple[float, float],
    edges: Sequence[PanelEdge],
    shell: BoxShell | ProfileShell | CylinderShell,
    loads: _Loads,
) -> Panel:
    edges = _typed(shell, face.name, edges)
    swaged = face.name in shell.swages
    first, second = sides
    held = [edge.held for edge in edges]
    if swaged and first >= second:
        first, held[1] = first / 2, "clamped"
    elif swaged:
        second, held[3] = second / 2, "clamped"
    how = (held[0], held[1], held[2], held[3])
    pressure, load = face.pressed
    at_one_mm = panel_stress_mpa(pressure, first, second, 1.0, how)
    bow = panel_deflection_mm(pressure, first, second, face.thickness_mm, loads.metal.youngs_modulus_gpa, how)
    stress = at_one_mm / face.thickness_mm**2
    allowed = loads.allowed_mpa
    return Panel(
        name=face.name,
        what=face.what,
        first_mm=first,
        second_mm=second,
        long_mm=max(first, second),
        short_mm=min(first, second),
        thickness_mm=face.thickness_mm,
        edges=edges,
        round=False,
        load=load,
        pressure_kpa=pressure,
        stress_mpa=stress,
        stress_share=stress / loads.metal.welded_yield_mpa,
        deflection_mm=bow,
        large_deflection_mm=large_deflection_mm(bow, face.thickness_mm),
        allowed_mpa=allowed,
        allowed_share=loads.rules.stress_share,
        least_thickness_mm=sqrt(at_one_mm / allowed) if allowed > 0 else inf,
        proof_kpa=allowed * face.thickness_mm**2 / panel_stress_mpa(1.0, first, second, 1.0, how),
        errs_safe=bow > face.thickness_mm / 2,
        swaged=swaged,
    )


def _least_of_each(found: Sequence[Panel]) -> list[Panel]:
    """Of panels with one name that which bears least, in the order in which they came."""
    least = dict[str, Panel]()
    for panel in found:
        if panel.name not in least or panel.proof_kpa < least[panel.name].proof_kpa:
            least[panel.name] = panel
    return list(least.values())


def _round_panels(shell: CylinderShell, loads: _Loads) -> Iterator[Panel]:
    """The rolled wall, and two flat or dished ends."""
    radius, standing = shell.diameter_mm / 2, shell.axis == "z"
    axis = "xyz".index(shell.axis)
    against = loads.bump() if standing else loads.upright(loads.run_mm(axis))
    yield _round_wall(shell, loads)
    if not shell.dish_mm:
        edges = _typed(shell, "ends", [_edge("wall", WELD)])
        yield _round_plate("ends", "flat end", shell.diameter_mm, shell.end_wall_mm, edges, against, loads)
        return
    ball = (radius**2 + shell.dish_mm**2) / (2 * shell.dish_mm)
    thick = shell.end_wall_mm
    stress = against[0] * 1e-3 * ball / (2 * thick)
    yield _stretched("ends", "dished end", (shell.diameter_mm, shell.diameter_mm), thick, stress, against, loads)


def _round_wall(shell: CylinderShell, loads: _Loads) -> Panel:
    load = loads.bump()
    hoop = load[0] * 1e-3 * shell.diameter_mm / 2 / shell.thickness_mm
    return _stretched("wall", "rolled wall", (shell.run_mm, shell.diameter_mm), shell.thickness_mm, hoop, load, loads)


def _stretched(
    name: str,
    what: str,
    sides: tuple[float, float],
    thick: float,
    stress: float,
    load: tuple[float, Words],
    loads: _Loads,
) -> Panel:
    """What bears by being stretched: its stress goes with the pressure and against the thickness."""
    allowed = loads.allowed_mpa
    return Panel(
        name=name,
        what=what,
        first_mm=sides[0],
        second_mm=sides[1],
        long_mm=max(sides),
        short_mm=min(sides),
        thickness_mm=thick,
        edges=[],
        round=what == "dished end",
        load=load[1],
        pressure_kpa=load[0],
        stress_mpa=stress,
        stress_share=stress / loads.metal.welded_yield_mpa,
        deflection_mm=0.0,
        large_deflection_mm=0.0,
        allowed_mpa=allowed,
        allowed_share=loads.rules.stress_share,
        least_thickness_mm=stress * thick / allowed if allowed > 0 else inf,
        proof_kpa=load[0] * allowed / stress,
        errs_safe=False,
        swaged=False,
    )


def _round_plate(
    name: str,
    what: str,
    across_mm: float,
    thick: float,
    edges: Sequence[PanelEdge],
    load: tuple[float, Words],
    loads: _Loads,
) -> Panel:
    held = edges[0].held
    stress = round_plate_stress_mpa(load[0], across_mm / 2, thick, held)
    bow = round_plate_deflection_mm(load[0], across_mm / 2, thick, loads.metal.youngs_modulus_gpa, held)
    flat = _stretched(name, what, (across_mm, across_mm), thick, stress, load, loads)
    return replace(
        flat,
        edges=list(edges),
        round=True,
        deflection_mm=bow,
        large_deflection_mm=large_deflection_mm(bow, thick),
        least_thickness_mm=thick * sqrt(stress / loads.allowed_mpa) if loads.allowed_mpa > 0 else inf,
        errs_safe=bow > thick / 2,
    )
