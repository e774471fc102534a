"""Where every run is held: clamps by spacing, and what each of them is fixed to."""

import itertools
from collections.abc import Sequence
from dataclasses import dataclass
from math import ceil

import numpy as np

from keel.analysis.parts import RULES
from keel.analysis.study import study
from keel.design.workshop import HouseRules
from keel.reference.clearances import ClearanceClass
from keel.solid.polyhedron import Array
from keel.studies.lines.crossings import CROSSINGS, Crossing
from keel.studies.lines.run_shapes import RUN_SHAPES, RunShape
from keel.studies.lines.surroundings import SURROUNDINGS, Surroundings, Thing
from keel.studies.result import Point

HOLDS: tuple[ClearanceClass, ...] = ("hard metal", "pad-mounted face", "cover or body skin")
WITHIN_MM = 1e-6


@dataclass(frozen=True, slots=True)
class Clamp:
    """A clamp on a run.

    Attributes
    ----------
    along_mm : float
        From the run's start.
    outside_mm : float
        Of what it holds.
    fixed_to : str
        The nearest thing within reach that it can be fixed to; empty: there is none.
    off_mm : float
        From the run to that.
    foot : Point or None
        Where.
    """

    run: str
    name: str
    at: Point
    along_mm: float
    outside_mm: float
    fixed_to: str
    off_mm: float
    foot: Point | None


def clamps(
    shapes: Sequence[RunShape], through: Sequence[Crossing], about: Surroundings, rules: HouseRules
) -> list[Clamp]:
    """Clamps of every run outside the tank.

    Parameters
    ----------
    shapes : sequence of RunShape
        Runs as they lie.
    through : sequence of Crossing
        A grommet or a fitting in a sheet holds as a clamp does.
    about : Surroundings
        What clamps are fixed to: metal that neither moves, nor is hot, nor comes off.
    rules : HouseRules
        How far apart, and how far from what they are fixed to.

    Returns
    -------
    list of Clamp
        As few as keep the spacing, evenly between ends and crossings.
    """
    closing = {sheet.key for sheet in about.sheets if sheet.closes}
    found = []
    for shape in shapes:
        if shape.inside:
            continue
        held = sorted(one.along_mm for one in through if one.id == shape.id and one.way is not None)
        for along in between([0.0, *held, shape.length_mm], rules.clamp_every_mm):
            at = spot_at(shape.line, along)
            thing, off, foot = _nearest(at, shape.outside_mm, about, closing, rules.clamp_reach_mm)
            found.append(
                Clamp(
                    run=shape.id,
                    name=shape.name,
                    at=Point.of(at),
                    along_mm=along,
                    outside_mm=shape.outside_mm,
                    fixed_to=thing.name if thing else "",
                    off_mm=off,
                    foot=None if foot is None else Point.of(foot),
                )
            )
    return found


def between(held: Sequence[float], every_mm: float) -> list[float]:
    """Where clamps go so that nothing longer than a spacing hangs free.

    Parameters
    ----------
    held : sequence of float
        Where it is held as it is, rising; its ends among them [mm].
    every_mm : float
        The spacing.

    Returns
    -------
    list of float
        As few as do, evenly in each stretch.
    """
    found = []
    for a, b in itertools.pairwise(held):
        pieces = max(1, ceil((b - a) / every_mm - WITHIN_MM))
        found += [a + (b - a) * n / pieces for n in range(1, pieces)]
    return found


def spot_at(line: Array, along_mm: float) -> Array:
    """The place so far along a line, shape (3,) [mm]."""
    gone = np.concatenate([[0.0], np.cumsum(np.linalg.norm(np.diff(line, axis=0), axis=1))])
    return np.array([np.interp(along_mm, gone, line[:, axis]) for axis in range(3)])


def _nearest(
    at: Array, outside_mm: float, about: Surroundings, closing: set[str], reach_mm: float
) -> tuple[Thing | None, float, Array | None]:
    """What a clamp is fixed to: the nearest that holds, its distance from the run, and where."""
    nears = [
        (thing, near)
        for thing, near in about.near(np.array([at, at]))
        if thing.kind in HOLDS and thing.key not in closing and not thing.keep_out.planned
    ]
    if not nears:
        return None, 0.0, None
    thing, near = min(nears, key=lambda pair: pair[1].distance)
    off = max(0.0, near.distance - outside_mm / 2)
    return (thing, off, near.on_other) if off <= reach_mm else (None, off, None)


CLAMPS = study(clamps, RUN_SHAPES, CROSSINGS, SURROUNDINGS, RULES)
