"""Where terminals are, and the way of every wire between two of them."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

import numpy as np

from keel.analysis.parts import GAUGE, LINES, RULES, SOLIDS, WIRING
from keel.analysis.study import study
from keel.design.gauge import Gauge
from keel.design.line_functions import PumpDoes
from keel.design.lines import Lines
from keel.design.wiring import Stands, Wire, WireEnd, Wiring
from keel.design.workshop import HouseRules
from keel.solid.polyhedron import Array
from keel.solid.solids import Solids
from keel.studies.lines.run_shapes import RUN_SHAPES, RunShape
from keel.studies.result import Point

SENDER_HEAD_MM = 20.0
"""From the lid to a sender's terminals (house rule)."""


@dataclass(frozen=True, slots=True)
class JoinedThing:
    """Something that wires can be joined to.

    Attributes
    ----------
    of, id : str
        A device here, a pump at Lines, a sender at Gauge.
    kind : str
        What it is.
    at : Point
        Its middle [mm].
    stands : str
        Outside the tank, in its wall, or in it.
    """

    of: str
    id: str
    name: str
    kind: str
    at: Point
    stands: Stands


@dataclass(frozen=True, slots=True)
class WireRun:
    """The way of a wire.

    Attributes
    ----------
    way : list of Point
        From start to end.
    own : list of bool
        Which of its straights are its own: others lie along a hose or a tube.
    length_mm : float
        As typed, or along its way with what is spare.
    """

    id: str
    way: list[Point]
    own: list[bool]
    length_mm: float


@dataclass(frozen=True, slots=True)
class WireRuns:
    """All of both. `gone`: wires with an end at something that isn't there any more."""

    joined: list[JoinedThing]
    wires: list[WireRun]
    gone: list[str]

    def at(self, end: WireEnd) -> JoinedThing | None:
        """What an end is joined to; None where it is gone."""
        return next((one for one in self.joined if (one.of, one.id) == (end.of, end.id)), None)

    def length_m(self, wire: str) -> float:
        """One way [m]; of a wire that is gone nothing."""
        return next((one.length_mm for one in self.wires if one.id == wire), 0.0) / 1e3


def wire_runs(
    wiring: Wiring, lines: Lines, gauge: Gauge, shapes: Sequence[RunShape], solids: Solids, rules: HouseRules
) -> WireRuns:
    """Where everything is, and every wire between.

    Parameters
    ----------
    wiring : Wiring
        Devices and wires.
    lines : Lines
        Pumps.
    gauge : Gauge
        Senders.
    shapes : sequence of RunShape
        Hoses and tubes, which wires may be tied to.
    solids : Solids
        The tank: senders are joined on its lid.
    rules : HouseRules
        How much of a wire is spare.

    Returns
    -------
    WireRuns
        A wire that is tied to a hose joins it where it comes nearest, and leaves it where the next stretch begins.
    """
    joined = [
        *(
            JoinedThing("device", one.id, one.name, one.does.kind, Point(one.x_mm, one.y_mm, one.z_mm), one.stands)
            for one in wiring.devices
        ),
        *_pumps(lines),
        *_senders(gauge, solids),
    ]
    places = {(one.of, one.id): np.array([one.at.x, one.at.y, one.at.z]) for one in joined}
    tied = {shape.id: shape.line for shape in shapes}
    found, gone = [], []
    for wire in wiring.wires:
        ends = [places.get((end.of, end.id)) for end in (wire.start, wire.end)]
        if ends[0] is None or ends[1] is None:
            gone.append(wire.id)
        else:
            found.append(_run(wire, ends[0], ends[1], tied, rules.wire_spare_mm))
    return WireRuns(joined, found, gone)


def _pumps(lines: Lines) -> list[JoinedThing]:
    return [
        JoinedThing(
            "pump",
            part.id,
            part.name,
            "pump",
            Point(part.x_mm, part.y_mm, part.z_mm),
            "outside" if part.hangs_in is None else "in the tank",
        )
        for part in lines.parts
        if isinstance(part.does, PumpDoes)
    ]


def _senders(gauge: Gauge, solids: Solids) -> list[JoinedThing]:
    """Their terminals are over the tank's lid."""
    top = solids.bounds.high[2] + SENDER_HEAD_MM
    return [
        JoinedThing(
            "sender",
            one.id,
            one.name,
            "sender",
            Point(solids.datum[0] + one.x_mm, solids.datum[1] + one.y_mm, float(top)),
            "in the tank's wall",
        )
        for one in gauge.senders
    ]


def _run(wire: Wire, start: Array, end: Array, tied: Mapping[str, Array], spare_mm: float) -> WireRun:
    spots, own = [start], list[bool]()

    def on(places: Sequence[Array], mine: bool) -> None:
        for place in places:
            if np.linalg.norm(place - spots[-1]) > 1e-6:
                spots.append(place)
                own.append(mine)

    goal = np.array([[one.x_mm, one.y_mm, one.z_mm] for one in wire.corners] + [end])
    stretches = [tied[name] for name in wire.along if name in tied]
    for n, line in enumerate(stretches):
        after = stretches[n + 1] if n + 1 < len(stretches) else goal[:1]
        first, last = _nearest(line, spots[-1][None]), _nearest(line, after)
        piece = _between(line, first, last)
        on(piece[:1], True)
        on(piece[1:], False)
    on(list(goal), True)
    direct = float(np.linalg.norm(np.diff(np.array(spots), axis=0), axis=1).sum()) if len(spots) > 1 else 0.0
    length = direct + 2 * spare_mm if wire.length_mm is None else wire.length_mm
    return WireRun(wire.id, [Point.of(spot) for spot in spots], own, length)


def _nearest(line: Array, others: Array) -> float:
    """How far along a line it comes nearest to any of some places [mm]."""
    starts, steps = line[:-1], np.diff(line, axis=0)
    sizes = np.linalg.norm(steps, axis=1)
    off = others[:, None, :] - starts[None]
    shares = np.clip((off * steps).sum(axis=2) / np.maximum(sizes, 1e-9) ** 2, 0, 1)
    far = np.linalg.norm(off - shares[..., None] * steps, axis=2)
    other, step = np.unravel_index(far.argmin(), far.shape)
    gone = np.concatenate([[0.0], np.cumsum(sizes)])
    return float(gone[step] + shares[other, step] * sizes[step])


def _between(line: Array, first: float, last: float) -> list[Array]:
    """A line from one place along it to another, backward where that one comes before."""
    gone = np.concatenate([[0.0], np.cumsum(np.linalg.norm(np.diff(line, axis=0), axis=1))])

    def spot(at: float) -> Array:
        return np.array([np.interp(at, gone, line[:, axis]) for axis in range(3)])

    low, high = sorted((first, last))
    within = [spot(low), *line[(gone > low) & (gone < high)], spot(high)]
    return within if first <= last else within[::-1]


WIRE_RUNS = study(wire_runs, WIRING, LINES, GAUGE, RUN_SHAPES, SOLIDS, RULES)
