"""What pumps on the engine give over its range of speed, geared as they are."""

from collections.abc import Sequence
from dataclasses import dataclass

from scipy.optimize import brentq

from keel.analysis.parts import LINES
from keel.analysis.study import study
from keel.design.line_functions import EnginePumpDoes
from keel.design.line_parts import LinePart
from keel.design.lines import Lines
from keel.studies.lines.as_wired import LINE_MODES
from keel.studies.lines.circuits import CIRCUITS, Circuit
from keel.studies.lines.flows import LOADED_FLOWS, LineFlows
from keel.studies.lines.injection import FEEDS, Feed
from keel.studies.lines.modes import Mode
from keel.studies.lines.pump_curves import pump_curve

WITHIN_RPM = 0.5


@dataclass(frozen=True, slots=True)
class AtSpeed:
    """One speed of the engine.

    Attributes
    ----------
    free_lph, working_lph : float or None
        What it gives against nothing, and against its working pressure; None beyond its card.
    drawn_lph : float or None
        The most that a mode of that speed draws.
    """

    engine_rpm: float
    shaft_rpm: float
    free_lph: float | None
    working_lph: float | None
    drawn_lph: float | None


@dataclass(frozen=True, slots=True)
class EngineDriven:
    """A pump on the engine.

    Attributes
    ----------
    mode : str
        The one that draws most of those that it runs in.
    working_kpa, wanted_lph : float
        What it has to rise by there, for everyone's least pressure with filters due for a swap, and what is drawn.
    enough_from_rpm : float or None
        Speed of the engine from which it gives that; None: at no speed of its card.
    """

    part: str
    name: str
    mode: str
    working_kpa: float
    wanted_lph: float
    enough_from_rpm: float | None
    can_disengage: bool
    needs_flooded: bool
    speeds: list[AtSpeed]


def engine_driven(
    lines: Lines, found: Sequence[Circuit], flows: LineFlows, fed: Sequence[Feed], modes: Sequence[Mode]
) -> list[EngineDriven]:
    """Every pump on the engine.

    Parameters
    ----------
    lines : Lines
        Parts.
    found : sequence of Circuit
        Whom each feeds.
    flows : LineFlows
        With filters as they are before a swap.
    fed : sequence of Feed
        The pressures that are wanted.
    modes : sequence of Mode
        Speeds, and what is drawn at each.

    Returns
    -------
    list of EngineDriven
        Speeds are those of the modes and of its own card.
    """
    shown = []
    for part in lines.parts:
        if isinstance(part.does, EnginePumpDoes):
            circuit = next(one for one in found if part.id in one.parts)
            own = [feed for feed in fed if feed.part in circuit.parts]
            shown.append(_over(part, part.does, flows, own, modes))
    return shown


def _over(
    part: LinePart, does: EnginePumpDoes, flows: LineFlows, fed: Sequence[Feed], modes: Sequence[Mode]
) -> EngineDriven:
    running = [mode for mode in modes if part.id not in mode.still]
    most = max(running, key=lambda mode: mode.draws_lph, default=None)
    kpa = _needed_kpa(part.id, modes.index(most), flows, fed) if most else 0.0
    speeds = sorted({curve.rpm / does.ratio for curve in does.curves} | {mode.engine_rpm for mode in running})
    return EngineDriven(
        part=part.id,
        name=part.name,
        mode=most.name if most else "",
        working_kpa=kpa,
        wanted_lph=most.draws_lph if most else 0.0,
        enough_from_rpm=_enough_from(does, kpa, most.draws_lph) if most else None,
        can_disengage=does.can_disengage,
        needs_flooded=does.needs_flooded,
        speeds=[
            AtSpeed(
                engine_rpm=speed,
                shaft_rpm=speed * does.ratio,
                free_lph=_gives(does, speed, 0.0),
                working_lph=_gives(does, speed, kpa),
                drawn_lph=max((mode.draws_lph for mode in running if mode.engine_rpm == speed), default=None),
            )
            for speed in speeds
        ],
    )


def _needed_kpa(part: str, place: int, flows: LineFlows, fed: Sequence[Feed]) -> float:
    """What it rises by in a mode, less what arrives beyond what is wanted; more, where too little arrives."""
    none = [None] * (place + 1)
    inlet, outlet = ((flows.kpa(part, port) or none)[place] for port in ("in", "out"))
    if inlet is None or outlet is None:
        return 0.0
    rows = [(feed.modes[place], feed.least_kpa) for feed in fed]
    beyond = [
        row.kpa - (least or 0.0 if row.wanted_kpa is None else row.wanted_kpa)
        for row, least in rows
        if row.kpa is not None
    ]
    return max(0.0, outlet - inlet - min(beyond, default=0.0))


def _gives(does: EnginePumpDoes, engine_rpm: float, kpa: float) -> float | None:
    curve = pump_curve(does, 0.0, engine_rpm)
    return None if curve is None else curve.at(kpa)


def _enough_from(does: EnginePumpDoes, kpa: float, wanted_lph: float) -> float | None:
    """A pump gives the more the faster it turns: the one speed at which it gives as much."""
    fastest = does.curves[-1].rpm / does.ratio

    def over(engine_rpm: float) -> float:
        return (_gives(does, engine_rpm, kpa) or 0.0) - wanted_lph

    if over(fastest) < 0:
        return None
    return 0.0 if over(0.0) >= 0 else float(brentq(over, 0.0, fastest, xtol=WITHIN_RPM))


ENGINE_DRIVEN = study(engine_driven, LINES, CIRCUITS, LOADED_FLOWS, FEEDS, LINE_MODES)
