"""Wiring being drawn: battery, fuses, relays, what stops the pumps, the plug in the tank's wall, the wires between."""

from itertools import product
from typing import Any

import numpy as np

from keel.analysis.parts import PORTS
from keel.analysis.tank import TankAnalysis
from keel.design.line_functions import PumpDoes
from keel.design.wiring import Device, Wire, WireEnd, Wiring
from keel.routes.around import is_clear
from keel.solid.polyhedron import Array
from keel.solid.standing import OUTWARD, surface_at
from keel.stations.wiring.led_round import corners_round
from keel.studies.gauge.column import column_of
from keel.studies.lines.run_shapes import RUN_SHAPES
from keel.studies.lines.stretches import STRETCHES
from keel.studies.lines.surroundings import SURROUNDINGS
from keel.studies.wiring.runs import WIRE_RUNS

ENGINE_AHEAD_MM, ENGINE_UP_MM = 1200.0, 100.0
COLUMNS, ROWS = 5, 5
"""Of the board beside the engine."""
PITCH_MM, ROOM_MM, OFF_LID_MM, SEARCHED_MM = 60.0, 15.0, 40.0, 1500.0
WAYS_OUT = [np.array(way) / np.linalg.norm(way) for way in product((0, -1, 1), repeat=3) if any(way)]
"""Straight and slanting ways out from a place."""
At = tuple[str, str, str]
"""Of what, which one, its terminal."""


class Sketch:
    """Devices and wires, with the places that they start from.

    Parameters
    ----------
    tank : TankAnalysis
        The tank with its pumps and senders.
    """

    def __init__(self, tank: TankAnalysis) -> None:
        self.tank = tank
        self.devices: list[Device] = []
        self.wires: list[Wire] = []
        pumps = [part for part in tank.design.lines.parts if isinstance(part.does, PumpDoes)]
        self.pumps = [part for part in pumps if not getattr(part.does, "spare", False)]
        self.spares = [part for part in pumps if part not in self.pumps]
        box = tank.solids.bounds
        rail = next(
            (p for p in tank.design.lines.parts if p.does.kind in ("rail", "carburettor", "injection pump")), None
        )
        ahead = [box.high[0] + ENGINE_AHEAD_MM, (box.low[1] + box.high[1]) / 2, box.high[2] + ENGINE_UP_MM]
        self.engine = np.array([rail.x_mm, rail.y_mm, rail.z_mm] if rail else ahead)
        self.board = self._clear_spot(self.engine, PITCH_MM * np.array([COLUMNS, 0.5, ROWS]))
        self.pins = 0
        ports = {port.id for port in tank[PORTS]}
        self.port = next((part.hangs_in for part in pumps if part.hangs_in in ports), None)
        behind = {run.id for run in tank.design.lines.runs if rail is not None and run.start.part == rail.id}
        forward = {one.id for one in tank[STRETCHES] if one.service == "pressure"} - behind
        lid = np.array([box.high[0], (box.low[1] + box.high[1]) / 2, box.high[2] + 2 * ROOM_MM])
        self.shelf = self._clear_spot(self.plug_at() if self.port else lid, PITCH_MM * np.array([0.5, ROWS + 1, 0.5]))
        self.forward = [shape.id for shape in tank[RUN_SHAPES] if shape.id in forward and not shape.inside]

    def beside_engine(self, place: int) -> Array:
        """Places on a board beside the engine, one after the other, shape (3,) [mm]."""
        column, row = divmod(place, ROWS)
        return np.asarray(self.board + PITCH_MM * np.array([column, 0.0, row]))

    def beside_tank(self, place: int) -> Array:
        """Places over the tank's front, one after the other, shape (3,) [mm]."""
        return np.asarray(self.shelf + PITCH_MM * np.array([0.0, place, 0.0]))

    def _clear_spot(self, near: Array, size: Array) -> Array:
        """The nearest place to another at which something of a size is clear of everything, in sight of that one."""
        about, bounds = self.tank[SURROUNDINGS], self.tank.solids.bounds
        needed = np.array([thing.needed_mm for thing in about.boxes]).reshape(-1, 1) + ROOM_MM
        lows = np.vstack([about.lows - needed, np.array(bounds.low) - ROOM_MM])
        highs = np.vstack([about.highs + needed, np.array(bounds.high) + ROOM_MM])
        for far in np.arange(100.0, SEARCHED_MM, 50.0):
            for way in WAYS_OUT:
                spot = np.asarray(near + far * way)
                inside = ((spot < highs) & (spot + size > lows)).all(axis=1).any()
                if not inside and is_clear(near, spot, lows, highs):
                    return spot
        return np.asarray(near + 100.0 * WAYS_OUT[0])

    def add(self, key: str, name: str, does: dict[str, Any], at: Array, **more: Any) -> str:
        """One more device; where there is one of that id already, it stays where it stands."""
        own = self.tank.design.wiring.device(key)
        x, y, z = (own.x_mm, own.y_mm, own.z_mm) if own else (float(round(one)) for one in at)
        self.devices.append(
            Device.model_validate({"id": key, "name": name, "does": does, "x_mm": x, "y_mm": y, "z_mm": z} | more)
        )
        return key

    def wire(self, start: At, end: At, colour: str, *, long: bool = False, **more: Any) -> None:
        """One more wire; a long one is tied to the line that leads forward."""
        number = len(self.wires) + 1
        first, last = (WireEnd.model_validate({"of": of, "id": name, "terminal": at}) for of, name, at in (start, end))
        along = tuple(reversed(self.forward)) if long else ()
        self.wires.append(
            Wire(id=f"w{number}", name=f"W{number}", start=first, end=last, colour=colour, along=along, **more)
        )

    def plug_at(self) -> Array:
        """Over the port that something hangs in, shape (3,) [mm]."""
        port = next(one for one in self.tank[PORTS] if one.id == self.port)
        return np.asarray(surface_at(self.tank.solids, port) + OFF_LID_MM * np.array(OUTWARD[port.face]))

    def plug(self) -> str | None:
        """The plug in the tank's wall, where something hangs in the tank; its pins are given out one by one."""
        if self.port is None:
            return None
        wanted = 2 * (len(self.pumps) + len(self.spares)) + (2 if self.reserve_mm() is not None else 0)
        return self.add(
            "plug",
            "plug in the lid",
            {"kind": "connector", "pins": min(12, max(2, wanted))},
            self.plug_at(),
            stands="in the tank's wall",
        )

    def pin(self) -> str:
        """The next free pin of the plug."""
        self.pins += 1
        return str(self.pins)

    def reserve_mm(self) -> float | None:
        """Height of the low switch beside the first sender, over the floor there [mm]; None: no lamp is asked for."""
        gauge = self.tank.design.gauge
        column = column_of(self.tank.solids, gauge.senders[0]) if gauge.senders else None
        if gauge.reserve_l is None or column is None:
            return None
        return round(column[1].height(min(gauge.reserve_l, column[1].brimful_l)), 1)

    def by_sender(self) -> Array:
        """Beside the first sender, on the lid, shape (3,) [mm]."""
        one, datum = self.tank.design.gauge.senders[0], self.tank.solids.datum
        return np.array([datum[0] + one.x_mm, datum[1] + one.y_mm, float(self.tank.solids.bounds.high[2])])

    def wiring(self) -> Wiring:
        """All of it, with the bonds that are drawn already; wires led round what is in their way."""
        bonds = self.tank.design.wiring.bonds
        straight = Wiring(devices=tuple(self.devices), wires=tuple(self.wires), bonds=bonds)
        runs = self.tank.of(self.tank.design.model_copy(update={"wiring": straight}))[WIRE_RUNS]
        inside = {device.id for device in self.devices if device.stands == "in the tank"}
        inside |= {part.id for part in [*self.pumps, *self.spares] if part.hangs_in is not None}
        led = []
        for wire in self.wires:
            run = next((one for one in runs.wires if one.id == wire.id), None)
            free = run is not None and not inside & {wire.start.id, wire.end.id}
            corners = corners_round(self.tank, wire, run) if run is not None and free else None
            led.append(wire.model_copy(update={"corners": corners}) if corners else wire)
        return straight.model_copy(update={"wires": tuple(led)})
