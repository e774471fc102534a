"""From a shell to exact solids: outside, inside and cells, by booleans on one description."""

from dataclasses import dataclass, field
from functools import lru_cache

import numpy as np
from manifold3d import Manifold

from keel.design.shell import BoxShell, CylinderShell
from keel.solid.box import Cuboid, cuboid_round
from keel.solid.cells import SLIVER_L, cells
from keel.solid.dished import dished
from keel.solid.faults import wrong
from keel.solid.making import Making
from keel.solid.section import BODIES_KEPT, Body, Section, end_rings, section_of
from keel.solid.shapes import bounds_of, drawn_out
from keel.solid.solids import AnyShell, Solids

BUILT_KEPT = 48
"""How many shells are remembered, so that whoever asks again about the same one gets it at once."""


@dataclass(frozen=True)
class _Asked:
    """A shell as the key of what is built of it: two that are written alike are the same."""

    written: str
    seam: str
    shell: AnyShell = field(compare=False)


@lru_cache(maxsize=BUILT_KEPT)
def _built(asked: _Asked) -> Solids:
    return _build(asked.shell, asked.seam)


def build(shell: AnyShell, seam: str = "lid") -> Solids:
    """Outside, inside and cells of a shell.

    Parameters
    ----------
    shell : BoxShell, ProfileShell or CylinderShell
        The body and its features.
    seam : str
        Where the wrapper closes: a seam at a corner leaves that corner of a box sharp.

    Returns
    -------
    Solids
        Every wall inward by its thickness; wells and reliefs outward from the recess into the tank;
        rounds as chords that enclose the same area (within 0.1 mm of the true round).

    Raises
    ------
    GeometryError
        For a profile that crosses itself, a wall that eats the gap, a feature that leaves the shell
        or another's way, or a space too thin to be made.
    """
    return _built(_Asked(shell.model_dump_json(), seam, shell))


def _build(shell: AnyShell, seam: str) -> Solids:
    section = section_of(shell, seam)
    outer, inner = _plain(Body.of(shell, seam))
    body, inner_body = _body(shell, section), bounds_of(inner)
    whole = float(inner.volume()) / 1e6
    making = Making(shell, section, body, inner_body, outer, inner)
    order = sorted(enumerate(shell.features), key=lambda item: _ORDER[item[1].kind])
    for place, feature in order:
        making.add(feature, f"shell.features.{place}")
    outer, inner = making.outer, making.inner
    if inner.volume() / 1e6 < SLIVER_L:
        raise wrong("shell.features", "the features leave no room for fuel", 0.0, "some room")
    places = {feature.id: place for place, feature in enumerate(shell.features)}
    return Solids(
        shell=shell,
        section=section,
        outer=outer,
        inner=inner,
        cells=cells(shell, inner),
        body=body,
        inner_body=inner_body,
        body_inner_l=whole,
        pots=making.pots,
        plates=making.plates,
        costs=sorted(making.costs, key=lambda cost: places[cost.id]),
    )


@lru_cache(maxsize=BODIES_KEPT)
def _plain(body: Body) -> tuple[Manifold, Manifold]:
    """Outside and inside of a body without features."""
    section = section_of(body.shell, body.seam)
    if isinstance(body.shell, CylinderShell) and body.shell.dish_mm:
        return dished(body.shell, section)
    outer = drawn_out(section.outer, section.axis, *section.span)
    inner = drawn_out(section.inner, section.axis, *section.inner_span)
    if section.ends != "bent up" or not isinstance(body.shell, BoxShell):
        return outer, inner
    across, sides = 1 - section.axis, end_rings(body.shell)
    spans = [(ring[:, 0].min(), ring[:, 0].max()) for ring in (section.outer, section.inner)]
    return outer ^ drawn_out(sides[0], across, *spans[0]), inner ^ drawn_out(sides[1], across, *spans[1])


_ORDER = {"sump": 0, "well": 1, "relief": 1, "roof step": 1, "pot": 2, "partition": 3, "baffle": 4}
"""What is let down comes first, then what is cut away, what is walled off, what stands inside."""


def _body(shell: AnyShell, section: Section) -> Cuboid:
    """The box round the body without features, from its true arcs."""
    low, high = section.extents
    dish = shell.dish_mm if isinstance(shell, CylinderShell) else 0.0
    first, second = [i for i in range(3) if i != section.axis]
    corners = np.zeros((2, 3))
    corners[:, first], corners[:, second] = (low[0], high[0]), (low[1], high[1])
    corners[:, section.axis] = section.span[0] - dish, section.span[1] + dish
    return cuboid_round(corners)
