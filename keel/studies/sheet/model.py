"""What unfolding a shell gives, whatever its kind: flat parts and what joining them takes."""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

from keel.reference.metals import METALS, MetalName
from keel.reference.units import MM3_PER_M3
from keel.studies.result import Words, words
from keel.studies.sheet.parts import Bend, FlatPart, Mark, Place, Roll, Spot, polygon_area

SeamAt = Literal["floor", "side", "top"]


@dataclass(frozen=True, slots=True)
class Seam:
    """One weld, counted once, and where it lies: at the floor a leak shows last and loses most."""

    name: str
    length_mm: float
    at: SeamAt

    @property
    def at_floor(self) -> bool:
        """Whether it lies at the floor."""
        return self.at == "floor"


@dataclass(frozen=True, slots=True)
class PanNotch:
    """The pans' corner notch and the three things that ask for it."""

    side_mm: float
    by_rule_mm: float
    flanges_clear_mm: float
    wrapper_radius_mm: float


@dataclass(frozen=True, slots=True)
class Sheet:
    """The flat parts of a shell and what joining them takes.

    `section_inside_mm` is the least width and height inside a closed wrapper; empty where nothing is
    closed on the brake. Seams, weld, bends and mass are the shell's; parts of features name theirs.
    """

    scheme: str
    parts: list[FlatPart]
    impossible: Words | None
    k: float
    bend_deduction_mm: float
    flange_mm: float | None
    pan_gap_mm: float
    notch: PanNotch | None
    section_inside_mm: tuple[float, float] | None
    roll_radius_mm: float | None
    overall_mm: float
    seams: list[Seam]
    weld_mm: float
    weld_at_floor_mm: float
    corner_fill_mm: float
    bends: int
    mass_kg: float | None


def flat_part(
    metal: MetalName,
    *,
    name: str,
    title: str,
    quantity: int,
    thickness_mm: float,
    outline: list[Spot],
    bends: list[Bend],
    marks: list[Mark],
    note: str | Words,
    corners: Sequence[Spot] = (),
    holes: Sequence[Sequence[Spot]] = (),
    feature: str | None = None,
    rolls: Sequence[Roll] = (),
    places: Sequence[Place] = (),
) -> FlatPart:
    """A part from its outline [mm]: sizes, area and mass worked out, its low corner the datum.

    Bends, rolls, marks and places are taken as they are: from the datum corner already.
    """
    low_x, low_y = min(x for x, _ in outline), min(y for _, y in outline)
    placed = [(x - low_x, y - low_y) for x, y in outline]
    cut_out = [[(x - low_x, y - low_y) for x, y in hole] for hole in holes]
    area = polygon_area(placed) - sum(polygon_area(hole) for hole in cut_out)
    return FlatPart(
        name=name,
        title=title,
        quantity=quantity,
        thickness_mm=thickness_mm,
        length_mm=max(x for x, _ in placed),
        width_mm=max(y for _, y in placed),
        outline=placed,
        bends=bends,
        marks=marks,
        area_mm2=area,
        mass_kg=area * thickness_mm * METALS[metal].density_kg_per_m3 / MM3_PER_M3,
        note=note if isinstance(note, Words) else words(note),
        corners=[(x - low_x, y - low_y) for x, y in corners],
        holes=cut_out,
        feature=feature,
        rolls=list(rolls),
        places=list(places),
    )
