"""A tank as a grid of cubes: all of it is counted, nothing worked out, so that the exact solids have a witness.

Sheet is as thick as a cube and every size a whole number of cubes. Then volumes are exact, and so is what stays behind
as long as the force runs along an axis.
"""

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray
from scipy.ndimage import binary_erosion, label
from scipy.sparse import coo_array
from scipy.sparse.csgraph import breadth_first_order, minimum_spanning_tree

from keel.design.features import Baffle, Feature, Partition, Relief, RoofStep, Sump, Well
from keel.design.shell import BoxShell

PITCH_MM = 10.0
LITRES = PITCH_MM**3 / 1e6
Bools = NDArray[np.bool_]
Floats = NDArray[np.float64]


def counted(mm: float) -> int:
    """A size in cubes."""
    cubes = round(mm / PITCH_MM)
    assert abs(cubes * PITCH_MM - mm) < 1e-6, f"{mm} mm is no whole number of cubes"
    return cubes


@dataclass(frozen=True)
class Grid:
    """Which cubes can hold fuel, and where the body's rear, right, lower corner lies [cubes, mm]."""

    room: Bools
    datum: tuple[int, int, int]
    origin_mm: tuple[float, float, float]

    @property
    def litres(self) -> float:
        """All that it holds."""
        return float(self.room.sum()) * LITRES

    def middles(self) -> Floats:
        """Middles of the cubes that hold fuel, shape (n, 3) [mm]."""
        return (np.argwhere(self.room) - np.array(self.datum) + 0.5) * PITCH_MM + np.array(self.origin_mm)

    def cells(self) -> list[Bools]:
        """Its separate spaces."""
        named, count = label(self.room)
        return [named == name for name in range(1, count + 1)]

    def litres_under(self, z_mm: float) -> float:
        """Litres under a level surface at a height in vehicle axes: whole layers, and a share of the one it lies in."""
        layers = self.room.sum(axis=(0, 1)) * LITRES
        up = (z_mm - self.origin_mm[2]) / PITCH_MM + self.datum[2]
        whole = min(max(int(np.floor(up)), 0), len(layers) - 1)
        return float(layers[:whole].sum() + layers[whole] * min(max(up - whole, 0.0), 1.0))

    def floor_at(self, x_mm: float, y_mm: float) -> float | None:
        """Height of the floor under the highest room at a place from the body's corner; None where there is none."""
        i, j = (int(np.floor(mm / PITCH_MM)) + d for mm, d in zip((x_mm, y_mm), self.datum, strict=False))
        free = np.flatnonzero(self.room[i, j])
        if not len(free):
            return None
        low = free[-1]
        while low > 0 and self.room[i, j, low - 1]:
            low -= 1
        return float(low - self.datum[2]) * PITCH_MM + self.origin_mm[2]

    def below(self, level_mm: float, up: Floats) -> float:
        """Litres in cubes whose middles lie below a level over the lowest of them."""
        heights = self.middles() @ up
        return float((heights < heights.min() + level_mm).sum()) * LITRES

    def left(self, cell: Bools, outlets: list[tuple[int, ...]], up: Floats) -> float:
        """Litres that can't run to an outlet without rising: theirs is the cell's, and they lie at the cubes' feet."""
        cubes = np.argwhere(cell)
        number = np.full(cell.shape, -1)
        number[tuple(cubes.T)] = np.arange(len(cubes))
        heights = cubes @ up
        passed = _least_rise(_neighbours(number), heights, [int(number[at]) for at in outlets])
        return float((passed > heights + 1e-9).sum()) * LITRES


def _neighbours(number: NDArray[np.int64]) -> NDArray[np.int64]:
    """Pairs of cubes that share a face, shape (m, 2)."""
    pairs = []
    for axis in range(3):
        one = np.moveaxis(number, axis, 0)
        both = np.stack([one[:-1].ravel(), one[1:].ravel()], axis=1)
        pairs.append(both[(both >= 0).all(axis=1)])
    return np.concatenate(pairs)


def _least_rise(pairs: NDArray[np.int64], heights: Floats, outlets: list[int]) -> Floats:
    """How high each cube has to rise on its lowest way to an outlet: the highest on the tree of lowest passes."""
    count = len(heights)
    rise = np.maximum(heights[pairs[:, 0]], heights[pairs[:, 1]])
    joined = [(count, outlet) for outlet in outlets]
    ends = np.vstack([pairs, np.array(joined)])
    least = min(float(heights.min()), 0.0) - 1.0
    weights = np.concatenate([rise, heights[outlets]]) - least
    tree = minimum_spanning_tree(coo_array((weights, ends.T), shape=(count + 1, count + 1)).tocsr())
    order, before = breadth_first_order(tree, count, directed=False)
    above = np.concatenate([heights, [-np.inf]])
    passed = np.full(count + 1, np.inf)
    passed[count] = -np.inf
    for cube in order[1:].tolist():
        passed[cube] = max(above[cube], passed[before[cube]])
    return passed[:count]


def grid_of(shell: BoxShell) -> Grid:
    """A box with its features, cube by cube."""
    size = [counted(mm) for mm in (shell.length_mm, shell.width_mm, shell.height_mm)]
    deep = max([counted(f.deep_mm) for f in shell.features if isinstance(f, Sump)], default=0)
    datum = (1, 1, 1 + deep)
    outer = np.zeros([n + 2 + (deep if axis == 2 else 0) for axis, n in enumerate(size)], dtype=bool)
    body = _Cubes(outer, datum, size)
    body.block((0, 0, 0), size)[...] = True
    for feature in shell.features:
        if isinstance(feature, Sump):
            a, b, long, wide, down = (counted(mm) for mm in _mouth(feature))
            body.block((a, b, -down), (a + long, b + wide, 0))[...] = True
        for low, high in _cut(feature, size):
            body.block(low, high)[...] = False
    room = binary_erosion(outer, np.ones((3, 3, 3)))
    for feature in shell.features:
        _stand(feature, _Cubes(room, datum, size))
    return Grid(room, datum, (shell.x_mm, shell.y_mm, shell.z_mm))


@dataclass(frozen=True)
class _Cubes:
    """Cubes by their place from the body's corner."""

    cubes: Bools
    datum: tuple[int, int, int]
    size: list[int]

    def block(self, low: tuple[int, ...], high: list[int] | tuple[int, ...]) -> Bools:
        """A box of them, as far as the grid reaches."""
        ends = zip(low, high, self.datum, self.cubes.shape, strict=True)
        return self.cubes[tuple(slice(min(max(a + d, 0), n), min(max(b + d, 0), n)) for a, b, d, n in ends)]


def _mouth(feature: Sump | Well) -> tuple[float, ...]:
    return feature.a_mm, feature.b_mm, feature.long_mm, feature.wide_mm, feature.deep_mm


def _cut(feature: Feature, size: list[int]) -> list[tuple[tuple[int, ...], tuple[int, ...]]]:
    """What a feature takes off the outside."""
    if isinstance(feature, Well):
        a, b, long, wide, deep = (counted(mm) for mm in _mouth(feature))
        axis = "xyz".index(
            {"rear": "x", "front": "x", "right": "y", "left": "y", "floor": "z", "roof": "z"}[feature.face]
        )
        low, high = [a, b], [a + long, b + wide]
        far = feature.face in ("front", "left", "roof")
        low.insert(axis, size[axis] - deep if far else 0)
        high.insert(axis, size[axis] if far else deep)
        return [(tuple(low), tuple(high))]
    if isinstance(feature, Relief):
        low = [counted(mm) for mm in (feature.x_mm, feature.y_mm, feature.z_mm)]
        more = [counted(mm) for mm in (feature.length_mm, feature.width_mm, feature.height_mm)]
        return [(tuple(low), tuple(a + m for a, m in zip(low, more, strict=True)))]
    if isinstance(feature, RoofStep):
        axis, reach = "xy".index("x" if feature.side in ("front", "rear") else "y"), counted(feature.reach_mm)
        low, high = [0, 0, size[2] - counted(feature.drop_mm)], list(size)
        if feature.side in ("front", "left"):
            low[axis] = size[axis] - reach
        else:
            high[axis] = reach
        return [(tuple(low), tuple(high))]
    return []


def _stand(feature: Feature, room: _Cubes) -> None:
    """Stand a plate in the room: it fills its layer but for its notches."""
    if not isinstance(feature, Partition | Baffle):
        return
    axis, at = "xy".index(feature.axis), counted(feature.at_mm)
    layer = np.moveaxis(room.cubes, axis, 0)[at + room.datum[axis]]
    kept = np.zeros_like(layer)
    for notch in feature.notches if isinstance(feature, Baffle) else ():
        start = counted(notch.at_mm - notch.wide_mm / 2) + room.datum[1 - axis]
        kept[start : start + counted(notch.wide_mm), : room.datum[2] + 1 + counted(notch.high_mm)] = True
    layer &= kept


@dataclass(frozen=True)
class CountedPlate:
    """A plate in its layer of cubes: what of it is sheet, its area [mm²] and the weld round what meets a wall [mm]."""

    sheet: Bools
    area_mm2: float
    weld_mm: float


def counted_plate(shell: BoxShell, plate: Partition | Baffle) -> CountedPlate:
    """One plate where it stands: partitions are made before baffles, those of a kind as they follow each other."""
    cut = [feature for feature in shell.features if not isinstance(feature, Partition | Baffle)]
    walls = [feature for feature in shell.features if isinstance(feature, Partition)]
    made = [*walls, *(feature for feature in shell.features if isinstance(feature, Baffle))]
    plates = made[: made.index(plate)]
    free = grid_of(shell.model_copy(update={"features": (*cut, *plates)}))
    then = grid_of(shell.model_copy(update={"features": (*cut, *plates, plate)}))
    axis, layer = "xy".index(plate.axis), counted(plate.at_mm) + free.datum["xy".index(plate.axis)]
    section = np.moveaxis(free.room, axis, 0)[layer]
    sheet = section & ~np.moveaxis(then.room, axis, 0)[layer]
    edges = 0
    for way, step in ((0, 1), (0, -1), (1, 1), (1, -1)):
        edges += int((sheet & ~np.roll(section, step, axis=way)).sum())
    return CountedPlate(sheet, float(sheet.sum()) * PITCH_MM**2, edges * PITCH_MM)
