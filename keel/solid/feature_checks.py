"""Whether a feature's sizes leave anything of the shell, and of the feature itself."""

from math import tan

from manifold3d import Manifold

from keel.design.features import Relief, RoofStep, Sump, Well
from keel.solid.box import Cuboid
from keel.solid.cuts import Recess
from keel.solid.facets import FACE_AXIS, Faced, Fold, fold_of
from keel.solid.faults import wrong
from keel.solid.solids import AnyShell


def check_recess(feature: Recess, body: Cuboid, inner_body: Cuboid, shell: AnyShell, where: str) -> None:
    """Refuse a recess that goes right through, or whose own sheet can't be bent.

    Parameters
    ----------
    feature : Well, Relief or RoofStep
        What is let in or cut off.
    body, inner_body : Cuboid
        The body without features, over and between its walls [mm].
    shell : AnyShell
        Its sheet.
    where : str
        Dotted path of the feature.

    Raises
    ------
    GeometryError
        Naming the field, its value and its limit.
    """
    match feature:
        case Well():
            _check_well(feature, body, inner_body, shell.feature_wall_mm, where)
        case RoofStep():
            _check_step(feature, body, shell.feature_wall_mm, where)
        case Relief():
            pass
    _check_fold(feature, body, shell.fold_mm, where)


def check_sump(sump: Sump, body: Cuboid, shell: AnyShell, where: str) -> None:
    """Refuse a sump that its own wall fills, or whose sheet can't be bent: as `check_recess`."""
    wall = shell.feature_wall_mm
    _check_slope(sump, where)
    least = sump.long_mm if sump.form == "round" else min(sump.long_mm, sump.wide_mm)
    if least - 2 * sump.slope_mm <= 2 * wall or sump.deep_mm <= wall:
        raise wrong(where, f"a {wall:g} mm wall fills {sump.name}", wall, "less than half its width")
    _check_fold(sump, body, shell.fold_mm + wall, where)


def check_it_opens(sump: Sump, shared: Manifold, where: str) -> None:
    """Refuse a sump under a place where the tank has no floor to let it down from: it would be a space of its own."""
    if shared.is_empty() or shared.volume() <= 0:
        raise wrong(f"{where}.a_mm", f"{sump.name} doesn't meet the tank's floor", sump.a_mm, "a place under its floor")


def _check_fold(feature: Faced, body: Cuboid, radius: float, where: str) -> None:
    """Refuse a bend that the feature's base or its depth has no room for."""
    fold = fold_of(feature, body)
    if fold is None:
        return
    for name, room, taken in _rooms(feature, fold, radius):
        if taken >= room:
            raise wrong(
                f"{where}.{name}",
                f"{feature.name} has {room:g} mm for bends of {radius:g} mm, which take {taken:.1f} mm: "
                "weld it of plates, or make it larger",
                room,
                f"above {taken:.1f} mm",
            )


def _rooms(feature: Faced, fold: Fold, radius: float) -> list[tuple[str, float, float]]:
    """Sizes of a folded feature that bends take from: field, room and what they take [mm]."""
    trims = {side.name: radius * tan(fold.base.angle(side) / 2) for side in fold.sides}
    most = max(trims.values())
    match feature:
        case Well() | Sump():
            bottom = 2 * feature.slope_mm
            across = ("long_mm", feature.long_mm - bottom), ("wide_mm", feature.wide_mm - bottom)
            return [(name, size, 2 * most) for name, size in across] + [("deep_mm", feature.deep_mm, most)]
        case RoofStep():
            return [("reach_mm", feature.reach_mm, most), ("drop_mm", feature.drop_mm, most)]
    found = []
    for axis, name in enumerate(("length_mm", "width_mm", "height_mm")):
        sides = sum(abs(side.normal[axis]) > 0.5 for side in (*fold.sides, fold.base))
        found.append((name, float(getattr(feature, name)), sides * most))
    return found


def _check_well(well: Well, body: Cuboid, inner_body: Cuboid, wall: float, where: str) -> None:
    _check_slope(well, where)
    axis = FACE_AXIS[well.face][0]
    room = inner_body.size[axis]
    gone = well.deep_mm + wall - (body.size[axis] - room) / 2
    if gone >= room:
        limit = well.deep_mm - gone + room
        raise wrong(
            f"{where}.deep_mm",
            f"{well.name} goes right through the tank: it must be less than {limit:g} mm deep",
            well.deep_mm,
            round(limit, 3),
        )


def _check_step(step: RoofStep, body: Cuboid, wall: float, where: str) -> None:
    axis = 0 if step.side in ("front", "rear") else 1
    for name, value, limit in (
        ("drop_mm", step.drop_mm, body.size[2] - 2 * wall),
        ("reach_mm", step.reach_mm, body.size[axis] - 2 * wall),
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
