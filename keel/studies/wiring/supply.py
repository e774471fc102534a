"""What every pump is fed by: how much of the voltage is lost on the way, in which modes it is on, what stops it."""

from collections.abc import Sequence
from dataclasses import dataclass
from math import ceil

from keel.analysis.parts import LINES, WIRING
from keel.analysis.study import study
from keel.design.line_functions import PumpDoes
from keel.design.lines import Lines
from keel.design.wiring import CutOffDoes, Wiring
from keel.studies.lines.modes import MODES_ASKED, Mode
from keel.studies.wiring.state import Case, state_of
from keel.studies.wiring.wired import WIRED, Wired

CAN_FAIL = (
    "fuse", "relay", "cut-off", "switch", "changeover switch", "controller", "connector", "splice", "earth point",
)  # fmt: skip
STEP_OHM, STEP_V = 0.0005, 0.005
"""What is lost counts in steps, upward: no crimp is known better, and the line isn't settled anew for a millimetre."""


@dataclass(frozen=True, slots=True)
class Link:
    """Something that a pump's current, or its relay's, has to come through."""

    id: str
    name: str
    kind: str
    minutes: float | None


@dataclass(frozen=True, slots=True)
class PumpSwitching:
    """When a pump is on.

    Attributes
    ----------
    on : list of bool
        Mode by mode.
    through : list of Link
        Each of which stops it alone.
    """

    id: str
    on: list[bool]
    through: list[Link]


@dataclass(frozen=True, slots=True)
class PumpSupply:
    """A pump as it is wired.

    Attributes
    ----------
    is_whole : bool
        Both its ways are there, with everything closed.
    loop_ohm, others_v : float
        Resistance of its way, and what others' currents take on it.
    on : list of bool
        Whether it is on, mode by mode.
    through : list of Link
        Each of which stops it alone.
    """

    id: str
    name: str
    is_whole: bool
    loop_ohm: float
    others_v: float
    on: list[bool]
    through: list[Link]


def pump_switching(wiring: Wiring, modes: Sequence[Mode]) -> list[PumpSwitching]:
    """When every pump that is wired is on, and what stops it: as long as wires only change in length, the same.

    Parameters
    ----------
    wiring : Wiring
        Devices and wires.
    modes : sequence of Mode
        What is drawn, and the manifold's pressure: staged outputs go by them.

    Returns
    -------
    list of PumpSwitching
        In the order of their ids.
    """
    most = max((mode.draws_lph for mode in modes), default=0.0)
    states = [state_of(wiring, Case(draw=_share(mode, most), manifold_kpa=mode.manifold_kpa)) for mode in modes]
    devices = [device for device in wiring.devices if device.does.kind in CAN_FAIL]
    lost = {device.id: stopped_by(wiring, [device.id]) for device in devices}
    return [
        PumpSwitching(
            id=pump,
            on=[state.drives("pump", pump) for state in states],
            through=[
                Link(device.id, device.name, device.does.kind, getattr(device.does, "minutes_to_replace", None))
                for device in devices
                if pump in lost[device.id]
            ],
        )
        for pump in sorted(_wired_pumps(wiring))
    ]


def pump_supplies(switched: Sequence[PumpSwitching], figures: Wired, lines: Lines) -> list[PumpSupply]:
    """Every pump that is wired.

    Parameters
    ----------
    switched : sequence of PumpSwitching
        When it is on, and what stops it.
    figures : Wired
        Resistances of the wiring.
    lines : Lines
        Pumps.

    Returns
    -------
    list of PumpSupply
        A pump that no wire is joined to isn't among them: nothing is known of it.
    """
    switching = {one.id: one for one in switched}
    return [
        PumpSupply(
            id=part.id,
            name=part.name,
            is_whole=load.is_fed and load.is_earthed,
            loop_ohm=_up(load.loop_ohm or 0.0, STEP_OHM),
            others_v=_up(load.others_v or 0.0, STEP_V),
            on=switching[part.id].on,
            through=switching[part.id].through,
        )
        for part in lines.parts
        if isinstance(part.does, PumpDoes) and (load := figures.load("pump", part.id)) is not None
    ]


def _up(value: float, step: float) -> float:
    return ceil(value / step - 1e-9) * step


def _share(mode: Mode, most_lph: float) -> float:
    if mode.share is not None:
        return mode.share
    return mode.draws_lph / most_lph if most_lph > 0 else 0.0


def stopped_by(wiring: Wiring, out: Sequence[str]) -> set[str]:
    """Pumps that are fed with everything whole, and aren't any more when some devices are out.

    Parameters
    ----------
    wiring : Wiring
        Devices and wires.
    out : sequence of str
        What is out.

    Returns
    -------
    set of str
        Pumps by id; of one behind a changeover switch at whichever way feeds it.
    """
    gone = set[str]()
    for pump in _wired_pumps(wiring):
        before = [changed for changed in (False, True) if state_of(wiring, Case(changed=changed)).drives("pump", pump)]
        still = any(state_of(wiring, Case(out=out, changed=changed)).drives("pump", pump) for changed in before)
        if before and not still:
            gone.add(pump)
    return gone


def _wired_pumps(wiring: Wiring) -> set[str]:
    return {end.id for wire in wiring.wires for end in (wire.start, wire.end) if end.of == "pump"}


@dataclass(frozen=True, slots=True)
class Stopping:
    """What stops a pump when it should.

    Attributes
    ----------
    in_crash, without_engine : list of str
        Cut-offs each of which stops it in a crash, and when the engine stands, by name; empty: nothing does.
    primes : list of str
        How it runs before the engine does, where something stops it then.
    by_controller : list of str
        Controllers that it is on by: they see the engine stand.
    """

    id: str
    name: str
    in_crash: list[str]
    without_engine: list[str]
    primes: list[str]
    by_controller: list[str]


def stoppings(wiring: Wiring, supplies: Sequence[PumpSupply]) -> list[Stopping]:
    """What stops the pumps in a crash or a stall.

    Parameters
    ----------
    wiring : Wiring
        Cut-offs among its devices.
    supplies : sequence of PumpSupply
        What each pump's current comes through.

    Returns
    -------
    list of Stopping
        Of pumps that are wired whole.
    """
    cut_offs = {device.id: device for device in wiring.devices if isinstance(device.does, CutOffDoes)}
    found = []
    for supply in supplies:
        if not supply.is_whole:
            continue
        mine = [cut_offs[link.id] for link in supply.through if link.id in cut_offs]
        does = [(device.name, device.does) for device in mine if isinstance(device.does, CutOffDoes)]
        engine = [(name, one) for name, one in does if one.opens != "in a crash"]
        found.append(
            Stopping(
                id=supply.id,
                name=supply.name,
                in_crash=[name for name, one in does if one.opens == "in a crash"],
                without_engine=[name for name, _ in engine],
                primes=[one.primes for _, one in engine if one.primes],
                by_controller=[link.name for link in supply.through if link.kind == "controller"],
            )
        )
    return found


PUMP_SWITCHING = study(pump_switching, WIRING, MODES_ASKED)
PUMP_SUPPLIES = study(pump_supplies, PUMP_SWITCHING, WIRED, LINES).by_value()
STOPPINGS = study(stoppings, WIRING, PUMP_SUPPLIES)
