"""What every part of a tank's wall bears while it is tested: pressure inside and vacuum, cell by cell."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace

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
from keel.solid.polyhedron import Array
from keel.solid.solids import Solids
from keel.studies.proof.rolled import ENDS, rolled_parts
from keel.studies.proof.wall import AT_ONE_KPA, TestPanel, cells_at, of_plate
from keel.studies.strength.panels.bearing import bears_kpa, rectangle
from keel.studies.strength.panels.faces import Face, Frame
from keel.studies.strength.panels.fields import Field, fields_of
from keel.studies.strength.panels.let_in import faces_of_feature, let_in_faces, sides_mm
from keel.studies.strength.panels.loads import Loads
from keel.studies.strength.panels.rows import faces_of, partition_face, partition_joint

KPA_PER_MPA = 1e3
FLAT_SIDED = (Well, Sump, Relief, RoofStep)
SHARED = ("rear and front", "right and left", "ends")
Wall = tuple[Face, Field]


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
    found += rolled_parts(solids, loads)
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
    found += [WeakPart(one.name, one.thickness_mm, one.safe_kpa) for one in rolled_parts(solids, loads)]
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
    panel = rectangle(replace(face, pressed=AT_ONE_KPA), field.sides, field.edges, solids.shell, loads)
    for frame in face.frames:
        corners = _place(frame, field)
        told = of_plate(panel, corners, frame.out, cells_at(solids, corners, frame.out, face.what))
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


WALL_PANELS = study(wall_panels, FUEL, SOLIDS, RULES).at_rest()
"""Every part of the wall by what it bears."""
WEAKEST = study(weakest_part, FUEL, SOLIDS, RULES)
SAFE_PROOF = study(safe_proof_kpa, WEAKEST, RULES)
