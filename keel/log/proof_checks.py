"""What forbids that a leak test begins, is read or ends."""

from collections.abc import Iterator, Mapping, Sequence
from datetime import datetime
from math import ceil

from keel.design.workshop import HouseRules
from keel.log.facts import Facts
from keel.log.proof_entries import GaugeRead, LeakFound, LeakRepaired, ProofBegun, ProofEnded, SeamWalked
from keel.log.proofs import LAST
from keel.log.state import BuildState
from keel.studies.build.proof_work import VAPOUR
from keel.studies.proof.decay import LeakTest, PressureReading, Resolution, least_minutes
from keel.studies.proof.plan import PLAN_BAROMETER_KPA, PLAN_C, CellPlan, ProofPlan, leak_test, limit_at
from keel.studies.result import Words, words

HAIR_KPA = 1e-6
READ: tuple[str, ...] = ("pressure decay",)
"""Methods that go by readings."""
DRY: tuple[str, ...] = ("pressure decay", "soap and low pressure", "submerged")
"""Methods with air: the tank must hold no vapour."""


def why_not_begun(begun: ProofBegun, plan: ProofPlan, state: BuildState, rules: HouseRules) -> Words | None:
    """What forbids that a leak test begins.

    Parameters
    ----------
    begun : ProofBegun
        As it is to be.
    plan : ProofPlan
        What each cell bears.
    state : BuildState
        How far the tank is.
    rules : HouseRules
        Limit and how long it takes to see it.

    Returns
    -------
    Words or None
        The first thing that does, with the number and its limit; None when nothing does.
    """
    cell = next((one for one in plan.cells if one.cell == begun.subject), None)
    if cell is None:
        return words("there is no cell “{cell}” in this tank", cell=begun.subject)
    return next(iter(_objections(begun, cell, state, rules)), None)


def _objections(begun: ProofBegun, cell: CellPlan, state: BuildState, rules: HouseRules) -> Iterator[Words]:
    yield from _vapour(begun, state)
    if begun.method == LAST and not _is_passed(begun.subject, state):
        yield words("filling with fuel is the last check: pass a test with air first")
    yield from _pressures(begun, cell, bears_with(cell, begun.braces))
    shut = [name for name in cell.neighbours if name not in begun.neighbours_open]
    if shut and begun.method != LAST:
        yield words("{shut} has to stand open: else a leak through the wall between them doesn't show", shut=shut[0])
    if begun.method in READ:
        yield from _length(begun, cell, rules)
    least = {"submerged": rules.submerged_min, LAST: rules.on_paper_min}.get(begun.method, 0.0)
    if least > (begun.minutes or 0.0):
        said = "{planned_min} {method} are too short to prove anything, at least {least_min}"
        yield words(said, planned_min=begun.minutes or 0.0, method=begun.method, least_min=least)
    running = _running(state)
    if running:
        yield words("the test of the {cell} is still running: end it first", cell=running)


def _length(begun: ProofBegun, cell: CellPlan, rules: HouseRules) -> Iterator[Words]:
    if begun.gauge is None:
        yield words("no gauge is named: without its last digit nothing is proved")
        return
    test = leak_test(cell.volume_l, limit_of(begun, rules), begun.gauge, rules)
    least = least_minutes(PressureReading(0.0, begun.pressure_kpa, PLAN_C, PLAN_BAROMETER_KPA), test).both
    if begun.minutes is not None and begun.minutes < least:
        said = "{planned_min} are too short to prove anything, at least {least_min}"
        yield words(said, planned_min=begun.minutes, least_min=ceil(least))


def _vapour(begun: ProofBegun, state: BuildState) -> Iterator[Words]:
    gate = next((one for one in state.gates if one.gate.id == VAPOUR), None)
    if gate is not None and gate.standing == "shut" and begun.method in DRY:
        lacks = "; ".join(lack.plain() for lack in gate.lacks)
        yield words("the tank may hold vapour, which explodes under pressure: {lacks}", lacks=lacks)


def bears_with(cell: CellPlan, bars: int) -> float:
    """What a cell bears with bars clamped on [kPa].

    Parameters
    ----------
    cell : CellPlan
        With what each bar more makes of it.
    bars : int
        So many; more than the plan knows help no more.

    Returns
    -------
    float
        Never above the workshop's cap.
    """
    if not bars or not cell.braced:
        return cell.safe_kpa
    return cell.braced[min(bars, len(cell.braced)) - 1].safe_kpa


def limit_of(begun: ProofBegun, rules: HouseRules) -> float:
    """The leak that passes at a test's own pressure [cm³/min].

    Parameters
    ----------
    begun : ProofBegun
        Its pressure.
    rules : HouseRules
        The limit, at the useful test pressure.

    Returns
    -------
    float
        As `limit_at`.
    """
    known = rules.proof_least_kpa or begun.pressure_kpa
    return limit_at(rules.leak_limit_sccm, known, begun.pressure_kpa, PLAN_BAROMETER_KPA)


def _pressures(begun: ProofBegun, cell: CellPlan, bears: float) -> Iterator[Words]:
    if begun.method == LAST:
        return
    if begun.pressure_kpa > bears + HAIR_KPA:
        said = "test pressure {pressure_finekpa}, the {cell} bears {safe_finekpa} ({panel})"
        panel = cell.panels[0].name
        yield words(said, pressure_finekpa=begun.pressure_kpa, cell=cell.cell, safe_finekpa=bears, panel=panel)
    if begun.limiter_kpa > bears + HAIR_KPA:
        said = "the {limiter} opens at {limiter_finekpa}, the {cell} bears {safe_finekpa}"
        yield words(said, limiter=begun.limiter, limiter_finekpa=begun.limiter_kpa, cell=cell.cell, safe_finekpa=bears)
    if begun.limiter_kpa < begun.pressure_kpa - HAIR_KPA:
        said = "the {limiter} opens at {limiter_finekpa}, below the test pressure of {pressure_finekpa}"
        yield words(said, limiter=begun.limiter, limiter_finekpa=begun.limiter_kpa, pressure_finekpa=begun.pressure_kpa)


def _running(state: BuildState) -> str | None:
    return next((one.cell for one in state.proofs if one.rounds and one.rounds[-1].ended is None), None)


def _is_passed(cell: str, state: BuildState) -> bool:
    return any(one.cell == cell and one.standing == "passed" for one in state.proofs)


OfProof = GaugeRead | SeamWalked | LeakFound | LeakRepaired | ProofEnded


def why_not_of_proof(entry: OfProof, facts: Facts, seams: Mapping[str, Sequence[str]]) -> Words | None:
    """What forbids an entry about a leak test: it isn't there, is over, or has no such seam.

    Parameters
    ----------
    entry : OfProof
        A reading, a walked seam, a leak, its repair, an end.
    facts : Facts
        What stands in the log.
    seams : mapping of str to sequence of str
        Seams by cell.

    Returns
    -------
    Words or None
        None when nothing does.
    """
    if isinstance(entry, LeakRepaired):
        known = any(one.entry.id == entry.of for ones in facts.leaks.values() for one in ones)
        return None if known else words("there is no such leak")
    begun = facts.proofs.get(entry.of)
    if begun is None:
        return words("there is no such leak test")
    if entry.of in facts.ended:
        return words("that leak test is over")
    if isinstance(entry, SeamWalked | LeakFound) and entry.subject not in seams.get(begun.entry.subject, ()):
        return words("the {cell} has no seam “{seam}”", cell=begun.entry.subject, seam=entry.subject)
    if isinstance(entry, LeakFound) and begun.entry.simulated:
        return words("a simulated tank has no seam to look at")
    return None


def leak_test_of(begun: ProofBegun) -> LeakTest | None:
    """By what a test's readings are judged; None where it has no gauge.

    Parameters
    ----------
    begun : ProofBegun
        As it was begun, with what the workshop knew of it.

    Returns
    -------
    LeakTest or None
        Volume, limit, last digits.
    """
    gauge = begun.gauge
    if gauge is None or not begun.volume_l or not begun.limit_sccm:
        return None
    digits = Resolution(gauge.resolution_kpa, gauge.temperature_resolution_k, gauge.barometer_resolution_kpa)
    return LeakTest(begun.volume_l, begun.limit_sccm, digits, begun.length_factor)


def read_by_hand(begun: str, facts: Facts) -> list[PressureReading]:
    """Readings of a test that somebody typed, by minutes since it began.

    Parameters
    ----------
    begun : str
        The test's own entry.
    facts : Facts
        What stands in the log.

    Returns
    -------
    list of PressureReading
        In the order they came.
    """
    said = facts.proofs[begun]
    return [
        PressureReading(
            _minute(one.entry.minute, one.happened, said.happened),
            one.entry.pressure_kpa,
            one.entry.temperature_c,
            one.entry.barometer_kpa,
        )
        for one in facts.read.get(begun, [])
    ]


def _minute(typed: float | None, happened: datetime, begun: datetime) -> float:
    return typed if typed is not None else max(0.0, (happened - begun).total_seconds() / 60)
