"""The one door: a design in, an evaluation out."""

from collections.abc import Callable
from functools import cache
from typing import TYPE_CHECKING, Any, get_type_hints

from pydantic import BaseModel, ConfigDict, create_model

from keel.analysis.memory import Memory
from keel.analysis.showing import Showing
from keel.analysis.tank import Asked, TankAnalysis
from keel.design.document import Design
from keel.design.workshop import Workshop
from keel.findings.finding import Finding, Remedy
from keel.solid.neighbours import Scans
from keel.stations.judge import findings_on
from keel.stations.pricing import Pricing
from keel.stations.registry import stations
from keel.stations.states import StationState, station_states
from keel.stations.station import Station


class Evaluation(BaseModel):
    """What the core says about a design: what is found on it, and the results of the stations that are asked for."""

    model_config = ConfigDict(frozen=True)

    findings: list[Finding] = []
    stations: list[StationState] = []
    tried: bool = True
    """Whether remedies were looked for."""
    untried: int = 0
    """How many remedies weren't tried because it would have taken too long."""

    if TYPE_CHECKING:

        def __getattr__(self, station: str) -> Any:
            """The results of a station, by its name."""


class _Frozen(BaseModel):
    model_config = ConfigDict(frozen=True)


@cache
def results_model(station: Station) -> type[BaseModel]:
    """The model of a station's results: a field a study, empty where what it needs is missing or it waits for rest."""
    fields: dict[str, Any] = {name: (one.returns | None, None) for name, one in station.studies.items()}
    fields |= dict.fromkeys(station.offers, (Remedy | None, None))
    fields |= {name: (get_type_hints(one)["return"] | None, None) for name, one in station.comparisons.items()}
    about = f"Results of {station.title}: each is empty where what it needs is missing."
    return create_model(f"{station.title.replace('-', '')}Results", __doc__=about, __base__=_Frozen, **fields)


@cache
def _evaluation_of(names: tuple[Station, ...]) -> type[Evaluation]:
    fields: dict[str, Any] = {one.name: (results_model(one) | None, None) for one in names if one.shows}
    about = "What the core says about a design: findings, and the results of the stations that were asked for."
    return create_model("Evaluation", __doc__=about, __base__=Evaluation, **fields)


def evaluation_model() -> type[Evaluation]:
    """The model of an evaluation with the stations that are registered.

    Returns
    -------
    type[Evaluation]
        A model with a field a station, each with a field a study.
    """
    return _evaluation_of(tuple(stations()))


def evaluate(
    design: Design,
    workshop: Workshop | None = None,
    showing: Showing | None = None,
    scans: Scans | None = None,
    enough: Callable[[], bool] = lambda: False,
    memory: Memory | None = None,
) -> Evaluation:
    """Work a design out.

    Parameters
    ----------
    design : Design
        What to evaluate.
    workshop : Workshop, optional
        House rules, machines and stock; the usual ones by default.
    showing : Showing, optional
        Fill, attitude, cuts and stations to show; by default the rated capacity, level and at rest, cut in the
        middle, all stations.
    scans : mapping of str to Mesh, optional
        Kept scans by fingerprint; a keep-out whose scan isn't among them is not judged.
    enough : callable, optional
        Asked before each remedy is tried: once it says so no more are, and the answer tells how many were left.
    memory : Memory, optional
        What was worked out for earlier questions; what a study reads and hasn't changed isn't worked out again.

    Returns
    -------
    Evaluation
        `evaluation.<station>.<study>`, as registered in `keel.stations.registry`.

    Raises
    ------
    GeometryError
        When the design's shapes don't work; it names the field.
    """
    showing = showing or Showing()
    tank = TankAnalysis(Asked(design, workshop or Workshop(), scans or {}, showing), memory)
    findings = findings_on(tank)
    pricing = Pricing(tank, findings, enough)
    told = pricing.with_remedies() if showing.remedies and design.shell is not None else findings
    results = {station.name: _results(station, tank, pricing) for station in stations() if _asked(station, showing)}
    tank.hold()
    model = evaluation_model()
    return model(
        findings=told,
        stations=station_states(design, findings),
        tried=showing.remedies,
        untried=pricing.untried,
        **results,
    )


def _asked(station: Station, showing: Showing) -> set[str]:
    """Which results of a station are asked for: all of them where it is named itself, or nothing is."""
    names = {*station.studies, *station.offers, *station.comparisons}
    if showing.results is None or station.name in showing.results:
        return names
    return names & {name.removeprefix(f"{station.name}.") for name in showing.results}


def _results(station: Station, tank: TankAnalysis, pricing: Pricing) -> BaseModel:
    at_rest, asked = tank.asked.showing.remedies, _asked(station, tank.asked.showing)
    found: dict[str, Any] = {
        name: tank.get(one) for name, one in station.studies.items() if name in asked and (one.live or at_rest)
    }
    if at_rest:
        found |= {name: pricing.offered(offer(tank)) for name, offer in station.offers.items() if name in asked}
        if tank.design.shell is not None:
            found |= {name: compare(tank) for name, compare in station.comparisons.items() if name in asked}
    return results_model(station)(**found)
