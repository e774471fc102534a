"""What a bolt and the sheet it goes through bear, and how long it has to be."""

from collections.abc import Sequence
from dataclasses import dataclass
from math import pi, sqrt

import numpy as np

from keel.design.mount import Bolted, Bolting, Structure
from keel.reference.fasteners import BOLT_YIELD_MPA, BOLTS
from keel.reference.metals import METALS, MetalName
from keel.solid.polyhedron import Array


@dataclass(frozen=True, slots=True)
class Link:
    """One thing that a load goes through: what it carries, and what it bears until it yields."""

    name: str
    load_n: float
    bears_n: float

    @property
    def reserve(self) -> float:
        """How many times the load it bears; infinite without one."""
        return self.bears_n / self.load_n if self.load_n > 0 else float("inf")


def shear_yield_mpa(yield_mpa: float) -> float:
    """Yield in shear [MPa].

    Parameters
    ----------
    yield_mpa : float
        In tension [MPa].

    Returns
    -------
    float
        A √3 less.

    References
    ----------
    von Mises (1913), distortion energy.
    """
    return yield_mpa / sqrt(3.0)


def bolt_bears_n(bolts: Bolting, pull_n: float, shear_n: float) -> Link:
    """Bolts under pull and shear at once.

    Parameters
    ----------
    bolts : Bolting
        Size, grade and number: they share alike.
    pull_n, shear_n : float
        Along and across all of them together [N].

    Returns
    -------
    Link
        Its load is both together, what it bears is in that direction.

    References
    ----------
    von Mises: σ² + 3 τ² ≤ yield², on the stress area of ISO 898-1. Preload is left out: it is used up as a joint opens.
    """
    load = sqrt(pull_n**2 + shear_n**2)
    stressing = sqrt(pull_n**2 + 3 * shear_n**2)
    return Link("bolt", load, bolt_yields_n(bolts) * (load / stressing if stressing else 1.0))


def bolt_yields_n(bolts: Bolting) -> float:
    """Pull at which the bolts of a place yield together.

    Parameters
    ----------
    bolts : Bolting
        Size, grade and number.

    Returns
    -------
    float
        Yield × stress area × number [N].

    References
    ----------
    Stress areas of ISO 898-1 and ASME B1.1; yield by grade from ISO 898-1, ISO 3506 and SAE J429.
    """
    return BOLT_YIELD_MPA[bolts.grade] * BOLTS[bolts.size].stress_area_mm2 * bolts.count


def tear_out_n(thickness_mm: float, yield_mpa: float, edge_mm: float, hole_mm: float) -> float:
    """Pull along the sheet at which a bolt tears out of its edge [N].

    Parameters
    ----------
    thickness_mm, edge_mm, hole_mm : float
        Sheet, middle of the hole to the edge, hole [mm].
    yield_mpa : float
        Of the sheet [MPa].

    Returns
    -------
    float
        2 (edge − hole/2) t τ; zero where the hole lies across the edge.

    References
    ----------
    Two planes in shear beside the bolt: Bruhn, Analysis and Design of Flight Vehicle Structures, D1.
    """
    return 2 * max(0.0, edge_mm - hole_mm / 2) * thickness_mm * shear_yield_mpa(yield_mpa)


def edge_needed_mm(load_n: float, thickness_mm: float, yield_mpa: float, hole_mm: float) -> float:
    """Least distance from the middle of a hole to the edge at which a bolt doesn't tear out [mm].

    Parameters
    ----------
    load_n : float
        Along the sheet [N].
    thickness_mm, hole_mm : float
        Sheet and hole [mm].
    yield_mpa : float
        Of the sheet [MPa].

    Returns
    -------
    float
        Distance [mm].
    """
    return hole_mm / 2 + load_n / (2 * thickness_mm * shear_yield_mpa(yield_mpa))


def bearing_n(thickness_mm: float, yield_mpa: float, hole_mm: float) -> float:
    """Pull along the sheet at which a hole is drawn long [N].

    Parameters
    ----------
    thickness_mm, hole_mm : float
        Sheet and hole [mm].
    yield_mpa : float
        Of the sheet [MPa].

    Returns
    -------
    float
        1.5 × hole × t × yield.

    References
    ----------
    Bearing at 1.5 × yield: EN 1993-1-8 3.6.1 for edges of 1.2 to 1.5 holes; EN 1999-1-1 and handbooks give up to 2.
    """
    return 1.5 * hole_mm * thickness_mm * yield_mpa


def pull_through_n(thickness_mm: float, yield_mpa: float, round_mm: float) -> float:
    """Pull along the bolt at which a washer or plate is drawn through the sheet [N].

    Parameters
    ----------
    thickness_mm : float
        Sheet [mm].
    yield_mpa : float
        Of the sheet [MPa].
    round_mm : float
        Length of its edge [mm].

    Returns
    -------
    float
        Edge × t × τ.

    References
    ----------
    Punching shear: EN 1993-1-8 table 3.4 (there with 0.6 of the ultimate strength, which is more).
    """
    return round_mm * thickness_mm * shear_yield_mpa(yield_mpa)


def pried_n(load_n: float, arm_mm: float, base_mm: float) -> float:
    """Pull on the bolts of a block that is pushed over [N].

    Parameters
    ----------
    load_n : float
        Across its bolts [N].
    arm_mm : float
        How high above what it is bolted to that acts [mm].
    base_mm : float
        From its bolts to the edge that it tips over [mm].

    Returns
    -------
    float
        On all of them together, which stand in one row.

    References
    ----------
    Moments about that edge: F arm = pull × base (any book on statics). The block itself is taken to be rigid.
    """
    return load_n * arm_mm / base_mm


def washer_mm(bolts: Bolting) -> float:
    """Outside diameter of a place's washers.

    Parameters
    ----------
    bolts : Bolting
        With or without a typed one.

    Returns
    -------
    float
        Typed, or the usual large one [mm].
    """
    return bolts.washer_mm or BOLTS[bolts.size].large_washer_mm


def links_of(bolted: Bolted, pull_n: float, shear_n: float) -> list[Link]:
    """What a load goes through where a place is bolted to the vehicle.

    Parameters
    ----------
    bolted : Bolted
        Bolts and structure.
    pull_n, shear_n : float
        Along and across the bolts [N].

    Returns
    -------
    list of Link
        Bolt, tear-out and bearing across it, pull-through and a spreading plate's bending along it.
    """
    bolts, structure = bolted.bolts, bolted.structure
    hole, count = BOLTS[bolts.size].hole_mm, bolts.count
    shear = shear_n / count
    found = [bolt_bears_n(bolts, pull_n, shear_n)]
    if shear_n > 0:
        torn = drawn = 0.0
        for thick, metal, edge in _sheets(structure):
            yields = METALS[metal].yield_mpa
            torn += tear_out_n(thick, yields, edge, hole)
            drawn += bearing_n(thick, yields, hole)
        found += [Link("tear-out", shear, torn), Link("bearing", shear, drawn)]
    if pull_n > 0:
        found += _pulled(structure, pull_n, bolts)
    return found


def _sheets(structure: Structure) -> list[tuple[float, MetalName, float]]:
    """The structure's own sheet, and a plate's: thickness, metal, and the hole's distance from the edge [mm]."""
    own = (structure.thickness_mm, structure.metal, structure.edge_mm)
    plate = structure.plate
    return [own] if plate is None else [own, (plate.thickness_mm, plate.metal, min(plate.long_mm, plate.wide_mm) / 2)]


def _pulled(structure: Structure, pull_n: float, bolts: Bolting) -> list[Link]:
    yields, across = METALS[structure.metal].yield_mpa, washer_mm(bolts)
    plate = structure.plate
    if plate is None:
        return [
            Link(
                "pull-through",
                pull_n / bolts.count,
                pull_through_n(structure.thickness_mm, yields, pi * across),
            )
        ]
    # One plate takes the bolts of its place together.
    edge = 2 * (plate.long_mm + plate.wide_mm)
    through = Link("pull-through", pull_n, pull_through_n(structure.thickness_mm, yields, edge))
    return [through, Link("spreading plate", pull_n, plate_bears_n(structure, across))]


def plate_bears_n(structure: Structure, washer: float) -> float:
    """Pull at which a spreading plate bends for good round its washer [N].

    Parameters
    ----------
    structure : Structure
        With a plate.
    washer : float
        Outside diameter of the washer on it [mm].

    Returns
    -------
    float
        Pull [N].

    References
    ----------
    A strip as wide as the plate that bears on the sheet at its two ends, where that bends it most, and is pulled in the
    middle by its washer, at first yield: F (2 span − washer) / 8 = yield × width × t² / 6, whichever way bears less.
    """
    plate = structure.plate
    assert plate is not None
    yields = METALS[plate.metal].yield_mpa
    least = float("inf")
    for span, width in ((plate.long_mm, plate.wide_mm), (plate.wide_mm, plate.long_mm)):
        arm = 2 * span - min(washer, span)
        least = min(least, yields * width * plate.thickness_mm**2 / 6 * 8 / arm)
    return least


def bolt_group(places: Array, load: Sequence[float], at: Sequence[float]) -> Array:
    """How equal bolts of a rigid plate share a load in its plane.

    Parameters
    ----------
    places : ndarray, shape (n, 2)
        The bolts [mm].
    load : sequence of float, shape (2,)
        In the plane [N].
    at : sequence of float, shape (2,)
        Where it acts [mm].

    Returns
    -------
    ndarray, shape (n, 2)
        Each bolt's share; together they are the load [N].

    References
    ----------
    Elastic bolt group: F/n, and M r / Σ r² square to the radius from the centroid (Shigley, Mechanical Engineering
    Design, 8-12).
    """
    middle = places.mean(axis=0)
    off = places - middle
    arm = np.asarray(at, dtype=float) - middle
    moment = arm[0] * load[1] - arm[1] * load[0]
    polar = float((off**2).sum())
    turned = np.zeros_like(off) if polar == 0 else moment / polar * np.column_stack([-off[:, 1], off[:, 0]])
    return np.asarray(np.asarray(load, dtype=float) / len(places) + turned)
