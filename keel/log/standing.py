"""Which entries of a log stand: doubles don't count, a correction voids what it names, its own correction undoes it."""

from collections.abc import Sequence
from dataclasses import dataclass

from keel.log.entries import Corrected, Received


@dataclass(frozen=True, slots=True)
class Standing:
    """A log sorted out.

    Attributes
    ----------
    entries : list of Received
        Those that stand, in the order they came, corrections left out.
    void, ignored : frozenset of int
        Numbers of those that a correction voids, and of those that never counted: sent a second time, or correcting
        what isn't there.
    """

    entries: list[Received]
    void: frozenset[int]
    ignored: frozenset[int]


def standing(log: Sequence[Received]) -> Standing:
    """Sort out which entries of a log stand.

    Parameters
    ----------
    log : sequence of Received
        In the order they came.

    Returns
    -------
    Standing
        A correction names an earlier entry; one that is itself void voids nothing. As a correction can only name
        what came before it, going back from the last one settles each in one step.
    """
    number_of: dict[str, int] = {}
    ignored: set[int] = set()
    corrections: list[tuple[int, int]] = []
    for received in log:
        entry = received.entry
        if entry.id in number_of:
            ignored.add(received.n)
            continue
        if isinstance(entry, Corrected):
            named = number_of.get(entry.of)
            if named is None:
                ignored.add(received.n)
            else:
                corrections.append((received.n, named))
        number_of[entry.id] = received.n
    void: set[int] = set()
    for n, named in reversed(corrections):
        if n not in void:
            void.add(named)
    out = void | ignored
    kept = [one for one in log if one.n not in out and not isinstance(one.entry, Corrected)]
    return Standing(kept, frozenset(void), frozenset(ignored))
