"""A layout being drawn: parts one after the other between tank and engine, hoses between them."""

import re
from math import acos, radians, tan
from typing import Any

import numpy as np

from keel.analysis.parts import PORTS
from keel.analysis.tank import TankAnalysis
from keel.design.line_parts import LineComponent, LinePart
from keel.design.lines import TANK, LineRun, Lines, RunCorner, RunEnd
from keel.design.ports import Port, opened
from keel.reference.connections import CLAMPED, DASH_BORES_MM
from keel.routes.around import is_clear
from keel.solid.polyhedron import Array
from keel.solid.standing import OUTWARD, surface_at
from keel.studies.lines.hose_stock import radius_of_hose
from keel.studies.lines.places import connection_at, place_of_connection

ENGINE_AHEAD_MM, ENGINE_UP_MM = 1200.0, 100.0
"""Where the engine is taken to be until its rail is put where it is: so far ahead of the tank, so far over its lid."""
REFERENCE_BORE_MM = 6.0
PUMP_BESIDE_MM, PUMP_UP_MM = 120.0, 60.0
STEEP, MOST_TURN = 0.35, radians(110)
"""A hose that rises so much of its length from the lid needs no corner; its first turn past the tank is no sharper."""
CLEAR_MM, MORE_MM = 20.0, 10.0
"""How far a hose stays off the tank, and how far beyond its bend it goes straight out of a port."""


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
        """Part of the way from the tank to the engine, ahead of the tank at least, shape (3,) [mm]."""
        at = self.start + share * (self.engine - self.start)
        ahead = self.tank.solids.bounds.high[0] + PUMP_BESIDE_MM
        return np.array([max(at[0], ahead) if self.engine[0] > ahead else at[0], at[1], at[2]])

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
        radius = radius_of_hose(run, self.tank.workshop.hoses)
        ports = self._port_of(ends[0], ends[1]), self._port_of(ends[1], ends[0])
        first, last = (self._place(end, port) for end, port in zip(ends, ports, strict=True))
        corners = self._leads(ports[0], first, last, radius) + self._leads(ports[1], last, first, radius)[::-1]
        self.runs.append(run.model_copy(update={"corners": tuple(_corner(one) for one in corners)}))

    def _port_of(self, end: RunEnd, other: RunEnd) -> Port | None:
        """The port of the tank that a run goes through at an end: its own, or that which its part hangs in."""
        hung = {part.id: part.hangs_in for part in self.parts if part.hangs_in is not None}
        name = end.port if end.part == TANK else None if other.part in hung else hung.get(end.part)
        return next((one for one in self.ports if one.id == name), None)

    def _place(self, end: RunEnd, port: Port | None) -> Array | None:
        if port is not None:
            return self.at_port(port)
        part = next((one for one in self.parts if one.id == end.part), None)
        return None if part is None else place_of_connection(part, end.port)

    def _leads(self, port: Port | None, at: Array | None, other: Array | None, radius: float) -> list[Array]:
        """Corners that lead a hose out of a port of the tank and past its side, where straight it would touch it."""
        if port is None or at is None or other is None:
            return []
        box, out = self.tank.solids.bounds, np.array(OUTWARD[port.face])
        low, high = np.array([box.low]) - CLEAR_MM, np.array([box.high]) + CLEAR_MM
        rise = float((other - at) @ out) / max(float(np.linalg.norm(other - at)), 1e-9)
        if rise >= STEEP and is_clear(at + (CLEAR_MM + 1) * out, other, low, high):
            return []
        first = at + (radius * tan(min(acos(rise), MOST_TURN) / 2) + MORE_MM) * out
        if is_clear(first, other, low, high):
            return [first]
        flat = (other - first) * (1 - np.abs(out))
        way = flat / max(float(np.linalg.norm(flat)), 1e-9)
        with np.errstate(divide="ignore", invalid="ignore"):
            beyond = np.where(way > 0, (high[0] - first) / way, np.where(way < 0, (low[0] - first) / way, np.inf))
        return [first, first + (float(beyond.min()) + CLEAR_MM) * way]

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


def _corner(at: Array) -> RunCorner:
    x, y, z = (float(round(one)) for one in at)
    return RunCorner(x_mm=x, y_mm=y, z_mm=z)


def beside(place: Array, x_mm: float, y_mm: float, z_mm: float) -> Array:
    """A place so far off another, shape (3,) [mm]."""
    return np.asarray(place + np.array([x_mm, y_mm, z_mm]))


def port_end(port: Port) -> tuple[str, str]:
    """A port of the tank as a run's end."""
    return TANK, port.id
