"""Proof: the leak test of every cell. What came of it says the log, which no design holds."""

from keel.design.document import Design
from keel.design.proof import Proof
from keel.stations.proof import remedies, rules
from keel.stations.station import Station
from keel.studies.proof.methods import METHODS
from keel.studies.proof.plan import PROOF_PLAN


def _is_begun(design: Design) -> bool:
    return design.proof != Proof()


PROOF = Station(
    name="proof",
    title="Proof",
    is_begun=_is_begun,
    studies={"plan": PROOF_PLAN, "methods": METHODS},
    rules=(
        rules.cell_bears_it,
        rules.limiter_is_between,
        rules.column_can_be_built,
        rules.lasts_long_enough,
        rules.gauge_reaches,
        rules.paper_comes_last,
    ),
    prescribers={
        "proof.pressure": remedies.lower_pressure,
        "proof.limiter": remedies.set_limiter,
        "proof.column": remedies.relief_instead,
        "proof.short": remedies.long_enough,
        "proof.coarse": remedies.finer,
        "proof.gauge": remedies.usual_gauge,
        "proof.scale": remedies.wider_gauge,
        "proof.paper": remedies.air_first,
    },
)
