"""All studies of one design together: what findings and remedies are judged on."""

from dataclasses import dataclass, field, replace
from functools import cached_property

from keel.design.document import Design
from keel.design.ports import Port, VentPath
from keel.design.shell import BoxShell, CylinderShell
from keel.design.workshop import Workshop
from keel.reference.fuels import FUELS
from keel.reference.metals import METALS
from keel.reference.units import MM3_PER_M3
from keel.solid.box import BoxSolid, solid_of
from keel.solid.build import AnyShell, Solids, build
from keel.solid.envelope import Envelope, envelope_of
from keel.solid.interior import solids_of
from keel.solid.neighbours import Scans
from keel.studies.cost.figures import Figures, figures
from keel.studies.demand.demand import Demand, Target, demands, target
from keel.studies.gauge.gauge import GaugeTruth, gauge_truth
from keel.studies.inside.assembly import Assembly, assembly
from keel.studies.inside.bracing import Braced, bracing
from keel.studies.inside.compartment_checks import Insides, insides
from keel.studies.liquid.attitude import Attitude
from keel.studies.liquid.capacity import Capacity, capacity
from keel.studies.liquid.draining import Drained, drained, inside, place_of
from keel.studies.ports.filling import FillRun, fill_run
from keel.studies.ports.reach import Crowd, Hung, Landing, Reach, crowds, hung, landings, reaches
from keel.studies.ports.vent_paths import level_rows, neck_of, vents_by_cell
from keel.studies.sheet.internals import internal_parts
from keel.studies.sheet.model import Sheet
from keel.studies.sheet.parts import FlatPart
from keel.studies.sheet.unfold import sheet
from keel.studies.space.clearance import Gap, gaps
from keel.studies.space.fit import fit_to_bay
from keel.studies.space.fouling import Fouls, fouling
from keel.studies.space.largest_fit import Placement
from keel.studies.space.opening import GoesIn, goes_in
from keel.studies.strength.panels.panel import Panel
from keel.studies.strength.panels.rows import panels


@dataclass(frozen=True)
class Studied:
    """A design that has a shell, with every answer a finding may look at."""

    design: Design
    workshop: Workshop
    shell: AnyShell
    solids: Solids
    box: BoxSolid | None
    level: list[Drained]
    capacity: Capacity
    sheet: Sheet
    figures: Figures
    panels: list[Panel]
    scans: Scans = field(default_factory=dict)

    @property
    def density_kg_per_mm3(self) -> float:
        """Density of the shell's metal [kg/mm³]."""
        return METALS[self.shell.metal].density_kg_per_m3 / MM3_PER_M3

    @cached_property
    def envelope(self) -> Envelope:
        """The shell with its lips and what stands on it."""
        return envelope_of(self.solids, self.box.lip if self.box else 0.0, self.design.ports)

    @cached_property
    def gaps(self) -> list[Gap]:
        """Nearest gap to every neighbour; none without a bay."""
        if self.design.bay is None:
            return []
        return gaps(self.design.bay, self.envelope, self.workshop.rules, self.scans)

    @cached_property
    def goes_in(self) -> GoesIn | None:
        """Whether it passes the bay's opening."""
        return goes_in(self.design.bay, self.envelope) if self.design.bay else None

    @cached_property
    def target(self) -> Target | None:
        """Rated capacity that the brief asks for."""
        return target(self.design.brief, self.workshop.rules)

    @cached_property
    def demands(self) -> list[Demand]:
        """Every demand case against the pumps."""
        return demands(self.design.brief, self.workshop.rules)

    @cached_property
    def most_drawn_l_per_h(self) -> float | None:
        """What the pumps draw at most [L/h]; None without a demand case."""
        return max((d.running_l_per_h or d.needed_l_per_h for d in self.demands), default=None)

    @cached_property
    def reaches(self) -> list[Reach]:
        """Every hanger against the depth at its place."""
        return reaches(self.solids, self.design.ports, self.workshop.rules)

    @cached_property
    def hung(self) -> list[Hung]:
        """What hangs inside: through its hole, clear of everything."""
        return hung(self.solids, self.design.ports)

    @cached_property
    def landings(self) -> list[Landing]:
        """The sheet round every seat."""
        return landings(self.solids, self.design.ports, self.workshop.rules, self.design.sheet.seam)

    @cached_property
    def crowds(self) -> list[Crowd]:
        """Ports without room between them."""
        return crowds(self.solids, self.design.ports)

    @cached_property
    def gauge(self) -> GaugeTruth:
        """The needle against the litres."""
        return gauge_truth(self.design.gauge, self.solids, self.design.ports, self.capacity.ullage_fraction)

    @cached_property
    def insides(self) -> Insides:
        """What the baffles leave."""
        brush = self.workshop.rules.brush_mm
        return insides(self.solids, self.design.ports, brush, self.most_drawn_l_per_h or 0.0)

    @cached_property
    def bracing(self) -> list[Braced]:
        """What each plate does for the panels."""
        return bracing(self.design.brief, self.solids, self.workshop.rules)

    @cached_property
    def assembly(self) -> Assembly:
        """How the plates go in and are welded."""
        return assembly(self.solids, self.workshop.rules.torch_reach_mm)

    @cached_property
    def vents_of(self) -> dict[str, list[Port]]:
        """The vents of each cell that has a filler."""
        return vents_by_cell(self.solids, self.design.ports)

    @cached_property
    def fill_runs(self) -> dict[str, FillRun]:
        """Filling of each cell that has a filler."""
        density = FUELS[self.design.brief.fuel].density_kg_per_l
        runs = {}
        for cell in self.capacity.cells:
            if cell.cell in self.vents_of:
                rows = level_rows(self.solids, cell.cell, cell.rated_l)
                neck = neck_of(self.solids, self.design.ports, cell.cell)
                vents = [port.vent or VentPath() for port in self.vents_of[cell.cell]]
                limit = self.workshop.rules.back_pressure_kpa
                runs[cell.cell] = fill_run(
                    self.design.filling, neck, vents, density, rows, limit, self.most_drawn_l_per_h
                )
        return runs

    def fouling(self, gap: Gap) -> Fouls:
        """What of the tank it is that comes too near somewhere."""
        assert self.design.bay is not None
        lip = self.box.lip if self.box else 0.0
        ports, rules = self.design.ports, self.workshop.rules
        return fouling(gap, self.design.bay, self.solids, lip, ports, rules, self.scans)

    @cached_property
    def outside_ports(self) -> set[str]:
        """Ids of ports that open into no cell."""
        places = {port.id: place_of(self.solids, port) for port in self.design.ports}
        return {name for name, place in places.items() if not any(inside(cell, place) for cell in self.solids.cells)}

    @cached_property
    def fit(self) -> Placement | None:
        """The largest shell of this kind that clears the bay; found when first asked for."""
        return fit_to_bay(self.design, self.workshop, self.envelope, self.scans)


def _without_holes(part: FlatPart, design: Design, shell: AnyShell) -> FlatPart:
    """A part of the shell with the ports named that it has to have holes for: none is carried over to the flats yet."""
    if part.feature is not None:
        return part
    is_end, ends = (
        part.name.startswith("end"),
        ENDS[shell.axis if isinstance(shell, CylinderShell) else shell.wrap_axis],
    )
    names = [port.name for port in design.ports if port.seat and (port.face in ends) == is_end]
    return replace(part, holes_not_drawn=names)


ENDS = {"x": ("rear", "front"), "y": ("right", "left"), "z": ("floor", "roof")}
"""Faces that the ends make, by the axis that a shell is drawn out along."""


def study(design: Design, workshop: Workshop, scans: Scans | None = None) -> Studied | None:
    """Run the studies of a design; None while it has no shell.

    Raises
    ------
    GeometryError
        When the shell's shapes don't work.
    """
    shell, made = design.shell, sheet(design, workshop)
    if shell is None or made is None:
        return None
    box = None
    if isinstance(shell, BoxShell):
        box = solid_of(shell, design.sheet.seam, design.sheet.flange_mm, workshop.rules)
    made = replace(made, parts=[*made.parts, *internal_parts(build(shell, design.sheet.seam), design, workshop)])
    made = replace(made, parts=[_without_holes(part, design, shell) for part in made.parts])
    solids = solids_of(design)
    level = drained(solids, design.ports, Attitude())
    held = capacity(design.brief, solids, box, workshop.rules, level, design.inside)
    return Studied(
        design=design,
        workshop=workshop,
        shell=shell,
        solids=solids,
        box=box,
        level=level,
        capacity=held,
        sheet=made,
        figures=figures(design.brief, held, made, solids, design.inside),
        panels=panels(design.brief, solids, workshop.rules),
        scans=scans or {},
    )
