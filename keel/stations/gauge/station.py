"""Gauge: senders and needle."""

from keel.stations.gauge import remedies, rules
from keel.stations.station import Station
from keel.studies.gauge.gauge import GAUGE_TRUTH

GAUGE = Station(
    name="gauge",
    title="Gauge",
    is_begun=lambda design: bool(design.gauge.senders),
    studies={"truth": GAUGE_TRUTH},
    rules=(
        *rules.GAUGE_RULES,
        rules.senders_bear_it,
    ),
    prescribers={
        "fuel.sender": remedies.other_sender,
    },
)
