"""How fuel lines are joined: standards, their sizes, what seals them, and which sizes are mistaken for each other.

References
----------
Threads: ISO 725 (UN), ANSI B1.20.1 (NPT), ISO 228-1 (G), ISO 261 (metric). Flare and boss sizes: ISO 8434-2, ISO 11926.
Bores of dash sizes are those of `keel.reference.hoses`; what is measured or on a card comes first. Spigots of quick
connectors as generally published for fuel lines of road vehicles.
"""

from dataclasses import dataclass
from typing import Literal, get_args

from keel.reference.hoses import DASH_BORE_MM

Standard = Literal[
    "37° flare",
    "O-ring boss",
    "NPT taper",
    "G parallel",
    "metric O-ring",
    "hose tail",
    "beaded tube",
    "plain tube",
    "quick connector",
]
Hand = Literal["male", "female"]
SealKind = Literal["metal cone", "O-ring", "bonded washer", "taper thread", "hose and clamp", "inside O-rings"]


@dataclass(frozen=True)
class Size:
    """One size of a standard.

    Attributes
    ----------
    diameter_mm : float
        Outside of the male thread, tail, tube or spigot.
    pitch_mm : float
        Of its thread; 0: smooth.
    bore_mm : float
        Usual bore through it.
    thread : str
        How the thread is written, where the size's name doesn't say it.
    """

    diameter_mm: float
    pitch_mm: float
    bore_mm: float
    thread: str = ""


INCH = 25.4
DASH_BORES_MM: dict[str, float] = {f"-{dash}": DASH_BORE_MM[dash] for dash in (4, 5, 6, 8, 10, 12, 16)}
"""The narrowest bore that is usual [mm]: the ends of a hose are no wider than the hose."""
_UN: dict[str, tuple[float, int, str]] = {
    "-4": (7 / 16, 20, "7/16-20"),
    "-5": (1 / 2, 20, "1/2-20"),
    "-6": (9 / 16, 18, "9/16-18"),
    "-8": (3 / 4, 16, "3/4-16"),
    "-10": (7 / 8, 14, "7/8-14"),
    "-12": (17 / 16, 12, "1 1/16-12"),
    "-16": (21 / 16, 12, "1 5/16-12"),
}
_DASH = {name: Size(d * INCH, INCH / tpi, DASH_BORES_MM[name], said) for name, (d, tpi, said) in _UN.items()}
TAKES_MM: dict[str, float] = {"-4": 26.0, "-5": 28.0, "-6": 31.0, "-8": 36.0, "-10": 41.0, "-12": 46.0, "-16": 54.0}
"""From the seat of a straight hose end to where its hose ends (house rule: measure one of your own) [mm]."""
TAKES_OTHERS_MM = 32.0
"""Of ends of other standards; a clamped hose goes up to the tail's root and loses nothing."""
_PIPE_BORES_MM = {"1/8": 5.5, "1/4": 8.0, "3/8": 11.0, "1/2": 14.5, "3/4": 19.0}
_NPT = {"1/8": (10.29, 27.0), "1/4": (13.72, 18.0), "3/8": (17.15, 18.0), "1/2": (21.34, 14.0), "3/4": (26.67, 14.0)}
_G = {"1/8": (9.728, 28.0), "1/4": (13.157, 19.0), "3/8": (16.662, 19.0), "1/2": (20.955, 14.0), "3/4": (26.441, 14.0)}
_METRIC = {
    "M10 × 1": (10.0, 1.0, 5.0),
    "M12 × 1.5": (12.0, 1.5, 6.5),
    "M14 × 1.5": (14.0, 1.5, 8.0),
    "M16 × 1.5": (16.0, 1.5, 9.5),
    "M18 × 1.5": (18.0, 1.5, 11.5),
    "M22 × 1.5": (22.0, 1.5, 14.5),
    "M26 × 1.5": (26.0, 1.5, 18.0),
}
TAIL_WALL_MM, TUBE_WALL_MM = 1.2, 0.9
_OUTSIDES_MM: dict[str, float] = {
    "6 mm": 6.0,
    "1/4 in": 6.35,
    "5/16 in": 7.94,
    "8 mm": 8.0,
    "3/8 in": 9.53,
    "10 mm": 10.0,
    "12 mm": 12.0,
    "1/2 in": 12.7,
    "15 mm": 15.0,
    "5/8 in": 15.88,
    "18 mm": 18.0,
    "3/4 in": 19.05,
}
_SPIGOTS_MM = {"1/4 in": 6.30, "5/16 in": 7.89, "8 mm": 8.0, "3/8 in": 9.49, "10 mm": 10.0, "1/2 in": 11.80}


def _piped(table: dict[str, tuple[float, float]], thread: str) -> dict[str, Size]:
    return {
        name: Size(d, INCH / tpi, _PIPE_BORES_MM[name], thread.format(name=name)) for name, (d, tpi) in table.items()
    }


def _smooth(wall_mm: float) -> dict[str, Size]:
    return {name: Size(outside, 0.0, outside - 2 * wall_mm) for name, outside in _OUTSIDES_MM.items()}


SIZES: dict[Standard, dict[str, Size]] = {
    "37° flare": _DASH,
    "O-ring boss": _DASH,
    "NPT taper": _piped(_NPT, "{name} NPT"),
    "G parallel": _piped(_G, "G {name}"),
    "metric O-ring": {name: Size(d, pitch, bore) for name, (d, pitch, bore) in _METRIC.items()},
    "hose tail": _smooth(TAIL_WALL_MM),
    "beaded tube": _smooth(TUBE_WALL_MM),
    "plain tube": _smooth(TUBE_WALL_MM),
    "quick connector": {name: Size(d, 0.0, d - 2 * TUBE_WALL_MM) for name, d in _SPIGOTS_MM.items()},
}
SEALS: dict[Standard, SealKind] = {
    "37° flare": "metal cone",
    "O-ring boss": "O-ring",
    "NPT taper": "taper thread",
    "G parallel": "bonded washer",
    "metric O-ring": "O-ring",
    "hose tail": "hose and clamp",
    "beaded tube": "hose and clamp",
    "plain tube": "hose and clamp",
    "quick connector": "inside O-rings",
}
CLAMPED: tuple[Standard, ...] = ("hose tail", "beaded tube", "plain tube")
"""A hose is pushed over it and held by a clamp."""
RUBBER_SEALS: tuple[SealKind, ...] = ("O-ring", "bonded washer", "inside O-rings")
NEAR_THREAD_MM, NEAR_PITCH_MM, NEAR_SMOOTH_MM = 0.8, 0.35, 0.5
"""Sizes this near to each other start or push on, and then strip, leak or let go."""

assert set(SIZES) == set(get_args(Standard)) == set(SEALS)


def size_of(standard: Standard, size: str) -> Size:
    """A size of a standard.

    Parameters
    ----------
    standard : Standard
        Its name.
    size : str
        A size of it, as `SIZES` writes it.

    Returns
    -------
    Size
        Its thread or outside, and its usual bore.
    """
    return SIZES[standard][size]


def looks_like(one: Size, other: Size) -> bool:
    """Whether two sizes that are not the same are near enough to be mistaken for each other.

    Parameters
    ----------
    one, other : Size
        Of any standards.

    Returns
    -------
    bool
        True where one starts in, or pushes on, the other without sealing in it.
    """
    apart, pitches = abs(one.diameter_mm - other.diameter_mm), abs(one.pitch_mm - other.pitch_mm)
    if (one.pitch_mm == 0) != (other.pitch_mm == 0) or (apart < 1e-9 and pitches < 1e-9):
        return False
    return apart <= (NEAR_THREAD_MM if one.pitch_mm else NEAR_SMOOTH_MM) and pitches <= NEAR_PITCH_MM
