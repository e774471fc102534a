"""Lines: parts, runs, and what flows in them."""

from keel.design.document import Design
from keel.design.lines import Lines
from keel.findings.finding import Rule
from keel.stations.lines import (
    bore_rules,
    hose_rules,
    joint_rules,
    material_rules,
    old_rules,
    order_rules,
    pressure_rules,
    remedies,
    route_remedies,
    route_rules,
    surge_rules,
    tube_rules,
    vent_rules,
)
from keel.stations.lines.board_ways import board_ways
from keel.stations.lines.layouts import layouts
from keel.stations.lines.through_ways import through_ways
from keel.stations.station import Station, once
from keel.studies.lines.air_paths import AIR_PATHS
from keel.studies.lines.as_wired import LINE_MODES
from keel.studies.lines.bores import NARROWEST
from keel.studies.lines.circuits import CIRCUITS
from keel.studies.lines.clamps import CLAMPS
from keel.studies.lines.crossings import CROSSINGS
from keel.studies.lines.failures import FAILURES
from keel.studies.lines.filtration import FILTRATION
from keel.studies.lines.flows import FLOWS, STOPPED
from keel.studies.lines.growth import LINE_GROWTH
from keel.studies.lines.heat import HEAT
from keel.studies.lines.hoses import HOSES
from keel.studies.lines.injection import FEEDS
from keel.studies.lines.joint_places import JOINT_PLACES
from keel.studies.lines.joints import JOINTS
from keel.studies.lines.old_map import OLD_MAP
from keel.studies.lines.places import LINE_PLACES
from keel.studies.lines.pushed import PUSHED
from keel.studies.lines.route_gaps import ROUTE_GAPS
from keel.studies.lines.run_shapes import ROUTES
from keel.studies.lines.slack import SLACKS
from keel.studies.lines.speeds import ENGINE_DRIVEN
from keel.studies.lines.stretches import STRETCHES
from keel.studies.lines.strip import STRIP
from keel.studies.lines.suction import INLETS
from keel.studies.lines.surplus import SURPLUSES
from keel.studies.lines.tubes import TUBES

_RULES: tuple[Rule, ...] = (
    joint_rules.fuels_stay_apart,
    joint_rules.the_right_fuel_arrives,
    joint_rules.fuels_are_told_apart,
    joint_rules.parts_are_joined_to_the_tank,
    pressure_rules.modes_have_answers,
    pressure_rules.pumps_are_within_their_cards,
    pressure_rules.feeds_have_their_pressure,
    pressure_rules.injectors_suffice,
    pressure_rules.surplus_passes,
    pressure_rules.fuel_stays_liquid,
    joint_rules.jets_are_driven,
    joint_rules.references_are_joined,
    joint_rules.references_are_short,
    joint_rules.joints_fit,
    joint_rules.joints_are_known,
    joint_rules.no_tape_on_threads,
    joint_rules.clamped_tubes_are_beaded,
    joint_rules.nothing_is_left_open,
    joint_rules.tank_ports_are_joined,
    joint_rules.tank_ports_are_there,
    old_rules.old_things_have_a_fate,
    pressure_rules.lines_bear_their_pressure,
    pressure_rules.parts_bear_their_pressure,
    bore_rules.fuel_is_slow_enough,
    bore_rules.nothing_inside_is_narrow,
    order_rules.pumps_are_strained,
    order_rules.fuel_is_filtered,
    order_rules.teed_pumps_have_checks,
    order_rules.no_pump_works_for_nothing,
    surge_rules.surge_branch_is_right,
    order_rules.joined_pumps_can_be_shut_off,
    order_rules.sensors_see_clean_fuel,
    order_rules.a_commissioning_filter_is_planned,
    order_rules.parts_are_replaced_in_time,
    vent_rules.vents_end_outside,
    vent_rules.vents_end_away_from_harm,
    vent_rules.ports_know_their_vents,
    hose_rules.hoses_can_be_made,
    hose_rules.hoses_leave_straight,
    hose_rules.hoses_are_pushed_on,
    tube_rules.tubes_can_be_bent,
    tube_rules.tubes_meet_their_ports,
    tube_rules.springback_is_known,
    route_rules.runs_keep_off,
    route_rules.parts_stand_clear,
    route_rules.sheet_is_passed_by_holes,
    route_rules.joints_are_in_good_places,
    route_rules.hoses_have_slack,
    route_rules.runs_are_held,
    material_rules.line_materials_bear_it,
    material_rules.approvals_are_there,
)


def _is_begun(design: Design) -> bool:
    return design.lines != Lines()


LINES = Station(
    name="lines",
    title="Lines",
    is_begun=_is_begun,
    lacks=lambda design: not design.lines.runs,
    studies={
        "modes": LINE_MODES,
        "places": LINE_PLACES,
        "circuits": CIRCUITS,
        "flows": FLOWS,
        "stopped": STOPPED,
        "strip": STRIP,
        "stretches": STRETCHES,
        "joints": JOINTS,
        "feeds": FEEDS,
        "inlets": INLETS,
        "surplus": SURPLUSES,
        "narrowest": NARROWEST,
        "air": AIR_PATHS,
        "heat": HEAT,
        "filtration": FILTRATION,
        "routes": ROUTES,
        "route_gaps": ROUTE_GAPS,
        "crossings": CROSSINGS,
        "clamps": CLAMPS,
        "joint_places": JOINT_PLACES,
        "slacks": SLACKS,
        "tubes": TUBES,
        "hoses": HOSES,
        "pushed": PUSHED,
        "engine_driven": ENGINE_DRIVEN,
        "growth": LINE_GROWTH,
        "failures": FAILURES,
        "old": OLD_MAP,
    },
    comparisons={"layouts": layouts, "through": through_ways, "boards": board_ways},
    rules=once(_is_begun, _RULES),
    prescribers={
        "lines.joint": remedies.joined_rightly,
        "lines.open": remedies.capped,
        "lines.port_open": remedies.port_capped,
        "lines.reference": remedies.referenced,
        "lines.fast": remedies.wider,
        "lines.injectors": remedies.enough_across,
        "lines.no_check": remedies.checked,
        "lines.tape": remedies.without_tape,
        "lines.no_hole": route_remedies.through_a_hole,
        "lines.through": route_remedies.further_off,
        "lines.heat": route_remedies.further_off,
        "lines.moving": route_remedies.further_off,
        "lines.low": route_remedies.further_off,
        "lines.rear": route_remedies.further_off,
        "lines.rub": route_remedies.sleeved,
        "lines.rub_tank": route_remedies.sleeved,
        "lines.rub_line": route_remedies.sleeved,
        "lines.edge": route_remedies.sleeved,
        "lines.askew": route_remedies.led_out,
        "lines.tube_askew": route_remedies.led_out,
        "lines.no_slack": route_remedies.longer,
        "lines.vent_differs": vent_rules.taken_to_ports,
    },
)
