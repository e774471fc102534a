"""Sheet metals: strength, mass, growth with heat, and what they bear in a bend.

`welded_yield_mpa` is the yield beside a weld, which is what a welded tank has to live with. Bend radii are factors of
the thickness: below `least` the outside cracks, at `sure` it does not.

References
----------
Strength, stiffness, density, growth: EN 10130, EN 10088-2 and ASTM B209 with the usual handbooks, 20 °C. Beside a weld:
EN 1999-1-1 table 3.2 and the Aluminum Design Manual, which differ by up to 10 %: the lower. Bend radii: mill tables for
90° cold, sheet up to 4 mm. `weldable_from_mm`: workshop practice for tight seams by hand.
"""

from dataclasses import dataclass
from typing import Literal, get_args

MetalName = Literal["mild steel", "stainless 304L", "3003-H14", "5052-H32", "5083-H111", "6061-T6"]
MetalFamily = Literal["steel", "stainless", "aluminium"]


@dataclass(frozen=True)
class Metal:
    """One sheet metal's properties."""

    family: MetalFamily
    youngs_modulus_gpa: float
    yield_mpa: float
    welded_yield_mpa: float
    density_kg_per_m3: float
    expansion_per_k: float
    bend_radius_least: float
    bend_radius_sure: float
    weldable_from_mm: float


METALS: dict[MetalName, Metal] = {
    "mild steel": Metal("steel", 200, 210, 210, 7850, 12.0e-6, 1.0, 1.0, 0.9),
    "stainless 304L": Metal("stainless", 193, 210, 210, 7930, 17.2e-6, 1.0, 1.0, 0.9),
    "3003-H14": Metal("aluminium", 69, 145, 40, 2730, 23.2e-6, 1.0, 1.0, 1.6),
    "5052-H32": Metal("aluminium", 70, 193, 90, 2680, 23.8e-6, 1.0, 2.0, 1.6),
    "5083-H111": Metal("aluminium", 71, 145, 125, 2660, 24.2e-6, 1.0, 2.0, 2.0),
    "6061-T6": Metal("aluminium", 69, 276, 110, 2700, 23.6e-6, 3.0, 3.0, 1.6),
}

assert set(METALS) == set(get_args(MetalName))
