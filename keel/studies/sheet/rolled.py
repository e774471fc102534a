"""A cylinder's flat parts: one rolled wrapper and two ends."""

from math import pi, sin, sqrt

import numpy as np

from keel.design.document import Design
from keel.design.shell import CylinderShell
from keel.design.workshop import Workshop
from keel.studies.sheet.model import Seam, Sheet, flat_part
from keel.studies.sheet.parts import FlatPart, rectangle
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
    seams = [Seam("closing seam", shell.run_mm, not upright)]
    seams += [Seam(f"{name} end", pi * bore, upright and name == "lower") for name in _end_names(shell)]
    return made(
        "rolled wrapper and two ends",
        [_wrapper(shell), _end(shell, bore, gap)],
        seams,
        0,
        k=workshop.k_for(shell.metal),
        deduction=0.0,
        gap=gap,
        inside=None,
        roll=shell.diameter_mm / 2,
        overall=shell.run_mm,
    )


def _wrapper(shell: CylinderShell) -> FlatPart:
    return flat_part(
        shell.metal,
        name="wrapper",
        title="Wrapper",
        quantity=1,
        thickness_mm=shell.thickness_mm,
        outline=rectangle(pi * (shell.diameter_mm - shell.thickness_mm), shell.run_mm),
        bends=[],
        marks=[],
        note=f"Roll to {shell.diameter_mm:g} mm outside diameter; the inside of the tank faces you.",
    )


def _end(shell: CylinderShell, bore: float, gap: float) -> FlatPart:
    across = bore - 2 * gap if not shell.dish_mm else sqrt(bore**2 + 4 * shell.dish_mm**2)
    turn = 2 * pi * np.arange(AROUND) / AROUND
    reach = across / 2 * sqrt(2 * pi / AROUND / sin(2 * pi / AROUND))
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
    )


def _end_names(shell: CylinderShell) -> tuple[str, str]:
    return {"x": ("rear", "front"), "y": ("right", "left"), "z": ("lower", "upper")}[shell.axis]
