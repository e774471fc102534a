"""Sheet by gauge number: the same number is another thickness in another metal.

References
----------
Carbon steel: manufacturers' standard gauge, 41.82 lb/ft² an inch of thickness (15 USC 206). Stainless: United States
standard gauge, as sold. Aluminium: American wire gauge, 0.005 in × 92^((36 − n) / 39) (ASTM B258). Mills roll to a
tolerance: measure the sheet before a bend is calculated from its number.
"""

from keel.reference.metals import METALS, MetalFamily, MetalName
from keel.reference.units import MM_PER_INCH

NEAR = 0.02
"""A sheet this much off a gauge's thickness goes by its number."""

_STEEL = (
    "0.2391 0.2242 0.2092 0.1943 0.1793 0.1644 0.1495 0.1345 0.1196 0.1046 0.0897 0.0747 0.0673 0.0598 "
    "0.0538 0.0478 0.0418 0.0359 0.0329 0.0299 0.0269 0.0239 0.0209 0.0179 0.0164 0.0149 0.0135 0.0120"
)
_STAINLESS = (
    "0.2500 0.2344 0.2187 0.2031 0.1875 0.1719 0.1563 0.1406 0.1250 0.1094 0.0938 0.0781 0.0703 0.0625 "
    "0.0563 0.0500 0.0438 0.0375 0.0344 0.0313 0.0281 0.0250 0.0219 0.0188 0.0172 0.0156 0.0141 0.0125"
)
_FIRST, _LAST = 3, 30


def _listed(inches: str) -> dict[int, float]:
    return {number: float(inch) * MM_PER_INCH for number, inch in enumerate(inches.split(), start=_FIRST)}


GAUGES: dict[MetalFamily, dict[int, float]] = {
    "steel": _listed(_STEEL),
    "stainless": _listed(_STAINLESS),
    "aluminium": {n: 0.005 * 92 ** ((36 - n) / 39) * MM_PER_INCH for n in range(_FIRST, _LAST + 1)},
}
"""Thickness of each gauge number, by the metal's family [mm]."""


def gauge_of(metal: MetalName, thickness_mm: float) -> int | None:
    """The gauge number that a sheet goes by; None where it is too far off all of them.

    Parameters
    ----------
    metal : str
        Its family decides the table.
    thickness_mm : float
        As it is [mm].

    Returns
    -------
    int or None
        The number; None where none is near.
    """
    number, mm = min(GAUGES[METALS[metal].family].items(), key=lambda item: abs(item[1] - thickness_mm))
    return number if abs(mm - thickness_mm) <= NEAR * mm else None


def gauges_by_metal() -> dict[str, dict[str, float]]:
    """Thickness of each gauge number, by metal, for the interface [mm].

    Returns
    -------
    dict
        By metal, then by number [mm].
    """
    return {
        metal: {str(number): round(mm, 4) for number, mm in GAUGES[one.family].items()} for metal, one in METALS.items()
    }
