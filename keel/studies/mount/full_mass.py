"""What a full tank weighs and where its weight acts."""

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from keel.analysis.parts import FUEL, MOUNT, SOLIDS
from keel.analysis.study import study
from keel.design.mount import Mount
from keel.reference.fuels import FUELS, FuelName
from keel.reference.units import MM3_PER_LITRE, STANDARD_GRAVITY
from keel.solid.polyhedron import Array, Mesh
from keel.solid.shapes import mesh_of
from keel.solid.solids import Solids
from keel.studies.cost.figures import FIGURES, Figures
from keel.studies.liquid.capacity import CAPACITY, Capacity
from keel.studies.result import Point

G0 = STANDARD_GRAVITY
"""Standard gravity [m/s²]."""


@dataclass(frozen=True, slots=True)
class FullMass:
    """A tank filled to its rated capacity, level and at rest.

    Attributes
    ----------
    kg, empty_kg, fuel_kg : float
        All of it; its metal, what fills it and what is fitted; the fuel.
    at : Point
        Centre of mass [mm].
    """

    kg: float
    empty_kg: float
    fuel_kg: float
    at: Point


def full_mass(fuel: FuelName, held: Capacity, figures: Figures, solids: Solids, mount: Mount) -> FullMass | None:
    """Mass and centre of mass of the tank filled to its rated capacity.

    Parameters
    ----------
    fuel : FuelName
        Its density.
    held : Capacity
        The rated litres of each cell.
    figures : Figures
        The empty mass; without it there is no answer.
    solids : Solids
        The shell worked out.
    mount : Mount
        What it weighs beyond metal and fuel.

    Returns
    -------
    FullMass or None
        The metal's centre is that of the shell with its plates; flanges, foam and fittings lie where it does.

    References
    ----------
    Centroid of a closed surface by the divergence theorem, tetrahedron by tetrahedron.
    """
    if figures.empty_kg is None:
        return None
    density = FUELS[fuel].density_kg_per_l
    empty_kg = figures.empty_kg + mount.extra_kg
    moment = empty_kg * metal_middle(solids)
    fuel_kg = 0.0
    for cell, capacity in zip(solids.cells, held.cells, strict=True):
        line = cell.mesh.along(np.array([0.0, 0.0, 1.0]))
        kg = capacity.rated_l * density
        if kg > 0:
            moment = moment + kg * line.centroid(line.level(capacity.rated_l * MM3_PER_LITRE))
        fuel_kg += kg
    kg = empty_kg + fuel_kg
    return FullMass(kg, empty_kg, fuel_kg, Point.of(moment / kg))


def metal_middle(solids: Solids) -> Array:
    """Centre of a shell's metal, plates and all, shape (3,) [mm]."""
    (whole, at), (room, within) = _middle([solids.outer_mesh]), _middle([mesh_of(solids.inner)])
    return (whole * at - room * within) / (whole - room)


def _middle(meshes: Sequence[Mesh]) -> tuple[float, Array]:
    """Volume [mm³] and centroid, shape (3,) [mm], of closed surfaces."""
    corners = np.concatenate([mesh.corners for mesh in meshes])
    sixth = np.einsum("ij,ij->i", corners[:, 0], np.cross(corners[:, 1], corners[:, 2])) / 6
    volume = float(sixth.sum())
    return volume, np.asarray((sixth @ corners.sum(axis=1)) / 4 / volume)


FULL_MASS = study(full_mass, FUEL, CAPACITY, FIGURES, SOLIDS, MOUNT)
