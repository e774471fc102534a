"""What a layout is made of: this design's own parts first, then the shop's library, then plain ones."""

from collections.abc import Callable
from typing import Any, TypeVar

from keel.analysis.tank import TankAnalysis
from keel.design.connections import Connection
from keel.design.line_functions import (
    FilterDoes,
    OtherTankDoes,
    PassageDoes,
    PumpDoes,
    RailDoes,
    RegulatorDoes,
    SurgeTankDoes,
    UserDoes,
    ports_of,
)
from keel.design.line_parts import LineComponent, PartConnection

D = TypeVar("D")
CARBURETTOR_KPA = 25.0
LOW_PRESSURE_KPA = 120.0
"""A pump that can't press to more is one for carburettors and lifting."""


class Kit:
    """Parts to choose from.

    Parameters
    ----------
    tank : TankAnalysis
        The design and its workshop.
    """

    def __init__(self, tank: TankAnalysis) -> None:
        own = [_bare(part) for part in tank.design.lines.parts]
        self.known: list[LineComponent] = [*own, *tank.workshop.line_parts]
        self.pumps = [item.pump for item in tank.design.brief.pumps]

    def _first(self, kind: type[D], fits: Callable[[D], bool]) -> LineComponent | None:
        return next((one for one in self.known if isinstance(one.does, kind) and fits(one.does)), None)

    def pump(self, place: str = "") -> LineComponent | None:
        """A pump for injection: the design's own, the library's, or one of the brief's; None: there is none."""

        def presses(does: PumpDoes) -> bool:
            return _presses_to(does) > LOW_PRESSURE_KPA

        placed = self._first(PumpDoes, lambda does: presses(does) and does.place == place)
        found = placed or self._first(PumpDoes, lambda does: presses(does) and not does.spare)
        if found is not None:
            return _of(found, spare=False)
        pump = next((pump for pump in self.pumps if pump.curves[-1].points[-1].kpa > LOW_PRESSURE_KPA), None)
        return None if pump is None else LineComponent(does=PumpDoes(curves=pump.curves))

    def lift_pump(self) -> LineComponent | None:
        """A pump that gives much at little pressure: for a carburettor, and into a surge tank."""
        found = self._first(PumpDoes, lambda does: _presses_to(does) <= LOW_PRESSURE_KPA)
        if found is not None:
            return found
        pump = next((pump for pump in self.pumps if pump.curves[-1].points[-1].kpa <= LOW_PRESSURE_KPA), None)
        return None if pump is None else LineComponent(does=PumpDoes(curves=pump.curves))

    def screen(self) -> LineComponent:
        """Before a pump outside the tank."""
        found = self._first(FilterDoes, lambda does: does.stage in ("screen", "pre-filter"))
        return found or plain(FilterDoes(stage="screen", linear=0.0015, element="stainless mesh"), "-8")

    def filter(self) -> LineComponent:
        """Behind the pump."""
        return self._first(FilterDoes, lambda does: does.stage == "main") or plain(FilterDoes(), "-6")

    def rail(self) -> LineComponent:
        """The engine's."""
        return self._first(RailDoes, lambda _: True) or plain(RailDoes(), "-6")

    def carburettor(self) -> LineComponent:
        """One that takes what a low-pressure pump gives."""
        return self._first(UserDoes, lambda does: does.kind == "carburettor") or plain(UserDoes(), "-6")

    def nozzle(self) -> LineComponent:
        """What fuel is delivered through."""
        found = self._first(UserDoes, lambda does: does.kind == "delivery nozzle")
        return found or plain(UserDoes(kind="delivery nozzle"), "-6")

    def regulator(self, way: str, **changed: Any) -> LineComponent:
        """One of a kind, with its setting changed."""
        found = self._first(RegulatorDoes, lambda does: does.way == way)
        does = RegulatorDoes() if way == "bypass" else RegulatorDoes(way="dead-head")
        return _of(found or plain(does, "-6", "reference"), **changed)

    def tee(self) -> LineComponent:
        """One for hoses outside the tank."""
        return plain(PassageDoes(), "-6")

    def surge_tank(self, volume_l: float) -> LineComponent:
        """As large as the brief's dry spell asks."""
        found = self._first(SurgeTankDoes, lambda does: does.volume_l >= volume_l)
        return found or plain(SurgeTankDoes(volume_l=volume_l), "-8").model_copy(
            update={"long_mm": 220.0, "across_mm": 110.0}
        )

    def other_tank(self) -> LineComponent:
        """Where a lift pump draws from when the design itself is the surge tank."""
        return self._first(OtherTankDoes, lambda _: True) or plain(OtherTankDoes(), "-8")


def plain(does: Any, size: str, *bare: str) -> LineComponent:
    """A part with male flares of a size at all its connections but some."""
    flare = Connection(size=size).model_dump()
    connections = tuple(PartConnection(id=port, **flare) for port in ports_of(does) if port not in ("manifold", *bare))
    return LineComponent(does=does, connections=connections)


def _bare(part: LineComponent) -> LineComponent:
    """A part without its place."""
    return LineComponent.model_validate({name: getattr(part, name) for name in LineComponent.model_fields})


def _of(component: LineComponent, **changed: Any) -> LineComponent:
    return component.model_copy(update={"does": component.does.model_copy(update=changed)}) if changed else component


def _presses_to(does: PumpDoes) -> float:
    return max(point.kpa for curve in does.curves for point in curve.points)
