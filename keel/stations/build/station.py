"""Build: the order of work, its gates."""

from keel.stations.station import Station
from keel.studies.build.traveller import TRAVELLER

BUILD = Station(
    name="build",
    title="Build",
    is_begun=lambda design: design.shell is not None,
    studies={"traveller": TRAVELLER},
)
