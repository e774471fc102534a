"""Sheet: flat parts."""

from keel.stations.sheet import brake_rules, hole_rules, proof_rules, remedies, rules, tab_rules
from keel.stations.sheet.as_built import cut_parts_fit, departures, parts_changed
from keel.stations.sheet.schemes import schemes
from keel.stations.station import Station
from keel.studies.sheet.as_bent import SECTION_ANGLES
from keel.studies.sheet.bending import BENDINGS
from keel.studies.sheet.cutting import CUTTING
from keel.studies.sheet.flats import FLATS
from keel.studies.sheet.fold_proof import FOLD_PROOF
from keel.studies.sheet.fold_view import FOLD_PIECES
from keel.studies.sheet.hole_checks import HOLE_CHECKS
from keel.studies.sheet.seam import SEAM_PLACES
from keel.studies.sheet.seam_proof import SEAM_PROOF

SHEET = Station(
    name="sheet",
    title="Sheet",
    is_begun=lambda design: design.shell is not None,
    studies={
        "unfolded": FLATS,
        "fold_proof": FOLD_PROOF,
        "bending": BENDINGS,
        "holes": HOLE_CHECKS,
        "folding": FOLD_PIECES,
        "cutting": CUTTING,
        "seam_proof": SEAM_PROOF,
        "angles": SECTION_ANGLES,
        "seam": SEAM_PLACES,
    },
    comparisons={"schemes": schemes, "departures": departures, "parts_changed": parts_changed},
    rules=(
        brake_rules.closed_box,
        brake_rules.brake_width,
        brake_rules.pan_is_shallow,
        brake_rules.features_bent,
        brake_rules.brake_turns_it,
        rules.means_to_cut,
        rules.pan_possible,
        rules.stock_sheet,
        rules.bent_across_the_grain,
        rules.pan_flange,
        brake_rules.brake_bends_it,
        hole_rules.holes_are_drawn,
        hole_rules.holes_stand_clear,
        proof_rules.folds_up,
        proof_rules.seams_meet,
        brake_rules.end_legs_are_caught,
        brake_rules.bends_can_be_made,
        brake_rules.hems_are_long_enough,
        rules.rolls_can_be_made,
        proof_rules.features_not_unfolded,
        cut_parts_fit,
        tab_rules.slots_stand_apart,
        tab_rules.slots_are_seams,
    ),
    prescribers={
        "brake.closed_box": remedies.closable,
        "brake.thick": remedies.thinner,
        "brake.width": remedies.shorter,
        "brake.deep": remedies.lower_walls,
        "brake.feature": remedies.of_plates,
        "brake.angle": remedies.of_plates,
        "brake.order": remedies.parted,
        "brake.leg": remedies.longer_edge,
        "rolls.width": remedies.shorter,
        "rolls.tight": remedies.wider_roll,
        "pan.flange": remedies.longer_flange,
        "stock.size": remedies.on_the_sheet,
        "hem.short": remedies.deeper_hem,
        "tabs.near": tab_rules.without_tabs,
        "tabs.seams": tab_rules.without_tabs,
        "stock.grain": remedies.sure_radius,
        "stock.none": remedies.stocked_gauge,
    },
)
