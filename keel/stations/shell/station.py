"""Shell: its shape and capacity."""

from keel.stations.shell import feature_remedies, feature_rules, remedies, rules, strength_remedies
from keel.stations.station import Station
from keel.studies.cost.figures import FIGURES
from keel.studies.drawing.geometry import CUTS_SHOWN, FEATURES, GEOMETRY, PORT_PLACES
from keel.studies.liquid.capacity import CAPACITY
from keel.studies.liquid.fill_level import DRAINED, FILL
from keel.studies.liquid.strapping import STRAPPING
from keel.studies.proof.bearing import SAFE_PROOF
from keel.studies.strength.panels.rows import PANELS

SHELL = Station(
    name="shell",
    title="Shell",
    is_begun=lambda design: design.shell is not None,
    studies={
        "geometry": GEOMETRY,
        "cuts": CUTS_SHOWN,
        "features": FEATURES,
        "ports": PORT_PLACES,
        "figures": FIGURES,
        "capacity": CAPACITY,
        "strapping": STRAPPING,
        "fill": FILL,
        "drained": DRAINED,
        "panels": PANELS,
        "safe_proof_kpa": SAFE_PROOF,
    },
    rules=(
        rules.capacity_below,
        rules.wall_thickness,
        rules.capacity_beyond,
        rules.bend_radius,
        feature_rules.sump_clears_ground,
        rules.fuel_can_be_reached,
        rules.air_can_leave,
        feature_rules.well_sheds_water,
        feature_rules.mouths_keep_apart,
        feature_rules.lands_are_wide_enough,
        feature_rules.walls_leave_no_sliver,
        rules.lobes_are_even,
        rules.proof_is_safe,
        rules.metal_bears_it,
    ),
    prescribers={
        "capacity.below": remedies.reach_target,
        "capacity.beyond": remedies.reach_target,
        "wall.thin": strength_remedies.thicker,
        "wall.weldable": strength_remedies.thicker,
        "proof.weak": strength_remedies.thicker,
        "bend.radius": remedies.larger_radius,
        "well.holds_water": feature_remedies.shed_water,
        "land.narrow": feature_remedies.wider_land,
        "sliver": feature_remedies.no_sliver,
        "sump.ground": feature_remedies.higher_sump,
        "fuel.unreached": feature_remedies.reach_fuel,
        "air.trapped": feature_remedies.let_air_out,
        "fuel.metal": remedies.other_metal,
    },
)
