"""The line's small parts spread out where they are, or together on one board that comes off, with their figures."""

from collections.abc import Sequence
from dataclasses import dataclass, replace
from math import ceil

from keel.analysis.tank import TankAnalysis
from keel.design.line_parts import LinePart
from keel.design.lines import LineRun
from keel.studies.lines.places import LINE_PLACES
from keel.studies.mount.loads import loads_of
from keel.studies.result import Words, words

ON_BOARDS = ("pump", "filter", "check valve", "isolating valve", "sensor", "tee", "regulator")
BETWEEN_MM = 120.0
"""Of hose between two parts on a board, with its ends (house rule)."""
MARGIN_MM = 30.0
ROW_MM = 450.0
G = 9.80665
FEW = 2


@dataclass(frozen=True, slots=True)
class BoardWay:
    """One way to place the parts.

    Attributes
    ----------
    parts : list of str
        Names of what it is about.
    undone : int
        Joints undone to have all of them on the bench.
    hose_m : float
        Of hose and tube between them.
    board_mm : (float, float) or None
        Length and width of the board; None: there is none.
    heaviest_kg, load_n : float or None
        What one fastening holds: of the board all of them, and its load at the greatest g of the mounts; None where a
        mass isn't typed.
    """

    title: str
    chosen: bool
    parts: list[str]
    undone: int
    hose_m: float
    board_mm: tuple[float, float] | None
    heaviest_kg: float | None
    load_n: float | None
    means: Words
    favoured: bool = False
    why: Words | None = None


def board_ways(tank: TankAnalysis) -> list[BoardWay]:
    """Both ways, for pumps, filters, valves and regulators that hang in no tank.

    Parameters
    ----------
    tank : TankAnalysis
        The design under evaluation.

    Returns
    -------
    list of BoardWay
        Empty with fewer than two parts, and with fuels that must not meet. The one that takes
        fewer joints to have everything on the bench is favoured.
    """
    lines = tank.design.lines
    parts = [part for part in lines.parts if part.does.kind in ON_BOARDS and part.hangs_in is None]
    if len(parts) < FEW or len({one.fuel for one in lines.fuels}) > 1:
        return []
    names = {part.id for part in parts}
    ends = [(run.start.part in names, run.end.part in names) for run in lines.runs]
    within = [run for run, (a, b) in zip(lines.runs, ends, strict=True) if a and b]
    outward = [run for run, (a, b) in zip(lines.runs, ends, strict=True) if a != b]
    g = max(loads_of(tank.design.mount, tank.workshop.rules).model_dump().values())
    on_one = bool(parts[0].board) and all(part.board == parts[0].board for part in parts)
    spread = _spread(tank, parts, within, outward, g)
    board = _board(parts, within, outward, g)
    less = board.undone < spread.undone
    best = board if less else spread
    why = words(
        "{few} joints undone instead of {many}",
        few=min(board.undone, spread.undone),
        many=max(board.undone, spread.undone),
    )
    if board.undone == spread.undone:
        why = words("a board saves no joint here")
    return [
        replace(one, chosen=on_one == (one is board), favoured=one is best, why=why if one is best else None)
        for one in (spread, board)
    ]


def _spread(
    tank: TankAnalysis, parts: Sequence[LinePart], within: Sequence[LineRun], outward: Sequence[LineRun], g: float
) -> BoardWay:
    longs = {way.id: way.length_mm for way in tank[LINE_PLACES].runs}
    heaviest = None if any(part.kg is None for part in parts) else max(part.kg or 0.0 for part in parts)
    return BoardWay(
        title="Spread out",
        chosen=False,
        parts=[part.name for part in parts],
        undone=2 * len(within) + len(outward),
        hose_m=sum(longs.get(run.id, 0.0) for run in within) / 1e3,
        board_mm=None,
        heaviest_kg=heaviest,
        load_n=None if heaviest is None else heaviest * g * G,
        means=words("Each where there is room and coolest; each is reached, and torn off, by itself."),
    )


def _board(parts: Sequence[LinePart], within: Sequence[LineRun], outward: Sequence[LineRun], g: float) -> BoardWay:
    row = sum(part.long_mm for part in parts) + BETWEEN_MM * (len(parts) - 1)
    rows = ceil(row / ROW_MM)
    across = max(part.across_mm for part in parts) + MARGIN_MM
    kg = None if any(part.kg is None for part in parts) else sum(part.kg or 0.0 for part in parts)
    return BoardWay(
        title="On one board",
        chosen=False,
        parts=[part.name for part in parts],
        undone=len(outward),
        hose_m=len(within) * BETWEEN_MM / 1e3,
        board_mm=(row / rows + 2 * MARGIN_MM, rows * across + MARGIN_MM),
        heaviest_kg=kg,
        load_n=None if kg is None else kg * g * G,
        means=words(
            "Made up and proved on the bench, off with a few joints. All of it hangs on one set of bolts, in one place."
        ),
    )
