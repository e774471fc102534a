"""Wiring: current to the pumps, signals, what stops them, and the bonds."""

from keel.design.document import Design
from keel.design.wiring import Wiring
from keel.findings.finding import Rule
from keel.stations.station import Station, once
from keel.stations.wiring import current_rules, place_rules, remedies
from keel.stations.wiring.cut_offs import cut_off_added
from keel.stations.wiring.feed_ways import feed_ways
from keel.studies.wiring.bonds import BONDING
from keel.studies.wiring.diagram import DIAGRAM
from keel.studies.wiring.lamps import LAMPS, LEVELS
from keel.studies.wiring.pins import PINS
from keel.studies.wiring.runs import WIRE_RUNS
from keel.studies.wiring.supply import PUMP_SUPPLIES, STOPPINGS
from keel.studies.wiring.voltages import PUMP_VOLTAGES
from keel.studies.wiring.wired import WIRED

_RULES: tuple[Rule, ...] = (
    current_rules.there_is_a_battery,
    current_rules.poles_stay_apart,
    current_rules.wires_end_somewhere,
    current_rules.ways_are_whole,
    current_rules.currents_are_known,
    current_rules.wires_bear_their_current,
    current_rules.wires_are_fused,
    current_rules.fuses_suit_their_current,
    current_rules.contacts_bear_their_current,
    current_rules.pumps_stop_by_themselves,
    current_rules.pumps_are_wired,
    current_rules.pumps_are_on_in_some_mode,
    current_rules.little_is_lost,
    current_rules.pumps_have_relays,
    place_rules.wires_in_the_tank_bear_fuel,
    place_rules.no_sparks_in_vapour,
    place_rules.wires_keep_off,
    place_rules.metal_is_bonded,
    place_rules.lamps_mean_something,
    place_rules.levels_are_set,
    place_rules.wires_are_told_apart,
)


def _is_begun(design: Design) -> bool:
    return design.wiring != Wiring()


WIRING = Station(
    name="wiring",
    title="Wiring",
    is_begun=_is_begun,
    lacks=lambda design: not design.wiring.wires,
    studies={
        "runs": WIRE_RUNS,
        "wired": WIRED,
        "supplies": PUMP_SUPPLIES,
        "voltages": PUMP_VOLTAGES,
        "stoppings": STOPPINGS,
        "levels": LEVELS,
        "lamps": LAMPS,
        "pins": PINS,
        "bonding": BONDING,
        "diagram": DIAGRAM,
    },
    comparisons={"feeds": feed_ways},
    rules=once(_is_begun, _RULES),
    prescribers={
        "wiring.in_fuel": remedies.fuel_proof,
        "wiring.in_tank_loose": remedies.tied,
        "wiring.no_grommet": remedies.in_grommets,
        "wiring.thin": remedies.thicker,
        "wiring.drop": remedies.loses_less,
        "wiring.fuse_over": remedies.fused_rightly,
        "wiring.fuse_small": remedies.fuse_by_current,
        "wiring.fuse_large": remedies.fuse_by_current,
        "wiring.rub": remedies.tied,
        "wiring.edge": remedies.tied,
        "wiring.rub_tank": remedies.tied,
        "wiring.heat": remedies.led_round,
        "wiring.moving": remedies.led_round,
        "wiring.through": remedies.led_round,
        "wiring.unbonded": remedies.bonded,
        "wiring.reserve": remedies.at_reserve,
        "wiring.no_cut_off": cut_off_added,
        "wiring.no_crash_cut_off": cut_off_added,
        "wiring.no_stall_cut_off": cut_off_added,
    },
)
