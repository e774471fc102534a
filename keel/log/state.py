"""How far a tank is: each operation, each gate, from the order of work and the log."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from datetime import datetime
from typing import Literal

from keel.findings.open_items import OpenItem
from keel.log.commission import Commission, commission
from keel.log.entries import Accepted, Agreed, Asked, Done, Learnt, Paused, Received, SentOut, Skipped, Started
from keel.log.facts import Facts, Said, facts
from keel.log.gates import GateState, gate_states, here
from keel.log.ledger import goes_by_ledger, ledger
from keel.log.plan import planned, prerequisites
from keel.log.proofs import CellProof, proofs
from keel.log.standing import standing
from keel.studies.build.operation import Bought, Operation, Traveller

OperationStanding = Literal["open", "started", "done", "skipped"]
SECONDS_PER_MIN = 60.0


@dataclass(frozen=True, slots=True)
class OperationState:
    """An operation as the log has it.

    Attributes
    ----------
    operation : Operation
        What it is.
    standing : OperationStanding
        How far.
    by : list of str
        Who worked on it.
    when : datetime or None
        When it was begun, done or skipped last.
    spent_min : float or None
        Time between beginning and end, over all who worked on it [min]; None where nobody took it.
    reason : str
        Why it was skipped, or left as it is after a change.
    changed : list of str
        What the design has changed of it since it was done and nobody accepted.
    waits_for : list of str
        Operations that it needs and that are open.
    shut : list of str
        Gates before it that are shut.
    asks : list of str
        What makers ask for before it is done.
    away : list of str
        Parts of it that are with somebody else, or came back not as they should be.
    entry : str
        The entry that its standing comes from: what a correction names; empty where it is open.
    """

    operation: Operation
    standing: OperationStanding
    by: list[str]
    when: datetime | None
    spent_min: float | None
    reason: str
    changed: list[str]
    waits_for: list[str]
    shut: list[str]
    asks: list[str]
    away: list[str]
    entry: str


@dataclass(frozen=True, slots=True)
class GoodsState:
    """Something bought, as far as it has come: whole and damaged pieces, caps, what its maker asks for."""

    item: Bought
    whole: int
    damaged: int
    caps: int
    asks: list[str]


@dataclass(frozen=True, slots=True)
class OutState:
    """Work given to somebody else, and when it came back."""

    sent: SentOut
    author: str
    when: datetime
    back: datetime | None
    whole: bool | None


@dataclass(frozen=True, slots=True)
class AgreedState:
    """What the customer agreed to."""

    agreed: Agreed
    author: str
    when: datetime


@dataclass(frozen=True, slots=True)
class LearntState:
    """What a revision taught."""

    learnt: Learnt
    author: str
    when: datetime


@dataclass(frozen=True, slots=True)
class BuildState:
    """How far a tank is.

    Attributes
    ----------
    operations : list of OperationState
        In the order in which they are done.
    gates : list of GateState
        All of them.
    next : str or None
        The first operation that is open and waits for nothing; None when there is none.
    gone : list of str
        Operations that the log has done and the design no longer asks for.
    goods, out, agreed, learnt : list
        What is bought, what was sent out, what was agreed, what was learnt.
    names : dict of str to str
        What the flats, ports and senders are called that operations are done on.
    proofs : list of CellProof
        Leak tests, cell by cell.
    ledger : list of OpenItem
        Everything that stands open, and what somebody lets stay.
    commission : Commission
        First fuel, lines and first fill.
    """

    operations: list[OperationState]
    gates: list[GateState]
    next: str | None
    gone: list[str]
    goods: list[GoodsState]
    out: list[OutState]
    agreed: list[AgreedState]
    learnt: list[LearntState]
    names: dict[str, str]
    proofs: list[CellProof]
    ledger: list[OpenItem]
    commission: Commission


def build_state(
    traveller: Traveller,
    log: Sequence[Received],
    now: datetime,
    design: int | None = None,
    drawn: Sequence[OpenItem] = (),
) -> BuildState:
    """How far a tank is.

    Parameters
    ----------
    traveller : Traveller
        What the design asks for.
    log : sequence of Received
        All entries of the job, in the order they came.
    now : datetime
        By which the age of readings and time on work in hand go.
    design : int, optional
        Which design of the job; entries about others don't count.
    drawn : sequence of OpenItem, optional
        What the design leaves open.

    Returns
    -------
    BuildState
        Computed from nothing else.
    """
    said = facts(standing(log).entries, design)
    order = planned(traveller, said.plan)
    titles = {one.id: one.title.plain() for one in order}
    proved = proofs(traveller.tests, said, titles)
    gates, items = _gates(traveller, order, said, now, titles, proved, drawn)
    _open_again(said, order, gates)
    needs = prerequisites(traveller)
    times = by_operation(said)
    states = [_operation(one, said, gates, needs, times.get(one.id, {}), traveller.names) for one in order]
    ready = (
        one
        for one in states
        if one.standing in ("open", "started") and not one.waits_for and not one.shut and not one.away
    )
    known = {one.id for one in order}
    return BuildState(
        operations=states,
        gates=gates,
        next=next((one.operation.id for one in ready), None),
        gone=[name for name in said.done if name not in known],
        goods=[_goods(item, said) for item in traveller.goods],
        out=_out(said),
        agreed=[AgreedState(one.entry, one.author, one.happened) for one in said.agreed],
        learnt=[LearntState(one.entry, one.author, one.happened) for one in said.learnt],
        names=traveller.names,
        proofs=proved,
        ledger=items,
        commission=commission(traveller, said),
    )


def _gates(
    traveller: Traveller,
    order: Sequence[Operation],
    said: Facts,
    now: datetime,
    titles: Mapping[str, str],
    proved: Sequence[CellProof],
    drawn: Sequence[OpenItem],
) -> tuple[list[GateState], list[OpenItem]]:
    """Gates in their order; those that ask for nothing open are judged by the ledger, which tells of the others."""
    waiting = {gate.id for gate in traveller.gates if goes_by_ledger(gate)}
    plain = [gate for gate in traveller.gates if gate.id not in waiting]
    judged = gate_states(plain, said, now, titles, proved)
    items = ledger(traveller, order, said, judged, proved, drawn)
    last = [gate for gate in traveller.gates if gate.id in waiting]
    states = {one.gate.id: one for one in [*judged, *gate_states(last, said, now, titles, proved, items)]}
    return [states[gate.id] for gate in traveller.gates], items


def _open_again(said: Facts, order: Sequence[Operation], gates: Sequence[GateState]) -> None:
    """A leak test that no longer holds isn't done any more: what comes after it waits again."""
    shut = {gate.gate.id for gate in gates if gate.standing == "shut" and gate.gate.covering}
    for operation in order:
        held = any(gate.gate.id in shut and operation.id in gate.gate.before for gate in gates)
        if operation.kind == "prove" and held:
            said.done.pop(operation.id, None)


def _goods(item: Bought, said: Facts) -> GoodsState:
    came = said.arrived.get(item.id, [])
    return GoodsState(
        item=item,
        whole=here(item.id, said),
        damaged=sum(one.value for one in came if not one.whole),
        caps=sum(one.caps for one in came),
        asks=[_ask(one) for one in said.asked if one.subject == item.id],
    )


def _ask(asked: Asked) -> str:
    return asked.asks + (f" (wait {asked.wait_min:g} min)" if asked.wait_min else "")


def _out(said: Facts) -> list[OutState]:
    return [
        OutState(
            sent=one.entry,
            author=one.author,
            when=one.happened,
            back=said.back[name].happened if name in said.back else None,
            whole=said.back[name].entry.whole if name in said.back else None,
        )
        for name, one in said.sent.items()
    ]


def _away(operation: Operation, said: Facts) -> list[str]:
    """Parts that were sent out and aren't back and right; what sends them out doesn't wait for them."""
    right = {name for name, one in said.back.items() if one.entry.whole}
    away = {part for name, one in said.sent.items() if name not in right for part in one.entry.parts}
    return [] if operation.kind == "send" else [part for part in operation.parts if part in away]


Times = Mapping[str, list[Said[Started | Paused | Done]]]


def by_operation(said: Facts) -> dict[str, dict[str, list[Said[Started | Paused | Done]]]]:
    """Times of each operation, by who worked on it."""
    found: dict[str, dict[str, list[Said[Started | Paused | Done]]]] = {}
    for (operation, author), times in said.times.items():
        found.setdefault(operation, {})[author] = times
    return found


def _operation(
    operation: Operation,
    said: Facts,
    gates: Sequence[GateState],
    needs: Mapping[str, list[str]],
    times: Times,
    names: Mapping[str, str],
) -> OperationState:
    done, skipped = said.done.get(operation.id), said.skipped.get(operation.id)
    accepted = said.accepted.get(operation.id)
    last: Said[Done] | Said[Skipped] | None = done or skipped
    begun = max((one for ones in times.values() for one in ones), key=lambda one: one.happened, default=None)
    latest = last or begun
    settled = {*said.done, *said.skipped}
    return OperationState(
        operation=operation,
        standing="done" if done else "skipped" if skipped else "started" if times else "open",
        by=list(dict.fromkeys([*times, *([last.author] if last else [])])),
        when=latest.happened if latest else None,
        entry=latest.entry.id if latest else "",
        spent_min=spent_min(times),
        reason=skipped.entry.reason if skipped else accepted.entry.reason if done and accepted else "",
        changed=_changed(operation, done, accepted) if done else [],
        waits_for=[name for name in needs.get(operation.id, []) if name not in settled],
        asks=[_ask(one) for one in said.asked if one.before == operation.id],
        away=[names.get(part, part) for part in _away(operation, said)],
        shut=[one.gate.id for one in gates if _holds(one, operation) and one.standing == "shut"],
    )


def _holds(gate: GateState, operation: Operation) -> bool:
    """Whether an operation waits for a gate."""
    return operation.id in gate.gate.before or (gate.gate.covering and operation.covers)


def _changed(operation: Operation, done: Said[Done], accepted: Said[Accepted] | None) -> list[str]:
    """Names whose digest is no longer the one that it was done, or accepted, with."""
    seen = accepted.entry.basis if accepted and accepted.happened >= done.happened else done.entry.basis
    if not seen:
        return []
    names = dict.fromkeys([*operation.basis, *seen])
    return [name for name in names if operation.basis.get(name) != seen.get(name)]


def spent_min(times: Times) -> float | None:
    """Time between beginning and leaving or ending, over all who worked [min].

    Parameters
    ----------
    times : mapping of str to list of Said
        When each began, left and ended, in their order.

    Returns
    -------
    float or None
        None where nobody took it from beginning to end.
    """
    total, taken = 0.0, False
    for ones in times.values():
        begun: datetime | None = None
        for one in ones:
            if isinstance(one.entry, Started):
                begun = begun or one.happened
            elif begun is not None:
                total, taken = total + max(0.0, (one.happened - begun).total_seconds()), True
                begun = None
    return total / SECONDS_PER_MIN if taken else None
