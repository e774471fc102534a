"""Loss of pressure in hoses and tubes."""

import numpy as np

from keel.network.curves import Array

LAMINAR, TURBULENT = 2000.0, 4000.0
"""Reynolds numbers below and above which the flow is surely of one kind."""
AT_LAMINAR = 64.0 / LAMINAR
LN10 = float(np.log(10))
M3_S_PER_LPH = 1e-3 / 3600
MM2 = 1e-6


def colebrook(reynolds: Array, roughness: Array) -> tuple[Array, Array]:
    """Darcy's friction factor of turbulent flow, and how it changes with the Reynolds number.

    Parameters
    ----------
    reynolds : ndarray
        Reynolds numbers, above zero.
    roughness : ndarray
        Height of the wall's roughness over the bore.

    Returns
    -------
    ndarray, ndarray
        1/√f = −2 log₁₀(e/(3.7 d) + 2.51/(Re √f)), solved to rounding; df/dRe.

    References
    ----------
    C. F. Colebrook, Turbulent Flow in Pipes, J. Inst. Civil Engineers 11 (1939). Newton's method on 1/√f from
    Haaland's explicit formula, which lies within 2 %: three steps settle it.
    """
    rough, thin = roughness / 3.7, 2.51 / reynolds
    found = -1.8 * np.log10(rough**1.11 + 6.9 / reynolds)
    for _ in range(3):
        inside = rough + thin * found
        found = found - (found + 2 * np.log10(inside)) / (1 + 2 * thin / (inside * LN10))
    bent = 2 * thin / ((rough + thin * found) * LN10)
    return np.asarray(found**-2), np.asarray(-2 * found**-2 * bent / (1 + bent) / reynolds)


def friction(reynolds: Array, roughness: Array) -> tuple[Array, Array]:
    """Darcy's friction factor at any Reynolds number, and how it changes with it.

    Parameters
    ----------
    reynolds, roughness : ndarray
        As for `colebrook`.

    Returns
    -------
    ndarray, ndarray
        64/Re below 2000, Colebrook's above 4000, a straight line in Re between; its slope.

    References
    ----------
    Hagen and Poiseuille (64/Re); Colebrook. Between them no law holds: authors differ, a straight line is the mean.
    """
    slow = 64.0 / np.maximum(reynolds, 1e-9)
    fast, falls = colebrook(np.maximum(reynolds, TURBULENT), roughness)
    rises = (fast - AT_LAMINAR) / (TURBULENT - LAMINAR)
    between = AT_LAMINAR + rises * (reynolds - LAMINAR)
    is_slow, is_between = reynolds < LAMINAR, reynolds < TURBULENT
    factor = np.where(is_slow, slow, np.where(is_between, between, fast))
    slope = np.where(is_slow, -slow / np.maximum(reynolds, 1e-9), np.where(is_between, rises, falls))
    return factor, slope


def velocity(flow_lph: Array, bore_mm: Array) -> Array:
    """Mean velocity in a bore.

    Parameters
    ----------
    flow_lph, bore_mm : ndarray
        Flow [L/h], bore [mm].

    Returns
    -------
    ndarray
        [m/s], with the sign of the flow.
    """
    return np.asarray(flow_lph * M3_S_PER_LPH / (np.pi / 4 * bore_mm**2 * MM2))


def pipe_loss(
    flow_lph: Array, bore_mm: Array, length_m: Array, fittings: Array, density: Array, viscosity: Array, rough_mm: Array
) -> tuple[Array, Array]:
    """What a hose or tube with its fittings loses, and how that grows with the flow.

    Parameters
    ----------
    flow_lph : ndarray
        Flow, either way [L/h].
    bore_mm, length_m, rough_mm : ndarray
        Bore [mm], length [m], height of the roughness [mm].
    fittings : ndarray
        Sum of the K of its fittings.
    density, viscosity : ndarray
        Of the fuel [kg/L], [mm²/s].

    Returns
    -------
    ndarray, ndarray
        Loss, with the sign of the flow [kPa], and its slope [kPa per L/h].

    References
    ----------
    Darcy and Weisbach: (f L/d + ΣK) ρ v²/2.
    """
    per_lph = velocity(np.ones_like(flow_lph), bore_mm)
    speed = np.abs(flow_lph) * per_lph
    reynolds = speed * bore_mm * 1e3 / viscosity
    factor, bend = friction(reynolds, rough_mm / bore_mm)
    slope = bend * bore_mm * 1e3 / viscosity
    long = length_m * 1e3 / bore_mm
    laminar = 64 * viscosity / (bore_mm * 1e3) * long
    # f v is kept as one, so that nothing is divided by a flow of zero.
    drag = np.where(reynolds < LAMINAR, laminar, factor * long * speed) + fittings * speed
    growth = np.where(reynolds < LAMINAR, laminar, (2 * factor + slope * speed) * long * speed) + 2 * fittings * speed
    return np.sign(flow_lph) * drag * speed * density / 2, growth * per_lph * density / 2
