"""Ways to make the shell of sheet, side by side: what each takes, and what this shop can't make."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace
from typing import Literal

from pydantic import ValidationError

from keel.analysis.tank import TankAnalysis
from keel.design.sheet import SheetScheme
from keel.design.shell import BoxShell, ProfileShell
from keel.findings.finding import Finding, Patch, Prescriber
from keel.findings.patch import apply
from keel.solid.faults import GeometryError
from keel.solid.section import Section
from keel.stations.sheet import brake_rules, remedies, rules
from keel.stations.sheet.heat import from_heat_mm
from keel.studies.cost.figures import FIGURES
from keel.studies.cost.work import bends_of, made_minutes, made_money
from keel.studies.result import Point, Words, words
from keel.studies.sheet.let_in import BENT
from keel.studies.sheet.model import SeamAt
from keel.studies.sheet.parts import Spot
from keel.studies.sheet.placing import in_section
from keel.studies.sheet.seam import seam_place
from keel.studies.sheet.shell_parts import BARE_SOLIDS
from keel.studies.sheet.unfold import SHEET

Joint = Literal["bend", "weld"]
ALIKE = 0.01
ROUND = 24
"""A round end is sketched with so many strokes."""
"""Schemes whose cost differs by less than this share cost the same."""
JUDGED = (
    brake_rules.closed_box,
    brake_rules.brake_width,
    brake_rules.pan_is_shallow,
    brake_rules.brake_turns_it,
    rules.pan_possible,
    rules.stock_sheet,
    brake_rules.brake_bends_it,
    rules.rolls_can_be_made,
    brake_rules.unbendable,
)
"""What machines and stock have to say of a scheme."""


@dataclass(frozen=True, slots=True)
class SketchEdge:
    """An edge of the shell, bent or welded, for a small drawing."""

    start: Point
    end: Point
    joint: Joint


@dataclass(frozen=True, slots=True)
class Scheme:
    """One way to make the shell.

    Attributes
    ----------
    title : str
        What it is called.
    patch : Patch
        What of the design makes it so.
    chosen : bool
        Whether the design is made so.
    weld_m, floor_m, side_m, top_m, inside_m : float
        Seams of all, and of them at the floor, up the sides, at the top, and of what stands inside or is let in [m].
    heat_mm : float or None
        From the nearest weld of the shell to what is hot [mm]; empty where the bay has nothing hot.
    bends, parts : int
        Of the shell.
    minutes, money
        Of seams and bends; of all that is bought and done. Empty where the workshop hasn't typed a price it takes.
    stops : list of Words
        Why it can't be made here; empty where it can.
    remedy : Words or None
        What of the shape would allow it.
    why : Words or None
        Why the figures favour it.
    """

    title: str
    patch: Patch
    chosen: bool
    weld_m: float
    floor_m: float
    side_m: float
    top_m: float
    inside_m: float
    heat_mm: float | None
    bends: int
    parts: int
    mass_kg: float | None
    minutes: float | None
    money: float | None
    currency: str
    stops: list[Words]
    remedy: Words | None
    favoured: bool
    why: Words | None
    sketch: list[SketchEdge]


def schemes(tank: TankAnalysis) -> list[Scheme]:
    """Every way to make the shell that is drawn, in the shop's machines and money; one that can be made is favoured.

    Parameters
    ----------
    tank : TankAnalysis
        The design under evaluation.

    Returns
    -------
    list of Scheme
        Of a cylinder its ends, dished ones bought. The figures favour what costs least, in money where all of
        it is priced, else in minutes, else in metres of weld; of what costs the same, what has least weld at the floor,
        then fewest bends.
    """
    found = [scheme for title, patch in _ways(tank) if (scheme := _scheme(tank, title, patch)) is not None]
    return _with_favoured(found)


def _ways(tank: TankAnalysis) -> Iterator[tuple[str, Patch]]:
    if isinstance(tank.shell, BoxShell):
        yield from _of_box(tank.shell, tank.design.sheet.seam)
    elif isinstance(tank.shell, ProfileShell):
        yield from _of_profile(tank, tank.shell)
    elif tank.shell.dish_mm:
        yield "rolled shell, two dished ends", {}
        yield "rolled shell, two flat ends", {"shell": {"dish_mm": 0.0}}
    else:
        yield "rolled shell, two flat ends", {}


def _of_box(shell: BoxShell, seam: str) -> Iterator[tuple[str, Patch]]:
    wraps = (shell.wrap_axis, "y" if shell.wrap_axis == "x" else "x")
    at, corner = ("lid", seam) if seam.startswith("corner") else (seam, "corner butt")
    for wrap in wraps:
        how = "lengthwise" if wrap == "x" else "across"
        ends = "rear and front" if wrap == "x" else "right and left"
        made = {"shell": {"wrap_axis": wrap}}
        yield f"wrapper {how}, two pans", made | {"sheet": {"scheme": "wrapper and pans", "seam": at}}
        closed = {"scheme": "wrapper and pans", "seam": corner}
        yield f"wrapper {how}, closed at a corner, two pans", made | {"sheet": closed}
        yield f"wrapper {how}, two flat ends", made | {"sheet": {"scheme": "wrapper and flat ends", "seam": seam}}
        yield f"two U’s, {ends} up from the floor", made | {"sheet": {"scheme": "two U's"}}
    yield "tray and lid", {"sheet": {"scheme": "tray and lid"}}
    yield "six flat plates", {"sheet": {"scheme": "flat plates"}}


def _of_profile(tank: TankAnalysis, shell: ProfileShell) -> Iterator[tuple[str, Patch]]:
    corners = [corner.model_dump(mode="json") for corner in shell.corners]

    def joined(joint: str) -> Patch:
        return {"shell": {"corners": [corner | {"joint": joint} for corner in corners]}}

    if any(corner.joint == "weld" for corner in shell.corners):
        yield "as drawn, two flat ends", {}
    for seam, where in (("lid", "the lid"), ("side", "a side"), ("floor", "the floor")):
        yield f"wrapper closed at {where}, two flat ends", joined("bend") | {"sheet": {"seam": seam}}
    whole = tank.of(apply(tank.design, joined("bend")))
    for remedy in remedies.in_two_pieces(whole):
        yield "wrapper in two pieces, two flat ends", remedy.patch
    yield "flat plates", joined("weld")


def _scheme(tank: TankAnalysis, title: str, patch: Patch) -> Scheme | None:
    try:
        design = apply(tank.design, patch)
        after = tank.of(design)
        made, figures, prices = after[SHEET], after[FIGURES], after.workshop.prices
    except (ValidationError, GeometryError):
        return None
    # What a feature asks for it asks for in every scheme.
    others = {part.name for part in after[BENT].parts if part.feature}
    stops = [f for rule in JUDGED for f in rule(after) if f.severity == "stop" and f.subject not in others]
    along: dict[SeamAt, float] = dict.fromkeys(("floor", "side", "top"), 0.0)
    for seam in made.seams:
        along[seam.at] += seam.length_mm / 1000
    shell_parts = [part for part in made.parts if not part.feature]
    bends = bends_of(made, after[BARE_SOLIDS])
    sketch = _sketch(after[BARE_SOLIDS].section, design.sheet)
    return Scheme(
        title=title,
        patch=patch,
        chosen=design == tank.design,
        weld_m=figures.weld_m,
        floor_m=along["floor"],
        side_m=along["side"],
        top_m=along["top"],
        inside_m=figures.weld_m - made.weld_mm / 1000,
        heat_mm=from_heat_mm(after, [edge for edge in sketch if edge.joint == "weld"]),
        bends=made.bends,
        parts=sum(part.quantity for part in shell_parts),
        mass_kg=figures.empty_kg,
        minutes=made_minutes(figures.weld_m, bends, prices),
        money=made_money(design, figures, bends, prices),
        currency=prices.currency,
        stops=[stop.title for stop in stops],
        remedy=_what_would_do(after, stops[0]) if stops else None,
        favoured=False,
        why=None,
        sketch=sketch,
    )


WOULD_DO: dict[str, Prescriber] = {
    "brake.closed_box": remedies.closable,
    "brake.width": remedies.shorter,
    "brake.deep": remedies.lower_walls,
    "brake.thick": remedies.thinner,
    "stock.size": remedies.on_the_sheet,
    "rolls.tight": remedies.wider_roll,
    "rolls.width": remedies.shorter,
}
"""By the code of what is in the way, what of the shape would allow it."""


def _what_would_do(tank: TankAnalysis, stop: Finding) -> Words | None:
    prescriber = WOULD_DO.get(stop.code)
    offers = prescriber(tank, stop) if prescriber else iter(())
    return next((one.label for one in offers if not {"wrap_axis", "scheme"} & _set_by(one.patch)), None)


def _set_by(patch: Patch) -> set[str]:
    """Fields of the shell and the sheet that a patch sets."""
    return {name for part in ("shell", "sheet") for name in dict(patch.get(part) or {})}


def _with_favoured(found: list[Scheme]) -> list[Scheme]:
    able = [scheme for scheme in found if not scheme.stops]
    if not able or len(found) == 1:
        return found
    cost, said = _cost_of(able)
    least = min(cost.values())
    alike = [scheme for scheme in able if cost[scheme.title] <= least * (1 + ALIKE)]
    best = min(alike, key=lambda scheme: (round(scheme.floor_m, 2), scheme.bends, cost[scheme.title]))
    others = "; of what takes as much, least weld at the floor" if len(alike) > 1 else ""
    return [replace(one, favoured=True, why=words(said + others)) if one is best else one for one in found]


def _cost_of(able: Sequence[Scheme]) -> tuple[dict[str, float], str]:
    """What schemes are compared by: money where all of it is known, else minutes, else metres of weld."""
    money = {one.title: one.money for one in able if one.money is not None}
    minutes = {one.title: one.minutes for one in able if one.minutes is not None}
    if len(money) == len(able):
        return money, "costs least"
    if len(minutes) == len(able):
        return minutes, "takes least time"
    return {one.title: one.weld_m for one in able}, "has least weld"


def _sketch(section: Section, sheet: SheetScheme) -> list[SketchEdge]:
    """Edges of the plain shell: what is bent, what is welded, where the wrapper closes."""
    low, high = section.span
    drawn = [] if section.edges else _round_sketch(section)
    for n, edge in enumerate(section.edges):
        drawn.append(_edge(section, (edge.start, edge.start), section.span, "bend" if section.bent[n] else "weld"))
        foot: Joint = "bend" if section.ends == "bent up" and n == 0 else "weld"
        drawn += [_edge(section, (edge.start, edge.end), (end, end), foot) for end in section.span]
    if all(section.bent) and section.edges:
        at = seam_place(section, sheet.seam, sheet.seam_share)
        drawn.append(_edge(section, (at, at), (low, high), "weld"))
    return drawn


def _round_sketch(section: Section) -> list[SketchEdge]:
    """A rolled shell: a seam round each end, and the one that closes it along the top."""
    ring = [(float(x), float(y)) for x, y in section.outer[:: max(1, len(section.outer) // ROUND)]]
    pairs = list(zip(ring, [*ring[1:], ring[0]], strict=True))
    ends = [_edge(section, pair, (end, end), "weld") for end in section.span for pair in pairs]
    top = max(ring, key=lambda spot: spot[1])
    return [*ends, _edge(section, (top, top), section.span, "weld")]


def _edge(section: Section, spots: tuple[Spot, Spot], along: tuple[float, float], joint: Joint) -> SketchEdge:
    first, last = (Point.of(in_section(section, spot, at)) for spot, at in zip(spots, along, strict=True))
    return SketchEdge(first, last, joint)
