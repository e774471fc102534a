"""Rings and plates that are welded in round ports: discs with the port's hole and those of its bolts."""

from collections.abc import Sequence
from dataclasses import replace
from math import cos, pi, radians, sin

import numpy as np

from keel.analysis.parts import PORTS, SHELL
from keel.analysis.study import study
from keel.design.ports import Port
from keel.solid.solids import AnyShell
from keel.studies.sheet.model import flat_part
from keel.studies.sheet.parts import Bore, FlatPart

PREFIX = "ring-"
"""Before a port's id in the name of its ring."""
AROUND = 180


def doublers(shell: AnyShell, ports: Sequence[Port]) -> list[FlatPart]:
    """Flat rings of all ports whose seat says how thick one is.

    Parameters
    ----------
    shell : AnyShell
        They are of its metal.
    ports : sequence of Port
        Those with a seat and a plate's thickness have one.

    Returns
    -------
    list of FlatPart
        Bolts clocked as the port is, seen from outside; holes not yet taken off area and mass.
    """
    return [_ring(shell, port) for port in ports if port.seat is not None and port.seat.plate_mm]


def _ring(shell: AnyShell, port: Port) -> FlatPart:
    assert port.seat is not None and port.seat.plate_mm is not None
    seat, half = port.seat, port.seat.outer_mm / 2
    # A polygon of the disc's area.
    reach = half * np.sqrt(2 * pi / AROUND / sin(2 * pi / AROUND))
    turns = 2 * pi * np.arange(AROUND) / AROUND
    made = flat_part(
        shell.metal,
        name=f"{PREFIX}{port.id}",
        title=f"Ring of {port.name}",
        quantity=1,
        thickness_mm=port.seat.plate_mm,
        outline=[(float(reach * cos(turn)), float(reach * sin(turn))) for turn in turns],
        bends=[],
        marks=[],
        note="Its outside faces you; the arrow of the port's clocking points up.",
        feature=port.id,
    )
    middle = made.length_mm / 2, made.width_mm / 2
    bores = [Bore(port.id, port.name, middle, seat.hole_mm)]
    if seat.bolts and seat.bolt_circle_mm and seat.bolt_mm:
        for number in range(seat.bolts):
            turn = radians(90 - 360 * number / seat.bolts)
            spot = middle[0] + seat.bolt_circle_mm / 2 * cos(turn), middle[1] + seat.bolt_circle_mm / 2 * sin(turn)
            bores.append(Bore(port.id, port.name, spot, seat.bolt_mm, number + 1))
    return replace(made, bores=bores)


DOUBLERS = study(doublers, SHELL, PORTS)
