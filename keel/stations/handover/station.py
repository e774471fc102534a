"""Hand-over: what is open, lines proved, first fill, papers. How far it is says the log, which no design holds."""

from keel.stations.station import Station
from keel.studies.handover.first_fill import FIRST_FILL
from keel.studies.handover.line_joints import LINE_PROOF

HANDOVER = Station(
    name="handover",
    title="Hand-over",
    is_begun=lambda _design: False,
    studies={"proof": LINE_PROOF, "fills": FIRST_FILL},
)
