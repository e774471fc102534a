"""Flat parts as they are cut: with the holes of the ports, and bends numbered in the order that the folder can make."""

from collections.abc import Sequence
from dataclasses import replace

from keel.analysis.parts import PORTS
from keel.analysis.study import study
from keel.design.ports import Port
from keel.solid.solids import Solids
from keel.studies.sheet.bending import BENDINGS, Bending, Bendings, along
from keel.studies.sheet.doublers import DOUBLERS
from keel.studies.sheet.grain import grain_of
from keel.studies.sheet.hems import is_hem
from keel.studies.sheet.holes import with_holes
from keel.studies.sheet.let_in import LET_IN, pieces_of_plates
from keel.studies.sheet.lying import Lying
from keel.studies.sheet.model import Sheet
from keel.studies.sheet.openings import OPENINGS, Opening
from keel.studies.sheet.parts import FlatPart
from keel.studies.sheet.shell_parts import BARE_SOLIDS, PIECES
from keel.studies.sheet.unfold import SHEET
from keel.studies.sheet.witness import LANDED, Landed

Ported = tuple[Solids, Sequence[Port]]


def as_cut(
    made: Sheet,
    bent: Bendings,
    pieces: Sequence[Lying],
    let_in: list[FlatPart],
    opened: Sequence[Opening],
    etched: Sequence[Landed],
    at: Ported,
) -> Sheet:
    """All parts as they are cut and bent.

    Parameters
    ----------
    made : Sheet
        All parts of the shell, and what stands inside.
    bent : Bendings
        In which order each is bent.
    pieces : sequence of Lying
        Of the shell's own parts.
    let_in : list of FlatPart
        Features' plates, and rings round ports.
    opened : sequence of Opening
        What features take out of the shell's parts.
    etched : sequence of Landed
        Where what stands inside lands on them.
    at : (Solids, tuple of Port)
        Where the ports go through.

    Returns
    -------
    Sheet
        Numbered as `bent` has it; a part that no order bends keeps the numbers that it has.
    """
    orders = {one.name: one for one in bent.parts if one.orders}
    numbered = [_numbered(part, orders.get(part.name)) for part in [*made.parts, *let_in]]
    everywhere = [*pieces, *pieces_of_plates(let_in)]
    cut = with_holes(replace(made, parts=numbered), everywhere, opened, etched, *at)
    return replace(cut, parts=[replace(part, grain=grain_of(part)) for part in cut.parts])


def _numbered(part: FlatPart, bent: Bending | None) -> FlatPart:
    if bent is None:
        return part
    turn = {step.bend: number for number, step in enumerate(bent.steps, start=1)}
    hems = [bend for bend in part.bends if is_hem(bend)]
    bends = [replace(bend, order=turn[number]) for number, bend in enumerate([*along(part), *hems], start=1)]
    return replace(part, bends=sorted(bends, key=lambda bend: bend.order))


def ported(solids: Solids, ports: tuple[Port, ...]) -> Ported:
    """The shell as built, and its ports."""
    return solids, ports


def added(let_in: list[FlatPart], rings: list[FlatPart]) -> list[FlatPart]:
    """What is made beside the shell's own parts: features' plates, and rings round ports."""
    return [*let_in, *rings]


ADDED = study(added, LET_IN, DOUBLERS)
PORTED = study(ported, BARE_SOLIDS, PORTS)
FLATS = study(as_cut, SHEET, BENDINGS, PIECES, ADDED, OPENINGS, LANDED, PORTED)
"""All parts as they are cut."""
