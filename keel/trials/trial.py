"""One try: a design with something changed, run over a log, with its price."""

from collections.abc import Callable, Sequence
from dataclasses import dataclass, field, replace
from typing import Any, Literal

import numpy as np
from pydantic import ValidationError

from keel.analysis.tank import Asked, TankAnalysis
from keel.design.document import Design
from keel.design.workshop import Workshop
from keel.findings.finding import Rule
from keel.findings.patch import apply
from keel.solid.faults import GeometryError
from keel.stations.brief.rules import card_is_kept
from keel.stations.inside.rules import (
    a_bag_is_left_whole,
    compartments_drain_and_breathe,
    draw_gets_through,
    fuel_runs_free,
    plates_are_open_enough,
    plates_go_in,
)
from keel.studies.cost.figures import FIGURES
from keel.studies.cost.money import money
from keel.studies.result import Words
from keel.studies.slosh.log import Log
from keel.studies.slosh.model import setup_of, slosh_tank
from keel.studies.slosh.run import slosh_run
from keel.studies.slosh.starvation import lowest_fill

Price = Literal["weld", "metal", "money"]
RULES: tuple[Rule, ...] = (
    fuel_runs_free,
    plates_are_open_enough,
    compartments_drain_and_breathe,
    draw_gets_through,
    plates_go_in,
    a_bag_is_left_whole,
    card_is_kept,
)
"""What a try is held against."""
DRY_S = 0.005
"""Less than this is no dry time [s]."""


@dataclass(frozen=True, slots=True)
class Case:
    """What is to be tried: a patch of the design, and what was chosen to make it, by name."""

    name: str
    patch: dict[str, Any] | None
    choice: dict[str, float] = field(default_factory=dict)


@dataclass(frozen=True, slots=True)
class Trial:
    """How a case came out. With a `problem` it can't be made or run, and the figures are zero."""

    name: str
    choice: dict[str, float]
    patch: dict[str, Any] | None
    """What makes the design that one."""
    dry_s: float = 0.0
    spells: int = 0
    start_l: float = 0.0
    """In the tank at the start of the run."""
    lowest_l: float | None = None
    """Least at the start that runs through without a dry spell; empty when none does, or when it wasn't looked for."""
    brimful_l: float = 0.0
    empty_kg: float = 0.0
    weld_m: float = 0.0
    money: float | None = None
    """By the workshop's prices; empty where one of them isn't typed."""
    hours: float | None = None
    """Working time of the seams; empty where the workshop hasn't typed it for a metre."""
    breaks: list[Words] = field(default_factory=list)
    """What house rules and the job's rule card hold against it."""
    problem: str | None = None

    @property
    def runs_through(self) -> bool:
        """Whether it can be made and never ran dry."""
        return self.problem is None and self.dry_s < DRY_S


def tried(
    case: Case,
    design: Design,
    workshop: Workshop,
    log: Log,
    start_l: float | None = None,
    *,
    lowest: bool = True,
    before_each: Callable[[], None] = lambda: None,
) -> Trial:
    """Try one case.

    Parameters
    ----------
    case : Case
        What is changed.
    design : Design
        With a shell and a pickup.
    workshop : Workshop
        House rules, machines, stock.
    log : Log
        What it is driven over.
    start_l : float, optional
        What is in at the start [L]; by default the design's own share of brimful.
    lowest : bool
        Whether the lowest start without a dry spell is looked for too.
    before_each : callable
        Called before each of that search's runs; it may raise to stop them.

    Returns
    -------
    Trial
        Dry time, lowest start and what it costs.
    """
    unmade = Trial(case.name, case.choice, case.patch)
    try:
        made = design if case.patch is None else apply(design, case.patch)
        analysis = TankAnalysis(Asked(made, workshop))
        figures = analysis.get(FIGURES)
    except ValidationError as error:
        return replace(unmade, problem=str(error.errors()[0]["msg"]))
    except GeometryError as error:
        return replace(unmade, problem=str(error))
    tank = None if figures is None else slosh_tank(analysis.solids, made.ports)
    if tank is None or figures is None:
        return replace(unmade, problem="the pickup isn't in the tank, or a plate stands there")
    brimful = float(tank.packed.capacity.sum()) / 1e6
    setup = setup_of(made, workshop.rules)
    if start_l is not None:
        if start_l > brimful:
            return replace(unmade, problem=f"it holds less than {start_l:g} L")
        setup = replace(setup, fill=start_l / brimful)
    ran, fill = slosh_run(tank, log, setup), lowest_fill(tank, log, setup, before_each) if lowest else None
    hours_per_m = workshop.prices.hours_per_m
    return replace(
        unmade,
        dry_s=ran.dry_s,
        spells=len(ran.spells),
        start_l=setup.fill * brimful,
        lowest_l=None if fill is None else fill * brimful,
        brimful_l=brimful,
        empty_kg=figures.empty_kg or 0.0,
        weld_m=figures.weld_m,
        money=money(made, figures, workshop.prices),
        hours=None if hours_per_m is None else hours_per_m * figures.weld_m,
        breaks=[finding.title for rule in RULES for finding in rule(analysis)],
    )


def favoured(trials: Sequence[Trial], price: Price = "weld") -> Trial | None:
    """Which one the figures favour.

    The one with the least dry time; of those, the one that runs through from the lowest start; of those, the cheapest
    in weld, metal or money.

    Parameters
    ----------
    trials : sequence of Trial
        Any number.
    price : Price
        What the cheapest is measured in.

    Returns
    -------
    Trial or None
        One of them; None of none.
    """
    sound = [trial for trial in trials if trial.problem is None]

    def weight(trial: Trial) -> tuple[float, float, float, float]:
        lowest = np.inf if trial.lowest_l is None else trial.lowest_l
        dear = (trial.weld_m, trial.empty_kg) if price != "metal" else (trial.empty_kg, trial.weld_m)
        if price == "money":
            dear = (np.inf if trial.money is None else trial.money, trial.weld_m)
        return 0.0 if trial.runs_through else round(trial.dry_s, 2), lowest, *dear

    return min(sound, key=weight, default=None)
