"""Plates of what is let into a shell, let down from it or cut off it: each lies with its outside on the feature's face.

The plates reach the outside of the shell, whose own parts stop at them. Of two plates of one feature that meet, one
passes behind the other: a bottom behind all sides, those square to x behind those square to y.
"""

from collections.abc import Iterator
from contextlib import suppress
from dataclasses import replace

import numpy as np
from manifold3d import Manifold
from shapely.geometry import Polygon, box
from shapely.geometry.polygon import orient

from keel.analysis.parts import WORKSHOP, only
from keel.analysis.study import study
from keel.design.document import Design
from keel.design.features import Relief, RoofStep, Sump, Well
from keel.design.shell import BoxShell
from keel.design.workshop import Workshop
from keel.solid.build import build
from keel.solid.facets import FACE_AXIS, Faced
from keel.solid.planes import ring_spots
from keel.solid.shapes import block
from keel.solid.solids import AnyShell, Solids
from keel.studies.result import words
from keel.studies.sheet.let_flat import PREFIX, SMOOTH_MM, Room, flat_sides, plate
from keel.studies.sheet.let_round import Tube, cone_of, discs, sector_outline, strip, tube_of
from keel.studies.sheet.lying import Lying, lying
from keel.studies.sheet.model import Sheet, flat_part
from keel.studies.sheet.parts import FlatPart, Roll
from keel.studies.sheet.placing import placed
from keel.studies.sheet.shell_parts import BARE_SOLIDS
from keel.studies.sheet.unfold import SHEET

NEAR_MM = 1.0


def let_in_parts(solids: Solids, design: Design, workshop: Workshop) -> list[FlatPart]:
    """Sheet of all features that are let in, let down or cut off.

    Parameters
    ----------
    solids : Solids
        The shell as built, without a bag.
    design : Design
        How it is put together.
    workshop : Workshop
        K factors.

    Returns
    -------
    list of FlatPart
        A plate a flat side, or all that are bent from one; where the shell leaves anything of it, each with its place.
    """
    found: list[FlatPart] = []
    for feature in solids.shell.features:
        if isinstance(feature, Faced):
            below = None
            if isinstance(feature, Sump):
                below = build(solids.shell.model_copy(update={"features": ()}), design.sheet.making).outer
            room = Room(_near(solids.outer, feature, solids), below)
            if isinstance(feature, RoofStep) or feature.form == "box":
                found += flat_sides(feature, solids, room, workshop)
            else:
                found += _round_plates(feature, solids, room)
    return found


def _near(outer: Manifold, feature: Faced, solids: Solids) -> Manifold:
    """The tank in a box round a feature: what is further off no plate of it reaches."""
    about = next((cost.box for cost in solids.costs if cost.id == feature.id), solids.body)
    more = 2 * solids.shell.feature_wall_mm + NEAR_MM
    room = about.grown((more, more, more), (more, more, more))
    return outer ^ block(room.low, room.high)


def _round_plates(feature: Well | Sump | Relief, solids: Solids, room: Room) -> Iterator[FlatPart]:
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
        yield plate(feature, solids.shell, name, matrix, orient(shape.simplify(SMOOTH_MM)), 0)
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
        note=words("Roll to a cone {slant_sheet} along its slant and close it with a seam.", slant_sheet=flat.slant_mm),
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
        note=words(
            "Roll to {bore_sheet} inside diameter, the face towards you {way}.",
            bore_sheet=bore,
            way="inward" if tube.down else "outward",
        ),
        holes=[ring_spots(ring) for ring in shape.interiors],
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


LET_IN = study(let_in_parts, BARE_SOLIDS, only("shell", "sheet"), WORKSHOP)


def bent_here(made: Sheet, let_in: list[FlatPart]) -> Sheet:
    """All parts that have bends: the shell's, what stands inside, and features whose sides are bent from one sheet."""
    return replace(made, parts=[*made.parts, *(part for part in let_in if part.bends)])


BENT = study(bent_here, SHEET, LET_IN)
"""All parts with the folded features' among them."""
