"""The papers of all stations: the list of files, and the files, walk this list."""

from collections.abc import Iterator, Sequence
from contextlib import contextmanager

from keel.analysis.tank import TankAnalysis
from server.http.errors import ApiError, not_yours
from server.papers.build_papers import BUILD_PAPERS
from server.papers.buying_papers import BUYING_PAPERS
from server.papers.gauge_papers import GAUGE_PAPERS
from server.papers.handover_papers import HANDOVER_PAPERS
from server.papers.lines_papers import LINES_PAPERS
from server.papers.mount_papers import MOUNT_PAPERS
from server.papers.paper import Paper, StationPapers
from server.papers.ports_papers import PORTS_PAPERS
from server.papers.proof_papers import PROOF_PAPERS
from server.papers.sheet_papers import SHEET_PAPERS
from server.papers.shell_papers import SHELL_PAPERS
from server.papers.wiring_papers import WIRING_PAPERS

_PAPERS: list[StationPapers] = [
    SHELL_PAPERS, PORTS_PAPERS, GAUGE_PAPERS, SHEET_PAPERS, BUILD_PAPERS, PROOF_PAPERS, MOUNT_PAPERS,
    LINES_PAPERS, WIRING_PAPERS, BUYING_PAPERS, HANDOVER_PAPERS,
]  # fmt: skip


def station_papers() -> Sequence[StationPapers]:
    """The papers of every station, in the order of the work."""
    return tuple(_PAPERS)


def paper_named(tank: TankAnalysis, name: str) -> Paper:
    """A paper by its name.

    Raises
    ------
    ApiError
        With the reason, where the tank isn't so far; 404 for what is no paper.
    """
    if tank.design.shell is None:
        raise ApiError(422, "no_shell", "There is no shell yet: give the tank its sizes first.")
    for papers in _PAPERS:
        for paper in papers.of(tank):
            if paper.name == name:
                return paper
    raise next((why for papers in _PAPERS if (why := papers.missing(tank, name)) is not None), not_yours())


@contextmanager
def registered(papers: StationPapers) -> Iterator[None]:
    """One station's papers more for a while."""
    _PAPERS.append(papers)
    try:
        yield
    finally:
        _PAPERS.remove(papers)
