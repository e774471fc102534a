"""What a wire may carry where it lies."""

from math import inf, sqrt

from keel.reference.wires import (
    BUNDLE_C,
    INSULATIONS,
    MAY_CARRY_A,
    TABLE_AIR_C,
    TABLE_LIMIT_C,
    InsulationName,
    may_carry,
)

WARMER_C = 20.0
"""Copper in a bundle over the air about it (house rule)."""


def carries(area_mm2: float, insulation: InsulationName, air_c: float = TABLE_AIR_C) -> float:
    """What a wire may carry for good.

    Parameters
    ----------
    area_mm2 : float
        Copper [mm²].
    insulation : InsulationName
        What it is covered with.
    air_c : float
        The warmest place on its way [°C].

    Returns
    -------
    float
        Current [A]: the table's, less where the air leaves less room below what its insulation bears. Never more than
        the table's: whatever it is covered with, what it is joined to bears no more.

    References
    ----------
    Heat from the copper goes with the current's square, heat into the air with the difference of temperature.
    """
    room = max(0.0, INSULATIONS[insulation].limit_c - air_c) / (TABLE_LIMIT_C - TABLE_AIR_C)
    return may_carry(area_mm2) * min(1.0, sqrt(room))


def copper_c(air_c: float) -> float:
    """How warm a wire's copper is taken to be [°C].

    Parameters
    ----------
    air_c : float
        The air about it [°C].

    Returns
    -------
    float
        As a bundle in a warm engine bay at least.
    """
    return max(BUNDLE_C, air_c + WARMER_C)


def smallest_that_carries(current_a: float, insulation: InsulationName, air_c: float = TABLE_AIR_C) -> float:
    """The smallest size on the shelf for a current.

    Parameters
    ----------
    current_a : float
        For good [A].
    insulation : InsulationName
        What it is covered with.
    air_c : float
        The warmest place on its way [°C].

    Returns
    -------
    float
        Copper [mm²]; the thickest where none is enough.
    """
    enough = (size for size in MAY_CARRY_A if carries(size, insulation, air_c) >= current_a - 1e-9)
    return min(enough, default=max(MAY_CARRY_A))


def next_thicker(area_mm2: float) -> float:
    """The next size on the shelf [mm²].

    Parameters
    ----------
    area_mm2 : float
        Copper [mm²].

    Returns
    -------
    float
        Infinite where there is none.
    """
    return min((size for size in MAY_CARRY_A if size > area_mm2 + 1e-9), default=inf)
