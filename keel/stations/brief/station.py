"""Brief: what the tank has to do."""

from keel.design.brief import Brief
from keel.stations.brief import remedies, rules
from keel.stations.station import Station
from keel.studies.demand.demand import DEMANDS
from keel.studies.demand.outgrown import OUTGROWN
from keel.studies.demand.surge_methods import SURGE
from keel.studies.demand.target import TARGET

BRIEF = Station(
    name="brief",
    title="Brief",
    is_begun=lambda design: design.brief != Brief(),
    lacks=lambda design: design.brief.target_l is None and design.brief.basis is None,
    studies={"target": TARGET, "demands": DEMANDS, "outgrown": OUTGROWN, "surge": SURGE},
    document_rules=(rules.brief_findings,),
    rules=(
        rules.card_is_kept,
        rules.fuel_is_a_fair_share,
        rules.engines_burn_it,
        rules.pumps_bear_it,
    ),
    prescribers={
        "fuel.engine": remedies.other_fuel,
        "fuel.pump": remedies.other_pump,
    },
)
