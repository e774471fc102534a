"""What puts a line's findings right."""

from collections.abc import Iterator
from typing import Any

from keel.analysis.parts import PORTS
from keel.analysis.tank import TankAnalysis
from keel.design.line_functions import PumpDoes, RailDoes, RegulatorDoes
from keel.design.line_parts import LinePart
from keel.design.lines import LineRun, RunEnd
from keel.findings.finding import Finding, Patch, Remedy
from keel.reference.connections import CLAMPED, DASH_BORES_MM
from keel.studies.lines.injection import FEEDS, regulator_of
from keel.studies.lines.mating import adapter_between, mate_of, named
from keel.studies.lines.places import connection_at
from keel.studies.lines.stretches import STRETCHES
from keel.studies.result import words

REFERENCE_BORE_MM = 6.0
CHECK_OPENS_KPA = 5.0
SET_STEP_KPA = 10.0


def lines_patch(**changed: Any) -> Patch:
    """A patch of the line's lists."""
    return {"lines": {name: [one.model_dump(mode="json") for one in items] for name, items in changed.items()}}


def _with_part(tank: TankAnalysis, part: LinePart) -> Patch:
    parts = tank.design.lines.parts
    return lines_patch(parts=[part if one.id == part.id else one for one in parts])


def with_run(tank: TankAnalysis, run: LineRun) -> Patch:
    """A patch that puts a run in the place of the one of its id."""
    runs = tank.design.lines.runs
    return lines_patch(runs=[run if one.id == run.id else one for one in runs])


def _with_does(tank: TankAnalysis, part: LinePart, **changed: Any) -> Patch:
    return _with_part(tank, part.model_copy(update={"does": part.does.model_copy(update=changed)}))


def joined_rightly(tank: TankAnalysis, finding: Finding) -> Iterator[Remedy]:
    """The end that fits, or an adapter between what is there."""
    run = next((run for run in tank.design.lines.runs if run.id == finding.subject), None)
    if run is None:
        return
    side = "start" if finding.detail == "start" else "end"
    end: RunEnd = getattr(run, side)
    part_side = connection_at(end, tank.design.lines, tank[PORTS])
    if part_side is None:
        return
    if run.kind == "direct":
        other = connection_at(run.end, tank.design.lines, tank[PORTS])
        if other is not None:
            adapter = adapter_between(part_side, other)
            label = words("Adapter {a} to {b}", a=named(adapter.part_side), b=named(adapter.line_side))
            yield Remedy(label, with_run(tank, _ended(run, side, end.model_copy(update={"adapter": adapter}))))
        hose = run.model_copy(update={"kind": "hose"})
        yield Remedy(words("A hose between them, with an end for each"), with_run(tank, hose))
        return
    if end.connection is not None:
        fitting = end.model_copy(update={"connection": None, "adapter": None})
        label = words("Make the hose up with {mate}", mate=_mate(part_side))
        yield Remedy(label, with_run(tank, _ended(run, side, fitting)))
        adapter = adapter_between(part_side, end.connection)
        label = words("Adapter {a} to {b}", a=named(adapter.part_side), b=named(adapter.line_side))
        yield Remedy(label, with_run(tank, _ended(run, side, end.model_copy(update={"adapter": adapter}))))
        return
    bore = part_side.sized.diameter_mm if part_side.standard in CLAMPED else part_side.bore
    wider = run.model_copy(update={"bore_mm": bore})
    yield Remedy(words("Hose of {bore_sheet}, as that end is made for", bore_sheet=bore), with_run(tank, wider))


def _mate(part_side: Any) -> str:
    return named(part_side) if part_side.standard in CLAMPED else named(mate_of(part_side))


def _ended(run: LineRun, side: str, end: RunEnd) -> LineRun:
    return run.model_copy(update={side: end})


def capped(tank: TankAnalysis, finding: Finding) -> Iterator[Remedy]:
    """What isn't used is closed."""
    lines = tank.design.lines
    part = lines.part(finding.subject)
    if part is None:
        return
    joined = {end.port for run in lines.runs for end in (run.start, run.end) if end.part == part.id}
    connections = tuple(
        one if one.id in joined else one.model_copy(update={"capped": True}) for one in part.connections
    )
    if connections:
        closed = part.model_copy(update={"connections": connections})
        yield Remedy(words("Cap what isn't joined"), _with_part(tank, closed))


def port_capped(tank: TankAnalysis, finding: Finding) -> Iterator[Remedy]:
    """The tank's port is closed blind."""
    ports = [
        port.model_copy(update={"capped": True}) if port.id == finding.subject else port for port in tank.design.ports
    ]
    yield Remedy(words("Close it blind"), {"ports": [port.model_dump(mode="json") for port in ports]})


def referenced(tank: TankAnalysis, finding: Finding) -> Iterator[Remedy]:
    """A hose from the regulator to the manifold."""
    lines = tank.design.lines
    rail = next((part for part in lines.parts if isinstance(part.does, RailDoes)), None)
    taken = {run.id for run in lines.runs}
    joined = {(end.part, end.port) for run in lines.runs for end in (run.start, run.end)}
    if rail is None or (rail.id, "manifold") in joined:
        return
    number = next(n for n in range(1, 99) if f"reference-hose-{n}" not in taken)
    run = LineRun(
        id=f"reference-hose-{number}",
        name="reference hose",
        start=RunEnd(part=finding.subject, port="reference"),
        end=RunEnd(part=rail.id, port="manifold"),
        bore_mm=REFERENCE_BORE_MM,
    )
    yield Remedy(words("Hose from its reference to the manifold"), lines_patch(runs=[*lines.runs, run]))


def wider(tank: TankAnalysis, finding: Finding) -> Iterator[Remedy]:
    """The next hose that is wide enough."""
    run = next((run for run in tank.design.lines.runs if run.id == finding.subject), None)
    need = next((one.bore_needed_mm for one in tank[STRETCHES] if one.id == finding.subject), None)
    if run is None or need is None:
        return
    size = next((name for name, bore in DASH_BORES_MM.items() if bore >= need), None)
    if size is not None:
        bore = DASH_BORES_MM[size]
        label = words("{size} hose, bore {bore_sheet}", size=size, bore_sheet=bore)
        yield Remedy(label, with_run(tank, run.model_copy(update={"bore_mm": bore})))


def enough_across(tank: TankAnalysis, finding: Finding) -> Iterator[Remedy]:
    """A higher setting, or a reference: whichever the injectors then suffice with."""
    feed = next((feed for feed in tank[FEEDS] if feed.part == finding.subject), None)
    rail = tank.design.lines.part(finding.subject)
    regulator = regulator_of(tank.design.lines, rail) if rail else None
    if feed is None or regulator is None or not isinstance(regulator.does, RegulatorDoes):
        return
    needed = feed.across_needed_kpa or 0.0
    manifolds = [row.kpa - row.across_kpa for row in feed.modes if row.kpa is not None and row.across_kpa is not None]
    most = max(manifolds, default=0.0)
    over = 0.0 if regulator.does.is_referenced else max(0.0, most)
    wanted = -(-(needed + over) // SET_STEP_KPA) * SET_STEP_KPA
    if wanted > regulator.does.set_kpa:
        label = words("Set {name} to {set_kpa}", name=regulator.name, set_kpa=wanted)
        yield Remedy(label, _with_does(tank, regulator, set_kpa=wanted))


def checked(tank: TankAnalysis, finding: Finding) -> Iterator[Remedy]:
    """A check valve in each pump's outlet."""
    part = tank.design.lines.part(finding.subject)
    if part is not None and isinstance(part.does, PumpDoes):
        yield Remedy(
            words("Check valve in the outlet of {name}", name=part.name),
            _with_does(tank, part, check_opens_kpa=CHECK_OPENS_KPA),
        )


def without_tape(tank: TankAnalysis, finding: Finding) -> Iterator[Remedy]:
    """The same joint, dry."""
    lines = tank.design.lines
    run = next((run for run in lines.runs if run.id == finding.subject), None)
    if run is None:
        return
    ends = {(end.part, end.port) for end in (run.start, run.end)}
    parts = [
        part.model_copy(
            update={
                "connections": tuple(
                    one.model_copy(update={"sealant": False}) if (part.id, one.id) in ends else one
                    for one in part.connections
                )
            }
        )
        for part in lines.parts
    ]
    yield Remedy(words("No tape on it"), lines_patch(parts=parts))
