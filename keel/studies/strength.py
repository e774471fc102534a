"""Flat panels under fuel: stress, deflection, and the thickness they need."""

from bisect import bisect_right
from dataclasses import dataclass
from math import inf, sqrt
from typing import Literal

from keel.design.brief import Brief
from keel.design.shell import BoxShell
from keel.design.workshop import HouseRules
from keel.reference.fuels import FUELS
from keel.reference.metals import METALS
from keel.reference.units import STANDARD_GRAVITY
from keel.solid.box import BoxSolid

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


@dataclass(frozen=True, slots=True)
class Panel:
    """One flat face of the shell under the fuel it holds."""

    name: str
    long_mm: float
    short_mm: float
    pressure_kpa: float
    stress_mpa: float
    deflection_mm: float
    allowed_mpa: float
    least_thickness_mm: float
    errs_safe: bool


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


def panels(brief: Brief, shell: BoxShell, solid: BoxSolid, rules: HouseRules) -> list[Panel]:
    """Floor, side and end of a full box under the house rule's bump.

    Returns
    -------
    list of Panel
        Each taken with the full depth of fuel over its whole face, which errs safe for the
        uprights. All edges count as clamped: they go on round a bend (wrapper) or are flanged
        and welded (end pans). Sizes go over the plates.
    """
    length, width, height = solid.body.size
    head = fuel_head_kpa(FUELS[brief.fuel].density_kg_per_l, solid.inner.size[2], rules.bump_g)
    faces = {"floor": (length, width), "rear and front": (width, height), "right and left": (length, height)}
    return [_panel(name, sides, head, shell, rules) for name, sides in faces.items()]


def _panel(name: str, sides: tuple[float, float], head_kpa: float, shell: BoxShell, rules: HouseRules) -> Panel:
    metal, long, short = METALS[shell.metal], max(sides), min(sides)
    allowed = rules.stress_share * metal.welded_yield_mpa
    at_one_mm = panel_stress_mpa(head_kpa, long, short, 1.0)
    bow = panel_deflection_mm(head_kpa, long, short, shell.thickness_mm, metal.youngs_modulus_gpa)
    return Panel(
        name=name,
        long_mm=long,
        short_mm=short,
        pressure_kpa=head_kpa,
        stress_mpa=at_one_mm / shell.thickness_mm**2,
        deflection_mm=bow,
        allowed_mpa=allowed,
        least_thickness_mm=sqrt(at_one_mm / allowed) if allowed > 0 else inf,
        errs_safe=bow > shell.thickness_mm / 2,
    )
