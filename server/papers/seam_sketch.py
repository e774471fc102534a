"""A tank's seams on paper, seen from the rear right and above, with its leaks numbered on them."""

from collections.abc import Sequence

import numpy as np
from reportlab.lib.units import mm

from keel.log.proofs import LeakState
from keel.solid.polyhedron import Array
from keel.studies.proof.walk import WalkSeam
from server.papers.drawing import Frame
from server.papers.page import INK, QUIET, STOP, Page

SIDEWAYS, UPWARD = 0.87, 0.4
"""Forward runs up to the right, left up to the left."""
DOT = 1.9 * mm


def seam_sketch(
    page: Page, frame: Frame, seams: Sequence[WalkSeam], leaks: Sequence[LeakState], corner: Sequence[float]
) -> None:
    """All seams in a frame of the page, each leak as a numbered dot: hollow once it is mended.

    `corner` is the body's corner that leaks' places count from [mm].
    """
    lines = [_flat([[p.x, p.y, p.z] for p in line]) for seam in seams for line in seam.lines]
    every = np.vstack(lines)
    low, high = every.min(axis=0), every.max(axis=0)
    room = np.array([frame.width, frame.height]) - 4 * DOT
    scale = float((room / np.maximum(high - low, 1.0)).min())
    start = np.array([frame.x, frame.y]) + 2 * DOT + (room - scale * (high - low)) / 2

    def on_page(spots: Array) -> Array:
        return np.asarray(start + scale * (spots - low))

    page.canvas.setStrokeColor(QUIET)
    page.canvas.setLineWidth(0.7)
    for line in lines:
        spots = on_page(line)
        path = page.canvas.beginPath()
        for n, (x, y) in enumerate(spots):
            (path.lineTo if n else path.moveTo)(float(x), float(y))
        page.canvas.drawPath(path)
    for number, leak in enumerate(leaks, start=1):
        found = leak.found
        place = np.array([found.x_mm, found.y_mm, found.z_mm]) + np.array(corner)
        x, y = (float(value) for value in on_page(_flat([place.tolist()]))[0])
        page.canvas.setStrokeColor(STOP)
        page.canvas.setFillColor(STOP if leak.repaired is None else page.paper)
        page.canvas.setLineWidth(1.0)
        page.canvas.circle(x, y, DOT, fill=1)
        colour = page.paper if leak.repaired is None else INK
        page.label(str(number), x, y - 0.8 * mm, 7, bold=True, colour=colour, align="middle")


def _flat(spots: Sequence[Sequence[float]]) -> Array:
    """Places [mm] as they lie on paper, shape (n, 2)."""
    x, y, z = np.array(spots, float).T
    return np.column_stack([SIDEWAYS * (x - y), z + UPWARD * (x + y)])
