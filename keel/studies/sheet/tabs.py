"""Tabs of plates that stand inside, and the slots in the shell that they go through."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from itertools import pairwise

import numpy as np
from manifold3d import Manifold
from shapely import prepare
from shapely.geometry import LineString, Polygon
from shapely.geometry.polygon import orient
from shapely.ops import unary_union

from keel.analysis.parts import WORKSHOP, only
from keel.analysis.study import study
from keel.design.document import Design
from keel.design.features import Baffle, Partition, Tabs
from keel.design.workshop import Workshop
from keel.solid.planes import polygons_of, ring_spots
from keel.solid.polyhedron import Array
from keel.solid.rings import in_space
from keel.solid.shapes import drawn_out, slice_rings
from keel.solid.solids import Solids
from keel.studies.sheet.laps import slots
from keel.studies.sheet.lying import Lying, to_flat
from keel.studies.sheet.model import Sheet
from keel.studies.sheet.plate_shapes import plate_shapes
from keel.studies.sheet.shell_parts import BARE_SOLIDS, SHELL_PARTS, pieces_of

ON_RIM_MM = 0.1
HAIR_MM = 0.01
PAST_MM = 2.0
"""So far past the shell's outside a slot is cut [mm]."""
MOST_WALLS = 3.0
"""A wall that a tab meets aslant may be so many times as thick along it."""


@dataclass(frozen=True)
class Tab:
    """One tab: `shape` along the plate and up, from its edge to the shell's outside; `slot` what it takes of the shell.

    `about`, shape (5, 3), is the middle of its end and four places round its slot, as far off as sheet has to be left
    there [mm, vehicle axes].
    """

    plate: str
    name: str
    wide_mm: float
    shape: Polygon
    slot: Manifold
    about: Array

    @property
    def at(self) -> Array:
        """The middle of its end."""
        return np.asarray(self.about[0])


def tabs_of(solids: Solids, shell_parts: Sheet, design: Design, workshop: Workshop) -> list[Tab]:
    """Tabs of all plates that have some.

    Parameters
    ----------
    solids : Solids
        The shell as built.
    shell_parts : Sheet
        The shell's own: slots go into them.
    design, workshop
        Pan gap and house rules.

    Returns
    -------
    list of Tab
        Along every straight edge at the shell, about as far apart as was said, where its slot lies on one flat panel of
        one part, clear of bends; none where another plate crosses.
    """
    gap = workshop.rules.pan_gap_mm if design.sheet.pan_gap_mm is None else design.sheet.pan_gap_mm
    land, found = workshop.rules.land_mm, list[Tab]()
    standing = [one for one in solids.shell.features if isinstance(one, Baffle | Partition)]
    tabbed = [(one, one.tabs) for one in standing if one.tabs]
    # Folded up only where somebody asks: during a drag it would be the dearest thing of all.
    pieces = pieces_of(shell_parts) if tabbed else []
    for feature, tabs in tabbed:
        crossed = slots(feature, solids, gap, workshop.rules.flange_mm) if isinstance(feature, Baffle) else []
        taken = unary_union([lap.slot for lap in crossed]).buffer(tabs.wide_mm)
        made = _Plate(feature, tabs, solids, gap, land)
        found += [tab for tab in made.tabs() if not tab.shape.intersects(taken) and _lands(tab, pieces)]
    return found


def with_tabs(sheet: Polygon, tabs: Sequence[Tab]) -> Polygon:
    """A plate's sheet with those of its tabs that stand on it."""
    own = [tab.shape for tab in tabs if tab.shape.intersection(sheet).area > 0]
    return max(polygons_of(unary_union([sheet, *own])), key=lambda one: one.area) if own else sheet


class _Plate:
    """A plate with tabs in its own plane: along it and up."""

    def __init__(self, feature: Baffle | Partition, tabs: Tabs, solids: Solids, gap: float, land: float) -> None:
        self._feature, self._tabs, self._gap, self._land = feature, tabs, gap, land
        self._axis = "xy".index(feature.axis)
        self._start = solids.datum[self._axis] + feature.at_mm
        self._thick = feature.wall_mm(solids.shell.feature_wall_mm)
        self._room, self._pieces = plate_shapes(feature, solids, gap)
        rings = slice_rings(solids.outer, self._axis, self._start + self._thick / 2)
        self._outside = unary_union([LineString([*ring, ring[0]]) for ring in rings])
        self._most = MOST_WALLS * max(solids.shell.thickness_mm, solids.shell.end_wall_mm) + gap

    def tabs(self) -> Iterator[Tab]:
        """Evenly along every edge that is long enough, at least one."""
        rim = self._room.boundary.buffer(ON_RIM_MM)
        prepare(rim)
        for a, b in (edge for piece in self._pieces for edge in _edges(piece)):
            long = float(np.hypot(*(b - a)))
            if long < 3 * self._tabs.wide_mm or not rim.covers(LineString([a, b])):
                continue
            count = max(1, round(long / self._tabs.pitch_mm))
            for n in range(count):
                tab = self._tab(a, b, long, (n + 0.5) / count)
                if tab is not None:
                    yield tab

    def _tab(self, a: Array, b: Array, long: float, share: float) -> Tab | None:
        along = (b - a) / long
        out, middle = np.array([along[1], -along[0]]), a + share * (b - a)
        met = LineString([middle, middle + out * self._most]).intersection(self._outside)
        if met.is_empty:
            return None
        spots = [np.array(point.coords[0]) for point in getattr(met, "geoms", [met])]
        reach = min(float((spot - middle) @ out) for spot in spots)
        half = self._tabs.wide_mm / 2
        shape = _strip(middle, along, out, half, (-HAIR_MM, reach))
        taken = _strip(middle, along, out, half + self._gap, (0.0, reach + PAST_MM))
        ring = np.array(ring_spots(orient(taken).exterior))
        slot = drawn_out(ring, self._axis, self._start - self._gap, self._start + self._thick + self._gap)
        end, more = middle + out * reach, self._gap + self._land
        around = [
            in_space(end + way * along * (half + more), self._axis, self._start + self._thick / 2 + side)
            for way in (-1.0, 1.0)
            for side in (-self._thick / 2 - more, self._thick / 2 + more)
        ]
        about = np.vstack([in_space(end, self._axis, self._start + self._thick / 2), *around])
        return Tab(self._feature.id, self._feature.name, self._tabs.wide_mm, shape, slot, about)


def _lands(tab: Tab, pieces: Sequence[Lying]) -> bool:
    """Whether a slot, with the strip round it, lies on one flat panel of one part."""
    return any(_panels(tab, piece) for piece in pieces)


def _panels(tab: Tab, piece: Lying) -> bool:
    landed = [to_flat(piece, spot) for spot in tab.about]
    return all(on is not None and on.turn is None for on in landed) and len({on.panel for on in landed if on}) == 1


def _edges(piece: Polygon) -> Iterator[tuple[Array, Array]]:
    yield from pairwise(np.array(orient(piece).exterior.coords))


def _strip(middle: Array, along: Array, out: Array, half: float, over: tuple[float, float]) -> Polygon:
    corners = ((-half, over[0]), (half, over[0]), (half, over[1]), (-half, over[1]))
    return Polygon([middle + u * along + v * out for u, v in corners])


TABS = study(tabs_of, BARE_SOLIDS, SHELL_PARTS, only("shell", "sheet"), WORKSHOP)
"""Tabs of plates that stand inside."""
