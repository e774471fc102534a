"""How thick every wire is, what it carries and loses, and what is left of the voltage at every load."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from math import inf, isfinite

import numpy as np

from keel.analysis.parts import RULES, WIRING
from keel.analysis.study import study
from keel.design.wiring import (
    ChangeoverDoes,
    ConnectorDoes,
    ControllerDoes,
    CutOffDoes,
    Device,
    FuseDoes,
    LevelSwitchDoes,
    RelayDoes,
    SwitchDoes,
    Wire,
    WireEnd,
    Wiring,
    terminals_of,
)
from keel.design.workshop import HouseRules
from keel.reference.wires import CRIMP_OHM, gauge_of
from keel.studies.wiring.loads import LOADS, Load
from keel.studies.wiring.runs import WIRE_RUNS, WireRuns
from keel.studies.wiring.state import Case, State, Wires, contact, end_of, state_of, terminal
from keel.wiring.capacity import carries, copper_c, next_thicker, smallest_that_carries
from keel.wiring.copper import resistance
from keel.wiring.fuses import fuse_for
from keel.wiring.network import largest_fuse, responses

CARRIED = 1e-6
"""A branch that carries less of a load's current is no part of its way."""
MOST_ROUNDS = 200


@dataclass(frozen=True, slots=True)
class WireFigures:
    """A wire.

    Attributes
    ----------
    side : str
        Whether it feeds, leads back, carries a signal, or is joined to neither pole.
    current_a : float or None
        The most that flows in it; None where it feeds something whose current nobody knows.
    area_mm2 : float
        Its copper, typed or chosen.
    gauge : int or None
        The American gauge with at least so much; None where none is thick enough.
    carries_a : float
        What it may carry for good where it lies.
    fuse_a : float or None
        The largest fuse that a fault in it, or what comes through it, is stopped by; None where there is none.
    unfused_mm : float
        Wire without a fuse from the battery to its far end, where it has none before it.
    drop_v : float
        What it takes itself, its ends counted.
    loads : list of str
        What its current is for, by their keys.
    """

    id: str
    name: str
    side: str
    length_mm: float
    current_a: float | None
    area_mm2: float
    is_chosen: bool
    gauge: int | None
    carries_a: float
    fuse_a: float | None
    unfused_mm: float
    drop_v: float
    loads: list[str]


@dataclass(frozen=True, slots=True)
class LoadFigures:
    """A load.

    Attributes
    ----------
    is_fed, is_earthed : bool
        Whether it is joined to the battery's + and to its -, with everything closed.
    loop_ohm : float or None
        Of all that its own current flows through; None where its way isn't whole.
    drop_v : float or None
        What is lost with everything on.
    others_v : float or None
        What of that others' currents take.
    wires : list of str
        The wires of its way, there and back.
    """

    key: str
    of: str
    id: str
    name: str
    kind: str
    current_a: float | None
    is_fed: bool
    is_earthed: bool
    loop_ohm: float | None
    drop_v: float | None
    others_v: float | None
    wires: list[str]


@dataclass(frozen=True, slots=True)
class FuseFigures:
    """A fuse: its rating, typed or chosen, and what flows through it."""

    id: str
    name: str
    rating_a: float | None
    is_chosen: bool
    current_a: float


@dataclass(frozen=True, slots=True)
class ContactFigures:
    """A contact that opens and closes, an output, or a pin: what flows through it, and what it may carry [A]."""

    id: str
    name: str
    kind: str
    terminal: str
    current_a: float
    rating_a: float


@dataclass(frozen=True, slots=True)
class Wired:
    """The wiring in figures. `is_short`: + and - are joined without a load between."""

    wires: list[WireFigures]
    loads: list[LoadFigures]
    fuses: list[FuseFigures]
    contacts: list[ContactFigures]
    is_short: bool

    def load(self, of: str, name: str) -> LoadFigures | None:
        """One load; None where it isn't there."""
        return next((one for one in self.loads if (one.of, one.id) == (of, name)), None)

    def wire(self, name: str) -> WireFigures | None:
        """One wire; None where it isn't there."""
        return next((one for one in self.wires if one.id == name), None)


def wired(wiring: Wiring, found: Sequence[Load], runs: WireRuns, rules: HouseRules) -> Wired:
    """Sizes, currents, losses and fuses.

    Parameters
    ----------
    wiring : Wiring
        Devices and wires.
    found : sequence of Load
        What draws current.
    runs : WireRuns
        How long each wire is.
    rules : HouseRules
        What may be lost.

    Returns
    -------
    Wired
        A wire whose size isn't typed is the smallest that bears its current and the fuse before it; the thinnest of a
        way that loses too much go up, size by size, until it doesn't.

    References
    ----------
    Copper by ρ l / A, hot; the network by `keel.wiring.network.responses`.
    """
    return _Sizing(wiring, found, runs, rules).figures()


@dataclass(frozen=True)
class _Flowing:
    """What flows in one case: by branch with everything on [A], by load its drop, its own way's ohms and branches."""

    currents: dict[str, float]
    drops: dict[str, float]
    own: dict[str, tuple[float, list[str]]]


class _Sizing:
    def __init__(self, wiring: Wiring, found: Sequence[Load], runs: WireRuns, rules: HouseRules) -> None:
        self.wiring, self.loads, self.runs, self.rules = wiring, found, runs, rules
        self.by_id = {wire.id: wire for wire in wiring.wires}
        self.pins = {
            one.id: one.does.contact_mohm / 1e3 for one in wiring.devices if isinstance(one.does, ConnectorDoes)
        }
        self.areas = {wire.id: wire.area_mm2 or 1.0 for wire in wiring.wires}
        self.fuse_a: dict[str, float | None] = {
            one.id: one.does.rating_a for one in wiring.devices if isinstance(one.does, FuseDoes)
        }
        changes = any(isinstance(one.does, ChangeoverDoes) for one in wiring.devices)
        self.cases = [Case(), Case(changed=True)] if changes else [Case()]
        self.states: list[State] = []

    def figures(self) -> Wired:
        """All of it."""
        self.is_short = any(state.fed & state.earthed for state in self._states())
        flowing = self._flowing()
        self._choose_fuses(flowing)
        before = self._fuses_before(flowing)
        for wire in self.wiring.wires:
            if wire.area_mm2 is None:
                limit = before.get(wire.id, inf)
                current = max(self._most(flowing, wire.id), limit if isfinite(limit) else 0.0)
                self.areas[wire.id] = smallest_that_carries(current, wire.insulation, wire.air_c)
        flowing = self._until_little_is_lost()
        self.states = self._states()
        return Wired(
            [self._wire(wire, flowing, before.get(wire.id, inf)) for wire in self.wiring.wires],
            [self._load(load, flowing) for load in self.loads],
            [self._fuse(name, flowing) for name in self.fuse_a],
            [one for device in self.wiring.devices for one in self._contacts(device, flowing)],
            self.is_short,
        )

    def _states(self) -> list[State]:
        wires = Wires({name: self._ohm(wire) for name, wire in self.by_id.items()}, self.fuse_a)
        return [state_of(self.wiring, case, wires) for case in self.cases]

    def _ohm(self, wire: Wire) -> float:
        """Its copper, its two crimps, its share of the pins that it ends in."""
        ends = 2 * CRIMP_OHM + sum(self._pin(end) for end in (wire.start, wire.end))
        length = max(self.runs.length_m(wire.id), 1e-3)
        return resistance(length, self.areas[wire.id], celsius=copper_c(wire.air_c), contacts_ohm=ends)

    def _pin(self, end: WireEnd) -> float:
        return self.pins.get(end.id, 0.0) / 2 if end.of == "device" else 0.0

    def _flowing(self) -> list[_Flowing]:
        return [] if self.is_short else [_flow(state, self.loads) for state in self._states()]

    def _most(self, flowing: Sequence[_Flowing], branch: str) -> float:
        return max((abs(case.currents.get(branch, 0.0)) for case in flowing), default=0.0)

    def _choose_fuses(self, flowing: Sequence[_Flowing]) -> None:
        """What isn't typed is the smallest that bears what flows."""
        for name, rating in self.fuse_a.items():
            current = self._most(flowing, contact(name, "out"))
            if rating is None and current > 0:
                fuse = fuse_for(current, inf)
                self.fuse_a[name] = fuse.rating_a if fuse else None

    def _fuses_before(self, flowing: Sequence[_Flowing]) -> dict[str, float]:
        """By wire, the largest fuse before it; of one that leads back, before what it leads back from [A]."""
        found: dict[str, float] = {}
        for state, case in zip(self._states(), flowing, strict=False):
            if state.poles is None:
                continue
            width = largest_fuse(state.branches, state.poles[0])
            for wire in self.wiring.wires:
                ends = [width[end] for end in (end_of(wire.start), end_of(wire.end)) if end in width]
                back = [
                    width[load.plus]
                    for load in self.loads
                    if load.plus in width and wire.id in case.own.get(load.key, (0.0, []))[1]
                ]
                if ends or back:
                    found[wire.id] = max(found.get(wire.id, 0.0), *(ends or back))
        return found

    def _until_little_is_lost(self) -> list[_Flowing]:
        """The thinnest wires of the way that loses most go up, until none loses too much or none is left to go up."""
        flowing = self._flowing()
        for _ in range(MOST_ROUNDS):
            over = sorted(
                (
                    (drop, key)
                    for case in flowing
                    for key, drop in case.drops.items()
                    if drop > self.rules.wire_drop_v + 1e-9
                ),
                reverse=True,
            )
            grown = next((True for _, key in over if self._grow(flowing, key)), False)
            if not grown:
                return flowing
            flowing = self._flowing()
        return flowing

    def _grow(self, flowing: Sequence[_Flowing], key: str) -> bool:
        """One size more for the thinnest wires of a load's way; False where none can."""
        names = {name for case in flowing for name in case.own.get(key, (0.0, []))[1]}
        chosen = [name for name in names if name in self.by_id and self.by_id[name].area_mm2 is None]
        free = [name for name in chosen if isfinite(next_thicker(self.areas[name]))]
        if not free:
            return False
        thinnest = min(self.areas[name] for name in free)
        for name in free:
            if self.areas[name] == thinnest:
                self.areas[name] = next_thicker(thinnest)
        return True

    def _wire(self, wire: Wire, flowing: Sequence[_Flowing], before_a: float) -> WireFigures:
        used = [load for load in self.loads if any(wire.id in case.own.get(load.key, (0.0, []))[1] for case in flowing)]
        current = self._most(flowing, wire.id)
        area = self.areas[wire.id]
        return WireFigures(
            id=wire.id,
            name=wire.name,
            side=self._side(wire),
            length_mm=self.runs.length_m(wire.id) * 1e3,
            current_a=None if any(load.current_a is None for load in used) else current,
            area_mm2=area,
            is_chosen=wire.area_mm2 is None,
            gauge=gauge_of(area),
            carries_a=carries(area, wire.insulation, wire.air_c),
            fuse_a=before_a if isfinite(before_a) else None,
            unfused_mm=0.0 if isfinite(before_a) else self._unfused(wire),
            drop_v=current * self._ohm(wire),
            loads=[load.key for load in used],
        )

    def _unfused(self, wire: Wire) -> float:
        """Along the shortest way from the battery, through contacts, past no fuse [mm]."""
        long = self.runs.length_m(wire.id) * 1e3
        reach = [
            state.unfused_mm({name: self.runs.length_m(name) * 1e3 for name in self.by_id}) for state in self.states
        ]
        ends = (end_of(wire.start), end_of(wire.end))
        near = [far[end] for far in reach for end in ends if end in far]
        return min(near, default=0.0) + long

    def _side(self, wire: Wire) -> str:
        ends = {end_of(wire.start), end_of(wire.end)}
        if any(ends <= state.fed for state in self.states):
            return "feed"
        return "return" if any(ends <= state.earthed for state in self.states) else "signal"

    def _load(self, load: Load, flowing: Sequence[_Flowing]) -> LoadFigures:
        states = self.states
        own = [case.own[load.key] for case in flowing if load.key in case.own]
        ohm = max((ohm for ohm, _ in own), default=None)
        drop = max((case.drops[load.key] for case in flowing if load.key in case.drops), default=None)
        return LoadFigures(
            key=load.key,
            of=load.of,
            id=load.id,
            name=load.name,
            kind=load.kind,
            current_a=load.current_a,
            is_fed=any(load.plus in state.fed for state in states),
            is_earthed=any(load.minus in state.earthed for state in states),
            loop_ohm=ohm,
            drop_v=drop,
            others_v=None if drop is None or ohm is None else max(0.0, drop - ohm * load.drawn_a),
            wires=list(dict.fromkeys(name for _, names in own for name in names if name in self.by_id)),
        )

    def _fuse(self, name: str, flowing: Sequence[_Flowing]) -> FuseFigures:
        device = self.wiring.device(name)
        assert device is not None
        typed = isinstance(device.does, FuseDoes) and device.does.rating_a is not None
        return FuseFigures(name, device.name, self.fuse_a[name], not typed, self._most(flowing, contact(name, "out")))

    def _contacts(self, device: Device, flowing: Sequence[_Flowing]) -> Iterator[ContactFigures]:
        does = device.does
        if isinstance(does, ConnectorDoes):
            for pin in terminals_of(does):
                current = max((self._most(flowing, wire) for wire in self._wires_at(device.id, pin)), default=0.0)
                yield ContactFigures(device.id, device.name, does.kind, pin, current, does.rating_a)
        elif isinstance(does, ControllerDoes):
            for place, output in enumerate(does.outputs, start=1):
                current = self._most(flowing, contact(device.id, f"out {place}"))
                yield ContactFigures(device.id, device.name, does.kind, f"out {place}", current, output.rating_a)
        elif isinstance(does, RelayDoes | CutOffDoes | SwitchDoes | ChangeoverDoes | LevelSwitchDoes):
            current = max(self._most(flowing, contact(device.id, end)) for end in terminals_of(does))
            yield ContactFigures(device.id, device.name, does.kind, "contact", current, does.rating_a)

    def _wires_at(self, device: str, pin: str) -> list[str]:
        at = terminal("device", device, pin)
        return [wire.id for wire in self.wiring.wires if at in (end_of(wire.start), end_of(wire.end))]


def _flow(state: State, found: Sequence[Load]) -> _Flowing:
    """Everything on, and what each load's own way is."""
    if state.poles is None:
        return _Flowing({}, {}, {})
    live = [load for load in found if load.plus in state.fed and load.minus in state.earthed]
    does = responses(state.branches, [(load.plus, load.minus) for load in live], state.poles)
    drawn = np.array([load.drawn_a for load in live])
    through = np.abs(does.amperes @ drawn)
    drops = does.volts @ drawn
    used = np.abs(does.amperes) > CARRIED
    names = [branch.id for branch in state.branches]
    return _Flowing(
        dict(zip(names, through.tolist(), strict=True)),
        {load.key: float(drops[n]) for n, load in enumerate(live)},
        {
            load.key: (float(does.volts[n, n]), [name for name, mine in zip(names, used[:, n], strict=True) if mine])
            for n, load in enumerate(live)
        },
    )


WIRED = study(wired, WIRING, LOADS, WIRE_RUNS, RULES).by_value()
