"""Mount: straps, feet and stops, and what they bear."""

from keel.design.mount import Mount
from keel.stations.mount import bolt_rules, filler_rules, harm_remedies, harm_rules, remedies, rules, stronger
from keel.stations.mount.holding_ways import holding_ways
from keel.stations.station import Station
from keel.studies.mount.bearers import BEARER_PLACES
from keel.studies.mount.bolt_list import BOLTS_LISTED
from keel.studies.mount.filler_pieces import FILLER_PIECES, OLD_MEASURED
from keel.studies.mount.filler_route import FILLER
from keel.studies.mount.leaned_on import LEANED_ON
from keel.studies.mount.loads import MOUNT_LOADS
from keel.studies.mount.near_seams import NEAR_SEAMS
from keel.studies.mount.protection import PROTECTION
from keel.studies.mount.straps import STRAPS
from keel.studies.mount.vehicle_shown import VEHICLE_SHOWN

MOUNT = Station(
    name="mount",
    title="Mount",
    is_begun=lambda design: design.mount != Mount(),
    studies={
        "straps": STRAPS,
        "bearers": BEARER_PLACES,
        "loads": MOUNT_LOADS,
        "bolts": BOLTS_LISTED,
        "protection": PROTECTION,
        "vehicle": VEHICLE_SHOWN,
        "leaned_on": LEANED_ON,
        "near_seams": NEAR_SEAMS,
        "filler": FILLER,
        "filler_pieces": FILLER_PIECES,
        "old_measured": OLD_MEASURED,
    },
    comparisons={"ways": holding_ways},
    rules=(
        rules.vehicle_is_kept,
        rules.wheel_loads_add_up,
        rules.straps_lie_on,
        rules.bearers_touch,
        rules.stops_touch,
        rules.enough_straps,
        rules.held_every_way,
        rules.links_bear,
        bolt_rules.thin_sheet_is_spread,
        bolt_rules.bolts_can_be_turned,
        bolt_rules.bolts_are_long_enough,
        rules.hollows_are_filled,
        rules.existing_straps_reach,
        harm_rules.mounts_keep_off,
        harm_rules.panels_bear_who_stands_there,
        harm_rules.new_work_keeps_off_seams,
        harm_rules.cuts_are_reinforced,
        filler_rules.filler_runs_down,
        filler_rules.filler_is_reached_and_seen,
        filler_rules.people_are_covered,
        filler_rules.the_old_tank_is_measured,
    ),
    prescribers={
        "mount.no_vehicle": remedies.without_vehicle,
        "mount.one_strap": remedies.second_strap,
        "mount.stop": remedies.against_the_tank,
        "mount.unheld": remedies.held_that_way,
        "mount.weak": stronger.stronger,
        "mount.spanner": remedies.captive,
        "mount.locking": remedies.locked,
        "mount.worn": remedies.replaced,
        "mount.existing": remedies.reaching,
        "filler.fall": filler_rules.steeper,
        "filler.overlap": filler_rules.longer_overlap,
        "mount.leaned_on": harm_remedies.thicker_there,
        "mount.near_seam": harm_remedies.safe_place,
        "mount.over_port": harm_remedies.beside_port,
    },
)
