"""What every study's answer has in common."""

from collections.abc import Callable, Sequence
from dataclasses import dataclass, field

import numpy as np

from keel.solid.polyhedron import Array

Value = float | int | str


@dataclass(frozen=True, slots=True)
class Point:
    """A place in vehicle axes [mm]."""

    x: float
    y: float
    z: float


def flat(places: Array) -> list[float]:
    """Coordinates one after the other, to a hundredth of a millimetre."""
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
    """Shorthand for a sentence and its quantities."""
    return Words(text=text, values=values)


METRIC: dict[str, tuple[str, float]] = {
    "mm": ("{:z.1f} mm", 1),
    "sheet": ("{:z.1f} mm", 1),
    "l": ("{:z.2f} L", 1),
    "kg": ("{:z.2f} kg", 1),
    "m": ("{:z.2f} m", 1),
    "mpa": ("{:z.0f} MPa", 1),
    "kpa": ("{:z.1f} kPa", 1),
    "cm2": ("{:z.1f} cm²", 1),
    "pct": ("{:z.1f} %", 100),
    "g": ("{:g} g", 1),
    "k": ("{:g} K", 1),
    "deg": ("{:z.0f}°", 1),
    "lph": ("{:z.1f} L/h", 1),
    "kw": ("{:z.1f} kW", 1),
    "kgkwh": ("{:z.3f} kg/kWh", 1),
    "kgh": ("{:z.1f} kg/h", 1),
    "kgl": ("{:z.3f} kg/L", 1),
    "km": ("{:g} km", 1),
    "h": ("{:z.2f} h", 1),
    "s": ("{:z.1f} s", 1),
    "v": ("{:g} V", 1),
    "ohm": ("{:z.1f} Ω", 1),
}


PLAIN = ("{:g}", 1.0)


def metric(name: str, value: Value) -> str:
    """A quantity in metric units, by the ending of its name; a name of one word is a plain number.

    Raises
    ------
    KeyError
        For an ending that is no known unit: a number must not lose its unit on the way to the reader.
    """
    if isinstance(value, str):
        return value
    _, is_measured, unit = name.rpartition("_")
    shape, factor = METRIC[unit] if is_measured else PLAIN
    return shape.format(round(value * factor, 6) + 0.0).replace(".0 mm", " mm")


def in_words(names: Sequence[str]) -> str:
    """Names as people list them: a, b and c."""
    return " and ".join([", ".join(names[:-1]), names[-1]] if len(names) > 1 else names)
