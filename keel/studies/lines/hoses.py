"""Hoses as they are cut: length, elbows, how they are clocked, and what of each size has to be bought."""

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from keel.analysis.parts import LINES, PORTS, WORKSHOP
from keel.analysis.study import study
from keel.design.connections import Connection
from keel.design.hoses import HoseStock
from keel.design.lines import LineRun, Lines, RunEnd
from keel.design.ports import Port
from keel.design.workshop import Workshop
from keel.reference.connections import CLAMPED, TAKES_MM, TAKES_OTHERS_MM
from keel.routes.hose import SLACK, clocking, cut_length
from keel.routes.rounded import Array, Rounded, rounded
from keel.studies.lines.hose_stock import least_radius_of, radius_of_hose, stock_of
from keel.studies.lines.mating import mate_of
from keel.studies.lines.places import LINE_PLACES, LinePlaces, connection_at, off_straight, out_of

ELBOWS_DEG = (0.0, 30.0, 45.0, 60.0, 90.0, 120.0, 150.0, 180.0)
"""Hose ends that are on the shelf."""


@dataclass(frozen=True, slots=True)
class HoseEnd:
    """One end of a hose.

    Attributes
    ----------
    takes_mm : float
        From its port's face to the hose's end.
    turns_deg, elbow_deg : float
        How far the hose turns away from where its port faces, and the nearest elbow there is; a clamped hose has none
        and bends itself.
    clamped : bool
        It is pushed on a tail or a tube: it leaves straight.
    is_known : bool
        What it is joined to is.
    """

    port: str
    takes_mm: float
    turns_deg: float
    elbow_deg: float
    clamped: bool
    is_known: bool


@dataclass(frozen=True, slots=True)
class HoseCut:
    """A hose as it is cut.

    Attributes
    ----------
    stock : str
        Its card in the workshop; empty: none is known.
    roll_bore_mm : float
        Of the hose by the metre that it is cut from; its own where none is known.
    route_mm, cut_mm : float
        Along its way from port to port, and what it is cut to; that is below nothing where its ends are longer.
    radius_mm, least_radius_mm : float
        Of its bends, and the tightest of its card.
    is_carded : bool
        Whether a card says so; else it is the usual one.
    straights_mm : list of float
        Between its bends; below nothing where they run into each other.
    clocking_deg : float or None
        The last elbow against the first, looking along it, clockwise; None unless both are elbows.
    turns_back : bool
        It turns back on itself.
    """

    id: str
    name: str
    stock: str
    hose: str
    bore_mm: float
    roll_bore_mm: float
    route_mm: float
    cut_mm: float
    radius_mm: float
    least_radius_mm: float
    is_carded: bool
    straights_mm: list[float]
    ends: list[HoseEnd]
    clocking_deg: float | None
    turns_back: bool


@dataclass(frozen=True, slots=True)
class HoseToBuy:
    """One kind of hose, all pieces of it.

    Attributes
    ----------
    metres : float
        Of all pieces.
    price : float or None
        None where a price isn't typed.
    """

    name: str
    hose: str
    bore_mm: float
    pieces: int
    metres: float
    price: float | None


@dataclass(frozen=True, slots=True)
class Hoses:
    """All of both."""

    cut: list[HoseCut]
    buy: list[HoseToBuy]


def hoses_cut(lines: Lines, ports: Sequence[Port], places: LinePlaces, workshop: Workshop) -> Hoses:
    """Every hose, and what of each kind has to be bought.

    Parameters
    ----------
    lines : Lines
        Runs.
    ports : sequence of Port
        The tank's: which way they face.
    places : LinePlaces
        Where runs lie.
    workshop : Workshop
        Hoses by the metre.

    Returns
    -------
    Hoses
        In the order of the runs; a length that is typed counts as its way.

    References
    ----------
    As for `keel.routes.hose`.
    """
    ways = {way.id: way for way in places.runs}
    cut = [
        _cut(run, lines, ports, np.array([[at.x, at.y, at.z] for at in ways[run.id].way]), workshop.hoses)
        for run in lines.runs
        if run.kind == "hose" and run.id in ways
    ]
    return Hoses(cut, _to_buy(cut, workshop.hoses))


def _cut(run: LineRun, lines: Lines, ports: Sequence[Port], points: Array, hoses: Sequence[HoseStock]) -> HoseCut:
    stock = stock_of(run, hoses)
    radius = radius_of_hose(run, hoses)
    try:
        way: Rounded | None = rounded(points, radius)
    except ValueError:
        way = None
    route = run.length_mm / (1 + SLACK) if run.length_mm else way.length_mm if way else 0.0
    ends = [_end(end, lines, ports, way, last) for end, last in ((run.start, False), (run.end, True))]
    facing = [out_of(end, lines, ports) for end in (run.start, run.end)]
    return HoseCut(
        id=run.id,
        name=run.name,
        stock=stock.name if stock else "",
        hose=run.hose,
        bore_mm=run.bore_mm,
        roll_bore_mm=stock.bore_mm if stock else run.bore_mm,
        route_mm=route,
        cut_mm=cut_length(route, [end.takes_mm for end in ends], run.moves_mm),
        radius_mm=radius,
        least_radius_mm=least_radius_of(run, hoses),
        is_carded=stock is not None and stock.least_radius_mm is not None,
        straights_mm=[float(one) for one in way.straights_mm] if way else [],
        ends=ends,
        clocking_deg=_clocked(way, ends, facing),
        turns_back=way is None,
    )


def _end(end: RunEnd, lines: Lines, ports: Sequence[Port], way: Rounded | None, last: bool) -> HoseEnd:
    turned = 0.0 if way is None else off_straight(way, out_of(end, lines, ports), last)
    made = end.connection or connection_at(end, lines, ports)
    screwed = made is not None and made.standard not in CLAMPED
    elbow = min(ELBOWS_DEG, key=lambda one: abs(one - turned)) if screwed else 0.0
    clamped = made is not None and not screwed
    return HoseEnd(
        end.port, takes_of(made) if end.takes_mm is None else end.takes_mm, turned, elbow, clamped, made is not None
    )


def takes_of(on: Connection | None) -> float:
    """What a straight hose end on a connection usually takes up [mm]."""
    if on is None or on.standard in CLAMPED:
        return 0.0
    return TAKES_MM.get(mate_of(on).size, TAKES_OTHERS_MM)


def _clocked(way: Rounded | None, ends: Sequence[HoseEnd], facing: Sequence[Array | None]) -> float | None:
    """Between two elbows: from each into its port."""
    first, last = facing
    if way is None or first is None or last is None or any(end.elbow_deg in (0.0, 180.0) for end in ends):
        return None
    return clocking(way.ways, -first, -last)


def _to_buy(cut: Sequence[HoseCut], hoses: Sequence[HoseStock]) -> list[HoseToBuy]:
    """Pieces off one roll together."""
    rolls = {one.name: one for one in hoses}
    kinds: dict[tuple[str, str, float], list[HoseCut]] = {}
    for one in cut:
        kinds.setdefault((one.stock, one.hose, one.roll_bore_mm), []).append(one)
    bought = []
    for (stock, hose, bore), pieces in kinds.items():
        metres = sum(max(0.0, one.cut_mm) for one in pieces) / 1e3
        price = rolls[stock].per_m if stock else None
        bought.append(
            HoseToBuy(stock or hose, hose, bore, len(pieces), metres, None if price is None else price * metres)
        )
    return bought


HOSES = study(hoses_cut, LINES, PORTS, LINE_PLACES, WORKSHOP)
