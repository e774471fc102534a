"""Hoses by dash size: sixteenths of an inch of the tube that they go with; the bore of the hose itself is smaller.

References
----------
SAE J517, types 100R5 and 100R14, which have the smallest bores of their dash size; others (100R1) are up to a quarter
wider. The smaller is taken: a vent or filler that is calculated too narrow errs to the safe side. Fittings are
narrower still in places: measure what is in the way.
"""

from keel.reference.units import MM_PER_INCH

DASH_BORE_MM: dict[int, float] = {
    dash: round(inches * MM_PER_INCH, 1)
    for dash, inches in {
        4: 3 / 16,
        5: 1 / 4,
        6: 5 / 16,
        8: 13 / 32,
        10: 1 / 2,
        12: 5 / 8,
        16: 7 / 8,
        20: 9 / 8,
        24: 11 / 8,
        32: 29 / 16,
    }.items()
}
"""Bore by dash size [mm]."""
