"""All stations, in the order of the work: judging, pricing, results and marks of the stations walk this list."""

from collections.abc import Iterator, Sequence
from contextlib import contextmanager, nullcontext

from keel.design.document import with_part
from keel.findings.finding import Prescriber
from keel.stations.bay.station import BAY
from keel.stations.brief.station import BRIEF
from keel.stations.build.station import BUILD
from keel.stations.buying.station import BUYING
from keel.stations.gauge.station import GAUGE
from keel.stations.handover.station import HANDOVER
from keel.stations.inside.station import INSIDE
from keel.stations.lines.station import LINES
from keel.stations.mount.station import MOUNT
from keel.stations.ports.station import PORTS
from keel.stations.proof.station import PROOF
from keel.stations.sheet.station import SHEET
from keel.stations.shell.station import SHELL
from keel.stations.station import Station
from keel.stations.wiring.station import WIRING

_STATIONS: list[Station] = [
    BRIEF,
    BAY,
    SHELL,
    INSIDE,
    PORTS,
    GAUGE,
    SHEET,
    BUILD,
    PROOF,
    MOUNT,
    LINES,
    WIRING,
    BUYING,
    HANDOVER,
]


def stations() -> Sequence[Station]:
    """Every station.

    Returns
    -------
    sequence of Station
        In the order of the work.
    """
    return tuple(_STATIONS)


def prescriber_of(code: str) -> Prescriber | None:
    """What would put a finding of a code right; None where nothing is known."""
    return next((station.prescribers[code] for station in _STATIONS if code in station.prescribers), None)


@contextmanager
def registered(station: Station) -> Iterator[None]:
    """One station more for a while, with its part of the document."""
    _STATIONS.append(station)
    known = with_part(station.name, station.part) if station.part else nullcontext()
    try:
        with known:
            yield
    finally:
        _STATIONS.remove(station)
