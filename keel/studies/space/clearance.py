"""Does the shell clear the bay and everything in it, and what is the largest box that would?"""

from dataclasses import replace
from math import sqrt
from typing import Literal

import numpy as np
from manifold3d import Manifold

from keel.analysis.parts import BAY, ENVELOPE, RULES, SCANS
from keel.analysis.study import study
from keel.design.bay import SIDES, AnyKeepOut, Bay, Clearance, KeepOut, ScanKeepOut, SlopeKeepOut
from keel.design.workshop import HouseRules
from keel.solid.box import AXES, Cuboid, cuboid_round
from keel.solid.envelope import Envelope
from keel.solid.faults import wrong
from keel.solid.neighbours import Scans, outline_pieces, scan_mesh, slope_plane, solid_of_keep_out
from keel.solid.polyhedron import Mesh
from keel.solid.pools import Crossings
from keel.solid.proximity import NO_PUSH, Push, crosses, least_push
from keel.solid.proximity import nearest as nearest_places
from keel.solid.shapes import block, mesh_of
from keel.solid.way_out import push_out_of_box
from keel.studies.result import Point
from keel.studies.space.gap import TOUCH_MM, Gap, axis_name, gap_to, needed_mm

LEAST_OVERLAP_MM = 0.1
"""What an overlap whose depth can't be told counts as, at least [mm]."""


def bay_box(bay: Bay) -> Cuboid:
    """The bay's extents as a box; its rear, right, lower corner is the origin."""
    return Cuboid((0.0, 0.0, 0.0), (bay.length_mm, bay.width_mm, bay.height_mm))


def free_box(bay: Bay, rules: HouseRules) -> Cuboid:
    """The bay less the clearance of each of its sides."""
    kept = [needed_mm(getattr(bay.sides, side), rules) for side in SIDES]
    low, high = (-kept[0], -kept[2], -kept[4]), (-kept[1], -kept[3], -kept[5])
    return bay_box(bay).grown(low, high)


def boxes_of(bay: Bay) -> list[tuple[KeepOut, Cuboid]] | None:
    """The keep-outs as boxes, without their clearance; None when not all of them are boxes."""
    found = []
    for k in bay.keep_outs:
        if not isinstance(k, KeepOut):
            return None
        found.append((k, _box_of(k)))
    return None if bay.profile else found


MOST_SCANNED = 300_000
"""Triangles of all scans of a bay together."""


def gaps(bay: Bay, envelope: Envelope, rules: HouseRules, scans: Scans | None = None) -> list[Gap]:
    """Nearest gap from the shell, and all that stands on it, to each side of the bay and each keep-out.

    Parameters
    ----------
    bay : Bay
        Extents, outline, keep-outs and their clearances.
    envelope : Envelope
        The shell with its lips and what stands up from it.
    rules : HouseRules
        Clearance by kind of neighbour.
    scans : mapping of str to Mesh, optional
        Kept scans by fingerprint; a keep-out whose scan isn't among them has no gap.

    Returns
    -------
    list of Gap
        Sides first, then the bay's outline, then keep-outs. A gap below zero is an overlap: the least
        straight push along a vehicle axis that would part the two.

    Raises
    ------
    GeometryError
        When the bay's outline crosses itself, or its scans have more triangles than can be measured.
    """
    _check_scans(bay, scans or {})
    found = _side_gaps(bay, envelope.bounds, rules)
    if bay.profile is not None:
        outline = [
            _solid_gap(piece, envelope, "side", "outline", "outline", bay.profile.clearance, rules)
            for _, piece in outline_pieces(bay)
        ]
        found += sorted(outline, key=lambda gap: gap.gap_mm - gap.needed_mm)[:1]
    for keep_out in bay.keep_outs:
        gap = _keep_out_gap(keep_out, bay, envelope, rules, scans or {})
        if gap is not None:
            found.append(gap)
    return found


def _side_gaps(bay: Bay, overall: Cuboid, rules: HouseRules) -> list[Gap]:
    room, found = bay_box(bay), []
    for place, side in enumerate(SIDES):
        axis, high = place // 2, place % 2 == 1
        face, wall = (overall.high, room.high) if high else (overall.low, room.low)
        start = [(a + b) / 2 for a, b in zip(overall.low, overall.high, strict=True)]
        end = list(start)
        start[axis], end[axis] = face[axis], wall[axis]
        clearance: Clearance = getattr(bay.sides, side)
        distance = (wall[axis] - face[axis]) * (1 if high else -1)
        found.append(gap_to(side, "side", side, distance, start, end, clearance, rules, axis=axis, high=high))
    return found


def all_clear(bay: Bay, envelope: Envelope, rules: HouseRules, scans: Scans) -> bool:
    """Whether every gap is as wide as it has to be: `gaps` without the places, for a search that asks often."""
    if not all(gap.clears for gap in _side_gaps(bay, envelope.bounds, rules)):
        return False
    solids = [(piece, bay.profile.clearance) for _, piece in outline_pieces(bay)] if bay.profile else []
    for keep_out in bay.keep_outs:
        solid = solid_of_keep_out(keep_out, bay)
        if solid is not None:
            solids.append((solid, keep_out.clearance))
            continue
        gap = _keep_out_gap(keep_out, bay, envelope, rules, scans)
        if gap is not None and not gap.clears:
            return False
    needs = [(solid, needed_mm(clearance, rules)) for solid, clearance in solids]
    return all(envelope.gap_to(solid, need + 1.0) >= need - TOUCH_MM for solid, need in needs)


def _check_scans(bay: Bay, scans: Scans) -> None:
    """Refuse more scanned triangles than are measured in a few seconds."""
    named = [(place, k.scan) for place, k in enumerate(bay.keep_outs) if isinstance(k, ScanKeepOut) and k.scan in scans]
    total = sum(len(scans[scan].triangles) for _, scan in named)
    if total > MOST_SCANNED:
        place, _ = max(named, key=lambda item: len(scans[item[1]].triangles))
        raise wrong(
            f"bay.keep_outs.{place}.scan",
            f"the bay's scans have {total} triangles in all: thin them, or leave out what is far from the tank",
            total,
            f"{MOST_SCANNED} or less",
        )


def _keep_out_gap(keep_out: AnyKeepOut, bay: Bay, envelope: Envelope, rules: HouseRules, scans: Scans) -> Gap | None:
    where = (keep_out.name, keep_out.id, keep_out.clearance)
    if isinstance(keep_out, ScanKeepOut):
        mesh = scan_mesh(keep_out, scans)
        return None if mesh is None else _scan_gap(keep_out, mesh, envelope, rules)
    if isinstance(keep_out, SlopeKeepOut):
        normal, offset = slope_plane(keep_out, bay)
        heights = envelope.mesh.points @ normal
        furthest = envelope.mesh.points[np.abs(heights - heights.max()) < 1e-6].mean(axis=0)
        distance = offset - float(heights.max())
        end = furthest + normal * distance
        return gap_to(where[0], "keep-out", where[1], distance, list(furthest), list(end), where[2], rules)
    if isinstance(keep_out, KeepOut):
        return _box_gap(keep_out, envelope, rules)
    solid = solid_of_keep_out(keep_out, bay)
    assert solid is not None
    return _solid_gap(solid, envelope, "keep-out", where[0], where[1], where[2], rules)


def _box_gap(keep_out: KeepOut, envelope: Envelope, rules: HouseRules) -> Gap:
    """Gap to a box that stands upright."""
    plain = _facing_gap(keep_out, envelope, rules)
    if plain is not None:
        return plain
    box, where = _box_of(keep_out), (keep_out.name, keep_out.id, keep_out.clearance)
    meet = _boxes_meet(envelope.bounds, box)
    push = push_out_of_box(envelope.parts, envelope.mesh, box) if meet else NO_PUSH
    gap = _solid_gap(block(box.low, box.high), envelope, "keep-out", where[0], where[1], where[2], rules, push)
    return _centred(gap, envelope.bounds, keep_out)


def _solid_gap(
    solid: Manifold,
    envelope: Envelope,
    kind: Literal["side", "keep-out"],
    name: str,
    key: str,
    clearance: Clearance,
    rules: HouseRules,
    push: Push | None = None,
) -> Gap:
    mesh = mesh_of(solid)
    if push is None:
        meet = _boxes_meet(envelope.bounds, cuboid_round(mesh.points))
        push = least_push(envelope.parts, solid) if meet else NO_PUSH
    if push.mm > 0:
        start, end = push.middle, push.middle + push.way * push.mm
        return gap_to(name, kind, key, -push.mm, list(start), list(end), clearance, rules, way=-push.way)
    near = nearest_places(envelope.mesh, mesh)
    return gap_to(name, kind, key, near.distance, list(near.start), list(near.end), clearance, rules)


def _scan_gap(keep_out: ScanKeepOut, mesh: Mesh, envelope: Envelope, rules: HouseRules) -> Gap:
    """Gap to a scanned surface; where the tank is on the wrong side of it, minus the way back to it."""
    up = np.array([0.0, 0.0, 1.0])
    if crosses(envelope.mesh, mesh) or crosses(mesh, envelope.mesh):
        over = _how_far_through(envelope.mesh, mesh)
        middle = envelope.mesh.points.mean(axis=0)
        return gap_to(
            keep_out.name, "keep-out", keep_out.id, -over, list(middle), list(middle), keep_out.clearance, rules
        )
    near = nearest_places(envelope.mesh, mesh)
    probe = envelope.mesh.points[0]
    counts, _ = Crossings(mesh, up).below(probe[None] + np.array([1.3e-3, 1.7e-3, 0.0]))
    wrong_side = (int(counts[0]) % 2 == 1) != keep_out.is_cavity
    distance = -near.distance - LEAST_OVERLAP_MM if wrong_side else near.distance
    start, end = list(near.start), list(near.end)
    return gap_to(keep_out.name, "keep-out", keep_out.id, distance, start, end, keep_out.clearance, rules)


def _how_far_through(tank: Mesh, scan: Mesh) -> float:
    """How deep the scan's points reach into the box round the tank, at least [mm]."""
    box = cuboid_round(tank.points)
    low, high = np.array(box.low), np.array(box.high)
    inside = np.all((scan.points > low) & (scan.points < high), axis=1)
    if not inside.any():
        return LEAST_OVERLAP_MM
    points = scan.points[inside]
    return float(max(LEAST_OVERLAP_MM, np.minimum(points - low, high - points).min(axis=1).max()))


def _boxes_meet(a: Cuboid, b: Cuboid) -> bool:
    return all(a.low[i] < b.high[i] and b.low[i] < a.high[i] for i in range(3))


def _facing_gap(keep_out: KeepOut, envelope: Envelope, rules: HouseRules) -> Gap | None:
    """Gap to a box that a corner of the shell's outermost face stands over: no other place can be nearer."""
    other = _box_of(keep_out)
    distance, axis, toward, start, end = nearest(envelope.bounds, other)
    sideways = [i for i in range(3) if i != axis]
    if distance <= 0 or any(start[i] != end[i] for i in sideways):
        return None
    points = envelope.mesh.points
    over = np.abs(points[:, axis] - start[axis]) < TOUCH_MM
    for i in sideways:
        over &= (points[:, i] >= other.low[i]) & (points[:, i] <= other.high[i])
    if not over.any():
        return None
    name, key, clearance = keep_out.name, keep_out.id, keep_out.clearance
    return gap_to(name, "keep-out", key, distance, start, end, clearance, rules, axis=axis, high=toward > 0)


def _box_of(k: KeepOut) -> Cuboid:
    return Cuboid((k.x_mm, k.y_mm, k.z_mm), (k.x_mm + k.length_mm, k.y_mm + k.width_mm, k.z_mm + k.height_mm))


def _centred(gap: Gap, bounds: Cuboid, keep_out: KeepOut) -> Gap:
    """Between two flat faces the gap is the same everywhere: show it in the middle of what they share."""
    distance, axis, toward, start, end = nearest(bounds, _box_of(keep_out))
    if gap.gap_mm < 0 or abs(distance - gap.gap_mm) > TOUCH_MM:
        return gap
    return replace(gap, axis=axis_name(axis), toward=toward, start=Point.of(start), end=Point.of(end))


def nearest(a: Cuboid, b: Cuboid) -> tuple[float, int, Literal[-1, 1], list[float], list[float]]:
    """Nearest gap between two boxes.

    Returns
    -------
    distance : float
        [mm]; when they overlap, minus the least push that parts them.
    axis, toward : int
        The axis along which they are furthest apart, and on which side of `a` lies `b`.
    start, end : list of float
        The nearest points on `a` and on `b`, shape (3,) [mm].
    """
    apart = [max(b.low[i] - a.high[i], a.low[i] - b.high[i]) for i in range(3)]
    axis = max(range(3), key=lambda i: apart[i])
    start, end = [], []
    for i in range(3):
        if apart[i] > 0 or (apart[axis] <= 0 and i == axis):
            above = b.low[i] - a.high[i] >= a.low[i] - b.high[i]
            start.append(a.high[i] if above else a.low[i])
            end.append(b.low[i] if above else b.high[i])
        else:
            shared = (max(a.low[i], b.low[i]) + min(a.high[i], b.high[i])) / 2
            start.append(shared)
            end.append(shared)
    beyond: Literal[-1, 1] = 1 if b.low[axis] - a.high[axis] >= a.low[axis] - b.high[axis] else -1
    distance = sqrt(sum(max(0.0, d) ** 2 for d in apart)) if apart[axis] > 0 else apart[axis]
    return distance, axis, beyond, start, end


assert AXES == ("x", "y", "z")


GAPS = study(gaps, BAY, ENVELOPE, RULES, SCANS)
