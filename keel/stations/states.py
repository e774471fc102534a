"""How far each station of the work is."""

from dataclasses import dataclass
from typing import Literal

from keel.design.document import Design
from keel.findings.finding import Finding, StationName
from keel.stations.judge import WEIGHT
from keel.stations.registry import stations
from keel.stations.station import Station

State = Literal["untouched", "in work", "has a stop", "settled"]


@dataclass(frozen=True, slots=True)
class StationState:
    """How far a station is."""

    station: StationName
    title: str
    state: State


def station_states(design: Design, findings: list[Finding]) -> list[StationState]:
    """State of each station, in the order of the work.

    A station with nothing typed is untouched; with a stop it has a stop; with a caution, or
    something still missing, it is in work; otherwise settled.
    """
    worst: dict[StationName, str] = {}
    for finding in sorted(findings, key=lambda item: -WEIGHT[item.severity]):
        worst[finding.station] = finding.severity
    return [StationState(one.name, one.title, _state(one, design, worst.get(one.name))) for one in stations()]


def _state(station: Station, design: Design, worst: str | None) -> State:
    if not station.is_begun(design):
        return "untouched"
    if worst == "stop":
        return "has a stop"
    return "in work" if worst == "caution" or station.lacks(design) else "settled"
