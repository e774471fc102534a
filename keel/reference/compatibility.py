"""What fuels do to metals, seals, hoses and linings.

References
----------
Resistance tables of rubber, hose and metal suppliers as generally published, taken on the careful side; where they
differ, the worse. A maker's own sheet for the very compound counts before this.
"""

from dataclasses import dataclass
from typing import Literal

from keel.reference.fuels import FuelName
from keel.reference.metals import MetalFamily

Verdict = Literal["no", "care"]
SealName = Literal["nitrile", "fluoroelastomer", "EPDM", "cork", "PTFE"]
HoseName = Literal["nitrile hose", "fluoropolymer-lined hose", "PTFE hose", "EPDM hose", "silicone hose"]
LiningName = Literal["epoxy", "novolac epoxy", "phenolic", "polysulfide sealant"]


@dataclass(frozen=True)
class Against:
    """A material that a fuel attacks, how badly, and what happens."""

    verdict: Verdict
    why: str


SWELLS = Against("no", "it swells, softens and lets go")
LEACHES = Against("care", "it hardens and shrinks: use a grade made for this fuel and renew it by a date")

OF_METAL: dict[tuple[MetalFamily, FuelName], Against] = {
    ("aluminium", "methanol"): Against(
        "care", "it eats bare aluminium once it has drawn water: drain and flush after every run, or use stainless"
    ),
    ("steel", "methanol"): Against("care", "it draws water and bare steel rusts: line it, or use stainless"),
    ("steel", "E85"): Against("care", "it draws water and bare steel rusts: line it, or use stainless"),
}

_OILS: tuple[FuelName, ...] = ("petrol E10", "race petrol", "E85", "diesel", "kerosene", "avgas 100")

OF_RUBBER: dict[tuple[str, FuelName], Against] = {
    **{("EPDM", fuel): SWELLS for fuel in _OILS},
    **{("silicone", fuel): SWELLS for fuel in (*_OILS, "methanol")},
    ("nitrile", "methanol"): SWELLS,
    ("nitrile", "E85"): LEACHES,
    ("fluoroelastomer", "methanol"): Against("no", "plain grades swell; only those made for methanol hold"),
    ("cork", "methanol"): SWELLS,
    ("cork", "E85"): LEACHES,
}
"""By rubber; whatever isn't in it is bearable. PTFE bears them all."""

OF_LINING: dict[tuple[LiningName, FuelName], Against] = {
    ("epoxy", "E85"): Against("no", "alcohol softens it and it comes off in sheets that block the pickup"),
    ("epoxy", "methanol"): Against("no", "alcohol softens it and it comes off in sheets that block the pickup"),
    ("novolac epoxy", "methanol"): Against("care", "only products whose label says methanol"),
    ("phenolic", "methanol"): Against("care", "only products whose label says methanol"),
    ("polysulfide sealant", "methanol"): Against("no", "it softens and lets go of the metal"),
    ("polysulfide sealant", "E85"): Against("care", "only products whose label says ethanol"),
}

OF_ELEMENT: dict[tuple[str, FuelName], Against] = {
    **{
        ("paper", fuel): Against("no", "alcohol swells paper and its resin until it tears")
        for fuel in ("E85", "methanol")
    },
    **{("felt", fuel): LEACHES for fuel in ("E85", "methanol")},
    ("nylon mesh", "methanol"): Against("no", "it softens, stretches and lets dirt by"),
    ("nylon mesh", "E85"): LEACHES,
    ("brass mesh", "methanol"): Against("care", "it tarnishes and sheds: stainless mesh stays whole"),
}
"""By a filter's element; whatever isn't in it is bearable."""

HOSES: dict[str, str] = {
    "nitrile hose": "nitrile",
    "fluoropolymer-lined hose": "fluoropolymer",
    "PTFE hose": "PTFE",
    "EPDM hose": "EPDM",
    "silicone hose": "silicone",
}
"""What the fuel meets inside a hose."""
