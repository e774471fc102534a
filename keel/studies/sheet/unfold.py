"""Flat parts of any shell."""

from collections.abc import Sequence
from dataclasses import replace

from keel.analysis.parts import PLAIN, PORTS, SEAM, SHELL, WORKSHOP, only
from keel.analysis.study import study
from keel.design.document import Design
from keel.design.ports import Port
from keel.design.shell import BoxShell, CylinderShell, ProfileShell
from keel.design.workshop import Workshop
from keel.solid.build import build
from keel.solid.solids import AnyShell, Solids
from keel.studies.sheet.internals import internal_parts
from keel.studies.sheet.model import Sheet
from keel.studies.sheet.parts import FlatPart
from keel.studies.sheet.profile import profile_sheet
from keel.studies.sheet.rolled import cylinder_sheet
from keel.studies.sheet.wrapper import box_sheet


def shell_sheet(design: Design, workshop: Workshop) -> Sheet:
    """Unfold a design's shell, which has to be there, by the scheme of its kind."""
    shell = design.shell
    assert shell is not None
    if isinstance(shell, BoxShell):
        return box_sheet(shell, design, workshop)
    if isinstance(shell, ProfileShell):
        return profile_sheet(shell, design, workshop)
    return cylinder_sheet(shell, design, workshop)


def bare_solids(shell: AnyShell, seam: str) -> Solids:
    """The shell as it is built, without a bag or foam in it."""
    return build(shell, seam)


def whole_sheet(shell_parts: Sheet, inner_parts: list[FlatPart], ports: Sequence[Port], shell: AnyShell) -> Sheet:
    """The shell's parts and what stands inside, each with the ports that it has to have holes for."""
    parts = [_without_holes(part, ports, shell) for part in (*shell_parts.parts, *inner_parts)]
    return replace(shell_parts, parts=parts)


def _without_holes(part: FlatPart, ports: Sequence[Port], shell: AnyShell) -> FlatPart:
    """A part of the shell with the ports named that it has to have holes for: none is carried over to the flats yet."""
    if part.feature is not None:
        return part
    ends = ENDS[shell.axis if isinstance(shell, CylinderShell) else shell.wrap_axis]
    is_end = part.name.startswith("end")
    names = [port.name for port in ports if port.seat and (port.face in ends) == is_end]
    return replace(part, holes_not_drawn=names)


ENDS = {"x": ("rear", "front"), "y": ("right", "left"), "z": ("floor", "roof")}
"""Faces that the ends make, by the axis that a shell is drawn out along."""

BARE_SOLIDS = study(bare_solids, SHELL, SEAM).keeping(12)
SHELL_PARTS = study(shell_sheet, PLAIN, WORKSHOP)
INNER_PARTS = study(internal_parts, BARE_SOLIDS, only("shell", "sheet"), WORKSHOP)
SHEET = study(whole_sheet, SHELL_PARTS, INNER_PARTS, PORTS, SHELL)
