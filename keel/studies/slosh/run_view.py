"""A run as the screen shows it: fewer moments, where each compartment lies in the views, and what it means."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass

import numpy as np
from manifold3d import Manifold

from keel.solid.polyhedron import Array
from keel.solid.shapes import slice_rings
from keel.studies.result import Words, words
from keel.studies.slosh.log import Log
from keel.studies.slosh.model import Setup, SloshTank
from keel.studies.slosh.refill import Refill, refill
from keel.studies.slosh.run import DrySpell, Ran

MOST_FRAMES = 1500
SHOWN_L = 0.005
"""Less is shown as nothing [L]."""
APART = "Pools behind steps, humps and sump rims are kept apart"
LEFT = (
    "; what one surface still puts in the wrong place is at most {left_l}, and counts as drawable: to the unsafe side"
)
LIMITS = (
    ". In each pool the surface is a plane: no breaking waves, no "
    "froth, no splash over a baffle. A frothing pickup breathes sooner than the run says (unsafe side); fuel that runs "
    "along a wall reaches it sooner too (safe side). Free fall and being thrown upside down are not modelled. Take dry "
    "spells as certain and the rest as likely."
)


@dataclass(frozen=True, slots=True)
class CutShown:
    """Rings as coordinates one after the other, across then up [mm]."""

    plan: list[list[float]]
    elevation: list[list[float]]
    end: list[list[float]]


@dataclass(frozen=True, slots=True)
class RoomShown:
    """A compartment, or a piece of one where pools can part, and where it is cut."""

    name: str
    body: str
    """The compartment that it is a piece of."""
    capacity_l: float
    cut: CutShown
    points: list[float]
    """Its surface's corners, coordinates in threes [mm], and the triangles between them."""
    triangles: list[int]


@dataclass(frozen=True, slots=True)
class InletShown:
    """A pickup's inlet [mm], and which compartment it is in."""

    name: str
    room: int
    x: float
    y: float
    z: float


@dataclass(frozen=True, slots=True)
class RunShown:
    """One run. Lists of moments have a row a moment of `times_s`."""

    name: str
    rooms: list[RoomShown]
    walls: CutShown
    """The tank's inside with its plates, where it is cut."""
    inlets: list[InletShown]
    cut_x_mm: float
    cut_y_mm: float
    cut_z_mm: float
    times_s: list[float]
    forward_g: list[float]
    left_g: list[float]
    up_g: list[float]
    held_l: list[list[float]]
    planes: list[list[list[float]]]
    """Moment by moment, compartment by compartment: the surface's upward normal and the level along it [mm]."""
    depths_mm: list[list[float]]
    surge_l: list[float]
    refill: Refill | None
    """How the surge tank kept up; empty without one."""
    spells: list[DrySpell]
    dry_s: float
    used_l: float
    missed_l: float
    returned_l: float
    moved_l: float
    spilt_l: float
    start_l: float
    draw_l_per_h: float
    lowest_mm: float
    """Least depth of the best-placed inlet under its surface."""
    lowest_at_s: float
    openings: int
    limits: Words
    notes: list[Words]
    """What is odd about what it was driven with."""


def shown(tank: SloshTank, log: Log, ran: Ran, setup: Setup, pumps_l_per_h: float | None) -> RunShown:
    """What the screen needs of a run.

    Parameters
    ----------
    tank, log, ran, setup
        The run and what it was made with.
    pumps_l_per_h : float, optional
        What the running pumps give at rail pressure [L/h].

    Returns
    -------
    RunShown
        Levels, flows and depths, as series.
    """
    every = max(1, -(-len(ran.times_s) // MOST_FRAMES))
    frames = slice(None, None, every)
    place = tank.places[0]
    best = ran.depths_mm.max(axis=1)
    lowest = int(np.argmin(best))
    return RunShown(
        name=log.name,
        rooms=_rooms(tank, place),
        walls=_cut([cell.solid for cell in tank.solids.cells], place),
        inlets=_inlets(tank),
        cut_x_mm=float(place[0]),
        cut_y_mm=float(place[1]),
        cut_z_mm=float(place[2]),
        times_s=ran.times_s[frames].round(4).tolist(),
        forward_g=log.forward_g[frames].round(4).tolist(),
        left_g=log.left_g[frames].round(4).tolist(),
        up_g=log.up_g[frames].round(4).tolist(),
        held_l=ran.held_l[frames].round(4).tolist(),
        planes=ran.planes[frames].round(4).tolist(),
        depths_mm=ran.depths_mm[frames].round(2).tolist(),
        surge_l=ran.surge_l[frames].round(4).tolist(),
        refill=refill(ran, setup.surge_l),
        spells=ran.spells,
        dry_s=ran.dry_s,
        used_l=ran.used_l,
        missed_l=ran.missed_l,
        returned_l=ran.returned_l,
        moved_l=ran.moved_l,
        spilt_l=ran.spilt_l,
        start_l=float(ran.held_l[0].sum()),
        draw_l_per_h=setup.draw_l_per_h,
        lowest_mm=float(best[lowest]),
        lowest_at_s=float(ran.times_s[lowest]),
        openings=len(tank.openings),
        limits=_limits(tank),
        notes=list(_notes(log, ran, setup, pumps_l_per_h)),
    )


def _rooms(tank: SloshTank, place: Array) -> list[RoomShown]:
    return [
        RoomShown(
            room.name,
            tank.basins.bodies[body].name,
            room.mesh.volume_mm3 / 1e6,
            _cut([room.solid], place),
            room.mesh.points.round(1).ravel().tolist(),
            room.mesh.triangles.ravel().tolist(),
        )
        for room, body in zip(tank.rooms, tank.basins.body, strict=True)
    ]


def _inlets(tank: SloshTank) -> list[InletShown]:
    return [
        InletShown(port.name, room, *(float(v) for v in spot))
        for port, room, spot in zip(tank.pickups, tank.pickup_in, tank.places, strict=True)
    ]


def _limits(tank: SloshTank) -> Words:
    """What isn't modelled, and to which side it errs."""
    left_l = tank.basins.left_mm3 / 1e6
    if left_l < SHOWN_L:
        return words(APART + LIMITS)
    return words(APART + LEFT + LIMITS, left_l=left_l)


def _notes(log: Log, ran: Ran, setup: Setup, pumps_l_per_h: float | None) -> Iterator[Words]:
    most = float(ran.drawn_l_per_h.max())
    if log.fuel_l_per_h is not None:
        yield words("The lap has its own fuel flow, up to {most_lph}: that is what is drawn.", most_lph=most)
    asked = setup.lift_l_per_h if setup.surge_l else most + setup.return_l_per_h
    if pumps_l_per_h is not None and asked > pumps_l_per_h * 1.001:
        yield words(
            "{asked_lph} is drawn from the tank at most, the pumps give {pumps_lph}: they are too small, or "
            "one of the figures is wrong.",
            asked_lph=asked,
            pumps_lph=pumps_l_per_h,
        )
    if setup.surge_l and setup.lift_l_per_h < setup.draw_l_per_h:
        yield words(
            "The lift pump's {lift_lph} is less than the engine's {draw_lph}: the surge tank runs down.",
            lift_lph=setup.lift_l_per_h,
            draw_lph=setup.draw_l_per_h,
        )


def _cut(solids: Sequence[Manifold], place: Array) -> CutShown:
    def rings(axis: int) -> list[list[float]]:
        found = [ring for solid in solids for ring in slice_rings(solid, axis, float(place[axis]))]
        return [ring.round(1).ravel().tolist() for ring in found]

    return CutShown(plan=rings(2), elevation=rings(1), end=rings(0))
