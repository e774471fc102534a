"""What the lines take: hoses with both ends, tubes, adapters, clamps, grommets, caps, parts, spares to carry."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass

from keel.analysis.parts import LINES, PORTS
from keel.analysis.study import study
from keel.design.connections import Connection
from keel.design.line_functions import FilterDoes
from keel.design.line_parts import LinePart
from keel.design.lines import TANK, LineRun, Lines, RunEnd
from keel.design.ports import Port
from keel.reference.connections import CLAMPED
from keel.studies.buying.items import Item
from keel.studies.buying.names import grommet, hose_end
from keel.studies.lines.clamps import CLAMPS, Clamp
from keel.studies.lines.crossings import CROSSINGS, Crossing
from keel.studies.lines.hoses import HOSES, Hoses
from keel.studies.lines.mating import mate_of, named
from keel.studies.lines.places import connection_at
from keel.studies.lines.pushed import PUSHED, Pushed
from keel.studies.lines.run_shapes import RUN_SHAPES, RunShape
from keel.studies.lines.tubes import TUBES, TubeMade
from keel.studies.result import words

ON_THE_VEHICLE = ("rail", "carburettor", "injection pump", "burner", "other tank", "engine-driven pump")
"""Kinds that are the engine's or the vehicle's own: nobody buys them for the lines."""
SPARE_CLAMPS = 2


@dataclass(frozen=True)
class LineTakes:
    """Everything that lengths and places of the lines say."""

    hoses: Hoses
    tubes: list[TubeMade]
    pushed: list[Pushed]
    clamps: list[Clamp]
    through: list[Crossing]
    shapes: list[RunShape]


def line_items(lines: Lines, ports: Sequence[Port], takes: LineTakes) -> list[Item]:
    """What the lines take.

    Parameters
    ----------
    lines : Lines
        Parts and runs.
    ports : sequence of Port
        The tank's.
    takes : LineTakes
        Lengths, elbows, clamps, holes.

    Returns
    -------
    list of Item
        Hoses first, spares last.
    """
    return [
        *_hoses(lines, ports, takes),
        *_tubes(lines, ports, takes),
        *(item for run in lines.runs for item in _adapters(run)),
        *_clamps(takes),
        *_grommets(takes),
        *_caps(lines, ports),
        *_parts(lines),
        *_spares(lines, takes),
    ]


def _where(run: LineRun, side: str) -> str:
    return f"{run.name}, {side}"


def at_text(end: RunEnd) -> str:
    """The connection that an end is joined to, as "part.port".

    Parameters
    ----------
    end : RunEnd
        One end of a run.

    Returns
    -------
    str
        The tank's ports with 'tank' as their part.
    """
    return f"{end.part}.{end.port}"


def _faced(end: RunEnd, lines: Lines, ports: Sequence[Port]) -> Connection | None:
    """What the end of a hose or a tube meets: the adapter, where there is one."""
    return end.adapter.line_side if end.adapter is not None else connection_at(end, lines, ports)


def _hoses(lines: Lines, ports: Sequence[Port], takes: LineTakes) -> Iterator[Item]:
    runs = {run.id: run for run in lines.runs}
    per_m = {one.name: one.price / one.metres for one in takes.hoses.buy if one.price is not None and one.metres > 0}
    for cut in takes.hoses.cut:
        name = words("{hose}, bore {bore_sheet}", hose=cut.stock or cut.hose, bore_sheet=cut.roll_bore_mm)
        yield Item("hose", name, max(0.0, cut.cut_mm) / 1e3, "m", cut.name, "", per_m.get(cut.stock))
        run = runs[cut.id]
        for side, end, made in zip(("start", "end"), (run.start, run.end), cut.ends, strict=True):
            facing = end.connection or _faced(end, lines, ports)
            if facing is None or made.clamped:
                continue
            mate = end.connection or mate_of(facing)
            yield Item("hose end", hose_end(mate.size, made.elbow_deg), 1, "each", _where(run, side), at_text(end))
        if run.sleeved:
            outside = next((one.outside_mm for one in takes.shapes if one.id == run.id), run.bore_mm)
            sleeve = words("sleeve for {outside_sheet} outside", outside_sheet=outside)
            yield Item("hose", sleeve, max(0.0, cut.cut_mm) / 1e3, "m", cut.name)
    for one in takes.pushed:
        end = runs[one.run].start if one.side == "start" else runs[one.run].end
        name = words("hose clamp for {outside_sheet}", outside_sheet=round(one.clamp_for_mm, 1))
        yield Item("clamp", name, 1, "each", f"{one.name}, {one.side}", at_text(end))


def _tubes(lines: Lines, ports: Sequence[Port], takes: LineTakes) -> Iterator[Item]:
    runs = {run.id: run for run in lines.runs}
    for tube in takes.tubes:
        run = runs[tube.id]
        name = words("{metal} tube, outside {outside_sheet}", metal=run.metal, outside_sheet=tube.outside_mm)
        yield Item("tube", name, tube.rough_mm / 1e3, "m", tube.name)
        for side, end in (("start", run.start), ("end", run.end)):
            facing = _faced(end, lines, ports)
            if facing is None or facing.standard in CLAMPED:
                continue
            mate = end.connection or mate_of(facing)
            name = words("tube nut and sleeve for {end}", end=named(mate))
            yield Item("tube end", name, 1, "each", _where(run, side), at_text(end))


def _adapters(run: LineRun) -> Iterator[Item]:
    for side, end in (("start", run.start), ("end", run.end)):
        if end.adapter is not None:
            made = ", made for this job" if end.adapter.special else ""
            sides = {"a": named(end.adapter.part_side), "b": named(end.adapter.line_side)}
            name = words("adapter {a} to {b}{made}", made=made, **sides)
            yield Item("adapter", name, 1, "each", _where(run, side), at_text(end))


def _clamps(takes: LineTakes) -> Iterator[Item]:
    for one in takes.clamps:
        name = words("lined clamp for {outside_sheet}", outside_sheet=round(one.outside_mm, 1))
        yield Item("clamp", name, 1, "each", one.name)


def _grommets(takes: LineTakes) -> Iterator[Item]:
    outsides = {one.id: one.outside_mm for one in takes.shapes}
    for one in takes.through:
        if one.way == "grommet":
            name = grommet(outsides.get(one.id, one.needed_mm), one.hole_mm)
            yield Item("grommet", name, 1, "each", f"{one.name} through {one.panel_name}")


def _caps(lines: Lines, ports: Sequence[Port]) -> Iterator[Item]:
    for part in lines.parts:
        for one in part.connections:
            if one.capped:
                name = words("cap for {end}", end=named(one))
                yield Item("cap", name, 1, "each", f"{part.name}, {one.id}", f"{part.id}.{one.id}")
    for port in ports:
        if port.capped and port.connection is not None:
            name = words("cap for {end}", end=named(port.connection))
            yield Item("cap", name, 1, "each", port.name, f"{TANK}.{port.id}")


def _parts(lines: Lines) -> Iterator[Item]:
    for part in lines.parts:
        if part.does.kind not in ON_THE_VEHICLE:
            yield Item("part", words("{name}", name=_called(part)), 1, "each", part.name, "", part.price)


def _called(part: LinePart) -> str:
    return part.part or f"{part.does.kind} '{part.name}'"


def _spares(lines: Lines, takes: LineTakes) -> Iterator[Item]:
    """What is carried: an element of every filter that is swapped, two clamps of every size, seals that are spent."""
    for part in lines.parts:
        if isinstance(part.does, FilterDoes) and part.does.swap_hours is not None:
            yield Item("spare", words("element for {name}", name=_called(part)), 1, "each", part.name)
    sizes = {round(one.clamp_for_mm, 1) for one in takes.pushed}
    for size in sorted(sizes):
        name = words("hose clamp for {outside_sheet}, spare", outside_sheet=size)
        yield Item("spare", name, SPARE_CLAMPS, "each", "carried")
    seals = {one.seal for part in lines.parts for one in part.connections if one.seal}
    for seal in sorted(seals):
        yield Item("spare", words("set of {seal} seals for threaded ends", seal=seal), 1, "each", "carried")


LINE_TAKES = study(LineTakes, HOSES, TUBES, PUSHED, CLAMPS, CROSSINGS, RUN_SHAPES)
LINE_ITEMS = study(line_items, LINES, PORTS, LINE_TAKES)
