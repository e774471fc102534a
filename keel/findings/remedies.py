"""Remedies: for each kind of finding, changes to the design that would put it right."""

from collections.abc import Iterator, Sequence
from itertools import accumulate, count, product
from math import ceil, pi, sqrt
from typing import Literal

from keel.analysis.parts import ENVELOPE
from keel.analysis.tank import TankAnalysis
from keel.design.attitude import Attitude
from keel.design.features import Baffle, Feature, Partition
from keel.design.ports import Port
from keel.design.shell import BoxShell, CylinderShell, ProfileShell
from keel.findings import port_remedies
from keel.findings.finding import Finding, Patch, Remedy
from keel.reference.metals import METALS
from keel.solid.box import AXES
from keel.solid.build import AnyShell
from keel.solid.interior import filled
from keel.studies.demand.demand import TARGET_L
from keel.studies.liquid.capacity import CAPACITY
from keel.studies.liquid.draining import drained
from keel.studies.result import Words, words
from keel.studies.sheet.unfold import SHEET
from keel.studies.space.clearance import GAPS, Gap
from keel.studies.space.fit import FIT, first_shell
from keel.studies.space.fouling import FOULING
from keel.studies.space.opening import GOES_IN
from keel.studies.space.resize import ALONG, Direction, directions, resized, size_along, size_for
from keel.studies.space.shift_into_bay import slid_into_bay
from keel.studies.strength.panels.panel import Panel
from keel.studies.strength.panels.rows import PANELS, panels

DIRECTIONS: tuple[Direction, ...] = ("length", "width", "height")
GROWN: dict[Direction, str] = {"length": "longer", "width": "wider", "height": "taller", "diameter": "larger across"}
SHRUNK: dict[Direction, str] = {
    "length": "shorter",
    "width": "narrower",
    "height": "lower",
    "diameter": "smaller across",
}


def clear_the_gap(tank: TankAnalysis, finding: Finding) -> Iterator[Remedy]:
    """Move away, draw the shell in, or fit it to the bay."""
    gap = next(g for g in tank[GAPS] if g.key == finding.subject)
    axis = AXES.index(gap.axis)
    short = gap.needed_mm - _straight_gap(tank, gap)
    position = (f"{AXES[axis]}_mm", getattr(tank.shell, f"{AXES[axis]}_mm"))
    fouls = tank[FOULING][gap.kind, gap.key]
    alone = fouls.ports[0] if len(fouls.ports) == 1 else None
    if alone is not None and fouls.is_hose:
        yield from _hose_elsewhere(tank, alone)
    if alone is not None and axis < 2:
        yield from _moved_aside(tank, alone, axis, gap.toward, short)
    if axis == 2 and fouls.ports and min(port.stands_mm for port in fouls.ports) > short:
        lower = [
            p.model_dump(mode="json") | ({"stands_mm": p.stands_mm - short} if p in fouls.ports else {})
            for p in tank.design.ports
        ]
        yield Remedy(label=words("{name} {less_mm} shorter", name=fouls.name, less_mm=short), patch={"ports": lower})
    yield Remedy(
        label=words("Move the tank {move_mm} away from there", move_mm=short),
        patch={"shell": {position[0]: position[1] - gap.toward * short}},
    )
    yield from _drawn_in(tank, axis, gap.toward, short)
    yield from fit(tank, finding)


def _hose_elsewhere(tank: TankAnalysis, port: Port) -> Iterator[Remedy]:
    """Let its hose leave to either side, or back."""
    for turn in (90, -90, 180):
        way = ((port.hose_deg or 0.0) + turn) % 360
        yield Remedy(
            label=words("Let the hose at {name} leave at {way_deg}", name=port.name, way_deg=way),
            patch=port_remedies.with_port(tank, port.id, hose_deg=way),
        )


def _moved_aside(tank: TankAnalysis, port: Port, axis: int, toward: int, short: float) -> Iterator[Remedy]:
    """Move a port alone, where it stays over the tank."""
    name = f"{AXES[axis]}_mm"
    at = getattr(port, name) - toward * short
    if not 0 < at < tank.solids.body.size[axis]:
        return
    ports = [p.model_dump(mode="json") | ({name: at} if p is port else {}) for p in tank.design.ports]
    yield Remedy(
        label=words("Move {name} {move_mm} away from there", name=port.name, move_mm=short), patch={"ports": ports}
    )


def _drawn_in(tank: TankAnalysis, axis: int, toward: int, short: float) -> Iterator[Remedy]:
    direction = next((d for d in directions(tank.shell) if ALONG.get(d) == axis), None)
    if direction is None and isinstance(tank.shell, CylinderShell):
        direction = "diameter"
    if direction is None:
        return
    size = size_along(tank.shell, direction)
    if size <= short:
        return
    drawn: Patch = resized(tank.shell, direction, size - short)
    if toward < 0:
        name = f"{AXES[axis]}_mm"
        drawn[name] = getattr(tank.shell, name) + short
    yield Remedy(
        label=words("Make it {less_mm} {how} on that side", less_mm=short, how=SHRUNK[direction]),
        patch={"shell": drawn},
    )


def _straight_gap(tank: TankAnalysis, gap: Gap) -> float:
    """The gap along its own axis; for a neighbour past a corner the nearest gap is askew."""
    axis = gap.axis
    return abs(getattr(gap.end, axis) - getattr(gap.start, axis)) if gap.gap_mm >= 0 else gap.gap_mm


def fit(tank: TankAnalysis, _finding: Finding) -> Iterator[Remedy]:
    """The largest shell of this kind that clears everything."""
    if tank.get(FIT) is not None:
        kind = "box" if isinstance(tank.shell, BoxShell) else "tank of this shape found"
        yield Remedy(
            label=words("Fit it to the bay: the largest {kind} that clears everything", kind=kind),
            patch={"shell": tank.get(FIT)},
        )


def fit_to_bay_offer(tank: TankAnalysis) -> Remedy | None:
    """The largest tank of this kind that clears the bay; a first one where there is no shell yet."""
    placed = tank.get(FIT)
    if placed is None:
        return None
    return Remedy(label=words("Fit to bay"), patch={"shell": placed if tank.design.shell else first_shell(placed)})


def reach_target(tank: TankAnalysis, _finding: Finding) -> Iterator[Remedy]:
    """Grow or shrink one dimension to the brief's target; which one is the user's choice."""
    target = tank[TARGET_L]
    if target is None:
        return
    for direction in directions(tank.shell):
        size = size_for(tank.shell, direction, target, lambda shell: _rated_l(tank, shell))
        if size is None:
            continue
        more = size - size_along(tank.shell, direction)
        how = (GROWN if more > 0 else SHRUNK)[direction]
        patch = resized(tank.shell, direction, size)
        for axis in [ALONG[direction]] if direction in ALONG else _cross_axes(tank):
            patch |= _slid(tank, axis, more)
        yield Remedy(
            label=words("{by_mm} {how}: {size_mm}", by_mm=abs(more), how=how, size_mm=size), patch={"shell": patch}
        )


def _rated_l(tank: TankAnalysis, shell: AnyShell) -> float:
    """Rated capacity of another shell in the same design [L]: what its vents trap depends on its size."""
    solids = filled(tank.design, shell)
    air = 0.0
    if tank[CAPACITY].trapped_l > 0:
        air = sum(cell.trapped_l or 0.0 for cell in drained(solids, tank.design.ports, Attitude()))
    return solids.brimful_l * (1 - tank[CAPACITY].ullage_fraction) - air


def _cross_axes(tank: TankAnalysis) -> list[int]:
    return [i for i in range(3) if i != tank.solids.section.axis]


def _slid(tank: TankAnalysis, axis: int, more: float) -> Patch:
    """The place of a shell that grew by so much at its high end, moved back into the free bay."""
    bounds, name = tank[ENVELOPE].bounds, f"{AXES[axis]}_mm"
    moved = slid_into_bay(tank.design, tank.workshop, axis, bounds.low[axis], bounds.size[axis] + more)
    return {name: getattr(tank.shell, name) + moved - bounds.low[axis]}


def thicker(tank: TankAnalysis, _finding: Finding) -> Iterator[Remedy]:
    """The next sheets in stock that would do; a swage across the panel; or baffles that split it."""
    metal, shell = METALS[tank.shell.metal], tank.shell
    need = max(metal.weldable_from_mm, *(panel.least_thickness_mm for panel in tank[PANELS]))
    gauges = tank.workshop.gauges_of(shell.metal)
    enough = [gauge for gauge in gauges if gauge >= need and gauge > shell.thickness_mm]
    for gauge in enough[:1] or [ceil(need * 2) / 2]:
        patch = _of_gauge(tank, gauge)
        for name in ("ends_thickness_mm", "features_thickness_mm"):
            own = getattr(shell, name)
            if own is not None and own < gauge:
                patch[name] = gauge
        features = [_no_thinner(feature, gauge) for feature in shell.features]
        if features != list(shell.features):
            patch |= _with_features(features)["shell"]
        yield Remedy(label=words("{gauge_sheet} sheet", gauge_sheet=gauge), patch={"shell": patch})
    yield from swage(tank, _finding)
    yield from braced(tank, _finding)


def _no_thinner(feature: Feature, gauge: float) -> Feature:
    """A partition of at least that sheet; anything else as it is."""
    if isinstance(feature, Partition) and feature.thickness_mm is not None and feature.thickness_mm < gauge:
        return feature.model_copy(update={"thickness_mm": gauge})
    return feature


def _of_gauge(tank: TankAnalysis, gauge: float) -> Patch:
    patch: Patch = {"thickness_mm": gauge}
    if not isinstance(tank.shell, CylinderShell):
        least = METALS[tank.shell.metal].bend_radius_least * gauge
        patch["bend_radius_mm"] = max(tank.shell.bend_radius_mm, least)
    return patch


def swage(tank: TankAnalysis, finding: Finding) -> Iterator[Remedy]:
    """A swage or cross-break across every panel that is too weak."""
    if isinstance(tank.shell, CylinderShell):
        return
    least = tank.workshop.rules.proof_least_kpa if finding.code == "proof.weak" else 0.0
    plain = (panel for panel in tank[PANELS] if not panel.swaged and panel.what != "partition")
    weak = [panel.name for panel in plain if _is_weak(panel, least)]
    if weak:
        yield Remedy(
            label=words("A swage across the middle of the {names}", names=", ".join(weak)),
            patch={"shell": {"swages": [*tank.shell.swages, *weak]}},
        )


def _is_weak(panel: Panel, least_proof_kpa: float) -> bool:
    return panel.least_thickness_mm > panel.thickness_mm or panel.proof_kpa < least_proof_kpa


def braced(tank: TankAnalysis, finding: Finding) -> Iterator[Remedy]:
    """The fewest evenly placed baffles that split the weak panels enough; the two best mixes of directions."""
    if isinstance(tank.shell, CylinderShell):
        return
    least = tank.workshop.rules.proof_least_kpa if finding.code == "proof.weak" else 0.0
    mixes = sorted(product(range(MOST_BAFFLES + 1), repeat=2), key=sum)[1:]
    enough: list[tuple[int, int]] = []
    for across, along in mixes:
        if len(enough) == 2 or any(a <= across and b <= along for a, b in enough):
            continue
        features = [*tank.shell.features, *_baffles(tank, across, along)]
        found = panels(tank.design.brief.fuel, tank.solids, tank.workshop.rules, features)
        if not any(_is_weak(panel, least) for panel in found):
            enough.append((across, along))
            yield Remedy(label=_array(across, along), patch=_with_features(features))


MOST_BAFFLES = 3
"""More than these in one row are no remedy."""


def _baffles(tank: TankAnalysis, across: int, along: int) -> list[Baffle]:
    taken = {feature.id for feature in tank.shell.features}
    numbers = (n for n in count(1) if f"baffle-{n}" not in taken)
    made = []
    ways: tuple[tuple[Literal["x", "y"], int], ...] = (("x", across), ("y", along))
    for axis, many in ways:
        size = tank.solids.body.size["xy".index(axis)]
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


def thinner(tank: TankAnalysis, _finding: Finding) -> Iterator[Remedy]:
    """The thickest sheet in stock that the brake bends."""
    metal, shell = METALS[tank.shell.metal], tank.shell
    most = tank.workshop.brake.thickest_steel_mm * sqrt(METALS["mild steel"].yield_mpa / metal.yield_mpa)
    for gauge in [gauge for gauge in tank.workshop.gauges_of(shell.metal) if gauge <= most][-1:]:
        patch: Patch = {"thickness_mm": min(gauge, shell.thickness_mm)}
        for name in ("ends_thickness_mm", "features_thickness_mm"):
            if (getattr(shell, name) or 0.0) > gauge:
                patch[name] = gauge
        yield Remedy(label=words("{gauge_sheet} sheet", gauge_sheet=gauge), patch={"shell": patch})


def larger_radius(tank: TankAnalysis, _finding: Finding) -> Iterator[Remedy]:
    """The least radius the metal bears, and the one that is sure."""
    metal, thickness = METALS[tank.shell.metal], tank.shell.thickness_mm
    if isinstance(tank.shell, CylinderShell):
        return
    for radius in sorted({metal.bend_radius_least * thickness, metal.bend_radius_sure * thickness}):
        yield Remedy(
            label=words("Bend to {radius_sheet}", radius_sheet=radius), patch={"shell": {"bend_radius_mm": radius}}
        )


def closable(tank: TankAnalysis, finding: Finding) -> Iterator[Remedy]:
    """Make the wrapper as large as the brake needs, or wrap the other way."""
    which: Direction = "height"
    if finding.subject == "width":
        which = "width"
    elif finding.subject == "length":
        which = "length"
    inside = (tank[SHEET].section_inside_mm or (0.0, 0.0))[1 if which == "height" else 0]
    more = tank.workshop.brake.smallest_closed_box_mm - inside
    yield _resized(tank, which, more, words("{by_mm} {how}", by_mm=more, how=GROWN[which]))
    yield from wrapped_the_other_way(tank, finding)


def shorter(tank: TankAnalysis, finding: Finding) -> Iterator[Remedy]:
    """Shorten the tank along its axis to the machine, or wrap the other way."""
    direction = DIRECTIONS[tank.solids.section.axis]
    rolls = finding.code == "rolls.width"
    less = tank[SHEET].overall_mm - (tank.workshop.rolls if rolls else tank.workshop.brake).width_mm
    if less < size_along(tank.shell, direction):
        yield _resized(tank, direction, -less, words("{by_mm} {how}", by_mm=less, how=SHRUNK[direction]))
    yield from wrapped_the_other_way(tank, finding)


def on_the_sheet(tank: TankAnalysis, finding: Finding) -> Iterator[Remedy]:
    """Wrap the other way; or take the overlength off the wrapper's section."""
    yield from wrapped_the_other_way(tank, finding)
    if finding.subject != "wrapper":
        return
    yield from in_two_pieces(tank)
    part = tank[SHEET].parts[0]
    sheets = tank.workshop.sheets_of(tank.shell.metal, tank.shell.thickness_mm)
    ways = [way for s in sheets for way in ((s.length_mm, s.width_mm), (s.width_mm, s.length_mm))]
    room = max((long for long, wide in ways if wide >= part.width_mm), default=None)
    if room is None:
        return
    less = (part.length_mm - room) / 2
    if isinstance(tank.shell, CylinderShell):
        less = (part.length_mm - room) / pi
        yield _resized(tank, "diameter", -less, words("{by_mm} {how}", by_mm=less, how=SHRUNK["diameter"]))
        return
    for direction in (DIRECTIONS[tank.solids.section.across], DIRECTIONS[2]):
        if less < size_along(tank.shell, direction) / 2:
            yield _resized(tank, direction, -less, words("{by_mm} {how}", by_mm=less, how=SHRUNK[direction]))


def in_two_pieces(tank: TankAnalysis) -> Iterator[Remedy]:
    """Weld two corners of a profile instead of bending them: the wrapper comes in two pieces."""
    shell, edges = tank.shell, tank.solids.section.edges
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


def wrapped_the_other_way(tank: TankAnalysis, _finding: Finding) -> Iterator[Remedy]:
    """Turn a box's wrapper by a quarter: its ends become its sides."""
    if not isinstance(tank.shell, BoxShell):
        return
    other = "y" if tank.shell.wrap_axis == "x" else "x"
    yield Remedy(
        label=words("Wrap it the other way, {how}", how="across" if other == "y" else "lengthwise"),
        patch={"shell": {"wrap_axis": other}},
    )


def longer_flange(tank: TankAnalysis, _finding: Finding) -> Iterator[Remedy]:
    """The least flange that welds and bends."""
    least = max(tank.workshop.rules.flange_least_mm, tank.workshop.brake.shortest_flange_mm)
    yield Remedy(label=words("Flanges of {flange_mm}", flange_mm=least), patch={"sheet": {"flange_mm": least}})


def stocked_gauge(tank: TankAnalysis, _finding: Finding) -> Iterator[Remedy]:
    """The next thicker sheet of the metal that is in stock."""
    gauges = tank.workshop.gauges_of(tank.shell.metal)
    for gauge in [g for g in gauges if g > tank.shell.thickness_mm][:1]:
        yield Remedy(
            label=words("{gauge_sheet} sheet, in stock", gauge_sheet=gauge), patch={"shell": _of_gauge(tank, gauge)}
        )


def through_the_opening(tank: TankAnalysis, _finding: Finding) -> Iterator[Remedy]:
    """Smaller in the direction that is too large."""
    answer = tank.get(GOES_IN)
    if answer is None:
        return
    for direction in directions(tank.shell):
        less = -answer.room_mm
        if less < size_along(tank.shell, direction) / 2:
            yield _resized(tank, direction, -less, words("{by_mm} {how}", by_mm=less, how=SHRUNK[direction]))


def wider_roll(tank: TankAnalysis, _finding: Finding) -> Iterator[Remedy]:
    """A cylinder as tight as the rolls go."""
    if isinstance(tank.shell, CylinderShell):
        more = 2 * tank.workshop.rolls.least_radius_mm - tank.shell.diameter_mm
        yield _resized(tank, "diameter", more, words("{by_mm} {how}", by_mm=more, how=GROWN["diameter"]))


def _resized(tank: TankAnalysis, direction: Direction, more_mm: float, label: Words) -> Remedy:
    patch = resized(tank.shell, direction, size_along(tank.shell, direction) + more_mm)
    for axis in [ALONG[direction]] if direction in ALONG else _cross_axes(tank):
        patch |= _slid(tank, axis, more_mm)
    return Remedy(label=label, patch={"shell": patch})
