"""What is wrong with the way of the air."""

from collections.abc import Iterator

import numpy as np

from keel.analysis.parts import PORTS, VEHICLE
from keel.analysis.tank import TankAnalysis
from keel.design.ports import VentPath
from keel.findings.finding import Finding, Remedy, saying
from keel.studies.lines.air_paths import AIR_PATHS, LOW_LOOP_MM, AirPath
from keel.studies.result import words

_lines = saying("lines")
SAME_MM, SAME_M, SAME_KPA = 0.05, 0.05, 0.02


def vents_end_outside(tank: TankAnalysis) -> Iterator[Finding]:
    """Every vent's line has an end, no low loop, and lets enough air in."""
    limit = tank.workshop.rules.vent_vacuum_kpa
    for path in tank[AIR_PATHS]:
        if not path.ends:
            yield _lines(
                "lines.vent_end",
                path.port,
                "stop",
                "{name}: its line ends nowhere, limit 1 open end",
                "Vapour collects where it stops; drawn from, the tank is sucked in.",
                name=path.name,
            )
        if path.low_mm >= LOW_LOOP_MM:
            yield _lines(
                "lines.vent_loop",
                path.port,
                "stop",
                "{name}: a low loop of {low_mm}, limit {limit_mm}",
                "Fuel that splashes into it stays there and shuts the vent like a trap under a sink.",
                name=path.name,
                low_mm=path.low_mm,
                limit_mm=LOW_LOOP_MM,
            )
        if path.vacuum_kpa is not None and path.vacuum_kpa > limit:
            yield _lines(
                "lines.vent_vacuum",
                path.port,
                "stop",
                "{name}: {vacuum_kpa} of vacuum while the pumps draw, limit {limit_kpa}",
                "{opens_kpa} of it opens valves, the rest is its {bore_sheet} bore: panels are sucked in.",
                name=path.name,
                vacuum_kpa=path.vacuum_kpa,
                limit_kpa=limit,
                opens_kpa=path.in_kpa,
                bore_sheet=path.bore_mm,
            )


def vents_end_away_from_harm(tank: TankAnalysis) -> Iterator[Finding]:
    """No vent ends beside people or what is hot."""
    vehicle, limit = tank[VEHICLE], tank.workshop.rules.vent_off_mm
    corner = tank.design.mount.corner
    for part in tank.design.lines.parts:
        if part.does.kind != "vent end" or vehicle is None:
            continue
        at = np.array([part.x_mm + corner.x_mm, part.y_mm + corner.y_mm, part.z_mm + corner.z_mm])
        for one in vehicle.parts:
            if one.kind not in ("person", "hot part"):
                continue
            low = np.array([one.x_mm, one.y_mm, one.z_mm])
            high = low + np.array([one.length_mm, one.width_mm, one.height_mm])
            off = float(np.linalg.norm(np.maximum(0.0, np.maximum(low - at, at - high))))
            if off < limit:
                yield _lines(
                    "lines.vent_near",
                    part.id,
                    "stop",
                    "{name}: {off_mm} from {other}, limit {limit_mm}",
                    "Vapour comes out of it whenever the tank warms: it is breathed, or it burns.",
                    name=part.name,
                    off_mm=off,
                    other=one.name,
                    limit_mm=limit,
                )


def ports_know_their_vents(tank: TankAnalysis) -> Iterator[Finding]:
    """What Ports calculates filling with is what is drawn here."""
    ports = {port.id: port for port in tank[PORTS]}
    for path in tank[AIR_PATHS]:
        said = ports[path.port].vent or VentPath()
        if path.ends and not _agree(path, said):
            yield _lines(
                "lines.vent_differs",
                path.port,
                "caution",
                "{name}: {bore_sheet}, {length_m}, {opens_kpa} as drawn; {was_sheet}, {was_m}, {had_kpa} at Ports",
                "Fill time and back pressure are calculated with what Ports has.",
                name=path.name,
                bore_sheet=path.bore_mm,
                length_m=path.length_m,
                opens_kpa=path.out_kpa,
                was_sheet=said.bore_mm,
                was_m=said.length_m,
                had_kpa=said.opening_kpa,
            )


def _agree(path: AirPath, said: VentPath) -> bool:
    return (
        abs(path.bore_mm - said.bore_mm) < SAME_MM
        and abs(path.length_m - said.length_m) < SAME_M
        and abs(path.out_kpa - said.opening_kpa) < SAME_KPA
    )


def taken_to_ports(tank: TankAnalysis, finding: Finding) -> Iterator[Remedy]:
    """Ports calculates with the line as it is drawn."""
    path = next((path for path in tank[AIR_PATHS] if path.port == finding.subject), None)
    if path is None:
        return
    ports = [
        port.model_copy(update={"vent": path.as_vent(port.vent or VentPath())}) if port.id == path.port else port
        for port in tank.design.ports
    ]
    yield Remedy(words("Calculate with it at Ports"), {"ports": [port.model_dump(mode="json") for port in ports]})
