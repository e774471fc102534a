"""Papers of the buying list."""

from collections.abc import Iterator

from keel.analysis.tank import TankAnalysis
from keel.formats.buying import buying_csv
from keel.studies.buying.buying_list import BUYING_LIST
from server.papers.buying_sheet import buying_pdf
from server.papers.paper import Paper, StationPapers


def _papers(tank: TankAnalysis) -> Iterator[Paper]:
    if tank[BUYING_LIST].rows:
        yield Paper("buying.pdf", "Buying list, PDF", lambda of: buying_pdf(of.heading, of.tank))
        yield Paper("buying.csv", "Buying list, CSV", lambda of: buying_csv(of.tank[BUYING_LIST].rows))


BUYING_PAPERS = StationPapers("buying", _papers)
