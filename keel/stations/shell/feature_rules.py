"""What is wrong with wells, sumps, reliefs and partitions."""

from collections.abc import Iterator
from dataclasses import dataclass

import numpy as np

from keel.analysis.tank import TankAnalysis
from keel.design.features import Sump, Well
from keel.findings.finding import Finding, of_station
from keel.solid.facets import FACE_AXIS
from keel.solid.polyhedron import Array
from keel.studies.result import words
from keel.studies.space.gap import needed_mm

_shell = of_station("shell")
ROUNDING_MM = 1e-6


def well_sheds_water(tank: TankAnalysis) -> Iterator[Finding]:
    """A well in the roof is open to an edge, sloped, or drained."""
    for well in tank.shell.features:
        if not isinstance(well, Well) or well.face != "roof" or well.drain:
            continue
        size = tank.solids.body.size
        wide = well.long_mm if well.form == "round" else well.wide_mm
        edges = (well.a_mm, well.b_mm, size[0] - well.a_mm - well.long_mm, size[1] - well.b_mm - wide)
        if min(edges) <= ROUNDING_MM:
            continue
        yield _shell(
            "well.holds_water",
            well.id,
            "caution",
            words("{name} holds rain {deep_mm} deep, no drain", name=well.name, deep_mm=well.deep_mm),
            words(
                "It is {edge_mm} from the nearest edge, so rain and grit stay in it, over the seal. Open it to an edge "
                "or lead a drain tube out of it.",
                edge_mm=min(edges),
            ),
        )


@dataclass(frozen=True)
class _Mouth:
    """Where a well or a sump opens: its face, and its span along the face's two axes."""

    of: Well | Sump
    face: str
    a: tuple[float, float]
    b: tuple[float, float]


def lands_are_wide_enough(tank: TankAnalysis) -> Iterator[Finding]:
    """Strips of metal between a feature and an edge, or between two features, can be welded."""
    least, mouths = tank.workshop.rules.land_mm, _mouths(tank)
    apart = _apart(mouths)
    for place, mouth in enumerate(mouths):
        strips = [*_strips_to_edges(tank, mouth), *apart[place].tolist()]
        gap = min((strip for strip in strips if strip > ROUNDING_MM), default=None)
        if gap is not None and ROUNDING_MM < gap < least - ROUNDING_MM:
            yield _shell(
                "land.narrow",
                mouth.of.id,
                "caution",
                words(
                    "Strip beside {name} {strip_mm}, at least {least_mm} (house rule)",
                    name=mouth.of.name,
                    strip_mm=gap,
                    least_mm=least,
                ),
                words(
                    "A narrower strip between a seam and a bend or another seam warps and can't be welded well on both "
                    "sides."
                ),
            )


def mouths_keep_apart(tank: TankAnalysis) -> Iterator[Finding]:
    """Wells and sumps neither run into each other nor past the edge of their face."""
    mouths = _mouths(tank)
    apart = _apart(mouths)
    for place, one in enumerate(mouths):
        over = -min(0.0, *_strips_to_edges(tank, one))
        if over > ROUNDING_MM:
            yield _shell(
                "feature.past_edge",
                one.of.id,
                "caution",
                words("{name} {over_mm} past the edge of the {face}", name=one.of.name, over_mm=over, face=one.face),
                words("What is past the edge isn't there to be cut. Make it smaller, or move it in."),
            )
        for there, other in enumerate(mouths[place + 1 :], start=place + 1):
            if apart[place, there] < -ROUNDING_MM:
                yield _shell(
                    "feature.overlap",
                    one.of.id,
                    "stop",
                    words(
                        "{one} and {other} overlap by {over_mm}",
                        one=one.of.name,
                        other=other.of.name,
                        over_mm=-float(apart[place, there]),
                    ),
                    words("Their litres are counted once, but two plates can't stand in one place."),
                    other.of.id,
                )


def _mouths(tank: TankAnalysis) -> list[_Mouth]:
    found = []
    for one in tank.shell.features:
        if isinstance(one, Well | Sump):
            wide = one.long_mm if one.form == "round" else one.wide_mm
            face = one.face if isinstance(one, Well) else "floor"
            found.append(_Mouth(one, face, (one.a_mm, one.a_mm + one.long_mm), (one.b_mm, one.b_mm + wide)))
    return found


def _strips_to_edges(tank: TankAnalysis, one: _Mouth) -> list[float]:
    first, second = [i for i in range(3) if i != FACE_AXIS[one.face][0]]
    size = tank.solids.body.size
    return [one.a[0], one.b[0], size[first] - one.a[1], size[second] - one.b[1]]


def _apart(mouths: list[_Mouth]) -> Array:
    """Strips between mouths of one face, shape (n, n) [mm]: below zero they overlap; endless on other faces."""
    if not mouths:
        return np.zeros((0, 0))
    a, b = np.array([m.a for m in mouths]), np.array([m.b for m in mouths])
    x = np.maximum(a[None, :, 0] - a[:, None, 1], a[:, None, 0] - a[None, :, 1])
    y = np.maximum(b[None, :, 0] - b[:, None, 1], b[:, None, 0] - b[None, :, 1])
    strips = np.where(np.maximum(x, y) > 0, np.hypot(np.maximum(x, 0), np.maximum(y, 0)), np.maximum(x, y))
    faces = np.array([m.face for m in mouths])
    strips[(faces[:, None] != faces[None, :]) | np.eye(len(mouths), dtype=bool)] = np.inf
    return np.asarray(strips)


def walls_leave_no_sliver(tank: TankAnalysis) -> Iterator[Finding]:
    """Fuel space between a recess and a wall isn't too thin to be made or cleaned."""
    least = max(tank.workshop.rules.sliver_mm, 2 * tank.shell.thickness_mm)
    inner = tank.solids.inner_body
    for cost in tank.solids.costs:
        if cost.kind not in ("well", "relief"):
            continue
        wall = tank.shell.feature_wall_mm
        for axis in range(3):
            for gap in (cost.box.low[axis] - wall - inner.low[axis], inner.high[axis] - cost.box.high[axis] - wall):
                if 1e-3 < gap < least - ROUNDING_MM:
                    yield _shell(
                        "sliver",
                        cost.id,
                        "caution",
                        words(
                            "Space beside {name} {gap_mm}, at least {least_mm} (house rule)",
                            name=cost.name,
                            gap_mm=gap,
                            least_mm=least,
                        ),
                        words("Less can't be welded from inside, cleaned or lined. Move it to the wall or leave more."),
                        "xyz"[axis],
                    )


def sump_clears_ground(tank: TankAnalysis) -> Iterator[Finding]:
    """A sump hangs no lower than the ground clearance lets it."""
    bay = tank.design.bay
    if bay is None or bay.sides.floor.kind != "ground":
        return
    least = needed_mm(bay.sides.floor, tank.workshop.rules)
    for cost in tank.solids.costs:
        low = cost.box.low[2]
        if cost.kind == "sump" and low < least - ROUNDING_MM:
            yield _shell(
                "sump.ground",
                cost.id,
                "stop",
                words(
                    "{name} {low_mm} above the ground, at least {least_mm}", name=cost.name, low_mm=low, least_mm=least
                ),
                words("It is the first thing a stone or a kerb meets, and it holds the last of the fuel."),
            )
