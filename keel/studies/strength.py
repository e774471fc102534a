"""Flat panels under fuel: stress, deflection, and the thickness they need."""

from bisect import bisect_right
from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace
from itertools import pairwise
from math import inf, sqrt
from typing import Literal

from keel.design.brief import Brief
from keel.design.features import Baffle, Feature, Partition
from keel.design.shell import BoxShell, CylinderShell, ProfileShell
from keel.design.workshop import HouseRules
from keel.reference.fuels import FUELS
from keel.reference.metals import METALS
from keel.reference.units import STANDARD_GRAVITY
from keel.solid.build import Solids
from keel.solid.section import face_names

Edges = Literal["clamped", "simply supported"]

RATIOS: dict[Edges, tuple[float, ...]] = {
    "clamped": (1.0, 1.2, 1.4, 1.6, 1.8, 2.0),
    "simply supported": (1.0, 1.2, 1.4, 1.6, 1.8, 2.0, 3.0, 4.0, 5.0),
}
STRESS: dict[Edges, tuple[float, ...]] = {
    "clamped": (0.3078, 0.3834, 0.4356, 0.4680, 0.4872, 0.4974),
    "simply supported": (0.2874, 0.3762, 0.4530, 0.5172, 0.5688, 0.6102, 0.7134, 0.7410, 0.7476),
}
DEFLECTION: dict[Edges, tuple[float, ...]] = {
    "clamped": (0.0138, 0.0188, 0.0226, 0.0251, 0.0267, 0.0277),
    "simply supported": (0.0444, 0.0616, 0.0770, 0.0906, 0.1017, 0.1110, 0.1335, 0.1400, 0.1417),
}
STRESS_LONG: dict[Edges, float] = {"clamped": 0.5000, "simply supported": 0.7500}
DEFLECTION_LONG: dict[Edges, float] = {"clamped": 0.0284, "simply supported": 0.1421}

POISSON = 0.3
PROOF_CAP_KPA = 20.0


@dataclass(frozen=True, slots=True)
class Panel:
    """One flat face of the shell under the fuel it holds."""

    name: str
    long_mm: float
    short_mm: float
    thickness_mm: float
    pressure_kpa: float
    stress_mpa: float
    deflection_mm: float
    large_deflection_mm: float
    allowed_mpa: float
    least_thickness_mm: float
    proof_kpa: float
    errs_safe: bool
    swaged: bool


def coefficient(ratio: float, ratios: tuple[float, ...], values: tuple[float, ...], at_infinity: float) -> float:
    """A plate coefficient, straight-line in a/b between the table's columns.

    Beyond the last column the value for an endless plate is used, which errs safe.
    """
    if ratio > ratios[-1]:
        return at_infinity
    place = min(bisect_right(ratios, ratio), len(ratios) - 1)
    low, high = ratios[place - 1], ratios[place]
    share = (ratio - low) / (high - low)
    return values[place - 1] + share * (values[place] - values[place - 1])


def panel_stress_mpa(
    pressure_kpa: float, long_mm: float, short_mm: float, thickness_mm: float, edges: Edges = "clamped"
) -> float:
    """Greatest bending stress of a rectangular plate under even pressure [MPa].

    Parameters
    ----------
    pressure_kpa : float
        Even pressure q [kPa].
    long_mm, short_mm, thickness_mm : float
        Sides a ≥ b and thickness t [mm].
    edges : str
        How the plate is held.

    Returns
    -------
    float
        σ = β q b²/t²; β from the usual plate tables (Poisson 0.3), small deflections.
    """
    beta = coefficient(long_mm / short_mm, RATIOS[edges], STRESS[edges], STRESS_LONG[edges])
    return beta * pressure_kpa * 1e-3 * (short_mm / thickness_mm) ** 2


def panel_deflection_mm(
    pressure_kpa: float,
    long_mm: float,
    short_mm: float,
    thickness_mm: float,
    youngs_modulus_gpa: float,
    edges: Edges = "clamped",
) -> float:
    """Deflection in the middle of a rectangular plate [mm]: w = α q b⁴/(E t³), small deflections.

    Parameters as for `panel_stress_mpa`; `youngs_modulus_gpa` is E [GPa].
    """
    alpha = coefficient(long_mm / short_mm, RATIOS[edges], DEFLECTION[edges], DEFLECTION_LONG[edges])
    stiffness_mpa_mm3 = youngs_modulus_gpa * 1e3 * thickness_mm**3
    return alpha * pressure_kpa * 1e-3 * short_mm**4 / stiffness_mpa_mm3


def fuel_head_kpa(density_kg_per_l: float, depth_mm: float, extra_g: float) -> float:
    """Pressure under a depth of fuel with extra vertical acceleration [kPa]: ρ (g + a) d."""
    return density_kg_per_l * STANDARD_GRAVITY * (1 + extra_g) * depth_mm / 1000


def round_plate_stress_mpa(
    pressure_kpa: float, radius_mm: float, thickness_mm: float, edges: Edges = "clamped"
) -> float:
    """Greatest bending stress of a round flat plate under even pressure [MPa].

    σ = k q R²/t² with k = 3/4 clamped, 3 (3 + ν)/8 = 1.2375 simply supported (ν = 0.3); small deflections.
    """
    factor = 0.75 if edges == "clamped" else 3 * (3 + POISSON) / 8
    return factor * pressure_kpa * 1e-3 * (radius_mm / thickness_mm) ** 2


def round_plate_deflection_mm(
    pressure_kpa: float,
    radius_mm: float,
    thickness_mm: float,
    youngs_modulus_gpa: float,
    edges: Edges = "clamped",
) -> float:
    """Deflection in the middle of a round flat plate [mm]: 3 (1 − ν²) q R⁴/(16 E t³), or (5 + ν)/(1 + ν) times that."""
    more = 1.0 if edges == "clamped" else (5 + POISSON) / (1 + POISSON)
    stiffness = 16 * youngs_modulus_gpa * 1e3 * thickness_mm**3
    return more * 3 * (1 - POISSON**2) * pressure_kpa * 1e-3 * radius_mm**4 / stiffness


def large_deflection_mm(deflection_mm: float, thickness_mm: float) -> float:
    """Deflection with the plate's stretching counted [mm].

    Solves w + c w³/t² = w₀ for the small-deflection figure w₀, with c = 0.58 as for a clamped
    plate held in at its edges (energy method); a guide beside the other figure.
    """
    ratio, share = deflection_mm / thickness_mm, min(1.0, deflection_mm / thickness_mm)
    for _ in range(60):
        share -= (share + 0.58 * share**3 - ratio) / (1 + 1.74 * share**2)
    return share * thickness_mm


def panels(brief: Brief, solids: Solids, rules: HouseRules, features: Sequence[Feature] | None = None) -> list[Panel]:
    """The flat faces of a full shell under the house rule's bump.

    Parameters
    ----------
    brief, rules
        Fuel, and the extra g and the share of the yield.
    solids : Solids
        The shell worked out.
    features : sequence of Feature, optional
        Taken instead of the shell's own, to see what other plates would do.

    Returns
    -------
    list of Panel
        Each taken with the full depth of fuel over its whole face, which errs safe for the
        uprights. All edges count as clamped: they go on round a bend or are flanged or welded on
        both sides. Sizes go over the plates. The end of a profile is taken as the rectangle round
        it, which errs safe; a swage across a panel halves its long side. Partitions, and baffles
        that reach the roof, split the panels they are welded across: the widest field counts.
    """
    head = fuel_head_kpa(FUELS[brief.fuel].density_kg_per_l, solids.inner_body.size[2], rules.bump_g)
    shell = solids.shell
    if isinstance(shell, CylinderShell):
        return _round_panels(shell, head, rules)
    plates = shell.features if features is None else features
    return [_panel(name, sides, head, shell, wall, rules) for name, sides, wall in _faces(solids, plates)]


def widest_field(features: Sequence[Feature], axis: int, size_mm: float) -> float:
    """The longest stretch along x (0) or y (1) between plates that brace the sheet [mm]."""
    plates = [f for f in features if isinstance(f, Partition) or (isinstance(f, Baffle) and f.top_gap_mm == 0)]
    stations = [0.0, *sorted(f.at_mm for f in plates if "xy".index(f.axis) == axis), size_mm]
    return max(b - a for a, b in pairwise(stations))


def _faces(solids: Solids, plates: Sequence[Feature]) -> Iterator[tuple[str, tuple[float, float], float]]:
    """Name, sides and thickness of each flat face."""
    shell, section = solids.shell, solids.section
    length, width = (widest_field(plates, axis, solids.body.size[axis]) for axis in (0, 1))
    height = solids.body.size[2]
    if isinstance(shell, BoxShell):
        end = shell.end_wall_mm
        along_x = shell.wrap_axis == "x"
        yield "floor", (length, width), shell.thickness_mm
        yield "rear and front", (width, height), end if along_x else shell.thickness_mm
        yield "right and left", (length, height), shell.thickness_mm if along_x else end
        return
    run = (length, width)[section.axis]
    for name, e in zip(face_names(section), section.edges, strict=True):
        if e.centre is None:
            yield name, (run, e.chord), shell.thickness_mm
    yield "ends", (width if section.axis == 0 else length, height), shell.end_wall_mm


def _round_panels(shell: CylinderShell, head: float, rules: HouseRules) -> list[Panel]:
    metal, radius = METALS[shell.metal], shell.diameter_mm / 2
    allowed = rules.stress_share * metal.welded_yield_mpa
    hoop = head * 1e-3 * radius / shell.thickness_mm
    wall = Panel(
        name="wall",
        long_mm=shell.run_mm,
        short_mm=shell.diameter_mm,
        thickness_mm=shell.thickness_mm,
        pressure_kpa=head,
        stress_mpa=hoop,
        deflection_mm=0.0,
        large_deflection_mm=0.0,
        allowed_mpa=allowed,
        least_thickness_mm=hoop * shell.thickness_mm / allowed,
        proof_kpa=allowed * shell.thickness_mm / radius * 1e3,
        errs_safe=False,
        swaged=False,
    )
    thick = shell.end_wall_mm
    if shell.dish_mm:
        ball = (radius**2 + shell.dish_mm**2) / (2 * shell.dish_mm)
        stress, bow = head * 1e-3 * ball / (2 * thick), 0.0
        least, proof = stress * thick / allowed, allowed * 2 * thick / ball * 1e3
    else:
        stress = round_plate_stress_mpa(head, radius, thick)
        bow = round_plate_deflection_mm(head, radius, thick, metal.youngs_modulus_gpa)
        least, proof = thick * sqrt(stress / allowed), head * allowed / stress if stress else inf
    ends = replace(
        wall,
        name="ends",
        long_mm=shell.diameter_mm,
        thickness_mm=thick,
        stress_mpa=stress,
        deflection_mm=bow,
        large_deflection_mm=large_deflection_mm(bow, thick),
        least_thickness_mm=least,
        proof_kpa=proof,
        errs_safe=bow > thick / 2,
    )
    return [wall, ends]


def _panel(
    name: str,
    sides: tuple[float, float],
    head_kpa: float,
    shell: BoxShell | ProfileShell,
    thickness: float,
    rules: HouseRules,
) -> Panel:
    metal, long, short = METALS[shell.metal], max(sides), min(sides)
    swaged = name in shell.swages
    if swaged:
        long, short = max(long / 2, short), min(long / 2, short)
    allowed = rules.stress_share * metal.welded_yield_mpa
    at_one_mm = panel_stress_mpa(head_kpa, long, short, 1.0)
    bow = panel_deflection_mm(head_kpa, long, short, thickness, metal.youngs_modulus_gpa)
    return Panel(
        name=name,
        long_mm=long,
        short_mm=short,
        thickness_mm=thickness,
        pressure_kpa=head_kpa,
        stress_mpa=at_one_mm / thickness**2,
        deflection_mm=bow,
        large_deflection_mm=large_deflection_mm(bow, thickness),
        allowed_mpa=allowed,
        least_thickness_mm=sqrt(at_one_mm / allowed) if allowed > 0 else inf,
        proof_kpa=allowed * thickness**2 / panel_stress_mpa(1.0, long, short, 1.0),
        errs_safe=bow > thickness / 2,
        swaged=swaged,
    )


def safe_proof_kpa(found: list[Panel]) -> float:
    """Safe proof pressure [kPa]: the least over the panels, never above 20 kPa without the user's say-so."""
    return min(PROOF_CAP_KPA, *(panel.proof_kpa for panel in found))
