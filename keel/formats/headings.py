"""Columns of tables in a reader's units: a heading ends with its unit, and that unit says how its numbers count.

`hole_mm` goes out as `hole_in` to who reads inches, and either comes in.
"""

from keel.reference.quantities import QUANTITIES, UNIT_SETS, UnitSet
from keel.reference.units import LITRES_PER_IMPERIAL_GALLON, LITRES_PER_US_GALLON, MM_PER_INCH

Unit = tuple[str, float]
"""How it is written at the end of a heading, and how much of what is kept one of it is."""
EACH = "_each"


def _either(ending: str, per: float) -> dict[UnitSet, Unit]:
    return {"in_usgal": (ending, per), "in_impgal": (ending, per)}


def _per(kind: str) -> float:
    return QUANTITIES[kind].us.per


ENDINGS: dict[str, dict[UnitSet, Unit]] = {
    "l_per_h": {
        "in_usgal": ("usgal_per_h", LITRES_PER_US_GALLON),
        "in_impgal": ("impgal_per_h", LITRES_PER_IMPERIAL_GALLON),
    },
    "litres": {
        "in_usgal": ("us_gallons", LITRES_PER_US_GALLON),
        "in_impgal": ("imp_gallons", LITRES_PER_IMPERIAL_GALLON),
    },
    "l": {"in_usgal": ("usgal", LITRES_PER_US_GALLON), "in_impgal": ("impgal", LITRES_PER_IMPERIAL_GALLON)},
    "mm": _either("in", MM_PER_INCH),
    "m2": _either("ft2", _per("m2")),
    "m": _either("ft", _per("m")),
    "kg": _either("lb", _per("kg")),
    "kpa": _either("psi", _per("kpa")),
    "nm": _either("lbfft", _per("nm")),
}
"""Endings of what is kept, the longest that fits first, and what they become."""


def in_units(heading: str, units: UnitSet) -> tuple[str, float]:
    """A column as a reader has it: its heading, and how much of what is kept one of its numbers is.

    Parameters
    ----------
    heading : str
        As it is kept, in metric units: `hole_mm`.
    units : str
        The reader's.
    """
    return _turned(heading, {kept: ways[units] for kept, ways in ENDINGS.items() if units in ways})


def as_kept(heading: str) -> tuple[str, float]:
    """A heading in anybody's units as it is kept: `hole_in` is `hole_mm`, 25.4 of them each."""
    back: dict[str, Unit] = {}
    for kept, ways in ENDINGS.items():
        for ending, per in (ways[units] for units in UNIT_SETS if units in ways):
            back.setdefault(ending, (kept, per))
    return _turned(heading, dict(sorted(back.items(), key=lambda item: -len(item[0]))))


def _turned(heading: str, ways: dict[str, Unit]) -> tuple[str, float]:
    stem, each = (heading.removesuffix(EACH), EACH) if heading.endswith(EACH) else (heading, "")
    for ending, (other, per) in ways.items():
        if stem == ending or stem.endswith(f"_{ending}"):
            return stem[: len(stem) - len(ending)] + other + each, per
    return heading, 1.0
