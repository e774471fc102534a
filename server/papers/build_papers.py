"""Papers of the build: the traveller, and the sheet for work that goes out."""

from collections.abc import Iterator

from keel.analysis.tank import TankAnalysis
from server.papers.paper import Paper, StationPapers, Wanted
from server.papers.sent_out_sheet import sent_out_pdf
from server.papers.traveller_sheet import traveller_pdf


def _traveller(wanted: Wanted) -> bytes:
    return traveller_pdf(wanted.heading, wanted.state(), wanted.at_the_bench)


def _sent_out(wanted: Wanted) -> bytes:
    return sent_out_pdf(wanted.heading, wanted.state())


def _papers(_tank: TankAnalysis) -> Iterator[Paper]:
    yield Paper("traveller.pdf", "Traveller, PDF", _traveller)
    yield Paper("sent-out.pdf", "Work sent out, PDF", _sent_out)


BUILD_PAPERS = StationPapers("build", _papers)
