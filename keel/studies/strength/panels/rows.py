"""The panels of a tank, one row each."""

from collections.abc import Iterator, Sequence

from keel.analysis.parts import FUEL, RULES, SOLIDS
from keel.analysis.study import study
from keel.design.features import Feature, Partition
from keel.design.shell import BoxShell, CylinderShell
from keel.design.workshop import HouseRules
from keel.reference.fuels import FuelName
from keel.solid.solids import Solids
from keel.studies.result import Words
from keel.studies.strength.panels.bearing import round_plate, stretched
from keel.studies.strength.panels.faces import Face, box_faces, profile_faces, square
from keel.studies.strength.panels.fields import worst_field
from keel.studies.strength.panels.loads import Loads
from keel.studies.strength.panels.panel import FLANGE, WELD, Panel, edge_at, typed_edges


def faces_of(solids: Solids, loads: Loads) -> list[Face]:
    """The flat faces of a box or a profile, before plates split them.

    Parameters
    ----------
    solids : Solids
        The shell worked out.
    loads : Loads
        What presses on it.

    Returns
    -------
    list of Face
        None of a cylinder.
    """
    if isinstance(solids.shell, CylinderShell):
        return []
    return list(box_faces(solids, loads) if isinstance(solids.shell, BoxShell) else profile_faces(solids, loads))


def panels(fuel: FuelName, solids: Solids, rules: HouseRules, features: Sequence[Feature] | None = None) -> list[Panel]:
    """The flat faces of a full shell and its partitions, each under the worse of the house rule's loads.

    Parameters
    ----------
    fuel, rules
        Fuel, the extra g of a bump, the g of a push, and the share of the yield.
    solids : Solids
        The shell worked out.
    features : sequence of Feature, optional
        Taken instead of the shell's own, to see what other plates would do.

    Returns
    -------
    list of Panel
        Each with the full depth of fuel over its whole face, which errs safe for the uprights; a partition from one
        side, with its whole cell pushed against it. Edges follow the joints of the scheme unless the shell says
        otherwise. Sizes go over the plates. The end of a profile is taken as the rectangle round it, which errs safe; a
        swage across a panel halves its long side. Partitions, and baffles that reach the roof, split the panels they
        are welded across: the field that bears least counts.
    """
    plates = solids.shell.features if features is None else features
    loads = Loads(fuel, solids, rules, plates)
    if isinstance(solids.shell, CylinderShell):
        return [*round_panels(solids.shell, loads), *partitions(solids, plates, loads)]
    found = [worst_field(face, solids, plates, loads) for face in faces_of(solids, loads)]
    return [*_least_of_each(found), *partitions(solids, plates, loads)]


def _least_of_each(found: Sequence[Panel]) -> list[Panel]:
    """Of panels with one name that which bears least, in the order in which they came."""
    least = dict[str, Panel]()
    for panel in found:
        if panel.name not in least or panel.proof_kpa < least[panel.name].proof_kpa:
            least[panel.name] = panel
    return list(least.values())


def partitions(solids: Solids, plates: Sequence[Feature], loads: Loads) -> Iterator[Panel]:
    """Partitions, pressed from one side with all of the longer cell beside them."""
    for plate in plates:
        if not isinstance(plate, Partition):
            continue
        axis, shell = "xy".index(plate.axis), solids.shell
        load = loads.upright(loads.run_mm(axis, plate))
        thick = plate.wall_mm(shell.feature_wall_mm)
        joint = partition_joint(plate, loads)
        if isinstance(shell, CylinderShell) and shell.axis == plate.axis:
            edge = typed_edges(shell, plate.name, [edge_at("wall", joint)])
            yield round_plate(plate.name, "partition", shell.diameter_mm, thick, edge, load, loads)
            continue
        face, span = partition_face(solids, plate, load, joint)
        yield worst_field(face, solids, plates, loads, span)


def partition_face(
    solids: Solids, plate: Partition, load: tuple[float, Words], joint: str
) -> tuple[Face, tuple[float, float]]:
    """A partition as a face.

    Parameters
    ----------
    solids : Solids
        The shell worked out.
    plate : Partition
        One of its.
    load : (float, Words)
        Pressure on it [kPa] and what it comes from.
    joint : str
        How it is joined to the shell.

    Returns
    -------
    (Face, (float, float))
        And from where to where along itself it reaches, from the body's low side [mm].
    """
    axis = "xy".index(plate.axis)
    thick = plate.wall_mm(solids.shell.feature_wall_mm)
    low, high, foot, wide, tall = _reach(solids, plate, axis)
    sides = ("right side", "left side") if axis == 0 else ("rear end", "front end")
    corner = list(solids.body.low)
    corner[axis] += plate.at_mm + thick / 2
    corner[2] = foot
    face = Face(
        name=plate.name,
        what="partition",
        sides=(wide, tall),
        axes=(1 - axis, -1),
        edges=(edge_at(sides[0], joint), edge_at(sides[1], joint), edge_at("floor", joint), edge_at("lid", joint)),
        thickness_mm=thick,
        pressed=load,
        frames=(square(axis, True, (corner[0], corner[1], corner[2]), 1 - axis, 2),),
    )
    return face, (low, high)


def partition_joint(plate: Partition, loads: Loads) -> str:
    """How a partition is joined to the shell.

    Parameters
    ----------
    plate : Partition
        With a flange of its own, or the usual one.
    loads : Loads
        With the house rules.

    Returns
    -------
    str
        By a flange, else by a weld on one side.
    """
    return WELD if (loads.rules.flange_mm if plate.flange_mm is None else plate.flange_mm) == 0 else FLANGE


def _reach(solids: Solids, plate: Partition, axis: int) -> tuple[float, float, float, float, float]:
    """From where to where a partition reaches along itself from the body's low side, its foot, width, height [mm]."""
    low, up, high, top = (
        solids.plates[plate.id].section.bounds() if plate.id in solids.plates else _inside(solids, axis)
    )
    from_side = solids.body.low[1 - axis]
    return low - from_side, high - from_side, up, high - low, top - up


def _inside(solids: Solids, axis: int) -> tuple[float, float, float, float]:
    room = solids.inner_body
    return room.low[1 - axis], room.low[2], room.high[1 - axis], room.high[2]


def round_panels(shell: CylinderShell, loads: Loads) -> Iterator[Panel]:
    """The rolled wall, and two flat or dished ends."""
    radius, standing = shell.diameter_mm / 2, shell.axis == "z"
    axis = "xyz".index(shell.axis)
    against = loads.bump() if standing else loads.upright(loads.run_mm(axis))
    yield _round_wall(shell, loads)
    if not shell.dish_mm:
        edges = typed_edges(shell, "ends", [edge_at("wall", WELD)])
        yield round_plate("ends", "flat end", shell.diameter_mm, shell.end_wall_mm, edges, against, loads)
        return
    ball = (radius**2 + shell.dish_mm**2) / (2 * shell.dish_mm)
    thick = shell.end_wall_mm
    stress = against[0] * 1e-3 * ball / (2 * thick)
    yield stretched("ends", "dished end", (shell.diameter_mm, shell.diameter_mm), thick, stress, against, loads)


def _round_wall(shell: CylinderShell, loads: Loads) -> Panel:
    load = loads.bump()
    hoop = load[0] * 1e-3 * shell.diameter_mm / 2 / shell.thickness_mm
    return stretched("wall", "rolled wall", (shell.run_mm, shell.diameter_mm), shell.thickness_mm, hoop, load, loads)


PANELS = study(panels, FUEL, SOLIDS, RULES)
