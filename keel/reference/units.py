"""Exact unit factors.

References
----------
NIST SP 811 (2008), appendix B; the international yard and pound agreement of 1959.
"""

MM_PER_INCH = 25.4
LITRES_PER_US_GALLON = 3.785411784
LITRES_PER_IMPERIAL_GALLON = 4.54609
KILOGRAMS_PER_POUND = 0.45359237
STANDARD_GRAVITY = 9.80665
"""Standard gravity [m/s²]."""

MM2_PER_M2 = 1e6
MM3_PER_LITRE = 1e6
MM3_PER_M3 = 1e9
KELVIN_AT_0_C = 273.15
"""0 °C [K]; the Celsius scale by its definition."""
