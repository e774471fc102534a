"""What wiring, tank and workshop take: wire, devices, bonds, fittings of the tank, sheet, what is used up."""

from collections.abc import Iterator, Sequence
from math import ceil

from keel.analysis.parts import GAUGE, INSIDE, PORTS, WIRING, only
from keel.analysis.study import study
from keel.design.document import Design
from keel.design.gauge import Gauge
from keel.design.inside import Inside
from keel.design.ports import NeckPath, Port
from keel.design.wiring import Device, FuseDoes, RelayDoes, Wire, Wiring
from keel.reference.metals import METALS
from keel.reference.units import MM2_PER_M2
from keel.studies.build.goods import goods
from keel.studies.buying.items import Item
from keel.studies.cost.figures import FIGURES, Figures
from keel.studies.lines.pushed import PUSHED, Pushed
from keel.studies.mount.filler_route import FILLER, Filler
from keel.studies.result import words
from keel.studies.sheet.flats import FLATS
from keel.studies.sheet.model import Sheet
from keel.studies.wiring.runs import WIRE_RUNS, WireRuns
from keel.studies.wiring.wired import WIRED, Wired

ON_THE_VEHICLE = ("battery", "switch", "gauge", "lamp", "other load")
"""Devices that a vehicle usually has: they are on the list where a price is typed for them."""
RINGS = ("battery", "earth point")
TIE_EVERY_M, ROD_TIMES = 0.15, 1.3
"""A tie for so much wire; rod for a seam's section, with so much of it lost in ends and spatter (house rules)."""


def wire_items(wiring: Wiring, runs: WireRuns, figures: Wired) -> list[Item]:
    """What the wiring takes.

    Parameters
    ----------
    wiring : Wiring
        Devices, wires, bonds.
    runs : WireRuns
        Lengths.
    figures : Wired
        Sizes and fuses.

    Returns
    -------
    list of Item
        Wire by the metre, a terminal for every end, devices, straps; a fuse of each rating and a relay are carried.
    """
    return [
        *(item for wire in wiring.wires for item in _wire(wire, wiring, runs, figures)),
        *(item for device in wiring.devices for item in _device(device, figures)),
        *_bonds(wiring),
        *_ties(wiring, runs),
        *_wiring_spares(wiring, figures),
    ]


def _wire(wire: Wire, wiring: Wiring, runs: WireRuns, figures: Wired) -> Iterator[Item]:
    known = figures.wire(wire.id)
    if known is None:
        return
    colour = f"{wire.colour}, " if wire.colour else ""
    name = words(
        "wire {area_wire}, {colour}{insulation}", area_wire=known.area_mm2, colour=colour, insulation=wire.insulation
    )
    yield Item("wire", name, runs.length_m(wire.id), "m", wire.name)
    for end in (wire.start, wire.end):
        thing = runs.at(end)
        shape = "ring terminal" if thing is not None and thing.kind in RINGS else "crimp terminal"
        ended = words("{shape} for {area_wire}", shape=shape, area_wire=known.area_mm2)
        yield Item("wire end", ended, 1, "each", wire.name)


def _device(device: Device, figures: Wired) -> Iterator[Item]:
    if device.does.kind in ON_THE_VEHICLE and device.price is None:
        return
    does, name = device.does, words("{kind} '{name}'", kind=device.does.kind, name=device.name)
    if isinstance(does, FuseDoes):
        rating = next((one.rating_a for one in figures.fuses if one.id == device.id), None)
        name = words("fuse {rating_a} with its holder", rating_a=rating) if rating else words("fuse with its holder")
    elif isinstance(does, RelayDoes):
        name = words("relay {rating_a} with its socket", rating_a=does.rating_a)
    elif does.kind == "connector":
        name = words("plug and socket, {pins} pins", pins=does.pins)
    elif does.kind == "earth point":
        name = words("earth bolt with star washers")
    yield Item("device", name, 1, "each", device.name, "", device.price)


def _bonds(wiring: Wiring) -> Iterator[Item]:
    for bond in wiring.bonds:
        name = words("bonding strap {area_wire}, two ring terminals", area_wire=bond.area_mm2)
        if bond.length_mm is not None:
            name = words(
                "bonding strap {area_wire}, {length_mm}, two ring terminals",
                area_wire=bond.area_mm2,
                length_mm=bond.length_mm,
            )
        yield Item("bond", name, 1, "each", bond.name)


def _ties(wiring: Wiring, runs: WireRuns) -> Iterator[Item]:
    metres = sum(runs.length_m(wire.id) for wire in wiring.wires if not wire.along)
    if metres > 0:
        yield Item("consumable", words("cable tie"), ceil(metres / TIE_EVERY_M), "each", "wires")


def _wiring_spares(wiring: Wiring, figures: Wired) -> Iterator[Item]:
    ratings = {one.rating_a for one in figures.fuses if one.rating_a is not None}
    for rating in sorted(ratings):
        yield Item("spare", words("fuse {rating_a}, spare", rating_a=rating), 2, "each", "carried")
    for rating in sorted({one.does.rating_a for one in wiring.devices if isinstance(one.does, RelayDoes)}):
        yield Item("spare", words("relay {rating_a}, spare", rating_a=rating), 1, "each", "carried")


def tank_items(ports: Sequence[Port], gauge: Gauge, inside: Inside, filler: Filler | None) -> list[Item]:
    """What is welded into and fitted to the tank: the list that Build counts in.

    Parameters
    ----------
    ports : sequence of Port
        Seats, fittings, screws.
    gauge : Gauge
        Senders.
    inside : Inside
        Foam and bag.
    filler : Filler or None
        Its way to an opening in the body.

    Returns
    -------
    list of Item
        As bought for the build; fill hose and its vent hose with two clamps each.
    """
    found = [Item("tank fitting", one.title, one.quantity) for one in goods(ports, gauge.senders, inside)]
    if filler is None:
        return found
    neck = next((port.neck for port in ports if port.id == filler.port), None) or NeckPath()
    bored = words("fill hose, bore {bore_sheet}", bore_sheet=neck.bore_mm)
    for what, name, long in (
        ("the fill hose", bored, filler.hose_mm),
        ("its vent hose", words("vent hose beside the fill hose"), filler.vent_mm),
    ):
        found.append(Item("hose", name, long / 1e3, "m", filler.name))
        found.append(Item("clamp", words("hose clamp for {what}", what=what), 2, "each", filler.name))
    return found


def sheet_items(design: Design, made: Sheet, figures: Figures, pushed: Sequence[Pushed]) -> list[Item]:
    """Sheet by the square metre as it is cut, rod for the seams, what hoses are pushed on with.

    Parameters
    ----------
    design : Design
        The shell's metal.
    made : Sheet
        Flat parts.
    figures : Figures
        Metres of seam.
    pushed : sequence of Pushed
        Hoses that are pushed on.

    Returns
    -------
    list of Item
        Net areas: what a sheet leaves over isn't counted. Rod by a section of the sheet's thickness squared.
    """
    found = []
    if design.shell is not None:
        metal = design.shell.metal
        for part in made.parts:
            name = words("sheet {metal}, {sheet_sheet}, net", metal=metal, sheet_sheet=part.thickness_mm)
            found.append(Item("sheet", name, part.quantity * part.area_mm2 / MM2_PER_M2, "m²", part.title))
        thick = max((part.thickness_mm for part in made.parts), default=0.0)
        rod = figures.weld_m * thick**2 * METALS[metal].density_kg_per_m3 / 1e6 * ROD_TIMES
        if rod > 0:
            found.append(Item("consumable", words("filler rod for {metal}", metal=metal), rod, "kg", "seams"))
    for lubricant in dict.fromkeys(one.lubricant for one in pushed):
        name = words("lubricant: {lubricant}", lubricant=lubricant)
        found.append(Item("consumable", name, 1, "each", "hoses pushed on"))
    return found


WIRE_ITEMS = study(wire_items, WIRING, WIRE_RUNS, WIRED)
TANK_ITEMS = study(tank_items, PORTS, GAUGE, INSIDE, FILLER)
SHEET_ITEMS = study(sheet_items, only("shell"), FLATS, FIGURES, PUSHED)
