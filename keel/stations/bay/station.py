"""Bay: the space it has to live in."""

from keel.stations.bay import remedies, rules
from keel.stations.station import Station
from keel.studies.space.clearance import GAPS
from keel.studies.space.opening import GOES_IN

BAY = Station(
    name="bay",
    title="Bay",
    is_begun=lambda design: design.bay is not None,
    studies={"gaps": GAPS, "goes_in": GOES_IN},
    offers={"fit": remedies.fit_to_bay_offer},
    rules=(
        rules.bay_clearance,
        rules.passes_opening,
    ),
    prescribers={
        "bay.clearance": remedies.clear_the_gap,
        "opening.short": remedies.through_the_opening,
    },
)
