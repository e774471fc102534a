"""Flat parts of a shell and of all that stands inside."""

from dataclasses import replace

from keel.analysis.parts import WORKSHOP, only
from keel.analysis.study import study
from keel.studies.sheet.internals import internal_parts
from keel.studies.sheet.model import Sheet
from keel.studies.sheet.parts import FlatPart
from keel.studies.sheet.shell_parts import BARE_SOLIDS, SHELL_PARTS
from keel.studies.sheet.tabs import TABS


def whole_sheet(shell_parts: Sheet, inner_parts: list[FlatPart]) -> Sheet:
    """The shell's parts, and what stands inside."""
    return replace(shell_parts, parts=[*shell_parts.parts, *inner_parts])


INNER_PARTS = study(internal_parts, BARE_SOLIDS, TABS, only("shell", "sheet"), WORKSHOP)
SHEET = study(whole_sheet, SHELL_PARTS, INNER_PARTS)
"""All parts, before holes are cut: what they weigh, and what joining them takes."""
