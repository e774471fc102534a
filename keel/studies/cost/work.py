"""What work a change makes: seams, bends, ports and fittings, in minutes and in money by the workshop's prices."""

from collections.abc import Iterable, Iterator
from dataclasses import dataclass

from keel.design.document import Design
from keel.design.ports import Port
from keel.design.workshop import Prices
from keel.solid.solids import Solids
from keel.studies.cost.figures import Figures
from keel.studies.cost.money import money
from keel.studies.sheet.model import Sheet

MINUTES_PER_HOUR = 60


@dataclass(frozen=True, slots=True)
class Work:
    """What there is to do on a tank."""

    weld_m: float
    bends: int
    ports: int
    fittings: int


def bends_of(made: Sheet, solids: Solids) -> int:
    """All bends: of the parts, and of features whose sides are bent from one sheet.

    Parameters
    ----------
    made : Sheet
        The shell's parts and what stands inside.
    solids : Solids
        Its features.

    Returns
    -------
    int
        Counted once for each piece.
    """
    return sum(len(part.bends) * part.quantity for part in made.parts) + sum(cost.bends for cost in solids.costs)


def work(design: Design, figures: Figures, made: Sheet, solids: Solids) -> Work:
    """Count the work of a design that has a shell.

    Parameters
    ----------
    design : Design
        The design.
    figures : Figures
        Its weights and areas.
    made : Sheet
        Its parts.
    solids : Solids
        Its features.

    Returns
    -------
    Work
        Welds, cuts and bends counted.
    """
    return Work(
        weld_m=figures.weld_m,
        bends=bends_of(made, solids),
        ports=len(design.ports),
        fittings=sum(_fitted(port) for port in design.ports),
    )


def _fitted(port: Port) -> int:
    """Valves, flaps, straps and pumps that are fitted at a port."""
    valves = [*(port.vent.valves if port.vent else ()), *(port.neck.valves if port.neck else ())]
    yes = [bool(port.vent and port.vent.rollover), bool(port.neck and port.neck.bonded), port.pumped]
    return len(valves) + sum(yes)


def minutes_more(before: Work, after: Work, prices: Prices) -> float | None:
    """How many minutes more the work takes; None where a time that it takes isn't typed.

    Parameters
    ----------
    before : Work
        Work of the one design.
    after : Work
        Work of the other.
    prices : Prices
        Times a metre or a piece.

    Returns
    -------
    float or None
        Minutes [min].
    """
    return _sum([(after.weld_m - before.weld_m, _minutes_per_m(prices)), *_beside_seams(before, after, prices)])


def money_more(
    was: tuple[Design, Figures], is_: tuple[Design, Figures], before: Work, after: Work, prices: Prices
) -> float | None:
    """How much more it costs: metal, seams, what is bought and the work beside seams; None without a price it takes.

    Parameters
    ----------
    was : (Design, Figures)
        One design and its figures.
    is_ : (Design, Figures)
        Another and its figures.
    before : Work
        Work of the one.
    after : Work
        Work of the other.
    prices : Prices
        The workshop's.

    Returns
    -------
    float or None
        In its currency.
    """
    a, b = money(*was, prices), money(*is_, prices)
    minutes = _sum(_beside_seams(before, after, prices))
    bench = 0.0 if minutes == 0 else None if prices.per_hour is None else prices.per_hour / MINUTES_PER_HOUR
    if a is None or b is None or minutes is None or bench is None:
        return None
    bought = _sum([(after.fittings - before.fittings, prices.per_fitting)])
    return None if bought is None else b - a + minutes * bench + bought


def _minutes_per_m(prices: Prices) -> float | None:
    return None if prices.hours_per_m is None else MINUTES_PER_HOUR * prices.hours_per_m


def _beside_seams(before: Work, after: Work, prices: Prices) -> Iterator[tuple[float, float | None]]:
    yield after.bends - before.bends, prices.minutes_per_bend
    yield after.ports - before.ports, prices.minutes_per_port
    yield after.fittings - before.fittings, prices.minutes_per_fitting


def _sum(takes: Iterable[tuple[float, float | None]]) -> float | None:
    """Amounts times their prices; None where one that counts has no price."""
    total = 0.0
    for much, each in takes:
        if much and each is None:
            return None
        total += much * (each or 0.0)
    return total


def made_minutes(weld_m: float, bends: int, prices: Prices) -> float | None:
    """How long seams and bends take altogether; None where a time that they take isn't typed [min].

    Parameters
    ----------
    weld_m : float
        Seams [m].
    bends : int
        Bends.
    prices : Prices
        Times a metre and a bend.

    Returns
    -------
    float or None
        Minutes [min].
    """
    return _sum([(weld_m, _minutes_per_m(prices)), (bends, prices.minutes_per_bend)])


def made_money(design: Design, figures: Figures, bends: int, prices: Prices) -> float | None:
    """What metal, seams, bends and what is bought cost altogether; None without a price it takes.

    Parameters
    ----------
    design : Design
        The design.
    figures : Figures
        Its figures.
    bends : int
        Bends of its parts.
    prices : Prices
        The workshop's.

    Returns
    -------
    float or None
        In its currency.
    """
    bought, minutes = money(design, figures, prices), _sum([(bends, prices.minutes_per_bend)])
    if bought is None or minutes is None or (minutes and prices.per_hour is None):
        return None
    return bought + minutes * (prices.per_hour or 0.0) / MINUTES_PER_HOUR
