"""Papers of the lines: their sheet, their joints, each adapter that is specially made."""

from collections.abc import Iterator
from functools import partial

from keel.analysis.parts import LINES
from keel.analysis.tank import TankAnalysis
from keel.formats.lines import bends_csv, hoses_csv, joints_csv
from keel.formats.old_map import old_map_csv
from keel.studies.lines.hoses import HOSES
from keel.studies.lines.joints import JOINTS
from keel.studies.lines.old_map import OLD_MAP
from keel.studies.lines.tubes import TUBES, TubeMade
from server.papers.adapter_sheet import adapter_pdf
from server.papers.hose_sheet import hoses_pdf
from server.papers.lines_sheet import lines_pdf
from server.papers.old_sheet import old_map_pdf
from server.papers.paper import Paper, StationPapers, Wanted
from server.papers.tube_sheet import tube_pdf


def _sheet(wanted: Wanted) -> bytes:
    return lines_pdf(wanted.heading, wanted.tank)


def _joints(wanted: Wanted) -> bytes:
    return joints_csv(wanted.tank[JOINTS], wanted.heading.reader)


def _adapter(run: str, side: str, wanted: Wanted) -> bytes:
    return adapter_pdf(wanted.heading, wanted.tank, run, side)


def _papers(tank: TankAnalysis) -> Iterator[Paper]:
    lines = tank[LINES]
    if lines.old:
        yield Paper("old-to-new.pdf", "Old to new, PDF", lambda of: old_map_pdf(of.heading, of.tank))
        yield Paper("old-to-new.csv", "Old to new, CSV", lambda of: old_map_csv(of.tank[OLD_MAP].things))
    if not lines.runs:
        return
    yield Paper("lines.pdf", "Lines sheet, PDF", _sheet)
    yield Paper("lines-joints.csv", "Joints, CSV", _joints)
    for run in lines.runs:
        for side, end in (("start", run.start), ("end", run.end)):
            if end.adapter is not None and end.adapter.special:
                made = partial(_adapter, run.id, side)
                yield Paper(f"adapter-{run.id}-{side}.pdf", f"Adapter at the {side} of {run.name}, PDF", made)
    if tank[HOSES].cut:
        yield Paper("hoses.pdf", "Hoses to cut, PDF", _hoses)
        yield Paper("hoses.csv", "Hoses to cut, CSV", _hoses_csv)
    for tube in tank[TUBES]:
        if not tube.turns_back:
            yield Paper(f"tube-{tube.id}.pdf", f"Bend table of {tube.name}, PDF", partial(_tube, tube))
            yield Paper(f"tube-{tube.id}.csv", f"Bend table of {tube.name}, CSV", partial(_bends, tube))


def _hoses(wanted: Wanted) -> bytes:
    return hoses_pdf(wanted.heading, wanted.tank)


def _hoses_csv(wanted: Wanted) -> bytes:
    return hoses_csv(wanted.tank[HOSES].cut, wanted.heading.reader)


def _bends(tube: TubeMade, wanted: Wanted) -> bytes:
    return bends_csv(tube, wanted.heading.reader)


def _tube(tube: TubeMade, wanted: Wanted) -> bytes:
    return tube_pdf(wanted.heading, tube)


LINES_PAPERS = StationPapers("lines", _papers)
