"""What the fuel attacks, and what no approval covers."""

from collections.abc import Iterator

from keel.analysis.tank import TankAnalysis
from keel.design.line_functions import FilterDoes
from keel.findings.finding import Finding, of_station, saying
from keel.findings.fuels import attacked
from keel.reference.compatibility import HOSES, OF_ELEMENT, OF_METAL, OF_RUBBER
from keel.reference.fuels import FuelName
from keel.reference.metals import METALS
from keel.studies.lines.as_wired import LINE_MODES
from keel.studies.lines.circuits import CIRCUITS
from keel.studies.lines.ways import ENDS

_lines = saying("lines")
WHY = "With it, {why}."
_finding = of_station("lines")


def line_materials_bear_it(tank: TankAnalysis) -> Iterator[Finding]:
    """Every hose, seal, element and metal against the fuels of its circuit, in any mode."""
    for circuit in tank[CIRCUITS]:
        for fuel in circuit.fuels_over(mode.fuel for mode in tank[LINE_MODES]):
            yield from _of_runs(tank, circuit.runs, fuel)
            yield from _of_parts(tank, circuit.parts, fuel)


def _of_runs(tank: TankAnalysis, runs: list[str], fuel: FuelName) -> Iterator[Finding]:
    for run in tank.design.lines.runs:
        if run.id not in runs:
            continue
        if run.kind == "tube":
            against = OF_METAL.get((METALS[run.metal].family, fuel))
            yield from attacked(
                _finding, ("lines.metal", run.id, fuel), fuel, f"{run.metal} of {run.name}", against, WHY
            )
        elif run.kind == "hose":
            against = OF_RUBBER.get((HOSES[run.hose], fuel))
            yield from attacked(
                _finding, ("lines.rubber", run.id, fuel), fuel, f"the {run.hose} of {run.name}", against, WHY
            )


def _of_parts(tank: TankAnalysis, parts: list[str], fuel: FuelName) -> Iterator[Finding]:
    for part in tank.design.lines.parts:
        if part.id not in parts:
            continue
        rubbers = {*part.seals, *(one.seal for one in part.connections if one.seal)}
        for seal in sorted(rubbers):
            about = ("lines.rubber", part.id, f"{seal}:{fuel}")
            yield from attacked(
                _finding, about, fuel, f"the {seal} seal in {part.name}", OF_RUBBER.get((seal, fuel)), WHY
            )
        if part.metal is not None:
            against = OF_METAL.get((METALS[part.metal].family, fuel))
            yield from attacked(
                _finding, ("lines.metal", part.id, fuel), fuel, f"{part.metal} of {part.name}", against, WHY
            )
        if isinstance(part.does, FilterDoes):
            against = OF_ELEMENT.get((part.does.element, fuel))
            what = f"the {part.does.element} element of {part.name}"
            yield from attacked(_finding, ("lines.element", part.id, fuel), fuel, what, against, WHY)
        if part.fuels and fuel not in part.fuels and part.does.kind not in ENDS:
            yield _lines(
                "lines.unnamed_fuel",
                part.id,
                "caution",
                "{name}: its maker names {count} fuels, {fuel} not among them",
                "Its seals, its motor or its coating may not bear it: ask the maker, in writing.",
                name=part.name,
                count=len(part.fuels),
                fuel=fuel,
            )


def approvals_are_there(tank: TankAnalysis) -> Iterator[Finding]:
    """Every hose carries the approval that is asked for."""
    asked = tank.design.lines.approval
    lacking = [run for run in tank.design.lines.runs if asked and run.kind == "hose" and asked not in run.approval]
    if lacking:
        yield _lines(
            "lines.approval",
            lacking[0].id,
            "stop",
            "{count} of {all} hoses without '{asked}' on them, {name} first",
            "The scrutineer turns it away, and nobody has burst it to see.",
            count=len(lacking),
            all=sum(1 for run in tank.design.lines.runs if run.kind == "hose"),
            asked=asked,
            name=lacking[0].name,
        )
