"""Where plates and pots land on the shell, as lines to etch on its flats before they are bent."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from itertools import pairwise
from math import hypot

from manifold3d import Manifold
from shapely.geometry import Polygon

from keel.analysis.parts import only
from keel.analysis.study import study
from keel.design.document import Design
from keel.design.features import Baffle, Partition, Pot
from keel.solid.build import build
from keel.solid.planes import cut_by, polygons_of
from keel.solid.solids import Solids
from keel.studies.sheet.lying import Lying
from keel.studies.sheet.parts import Mark
from keel.studies.sheet.shell_parts import BARE_SOLIDS, PIECES

HAIR_MM = 0.05
"""So far inside the shell what stands there is cut to see where it lands."""
LEAST_MM = 5.0
SMOOTH_MM = 0.05


@dataclass(frozen=True)
class Landed:
    """Lines on one piece of one part."""

    part: str
    piece: str
    marks: list[Mark]


def landed(pieces: Sequence[Lying], solids: Solids, design: Design) -> list[Landed]:
    """Footprints of all that stands inside, on the flats of the shell's parts.

    Parameters
    ----------
    pieces : sequence of Lying
        The shell's own, where they lie.
    solids : Solids
        The shell as built.
    design : Design
        How it is put together.

    Returns
    -------
    list of Landed
        Both faces of every plate where it meets a flat panel, and a pot's outline; nothing in a bend.
    """
    standing = list(_standing(solids, design.sheet.making))
    found = []
    for piece in pieces if standing else ():
        marks = [mark for name, solid in standing for mark in _marks(piece, name, solid)]
        if marks:
            found.append(Landed(piece.part.name, piece.place.name, marks))
    return found


def _standing(solids: Solids, making: str) -> Iterator[tuple[str, Manifold]]:
    """What stands inside, by name, as far as the plain shell's inside goes."""
    features = [one for one in solids.shell.features if isinstance(one, Baffle | Partition | Pot)]
    if not features:
        return
    room = build(solids.shell.model_copy(update={"features": ()}), making).inner
    pots = {place.pot.id: place for place in solids.pots}
    for feature in features:
        if isinstance(feature, Pot):
            place = pots[feature.id]
            yield feature.name, place.column(place.outside) ^ room
        else:
            yield feature.name, solids.plates[feature.id].slab ^ room


def _marks(piece: Lying, name: str, solid: Manifold) -> list[Mark]:
    found = []
    for panel in piece.panels:
        inside = piece.part.thickness_mm + HAIR_MM if piece.outside == 0.0 else -HAIR_MM
        foot = cut_by(solid, panel.matrix, inside).intersection(Polygon(panel.outline))
        for shape in polygons_of(foot):
            spots = [(float(u), float(v)) for u, v in shape.simplify(SMOOTH_MM).exterior.coords]
            found += [Mark(a, b, name) for a, b in pairwise(spots) if hypot(b[0] - a[0], b[1] - a[1]) > LEAST_MM]
    return found


LANDED = study(landed, PIECES, BARE_SOLIDS, only("shell", "sheet"))
