"""A shell made larger or smaller along one direction, its proportions kept, as fields of the design."""

from collections.abc import Callable
from math import hypot, sqrt
from typing import Any, Literal

from keel.design.shell import BoxShell, CylinderShell, ProfileShell
from keel.solid.build import build
from keel.solid.faults import GeometryError
from keel.solid.solids import AnyShell
from keel.studies.result import Value

Direction = Literal["length", "width", "height", "diameter"]
DIMENSIONS = ("length_mm", "width_mm", "height_mm")
ALONG: dict[Direction, int] = {"length": 0, "width": 1, "height": 2}
MOST_STEPS = 40
EXACT, GOOD, GOOD_AFTER = 1e-9, 1e-5, 6
GROWN: dict[Direction, str] = {"length": "longer", "width": "wider", "height": "taller", "diameter": "larger across"}
SHRUNK: dict[Direction, str] = {
    "length": "shorter",
    "width": "narrower",
    "height": "lower",
    "diameter": "smaller across",
}
"""What each direction is called when it grows and shrinks."""


def directions(shell: AnyShell) -> list[Direction]:
    """The directions a kind of shell can grow in.

    Parameters
    ----------
    shell : AnyShell
        Any shell.

    Returns
    -------
    list of Direction
        One to three of them.
    """
    if isinstance(shell, CylinderShell):
        return [("length", "width", "height")["xyz".index(shell.axis)], "diameter"]
    return ["length", "width", "height"]


def size_along(shell: AnyShell, direction: Direction) -> float:
    """The size of a body's bounding box along a direction as the design writes it [mm].

    Parameters
    ----------
    shell : AnyShell
        Any shell.
    direction : Direction
        Length, width, height or diameter.

    Returns
    -------
    float
        Size [mm].
    """
    if isinstance(shell, BoxShell):
        return float(getattr(shell, f"{direction}_mm"))
    if isinstance(shell, CylinderShell):
        return shell.diameter_mm if direction == "diameter" else shell.run_mm
    return build(shell.model_copy(update={"features": ()})).body.size[ALONG[direction]]


def resized(shell: AnyShell, direction: Direction, size_mm: float) -> dict[str, Any]:
    """Fields of the shell to set for a new size along a direction.

    A profile is stretched: corners about its low edge, the rise of rolled edges in proportion.

    Parameters
    ----------
    shell : AnyShell
        Any shell.
    direction : Direction
        Length, width, height or diameter.
    size_mm : float
        New size [mm].

    Returns
    -------
    dict
        Fields with their new values.
    """
    if isinstance(shell, BoxShell):
        return {f"{direction}_mm": size_mm}
    if isinstance(shell, CylinderShell):
        return {"diameter_mm" if direction == "diameter" else "run_mm": size_mm}
    if ALONG[direction] == "xy".index(shell.wrap_axis):
        return {"run_mm": size_mm}
    factor = size_mm / size_along(shell, direction)
    return {
        "corners": stretched(shell, factor if direction != "height" else 1.0, factor if direction == "height" else 1.0)
    }


def stretched(shell: ProfileShell, across: float, up: float) -> list[dict[str, Value]]:
    """A profile's corners stretched about its lowest, leftmost place; rolled edges keep their share of the chord.

    Parameters
    ----------
    shell : ProfileShell
        A profile.
    across : float
        Factor along its first axis.
    up : float
        Factor along its second.

    Returns
    -------
    list of dict[str, Value]
        Corners as the document writes them.
    """
    foot = min(c.across_mm for c in shell.corners), min(c.up_mm for c in shell.corners)
    found: list[dict[str, Value]] = []
    places = [(foot[0] + (c.across_mm - foot[0]) * across, foot[1] + (c.up_mm - foot[1]) * up) for c in shell.corners]
    for here, corner in enumerate(shell.corners):
        after = (here + 1) % len(shell.corners)
        was = _chord(shell, here, after)
        now = hypot(places[after][0] - places[here][0], places[after][1] - places[here][1])
        bow = corner.bow_mm * (now / was if was else 1.0)
        found.append({"across_mm": places[here][0], "up_mm": places[here][1], "bow_mm": bow, "joint": corner.joint})
    return found


def _chord(shell: ProfileShell, a: int, b: int) -> float:
    p, q = shell.corners[a], shell.corners[b]
    return hypot(p.across_mm - q.across_mm, p.up_mm - q.up_mm)


def changed(shell: AnyShell, fields: dict[str, Any]) -> AnyShell:
    """The shell with some fields set, checked.

    Parameters
    ----------
    shell : AnyShell
        Any shell.
    fields : dict
        Their new values.

    Returns
    -------
    AnyShell
        A new shell.

    Raises
    ------
    pydantic.ValidationError
        When the fields break the design's limits.
    """
    return type(shell).model_validate(shell.model_dump() | fields)


def size_for(
    shell: AnyShell, direction: Direction, wanted_l: float, litres: Callable[[AnyShell], float]
) -> float | None:
    """What the size along one direction has to be for a wanted capacity.

    Parameters
    ----------
    shell : BoxShell, ProfileShell or CylinderShell
        Its features stay where they are and as large as they are.
    direction : str
        What to change.
    wanted_l : float
        Wanted [L].
    litres : callable
        The capacity of a shell [L] that is to come out as wanted.

    Returns
    -------
    float or None
        The size as the design writes it [mm], by the secant method to 1e-9 of the capacity, or, where chords
        of rounds make it step, to 1e-5 above it; None where no size does.
    """

    def over(size: float) -> float:
        return litres(changed(shell, resized(shell, direction, size))) - wanted_l

    try:
        low = size_along(shell, direction)
        factor = wanted_l / litres(shell)
        high = low * (sqrt(factor) if direction == "diameter" else factor)
        if abs(high - low) < 1e-9:
            return low
        a, b = over(low), over(high)
        enough: list[tuple[float, float]] = []
        for step in range(MOST_STEPS):
            if abs(b) <= EXACT * wanted_l or a == b:
                return high
            if 0 < b <= GOOD * wanted_l:
                enough.append((b, high))
            if step >= GOOD_AFTER and enough:
                return min(enough)[1]
            low, a, high = high, b, high - b * (high - low) / (b - a)
            b = over(high)
    except (GeometryError, ValueError, ZeroDivisionError):
        return None
    return None
