"""A shell with feature after feature: each is cut out, let down, stood or set in, and its cost noted."""

from collections.abc import Sequence

from manifold3d import Manifold

from keel.design.features import Baffle, Feature, Partition, Pot, Relief, RoofStep, Sump, Well
from keel.design.shell import BoxShell, CylinderShell
from keel.solid.box import Cuboid
from keel.solid.cuts import ABOVE_MM, Recess, recess_cut, sump_solid, weld_of, well_piece
from keel.solid.facets import FACE_AXIS, Faced, bends_of
from keel.solid.faults import wrong
from keel.solid.feature_checks import check_it_opens, check_recess, check_sump
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
            case Well() | Relief() | RoofStep():
                self._let_in(feature, where)
            case Sump():
                self._let_down(feature, where)
            case Partition() | Baffle():
                self._stand(feature, where)
            case Pot():
                self._set_down(feature, where)

    def _let_in(self, feature: Recess, where: str) -> None:
        """Cut a recess out."""
        check_recess(feature, self.body, self.inner_body, self.shell, where)
        cuts = [recess_cut(feature, self.body, wall, self.shell.fold_mm) for wall in (0.0, self.wall)]
        if isinstance(feature, Well) and self._plain_well(feature, cuts):
            return
        outside, inside = self._outer.cut(cuts[0]), self._inner.cut(cuts[1])
        if not isinstance(feature, RoofStep) and outside.volume() < 1.0:
            raise wrong(where, f"{feature.name} lies outside the shell", None, "across the shell's metal")
        self.costs.append(self._cost(feature, outside, inside))

    def _let_down(self, sump: Sump, where: str) -> None:
        """Let a sump down."""
        check_sump(sump, self.body, self.shell, where)
        # Over a flat floor a sump starts at the plate; under a round or sloping one it runs up to meet it.
        flat = isinstance(self.shell, BoxShell)
        up = self.inner_body.low[2] - self.body.low[2] if flat else self.body.size[2] / 2
        bent = self.shell.fold_mm + self.wall
        outside = self._outer.put_on(sump_solid(sump, self.body, 0.0, up, bent))
        room = sump_solid(sump, self.body, self.wall, up + 1e-3, bent)
        check_it_opens(sump, self._inner.within(bounds_of(room)) ^ room, where)
        self.costs.append(self._cost(sump, outside, self._inner.put_on(room)))

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

    def _plain_well(self, well: Well, cuts: Sequence[Manifold]) -> bool:
        """Make a well that lies wholly in the plain body, apart from everything else: its sums need no solids."""
        axis, high = FACE_AXIS[well.face]
        plate = abs(
            (self.body.high if high else self.body.low)[axis]
            - (self.inner_body.high if high else self.inner_body.low)[axis]
        )
        box, outside = well_piece(well, self.body, 0.0, 0.0, self.shell.fold_mm)
        inner_box, inside = well_piece(well, self.body, self.wall, plate, self.shell.fold_mm)
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
                bends=bends_of(well, self.body),
            )
        )
        return True

    def _cost(self, feature: Faced, outside: Manifold, inside: Manifold) -> FeatureCost:
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
            bends=bends_of(feature, self.body),
        )
