"""Metal that fuel runs through, what joins it to the chassis, and what rubber keeps it apart from it."""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

import networkx as nx

from keel.analysis.parts import LINES, PORTS, WIRING
from keel.analysis.study import study
from keel.design.lines import Lines
from keel.design.ports import Port, opened
from keel.design.wiring import Wiring

CHASSIS, TANK = "chassis", "tank"
Metal = Literal["chassis", "tank", "filler", "part"]
CHARGED = ("filter",)
"""Kinds of metal parts between hoses that fuel charges as it runs through."""


@dataclass(frozen=True, slots=True)
class MetalPiece:
    """A piece of metal.

    Attributes
    ----------
    key : str
        What a bond names it by.
    joined : bool
        It is bonded to the chassis, over others or straight.
    behind : str
        What rubber it stands behind.
    by_word : bool
        Not by a bond that is drawn, but by what the port says.
    """

    key: str
    name: str
    metal: Metal
    joined: bool
    behind: str
    by_word: bool


@dataclass(frozen=True, slots=True)
class Bonding:
    """All pieces; `loose`: bonds with an end at something that isn't there, by id."""

    pieces: list[MetalPiece]
    loose: list[str]


def bonding(wiring: Wiring, ports: Sequence[Port], lines: Lines) -> Bonding:
    """Every piece of metal from filler to chassis, and whether it is bonded.

    Parameters
    ----------
    wiring : Wiring
        Bonds.
    ports : sequence of Port
        Fillers: one whose neck has a hose stands behind rubber.
    lines : Lines
        Metal filters between hoses.

    Returns
    -------
    Bonding
        Straps, pads and rubber feet count as keeping the tank apart from the chassis: whether metal touches metal there
        is what the reading shows.
    """
    fillers = [port for port in opened(ports, "filler") if port.neck is not None and port.neck.hose is not None]
    named: dict[str, tuple[str, Metal, str]] = {
        CHASSIS: ("chassis", "chassis", ""),
        TANK: ("tank", "tank", "the pads of its mount"),
    }
    named |= {f"filler:{port.id}": (f"neck of {port.name}", "filler", "its fill hose") for port in fillers}
    named |= {
        f"part:{part.id}": (part.name, "part", "the hoses at both its ends")
        for part in lines.parts
        if part.does.kind in CHARGED and part.metal is not None and part.hangs_in is None
    }
    graph: nx.Graph[str] = nx.Graph()
    graph.add_nodes_from(named)
    sound = [bond for bond in wiring.bonds if bond.start in named and bond.end in named]
    graph.add_edges_from((bond.start, bond.end) for bond in sound)
    drawn = nx.node_connected_component(graph, CHASSIS)
    said = {f"filler:{port.id}" for port in fillers if port.neck is not None and port.neck.bonded}
    pieces = [
        MetalPiece(key, name, metal, key in drawn or key in said, behind, key in said and key not in drawn)
        for key, (name, metal, behind) in named.items()
    ]
    return Bonding(pieces, [bond.id for bond in wiring.bonds if bond not in sound])


BONDING = study(bonding, WIRING, PORTS, LINES)
