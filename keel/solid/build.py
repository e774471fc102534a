"""From a shell to exact solids: outside, inside and cells, by booleans on one description."""

from collections.abc import Iterator
from dataclasses import dataclass, field
from functools import cached_property, lru_cache
from itertools import pairwise
from math import pi

import numpy as np
from manifold3d import CrossSection, Manifold

from keel.design.features import Feature, Partition, Relief, RoofStep, Sump, Well
from keel.design.shell import BoxShell, CylinderShell, ProfileShell
from keel.solid.box import Cuboid, Triple, cuboid_round
from keel.solid.cuts import FACE_AXIS, relief_cut, step_cut, sump_solid, weld_of, well_cut
from keel.solid.faults import wrong
from keel.solid.polyhedron import Mesh
from keel.solid.section import Section, section_of
from keel.solid.shapes import block, bounds_of, drawn_out, frame_along, mesh_of

FAR_MM = 1000.0
DOME_RINGS = 6
ROUND_MM = 0.2
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
        The body and its features.
    seam : str
        Where the wrapper closes: a seam at a corner leaves that corner of a box sharp.

    Returns
    -------
    Solids
        Every wall inward by its thickness; wells and reliefs outward from the recess into the tank;
        rounds as chords that enclose the same area (within 0.1 mm of the true round).

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
        outer, inner = _dished(shell, section)
    body, inner_body = _body(shell, section), bounds_of(inner)
    whole = float(inner.volume()) / 1e6
    costs = []
    for place, feature in enumerate(shell.features):
        at = _Making(shell, body, inner_body, f"shell.features.{place}")
        outside, inside = _made(feature, at, outer, inner)
        if inside.volume() / 1e6 < SLIVER_L:
            raise wrong(at.where, f"{feature.name} leaves no room for fuel", None, "some room")
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


def _dished(shell: CylinderShell, section: Section) -> tuple[Manifold, Manifold]:
    """Outside and inside of a cylinder with bulged ends: caps of a sphere, the inner ones a wall smaller."""
    radius, wall = shell.diameter_mm / 2, shell.end_wall_mm
    ball = (radius**2 + shell.dish_mm**2) / (2 * shell.dish_mm)
    depth = ball - shell.dish_mm
    frame = frame_along(section.axis, 1.0)
    first, second = [i for i in range(3) if i != section.axis]
    middle = section.outer.mean(axis=0)
    frame[first, 3], frame[second, 3], frame[section.axis, 3] = middle[0], middle[1], section.span[0]
    around = len(section.outer)
    outer = _turned(radius, shell.run_mm, _cap(ball, depth), around)
    inner = _turned(radius - shell.thickness_mm, shell.run_mm, _cap(ball - wall, depth), around)
    return outer.transform(frame), inner.transform(frame)


def _cap(ball: float, depth: float) -> list[tuple[float, float]]:
    """Radius and height over the rim of a sphere's cap, rim first: chords, heightened to the cap's volume."""
    rim, rise = float(np.sqrt(ball**2 - depth**2)), ball - depth
    angles = np.linspace(np.arcsin(min(1.0, rim / ball)), 0, DOME_RINGS + 1)
    arc = [(float(ball * np.sin(a)), float(ball * np.cos(a) - depth)) for a in angles]
    cones = sum(pi / 3 * (h - g) * (r * r + r * q + q * q) for (r, g), (q, h) in pairwise(arc))
    taller = pi * rise**2 * (3 * ball - rise) / 3 / cones
    return [(r, h * taller) for r, h in arc]


def _turned(radius: float, run: float, cap: list[tuple[float, float]], around: int) -> Manifold:
    """A cylinder from w = 0 to `run` with a cap on either end, as a polygon of its area turned about w."""
    rim = [] if cap[0][0] > radius - 1e-6 else [cap[0]]
    top = [(radius, 0.0), *rim, *cap[1:]]
    ring = [(r, -h) for r, h in reversed(top)] + [(r, run + h) for r, h in top]
    wider = float(np.sqrt(2 * pi / around / np.sin(2 * pi / around)))
    turned = Manifold.revolve(CrossSection([np.array(ring)]), around)
    return turned.rotate([0.0, 0.0, 180 / around]).scale([wider, wider, 1.0])


@dataclass(frozen=True)
class _Making:
    """What every feature is made in and with."""

    shell: AnyShell
    body: Cuboid
    inner_body: Cuboid
    where: str

    @property
    def wall(self) -> float:
        return self.shell.feature_wall_mm


def _made(feature: Feature, at: _Making, outer: Manifold, inner: Manifold) -> tuple[Manifold, Manifold]:
    """Outside and inside with one more feature."""
    match feature:
        case Well():
            return _with_well(feature, at, outer, inner)
        case Sump():
            return _with_sump(feature, at, outer, inner)
        case Relief():
            cut = relief_cut(feature, at.body, 0.0)
            if _same_volume(outer, outer - cut):
                raise wrong(at.where, f"{feature.name} doesn't touch the shell", None, "across the shell")
            return outer - cut, inner - relief_cut(feature, at.body, at.wall)
        case RoofStep():
            return _with_step(feature, at, outer, inner)
        case Partition():
            return outer, _with_partition(feature, at, inner)


def _with_well(well: Well, at: _Making, outer: Manifold, inner: Manifold) -> tuple[Manifold, Manifold]:
    _check_slope(well, at.where)
    outside = outer - well_cut(well, at.body, 0.0)
    if _same_volume(outer, outside):
        raise wrong(at.where, f"{well.name} lies outside the shell", None, "inside the shell's face")
    axis = FACE_AXIS[well.face][0]
    room = at.inner_body.size[axis]
    gone = well.deep_mm + at.wall - (at.body.size[axis] - room) / 2
    if gone >= room:
        raise wrong(
            f"{at.where}.deep_mm",
            f"{well.name} goes right through the tank: it must be less than {well.deep_mm - gone + room:g} mm deep",
            well.deep_mm,
            round(well.deep_mm - gone + room, 3),
        )
    return outside, inner - well_cut(well, at.body, at.wall)


def _with_sump(sump: Sump, at: _Making, outer: Manifold, inner: Manifold) -> tuple[Manifold, Manifold]:
    _check_slope(sump, at.where)
    least = sump.long_mm if sump.form == "round" else min(sump.long_mm, sump.wide_mm)
    if least - 2 * sump.slope_mm <= 2 * at.wall or sump.deep_mm <= at.wall:
        raise wrong(at.where, f"a {at.wall:g} mm wall fills {sump.name}", at.wall, "less than half its width")
    # Over a flat floor a sump starts at the plate; under a round or sloping one it runs up to meet it.
    flat = isinstance(at.shell, BoxShell)
    up = at.inner_body.low[2] - at.body.low[2] if flat else at.body.size[2] / 2
    return outer + sump_solid(sump, at.body, 0.0, up), inner + sump_solid(sump, at.body, at.wall, up + 1e-3)


def _with_step(step: RoofStep, at: _Making, outer: Manifold, inner: Manifold) -> tuple[Manifold, Manifold]:
    axis = 0 if step.side in ("front", "rear") else 1
    for name, value, limit in (
        ("drop_mm", step.drop_mm, at.body.size[2] - 2 * at.wall),
        ("reach_mm", step.reach_mm, at.body.size[axis] - 2 * at.wall),
    ):
        if value >= limit:
            raise wrong(
                f"{at.where}.{name}", f"{step.name} leaves nothing of the shell: below {limit:g} mm", value, limit
            )
    return outer - step_cut(step, at.body, 0.0), inner - step_cut(step, at.body, at.wall)


def _with_partition(plate: Partition, at: _Making, inner: Manifold) -> Manifold:
    thick = at.wall if plate.thickness_mm is None else plate.thickness_mm
    axis = "xy".index(plate.axis)
    start, inside = at.body.low[axis] + plate.at_mm, at.inner_body
    if not inside.low[axis] < start < start + thick < inside.high[axis]:
        raise wrong(
            f"{at.where}.at_mm",
            f"{plate.name} stands outside the tank",
            plate.at_mm,
            f"{inside.low[axis] - at.body.low[axis]:g} to {inside.high[axis] - at.body.low[axis] - thick:g} mm",
        )
    low, high = [v - FAR_MM for v in inside.low], [v + FAR_MM for v in inside.high]
    low[axis], high[axis] = start, start + thick
    return inner - block((low[0], low[1], low[2]), (high[0], high[1], high[2]))


def _same_volume(a: Manifold, b: Manifold) -> bool:
    return abs(float(a.volume()) - float(b.volume())) < 1.0


def _check_slope(feature: Well | Sump, where: str) -> None:
    least = feature.long_mm if feature.form == "round" else min(feature.long_mm, feature.wide_mm)
    if 2 * feature.slope_mm >= least:
        raise wrong(
            f"{where}.slope_mm",
            f"the sides of {feature.name} meet before the bottom",
            feature.slope_mm,
            f"below {least / 2:g} mm",
        )


def _cost(
    feature: Feature,
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
    box = bounds_of(changed) if not changed.is_empty() else body
    return FeatureCost(
        id=feature.id,
        name=feature.name,
        kind=feature.kind,
        litres=held / 1e6,
        metal_mm3=float(outside.volume() - outer.volume()) - held,
        weld_mm=weld_of(feature, body, box, changed),
        box=box,
    )


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
