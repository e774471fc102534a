"""Papers of the leak test."""

from collections.abc import Iterator

from keel.analysis.parts import SOLIDS
from keel.analysis.tank import TankAnalysis
from keel.studies.proof.walk import WALK
from server.papers.leak_test_sheet import leak_test_pdf
from server.papers.paper import Paper, StationPapers, Wanted


def _certificate(wanted: Wanted) -> bytes:
    tank = wanted.tank
    return leak_test_pdf(wanted.heading, wanted.state(), tank[WALK], tank[SOLIDS].datum, wanted.curves)


def _papers(_tank: TankAnalysis) -> Iterator[Paper]:
    yield Paper("leak-test.pdf", "Leak test certificate, PDF", _certificate)


PROOF_PAPERS = StationPapers("proof", _papers)
