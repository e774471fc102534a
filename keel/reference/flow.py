"""Figures for flow through openings and hoses.

References
----------
`DISCHARGE`: a sharp-edged round opening in a thin wall, C_d 0.60 to 0.62 once the jet's Reynolds number is above 10⁴
(I. E. Idelchik, Handbook of Hydraulic Resistance, section 4; ISO 5167-2 gives 0.60 to 0.61). Below 10³ it falls off and
the flow is less than calculated; a rounded edge passes up to 0.98, so that fuel through a radiused hole comes sooner.
Authors take 0.60 for large tanks and 0.62 for small ones: small ones are the case here.
Air at 20 °C and 101.3 kPa: 1.204 kg/m³, 15.1 mm²/s (US Standard Atmosphere 1976, and Sutherland's law).
"""

DISCHARGE = 0.62
"""Discharge coefficient of a sharp-edged opening."""
AIR_KG_PER_M3 = 1.2
AIR_MM2_PER_S = 15.0
"""Density and kinematic viscosity of air at 20 °C."""
