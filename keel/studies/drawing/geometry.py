"""What the drawing shows of the shell: bodies, views, cuts, features, ports."""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

import numpy as np

from keel.analysis.parts import ATTITUDE, CUTS, ENVELOPE, LIP, PORTS, SHELL, SOLIDS
from keel.analysis.study import study
from keel.design.attitude import Attitude
from keel.design.ports import Port
from keel.reference.metals import METALS
from keel.reference.units import MM3_PER_M3
from keel.solid.box import Cuboid
from keel.solid.envelope import Envelope
from keel.solid.solids import AnyShell, Solids
from keel.solid.standing import lid_height
from keel.studies.drawing.views import LOOKING, Cut, Ring, View, ViewName, cut, silhouette, views
from keel.studies.liquid.draining import Drained, place_of
from keel.studies.liquid.fill_level import DRAINED, FILL, Fill
from keel.studies.result import Point
from keel.studies.sheet.model import Sheet
from keel.studies.sheet.unfold import SHEET

SHOWN_L = 0.05
"""A pool or a pocket smaller than this isn't drawn [L]."""


@dataclass(frozen=True, slots=True)
class Block:
    """An axis-aligned box for the drawing [mm]."""

    low: Point
    high: Point


@dataclass(frozen=True, slots=True)
class FeatureShape:
    """One feature: where it is, and what it costs."""

    id: str
    name: str
    kind: str
    block: Block
    litres: float
    metal_kg: float
    weld_m: float
    face: list[Ring]
    """Of a plate: what is left of it with its openings, along it and up [mm, vehicle axes]."""


@dataclass(frozen=True, slots=True)
class Surface:
    """A triangle mesh for the solid view: coordinates in threes [mm], corners in threes."""

    points: list[float]
    triangles: list[int]


@dataclass(frozen=True, slots=True)
class PortPlace:
    """Where a port opens, in vehicle axes, how high the lid is over it, and what stands out there by view [mm]."""

    id: str
    place: Point
    lid_mm: float
    standing: dict[ViewName, list[Ring]]


@dataclass(frozen=True, slots=True)
class Geometry:
    """What the drawing shows of the shell [mm]."""

    kind: Literal["box", "profile", "cylinder"]
    body: Block
    inner: Block
    overall: Block
    axis: Literal["x", "y", "z"]
    thickness_mm: float
    lip_mm: float
    views: list[View]
    surface: Surface


def geometry(shell: AnyShell, solids: Solids, envelope: Envelope, lip_mm: float, seen: list[View]) -> Geometry:
    """The shell's bodies and views.

    Parameters
    ----------
    shell : AnyShell
        The shell.
    solids : Solids
        The shell worked out.
    envelope : Envelope
        All that has to fit into the bay.
    lip_mm : float
        How far the wrapper stands out beyond each end plate.
    seen : list of View
        Its views.

    Returns
    -------
    Geometry
        What the interface draws.
    """
    axes: tuple[Literal["x", "y", "z"], ...] = ("x", "y", "z")
    mesh = envelope.mesh
    return Geometry(
        kind=shell.kind,
        body=_block(solids.body),
        inner=_block(solids.inner_body),
        overall=_block(envelope.bounds),
        axis=axes[solids.section.axis],
        thickness_mm=shell.thickness_mm,
        lip_mm=lip_mm,
        views=seen,
        surface=Surface(points=mesh.points.round(2).ravel().tolist(), triangles=mesh.triangles.ravel().tolist()),
    )


def cuts_shown(
    solids: Solids, at: tuple[float | None, float | None], attitude: Attitude, fill: Fill, held: list[Drained]
) -> list[Cut]:
    """The end view's cut and the elevation's, with the fuel in them; in the middle where no place is named."""
    middle = [(low + high) / 2 for low, high in zip(solids.body.low, solids.body.high, strict=True)]
    levels = np.array([cell.level_mm for cell in fill.cells])
    left = [pool for cell in held for pool in (*cell.pools, *cell.pockets) if pool.litres >= SHOWN_L]
    axes: tuple[Literal["x", "y"], ...] = ("x", "y")
    return [
        cut(solids, axis, middle[i] if at[i] is None else float(at[i] or 0.0), levels, attitude, left)
        for i, axis in enumerate(axes)
    ]


def feature_shapes(solids: Solids, shell: AnyShell, made: Sheet) -> list[FeatureShape]:
    """Every feature: where it is, and what it costs."""
    density = METALS[shell.metal].density_kg_per_m3 / MM3_PER_M3
    folded = [part for part in made.parts if part.feature]
    kg = {part.feature: sum(p.mass_kg for p in folded if p.feature == part.feature) for part in folded}
    return [
        FeatureShape(
            id=cost.id,
            name=cost.name,
            kind=cost.kind,
            block=_block(cost.box),
            litres=cost.litres,
            metal_kg=kg.get(cost.id, cost.metal_mm3 * density),
            weld_m=cost.weld_mm / 1000,
            face=_face(solids, cost.id),
        )
        for cost in solids.costs
    ]


def _face(solids: Solids, feature: str) -> list[Ring]:
    plate = solids.plates.get(feature)
    if plate is None:
        return []
    return [[(float(u), float(v)) for u, v in ring.round(2)] for ring in plate.left.to_polygons()]


def port_places(solids: Solids, ports: Sequence[Port], envelope: Envelope) -> list[PortPlace]:
    """Where every port opens and what stands out there."""
    found = []
    for port in ports:
        x, y, z = (float(v) for v in place_of(solids, port))
        lid = lid_height(solids, x, y, solids.datum[2])
        parts = [part.solid for part in envelope.at_ports if part.port == port.id]
        outlines = {name: [ring for part in parts for ring in silhouette(part, name)] for name in LOOKING}
        found.append(PortPlace(id=port.id, place=Point(x=x, y=y, z=z), lid_mm=lid, standing=outlines))
    return found


def _block(box: Cuboid) -> Block:
    low, high = box.low, box.high
    return Block(low=Point(x=low[0], y=low[1], z=low[2]), high=Point(x=high[0], y=high[1], z=high[2]))


VIEWS = study(views, SOLIDS).keeping(12)
GEOMETRY = study(geometry, SHELL, SOLIDS, ENVELOPE, LIP, VIEWS).keeping(12)
CUTS_SHOWN = study(cuts_shown, SOLIDS, CUTS, ATTITUDE, FILL, DRAINED).keeping(12)
FEATURES = study(feature_shapes, SOLIDS, SHELL, SHEET)
PORT_PLACES = study(port_places, SOLIDS, PORTS, ENVELOPE)
