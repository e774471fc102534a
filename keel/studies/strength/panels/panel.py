"""What is said of one panel, and how its edges are joined and held."""

from collections.abc import Sequence
from dataclasses import dataclass, replace

from keel.design.shell import BoxShell, CylinderShell, ProfileShell
from keel.reference.plates import HELD, Held
from keel.studies.result import Words

BEND, WELD, FLANGE, OVER = "bend", "weld on one side", "flange", "goes on over it"
TYPED = "as typed"
HOLDS: dict[str, Held] = {BEND: "clamped", WELD: "simply supported", FLANGE: "clamped", OVER: "clamped"}
"""How an edge is held by its joint: carried on over a bend it can't turn, beside a weld on one side it can."""


@dataclass(frozen=True, slots=True)
class PanelEdge:
    """One edge of a panel: what it meets there, how it is joined, and so how it is held."""

    beside: str
    joint: str
    held: Held


@dataclass(frozen=True, slots=True)
class Panel:
    """One flat panel, the widest-spread of its fields, under the most that presses on it.

    Attributes
    ----------
    name, what : str
        Which panel, and what it is.
    first_mm, second_mm : float
        Its sides: the first lies across in its drawing, the second upward.
    edges : list of PanelEdge
        At the low and the high end of the first side, then of the second; one for a round panel, none for a wall that
        is rolled.
    load : Words
        What presses on it.
    stress_share : float
        Greatest stress as a share of the yield beside a weld.
    allowed_share : float
        What share is allowed: the house rule.
    """

    name: str
    what: str
    first_mm: float
    second_mm: float
    long_mm: float
    short_mm: float
    thickness_mm: float
    edges: list[PanelEdge]
    round: bool
    load: Words
    pressure_kpa: float
    stress_mpa: float
    stress_share: float
    deflection_mm: float
    large_deflection_mm: float
    allowed_mpa: float
    allowed_share: float
    least_thickness_mm: float
    proof_kpa: float
    small_deflection_exceeded: bool
    swaged: bool

    @property
    def is_thin(self) -> bool:
        """Whether it wants thicker sheet."""
        return self.least_thickness_mm > self.thickness_mm


def edge_at(beside: str, joint: str) -> PanelEdge:
    """An edge held as its joint holds it.

    Parameters
    ----------
    beside : str
        What the panel meets there.
    joint : str
        How it is joined: bend, flange, weld on one side, going on over it.

    Returns
    -------
    PanelEdge
        Clamped or simply supported.
    """
    return PanelEdge(beside, joint, HOLDS[joint])


def typed_edges(
    shell: BoxShell | ProfileShell | CylinderShell, panel: str, edges: Sequence[PanelEdge]
) -> list[PanelEdge]:
    """Edges as the shell says, where it does.

    Parameters
    ----------
    shell : BoxShell, ProfileShell or CylinderShell
        With the edges that somebody typed.
    panel : str
        Name of the panel.
    edges : sequence of PanelEdge
        As their joints have them.

    Returns
    -------
    list of PanelEdge
        In the same order.
    """
    said = {(edge.panel, edge.beside): edge.held for edge in shell.edges}
    return [
        replace(edge, held=said[panel, edge.beside], joint=TYPED) if (panel, edge.beside) in said else edge
        for edge in edges
    ]


def how_held(panel: Panel) -> str:
    """How a panel's edges are held, in words.

    Parameters
    ----------
    panel : Panel
        A flat panel.

    Returns
    -------
    str
        A phrase.
    """
    by = {held: [edge.beside for edge in panel.edges if edge.held == held] for held in HELD}
    if not panel.edges:
        return "stretched, not bent"
    if not all(by.values()):
        return next(f"{held} all round" for held, beside in by.items() if beside)
    return ", ".join(f"{held} at {' and '.join(beside)}" for held, beside in by.items())
