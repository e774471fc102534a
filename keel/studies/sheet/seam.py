"""Where a wrapper in one piece closes, and where else it may."""

from collections.abc import Sequence
from dataclasses import dataclass

from keel.analysis.parts import only
from keel.analysis.study import study
from keel.design.document import Design
from keel.design.sheet import SeamPlace
from keel.design.shell import BoxShell, ProfileShell
from keel.solid.polygon import Edge
from keel.solid.section import Section, section_of
from keel.studies.result import Point
from keel.studies.sheet.parts import Spot
from keel.studies.sheet.placing import in_section

FACES: tuple[SeamPlace, ...] = ("lid", "side", "floor")


def seam_edge(edges: Sequence[Edge], seam: str) -> int:
    """The straight edge that a wrapper in one piece closes on.

    Parameters
    ----------
    edges : sequence of Edge
        Of its section.
    seam : str
        At the lid, a side or the floor.

    Returns
    -------
    int
        Its place: topmost, lowest, or the most upright other.
    """
    straight = [n for n, e in enumerate(edges) if e.centre is None] or list(range(len(edges)))
    height = {n: (edges[n].start[1] + edges[n].end[1]) / 2 for n in straight}
    if seam == "floor":
        return min(straight, key=lambda n: (height[n], -edges[n].length))
    if seam == "side":
        return max(straight, key=lambda n: (abs(edges[n].end[1] - edges[n].start[1]), -edges[n].start[0]))
    return max(straight, key=lambda n: (height[n], edges[n].length))


def left_after(edge: Edge, share: float) -> float:
    """How much of an edge lies after a seam on it, on the way round.

    Parameters
    ----------
    edge : Edge
        What the wrapper closes on.
    share : float
        How far along it: from its low end across, or from its foot where it stands.

    Returns
    -------
    float
        A share of its length; half of a rolled one.
    """
    if edge.centre is not None:
        return 0.5
    return 1 - share if _rises(edge) else share


def _rises(edge: Edge) -> bool:
    """Whether an edge runs from its low end across, or from its foot where it stands."""
    across, up = edge.end[0] - edge.start[0], edge.end[1] - edge.start[1]
    return up > 0 if abs(up) > abs(across) else across > 0


def seam_place(section: Section, seam: str, share: float = 0.5) -> Spot:
    """Where in a section's plane a wrapper in one piece closes.

    Parameters
    ----------
    section : Section
        That it is wound round.
    seam : str
        At the lid, a side or the floor.
    share : float
        How far along that edge, as for `left_after`.

    Returns
    -------
    Spot
        A place [mm].
    """
    edge = section.edges[seam_edge(section.edges, seam)]
    before = 1 - left_after(edge, share)
    (x0, y0), (x1, y1) = edge.start, edge.end
    return x0 + before * (x1 - x0), y0 + before * (y1 - y0)


@dataclass(frozen=True, slots=True)
class SeamFace:
    """Where a wrapper may close: along a face from its low to its high end, or at a corner, where both are one."""

    seam: SeamPlace
    low: Point
    high: Point


@dataclass(frozen=True, slots=True)
class SeamPlaces:
    """Where the wrapper closes, half way along it, and where else it may; none where it has no closing seam."""

    at: Point | None
    faces: list[SeamFace]


def seam_places(design: Design) -> SeamPlaces:
    """Places for the closing seam of a wrapper in one piece.

    Parameters
    ----------
    design : Design
        Its shell and how that is put together.

    Returns
    -------
    SeamPlaces
        Of a box wound in one piece, or of a profile all of whose corners are bent.
    """
    shell, sheet = design.shell, design.sheet
    if isinstance(shell, BoxShell) and sheet.scheme.startswith("wrapper"):
        faces = [*_faces(section_of(shell, "lid")), _corner(section_of(shell, "corner butt"))]
        closed_at_corner = sheet.seam.startswith("corner")
        section = section_of(shell, sheet.making)
        at = faces[-1].low if closed_at_corner else _point(section, seam_place(section, sheet.seam, sheet.seam_share))
        return SeamPlaces(at, faces)
    if isinstance(shell, ProfileShell) and all(corner.joint == "bend" for corner in shell.corners):
        section = section_of(shell)
        if any(edge.centre is None for edge in section.edges):
            return SeamPlaces(_point(section, seam_place(section, sheet.seam, sheet.seam_share)), _faces(section))
    return SeamPlaces(None, [])


def _faces(section: Section) -> list[SeamFace]:
    found = []
    for seam in FACES:
        edge = section.edges[seam_edge(section.edges, seam)]
        ends = _point(section, edge.start), _point(section, edge.end)
        found.append(SeamFace(seam, *(ends if _rises(edge) else ends[::-1])))
    return found


def _corner(section: Section) -> SeamFace:
    at = _point(section, section.edges[section.bent.index(False)].start)
    return SeamFace("corner butt", at, at)


def _point(section: Section, spot: Spot) -> Point:
    return Point.of(in_section(section, spot, sum(section.span) / 2))


SEAM_PLACES = study(seam_places, only("shell", "sheet"))
"""Where the wrapper closes and may close."""
