"""The tally: the few figures that are always in sight."""

from dataclasses import dataclass

from keel.analysis.parts import FUEL, INSIDE, SOLIDS
from keel.analysis.study import study
from keel.design.inside import Inside
from keel.reference.fuels import FUELS, FuelName
from keel.reference.metals import METALS
from keel.reference.units import MM3_PER_M3
from keel.solid.solids import Solids
from keel.studies.liquid.capacity import CAPACITY, Capacity
from keel.studies.sheet.model import Sheet
from keel.studies.sheet.unfold import SHEET


@dataclass(frozen=True, slots=True)
class Figures:
    """Litres, kilograms and weld metres of a design."""

    brimful_l: float
    rated_l: float
    usable_l: float | None
    stranded_l: float | None
    empty_kg: float | None
    full_kg: float | None
    weld_m: float


def figures(fuel: FuelName, held: Capacity, made: Sheet, solids: Solids, fillings: Inside) -> Figures:
    """Gather the tally from the capacity and sheet studies.

    Returns
    -------
    Figures
        Empty mass is the sheet metal of the flat parts and of the features, flanges included, with foam and
        bladder; full mass adds the rated capacity of fuel. Both are empty where the parts can't be made. Weld is
        the shell's seams and what the features add.
    """
    fuel_kg = held.rated_l * FUELS[fuel].density_kg_per_l
    density = METALS[solids.shell.metal].density_kg_per_m3 / MM3_PER_M3
    unfolded = {part.feature for part in made.parts}
    features_kg = sum(cost.metal_mm3 for cost in solids.costs if cost.id not in unfolded) * density
    features_kg += sum(part.mass_kg for part in made.parts if part.feature)
    fillings_kg = sum(filling.kg for filling in (fillings.foam, fillings.bladder) if filling)
    empty_kg = None if made.mass_kg is None else made.mass_kg + features_kg + fillings_kg
    return Figures(
        brimful_l=held.brimful_l,
        rated_l=held.rated_l,
        usable_l=held.usable_l,
        stranded_l=held.stranded_l,
        empty_kg=empty_kg,
        full_kg=None if empty_kg is None else empty_kg + fuel_kg,
        weld_m=(made.weld_mm + sum(cost.weld_mm for cost in solids.costs)) / 1000,
    )


FIGURES = study(figures, FUEL, CAPACITY, SHEET, SOLIDS, INSIDE)
