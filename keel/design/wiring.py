"""Wiring: what current comes from, passes and feeds, the wires between, and the straps that bond metal."""

from typing import Annotated, Literal

from pydantic import Field, model_validator

from keel.design.base import Coordinate, Gap, Length, Name, Part, refuse
from keel.design.features import Id
from keel.design.lines import MOST_CORNERS, RunCorner
from keel.reference.wires import InsulationName

MOST_DEVICES, MOST_WIRES, MOST_BONDS, MOST_OUTPUTS, MOST_PINS = 40, 80, 20, 4, 12
Ampere = Annotated[float, Field(gt=0, le=500)]
Area = Annotated[float, Field(ge=0.2, le=120)]
Stands = Literal["outside", "in the tank's wall", "in the tank"]


class BatteryDoes(Part):
    """Where current comes from, alternator and battery as one."""

    kind: Literal["battery"] = "battery"


class EarthDoes(Part):
    """A bolt on the chassis."""

    kind: Literal["earth point"] = "earth point"


class FuseDoes(Part):
    """A fuse or a breaker."""

    kind: Literal["fuse"] = "fuse"
    rating_a: Ampere | None = Field(default=None, description="Rating [A]; empty: by what it feeds")
    minutes_to_replace: Annotated[float, Field(gt=0, le=10_000)] | None = Field(
        default=None, description="To replace it where it is [min]"
    )


class RelayDoes(Part):
    """Its coil closes its contact."""

    kind: Literal["relay"] = "relay"
    rating_a: Ampere = Field(default=30, description="What its contact may carry [A]")
    coil_a: Ampere = Field(default=0.15, description="What its coil draws [A]")
    minutes_to_replace: Annotated[float, Field(gt=0, le=10_000)] | None = Field(
        default=None, description="To replace it where it is [min]"
    )


class CutOffDoes(Part):
    """Opens by itself in a crash, or when the engine stands."""

    kind: Literal["cut-off"] = "cut-off"
    opens: Literal["in a crash", "without oil pressure", "when the engine stands"] = Field(
        default="in a crash", description="When it opens"
    )
    rating_a: Ampere = Field(default=10, description="What its contact may carry [A]")
    primes: Annotated[str, Field(max_length=120)] = Field(
        default="", description="How the pumps run before the engine does: the starter's signal, a button"
    )


class SwitchDoes(Part):
    """A switch that people press, or the ignition's."""

    kind: Literal["switch"] = "switch"
    rating_a: Ampere = Field(default=10, description="What its contact may carry [A]")


class ChangeoverDoes(Part):
    """A switch that feeds one thing or another."""

    kind: Literal["changeover switch"] = "changeover switch"
    rating_a: Ampere = Field(default=10, description="What its contact may carry [A]")


class LampDoes(Part):
    """A lamp that says something."""

    kind: Literal["lamp"] = "lamp"
    current_a: Ampere = Field(default=0.2, description="What it draws [A]")
    means: Annotated[str, Field(max_length=120)] = Field(default="", description="What it says when it is lit")


class LevelSwitchDoes(Part):
    """A float that closes or opens a contact at a level."""

    kind: Literal["level switch"] = "level switch"
    closes: Literal["below its level", "above its level"] = "below its level"
    height_mm: Gap | None = Field(
        default=None, description="Level at which it switches, over the tank's inner floor [mm]; empty: not set"
    )
    tank: Id | None = Field(default=None, description="Surge tank of the line that it is in; empty: this tank")
    rating_a: Ampere = Field(default=0.5, description="What its contact may carry [A]")


class StagedOutput(Part):
    """One of a controller's outputs, and from when on it is on."""

    switches: Literal["feed", "earth"] = Field(default="feed", description="Gives feed, or joins to earth")
    rating_a: Ampere = Field(default=10, description="What it may carry [A]")
    from_draw: Annotated[float, Field(ge=0, le=1)] | None = Field(
        default=None, description="On from that share of the fuel at full power; empty: always"
    )
    from_manifold_kpa: Annotated[float, Field(ge=-101, le=500)] | None = Field(
        default=None, description="On from that pressure in the manifold, over the air's [kPa]; empty: always"
    )


class ControllerDoes(Part):
    """An engine control unit or a pump controller."""

    kind: Literal["controller"] = "controller"
    current_a: Ampere = Field(default=1, description="What it draws itself [A]")
    outputs: Annotated[tuple[StagedOutput, ...], Field(min_length=1, max_length=MOST_OUTPUTS, strict=False)] = (
        StagedOutput(),
    )


class ConnectorDoes(Part):
    """A plug with its socket: what is joined to a pin is joined together."""

    kind: Literal["connector"] = "connector"
    pins: Annotated[int, Field(ge=1, le=MOST_PINS)] = Field(default=2, description="Pins")
    rating_a: Ampere = Field(default=15, description="What a pin may carry [A]")
    contact_mohm: Annotated[float, Field(ge=0, le=1000)] = Field(
        default=5, description="Of a pair of pins, plug and socket [mΩ]"
    )


class SpliceDoes(Part):
    """Wires joined to each other without a plug."""

    kind: Literal["splice"] = "splice"


class GaugeDoes(Part):
    """The instrument that a sender moves."""

    kind: Literal["gauge"] = "gauge"
    current_a: Ampere = Field(default=0.2, description="What it draws [A]")


class LoadDoes(Part):
    """Something else that is fed."""

    kind: Literal["other load"] = "other load"
    current_a: Ampere = Field(default=1, description="What it draws [A]")


DeviceDoes = Annotated[
    BatteryDoes
    | EarthDoes
    | FuseDoes
    | RelayDoes
    | CutOffDoes
    | SwitchDoes
    | ChangeoverDoes
    | LampDoes
    | LevelSwitchDoes
    | ControllerDoes
    | ConnectorDoes
    | SpliceDoes
    | GaugeDoes
    | LoadDoes,
    Field(discriminator="kind"),
]
TERMINALS: dict[str, tuple[str, ...]] = {
    "battery": ("+", "-"),
    "earth point": ("earth",),
    "relay": ("coil +", "coil -", "in", "out"),
    "changeover switch": ("in", "a", "b"),
    "lamp": ("+", "-"),
    "splice": ("joint",),
    "gauge": ("+", "-", "sender"),
    "other load": ("+", "-"),
    "pump": ("+", "-"),
    "sender": ("signal", "-"),
}
"""Where wires are joined, by kind; of other kinds an inlet and an outlet."""


def terminals_of(does: DeviceDoes) -> tuple[str, ...]:
    """Where wires can be joined to a device.

    Parameters
    ----------
    does : DeviceDoes
        What it does.

    Returns
    -------
    tuple of str
        In the order in which they are shown.
    """
    if isinstance(does, ConnectorDoes):
        return tuple(str(pin) for pin in range(1, does.pins + 1))
    if isinstance(does, ControllerDoes):
        return ("+", "-", *(f"out {n}" for n in range(1, len(does.outputs) + 1)))
    return TERMINALS.get(does.kind, ("in", "out"))


class Device(Part):
    """One thing that current comes from, passes or feeds, beside pumps and senders. In the axes of the bay."""

    id: Id
    name: Name
    does: DeviceDoes
    x_mm: Coordinate = 0
    y_mm: Coordinate = 0
    z_mm: Coordinate = 0
    stands: Stands = Field(default="outside", description="Outside the tank, in its wall, or in it")
    sealed: bool = Field(default=False, description="No spark inside it reaches vapour, by its maker's word")
    marking: Annotated[str, Field(max_length=120)] = Field(
        default="", description="What is printed at its terminals, where that differs"
    )
    price: Annotated[float, Field(ge=0, le=1e6)] | None = Field(default=None, description="As bought")


Of = Literal["device", "pump", "sender"]


class WireEnd(Part):
    """Where a wire is joined."""

    of: Of = Field(default="device", description="A device here, a pump at Lines, a sender at Gauge")
    id: Id
    terminal: Annotated[str, Field(min_length=1, max_length=20)]


class Wire(Part):
    """A wire."""

    id: Id
    name: Name = Field(description="Its number, as it is printed on its labels")
    start: WireEnd
    end: WireEnd
    area_mm2: Area | None = Field(default=None, description="Copper [mm²]; empty: by current, length and drop")
    colour: Annotated[str, Field(max_length=30)] = ""
    insulation: InsulationName = "cross-linked polyethylene"
    along: Annotated[tuple[Id, ...], Field(max_length=8, strict=False)] = Field(
        default=(), description="Hoses and tubes that it is tied to, from its start on"
    )
    corners: Annotated[tuple[RunCorner, ...], Field(max_length=MOST_CORNERS, strict=False)] = ()
    length_mm: Length | None = Field(default=None, description="One way [mm]; empty: along its way, and its spare")
    air_c: Annotated[float, Field(ge=-40, le=180)] = Field(default=50, description="Warmest place on its way [°C]")
    supported: bool | None = Field(
        default=None, description="Tied so that nothing hangs on its ends, and nothing rubs it; empty: not looked at"
    )
    grommets: bool = Field(default=True, description="In a grommet wherever it goes through sheet")


class Bond(Part):
    """A strap or a wire that keeps two pieces of metal at the same potential, past rubber between them."""

    id: Id
    name: Name
    start: Annotated[str, Field(min_length=1, max_length=60)] = Field(
        description="'tank', 'chassis', a filler's neck, a port's part, a part of the line, by its name in the list"
    )
    end: Annotated[str, Field(min_length=1, max_length=60)]
    area_mm2: Area = Field(default=6, description="Copper [mm²]")
    length_mm: Length | None = Field(default=None, description="One way [mm]; empty: not measured")


class Wiring(Part):
    """Current to the pumps, signals of the senders, bonds."""

    devices: Annotated[tuple[Device, ...], Field(max_length=MOST_DEVICES, strict=False)] = ()
    wires: Annotated[tuple[Wire, ...], Field(max_length=MOST_WIRES, strict=False)] = ()
    bonds: Annotated[tuple[Bond, ...], Field(max_length=MOST_BONDS, strict=False)] = ()

    @model_validator(mode="after")
    def _ids_differ(self) -> "Wiring":
        for kind in ("devices", "wires", "bonds"):
            seen: set[str] = set()
            for place, one in enumerate(getattr(self, kind)):
                if one.id in seen:
                    refuse(
                        f"the id '{one.id}' is taken", field=f"{kind}.{place}.id", value=one.id, limit="each id once"
                    )
                seen.add(one.id)
        return self

    @model_validator(mode="after")
    def _ends_are_there(self) -> "Wiring":
        devices = {device.id: device for device in self.devices}
        for place, wire in enumerate(self.wires):
            for side in ("start", "end"):
                end: WireEnd = getattr(wire, side)
                field = f"wires.{place}.{side}"
                if end.of == "device" and end.id not in devices:
                    refuse(
                        f"{wire.name} is joined to '{end.id}', which isn't there",
                        field=f"{field}.id",
                        value=end.id,
                        limit=f"one of {', '.join(devices) or 'no devices yet'}",
                    )
                known = terminals_of(devices[end.id].does) if end.of == "device" else TERMINALS[end.of]
                if end.terminal not in known:
                    refuse(
                        f"{wire.name} is joined to '{end.terminal}', which isn't a terminal there",
                        field=f"{field}.terminal",
                        value=end.terminal,
                        limit=f"one of {', '.join(known)}",
                    )
            if (wire.start.of, wire.start.id, wire.start.terminal) == (wire.end.of, wire.end.id, wire.end.terminal):
                refuse(
                    f"both ends of {wire.name} are joined to the same terminal",
                    field=f"wires.{place}.end",
                    value=wire.end.terminal,
                    limit="another terminal",
                )
        return self

    def device(self, name: str) -> Device | None:
        """A device by its id; None where there is none."""
        return next((one for one in self.devices if one.id == name), None)
