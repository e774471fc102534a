"""What fuels a tank meets, and what they do to what they meet."""

from collections.abc import Iterator

from keel.analysis.tank import TankAnalysis
from keel.design.ports import Port
from keel.findings.finding import Finding, Maker, Severity
from keel.reference.compatibility import Against
from keel.reference.fuels import FuelName
from keel.studies.result import words


def rubbers(port: Port) -> Iterator[tuple[str, str]]:
    """Seals and hoses of a port, each with what it is made of.

    Parameters
    ----------
    port : Port
        Any port.

    Returns
    -------
    iterator of tuple[str, str]
        Name of the part and of its rubber.
    """
    if port.seat and port.seat.seal:
        yield "seal", port.seat.seal
    if port.neck and port.neck.hose:
        yield "hose", port.neck.hose
    if port.vent and port.vent.hose:
        yield "hose", port.vent.hose


def attacked(
    station: Maker, about: tuple[str, str, str], fuel: str, what: str, against: Against | None, text: str
) -> Iterator[Finding]:
    """What a fuel does to a material, if anything.

    Parameters
    ----------
    station : Maker
        Maker of the station's findings.
    about : (str, str, str)
        Code, subject and detail of the finding.
    fuel : str
        As people call it.
    what : str
        The material, as people call it.
    against : Against, optional
        What the fuel does to it; None where they bear one another.
    text : str
        What follows from it.

    Returns
    -------
    iterator of Finding
        One finding, or none.
    """
    if against is not None:
        severity: Severity = "stop" if against.verdict == "no" else "caution"
        title = words("{fuel} attacks {what}", fuel=fuel, what=what)
        code, subject, detail = about
        yield station(code, subject, severity, title, words(text, why=against.why), detail)


def fuels_of(tank: TankAnalysis) -> list[FuelName]:
    """All fuels that the brief and its cases name.

    Parameters
    ----------
    tank : TankAnalysis
        The design under evaluation.

    Returns
    -------
    list of FuelName
        Each fuel once.
    """
    brief = tank.design.brief
    named = [case.fuel or brief.fuel for case in brief.cases] or [brief.fuel]
    return list(dict.fromkeys(named))
