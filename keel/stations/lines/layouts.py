"""Ways to lay the line out, side by side with this design's figures."""

from dataclasses import dataclass, replace
from math import log10

from keel.analysis.tank import TankAnalysis
from keel.design.line_functions import PumpDoes
from keel.design.line_parts import LinePart
from keel.design.lines import Lines
from keel.findings.finding import Patch
from keel.stations.lines.kit import Kit
from keel.stations.lines.layout_ways import Draw, lacking, layout_ways
from keel.stations.lines.sketch import Sketch
from keel.studies.lines.as_wired import LINE_MODES
from keel.studies.lines.heat import HEAT
from keel.studies.lines.injection import FEEDS, Feed
from keel.studies.lines.joints import JOINTS
from keel.studies.lines.modes import Mode
from keel.studies.lines.places import LINE_PLACES
from keel.studies.lines.stretches import STRETCHES
from keel.studies.lines.surplus import SURPLUSES
from keel.studies.result import Words, words
from keel.studies.wiring.supply import PUMP_SUPPLIES


@dataclass(frozen=True, slots=True)
class Layout:
    """One way to lay the line out.

    Attributes
    ----------
    patch : Patch
        The line as it would be.
    chosen : bool
        Whether it is laid out so.
    joints, parts : int
        To be made tight; to be bought.
    metres : float
        Of hose and tube.
    noise_db : float or None
        All pumps at a metre; None where one isn't known.
    heat_w : float
        Into the fuel, at idle.
    price : float or None
        Parts as bought, hoses not counted; None where one isn't typed.
    idle_kpa, full_kpa : float or None
        Across the injectors at idle and at full power; of a carburettor before its needle.
    failing : list of str
        Modes that lack pressure or fuel.
    modes : int
        Of so many.
    over_kpa : float or None
        The most that the regulator stands over its setting.
    highest_kpa : float
        The most that ever stands in a hose.
    means : Words
        What it is good for, what it costs, what it means for tuning.
    stop : Words or None
        Why it can't be laid out so.
    """

    title: str
    patch: Patch
    chosen: bool
    joints: int
    parts: int
    metres: float
    noise_db: float | None
    heat_w: float
    price: float | None
    idle_kpa: float | None
    full_kpa: float | None
    failing: list[str]
    modes: int
    over_kpa: float | None
    highest_kpa: float
    means: Words
    stop: Words | None
    favoured: bool
    why: Words | None


def layouts(tank: TankAnalysis) -> list[Layout]:
    """Every layout with this design's parts, places and demand.

    Parameters
    ----------
    tank : TankAnalysis
        The design under evaluation.

    Returns
    -------
    list of Layout
        The figures favour the one that fails in the fewest modes; of equals that with the fewest joints, then the
        cooler.
    """
    if not tank.design.ports:
        return []
    found = [_shown(tank, *way) for way in layout_ways(tank)]
    able = [one for one in found if one.stop is None and len(one.failing) < one.modes]
    if not able:
        return found
    best = min(able, key=lambda one: (len(one.failing), one.joints, one.heat_w))
    why = words(
        "suffices in {count} of {all} modes, with {joints} joints",
        count=best.modes - len(best.failing),
        all=best.modes,
        joints=best.joints,
    )
    return [replace(one, favoured=True, why=why) if one is best else one for one in found]


def _shown(tank: TankAnalysis, title: str, draw: Draw, means: Words) -> Layout:
    sketch, kit = Sketch(tank), Kit(tank)
    stop = lacking(tank, draw, kit, sketch)
    if stop is None:
        draw(sketch, kit)
    drawn = sketch.lines()
    laid = tank.of(tank.design.model_copy(update={"lines": _as_fed_now(tank, drawn)}))
    fed, modes = laid[FEEDS], laid[LINE_MODES]
    idle = next((n for n, mode in enumerate(modes) if mode.id == "idle"), 0)
    full = max(range(len(modes)), key=lambda n: modes[n].draws_lph) if modes else 0
    heat = laid[HEAT].modes
    over = [row.over_kpa for one in laid[SURPLUSES] for row in one.modes if row.over_kpa is not None]
    return Layout(
        title=title,
        patch={"lines": drawn.model_dump(mode="json", include={"parts", "runs"})},
        chosen=(drawn.parts, drawn.runs) == (tank.design.lines.parts, tank.design.lines.runs),
        joints=len(laid[JOINTS]),
        parts=len(drawn.parts),
        metres=sum(way.length_mm for way in laid[LINE_PLACES].runs) / 1e3,
        noise_db=_noise(drawn),
        heat_w=heat[idle].heat_w if heat else 0.0,
        price=_price(drawn),
        idle_kpa=_at_engine(fed, idle),
        full_kpa=_at_engine(fed, full),
        failing=_failing(tank, fed, modes),
        modes=sum(1 for mode in modes if not mode.failure),
        over_kpa=max(over, default=None),
        highest_kpa=max((one.highest_kpa for one in laid[STRETCHES]), default=0.0),
        means=means,
        stop=stop,
        favoured=False,
        why=None,
    )


def _as_fed_now(tank: TankAnalysis, drawn: Lines) -> Lines:
    """Pumps that no wire is drawn to yet lose as much on their way as the worst that is."""
    wired = {one.id: one.loop_ohm for one in tank[PUMP_SUPPLIES] if one.is_whole}
    worst = max(wired.values(), default=0.0)

    def fed(part: LinePart) -> LinePart:
        if not isinstance(part.does, PumpDoes) or part.id in wired or part.does.loop_ohm is not None or worst == 0:
            return part
        return part.model_copy(update={"does": part.does.model_copy(update={"loop_ohm": worst})})

    return drawn.model_copy(update={"parts": tuple(map(fed, drawn.parts))})


def _at_engine(fed: list[Feed], place: int) -> float | None:
    """Across the injectors, or before a carburettor; the least of several."""
    rows = [feed.modes[place] for feed in fed]
    known = [row.kpa if row.across_kpa is None else row.across_kpa for row in rows]
    return min((one for one in known if one is not None), default=None)


def _failing(tank: TankAnalysis, fed: list[Feed], modes: list[Mode]) -> list[str]:
    """Modes in which somebody lacks pressure or fuel; failures don't count."""
    off = tank.workshop.rules.short_kpa
    return [
        mode.name
        for place, mode in enumerate(modes)
        if not mode.failure and not all(feed.suffices(place, off) for feed in fed)
    ]


def _noise(lines: Lines) -> float | None:
    """All pumps together at a metre: their powers add up."""
    levels = [part.does.noise_db for part in lines.parts if isinstance(part.does, PumpDoes)]
    if not levels or any(level is None for level in levels):
        return None
    return 10 * log10(sum(10 ** ((level or 0.0) / 10) for level in levels))


def _price(lines: Lines) -> float | None:
    prices = [part.price for part in lines.parts]
    return None if any(price is None for price in prices) else sum(price or 0.0 for price in prices)
