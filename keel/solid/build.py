"""From a shell to exact solids: outside, inside and cells, by booleans on one description."""

from collections.abc import Iterator
from dataclasses import dataclass, field
from functools import cached_property, lru_cache
from itertools import pairwise
from math import pi

import numpy as np
from manifold3d import CrossSection, Manifold

from keel.design.features import Baffle, Feature, Partition, Pot, Relief, RoofStep, Sump, Well
from keel.design.shell import BoxShell, CylinderShell, ProfileShell
from keel.solid.box import Cuboid, Triple, cuboid_round
from keel.solid.cuts import (
    ABOVE_MM,
    FACE_AXIS,
    relief_cut,
    step_cut,
    sump_solid,
    weld_of,
    well_cut,
    well_frame,
    well_piece,
)
from keel.solid.faults import wrong
from keel.solid.plates import Plate, plate_at, slab_of
from keel.solid.polyhedron import Mesh
from keel.solid.pots import PotPlace, place_of_pot, walls_of
from keel.solid.section import Section, section_of
from keel.solid.shapes import bounds_of, drawn_out, frame_along, mesh_of
from keel.solid.sides import Hull, Side, meet

DOME_RINGS = 6
ROUND_MM = 0.2
"""A chord's corner stands off its round by less than this [mm]."""
SLIVER_L = 1e-4
"""A separate space smaller than this is rounding, no cell [L]."""

AnyShell = BoxShell | ProfileShell | CylinderShell
BUILT_KEPT = 48
"""How many shells are remembered, so that whoever asks again about the same one gets it at once."""


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
    pots: list[PotPlace] = field(default_factory=list)
    plates: dict[str, Plate] = field(default_factory=dict)
    """Partitions and baffles as they are before the shell trims them, by id."""
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
        """Volume of the shell's metal, flanges and lips not counted [mm³]; a bag counts as metal."""
        return float(self.outer.volume() - self.inner.volume())


@dataclass(frozen=True)
class _Asked:
    """A shell as the key of what is built of it: two that are written alike are the same."""

    written: str
    seam: str
    shell: AnyShell = field(compare=False)


@lru_cache(maxsize=BUILT_KEPT)
def _built(asked: _Asked) -> Solids:
    return _build(asked.shell, asked.seam)


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
    return _built(_Asked(shell.model_dump_json(), seam, shell))


def _build(shell: AnyShell, seam: str) -> Solids:
    section = section_of(shell, seam)
    outer = drawn_out(section.outer, section.axis, *section.span)
    inner = drawn_out(section.inner, section.axis, *section.inner_span)
    if isinstance(shell, CylinderShell) and shell.dish_mm:
        outer, inner = _dished(shell, section)
    body, inner_body = _body(shell, section), bounds_of(inner)
    whole = float(inner.volume()) / 1e6
    making = _Making(shell, section, body, inner_body, outer, inner)
    order = sorted(enumerate(shell.features), key=lambda item: _ORDER[item[1].kind])
    for place, feature in order:
        making.add(feature, f"shell.features.{place}")
    outer, inner = making.outer, making.inner
    if inner.volume() / 1e6 < SLIVER_L:
        raise wrong("shell.features", "the features leave no room for fuel", 0.0, "some room")
    places = {feature.id: place for place, feature in enumerate(shell.features)}
    return Solids(
        shell=shell,
        section=section,
        outer=outer,
        inner=inner,
        cells=_cells(shell, inner),
        body=body,
        inner_body=inner_body,
        body_inner_l=whole,
        pots=making.pots,
        plates=making.plates,
        costs=sorted(making.costs, key=lambda cost: places[cost.id]),
    )


_ORDER = {"sump": 0, "well": 1, "relief": 1, "roof step": 1, "pot": 2, "partition": 3, "baffle": 4}
"""What is let down comes first, then what is cut away, what is walled off, what stands inside."""


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


class _Making:
    """A shell with feature after feature. What each does is found on its own piece, not on the whole."""

    def __init__(
        self,
        shell: AnyShell,
        section: Section,
        body: Cuboid,
        inner_body: Cuboid,
        outer: Manifold,
        inner: Manifold,
    ) -> None:
        self.shell, self.body, self.inner_body = shell, body, inner_body
        self.costs: list[FeatureCost] = []
        self.pots: list[PotPlace] = []
        self.plates: dict[str, Plate] = {}
        plain = section.edges and not (isinstance(shell, CylinderShell) and shell.dish_mm)
        self._outer = Side(outer, Hull(section.outer, section.axis, section.span) if plain else None)
        self._inner = Side(inner, Hull(section.inner, section.axis, section.inner_span) if plain else None)

    @property
    def wall(self) -> float:
        return self.shell.feature_wall_mm

    @property
    def outer(self) -> Manifold:
        return self._outer.whole()

    @property
    def inner(self) -> Manifold:
        return self._inner.whole()

    def add(self, feature: Feature, where: str) -> None:
        """Make one more feature and note what it costs."""
        match feature:
            case Well():
                _check_well(feature, self, where)
                frame = well_frame(feature, self.body)
                cuts = well_cut(feature, frame, 0.0), well_cut(feature, frame, self.wall)
                if self._plain_well(feature, cuts):
                    return
                outside, inside = self._outer.cut(cuts[0]), self._inner.cut(cuts[1])
            case Relief():
                cuts = relief_cut(feature, self.body, 0.0), relief_cut(feature, self.body, self.wall)
                outside, inside = self._outer.cut(cuts[0]), self._inner.cut(cuts[1])
            case RoofStep():
                _check_step(feature, self, where)
                cuts = step_cut(feature, self.body, 0.0), step_cut(feature, self.body, self.wall)
                outside, inside = self._outer.cut(cuts[0]), self._inner.cut(cuts[1])
            case Sump():
                _check_sump(feature, self, where)
                # Over a flat floor a sump starts at the plate; under a round or sloping one it runs up to meet it.
                flat = isinstance(self.shell, BoxShell)
                up = self.inner_body.low[2] - self.body.low[2] if flat else self.body.size[2] / 2
                outside = self._outer.put_on(sump_solid(feature, self.body, 0.0, up))
                inside = self._inner.put_on(sump_solid(feature, self.body, self.wall, up + 1e-3))
            case Partition() | Baffle():
                self._stand(feature, where)
                return
            case Pot():
                self._set_down(feature, where)
                return
        if isinstance(feature, Well | Relief) and outside.volume() < 1.0:
            raise wrong(where, f"{feature.name} lies outside the shell", None, "across the shell's metal")
        self.costs.append(self._cost(feature, outside, inside))

    def _stand(self, feature: Partition | Baffle, where: str) -> None:
        """Stand a plate inside."""
        here = self._inner.within(slab_of(feature, self.body, self.wall))
        plate = plate_at(feature, here, self.body, self.inner_body, self.wall, where)
        axis = "xy".index(feature.axis)
        start = self.body.low[axis] + feature.at_mm
        thick = feature.wall_mm(self.wall)
        for place in self.pots:
            if start < place.box.high[axis] and place.box.low[axis] < start + thick:
                raise wrong(
                    f"{where}.at_mm", f"{feature.name} runs into {place.pot.name}", feature.at_mm, "clear of it"
                )
        self.plates[feature.id] = plate
        self._put_in(feature, plate.slab, plate.weld_mm)

    def _set_down(self, pot: Pot, where: str) -> None:
        """Set a pot down on the floor."""
        place = place_of_pot(pot, self.body, self.inner_body, self.wall)
        upright = (0.0, 0.0, self.inner_body.size[2])
        walls = walls_of(place, self._inner.within(place.box.grown(upright, upright)), where)
        for other in self.pots:
            if meet(place.box, other.box):
                raise wrong(where, f"{pot.name} runs into {other.pot.name}", pot.a_mm, "clear of it")
        self.pots.append(place)
        self._put_in(pot, walls.solid, walls.weld_mm)

    def _put_in(self, feature: Partition | Baffle | Pot, solid: Manifold, weld_mm: float) -> None:
        """Put metal inside, and note what of it the shell leaves."""
        inside = self._inner.cut(solid)
        metal = float(inside.volume())
        self.costs.append(
            FeatureCost(
                id=feature.id,
                name=feature.name,
                kind=feature.kind,
                litres=-metal / 1e6,
                metal_mm3=metal,
                weld_mm=weld_mm,
                box=self.body if inside.is_empty() else bounds_of(inside),
            )
        )

    def _plain_well(self, well: Well, cuts: tuple[Manifold, Manifold]) -> bool:
        """Make a well that lies wholly in the plain body, apart from everything else: its sums need no solids."""
        axis, high = FACE_AXIS[well.face]
        plate = abs(
            (self.body.high if high else self.body.low)[axis]
            - (self.inner_body.high if high else self.inner_body.low)[axis]
        )
        box, outside = well_piece(well, self.body, 0.0, 0.0)
        inner_box, inside = well_piece(well, self.body, self.wall, plate)
        if not (self._outer.holds(box) and self._inner.holds(inner_box)):
            return False
        # Wider than either cut: their walls, and where they lean on above the mouth.
        more = (self.wall + ABOVE_MM) * (1 + well.slope_mm / well.deep_mm)
        about = box.grown((more, more, more), (more, more, more))
        self._outer.cut_unseen(cuts[0], about)
        self._inner.cut_unseen(cuts[1], about)
        self.costs.append(
            FeatureCost(
                id=well.id,
                name=well.name,
                kind=well.kind,
                litres=-inside / 1e6,
                metal_mm3=inside - outside,
                weld_mm=weld_of(well, self.body, box),
                box=box,
            )
        )
        return True

    def _cost(self, feature: Feature, outside: Manifold, inside: Manifold) -> FeatureCost:
        way = 1.0 if isinstance(feature, Sump) else -1.0
        held = way * float(inside.volume())
        box = self.body if outside.is_empty() else bounds_of(outside)
        return FeatureCost(
            id=feature.id,
            name=feature.name,
            kind=feature.kind,
            litres=held / 1e6,
            metal_mm3=way * float(outside.volume()) - held,
            weld_mm=weld_of(feature, self.body, box),
            box=box,
        )


def _check_well(well: Well, at: _Making, where: str) -> None:
    _check_slope(well, where)
    axis = FACE_AXIS[well.face][0]
    room = at.inner_body.size[axis]
    gone = well.deep_mm + at.wall - (at.body.size[axis] - room) / 2
    if gone >= room:
        limit = well.deep_mm - gone + room
        raise wrong(
            f"{where}.deep_mm",
            f"{well.name} goes right through the tank: it must be less than {limit:g} mm deep",
            well.deep_mm,
            round(limit, 3),
        )


def _check_sump(sump: Sump, at: _Making, where: str) -> None:
    _check_slope(sump, where)
    least = sump.long_mm if sump.form == "round" else min(sump.long_mm, sump.wide_mm)
    if least - 2 * sump.slope_mm <= 2 * at.wall or sump.deep_mm <= at.wall:
        raise wrong(where, f"a {at.wall:g} mm wall fills {sump.name}", at.wall, "less than half its width")


def _check_step(step: RoofStep, at: _Making, where: str) -> None:
    axis = 0 if step.side in ("front", "rear") else 1
    for name, value, limit in (
        ("drop_mm", step.drop_mm, at.body.size[2] - 2 * at.wall),
        ("reach_mm", step.reach_mm, at.body.size[axis] - 2 * at.wall),
    ):
        if value >= limit:
            words = f"{step.name} leaves nothing of the shell: below {limit:g} mm"
            raise wrong(f"{where}.{name}", words, value, limit)


def _check_slope(feature: Well | Sump, where: str) -> None:
    least = feature.long_mm if feature.form == "round" else min(feature.long_mm, feature.wide_mm)
    if 2 * feature.slope_mm >= least:
        raise wrong(
            f"{where}.slope_mm",
            f"the sides of {feature.name} meet before the bottom",
            feature.slope_mm,
            f"below {least / 2:g} mm",
        )


def _cells(shell: AnyShell, inner: Manifold) -> list[Cell]:
    """The separate spaces of the inside; low ends first."""
    if inner.is_empty():
        raise wrong("shell", "nothing is left of the inside", 0.0, "some room for fuel")
    parts = inner.decompose()
    if any(part.volume() / 1e6 < -SLIVER_L for part in parts):
        raise wrong(
            "shell.features", "a relief lies wholly inside the tank: nothing passes by there", None, "an open side"
        )
    parts = [part for part in parts if part.volume() / 1e6 > SLIVER_L]
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
