"""The one door: a design in, an evaluation out."""

from collections.abc import Callable
from dataclasses import dataclass
from typing import Annotated, Literal

import numpy as np
from pydantic import BaseModel, ConfigDict, Field

from keel.design.base import Coordinate, Part
from keel.design.document import Design
from keel.design.features import Baffle
from keel.design.workshop import Workshop
from keel.findings.finding import Finding, Remedy
from keel.solid.box import Cuboid
from keel.solid.build import Solids
from keel.solid.neighbours import Scans
from keel.solid.standing import lid_height
from keel.stations.judge import judge, judge_document
from keel.stations.pricing import Pricing
from keel.stations.states import StationState, station_states
from keel.studies.cost.figures import Figures
from keel.studies.demand.demand import Demand, Outgrown, Target, demands, outgrown, target
from keel.studies.demand.surge_methods import SurgeAnswer, surge_answer
from keel.studies.drawing.views import LOOKING, Cut, Ring, View, ViewName, cut, silhouette, views
from keel.studies.gauge.gauge import GaugeTruth
from keel.studies.inside.baffle_layout import next_plate
from keel.studies.inside.bracing import Braced
from keel.studies.inside.compartment_checks import Insides
from keel.studies.liquid.attitude import Attitude, felt
from keel.studies.liquid.capacity import Capacity
from keel.studies.liquid.draining import Drained, drained, place_of
from keel.studies.liquid.fill_level import Fill, fill_at
from keel.studies.liquid.strapping import CellStrapping, strapping_table
from keel.studies.ports.filling import FillRun
from keel.studies.ports.reach import Hung, Landing, Reach, Unreached, in_attitudes
from keel.studies.result import Point, words
from keel.studies.sheet.model import Sheet
from keel.studies.space.clearance import Gap
from keel.studies.space.fit import first_shell, fit_to_bay
from keel.studies.space.opening import GoesIn
from keel.studies.strength.panels.panel import Panel
from keel.studies.strength.panels.rows import safe_proof_kpa
from keel.studies.studied import Studied, study

SHOWN_L = 0.05
"""A pool or a pocket smaller than this isn't drawn [L]."""


class Showing(Part):
    """What of a design is to be shown: fill, attitude, cuts; none of it belongs to the design."""

    fill_fraction: Annotated[float, Field(ge=0, le=1)] | None = Field(
        default=None, description="Share of brimful; empty means the rated capacity"
    )
    attitude: Attitude = Attitude()
    cut_x_mm: Coordinate | None = Field(default=None, description="Where the end view is cut; empty means the middle")
    cut_y_mm: Coordinate | None = Field(default=None, description="Where the elevation is cut; empty means the middle")
    remedies: bool = Field(default=True, description="Whether remedies and the fit are tried; not during a drag")


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
    cuts: list[Cut]
    surface: Surface
    features: list[FeatureShape]
    ports: list[PortPlace]


class Evaluation(BaseModel):
    """Everything the core says about a design. Parts that need a shell are empty without one."""

    model_config = ConfigDict(frozen=True)

    geometry: Geometry | None = None
    figures: Figures | None = None
    capacity: Capacity | None = None
    strapping: list[CellStrapping] = []
    fill: Fill | None = None
    drained: list[Drained] = []
    gaps: list[Gap] = []
    goes_in: GoesIn | None = None
    target: Target | None = None
    demands: list[Demand] = []
    outgrown: list[Outgrown] = []
    surge: SurgeAnswer | None = None
    reaches: list[Reach] = []
    hung: list[Hung] = []
    landings: list[Landing] = []
    in_attitudes: list[Unreached] = []
    fill_runs: dict[str, FillRun] = {}
    gauge: GaugeTruth | None = None
    insides: Insides | None = None
    bracing: list[Braced] = []
    next_plate: Baffle | None = None
    """A further plate, as one is begun with; while dragging there is none."""
    panels: list[Panel] = []
    safe_proof_kpa: float | None = None
    sheet: Sheet | None = None
    findings: list[Finding] = []
    stations: list[StationState] = []
    fit: Remedy | None = None
    tried: bool = True
    """Whether remedies were looked for."""
    untried: int = 0
    """How many remedies weren't tried because it would have taken too long."""


def evaluate(
    design: Design,
    workshop: Workshop | None = None,
    showing: Showing | None = None,
    scans: Scans | None = None,
    enough: Callable[[], bool] = lambda: False,
) -> Evaluation:
    """Work a design out.

    Parameters
    ----------
    design : Design
        What to evaluate.
    workshop : Workshop, optional
        House rules, machines and stock; the usual ones by default.
    showing : Showing, optional
        Fill, attitude and cuts to show; by default the rated capacity, level and at rest, cut in the middle.
    scans : mapping of str to Mesh, optional
        Kept scans by fingerprint; a keep-out whose scan isn't among them is not judged.
    enough : callable, optional
        Asked before each remedy is tried: once it says so no more are, and the answer tells how many were left.

    Returns
    -------
    Evaluation

    Raises
    ------
    GeometryError
        When the design's shapes don't work; it names the field.
    """
    workshop, showing, scans = workshop or Workshop(), showing or Showing(), scans or {}
    seen = study(design, workshop, scans)
    if seen is None:
        fit = _offer_fit(design, workshop, None, scans, None) if showing.remedies else None
        findings = judge_document(design, workshop.rules)
        return Evaluation(
            target=target(design.brief, workshop.rules),
            demands=demands(design.brief, workshop.rules),
            outgrown=outgrown(design.brief, workshop.rules),
            surge=surge_answer(design.brief, None, design, workshop.rules),
            findings=findings,
            stations=station_states(design, findings),
            fit=fit,
            tried=showing.remedies,
        )
    findings = judge(seen)
    pricing = Pricing(seen, findings, enough)
    told = pricing.with_remedies() if showing.remedies else findings
    fit = _offer_fit(design, workshop, seen, scans, pricing) if showing.remedies else None
    fraction = showing.fill_fraction
    if fraction is None:
        fraction = seen.capacity.rated_l / seen.capacity.brimful_l
    fill = fill_at(seen.solids, fraction, showing.attitude)
    still = showing.attitude == Attitude()
    held = seen.level if still else drained(seen.solids, design.ports, showing.attitude)
    levels = {cell.cell: cell.level_mm for cell in fill.cells}
    if any(pool.level_mm > levels[cell.cell] for cell in held for pool in cell.pools):
        held = drained(seen.solids, design.ports, showing.attitude, list(levels.values()))
    return Evaluation(
        geometry=_geometry(seen, showing, fill, held),
        figures=seen.figures,
        capacity=seen.capacity,
        strapping=[
            CellStrapping(cell.name, strapping_table(cell.mesh.along(-felt(Attitude())))) for cell in seen.solids.cells
        ],
        fill=fill,
        drained=held,
        gaps=seen.gaps,
        goes_in=seen.goes_in,
        target=seen.target,
        demands=seen.demands,
        outgrown=outgrown(design.brief, workshop.rules),
        surge=surge_answer(design.brief, seen.solids, design, workshop.rules),
        reaches=seen.reaches,
        hung=seen.hung,
        landings=seen.landings,
        in_attitudes=in_attitudes(seen.solids, design.ports, design.gauge) if showing.remedies and design.ports else [],
        fill_runs=seen.fill_runs,
        gauge=seen.gauge if design.gauge.senders else None,
        insides=seen.insides,
        bracing=seen.bracing,
        next_plate=next_plate(design, seen.solids, workshop.rules, seen.insides.longest) if showing.remedies else None,
        panels=seen.panels,
        safe_proof_kpa=safe_proof_kpa(seen.panels),
        sheet=seen.sheet,
        findings=told,
        stations=station_states(design, findings),
        fit=fit,
        tried=showing.remedies,
        untried=pricing.untried,
    )


def _offer_fit(
    design: Design, workshop: Workshop, seen: Studied | None, scans: Scans, pricing: Pricing | None
) -> Remedy | None:
    if pricing is not None and pricing.enough():
        return None
    placed = seen.fit if seen else fit_to_bay(design, workshop, None, scans)
    if placed is None:
        return None
    if pricing is None:
        return Remedy(label=words("Fit to bay"), patch={"shell": first_shell(placed)})
    return pricing.price(Remedy(label=words("Fit to bay"), patch={"shell": placed}))


def _geometry(seen: Studied, showing: Showing, fill: Fill, held: list[Drained]) -> Geometry:
    solids, shell = seen.solids, seen.shell
    middle = [(low + high) / 2 for low, high in zip(solids.body.low, solids.body.high, strict=True)]
    levels = np.array([cell.level_mm for cell in fill.cells])
    at_x = middle[0] if showing.cut_x_mm is None else showing.cut_x_mm
    at_y = middle[1] if showing.cut_y_mm is None else showing.cut_y_mm
    left = [pool for cell in held for pool in (*cell.pools, *cell.pockets) if pool.litres >= SHOWN_L]
    mesh = seen.envelope.mesh
    axes: tuple[Literal["x", "y", "z"], ...] = ("x", "y", "z")
    return Geometry(
        kind=shell.kind,
        body=_block(solids.body),
        inner=_block(solids.inner_body),
        overall=_block(seen.envelope.bounds),
        axis=axes[solids.section.axis],
        thickness_mm=shell.thickness_mm,
        lip_mm=seen.box.lip if seen.box else 0.0,
        views=views(solids),
        cuts=[
            cut(solids, "x", at_x, levels, showing.attitude, left),
            cut(solids, "y", at_y, levels, showing.attitude, left),
        ],
        surface=Surface(points=mesh.points.round(2).ravel().tolist(), triangles=mesh.triangles.ravel().tolist()),
        features=_features(seen),
        ports=_ports(seen),
    )


def _features(seen: Studied) -> list[FeatureShape]:
    density = seen.density_kg_per_mm3
    folded = [part for part in seen.sheet.parts if part.feature]
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
            face=_face(seen.solids, cost.id),
        )
        for cost in seen.solids.costs
    ]


def _face(solids: Solids, feature: str) -> list[Ring]:
    plate = solids.plates.get(feature)
    if plate is None:
        return []
    return [[(float(u), float(v)) for u, v in ring.round(2)] for ring in plate.left.to_polygons()]


def _ports(seen: Studied) -> list[PortPlace]:
    found = []
    for port in seen.design.ports:
        x, y, z = (float(v) for v in place_of(seen.solids, port))
        lid = lid_height(seen.solids, x, y, seen.solids.datum[2])
        parts = [part.solid for part in seen.envelope.at_ports if part.port == port.id]
        outlines = {name: [ring for part in parts for ring in silhouette(part, name)] for name in LOOKING}
        found.append(PortPlace(id=port.id, place=Point(x=x, y=y, z=z), lid_mm=lid, standing=outlines))
    return found


def _block(box: Cuboid) -> Block:
    low, high = box.low, box.high
    return Block(low=Point(x=low[0], y=low[1], z=low[2]), high=Point(x=high[0], y=high[1], z=high[2]))
