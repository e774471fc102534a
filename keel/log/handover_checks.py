"""What forbids that something is written between first fuel and hand-over."""

from keel.log.facts import Facts
from keel.log.handover_entries import Poured
from keel.studies.build.operation import PouredIn, Traveller
from keel.studies.result import Words, words


def why_not_poured(entry: Poured, traveller: Traveller, said: Facts) -> Words | None:
    """Why fuel can't have been poured so.

    Parameters
    ----------
    entry : Poured
        Litres in the cell then, in all.
    traveller : Traveller
        The steps of the fill, and what each cell holds.
    said : Facts
        What stands in the log.

    Returns
    -------
    Words or None
        More than the cell holds, or less than it held at an earlier step; None where it can be.
    """
    steps = [one for gate in traveller.gates for one in gate.conditions if isinstance(one, PouredIn)]
    asked = next((one for one in steps if one.subject == entry.subject), None)
    if asked is None:
        return words("there is no such step of the fill")
    if entry.litres > asked.holds_l:
        said_so = "{poured_l} poured, the cell holds {holds_l}"
        return words(said_so, poured_l=entry.litres, holds_l=asked.holds_l)
    cell = [one.subject for one in steps if one.subject.rsplit("-", 1)[0] == entry.subject.rsplit("-", 1)[0]]
    before = [said.poured[one].entry.litres for one in cell[: cell.index(entry.subject)] if one in said.poured]
    if before and entry.litres < max(before):
        return words("{poured_l} in it after {before_l}", poured_l=entry.litres, before_l=max(before))
    return None
