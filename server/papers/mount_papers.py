"""Papers of the mount: its sheet, its bolts, each strap."""

from collections.abc import Iterator
from functools import partial

from keel.analysis.parts import MOUNT, SOLIDS
from keel.analysis.tank import TankAnalysis
from keel.design.mount import Mount, Strap
from keel.formats.mount import bolts_csv, strap_dxf
from keel.studies.mount.bolt_list import BOLTS_LISTED
from keel.studies.mount.outline import outline_at
from keel.studies.mount.straps import STRAPS, StrapPath
from server.papers.mount_sheet import mount_pdf
from server.papers.paper import Paper, StationPapers, Wanted
from server.papers.strap_sheet import strap_pdf


def _sheet(wanted: Wanted) -> bytes:
    return mount_pdf(wanted.heading, wanted.tank)


def _bolts(wanted: Wanted) -> bytes:
    return bolts_csv(wanted.tank[BOLTS_LISTED], wanted.heading.reader)


def _strap(strap: Strap, path: StrapPath, wanted: Wanted) -> bytes:
    tank = wanted.tank
    outline = outline_at(tank[SOLIDS], 0 if strap.across == "y" else 1, strap.at_mm)
    return strap_pdf(wanted.heading, strap, path, outline, tank[BOLTS_LISTED])


def _strip(strap: Strap, path: StrapPath, _wanted: Wanted) -> bytes:
    return strap_dxf(strap, path)


def _papers(tank: TankAnalysis) -> Iterator[Paper]:
    mount = tank[MOUNT]
    if mount == Mount():
        return
    yield Paper("mount.pdf", "Mount sheet, PDF", _sheet)
    yield Paper("mount-bolts.csv", "Bolts, CSV", _bolts)
    for strap, path in zip(mount.straps, tank[STRAPS], strict=True):
        if not path.problem:
            yield Paper(f"strap-{strap.id}.pdf", f"{strap.name}, 1:1 PDF", partial(_strap, strap, path))
            yield Paper(f"strap-{strap.id}.dxf", f"{strap.name}, DXF", partial(_strip, strap, path))


MOUNT_PAPERS = StationPapers("mount", _papers)
