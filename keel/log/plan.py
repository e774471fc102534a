"""The order of work as it is followed: the design's operations, and what people added to it or moved in it."""

from collections.abc import Mapping, Sequence

from keel.log.entries import Added, Moved
from keel.studies.build.operation import AllDone, Operation, Traveller
from keel.studies.result import Words, words


def prerequisites(traveller: Traveller) -> dict[str, list[str]]:
    """What has to be done before each operation: what it needs itself, and what the gates before it ask for.

    Parameters
    ----------
    traveller : Traveller
        Operations and gates.

    Returns
    -------
    dict of str to list of str
        By operation, in the order in which they are done, each once.
    """
    found = {operation.id: list(operation.needs) for operation in traveller.operations}
    for gate in traveller.gates:
        asked = [name for one in gate.conditions if isinstance(one, AllDone) for name in one.operations]
        for behind in gate.before:
            found.setdefault(behind, []).extend(asked)
    place = {operation.id: at for at, operation in enumerate(traveller.operations)}
    return {name: sorted(set(needs), key=lambda need: place.get(need, 0)) for name, needs in found.items()}


def in_the_way(
    order: Sequence[Operation], needs: Mapping[str, list[str]], moved: str, after: str | None
) -> Words | None:
    """What forbids that an operation is moved.

    Parameters
    ----------
    order : sequence of Operation
        As they are done now.
    needs : mapping of str to list of str
        What each needs before it.
    moved : str
        The operation.
    after : str or None
        The one it is to follow; None for the first place.

    Returns
    -------
    Words or None
        None when nothing does.
    """
    names = [operation.id for operation in order]
    titles = {operation.id: operation.title.plain() for operation in order}
    if moved not in titles or (after is not None and after not in titles) or moved == after:
        return words("there is no such operation")
    names.remove(moved)
    place = 0 if after is None else names.index(after) + 1
    needed = [name for name in names[place:] if name in needs.get(moved, [])]
    waiting = [name for name in names[:place] if moved in needs.get(name, [])]
    if needed:
        return words("{title} has to come before it", title=titles[needed[0]])
    if waiting:
        return words("{title} has to come after it", title=titles[waiting[-1]])
    return None


def planned(traveller: Traveller, changes: Sequence[Added | Moved]) -> list[Operation]:
    """The operations in the order in which they are done.

    Parameters
    ----------
    traveller : Traveller
        As the design asks for them.
    changes : sequence of Added or Moved
        What people changed, in their order. A move that what it needs forbids, by now, is passed over; an operation
        that follows one that is no longer there comes last.

    Returns
    -------
    list of Operation
        All of them.
    """
    order, needs = list(traveller.operations), prerequisites(traveller)
    for change in changes:
        if isinstance(change, Added):
            if all(operation.id != change.subject for operation in order):
                title = words("{title}", title=change.title)
                own = Operation(change.subject, "fit", title, minutes=change.minutes, covers=change.covers)
                order.insert(_place(order, change.after), own)
        elif in_the_way(order, needs, change.subject, change.after) is None:
            moved = next(operation for operation in order if operation.id == change.subject)
            order.remove(moved)
            order.insert(_place(order, change.after), moved)
    return order


def _place(order: Sequence[Operation], after: str | None) -> int:
    if after is None:
        return 0
    return next((at + 1 for at, operation in enumerate(order) if operation.id == after), len(order))
