"""The outline that a body is drawn out from: outside and inside of the metal."""

from dataclasses import dataclass, field
from functools import lru_cache
from typing import Literal

import numpy as np
from shapely.geometry import LineString, Polygon
from shapely.validation import explain_validity

from keel.design.shell import BoxShell, Corner, CylinderShell, ProfileShell
from keel.solid.box import ENDS_BENT_UP, Cuboid, box_solid, has_pans, welded_corners
from keel.solid.faults import wrong
from keel.solid.polygon import Edge, ShapeError, edges_of, inset, reach_of, rounded, turn_at
from keel.solid.polyhedron import Array
from keel.solid.rings import circle, ring_area

LEAST_EDGE_MM = 1.0
BODIES_KEPT = 64
"""How many bodies are remembered: features change more often than what they are made in."""


Ends = Literal["pans", "flat", "bent up"]


@dataclass(frozen=True)
class Section:
    """One outline in vehicle axes (a lying section: across and up; a standing one: x and y) [mm].

    Attributes
    ----------
    outer, inner : ndarray, shape (k, 2)
        Outside and inside of the metal, counter-clockwise, rounds as chords of the same area.
    edges : list of Edge
        The outside with sharp corners; empty for a circle.
    radii : list of float
        How each of its corners is rounded outside [mm].
    axis : int
        Axis it is drawn out along: 0, 1 or 2.
    span, inner_span : tuple of float
        From low to high end along the axis, over and between the end plates.
    """

    outer: Array
    inner: Array
    edges: list[Edge]
    radii: list[float]
    bent: list[bool]
    axis: int
    span: tuple[float, float]
    inner_span: tuple[float, float]

    ends: Ends = "flat"
    """What closes it: pans set in, flat ends set in, or, of a box, ends bent up from the floor."""

    @property
    def across(self) -> int:
        """The axis that the outline's first coordinate lies along."""
        return 1 if self.axis == 0 else 0

    @property
    def extents(self) -> tuple[tuple[float, float], tuple[float, float]]:
        """Low and high corner of the outside, true arcs counted [mm]."""
        places = [p for e in self.edges for p in reach_of(e)] if self.edges else round_reach(self.outer)
        xs, ys = [p[0] for p in places], [p[1] for p in places]
        return (min(xs), min(ys)), (max(xs), max(ys))


def face_names(section: Section) -> list[str]:
    """What each edge's face is called: by where it looks, numbered where several look the same way.

    Parameters
    ----------
    section : Section
        A section of a body.

    Returns
    -------
    list of str
        A name an edge.
    """
    outward = ("front face", "rear face") if section.axis == 1 else ("left side", "right side")
    plain = []
    for e in section.edges:
        x, z = e.end[1] - e.start[1], e.start[0] - e.end[0]
        if abs(z) >= abs(x):
            name = (
                ("lid" if z > 0 else "floor")
                if abs(x) < 0.05 * abs(z)
                else ("sloping lid" if z > 0 else "sloping floor")
            )
        else:
            name = outward[0] if x > 0 else outward[1]
        plain.append(name)
    counted: dict[str, int] = {}
    names = []
    for name in plain:
        counted[name] = counted.get(name, 0) + 1
        names.append(f"{name} {counted[name]}" if plain.count(name) > 1 else name)
    return names


def round_reach(ring: Array) -> list[tuple[float, float]]:
    """Low and high corner of the circle that a polygon of its area stands for."""
    middle, radius = ring.mean(axis=0), float(np.sqrt(ring_area(ring) / np.pi))
    return [
        (float(middle[0]) - radius, float(middle[1]) - radius),
        (float(middle[0]) + radius, float(middle[1]) + radius),
    ]


def section_of(shell: BoxShell | ProfileShell | CylinderShell, seam: str = "lid") -> Section:
    """The section of a shell's body.

    Parameters
    ----------
    shell : BoxShell or ProfileShell or CylinderShell
        The shell.
    seam : str
        Where a box's wrapper closes: at a corner it is welded there instead of bent.

    Returns
    -------
    Section
        Outer and inner outline [mm].

    Raises
    ------
    GeometryError
        Naming the corner where the outline can't be made.
    """
    return _section_of(Body.of(shell, seam))


@dataclass(frozen=True)
class Body:
    """A shell without its features as a key: two that are written alike are the same."""

    written: str
    seam: str
    shell: BoxShell | ProfileShell | CylinderShell = field(compare=False)

    @classmethod
    def of(cls, shell: BoxShell | ProfileShell | CylinderShell, seam: str) -> "Body":
        """The body of a shell, closed at that seam."""
        return cls(shell.model_dump_json(exclude={"features"}), seam, shell)


@lru_cache(maxsize=BODIES_KEPT)
def _section_of(body: Body) -> Section:
    shell, seam = body.shell, body.seam
    match shell:
        case BoxShell():
            return _box_section(shell, seam)
        case ProfileShell():
            return _profile_section(shell)
        case CylinderShell():
            return _round_section(shell)


def _box_section(shell: BoxShell, seam: str) -> Section:
    solid = box_solid(shell, shell.end_wall_mm)
    low, high = solid.body.low, solid.body.high
    a, b = low[solid.across], high[solid.across]
    welded = welded_corners(seam)
    places = [(a, low[2]), (b, low[2]), (b, high[2]), (a, high[2])]
    edges = [Edge(p, places[(n + 1) % 4]) for n, p in enumerate(places)]
    bent = [place not in welded for place in range(4)]
    t, r = shell.thickness_mm, shell.bend_radius_mm
    radii = [r + t if r and b else 0.0 for b in bent]
    return Section(
        outer=rounded(edges, radii),
        inner=rounded(inset(edges, t), [r if b else 0.0 for b in bent]),
        edges=edges,
        radii=radii,
        bent=bent,
        axis=solid.wrap,
        span=(low[solid.wrap], high[solid.wrap]),
        inner_span=(solid.inner.low[solid.wrap], solid.inner.high[solid.wrap]),
        ends="pans" if has_pans(seam) else "bent up" if seam in ENDS_BENT_UP else "flat",
    )


def ends_of_box(shell: BoxShell) -> tuple[list[Edge], list[float]]:
    """A box seen from the side where its floor is bent up to its ends: edges, and outside radii at their starts [mm].

    Parameters
    ----------
    shell : BoxShell
        Its wrap axis lies across in the plane, upright up.

    Returns
    -------
    (list of Edge, list of float)
        Four edges from the low corner round, and a radius a corner.
    """
    solid, radius = box_solid(shell, shell.end_wall_mm), shell.bend_radius_mm
    outside = radius + shell.thickness_mm if radius else 0.0
    return _upright(solid.body, solid.wrap), [outside, outside, 0.0, 0.0]


def _upright(box: Cuboid, axis: int) -> list[Edge]:
    (a, low), (b, high) = (box.low[axis], box.low[2]), (box.high[axis], box.high[2])
    places = [(a, low), (b, low), (b, high), (a, high)]
    return [Edge(p, places[(n + 1) % 4]) for n, p in enumerate(places)]


def end_rings(shell: BoxShell) -> tuple[Array, Array]:
    """Outside and inside of a box whose floor is bent up to its ends, as `ends_of_box` sees it, shape (n, 2) [mm]."""
    solid, r = box_solid(shell, shell.end_wall_mm), shell.bend_radius_mm
    edges, outside = ends_of_box(shell)
    return rounded(edges, outside), rounded(_upright(solid.inner, solid.wrap), [r, r, 0.0, 0.0])


def _profile_section(shell: ProfileShell) -> Section:
    _check_outline(shell.corners)
    axis = 0 if shell.wrap_axis == "x" else 1
    place = (shell.x_mm, shell.y_mm)
    shift = (place[1 - axis], shell.z_mm)
    edges = [_shifted(e, shift) for e in edges_of(shell.corners)]
    t, r = shell.thickness_mm, shell.bend_radius_mm
    bent = [_is_bent(shell.corners[n], edges, n) for n in range(len(edges))]
    try:
        turns = [turn_at(edges, n) for n in range(len(edges))]
        outside = [(r + t if turn > 0 else r) if r and b else 0.0 for b, turn in zip(bent, turns, strict=True)]
        inside = [(r if turn > 0 else r + t) if r and b else 0.0 for b, turn in zip(bent, turns, strict=True)]
        outer = rounded(edges, outside)
        inner = rounded(inset(edges, t), inside)
    except ShapeError as error:
        raise wrong(_corner_field(error.corner), str(error), error.value, error.limit) from error
    _check_ring(inner, t)
    start, wall = place[axis], shell.end_wall_mm
    return Section(
        outer=outer,
        inner=inner,
        edges=edges,
        radii=outside,
        bent=bent,
        axis=axis,
        span=(start, start + shell.run_mm),
        inner_span=(start + wall, start + shell.run_mm - wall),
    )


def _is_bent(corner: Corner, edges: list[Edge], here: int) -> bool:
    straight = edges[here].centre is None and edges[here - 1].centre is None
    return corner.joint == "bend" and straight and abs(turn_at(edges, here)) > 1e-3


def _round_section(shell: CylinderShell) -> Section:
    axis = "xyz".index(shell.axis)
    place = (shell.x_mm, shell.y_mm, shell.z_mm)
    radius, wall = shell.diameter_mm / 2, shell.end_wall_mm
    first, second = [place[i] for i in range(3) if i != axis]
    middle = np.array([first + radius, second + radius])
    return Section(
        outer=middle + circle(radius),
        inner=middle + circle(radius - shell.thickness_mm),
        edges=[],
        radii=[],
        bent=[],
        axis=axis,
        span=(place[axis], place[axis] + shell.run_mm),
        inner_span=(place[axis] + wall, place[axis] + shell.run_mm - wall),
    )


def _check_outline(corners: tuple[Corner, ...]) -> None:
    edges = edges_of(corners)
    for here, e in enumerate(edges):
        if e.chord < LEAST_EDGE_MM:
            raise wrong(
                _corner_field(here),
                f"the edge after corner {here + 1} is {e.chord:.2f} mm long, it must be {LEAST_EDGE_MM:g} mm or more",
                round(e.chord, 3),
                LEAST_EDGE_MM,
            )
        if abs(corners[here].bow_mm) > e.chord / 2 + 1e-6:
            raise wrong(
                f"{_corner_field(here)}.bow_mm",
                f"the roll after corner {here + 1} may rise {e.chord / 2:.2f} mm at most: half its chord",
                corners[here].bow_mm,
                round(e.chord / 2, 3),
            )
    ring = rounded(edges, [0.0] * len(edges))
    if len(ring) < 3:
        raise wrong("shell.corners", "a profile of two corners needs a rolled edge", len(corners), 3)
    outline = Polygon(ring)
    if not outline.is_valid:
        raise wrong("shell.corners", f"the profile crosses itself: {_where(outline, edges)}", None, "no crossing")
    if ring_area(ring) < 0:
        raise wrong("shell.corners", "the corners run clockwise; turn their order round", None, "counter-clockwise")


def _where(outline: Polygon, edges: list[Edge]) -> str:
    lines = [LineString([e.start, e.end]) for e in edges]
    count = len(lines)
    for a in range(count):
        for b in range(a + 2, count):
            if (a == 0 and b == count - 1) or not lines[a].intersects(lines[b]):
                continue
            at = lines[a].intersection(lines[b]).centroid
            return f"the edges after corners {a + 1} and {b + 1} meet at {at.x:.1f} across, {at.y:.1f} up"
    return str(explain_validity(outline)).replace("[", " at ").replace("]", "").lower()


def _check_ring(inner: Array, wall: float) -> None:
    outline = Polygon(inner)
    if not outline.is_valid or ring_area(inner) <= 0:
        raise wrong(
            "shell.thickness_mm",
            f"a {wall:g} mm wall eats the gap: the inside of the profile crosses itself",
            wall,
            "less than half the narrowest place",
        )


def _shifted(e: Edge, by: tuple[float, float]) -> Edge:
    def move(p: tuple[float, float]) -> tuple[float, float]:
        return p[0] + by[0], p[1] + by[1]

    return Edge(move(e.start), move(e.end), move(e.centre) if e.centre else None, e.radius, e.turn)


def _corner_field(corner: int | None) -> str:
    return "shell.corners" if corner is None else f"shell.corners.{corner}"
