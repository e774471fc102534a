"""Flat parts of any shell."""

from keel.design.document import Design
from keel.design.shell import BoxShell, ProfileShell
from keel.design.workshop import Workshop
from keel.studies.sheet.model import Sheet
from keel.studies.sheet.profile import cylinder_sheet, profile_sheet
from keel.studies.sheet.wrapper import box_sheet


def sheet(design: Design, workshop: Workshop) -> Sheet | None:
    """Unfold a design's shell by the scheme of its kind; None without a shell."""
    shell = design.shell
    if shell is None:
        return None
    if isinstance(shell, BoxShell):
        return box_sheet(shell, design, workshop)
    if isinstance(shell, ProfileShell):
        return profile_sheet(shell, design, workshop)
    return cylinder_sheet(shell, design, workshop)
