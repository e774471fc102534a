"""A circuit as a network: every part, every run, every port of the tank."""

from collections.abc import Mapping, Sequence

import numpy as np

from keel.design.lines import TANK, LineRun, Lines, RunEnd
from keel.design.ports import DRAWS
from keel.network.elements import (
    CheckValve,
    Pipe,
)
from keel.reference.fittings import ENTRY_K, EXIT_K
from keel.studies.lines.assembly import Assembly
from keel.studies.lines.circuits import Circuit
from keel.studies.lines.modes import Mode
from keel.studies.lines.part_elements import PartElements
from keel.studies.lines.places import LinePlaces
from keel.studies.lines.services import air_runs
from keel.studies.lines.tank_side import TankPort


def assemble(
    lines: Lines,
    circuit: Circuit,
    places: LinePlaces,
    tank: Mapping[str, TankPort],
    modes: Sequence[Mode],
    loaded: Sequence[bool] = (),
) -> Assembly:
    """A circuit as a network.

    Parameters
    ----------
    lines : Lines
        Parts and runs.
    circuit : Circuit
        Which of them.
    places : LinePlaces
        Lengths, heights.
    tank : mapping of str to TankPort
        Where it meets the tank.
    modes : sequence of Mode
        What runs, what is drawn.
    loaded : sequence of bool
        In which modes filters are as they are when they are due for a swap; empty: in none.

    Returns
    -------
    Assembly
        Pressures over the air's. Without a tank anywhere nothing of it is held.
    """
    return _Assembler(lines, circuit, places, tank, modes, loaded).added(lines, circuit)


class _Assembler(PartElements):
    """Adds part after part, run after run."""

    def added(self, lines: Lines, circuit: Circuit) -> Assembly:
        """All of a circuit."""
        for part in lines.parts:
            if part.id in circuit.parts:
                self.add_part(part)
        air = air_runs(lines)
        for run in lines.runs:
            if run.id in circuit.runs and run.id in self.ways and run.id not in air:
                self._run(run)
        return self.made

    def _run(self, run: LineRun) -> None:
        way = self.ways[run.id]
        start, end = (
            self._end(part, port) for part, port in ((run.start.part, run.start.port), (run.end.part, run.end.port))
        )
        rise = way.rise_mm
        if self._is_overflow(run):
            # Air follows down an overflow: it helps nothing by falling.
            rise = max(0.0, rise) if self._overflows(run.start) else min(0.0, rise)
        self.add(
            Pipe(f"run.{run.id}", start, end, run.bore_mm, max(way.length_mm / 1e3, 1e-3), way.fittings_k, rise_mm=rise)
        )

    def _overflows(self, end: RunEnd) -> bool:
        """Whether fuel leaves a surge tank there."""
        port = self.tank.get(end.port) if end.part == TANK else None
        part = self.lines.part(end.part)
        if port is not None:
            return port.role == "overflow"
        return end.port == "overflow" and part is not None and part.does.kind == "surge tank"

    def _is_overflow(self, run: LineRun) -> bool:
        return any(self._overflows(end) for end in (run.start, run.end))

    def _end(self, part: str, port: str) -> str:
        if part != TANK:
            return self.made.gauges.get((part, port), f"{part}.{port}")
        joint = f"{TANK}.{port}"
        if (TANK, port) not in self.made.gauges:
            self.made.gauges[TANK, port] = joint
            if port in self.tank:
                self._tank_port(self.tank[port], joint)
        return joint

    def _tank_port(self, port: TankPort, joint: str) -> None:
        """From the fuel up its tube to what the line is joined to."""
        if port.brim_z_mm is not None:
            self._brimful(port, joint, port.brim_z_mm)
            return
        opening = f"{joint}.opening"
        self.made.held[opening] = self.head(port.surface_z_mm - port.opening_z_mm)
        length = max(abs(port.drop_mm) / 1e3, 1e-3)
        k = ENTRY_K + EXIT_K
        # A column that falls into air sucks nothing.
        is_full = port.role in DRAWS or port.surface_z_mm > port.opening_z_mm
        rise = port.drop_mm if is_full else 0.0
        self.add(Pipe(f"port.{port.id}", opening, joint, port.bore_mm, length, k, rise_mm=rise))

    def _brimful(self, port: TankPort, joint: str, brim: float) -> None:
        """A port of a tank that is itself a surge tank: full to its brim, what is too much leaves by the overflow."""
        inside, length = f"{TANK}.inside", max(abs(port.drop_mm) / 1e3, 1e-3)
        if (TANK, "inside") not in self.made.gauges:
            self.made.gauges[TANK, "inside"] = inside
            self.made.held[f"{TANK}.stored"] = np.zeros(self.count)
            self.add(CheckValve(f"{TANK}.stored", f"{TANK}.stored", inside))
        if port.role == "overflow":
            self.add(CheckValve(f"{TANK}.overflow", inside, joint))
            return
        rise = port.flange_z_mm - brim
        self.add(Pipe(f"port.{port.id}", inside, joint, port.bore_mm, length, ENTRY_K + EXIT_K, rise_mm=rise))
