"""A shell with feature after feature: each is cut out, let down, stood or set in, and its cost noted."""

from manifold3d import Manifold

from keel.design.features import Baffle, Feature, Partition, Pot, Relief, RoofStep, Sump, Well
from keel.design.shell import BoxShell, CylinderShell
from keel.solid.box import Cuboid
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
from keel.solid.pots import PotPlace, place_of_pot, walls_of
from keel.solid.section import Section
from keel.solid.shapes import bounds_of
from keel.solid.sides import Hull, Side, meet
from keel.solid.solids import AnyShell, FeatureCost


class Making:
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
        self._baffles: list[tuple[str, Manifold]] = []
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
                room = sump_solid(feature, self.body, self.wall, up + 1e-3)
                _check_it_opens(feature, self._inner.within(bounds_of(room)) ^ room, where)
                inside = self._inner.put_on(room)
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
        slab = slab_of(feature, self.body, self.wall)
        here, lapping = self._inner.within(slab), None
        crossed = [solid for axis, solid in self._baffles if axis != feature.axis]
        if isinstance(feature, Baffle) and crossed:
            lapping = self._inner.within(slab, crossed)
        plate = plate_at(feature, here, self.body, self.inner_body, self.wall, where, lapping)
        axis = "xy".index(feature.axis)
        start = self.body.low[axis] + feature.at_mm
        thick = feature.wall_mm(self.wall)
        for place in self.pots:
            if start < place.box.high[axis] and place.box.low[axis] < start + thick:
                raise wrong(
                    f"{where}.at_mm", f"{feature.name} runs into {place.pot.name}", feature.at_mm, "clear of it"
                )
        self.plates[feature.id] = plate
        if isinstance(feature, Baffle):
            self._baffles.append((feature.axis, plate.slab))
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


def _check_well(well: Well, at: Making, where: str) -> None:
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


def _check_sump(sump: Sump, at: Making, where: str) -> None:
    _check_slope(sump, where)
    least = sump.long_mm if sump.form == "round" else min(sump.long_mm, sump.wide_mm)
    if least - 2 * sump.slope_mm <= 2 * at.wall or sump.deep_mm <= at.wall:
        raise wrong(where, f"a {at.wall:g} mm wall fills {sump.name}", at.wall, "less than half its width")


def _check_it_opens(sump: Sump, shared: Manifold, where: str) -> None:
    """Refuse a sump under a place where the tank has no floor to let it down from: it would be a space of its own."""
    if shared.is_empty() or shared.volume() <= 0:
        raise wrong(f"{where}.a_mm", f"{sump.name} doesn't meet the tank's floor", sump.a_mm, "a place under its floor")


def _check_step(step: RoofStep, at: Making, where: str) -> None:
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
