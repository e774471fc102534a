"""Ports: in, out and air."""

from keel.stations.ports import flow_rules, hanger_rules, hazard_remedies, hazard_rules, remedies, seat_rules
from keel.stations.station import Station
from keel.studies.ports.attitudes import IN_ATTITUDES
from keel.studies.ports.filling import FILL_RUNS
from keel.studies.ports.landing import LANDINGS
from keel.studies.ports.reach import HUNG, REACHES

PORTS = Station(
    name="ports",
    title="Ports",
    is_begun=lambda design: bool(design.ports),
    studies={
        "reaches": REACHES,
        "hung": HUNG,
        "landings": LANDINGS,
        "in_attitudes": IN_ATTITUDES,
        "fill_runs": FILL_RUNS,
    },
    rules=(
        hanger_rules.hangers_reach,
        hanger_rules.parts_go_in,
        seat_rules.seats_land,
        seat_rules.ports_keep_apart,
        seat_rules.lock_rings_turn,
        flow_rules.air_path,
        flow_rules.low_and_returned,
        flow_rules.fills_and_draws,
        *hazard_rules.HAZARD_RULES,
        hazard_rules.rubber_bears_it,
    ),
    prescribers={
        "port.outside": remedies.port_inside,
        "reach.short": remedies.reach_the_floor,
        "reach.long": remedies.lift_the_flange,
        "cell.no_vent": hazard_remedies.a_vent,
        "cell.no_pickup": hazard_remedies.a_pickup,
        "cell.no_filler": hazard_remedies.a_filler,
        "surge.no_overflow": hazard_remedies.an_overflow,
        "surge.no_return": hazard_remedies.a_return,
        "vent.rollover": hazard_remedies.rolled_over,
        "vent.under": hazard_remedies.vents_on_slopes,
        "filler.unbonded": hazard_remedies.bonded,
        "filler.bonding_open": hazard_remedies.bonded,
        "port.blind": hazard_remedies.unblinded,
        "transfer.idle": hazard_remedies.driven,
        "fuels.one_cell": hazard_remedies.parted,
        "fuels.meet": hazard_remedies.kept_apart,
        "fuel.rubber": remedies.other_rubber,
        "port.on_seam": remedies.seam_elsewhere,
        "drain.high": remedies.to_the_low_point,
        "port.open": remedies.closed,
        "fill.back_pressure": remedies.larger_vent,
        "fill.slow": remedies.larger_vent,
        "draw.vacuum": remedies.larger_vent,
    },
)
