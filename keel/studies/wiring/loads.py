"""What draws current: pumps, coils, lamps, gauges, controllers and whatever else is fed."""

from collections.abc import Callable, Sequence
from dataclasses import dataclass
from math import inf

from keel.analysis.parts import LINES, WIRING
from keel.analysis.study import study
from keel.design.line_functions import PumpDoes
from keel.design.lines import Lines
from keel.design.wiring import ControllerDoes, GaugeDoes, LampDoes, LoadDoes, RelayDoes, Wiring
from keel.network.curves import Curve
from keel.studies.wiring.state import terminal

SENDER_A = 0.1
"""A sender's signal, at its least resistance (house rule)."""


@dataclass(frozen=True, slots=True)
class Load:
    """Something that draws current.

    Attributes
    ----------
    key : str
        Unlike every other one's.
    of, id, name, kind : str
        What it is.
    plus, minus : str
        Its terminals in the network.
    current_a : float or None
        The most that it draws; None where nobody knows.
    """

    key: str
    of: str
    id: str
    name: str
    kind: str
    plus: str
    minus: str
    current_a: float | None

    @property
    def drawn_a(self) -> float:
        """The same, nothing where nobody knows."""
        return self.current_a or 0.0


def loads(wiring: Wiring, lines: Lines) -> list[Load]:
    """Everything that draws current.

    Parameters
    ----------
    wiring : Wiring
        Devices.
    lines : Lines
        Pumps: those that wires are joined to.

    Returns
    -------
    list of Load
        Pumps first.
    """
    wired = {end.id for wire in wiring.wires for end in (wire.start, wire.end) if end.of == "pump"}
    found = [
        _load("pump", part.id, part.name, "pump", most_current(part.does))
        for part in lines.parts
        if isinstance(part.does, PumpDoes) and part.id in wired
    ]
    for device in wiring.devices:
        match device.does:
            case LampDoes() | ControllerDoes() | LoadDoes() | GaugeDoes():
                found.append(_load("device", device.id, device.name, device.does.kind, device.does.current_a))
            case RelayDoes():
                ends = ("coil +", "coil -")
                found.append(_load("device", device.id, device.name, "coil", device.does.coil_a, ends))
    return found


def _load(of: str, name: str, shown: str, kind: str, amps: float | None, ends: tuple[str, str] = ("+", "-")) -> Load:
    plus, minus = (terminal(of, name, end) for end in ends)
    return Load(f"{of}:{name}", of, name, shown, kind, plus, minus, amps)


def current_tables(does: PumpDoes) -> list[tuple[float, Curve]]:
    """A pump's current against pressure, by voltage.

    Parameters
    ----------
    does : PumpDoes
        Its card.

    Returns
    -------
    list of (float, Curve)
        Empty where its card has no current at any point: then its running current counts.
    """
    found = []
    for curve in does.curves:
        known = [(point.kpa, point.current_a) for point in curve.points if point.current_a is not None]
        if known:
            found.append((curve.voltage_v, Curve.of([kpa for kpa, _ in known], [amps for _, amps in known])))
    return found


def most_current(does: PumpDoes) -> float | None:
    """The most that a pump draws.

    Parameters
    ----------
    does : PumpDoes
        Its card.

    Returns
    -------
    float or None
        The most on its card, or its running current [A]; None where neither is known.
    """
    amps = [value for _, curve in current_tables(does) for value in curve.values]
    known = [*amps, *([does.current_a] if does.current_a is not None else [])]
    return max(known, default=None)


def current_by_voltage(does: PumpDoes, kpa: float) -> Callable[[float], float | None]:
    """What a pump draws at a pressure, as it depends on the voltage.

    Parameters
    ----------
    does : PumpDoes
        Its card.
    kpa : float
        Across it [kPa].

    Returns
    -------
    callable
        Its current [A] at a voltage [V]. By straight lines between the card's tables; its running current where it has
        none, at any voltage. None beyond the card, and where nothing is known.
    """
    tables = current_tables(does)
    if not tables:
        return lambda volts: does.current_a
    known = Curve.of([voltage for voltage, _ in tables], [curve.at(kpa) for _, curve in tables])
    low, high = known.places[0] - 1e-9, known.places[-1] + 1e-9
    return lambda volts: known.at(volts) if low <= volts <= high else None


def least_voltage(does: PumpDoes) -> float:
    """The lowest that a pump's card knows [V].

    Parameters
    ----------
    does : PumpDoes
        Its card.

    Returns
    -------
    float
        Of its flows and its currents, whichever ends first; infinite without any curve.
    """
    flows = [curve.voltage_v for curve in does.curves]
    amps = [voltage for voltage, _ in current_tables(does)]
    return max(min(flows, default=inf), min(amps, default=-inf))


def all_drawn(found: Sequence[Load]) -> dict[str, float]:
    """What each draws, by its key [A].

    Parameters
    ----------
    found : sequence of Load
        All of them.

    Returns
    -------
    dict of str to float
        Nothing where nobody knows.
    """
    return {load.key: load.drawn_a for load in found}


LOADS = study(loads, WIRING, LINES)
