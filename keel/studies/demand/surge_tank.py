"""A surge tank as a design of its own, made for a main tank."""

from math import pi
from typing import Literal

from keel.design.brief import Brief
from keel.design.document import Design
from keel.design.ports import Port, VentPath
from keel.design.shell import BoxShell, CylinderShell
from keel.design.workshop import Workshop
from keel.reference.metals import MetalName
from keel.reference.units import MM3_PER_LITRE
from keel.studies.demand.surge_methods import WALL_MM, cylinder_for, slender_box_for
from keel.studies.liquid.capacity import ullage_for

SurgeForm = Literal["cylinder", "box"]
SHORTEST_MM = 60.0
"""A box is no shorter than its ports need [mm]."""
STEP_MM = 5
"""Sizes across are rounded up to this [mm]."""


def surge_tank(design: Design, volume_l: float, workshop: Workshop, form: SurgeForm = "cylinder") -> Design:
    """A surge tank as a design of its own: upright, its pump inlet near the top, its outlet at the bottom.

    Parameters
    ----------
    design : Design
        The main tank: its fuel, metal and demand cases are taken over.
    volume_l : float
        What it has to hold between outlet and top, ullage not counted [L].
    workshop : Workshop
        For the ullage, and how tight its rolls go.
    form : str
        `cylinder`, its inlet along the wall so that the fuel swirls and sheds its air; or `box`, flat to mount and
        quick to fold, its inlet under the top at the end away from the outlet.

    Returns
    -------
    Design
        Sizes across rounded up to 5 mm; overflow and vent in the lid.
    """
    metal = design.shell.metal if design.shell else "5052-H32"
    shell = (
        _cylinder(volume_l, design, workshop, metal) if form == "cylinder" else _box(volume_l, design, workshop, metal)
    )
    cases = tuple(case.model_copy() for case in design.brief.cases)
    brief = Brief(
        fuel=design.brief.fuel,
        is_surge_tank=True,
        target_l=round(volume_l, 3),
        reason="Surge volume of the main tank",
        cases=cases,
    )
    ports = _round_ports(shell) if isinstance(shell, CylinderShell) else _box_ports(shell)
    return Design(brief=brief, shell=shell, ports=ports)


def _cylinder(volume_l: float, design: Design, workshop: Workshop, metal: MetalName) -> CylinderShell:
    plain = CylinderShell(axis="z", diameter_mm=100, run_mm=100, metal=metal, thickness_mm=WALL_MM)
    brimful = volume_l / (1 - ullage_for(design.brief.fuel, plain, workshop.rules))
    rolled = 2 * workshop.rolls.least_radius_mm
    across = _stepped(max(cylinder_for(brimful)[0], rolled))
    tall = brimful * MM3_PER_LITRE / (pi / 4 * across**2)
    run = round(tall + 2 * WALL_MM + 0.5)
    return plain.model_copy(update={"diameter_mm": across + 2 * WALL_MM, "run_mm": run})


def _box(volume_l: float, design: Design, workshop: Workshop, metal: MetalName) -> BoxShell:
    plain = BoxShell(length_mm=100, width_mm=100, height_mm=100, metal=metal, thickness_mm=WALL_MM)
    brimful = volume_l / (1 - ullage_for(design.brief.fuel, plain, workshop.rules))
    across = _stepped(slender_box_for(brimful)[0])
    # The brake closes no smaller wrapper: then it is wider and as high, and shorter for the same volume.
    closed = workshop.brake.smallest_closed_box_mm or 0.0
    wide = max(across, closed)
    # What the bends' rounds take from the section is made up for in height.
    lost = (4 - pi) * plain.bend_radius_mm**2
    tall = max(brimful * MM3_PER_LITRE / across**2 + lost / across, closed)
    long = across if wide == across else max(brimful * MM3_PER_LITRE / (wide * tall - lost), SHORTEST_MM)
    sizes = {"length_mm": long, "width_mm": wide, "height_mm": tall}
    return plain.model_copy(update={name: float(round(mm + 2 * WALL_MM + 0.5)) for name, mm in sizes.items()})


def _stepped(mm: float) -> float:
    return STEP_MM * -(-mm // STEP_MM)


def _round_ports(shell: CylinderShell) -> tuple[Port, ...]:
    outer, run = shell.diameter_mm, shell.run_mm
    middle = outer / 2
    return (
        Port(id="outlet", name="outlet to engine", role="pickup", face="floor", x_mm=middle, y_mm=middle),
        Port(
            id="inlet",
            name="swirl inlet from lift pump",
            role="return",
            face="left",
            x_mm=outer * 0.8,
            y_mm=middle,
            z_mm=run * 0.85,
            hose_deg=90.0,
        ),
        _engine_return("left", outer * 0.2, middle, run * 0.7),
        _overflow(middle, middle),
    )


def _box_ports(shell: BoxShell) -> tuple[Port, ...]:
    length, width, height = shell.length_mm, shell.width_mm, shell.height_mm
    return (
        Port(id="outlet", name="outlet to engine", role="pickup", face="floor", x_mm=length * 0.8, y_mm=width / 2),
        Port(
            id="inlet",
            name="inlet from lift pump",
            role="return",
            face="rear",
            x_mm=length * 0.2,
            y_mm=width * 0.3,
            z_mm=height * 0.85,
        ),
        _engine_return("rear", length * 0.2, width * 0.7, height * 0.7),
        _overflow(length / 2, width / 2),
    )


def _engine_return(face: Literal["left", "rear"], x: float, y: float, z: float) -> Port:
    return Port(id="return", name="return from engine", role="return", face=face, x_mm=x, y_mm=y, z_mm=z)


def _overflow(x: float, y: float) -> Port:
    return Port(
        id="overflow",
        name="overflow to main tank",
        role="overflow",
        x_mm=x,
        y_mm=y,
        stands_mm=30,
        across_mm=30,
        vent=VentPath(bore_mm=6),
    )
