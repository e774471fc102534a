"""Build: the order of work, its gates. How far it is says the log, which no design holds."""

from keel.stations.station import Station
from keel.studies.build.traveller import TRAVELLER

BUILD = Station(
    name="build",
    title="Build",
    is_begun=lambda _design: False,
    studies={"traveller": TRAVELLER},
)
