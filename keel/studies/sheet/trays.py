"""A box whose floor is bent up: two U's, or a tray and its lid. Welded edges stop at each other's inner faces."""

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from keel.design.document import Design
from keel.design.shell import BoxShell
from keel.design.workshop import Workshop
from keel.solid.box import BoxSolid, solid_of
from keel.solid.polyhedron import Array
from keel.studies.result import Words, words
from keel.studies.sheet.bends import bend_deduction
from keel.studies.sheet.model import Seam, Sheet, flat_part
from keel.studies.sheet.pans import Flange, Pan, Side
from keel.studies.sheet.parts import FlatPart, Place
from keel.studies.sheet.placing import placed

SIDES: tuple[Side, ...] = ("left", "right", "front", "back")
ENDS: tuple[Side, ...] = ("left", "right")
LONG_SIDES: tuple[Side, ...] = ("front", "back")


@dataclass(frozen=True)
class _Box:
    """What the parts share [mm]: the box over its plates, its sheet and how it is bent."""

    shell: BoxShell
    solid: BoxSolid
    k: float

    @property
    def size(self) -> tuple[float, float, float]:
        """Along the axis of the wrapper that it hasn't, across, up."""
        size = self.solid.body.size
        return size[self.solid.wrap], size[self.solid.across], size[2]

    def pan(self, length: float, width: float, up: Sequence[Side]) -> Pan:
        """A base with walls that stop at the inner face of what lies on them."""
        wall = Flange(self.size[2] - self.shell.thickness_mm)
        return Pan(
            length,
            width,
            dict.fromkeys(up, wall),
            self.shell.thickness_mm,
            self.shell.bend_radius_mm,
            self.k,
            corners="closed",
        )

    def place(self, name: str, pan: Pan, off: tuple[float, float], at_lid: bool) -> Place:
        """Where a base lies: its low corner so far in from the box's, its inside up, or down at the lid."""
        body, wrap, across = self.solid.body, self.solid.wrap, self.solid.across
        along, inward = np.zeros(3), np.array([0.0, 0.0, -1.0 if at_lid else 1.0])
        along[wrap] = 1.0
        from_high = float(np.cross(inward, along)[across]) < 0
        origin: Array = np.zeros(3)
        origin[wrap] = body.low[wrap] + off[0]
        origin[across] = body.high[across] - off[1] if from_high else body.low[across] + off[1]
        origin[2] = (body.high if at_lid else body.low)[2]
        middle = pan.spot("base", pan.length_mm / 2, pan.width_mm / 2)
        return placed(name, middle, pan.spot("base", 0.0, 0.0), origin, along, inward)

    def part(self, name: str, title: str, pan: Pan, off: tuple[float, float], at_lid: bool = False) -> FlatPart:
        """A flat part of a pan."""
        bent = "Bend all its walls towards you." if pan.flanges else "It stays flat."
        ahead = "front" if self.solid.wrap == 0 else "left"
        return flat_part(
            self.shell.metal,
            name=name,
            title=title,
            quantity=1,
            thickness_mm=self.shell.thickness_mm,
            outline=pan.outline(),
            bends=pan.bends("up"),
            marks=[],
            note=f"Inside of the tank faces you, its {ahead} to the right. {bent}",
            places=[self.place(name, pan, off, at_lid)],
        )


def tray_sheet(shell: BoxShell, design: Design, workshop: Workshop) -> Sheet:
    """Flat parts of a box made of two U's, or of a tray and a lid.

    Parameters
    ----------
    shell : BoxShell
        The design's.
    design, workshop
        Its scheme, K factors and house rules.

    Returns
    -------
    Sheet
        Where the ends are of another sheet than the floor `parts` is empty and `impossible` says so.
    """
    solid = solid_of(shell, design.sheet.making, design.sheet.flange_mm, workshop.rules)
    box = _Box(shell, solid, workshop.k_for(shell.metal, shell.thickness_mm, shell.bend_radius_mm))
    impossible = _why_impossible(shell)
    two = design.sheet.scheme == "two U's"
    parts = [] if impossible else (_two_us(box) if two else _tray_and_lid(box))
    seams = _seams(box, two)
    return Sheet(
        scheme=design.sheet.scheme,
        parts=parts,
        impossible=impossible,
        k=box.k,
        bend_deduction_mm=bend_deduction(90, shell.bend_radius_mm, shell.thickness_mm, box.k),
        flange_mm=None,
        pan_gap_mm=0.0,
        notch=None,
        section_inside_mm=None,
        roll_radius_mm=None,
        overall_mm=max(box.size[:2]),
        seams=seams,
        weld_mm=sum(seam.length_mm for seam in seams),
        weld_at_floor_mm=sum(seam.length_mm for seam in seams if seam.at_floor),
        corner_fill_mm=0.0 if two else 4 * (shell.bend_radius_mm + shell.thickness_mm),
        bends=4,
        mass_kg=sum(part.mass_kg for part in parts) if parts else None,
    )


def _two_us(box: _Box) -> list[FlatPart]:
    """The floor with both ends bent up; the lid with both sides bent down between them."""
    long, wide, _ = box.size
    t = box.shell.thickness_mm
    return [
        box.part("floor-u", "Floor U", box.pan(long, wide - 2 * t, ENDS), (0.0, t)),
        box.part("lid-u", "Lid U", box.pan(long - 2 * t, wide, LONG_SIDES), (t, 0.0), at_lid=True),
    ]


def _tray_and_lid(box: _Box) -> list[FlatPart]:
    """The floor with four walls bent up, and a lid between their rims."""
    long, wide, _ = box.size
    t = box.shell.thickness_mm
    return [
        box.part("tray", "Tray", box.pan(long, wide, SIDES), (0.0, 0.0)),
        box.part("lid", "Lid", box.pan(long - 2 * t, wide - 2 * t, ()), (t, t), at_lid=True),
    ]


def _why_impossible(shell: BoxShell) -> Words | None:
    if abs(shell.end_wall_mm - shell.thickness_mm) < 1e-9:
        return None
    return words(
        "Ends bent up from the floor are of its sheet: {floor_sheet}, the ends are {ends_sheet}.",
        floor_sheet=shell.thickness_mm,
        ends_sheet=shell.end_wall_mm,
    )


def _seams(box: _Box, two_us: bool) -> list[Seam]:
    """Each edge that isn't bent, once, over the plates."""
    long, wide, high = box.size
    names = (("rear", "front"), ("right", "left"))
    ends, sides = names[box.solid.wrap], names[box.solid.across]
    found = [Seam(f"{side} side, floor edge", long, "floor") for side in sides if two_us]
    found += [Seam(f"{side} side, lid edge", long, "top") for side in sides if not two_us]
    found += [Seam(f"{end} end, lid edge", wide, "top") for end in ends]
    return found + [Seam(f"upright edges, {end} end", 2 * high, "side") for end in ends]
