"""Papers of the wiring: diagram and pin table for whoever does it, labels for before the tank goes up."""

from collections.abc import Iterator

from keel.analysis.parts import WIRING
from keel.analysis.tank import TankAnalysis
from keel.formats.wiring import labels_csv, pins_csv, wires_csv
from keel.studies.wiring.pins import PINS, WIRE_LABELS
from keel.studies.wiring.runs import WIRE_RUNS
from keel.studies.wiring.wired import WIRED
from server.papers.paper import Paper, StationPapers, Wanted
from server.papers.wire_labels import wire_labels_pdf
from server.papers.wiring_sheet import wiring_pdf


def _papers(tank: TankAnalysis) -> Iterator[Paper]:
    if not tank[WIRING].wires:
        return
    yield Paper("wiring.pdf", "Wiring: diagram, wires and pins, PDF", lambda of: wiring_pdf(of.heading, of.tank))
    yield Paper("wire-labels.pdf", "Labels for both ends of every wire, PDF", _labels)
    yield Paper("wires.csv", "Wires, CSV", _wires)
    yield Paper("pins.csv", "Pins, CSV", lambda of: pins_csv(of.tank[PINS], of.heading.reader))
    yield Paper("wire-labels.csv", "Labels, CSV", lambda of: labels_csv(of.tank[WIRE_LABELS], of.heading.reader))


def _labels(wanted: Wanted) -> bytes:
    return wire_labels_pdf(wanted.heading, wanted.tank)


def _wires(wanted: Wanted) -> bytes:
    tank = wanted.tank
    return wires_csv(tank[WIRING], tank[WIRE_RUNS], tank[WIRED], wanted.heading.reader)


WIRING_PAPERS = StationPapers("wiring", _papers)
