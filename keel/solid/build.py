"""From a shell to exact solids: outside, inside and cells, by booleans on one description."""

from collections.abc import Iterator
from dataclasses import dataclass, field
from functools import cached_property, lru_cache
from math import pi

import numpy as np
from manifold3d import CrossSection, Manifold, Mesh64

from keel.design.features import Partition, Relief, RoofStep, Sump, Well
from keel.design.shell import BoxShell, CylinderShell, ProfileShell
from keel.solid.box import Cuboid, Triple, cuboid_round
from keel.solid.faults import wrong
from keel.solid.polygon import circle, ring_area
from keel.solid.polyhedron import Array, Mesh
from keel.solid.section import Section, section_of

BEYOND_MM = 50.0
"""How far a cut runs on past the face it is made in [mm]."""
ROUND_MM = 0.15
"""A chord's corner stands off its round by less than this [mm]."""
SLIVER_L = 1e-4
"""A separate space smaller than this is rounding, no cell [L]."""

AnyShell = BoxShell | ProfileShell | CylinderShell


@dataclass(frozen=True)
class FeatureCost:
    """What one feature does, features before it in the list already made."""

    id: str
    name: str
    kind: str
    litres: float
    metal_mm3: float
    weld_mm: float
    box: Cuboid


@dataclass(frozen=True)
class Cell:
    """One liquid-tight volume."""

    name: str
    solid: Manifold
    mesh: Mesh


@dataclass(frozen=True)
class Solids:
    """A shell worked out [mm, vehicle axes].

    Attributes
    ----------
    outer, inner : Manifold
        The shell as seen from outside, and the space for liquid.
    cells : list of Cell
        The inner space by liquid-tight volume, low ends first.
    body : Cuboid
        Bounding box of the body without features: the datum of all features and ports.
    """

    shell: AnyShell
    section: Section
    outer: Manifold
    inner: Manifold
    cells: list[Cell]
    body: Cuboid
    inner_body: Cuboid
    body_inner_l: float
    costs: list[FeatureCost] = field(default_factory=list)

    @property
    def datum(self) -> Triple:
        """Rear, right, lower corner of the body [mm]."""
        return self.body.low

    @cached_property
    def outer_mesh(self) -> Mesh:
        """The outside as a mesh."""
        return mesh_of(self.outer)

    @cached_property
    def bounds(self) -> Cuboid:
        """The box round everything of the shell, sumps included, lips not."""
        mesh = cuboid_round(self.outer_mesh.points)
        low = [b if abs(b - m) < ROUND_MM else m for b, m in zip(self.body.low, mesh.low, strict=True)]
        high = [b if abs(b - m) < ROUND_MM else m for b, m in zip(self.body.high, mesh.high, strict=True)]
        return Cuboid((low[0], low[1], low[2]), (high[0], high[1], high[2]))

    @property
    def brimful_l(self) -> float:
        """Inner volume of all cells [L]."""
        return sum(cell.mesh.volume_mm3 for cell in self.cells) / 1e6

    @property
    def metal_mm3(self) -> float:
        """Volume of the shell's metal, flanges and lips not counted [mm³]."""
        return float(self.outer.volume() - self.inner.volume())


def mesh_of(solid: Manifold) -> Mesh:
    """A manifold's surface as a mesh."""
    made = solid.to_mesh64()
    return Mesh(np.array(made.vert_properties[:, :3]), np.array(made.tri_verts, dtype=np.int64))


def manifold_of(mesh: Mesh) -> Manifold:
    """A closed mesh as a manifold."""
    return Manifold(Mesh64(np.ascontiguousarray(mesh.points), mesh.triangles.astype(np.uint64)))


def drawn_out(ring: Array, axis: int, start: float, end: float) -> Manifold:
    """A ring drawn out along an axis (0, 1 or 2) from start to end [mm]."""
    solid = Manifold.extrude(CrossSection([ring]), end - start)
    return solid.transform(_along(axis, start, end))


def _along(axis: int, start: float, end: float) -> Array:
    """Turns (u, v, w) of an extrusion into vehicle axes; each is a rotation, so nothing is mirrored."""
    if axis == 0:
        return np.array([[0.0, 0, 1, start], [1, 0, 0, 0], [0, 1, 0, 0]])
    if axis == 1:
        return np.array([[1.0, 0, 0, 0], [0, 0, -1, end], [0, 1, 0, 0]])
    return np.array([[1.0, 0, 0, 0], [0, 1, 0, 0], [0, 0, 1, start]])


def block(low: Triple, high: Triple) -> Manifold:
    """An axis-aligned box as a manifold."""
    size = [max(1e-6, b - a) for a, b in zip(low, high, strict=True)]
    return Manifold.cube(size).translate(list(low))


@lru_cache(maxsize=256)
def _built(key: str, seam: str) -> Solids:
    from keel.design.document import Design

    shell = Design.model_validate_json(key).shell
    assert shell is not None
    return _build(shell, seam)


def build(shell: AnyShell, seam: str = "lid") -> Solids:
    """Outside, inside and cells of a shell.

    Parameters
    ----------
    shell : BoxShell, ProfileShell or CylinderShell
    seam : str
        Where the wrapper closes: a seam at a corner leaves that corner of a box sharp.

    Returns
    -------
    Solids
        Every wall inward by its thickness; wells and reliefs outward from the recess into the tank;
        rounds as chords that enclose the same area (within 0.05 mm of the true round).

    Raises
    ------
    GeometryError
        For a profile that crosses itself, a wall that eats the gap, a feature that leaves the shell
        or another's way, or a space too thin to be made.
    """
    from keel.design.document import Design

    return _built(Design.model_construct(shell=shell).model_dump_json(include={"shell"}), seam)


def _build(shell: AnyShell, seam: str) -> Solids:
    section = section_of(shell, seam)
    outer = drawn_out(section.outer, section.axis, *section.span)
    inner = drawn_out(section.inner, section.axis, *section.inner_span)
    if isinstance(shell, CylinderShell) and shell.dish_mm:
        outer, inner = _dished(shell, section, outer, inner)
    body, inner_body = _body(shell, section), _bounds(inner)
    whole = float(inner.volume()) / 1e6
    costs = []
    for place, feature in enumerate(shell.features):
        outside, inside = _made(feature, shell, body, inner_body, outer, inner, place)
        costs.append(_cost(feature, shell, body, (outer, inner), (outside, inside)))
        outer, inner = outside, inside
    return Solids(
        shell=shell,
        section=section,
        outer=outer,
        inner=inner,
        cells=_cells(shell, inner),
        body=body,
        inner_body=inner_body,
        body_inner_l=whole,
        costs=costs,
    )


def _body(shell: AnyShell, section: Section) -> Cuboid:
    """The box round the body without features, from its true arcs."""
    low, high = section.extents
    dish = shell.dish_mm if isinstance(shell, CylinderShell) else 0.0
    first, second = [i for i in range(3) if i != section.axis]
    corners = np.zeros((2, 3))
    corners[:, first], corners[:, second] = (low[0], high[0]), (low[1], high[1])
    corners[:, section.axis] = section.span[0] - dish, section.span[1] + dish
    return cuboid_round(corners)


def _bounds(solid: Manifold) -> Cuboid:
    x0, y0, z0, x1, y1, z1 = solid.bounding_box()
    return Cuboid((x0, y0, z0), (x1, y1, z1))


def _dished(shell: CylinderShell, section: Section, outer: Manifold, inner: Manifold) -> tuple[Manifold, Manifold]:
    """Both ends bulged: caps of a sphere over the rims, the inner ones a wall smaller about the same centre."""
    radius, wall = shell.diameter_mm / 2, shell.end_wall_mm
    ball = (radius**2 + shell.dish_mm**2) / (2 * shell.dish_mm)
    depth = ball - shell.dish_mm
    first, second = [i for i in range(3) if i != section.axis]
    middle = section.outer.mean(axis=0)
    inner = drawn_out(section.inner, section.axis, *section.span)
    for out, at in ((-1.0, section.span[0]), (1.0, section.span[1])):
        frame = _frame(section.axis, out)
        frame[first, 3], frame[second, 3], frame[section.axis, 3] = middle[0], middle[1], at
        outer += _dome(ball, depth).transform(frame)
        inner += _dome(ball - wall, depth).transform(frame)
    return outer, inner


def _frame(axis: int, out: float) -> Array:
    """Turns (u, v, w) so that w points along an axis, outward; nothing is mirrored."""
    first, second = [i for i in range(3) if i != axis]
    frame = np.zeros((3, 4))
    frame[first, 0] = frame[second, 1] = 1.0
    frame[axis, 2] = out
    if np.linalg.det(frame[:, :3]) < 0:
        frame[second, 1] = -1.0
    return frame


def _dome(ball: float, depth: float) -> Manifold:
    """What a sphere has above a plane `depth` over its centre, the plane at w = 0, with a foot below it."""
    rim = float(np.sqrt(ball**2 - depth**2))
    angles = np.linspace(np.arcsin(rim / ball), 0, 25)[:-1]
    arc = [(float(ball * np.sin(a)), float(ball * np.cos(a) - depth)) for a in angles]
    ring = np.array([(0.0, -1.0), (rim, -1.0), *arc, (0.0, ball - depth)])
    count = 96
    wider = float(np.sqrt(2 * pi / count / np.sin(2 * pi / count)))
    return Manifold.revolve(CrossSection([ring]), count).rotate([0.0, 0.0, 180 / count]).scale([wider, wider, 1.0])


def _made(
    feature: Well | Sump | Relief | RoofStep | Partition,
    shell: AnyShell,
    body: Cuboid,
    inner_body: Cuboid,
    outer: Manifold,
    inner: Manifold,
    place: int,
) -> tuple[Manifold, Manifold]:
    wall, where = shell.feature_wall_mm, f"shell.features.{place}"
    match feature:
        case Well():
            _check_slope(feature, where)
            cut, grown = well_cut(feature, body, 0.0), well_cut(feature, body, wall)
            outside, inside = outer - cut, inner - grown
            if _same_volume(outer, outside):
                raise wrong(where, f"{feature.name} lies outside the shell", None, "inside the shell's face")
            _check_through(feature.name, where, feature.deep_mm, wall, grown, inner_body, feature.face)
            return outside, inside
        case Sump():
            _check_slope(feature, where)
            if _same_volume(outer + sump_solid(feature, body, 0.0, 0.0), outer):
                raise wrong(where, f"{feature.name} doesn't reach out of the shell", feature.deep_mm, "below the floor")
            room = min(feature.long_mm, feature.wide_mm if feature.form == "box" else feature.long_mm)
            if room - 2 * feature.slope_mm <= 2 * wall or feature.deep_mm <= wall:
                raise wrong(where, f"a {wall:g} mm wall fills {feature.name}", wall, "less than half its width")
            # Over a flat floor a sump starts at the plate; under a round or sloping one it runs up to meet it.
            up = inner_body.low[2] - body.low[2] if isinstance(shell, BoxShell) else body.size[2] / 2
            low = sump_solid(feature, body, wall, up + 1e-3)
            return outer + sump_solid(feature, body, 0.0, up), inner + low
        case Relief():
            cut, grown = relief_cut(feature, body, 0.0), relief_cut(feature, body, wall)
            if _same_volume(outer, outer - cut):
                raise wrong(where, f"{feature.name} doesn't touch the shell", None, "across the shell")
            return outer - cut, inner - grown
        case RoofStep():
            axis = 0 if feature.side in ("front", "rear") else 1
            if feature.drop_mm >= body.size[2] - 2 * wall or feature.reach_mm >= body.size[axis]:
                raise wrong(
                    where, f"{feature.name} leaves nothing of the shell", feature.drop_mm, round(body.size[2], 3)
                )
            return outer - step_cut(feature, body, 0.0), inner - step_cut(feature, body, wall)
        case Partition():
            thick = wall if feature.thickness_mm is None else feature.thickness_mm
            axis = "xy".index(feature.axis)
            start = body.low[axis] + feature.at_mm
            if not inner_body.low[axis] < start < start + thick < inner_body.high[axis]:
                raise wrong(
                    f"{where}.at_mm",
                    f"{feature.name} stands outside the tank",
                    feature.at_mm,
                    f"{inner_body.low[axis] - body.low[axis]:g} to {inner_body.high[axis] - body.low[axis] - thick:g}",
                )
            low, high = list(inner_body.low), list(inner_body.high)
            low, high = [v - 1e3 for v in low], [v + 1e3 for v in high]
            low[axis], high[axis] = start, start + thick
            return outer, inner - block((low[0], low[1], low[2]), (high[0], high[1], high[2]))


def _same_volume(a: Manifold, b: Manifold) -> bool:
    return abs(float(a.volume()) - float(b.volume())) < 1.0


def _check_slope(feature: Well | Sump, where: str) -> None:
    least = feature.long_mm if feature.form == "round" else min(feature.long_mm, feature.wide_mm)
    if 2 * feature.slope_mm >= least:
        raise wrong(
            f"{where}.slope_mm",
            f"the sides of {feature.name} meet before the bottom",
            feature.slope_mm,
            f"below {least / 2:g}",
        )


def _check_through(
    name: str, where: str, deep: float, wall: float, grown: Manifold, inner_body: Cuboid, face: str
) -> None:
    axis, high = FACE_AXIS[face]
    far = _bounds(grown).low[axis] if high else _bounds(grown).high[axis]
    limit = inner_body.low[axis] if high else inner_body.high[axis]
    if (far - limit) * (1 if high else -1) <= 0:
        room = inner_body.size[axis]
        raise wrong(
            f"{where}.deep_mm",
            f"{name} goes right through the tank: it may be {room:g} mm deep at most",
            deep,
            round(room, 3),
        )


FACE_AXIS: dict[str, tuple[int, bool]] = {
    "rear": (0, False),
    "front": (0, True),
    "right": (1, False),
    "left": (1, True),
    "floor": (2, False),
    "roof": (2, True),
}


def _frustum(long: float, wide: float, deep: float, slope: float, round_: bool) -> tuple[Array, Array]:
    """Mouth and bottom rings of a recess about its middle [mm]."""
    if round_:
        ring = circle(1.0)
        return ring * long / 2, ring * (long / 2 - slope)
    mouth = np.array([(-long / 2, -wide / 2), (long / 2, -wide / 2), (long / 2, wide / 2), (-long / 2, wide / 2)])
    bottom = mouth - np.sign(mouth) * slope
    return mouth, bottom


def _recess(long: float, wide: float, deep: float, slope: float, wall: float, round_: bool, out: float) -> Manifold:
    """A recess from w = −deep up to the mouth at w = 0 and on to w = out, grown by a wall on every side but the mouth's.

    A side that leans in by `slope` over the depth moves out by wall · √(1 + (slope/deep)²) at any height.
    """
    lean = slope / deep
    more = wall * np.sqrt(1 + lean**2)
    mouth, _ = _frustum(long + 2 * more, wide + 2 * more, deep, 0.0, round_)
    _, bottom = _frustum(long + 2 * more, wide + 2 * more, deep, slope + lean * wall, round_)
    count = len(mouth)
    places = np.vstack([
        np.column_stack([bottom, np.full(count, -deep - wall)]),
        np.column_stack([mouth, np.zeros(count)]),
    ])  # fmt: skip
    solid = Manifold.hull_points(places)
    return solid + Manifold.extrude(CrossSection([mouth]), out)


def well_cut(well: Well, body: Cuboid, wall: float) -> Manifold:
    """The space a well takes, grown by a wall into the tank."""
    axis, high = FACE_AXIS[well.face]
    round_ = well.form == "round"
    wide = well.long_mm if round_ else well.wide_mm
    solid = _recess(well.long_mm, wide, well.deep_mm, well.slope_mm, wall, round_, BEYOND_MM)
    first, second = [i for i in range(3) if i != axis]
    frame = _frame(axis, 1.0 if high else -1.0)
    frame[first, 3] = body.low[first] + well.a_mm + well.long_mm / 2
    frame[second, 3] = body.low[second] + well.b_mm + wide / 2
    frame[axis, 3] = body.high[axis] if high else body.low[axis]
    return solid.transform(frame)


def sump_solid(sump: Sump, body: Cuboid, wall: float, up: float) -> Manifold:
    """A sump let down, shrunk by a wall, running up by `up` above the body's underside."""
    round_ = sump.form == "round"
    wide = sump.long_mm if round_ else sump.wide_mm
    lean = sump.slope_mm / sump.deep_mm
    less = wall * np.sqrt(1 + lean**2)
    deep = sump.deep_mm - wall
    mouth, _ = _frustum(sump.long_mm - 2 * less, wide - 2 * less, deep, 0.0, round_)
    _, bottom = _frustum(sump.long_mm - 2 * less, wide - 2 * less, deep, lean * deep, round_)
    count = len(mouth)
    places = np.vstack([
        np.column_stack([bottom, np.full(count, -deep)]),
        np.column_stack([mouth, np.zeros(count)]),
    ])  # fmt: skip
    solid = Manifold.hull_points(places)
    if up > 0:
        solid += Manifold.extrude(CrossSection([mouth]), up)
    middle = (body.low[0] + sump.a_mm + sump.long_mm / 2, body.low[1] + sump.b_mm + wide / 2, body.low[2])
    return solid.translate(list(middle))


def relief_cut(relief: Relief, body: Cuboid, wall: float) -> Manifold:
    """The space a relief takes, grown by a wall all round."""
    low = [body.low[0] + relief.x_mm - wall, body.low[1] + relief.y_mm - wall, body.low[2] + relief.z_mm - wall]
    size = [relief.length_mm + 2 * wall, relief.width_mm + 2 * wall, relief.height_mm + 2 * wall]
    if relief.form == "box":
        return Manifold.cube(size).translate(low)
    axis = "xyz".index(relief.form)
    first, second = [i for i in range(3) if i != axis]
    radius = min(size[first], size[second]) / 2
    middle = np.array([low[first] + size[first] / 2, low[second] + size[second] / 2])
    return drawn_out(middle + circle(radius), axis, low[axis], low[axis] + size[axis])


def step_cut(step: RoofStep, body: Cuboid, wall: float) -> Manifold:
    """What a lowered roof takes off, grown by a wall."""
    low = [v - BEYOND_MM for v in body.low]
    high = [v + BEYOND_MM for v in body.high]
    low[2] = body.high[2] - step.drop_mm - wall
    axis, far = FACE_AXIS[step.side]
    if far:
        low[axis] = body.high[axis] - step.reach_mm - wall
    else:
        high[axis] = body.low[axis] + step.reach_mm + wall
    return block((low[0], low[1], low[2]), (high[0], high[1], high[2]))


def _cost(
    feature: Well | Sump | Relief | RoofStep | Partition,
    shell: AnyShell,
    body: Cuboid,
    before: tuple[Manifold, Manifold],
    after: tuple[Manifold, Manifold],
) -> FeatureCost:
    (outer, inner), (outside, inside) = before, after
    held = float(inside.volume() - inner.volume())
    changed = outer - outside if outside.volume() < outer.volume() else outside - outer
    if isinstance(feature, Partition):
        changed = inner - inside
    box = _bounds(changed) if not changed.is_empty() else body
    return FeatureCost(
        id=feature.id,
        name=feature.name,
        kind=feature.kind,
        litres=held / 1e6,
        metal_mm3=float(outside.volume() - outer.volume()) - held,
        weld_mm=_weld(feature, body, box, changed),
        box=box,
    )


def _weld(
    feature: Well | Sump | Relief | RoofStep | Partition, body: Cuboid, box: Cuboid, changed: Manifold
) -> float:
    """Weld a feature adds [mm]: its mouth and its upright corners; a partition, all round."""
    length, width, height = box.size
    match feature:
        case Well() | Sump():
            if feature.form == "round":
                return 2 * pi * feature.long_mm + feature.deep_mm
            mouth = 2 * (feature.long_mm + feature.wide_mm)
            slant = float(np.hypot(feature.deep_mm, np.sqrt(2) * feature.slope_mm))
            return mouth - _open_edges(feature, body) + 4 * slant
        case Relief():
            return 2 * (length + width + height)
        case RoofStep():
            return 2 * (width if feature.side in ("front", "rear") else length)
        case Partition():
            axis = "xy".index(feature.axis)
            ring = changed.trim_by_plane([1.0 if i == axis else 0.0 for i in range(3)], box.low[axis] + 1e-6)
            return _rim(ring, axis, box.low[axis])


def _open_edges(feature: Well | Sump, body: Cuboid) -> float:
    """Length of a well's mouth that runs along the edge of its face and needs no seam of its own [mm]."""
    axis = FACE_AXIS[feature.face][0] if isinstance(feature, Well) else 2
    first, second = [i for i in range(3) if i != axis]
    a, b = body.size[first], body.size[second]
    along = sum(feature.wide_mm for edge in (feature.a_mm, a - feature.a_mm - feature.long_mm) if edge <= 1e-6)
    return along + sum(feature.long_mm for edge in (feature.b_mm, b - feature.b_mm - feature.wide_mm) if edge <= 1e-6)


def _rim(solid: Manifold, axis: int, at: float) -> float:
    """Length round a cut plate [mm]."""
    return sum(
        float(np.linalg.norm(np.roll(ring, -1, axis=0) - ring, axis=1).sum())
        for ring in slice_rings(solid, axis, at + 1e-3)
    )


def slice_rings(solid: Manifold, axis: int, at: float) -> list[Array]:
    """Rings where a plane square to an axis cuts a solid, shape (k, 2): the two other axes in their order.

    Outer rings run counter-clockwise, holes clockwise.
    """
    turn = {0: [[0.0, 1, 0, 0], [0, 0, 1, 0], [1, 0, 0, 0]], 1: [[1.0, 0, 0, 0], [0, 0, -1, 0], [0, 1, 0, 0]]}
    placed = solid if axis == 2 else solid.transform(np.array(turn[axis]))
    flip = np.array([1.0, -1.0]) if axis == 1 else np.array([1.0, 1.0])
    rings = [np.asarray(ring, dtype=np.float64) * flip for ring in placed.slice(at).to_polygons()]
    return [ring[::-1] for ring in rings] if axis == 1 else rings


def _cells(shell: AnyShell, inner: Manifold) -> list[Cell]:
    """The separate spaces of the inside; low ends first."""
    if inner.is_empty():
        raise wrong("shell", "nothing is left of the inside", 0.0, "some room for fuel")
    parts = [part for part in inner.decompose() if part.volume() / 1e6 > SLIVER_L]
    partitions = [f for f in shell.features if isinstance(f, Partition)]
    axis = "xy".index(partitions[0].axis) if partitions else 0
    parts.sort(key=lambda part: (part.bounding_box()[axis], part.bounding_box()[2]))
    names = list(_cell_names(len(parts), axis))
    return [Cell(name=name, solid=part, mesh=mesh_of(part)) for name, part in zip(names, parts, strict=True)]


def _cell_names(count: int, axis: int) -> Iterator[str]:
    ends = ("rear cell", "front cell") if axis == 0 else ("right cell", "left cell")
    for place in range(count):
        if count == 1:
            yield "tank"
        elif place in (0, count - 1):
            yield ends[0 if place == 0 else 1]
        else:
            yield f"cell {place + 1} of {count}"


__all__ = ["AnyShell", "Cell", "FeatureCost", "Solids", "build", "ring_area"]
