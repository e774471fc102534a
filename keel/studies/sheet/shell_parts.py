"""Flat parts of any shell by itself, and where their pieces lie."""

from keel.analysis.parts import PLAIN, SEAM, SHELL, WORKSHOP
from keel.analysis.study import study
from keel.design.document import Design
from keel.design.shell import BoxShell, ProfileShell
from keel.design.workshop import Workshop
from keel.solid.build import build
from keel.solid.section import section_of
from keel.solid.solids import AnyShell, Solids
from keel.studies.sheet.lying import Lying, lying
from keel.studies.sheet.model import Sheet
from keel.studies.sheet.profile import profile_sheet, section_sheet
from keel.studies.sheet.rolled import cylinder_sheet
from keel.studies.sheet.trays import tray_sheet
from keel.studies.sheet.wrapper import box_sheet


def shell_sheet(design: Design, workshop: Workshop) -> Sheet:
    """Unfold a design's shell, which has to be there, by the scheme of its kind."""
    shell = design.shell
    assert shell is not None
    if isinstance(shell, BoxShell):
        return _of_box(shell, design, workshop)
    if isinstance(shell, ProfileShell):
        return profile_sheet(shell, design, workshop)
    return cylinder_sheet(shell, design, workshop)


def _of_box(shell: BoxShell, design: Design, workshop: Workshop) -> Sheet:
    match design.sheet.scheme:
        case "wrapper and pans":
            return box_sheet(shell, design, workshop)
        case "two U's" | "tray and lid":
            return tray_sheet(shell, design, workshop)
    return section_sheet(shell, section_of(shell, design.sheet.making), design, workshop, design.sheet.scheme)


def bare_solids(shell: AnyShell, seam: str) -> Solids:
    """The shell as it is built, without a bag or foam in it."""
    return build(shell, seam)


def pieces_of(shell_parts: Sheet) -> list[Lying]:
    """Every piece of the shell where it lies."""
    return [lying(part, place) for part in shell_parts.parts for place in part.places]


BARE_SOLIDS = study(bare_solids, SHELL, SEAM).keeping(12)
SHELL_PARTS = study(shell_sheet, PLAIN, WORKSHOP)
PIECES = study(pieces_of, SHELL_PARTS)
