"""What puts hangers, seats, drains and vents right."""

from collections.abc import Iterator

import numpy as np

from keel.analysis.tank import TankAnalysis
from keel.design.features import Well
from keel.design.ports import Port
from keel.design.sheet import SeamPlace
from keel.findings.edits import at_place, extreme_place, lowest_spot, port_of, unused, with_port, with_ports
from keel.findings.finding import Finding, Patch, Remedy
from keel.findings.fuels import fuels_of, rubbers
from keel.reference.compatibility import HOSES, OF_RUBBER, HoseName, SealName
from keel.studies.ports.filling import FILL_RUNS
from keel.studies.ports.reach import REACHES
from keel.studies.ports.vent_paths import VENTS_BY_CELL
from keel.studies.result import words
from keel.studies.space.resize import directions, resized, size_along

SEALS: tuple[SealName, ...] = ("nitrile", "fluoroelastomer", "PTFE")
"""Seals and hoses that are offered, the dearest last."""
HOSES_OFFERED: tuple[HoseName, ...] = ("nitrile hose", "fluoropolymer-lined hose", "PTFE hose")
MOST_OFFERED = 2


def port_inside(tank: TankAnalysis, finding: Finding) -> Iterator[Remedy]:
    """Bring a port's opening into the largest cell: a pickup to its floor, the others under its roof."""
    port = next(p for p in tank.design.ports if p.id == finding.subject)
    cell = max(tank.solids.cells, key=lambda c: c.mesh.volume_mm3)
    place = extreme_place(cell, np.array([0.0, 0.0, 1.0 if port.role == "pickup" else -1.0]))
    moved = [at_place(tank, p, place) if p.id == port.id else p for p in tank.design.ports]
    yield Remedy(label=words("Move {name} inside", name=port.name), patch=with_ports(moved))


def other_rubber(tank: TankAnalysis, finding: Finding) -> Iterator[Remedy]:
    """The first seals or hoses that all the fuels leave alone."""
    port = port_of(tank, finding)
    for what, _ in rubbers(port):
        offered: tuple[str, ...] = SEALS if what == "seal" else HOSES_OFFERED
        bears = [m for m in offered if not any((HOSES.get(m, m), fuel) in OF_RUBBER for fuel in fuels_of(tank))]
        for material in bears[:MOST_OFFERED]:
            yield Remedy(
                label=words("{material} at {name}", material=material, name=port.name),
                patch=_rubber(tank, port, what, material),
            )


def _rubber(tank: TankAnalysis, port: Port, what: str, material: str) -> Patch:
    part = "seat" if what == "seal" else "neck" if port.neck and port.neck.hose else "vent"
    now = getattr(port, part).model_dump(mode="json")
    return with_port(tank, port.id, **{part: now | {"seal" if what == "seal" else "hose": material}})


RING_MOST_MM = 30.0
"""Highest ring that a flange is stood on [mm]."""


FINGERS_MM = 30.0
"""Room for fingers and spanner between a flange and the sides of its well [mm]."""


def reach_the_floor(tank: TankAnalysis, finding: Finding) -> Iterator[Remedy]:
    """The methods: lower the flange in a well, lengthen the hanger, draw remotely, make the tank shallower."""
    port = port_of(tank, finding)
    reach = next(r for r in tank[REACHES] if r.id == port.id)
    short = tank.marked(reach.short_mm)
    if port.hanger is None:
        return
    well = _well_round(tank, port, short)
    yield Remedy(
        label=words(
            "A well {deep_mm} deep round {name}; any replacement fits as it comes", deep_mm=short, name=port.name
        ),
        patch={
            "shell": {
                "features": [*[f.model_dump(mode="json") for f in tank.shell.features], well.model_dump(mode="json")]
            }
        },
    )
    yield Remedy(
        label=words(
            "Lengthen {name} by {more_mm}; every replacement needs the same work", name=port.name, more_mm=short
        ),
        patch=with_port(
            tank, port.id, hanger=port.hanger.model_dump(mode="json") | {"extend_mm": port.hanger.extend_mm + short}
        ),
    )
    yield Remedy(
        label=words("Draw through a hose from a pickup of its own on the floor; two joints more inside"),
        patch=with_port(tank, port.id, hanger=port.hanger.model_dump(mode="json") | {"remote": True}),
    )
    yield from _shallower(tank, short)


def lift_the_flange(tank: TankAnalysis, finding: Finding) -> Iterator[Remedy]:
    """What is too long however it is cut: stand its flange on a ring, make the tank deeper, draw remotely."""
    port = port_of(tank, finding)
    over = tank.marked(next(r.too_long_mm for r in tank[REACHES] if r.id == port.id))
    if port.seat is not None and (port.seat.plate_mm or 0.0) + over <= RING_MOST_MM:
        seat = port.seat.model_dump(mode="json") | {"plate_mm": (port.seat.plate_mm or 0.0) + over}
        yield Remedy(
            label=words("Stand {name} on a ring {high_mm} high", name=port.name, high_mm=seat["plate_mm"]),
            patch=with_port(tank, port.id, seat=seat),
        )
    if "height" in directions(tank.shell):
        size = size_along(tank.shell, "height")
        yield Remedy(
            label=words("Make the tank {more_mm} higher", more_mm=over),
            patch={"shell": resized(tank.shell, "height", size + over)},
        )


SEAMS: tuple[SeamPlace, ...] = ("lid", "floor", "side", "corner butt")


def seam_elsewhere(tank: TankAnalysis, finding: Finding) -> Iterator[Remedy]:
    """Close the wrapper somewhere else, or move the port aside by its own radius and the land."""
    port = port_of(tank, finding)
    for seam in SEAMS:
        if seam != tank.design.sheet.seam:
            yield Remedy(label=words("Close the wrapper at the {seam}", seam=seam), patch={"sheet": {"seam": seam}})
    if port.seat is not None:
        across = "xy"[1 - tank.solids.section.axis]
        middle = tank.solids.body.size[1 - tank.solids.section.axis] / 2
        off = port.seat.outer_mm / 2 + tank.workshop.rules.land_mm + 1
        yield Remedy(
            label=words("Move {name} {off_mm} off the seam", name=port.name, off_mm=off),
            patch=with_port(tank, port.id, **{f"{across}_mm": middle + off}),
        )


def _shallower(tank: TankAnalysis, by: float) -> Iterator[Remedy]:
    if "height" not in directions(tank.shell):
        return
    size = size_along(tank.shell, "height")
    if size > 2 * by:
        yield Remedy(
            label=words("Make the tank {less_mm} lower; any replacement fits as it comes", less_mm=by),
            patch={"shell": resized(tank.shell, "height", size - by)},
        )


def _well_round(tank: TankAnalysis, port: Port, deep: float) -> Well:
    """A well round a flange, run out to an edge that is near, so that it sheds water."""
    half = (port.seat.outer_mm / 2 if port.seat else port.across_mm / 2) + FINGERS_MM
    size = tank.solids.body.size
    spans: list[tuple[float, float]] = []
    open_edge = False
    for at, length in ((port.x_mm, size[0]), (port.y_mm, size[1])):
        low, high = at - half, at + half
        if not open_edge and low < half:
            low, open_edge = 0.0, True
        elif not open_edge and high > length - half:
            high, open_edge = length, True
        spans.append((max(0.0, low), min(length, high)))
    (a, b), (c, d) = spans
    return Well(
        id=unused("well", [feature.id for feature in tank.shell.features]),
        name=f"well of {port.name}"[:80],
        a_mm=a,
        b_mm=c,
        long_mm=b - a,
        wide_mm=d - c,
        deep_mm=deep,
        drain=not open_edge,
    )


def to_the_low_point(tank: TankAnalysis, finding: Finding) -> Iterator[Remedy]:
    """Move a drain to the lowest place."""
    port = port_of(tank, finding)
    spot = lowest_spot(tank)
    yield Remedy(
        label=words("Move {name} to the lowest place", name=port.name),
        patch=with_port(tank, port.id, x_mm=spot[0], y_mm=spot[1], z_mm=None, face="floor"),
    )


def closed(tank: TankAnalysis, finding: Finding) -> Iterator[Remedy]:
    """Cap it."""
    port = port_of(tank, finding)
    yield Remedy(label=words("Close {name} blind", name=port.name), patch=with_port(tank, port.id, capped=True))


def larger_vent(tank: TankAnalysis, finding: Finding) -> Iterator[Remedy]:
    """The next sizes of vent in the cell that is held back."""
    cell = finding.subject
    port = next((p for p in tank[VENTS_BY_CELL].get(cell, []) if p.vent is not None), None)
    run = tank[FILL_RUNS].get(cell)
    if port is None or port.vent is None or run is None:
        return
    sizes = [other.size for other in run.others if other.what == "vent"]
    if run.vent_for_wanted_mm:
        sizes.append(round(run.vent_for_wanted_mm, 1))
    for size in sorted(set(sizes)):
        vent = port.vent.model_dump(mode="json") | {"bore_mm": size}
        yield Remedy(label=words("A vent of {bore_mm} bore", bore_mm=size), patch=with_port(tank, port.id, vent=vent))
