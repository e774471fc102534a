"""Papers of the build: the traveller."""

from collections.abc import Iterator

from keel.analysis.tank import TankAnalysis
from server.papers.paper import Paper, StationPapers, Wanted
from server.papers.traveller_sheet import traveller_pdf


def _traveller(wanted: Wanted) -> bytes:
    return traveller_pdf(wanted.heading, wanted.state(), wanted.at_the_bench)


def _papers(_tank: TankAnalysis) -> Iterator[Paper]:
    yield Paper("traveller.pdf", "Traveller, PDF", _traveller)


BUILD_PAPERS = StationPapers("build", _papers)
