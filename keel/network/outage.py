"""What still runs, and what still feeds, when one element is out: reachability in two graphs."""

from collections.abc import Collection, Iterable, Mapping, Sequence
from dataclasses import dataclass

import networkx as nx

Link = tuple[str, str]
NEVER_OUT = ("battery", "tank", "tee", "rail")
"""Ends and joints that are no element of their own."""


@dataclass(frozen=True, slots=True)
class Outage:
    """What is left when one element is out.

    Attributes
    ----------
    running : list of str
        Pumps that current still reaches, by name.
    feeding : list of str
        Those of them that fuel still goes through to the rail.
    """

    out: str
    running: list[str]
    feeding: list[str]


def outage(
    electric: Sequence[Link], fuel: Sequence[Link], pumps: Collection[str], out: str, source: str = "battery"
) -> Outage:
    """What is left when an element is out: it passes neither current nor fuel.

    Parameters
    ----------
    electric, fuel : sequence of (str, str)
        Which element leads on to which: current from `source` to the pumps, fuel from "tank" to "rail".
    pumps : collection of str
        Elements of both.
    out : str
        The one that is out; "none": all are well.
    source : str
        Where current comes from.

    Returns
    -------
    Outage
        A pump runs when there is a way of elements that aren't out from the source to it; it feeds when it runs and
        fuel has a way through it over elements that aren't out and pumps that run.

    References
    ----------
    Single failures as reachability in a graph: R. E. Barlow, F. Proschan, Statistical Theory of Reliability (1975).
    """
    current = _reached(electric, {out}, source)
    running = sorted(pump for pump in pumps if pump in current and pump != out)
    ways = _graph(fuel, {out} | (set(pumps) - set(running)))
    before = nx.descendants(ways, "tank") if "tank" in ways else set()
    behind = nx.ancestors(ways, "rail") if "rail" in ways else set()
    return Outage(out, running, [pump for pump in running if pump in before and pump in behind])


def _graph(links: Iterable[Link], gone: set[str]) -> "nx.DiGraph[str]":
    graph: nx.DiGraph[str] = nx.DiGraph()
    graph.add_edges_from(link for link in links if not gone & set(link))
    return graph


def _reached(links: Iterable[Link], gone: set[str], source: str) -> set[str]:
    graph = _graph(links, gone)
    return {source, *nx.descendants(graph, source)} if source in graph else {source} - gone


def modes_left(feeding: Sequence[str], flow_lph: Mapping[str, float], demand_lph: Mapping[str, float]) -> list[str]:
    """Modes whose demand the feeding pumps still meet, without a margin.

    Parameters
    ----------
    feeding : sequence of str
        Pumps.
    flow_lph : mapping of str to float
        What each gives at the rail's pressure.
    demand_lph : mapping of str to float
        What each mode draws.

    Returns
    -------
    list of str
        In the order of the modes.
    """
    total = sum(flow_lph[pump] for pump in feeding)
    return [mode for mode, wanted in demand_lph.items() if total > 0 and total >= wanted]


def stops_all(electric: Sequence[Link], fuel: Sequence[Link], pumps: Collection[str]) -> list[str]:
    """Single elements without which nothing feeds at all.

    Parameters
    ----------
    electric, fuel : sequence of (str, str)
        As for `outage`.
    pumps : collection of str
        As for `outage`.

    Returns
    -------
    list of str
        By name; ends and tees are none of them.
    """
    names = {name for link in [*electric, *fuel] for name in link} - set(NEVER_OUT)
    return sorted(name for name in names if not outage(electric, fuel, pumps, name).feeding)
