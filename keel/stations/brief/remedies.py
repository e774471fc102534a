"""What puts the brief right."""

from collections.abc import Iterator

from keel.analysis.tank import TankAnalysis
from keel.findings.edits import changed_items
from keel.findings.finding import Finding, Patch, Remedy
from keel.findings.fuels import fuels_of
from keel.reference.engines import DIESEL_FUELS, EngineKind
from keel.reference.fuels import FuelName
from keel.studies.result import words

MOST_OFFERED = 2


def other_fuel(tank: TankAnalysis, finding: Finding) -> Iterator[Remedy]:
    """Fuel of the kind that the engine burns, or an engine that burns the fuel."""
    brief, name = tank.design.brief, finding.subject
    case = next(case for case in brief.cases if case.id == name)
    fuel: FuelName = "diesel" if case.engine == "diesel" else "petrol E10"
    label = words("{fuel} for {case}", fuel=fuel, case=case.name)
    alone = case.fuel is None and len(brief.cases) == 1
    patch: Patch = {"fuel": fuel} if alone else {"cases": changed_items(brief.cases, name, fuel=fuel)}
    yield Remedy(label=label, patch={"brief": patch})
    burns: EngineKind = "diesel" if (case.fuel or brief.fuel) in DIESEL_FUELS else "petrol, naturally aspirated"
    yield Remedy(
        label=words("A {engine} engine for {case}", engine=burns, case=case.name),
        patch={"brief": {"cases": changed_items(brief.cases, name, engine=burns)}},
    )


def other_pump(tank: TankAnalysis, finding: Finding) -> Iterator[Remedy]:
    """A pump of the library's that is listed for all the fuels, those that stand where it does first."""
    name = finding.subject
    fitted = next(fitted for fitted in tank.design.brief.pumps if fitted.id == name)
    known = sorted(tank.workshop.pumps, key=lambda pump: pump.stands != fitted.pump.stands)
    for pump in [pump for pump in known if set(fuels_of(tank)) <= set(pump.fuels)][:MOST_OFFERED]:
        yield Remedy(
            label=words("{pump} instead, {stands}", pump=pump.name, stands=pump.stands),
            patch={"brief": {"pumps": changed_items(tank.design.brief.pumps, name, pump=pump.model_dump(mode="json"))}},
        )
