"""What is dangerous to fill, to drive, or to plumb."""

from collections.abc import Iterator, Sequence
from itertools import product

from keel.analysis.tank import TankAnalysis
from keel.design.ports import BREATHES, Port, VentPath, drawing, is_driven, opened
from keel.findings.finding import Finding, Rule, Severity, of_station
from keel.findings.fuels import attacked, fuels_of, rubbers
from keel.reference.compatibility import HOSES, OF_RUBBER
from keel.reference.units import MM3_PER_LITRE
from keel.solid.solids import Cell
from keel.studies.liquid.draining import inside, place_of
from keel.studies.ports.attitudes import SLOPE_DEG
from keel.studies.ports.vents_on_slopes import AIR_TRAPPED_ON_SLOPES, VENTS_ON_SLOPES
from keel.studies.result import words
from keel.studies.wiring.bonds import BONDING

_finding = of_station("ports")
_ports = of_station("ports")


def rubber_bears_it(tank: TankAnalysis) -> Iterator[Finding]:
    """Seals and hoses at the ports."""
    for port, fuel in product(tank.design.ports, fuels_of(tank)):
        for kind, material in rubbers(port):
            what = f"the {material}{' seal' if kind == 'seal' else ''} at {port.name}"
            against = OF_RUBBER.get((HOSES.get(material, material), fuel))
            about = ("fuel.rubber", port.id, f"{kind}:{fuel}")
            yield from attacked(_ports, about, fuel, what, against, "With it, {why}.")


COUNTED = ("pickup", "transfer", "filler", "return", "drain", *BREATHES)
"""Roles that something is calculated from."""


def _said(code: str, about: str, severity: Severity, title: str, text: str, **quantities: float | str) -> Finding:
    """A finding whose title and text share their quantities."""
    return _finding(code, about, severity, words(title, **quantities), words(text, **quantities))


def _of_port(port: Port, code: str, severity: Severity, title: str, text: str, **quantities: float | str) -> Finding:
    """A finding about one port; `{name}` in its words is the port's."""
    return _said(code, port.id, severity, title, text, name=port.name, **quantities)


def in_cell(tank: TankAnalysis, cell: Cell, ports: Sequence[Port]) -> list[Port]:
    """Those ports that open into a cell."""
    return [port for port in ports if inside(cell, place_of(tank.solids, port))]


def cells_are_complete(tank: TankAnalysis) -> Iterator[Finding]:
    """Once a tank has a port, every cell has what lets air out, fuel in and fuel out."""
    ports, surge = tank.design.ports, tank.design.brief.is_surge_tank
    if not ports:
        return
    for cell in tank.solids.cells:
        named: dict[str, float | str] = {"cell": cell.name, "whole_l": cell.mesh.volume_mm3 / MM3_PER_LITRE}
        if not in_cell(tank, cell, opened(ports, *BREATHES)):
            text = (
                "Nothing lets the air out or in: it can't be filled, drawing from it sucks its panels in, and heat "
                "raises its pressure until something gives."
            )
            yield _said("cell.no_vent", cell.name, "stop", "The {cell} has no vent", text, **named)
        if not in_cell(tank, cell, drawing(ports)):
            text = "Its {whole_l} are carried and none of them is usable."
            yield _said("cell.no_pickup", cell.name, "stop", "Nothing draws from the {cell}", text, **named)
        if not surge and not in_cell(tank, cell, opened(ports, "filler")):
            text = "Nobody can fill its {whole_l}; through a port that isn't made for it fuel is spilt."
            yield _said("cell.no_filler", cell.name, "stop", "The {cell} has no filler", text, **named)


def surge_tanks_are_plumbed(tank: TankAnalysis) -> Iterator[Finding]:
    """A surge tank has its engine's return and an overflow home; outlet and air path are asked of every cell."""
    if not tank.design.brief.is_surge_tank:
        return
    if not opened(tank.design.ports, "overflow"):
        text = "What the lift pump brings too much has nowhere to go: the pressure rises until a hose comes off."
        yield _said("surge.no_overflow", "tank", "stop", "The surge tank has no overflow", text)
    if not opened(tank.design.ports, "return"):
        text = "It needs the lift pump's inlet and the engine's return: without them it is empty in seconds."
        yield _said("surge.no_return", "tank", "stop", "Nothing comes into the surge tank", text)


def vents_shut_when_rolled(tank: TankAnalysis) -> Iterator[Finding]:
    """A vent has a valve that shuts when the tank is inverted."""
    for port in opened(tank.design.ports, "vent"):
        if not (port.vent or VentPath()).rollover:
            title = "{name} has no roll-over valve"
            text = "Upside down the tank runs out through it, over whatever is hot."
            yield _of_port(port, "vent.rollover", "caution", title, text)


def vents_breathe_on_slopes(tank: TankAnalysis) -> Iterator[Finding]:
    """The vents of a full tank stay over the fuel on a slope."""
    for found in tank[VENTS_ON_SLOPES]:
        cell = found.cell
        trapped = tank[AIR_TRAPPED_ON_SLOPES][cell] if tank.explains else 0.0
        yield _finding(
            "vent.under",
            cell,
            "caution",
            words(
                "Vents of the {cell} under fuel on a {slope_deg} slope, {slopes}",
                cell=cell,
                slope_deg=SLOPE_DEG,
                slopes=" and ".join(found.slopes),
            ),
            words(
                "Filled to its rated litres it pushes fuel out through them as it warms"
                + ("; {air_l} of air has no way out." if trapped else ".")
                + " A vent at that end, joined with the other over the tank, keeps one of them dry.",
                **({"air_l": trapped} if trapped else {}),
            ),
        )


def fillers_are_bonded(tank: TankAnalysis) -> Iterator[Finding]:
    """A filler behind rubber is bonded to the chassis."""
    strapped = {piece.key for piece in tank[BONDING].pieces if piece.joined and not piece.by_word}
    for port in opened(tank.design.ports, "filler"):
        if f"filler:{port.id}" in strapped:
            continue
        bonded = None if port.neck is None else port.neck.bonded
        if bonded is False:
            title = "{name} isn't bonded to the chassis"
            text = "Across the rubber it charges while fuel runs in; the spark jumps from the nozzle into vapour."
            yield _of_port(port, "filler.unbonded", "stop", title, text)
        elif bonded is None:
            title = "Say whether {name} is bonded across any rubber"
            text = "A filler that stands on rubber charges while fuel runs in; a strap to the chassis prevents it."
            yield _of_port(port, "filler.bonding_open", "note", title, text)


def blind_ports_count_for_nothing(tank: TankAnalysis) -> Iterator[Finding]:
    """Say which ports are closed blind and so do nothing of what their role is."""
    for port in tank.design.ports:
        if port.capped and port.role in COUNTED:
            title = "{name} is closed blind and does nothing as a {role}"
            text = "No figure counts it. Open it, or make it a spare."
            yield _of_port(port, "port.blind", "note", title, text, role=port.role)


def transfers_are_driven(tank: TankAnalysis) -> Iterator[Finding]:
    """A transfer has something that moves fuel through it."""
    for port in opened(tank.design.ports, "transfer"):
        if not is_driven(port, tank.design.ports):
            text = "There is no return whose flow could drive its jet, and no pump: what it should fetch stays."
            yield _of_port(port, "transfer.idle", "stop", "Nothing drives {name}", text)


def fuels_stay_apart(tank: TankAnalysis) -> Iterator[Finding]:
    """Two fuels have a cell each, and no port that leads from one to the other."""
    fuels, cells, ports = fuels_of(tank), tank.solids.cells, tank.design.ports
    if len(fuels) < 2:
        return
    if len(cells) < len(fuels):
        title, text = "{fuels} would share one cell", "The cases ask for {many} fuels, the tank has {cells} cell."
        yield _said(
            "fuels.one_cell", "", "stop", title, text, fuels=" and ".join(fuels), many=len(fuels), cells=len(cells)
        )
        return
    for port in opened(ports, "transfer"):
        yield _meet(port, "it moves fuel from one cell to the other")
    returns = opened(ports, "return")
    served = {cell.name for cell, port in product(cells, returns) if in_cell(tank, cell, [port])}
    if returns and len(served) < len(cells):
        yield _meet(returns[0], "what comes back from either engine ends in one cell")
    for vent in opened(ports, *BREATHES):
        over = [cell.name for cell in cells if in_cell(tank, cell, [vent])]
        if len(over) > 1:
            yield _meet(vent, "it opens into both cells")


def _meet(port: Port, how: str) -> Finding:
    title = "The two fuels can meet through {name}"
    text = "As it is, {how}. Each fuel needs its own pickup, return, vent and filler."
    return _of_port(port, "fuels.meet", "stop", title, text, how=how)


HAZARD_RULES: tuple[Rule, ...] = (
    cells_are_complete,
    surge_tanks_are_plumbed,
    vents_shut_when_rolled,
    vents_breathe_on_slopes,
    fillers_are_bonded,
    blind_ports_count_for_nothing,
    transfers_are_driven,
    fuels_stay_apart,
)
