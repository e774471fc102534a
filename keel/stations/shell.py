"""Shell: its shape and capacity."""

from keel.findings import feature_remedies, fuel_remedies, fuel_rules, remedies, rules, shape_rules
from keel.stations.station import Station
from keel.studies.cost.figures import FIGURES
from keel.studies.drawing.geometry import CUTS_SHOWN, FEATURES, GEOMETRY, PORT_PLACES
from keel.studies.liquid.capacity import CAPACITY
from keel.studies.liquid.fill_level import DRAINED, FILL
from keel.studies.liquid.strapping import STRAPPING
from keel.studies.strength.panels.rows import PANELS, SAFE_PROOF

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
        shape_rules.sump_clears_ground,
        shape_rules.fuel_can_be_reached,
        shape_rules.air_can_leave,
        shape_rules.well_sheds_water,
        shape_rules.mouths_keep_apart,
        shape_rules.lands_are_wide_enough,
        shape_rules.walls_leave_no_sliver,
        shape_rules.lobes_are_even,
        shape_rules.proof_is_safe,
        fuel_rules.metal_bears_it,
    ),
    prescribers={
        "capacity.below": remedies.reach_target,
        "capacity.beyond": remedies.reach_target,
        "wall.thin": remedies.thicker,
        "wall.weldable": remedies.thicker,
        "proof.weak": remedies.thicker,
        "bend.radius": remedies.larger_radius,
        "well.holds_water": feature_remedies.shed_water,
        "land.narrow": feature_remedies.wider_land,
        "sliver": feature_remedies.no_sliver,
        "sump.ground": feature_remedies.higher_sump,
        "fuel.unreached": feature_remedies.reach_fuel,
        "air.trapped": feature_remedies.let_air_out,
        "fuel.metal": fuel_remedies.other_metal,
    },
)
