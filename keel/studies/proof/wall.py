"""What is said of one part of the wall under test, and which cells press on it."""

from dataclasses import dataclass

import numpy as np

from keel.solid.box import Triple
from keel.solid.polyhedron import Array
from keel.solid.shapes import holds
from keel.solid.solids import Solids
from keel.studies.result import Point, words
from keel.studies.strength.panels.panel import Panel, PanelEdge, how_held

JUST_INSIDE_MM = 2.0
AT_ONE_KPA = (1.0, words("test pressure"))


@dataclass(frozen=True, slots=True)
class TestPanel:
    """One part of the wall of a cell under test.

    Attributes
    ----------
    name, what : str
        Which, and what it is.
    held : str
        How its edges are held, in words.
    edges : list of PanelEdge
        The same, edge by edge, as in `Panel`; none where it is curved.
    first_mm, second_mm, thickness_mm : float
        Its sides and sheet [mm].
    safe_kpa, vacuum_kpa : float
        Pressure inside and vacuum that it bears [kPa].
    bow_mm : float
        How far its middle bows at 1 kPa by plates that bend [mm].
    cells : list of str
        Which cells press on it.
    corners : list of Point
        Where it lies: four corners round it [mm]; none where it is curved.
    out : Point
        The way it bows, as a unit vector.
    round : bool
        A disc in those corners.
    """

    name: str
    what: str
    held: str
    edges: list[PanelEdge]
    first_mm: float
    second_mm: float
    thickness_mm: float
    safe_kpa: float
    vacuum_kpa: float
    bow_mm: float
    cells: list[str]
    corners: list[Point]
    out: Point
    round: bool = False


def of_plate(panel: Panel, corners: Array, out: Triple, cells: list[str]) -> TestPanel:
    """A flat part of the wall.

    Parameters
    ----------
    panel : Panel
        Judged at one kilopascal.
    corners : ndarray, shape (4, 3)
        Where it lies [mm].
    out : (float, float, float)
        Unit vector the way it bows.
    cells : list of str
        Which press on it.

    Returns
    -------
    TestPanel
        Pressure from either side bends it alike.
    """
    return TestPanel(
        name=panel.name,
        what=panel.what,
        held=how_held(panel),
        edges=panel.edges,
        first_mm=panel.first_mm,
        second_mm=panel.second_mm,
        thickness_mm=panel.thickness_mm,
        safe_kpa=panel.proof_kpa,
        vacuum_kpa=panel.proof_kpa,
        bow_mm=panel.deflection_mm,
        cells=cells,
        corners=[Point.of(corner) for corner in corners],
        out=Point.of(out),
        round=panel.round,
    )


def cells_at(solids: Solids, corners: Array, out: Triple, what: str) -> list[str]:
    """Cells just inside a part of the wall.

    Parameters
    ----------
    solids : Solids
        With the cells.
    corners : ndarray, shape (4, 3)
        Where it lies [mm].
    out : (float, float, float)
        Unit vector outward.
    what : str
        What it is: on a partition both sides count.

    Returns
    -------
    list of str
        All of them where none is met there.
    """
    if len(solids.cells) == 1:
        return [solids.cells[0].name]
    middle, way = corners.mean(axis=0), np.array(out)
    depth = JUST_INSIDE_MM + max(solids.shell.thickness_mm, solids.shell.end_wall_mm, solids.shell.feature_wall_mm)
    spots = [middle - depth * way] + ([middle + depth * way] if what == "partition" else [])
    found = [cell.name for cell in solids.cells if any(holds(cell.solid, spot) for spot in spots)]
    return found or [cell.name for cell in solids.cells]
