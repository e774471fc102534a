"""What the plates inside do for the strength of the panels they are welded to."""

from collections.abc import Sequence
from dataclasses import dataclass

from keel.analysis.parts import FUEL, RULES, SOLIDS
from keel.analysis.study import study
from keel.design.features import Baffle, Feature, Partition
from keel.design.shell import CylinderShell
from keel.design.workshop import HouseRules
from keel.reference.fuels import FuelName
from keel.solid.solids import Solids
from keel.studies.strength.panels.panel import Panel
from keel.studies.strength.panels.rows import panels

FELT = 1.02
"""A plate that makes a panel stand less than this many times more braces nothing."""


@dataclass(frozen=True, slots=True)
class Braced:
    """What one plate does: the panel that gains most by it, and the pressures that stands without and with it."""

    id: str
    name: str
    panel: str
    without_kpa: float
    with_kpa: float
    stops_short: bool
    """It leaves a gap over it, so it isn't welded to the panels all the way."""
    helps: bool
    """A panel stands more with it."""


def bracing(fuel: FuelName, solids: Solids, rules: HouseRules) -> list[Braced]:
    """What each plate does for the panels, the others standing.

    Parameters
    ----------
    fuel, rules
        Fuel, and the share of the yield that is allowed.
    solids : Solids
        The shell worked out.

    Returns
    -------
    list of Braced
        One a plate, by the tables of `keel.studies.strength.plate_bending`; none in a cylinder, whose faces plates
        don't split.
    """
    if isinstance(solids.shell, CylinderShell):
        return []
    features = solids.shell.features
    plates = [feature for feature in features if isinstance(feature, Baffle | Partition)]

    def standing(kept: Sequence[Feature]) -> list[Panel]:
        return panels(fuel, solids, rules, kept)

    whole = {panel.name: panel for panel in standing(features)} if plates else {}
    found = []
    for plate in plates:
        pairs = [(panel, whole[panel.name]) for panel in standing([f for f in features if f is not plate])]
        before, after = max(pairs, key=lambda pair: pair[1].proof_kpa / pair[0].proof_kpa)
        short = isinstance(plate, Baffle) and plate.top_gap_mm > 0
        helps = after.proof_kpa >= FELT * before.proof_kpa
        found.append(Braced(plate.id, plate.name, before.name, before.proof_kpa, after.proof_kpa, short, helps))
    return found


BRACING = study(bracing, FUEL, SOLIDS, RULES)
