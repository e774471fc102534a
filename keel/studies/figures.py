"""The tally: the few figures that are always in sight."""

from dataclasses import dataclass

from keel.design.brief import Brief
from keel.reference.fuels import FUELS
from keel.studies.capacity import Capacity
from keel.studies.sheet.wrapper import Sheet


@dataclass(frozen=True, slots=True)
class Figures:
    """Litres, kilograms and weld metres of a design."""

    brimful_l: float
    rated_l: float
    empty_kg: float | None
    full_kg: float | None
    weld_m: float


def figures(brief: Brief, held: Capacity, made: Sheet) -> Figures:
    """Gather the tally from the capacity and sheet studies.

    Returns
    -------
    Figures
        Empty mass is the sheet metal of the parts; full mass adds the rated capacity of fuel.
        Both are empty where the parts can't be made.
    """
    fuel_kg = held.rated_l * FUELS[brief.fuel].density_kg_per_l
    return Figures(
        brimful_l=held.brimful_l,
        rated_l=held.rated_l,
        empty_kg=made.mass_kg,
        full_kg=made.mass_kg + fuel_kg if made.mass_kg is not None else None,
        weld_m=made.weld_mm / 1000,
    )
