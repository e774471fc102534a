"""Papers of the hand-over: the gauge as it was poured, and what the customer gets."""

from collections.abc import Iterator
from dataclasses import replace

from keel.analysis.parts import SOLIDS
from keel.analysis.tank import TankAnalysis
from keel.formats.ports import breakpoints_csv
from keel.log.commission import points_poured
from keel.studies.gauge.gauge import GAUGE_TRUTH
from keel.studies.gauge.readings import GaugeTruth
from keel.studies.handover.as_poured import as_poured
from keel.studies.handover.first_fill import FIRST_FILL
from server.papers.booklet import booklet_pdf
from server.papers.gauge_face import gauge_pdf
from server.papers.handover_sheet import handover_pdf
from server.papers.paper import Paper, StationPapers, Wanted
from server.papers.shell_papers import DIP_STICK


def as_it_is(wanted: Wanted) -> GaugeTruth:
    """The gauge by its real curves; a sender that wasn't read at three steps of the fill as it is calculated."""
    tank = wanted.tank
    truth = tank[GAUGE_TRUTH]
    found = as_poured(truth, tank.design.gauge, tank[SOLIDS], points_poured(wanted.state().commission))
    real = {one.reading.id: replace(one.reading, name=f"{one.reading.name}, as poured") for one in found}
    readings = [real.get(one.id) or replace(one, name=f"{one.name}, as calculated") for one in truth.readings]
    return replace(truth, readings=readings)


def _papers(tank: TankAnalysis) -> Iterator[Paper]:
    if tank[FIRST_FILL]:
        yield Paper(
            "booklet.pdf",
            "Customer's booklet, PDF",
            lambda of: booklet_pdf(of.heading, of.tank, of.state(), as_it_is(of)),
        )
        yield Paper("hand-over.pdf", "Hand-over sheet, PDF", lambda of: handover_pdf(of.heading, of.state()))
    if tank[GAUGE_TRUTH].readings:
        yield Paper(
            "gauge-face-poured.pdf", "Gauge face as poured, PDF", lambda of: gauge_pdf(of.heading, as_it_is(of))
        )
        yield Paper(
            "gauge-poured.csv",
            "Ohms and litres as poured, CSV",
            lambda of: breakpoints_csv(as_it_is(of), of.heading.reader),
        )
        yield DIP_STICK


HANDOVER_PAPERS = StationPapers("handover", _papers)
