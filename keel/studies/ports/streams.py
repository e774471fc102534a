"""Fuel in and air out: through orifices and hoses, and where the two balance."""

from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache
from math import log, pi, sqrt

from scipy.optimize import brentq

from keel.design.ports import VentPath
from keel.reference.flow import AIR_KG_PER_M3, AIR_MM2_PER_S, DISCHARGE
from keel.reference.units import STANDARD_GRAVITY


@dataclass(frozen=True, slots=True)
class Balance:
    """A steady stream in against the air out."""

    l_per_s: float
    tank_kpa: float


def area_mm2(bore_mm: float) -> float:
    """Area of a round bore [mm²].

    Parameters
    ----------
    bore_mm : float
        Diameter [mm].

    Returns
    -------
    float
        π d²/4 [mm²].
    """
    return pi * bore_mm**2 / 4


def friction(reynolds: float) -> float:
    """Darcy friction factor of a smooth pipe in any regime; laminar it is 64/Re.

    References
    ----------
    S. W. Churchill, Friction-factor equation spans all fluid-flow regimes, Chemical Engineering 84 (1977) 24, 91–92.
    Between Re 2000 and 4000 no formula is sure: his curve lies between the two regimes.
    """
    if reynolds < 1e-9:
        return 0.0
    a = (2.457 * log(1 / (7 / reynolds) ** 0.9)) ** 16 if reynolds > 7 else 0.0
    b = (37530 / reynolds) ** 16
    return float(8 * ((8 / reynolds) ** 12 + (a + b) ** -1.5) ** (1 / 12))


def air_l_per_s(kpa: float, vent: VentPath) -> float:
    """Air through a vent at a pressure over it [L/s].

    Orifice C_d A √(2 Δp/ρ), with the hose's friction f L/d in series; nothing below the pressure that opens
    its valve. Incompressible, as for the few kPa a tank bears.

    References
    ----------
    Bernoulli's equation with the orifice's loss 1/C_d² and Darcy and Weisbach's f L/d; constants and their validity in
    `keel.reference.flow`.
    """
    over = max(0.0, kpa - vent.opening_kpa) * 1e3
    area = area_mm2(vent.bore_mm) * 1e-6
    flow = DISCHARGE * area * sqrt(2 * over / AIR_KG_PER_M3)
    if vent.length_m == 0 or flow == 0:
        return flow * 1e3
    for _ in range(40):
        before, speed = flow, flow / area
        factor = friction(speed * vent.bore_mm / 1e3 / (AIR_MM2_PER_S * 1e-6))
        lost = 1 / DISCHARGE**2 + factor * vent.length_m / (vent.bore_mm / 1e3)
        flow = area * sqrt(2 * over / (AIR_KG_PER_M3 * lost))
        if abs(flow - before) < 1e-12 * flow:
            break
    return flow * 1e3


def inlet_l_per_s(drive_kpa: float, tank_kpa: float, bore_mm: float, density_kg_per_l: float) -> float:
    """Fuel through an opening: C_d A √(2 (p_drive − p_tank)/ρ) [L/s]; none against a higher pressure.

    References
    ----------
    Torricelli's law with a discharge coefficient: `keel.reference.flow`.
    """
    over = max(0.0, drive_kpa - tank_kpa)
    return DISCHARGE * area_mm2(bore_mm) * 1e-6 * sqrt(2 * over * 1e3 / (density_kg_per_l * 1e3)) * 1e3


def held_back_kpa(drive_kpa: float, l_per_s: float, bore_mm: float, density_kg_per_l: float) -> float:
    """The tank's pressure at which an opening passes just so much fuel: `inlet_l_per_s` turned round [kPa]."""
    speed = l_per_s * 1e-3 / (DISCHARGE * area_mm2(bore_mm) * 1e-6)
    return drive_kpa - density_kg_per_l * speed**2 / 2


def jug_kpa(head_mm: float, density_kg_per_l: float) -> float:
    """Pressure of a jug's fuel over the neck: ρ g H [kPa], the hydrostatic law."""
    return density_kg_per_l * STANDARD_GRAVITY * head_mm / 1000


def balance(drive_kpa: float, bore_mm: float, density_kg_per_l: float, vents: Sequence[VentPath] | None) -> Balance:
    """Where the fuel in equals the air out.

    Parameters
    ----------
    drive_kpa, bore_mm, density_kg_per_l : float
        What drives the fuel [kPa], the opening [mm], the fuel [kg/L].
    vents : sequence of VentPath or None
        Ways out for the air; None for an open tank, where no pressure builds up.

    Returns
    -------
    Balance
        By Brent's method on the tank's pressure, to 1e-12 kPa.

    References
    ----------
    R. P. Brent, Algorithms for Minimization without Derivatives (1973), chapter 4.
    """
    if vents is None:
        return Balance(inlet_l_per_s(drive_kpa, 0.0, bore_mm, density_kg_per_l), 0.0)

    return _balanced(drive_kpa, bore_mm, density_kg_per_l, tuple(vents))


@lru_cache(maxsize=1024)
def _balanced(drive_kpa: float, bore_mm: float, density_kg_per_l: float, vents: tuple[VentPath, ...]) -> Balance:
    def over(kpa: float) -> float:
        return air_out(kpa, vents) - inlet_l_per_s(drive_kpa, kpa, bore_mm, density_kg_per_l)

    tank = float(brentq(over, 0.0, drive_kpa, xtol=1e-12))
    return Balance(inlet_l_per_s(drive_kpa, tank, bore_mm, density_kg_per_l), tank)


def air_out(kpa: float, vents: Sequence[VentPath]) -> float:
    return sum(air_l_per_s(kpa, vent) for vent in vents)


@lru_cache(maxsize=256)
def drawing_vacuum_kpa(l_per_h: float, vents: tuple[VentPath, ...]) -> float:
    """Vacuum while fuel is drawn at a rate: the same vents, air going in.

    Parameters
    ----------
    l_per_h : float
        What is drawn [L/h].
    vents : tuple of VentPath
        What lets air in.

    Returns
    -------
    float
        [kPa]; infinite where none lets any in.
    """
    if not vents:
        return float("inf")
    # What it takes above the first valve's opening is sought, however little: beside the opening it would be lost.
    opens, wanted, high = min(vent.opening_kpa for vent in vents), l_per_h / 3600, 1.0
    while air_out(opens + high, vents) < wanted:
        high *= 2
        if high > 1e4:
            return float("inf")
    above = brentq(lambda kpa: air_out(opens + kpa, vents) - wanted, 0.0, high, xtol=1e-16)
    return opens + float(above)
