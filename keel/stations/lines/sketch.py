"""A layout being drawn: parts one after the other between tank and engine, hoses between them."""

import re
from typing import Any

import numpy as np

from keel.analysis.parts import PORTS
from keel.analysis.tank import TankAnalysis
from keel.design.line_parts import LineComponent, LinePart
from keel.design.lines import TANK, LineRun, Lines, RunEnd
from keel.design.ports import Port, opened
from keel.reference.connections import CLAMPED, DASH_BORES_MM
from keel.solid.polyhedron import Array
from keel.solid.standing import OUTWARD, surface_at
from keel.studies.lines.places import connection_at

ENGINE_AHEAD_MM, ENGINE_UP_MM = 1200.0, 100.0
"""Where the engine is taken to be until its rail is put where it is: so far ahead of the tank, so far over its lid."""
REFERENCE_BORE_MM = 6.0
PUMP_BESIDE_MM, PUMP_UP_MM = 120.0, 60.0


class Sketch:
    """Parts and runs of a layout, with the places that they start from.

    Parameters
    ----------
    tank : TankAnalysis
        The tank that it is drawn for.
    """

    def __init__(self, tank: TankAnalysis) -> None:
        self.tank, self.ports = tank, tank[PORTS]
        self.parts: list[LinePart] = []
        self.runs: list[LineRun] = []
        self.rated = max((run.rated_kpa or 0.0 for run in tank.design.lines.runs), default=0.0) or None
        box = tank.solids.bounds
        self.pickups = opened(self.ports, "pickup")
        self.pickup = next(iter(self.pickups), None)
        self.back = next(iter(opened(self.ports, "return", "spare")), None)
        rail = next((one for one in tank.design.lines.parts if one.does.kind in ("rail", "carburettor")), None)
        ahead = [box.high[0] + ENGINE_AHEAD_MM, (box.low[1] + box.high[1]) / 2, box.high[2] + ENGINE_UP_MM]
        self.engine = np.array([rail.x_mm, rail.y_mm, rail.z_mm] if rail else ahead)
        self.start = self.at_port(self.pickup) if self.pickup else np.array(ahead)
        self.low = np.array([box.high[0] + PUMP_BESIDE_MM, box.low[1] + PUMP_BESIDE_MM, box.low[2] + PUMP_UP_MM])

    def at_port(self, port: Port) -> Array:
        """What a line is joined to there, shape (3,) [mm]."""
        return surface_at(self.tank.solids, port) + port.stands_mm * np.array(OUTWARD[port.face])

    def between(self, share: float) -> Array:
        """Part of the way from the tank to the engine, shape (3,) [mm]."""
        return np.asarray(self.start + share * (self.engine - self.start))

    def add(self, name: str, component: LineComponent, at: Array, **more: Any) -> LinePart:
        """One more part."""
        x, y, z = (float(round(one)) for one in at)
        fields = {field: getattr(component, field) for field in LineComponent.model_fields}
        part = LinePart(
            id=re.sub(r"[^a-z0-9]+", "-", name.lower()), name=name, x_mm=x, y_mm=y, z_mm=z, **fields, **more
        )
        self.parts.append(part)
        return part

    def join(self, start: tuple[str, str], end: tuple[str, str], bore_mm: float | None = None) -> None:
        """A hose between two connections: as wide as its narrower end is made for."""
        number = len(self.runs) + 1
        ends = [RunEnd(part=part, port=port) for part, port in (start, end)]
        lines = Lines(parts=tuple(self.parts))
        sides = [connection_at(one, lines, self.ports) for one in ends]
        widths = [one.sized.diameter_mm if one.standard in CLAMPED else one.bore for one in sides if one is not None]
        bore = bore_mm or min(widths, default=DASH_BORES_MM["-6"])
        run = LineRun(
            id=f"line-{number}",
            name=f"line {number}",
            start=ends[0],
            end=ends[1],
            bore_mm=bore,
            rated_kpa=self.rated,
        )
        self.runs.append(run)

    def refer(self, regulator: LinePart, rail: LinePart) -> None:
        """The hose that a referenced regulator follows the manifold by."""
        self.join((regulator.id, "reference"), (rail.id, "manifold"), REFERENCE_BORE_MM)

    def lines(self) -> Lines:
        """All of it, what isn't joined capped, with the modes and fuels that the design has."""
        joined = {(end.part, end.port) for run in self.runs for end in (run.start, run.end)}
        parts = tuple(
            part.model_copy(
                update={
                    "connections": tuple(
                        one.model_copy(update={"capped": not part.hangs_in and (part.id, one.id) not in joined})
                        for one in part.connections
                    )
                }
            )
            for part in self.parts
        )
        return self.tank.design.lines.model_copy(update={"parts": parts, "runs": tuple(self.runs)})


def beside(place: Array, x_mm: float, y_mm: float, z_mm: float) -> Array:
    """A place so far off another, shape (3,) [mm]."""
    return np.asarray(place + np.array([x_mm, y_mm, z_mm]))


def port_end(port: Port) -> tuple[str, str]:
    """A port of the tank as a run's end."""
    return TANK, port.id
