"""A bend of a section that came out otherwise: how far the seam stands open, and what becomes of four sides."""

from dataclasses import dataclass
from math import acos, atan2, cos, degrees, hypot, pi, radians, sin, sqrt

import numpy as np

from keel.analysis.study import study
from keel.design.shell import BoxShell, Corner, ProfileShell
from keel.solid.faults import wrong
from keel.solid.polygon import turn_at
from keel.solid.rings import Place
from keel.solid.section import Section, face_names, section_of
from keel.solid.solids import Solids
from keel.studies.sheet.seam import seam_place
from keel.studies.sheet.shell_parts import BARE_SOLIDS

BUILT_DEG = (20.0, 175.0)
"""Angles between two sides that a section can have [°]."""
Wrapped = BoxShell | ProfileShell


@dataclass(frozen=True, slots=True)
class AsBent:
    """A corner whose angle came out otherwise.

    `gap_mm` is how far the closing seam stands open with all other bends as planned. `planned` is the section as a
    profile, `built` what it is once the seam is pulled together with every side as long as it was; empty where it has
    more than four sides, since other bends then give as they will.
    """

    gap_mm: float
    planned: ProfileShell
    built: ProfileShell | None


@dataclass(frozen=True, slots=True)
class SectionAngle:
    """A corner of a wrapped section: the sides that meet there, and the angle between them, inside [°]."""

    name: str
    angle_deg: float


def section_angles(solids: Solids) -> list[SectionAngle]:
    """The corners of a wrapped section that have an angle.

    Parameters
    ----------
    solids : Solids
        The shell as built.

    Returns
    -------
    list of SectionAngle
        In the order of the corners; none of a rolled shell, or of one with a rolled side.
    """
    edges = solids.section.edges
    if any(edge.centre for edge in edges):
        return []
    names = face_names(solids.section)
    return [SectionAngle(f"{names[n - 1]} to {names[n]}", 180 - degrees(turn_at(edges, n))) for n in range(len(edges))]


def as_bent(shell: Wrapped, seam: str, corner: int, built_deg: float, share: float = 0.5) -> AsBent:
    """What a bend that came out otherwise does to a wrapped section.

    Parameters
    ----------
    shell : BoxShell or ProfileShell
        As planned.
    seam : str
        Where the wrapper closes.
    corner : int
        Which corner, counted from 0.
    built_deg : float
        The angle between its sides as measured, inside [°].
    share : float
        How far along its face the seam lies.

    Returns
    -------
    AsBent
        Sides keep their lengths.

    Raises
    ------
    GeometryError
        For a corner that isn't there, a rolled side beside it, an angle that no section has, or four sides that can't
        be closed so.

    References
    ----------
    All beyond a bend turns with it, so the seam opens by the chord 2 R sin(δ/2), R from the bend to the seam. Four
    sides of given lengths have one angle free: the law of cosines gives the diagonal, two circles the fourth corner
    (derived).
    """
    section = section_of(shell, seam)
    edges = section.edges
    if not 0 <= corner < len(edges):
        raise wrong("corner", f"the section has {len(edges)} corners", corner, f"0 to {len(edges) - 1}")
    if edges[corner].centre is not None or edges[corner - 1].centre is not None:
        raise wrong("corner", f"corner {corner + 1} runs into a rolled side: it has no angle", corner, "straight sides")
    low, high = BUILT_DEG
    if not low <= built_deg <= high:
        raise wrong("built_deg", f"an angle of {built_deg:g}° is none of a section", built_deg, f"{low:g} to {high:g}")
    planned = _as_profile(shell, section)
    off = radians(built_deg) - (pi - turn_at(edges, corner))
    at, seam_at = edges[corner].start, _seam_spot(section, seam, share)
    gap = 2 * hypot(seam_at[0] - at[0], seam_at[1] - at[1]) * abs(sin(off / 2))
    if len(edges) != 4 or any(edge.centre for edge in edges):
        return AsBent(gap, planned, None)
    places = _four([(edge.start[0], edge.start[1]) for edge in edges], corner, radians(built_deg))
    return AsBent(gap, planned, planned.model_copy(update={"corners": _moved(planned, section, places)}))


def _seam_spot(section: Section, seam: str, share: float) -> Place:
    """Where the section is closed; at a corner that is welded where it closes there."""
    if all(section.bent):
        return seam_place(section, seam, share)
    return section.edges[section.bent.index(False)].start


def _as_profile(shell: Wrapped, section: Section) -> ProfileShell:
    if isinstance(shell, ProfileShell):
        return shell
    shift = _shift(shell)
    corners = [
        Corner(
            across_mm=edge.start[0] - shift[0],
            up_mm=edge.start[1] - shift[1],
            joint="bend" if section.bent[n] else "weld",
        )
        for n, edge in enumerate(section.edges)
    ]
    kept = {name: getattr(shell, name) for name in type(shell).model_fields if name in ProfileShell.model_fields}
    kept |= {"kind": "profile", "corners": tuple(corners), "run_mm": section.span[1] - section.span[0]}
    return ProfileShell.model_validate(kept)


def _shift(shell: Wrapped) -> Place:
    """Where a profile's corners count from, in its section's plane."""
    return (shell.y_mm if shell.wrap_axis == "x" else shell.x_mm), shell.z_mm


def _moved(planned: ProfileShell, section: Section, places: list[Place]) -> tuple[Corner, ...]:
    shift = _shift(planned)
    pairs = zip(planned.corners, places, strict=True)
    return tuple(one.model_copy(update={"across_mm": x - shift[0], "up_mm": z - shift[1]}) for one, (x, z) in pairs)


def _four(places: list[Place], corner: int, angle: float) -> list[Place]:
    """Four corners with one angle as given and sides as long as they were, the side from the first corner where it was.

    Counter-clockwise, like the ones that are given.
    """
    sides = [hypot(places[(n + 1) % 4][0] - x, places[(n + 1) % 4][1] - y) for n, (x, y) in enumerate(places)]
    before, after, far, back = sides[corner - 1], sides[corner], sides[(corner + 1) % 4], sides[(corner + 2) % 4]
    diagonal = sqrt(before**2 + after**2 - 2 * before * after * cos(angle))
    if not abs(far - back) < diagonal < far + back:
        raise wrong("built_deg", "the other two sides don't reach each other then", degrees(angle), "a smaller change")
    # The corner at the origin, the next along x; the one before by the angle; the fourth across the diagonal.
    here, following, previous = np.zeros(2), np.array([after, 0.0]), before * np.array([cos(angle), sin(angle)])
    way = (previous - following) / diagonal
    turn = acos((far**2 + diagonal**2 - back**2) / (2 * far * diagonal))
    square = np.array([[cos(turn), sin(turn)], [-sin(turn), cos(turn)]])
    fourth = following + far * (square @ way)
    made = {corner: here, (corner + 1) % 4: following, (corner + 2) % 4: fourth, (corner - 1) % 4: previous}
    return _put_back([made[n] for n in range(4)], places)


def _put_back(made: list[np.ndarray[tuple[int], np.dtype[np.float64]]], places: list[Place]) -> list[Place]:
    """The corners turned and moved so that the first side lies where it lay."""
    was = atan2(places[1][1] - places[0][1], places[1][0] - places[0][0])
    turn = was - atan2(made[1][1] - made[0][1], made[1][0] - made[0][0])
    rotated = np.array([[cos(turn), -sin(turn)], [sin(turn), cos(turn)]])
    found = [np.array(places[0]) + rotated @ (one - made[0]) for one in made]
    return [(round(float(x), 6), round(float(y), 6)) for x, y in found]


SECTION_ANGLES = study(section_angles, BARE_SOLIDS).at_rest()
"""The corners of a wrapped section that have an angle."""
