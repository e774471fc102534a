"""What the compiled run works on, packed end to end: millimetres, seconds, mm³."""

from typing import NamedTuple

import numpy as np
import numpy.typing as npt

from keel.solid.polyhedron import Array, Index

Flags = npt.NDArray[np.bool_]


class Rooms(NamedTuple):
    """The compartments."""

    points: Array
    point_at: Index
    triangles: Index
    """Corners by their place in `points`."""
    area_vectors: Array
    """Half the cross product of each triangle's sides: its area along its normal, shape (m, 3)."""
    triangle_at: Index
    capacity: Array
    body: Index
    """Which body each is a piece of: the pieces of one swing together."""
    lengths: Array
    """Free run of each body in x and in y, shape (bodies, 2)."""
    plan: Array
    """Floor area of each body, for its mean depth."""


class Ways(NamedTuple):
    """The openings between them."""

    rings: Array
    ring_at: Index
    planes: Array
    """Two directions that each lies along, shape (n, 2, 3)."""
    middles: Array
    """Centroids, shape (n, 3)."""
    spans: Array
    """How far each one's farthest corner lies from its centroid."""
    areas: Array
    sides: Index
    doors: Index
    """0 open both ways, +1 from the first side only, −1 from the second."""
    cracks: Array
    faces: Index
    """Which of them are open faces between two pieces of one body."""


class Feeds(NamedTuple):
    """What is drawn, returned and moved."""

    pickups: Array
    pickup_in: Index
    return_in: int
    transfers: Array
    transfer_in: Index
    transfer_ratio: float
    surge: float
    """Surge tank's volume; zero without one."""
    lift: float


class State(NamedTuple):
    """Where everything is; changed in place."""

    volumes: Array
    ups: Array
    force: Array
    levels: Array
    surfaces: Array
    lagging: Array
    """Force in x and y that each body feels, lagging, shape (bodies, 2); and how fast it changes."""
    speeds: Array
    group: Index
    """Which pieces have one surface: those with the same number, that of the first of them."""
    surge: Array
    sums: Array
    """Used by the engine, asked for and not had, returned, moved by transfer, spilt by the surge tank."""
