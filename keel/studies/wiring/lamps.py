"""Which lamp means what: what lights it, and how much fuel is left then."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass

from keel.analysis.parts import GAUGE, LINES, SOLIDS, WIRING
from keel.analysis.study import study
from keel.design.gauge import Gauge
from keel.design.line_functions import SurgeTankDoes
from keel.design.lines import Lines
from keel.design.wiring import Device, LampDoes, LevelSwitchDoes, Wiring
from keel.solid.solids import Solids
from keel.studies.gauge.column import column_at
from keel.studies.wiring.state import Case, state_of


@dataclass(frozen=True, slots=True)
class Level:
    """A level switch.

    Attributes
    ----------
    tank : str
        Which tank it is in, in words.
    left_l : float or None
        What is in it at its level [L]; None where its level isn't set, or it is in no tank.
    reserve_l : float or None
        What the gauge's lamp is meant for, where it is in this tank.
    """

    id: str
    name: str
    tank: str
    closes: str
    height_mm: float | None
    left_l: float | None
    reserve_l: float | None


@dataclass(frozen=True, slots=True)
class Lamp:
    """A lamp.

    Attributes
    ----------
    means : str
        As it was typed.
    is_whole : bool
        It is joined to both poles when everything is closed.
    by : list of Level
        Level switches each of which puts it out.
    others : list of str
        What else has to be closed, by name.
    """

    id: str
    name: str
    means: str
    is_whole: bool
    by: list[Level]
    others: list[str]


def levels(wiring: Wiring, lines: Lines, gauge: Gauge, solids: Solids) -> list[Level]:
    """Every level switch.

    Parameters
    ----------
    wiring : Wiring
        Devices.
    lines : Lines
        Surge tanks.
    gauge : Gauge
        The reserve.
    solids : Solids
        The tank: litres by the height of the surface.

    Returns
    -------
    list of Level
        Of a surge tank the litres are its volume's share by height.
    """
    return [
        _level(device, device.does, lines, gauge, solids)
        for device in wiring.devices
        if isinstance(device.does, LevelSwitchDoes)
    ]


def _level(device: Device, does: LevelSwitchDoes, lines: Lines, gauge: Gauge, solids: Solids) -> Level:
    part = lines.part(does.tank) if does.tank is not None else None
    left: float | None = None
    if does.height_mm is not None and part is not None and isinstance(part.does, SurgeTankDoes):
        left = part.does.volume_l * min(1.0, does.height_mm / part.long_mm)
    elif does.height_mm is not None and does.tank is None:
        column = column_at(solids, device.x_mm, device.y_mm)
        left = column[1].litres(does.height_mm) if column else None
    name = "this tank" if does.tank is None else part.name if part else f"'{does.tank}', which isn't there"
    reserve = gauge.reserve_l if does.tank is None else None
    return Level(device.id, device.name, name, does.closes, does.height_mm, left, reserve)


def lamps(wiring: Wiring, found: Sequence[Level]) -> list[Lamp]:
    """Every lamp.

    Parameters
    ----------
    wiring : Wiring
        Devices and wires.
    found : sequence of Level
        Level switches.

    Returns
    -------
    list of Lamp
        In the order of the devices.
    """
    whole = state_of(wiring)
    by_id = {level.id: level for level in found}
    shown = []
    for device in wiring.devices:
        if not isinstance(device.does, LampDoes):
            continue
        lit = whole.drives("device", device.id)
        before = list(_before(wiring, device.id)) if lit else []
        shown.append(
            Lamp(
                id=device.id,
                name=device.name,
                means=device.does.means,
                is_whole=lit,
                by=[by_id[one.id] for one in before if one.id in by_id],
                others=[one.name for one in before if one.id not in by_id],
            )
        )
    return shown


def _before(wiring: Wiring, lamp: str) -> Iterator[Device]:
    """Devices that a lamp's current comes through."""
    for device in wiring.devices:
        out = Case(out=(device.id,))
        if device.id != lamp and device.does.kind != "battery" and not state_of(wiring, out).drives("device", lamp):
            yield device


LEVELS = study(levels, WIRING, LINES, GAUGE, SOLIDS)
LAMPS = study(lamps, WIRING, LEVELS)
