"""Where a part's base panel lies in the tank: frames from (u, v, w) of its flat to vehicle axes."""

from dataclasses import replace
from math import cos, sin

import numpy as np

from keel.solid.box import END_NAMES
from keel.solid.polyhedron import Array, cross
from keel.solid.section import Section
from keel.studies.sheet.parts import Place, Spot


def placed(name: str, base: Spot, at: Spot, origin: Array, along: Array, inward: Array) -> Place:
    """A place from where one spot of the far face lies.

    Parameters
    ----------
    name : str
        Which piece it is.
    base : Spot
        A spot in the panel that is placed [mm].
    at : Spot
        A spot of the flat [mm].
    origin : ndarray, shape (3,)
        Where that spot's far face lies, in vehicle axes [mm].
    along, inward : ndarray, shape (3,)
        Where u and w point, unit vectors.

    Returns
    -------
    Place
        Right-handed: v points along w × u.
    """
    matrix = np.eye(4)
    matrix[:3, 0], matrix[:3, 1], matrix[:3, 2] = along, cross(inward, along), inward
    matrix[:3, 3] = origin - matrix[:3, 0] * at[0] - matrix[:3, 1] * at[1]
    return Place(name, base, [float(value) for value in matrix.ravel()])


def matrix_of(place: Place) -> Array:
    """Its matrix, shape (4, 4)."""
    return np.array(place.matrix).reshape(4, 4)


def in_section(section: Section, spot: Spot, along_axis: float) -> Array:
    """A place of a section's plane in vehicle axes, shape (3,) [mm].

    Parameters
    ----------
    section : Section
        Its plane has the two other axes in their order.
    spot : Spot
        In that plane [mm].
    along_axis : float
        Along the axis that it is drawn out along [mm].

    Returns
    -------
    ndarray, shape (3,)
        [mm]
    """
    place = np.empty(3)
    place[[i for i in range(3) if i != section.axis]] = spot
    place[section.axis] = along_axis
    return place


def wound(section: Section, u: float, past: float, spot: Spot, heading: float, span: tuple[float, float]) -> Place:
    """Where a wrapper lies that is wound round a section counter-clockwise, its inside to the left.

    Parameters
    ----------
    section : Section
        What it is wound round.
    u : float
        Where on the flat a leg begins, its faces made longer to where they meet the one before's [mm].
    past : float
        So far from there its own panel lies [mm].
    spot : Spot
        Where in the section's plane that is, on the outside [mm].
    heading : float
        Which way the leg runs from there [rad].
    span : (float, float)
        From where to where it reaches along the axis [mm].

    Returns
    -------
    Place
        Of that panel. Seen from inside, the flat's v runs along the axis or against it: that follows
        from the section's two axes, u and the inside being given.
    """
    along = in_section(section, (cos(heading), sin(heading)), 0.0)
    inward = in_section(section, (-sin(heading), cos(heading)), 0.0)
    rises = float(cross(inward, along)[section.axis]) > 0
    origin = in_section(section, spot, span[0] if rises else span[1])
    return placed(WRAPPER, (u + past, (span[1] - span[0]) / 2), (u, 0.0), origin, along, inward)


def end_places(section: Section, datum: Spot, thickness_mm: float) -> list[Place]:
    """Where the two end plates of a section lie that are cut alike: one of them is turned over.

    Parameters
    ----------
    section : Section
        That they close, its plane's two axes those of the flat.
    datum : Spot
        Where the flat's datum corner lies in that plane [mm].
    thickness_mm : float
        Of the plates [mm].

    Returns
    -------
    list of Place
        At the low and at the high end.
    """
    inward = np.cross(in_section(section, (1.0, 0.0), 0.0), in_section(section, (0.0, 1.0), 0.0))
    along, low_end = in_section(section, (1.0, 0.0), 0.0), float(inward[section.axis]) > 0
    names = END_NAMES[section.axis]
    low, high = section.span
    # The flat's reader looks at the inside of the end from which the axis of u × v leads inward.
    right = in_section(section, datum, low if low_end else high)
    over = in_section(section, datum, high - thickness_mm if low_end else low + thickness_mm)
    spot = (0.0, 0.0)
    first, second = names if low_end else names[::-1]
    return [
        placed(first, spot, spot, right, along, inward),
        replace(placed(second, spot, spot, over, along, inward), turned=True),
    ]


WRAPPER = "wrapper"
