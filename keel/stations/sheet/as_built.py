"""Sizes that came out otherwise than planned: what they change, and which parts have to be others than planned."""

from collections.abc import Collection, Iterator, Sequence
from dataclasses import dataclass
from typing import Any

from pydantic import ValidationError
from shapely import Polygon

from keel.analysis.tank import TankAnalysis
from keel.design.document import Design
from keel.design.sheet import AsBuilt
from keel.findings.finding import Finding, of_station
from keel.solid.faults import GeometryError
from keel.studies.cost.figures import FIGURES
from keel.studies.result import words
from keel.studies.sheet.flats import FLATS
from keel.studies.sheet.machines import is_sent
from keel.studies.sheet.parts import FlatPart

_sheet = of_station("sheet")
SAME_MM = 0.05
SAME_MM2 = 5.0


@dataclass(frozen=True, slots=True)
class Departure:
    """One size as it was planned and as it was built.

    Litres are what it alone changed [L]; empty where no tank could be made as planned.
    """

    id: str
    of: str
    name: str
    planned_mm: float
    built_mm: float | None
    brimful_l: float | None
    usable_l: float | None


@dataclass(frozen=True, slots=True)
class PartChange:
    """A part that isn't as it was planned to be; sizes are empty where it wasn't, or isn't, among the parts [mm]."""

    name: str
    title: str
    was_mm: tuple[float, float] | None
    is_mm: tuple[float, float] | None
    moved: bool
    """Its sizes are alike, but its bends, holes or edges lie elsewhere."""
    cut: bool


def departures(tank: TankAnalysis) -> list[Departure]:
    """What each size that came out otherwise changes by itself.

    Parameters
    ----------
    tank : TankAnalysis
        The design as it was built.

    Returns
    -------
    list of Departure
        In the order in which they were typed.
    """
    return [_departure(tank, one) for one in tank.design.sheet.as_built]


def _departure(tank: TankAnalysis, one: AsBuilt) -> Departure:
    now = tank[FIGURES]
    built = _found(tank.design.model_dump(mode="json"), one.of)
    was = _as_planned(tank, [one])
    before = was[FIGURES] if was is not None else None
    usable = None
    if before is not None and before.usable_l is not None and now.usable_l is not None:
        usable = now.usable_l - before.usable_l
    return Departure(
        id=one.id,
        of=one.of,
        name=one.name,
        planned_mm=one.planned_mm,
        built_mm=built,
        brimful_l=None if before is None else now.brimful_l - before.brimful_l,
        usable_l=usable,
    )


def parts_changed(tank: TankAnalysis) -> list[PartChange]:
    """Parts that have to be other than planned, since something was built otherwise.

    Parameters
    ----------
    tank : TankAnalysis
        The design as it was built.

    Returns
    -------
    list of PartChange
        None where nothing departs from the plan, or no tank could be made as planned.
    """
    planned = _as_planned(tank, list(tank.design.sheet.as_built)) if tank.design.sheet.as_built else None
    if planned is None and not tank.design.sheet.cut:
        return []
    now = {part.name: part for part in tank[FLATS].parts}
    was = now if planned is None else {part.name: part for part in planned[FLATS].parts}
    cut = set(tank.design.sheet.cut)
    changed = [
        PartChange(name, (now.get(name) or was[name]).title, _size(was, name), _size(now, name), moved, name in cut)
        for name in dict.fromkeys([*now, *was])
        if (moved := _differs(was.get(name), now.get(name))) is not None
    ]
    return [*changed, *_cut_for_nothing(cut, [*now, *was])]


def _cut_for_nothing(cut: Collection[str], names: Sequence[str]) -> Iterator[PartChange]:
    """Parts that are cut already and that the design has no more, as it is put together otherwise."""
    for name in sorted(cut):
        if not any(is_sent(one, [name]) for one in names):
            yield PartChange(name, name.replace("-", " ").capitalize(), None, None, False, True)


def _size(parts: dict[str, FlatPart], name: str) -> tuple[float, float] | None:
    part = parts.get(name)
    return None if part is None else (part.length_mm, part.width_mm)


def _differs(was: FlatPart | None, now: FlatPart | None) -> bool | None:
    """Whether two parts differ in more than their sizes; None where they don't differ."""
    if was is None or now is None:
        return False
    if max(abs(was.length_mm - now.length_mm), abs(was.width_mm - now.width_mm)) > SAME_MM:
        return False
    sheets = (Polygon(was.outline, was.holes), Polygon(now.outline, now.holes))
    lines = [sorted((*bend.start, *bend.end) for bend in part.bends) for part in (was, now)]
    bores = [sorted((*bore.middle, bore.diameter_mm) for bore in part.bores) for part in (was, now)]
    same = len(lines[0]) == len(lines[1]) and len(bores[0]) == len(bores[1]) and _alike(lines) and _alike(bores)
    return None if same and sheets[0].symmetric_difference(sheets[1]).area < SAME_MM2 else True


def _alike(both: Sequence[Sequence[tuple[float, ...]]]) -> bool:
    pairs = zip(*both, strict=True)
    return all(abs(a - b) < SAME_MM for one, other in pairs for a, b in zip(one, other, strict=True))


def _as_planned(tank: TankAnalysis, changed: list[AsBuilt]) -> TankAnalysis | None:
    """The design with sizes as they were planned; None where no tank can be made so."""
    document = tank.design.model_dump(mode="json")
    for one in changed:
        if not _put(document, one.of, one.planned_mm):
            return None
    try:
        planned = tank.of(Design.model_validate(document))
        _ = planned[FIGURES]
    except (ValidationError, GeometryError, LookupError):
        return None
    return planned


def _holder(document: dict[str, Any], path: str) -> tuple[Any, str] | None:
    """What holds a size, and under which name; None where it is no longer there."""
    *way, last = path.split(".")
    here: Any = document
    for step in way:
        if step == "features":
            here = (here.get("shell") or {}).get("features", [])
        elif isinstance(here, list):
            by_number = int(step) if step.isdigit() else -1
            by_id = next((one for one in here if one.get("id") == step), None)
            here = by_id if by_id is not None else here[by_number] if 0 <= by_number < len(here) else None
        else:
            here = here.get(step) if isinstance(here, dict) else None
    return (here, last) if isinstance(here, dict) and last in here else None


def _found(document: dict[str, Any], path: str) -> float | None:
    holder = _holder(document, path)
    value = holder[0][holder[1]] if holder else None
    return float(value) if isinstance(value, int | float) else None


def _put(document: dict[str, Any], path: str, value: float) -> bool:
    holder = _holder(document, path)
    if holder is None:
        return False
    holder[0][holder[1]] = value
    return True


def cut_parts_fit(tank: TankAnalysis) -> Iterator[Finding]:
    """No part that is cut already has to be another; looked at once the hand rests."""
    if not (tank.is_at_rest and tank.design.sheet.cut):
        return
    for part in parts_changed(tank):
        if part.cut and part.is_mm is None:
            about = words("{part} is cut already, {count} are needed now", part=part.title, count=0)
            what = "The tank is put together otherwise than when it was cut. Go back to that, or put it on the rack."
            yield _sheet("built.cut", part.name, "stop", about, words(what))
        elif part.cut:
            was, now = part.was_mm or (0.0, 0.0), part.is_mm or (0.0, 0.0)
            yield _sheet(
                "built.cut",
                part.name,
                "stop",
                words(
                    "{part} is cut already, {length_mm} × {width_mm}; it has to be {now_length_mm} × {now_width_mm}",
                    part=part.title,
                    length_mm=was[0],
                    width_mm=was[1],
                    now_length_mm=now[0],
                    now_width_mm=now[1],
                ),
                words("Edges, bends or holes lie elsewhere on it. Cut it again, or put what was built right."),
            )
