"""Lines: parts, runs, and what flows in them."""

from keel.design.lines import Lines
from keel.stations.lines import joint_rules, pressure_rules
from keel.stations.station import Station
from keel.studies.lines.circuits import CIRCUITS
from keel.studies.lines.flows import FLOWS
from keel.studies.lines.injection import FEEDS
from keel.studies.lines.joints import JOINTS
from keel.studies.lines.modes import LINE_MODES
from keel.studies.lines.places import LINE_PLACES
from keel.studies.lines.stretches import STRETCHES
from keel.studies.lines.strip import STRIP
from keel.studies.lines.suction import INLETS
from keel.studies.lines.surplus import SURPLUSES

LINES = Station(
    name="lines",
    title="Lines",
    is_begun=lambda design: design.lines != Lines(),
    lacks=lambda design: not design.lines.runs,
    studies={
        "modes": LINE_MODES,
        "places": LINE_PLACES,
        "circuits": CIRCUITS,
        "flows": FLOWS,
        "strip": STRIP,
        "stretches": STRETCHES,
        "joints": JOINTS,
        "feeds": FEEDS,
        "inlets": INLETS,
        "surplus": SURPLUSES,
    },
    rules=(
        joint_rules.fuels_stay_apart,
        joint_rules.parts_are_joined_to_the_tank,
        pressure_rules.modes_have_answers,
        pressure_rules.pumps_are_within_their_cards,
        pressure_rules.feeds_have_their_pressure,
        pressure_rules.injectors_suffice,
        pressure_rules.surplus_passes,
        pressure_rules.fuel_stays_liquid,
        joint_rules.jets_are_driven,
        joint_rules.references_are_joined,
        joint_rules.joints_fit,
        joint_rules.joints_are_known,
        joint_rules.no_tape_on_threads,
        joint_rules.clamped_tubes_are_beaded,
        joint_rules.nothing_is_left_open,
        joint_rules.tank_ports_are_joined,
        pressure_rules.lines_bear_their_pressure,
        pressure_rules.fuel_is_slow_enough,
    ),
)
