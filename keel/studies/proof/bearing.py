"""What every part of a tank's wall bears while it is tested: pressure inside and vacuum, cell by cell."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace
from itertools import pairwise
from math import inf

import numpy as np

from keel.analysis.parts import FUEL, RULES, SOLIDS
from keel.analysis.study import study
from keel.design.features import Feature, Partition, Relief, RoofStep, Sump, Well
from keel.design.shell import CylinderShell
from keel.design.workshop import HouseRules
from keel.reference.fuels import FuelName
from keel.reference.plates import STRIP_BETA
from keel.solid.box import Triple
from keel.solid.facets import Faced, is_flat_sided
from keel.solid.polygon import Edge
from keel.solid.polyhedron import Array
from keel.solid.solids import Solids
from keel.studies.result import Point, words
from keel.studies.strength.curved import BUCKLING_SHARE, dish_buckling_kpa, hoop_kpa, round_wall_buckling_kpa
from keel.studies.strength.panels.bearing import bears_kpa, rectangle, round_plate
from keel.studies.strength.panels.faces import Face, Frame
from keel.studies.strength.panels.fields import Field, braces, fields_of
from keel.studies.strength.panels.let_in import faces_of_feature, let_in_faces, sides_mm
from keel.studies.strength.panels.loads import Loads
from keel.studies.strength.panels.panel import WELD, Panel, PanelEdge, edge_at, how_held, typed_edges
from keel.studies.strength.panels.rows import faces_of, partition_face, partition_joint

JUST_INSIDE_MM = 2.0
KPA_PER_MPA = 1e3
FLAT_SIDED = (Well, Sump, Relief, RoofStep)
AT_ONE_KPA = (1.0, words("test pressure"))
SHARED = ("rear and front", "right and left", "ends")
ENDS = (("rear end", "front end"), ("right side", "left side"), ("floor", "lid"))
Wall = tuple[Face, Field]


@dataclass(frozen=True, slots=True)
class TestPanel:
    """One part of the wall of a cell under test.

    Attributes
    ----------
    name, what : str
        Which, and what it is.
    held : str
        How its edges are held, in words.
    edges : list of PanelEdge
        The same, edge by edge, as in `Panel`; none where it is curved.
    first_mm, second_mm, thickness_mm : float
        Its sides and sheet [mm].
    safe_kpa, vacuum_kpa : float
        Pressure inside and vacuum that it bears [kPa].
    bow_mm, large_bow_mm : float
        How far its middle bows at 1 kPa [mm] by plates that bend; and at its safe pressure, stretching counted.
    cells : list of str
        Which cells press on it.
    corners : list of Point
        Where it lies: four corners round it [mm]; none where it is curved.
    out : Point
        The way it bows, as a unit vector.
    round : bool
        A disc in those corners.
    """

    name: str
    what: str
    held: str
    edges: list[PanelEdge]
    first_mm: float
    second_mm: float
    thickness_mm: float
    safe_kpa: float
    vacuum_kpa: float
    bow_mm: float
    large_bow_mm: float
    cells: list[str]
    corners: list[Point]
    out: Point
    round: bool = False


def wall_panels(fuel: FuelName, solids: Solids, rules: HouseRules) -> list[TestPanel]:
    """Every part of the wall, what it bears, and which cells press on it.

    Parameters
    ----------
    fuel : FuelName
        Of which only the loads that a panel's name tells of come.
    solids : Solids
        The shell worked out.
    rules : HouseRules
        What share of the yield is allowed.

    Returns
    -------
    list of TestPanel
        Those that bear least first. Flat ones by plates of small deflection at the as-welded yield; rolled ones by
        the stretch of a ring, and against buckling by a third of what breaks them.

    References
    ----------
    As for `panel_stress_mpa`, `hoop_kpa`, `round_wall_buckling_kpa`, `dish_buckling_kpa`.
    """
    plates = solids.shell.features
    loads = Loads(fuel, solids, rules, plates)
    found = [panel for face, field in _fields(solids, plates, loads) for panel in _flat(face, field, solids, loads)]
    found += _rounds(solids, plates, loads)
    return sorted(found, key=lambda panel: panel.safe_kpa)


@dataclass(frozen=True, slots=True)
class WeakPart:
    """The part of a tank's wall that bears least, and what pressure that is [kPa]."""

    name: str
    thickness_mm: float
    bears_kpa: float


def weakest_part(fuel: FuelName, solids: Solids, rules: HouseRules) -> WeakPart:
    """The part of a tank's wall that bears least.

    Parameters
    ----------
    fuel, solids, rules
        As for `wall_panels`.

    Returns
    -------
    WeakPart
        The first of `wall_panels`, worked out alone.

    References
    ----------
    As for `wall_panels`.
    """
    plates = solids.shell.features
    loads = Loads(fuel, solids, rules, plates)
    found = [_weak(face, field, solids, loads) for face, field in _plain_fields(solids, plates, loads)]
    found += [WeakPart(one.name, one.thickness_mm, one.safe_kpa) for one in _rounds(solids, plates, loads)]
    weakest = min(found, key=lambda part: part.bears_kpa)
    for feature in plates:
        if isinstance(feature, FLAT_SIDED) and _may_bear_less(feature, solids, loads, weakest.bears_kpa):
            sides = [
                _weak(face, field, solids, loads)
                for face in faces_of_feature(feature, solids, loads)
                for field in fields_of(face, solids, plates)
            ]
            weakest = min([weakest, *sides], key=lambda part: part.bears_kpa)
    return weakest


def _weak(face: Face, field: Field, solids: Solids, loads: Loads) -> WeakPart:
    bears = bears_kpa(face, field.sides, field.edges, solids.shell, loads)
    return WeakPart(face.name, face.thickness_mm, bears)


def _may_bear_less(feature: Faced, solids: Solids, loads: Loads, bears: float) -> bool:
    """Whether some flat side of a feature, held as badly as any plate, bears less than so much [kPa]."""
    if not is_flat_sided(feature):
        return False
    widest = max(min(sides) for sides in sides_mm(feature, solids.body))
    least = loads.allowed_mpa * KPA_PER_MPA * solids.shell.feature_wall_mm**2
    return least < bears * STRIP_BETA * widest**2


def safe_proof_kpa(weakest: WeakPart, rules: HouseRules) -> float:
    """What the whole tank bears [kPa]: its weakest part, never above the workshop's cap."""
    return min(rules.proof_cap_kpa, weakest.bears_kpa)


def _fields(solids: Solids, plates: Sequence[Feature], loads: Loads) -> Iterator[Wall]:
    yield from _plain_fields(solids, plates, loads)
    for face in let_in_faces(solids, loads):
        yield from ((face, field) for field in fields_of(face, solids, plates))


def _plain_fields(solids: Solids, plates: Sequence[Feature], loads: Loads) -> Iterator[Wall]:
    """Of the body's own faces and the partitions."""
    for face in faces_of(solids, loads):
        yield from ((face, field) for field in fields_of(face, solids, plates))
    for plate in plates:
        if isinstance(plate, Partition) and not _is_disc(plate, solids):
            face, span = partition_face(solids, plate, AT_ONE_KPA, partition_joint(plate, loads))
            yield from ((face, field) for field in fields_of(face, solids, plates, span))


def _is_disc(plate: Partition, solids: Solids) -> bool:
    return isinstance(solids.shell, CylinderShell) and solids.shell.axis == plate.axis


def _flat(face: Face, field: Field, solids: Solids, loads: Loads) -> Iterator[TestPanel]:
    still = rectangle(replace(face, pressed=AT_ONE_KPA), field.sides, field.edges, solids.shell, loads)
    pressed = replace(face, pressed=(still.proof_kpa, AT_ONE_KPA[1]))
    strained = rectangle(pressed, field.sides, field.edges, solids.shell, loads)
    for frame in face.frames:
        corners = _place(frame, field)
        told = _told(still, strained, corners, frame.out, _cells(solids, corners, frame.out, face.what))
        yield replace(told, name=_own_name(face.name, frame.out))


def _own_name(shared: str, out: Triple) -> str:
    """What one of two faces that share a name is called."""
    if shared not in SHARED:
        return shared
    axis = max(range(3), key=lambda n: abs(out[n]))
    return ENDS[axis][int(out[axis] > 0)]


def _place(frame: Frame, field: Field) -> Array:
    """Its four corners in turn, shape (4, 3) [mm]; along a partition or a face from where its field begins."""
    corner, first, second = (np.array(each) for each in (frame.corner, frame.first, frame.second))
    (a, b), (wide, tall) = field.low, field.sides
    return np.array(
        [corner + u * first + v * second for u, v in ((a, b), (a + wide, b), (a + wide, b + tall), (a, b + tall))]
    )


def _told(
    still: Panel, strained: Panel, corners: Array, out: Triple, cells: list[str], *, is_round: bool = False
) -> TestPanel:
    return TestPanel(
        name=still.name,
        what=still.what,
        held=how_held(still),
        edges=still.edges,
        first_mm=still.first_mm,
        second_mm=still.second_mm,
        thickness_mm=still.thickness_mm,
        safe_kpa=still.proof_kpa,
        vacuum_kpa=still.proof_kpa,
        bow_mm=still.deflection_mm,
        large_bow_mm=strained.large_deflection_mm,
        cells=cells,
        corners=[Point.of(corner) for corner in corners],
        out=Point.of(out),
        round=is_round,
    )


def _cells(solids: Solids, corners: Array, out: Triple, what: str) -> list[str]:
    """Cells just inside a panel, on both sides of a partition; all of them where none is met there."""
    if len(solids.cells) == 1:
        return [solids.cells[0].name]
    middle, way = corners.mean(axis=0), np.array(out)
    depth = JUST_INSIDE_MM + max(solids.shell.thickness_mm, solids.shell.end_wall_mm, solids.shell.feature_wall_mm)
    spots = [middle - depth * way] + ([middle + depth * way] if what == "partition" else [])
    found = [cell.name for cell in solids.cells if any(_holds(cell.solid, spot) for spot in spots)]
    return found or [cell.name for cell in solids.cells]


def _holds(solid: object, spot: Array) -> bool:
    """Whether a solid holds a place: a ray upward leaves it an odd number of times."""
    top = [float(spot[0]), float(spot[1]), float(spot[2]) + 1e5]
    return len(solid.ray_cast([float(v) for v in spot], top)) % 2 == 1  # type: ignore[attr-defined]


def _rounds(solids: Solids, plates: Sequence[Feature], loads: Loads) -> Iterator[TestPanel]:
    """What is rolled: a cylinder's wall, its ends, round partitions; rolled edges of a profile."""
    shell = solids.shell
    if isinstance(shell, CylinderShell):
        yield from _cylinder(shell, solids, plates, loads)
        return
    every = [cell.name for cell in solids.cells]
    for n, edge in enumerate(solids.section.edges):
        if edge.centre is not None:
            yield _rolled(f"rolled side {n + 1}", edge, solids, loads, every)


def _rolled(name: str, edge: Edge, solids: Solids, loads: Loads, cells: list[str]) -> TestPanel:
    """A rolled edge: where it bows outward pressure stretches it and vacuum buckles it, else the other way round."""
    shell, run = solids.shell, solids.section.span[1] - solids.section.span[0]
    modulus = loads.metal.youngs_modulus_gpa
    stretch = hoop_kpa(loads.allowed_mpa, edge.radius, shell.thickness_mm)
    buckle = BUCKLING_SHARE * round_wall_buckling_kpa(modulus, 2 * edge.radius, shell.thickness_mm, run)
    safe, vacuum = (stretch, min(stretch, buckle)) if edge.turn > 0 else (min(stretch, buckle), stretch)
    return _curved(name, "rolled side", (run, edge.length), shell.thickness_mm, (safe, vacuum), cells)


def _curved(
    name: str, what: str, sides: tuple[float, float], thick: float, bears: tuple[float, float], cells: list[str]
) -> TestPanel:
    return TestPanel(name, what, "stretched, not bent", [], *sides, thick, *bears, 0.0, 0.0, cells, [], Point(0, 0, 0))


def _cylinder(shell: CylinderShell, solids: Solids, plates: Sequence[Feature], loads: Loads) -> Iterator[TestPanel]:
    modulus, every = loads.metal.youngs_modulus_gpa, [cell.name for cell in solids.cells]
    axis, radius = "xyz".index(shell.axis), shell.diameter_mm / 2
    stays = (
        [at for at, _ in braces(plates, axis, shell.run_mm, shell.feature_wall_mm)] if axis < 2 else [0, shell.run_mm]
    )
    free = max((b - a for a, b in pairwise(stays)), default=shell.run_mm)
    stretch = hoop_kpa(loads.allowed_mpa, radius, shell.thickness_mm)
    buckle = BUCKLING_SHARE * round_wall_buckling_kpa(modulus, shell.diameter_mm, shell.thickness_mm, free)
    sides = (shell.run_mm, shell.diameter_mm)
    yield _curved("wall", "rolled wall", sides, shell.thickness_mm, (stretch, min(stretch, buckle)), every)
    for far, name in enumerate(ENDS[axis]):
        out = tuple((1.0 if far else -1.0) if n == axis else 0.0 for n in range(3))
        at = solids.body.high[axis] if far else solids.body.low[axis]
        corners = _square(solids, axis, at, radius)
        cells = _cells(solids, corners, (out[0], out[1], out[2]), "end")
        if shell.dish_mm:
            ball = (radius**2 + shell.dish_mm**2) / (2 * shell.dish_mm)
            stretch = hoop_kpa(loads.allowed_mpa, ball / 2, shell.end_wall_mm)
            buckle = BUCKLING_SHARE * dish_buckling_kpa(modulus, ball, shell.end_wall_mm)
            bears = (stretch, min(stretch, buckle))
            yield _curved(name, "dished end", (2 * radius, 2 * radius), shell.end_wall_mm, bears, cells)
        else:
            yield _disc(name, "flat end", "ends", shell.end_wall_mm, WELD, (corners, out, cells), shell, loads)  # type: ignore[arg-type]
    for plate in plates:
        if isinstance(plate, Partition) and _is_disc(plate, solids):
            thick = plate.wall_mm(shell.feature_wall_mm)
            out = tuple(float(n == axis) for n in range(3))
            corners = _square(solids, axis, solids.body.low[axis] + plate.middle_mm(shell.feature_wall_mm), radius)
            cells = _cells(solids, corners, (out[0], out[1], out[2]), "partition")
            joint = partition_joint(plate, loads)
            yield _disc(plate.name, "partition", plate.name, thick, joint, (corners, out, cells), shell, loads)  # type: ignore[arg-type]


def _disc(
    name: str,
    what: str,
    typed_as: str,
    thick: float,
    joint: str,
    place: tuple[Array, Triple, list[str]],
    shell: CylinderShell,
    loads: Loads,
) -> TestPanel:
    edges = typed_edges(shell, typed_as, [edge_at("wall", joint)])
    corners, out, cells = place
    still = round_plate(name, what, shell.diameter_mm, thick, edges, AT_ONE_KPA, loads)
    pressed = (min(still.proof_kpa, inf), AT_ONE_KPA[1])
    strained = round_plate(name, what, shell.diameter_mm, thick, edges, pressed, loads)
    return _told(still, strained, corners, out, cells, is_round=True)


def _square(solids: Solids, axis: int, at: float, radius: float) -> Array:
    """The square round a disc across an axis, shape (4, 3) [mm]."""
    middle = (np.array(solids.body.low) + np.array(solids.body.high)) / 2
    middle[axis] = at
    first, second = (np.eye(3)[n] for n in range(3) if n != axis)
    return np.array([middle + radius * (u * first + v * second) for u, v in ((-1, -1), (1, -1), (1, 1), (-1, 1))])


WALL_PANELS = study(wall_panels, FUEL, SOLIDS, RULES).at_rest()
"""Every part of the wall by what it bears."""
WEAKEST = study(weakest_part, FUEL, SOLIDS, RULES)
SAFE_PROOF = study(safe_proof_kpa, WEAKEST, RULES)
