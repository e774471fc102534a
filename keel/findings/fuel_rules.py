"""Rules of what the fuel meets: pump, engine, sender, seals, hoses, metal, lining."""

from collections.abc import Callable, Iterator
from itertools import product

from keel.design.ports import Port
from keel.findings.finding import Finding, of_station
from keel.findings.hazard_rules import fuels_of
from keel.reference.compatibility import HOSES, OF_LINING, OF_METAL, OF_RUBBER, Against
from keel.reference.engines import DIESEL_FUELS
from keel.reference.metals import METALS
from keel.studies.result import words
from keel.studies.studied import Studied

Rule = Callable[[Studied], Iterator[Finding]]
_brief, _shell, _ports, _gauge, _inside = (of_station(s) for s in ("brief", "shell", "ports", "gauge", "inside"))


def engines_burn_it(seen: Studied) -> Iterator[Finding]:
    """A diesel engine gets diesel, a spark engine doesn't."""
    for case in seen.design.brief.cases:
        fuel = case.fuel or seen.design.brief.fuel
        if (case.engine == "diesel") != (fuel in DIESEL_FUELS):
            yield _brief(
                "fuel.engine",
                case.id,
                "stop",
                words("{case} runs a {engine} engine on {fuel}", case=case.name, engine=case.engine, fuel=fuel),
                words("It doesn't run on that, and what is tried wrecks it. Put the fuel or the engine right."),
            )


def pumps_bear_it(seen: Studied) -> Iterator[Finding]:
    """Every pump that isn't a spare is listed for the fuels asked for, where it has a list."""
    for fitted, fuel in product(seen.design.brief.pumps, fuels_of(seen)):
        if fitted.pump.fuels and fuel not in fitted.pump.fuels:
            yield _brief(
                "fuel.pump",
                f"{fitted.id}:{fuel}",
                "stop",
                words("{pump} isn't made for {fuel}", pump=fitted.pump.name, fuel=fuel),
                words(
                    "Its list says {list}. Seals and windings that aren't made for it fail in the tank.",
                    list=", ".join(fitted.pump.fuels),
                ),
            )


def senders_bear_it(seen: Studied) -> Iterator[Finding]:
    """Every sender is listed for the fuels asked for, where it has a list."""
    for sender, fuel in product(seen.design.gauge.senders, fuels_of(seen)):
        if sender.fuels and fuel not in sender.fuels:
            yield _gauge(
                "fuel.sender",
                f"{sender.id}:{fuel}",
                "stop",
                words("{sender} isn't made for {fuel}", sender=sender.name, fuel=fuel),
                words(
                    "Its float soaks or its track corrodes: the needle lies before it stops.",
                ),
            )


def metal_bears_it(seen: Studied) -> Iterator[Finding]:
    """The shell's metal, unless it is lined."""
    family = METALS[seen.shell.metal].family
    for fuel in fuels_of(seen):
        against = OF_METAL.get((family, fuel))
        if against and seen.design.inside.lining is None:
            yield _shell(
                "fuel.metal",
                fuel,
                "caution",
                words("{fuel} attacks {metal}", fuel=fuel, metal=seen.shell.metal),
                words("Bare, {why}.", why=against.why),
            )


def lining_bears_it(seen: Studied) -> Iterator[Finding]:
    """The lining."""
    lining = seen.design.inside.lining
    for fuel in fuels_of(seen):
        against = OF_LINING.get((lining, fuel)) if lining else None
        if against:
            yield _inside(
                "fuel.lining",
                fuel,
                "stop" if against.verdict == "no" else "caution",
                words("{fuel} attacks a lining of {lining}", fuel=fuel, lining=lining or ""),
                words("With it, {why}. The product's label counts.", why=against.why),
            )


def rubber_bears_it(seen: Studied) -> Iterator[Finding]:
    """Seals and hoses at the ports."""
    for port, fuel in product(seen.design.ports, fuels_of(seen)):
        for what, material in _rubbers(port):
            against = OF_RUBBER.get((HOSES.get(material, material), fuel))
            if against:
                yield _of_rubber(port, fuel, what, material, against)


def _rubbers(port: Port) -> Iterator[tuple[str, str]]:
    if port.seat and port.seat.seal:
        yield "seal", port.seat.seal
    if port.neck and port.neck.hose:
        yield "hose", port.neck.hose
    if port.vent and port.vent.hose:
        yield "hose", port.vent.hose


def _of_rubber(port: Port, fuel: str, what: str, material: str, against: Against) -> Finding:
    return _ports(
        "fuel.rubber",
        f"{port.id}:{what}:{fuel}",
        "stop" if against.verdict == "no" else "caution",
        words(
            "{fuel} attacks the {material} at {name}",
            fuel=fuel,
            material=material if what == "hose" else f"{material} seal",
            name=port.name,
        ),
        words("With it, {why}.", why=against.why),
    )


FUEL_RULES: tuple[Rule, ...] = (
    engines_burn_it,
    pumps_bear_it,
    senders_bear_it,
    metal_bears_it,
    lining_bears_it,
    rubber_bears_it,
)
