"""Edits of the shell that remedies share."""

from collections.abc import Sequence

from keel.analysis.parts import ENVELOPE
from keel.analysis.tank import TankAnalysis
from keel.design.features import Feature, Partition
from keel.design.shell import CylinderShell
from keel.findings.finding import Patch, Remedy
from keel.reference.metals import METALS
from keel.solid.box import AXES
from keel.solid.solids import AnyShell
from keel.studies.result import words
from keel.studies.space.resize import ALONG, GROWN, SHRUNK, Direction, resized, size_along
from keel.studies.space.shift_into_bay import slid_into_bay


def cross_axes(tank: TankAnalysis) -> list[int]:
    """The axes square to the one that the shell is drawn out along.

    Parameters
    ----------
    tank : TankAnalysis
        The design under evaluation.

    Returns
    -------
    list of int
        Two of 0, 1 and 2.
    """
    return [i for i in range(3) if i != tank.solids.section.axis]


def slid(tank: TankAnalysis, axis: int, more: float) -> Patch:
    """The place of a shell that grew by so much at its high end, moved back into the free bay.

    Parameters
    ----------
    tank : TankAnalysis
        The design under evaluation.
    axis : int
        0, 1 or 2: x, y or z.
    more : float
        Growth [mm].

    Returns
    -------
    Patch
        A merge patch; empty where it needn't move.
    """
    bounds, name = tank[ENVELOPE].bounds, f"{AXES[axis]}_mm"
    moved = slid_into_bay(tank.design, tank.workshop, axis, bounds.low[axis], bounds.size[axis] + more)
    return {name: getattr(tank.shell, name) + moved - bounds.low[axis]}


def no_thinner(feature: Feature, gauge: float) -> Feature:
    """A partition of at least that sheet; anything else as it is.

    Parameters
    ----------
    feature : Feature
        Any feature.
    gauge : float
        Least thickness [mm].

    Returns
    -------
    Feature
        The feature, thicker where it was thinner.
    """
    if isinstance(feature, Partition) and feature.thickness_mm is not None and feature.thickness_mm < gauge:
        return feature.model_copy(update={"thickness_mm": gauge})
    return feature


def of_gauge(tank: TankAnalysis, gauge: float) -> Patch:
    """The shell's fields in another thickness of sheet, with a radius that it can be bent to [mm].

    Parameters
    ----------
    tank : TankAnalysis
        The design under evaluation.
    gauge : float
        Thickness wanted [mm].

    Returns
    -------
    Patch
        A merge patch.
    """
    patch: Patch = {"thickness_mm": gauge}
    if not isinstance(tank.shell, CylinderShell):
        least = METALS[tank.shell.metal].bend_radius_least * gauge
        patch["bend_radius_mm"] = max(tank.shell.bend_radius_mm, least)
    return patch


def with_features(features: Sequence[Feature]) -> Patch:
    """All features, as a patch.

    Parameters
    ----------
    features : sequence of Feature
        As they are to be.

    Returns
    -------
    Patch
        A merge patch.
    """
    return {"shell": {"features": [feature.model_dump(mode="json") for feature in features]}}


def with_feature(shell: AnyShell, feature: Feature, **changed: object) -> Patch:
    """One feature otherwise, as a patch.

    Parameters
    ----------
    shell : AnyShell
        Whose it is.
    feature : Feature
        One of its own.
    changed
        Fields and what they are to be.

    Returns
    -------
    Patch
        A merge patch.
    """
    return with_features([one.model_copy(update=changed) if one is feature else one for one in shell.features])


def resized_tank(tank: TankAnalysis, direction: Direction, more_mm: float) -> Remedy:
    """The tank made larger in a direction, and moved back into the free bay [mm].

    Parameters
    ----------
    tank : TankAnalysis
        The design under evaluation.
    direction : Direction
        Length, width, height or diameter.
    more_mm : float
        Growth [mm].

    Returns
    -------
    Remedy
        A remedy with its patch.
    """
    before = size_along(tank.shell, direction)
    size = tank.marked(before + more_mm) if more_mm > 0 else -tank.marked(-(before + more_mm))
    more_mm = size - before
    patch = resized(tank.shell, direction, size)
    for axis in [ALONG[direction]] if direction in ALONG else cross_axes(tank):
        patch |= slid(tank, axis, more_mm)
    how = (GROWN if more_mm > 0 else SHRUNK)[direction]
    return Remedy(label=words("{by_mm} {how}", by_mm=abs(more_mm), how=how), patch={"shell": patch})
