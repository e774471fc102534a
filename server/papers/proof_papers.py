"""Papers of the leak test."""

from collections.abc import Iterator

from keel.analysis.tank import TankAnalysis
from keel.studies.proof.walk import WALK
from server.papers.leak_test_sheet import leak_test_pdf
from server.papers.paper import Paper, StationPapers, Wanted


def _certificate(wanted: Wanted) -> bytes:
    return leak_test_pdf(wanted.heading, wanted.state(), wanted.tank[WALK], wanted.curves)


def _papers(_tank: TankAnalysis) -> Iterator[Paper]:
    yield Paper("leak-test.pdf", "Leak test certificate, PDF", _certificate)


PROOF_PAPERS = StationPapers("proof", _papers)
