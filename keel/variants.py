"""The same lap with other insides: what each would bring, and its price."""

from collections.abc import Iterator
from dataclasses import dataclass, replace
from typing import Any, Literal

import numpy as np

from keel.design.document import Design
from keel.design.features import Baffle
from keel.design.workshop import Workshop
from keel.evaluate import Showing, evaluate
from keel.findings.patch import apply
from keel.solid.build import build
from keel.solid.faults import GeometryError
from keel.studies.insides import clear_place
from keel.studies.slosh.log import Log
from keel.studies.slosh.model import Setup, setup_of, slosh_tank
from keel.studies.slosh.run import slosh_run
from keel.studies.slosh.starvation import lowest_fill

SURGE_LIFT = 1.5
"""A surge tank's lift pump gives this much of the engine's draw."""
SECONDS_PER_HOUR = 3600.0


@dataclass(frozen=True, slots=True)
class Variant:
    """One inside over the lap. With a `problem` it can't be made, and the figures are nought."""

    name: str
    dry_s: float
    spells: int
    lowest_l: float | None
    """Least at the start that runs through without a dry spell; empty when none does."""
    brimful_l: float
    empty_kg: float
    weld_m: float
    patch: dict[str, Any] | None
    """What makes the design that one."""
    problem: str | None
    favoured: bool


def variants(design: Design, workshop: Workshop, log: Log) -> list[Variant]:
    """Run a design with other insides over a log.

    Parameters
    ----------
    design : Design
        With a shell and a pickup.
    workshop : Workshop
        House rules, machines, stock.
    log : Log
        What it is driven over.

    Returns
    -------
    list of Variant
        The design as drawn first. The figures favour the one with the least dry time; of those, the one that runs
        through from the lowest fill; of those, the least weld.
    """
    found = [_tried(name, design, patch, workshop, log) for name, patch in _insides(design, workshop, log)]
    sound = [variant for variant in found if variant.problem is None]
    if not sound:
        return found
    best = min(sound, key=lambda v: (round(v.dry_s, 2), np.inf if v.lowest_l is None else v.lowest_l, v.weld_m))
    return [replace(variant, favoured=variant is best) for variant in found]


def _insides(design: Design, workshop: Workshop, log: Log) -> Iterator[tuple[str, dict[str, Any] | None]]:
    yield "as drawn", None
    shell = design.shell
    assert shell is not None
    others = [feature.model_dump(mode="json") for feature in shell.features if not isinstance(feature, Baffle)]
    if len(others) < len(shell.features):
        yield "without baffles", {"shell": {"features": others}}
    size = build(shell, design.sheet.seam).body.size

    def plate(axis: Literal["x", "y"], share: float) -> dict[str, Any]:
        return _plate(axis, clear_place(design.ports, axis, size["xy".index(axis)] * share))

    for name, plates in (
        ("one baffle across", [plate("x", 1 / 2)]),
        ("two baffles across", [plate("x", 1 / 3), plate("x", 2 / 3)]),
        ("one baffle lengthwise", [plate("y", 1 / 2)]),
        ("one each way", [plate("x", 1 / 2), plate("y", 1 / 2)]),
    ):
        yield name, {"shell": {"features": [*others, *plates]}}
    if not design.slosh.foam:
        yield "filled with foam", {"slosh": {"foam": True}}
    if not design.slosh.surge_l:
        litres = _surge_for(design, workshop, log)
        if litres:
            setup = setup_of(design.slosh, design.brief, workshop.rules)
            lift = round(SURGE_LIFT * setup.draw_l_per_h, 1)
            yield f"with a surge tank of {litres:g} L", {"slosh": {"surge_l": litres, "lift_l_per_h": lift}}


def _plate(axis: str, at: float) -> dict[str, Any]:
    name = "baffle across" if axis == "x" else "baffle lengthwise"
    place = round(at)
    named = {"id": f"try-{axis}{place}", "name": f"{name} at {place}"}
    plate = Baffle.model_validate(named | {"axis": axis, "at_mm": place})
    return plate.model_dump(mode="json")


def _surge_for(design: Design, workshop: Workshop, log: Log) -> float:
    """What bridges the longest dry spell, with the house rule's margin, to a tenth of a litre."""
    assert design.shell is not None
    tank = slosh_tank(build(design.shell, design.sheet.seam), design.ports, foam=design.slosh.foam)
    if tank is None:
        return 0.0
    setup = setup_of(design.slosh, design.brief, workshop.rules)
    longest = max((spell.seconds for spell in slosh_run(tank, log, setup).spells), default=0.0)
    litres = setup.draw_l_per_h / SECONDS_PER_HOUR * longest * (1 + workshop.rules.surge_margin)
    return float(np.ceil(litres * 10) / 10)


def _tried(name: str, design: Design, patch: dict[str, Any] | None, workshop: Workshop, log: Log) -> Variant:
    try:
        made = design if patch is None else apply(design, patch)
        assert made.shell is not None
        figures = evaluate(made, workshop, Showing(remedies=False)).figures
        tank = slosh_tank(build(made.shell, made.sheet.seam), made.ports, foam=made.slosh.foam)
    except GeometryError as error:
        return Variant(name, 0.0, 0, None, 0.0, 0.0, 0.0, patch, str(error), False)
    if tank is None or figures is None:
        return Variant(name, 0.0, 0, None, 0.0, 0.0, 0.0, patch, "a plate stands where the pickup is", False)
    setup: Setup = setup_of(made.slosh, made.brief, workshop.rules)
    ran, fill = slosh_run(tank, log, setup), lowest_fill(tank, log, setup)
    brimful = float(tank.packed.capacity.sum()) / 1e6
    return Variant(
        name=name,
        dry_s=ran.dry_s,
        spells=len(ran.spells),
        lowest_l=None if fill is None else fill * brimful,
        brimful_l=brimful,
        empty_kg=figures.empty_kg or 0.0,
        weld_m=figures.weld_m,
        patch=patch,
        problem=None,
        favoured=False,
    )
