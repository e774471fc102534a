"""The state of each station of the work."""

from dataclasses import dataclass
from typing import Literal

from keel.design.brief import Brief
from keel.design.document import Design
from keel.design.inside import Inside
from keel.findings.finding import Finding, Station

State = Literal["untouched", "in work", "has a stop", "settled"]


@dataclass(frozen=True, slots=True)
class StationState:
    """How far a station is."""

    station: Station
    state: State


def station_states(design: Design, findings: list[Finding]) -> list[StationState]:
    """State of each station, in the order of the work.

    A station with nothing typed is untouched; with a stop it has a stop; with a caution, or
    something still missing, it is in work; otherwise settled.
    """
    worst: dict[Station, str] = {}
    for finding in sorted(findings, key=lambda item: ("stop", "caution", "note").index(item.severity), reverse=True):
        worst[finding.station] = finding.severity
    touched: dict[Station, bool] = {
        "brief": design.brief != Brief(),
        "bay": design.bay is not None,
        "shell": design.shell is not None,
        "inside": _inside_touched(design),
        "ports": bool(design.ports),
        "gauge": bool(design.gauge.senders),
        "sheet": design.shell is not None,
    }
    missing: dict[Station, bool] = {"brief": design.brief.target_l is None and design.brief.basis is None}
    return [
        StationState(station=station, state=_state(touched[station], worst.get(station), missing.get(station, False)))
        for station in touched
    ]


def _inside_touched(design: Design) -> bool:
    features = design.shell.features if design.shell else ()
    return design.inside != Inside() or any(feature.kind == "baffle" for feature in features)


def _state(touched: bool, worst: str | None, missing: bool) -> State:
    if not touched:
        return "untouched"
    if worst == "stop":
        return "has a stop"
    return "in work" if worst == "caution" or missing else "settled"
