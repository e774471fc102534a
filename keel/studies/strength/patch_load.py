"""A flat panel that somebody stands on: plate theory for a small loaded patch anywhere on it, edges of either kind."""

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from scipy.sparse import csc_array, eye_array, kron
from scipy.sparse.linalg import splu

from keel.reference.plates import Held
from keel.solid.polyhedron import Array

POISSON = 0.3
CELLS = 40
"""So many steps each way."""
PLACES = (0.0, 0.25, 0.5, 0.75, 1.0)
"""Where the patch is tried, from as near as it comes to one edge to as near to the other."""


@dataclass(frozen=True, slots=True)
class PatchStress:
    """The most that a patch does to a panel.

    Attributes
    ----------
    stress_mpa, deflection_mm : float
        Greatest of all places of the patch.
    along, up : float
        Where it is worst, as shares of both sides.
    """

    stress_mpa: float
    deflection_mm: float
    along: float
    up: float


def patch_stress(
    sides_mm: tuple[float, float],
    thickness_mm: float,
    edges: Sequence[Held],
    load_n: float,
    patch_mm: float,
    modulus_gpa: float,
) -> PatchStress:
    """Stress and deflection of a panel under a square patch, wherever on it that is worst.

    Parameters
    ----------
    sides_mm : (float, float)
        The panel's sides [mm].
    thickness_mm : float
        Of the sheet [mm].
    edges : sequence of Held
        At the low and high end of the first side, then of the second.
    load_n : float
        On the patch [N].
    patch_mm : float
        Side of the patch [mm]; no larger than the panel.
    modulus_gpa : float
        Young's modulus [GPa].

    Returns
    -------
    PatchStress
        By small-deflection theory, which is conservative once the deflection passes half the thickness.

    References
    ----------
    D ∇⁴w = q (Timoshenko and Woinowsky-Krieger, Theory of Plates and Shells, 21), by central differences on a grid of
    40 by 40; a clamped edge mirrors w beyond it, a simply supported one mirrors it turned about.
    """
    long, wide = sides_mm
    steps = (long / CELLS, wide / CELLS)
    rigidity = modulus_gpa * 1e3 * thickness_mm**3 / (12 * (1 - POISSON**2))
    first, second = _fourth(steps[0], edges[0], edges[1]), _fourth(steps[1], edges[2], edges[3])
    one = eye_array(CELLS - 1)
    bent = kron(first, one) + 2 * kron(_second(steps[0]), _second(steps[1])) + kron(one, second)
    solved = splu(csc_array(bent))
    worst = PatchStress(0.0, 0.0, 0.5, 0.5)
    half = min(patch_mm, long, wide) / 2
    for u in PLACES:
        for v in PLACES:
            at = (half + u * (long - 2 * half), half + v * (wide - 2 * half))
            pressure = _pressure(at, half, steps, load_n)
            sagged = solved.solve(pressure.ravel() / rigidity).reshape(CELLS - 1, CELLS - 1)
            moment = rigidity * _most_curved(sagged, steps, edges)
            stress = 6 * moment / thickness_mm**2
            if stress > worst.stress_mpa:
                worst = PatchStress(stress, float(sagged.max()), at[0] / long, at[1] / wide)
    return worst


def _fourth(step: float, low: Held, high: Held) -> csc_array:
    """Fourth differences along one side, with what its two edges do."""
    count = CELLS - 1
    middle = np.full(count, 6.0)
    middle[0] += 1.0 if low == "clamped" else -1.0
    middle[-1] += 1.0 if high == "clamped" else -1.0
    near, far = np.eye(count, k=1), np.eye(count, k=2)
    return csc_array((np.diag(middle) - 4 * (near + near.T) + far + far.T) / step**4)


def _second(step: float) -> csc_array:
    """Second differences along one side, nothing at its ends."""
    count = CELLS - 1
    near = np.eye(count, k=1)
    return csc_array((near + near.T - 2 * np.eye(count)) / step**2)


def _pressure(at: tuple[float, float], half: float, steps: tuple[float, float], load_n: float) -> Array:
    """The load spread over the nodes by how much of each one's cell the patch covers."""
    shares = []
    for middle, step in zip(at, steps, strict=True):
        nodes = step * np.arange(1, CELLS)
        low, high = np.maximum(nodes - step / 2, middle - half), np.minimum(nodes + step / 2, middle + half)
        shares.append(np.maximum(0.0, high - low) / step)
    spread = np.outer(shares[0], shares[1])
    return np.asarray(spread * load_n / max(float(spread.sum()), 1e-12) / (steps[0] * steps[1]))


def _most_curved(sagged: Array, steps: tuple[float, float], edges: Sequence[Held]) -> float:
    """The greatest bending moment over rigidity, inside and along clamped edges [1/mm]."""
    whole = np.pad(sagged, 1)
    along = (whole[2:, 1:-1] - 2 * whole[1:-1, 1:-1] + whole[:-2, 1:-1]) / steps[0] ** 2
    up = (whole[1:-1, 2:] - 2 * whole[1:-1, 1:-1] + whole[1:-1, :-2]) / steps[1] ** 2
    most = max(float(np.abs(along + POISSON * up).max()), float(np.abs(up + POISSON * along).max()))
    rims = ((sagged[0], steps[0]), (sagged[-1], steps[0]), (sagged[:, 0], steps[1]), (sagged[:, -1], steps[1]))
    for held, (beside, step) in zip(edges, rims, strict=True):
        if held == "clamped":
            most = max(most, float(np.abs(2 * beside / step**2).max()))
    return most
