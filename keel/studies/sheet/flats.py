"""Flat parts as they are cut: with the holes of the ports, and bends numbered in the order that the folder can make."""

from collections.abc import Sequence
from dataclasses import replace

from keel.analysis.parts import PORTS
from keel.analysis.study import study
from keel.design.ports import Port
from keel.solid.solids import Solids
from keel.studies.sheet.bending import BENDINGS, Bending, Bendings, along
from keel.studies.sheet.bores import with_bores
from keel.studies.sheet.lying import Lying
from keel.studies.sheet.model import Sheet
from keel.studies.sheet.parts import FlatPart
from keel.studies.sheet.unfold import BARE_SOLIDS, PIECES, SHEET


def as_cut(made: Sheet, bent: Bendings, pieces: Sequence[Lying], solids: Solids, ports: Sequence[Port]) -> Sheet:
    """All parts as they are cut and bent.

    Parameters
    ----------
    made : Sheet
        All parts.
    bent : Bendings
        In which order each is bent.
    pieces, solids, ports
        What carries the ports' holes to the flats.

    Returns
    -------
    Sheet
        Numbered as `bent` has it; a part that no order bends keeps the numbers that it has.
    """
    orders = {one.name: one for one in bent.parts if one.orders}
    numbered = [_numbered(part, orders.get(part.name)) for part in made.parts]
    return with_bores(replace(made, parts=numbered), pieces, solids, ports)


def _numbered(part: FlatPart, bent: Bending | None) -> FlatPart:
    if bent is None:
        return part
    turn = {step.bend: number for number, step in enumerate(bent.steps, start=1)}
    bends = [replace(bend, order=turn[number]) for number, bend in enumerate(along(part), start=1)]
    return replace(part, bends=sorted(bends, key=lambda bend: bend.order))


FLATS = study(as_cut, SHEET, BENDINGS, PIECES, BARE_SOLIDS, PORTS)
"""All parts as they are cut."""
