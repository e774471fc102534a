"""What a wire takes of the voltage, and how thick it has to be."""

from collections.abc import Callable, Iterable

from scipy.optimize import brentq

from keel.reference.wires import BUNDLE_C, COPPER_AT_C, COPPER_OHM_MM2_PER_M, COPPER_PER_K

WITHIN_V = 1e-9


def resistivity(celsius: float = BUNDLE_C, at_20_c: float = COPPER_OHM_MM2_PER_M) -> float:
    """Of copper at a temperature [Ω·mm²/m]."""
    return at_20_c * (1 + COPPER_PER_K * (celsius - COPPER_AT_C))


def resistance(length_m: float, area_mm2: float, *, celsius: float = BUNDLE_C, contacts_ohm: float = 0.0) -> float:
    """Resistance of a wire there and back [Ω].

    Parameters
    ----------
    length_m : float
        There and back.
    area_mm2 : float
        Its copper.
    celsius : float
        Its temperature.
    contacts_ohm : float
        Switches, relay, plugs and earth together.

    Returns
    -------
    float
        ρ(T) · l / A, plus the contacts.
    """
    return resistivity(celsius) * length_m / area_mm2 + contacts_ohm


def area_needed(
    length_m: float, current_a: float, drop_v: float, *, celsius: float = BUNDLE_C, contacts_ohm: float = 0.0
) -> float | None:
    """Copper with which the drop is just at its limit [mm²].

    Parameters
    ----------
    length_m : float
        There and back.
    current_a : float
        That flows.
    drop_v : float
        What may be lost, contacts included.
    celsius, contacts_ohm : float
        As for `resistance`.

    Returns
    -------
    float or None
        None where the contacts alone lose as much.
    """
    left = drop_v - contacts_ohm * current_a
    return resistivity(celsius) * length_m * current_a / left if left > 0 else None


def voltage_left(
    supply_v: float, ohm: float, current_at: Callable[[float], float | None], least_v: float
) -> float | None:
    """Voltage at the end of a wire whose current depends on it [V].

    Parameters
    ----------
    supply_v : float
        At its source.
    ohm : float
        Of the wire and its contacts.
    current_at : callable
        Current of what it feeds at a voltage [A]; None where its card doesn't reach.
    least_v : float
        The lowest that the card knows.

    Returns
    -------
    float or None
        Where V = supply - R · I(V); None where that lies outside the card.
    """
    if ohm == 0:
        return supply_v

    def over(volts: float) -> float:
        current = current_at(volts)
        return float("nan") if current is None else volts - supply_v + ohm * current

    low, high = over(least_v), over(supply_v)
    if not low <= 0 <= high:
        return None
    return float(brentq(over, least_v, supply_v, xtol=WITHIN_V))


def next_size(wanted: float | None, sizes: Iterable[float]) -> float | None:
    """The smallest size that is at least as large; None where none is."""
    return None if wanted is None else min((size for size in sizes if size >= wanted - 1e-9), default=None)
