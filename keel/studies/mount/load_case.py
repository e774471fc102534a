"""A load on the mounts by direction, who carries it, and the links that it goes through."""

from dataclasses import dataclass
from typing import Literal

from keel.studies.result import Point

Way = Literal["forward", "rearward", "to the left", "to the right", "up", "down"]
WAYS: dict[Way, tuple[float, float, float]] = {
    "forward": (1, 0, 0),
    "rearward": (-1, 0, 0),
    "to the left": (0, 1, 0),
    "to the right": (0, -1, 0),
    "up": (0, 0, 1),
    "down": (0, 0, -1),
}


@dataclass(frozen=True, slots=True)
class Held:
    """What one mount carries of a load: its force on the tank [N], and where."""

    holder: str
    force_n: float
    force: Point
    at: Point


@dataclass(frozen=True, slots=True)
class LoadCase:
    """One direction.

    Attributes
    ----------
    load_n : float
        Mass × g.
    is_held : bool
        Whether something bears it.
    by : list of Held
        Those that carry any of it.
    """

    way: Way
    g: float
    load_n: float
    is_held: bool
    by: list[Held]


@dataclass(frozen=True, slots=True)
class LinkCheck:
    """One link of a mount where it is loaded most.

    Attributes
    ----------
    at : str
        Which end of a strap or a cage's bar; empty for others.
    """

    name: str
    at: str
    way: Way
    load_n: float
    bears_n: float
    reserve: float


@dataclass(frozen=True, slots=True)
class MountCheck:
    """A strap, a foot or a stop: its links, the weakest first; none where it carries nothing."""

    id: str
    name: str
    kind: Literal["strap", "foot", "stop", "bearer"]
    links: list[LinkCheck]
