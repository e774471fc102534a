"""What holds a tank, told again after the tank was moved, seen in a mirror or turned by a quarter."""

import json
from collections.abc import Callable
from dataclasses import dataclass
from typing import Any

from keel.analysis.parts import SOLIDS
from keel.analysis.tank import Asked, TankAnalysis
from keel.design.workshop import Workshop
from keel.formats.document import read_design
from keel.solid.box import Cuboid
from keel.tests.mirror import swapped
from keel.tests.quarter import OTHER, TURNED

Item = dict[str, Any]
ALIKE = dict.fromkeys(("forward_g", "rearward_g", "sideways_g", "up_g", "down_g"), 5.0)
OPPOSITE = {"low side": "high side", "high side": "low side"}
Map = Callable[[float], float]


@dataclass(frozen=True)
class Told:
    """Where each axis goes, and how.

    Attributes
    ----------
    x, y, z : callable
        A place along an old axis told along the new one.
    axes : dict
        New axes by old ones.
    sides : callable
        New sides by old ones.
    turns : str
        Old axes that run the other way now.
    """

    x: Map
    y: Map
    z: Map
    axes: dict[str, str]
    sides: Callable[[str], str]
    turns: str

    def mount(self, mount: Item) -> Item:
        """What holds the tank, told again."""
        changed: Item = {"straps": [self._strap(one) for one in mount.get("straps", [])]}
        changed["feet"] = [self._foot(one) for one in mount.get("feet", [])]
        changed["stops"] = [self._spot(one) | self._sided(one) for one in mount.get("stops", [])]
        changed["bearers"] = [self._bearer(one) for one in mount.get("bearers", [])]
        changed["brackets"] = [one | self._sided(one) for one in mount.get("brackets", [])]
        changed["new_work"] = [self._spot(one) for one in mount.get("new_work", [])]
        return mount | changed

    def _to(self, axis: str, at: float) -> float:
        return {"x": self.x, "y": self.y, "z": self.z}[axis](at)

    def _spot(self, one: Item) -> Item:
        return one | {f"{self.axes[axis]}_mm": self._to(axis, one[f"{axis}_mm"]) for axis in "xyz"}

    def _sided(self, one: Item) -> Item:
        return {"side": self.sides(one["side"])}

    def _foot(self, foot: Item) -> Item:
        at = foot.get("structure_at")
        return self._spot(foot) | {
            "axis": self.axes[foot["axis"]],
            "structure_at": OPPOSITE.get(at) if foot["axis"] in self.turns else at,
        }

    def _strap(self, strap: Item) -> Item:
        along = strap["across"]
        ends = {
            end: strap[end] | {"out_mm": self._to(along, strap[end]["out_mm"]), "z_mm": self.z(strap[end]["z_mm"])}
            for end in ("low", "high")
        }
        if along in self.turns:
            ends = {"low": ends["high"], "high": ends["low"]}
        across = "y" if along == "x" else "x"
        return strap | ends | {"across": self.axes[along], "at_mm": self._to(across, strap["at_mm"])}

    def _bearer(self, bar: Item) -> Item:
        along = bar["along"]
        low, high = sorted(self._to(along, bar[name]) for name in ("low_mm", "high_mm"))
        across = "y" if along == "x" else "x"
        return bar | {
            "along": self.axes[along],
            "at_mm": self._to(across, bar["at_mm"]),
            "low_mm": low,
            "high_mm": high,
        }


def body_of(document: Item) -> Cuboid:
    """The box round a tank without its features."""
    return TankAnalysis(Asked(read_design(json.dumps(document)), Workshop()))[SOLIDS].body


def alike_every_way(document: Item) -> Item:
    """The same with loads that are as large lengthwise as sideways."""
    return document | {"mount": document["mount"] | {"use": "rule card", "loads": ALIKE}}


def moved(document: Item, by: tuple[float, float, float]) -> Item:
    """A mount moved with its tank."""

    def shifted(mm: float) -> Map:
        return lambda at: at + mm

    told = Told(*(shifted(mm) for mm in by), {"x": "x", "y": "y", "z": "z"}, str, "")
    return told.mount(document["mount"])


def mirrored_mount(document: Item, image: Item) -> Item:
    """A mount as it is in the mirror with its tank."""
    was, now = body_of(document), body_of(image)
    told = Told(
        lambda at: at, lambda at: now.low[1] + was.high[1] - at, lambda at: at, dict(zip("xyz", "xyz", strict=True)),
        swapped, "y",
    )  # fmt: skip
    return told.mount(document["mount"])


def quartered_mount(document: Item, turned: Item) -> Item:
    """A mount turned with its tank: along becomes across, across becomes along from the other end."""
    was, now = body_of(document), body_of(turned)
    told = Told(
        lambda at: now.low[1] + at - was.low[0],
        lambda at: now.low[0] + was.high[1] - at,
        lambda at: now.low[2] + at - was.low[2],
        OTHER,
        lambda side: TURNED.get(side, side),
        "y",
    )
    return told.mount(document["mount"])
