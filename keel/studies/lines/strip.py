"""The path straightened: from pickup to engine and back, each piece after what it is fed by."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

import networkx as nx

from keel.analysis.parts import LINES
from keel.analysis.study import study
from keel.design.lines import Lines
from keel.studies.lines.flows import FLOWS, LineFlows, Piece
from keel.studies.lines.places import LINE_PLACES, LinePlaces
from keel.studies.lines.services import SERVICES, Service
from keel.studies.lines.tank_side import TANK_PORTS, TankPort

BACK = ("return", "overflow")
"""A ring is cut where fuel comes back."""
LEAST_RUN_M, PART_M, PORT_M, INNER_M = 0.25, 0.3, 0.15, 0.03


@dataclass(frozen=True, slots=True)
class StripPiece:
    """A run, a part or a tank's port along the strip.

    Attributes
    ----------
    from_m, to_m : float
        Where it begins and ends along it; short runs are drawn a quarter of a metre long, parts three tenths.
    start_kpa, end_kpa, flow_lph : list of float or None
        Mode by mode.
    """

    of: str
    id: str
    name: str
    service: Service
    from_m: float
    to_m: float
    start_kpa: list[float | None]
    end_kpa: list[float | None]
    flow_lph: list[float | None]


def strip(
    lines: Lines,
    places: LinePlaces,
    flows: LineFlows,
    service_of: dict[str, Service],
    tank: Mapping[str, TankPort],
) -> list[StripPiece]:
    """Every piece of the line along one straight strip.

    Parameters
    ----------
    lines : Lines
        Names.
    places : LinePlaces
        Lengths.
    flows : LineFlows
        Pressures; which way fuel goes.
    service_of : dict of str to Service
        What runs are for.
    tank : mapping of str to TankPort
        Names of the tank's ports.

    Returns
    -------
    list of StripPiece
        Each begins where the longest way to it ends; what lies beside something longer is stretched to its end.
    """
    widths = _widths(flows, places)
    ahead = [_turned(piece) for piece in flows.pieces]
    at = _places(sorted(ahead, key=lambda piece: service_of.get(piece.owner, "") in BACK), widths)
    names = {part.id: part.name for part in lines.parts} | {run.id: run.name for run in lines.runs}
    names |= {port.id: port.name for port in tank.values()}
    return [
        StripPiece(
            of=piece.of,
            id=piece.owner,
            name=names.get(piece.owner, piece.owner),
            service=service_of.get(piece.owner, "other") if piece.of == "run" else "other",
            from_m=at[piece.start],
            to_m=_end(piece, at, widths),
            start_kpa=piece.start_kpa,
            end_kpa=piece.end_kpa,
            flow_lph=piece.flow_lph,
        )
        for piece in ahead
    ]


def _end(piece: Piece, at: Mapping[str, float], widths: Mapping[tuple[str, str], float]) -> float:
    """Where a piece ends; what leads back to where the strip has been goes on by its own length."""
    start, end = at[piece.start], at[piece.end]
    return end if end >= start else start + _width(piece, widths)


def _widths(flows: LineFlows, places: LinePlaces) -> dict[tuple[str, str], float]:
    """How long each owner's longest piece is drawn."""
    return {("run", way.id): max(LEAST_RUN_M, way.length_mm / 1e3) for way in places.runs}


def _turned(piece: Piece) -> Piece:
    """As fuel goes through it, over all modes; what never flows stays as it is meant."""
    total = sum(flow or 0.0 for flow in piece.flow_lph)
    if total > -1e-6:
        return piece
    back = [None if flow is None else -flow for flow in piece.flow_lph]
    return Piece(piece.of, piece.owner, piece.end, piece.start, piece.end_kpa, piece.start_kpa, back)


def _width(piece: Piece, widths: Mapping[tuple[str, str], float]) -> float:
    if piece.of == "run":
        return widths[piece.of, piece.owner]
    if piece.of == "port":
        return PORT_M
    return PART_M if {piece.start, piece.end} & _main(piece.owner) else INNER_M


def _main(part: str) -> set[str]:
    """Joints at which a part's own element ends."""
    return {f"{part}.in", f"{part}.out", f"{part}.drive", f"{part}.return"}


def _places(pieces: Sequence[Piece], widths: Mapping[tuple[str, str], float]) -> dict[str, float]:
    """Where each joint lies: as far as the longest way to it. A ring that feeds itself is cut once."""
    graph: nx.DiGraph[str] = nx.DiGraph()
    graph.add_nodes_from(joint for piece in pieces for joint in (piece.start, piece.end))
    for piece in pieces:
        if not graph.has_node(piece.end) or not nx.has_path(graph, piece.end, piece.start):
            graph.add_edge(piece.start, piece.end, width=_width(piece, widths))
    at: dict[str, float] = {}
    for joint in nx.topological_sort(graph):
        before = [at[one] + graph.edges[one, joint]["width"] for one in graph.predecessors(joint)]
        at[joint] = max(before, default=0.0)
    return at


STRIP = study(strip, LINES, LINE_PLACES, FLOWS, SERVICES, TANK_PORTS)
