"""Remedies: for each kind of finding, changes to the design that would put it right."""

from collections.abc import Iterator, Sequence
from itertools import accumulate, count, product
from math import ceil, pi, sqrt
from typing import Literal

from keel.design.features import Baffle, Feature, Partition
from keel.design.ports import Port
from keel.design.shell import BoxShell, CylinderShell, ProfileShell
from keel.findings import port_remedies
from keel.findings.finding import Finding, Patch, Remedy
from keel.reference.metals import METALS
from keel.solid.box import AXES
from keel.solid.build import AnyShell
from keel.solid.interior import filled
from keel.studies.liquid.attitude import Attitude
from keel.studies.liquid.draining import drained
from keel.studies.result import Words, words
from keel.studies.space.clearance import Gap
from keel.studies.space.resize import ALONG, Direction, directions, resized, size_along, size_for
from keel.studies.space.shift_into_bay import slid_into_bay
from keel.studies.strength.panels.panel import Panel
from keel.studies.strength.panels.rows import panels
from keel.studies.studied import Studied

DIRECTIONS: tuple[Direction, ...] = ("length", "width", "height")
GROWN: dict[Direction, str] = {"length": "longer", "width": "wider", "height": "taller", "diameter": "larger across"}
SHRUNK: dict[Direction, str] = {
    "length": "shorter",
    "width": "narrower",
    "height": "lower",
    "diameter": "smaller across",
}


def clear_the_gap(seen: Studied, finding: Finding) -> Iterator[Remedy]:
    """Move away, draw the shell in, or fit it to the bay."""
    gap = next(g for g in seen.gaps if g.key == finding.subject)
    axis = AXES.index(gap.axis)
    short = gap.needed_mm - _straight_gap(seen, gap)
    position = (f"{AXES[axis]}_mm", getattr(seen.shell, f"{AXES[axis]}_mm"))
    fouls = seen.fouling(gap)
    alone = fouls.ports[0] if len(fouls.ports) == 1 else None
    if alone is not None and fouls.is_hose:
        yield from _hose_elsewhere(seen, alone)
    if alone is not None and axis < 2:
        yield from _moved_aside(seen, alone, axis, gap.toward, short)
    if axis == 2 and fouls.ports and min(port.stands_mm for port in fouls.ports) > short:
        lower = [
            p.model_dump(mode="json") | ({"stands_mm": p.stands_mm - short} if p in fouls.ports else {})
            for p in seen.design.ports
        ]
        yield Remedy(label=words("{name} {less_mm} shorter", name=fouls.name, less_mm=short), patch={"ports": lower})
    yield Remedy(
        label=words("Move the tank {move_mm} away from there", move_mm=short),
        patch={"shell": {position[0]: position[1] - gap.toward * short}},
    )
    yield from _drawn_in(seen, axis, gap.toward, short)
    yield from fit(seen, finding)


def _hose_elsewhere(seen: Studied, port: Port) -> Iterator[Remedy]:
    """Let its hose leave to either side, or back."""
    for turn in (90, -90, 180):
        way = ((port.hose_deg or 0.0) + turn) % 360
        yield Remedy(
            label=words("Let the hose at {name} leave at {way_deg}", name=port.name, way_deg=way),
            patch=port_remedies.with_port(seen, port.id, hose_deg=way),
        )


def _moved_aside(seen: Studied, port: Port, axis: int, toward: int, short: float) -> Iterator[Remedy]:
    """Move a port alone, where it stays over the tank."""
    name = f"{AXES[axis]}_mm"
    at = getattr(port, name) - toward * short
    if not 0 < at < seen.solids.body.size[axis]:
        return
    ports = [p.model_dump(mode="json") | ({name: at} if p is port else {}) for p in seen.design.ports]
    yield Remedy(
        label=words("Move {name} {move_mm} away from there", name=port.name, move_mm=short), patch={"ports": ports}
    )


def _drawn_in(seen: Studied, axis: int, toward: int, short: float) -> Iterator[Remedy]:
    direction = next((d for d in directions(seen.shell) if ALONG.get(d) == axis), None)
    if direction is None and isinstance(seen.shell, CylinderShell):
        direction = "diameter"
    if direction is None:
        return
    size = size_along(seen.shell, direction)
    if size <= short:
        return
    drawn: Patch = resized(seen.shell, direction, size - short)
    if toward < 0:
        name = f"{AXES[axis]}_mm"
        drawn[name] = getattr(seen.shell, name) + short
    yield Remedy(
        label=words("Make it {less_mm} {how} on that side", less_mm=short, how=SHRUNK[direction]),
        patch={"shell": drawn},
    )


def _straight_gap(seen: Studied, gap: Gap) -> float:
    """The gap along its own axis; for a neighbour past a corner the nearest gap is askew."""
    axis = gap.axis
    return abs(getattr(gap.end, axis) - getattr(gap.start, axis)) if gap.gap_mm >= 0 else gap.gap_mm


def fit(seen: Studied, _finding: Finding) -> Iterator[Remedy]:
    """The largest shell of this kind that clears everything."""
    if seen.fit is not None:
        kind = "box" if isinstance(seen.shell, BoxShell) else "tank of this shape found"
        yield Remedy(
            label=words("Fit it to the bay: the largest {kind} that clears everything", kind=kind),
            patch={"shell": seen.fit},
        )


def reach_target(seen: Studied, _finding: Finding) -> Iterator[Remedy]:
    """Grow or shrink one dimension to the brief's target; which one is the user's choice."""
    target = seen.target.litres if seen.target else None
    if target is None:
        return
    for direction in directions(seen.shell):
        size = size_for(seen.shell, direction, target, lambda shell: _rated_l(seen, shell))
        if size is None:
            continue
        more = size - size_along(seen.shell, direction)
        how = (GROWN if more > 0 else SHRUNK)[direction]
        patch = resized(seen.shell, direction, size)
        for axis in [ALONG[direction]] if direction in ALONG else _cross_axes(seen):
            patch |= _slid(seen, axis, more)
        yield Remedy(
            label=words("{by_mm} {how}: {size_mm}", by_mm=abs(more), how=how, size_mm=size), patch={"shell": patch}
        )


def _rated_l(seen: Studied, shell: AnyShell) -> float:
    """Rated capacity of another shell in the same design [L]: what its vents trap depends on its size."""
    solids = filled(seen.design, shell)
    air = 0.0
    if seen.capacity.trapped_l > 0:
        air = sum(cell.trapped_l or 0.0 for cell in drained(solids, seen.design.ports, Attitude()))
    return solids.brimful_l * (1 - seen.capacity.ullage_fraction) - air


def _cross_axes(seen: Studied) -> list[int]:
    return [i for i in range(3) if i != seen.solids.section.axis]


def _slid(seen: Studied, axis: int, more: float) -> Patch:
    """The place of a shell that grew by so much at its high end, moved back into the free bay."""
    bounds, name = seen.envelope.bounds, f"{AXES[axis]}_mm"
    moved = slid_into_bay(seen.design, seen.workshop, axis, bounds.low[axis], bounds.size[axis] + more)
    return {name: getattr(seen.shell, name) + moved - bounds.low[axis]}


def thicker(seen: Studied, _finding: Finding) -> Iterator[Remedy]:
    """The next sheets in stock that would do; a swage across the panel; or baffles that split it."""
    metal, shell = METALS[seen.shell.metal], seen.shell
    need = max(metal.weldable_from_mm, *(panel.least_thickness_mm for panel in seen.panels))
    gauges = seen.workshop.gauges_of(shell.metal)
    enough = [gauge for gauge in gauges if gauge >= need and gauge > shell.thickness_mm]
    for gauge in enough[:1] or [ceil(need * 2) / 2]:
        patch = _of_gauge(seen, gauge)
        for name in ("ends_thickness_mm", "features_thickness_mm"):
            own = getattr(shell, name)
            if own is not None and own < gauge:
                patch[name] = gauge
        features = [_no_thinner(feature, gauge) for feature in shell.features]
        if features != list(shell.features):
            patch |= _with_features(features)["shell"]
        yield Remedy(label=words("{gauge_sheet} sheet", gauge_sheet=gauge), patch={"shell": patch})
    yield from swage(seen, _finding)
    yield from braced(seen, _finding)


def _no_thinner(feature: Feature, gauge: float) -> Feature:
    """A partition of at least that sheet; anything else as it is."""
    if isinstance(feature, Partition) and feature.thickness_mm is not None and feature.thickness_mm < gauge:
        return feature.model_copy(update={"thickness_mm": gauge})
    return feature


def _of_gauge(seen: Studied, gauge: float) -> Patch:
    patch: Patch = {"thickness_mm": gauge}
    if not isinstance(seen.shell, CylinderShell):
        least = METALS[seen.shell.metal].bend_radius_least * gauge
        patch["bend_radius_mm"] = max(seen.shell.bend_radius_mm, least)
    return patch


def swage(seen: Studied, finding: Finding) -> Iterator[Remedy]:
    """A swage or cross-break across every panel that is too weak."""
    if isinstance(seen.shell, CylinderShell):
        return
    least = seen.workshop.rules.proof_least_kpa if finding.code == "proof.weak" else 0.0
    plain = (panel for panel in seen.panels if not panel.swaged and panel.what != "partition")
    weak = [panel.name for panel in plain if _is_weak(panel, least)]
    if weak:
        yield Remedy(
            label=words("A swage across the middle of the {names}", names=", ".join(weak)),
            patch={"shell": {"swages": [*seen.shell.swages, *weak]}},
        )


def _is_weak(panel: Panel, least_proof_kpa: float) -> bool:
    return panel.least_thickness_mm > panel.thickness_mm or panel.proof_kpa < least_proof_kpa


def braced(seen: Studied, finding: Finding) -> Iterator[Remedy]:
    """The fewest evenly placed baffles that split the weak panels enough; the two best mixes of directions."""
    if isinstance(seen.shell, CylinderShell):
        return
    least = seen.workshop.rules.proof_least_kpa if finding.code == "proof.weak" else 0.0
    mixes = sorted(product(range(MOST_BAFFLES + 1), repeat=2), key=sum)[1:]
    enough: list[tuple[int, int]] = []
    for across, along in mixes:
        if len(enough) == 2 or any(a <= across and b <= along for a, b in enough):
            continue
        features = [*seen.shell.features, *_baffles(seen, across, along)]
        found = panels(seen.design.brief, seen.solids, seen.workshop.rules, features)
        if not any(_is_weak(panel, least) for panel in found):
            enough.append((across, along))
            yield Remedy(label=_array(across, along), patch=_with_features(features))


MOST_BAFFLES = 3
"""More than these in one row are no remedy."""


def _baffles(seen: Studied, across: int, along: int) -> list[Baffle]:
    taken = {feature.id for feature in seen.shell.features}
    numbers = (n for n in count(1) if f"baffle-{n}" not in taken)
    made = []
    ways: tuple[tuple[Literal["x", "y"], int], ...] = (("x", across), ("y", along))
    for axis, many in ways:
        size = seen.solids.body.size["xy".index(axis)]
        for place, number in zip(range(1, many + 1), numbers, strict=False):
            at = round(size * place / (many + 1))
            made.append(Baffle(id=f"baffle-{number}", name=f"baffle {number}", axis=axis, at_mm=at))
    return made


def _array(across: int, along: int) -> Words:
    ways = [f"{many} {how}" for many, how in ((across, "across the tank"), (along, "lengthwise")) if many]
    noun = "A baffle" if across + along == 1 else "Baffles"
    return words("{noun}, welded to the panels: {ways}", noun=noun, ways=" and ".join(ways))


def _with_features(features: Sequence[Feature]) -> Patch:
    return {"shell": {"features": [feature.model_dump(mode="json") for feature in features]}}


def thinner(seen: Studied, _finding: Finding) -> Iterator[Remedy]:
    """The thickest sheet in stock that the brake bends."""
    metal, shell = METALS[seen.shell.metal], seen.shell
    most = seen.workshop.brake.thickest_steel_mm * sqrt(METALS["mild steel"].yield_mpa / metal.yield_mpa)
    for gauge in [gauge for gauge in seen.workshop.gauges_of(shell.metal) if gauge <= most][-1:]:
        patch: Patch = {"thickness_mm": min(gauge, shell.thickness_mm)}
        for name in ("ends_thickness_mm", "features_thickness_mm"):
            if (getattr(shell, name) or 0.0) > gauge:
                patch[name] = gauge
        yield Remedy(label=words("{gauge_sheet} sheet", gauge_sheet=gauge), patch={"shell": patch})


def larger_radius(seen: Studied, _finding: Finding) -> Iterator[Remedy]:
    """The least radius the metal bears, and the one that is sure."""
    metal, thickness = METALS[seen.shell.metal], seen.shell.thickness_mm
    if isinstance(seen.shell, CylinderShell):
        return
    for radius in sorted({metal.bend_radius_least * thickness, metal.bend_radius_sure * thickness}):
        yield Remedy(
            label=words("Bend to {radius_sheet}", radius_sheet=radius), patch={"shell": {"bend_radius_mm": radius}}
        )


def closable(seen: Studied, finding: Finding) -> Iterator[Remedy]:
    """Make the wrapper as large as the brake needs, or wrap the other way."""
    which: Direction = "height"
    if finding.subject == "width":
        which = "width"
    elif finding.subject == "length":
        which = "length"
    inside = (seen.sheet.section_inside_mm or (0.0, 0.0))[1 if which == "height" else 0]
    more = seen.workshop.brake.smallest_closed_box_mm - inside
    yield _resized(seen, which, more, words("{by_mm} {how}", by_mm=more, how=GROWN[which]))
    yield from wrapped_the_other_way(seen, finding)


def shorter(seen: Studied, finding: Finding) -> Iterator[Remedy]:
    """Shorten the tank along its axis to the machine, or wrap the other way."""
    direction = DIRECTIONS[seen.solids.section.axis]
    rolls = finding.code == "rolls.width"
    less = seen.sheet.overall_mm - (seen.workshop.rolls if rolls else seen.workshop.brake).width_mm
    if less < size_along(seen.shell, direction):
        yield _resized(seen, direction, -less, words("{by_mm} {how}", by_mm=less, how=SHRUNK[direction]))
    yield from wrapped_the_other_way(seen, finding)


def on_the_sheet(seen: Studied, finding: Finding) -> Iterator[Remedy]:
    """Wrap the other way; or take the overlength off the wrapper's section."""
    yield from wrapped_the_other_way(seen, finding)
    if finding.subject != "wrapper":
        return
    yield from in_two_pieces(seen)
    part = seen.sheet.parts[0]
    sheets = seen.workshop.sheets_of(seen.shell.metal, seen.shell.thickness_mm)
    ways = [way for s in sheets for way in ((s.length_mm, s.width_mm), (s.width_mm, s.length_mm))]
    room = max((long for long, wide in ways if wide >= part.width_mm), default=None)
    if room is None:
        return
    less = (part.length_mm - room) / 2
    if isinstance(seen.shell, CylinderShell):
        less = (part.length_mm - room) / pi
        yield _resized(seen, "diameter", -less, words("{by_mm} {how}", by_mm=less, how=SHRUNK["diameter"]))
        return
    for direction in (DIRECTIONS[seen.solids.section.across], DIRECTIONS[2]):
        if less < size_along(seen.shell, direction) / 2:
            yield _resized(seen, direction, -less, words("{by_mm} {how}", by_mm=less, how=SHRUNK[direction]))


def in_two_pieces(seen: Studied) -> Iterator[Remedy]:
    """Weld two corners of a profile instead of bending them: the wrapper comes in two pieces."""
    shell, edges = seen.shell, seen.solids.section.edges
    if not isinstance(shell, ProfileShell):
        return
    along = [0.0, *accumulate(e.length for e in edges)]
    pairs = [(a, b) for a in range(len(edges)) for b in range(a + 1, len(edges))]
    a, b = min(pairs, key=lambda p: abs(along[p[1]] - along[p[0]] - along[-1] / 2))
    corners = [c.model_dump() | ({"joint": "weld"} if n in (a, b) else {}) for n, c in enumerate(shell.corners)]
    yield Remedy(
        label=words("Make the wrapper in two pieces, welded at corners {a} and {b}", a=a + 1, b=b + 1),
        patch={"shell": {"corners": corners}},
    )


def wrapped_the_other_way(seen: Studied, _finding: Finding) -> Iterator[Remedy]:
    """Turn a box's wrapper by a quarter: its ends become its sides."""
    if not isinstance(seen.shell, BoxShell):
        return
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
            label=words("{gauge_sheet} sheet, in stock", gauge_sheet=gauge), patch={"shell": _of_gauge(seen, gauge)}
        )


def through_the_opening(seen: Studied, _finding: Finding) -> Iterator[Remedy]:
    """Smaller in the direction that is too large."""
    answer = seen.goes_in
    if answer is None:
        return
    for direction in directions(seen.shell):
        less = -answer.room_mm
        if less < size_along(seen.shell, direction) / 2:
            yield _resized(seen, direction, -less, words("{by_mm} {how}", by_mm=less, how=SHRUNK[direction]))


def wider_roll(seen: Studied, _finding: Finding) -> Iterator[Remedy]:
    """A cylinder as tight as the rolls go."""
    if isinstance(seen.shell, CylinderShell):
        more = 2 * seen.workshop.rolls.least_radius_mm - seen.shell.diameter_mm
        yield _resized(seen, "diameter", more, words("{by_mm} {how}", by_mm=more, how=GROWN["diameter"]))


def _resized(seen: Studied, direction: Direction, more_mm: float, label: Words) -> Remedy:
    patch = resized(seen.shell, direction, size_along(seen.shell, direction) + more_mm)
    for axis in [ALONG[direction]] if direction in ALONG else _cross_axes(seen):
        patch |= _slid(seen, axis, more_mm)
    return Remedy(label=label, patch={"shell": patch})
