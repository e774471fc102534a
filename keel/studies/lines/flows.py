"""What flows where, at which pressure, in every mode."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from typing import Any, Literal, TypeVar

import numpy as np
from numpy.typing import NDArray

from keel.analysis.study import study
from keel.design.lines import TANK, Lines
from keel.network.curves import Array
from keel.network.friction import velocity
from keel.network.solve import Settled, settle
from keel.studies.lines.as_wired import LINE_MODES, LINES_WIRED
from keel.studies.lines.assemble import assemble
from keel.studies.lines.assembly import Assembly
from keel.studies.lines.circuits import CIRCUITS, Circuit
from keel.studies.lines.modes import Mode
from keel.studies.lines.places import LINE_PLACES, LinePlaces
from keel.studies.lines.tank_side import TANK_PORTS, TankPort

T = TypeVar("T", "Pressures", "RunFlow", "PartFlow", "Piece")


@dataclass(frozen=True, slots=True)
class Pressures:
    """Pressure at a connection, over the air's, mode by mode [kPa]; None where a mode has no answer."""

    part: str
    port: str
    kpa: list[float | None]


@dataclass(frozen=True, slots=True)
class RunFlow:
    """What flows in a run, mode by mode: from its start to its end, else below zero."""

    id: str
    flow_lph: list[float | None]
    velocity_ms: list[float | None]
    start_kpa: list[float | None]
    end_kpa: list[float | None]


@dataclass(frozen=True, slots=True)
class PartFlow:
    """What flows through a part, mode by mode.

    Attributes
    ----------
    flow_lph : list of float or None
        Of a bypass regulator what goes back, of a surge tank what overflows.
    moved_lph : list of float or None
        Of a jet pump what it moves beside its drive, of a surge tank what it is emptied by.
    """

    id: str
    flow_lph: list[float | None]
    moved_lph: list[float | None]


@dataclass(frozen=True, slots=True)
class Piece:
    """One element of the network between two of its joints, as it is meant to flow.

    Attributes
    ----------
    of, owner : str
        Whether a run, a part or a port of the tank, and which.
    """

    of: Literal["run", "part", "port"]
    owner: str
    start: str
    end: str
    start_kpa: list[float | None]
    end_kpa: list[float | None]
    flow_lph: list[float | None]


@dataclass(frozen=True, slots=True)
class LineFlows:
    """Every mode of every circuit.

    Attributes
    ----------
    unsettled, unfed : list of int
        Modes without an answer, and those in which more is drawn than can come.
    loose : list of str
        Parts of circuits that no tank is joined to.
    beyond : dict of str to list of int
        Modes in which a pump's card doesn't reach.
    """

    connections: list[Pressures]
    runs: list[RunFlow]
    parts: list[PartFlow]
    pieces: list[Piece]
    unsettled: list[int]
    unfed: list[int]
    loose: list[str]
    beyond: dict[str, list[int]]

    def kpa(self, part: str, port: str) -> list[float | None] | None:
        """Pressure at a connection; None where nothing is known of it."""
        return next((one.kpa for one in self.connections if (one.part, one.port) == (part, port)), None)

    def run(self, name: str) -> RunFlow | None:
        """One run's flows."""
        return next((one for one in self.runs if one.id == name), None)

    def part(self, name: str) -> PartFlow | None:
        """One part's flows."""
        return next((one for one in self.parts if one.id == name), None)


def line_flows(
    lines: Lines,
    found: Sequence[Circuit],
    places: LinePlaces,
    tank: Mapping[str, TankPort],
    modes: Sequence[Mode],
    loaded: Sequence[bool] = (),
    *,
    drawn: bool = True,
) -> LineFlows:
    """Flows and pressures of the whole line.

    Parameters
    ----------
    lines : Lines
        Parts and runs.
    found : sequence of Circuit
        What hangs together.
    places : LinePlaces
        Lengths and heights.
    tank : mapping of str to TankPort
        Where it meets the tank.
    modes : sequence of Mode
        What runs and what is drawn.
    loaded : sequence of bool
        In which modes filters are as they are when they are due for a swap; empty: in none.
    drawn : bool
        Whether engines draw.

    Returns
    -------
    LineFlows
        Of each circuit that a tank is joined to.

    References
    ----------
    As for `keel.network.solve.settle` and the elements' own.
    """
    whole = LineFlows([], [], [], [], [], [], [], {})
    for circuit in found:
        made = assemble(lines, circuit, places, tank, modes, loaded)
        if not made.elements:
            continue
        if not drawn:
            made.drawn.clear()
        if not made.held:
            whole.loose.extend(circuit.parts)
            continue
        settled, moved = _with_jets(made)
        _collect(whole, lines, circuit, made, settled, moved)
    return replace(whole, unsettled=sorted(set(whole.unsettled)), unfed=sorted(set(whole.unfed)))


def _with_jets(made: Assembly) -> tuple[Settled, dict[str, Array]]:
    """Settled with what jet pumps move, which follows from what drives them."""
    settled = settle(made.network())
    moved: dict[str, Array] = {}
    is_drawn_on = False
    for name, jet in made.jets.items():
        across = settled.pressures_kpa[f"{name}.drive"] - settled.pressures_kpa[f"{name}.out"]
        driving = np.maximum(settled.flows_lph[name], 0.0)
        moved[name] = np.where(across > jet.least_kpa, jet.ratio * driving, 0.0)
        for port, way in (("out", -1.0), ("suction", 1.0)):
            joint = f"{name}.{port}"
            if joint in settled.pressures_kpa and joint not in made.held and moved[name].any():
                is_drawn_on = True
                made.drawn[joint] = made.drawn.get(joint, 0.0) + way * moved[name]
    return (settle(made.network(), near=settled) if is_drawn_on else settled), moved


def _collect(
    whole: LineFlows, lines: Lines, circuit: Circuit, made: Assembly, settled: Settled, moved: Mapping[str, Array]
) -> None:
    """A circuit's answer, as the drawing and the findings read it."""
    good = settled.is_settled & settled.is_fed
    said = {joint: _listed(kpa, good) for joint, kpa in settled.pressures_kpa.items()}
    none: list[float | None] = [None] * len(good)
    for (part, port), joint in made.gauges.items():
        if joint in said:
            whole.connections.append(Pressures(part, port, said[joint]))
    pipes = {one.id: one for one in made.elements}
    for run in lines.runs:
        pipe = pipes.get(f"run.{run.id}")
        if run.id not in circuit.runs or pipe is None:
            continue
        flow = settled.flows_lph[pipe.id]
        speed = velocity(flow, np.array(run.bore_mm))
        start, end = said.get(pipe.start, none), said.get(pipe.end, none)
        whole.runs.append(RunFlow(run.id, _listed(flow, good), _listed(speed, good), start, end))
    for name in [*circuit.parts, TANK]:
        if name in settled.flows_lph:
            more = _listed(moved[name], good) if name in moved else none
            whole.parts.append(PartFlow(name, _listed(settled.flows_lph[name], good), more))
        elif f"{name}.stored" in settled.flows_lph:
            stored = settled.flows_lph[f"{name}.stored"]
            through = settled.flows_lph.get(f"{name}.overflow", np.zeros_like(stored))
            whole.parts.append(PartFlow(name, _listed(through, good), _listed(stored, good)))
    for one in made.elements:
        of, owner = _owner(one.id)
        ends = said[one.start], said[one.end]
        whole.pieces.append(Piece(of, owner, one.start, one.end, *ends, _listed(settled.flows_lph[one.id], good)))
    whole.beyond.update(made.beyond)
    whole.unsettled.extend(int(n) for n in np.flatnonzero(~settled.is_settled))
    whole.unfed.extend(int(n) for n in np.flatnonzero(settled.is_settled & (~settled.is_fed | settled.is_dry)))


def _owner(element: str) -> tuple[Literal["run", "part", "port"], str]:
    """Whose element it is, by its name."""
    first, _, rest = element.partition(".")
    if first == "run":
        return "run", rest
    return ("port", rest) if first == "port" else ("part", first)


def _listed(values: Array, good: NDArray[np.bool_]) -> list[float | None]:
    known = good & np.isfinite(values)
    return [float(value) if well else None for value, well in zip(values, known, strict=True)]


def both_flows(
    lines: Lines,
    found: Sequence[Circuit],
    places: LinePlaces,
    tank: Mapping[str, TankPort],
    modes: Sequence[Mode],
) -> tuple[LineFlows, LineFlows]:
    """With every filter clean, and with every one as it is when it is due for a swap: settled at once."""
    count = len(modes)
    twice = line_flows(lines, found, places, tank, [*modes, *modes], [False] * count + [True] * count)
    return _part_of(twice, slice(0, count)), _part_of(twice, slice(count, 2 * count))


def _part_of(flows: LineFlows, span: slice) -> LineFlows:
    """Some of the modes of an answer."""

    def cut(one: T) -> T:
        values = {name: getattr(one, name) for name in one.__slots__}
        lists: dict[str, Any] = {name: value[span] for name, value in values.items() if isinstance(value, list)}
        return replace(one, **lists)

    def within(places: Sequence[int]) -> list[int]:
        return [n - span.start for n in places if span.start <= n < span.stop]

    return LineFlows(
        connections=[cut(one) for one in flows.connections],
        runs=[cut(one) for one in flows.runs],
        parts=[cut(one) for one in flows.parts],
        pieces=[cut(one) for one in flows.pieces],
        unsettled=within(flows.unsettled),
        unfed=within(flows.unfed),
        loose=flows.loose,
        beyond={part: within(places) for part, places in flows.beyond.items() if within(places)},
    )


def clean(both: tuple[LineFlows, LineFlows]) -> LineFlows:
    """With every filter clean."""
    return both[0]


def due(both: tuple[LineFlows, LineFlows]) -> LineFlows:
    """With every filter as it is when it is due for a swap."""
    return both[1]


@dataclass(frozen=True, slots=True)
class Stopped:
    """What is left in modes in which more is drawn than can come: the engine stops, and draws nothing any more.

    Attributes
    ----------
    modes : list of int
        Which modes; the figures of the runs are in their order.
    """

    modes: list[int]
    runs: list[RunFlow]


def stopped(
    flows: LineFlows,
    lines: Lines,
    found: Sequence[Circuit],
    places: LinePlaces,
    tank: Mapping[str, TankPort],
    modes: Sequence[Mode],
) -> Stopped:
    """The line once its engine has stopped.

    Parameters
    ----------
    flows : LineFlows
        In which modes it does.
    lines, found, places, tank, modes
        As for `line_flows`.

    Returns
    -------
    Stopped
        To be looked at: nothing is judged by it.
    """
    if not flows.unfed:
        return Stopped([], [])
    still = line_flows(lines, found, places, tank, [modes[place] for place in flows.unfed], drawn=False)
    return Stopped(flows.unfed, still.runs)


BOTH_FLOWS = study(both_flows, LINES_WIRED, CIRCUITS, LINE_PLACES, TANK_PORTS, LINE_MODES)
FLOWS = study(clean, BOTH_FLOWS)
LOADED_FLOWS = study(due, BOTH_FLOWS)
STOPPED = study(stopped, FLOWS, LINES_WIRED, CIRCUITS, LINE_PLACES, TANK_PORTS, LINE_MODES).at_rest()
