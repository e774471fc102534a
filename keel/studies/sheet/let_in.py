"""Plates of what is let into a shell, let down from it or cut off it: each lies with its outside on the feature's face.

The plates reach the outside of the shell, whose own parts stop at them. Of two plates of one feature that meet, one
passes behind the other: a bottom behind all sides, those square to x behind those square to y.
"""

from collections.abc import Iterator, Sequence
from contextlib import suppress
from dataclasses import dataclass, replace
from math import hypot
from typing import Literal

import numpy as np
from manifold3d import Manifold
from shapely import affinity, set_precision
from shapely.geometry import Polygon, box
from shapely.geometry.base import BaseGeometry
from shapely.geometry.polygon import orient

from keel.analysis.parts import only
from keel.analysis.study import study
from keel.design.document import Design
from keel.design.features import Relief, RoofStep, Sump, Well
from keel.design.shell import BoxShell
from keel.solid.box import Cuboid
from keel.solid.build import build
from keel.solid.cuts import BEYOND_MM, FACE_AXIS, well_frame
from keel.solid.planes import cut_by, polygons_of, ring_spots
from keel.solid.polyhedron import Array
from keel.solid.shapes import block
from keel.solid.solids import AnyShell, Solids
from keel.studies.sheet.let_round import Tube, cone_of, discs, sector_outline, strip, sump_frame, tube_of
from keel.studies.sheet.lying import Lying, lying
from keel.studies.sheet.model import flat_part
from keel.studies.sheet.parts import FlatPart, Roll, sharp_corners
from keel.studies.sheet.placing import END_NAMES, placed
from keel.studies.sheet.unfold import BARE_SOLIDS

PREFIX = "let-in-"
"""Before a feature's id in the names of its plates: no id is then the name of a part of the shell."""
HAIR_MM = 0.01
"""So far behind a feature's face the tank is looked at."""
NEAR_MM = 1.0
FAR_MM = 1e4
LEAST_MM2 = 1.0
SMOOTH_MM = 0.01
GRID_MM = 1e-6

Faced = Well | Sump | Relief | RoofStep


@dataclass(frozen=True)
class Facet:
    """One plane of a feature's space: n · x = offset, the space where it is less [mm].

    `rank` says behind which others its plate passes: behind those of a lower one.
    """

    name: str
    normal: Array
    offset: float
    rank: int

    def moved(self, by: float) -> float:
        """Its offset moved outward [mm]."""
        return self.offset + by


def let_in_parts(solids: Solids, design: Design) -> list[FlatPart]:
    """Flat plates of all features that are let in, let down or cut off and have flat sides.

    Parameters
    ----------
    solids : Solids
        The shell as built, without a bag.
    design : Design
        How it is put together.

    Returns
    -------
    list of FlatPart
        A plate a flat side, where the shell leaves anything of it; each with its place.
    """
    found: list[FlatPart] = []
    for feature in solids.shell.features:
        if isinstance(feature, Faced):
            below = None
            if isinstance(feature, Sump):
                below = build(solids.shell.model_copy(update={"features": ()}), design.sheet.making).outer
            room = _Room(_near(solids.outer, feature, solids), below)
            if isinstance(feature, RoofStep) or feature.form == "box":
                found += _plates(feature, solids, room)
            else:
                found += _round_plates(feature, solids, room)
    return found


@dataclass(frozen=True)
class _Room:
    """The tank as seen from outside, near a feature; and of a sump the body that it hangs under."""

    outer: Manifold
    plain: Manifold | None


def _near(outer: Manifold, feature: Faced, solids: Solids) -> Manifold:
    """The tank in a box round a feature: what is further off no plate of it reaches."""
    about = next((cost.box for cost in solids.costs if cost.id == feature.id), solids.body)
    more = 2 * solids.shell.feature_wall_mm + NEAR_MM
    room = about.grown((more, more, more), (more, more, more))
    return outer ^ block(room.low, room.high)


def _round_plates(feature: Well | Sump | Relief, solids: Solids, room: _Room) -> Iterator[FlatPart]:
    """A round feature's strip and discs; of one that narrows a cone, where it comes out of a flat face."""
    thick, tube = solids.shell.feature_wall_mm, tube_of(feature, solids.body, solids.shell.feature_wall_mm)
    slope = 0.0 if isinstance(feature, Relief) else feature.slope_mm
    if slope:
        assert not isinstance(feature, Relief)
        if not _comes_out_flat(feature, solids):
            return
        tube = replace(tube, radius=tube.radius - slope)
        yield _cone(feature, solids.shell)
    for name, matrix, shape in discs(tube, thick, room.outer, room.plain):
        yield _plate(feature, solids.shell, name, matrix, orient(shape.simplify(SMOOTH_MM)), 0)
    if not slope:
        made = strip(tube, thick, room.outer, room.plain)
        for number, shape in enumerate(made.shapes, start=1):
            yield _strip(feature, solids.shell, tube, made.begins, shape, number if len(made.shapes) > 1 else 0)


def _comes_out_flat(feature: Well | Sump, solids: Solids) -> bool:
    """Whether the mouth of a round feature lies wholly on a box's flat face."""
    axis = FACE_AXIS[feature.face][0] if isinstance(feature, Well) else 2
    first, second = (solids.body.size[i] for i in range(3) if i != axis)
    edge = solids.shell.thickness_mm + (solids.shell.bend_radius_mm if isinstance(solids.shell, BoxShell) else 0.0)
    room = [feature.a_mm, first - feature.a_mm - feature.long_mm, feature.b_mm, second - feature.b_mm - feature.long_mm]
    return isinstance(solids.shell, BoxShell) and min(room) > edge


def _cone(feature: Well | Sump, shell: AnyShell) -> FlatPart:
    flat = cone_of(feature, shell.feature_wall_mm)
    return flat_part(
        shell.metal,
        name=f"{PREFIX}{feature.id}-side",
        title=f"{feature.name.capitalize()}, side",
        quantity=1,
        thickness_mm=shell.feature_wall_mm,
        outline=sector_outline(flat),
        bends=[],
        marks=[],
        note=f"Roll to a cone {flat.slant_mm:.1f} mm along its slant and close it with a seam.",
        feature=feature.id,
    )


def _strip(
    feature: Well | Sump | Relief, shell: AnyShell, tube: Tube, begins: float, shape: Polygon, number: int
) -> FlatPart:
    """A strip that is rolled round a tube; its inside, which faces the reader, is the tank's."""
    thick = shell.feature_wall_mm
    low_u, low_v, high_u, high_v = shape.bounds
    long, high, middle = high_u - low_u, high_v - low_v, tube.middle(thick)
    first = begins + tube.sign * low_u / middle
    out = np.array([np.cos(first), np.sin(first), 0.0])
    along = np.cross([0.0, 0.0, 1.0], out) * tube.sign
    origin = tube.frame @ np.array([*(tube.radius * out)[:2], low_v, 1.0])
    half = shape.intersection(box(low_u, low_v, low_u + long / 2, high_v))
    inner = (half if not half.is_empty else shape).representative_point()
    name = f"side-{number}" if number else "side"
    spot = inner.x - low_u, inner.y - low_v
    place = placed(name, spot, (0.0, 0.0), origin, tube.frame[:, :3] @ along, tube.frame[:, :3] @ out * tube.sign)
    outline = ring_spots(orient(shape.simplify(SMOOTH_MM)).exterior)
    roll = Roll(
        start=(0.0, 0.0),
        end=(0.0, high),
        until=(long, 0.0),
        stop=(long, high),
        direction="up" if tube.down else "down",
        angle_deg=float(np.degrees(long / middle)),
        radius_mm=middle,
    )
    bore = 2 * (middle - thick / 2)
    return flat_part(
        shell.metal,
        name=f"{PREFIX}{feature.id}-{name}",
        title=f"{feature.name.capitalize()}, side" + (f", piece {number}" if number else ""),
        quantity=1,
        thickness_mm=thick,
        outline=outline,
        bends=[],
        marks=[],
        rolls=[roll],
        note=f"Roll to {bore:g} mm inside diameter, the face towards you {'inward' if tube.down else 'outward'}.",
        holes=[ring_spots(ring) for ring in shape.interiors],
        feature=feature.id,
        places=[place],
    )


def _plates(feature: Faced, solids: Solids, room: _Room) -> Iterator[FlatPart]:
    shell, facets = solids.shell, facets_of(feature, solids.body)
    thick, down = shell.feature_wall_mm, isinstance(feature, Sump)
    for facet in facets:
        matrix = frame_of(facet, facets, -1 if down else 1)
        shape: BaseGeometry = _between(facet, facets, matrix, thick, down)
        for w in (HAIR_MM, thick - HAIR_MM):
            shape = shape.intersection(cut_by(room.outer, matrix, w))
            shape = shape if room.plain is None else shape.difference(cut_by(room.plain, matrix, w))
        pieces = polygons_of(set_precision(shape, GRID_MM))
        pieces = [orient(piece.simplify(SMOOTH_MM)) for piece in pieces if piece.area > LEAST_MM2]
        for number, piece in enumerate(pieces, start=1):
            yield _plate(feature, shell, facet.name, matrix, piece, number if len(pieces) > 1 else 0)


def facets_of(feature: Faced, body: Cuboid) -> list[Facet]:
    """The planes between which a feature's space lies, as it is seen from outside.

    Parameters
    ----------
    feature : Well, Sump, Relief or RoofStep
        With flat sides.
    body : Cuboid
        The body without features: what its places count from [mm].

    Returns
    -------
    list of Facet
        In vehicle axes, none at a mouth.
    """
    match feature:
        case Well():
            return _tapered(feature, well_frame(feature, body))
        case Sump():
            return _tapered(feature, sump_frame(feature, body))
        case Relief():
            low = [low + at for low, at in zip(body.low, (feature.x_mm, feature.y_mm, feature.z_mm), strict=True)]
            size = feature.length_mm, feature.width_mm, feature.height_mm
            return _cuboid(low, [a + b for a, b in zip(low, size, strict=True)])
    return _step(feature, body)


def _tapered(feature: Well | Sump, frame: Array) -> list[Facet]:
    """Four sides and a bottom about a mouth's middle; `frame`, shape (3, 4), has w out of the mouth."""
    lean = feature.slope_mm / feature.deep_mm
    steep = hypot(1.0, lean)
    found = [_turned("bottom", np.array([0.0, 0.0, -1.0]), feature.deep_mm, 2, frame)]
    for way, half in ((0, feature.long_mm / 2), (1, feature.wide_mm / 2)):
        for sign in (-1.0, 1.0):
            normal = np.array([0.0, 0.0, -lean]) / steep
            normal[way] = sign / steep
            named = frame[:, :3] @ np.eye(3)[way] * sign
            axis = int(np.argmax(np.abs(named)))
            name = f"{END_NAMES[axis][int(named[axis] > 0)]} side"
            found.append(_turned(name, normal, half / steep, 1 - way, frame))
    return found


def _turned(name: str, normal: Array, offset: float, rank: int, frame: Array) -> Facet:
    out = frame[:, :3] @ normal
    return Facet(name, out, offset + float(out @ frame[:, 3]), rank)


def _cuboid(low: Sequence[float], high: Sequence[float]) -> list[Facet]:
    found = []
    for axis, rank in ((2, 2), (0, 1), (1, 0)):
        for end, (at, sign) in enumerate(((low[axis], -1.0), (high[axis], 1.0))):
            found.append(Facet(f"{END_NAMES[axis][end]} side", sign * np.eye(3)[axis], sign * at, rank))
    return found


def _step(step: RoofStep, body: Cuboid) -> list[Facet]:
    """A lowered roof and the riser up to the roof that is left."""
    low, high = [v - BEYOND_MM for v in body.low], [v + BEYOND_MM for v in body.high]
    axis, far = FACE_AXIS[step.side]
    if far:
        low[axis] = body.high[axis] - step.reach_mm
    else:
        high[axis] = body.low[axis] + step.reach_mm
    low[2] = body.high[2] - step.drop_mm
    names = {"lower side": "lowered roof", f"{END_NAMES[axis][0 if far else 1]} side": "riser"}
    return [
        Facet(names[facet.name], facet.normal, facet.offset, facet.rank)
        for facet in _cuboid(low, high)
        if facet.name in names
    ]


def frame_of(facet: Facet, facets: Sequence[Facet], inward: Literal[-1, 1]) -> Array:
    """From (u, v, w) of a plate to vehicle axes, shape (4, 4): w = 0 its outside, w inward, v up where it stands."""
    w = facet.normal * inward
    v = np.array([0.0, 1.0, 0.0]) if abs(w[2]) > 1 - 1e-9 else np.array([0.0, 0.0, 1.0]) - w[2] * w
    v /= np.linalg.norm(v)
    matrix = np.eye(4)
    matrix[:3, 0], matrix[:3, 1], matrix[:3, 2] = np.cross(v, w), v, w
    near = np.linalg.lstsq(np.array([one.normal for one in facets]), np.array([one.offset for one in facets]))[0]
    matrix[:3, 3] = near + (facet.offset - facet.normal @ near) * facet.normal
    return matrix


def _between(facet: Facet, facets: Sequence[Facet], matrix: Array, thick: float, down: bool) -> Polygon:
    """What of a facet's plane its plate takes, the other plates of the feature let be."""
    kept: BaseGeometry = box(-FAR_MM, -FAR_MM, FAR_MM, FAR_MM)
    for other in facets:
        if other is facet or abs(other.normal @ facet.normal) > 1 - 1e-9:
            continue
        passes = facet.rank > other.rank
        # Metal lies beyond a recess's faces, within those of a sump.
        limit = other.moved(0.0 if passes == down else (-thick if down else thick))
        # Edges are square to the sheet: the further out of its two faces decides.
        far = max(0.0, float(other.normal @ matrix[:3, 2]) * thick)
        room = limit - float(other.normal @ matrix[:3, 3]) - far
        kept = kept.intersection(_half_plane(other.normal @ matrix[:3, :2], room))
    return polygons_of(kept)[0] if polygons_of(kept) else Polygon()


def _half_plane(normal: Array, limit: float) -> Polygon:
    """All of a plane's near places where normal · (u, v) is at most a limit."""
    long = float(np.linalg.norm(normal))
    far = 4 * FAR_MM
    half = box(-far, -far, limit / long, far)
    return affinity.rotate(half, float(np.degrees(np.arctan2(normal[1], normal[0]))), origin=(0, 0))


def _plate(feature: Faced, shell: AnyShell, side: str, matrix: Array, piece: Polygon, number: int) -> FlatPart:
    name = side.replace(" ", "-") + (f"-{number}" if number else "")
    title = f"{feature.name.capitalize()}, {side}" + (f", piece {number}" if number else "")
    low_u, low_v, _, _ = piece.bounds
    inner = piece.representative_point()
    origin = matrix[:3, 3] + low_u * matrix[:3, 0] + low_v * matrix[:3, 1]
    place = placed(name, (inner.x - low_u, inner.y - low_v), (0.0, 0.0), origin, matrix[:3, 0], matrix[:3, 2])
    return flat_part(
        shell.metal,
        name=f"{PREFIX}{feature.id}-{name}",
        title=title,
        quantity=1,
        thickness_mm=shell.feature_wall_mm,
        outline=ring_spots(piece.exterior),
        corners=sharp_corners(ring_spots(piece.exterior)),
        bends=[],
        marks=[],
        note="The inside of the tank faces you" + (", this edge up." if abs(matrix[2, 1]) > 0.5 else "."),
        holes=[ring_spots(ring) for ring in piece.interiors],
        feature=feature.id,
        places=[place],
    )


def pieces_of_plates(parts: list[FlatPart]) -> list[Lying]:
    """Plates of features where they lie.

    Parameters
    ----------
    parts : list of FlatPart
        Features' plates.

    Returns
    -------
    list of Lying
        Without a strip so cut up that its roll doesn't part it: no port lands on such a one.
    """
    found = []
    for part in parts:
        for place in part.places:
            with suppress(ValueError):
                found.append(lying(part, place))
    return found


LET_IN = study(let_in_parts, BARE_SOLIDS, only("shell", "sheet"))
