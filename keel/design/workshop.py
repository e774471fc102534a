"""A workshop's own rules and machines: what the core judges a design against."""

from typing import Annotated, Literal

from pydantic import Field, model_validator

from keel.design.base import PLAIN, Coordinate, Gap, Length, Name, Part, refuse
from keel.design.benders import TubeBender
from keel.design.gauge import SenderPart
from keel.design.hoses import HoseStock
from keel.design.line_parts import LibraryComponent
from keel.design.ports import PortPart
from keel.design.price_book import BookPrice
from keel.design.proof import TestGauge
from keel.design.pumps import Pump
from keel.design.vehicle import Vehicle
from keel.design.work import Minutes, WorkRates
from keel.reference.clearances import CLEARANCE_MM, ClearanceClass
from keel.reference.metals import METALS, MetalFamily, MetalName
from keel.reference.test_strip import k_from_strip

K_BY_FAMILY: dict[MetalFamily, float] = {"steel": 0.42, "stainless": 0.45, "aluminium": 0.40}
"""Usual K for air bends, until the shop's own test strip says better."""

BrakeKind = Literal["folder", "press brake"]
Cuts = Literal["straight edges", "outlines", "round holes"]
SAME_SHEET_MM = 0.05
LEAST_CORNERS = 3
Fraction = Annotated[float, Field(ge=0, le=1)]
MountG = Annotated[float, Field(ge=0, le=100)]
K_LEAST, K_MOST = 0.2, 0.5
KFactor = Annotated[float, Field(ge=K_LEAST, le=K_MOST)]


def _usual_k() -> dict[MetalName, float]:
    return {name: K_BY_FAMILY[metal.family] for name, metal in METALS.items()}


Velocity = Annotated[float, Field(gt=0, le=20)]


class HouseRules(Part):
    """Defaults that decide something; each can be changed by the workshop."""

    ullage_rise_k: float = Field(default=40, ge=0, le=80, description="Warming the full tank has to bear [K]")
    ullage_least: Fraction = Field(default=0.03, description="Ullage never goes below this share of brimful")
    beyond_target: Fraction = Field(default=0.25, description="Capacity further above target than this is questioned")
    flange_mm: Length = Field(default=20, description="Usual outside height of a pan's flange [mm]")
    flange_least_mm: Length = Field(default=12, description="Shortest pan flange that welds well [mm]")
    pan_gap_mm: Gap = Field(default=0.5, description="Room between pan and wrapper on each side [mm]")
    notch_clearance_mm: Gap = Field(default=1, description="Added to the flange for the pan's corner notch [mm]")
    bump_g: float = Field(default=2, ge=0, le=20, description="Extra vertical g that the fuel presses with on a panel")
    push_g: float = Field(
        default=1, ge=0, le=20, description="g that a full cell presses with on an upright panel and a partition"
    )
    stress_share: Fraction = Field(default=0.6, description="Share of the as-welded yield a panel may reach")
    land_mm: Length = Field(default=12, description="Least strip of sheet between a seam and a bend or seam [mm]")
    sliver_mm: Length = Field(default=10, description="Least space inside that can be welded and cleaned [mm]")
    pump_margin: Fraction = Field(default=0.2, description="Pumps give this share more than the engine burns")
    surge_margin: Fraction = Field(default=0.2, description="A surge volume has this share on top of the dry spell's")
    fuel_share: Fraction = Field(
        default=0.15, description="Fuel beyond this share of the vehicle's mass is remarked on"
    )
    free_run_mm: Length = Field(default=350, description="Longest free run of fuel between plates [mm]")
    clear_least: Fraction = Field(default=0.08, description="Least clear area of a baffle, as a share of its face")
    clear_most: Fraction = Field(default=0.15, description="Most clear area of a baffle, as a share of its face")
    starvation_most_g: float = Field(
        default=4, gt=0, le=10, description="Largest steady push that the starvation map looks at [g]"
    )
    torch_reach_mm: Length = Field(default=600, description="How far into a shell a torch and an eye reach [mm]")
    brush_mm: Length = Field(default=25, description="A brush passes an opening this wide [mm]")
    sleeve_mm: Gap = Field(default=20, description="A sprung sleeve is cut this much longer than the depth [mm]")
    measure_mm: Gap = Field(default=1, description="Two measurements that differ by more don't agree [mm]")
    back_pressure_kpa: float = Field(
        default=2.5, gt=0, le=50, description="Back pressure at which a nozzle shuts off or a neck spits back [kPa]"
    )
    vent_vacuum_kpa: float = Field(default=2, gt=0, le=50, description="Most vacuum while fuel is drawn [kPa]")
    proof_least_kpa: float = Field(default=5, ge=0, le=20, description="A shell that bears less is remarked on [kPa]")
    proof_kpa: float = Field(default=10, gt=0, le=100, description="Usual test pressure, where the tank bears it [kPa]")
    proof_cap_kpa: float = Field(
        default=20, gt=0, le=100, description="Highest test pressure, however much the panels bear [kPa]"
    )
    leak_limit_sccm: float = Field(
        default=1,
        gt=0,
        le=1000,
        description="Most leak that passes, at the useful test pressure and above [cm³/min of air]",
    )
    decay_length_factor: float = Field(
        default=3, ge=1, le=20, description="Last digits of the gauge that the largest leak allowed has to let off"
    )
    vapour_most: Fraction = Field(
        default=0.1, description="Most vapour in a tank that is tested, as a share of the lower explosive limit"
    )
    vapour_oldest_min: float = Field(default=30, gt=0, le=1440, description="Oldest reading of it that counts [min]")
    calibration_months: float = Field(
        default=12, gt=0, le=120, description="A gauge whose calibration is older is remarked on [months]"
    )
    submerged_min: float = Field(default=5, gt=0, le=1440, description="Least time under water [min]")
    on_paper_min: float = Field(default=480, gt=0, le=10080, description="Least time filled on dry paper [min]")
    road_lengthwise_g: MountG = Field(default=8, description="Mounts on the road bear forward and rearward [g]")
    road_sideways_g: MountG = Field(default=5, description="Mounts on the road bear to either side [g]")
    road_vertical_g: MountG = Field(default=5, description="Mounts on the road bear up and down [g]")
    competition_lengthwise_g: MountG = Field(
        default=20, description="Mounts in competition bear forward and rearward [g]"
    )
    competition_sideways_g: MountG = Field(default=8, description="Mounts in competition bear to either side [g]")
    competition_vertical_g: MountG = Field(default=8, description="Mounts in competition bear up and down [g]")
    filler_fall_deg: float = Field(
        default=15, ge=0, le=60, description="A fill hose falls at least so steeply towards the tank [°]"
    )
    filler_overlap_mm: Gap = Field(default=25, description="A fill hose is pushed at least that far over a pipe [mm]")
    seam_clear_mm: Gap = Field(
        default=25, description="A new hole or bend in a finished tank keeps that far from every seam [mm]"
    )
    mount_reserve: float = Field(
        default=1.5, ge=1, le=10, description="A mount bears this many times its load before anything yields"
    )
    suction_ms: Velocity = Field(default=1.0, description="Fastest in a suction line [m/s]")
    pressure_ms: Velocity = Field(default=3.5, description="Fastest in a pressure line [m/s]")
    return_ms: Velocity = Field(default=2.5, description="Fastest in a return or an overflow [m/s]")
    hose_reserve: float = Field(
        default=1.5, ge=1, le=10, description="A hose is rated for this many times the highest pressure in it"
    )
    beaded_above_kpa: float = Field(
        default=350, ge=0, le=2000, description="A clamped hose needs a bead or a flare above this pressure [kPa]"
    )
    short_kpa: float = Field(
        default=10, ge=0, le=200, description="Rail pressure may be that far off its set pressure [kPa]"
    )
    inlet_margin_kpa: float = Field(
        default=5, ge=0, le=100, description="Least pressure at a pump's inlet over the fuel's vapour pressure [kPa]"
    )
    swap_min: float = Field(
        default=30, gt=0, le=1440, description="A pump or a filter is replaced within that at the roadside [min]"
    )
    reopen_h: float = Field(
        default=6, gt=0, le=200, description="To empty a finished tank, make it gas-free and prove it anew [h]"
    )
    vent_off_mm: Gap = Field(default=300, description="A vent ends that far from people and from what is hot [mm]")
    reference_mm: Gap = Field(default=1500, description="Longest hose from a regulator to the manifold [mm]")
    clamp_every_mm: Length = Field(default=300, description="Farthest from one clamp of a line to the next [mm]")
    clamp_reach_mm: Gap = Field(
        default=100, description="Farthest from a line to what a clamp of it can be fixed to [mm]"
    )
    rub_mm: Gap = Field(default=5, description="Between a line and what it could rub on [mm]")
    edge_mm: Gap = Field(default=15, description="Between a line and the edge of a sheet [mm]")
    wire_drop_v: float = Field(
        default=0.5, gt=0, le=10, description="Most that wires and contacts may take, there and back [V]"
    )
    wire_spare_mm: Gap = Field(default=50, description="Spare at each end of a wire, to strip and to turn [mm]")
    unfused_mm: Gap = Field(default=200, description="Longest wire from the battery to its fuse [mm]")
    line_hold_min: float = Field(
        default=10, gt=0, le=1440, description="A line holds its working pressure so long [min]"
    )
    line_fall: float = Field(default=0.05, gt=0, le=0.5, description="Share of it that the line may lose meanwhile")
    bond_ohm: float = Field(default=10, gt=0, le=1e6, description="Most between tank, filler and chassis [Ω]")
    clearances_mm: dict[ClearanceClass, Gap] = Field(
        default_factory=lambda: dict(CLEARANCE_MM), description="Least gap by kind of neighbour [mm]"
    )


class BeamCorner(Part):
    """A corner of a clamping beam seen from its end, its nose at the origin, the part before it towards +across."""

    across_mm: Coordinate
    up_mm: Coordinate


class Brake(Part):
    """A press or folding brake."""

    name: Name = "Brake"
    kind: BrakeKind = Field(
        default="folder", description="A folder lifts the sheet by its leaf, a press brake strikes it"
    )
    most_angle_deg: float = Field(default=135, ge=20, le=180, description="Sharpest bend it makes [°]")
    beam: Annotated[tuple[BeamCorner, ...], Field(max_length=16, strict=False)] = Field(
        default=(), description="Its beam or punch as measured, from the nose round to it; empty: the usual shape"
    )
    width_mm: Length = Field(default=1250, description="Longest bend it makes [mm]")
    smallest_closed_box_mm: Length | None = Field(
        default=150, description="Least inside width and height of a wrapper it can close [mm]; empty: it closes none"
    )
    bed_mm: Gap = Field(default=250, description="How far a folder's bed reaches back under the sheet [mm]")
    leaf_mm: Gap = Field(default=60, description="How far a folder's leaf reaches out under the sheet [mm]")
    die_mm: Gap = Field(default=60, description="How wide the die of a press brake is [mm]")
    throat_mm: Length | None = Field(
        default=None, description="How far sheet goes in behind the bend until it meets the frame [mm]; empty: any way"
    )
    shortest_flange_mm: Length = Field(default=12, description="Shortest leg it can bend [mm]")
    fingers_mm: Length = Field(default=100, description="Deepest wall of a pan that it bends up on all four sides [mm]")
    thickest_steel_mm: Length = Field(
        default=5,
        description="Thickest mild steel it bends over its width, other metals by their yield [mm]",
    )

    @model_validator(mode="after")
    def _goes_together(self) -> "Brake":
        if self.shortest_flange_mm >= self.width_mm:
            refuse(
                f"a flange of {self.shortest_flange_mm:g} mm is longer than the brake's longest bend",
                field="shortest_flange_mm",
                value=self.shortest_flange_mm,
                limit=f"below {self.width_mm:g}",
            )
        if self.beam and (len(self.beam) < LEAST_CORNERS or all(corner.up_mm <= 0 for corner in self.beam)):
            refuse(
                f"a beam of {len(self.beam)} corners has no height: three or more, some above the nose",
                field="beam",
                value=len(self.beam),
                limit="three or more",
            )
        return self


class TestStrip(Part):
    """A strip that was measured flat, bent once on the shop's own tool, and measured again."""

    metal: MetalName
    thickness_mm: float = Field(gt=0, le=25, description="Of the strip [mm]")
    radius_mm: Length = Field(description="Inside radius of the tool [mm]")
    flat_mm: Length = Field(description="Before the bend [mm]")
    leg_a_mm: Length = Field(description="One leg after it, over the outside [mm]")
    leg_b_mm: Length = Field(description="The other leg [mm]")
    left_deg: float = Field(default=90, gt=0, lt=180, description="Angle that was left [°]")
    bent_to_deg: float | None = Field(
        default=None, gt=0, lt=180, description="Angle it was bent to on the machine [°]; empty: not read"
    )

    @property
    def k(self) -> float:
        """Place of the neutral line that it shows, as a share of the thickness."""
        legs = (self.leg_a_mm, self.leg_b_mm)
        return k_from_strip(self.flat_mm, legs, self.left_deg, self.thickness_mm, self.radius_mm)

    @property
    def share_left(self) -> float | None:
        """Angle left over angle bent to; None where the one bent to wasn't read."""
        return None if self.bent_to_deg is None else self.left_deg / self.bent_to_deg

    @model_validator(mode="after")
    def _can_be(self) -> "TestStrip":
        if not K_LEAST <= self.k <= K_MOST:
            refuse(
                f"a strip with these legs has K {self.k:.2f}: it lies between {K_LEAST:g} and {K_MOST:g}",
                field="leg_a_mm",
                value=self.leg_a_mm,
                limit=f"K {K_LEAST:g} to {K_MOST:g}",
            )
        if self.bent_to_deg is not None and self.bent_to_deg < self.left_deg:
            refuse(
                f"bent to {self.bent_to_deg:g}° no more can be left than that: {self.left_deg:g}° is",
                field="bent_to_deg",
                value=self.bent_to_deg,
                limit=f"at least {self.left_deg:g}",
            )
        return self


class Cutter(Part):
    """A means of cutting sheet: what it can cut, and what the edge is like."""

    name: Name
    cuts: Cuts = Field(default="outlines", description="Straight edges only, any outline, or round holes")
    thickest_steel_mm: Length = Field(default=3, description="Thickest mild steel, other metals by their yield [mm]")
    longest_mm: Length | None = Field(default=None, description="Longest cut [mm]; empty: any")
    curve_mm: Gap = Field(default=0, description="Tightest inside corner or curve it follows, its radius [mm]")
    from_mm: Gap = Field(default=0, description="Smallest hole [mm]")
    to_mm: Length | None = Field(default=None, description="Largest hole [mm]; empty: any")
    edge: Annotated[str, Field(max_length=60, pattern=PLAIN)] = Field(default="", description="What it leaves")
    loud: bool = Field(default=False, description="Heard in the street: not at every hour")

    @model_validator(mode="after")
    def _holes(self) -> "Cutter":
        if self.to_mm is not None and self.to_mm < self.from_mm:
            refuse(
                f"holes up to {self.to_mm:g} mm from {self.from_mm:g} mm on: the largest is below the smallest",
                field="to_mm",
                value=self.to_mm,
                limit=f"at least {self.from_mm:g}",
            )
        return self


class Rolls(Part):
    """The slip rolls."""

    name: Name = "Rolls"
    width_mm: Length = Field(default=1250, description="Longest sheet they roll [mm]")
    least_radius_mm: Length = Field(default=50, description="Tightest radius they roll [mm]")


class StockSheet(Part):
    """A size of sheet the workshop can buy or has."""

    length_mm: Length
    width_mm: Length
    metal: MetalName
    thickness_mm: float = Field(gt=0, le=25)


def _usual_stock() -> list[StockSheet]:
    gauges: dict[MetalName, tuple[float, ...]] = {
        "mild steel": (1.2, 1.5, 2.0, 3.0),
        "stainless 304L": (1.2, 1.5, 2.0, 3.0),
        "3003-H14": (2.0, 3.0),
        "5052-H32": (2.0, 2.5, 3.0, 4.0),
        "5083-H111": (3.0, 4.0, 5.0, 6.0),
        "6061-T6": (2.0, 3.0),
    }
    return [
        StockSheet(length_mm=2500, width_mm=1250, metal=metal, thickness_mm=thickness)
        for metal, sheets in gauges.items()
        for thickness in sheets
    ]


Money = Annotated[float, Field(ge=0, le=1e7)]


class Prices(Part):
    """What the workshop calculates with; what isn't typed isn't guessed."""

    currency: Annotated[str, Field(max_length=8, pattern=PLAIN)] = ""
    metal_per_kg: dict[MetalName, Money] = Field(default_factory=dict, description="Sheet, offcuts included")
    weld_per_m: Money | None = Field(default=None, description="Time, gas, rod and finishing of a metre of seam")
    hours_per_m: Annotated[float, Field(gt=0, le=100)] | None = Field(
        default=None, description="Working time of a metre of seam: cut, fitted, welded, dressed [h]"
    )
    per_hour: Money | None = Field(default=None, description="An hour at the bench, for work other than seams")
    minutes_per_bend: Minutes | None = Field(default=None, description="One bend, marked out and checked [min]")
    minutes_per_port: Minutes | None = Field(
        default=None, description="One port: laid out, cut, its boss or ring welded in [min]"
    )
    minutes_per_fitting: Minutes | None = Field(default=None, description="A valve, a bonding strap: fitted [min]")
    per_fitting: Money | None = Field(default=None, description="A valve or strap as bought")
    foam_per_l: Money | None = None
    bladder: Money | None = Field(default=None, description="A bag made to size")
    surge_tank: Money | None = Field(default=None, description="Surge tank with its pump and hoses")


class Workshop(Part):
    """Everything about a workshop that changes an answer."""

    rules: HouseRules = HouseRules()
    brake: Brake = Brake()
    rolls: Rolls = Rolls()
    prices: Prices = Prices()
    rates: WorkRates = WorkRates()
    more_brakes: Annotated[list[Brake], Field(max_length=10)] = Field(
        default_factory=list, description="Other brakes; a part goes to the first that can bend it"
    )
    cutters: Annotated[list[Cutter], Field(max_length=30)] = Field(
        default_factory=list, description="Means of cutting; none: not judged"
    )
    strips: Annotated[list[TestStrip], Field(max_length=100)] = Field(
        default_factory=list, description="Strips bent on the shop's own tools: they come before any table"
    )
    k_factors: dict[MetalName, KFactor] = Field(
        default_factory=_usual_k, description="Place of the neutral line in a bend, as a share of the thickness"
    )
    pumps: Annotated[list[Pump], Field(max_length=200)] = Field(
        default_factory=list, description="Pumps that the workshop knows the figures of"
    )
    parts: Annotated[list[PortPart], Field(max_length=400)] = Field(
        default_factory=list, description="Hangers, valves, necks and bosses that the workshop knows the sizes of"
    )
    hoses: Annotated[list[HoseStock], Field(max_length=100)] = Field(
        default_factory=list, description="Hoses by the metre"
    )
    price_book: Annotated[list[BookPrice], Field(max_length=1000)] = Field(
        default_factory=list, description="Fittings, clamps, wire and other small things"
    )
    benders: Annotated[list[TubeBender], Field(max_length=40)] = Field(
        default_factory=list, description="Benders for tube, one for each die"
    )
    line_parts: Annotated[list[LibraryComponent], Field(max_length=400)] = Field(
        default_factory=list, description="Pumps, filters, valves and regulators as they are joined in a line"
    )
    senders: Annotated[list[SenderPart], Field(max_length=200)] = Field(
        default_factory=list, description="Level senders that the workshop knows the stops and ohms of"
    )
    stock: Annotated[list[StockSheet], Field(max_length=200)] = Field(default_factory=_usual_stock)
    test_gauges: Annotated[list[TestGauge], Field(min_length=1, max_length=20)] = Field(
        default_factory=lambda: [TestGauge()], description="Gauges that leak tests are read from, the usual one first"
    )

    vehicles: Annotated[list[Vehicle], Field(max_length=500)] = Field(
        default_factory=list, description="Vehicles that the workshop has measured"
    )

    def vehicle(self, name: str | None) -> Vehicle | None:
        """A vehicle by its id; None where there is none."""
        return next((vehicle for vehicle in self.vehicles if vehicle.id == name), None) if name else None

    def booked(self, name: str) -> BookPrice | None:
        """A line of the price book by its name; None where there is none."""
        return next((one for one in self.price_book if one.name == name), None)

    def test_gauge(self, name: str) -> TestGauge:
        """A gauge by its name; the usual one where there is none of that name."""
        return next((gauge for gauge in self.test_gauges if gauge.name == name), self.test_gauges[0])

    @property
    def brakes(self) -> list[Brake]:
        """All brakes, the usual one first."""
        return [self.brake, *self.more_brakes]

    def strip_for(self, metal: MetalName, thickness_mm: float, radius_mm: float | None = None) -> TestStrip | None:
        """The shop's strip of a metal and thickness, that of the nearest radius; None where there is none."""
        alike = [
            one for one in self.strips if one.metal == metal and abs(one.thickness_mm - thickness_mm) < SAME_SHEET_MM
        ]
        near = 0.0 if radius_mm is None else radius_mm
        return min(alike, key=lambda one: abs(one.radius_mm - near), default=None)

    def k_for(self, metal: MetalName, thickness_mm: float | None = None, radius_mm: float | None = None) -> float:
        """K for a metal: of the shop's strip of that thickness, else its typed one, else the usual one."""
        strip = None if thickness_mm is None else self.strip_for(metal, thickness_mm, radius_mm)
        return strip.k if strip else self.k_factors.get(metal, K_BY_FAMILY[METALS[metal].family])

    def sheets_of(self, metal: MetalName, thickness_mm: float) -> list[StockSheet]:
        """Stock of a metal and thickness."""
        return [sheet for sheet in self.stock if (sheet.metal, sheet.thickness_mm) == (metal, thickness_mm)]

    def gauges_of(self, metal: MetalName) -> list[float]:
        """Thicknesses in stock of a metal, thinnest first [mm]."""
        return sorted({sheet.thickness_mm for sheet in self.stock if sheet.metal == metal})
