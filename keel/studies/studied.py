"""All studies of one design together: what findings and remedies are judged on."""

from dataclasses import dataclass
from functools import cached_property

from keel.design.document import Design
from keel.design.shell import BoxShell
from keel.design.workshop import Workshop
from keel.solid.box import BoxSolid, solid_of
from keel.studies.capacity import Capacity, capacity
from keel.studies.clearance import Gap, gaps
from keel.studies.figures import Figures, figures
from keel.studies.fit import Placement, fit_to_bay
from keel.studies.sheet.wrapper import Sheet, sheet
from keel.studies.strength import Panel, panels


@dataclass(frozen=True)
class Studied:
    """A design that has a shell, with every answer a finding may look at."""

    design: Design
    workshop: Workshop
    shell: BoxShell
    solid: BoxSolid
    capacity: Capacity
    sheet: Sheet
    figures: Figures
    panels: list[Panel]
    gaps: list[Gap]

    @cached_property
    def fit(self) -> Placement | None:
        """The largest box of this kind that clears the bay; found when first asked for."""
        return fit_to_bay(self.design, self.workshop)


def study(design: Design, workshop: Workshop) -> Studied | None:
    """Run the studies of a design; None while it has no shell."""
    shell, made = design.shell, sheet(design, workshop)
    if shell is None or made is None:
        return None
    solid = solid_of(shell, design.sheet.seam, design.sheet.flange_mm, workshop.rules)
    held = capacity(design.brief, shell, solid, workshop.rules)
    return Studied(
        design=design,
        workshop=workshop,
        shell=shell,
        solid=solid,
        capacity=held,
        sheet=made,
        figures=figures(design.brief, held, made),
        panels=panels(design.brief, shell, solid, workshop.rules),
        gaps=gaps(design.bay, solid.overall, workshop.rules) if design.bay else [],
    )
