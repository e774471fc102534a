"""Whether a gate is open: what its conditions need, and what the log says."""

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass
from datetime import datetime, timedelta
from typing import Any, Literal

from keel.findings.open_items import OpenItem, stands_before
from keel.log.entries import Measured, Read
from keel.log.facts import Facts, Said
from keel.log.line_proof import joint_lacks, line_lacks
from keel.log.proofs import CellProof
from keel.studies.build.operation import (
    AllDone,
    AllHere,
    Condition,
    CountsMatch,
    FlushedClean,
    FreeOfVapour,
    Gate,
    JointsDry,
    LineHolds,
    Looked,
    MeasurementsAgree,
    NothingOpen,
    NotShut,
    PouredIn,
    Proved,
    ReadingAtMost,
)
from keel.studies.result import Words, words

LEAST_POURED = 0.95
"""Of what a step of the fill asks for: less isn't that step."""
GateStanding = Literal["open", "overridden", "shut"]


@dataclass(frozen=True, slots=True)
class ConditionState:
    """A condition, why it isn't met (None where it is), and the last reading that it goes by."""

    condition: Condition
    lacks: Words | None
    reading: float | None


@dataclass(frozen=True, slots=True)
class Override:
    """Who passed a gate that wasn't met, and why."""

    name: str
    reason: str
    author: str
    when: datetime


@dataclass(frozen=True, slots=True)
class GateState:
    """A gate as the log has it.

    Attributes
    ----------
    gate : Gate
        What it asks for.
    standing : GateStanding
        Open when all is met, else overridden when somebody answers for it, else shut.
    conditions : list of ConditionState
        Each of them, met or not, overridden or not.
    override : Override or None
        The last that stands, even where the gate has been met since.
    """

    gate: Gate
    standing: GateStanding
    conditions: list[ConditionState]
    override: Override | None

    @property
    def lacks(self) -> list[Words]:
        """What isn't met."""
        return [one.lacks for one in self.conditions if one.lacks is not None]


def gate_states(
    gates: Sequence[Gate],
    facts: Facts,
    now: datetime,
    titles: Mapping[str, str] | None = None,
    proofs: Sequence[CellProof] = (),
    ledger: Sequence[OpenItem] = (),
) -> list[GateState]:
    """Each gate as the log has it.

    Parameters
    ----------
    gates : sequence of Gate
        In an order in which none waits for a later one.
    facts : Facts
        What stands in the log.
    now : datetime
        By which the age of a reading goes.
    titles : mapping of str to str, optional
        How operations are called; by their own names where they have no title.
    proofs : sequence of CellProof, optional
        How far the leak tests are.
    ledger : sequence of OpenItem, optional
        What stands open.

    Returns
    -------
    list of GateState
        One each.
    """
    found: dict[str, GateState] = {}
    for gate in gates:
        known = Known(facts, found, now, titles or {}, proofs, ledger)
        conditions = [ConditionState(one, _lacks(one, known), _last_read(one, facts)) for one in gate.conditions]
        override = None if gate.firm else _override(gate.id, facts)
        met = all(one.lacks is None for one in conditions)
        found[gate.id] = GateState(gate, "open" if met else "overridden" if override else "shut", conditions, override)
    return list(found.values())


def _last_read(condition: Condition, facts: Facts) -> float | None:
    if not isinstance(condition, ReadingAtMost | FreeOfVapour):
        return None
    last = facts.readings.get(condition.subject)
    return last.entry.value if last else None


def _override(gate: str, facts: Facts) -> Override | None:
    """Somebody's name and a reason: blank ones don't count."""
    last = facts.overrides.get(gate)
    if last is None:
        return None
    return Override(last.entry.name.strip(), last.entry.reason.strip(), last.author, last.happened)


@dataclass(frozen=True, slots=True)
class Known:
    """All that conditions are judged by."""

    facts: Facts
    gates: Mapping[str, GateState]
    now: datetime
    titles: Mapping[str, str]
    proofs: Sequence[CellProof]
    ledger: Sequence[OpenItem] = ()


def _lacks(condition: Condition, known: Known) -> Words | None:
    return _JUDGES[type(condition)](condition, known)


def _vapour(condition: FreeOfVapour, known: Known) -> Words | None:
    """A reading counts before anybody's word: what has once been measured is measured again."""
    last = known.facts.readings.get(condition.subject)
    if last is None:
        checked = known.facts.checks.get(condition.check)
        if checked is not None and checked.entry.passed:
            return None
        return words("neither said that it never held fuel, nor measured")
    if last.entry.value > condition.most:
        said = "{vapour_pct} of the lower explosive limit, {most_pct} at most: make it safe first"
        return words(said, vapour_pct=last.entry.value, most_pct=condition.most)
    return _too_old(last, condition.oldest_min, known.now)


def _too_old(last: Said[Read], oldest_min: float | None, now: datetime) -> Words | None:
    if oldest_min is None:
        return None
    return words("too old") if now - last.happened > timedelta(minutes=oldest_min) else None


def _not_proved(condition: Proved, known: Known) -> Words | None:
    asked = [one for one in known.proofs if one.cell in condition.cells]
    missing = [one for one in asked if one.lacks is not None]
    if not missing:
        return None if asked else words("no leak test yet")
    told = [f"{one.cell}: {one.lacks.plain()}" for one in missing if one.lacks is not None]
    return words("{told}", told="; ".join(told))


def _not_done(condition: AllDone, known: Known) -> Words | None:
    facts = known.facts
    missing = [name for name in condition.operations if name not in facts.done and name not in facts.skipped]
    names = "; ".join(known.titles.get(name, name) for name in missing)
    return words("not done yet: {names}", names=names) if missing else None


def here(item: str, facts: Facts) -> int:
    """How many of an item have come whole.

    Parameters
    ----------
    item : str
        As the list of what is bought names it.
    facts : Facts
        What stands in the log.

    Returns
    -------
    int
        Pieces, over all deliveries.
    """
    return sum(one.value for one in facts.arrived.get(item, ()) if one.whole)


def _not_here(condition: AllHere, known: Known) -> Words | None:
    missing = [
        (title, short) for item, title, needed in condition.items if (short := needed - here(item, known.facts)) > 0
    ]
    return (
        words("not here yet: {names}", names="; ".join(f"{n} × {title}" for title, n in missing)) if missing else None
    )


def _not_looked(condition: Looked, known: Known) -> Words | None:
    last = known.facts.checks.get(condition.check)
    if last is None:
        return words("not looked at yet")
    if not last.entry.passed:
        return words("looked at, and it was not so")
    return words("no photo of it yet") if condition.photo and not last.entry.photos else None


def differing(kinds: Sequence[str], facts: Facts) -> list[str]:
    """Kinds of pieces of which not as many came out as went in; a kind that nobody counted differs from nothing.

    Parameters
    ----------
    kinds : sequence of str
        Which; all where none is named.
    facts : Facts
        What stands in the log.

    Returns
    -------
    list of str
        Of those counted in or out, in the order they were first counted.
    """
    asked = kinds or list(dict.fromkeys(kind for kind, _ in facts.counts))
    both = [(kind, facts.counts.get((kind, "in")), facts.counts.get((kind, "out"))) for kind in asked]
    return [kind for kind, into, out in both if (into, out) != (None, None) and into != out]


def _differ(condition: CountsMatch, known: Known) -> Words | None:
    facts = known.facts
    counted = {kind for kind, _ in facts.counts}
    missing = [kind for kind in condition.kinds if kind not in counted]
    if missing or not counted:
        return words("not counted yet: {names}", names=", ".join(missing) or "anything")
    differ = differing(condition.kinds, facts)
    if not differ:
        return None
    told = [f"{kind} {_pieces(facts, kind, 'in')} in, {_pieces(facts, kind, 'out')} out" for kind in differ]
    return words("not as many out as in: {told}", told="; ".join(told))


def _pieces(facts: Facts, kind: str, way: Literal["in", "out"]) -> str:
    found = facts.counts.get((kind, way))
    return "none" if found is None else str(found)


def _reading(condition: ReadingAtMost, known: Known) -> Words | None:
    last = known.facts.readings.get(condition.subject)
    if last is None:
        return words("no reading")
    if last.entry.value > condition.most:
        return words("too high")
    return _too_old(last, condition.oldest_min, known.now)


def _not_clean(condition: FlushedClean, known: Known) -> Words | None:
    rounds = known.facts.flushes.get(condition.subject, [])
    if not rounds:
        return words("no round yet")
    return None if rounds[-1].clean else words("round {n} brought {caught}", n=len(rounds), caught=rounds[-1].caught)


def _is_the_same_way(first: Said[Measured], second: Said[Measured]) -> bool:
    """Whether two measurements may be off by the same mistake: one person, one tool."""
    return first.author == second.author and first.entry.by_way == second.entry.by_way != ""


def _measured(condition: MeasurementsAgree, known: Known) -> Words | None:
    taken = known.facts.measurements.get(condition.subject, [])
    if len(taken) < 2:
        return words("{n} of 2 measurements", n=len(taken))
    first, second = (one.entry.value_mm for one in taken[-2:])
    if _is_the_same_way(taken[-2], taken[-1]):
        return words("both by {way}: take the second another way", way=taken[-1].entry.by_way)
    if abs(first - second) > condition.within_mm:
        said = "the last two differ by {apart_sheet}, {within_sheet} at most: measure again"
        return words(said, apart_sheet=abs(first - second), within_sheet=condition.within_mm)
    off = (first + second) / 2 - condition.planned_mm
    if abs(off) > condition.within_mm:
        said = "measured {measured_sheet}, drawn {planned_sheet}, {within_sheet} apart at most: type it into the design"
        measured = (first + second) / 2
        return words(
            said, measured_sheet=measured, planned_sheet=condition.planned_mm, within_sheet=condition.within_mm
        )
    return None


def _gate_before(condition: NotShut, known: Known) -> Words | None:
    return words("a gate before it is shut") if known.gates[condition.gate].standing == "shut" else None


def _open(condition: NothingOpen, known: Known) -> Words | None:
    left = stands_before(known.ledger, condition.before)
    if not left:
        return None
    return words("{n} open in the ledger", n=len(left))


def _not_poured(condition: PouredIn, known: Known) -> Words | None:
    poured = known.facts.poured.get(condition.subject)
    if poured is None:
        return words("nothing poured yet")
    if poured.entry.litres < LEAST_POURED * condition.litres:
        return words("{poured_l} of {wanted_l} poured", poured_l=poured.entry.litres, wanted_l=condition.litres)
    return None


def _wet(condition: JointsDry, known: Known) -> Words | None:
    done = known.facts.done.get(condition.after)
    if condition.after and done is None:
        return words("not looked at since")
    lacking = [
        (name, lacks)
        for joint, name, marks in condition.joints
        if (lacks := joint_lacks(joint, marks, known.facts, done.happened if done else None)) is not None
    ]
    if not lacking:
        return None
    name, lacks = lacking[0]
    said = "{n} of {of} joints, first {name}: {lacks}"
    return words(said, n=len(lacking), of=len(condition.joints), name=name, lacks=lacks.plain())


_JUDGES: dict[type, Callable[[Any, Known], Words | None]] = {
    AllHere: _not_here,
    AllDone: _not_done,
    Looked: _not_looked,
    CountsMatch: _differ,
    ReadingAtMost: _reading,
    MeasurementsAgree: _measured,
    FlushedClean: _not_clean,
    NotShut: _gate_before,
    FreeOfVapour: _vapour,
    Proved: _not_proved,
    NothingOpen: _open,
    PouredIn: _not_poured,
    LineHolds: lambda condition, known: line_lacks(condition, known.facts),
    JointsDry: _wet,
}
"""By the kind of condition, why it isn't met."""
