"""Every port's hole before it is cut: how far it is from bends, edges and other holes, and what a patch would cost."""

from collections.abc import Iterator
from dataclasses import dataclass
from math import hypot, pi

from shapely.geometry import LineString, Point, Polygon
from shapely.ops import unary_union

from keel.analysis.parts import WORKSHOP
from keel.analysis.study import study
from keel.design.workshop import Prices, Workshop
from keel.studies.cost.work import made_minutes
from keel.studies.sheet.doublers import PREFIX as RING
from keel.studies.sheet.flats import FLATS
from keel.studies.sheet.folding import turns_of
from keel.studies.sheet.model import Sheet
from keel.studies.sheet.parts import Bore, FlatPart


@dataclass(frozen=True, slots=True)
class HoleCheck:
    """One hole on one flat; gaps are from its rim, below zero where it runs into what is named.

    A patch is a disc of the same sheet for a hole that came out too large: the hole and the land round it cut out, the
    disc welded in; `patch_minutes` and `patch_money` are its seam's, empty where the workshop has no price for one.
    """

    port: str
    name: str
    part: str
    title: str
    diameter_mm: float
    bend_mm: float | None
    edge_mm: float
    other_mm: float | None
    patch_mm: float
    patch_weld_mm: float
    patch_minutes: float | None
    patch_money: float | None


def hole_checks(made: Sheet, workshop: Workshop) -> list[HoleCheck]:
    """Judge the ports' holes on the flats.

    Parameters
    ----------
    made : Sheet
        As the parts are cut.
    workshop : Workshop
        The land between welds, and what seams cost.

    Returns
    -------
    list of HoleCheck
        Part by part; a ring's own hole is none of these.
    """
    return [check for part in made.parts if not part.name.startswith(RING) for check in _of_part(part, workshop)]


def _of_part(part: FlatPart, workshop: Workshop) -> Iterator[HoleCheck]:
    main = [bore for bore in part.bores if not bore.bolt]
    if not main:
        return
    sheet = Polygon(part.outline, part.holes)
    edges = unary_union([sheet.exterior, *sheet.interiors])
    zones = [LineString([turn.start, turn.end]).buffer(turn.zone_mm / 2, cap_style="flat") for turn in turns_of(part)]
    for bore in main:
        middle, radius = Point(bore.middle), bore.diameter_mm / 2
        inside = 1.0 if sheet.covers(middle) else -1.0
        bends = [zone.distance(middle) for zone in zones if not zone.is_empty]
        patch = bore.diameter_mm + 2 * workshop.rules.land_mm
        weld = pi * patch
        minutes = made_minutes(weld / 1000, 0, workshop.prices)
        yield HoleCheck(
            port=bore.port,
            name=bore.name,
            part=part.name,
            title=part.title,
            diameter_mm=bore.diameter_mm,
            bend_mm=min(bends) - radius if bends else None,
            edge_mm=inside * edges.distance(middle) - radius,
            other_mm=_to_others(bore, part),
            patch_mm=patch,
            patch_weld_mm=weld,
            patch_minutes=minutes,
            patch_money=_money(weld, workshop.prices),
        )


def _to_others(bore: Bore, part: FlatPart) -> float | None:
    """From a hole's rim to that of the nearest hole of another port [mm]."""
    (u, v), radius = bore.middle, bore.diameter_mm / 2
    others = [one for one in part.bores if one.port != bore.port]
    gaps = [hypot(one.middle[0] - u, one.middle[1] - v) - radius - one.diameter_mm / 2 for one in others]
    return min(gaps, default=None)


def _money(weld_mm: float, prices: Prices) -> float | None:
    return None if prices.weld_per_m is None else prices.weld_per_m * weld_mm / 1000


HOLE_CHECKS = study(hole_checks, FLATS, WORKSHOP).at_rest()
