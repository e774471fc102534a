"""Every joint of the lines as it is looked at before the engine runs: where it is, and what shows that it holds."""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

import numpy as np

from keel.analysis.parts import LINES, PORTS, SOLIDS, WIRING
from keel.analysis.study import study
from keel.design.lines import TANK, Lines, RunEnd
from keel.design.ports import Port
from keel.design.wiring import ConnectorDoes, Wiring
from keel.solid.solids import Solids
from keel.studies.handover.walking import walking_order
from keel.studies.lines.circuits import CIRCUITS, Circuit
from keel.studies.lines.flows import FLOWS, LineFlows
from keel.studies.lines.joint_places import JOINT_PLACES, JointPlace
from keel.studies.lines.joints import JOINTS, Joint
from keel.studies.lines.places import connection_at
from keel.studies.lines.pushed import PUSHED, Pushed
from keel.studies.result import Point

Mark = Literal["pull", "pushed", "torque"]
"""A pull by hand on it; a line across hose and tube; paint across nut and body, or across the clamp's screw."""


@dataclass(frozen=True, slots=True)
class LineJoint:
    """A joint that is looked at.

    Attributes
    ----------
    id : str
        Its run and side, or the plug.
    circuit : str
        The line that it belongs to, by the first of its ports; empty: a plug of the wiring.
    marks : list of Mark
        What it takes before it counts.
    kpa : float
        Highest pressure in it in any mode of running.
    """

    id: str
    name: str
    circuit: str
    at: Point
    marks: list[Mark]
    kpa: float


@dataclass(frozen=True, slots=True)
class LineHeld:
    """A circuit that is held at its working pressure.

    Attributes
    ----------
    id, name : str
        By its first port, or its first part.
    kpa : float
        Highest working pressure; zero where it has no pump.
    cells : list of str
        Of the tank that it is joined to.
    """

    id: str
    name: str
    kpa: float
    cells: list[str]
    runs: list[str]


@dataclass(frozen=True, slots=True)
class LineProof:
    """What is proved of the lines.

    Attributes
    ----------
    joints : list of LineJoint
        In walking order, from the tank.
    circuits : list of LineHeld
        With fuel in them.
    """

    joints: list[LineJoint]
    circuits: list[LineHeld]


@dataclass(frozen=True, slots=True)
class Placed:
    """Where joints are that can be looked at, what meets there, and which are pushed on."""

    places: list[JointPlace]
    named: list[Joint]
    pushed: list[Pushed]


def line_proof(
    lines: Lines,
    ports: Sequence[Port],
    wiring: Wiring,
    placed: Placed,
    circuits: Sequence[Circuit],
    flows: LineFlows,
    solids: Solids,
) -> LineProof:
    """What is proved of the lines before the engine runs.

    Parameters
    ----------
    lines : Lines
        Runs and parts.
    ports : sequence of Port
        The tank's.
    wiring : Wiring
        Its plugs get a pull too.
    placed : Placed
        Where joints are, and what they are; those in the tank aren't looked at any more.
    circuits : sequence of Circuit
        What hangs together.
    flows : LineFlows
        Pressures, mode by mode.
    solids : Solids
        The tank, from which one sets out.

    Returns
    -------
    LineProof
        Joints in walking order.
    """
    held = [_held(one, lines, ports, flows) for one in circuits if one.runs]
    of_run = {run: one for one in held for run in one.runs}
    kpa = {run.id: _highest(run.id, flows) for run in lines.runs}
    by_end: dict[tuple[str, str], Joint] = {(one.run, one.side): one for one in placed.named}
    pushed = {(one.run, one.side) for one in placed.pushed}
    ends = {(run.id, side): end for run in lines.runs for side, end in (("start", run.start), ("end", run.end))}
    direct = {run.id for run in lines.runs if run.kind == "direct"}
    found = [
        LineJoint(
            id=f"{place.run}.{place.side}",
            name=_name(place, by_end.get((place.run, place.side))),
            circuit=of_run[place.run].id if place.run in of_run else "",
            at=place.at,
            marks=_marks(ends[place.run, place.side], (place.run, place.side) in pushed, lines, ports),
            kpa=kpa[place.run],
        )
        for place in placed.places
        if not (place.run in direct and place.side == "end")
    ]
    found += [
        LineJoint(f"plug.{one.id}", one.name, "", Point(one.x_mm, one.y_mm, one.z_mm), ["pull"], 0.0)
        for one in wiring.devices
        if isinstance(one.does, ConnectorDoes)
    ]
    spots = np.array([[one.at.x, one.at.y, one.at.z] for one in found]).reshape(-1, 3)
    middle = (np.array(solids.bounds.low) + np.array(solids.bounds.high)) / 2
    return LineProof([found[n] for n in walking_order(spots, middle)], held)


def _held(circuit: Circuit, lines: Lines, ports: Sequence[Port], flows: LineFlows) -> LineHeld:
    names = {one.id: one.name for one in lines.parts} | {one.id: one.name for one in ports}
    key = [*circuit.ports, *circuit.parts][0]
    said = f"line {'from' if circuit.ports else 'of'} {names.get(key, key)}"
    return LineHeld(key, said, max(_highest(run, flows) for run in circuit.runs), [*circuit.fuels], circuit.runs)


def _highest(run: str, flows: LineFlows) -> float:
    flow = flows.run(run)
    ends = [*flow.start_kpa, *flow.end_kpa] if flow else []
    return max((one or 0.0 for one in ends), default=0.0)


def _name(place: JointPlace, joint: Joint | None) -> str:
    if joint is None:
        return f"{place.name}, {place.side}"
    port = "" if joint.part == TANK else f" {joint.port}"
    return f"{place.name}, {joint.part_name}{port}"


def _marks(end: RunEnd, is_pushed: bool, lines: Lines, ports: Sequence[Port]) -> list[Mark]:
    """A hose on a tail is pulled and marked, and its clamp; what latches is pulled; what is screwed is marked."""
    if is_pushed:
        return ["pull", "pushed", "torque"]
    on = end.connection or connection_at(end, lines, ports)
    return ["pull"] if on is not None and on.standard == "quick connector" else ["torque"]


PLACED = study(Placed, JOINT_PLACES, JOINTS, PUSHED)
LINE_PROOF = study(line_proof, LINES, PORTS, WIRING, PLACED, CIRCUITS, FLOWS, SOLIDS).at_rest()
