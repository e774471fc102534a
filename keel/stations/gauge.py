"""Gauge: senders and needle."""

from keel.findings import fuel_remedies, fuel_rules, gauge_rules
from keel.stations.station import Station
from keel.studies.gauge.gauge import GAUGE_TRUTH

GAUGE = Station(
    name="gauge",
    title="Gauge",
    is_begun=lambda design: bool(design.gauge.senders),
    studies={"truth": GAUGE_TRUTH},
    rules=(
        *gauge_rules.GAUGE_RULES,
        fuel_rules.senders_bear_it,
    ),
    prescribers={
        "fuel.sender": fuel_remedies.other_sender,
    },
)
