"""Whether every connection of the network has its mate on the list: asked from the connections, not from the hoses."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass

from keel.analysis.parts import LINES, PORTS
from keel.analysis.study import study
from keel.design.connections import Connection
from keel.design.line_functions import ports_of
from keel.design.lines import TANK, LineRun, Lines
from keel.design.ports import DRAWS, Port
from keel.studies.buying.items import Item
from keel.studies.buying.line_items import LINE_ITEMS
from keel.studies.lines.joints import JOINTS, Joint
from keel.studies.lines.old_map import STAYS
from keel.studies.result import Words, words

LED = (*DRAWS, "return", "transfer", "overflow", "spare", "fitting", "drain")


@dataclass(frozen=True, slots=True)
class Mate:
    """A connection and what goes on it.

    Attributes
    ----------
    part, port : str
        Which connection; of the tank, a port of it.
    has : list of Words
        What is on the list for it.
    why : str
        What is wrong; empty: nothing.
    """

    part: str
    part_name: str
    port: str
    has: list[Words]
    why: str


def mates(lines: Lines, ports: Sequence[Port], items: Sequence[Item], found: Sequence[Joint]) -> list[Mate]:
    """Every connection, part by part, and the tank's ports that lines are led from.

    Parameters
    ----------
    lines : Lines
        Parts and runs.
    ports : sequence of Port
        The tank's.
    items : sequence of Item
        What is on the list, and which connection each is for.
    found : sequence of Joint
        Which ends fit.

    Returns
    -------
    list of Mate
        Those with a reason first.
    """
    if not lines.runs:
        return []
    listed: dict[str, dict[str, Words]] = {}
    for item in items:
        if item.at:
            listed.setdefault(item.at, {})[item.key] = item.name
    runs: dict[tuple[str, str], LineRun] = {}
    for run in lines.runs:
        for end in (run.start, run.end):
            runs[end.part, end.port] = run
    wrong = {(one.part, one.port): one for one in found if not one.fits}
    for thing in lines.old:
        if thing.fate in STAYS and thing.to:
            said = words("old {kind}: {name}", kind=thing.kind, name=thing.name)
            listed.setdefault(thing.to, {})[said.plain()] = said
    shown = [
        _mate(key, name, runs.get(key), one, list(listed.get(f"{key[0]}.{key[1]}", {}).values()), wrong.get(key))
        for key, name, one in _connections(lines, ports)
    ]
    return sorted(shown, key=lambda one: not one.why)


def _connections(lines: Lines, ports: Sequence[Port]) -> Iterator[tuple[tuple[str, str], str, Connection | None]]:
    """Those that are typed, and those that a run is joined to; of the tank, ports that lines are led from.

    A drain that has its plug needs no more.
    """
    joined = {(end.part, end.port) for run in lines.runs for end in (run.start, run.end)}
    for part in lines.parts:
        typed = {one.id: one for one in part.connections}
        led = [name for name in ports_of(part.does) if (part.id, name) in joined]
        for port in dict.fromkeys([*typed, *led]):
            if part.hangs_in is None or (part.id, port) in joined:
                yield (part.id, port), part.name, typed.get(port)
    hung = {part.hangs_in for part in lines.parts}
    for own in ports:
        plugged = own.role == "drain" and bool(own.part) and (TANK, own.id) not in joined
        if own.role in LED and own.id not in hung and not plugged:
            yield (TANK, own.id), own.name, own.connection


def _mate(
    key: tuple[str, str],
    name: str,
    run: LineRun | None,
    one: Connection | None,
    has: list[Words],
    joint: Joint | None,
) -> Mate:
    if joint is not None:
        return Mate(key[0], name, key[1], has, "what is on the list doesn't fit")
    if run is not None and run.kind == "direct":
        return Mate(key[0], name, key[1], has or [words("screwed together: {run}", run=run.name)], "")
    if has:
        return Mate(key[0], name, key[1], has, "")
    if run is not None and one is None:
        return Mate(key[0], name, key[1], [], "its standard and size aren't known")
    if run is not None:
        return Mate(key[0], name, key[1], [], f"nothing on the list for {run.name}")
    return Mate(key[0], name, key[1], [], "open: nothing is joined to it, and no cap is on the list")


MATES = study(mates, LINES, PORTS, LINE_ITEMS, JOINTS)
