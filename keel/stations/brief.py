"""Brief: what the tank has to do."""

from keel.design.brief import Brief
from keel.findings import brief_rules, fuel_remedies, fuel_rules
from keel.stations.station import Station
from keel.studies.demand.demand import DEMANDS, OUTGROWN, TARGET
from keel.studies.demand.surge_methods import SURGE

BRIEF = Station(
    name="brief",
    title="Brief",
    is_begun=lambda design: design.brief != Brief(),
    lacks=lambda design: design.brief.target_l is None and design.brief.basis is None,
    studies={"target": TARGET, "demands": DEMANDS, "outgrown": OUTGROWN, "surge": SURGE},
    document_rules=(brief_rules.brief_findings,),
    rules=(
        brief_rules.card_is_kept,
        brief_rules.fuel_is_a_fair_share,
        fuel_rules.engines_burn_it,
        fuel_rules.pumps_bear_it,
    ),
    prescribers={
        "fuel.engine": fuel_remedies.other_fuel,
        "fuel.pump": fuel_remedies.other_pump,
    },
)
