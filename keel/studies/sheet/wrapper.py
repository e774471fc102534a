"""A box shell as one wrapper and two inset end pans: flats, notches, seams."""

from dataclasses import dataclass, replace

import numpy as np

from keel.design.document import Design
from keel.design.sheet import SeamPlace
from keel.design.shell import BoxShell
from keel.design.workshop import Workshop
from keel.solid.box import END_NAMES, BoxSolid, solid_of
from keel.solid.section import section_of
from keel.studies.result import Words, words
from keel.studies.sheet.bends import bend_deduction, bend_lines, flat_length
from keel.studies.sheet.model import PanNotch, Seam, SeamAt, Sheet, flat_part
from keel.studies.sheet.pans import Flange, Pan
from keel.studies.sheet.parts import (
    Bend,
    Direction,
    FlatPart,
    Mark,
    Place,
    Spot,
    rectangle,
)
from keel.studies.sheet.placing import in_section, placed, wound


@dataclass(frozen=True)
class _Scheme:
    """What the parts of one shell share [mm]."""

    shell: BoxShell
    solid: BoxSolid
    k: float
    end_k: float
    seam: SeamPlace
    seam_share: float
    pan_gap: float
    notch_clearance: float

    @property
    def deduction(self) -> float:
        return bend_deduction(90, self.solid.radius, self.solid.thickness, self.k)

    @property
    def pan_deduction(self) -> float:
        return bend_deduction(90, self.solid.radius, self.solid.end_thickness, self.end_k)

    @property
    def section(self) -> tuple[float, float]:
        """Outside width and height of the wrapped section."""
        size = self.solid.body.size
        return size[self.solid.across], size[2]

    @property
    def overall(self) -> float:
        """Length of the wrapper along its axis, lips included."""
        return self.solid.overall.size[self.solid.wrap]


def box_sheet(shell: BoxShell, design: Design, workshop: Workshop) -> Sheet:
    """Flat parts of a box shell: one wrapper, two inset end pans.

    Parameters
    ----------
    shell : BoxShell
        The design's.
    design : Design
        Its sheet scheme counts.
    workshop : Workshop
        K factors and house rules.

    Returns
    -------
    Sheet
        Where the pans can't be folded, `parts` is empty and `impossible` says why.
    """
    scheme = _Scheme(
        shell=shell,
        solid=solid_of(shell, design.sheet.making, design.sheet.flange_mm, workshop.rules),
        k=workshop.k_for(shell.metal, shell.thickness_mm, shell.bend_radius_mm),
        end_k=workshop.k_for(shell.metal, shell.end_wall_mm, shell.bend_radius_mm),
        seam=design.sheet.seam,
        seam_share=design.sheet.seam_share,
        pan_gap=design.sheet.pan_gap_mm if design.sheet.pan_gap_mm is not None else workshop.rules.pan_gap_mm,
        notch_clearance=workshop.rules.notch_clearance_mm,
    )
    notch = pan_notch(scheme)
    impossible = _why_impossible(scheme, notch)
    parts = [] if impossible else [_wrapper(scheme), _pan(scheme, notch)]
    seams = _seams(scheme)
    width, height = scheme.section
    walls = 2 * shell.thickness_mm
    return Sheet(
        scheme="wrapper and two inset end pans",
        parts=parts,
        impossible=impossible,
        k=scheme.k,
        bend_deduction_mm=scheme.deduction,
        flange_mm=scheme.solid.flange,
        pan_gap_mm=scheme.pan_gap,
        notch=notch,
        section_inside_mm=(width - walls, height - walls),
        roll_radius_mm=None,
        overall_mm=scheme.overall,
        seams=seams,
        weld_mm=sum(seam.length_mm for seam in seams),
        weld_at_floor_mm=sum(seam.length_mm for seam in seams if seam.at_floor),
        corner_fill_mm=8 * scheme.solid.flange,
        bends=sum(len(part.bends) * part.quantity for part in parts),
        mass_kg=sum(part.mass_kg * part.quantity for part in parts) if parts else None,
    )


def wrapper_legs(
    width_mm: float, height_mm: float, thickness_mm: float, seam: SeamPlace, share: float = 0.5
) -> list[float]:
    """Outside legs of a wrapper from its closing seam round to it again [mm].

    Parameters
    ----------
    width_mm, height_mm : float
        Outside of the section [mm].
    thickness_mm : float
        Sheet thickness [mm].
    seam : str
        `lid`, `floor`, `side`: along that face (four bends). `corner butt`: at a
        corner of the lid, the first leg running to the outer face and the last butting
        against its inner face. `corner open`: both legs stop at the other's inner face.
    share : float
        How far along that face: from its low end across, up a side from the floor.
    """
    w, h, t = width_mm, height_mm, thickness_mm
    match seam:
        case "lid":
            return [w * share, h, w, h, w * (1 - share)]
        case "floor":
            return [w * (1 - share), h, w, h, w * share]
        case "side":
            return [h * share, w, h, w, h * (1 - share)]
        case "corner butt":
            return [h, w, h, w - t]
        case "corner open":
            return [h - t, w, h, w - t]


def folding_order(bends: int) -> list[int]:
    """Which bend is made when: from the free edges inward, so that the last one closes the wrapper.

    Returns
    -------
    list of int, shape (bends,)
        Turn of each bend, counted from 1, in the order of the lines on the flat.
    """
    turns, low, high = [0] * bends, 0, bends - 1
    for turn in range(1, bends + 1):
        if turn % 2:
            turns[low], low = turn, low + 1
        else:
            turns[high], high = turn, high - 1
    return turns


def _wrapper(scheme: _Scheme) -> FlatPart:
    legs = wrapper_legs(*scheme.section, scheme.solid.thickness, scheme.seam, scheme.seam_share)
    deductions = [scheme.deduction] * (len(legs) - 1)
    length, width = flat_length(legs, deductions), scheme.overall
    bends = [
        _bend(scheme, (at, 0.0), (at, width), "up", turn, scheme.deduction)
        for at, turn in zip(bend_lines(legs, deductions), folding_order(len(deductions)), strict=True)
    ]
    flange = scheme.solid.flange
    section, overall = section_of(scheme.shell, scheme.seam), scheme.solid.overall
    leg, edge = (2, 2 if scheme.seam == "floor" else 0) if len(legs) == 5 and scheme.seam != "side" else (1, 0)
    begun = bend_lines(legs, deductions)[leg - 1] - scheme.deduction / 2
    corner = section.edges[edge]
    axis = scheme.solid.wrap
    span = overall.low[axis], overall.high[axis]
    marks = [Mark(start=(0.0, at), end=(length, at), label="inside face of end pan") for at in (flange, width - flange)]
    return flat_part(
        scheme.shell.metal,
        thickness_mm=scheme.solid.thickness,
        name="wrapper",
        title="Wrapper",
        quantity=1,
        outline=rectangle(length, width),
        bends=bends,
        marks=marks,
        note="Inside of the tank faces you. Bend from the free edges inward; the last bend closes it.",
        places=[wound(section, begun, corner.chord / 2, corner.start, corner.heading(False), span)],
    )


def pan_base(scheme: _Scheme) -> tuple[float, float]:
    """Outside of a pan's base [mm]: the wrapper's inside less the gap on each side."""
    width, height = scheme.section
    less = 2 * (scheme.solid.thickness + scheme.pan_gap)
    return width - less, height - less


def pan_notch(scheme: _Scheme) -> PanNotch:
    """Side of the pans' square corner notch [mm].

    The largest of: flange + clearance (the rule); F − BD + t, below which a flange's end runs
    into its neighbour; F − BD + r − gap, below which it runs into the wrapper's inside radius.
    """
    flange, deduction = scheme.solid.flange, scheme.pan_deduction
    by_rule = flange + scheme.notch_clearance
    clear = flange - deduction + scheme.solid.end_thickness
    radius = flange - deduction + scheme.solid.radius - scheme.pan_gap
    return PanNotch(
        side_mm=max(by_rule, clear, radius),
        by_rule_mm=by_rule,
        flanges_clear_mm=clear,
        wrapper_radius_mm=radius,
    )


def _pan(scheme: _Scheme, notch: PanNotch) -> FlatPart:
    base_width, base_height = pan_base(scheme)
    flange = Flange(scheme.solid.flange)
    pan = Pan(
        base_width,
        base_height,
        {"left": flange, "right": flange, "front": flange, "back": flange},
        scheme.solid.end_thickness,
        scheme.solid.radius,
        scheme.end_k,
        clearance_mm=notch.side_mm - scheme.solid.flange,
    )
    return flat_part(
        scheme.shell.metal,
        thickness_mm=scheme.solid.end_thickness,
        name="end-pan",
        title="End pan",
        quantity=2,
        outline=pan.outline(),
        bends=pan.bends("down"),
        marks=[],
        places=pan_places(scheme, pan.spot("base", 0.0, 0.0)),
        note="Inside of the tank faces you; the flanges go away from you, outward. Long side lies across the tank."
        if base_width >= base_height
        else "Inside of the tank faces you; the flanges go away from you, outward. Long side stands upright.",
    )


PAST_BEND_MM = 5.0
"""So far from its corner a spot of a pan's base is past the bends' middle lines [mm]."""


def pan_places(scheme: _Scheme, datum: Spot) -> list[Place]:
    """Where the two end pans lie; they are alike, and each other's mirror image.

    Parameters
    ----------
    scheme : _Scheme
        Of the shell.
    datum : Spot
        Where the corner of a pan's base would be on its flat, if its legs were made longer [mm].
    """
    solid, section = scheme.solid, section_of(scheme.shell, scheme.seam)
    less = solid.thickness + scheme.pan_gap
    (left, low), (right, _) = section.extents
    places = []
    for name, high in zip(END_NAMES[solid.wrap], (False, True), strict=True):
        inward = np.zeros(3)
        inward[solid.wrap] = -1.0 if high else 1.0
        along = np.cross(in_section(section, (0.0, 1.0), 0.0), inward)
        first = right - less if along[solid.across] < 0 else left + less
        origin = in_section(section, (first, low + less), (solid.body.high if high else solid.body.low)[solid.wrap])
        inset = placed(name, (datum[0] + PAST_BEND_MM, datum[1] + PAST_BEND_MM), datum, origin, along, inward)
        places.append(replace(inset, base_only=True))
    return places


def _bend(scheme: _Scheme, start: Spot, end: Spot, direction: Direction, order: int, deduction: float) -> Bend:
    return Bend(
        start=start,
        end=end,
        direction=direction,
        angle_deg=90,
        radius_mm=scheme.solid.radius,
        order=order,
        deduction_mm=deduction,
    )


def _why_impossible(scheme: _Scheme, notch: PanNotch) -> Words | None:
    bends = scheme.solid.radius + scheme.solid.end_thickness
    notches = notch.side_mm - scheme.solid.flange + scheme.pan_deduction
    least = 2 * max(bends, notches)
    smallest = min(pan_base(scheme))
    if smallest > least:
        return None
    return words(
        "An end pan {base_mm} across has no room left between its bends and notches: it needs more than {least_mm}.",
        base_mm=smallest,
        least_mm=least,
    )


def _seams(scheme: _Scheme) -> list[Seam]:
    width, height = scheme.section
    closed_at: dict[str, SeamAt] = {"floor": "floor", "side": "side"}
    closing = Seam("closing seam", scheme.overall, closed_at.get(scheme.seam, "top"))
    ends = ("rear", "front") if scheme.solid.wrap == 0 else ("right", "left")
    around: tuple[tuple[str, float, SeamAt], ...] = (
        ("floor edge", width, "floor"),
        ("lid edge", width, "top"),
        ("upright edges", 2 * height, "side"),
    )
    pans = [Seam(f"{end} pan, {where}", length, at) for end in ends for where, length, at in around]
    return [closing, *pans]
