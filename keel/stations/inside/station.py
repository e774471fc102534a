"""Inside: baffles, foam, bladder, lining."""

from keel.design.document import Design
from keel.design.inside import Inside
from keel.stations.inside import remedies, rules
from keel.stations.station import Station
from keel.studies.inside.baffle_layout import NEXT_PLATE
from keel.studies.inside.bracing import BRACING
from keel.studies.inside.compartment_checks import CHECKS


def _is_begun(design: Design) -> bool:
    features = design.shell.features if design.shell else ()
    return design.inside != Inside() or any(feature.kind == "baffle" for feature in features)


INSIDE = Station(
    name="inside",
    title="Inside",
    is_begun=_is_begun,
    studies={"checks": CHECKS, "bracing": BRACING, "next_plate": NEXT_PLATE},
    rules=(
        *rules.INSIDE_RULES,
        rules.lining_bears_it,
    ),
    prescribers={
        "inside.free_run": remedies.slowed,
        "fuel.lining": remedies.other_lining,
    },
)
