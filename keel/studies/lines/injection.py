"""Pressure at the engine: what it should be, what it is, and whether the injectors suffice."""

from collections.abc import Sequence
from dataclasses import dataclass
from math import sqrt

import networkx as nx

from keel.analysis.parts import LINES
from keel.analysis.study import study
from keel.design.line_functions import RailDoes, RegulatorDoes, UserDoes
from keel.design.line_parts import LinePart
from keel.design.lines import Lines
from keel.studies.lines.as_wired import LINE_MODES
from keel.studies.lines.flows import LOADED_FLOWS, LineFlows
from keel.studies.lines.modes import Mode
from keel.studies.lines.services import open_ways


@dataclass(frozen=True, slots=True)
class FeedMode:
    """A rail or a carburettor in one mode.

    Attributes
    ----------
    failure : bool
        Something has failed in it.
    kpa : float or None
        Before it, over the air's; None where the mode has no answer.
    wanted_kpa : float or None
        What its regulator is set to, over the air's; None without one.
    across_kpa : float or None
        Across the injectors: over the manifold's.
    drawn_lph, able_lph : float
        What the engine burns, and what all injectors give at their longest opening.
    """

    mode: str
    failure: bool
    kpa: float | None
    wanted_kpa: float | None
    across_kpa: float | None
    drawn_lph: float
    able_lph: float | None


@dataclass(frozen=True, slots=True)
class Feed:
    """A rail, a carburettor, a nozzle, in every mode.

    Attributes
    ----------
    across_needed_kpa : float or None
        With which the injectors just suffice in the mode that asks most.
    least_kpa, most_kpa : float or None
        A carburettor's limits.
    """

    part: str
    name: str
    injectors: int
    duty_limit: float
    is_referenced: bool
    modes: list[FeedMode]
    across_needed_kpa: float | None
    least_kpa: float | None
    most_kpa: float | None

    def suffices(self, place: int, off_kpa: float) -> bool:
        """Whether it has what it wants in a mode; what a regulator holds may be off by so much, a limit by nothing."""
        row = self.modes[place]
        if row.drawn_lph == 0:
            return True
        if row.kpa is None or (row.able_lph is not None and row.able_lph < row.drawn_lph):
            return False
        if row.wanted_kpa is not None:
            return row.kpa >= row.wanted_kpa - off_kpa
        return (self.least_kpa or 0.0) <= row.kpa <= (self.most_kpa or float("inf"))


def injector_lph(rated_l_per_h: float, rated_kpa: float, across_kpa: float) -> float:
    """What an injector gives held open: rated · √(across / rated pressure) [L/h]."""
    return rated_l_per_h * sqrt(max(0.0, across_kpa) / rated_kpa)


def across_needed(does: RailDoes, drawn_lph: float) -> float:
    """Pressure across the injectors with which they just suffice at their longest opening [kPa]."""
    return does.rated_kpa * (drawn_lph / (does.injectors * does.rated_l_per_h * does.duty_limit)) ** 2


def feeds(lines: Lines, flows: LineFlows, modes: Sequence[Mode]) -> list[Feed]:
    """Every one that is drawn from.

    Parameters
    ----------
    lines : Lines
        Parts.
    flows : LineFlows
        With filters as they are before a swap.
    modes : sequence of Mode
        Draws and manifold pressures.

    Returns
    -------
    list of Feed
        In the order of the parts.

    References
    ----------
    An injector is an orifice: flow ∝ √(pressure across it). A referenced regulator keeps that constant, one that isn't
    loses what the manifold gains.
    """
    found = []
    for part in lines.parts:
        if isinstance(part.does, RailDoes | UserDoes):
            held = regulator_of(lines, part)
            found.append(_feed(part, part.does, _setting(held) if held else None, flows, modes))
    return found


def regulator_of(lines: Lines, part: LinePart) -> LinePart | None:
    """The regulator that holds the pressure at a part.

    Parameters
    ----------
    lines : Lines
        Parts and runs.
    part : LinePart
        A rail, or another that is drawn from.

    Returns
    -------
    LinePart or None
        A bypass regulator whose inlet, or a dead-head one whose outlet, is open to it; None where there is neither.
    """
    keys = nx.node_connected_component(open_ways(lines), (part.id, "in"))
    for other in lines.parts:
        if isinstance(other.does, RegulatorDoes):
            side = "in" if other.does.way == "bypass" else "out"
            if (other.id, side) in keys:
                return other
    return None


def _setting(part: LinePart) -> RegulatorDoes | None:
    return part.does if isinstance(part.does, RegulatorDoes) else None


def draws(part: LinePart, does: RailDoes | UserDoes, mode: Mode) -> float:
    """What is drawn there in a mode [L/h]."""
    if part.id in mode.still:
        return 0.0
    return (mode.draws_lph if does.case is None else mode.by_case_lph.get(does.case, 0.0)) * does.share


def _feed(
    part: LinePart,
    does: RailDoes | UserDoes,
    regulator: RegulatorDoes | None,
    flows: LineFlows,
    modes: Sequence[Mode],
) -> Feed:
    kpa = flows.kpa(part.id, "rail") or [None] * len(modes)
    rows = [_row(part, does, regulator, mode, one) for mode, one in zip(modes, kpa, strict=True)]
    rail = does if isinstance(does, RailDoes) else None
    return Feed(
        part=part.id,
        name=part.name,
        injectors=rail.injectors if rail else 0,
        duty_limit=rail.duty_limit if rail else 1.0,
        is_referenced=regulator is not None and regulator.is_referenced,
        modes=rows,
        across_needed_kpa=max((across_needed(rail, row.drawn_lph) for row in rows), default=None) if rail else None,
        least_kpa=None if rail else getattr(does, "least_kpa", None),
        most_kpa=None if rail else getattr(does, "most_kpa", None),
    )


def _row(
    part: LinePart, does: RailDoes | UserDoes, regulator: RegulatorDoes | None, mode: Mode, kpa: float | None
) -> FeedMode:
    over = mode.manifold_kpa if regulator and regulator.is_referenced else 0.0
    wanted = regulator.set_kpa + over if regulator else None
    across = kpa - mode.manifold_kpa if isinstance(does, RailDoes) and kpa is not None else None
    able = None
    if isinstance(does, RailDoes) and across is not None:
        able = does.duty_limit * does.injectors * injector_lph(does.rated_l_per_h, does.rated_kpa, across)
    return FeedMode(mode.name, mode.failure, kpa, wanted, across, draws(part, does, mode), able)


FEEDS = study(feeds, LINES, LOADED_FLOWS, LINE_MODES)
