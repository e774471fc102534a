"""What is rolled or round in a tank's wall: cylinders and their ends, rolled edges, round wells, sumps and reliefs."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from itertools import pairwise

import numpy as np

from keel.design.features import Partition, Relief, Sump, Well
from keel.design.shell import CylinderShell
from keel.solid.box import Triple
from keel.solid.facets import sump_frame, well_frame
from keel.solid.polyhedron import Array
from keel.solid.solids import Solids
from keel.studies.proof.wall import AT_ONE_KPA, TestPanel, cells_at, of_plate
from keel.studies.result import Point
from keel.studies.strength.curved import BUCKLING_SHARE, dish_buckling_kpa, hoop_kpa, round_wall_buckling_kpa
from keel.studies.strength.panels.bearing import round_plate
from keel.studies.strength.panels.fields import braces
from keel.studies.strength.panels.loads import Loads
from keel.studies.strength.panels.panel import WELD, PanelEdge, edge_at, typed_edges
from keel.studies.strength.panels.rows import partition_joint

ENDS = (("rear end", "front end"), ("right side", "left side"), ("floor", "lid"))


def rolled_parts(solids: Solids, loads: Loads) -> Iterator[TestPanel]:
    """Every part of a tank's wall that is rolled or round.

    Parameters
    ----------
    solids : Solids
        The shell worked out.
    loads : Loads
        Metal and what is allowed.

    Returns
    -------
    iterator of TestPanel
        Pressed from its hollow side a rolled wall is stretched, from the other it buckles: at a third of what breaks
        it.

    References
    ----------
    As for `hoop_kpa`, `round_wall_buckling_kpa`, `dish_buckling_kpa`, `round_plate_stress_mpa`.
    """
    return _Rolled(solids, loads).parts()


@dataclass(frozen=True)
class _Disc:
    """A flat disc: its middle, the way out, across [mm], sheet [mm], how its edge is joined."""

    name: str
    what: str
    middle: Array
    out: Triple
    across_mm: float
    thickness_mm: float
    edges: Sequence[PanelEdge]


class _Rolled:
    def __init__(self, solids: Solids, loads: Loads) -> None:
        self.solids, self.shell, self.loads = solids, solids.shell, loads
        self.every = [cell.name for cell in solids.cells]

    def parts(self) -> Iterator[TestPanel]:
        """The shell's own, then those of features."""
        if isinstance(self.shell, CylinderShell):
            yield from self._cylinder(self.shell)
        else:
            yield from self._edges()
        for feature in self.shell.features:
            if isinstance(feature, Well | Sump) and feature.form == "round":
                yield from self._pot_shaped(feature)
            elif isinstance(feature, Relief) and feature.form != "box":
                yield self._relief(feature)

    def _edges(self) -> Iterator[TestPanel]:
        """Rolled edges of a profile: one that bows inward is pressed on its hump."""
        run = self.solids.section.span[1] - self.solids.section.span[0]
        for n, edge in enumerate(self.solids.section.edges):
            if edge.centre is not None:
                sides = (run, edge.length)
                name = f"rolled side {n + 1}"
                thick = self.shell.thickness_mm
                yield self._wall(name, "rolled side", sides, edge.radius, thick, hollow_inside=edge.turn > 0)

    def _wall(
        self,
        name: str,
        what: str,
        sides: tuple[float, float],
        radius: float,
        thick: float,
        *,
        hollow_inside: bool,
        free_mm: float | None = None,
    ) -> TestPanel:
        """A rolled wall, its first side along its axis; fuel in its hollow, or round its hump."""
        modulus = self.loads.metal.youngs_modulus_gpa
        stretch = hoop_kpa(self.loads.allowed_mpa, radius, thick)
        buckle = BUCKLING_SHARE * round_wall_buckling_kpa(modulus, 2 * radius, thick, free_mm or sides[0])
        return self._curved(name, what, sides, thick, (stretch, min(stretch, buckle)), hollow_inside=hollow_inside)

    def _curved(
        self,
        name: str,
        what: str,
        sides: tuple[float, float],
        thick: float,
        bears: tuple[float, float],
        *,
        hollow_inside: bool = True,
        cells: list[str] | None = None,
    ) -> TestPanel:
        """A curved part by what it bears from its hollow side and on its hump [kPa]."""
        safe, vacuum = bears if hollow_inside else bears[::-1]
        nowhere, still = list[Point](), Point(0.0, 0.0, 0.0)
        held = "stretched, not bent" if hollow_inside else "pressed on its hump"
        return TestPanel(name, what, held, [], *sides, thick, safe, vacuum, 0.0, cells or self.every, nowhere, still)

    def _cylinder(self, shell: CylinderShell) -> Iterator[TestPanel]:
        axis, radius = "xyz".index(shell.axis), shell.diameter_mm / 2
        plates, usual = shell.features, shell.feature_wall_mm
        stays = [at for at, _ in braces(plates, axis, shell.run_mm, usual)] if axis < 2 else [0.0, shell.run_mm]
        free = max(b - a for a, b in pairwise(stays))
        sides = (shell.run_mm, shell.diameter_mm)
        yield self._wall("wall", "rolled wall", sides, radius, shell.thickness_mm, hollow_inside=True, free_mm=free)
        for far, name in enumerate(ENDS[axis]):
            yield self._end(shell, axis, name, is_far=bool(far))
        for plate in plates:
            if isinstance(plate, Partition) and plate.axis == shell.axis:
                yield self._partition(plate, axis, shell.diameter_mm)

    def _end(self, shell: CylinderShell, axis: int, name: str, *, is_far: bool) -> TestPanel:
        body, thick = self.solids.body, shell.end_wall_mm
        middle, out = self._middle(axis, body.high[axis] if is_far else body.low[axis]), _unit(axis, is_far)
        edges = typed_edges(shell, "ends", [edge_at("wall", WELD)])
        disc = _Disc(name, "flat end", middle, out, shell.diameter_mm, thick, edges)
        if not shell.dish_mm:
            return self._disc(disc)
        radius = shell.diameter_mm / 2
        ball = (radius**2 + shell.dish_mm**2) / (2 * shell.dish_mm)
        stretch = hoop_kpa(self.loads.allowed_mpa, ball / 2, thick)
        buckle = BUCKLING_SHARE * dish_buckling_kpa(self.loads.metal.youngs_modulus_gpa, ball, thick)
        sides, cells = (2 * radius, 2 * radius), self._cells(disc)
        return self._curved(name, "dished end", sides, thick, (stretch, min(stretch, buckle)), cells=cells)

    def _partition(self, plate: Partition, axis: int, across_mm: float) -> TestPanel:
        usual = self.shell.feature_wall_mm
        middle = self._middle(axis, self.solids.body.low[axis] + plate.middle_mm(usual))
        edges = typed_edges(self.shell, plate.name, [edge_at("wall", partition_joint(plate, self.loads))])
        out, thick = _unit(axis, True), plate.wall_mm(usual)
        return self._disc(_Disc(plate.name, "partition", middle, out, across_mm, thick, edges))

    def _pot_shaped(self, feature: Well | Sump) -> Iterator[TestPanel]:
        """A round well or sump: its bottom is a disc; fuel presses on a well's hump, in a sump's hollow."""
        body, thick, is_well = self.solids.body, self.shell.feature_wall_mm, isinstance(feature, Well)
        frame = well_frame(feature, body) if isinstance(feature, Well) else sump_frame(feature, body)
        up, mouth = frame[:, 2], frame[:, 3]
        out = up if is_well else -up
        edges = [edge_at("its wall", WELD)]
        middle, across = mouth - feature.deep_mm * up, feature.long_mm - 2 * feature.slope_mm
        way = (float(out[0]), float(out[1]), float(out[2]))
        name, sides = feature.name, (feature.deep_mm, feature.long_mm)
        yield self._disc(_Disc(f"{name}, bottom", feature.kind, middle, way, across, thick, edges))
        radius = feature.long_mm / 2
        yield self._wall(f"{name}, wall", feature.kind, sides, radius, thick, hollow_inside=not is_well)

    def _relief(self, relief: Relief) -> TestPanel:
        """A round relief: fuel lies round its hump."""
        sizes = (relief.length_mm, relief.width_mm, relief.height_mm)
        axis = "xyz".index(relief.form)
        long = min(sizes[axis], self.solids.body.size[axis])
        radius = min(size for n, size in enumerate(sizes) if n != axis) / 2
        thick = self.shell.feature_wall_mm
        return self._wall(relief.name, "relief", (long, 2 * radius), radius, thick, hollow_inside=False)

    def _disc(self, disc: _Disc) -> TestPanel:
        plate = round_plate(disc.name, disc.what, disc.across_mm, disc.thickness_mm, disc.edges, AT_ONE_KPA, self.loads)
        return of_plate(plate, _square(disc), disc.out, self._cells(disc))

    def _cells(self, disc: _Disc) -> list[str]:
        return cells_at(self.solids, _square(disc), disc.out, disc.what)

    def _middle(self, axis: int, at: float) -> Array:
        """The middle of the body across an axis."""
        middle: Array = (np.array(self.solids.body.low) + np.array(self.solids.body.high)) / 2
        middle[axis] = at
        return middle


def _unit(axis: int, is_far: bool) -> Triple:
    x, y, z = (float(n == axis) * (1.0 if is_far else -1.0) for n in range(3))
    return x, y, z


def _square(disc: _Disc) -> Array:
    """The square round a disc, shape (4, 3) [mm]."""
    axis = int(np.argmax(np.abs(disc.out)))
    first, second = (disc.across_mm / 2 * np.eye(3)[n] for n in range(3) if n != axis)
    return np.array([disc.middle + u * first + v * second for u, v in ((-1, -1), (1, -1), (1, 1), (-1, 1))])
