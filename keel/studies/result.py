"""What every study's answer has in common."""

from collections.abc import Callable, Sequence
from dataclasses import dataclass, field

import numpy as np

from keel.reference.quantities import QUANTITIES, shown_text
from keel.solid.polyhedron import Array

Value = float | int | str


@dataclass(frozen=True, slots=True)
class Point:
    """A place in vehicle axes [mm]."""

    x: float
    y: float
    z: float

    @classmethod
    def of(cls, place: "Array | Sequence[float]") -> "Point":
        """From an array or a list of three."""
        x, y, z = (float(value) for value in place)
        return cls(x, y, z)


def flat(places: Array) -> list[float]:
    """Coordinates one after the other, to a hundredth of a millimetre.

    Parameters
    ----------
    places : ndarray
        Shape (n, k) [mm].

    Returns
    -------
    list of float
        n · k numbers [mm].
    """
    found: list[float] = np.round(places, 2).ravel().tolist()
    return found


@dataclass(frozen=True, slots=True)
class Words:
    """A sentence whose quantities stay numbers until somebody reads it in their own units.

    `text` names its quantities in braces; the ending of a name is its unit: `{gap_mm}`,
    `{wall_sheet}` (a thickness or radius, too fine for sixteenths of an inch),
    `{rated_l}`, `{mass_kg}`, `{weld_m}`, `{stress_mpa}`, `{head_kpa}`, `{share_pct}` (a
    fraction shown as per cent), `{bump_g}`, `{rise_k}`. Other names are shown as they are.
    """

    text: str
    values: dict[str, Value] = field(default_factory=dict)

    def plain(self, show: "Callable[[str, Value], str] | None" = None) -> str:
        """The sentence with its quantities in metric units, or as `show(name, value)` puts them."""
        shown = {name: (show or metric)(name, value) for name, value in self.values.items()}
        return self.text.format_map(shown)


def words(text: str, **values: Value) -> Words:
    """Shorthand for a sentence and its quantities.

    Parameters
    ----------
    text : str
        With `{name}` where a quantity stands.
    **values : Value
        Its quantities; each name's ending says the unit.

    Returns
    -------
    Words
        A sentence that can be shown in any units.
    """
    return Words(text=text, values=values)


METRIC_LENGTHS = {"mm": "{:z.1f} mm", "sheet": "{:z.1f} mm", "l": "{:z.2f} L", "wire": "{:.4g} mm²"}
"""Endings with rules of their own in other units; see `keel.formats.quantities`."""
KNOWN_ENDINGS = {*METRIC_LENGTHS, *QUANTITIES}


def metric(name: str, value: Value) -> str:
    """A quantity in metric units, by the ending of its name; a name of one word is a plain number.

    Parameters
    ----------
    name : str
        The quantity's name.
    value : Value
        A number in that unit, or a word.

    Returns
    -------
    str
        With its unit.

    Raises
    ------
    KeyError
        For an ending that is no known unit: a number must not lose its unit on the way to the reader.
    """
    if isinstance(value, str):
        return value
    _, is_measured, unit = name.rpartition("_")
    if not is_measured:
        return f"{value:g}"
    if unit in METRIC_LENGTHS:
        return METRIC_LENGTHS[unit].format(round(value, 6) + 0.0).replace(".0 mm", " mm")
    return shown_text(unit, value, "mm_l")


def in_words(names: Sequence[str]) -> str:
    """Names as people list them: a, b and c.

    Parameters
    ----------
    names : sequence of str
        Any number of them.

    Returns
    -------
    str
        One phrase.
    """
    return " and ".join([", ".join(names[:-1]), names[-1]] if len(names) > 1 else names)
