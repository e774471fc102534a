"""What puts capacity, bends and metal right."""

from collections.abc import Iterator

from keel.analysis.tank import TankAnalysis
from keel.design.attitude import Attitude
from keel.design.shell import CylinderShell
from keel.findings.finding import Finding, Remedy
from keel.findings.fuels import fuels_of
from keel.findings.shell_edits import cross_axes, slid
from keel.reference.compatibility import OF_METAL
from keel.reference.metals import METALS, MetalName
from keel.solid.interior import filled
from keel.solid.solids import AnyShell
from keel.studies.demand.target import TARGET_L
from keel.studies.liquid.capacity import CAPACITY
from keel.studies.liquid.draining import drained
from keel.studies.result import words
from keel.studies.space.resize import ALONG, GROWN, SHRUNK, directions, resized, size_along, size_for

METALS_OFFERED: tuple[MetalName, ...] = ("stainless 304L", "5052-H32")


def other_metal(tank: TankAnalysis, _finding: Finding) -> Iterator[Remedy]:
    """A metal that bears all the fuels."""
    for metal in METALS_OFFERED:
        if metal != tank.shell.metal and not any((METALS[metal].family, fuel) in OF_METAL for fuel in fuels_of(tank)):
            yield Remedy(label=words("Make it of {metal}", metal=metal), patch={"shell": {"metal": metal}})


def reach_target(tank: TankAnalysis, _finding: Finding) -> Iterator[Remedy]:
    """Grow or shrink one dimension to the brief's target; which one is the user's choice."""
    target = tank[TARGET_L]
    if target is None:
        return
    for direction in directions(tank.shell):
        size = size_for(tank.shell, direction, target, lambda shell: _rated_l(tank, shell))
        if size is None:
            continue
        size = tank.marked(size)
        more = size - size_along(tank.shell, direction)
        how = (GROWN if more > 0 else SHRUNK)[direction]
        patch = resized(tank.shell, direction, size)
        for axis in [ALONG[direction]] if direction in ALONG else cross_axes(tank):
            patch |= slid(tank, axis, more)
        yield Remedy(
            label=words("{by_mm} {how}: {size_mm}", by_mm=abs(more), how=how, size_mm=size), patch={"shell": patch}
        )


def _rated_l(tank: TankAnalysis, shell: AnyShell) -> float:
    """Rated capacity of another shell in the same design [L]: what its vents trap depends on its size."""
    solids = filled(tank.design, shell)
    air = 0.0
    if tank[CAPACITY].trapped_l > 0:
        air = sum(cell.trapped_l or 0.0 for cell in drained(solids, tank.design.ports, Attitude()))
    return solids.brimful_l * (1 - tank[CAPACITY].ullage_fraction) - air


def larger_radius(tank: TankAnalysis, _finding: Finding) -> Iterator[Remedy]:
    """The least radius the metal bears, and the one that is sure."""
    metal, thickness = METALS[tank.shell.metal], tank.shell.thickness_mm
    if isinstance(tank.shell, CylinderShell):
        return
    for radius in sorted({metal.bend_radius_least * thickness, metal.bend_radius_sure * thickness}):
        yield Remedy(
            label=words("Bend to {radius_sheet}", radius_sheet=radius), patch={"shell": {"bend_radius_mm": radius}}
        )
