"""How far the leak tests of a tank are: every round of every cell, and whether the last word still holds."""

from collections.abc import Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass
from datetime import datetime
from typing import Any, Literal

from keel.log.facts import Facts, Said
from keel.log.proof_entries import LeakFound, LeakRepaired, ProofBegun, ProofEnded
from keel.studies.build.operation import CellTest
from keel.studies.proof.decay import Verdict
from keel.studies.result import Words, words

RoundVerdict = Verdict | Literal["running", "stopped", "not walked"]
ProofStanding = Literal["not tested", "running", "failed", "passed", "void"]
DAYS_A_MONTH = 30.44
LAST = "filled, on dry paper"
WAITS: tuple[str, ...] = ("submerged", LAST)
"""Methods that are judged by what shows in a least time."""
NOTHING_PROVED = ("too short", "undecided", "stopped", "not walked", "running")
"""Verdicts that neither prove nor disprove: what was known before still holds."""


@dataclass(frozen=True, slots=True)
class LeakState:
    """A leak, and how it was mended; None where it wasn't yet."""

    found: LeakFound
    author: str
    when: datetime
    repaired: LeakRepaired | None
    repaired_by: str
    repaired_when: datetime | None


@dataclass(frozen=True, slots=True)
class Round:
    """One leak test of one cell.

    Attributes
    ----------
    begun : ProofBegun
        How it was begun.
    number : int
        Of the cell's tests.
    author : str
        Who began it.
    when, ended_when : datetime or None
        When it began and ended.
    ended : ProofEnded or None
        How it ended.
    verdict : RoundVerdict
        What it proves.
    walked : list of str
        Seams that were walked.
    leaks : list of LeakState
        Pinned while it lasted.
    readings : int
        Typed by hand so far.
    cautions : list of Words
        What is odd about how it was begun.
    """

    begun: ProofBegun
    number: int
    author: str
    when: datetime
    ended: ProofEnded | None
    ended_when: datetime | None
    verdict: RoundVerdict
    walked: list[str]
    leaks: list[LeakState]
    readings: int
    cautions: list[Words]


@dataclass(frozen=True, slots=True)
class CellProof:
    """All tests of one cell.

    Attributes
    ----------
    cell : str
        Its name.
    standing : ProofStanding
        Whether it holds by the last test that proved anything.
    lacks : Words or None
        Why it doesn't count as proved.
    rounds : list of Round
        In their order.
    by : str
        The test that it passed; empty where it doesn't hold.
    """

    cell: str
    standing: ProofStanding
    lacks: Words | None
    rounds: list[Round]
    by: str


def proofs(tests: Sequence[CellTest], facts: Facts, titles: Mapping[str, str] | None = None) -> list[CellProof]:
    """All leak tests of a tank.

    Parameters
    ----------
    tests : sequence of CellTest
        Its cells.
    facts : Facts
        What stands in the log.
    titles : mapping of str to str, optional
        How operations are called; by their own names where they have no title.

    Returns
    -------
    list of CellProof
        One a cell. A test that was too short, undecided or broken off changes nothing about what was known; one by
        the simulated gauge proves nothing. Heat or a hole after a test that was passed voids it, for every cell.
    """
    return [_cell(test, facts, titles or {}) for test in tests]


def _cell(test: CellTest, facts: Facts, titles: Mapping[str, str]) -> CellProof:
    begun = [said for said in facts.proofs.values() if said.entry.subject == test.cell]
    rounds = [_round(number, said, test, facts) for number, said in enumerate(begun, start=1)]
    standing, lacks, by = _standing(rounds, facts, titles)
    return CellProof(test.cell, standing, lacks, rounds, by)


def _round(number: int, said: Said[ProofBegun], test: CellTest, facts: Facts) -> Round:
    name = said.entry.id
    ended, walked = facts.ended.get(name), facts.walked.get(name, {})
    leaks = [_leak(one, facts) for one in facts.leaks.get(name, [])]
    return Round(
        begun=said.entry,
        number=number,
        author=said.author,
        when=said.happened,
        ended=ended.entry if ended else None,
        ended_when=ended.happened if ended else None,
        verdict=_verdict(said, ended, test, list(walked), leaks),
        walked=list(walked),
        leaks=leaks,
        readings=len(facts.read.get(name, [])),
        cautions=list(_uncalibrated(said, test.calibration_months)),
    )


def _uncalibrated(said: Said[ProofBegun], most_months: float) -> Iterator[Words]:
    """A gauge that nobody knows the calibration of, or whose calibration is old."""
    gauge = said.entry.gauge
    if gauge is None:
        return
    if gauge.calibrated is None:
        yield words(
            "Calibration of {gauge} not known, at most {most} months old wanted", gauge=gauge.name, most=most_months
        )
        return
    months = (said.happened.date() - gauge.calibrated).days / DAYS_A_MONTH
    if months > most_months:
        told = "Calibration of {gauge} {months} months old, limit {most} (house rule)"
        yield words(told, gauge=gauge.name, months=round(months, 1), most=most_months)


def _leak(said: Said[LeakFound], facts: Facts) -> LeakState:
    mended = facts.repaired.get(said.entry.id)
    return LeakState(
        found=said.entry,
        author=said.author,
        when=said.happened,
        repaired=mended.entry if mended else None,
        repaired_by=mended.author if mended else "",
        repaired_when=mended.happened if mended else None,
    )


def _verdict(
    said: Said[ProofBegun],
    ended: Said[ProofEnded] | None,
    test: CellTest,
    walked: Sequence[str],
    leaks: Sequence[LeakState],
) -> RoundVerdict:
    if leaks:
        return "fail"
    if ended is None:
        return "running"
    if ended.entry.stopped:
        return "stopped"
    begun = said.entry
    if begun.method == "pressure decay":
        return ended.entry.found.verdict if ended.entry.found else "too short"
    if begun.method in WAITS:
        lasted = (ended.happened - said.happened).total_seconds() / 60
        return "pass" if lasted >= (begun.minutes or 0.0) else "too short"
    return "pass" if set(test.seams) <= set(walked) else "not walked"


def _standing(
    rounds: Sequence[Round], facts: Facts, titles: Mapping[str, str]
) -> tuple[ProofStanding, Words | None, str]:
    """The last test that proved anything counts, unless something after it undoes it."""
    running = next((one for one in reversed(rounds) if one.ended is None), None)
    decisive = [one for one in rounds if one.verdict not in NOTHING_PROVED and not one.begun.simulated]
    last = decisive[-1] if decisive else None
    if last is None:
        if running:
            return "running", words("test {n} is running", n=running.number), ""
        return "not tested", _nothing_yet(rounds), ""
    if last.verdict != "pass":
        return ("running" if running and running is not last else "failed"), _failed(last), ""
    hot = _after(last, facts.hot, titles)
    if hot is not None:
        return "void", words("passed in test {n}, then {what}: test it again", n=last.number, what=hot), ""
    return "passed", None, last.begun.id


def _nothing_yet(rounds: Sequence[Round]) -> Words:
    if not rounds:
        return words("not tested yet")
    last = rounds[-1]
    if last.begun.simulated:
        return words("test {n} was read from the simulated gauge, which proves nothing", n=last.number)
    return words("test {n} proved nothing: {verdict}", n=last.number, verdict=last.verdict)


def _failed(last: Round) -> Words:
    found, left = len(last.leaks), sum(leak.repaired is None for leak in last.leaks)
    if left:
        return words("test {n} found {leaks}, {left} not mended", n=last.number, leaks=_leaks(found), left=left)
    if found:
        return words("{leaks} of test {n} mended, not tested again yet", n=last.number, leaks=_leaks(found))
    return words("test {n}: {verdict}", n=last.number, verdict=last.verdict)


def _leaks(count: int) -> str:
    return "1 leak" if count == 1 else f"{count} leaks"


def _after(last: Round, hot: Iterable[Said[Any]], titles: Mapping[str, str]) -> str | None:
    """What was done after a test that undoes it."""
    ended = last.ended_when or last.when
    for said in hot:
        if said.happened > ended:
            if isinstance(said.entry, LeakRepaired):
                return "a leak was mended"
            return f"“{titles.get(said.entry.subject, said.entry.subject)}”"
    return None
