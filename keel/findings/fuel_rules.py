"""Rules of what the fuel meets: pump, engine, sender, seals, hoses, metal, lining."""

from collections.abc import Iterator
from itertools import product

from keel.analysis.tank import TankAnalysis
from keel.design.ports import Port
from keel.findings.finding import Finding, Maker, Severity, of_station
from keel.findings.hazard_rules import fuels_of
from keel.reference.compatibility import HOSES, OF_LINING, OF_METAL, OF_RUBBER, Against
from keel.reference.engines import DIESEL_FUELS
from keel.reference.metals import METALS
from keel.studies.result import words

_brief, _shell, _ports, _gauge, _inside = (of_station(s) for s in ("brief", "shell", "ports", "gauge", "inside"))


def engines_burn_it(tank: TankAnalysis) -> Iterator[Finding]:
    """A diesel engine gets diesel, a spark engine doesn't."""
    for case in tank.design.brief.cases:
        fuel = case.fuel or tank.design.brief.fuel
        if (case.engine == "diesel") != (fuel in DIESEL_FUELS):
            yield _brief(
                "fuel.engine",
                case.id,
                "stop",
                words("{case} runs a {engine} engine on {fuel}", case=case.name, engine=case.engine, fuel=fuel),
                words("It doesn't run on that, and what is tried wrecks it. Put the fuel or the engine right."),
            )


def pumps_bear_it(tank: TankAnalysis) -> Iterator[Finding]:
    """Every pump that isn't a spare is listed for the fuels asked for, where it has a list."""
    for fitted, fuel in product(tank.design.brief.pumps, fuels_of(tank)):
        if fitted.pump.fuels and fuel not in fitted.pump.fuels:
            yield _brief(
                "fuel.pump",
                fitted.id,
                "stop",
                words("{pump} isn't made for {fuel}", pump=fitted.pump.name, fuel=fuel),
                words(
                    "Its list says {list}. Seals and windings that aren't made for it fail in the tank.",
                    list=", ".join(fitted.pump.fuels),
                ),
                fuel,
            )


def senders_bear_it(tank: TankAnalysis) -> Iterator[Finding]:
    """Every sender is listed for the fuels asked for, where it has a list."""
    for sender, fuel in product(tank.design.gauge.senders, fuels_of(tank)):
        if sender.fuels and fuel not in sender.fuels:
            yield _gauge(
                "fuel.sender",
                sender.id,
                "stop",
                words("{sender} isn't made for {fuel}", sender=sender.name, fuel=fuel),
                words("Its float soaks or its track corrodes: the needle lies before it stops."),
                fuel,
            )


def metal_bears_it(tank: TankAnalysis) -> Iterator[Finding]:
    """The shell's metal, unless it is lined."""
    if tank.design.inside.lining is None:
        metal = tank.shell.metal
        for fuel in fuels_of(tank):
            against = OF_METAL.get((METALS[metal].family, fuel))
            yield from _attacked(_shell, ("fuel.metal", "", fuel), fuel, metal, against, "Bare, {why}.")


def lining_bears_it(tank: TankAnalysis) -> Iterator[Finding]:
    """The lining."""
    lining = tank.design.inside.lining
    if lining is None:
        return
    for fuel in fuels_of(tank):
        what, against = f"a lining of {lining}", OF_LINING.get((lining, fuel))
        text = "With it, {why}. The product's label counts."
        yield from _attacked(_inside, ("fuel.lining", "", fuel), fuel, what, against, text)


def rubber_bears_it(tank: TankAnalysis) -> Iterator[Finding]:
    """Seals and hoses at the ports."""
    for port, fuel in product(tank.design.ports, fuels_of(tank)):
        for kind, material in rubbers(port):
            what = f"the {material}{' seal' if kind == 'seal' else ''} at {port.name}"
            against = OF_RUBBER.get((HOSES.get(material, material), fuel))
            about = ("fuel.rubber", port.id, f"{kind}:{fuel}")
            yield from _attacked(_ports, about, fuel, what, against, "With it, {why}.")


def rubbers(port: Port) -> Iterator[tuple[str, str]]:
    """Seals and hoses of a port, each with what it is made of."""
    if port.seat and port.seat.seal:
        yield "seal", port.seat.seal
    if port.neck and port.neck.hose:
        yield "hose", port.neck.hose
    if port.vent and port.vent.hose:
        yield "hose", port.vent.hose


def _attacked(
    station: Maker, about: tuple[str, str, str], fuel: str, what: str, against: Against | None, text: str
) -> Iterator[Finding]:
    """What a fuel does to a material, if anything."""
    if against is not None:
        severity: Severity = "stop" if against.verdict == "no" else "caution"
        title = words("{fuel} attacks {what}", fuel=fuel, what=what)
        code, subject, detail = about
        yield station(code, subject, severity, title, words(text, why=against.why), detail)
