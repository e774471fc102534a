"""Bolts, nuts and washers: sizes and what they bear.

References
----------
Metric: stress areas ISO 898-1 table 4, coarse pitch ISO 261, holes ISO 273 medium, nuts ISO 4032, self-locking nuts
ISO 7040, washers ISO 7089 and, large, ISO 7093-1. Inch: stress areas ASME B1.1, coarse threads, holes ASME B18.2.8
normal, nuts ASME B18.2.2, washers ASME B18.21.1 type A narrow and fender washers as sold. Yields: ISO 898-1 table 3,
ISO 3506-1 table 2 (0.2 % proof), SAE J429.
"""

from dataclasses import dataclass
from typing import Literal, get_args

BoltSize = Literal["M4", "M5", "M6", "M8", "M10", "M12", "M16", "1/4 UNC", "5/16 UNC", "3/8 UNC", "1/2 UNC"]
BoltGrade = Literal["4.6", "8.8", "10.9", "12.9", "A2-70", "A4-80", "SAE 5", "SAE 8"]


@dataclass(frozen=True)
class Bolt:
    """One size of bolt with its nut and washers [mm, mm²]."""

    diameter_mm: float
    pitch_mm: float
    stress_area_mm2: float
    hole_mm: float
    across_flats_mm: float
    nut_mm: float
    locking_nut_mm: float
    washer_mm: float
    washer_thick_mm: float
    large_washer_mm: float
    head_mm: float


BOLTS: dict[BoltSize, Bolt] = {
    "M4": Bolt(4, 0.7, 8.78, 4.5, 7, 3.2, 5.0, 9, 0.8, 12, 2.8),
    "M5": Bolt(5, 0.8, 14.2, 5.5, 8, 4.7, 5.0, 10, 1.0, 15, 3.5),
    "M6": Bolt(6, 1.0, 20.1, 6.6, 10, 5.2, 6.0, 12, 1.6, 18, 4.0),
    "M8": Bolt(8, 1.25, 36.6, 9.0, 13, 6.8, 8.0, 16, 1.6, 24, 5.3),
    "M10": Bolt(10, 1.5, 58.0, 11.0, 16, 8.4, 10.0, 20, 2.0, 30, 6.4),
    "M12": Bolt(12, 1.75, 84.3, 13.5, 18, 10.8, 12.0, 24, 2.5, 37, 7.5),
    "M16": Bolt(16, 2.0, 157.0, 17.5, 24, 14.8, 16.0, 30, 3.0, 50, 10.0),
    "1/4 UNC": Bolt(6.35, 1.27, 20.5, 7.1, 11.1, 5.6, 7.9, 15.9, 1.6, 25.4, 4.1),
    "5/16 UNC": Bolt(7.94, 1.411, 33.8, 8.7, 12.7, 6.7, 8.7, 17.5, 1.6, 31.8, 5.4),
    "3/8 UNC": Bolt(9.53, 1.588, 50.0, 10.3, 14.3, 8.3, 11.5, 20.6, 1.6, 38.1, 6.2),
    "1/2 UNC": Bolt(12.7, 1.954, 91.5, 14.3, 19.1, 10.9, 14.7, 27.0, 2.4, 50.8, 8.3),
}

BOLT_YIELD_MPA: dict[BoltGrade, float] = {
    "4.6": 240,
    "8.8": 640,
    "10.9": 940,
    "12.9": 1100,
    "A2-70": 450,
    "A4-80": 600,
    "SAE 5": 634,
    "SAE 8": 896,
}

METRIC_LENGTHS_MM = (10, 12, 16, 20, 25, 30, 35, 40, 45, 50, 55, 60, 65, 70, 80, 90, 100, 120, 140, 160, 180, 200)
INCH_LENGTHS_MM = tuple(25.4 * eighths / 8 for eighths in (*range(4, 17), *range(18, 49, 2)))


def lengths_of(size: BoltSize) -> tuple[float, ...]:
    """The lengths a size is sold in.

    Parameters
    ----------
    size : str
        Metric or inch.

    Returns
    -------
    tuple of float
        Shortest first [mm].
    """
    return METRIC_LENGTHS_MM if size.startswith("M") else INCH_LENGTHS_MM


assert set(BOLTS) == set(get_args(BoltSize))
assert set(BOLT_YIELD_MPA) == set(get_args(BoltGrade))
