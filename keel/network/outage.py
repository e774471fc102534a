"""What still runs, and what still feeds, when one element is out: reachability in two graphs."""

from collections.abc import Collection, Iterable, Sequence
from dataclasses import dataclass

import networkx as nx

Link = tuple[str, str]


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
