"""The one door: a design in, an evaluation out."""

from dataclasses import dataclass

from pydantic import BaseModel, ConfigDict

from keel.design.document import Design
from keel.design.workshop import Workshop
from keel.findings.finding import Finding, Remedy
from keel.findings.prescribe import Pricing, with_remedies
from keel.findings.rules import judge
from keel.findings.stations import StationState, station_states
from keel.solid.box import BoxSolid, Cuboid
from keel.studies.attitude import Attitude
from keel.studies.capacity import Capacity
from keel.studies.clearance import Gap
from keel.studies.figures import Figures
from keel.studies.fit import first_shell, fit_to_bay
from keel.studies.level import StrappingRow, strapping_table
from keel.studies.liquid import Fill, fill_at
from keel.studies.result import Point, words
from keel.studies.sheet.wrapper import Sheet
from keel.studies.strength import Panel
from keel.studies.studied import Studied, study


@dataclass(frozen=True, slots=True)
class Block:
    """An axis-aligned box for the drawing [mm]."""

    low: Point
    high: Point


@dataclass(frozen=True, slots=True)
class Geometry:
    """What the drawing shows of the shell [mm]."""

    body: Block
    inner: Block
    overall: Block
    wrap_axis: str
    thickness_mm: float
    bend_radius_mm: float
    sharp_corners: int
    lip_mm: float


class Evaluation(BaseModel):
    """Everything the core says about a design. Parts that need a shell are empty without one."""

    model_config = ConfigDict(frozen=True)

    geometry: Geometry | None = None
    figures: Figures | None = None
    capacity: Capacity | None = None
    strapping: list[StrappingRow] = []
    fill: Fill | None = None
    gaps: list[Gap] = []
    panels: list[Panel] = []
    sheet: Sheet | None = None
    findings: list[Finding] = []
    stations: list[StationState] = []
    fit: Remedy | None = None


def evaluate(
    design: Design,
    workshop: Workshop | None = None,
    fill_fraction: float | None = None,
    attitude: Attitude | None = None,
) -> Evaluation:
    """Work a design out.

    Parameters
    ----------
    design : Design
        What to evaluate.
    workshop : Workshop, optional
        House rules, machines and stock; the usual ones by default.
    fill_fraction : float, optional
        Fill to show, 0 to 1 of brimful; by default the rated capacity.
    attitude : Attitude, optional
        How the vehicle stands and moves while that fill is shown; at rest on the level by default.

    Returns
    -------
    Evaluation
    """
    workshop = workshop or Workshop()
    seen = study(design, workshop)
    if seen is None:
        return Evaluation(stations=station_states(design, []), fit=_offer_fit(design, workshop, None, []))
    findings = judge(seen)
    fraction = seen.capacity.rated_l / seen.capacity.brimful_l if fill_fraction is None else fill_fraction
    return Evaluation(
        geometry=_geometry(seen.solid),
        figures=seen.figures,
        capacity=seen.capacity,
        strapping=strapping_table(seen.solid),
        fill=fill_at(seen.solid, fraction, attitude or Attitude()),
        gaps=seen.gaps,
        panels=seen.panels,
        sheet=seen.sheet,
        findings=with_remedies(seen, findings),
        stations=station_states(design, findings),
        fit=_offer_fit(design, workshop, seen, findings),
    )


def _offer_fit(design: Design, workshop: Workshop, seen: Studied | None, findings: list[Finding]) -> Remedy | None:
    placed = seen.fit if seen else fit_to_bay(design, workshop)
    if placed is None:
        return None
    if seen is None:
        return Remedy(label=words("Fit to bay"), patch={"shell": first_shell(placed)})
    return Pricing(seen, findings).price(Remedy(label=words("Fit to bay"), patch={"shell": placed}))


def _geometry(solid: BoxSolid) -> Geometry:
    return Geometry(
        body=_block(solid.body),
        inner=_block(solid.inner),
        overall=_block(solid.overall),
        wrap_axis="xy"[solid.wrap],
        thickness_mm=solid.thickness,
        bend_radius_mm=solid.radius,
        sharp_corners=solid.sharp_corners,
        lip_mm=solid.lip,
    )


def _block(box: Cuboid) -> Block:
    low, high = box.low, box.high
    return Block(low=Point(x=low[0], y=low[1], z=low[2]), high=Point(x=high[0], y=high[1], z=high[2]))
