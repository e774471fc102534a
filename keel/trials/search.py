"""Ask the tool: vary chosen things over ranges until the lap runs through from a wanted fill."""

import json
from collections.abc import Iterator
from functools import cache
from itertools import product
from typing import Annotated, Any, Literal

import numpy as np
from pydantic import Field, model_validator

from keel.design.base import Part, refuse
from keel.design.document import Design
from keel.design.features import Baffle, Feature, Pot, Sump
from keel.design.workshop import HouseRules, Workshop
from keel.findings.patch import apply
from keel.solid.box import Triple
from keel.solid.build import build
from keel.solid.faults import wrong
from keel.solid.solids import AnyShell
from keel.studies.inside.baffle_layout import opened_plates
from keel.studies.inside.plate_placement import taken_by
from keel.studies.slosh.model import setup_of
from keel.trials.insides import SURGE_LIFT, pot_round
from keel.trials.openings import door_towards, feet
from keel.trials.trial import Case, Price

MOST_RUNS = 600
OPENING = {"corner_mm", "notch_mm", "door_mm"}
"""What is varied of every baffle's openings."""
SHAPING = {"plates_across", "plates_along", "plate_at_mm", "pot_mm", "sump_deep_mm", *OPENING}
"""What is varied in the shell's features."""
COUNTED: dict[Literal["x", "y"], str] = {"x": "plates_across", "y": "plates_along"}
"""Which count is of plates square to which axis."""
KEEPS_OFF_MM = 25.0
"""A pickup is tried no nearer than this to the walls [mm]."""
Count = Annotated[int, Field(ge=0, le=6)]
Size = Annotated[float, Field(ge=0, le=2000)]


class Span(Part):
    """A range, both ends tried, in so many steps."""

    low: Size
    high: Size
    steps: Annotated[int, Field(ge=1, le=12)] = 3

    @model_validator(mode="after")
    def _runs_up(self) -> "Span":
        if self.low > self.high:
            refuse(f"from {self.low:g} to {self.high:g} runs downward", field="high", value=self.high, limit=self.low)
        return self

    @property
    def values(self) -> list[float]:
        """What is tried."""
        steps = 1 if self.low == self.high else max(2, self.steps)
        return [round(float(v), 3) for v in np.linspace(self.low, self.high, steps)]


class Counts(Part):
    """From so many to so many."""

    low: Count = 0
    high: Count = 0

    @model_validator(mode="after")
    def _runs_up(self) -> "Counts":
        if self.low > self.high:
            refuse(f"from {self.low} to {self.high} runs downward", field="high", value=self.high, limit=self.low)
        return self


class Places(Part):
    """A grid over the tank's floor that the pickup is moved over."""

    along: Annotated[int, Field(ge=1, le=24)] = 8
    across: Annotated[int, Field(ge=1, le=24)] = 5


class Ask(Part):
    """What may be varied, and what is wanted. What is left out stays as drawn."""

    down_to_l: Annotated[float, Field(gt=0, le=100_000)] = Field(description="No dry spell from this start [L]")
    least: Price = Field(default="weld", description="Of those that run through, the least of this is favoured")
    plates_across: Counts | None = Field(default=None, description="Baffles square to x, evenly spaced")
    plates_along: Counts | None = Field(default=None, description="Baffles square to y, evenly spaced")
    corner_mm: Span | None = Field(default=None, description="Legs of every baffle's cut-off corners [mm]")
    notch_mm: Span | None = Field(
        default=None, description="Width of three notches in every baffle's foot; zero for none [mm]"
    )
    door_mm: Span | None = Field(
        default=None, description="Width of a one-way door towards the pickup in every baffle; zero for none [mm]"
    )
    plate_at_mm: Span | None = Field(default=None, description="Place of the first baffle that is drawn [mm]")
    pot_mm: Span | None = Field(default=None, description="Sides of a pot round the first pickup; zero for none [mm]")
    sump_deep_mm: Span | None = Field(default=None, description="Depth of the first sump [mm]")
    surge_l: Span | None = Field(default=None, description="Surge tank [L]")
    places: Places | None = Field(default=None, description="Places of the first pickup")


class _Ground:
    """What all cases of a search start from."""

    def __init__(self, design: Design, rules: HouseRules) -> None:
        assert design.shell is not None
        self.design, self.shell = design, design.shell
        solids = build(design.shell, design.sheet.making)
        self.size, self.taken = solids.body.size, taken_by(design, solids, rules.brush_mm)
        self.draw_l_per_h = setup_of(design, rules).draw_l_per_h
        # The same plates come again with every other choice.
        self.plates = cache(lambda places: opened_plates(design, solids, rules, places))

    def plates_for(self, counts: dict[Literal["x", "y"], int]) -> list[dict[str, Any]]:
        """So many baffles each way, evenly spaced, clear of what hangs."""
        places = tuple(
            (axis, at)
            for axis, count in counts.items()
            for at in self.taken.clear_places(
                axis, [self.size["xy".index(axis)] * n / (count + 1) for n in range(1, count + 1)]
            )
        )
        return [plate.model_dump(mode="json") for plate in self.plates(places)]


def search_cases(design: Design, ask: Ask, workshop: Workshop) -> list[Case]:
    """Everything that an ask tries, in a fixed order: all choices with all others, each tank once.

    Parameters
    ----------
    design : Design
        With a shell and a pickup.
    ask : Ask
        What is varied.
    workshop : Workshop
        House rules, for the engine's draw.

    Returns
    -------
    list of Case
        The design itself first.

    Raises
    ------
    GeometryError
        When nothing is varied, a sump or a baffle is varied where there is none, or it comes to more than 600 runs.
    """
    _refuse_missing(design, ask)
    ways = _ways(design, ask)
    runs = int(np.prod([len(values) for values in ways.values()])) if ways else 0
    if not 1 < runs <= MOST_RUNS:
        what = "nothing is varied" if runs <= 1 else f"that makes {runs} runs"
        raise wrong("ask", f"{what}: 2 to {MOST_RUNS} runs can be asked for", runs, f"2 to {MOST_RUNS}")
    once: dict[str, Case] = {}
    ground = _Ground(design, workshop.rules)
    for chosen in product(*ways.values()):
        case = _case(ground, dict(zip(ways, chosen, strict=True)))
        once.setdefault(json.dumps(case.patch, sort_keys=True), case)
    return list(once.values())


def _refuse_missing(design: Design, ask: Ask) -> None:
    """What is varied has to be there."""
    shell = design.shell
    assert shell is not None
    drawn = [feature for feature in shell.features if isinstance(feature, Baffle)]
    counted = [axis for axis, name in COUNTED.items() if getattr(ask, name) is not None]
    if ask.sump_deep_mm is not None and not any(isinstance(f, Sump) for f in shell.features):
        raise wrong("ask.sump_deep_mm", "there is no sump to vary: let one down at Shell", None, "a sump")
    if ask.plate_at_mm is not None and (not drawn or drawn[0].axis in counted):
        message = "there is no drawn baffle to move, or its number is varied too: vary one of the two"
        raise wrong("ask.plate_at_mm", message, None, "a drawn baffle")
    for name in sorted(OPENING):
        if getattr(ask, name) is not None and not drawn and not counted:
            raise wrong(f"ask.{name}", "there is no baffle to open: draw one, or vary their number", None, "a baffle")


def _ways(design: Design, ask: Ask) -> dict[str, list[Any]]:
    found: dict[str, list[Any]] = {}
    for name in ("plates_across", "plates_along"):
        counts: Counts | None = getattr(ask, name)
        if counts is not None:
            found[name] = list(range(counts.low, counts.high + 1))
    for name in ("corner_mm", "notch_mm", "door_mm", "plate_at_mm", "pot_mm", "sump_deep_mm", "surge_l"):
        span: Span | None = getattr(ask, name)
        if span is not None:
            found[name] = span.values
    if ask.places is not None:
        found["place"] = list(_grid(design, ask.places))
    return found


def _grid(design: Design, places: Places) -> Iterator[tuple[float, float]]:
    """Places of the pickup from the body's rear, right corner [mm]."""
    assert design.shell is not None
    length, width, _ = build(design.shell, design.sheet.making).body.size
    for x in np.linspace(KEEPS_OFF_MM, length - KEEPS_OFF_MM, places.along):
        for y in np.linspace(KEEPS_OFF_MM, width - KEEPS_OFF_MM, places.across):
            yield round(float(x), 1), round(float(y), 1)


def _case(ground: _Ground, chosen: dict[str, Any]) -> Case:
    patch: dict[str, Any] = {}
    features = _features(ground, chosen)
    if features is not None:
        patch["shell"] = {"features": features}
    if "place" in chosen:
        patch["ports"] = _ports(ground.design, *chosen["place"])
    if "surge_l" in chosen:
        lift = round(SURGE_LIFT * ground.draw_l_per_h, 1) if chosen["surge_l"] else 0.0
        patch["slosh"] = {"surge_l": chosen["surge_l"], "lift_l_per_h": lift}
    choice = {name: float(value) for name, value in chosen.items() if name != "place"}
    if "place" in chosen:
        choice |= {"x_mm": chosen["place"][0], "y_mm": chosen["place"][1]}
    return Case(", ".join(f"{name} {value:g}" for name, value in choice.items()), patch, choice)


def _features(ground: _Ground, chosen: dict[str, Any]) -> list[dict[str, Any]] | None:
    """The shell's features as chosen; None where none of them is varied."""
    if not SHAPING & chosen.keys():
        return None
    counts = {axis: chosen.get(name) for axis, name in COUNTED.items()}
    moved = _moved(ground.design, chosen)
    found = [
        feature.model_dump(mode="json") | _changes(ground.shell, feature, chosen)
        for feature in ground.shell.features
        if not (isinstance(feature, Baffle) and counts[feature.axis] is not None)
        and not (isinstance(feature, Pot) and "pot_mm" in chosen)
    ]
    if chosen.get("pot_mm"):
        pot = pot_round(moved, chosen["pot_mm"], ground.size)
        found += [pot] if pot else []
    found += ground.plates_for({axis: count or 0 for axis, count in counts.items()})
    return [f | _opened(moved, f, chosen, ground.size) if f["kind"] == "baffle" else f for f in found]


def _opened(design: Design, plate: dict[str, Any], chosen: dict[str, Any], size: Triple) -> dict[str, Any]:
    """What is chosen of a baffle's openings."""
    found: dict[str, Any] = {}
    if "corner_mm" in chosen:
        found["corner_mm"] = chosen["corner_mm"]
    if "notch_mm" in chosen:
        found["notches"] = feet(plate, size, chosen["notch_mm"])
    if "door_mm" in chosen:
        found["doors"] = door_towards(design, plate, size, chosen["door_mm"])
    return found


def _changes(shell: AnyShell, feature: Feature, chosen: dict[str, Any]) -> dict[str, float]:
    """What is chosen of a drawn feature: place of the first baffle, depth of the first sump."""
    first = next(other for other in shell.features if other.kind == feature.kind) is feature
    if first and isinstance(feature, Baffle) and "plate_at_mm" in chosen:
        return {"at_mm": chosen["plate_at_mm"]}
    if first and isinstance(feature, Sump) and "sump_deep_mm" in chosen:
        return {"deep_mm": chosen["sump_deep_mm"]}
    return {}


def _moved(design: Design, chosen: dict[str, Any]) -> Design:
    """The design with its first pickup where it is chosen to be."""
    if "place" not in chosen:
        return design
    return apply(design, {"ports": _ports(design, *chosen["place"])})


def _ports(design: Design, x: float, y: float) -> list[dict[str, Any]]:
    """The ports with the first pickup moved, and following the floor there."""
    found: list[dict[str, Any]] = []
    moved = False
    for port in design.ports:
        document = port.model_dump(mode="json")
        if not moved and port.role == "pickup":
            document, moved = document | {"x_mm": x, "y_mm": y, "z_mm": None}, True
        found.append(document)
    return found
