"""A cylinder's flat parts: one rolled wrapper and two ends."""

from math import pi, sin, sqrt

import numpy as np

from keel.design.document import Design
from keel.design.shell import CylinderShell
from keel.design.workshop import Workshop
from keel.solid.section import section_of
from keel.studies.result import words
from keel.studies.sheet.model import Seam, SeamAt, Sheet, flat_part
from keel.studies.sheet.parts import FlatPart, Roll, rectangle
from keel.studies.sheet.placing import end_places, wound
from keel.studies.sheet.profile import made

AROUND = 180
"""Corners of a disc's outline: a polygon of the disc's area."""


def cylinder_sheet(shell: CylinderShell, design: Design, workshop: Workshop) -> Sheet:
    """Flat parts of a cylinder: a rolled wrapper, π (D − t) long, and two discs set into it.

    References
    ----------
    The wrapper's length is that of its neutral fibre, which a wide roll has in the middle of the sheet. A dished end's
    blank has the cap's area, π (r² + h²): a cap of a sphere (derived); a press that stretches it wants less.
    """
    gap = workshop.rules.pan_gap_mm if design.sheet.pan_gap_mm is None else design.sheet.pan_gap_mm
    bore = shell.diameter_mm - 2 * shell.thickness_mm
    upright = shell.axis == "z"
    ends_at: tuple[SeamAt, SeamAt] = ("floor", "top") if upright else ("side", "side")
    seams = [Seam("closing seam", shell.run_mm, "side" if upright else "top")]
    seams += [Seam(f"{name} end", pi * bore, at) for name, at in zip(_end_names(shell), ends_at, strict=True)]
    return made(
        "rolled wrapper and two ends",
        [_wrapper(shell), _end(shell, bore, gap)],
        seams,
        0,
        k=workshop.k_for(shell.metal, shell.thickness_mm),
        deduction=0.0,
        gap=gap,
        inside=None,
        roll=shell.diameter_mm / 2,
        overall=shell.run_mm,
    )


def _wrapper(shell: CylinderShell) -> FlatPart:
    around, run, section = pi * (shell.diameter_mm - shell.thickness_mm), shell.run_mm, section_of(shell)
    (left, _), (right, high) = section.extents
    top = ((left + right) / 2, high)
    return flat_part(
        shell.metal,
        name="wrapper",
        title="Wrapper",
        quantity=1,
        thickness_mm=shell.thickness_mm,
        outline=rectangle(around, run),
        bends=[],
        marks=[],
        rolls=[Roll((0.0, 0.0), (0.0, run), (around, 0.0), (around, run), "up", 360.0, around / 2 / pi)],
        places=[wound(section, 0.0, around / 4, top, pi, section.span)],
        note=words(
            "Roll to {across_sheet} outside diameter; the inside of the tank faces you.", across_sheet=shell.diameter_mm
        ),
    )


def _end(shell: CylinderShell, bore: float, gap: float) -> FlatPart:
    across = bore - 2 * gap if not shell.dish_mm else sqrt(bore**2 + 4 * shell.dish_mm**2)
    turn = 2 * pi * np.arange(AROUND) / AROUND
    reach = across / 2 * sqrt(2 * pi / AROUND / sin(2 * pi / AROUND))
    section, less = section_of(shell), (shell.diameter_mm - across) / 2
    left, low = section.extents[0]
    flush, blank = "Set into the wrapper, flush.", "Blank for a dished end of the same area; spin or press."
    return flat_part(
        shell.metal,
        name="end",
        title="Dished end, blank" if shell.dish_mm else "End",
        quantity=2,
        thickness_mm=shell.end_wall_mm,
        outline=[(float(reach * np.cos(a)), float(reach * np.sin(a))) for a in turn],
        bends=[],
        marks=[],
        note=blank if shell.dish_mm else flush,
        places=[] if shell.dish_mm else end_places(section, (left + less, low + less), shell.end_wall_mm),
    )


def _end_names(shell: CylinderShell) -> tuple[str, str]:
    return {"x": ("rear", "front"), "y": ("right", "left"), "z": ("lower", "upper")}[shell.axis]
