"""Ports: in, out and air."""

from keel.findings import (
    feature_remedies,
    fuel_remedies,
    fuel_rules,
    hazard_remedies,
    hazard_rules,
    port_remedies,
    port_rules,
)
from keel.stations.station import Station
from keel.studies.ports.filling import FILL_RUNS
from keel.studies.ports.reach import HUNG, IN_ATTITUDES, LANDINGS, REACHES

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
        *port_rules.PORT_RULES,
        *hazard_rules.HAZARD_RULES,
        fuel_rules.rubber_bears_it,
    ),
    prescribers={
        "port.outside": feature_remedies.port_inside,
        "reach.short": port_remedies.reach_the_floor,
        "reach.long": port_remedies.lift_the_flange,
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
        "fuel.rubber": fuel_remedies.other_rubber,
        "port.on_seam": port_remedies.seam_elsewhere,
        "drain.high": port_remedies.to_the_low_point,
        "port.open": port_remedies.closed,
        "fill.back_pressure": port_remedies.larger_vent,
        "fill.slow": port_remedies.larger_vent,
        "draw.vacuum": port_remedies.larger_vent,
    },
)
