"""Where fuel is drawn, air gets out and fuel comes in; what stands up over the shell there and hangs down in it."""

from collections.abc import Sequence
from typing import Annotated, Literal

from pydantic import Field, model_validator

from keel.design.base import Bore, Coordinate, Gap, Length, Name, Part, refuse
from keel.design.connections import Connection
from keel.design.features import Face, Id
from keel.reference.compatibility import HoseName, SealName

PortRole = Literal["pickup", "vent", "overflow", "filler", "drain", "return", "transfer", "spare", "fitting"]
DRAWS: tuple[PortRole, ...] = ("pickup", "transfer")
"""Ports that fuel is drawn through."""
BREATHES: tuple[PortRole, ...] = ("vent", "overflow")
"""Ports that let air out and in; an overflow leads back to the main tank."""
MOST_PORTS = 40
Angle = Annotated[float, Field(ge=-360, le=360)]


class Seat(Part):
    """What is welded or bolted in round a hole: a threaded boss, a flange ring with its bolts, a ring whose lock turns
    home to a stop, or a neck.
    """

    kind: Literal["boss", "flange", "lock ring", "neck"] = "boss"
    hole_mm: Length = Field(description="Hole in the sheet, its diameter [mm]")
    outer_mm: Length = Field(description="Outside diameter of boss, ring or neck's weld [mm]")
    bolt_circle_mm: Length | None = Field(default=None, description="Diameter of the bolt circle [mm]")
    bolts: Annotated[int, Field(ge=3, le=24)] | None = None
    bolt_mm: Annotated[float, Field(gt=0, le=30)] | None = Field(default=None, description="Bolt hole [mm]")
    torque_nm: Annotated[float, Field(gt=0, le=500)] | None = Field(default=None, description="Full torque [N·m]")
    plate_mm: Annotated[float, Field(gt=0, le=30)] | None = Field(
        default=None, description="Thickness of the ring or reinforcing plate [mm]"
    )
    thread: Annotated[str, Field(max_length=40)] = ""
    seal: SealName | None = Field(default=None, description="What its gasket or ring is made of")

    @model_validator(mode="after")
    def _goes_together(self) -> "Seat":
        if self.hole_mm >= self.outer_mm:
            refuse(
                f"a {self.hole_mm:g} mm hole is as large as its seat: it must be below {self.outer_mm:g} mm",
                field="hole_mm",
                value=self.hole_mm,
                limit=f"below {self.outer_mm:g}",
            )
        circle, bolt = self.bolt_circle_mm, self.bolt_mm or 0.0
        if circle is not None and not self.hole_mm + bolt < circle < self.outer_mm - bolt:
            refuse(
                f"the bolts on a {circle:g} mm circle run out of the ring between {self.hole_mm:g} "
                f"and {self.outer_mm:g} mm",
                field="bolt_circle_mm",
                value=circle,
                limit=f"{self.hole_mm + bolt:g} to {self.outer_mm - bolt:g}",
            )
        return self


class Hanger(Part):
    """What hangs from a flange and draws fuel: lengths go down from the flange's underside."""

    kind: Literal["module", "hanger", "tube", "sock"] = "hanger"
    made_for_mm: Length = Field(description="Depth from flange seat to floor that it is made for [mm]")
    sprung: bool = Field(default=False, description="A sprung sleeve presses it on the floor")
    extend_mm: Gap = Field(default=0, description="Lengthened by that much [mm]")
    remote: bool = Field(default=False, description="Draws through a hose from a pickup of its own on the floor")
    bracket_mm: Gap = Field(default=0, description="Flange to the pump's clamp [mm]")
    bracket_least_mm: Gap = Field(
        default=20, description="Shortest that the bracket may be cut to, so that it still holds the pump [mm]"
    )
    pump_mm: Gap = Field(default=0, description="The pump's body [mm]")
    strainer_mm: Gap = Field(default=0, description="Strainer or sock below the pump [mm]")
    measured_mm: Length | None = Field(
        default=None, description="Depth measured a second time, in the finished opening, by another way [mm]"
    )
    grip_mm: Gap = Field(default=25, description="Hose or tube inside each clamp [mm]")


class Valve(Part):
    """A valve, flap or check in a path: nothing passes below the pressure that opens it."""

    name: Name
    opens_kpa: Annotated[float, Field(ge=0, le=50)] = Field(default=0.5, description="Pressure that opens it [kPa]")


class VentPath(Part):
    """The way of the air: bore, hose, valve, and where it ends."""

    bore_mm: Bore = Field(default=8, description="Smallest bore of the way out [mm]")
    length_m: Annotated[float, Field(ge=0, le=50)] = Field(default=0, description="Length of the vent hose [m]")
    opens_kpa: Annotated[float, Field(ge=0, le=50)] = Field(
        default=0, description="Pressure that opens the valve in it [kPa]"
    )
    valves: Annotated[tuple[Valve, ...], Field(max_length=6, strict=False)] = Field(
        default=(), description="Further valves, flaps and checks behind each other"
    )
    rollover: bool = Field(default=False, description="A valve shuts it when the tank is inverted")
    lean_deg: Annotated[float, Field(ge=0, le=180)] = Field(
        default=0, description="How far the roll-over valve stands off upright [°]"
    )
    outside: bool | None = Field(default=None, description="Ends outside the body")
    below_people: bool | None = Field(default=None, description="Ends below and away from people")
    away_from_exhaust: bool | None = None
    falls_away: bool | None = Field(default=None, description="Falls away without a low loop, or has a drain")
    hose: HoseName | None = Field(default=None, description="What its hose is made of, where it has one")

    @property
    def opening_kpa(self) -> float:
        """What opens all its valves: behind each other their pressures add up [kPa]."""
        return self.opens_kpa + sum(valve.opens_kpa for valve in self.valves)


class NeckPath(Part):
    """The way of the fuel in."""

    bore_mm: Bore = Field(default=38, description="Smallest bore from cap to tank [mm]")
    bonded: bool | None = Field(default=None, description="A strap bonds it to the chassis across any rubber")
    hose: HoseName | None = Field(default=None, description="What its rubber is made of, where it has any")
    valves: Annotated[tuple[Valve, ...], Field(max_length=6, strict=False)] = Field(
        default=(), description="Flaps and checks that the fuel opens on its way in"
    )

    @property
    def opening_kpa(self) -> float:
        """What opens all its flaps and checks [kPa]."""
        return sum(valve.opens_kpa for valve in self.valves)


class HoseBend(Part):
    """The hose on what stands at a port: it bends over to one side and needs the room for it."""

    outer_mm: Length = Field(description="Outside diameter of the hose [mm]")
    radius_mm: Length = Field(description="Radius of its bend, to the hose's middle [mm]")
    turns_deg: Annotated[float, Field(ge=5, le=180)] = Field(default=90, description="How far it bends [°]")
    run_mm: Gap = Field(default=0, description="Straight on after the bend [mm]")

    @model_validator(mode="after")
    def _bends(self) -> "HoseBend":
        if self.radius_mm < self.outer_mm / 2:
            refuse(
                f"a hose of {self.outer_mm:g} mm can't bend on a radius of {self.radius_mm:g} mm: "
                "its inner side would fold",
                field="radius_mm",
                value=self.radius_mm,
                limit=f"{self.outer_mm / 2:g} or more",
            )
        return self


class Fitting(Part):
    """What a part at a port is, whatever tank it goes in.

    What stands counts from the sheet, what hangs from the seat.
    """

    stands_mm: Gap = Field(default=0, description="How far what is there stands out: valve, neck [mm]")
    across_mm: Gap = Field(default=60, description="Width of what stands there, all round [mm]")
    hangs_mm: Gap = Field(default=0, description="What hangs below the seat: module, pump, tube [mm]")
    hangs_across_mm: Gap = Field(default=0, description="Its width, all round [mm]")
    diagonal_mm: Gap = Field(default=0, description="Widest across on its way through the hole [mm]")
    spanner_mm: Gap = Field(default=0, description="Room for hand and spanner round its middle, a radius [mm]")
    bend: HoseBend | None = Field(default=None, description="The hose on it, where it bends over")
    seat: Seat | None = None
    connection: Connection | None = Field(default=None, description="What its line is joined to; empty: not known")
    hanger: Hanger | None = None
    vent: VentPath | None = None
    neck: NeckPath | None = None


class PortPart(Fitting):
    """A part in the workshop's library."""

    name: Name
    role: PortRole = "fitting"


class Port(Fitting):
    """One opening. Its place is measured from the body's rear, right, lower corner."""

    id: Id
    name: Name
    role: PortRole = "fitting"
    face: Face = Field(default="roof", description="The face it goes through")
    x_mm: Coordinate = Field(description="From the rear [mm]")
    y_mm: Coordinate = Field(description="From the right [mm]")
    z_mm: Coordinate | None = Field(
        default=None,
        description="Height of the opening itself: the pickup's inlet, the vent's inner end [mm]; empty means 5 mm "
        "off the floor there for a pickup, on the floor for a drain, flush under the lid there for the others",
    )
    clock_deg: Angle = Field(
        default=0, description="First bolt, or the mark, from forward, counter-clockwise seen from outside [°]"
    )
    hose_deg: Angle | None = Field(default=None, description="Direction in which its hose leaves, from forward [°]")
    stop_deg: Angle | None = Field(
        default=None, description="Where a lock ring's tab comes home against its stop, from forward [°]"
    )
    capped: bool = Field(default=False, description="Closed blind")
    pumped: bool = Field(default=False, description="A transfer has a pump of its own: no return has to drive it")
    part: Annotated[str, Field(max_length=80)] = Field(default="", description="Which part of the shop's library it is")


def opened(ports: Sequence[Port], *roles: PortRole) -> list[Port]:
    """The ports of some roles that aren't closed blind.

    Parameters
    ----------
    ports : sequence of Port
        Ports of the design.
    *roles : PortRole
        Roles wanted; all where none is named.

    Returns
    -------
    list of Port
        Those ports, in their order.
    """
    return [port for port in ports if port.role in roles and not port.capped]


def is_driven(port: Port, ports: Sequence[Port]) -> bool:
    """Whether a transfer moves anything: by a pump of its own, or by a return that drives its jet.

    Parameters
    ----------
    port : Port
        A transfer.
    ports : sequence of Port
        Among which its return is looked for.

    Returns
    -------
    bool
        True when a pump or a return drives it.
    """
    return port.pumped or bool(opened(ports, "return"))


def drawing(ports: Sequence[Port]) -> list[Port]:
    """The ports that fuel really is drawn through: open pickups, and open transfers that something drives.

    Parameters
    ----------
    ports : sequence of Port
        Ports of the design.

    Returns
    -------
    list of Port
        Those ports, in their order.
    """
    return [port for port in opened(ports, *DRAWS) if port.role == "pickup" or is_driven(port, ports)]


class Filling(Part):
    """How the tank is filled."""

    supply: Literal["jug", "nozzle"] = "nozzle"
    head_mm: Length = Field(default=450, description="A jug's fuel over the neck [mm]")
    supply_kpa: Annotated[float, Field(gt=0, le=1000)] = Field(default=25, description="Pressure at the nozzle [kPa]")
    nozzle_bore_mm: Bore = Field(default=14, description="The nozzle's bore [mm]")
    wanted_s: Annotated[float, Field(gt=0, le=100_000)] | None = Field(default=None, description="Fill time wanted [s]")
