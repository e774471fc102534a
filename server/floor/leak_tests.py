"""Leak tests as they run: what they are judged by, all readings of one, what these prove."""

import hashlib
from collections.abc import Sequence
from typing import Any

import numpy as np
from django.utils import timezone

from keel.analysis.parts import SOLIDS
from keel.analysis.tank import TankAnalysis
from keel.log.entries import Received
from keel.log.facts import Facts, Said, facts
from keel.log.proof_checks import bears_with, leak_test_of, limit_of, read_by_hand
from keel.log.proof_entries import ProofBegun, ProofFound
from keel.log.standing import standing
from keel.studies.proof.plan import PROOF_PLAN, ProofPlan
from keel.studies.proof.series import Series, SeriesResult, judge_series, series_of
from keel.studies.proof.walk import WALK, WalkSeam
from keel.studies.result import Point
from server.floor import gauges
from server.floor.build import asked_of, log_of
from server.floor.models import Pressures, SimulatedTank
from server.http.errors import ApiError, refused
from server.jobs.models import Job, TankDesign

COLUMNS = 4
MOST_READINGS = 400_000
NO_SAFE_KPA = 1e9

Walk = tuple[list[WalkSeam], Point | None]


def plan_of(tank: TankDesign) -> ProofPlan | None:
    """How the tank is tested at its present revision; None where it has no shape."""
    return asked_of(tank, lambda analysis: analysis[PROOF_PLAN], None)


def walk_of(tank: TankDesign) -> Walk:
    """Its seams in the order in which they are walked, and the corner that pins count from."""

    def walk(analysis: TankAnalysis) -> Walk:
        return analysis[WALK], Point.of(analysis[SOLIDS].datum)

    nothing: Walk = ([], None)
    return asked_of(tank, walk, nothing)


def known_of(begun: ProofBegun, tank: TankDesign) -> dict[str, Any]:
    """What the workshop knows of a test that begins: volume, limit, what the cell bears."""
    plan, rules = plan_of(tank), tank.workshop.document().rules
    assert plan is not None
    cell = next(one for one in plan.cells if one.cell == begun.subject)
    return {
        "volume_l": cell.volume_l,
        "limit_sccm": limit_of(begun, rules),
        "safe_kpa": bears_with(cell, begun.braces),
        "length_factor": rules.decay_length_factor,
    }


def facts_of(log: Sequence[Received], design: int | None) -> Facts:
    """What stands in a log about a design."""
    return facts(standing(log).entries, design)


def begun_in(said: Facts, proof: str) -> Said[ProofBegun]:
    """A test that was begun.

    Raises
    ------
    ApiError
        404 when there is none of that name.
    """
    found = said.proofs.get(proof)
    if found is None:
        raise ApiError(404, "proof", "There is no such leak test.")
    return found


def keep(job: Job, proof: str, series: Series, source: str) -> None:
    """Store a lot of readings."""
    Pressures.objects.create(
        workshop_id=job.workshop_id,
        job=job,
        proof=proof,
        source=source,
        readings=np.column_stack(series.columns).astype("<f8").tobytes(),
    )


def kept(job: Job, proof: str) -> np.ndarray:
    """All stored readings of a test, shape (n, 4)."""
    lots = [
        np.frombuffer(bytes(lot), "<f8").reshape(-1, COLUMNS)
        for lot in Pressures.objects.filter(job=job, proof=proof).values_list("readings", flat=True)
    ]
    return np.vstack(lots) if lots else np.zeros((0, COLUMNS))


def series_in(job: Job, said: Facts, proof: str) -> Series:
    """Every reading of a test: typed, sent, from files, simulated so far."""
    begun = begun_in(said, proof).entry
    if begun.simulated and proof not in said.ended:
        tank = SimulatedTank.objects.filter(job=job, proof=proof).first()
        if tank is not None:
            so_far = gauges.minutes_so_far(tank.started, timezone.now())
            return gauges.shown(gauges.stored(tank.rig), so_far)
    stored = kept(job, proof)
    typed = series_of(read_by_hand(proof, said))
    both = np.vstack([np.column_stack(typed.columns), stored]) if len(typed) else stored
    both = both[np.argsort(both[:, 0], kind="stable")]
    later = np.r_[True, np.diff(both[:, 0]) > 0] if len(both) else np.zeros(0, bool)
    return Series(*both[later].T)


def result_of(begun: ProofBegun, series: Series) -> SeriesResult:
    """What readings prove of a test.

    Raises
    ------
    ApiError
        422 for a test without gauge or volume.
    """
    test = leak_test_of(begun)
    if test is None:
        raise refused("method", begun.method, "pressure decay with a gauge", "This test goes by no readings.")
    return judge_series(series, test, begun.safe_kpa or NO_SAFE_KPA)


def curve_of(tank: TankDesign, proof: str) -> SeriesResult | None:
    """What the readings of a test of a tank say; None for one that goes by none."""
    said = facts_of(log_of(tank.job), tank.pk)
    begun = begun_in(said, proof).entry
    return None if leak_test_of(begun) is None else result_of(begun, series_in(tank.job, said, proof))


def found_in(begun: ProofBegun, series: Series) -> ProofFound | None:
    """What goes into the log when a test ends; None where it had no two readings."""
    if leak_test_of(begun) is None:
        return None
    result = result_of(begun, series)
    decay, start, end = result.decay, result.start, result.end
    if decay is None or start is None or end is None:
        return None
    return ProofFound(
        verdict=decay.verdict,
        readings=result.count,
        minutes=decay.minutes,
        leak_sccm=decay.leak_sccm,
        uncertainty_sccm=decay.uncertainty_sccm,
        uncorrected_sccm=decay.uncorrected_sccm,
        uncorrected_verdict=decay.uncorrected_verdict,
        least_min=decay.least_min.both,
        start_kpa=start.gauge_kpa,
        end_kpa=end.gauge_kpa,
        corrected_kpa=decay.corrected_kpa,
        digest=digest_of(series),
    )


def digest_of(series: Series) -> str:
    """Of all readings: what a certificate names them by."""
    return hashlib.blake2b(np.column_stack(series.columns).astype("<f8").tobytes(), digest_size=8).hexdigest()


def refuse_too_many(job: Job, proof: str, more: int) -> None:
    """A test takes so many readings and no more."""
    if len(kept(job, proof)) + more > MOST_READINGS:
        message = f"A leak test takes {MOST_READINGS} readings."
        raise refused("readings", more, f"at most {MOST_READINGS}", message)
