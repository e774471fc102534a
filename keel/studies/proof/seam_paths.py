"""Where every seam of a tank runs in space: what is walked with soap, and what a leak is pinned on."""

from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass
from itertools import groupby
from typing import Literal

import numpy as np
import numpy.typing as npt

from keel.analysis.parts import only
from keel.analysis.study import study
from keel.design.document import Design
from keel.design.features import Partition, Relief, RoofStep, Sump, Well
from keel.design.ports import Port
from keel.design.shell import CylinderShell
from keel.solid.facets import Faced, facets_of, is_flat_sided, sump_frame, well_frame
from keel.solid.polyhedron import Array
from keel.solid.rings import circle
from keel.solid.section import Section, face_names
from keel.solid.solids import Solids
from keel.solid.standing import OUTWARD, surface_at
from keel.studies.drawing.views import joints_of
from keel.studies.result import Words, words
from keel.studies.sheet.placing import in_section
from keel.studies.sheet.seam import SEAM_PLACES, SeamPlaces
from keel.studies.sheet.shell_parts import BARE_SOLIDS
from keel.studies.sheet.tabs import TABS, Tab

SeamKind = Literal["seat", "lengthwise", "end", "let in", "partition"]
Chosen = npt.NDArray[np.bool_]
ORDER: tuple[SeamKind, ...] = ("seat", "lengthwise", "let in", "end", "partition")
"""Where leaks are looked for first."""
UNEVEN = 1.3
"""Sheets that differ in thickness by more than this share take the heat unevenly."""
WELDED = float(np.cos(np.radians(30.0)))
"""Faces that meet at less than 30° are the chords of a bend."""
ON_MM, SAME_MM, BESIDE_MM = 0.3, 0.05, 8.0


@dataclass(frozen=True, slots=True)
class SeamLine:
    """A stretch of weld without a branch.

    Attributes
    ----------
    points : ndarray, shape (n, 3)
        In vehicle axes [mm]; the first again at the end where it is closed.
    is_round : bool
        A circle, which has no corner.
    """

    points: Array
    is_round: bool = False

    @property
    def length_mm(self) -> float:
        """Along it [mm]."""
        return float(np.linalg.norm(np.diff(self.points, axis=0), axis=1).sum())


@dataclass(frozen=True, slots=True)
class Seam:
    """One seam in space.

    Attributes
    ----------
    id, name : str
        What entries of the log name it by, and what people call it.
    kind : SeamKind
        Ring of a seat, seam along the body, of something let in, round an end, round a partition.
    lines : list of SeamLine
        Where it runs.
    uneven : Words or None
        What differs at it, where sheets or parts of unlike thickness meet.
    """

    id: str
    name: str
    kind: SeamKind
    lines: list[SeamLine]
    uneven: Words | None = None

    @property
    def length_mm(self) -> float:
        """All of it [mm]."""
        return sum(line.length_mm for line in self.lines)


def seam_paths(design: Design, solids: Solids, places: SeamPlaces, tabs: Sequence[Tab]) -> list[Seam]:
    """Every seam that holds the fuel, in the order in which it is looked at.

    Parameters
    ----------
    design : Design
        Its shell and ports.
    solids : Solids
        The shell worked out, without bag and foam.
    places : SeamPlaces
        Where the wrapper closes.
    tabs : sequence of Tab
        Of plates inside: each goes through the shell, and is welded round.

    Returns
    -------
    list of Seam
        Rings of what is welded in first, then seams along the body, of what is let in, round the ends, round
        partitions. Seams of plates with openings hold nothing and are left out.
    """
    found = [*_seats(design.ports, solids), *_lengthwise(solids, places), *_ends(solids)]
    found += [*_let_in(solids), *_tabs(tabs), *_partitions(solids)]
    return sorted(
        (seam for seam in found if seam.lines), key=lambda seam: (ORDER.index(seam.kind), seam.uneven is None)
    )


def _seats(ports: Sequence[Port], solids: Solids) -> Iterator[Seam]:
    """The weld round each boss, ring and neck."""
    for port in ports:
        if port.seat is None:
            continue
        axis = int(np.argmax(np.abs(OUTWARD[port.face])))
        first, second = (np.eye(3)[n] for n in range(3) if n != axis)
        ring = circle(port.seat.outer_mm / 2)
        spots = surface_at(solids, port) + np.outer(ring[:, 0], first) + np.outer(ring[:, 1], second)
        thick = words("{kind} on {sheet_sheet} sheet", kind=port.seat.kind, sheet_sheet=solids.shell.thickness_mm)
        yield Seam(f"seat-{port.id}", f"{port.name}, {port.seat.kind}", "seat", [_closed(spots, is_round=True)], thick)


def _closed(spots: Array, *, is_round: bool = False) -> SeamLine:
    return SeamLine(np.vstack([spots, spots[:1]]), is_round)


def _lengthwise(solids: Solids, places: SeamPlaces) -> Iterator[Seam]:
    """Corners that are welded instead of bent, and where a wrapper closes."""
    section = solids.section
    if isinstance(solids.shell, CylinderShell):
        (low, _), (high, top) = section.extents
        yield Seam("closing-seam", "closing seam", "lengthwise", [_along(section, ((low + high) / 2, top))])
        return
    names = face_names(section)
    welded = [n for n, bent in enumerate(section.bent) if not bent]
    for n in welded:
        beside = f"{names[n - 1]} to {names[n]}"
        yield Seam(f"corner-{n}", beside, "lengthwise", [_along(section, section.edges[n].start)])
    if places.at is None:
        return
    spot = np.array([places.at.x, places.at.y, places.at.z])
    flat = spot[[n for n in range(3) if n != section.axis]]
    corners = [np.array(section.edges[n].start) for n in welded]
    if all(np.linalg.norm(flat - corner) > BESIDE_MM for corner in corners):
        yield Seam("closing-seam", "closing seam", "lengthwise", [_along(section, (float(flat[0]), float(flat[1])))])


def _along(section: Section, spot: tuple[float, float]) -> SeamLine:
    return SeamLine(np.array([in_section(section, spot, at) for at in section.span]))


def _ends(solids: Solids) -> Iterator[Seam]:
    """Round both ends; where they are bent up from the floor, all but their foot."""
    section, shell = solids.section, solids.shell
    names = (("rear end", "front end"), ("right end", "left end"), ("lower end", "upper end"))[section.axis]
    thick, end = shell.thickness_mm, shell.end_wall_mm
    uneven = _uneven("end", end, thick)
    for name, at in zip(names, section.span, strict=True):
        ring = np.array([in_section(section, (float(x), float(y)), at) for x, y in section.outer])
        line = _without_foot(ring) if section.ends == "bent up" else _closed(ring, is_round=not section.edges)
        yield Seam(name.replace(" ", "-"), name, "end", [line], uneven)


def _without_foot(ring: Array) -> SeamLine:
    """A ring from the end of its lowest side round to that side's start."""
    low = ring[:, 2] < ring[:, 2].min() + SAME_MM
    first = next(n for n in range(len(ring)) if low[n] and not low[(n + 1) % len(ring)])
    turned = np.roll(ring, -first, axis=0)
    last = next(n for n in range(1, len(turned)) if turned[n, 2] < ring[:, 2].min() + SAME_MM)
    return SeamLine(turned[: last + 1])


def _let_in(solids: Solids) -> Iterator[Seam]:
    """Sharp edges on the surfaces of what is let in: what is bent there isn't sharp."""
    faced = [f for f in solids.shell.features if isinstance(f, Well | Sump | Relief | RoofStep)]
    if not faced:
        return
    uneven = _uneven("sheet", solids.shell.feature_wall_mm, solids.shell.thickness_mm)
    joints = joints_of(solids.outer_mesh)
    sharp = joints.ends[joints.bend < WELDED]
    for feature in faced:
        on = _on(feature, solids)
        chosen = sharp[on(sharp[:, 0]) & on(sharp[:, 1])]
        long = np.linalg.norm(chosen[:, 1] - chosen[:, 0], axis=1) > SAME_MM
        lines = chained(chosen[long])
        yield Seam(f"let-in-{feature.id}", feature.name, "let in", lines, uneven)


def _uneven(what: str, own_mm: float, wall_mm: float) -> Words | None:
    """What is joined to a wall of another thickness; None where both are much alike."""
    if max(own_mm, wall_mm) <= UNEVEN * min(own_mm, wall_mm):
        return None
    return words("{own_sheet} {what} in {wall_sheet} wall", own_sheet=own_mm, what=what, wall_sheet=wall_mm)


def _tabs(tabs: Sequence[Tab]) -> Iterator[Seam]:
    """The welds round a plate's tabs, outside on the shell."""
    for plate, own in groupby(tabs, key=lambda tab: (tab.plate, tab.name)):
        yield Seam(f"tabs-{plate[0]}", f"{plate[1]}, tabs", "let in", [_closed(_slot(tab)) for tab in own])


def _slot(tab: Tab) -> Array:
    """The four corners of a tab's end in turn, shape (4, 3) [mm]."""
    low, across, along = tab.about[1], tab.about[2] - tab.about[1], tab.about[3] - tab.about[1]
    wide, thick = float(np.linalg.norm(along)), float(np.linalg.norm(across))
    off = (wide - tab.wide_mm) / 2
    along, across = along / wide, across / thick
    corner = low + off * (along + across)
    sides = tab.wide_mm * along, (thick - 2 * off) * across
    return np.array([corner, corner + sides[0], corner + sides[0] + sides[1], corner + sides[1]])


def _on(feature: Faced, solids: Solids) -> Callable[[Array], Chosen]:
    """Whether places lie on a feature's surface."""
    body = solids.body
    if is_flat_sided(feature):
        facets = facets_of(feature, body)
        normals, offsets = np.array([one.normal for one in facets]), np.array([one.offset for one in facets])

        def flat(spots: Array) -> Chosen:
            off = spots @ normals.T - offsets
            return np.asarray((np.abs(off).min(axis=1) < ON_MM) & (off.max(axis=1) < ON_MM))

        return flat
    axis, middle, radius, reach = _round_of(feature, solids)

    def rounded(spots: Array) -> Chosen:
        away = np.delete(spots - middle, axis, axis=1)
        along = (spots - middle)[:, axis]
        deep = (along > reach[0] - ON_MM) & (along < reach[1] + ON_MM)
        return np.asarray((np.abs(np.linalg.norm(away, axis=1) - radius) < 2 * ON_MM) & deep)

    return rounded


def _round_of(feature: Faced, solids: Solids) -> tuple[int, Array, float, tuple[float, float]]:
    """Axis, a place on it, radius, and from where to where along it a round feature reaches."""
    body = solids.body
    if isinstance(feature, Relief):
        axis = "xyz".index(feature.form)
        size = np.array([feature.length_mm, feature.width_mm, feature.height_mm])
        low = np.array(body.low) + np.array([feature.x_mm, feature.y_mm, feature.z_mm])
        across = np.delete(size, axis)
        return axis, low + size / 2, float(across.min()) / 2, (-float(size[axis]) / 2, float(size[axis]) / 2)
    assert isinstance(feature, Well | Sump)
    frame = well_frame(feature, body) if isinstance(feature, Well) else sump_frame(feature, body)
    way = frame[:, 2]
    axis = int(np.argmax(np.abs(way)))
    ends = sorted((0.0, -float(way[axis]) * feature.deep_mm))
    return axis, frame[:, 3], feature.long_mm / 2, (ends[0], ends[1])


def _partitions(solids: Solids) -> Iterator[Seam]:
    """Round every partition: it leaks into the cell beside it, and nothing shows outside."""
    for plate in solids.shell.features:
        if not isinstance(plate, Partition) or plate.id not in solids.plates:
            continue
        axis = "xy".index(plate.axis)
        at = solids.body.low[axis] + plate.middle_mm(solids.shell.feature_wall_mm)
        low, up, high, top = solids.plates[plate.id].section.bounds()
        spots = np.empty((4, 3))
        spots[:, axis] = at
        spots[:, 1 - axis] = (low, high, high, low)
        spots[:, 2] = (up, up, top, top)
        yield Seam(f"partition-{plate.id}", plate.name, "partition", [_closed(spots)])


def chained(edges: Array) -> list[SeamLine]:
    """Edges put together to lines: from branch to branch, or round.

    Parameters
    ----------
    edges : ndarray, shape (n, 2, 3)
        Both ends of each [mm].

    Returns
    -------
    list of SeamLine
        Every edge is in one of them.
    """
    keys = [[tuple(np.round(end / SAME_MM).astype(int)) for end in pair] for pair in edges]
    at: dict[tuple[int, ...], list[int]] = {}
    for n, pair in enumerate(keys):
        for key in pair:
            at.setdefault(key, []).append(n)
    left, lines = set(range(len(edges))), list[SeamLine]()
    starts = [n for key, touching in at.items() if len(touching) != 2 for n in touching]
    for start in [*starts, *range(len(edges))]:
        if start not in left:
            continue
        lines.append(_line_from(start, edges, keys, at, left))
    return lines


def _line_from(
    start: int,
    edges: Array,
    keys: list[list[tuple[int, ...]]],
    at: dict[tuple[int, ...], list[int]],
    left: set[int],
) -> SeamLine:
    """The line that begins with an edge, at whichever end of it is a branch."""
    begins = 0 if len(at[keys[start][0]]) != 2 else 1 if len(at[keys[start][1]]) != 2 else 0
    left.discard(start)
    spots, key = [edges[start][begins], edges[start][1 - begins]], keys[start][1 - begins]
    while len(at[key]) == 2:
        after = next((n for n in at[key] if n in left), None)
        if after is None:
            break
        left.discard(after)
        far = 1 if keys[after][0] == key else 0
        spots.append(edges[after][far])
        key = keys[after][far]
    return SeamLine(np.array(spots))


SEAM_PATHS = study(seam_paths, only("shell", "ports"), BARE_SOLIDS, SEAM_PLACES, TABS).at_rest()
"""Where every seam runs."""
