"""What of the wiring is closed: contacts by what people, crashes, levels and coils make of them."""

from collections.abc import Collection, Iterator, Mapping
from dataclasses import dataclass, field

import networkx as nx

from keel.design.wiring import (
    ChangeoverDoes,
    ControllerDoes,
    CutOffDoes,
    Device,
    EarthDoes,
    FuseDoes,
    LevelSwitchDoes,
    RelayDoes,
    StagedOutput,
    SwitchDoes,
    WireEnd,
    Wiring,
)
from keel.reference.wires import EARTH_OHM, INSIDE_OHM
from keel.wiring.network import Branch, reached

CHASSIS = "chassis"


def terminal(of: str, name: str, where: str) -> str:
    """A terminal's name in the network.

    Parameters
    ----------
    of : str
        Whether of a device, a pump or a sender.
    name : str
        Which one.
    where : str
        Its terminal.

    Returns
    -------
    str
        Unlike every other one's.
    """
    return f"{of}:{name}:{where}"


def end_of(end: WireEnd) -> str:
    """The terminal that a wire's end is joined to.

    Parameters
    ----------
    end : WireEnd
        One end of a wire.

    Returns
    -------
    str
        Its name in the network.
    """
    return terminal(end.of, end.id, end.terminal)


@dataclass(frozen=True)
class Case:
    """What the wiring is looked at in.

    Attributes
    ----------
    out : collection of str
        Devices that pass nothing: blown, stuck, tripped.
    changed : bool
        Changeover switches stand at their second way.
    draw, manifold_kpa : float or None
        By which staged outputs are on; None: all are.
    """

    out: Collection[str] = ()
    changed: bool = False
    draw: float | None = None
    manifold_kpa: float | None = None


@dataclass(frozen=True)
class State:
    """What is closed.

    Attributes
    ----------
    branches : list of Branch
        Wires and closed contacts; a wire's name is its id.
    fed, earthed : set of str
        Terminals that are joined to the battery's + and to its -.
    """

    branches: list[Branch]
    fed: set[str]
    earthed: set[str]
    poles: tuple[str, str] | None = None

    def drives(self, of: str, name: str, plus: str = "+", minus: str = "-") -> bool:
        """Whether something is joined to both poles."""
        return terminal(of, name, plus) in self.fed and terminal(of, name, minus) in self.earthed

    def unfused_mm(self, lengths_mm: Mapping[str, float]) -> dict[str, float]:
        """How much wire without a fuse there is from the battery's + to each terminal that is reached by such [mm]."""
        if self.poles is None:
            return {}
        graph: nx.MultiGraph[str] = nx.MultiGraph()
        graph.add_node(self.poles[0])
        for one in self.branches:
            if one.fuse_a is None:
                graph.add_edge(one.start, one.end, long=lengths_mm.get(one.id, 0.0))
        found: dict[str, float] = nx.single_source_dijkstra_path_length(graph, self.poles[0], weight="long")
        return found


@dataclass(frozen=True)
class Wires:
    """Resistance of each wire [Ω] and rating of each fuse [A], by id; without them only ways are looked for."""

    ohm: Mapping[str, float] = field(default_factory=dict)
    fuse_a: Mapping[str, float | None] = field(default_factory=dict)


def state_of(wiring: Wiring, case: Case | None = None, wires: Wires | None = None) -> State:
    """What is closed in a case.

    Parameters
    ----------
    wiring : Wiring
        Devices and wires.
    case : Case, optional
        What is out and which outputs are on; by default everything is whole and on.
    wires : Wires, optional
        Resistances and ratings.

    Returns
    -------
    State
        Coils close their contacts until nothing more changes. Level switches count as closed: what they switch is
        judged as lit.
    """
    case, wires = case or Case(), wires or Wires()
    battery = next((device.id for device in wiring.devices if device.does.kind == "battery"), None)
    if battery is None:
        return State([], set(), set())
    poles = terminal("device", battery, "+"), terminal("device", battery, "-")
    branches = [*_wires(wiring, case, wires), *_contacts(wiring, case, wires)]
    closed: set[str] = set()
    while True:
        state = State(branches, reached(branches, [poles[0]]), reached(branches, [poles[1]]), poles)
        more = [device for device in wiring.devices if device.id not in closed and _is_driven(device, state, case)]
        if not more:
            return state
        closed |= {device.id for device in more}
        branches = branches + [branch for device in more for branch in _driven(device, case)]


def _wires(wiring: Wiring, case: Case, wires: Wires) -> Iterator[Branch]:
    """Nothing is joined any more to a plug that is off, or to an earth that is loose."""
    for wire in wiring.wires:
        if not any(end.of == "device" and end.id in case.out for end in (wire.start, wire.end)):
            yield Branch(wire.id, end_of(wire.start), end_of(wire.end), wires.ohm.get(wire.id, 0.0))


def _contacts(wiring: Wiring, case: Case, wires: Wires) -> Iterator[Branch]:
    """What is closed without a coil."""
    for device in wiring.devices:
        match device.does:
            case EarthDoes():
                yield Branch(contact(device.id, "earth"), terminal("device", device.id, "earth"), CHASSIS, EARTH_OHM)
            case FuseDoes() if device.id not in case.out:
                yield _through(device, "in", "out", wires.fuse_a.get(device.id))
            case CutOffDoes() | SwitchDoes() | LevelSwitchDoes() if device.id not in case.out:
                yield _through(device, "in", "out")
            case ChangeoverDoes() if device.id not in case.out:
                yield _through(device, "in", "b" if case.changed else "a")


def contact(device: str, end: str) -> str:
    """The name of a device's contact in the network.

    Parameters
    ----------
    device : str
        Which one.
    end : str
        The terminal that it closes to.

    Returns
    -------
    str
        Unlike any wire's: those have no full stop.
    """
    return f".{device}.{end}"


def _through(device: Device, start: str, end: str, fuse_a: float | None = None) -> Branch:
    ends = terminal("device", device.id, start), terminal("device", device.id, end)
    return Branch(contact(device.id, end), *ends, INSIDE_OHM[device.does.kind], fuse_a)


def _is_driven(device: Device, state: State, case: Case) -> bool:
    if device.id in case.out:
        return False
    if isinstance(device.does, RelayDoes):
        return state.drives("device", device.id, "coil +", "coil -")
    return isinstance(device.does, ControllerDoes) and state.drives("device", device.id)


def _driven(device: Device, case: Case) -> Iterator[Branch]:
    """What a coil or a controller closes."""
    if isinstance(device.does, RelayDoes):
        yield _through(device, "in", "out")
    if isinstance(device.does, ControllerDoes):
        for place, output in enumerate(device.does.outputs, start=1):
            if is_on(output, case):
                yield _through(device, "+" if output.switches == "feed" else "-", f"out {place}")


def is_on(output: StagedOutput, case: Case) -> bool:
    """Whether a staged output is on.

    Parameters
    ----------
    output : StagedOutput
        From when on it is.
    case : Case
        What is drawn, and the manifold's pressure.

    Returns
    -------
    bool
        Both have to be reached, where both are set.
    """
    enough = output.from_draw is None or case.draw is None or case.draw >= output.from_draw - 1e-9
    kpa, known = output.from_manifold_kpa, case.manifold_kpa
    return enough and (kpa is None or known is None or known >= kpa - 1e-9)
