"""The pin table: every terminal with its wires, and what each of them feeds or leads back from."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass

from keel.analysis.parts import LINES, WIRING
from keel.analysis.study import study
from keel.design.lines import Lines
from keel.design.wiring import TERMINALS, Wire, WireEnd, Wiring, terminals_of
from keel.studies.wiring.runs import WIRE_RUNS, WireRuns
from keel.studies.wiring.wired import WIRED, Wired


@dataclass(frozen=True, slots=True)
class PinWire:
    """A wire at a terminal: its number, colour, size, and where its other end is."""

    id: str
    name: str
    colour: str
    area_mm2: float
    other: str


@dataclass(frozen=True, slots=True)
class Pin:
    """A terminal.

    Attributes
    ----------
    of, id, name, kind, terminal : str
        Which one.
    marking : str
        What is printed there, where that differs.
    wires : list of PinWire
        What is joined to it; empty: nothing.
    feeds : list of str
        Loads whose current comes through it, by name.
    current_a : float or None
        The most in any of its wires; None where nobody knows.
    """

    of: str
    id: str
    name: str
    kind: str
    terminal: str
    marking: str
    wires: list[PinWire]
    feeds: list[str]
    current_a: float | None


def pins(wiring: Wiring, lines: Lines, runs: WireRuns, figures: Wired) -> list[Pin]:
    """Every terminal of everything that wires are joined to.

    Parameters
    ----------
    wiring : Wiring
        Devices and wires.
    lines : Lines
        Pumps that nothing is joined to yet stand there too.
    runs : WireRuns
        What there is.
    figures : Wired
        Sizes and currents.

    Returns
    -------
    list of Pin
        Device by device, then pumps, then senders that are joined.
    """
    markings = {device.id: device.marking for device in wiring.devices}
    wanted = {end.id for wire in wiring.wires for end in (wire.start, wire.end) if end.of == "sender"}
    wanted |= {part.id for part in lines.parts}
    found = []
    for thing in runs.joined:
        if thing.of != "device" and thing.id not in wanted:
            continue
        device = wiring.device(thing.id) if thing.of == "device" else None
        for name in terminals_of(device.does) if device else TERMINALS[thing.of]:
            wires = [wire for wire in wiring.wires if _is_at(wire, thing.of, thing.id, name)]
            mark = markings.get(thing.id, "") if device else ""
            shown = [_pin_wire(wire, thing.of, thing.id, name, runs, figures) for wire in wires]
            feeds, current = _through(wires, figures)
            found.append(Pin(thing.of, thing.id, thing.name, thing.kind, name, mark, shown, feeds, current))
    return found


def _is_at(wire: Wire, of: str, name: str, terminal: str) -> bool:
    return any((end.of, end.id, end.terminal) == (of, name, terminal) for end in (wire.start, wire.end))


def _pin_wire(wire: Wire, of: str, name: str, terminal: str, runs: WireRuns, figures: Wired) -> PinWire:
    here = (wire.start.of, wire.start.id, wire.start.terminal) == (of, name, terminal)
    known = figures.wire(wire.id)
    other = end_text(wire.end if here else wire.start, runs)
    return PinWire(wire.id, wire.name, wire.colour, known.area_mm2 if known else wire.area_mm2 or 0.0, other)


def end_text(end: WireEnd, runs: WireRuns) -> str:
    """Where a wire's end is joined, in words.

    Parameters
    ----------
    end : WireEnd
        One end.
    runs : WireRuns
        What there is.

    Returns
    -------
    str
        The thing and its terminal.
    """
    thing = runs.at(end)
    name = thing.name if thing else f"'{end.id}', which isn't there"
    if end.terminal in ("earth", "joint"):
        return name
    pin = "pin " if thing is not None and thing.kind == "connector" else ""
    return f"{name}: {pin}{end.terminal}".replace(" -", " \N{MINUS SIGN}")


def _through(wires: Sequence[Wire], figures: Wired) -> tuple[list[str], float | None]:
    known = [one for wire in wires if (one := figures.wire(wire.id)) is not None]
    names = {load.key: load.name if load.kind != "coil" else f"coil of {load.name}" for load in figures.loads}
    feeds = list(dict.fromkeys(names[key] for one in known for key in one.loads if key in names))
    if any(one.current_a is None for one in known):
        return feeds, None
    return feeds, max((one.current_a or 0.0 for one in known), default=0.0)


@dataclass(frozen=True, slots=True)
class WireLabel:
    """One label: two are made of each wire, one an end.

    Attributes
    ----------
    wire, colour : str
        Its number and colour.
    here, there : str
        Where this end and the other one go.
    feeds : str
        What it is for.
    """

    wire: str
    colour: str
    area_mm2: float
    here: str
    there: str
    feeds: str


def wire_labels(wiring: Wiring, runs: WireRuns, figures: Wired) -> list[WireLabel]:
    """Labels for both ends of every wire.

    Parameters
    ----------
    wiring : Wiring
        Wires.
    runs : WireRuns
        What they are joined to.
    figures : Wired
        Their sizes, what they feed.

    Returns
    -------
    list of WireLabel
        Wire by wire, its start first.
    """
    return [label for wire in wiring.wires for label in _labels(wire, runs, figures)]


def _labels(wire: Wire, runs: WireRuns, figures: Wired) -> Iterator[WireLabel]:
    feeds, _ = _through([wire], figures)
    known = figures.wire(wire.id)
    area = known.area_mm2 if known else 0.0
    ends = end_text(wire.start, runs), end_text(wire.end, runs)
    for here, there in (ends, ends[::-1]):
        yield WireLabel(wire.name, wire.colour, area, here, there, ", ".join(feeds))


PINS = study(pins, WIRING, LINES, WIRE_RUNS, WIRED)
WIRE_LABELS = study(wire_labels, WIRING, WIRE_RUNS, WIRED)
