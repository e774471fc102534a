"""Which of the shop's brakes bends what."""

from collections.abc import Sequence
from math import hypot, inf, sqrt

from keel.analysis.parts import SHELL, WORKSHOP, only
from keel.analysis.study import study
from keel.design.document import Design
from keel.design.workshop import Brake, Workshop
from keel.reference.metals import METALS, MetalName
from keel.solid.solids import AnyShell
from keel.studies.sheet.hems import is_hem
from keel.studies.sheet.model import Sheet
from keel.studies.sheet.parts import Bend, FlatPart
from keel.studies.sheet.unfold import SHEET

ROUNDING_MM = 1e-6


def thickest_mm(steel_mm: float, metal: MetalName) -> float:
    """How thick a metal a machine takes that takes so much mild steel [mm].

    Parameters
    ----------
    steel_mm : float
        Mild steel [mm].
    metal : MetalName
        The metal.

    Returns
    -------
    float
        Force goes with yield · t².
    """
    return steel_mm * sqrt(METALS["mild steel"].yield_mpa / METALS[metal].yield_mpa)


def in_house(made: Sheet, sent_out: Sequence[str]) -> list[FlatPart]:
    """Parts that this shop bends itself.

    Parameters
    ----------
    made : Sheet
        All parts.
    sent_out : sequence of str
        Names of those that somebody else makes; a piece goes with its part.

    Returns
    -------
    list of FlatPart
        Those that have bends.
    """
    return [part for part in made.parts if part.bends and not is_sent(part.name, sent_out)]


def is_sent(name: str, sent_out: Sequence[str]) -> bool:
    """Whether a part, or the one that it is a piece of, is made elsewhere.

    Parameters
    ----------
    name : str
        Of the part.
    sent_out : sequence of str
        Names of those that are.

    Returns
    -------
    bool
        True of "end-rear" where "end" is sent out.
    """
    return any(name == sent or name.startswith(f"{sent}-") for sent in sent_out)


def bends_it(brake: Brake, part: FlatPart, metal: MetalName) -> bool:
    """Whether a brake's sizes let it bend a part, whatever the order.

    Parameters
    ----------
    brake : Brake
        The machine.
    part : FlatPart
        Any with bends.
    metal : MetalName
        Of the part.

    Returns
    -------
    bool
        By length, thickness, angle and the depth of a pan.
    """
    longest = max(bend_mm(bend) for bend in part.bends)
    return (
        longest <= brake.width_mm + ROUNDING_MM
        and part.thickness_mm <= thickest_mm(brake.thickest_steel_mm, metal) + ROUNDING_MM
        and sharpest_deg(part) <= brake.most_angle_deg + ROUNDING_MM
        and wall_mm(part) <= brake.fingers_mm + ROUNDING_MM
    )


def bend_mm(bend: Bend) -> float:
    """How long a bend is.

    Parameters
    ----------
    bend : Bend
        Any.

    Returns
    -------
    float
        [mm]
    """
    return hypot(bend.end[0] - bend.start[0], bend.end[1] - bend.start[1])


def sharpest_deg(part: FlatPart) -> float:
    """The sharpest bend of a part but for hems, which are pressed down once they are bent.

    Parameters
    ----------
    part : FlatPart
        Any.

    Returns
    -------
    float
        [°]; 0 without one.
    """
    return max((bend.angle_deg for bend in part.bends if not is_hem(bend)), default=0.0)


def wall_mm(part: FlatPart) -> float:
    """The highest wall of a part that is bent up on all four sides.

    Parameters
    ----------
    part : FlatPart
        Any.

    Returns
    -------
    float
        Along its outer face; 0 of others [mm].
    """
    across, up = _outer_legs(part)
    return max(*across, *up) if min(len(across), len(up)) > 1 else 0.0


def shortest_leg_mm(part: FlatPart) -> float:
    """The shortest leg that a brake has to catch at an edge of a part.

    Parameters
    ----------
    part : FlatPart
        Any with bends.

    Returns
    -------
    float
        Along its outer face, hems and bends aslant left out; infinite without any other [mm].
    """
    across, up = _outer_legs(part)
    return min([*across, *up], default=inf)


def _outer_legs(part: FlatPart) -> tuple[list[float], list[float]]:
    """From each bend to the nearer edge beside it, along the outer face: of upright bends, then of level ones [mm]."""
    found: tuple[list[float], list[float]] = ([], [])
    for bend in part.bends:
        for way, size in enumerate((part.length_mm, part.width_mm)):
            if abs(bend.start[way] - bend.end[way]) < ROUNDING_MM and not is_hem(bend):
                found[way].append(min(bend.start[way], size - bend.start[way]) + bend.deduction_mm / 2)
    return found


def closes(brake: Brake, inside_mm: tuple[float, float] | None) -> bool:
    """Whether a brake closes a wrapper of such an inside.

    Parameters
    ----------
    brake : Brake
        The machine.
    inside_mm : (float, float) or None
        Least width and height [mm]; None where nothing is closed.

    Returns
    -------
    bool
        Both are at least its smallest closed box; one without closes none.
    """
    least = brake.smallest_closed_box_mm
    return inside_mm is None or (least is not None and min(inside_mm) >= least - ROUNDING_MM)


def brake_for(part: FlatPart, metal: MetalName, workshop: Workshop) -> Brake:
    """The first brake whose sizes let it bend a part, or else the usual one.

    Parameters
    ----------
    part : FlatPart
        Any with bends.
    metal : MetalName
        Of the part.
    workshop : Workshop
        The brakes.

    Returns
    -------
    Brake
        What the part is judged against.
    """
    return next((brake for brake in workshop.brakes if bends_it(brake, part, metal)), workshop.brake)


def best_brake(made: Sheet, shell: AnyShell, workshop: Workshop, design: Design) -> Brake:
    """The first brake whose sizes let it bend every part of the shell that isn't sent out, or else the usual one.

    Parameters
    ----------
    made : Sheet
        All parts.
    shell : AnyShell
        Its metal.
    workshop : Workshop
        The brakes.
    design : Design
        What is sent out.

    Returns
    -------
    Brake
        What the shell is judged against.
    """
    parts = [part for part in in_house(made, design.sheet.sent_out) if not part.feature]
    closed = made.section_inside_mm if any(part.name.startswith("wrapper") for part in parts) else None
    for brake in workshop.brakes:
        if closes(brake, closed) and all(bends_it(brake, part, shell.metal) for part in parts):
            return brake
    return workshop.brake


BRAKE = study(best_brake, SHEET, SHELL, WORKSHOP, only("sheet.sent_out"))
"""The brake that the shell is judged against."""
