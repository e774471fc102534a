"""A new hole, bend or flattened edge in a finished tank: how near it comes to a seam, and where it may be instead."""

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from keel.analysis.parts import MOUNT, RULES, SOLIDS
from keel.analysis.study import study
from keel.design.mount import Mount, NewWork
from keel.design.workshop import HouseRules
from keel.solid.polyhedron import Array
from keel.solid.solids import Solids
from keel.studies.proof.seam_paths import SEAM_PATHS, Seam
from keel.studies.result import Point

STEP_MM = 5.0
REACH_MM = 300.0
"""How far off a safe place is looked for [mm]."""
ON_MM = 0.5


@dataclass(frozen=True, slots=True)
class NearSeam:
    """One piece of new work.

    Attributes
    ----------
    off_mm, needed_mm : float
        From its edge to the middle of the nearest seam, and how much that has to be.
    seam : str
        Which one.
    safe : Point or None
        The nearest place on the same face that is far enough from every seam; None where there is none near.
    """

    id: str
    name: str
    off_mm: float
    needed_mm: float
    seam: str
    safe: Point | None

    @property
    def clears(self) -> bool:
        """Whether it is far enough off."""
        return self.off_mm >= self.needed_mm


def near_seams(mount: Mount, seams: Sequence[Seam], solids: Solids, rules: HouseRules) -> list[NearSeam]:
    """How near new work comes to the seams of a finished tank.

    Parameters
    ----------
    mount : Mount
        Its new work.
    seams : sequence of Seam
        Every seam in space.
    solids : Solids
        The shell worked out.
    rules : HouseRules
        How far a seam's heat reaches.

    Returns
    -------
    list of NearSeam
        In their order; without a seam there is nothing to come near.
    """
    if not mount.new_work or not seams:
        return []
    starts, ends, names = _stretches(seams)
    return [_judged(work, starts, ends, names, solids, rules.seam_clear_mm) for work in mount.new_work]


def _stretches(seams: Sequence[Seam]) -> tuple[Array, Array, list[str]]:
    starts, ends, names = list[Array](), list[Array](), list[str]()
    for seam in seams:
        for line in seam.lines:
            starts.append(line.points[:-1])
            ends.append(line.points[1:])
            names += [seam.name] * (len(line.points) - 1)
    return np.vstack(starts), np.vstack(ends), names


def _off(place: Array, starts: Array, ends: Array) -> Array:
    """From a place to each stretch [mm]."""
    along = ends - starts
    share = np.einsum("ij,ij->i", place - starts, along) / np.maximum(np.einsum("ij,ij->i", along, along), 1e-12)
    nearest = starts + np.clip(share, 0, 1)[:, None] * along
    return np.asarray(np.linalg.norm(place - nearest, axis=1))


def _judged(work: NewWork, starts: Array, ends: Array, names: Sequence[str], solids: Solids, needed: float) -> NearSeam:
    # Beside the tank it counts where the tank is nearest: in the air it would only seem to be further off.
    typed, half = np.array([work.x_mm, work.y_mm, work.z_mm]), work.across_mm / 2
    place = np.clip(typed, solids.bounds.low, solids.bounds.high)
    off = _off(place, starts, ends)
    nearest = int(np.argmin(off))
    safe = None
    if off[nearest] - half < needed:
        safe = _safe_place(place, half + needed, starts, ends, solids)
    spot = None if safe is None else Point.of(safe)
    return NearSeam(work.id, work.name, float(off[nearest]) - half, needed, names[nearest], spot)


def _safe_place(place: Array, radius: float, starts: Array, ends: Array, solids: Solids) -> Array | None:
    """The nearest place on the same face with room all round it."""
    low, high = np.array(solids.body.low), np.array(solids.body.high)
    faces = np.concatenate([np.abs(place - low), np.abs(place - high)])
    face = int(np.argmin(faces))
    axis = face % 3
    at = (low if face < 3 else high)[axis]
    first, second = [way for way in range(3) if way != axis]
    steps = np.arange(-REACH_MM, REACH_MM + STEP_MM, STEP_MM)
    us, vs = np.meshgrid(place[first] + steps, place[second] + steps, indexing="ij")
    order = np.argsort(np.hypot(us - place[first], vs - place[second]), axis=None)
    for n in order:
        spot = np.zeros(3)
        spot[axis], spot[first], spot[second] = at, us.flat[n], vs.flat[n]
        inside = all(low[way] + radius <= spot[way] <= high[way] - radius for way in (first, second))
        if inside and float(_off(spot, starts, ends).min()) >= radius and _is_on(spot, axis, face >= 3, solids):
            return spot
    return None


def _is_on(spot: Array, axis: int, high: bool, solids: Solids) -> bool:
    """Whether the tank's outside is there, and not the mouth of a recess."""
    way = np.eye(3)[axis] * (1.0 if high else -1.0)
    hits = solids.outer.ray_cast(list(spot + 50.0 * way), list(spot - 50.0 * way))
    return bool(hits) and abs(float(min(hits, key=lambda hit: hit.distance).position[axis]) - spot[axis]) < ON_MM


NEAR_SEAMS = study(near_seams, MOUNT, SEAM_PATHS, SOLIDS, RULES).at_rest()
