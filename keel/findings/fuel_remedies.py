"""Remedies for what the fuel attacks, or what isn't made for it."""

from collections.abc import Iterator, Sequence

from keel.analysis.tank import TankAnalysis
from keel.design.base import Part
from keel.design.ports import HoseName, Port, SealName
from keel.findings.finding import Finding, Patch, Remedy
from keel.findings.fuel_rules import rubbers
from keel.findings.hazard_rules import fuels_of
from keel.findings.port_remedies import port_of, with_port
from keel.reference.compatibility import HOSES, OF_METAL, OF_RUBBER
from keel.reference.engines import DIESEL_FUELS, EngineKind
from keel.reference.fuels import FuelName
from keel.reference.metals import METALS, MetalName
from keel.studies.result import words

SEALS: tuple[SealName, ...] = ("nitrile", "fluoroelastomer", "PTFE")
"""Seals and hoses that are offered, the dearest last."""
HOSES_OFFERED: tuple[HoseName, ...] = ("nitrile hose", "fluoropolymer-lined hose", "PTFE hose")
METALS_OFFERED: tuple[MetalName, ...] = ("stainless 304L", "5052-H32")

MOST_OFFERED = 2


def other_fuel(tank: TankAnalysis, finding: Finding) -> Iterator[Remedy]:
    """Fuel of the kind that the engine burns, or an engine that burns the fuel."""
    brief, name = tank.design.brief, finding.subject
    case = next(case for case in brief.cases if case.id == name)
    fuel: FuelName = "diesel" if case.engine == "diesel" else "petrol E10"
    label = words("{fuel} for {case}", fuel=fuel, case=case.name)
    alone = case.fuel is None and len(brief.cases) == 1
    patch: Patch = {"fuel": fuel} if alone else {"cases": _changed(brief.cases, name, fuel=fuel)}
    yield Remedy(label=label, patch={"brief": patch})
    burns: EngineKind = "diesel" if (case.fuel or brief.fuel) in DIESEL_FUELS else "petrol, naturally aspirated"
    yield Remedy(
        label=words("A {engine} engine for {case}", engine=burns, case=case.name),
        patch={"brief": {"cases": _changed(brief.cases, name, engine=burns)}},
    )


def other_pump(tank: TankAnalysis, finding: Finding) -> Iterator[Remedy]:
    """A pump of the library's that is listed for all the fuels, those that stand where it does first."""
    name = finding.subject
    fitted = next(fitted for fitted in tank.design.brief.pumps if fitted.id == name)
    known = sorted(tank.workshop.pumps, key=lambda pump: pump.stands != fitted.pump.stands)
    for pump in [pump for pump in known if set(fuels_of(tank)) <= set(pump.fuels)][:MOST_OFFERED]:
        yield Remedy(
            label=words("{pump} instead, {stands}", pump=pump.name, stands=pump.stands),
            patch={"brief": {"pumps": _changed(tank.design.brief.pumps, name, pump=pump.model_dump(mode="json"))}},
        )


def other_sender(tank: TankAnalysis, finding: Finding) -> Iterator[Remedy]:
    """A sender of the library's that is listed for all the fuels, of the same action first."""
    senders, name = tank.design.gauge.senders, finding.subject
    sender = next(sender for sender in senders if sender.id == name)
    known = sorted(tank.workshop.senders, key=lambda one: one.action.kind != sender.action.kind)
    for one in [one for one in known if set(fuels_of(tank)) <= set(one.fuels)][:MOST_OFFERED]:
        fields = one.model_dump(mode="json", include={"action", "ohms_empty", "ohms_full", "fuels"})
        yield Remedy(
            label=words("{sender} at its place", sender=one.name),
            patch={"gauge": {"senders": _changed(senders, name, **fields)}},
        )


def _changed(items: Sequence[Part], name: str, **fields: object) -> list[Patch]:
    """A list of the document, one of it changed."""
    written = [item.model_dump(mode="json") for item in items]
    return [item | fields if item["id"] == name else item for item in written]


def other_metal(tank: TankAnalysis, _finding: Finding) -> Iterator[Remedy]:
    """A metal that bears all the fuels."""
    for metal in METALS_OFFERED:
        if metal != tank.shell.metal and not any((METALS[metal].family, fuel) in OF_METAL for fuel in fuels_of(tank)):
            yield Remedy(label=words("Make it of {metal}", metal=metal), patch={"shell": {"metal": metal}})


def other_rubber(tank: TankAnalysis, finding: Finding) -> Iterator[Remedy]:
    """The first seals or hoses that all the fuels leave alone."""
    port = port_of(tank, finding)
    for what, _ in rubbers(port):
        offered: tuple[str, ...] = SEALS if what == "seal" else HOSES_OFFERED
        bears = [m for m in offered if not any((HOSES.get(m, m), fuel) in OF_RUBBER for fuel in fuels_of(tank))]
        for material in bears[:MOST_OFFERED]:
            yield Remedy(
                label=words("{material} at {name}", material=material, name=port.name),
                patch=_rubber(tank, port, what, material),
            )


def _rubber(tank: TankAnalysis, port: Port, what: str, material: str) -> Patch:
    part = "seat" if what == "seal" else "neck" if port.neck and port.neck.hose else "vent"
    now = getattr(port, part).model_dump(mode="json")
    return with_port(tank, port.id, **{part: now | {"seal" if what == "seal" else "hose": material}})


def other_lining(tank: TankAnalysis, _finding: Finding) -> Iterator[Remedy]:
    """None, where the metal bears the fuel bare."""
    yield Remedy(label=words("Leave the metal bare"), patch={"inside": {"lining": None}})
