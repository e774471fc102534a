"""How far each station of the work is."""

from dataclasses import dataclass
from typing import Literal

from keel.design.document import Design
from keel.findings.finding import Finding, StationName
from keel.stations.judge import WEIGHT
from keel.stations.registry import stations
from keel.stations.station import Station

State = Literal["not judged yet", "needs attention", "blocked", "ready"]


@dataclass(frozen=True, slots=True)
class StationState:
    """How far a station is."""

    station: StationName
    title: str
    state: State


def station_states(design: Design, findings: list[Finding]) -> list[StationState]:
    """State of each station, in the order of the work.

    With nothing typed a station is not judged yet; with a stop it is blocked; with a caution, or something still
    missing, it needs attention; otherwise it is ready.

    Parameters
    ----------
    design : Design
        The design.
    findings : list of Finding
        All findings on it.

    Returns
    -------
    list of StationState
        A state a station.
    """
    worst: dict[StationName, str] = {}
    for finding in sorted(findings, key=lambda item: -WEIGHT[item.severity]):
        worst[finding.station] = finding.severity
    return [StationState(one.name, one.title, _state(one, design, worst.get(one.name))) for one in stations()]


def _state(station: Station, design: Design, worst: str | None) -> State:
    if not station.is_begun(design):
        return "not judged yet"
    if worst == "stop":
        return "blocked"
    return "needs attention" if worst == "caution" or station.lacks(design) else "ready"
