"""Remedies: for each kind of finding, changes to the design that would put it right."""

from collections.abc import Callable, Iterator
from math import ceil

from keel.findings.finding import Finding, Patch, Remedy
from keel.reference.metals import METALS
from keel.solid.box import AXES
from keel.studies.capacity import DIMENSIONS, Dimension, size_for_brimful
from keel.studies.clearance import Gap
from keel.studies.fit import slid_into_bay
from keel.studies.result import Words, words
from keel.studies.studied import Studied

Prescriber = Callable[[Studied, Finding], Iterator[Remedy]]

GROWN: dict[Dimension, str] = {"length_mm": "longer", "width_mm": "wider", "height_mm": "taller"}
SHRUNK: dict[Dimension, str] = {"length_mm": "shorter", "width_mm": "narrower", "height_mm": "lower"}


def clear_the_gap(seen: Studied, finding: Finding) -> Iterator[Remedy]:
    """Move away, draw the face in, or fit the whole box to the bay."""
    gap = next(g for g in seen.gaps if finding.key.endswith(f":{g.key}"))
    axis = AXES.index(gap.axis)
    short = gap.needed_mm - _straight_gap(seen, gap)
    position = (f"{AXES[axis]}_mm", getattr(seen.shell, f"{AXES[axis]}_mm"))
    yield Remedy(
        label=words("Move it {move_mm} away from there", move_mm=short),
        patch={"shell": {position[0]: position[1] - gap.toward * short}},
    )
    size = getattr(seen.shell, DIMENSIONS[axis])
    if size > short:
        drawn: Patch = {DIMENSIONS[axis]: size - short}
        if gap.toward < 0:
            drawn[position[0]] = position[1] + short
        yield Remedy(
            label=words("Make it {less_mm} {how} on that side", less_mm=short, how=SHRUNK[DIMENSIONS[axis]]),
            patch={"shell": drawn},
        )
    yield from fit(seen, finding)


def _straight_gap(seen: Studied, gap: Gap) -> float:
    """The gap along its own axis; for a neighbour past a corner the nearest gap is askew."""
    axis = gap.axis
    return abs(getattr(gap.end, axis) - getattr(gap.start, axis)) if gap.gap_mm >= 0 else gap.gap_mm


def fit(seen: Studied, _finding: Finding) -> Iterator[Remedy]:
    """The largest box that clears everything."""
    if seen.fit is not None:
        yield Remedy(
            label=words("Fit it to the bay: the largest box that clears everything"), patch={"shell": seen.fit}
        )


def reach_target(seen: Studied, _finding: Finding) -> Iterator[Remedy]:
    """Grow or shrink one dimension to the brief's target; which one is the user's choice."""
    target = seen.design.brief.target_l
    if target is None:
        return
    brimful = target / (1 - seen.capacity.ullage_fraction)
    for axis, dimension in enumerate(DIMENSIONS):
        size = size_for_brimful(seen.shell, seen.solid, brimful, dimension)
        more = size - getattr(seen.shell, dimension)
        how = (GROWN if more > 0 else SHRUNK)[dimension]
        start = getattr(seen.shell, f"{AXES[axis]}_mm")
        lip = seen.solid.lip if axis == seen.solid.wrap else 0.0
        overall = seen.solid.overall.size[axis] + more
        moved = slid_into_bay(seen.design, seen.workshop, axis, start - lip, overall) + lip
        yield Remedy(
            label=words("{by_mm} {how}: {size_mm}", by_mm=abs(more), how=how, size_mm=size),
            patch={"shell": {dimension: size, f"{AXES[axis]}_mm": moved}},
        )


def thicker(seen: Studied, _finding: Finding) -> Iterator[Remedy]:
    """The next sheets in stock that would do."""
    metal = METALS[seen.shell.metal]
    need = max(metal.weldable_from_mm, *(panel.least_thickness_mm for panel in seen.panels))
    gauges = seen.workshop.gauges_of(seen.shell.metal)
    enough = [gauge for gauge in gauges if gauge >= need and gauge > seen.shell.thickness_mm]
    for gauge in enough[:1] or [ceil(need * 2) / 2]:
        yield Remedy(
            label=words("{gauge_sheet} sheet", gauge_sheet=gauge),
            patch={"shell": {"thickness_mm": gauge, "bend_radius_mm": _radius_for(seen, gauge)}},
        )


def _radius_for(seen: Studied, thickness_mm: float) -> float:
    return max(seen.shell.bend_radius_mm, METALS[seen.shell.metal].bend_radius_least * thickness_mm)


def larger_radius(seen: Studied, _finding: Finding) -> Iterator[Remedy]:
    """The least radius the metal bears, and the one that is sure."""
    metal, thickness = METALS[seen.shell.metal], seen.shell.thickness_mm
    for radius in sorted({metal.bend_radius_least * thickness, metal.bend_radius_sure * thickness}):
        yield Remedy(
            label=words("Bend to {radius_sheet}", radius_sheet=radius), patch={"shell": {"bend_radius_mm": radius}}
        )


def closable(seen: Studied, finding: Finding) -> Iterator[Remedy]:
    """Make the wrapper as large as the brake needs, or wrap the other way."""
    which: Dimension = "height_mm"
    if finding.key.endswith(":width"):
        which = "width_mm"
    elif finding.key.endswith(":length"):
        which = "length_mm"
    axis = DIMENSIONS.index(which)
    more = seen.workshop.brake.smallest_closed_box_mm - seen.solid.inner.size[axis]
    yield _resized(seen, which, more, words("{by_mm} {how}", by_mm=more, how=GROWN[which]))
    yield from wrapped_the_other_way(seen, finding)


def shorter(seen: Studied, finding: Finding) -> Iterator[Remedy]:
    """Shorten the wrapper to the brake, or wrap the other way."""
    dimension = DIMENSIONS[seen.solid.wrap]
    less = seen.sheet.overall_mm - seen.workshop.brake.width_mm
    if less < getattr(seen.shell, dimension):
        yield _resized(seen, dimension, -less, words("{by_mm} {how}", by_mm=less, how=SHRUNK[dimension]))
    yield from wrapped_the_other_way(seen, finding)


def on_the_sheet(seen: Studied, finding: Finding) -> Iterator[Remedy]:
    """Wrap the other way; or take the overlength off the wrapper's section."""
    yield from wrapped_the_other_way(seen, finding)
    if not finding.key.endswith(":wrapper"):
        return
    part = seen.sheet.parts[0]
    sheets = seen.workshop.sheets_of(seen.shell.metal, seen.shell.thickness_mm)
    ways = [way for s in sheets for way in ((s.length_mm, s.width_mm), (s.width_mm, s.length_mm))]
    room = max((long for long, wide in ways if wide >= part.width_mm), default=None)
    if room is None:
        return
    less = (part.length_mm - room) / 2
    for dimension in (DIMENSIONS[seen.solid.across], DIMENSIONS[2]):
        if less < getattr(seen.shell, dimension) / 2:
            yield _resized(seen, dimension, -less, words("{by_mm} {how}", by_mm=less, how=SHRUNK[dimension]))


def wrapped_the_other_way(seen: Studied, _finding: Finding) -> Iterator[Remedy]:
    """Turn the wrapper by a quarter: its ends become its sides."""
    other = "y" if seen.shell.wrap_axis == "x" else "x"
    yield Remedy(
        label=words("Wrap it the other way, {how}", how="across" if other == "y" else "lengthwise"),
        patch={"shell": {"wrap_axis": other}},
    )


def longer_flange(seen: Studied, _finding: Finding) -> Iterator[Remedy]:
    """The least flange that welds and bends."""
    least = max(seen.workshop.rules.flange_least_mm, seen.workshop.brake.shortest_flange_mm)
    yield Remedy(label=words("Flanges of {flange_mm}", flange_mm=least), patch={"sheet": {"flange_mm": least}})


def stocked_gauge(seen: Studied, _finding: Finding) -> Iterator[Remedy]:
    """The next thicker sheet of the metal that is in stock."""
    gauges = seen.workshop.gauges_of(seen.shell.metal)
    for gauge in [g for g in gauges if g > seen.shell.thickness_mm][:1]:
        yield Remedy(
            label=words("{gauge_sheet} sheet, in stock", gauge_sheet=gauge),
            patch={"shell": {"thickness_mm": gauge, "bend_radius_mm": _radius_for(seen, gauge)}},
        )


def _resized(seen: Studied, dimension: Dimension, more_mm: float, label: Words) -> Remedy:
    axis = DIMENSIONS.index(dimension)
    name = f"{AXES[axis]}_mm"
    low, size = seen.solid.overall.low[axis], seen.solid.overall.size[axis]
    moved = slid_into_bay(seen.design, seen.workshop, axis, low, size + more_mm) - low
    return Remedy(
        label=label,
        patch={
            "shell": {
                dimension: getattr(seen.shell, dimension) + more_mm,
                name: getattr(seen.shell, name) + moved,
            }
        },
    )


PRESCRIBERS: dict[str, Prescriber] = {
    "bay.clearance": clear_the_gap,
    "capacity.below": reach_target,
    "capacity.beyond": reach_target,
    "wall.thin": thicker,
    "wall.weldable": thicker,
    "bend.radius": larger_radius,
    "brake.closed_box": closable,
    "brake.width": shorter,
    "pan.flange": longer_flange,
    "stock.size": on_the_sheet,
    "stock.none": stocked_gauge,
}
