"""A cylinder with bulged ends."""

from itertools import pairwise
from math import pi

import numpy as np
from manifold3d import CrossSection, Manifold

from keel.design.shell import CylinderShell
from keel.solid.section import Section
from keel.solid.shapes import frame_along

DOME_RINGS = 6


def dished(shell: CylinderShell, section: Section) -> tuple[Manifold, Manifold]:
    """Outside and inside of a cylinder with bulged ends: caps of a sphere, the inner ones a wall smaller."""
    radius, wall = shell.diameter_mm / 2, shell.end_wall_mm
    ball = (radius**2 + shell.dish_mm**2) / (2 * shell.dish_mm)
    depth = ball - shell.dish_mm
    frame = frame_along(section.axis, 1.0)
    first, second = [i for i in range(3) if i != section.axis]
    middle = section.outer.mean(axis=0)
    frame[first, 3], frame[second, 3], frame[section.axis, 3] = middle[0], middle[1], section.span[0]
    around = len(section.outer)
    outer = _turned(radius, shell.run_mm, _cap(ball, depth), around)
    inner = _turned(radius - shell.thickness_mm, shell.run_mm, _cap(ball - wall, depth), around)
    return outer.transform(frame), inner.transform(frame)


def _cap(ball: float, depth: float) -> list[tuple[float, float]]:
    """Radius and height over the rim of a sphere's cap, rim first: chords, heightened to the cap's volume."""
    rim, rise = float(np.sqrt(ball**2 - depth**2)), ball - depth
    angles = np.linspace(np.arcsin(min(1.0, rim / ball)), 0, DOME_RINGS + 1)
    arc = [(float(ball * np.sin(a)), float(ball * np.cos(a) - depth)) for a in angles]
    cones = sum(pi / 3 * (h - g) * (r * r + r * q + q * q) for (r, g), (q, h) in pairwise(arc))
    taller = pi * rise**2 * (3 * ball - rise) / 3 / cones
    return [(r, h * taller) for r, h in arc]


def _turned(radius: float, run: float, cap: list[tuple[float, float]], around: int) -> Manifold:
    """A cylinder from w = 0 to `run` with a cap on either end, as a polygon of its area turned about w."""
    rim = [] if cap[0][0] > radius - 1e-6 else [cap[0]]
    top = [(radius, 0.0), *rim, *cap[1:]]
    ring = [(r, -h) for r, h in reversed(top)] + [(r, run + h) for r, h in top]
    wider = float(np.sqrt(2 * pi / around / np.sin(2 * pi / around)))
    turned = Manifold.revolve(CrossSection([np.array(ring)]), around)
    return turned.rotate([0.0, 0.0, 180 / around]).scale([wider, wider, 1.0])
