"""Old to new: where every old line, wire, vapour part and port goes, and which new connection has its partner."""

from collections import Counter
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

from keel.analysis.parts import LINES, PORTS, WIRING
from keel.analysis.study import study
from keel.design.line_functions import ports_of
from keel.design.lines import TANK, Lines
from keel.design.old_things import OldThing
from keel.design.ports import Port
from keel.design.wiring import Wiring

STAYS = ("keep", "move")
WIRE = "wire"
Fault = Literal["", "no fate", "no place", "gone", "taken", "not closed"]


@dataclass(frozen=True, slots=True)
class NewPlace:
    """Somewhere that an old thing can be joined to now: its key, and what people call it."""

    key: str
    name: str


@dataclass(frozen=True, slots=True)
class OldFate:
    """An old thing.

    Attributes
    ----------
    goes_to : str
        Where, in words; empty: nowhere.
    fault : str
        What is still open; empty: nothing.
    """

    id: str
    name: str
    kind: str
    did: str
    fate: str
    goes_to: str
    fault: Fault


@dataclass(frozen=True, slots=True)
class OldMap:
    """All of both. `open`: how many have something open."""

    things: list[OldFate]
    places: list[NewPlace]
    open: int


def old_map(lines: Lines, ports: Sequence[Port], wiring: Wiring) -> OldMap:
    """Every old thing with where it goes.

    Parameters
    ----------
    lines : Lines
        Old things, new parts and runs.
    ports : sequence of Port
        The new tank's.
    wiring : Wiring
        New wires: an old one may go on as one of them.

    Returns
    -------
    OldMap
        One place takes one old thing, and none where a new run is joined already.
    """
    joints = [(part, name) for part in lines.parts for name in ports_of(part.does)]
    places = [
        *(NewPlace(f"{TANK}.{port.id}", f"{port.name} of the tank") for port in ports),
        *(NewPlace(f"{part.id}.{name}", f"{name} of {part.name}") for part, name in joints),
        *(NewPlace(f"{WIRE}.{wire.id}", f"wire {wire.name}") for wire in wiring.wires),
    ]
    names = {place.key: place.name for place in places}
    joined = {f"{end.part}.{end.port}" for run in lines.runs for end in (run.start, run.end)}
    taken = Counter(thing.to for thing in lines.old if thing.fate in STAYS and thing.to)
    things = [_fate(thing, names, joined, taken) for thing in lines.old]
    return OldMap(things, places, sum(1 for one in things if one.fault))


def _fate(thing: OldThing, names: dict[str, str], joined: set[str], taken: Counter[str]) -> OldFate:
    goes_to = names.get(thing.to, thing.to) if thing.fate in STAYS else thing.closed_by if thing.fate == "cap" else ""
    fault = _fault(thing, names, joined, taken)
    return OldFate(thing.id, thing.name, thing.kind, thing.did, thing.fate or "not known yet", goes_to, fault)


def _fault(thing: OldThing, names: dict[str, str], joined: set[str], taken: Counter[str]) -> Fault:
    if thing.fate is None:
        return "no fate"
    if thing.fate == "cap" and not thing.closed_by:
        return "not closed"
    if thing.fate not in STAYS:
        return ""
    if not thing.to:
        return "no place"
    if thing.to not in names:
        return "gone"
    return "taken" if taken[thing.to] > 1 or thing.to in joined else ""


def led_by_old(lines: Lines) -> set[str]:
    """Connections that an old line goes on at: they have their partner.

    Parameters
    ----------
    lines : Lines
        Old things.

    Returns
    -------
    set of str
        As "part.port".
    """
    return {thing.to for thing in lines.old if thing.fate in STAYS and thing.to}


OLD_MAP = study(old_map, LINES, PORTS, WIRING)
