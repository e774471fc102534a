"""Papers of the gauge: its face, the dip stick, ohms against litres."""

from collections.abc import Iterator

from keel.analysis.tank import TankAnalysis
from keel.formats.ports import breakpoints_csv
from keel.studies.gauge.gauge import GAUGE_TRUTH
from server.http.errors import ApiError
from server.papers.gauge_face import gauge_pdf
from server.papers.paper import Paper, StationPapers
from server.papers.shell_papers import DIP_STICK


def _papers(tank: TankAnalysis) -> Iterator[Paper]:
    truth = tank[GAUGE_TRUTH]
    if truth.readings:
        yield Paper("gauge-face.pdf", "Gauge face 1:1, PDF", lambda wanted: gauge_pdf(wanted.heading, truth))
        yield DIP_STICK
        yield Paper("gauge.csv", "Ohms and litres, CSV", lambda wanted: breakpoints_csv(truth, wanted.heading.reader))


def _missing(_tank: TankAnalysis, name: str) -> ApiError | None:
    if name not in ("gauge-face.pdf", "gauge.csv"):
        return None
    return ApiError(422, "no_sender", "There is no sender in the tank yet: place one at Gauge.")


GAUGE_PAPERS = StationPapers("gauge", _papers, _missing)
