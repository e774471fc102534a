"""Other insides that a design is tried with, on the same lap."""

from collections.abc import Iterator, Sequence
from typing import Any

import numpy as np

from keel.design.document import Design
from keel.design.features import Pot, Sump
from keel.design.inside import Foam
from keel.design.workshop import HouseRules, Workshop
from keel.findings.patch import difference
from keel.solid.box import Triple
from keel.solid.build import build
from keel.solid.interior import solids_of
from keel.solid.solids import Solids
from keel.studies.inside.baffle_layout import opened_plates
from keel.studies.inside.plate_placement import AXES, taken_by
from keel.studies.slosh.log import Log
from keel.studies.slosh.model import setup_of, slosh_tank
from keel.studies.slosh.run import slosh_run
from keel.trials.openings import door_towards, feet
from keel.trials.trial import Case

Named = tuple[str, dict[str, Any]]
"""What a try is called, and the patch that makes it."""
SURGE_LIFT = 1.5
"""A surge tank's lift pump gives this much of the engine's draw."""
SECONDS_PER_HOUR = 3600.0
POT_SHARE, POT_HIGH, DOOR_WIDE, DOOR_HIGH_MM = 0.35, 0.4, 0.4, 30.0
"""A tried pot's sides against the tank's lesser one, its rim against the height, and its doors."""
SUMP_DEEP_MM = 50.0
AIR_GAP_MM = 10.0
STANDING = ("baffle", "partition", "pot")
TANK = ("shell", "sheet", "ports", "inside")
PLUMBING = ("surge_l", "lift_l_per_h", "return_l_per_h", "transfer_ratio")
"""What another design brings with it; what it is driven over, filled to and drawn by stays."""


def inside_cases(design: Design, workshop: Workshop, log: Log) -> list[Case]:
    """The design as drawn, then with other plates, a pot, a sump, foam, a bladder, a surge tank that bridges it.

    Parameters
    ----------
    design : Design
        With a shell and a pickup.
    workshop : Workshop
        House rules, for the surge volume's margin.
    log : Log
        What it is driven over; its longest dry spell sizes the surge tank.

    Returns
    -------
    list of Case
        The design itself first.
    """
    shell = design.shell
    assert shell is not None
    solids = build(shell, design.sheet.making)
    size = solids.body.size
    found = [
        *_plated(design, solids, workshop.rules),
        *_set_in(design, size),
        *_filled(design),
        *_bridged(design, workshop, log),
    ]
    return [Case("as drawn", None), *(Case(name, patch) for name, patch in found)]


def _features(design: Design, *without: str) -> list[dict[str, Any]]:
    """The shell's features but for some kinds."""
    assert design.shell is not None
    return [f.model_dump(mode="json") for f in design.shell.features if f.kind not in without]


def _plated(design: Design, solids: Solids, rules: HouseRules) -> Iterator[Named]:
    """Other plates in the place of those that are drawn, by number and by method."""
    size, taken = solids.body.size, taken_by(design, solids, rules.brush_mm)
    others = _features(design, "baffle")
    if len(others) < len(_features(design)):
        yield "without baffles", {"shell": {"features": others}}

    def plates(**shares: Sequence[float]) -> list[dict[str, Any]]:
        places = [
            (axis, at)
            for n, axis in enumerate(AXES)
            for at in taken.clear_places(axis, [size[n] * share for share in shares.get(axis, ())])
        ]
        return [plate.model_dump(mode="json") for plate in opened_plates(design, solids, rules, places)]

    thirds = plates(x=(1 / 3, 2 / 3))
    for name, made in (
        ("one baffle across", plates(x=(1 / 2,))),
        ("two baffles across", thirds),
        ("one baffle lengthwise", plates(y=(1 / 2,))),
        ("one each way", plates(x=(1 / 2,), y=(1 / 2,))),
    ):
        if made:
            yield f"{name}, {_places(made)}", {"shell": {"features": [*others, *made]}}
    for method in ("small floor holes", "doors towards the pickup") if thirds else ():
        made = [_by_method(design, method, plate, size) for plate in thirds]
        yield f"two baffles across, {method}, {_places(made)}", {"shell": {"features": [*others, *made]}}


def _places(plates: list[dict[str, Any]]) -> str:
    return "at " + " and ".join(f"{plate['at_mm']:g} mm" for plate in plates)


def _set_in(design: Design, size: Triple) -> Iterator[Named]:
    """A pot round the pickup, a sump under it."""
    kept, side = _features(design), float(round(POT_SHARE * min(size[0], size[1])))
    pot, sump = pot_round(design, side, size), _sump_under(design, side)
    if pot is not None and not any(feature["kind"] == "pot" for feature in kept):
        yield (
            f"with a pot round the pickup, {side:g} mm square and {pot['high_mm']:g} mm high",
            {"shell": {"features": [*kept, pot]}},
        )
    if sump is not None:
        yield (
            f"with a sump under the pickup, {side:g} mm square and {SUMP_DEEP_MM:g} mm deep",
            {"shell": {"features": [*kept, sump]}},
        )


def _filled(design: Design) -> Iterator[Named]:
    """Foam, and a bag with foam in it where no plate stands."""
    if design.inside.foam is not None:
        return
    renewed = f"renewed every {Foam().life_years:g} years"
    yield f"filled with foam, {renewed}", {"inside": {"foam": {}}}
    if design.inside.bladder is None:
        bare = {"features": _features(design, *STANDING)}
        yield (
            f"bladder and foam in the box, {renewed}; most rulebooks of sanctioned racing ask for it",
            {"shell": bare, "inside": {"foam": {}, "bladder": {}}},
        )


def _bridged(design: Design, workshop: Workshop, log: Log) -> Iterator[Named]:
    """A surge tank that bridges the longest dry spell."""
    litres = 0.0 if design.slosh.surge_l else _surge_for(design, workshop, log)
    if litres:
        lift = round(SURGE_LIFT * setup_of(design, workshop.rules).draw_l_per_h, 1)
        yield f"with a surge tank of {litres:g} L", {"slosh": {"surge_l": litres, "lift_l_per_h": lift}}


def other_case(design: Design, name: str, other: Design) -> Case:
    """Another design, or an earlier revision, as a case: its tank and what is in it, driven as this one is.

    Parameters
    ----------
    design : Design
        The design.
    name : str
        What to call it.
    other : Design
        The other design.

    Returns
    -------
    Case
        What to try.
    """
    before, after = (d.model_dump(mode="json", exclude_none=True) for d in (design, other))
    driven = {key: value for key, value in before["slosh"].items() if key not in PLUMBING}
    plumbing = {key: after["slosh"][key] for key in PLUMBING}
    made = before | {part: after[part] for part in TANK if part in after} | {"slosh": driven | plumbing}
    for part in TANK:
        if part not in after:
            made.pop(part, None)
    return Case(name, difference(before, made) or None)


def _by_method(design: Design, method: str, plate: dict[str, Any], size: Triple) -> dict[str, Any]:
    """A plate of another method than open corners: a gap over it for air, and low openings or a door."""
    plate = plate | {"corner_mm": 0.0, "top_gap_mm": AIR_GAP_MM, "notches": []}
    if method == "small floor holes":
        return plate | {"notches": feet(plate, size)}
    return plate | {"doors": door_towards(design, plate, size)}


def pot_round(design: Design, side: float, size: Triple) -> dict[str, Any] | None:
    """A pot of such sides with a flap in each, round the first pickup, in a tank of a size; None without a pickup."""
    pickup = next((port for port in design.ports if port.role == "pickup" and not port.capped), None)
    if pickup is None:
        return None
    doors = [
        {"side": where, "wide_mm": round(DOOR_WIDE * side), "high_mm": DOOR_HIGH_MM}
        for where in ("front", "rear", "left", "right")
    ]
    pot = {
        "id": "try-pot",
        "name": "pot",
        "a_mm": round(pickup.x_mm - side / 2),
        "b_mm": round(pickup.y_mm - side / 2),
        "long_mm": side,
        "wide_mm": side,
        "high_mm": round(POT_HIGH * size[2]),
        "doors": doors,
    }
    return Pot.model_validate(pot).model_dump(mode="json")


def _sump_under(design: Design, side: float) -> dict[str, Any] | None:
    """A sump of such sides under the first pickup; None where there is one, or the pickup stays up."""
    assert design.shell is not None
    pickup = next((port for port in design.ports if port.role == "pickup" and not port.capped), None)
    if pickup is None or pickup.z_mm is not None or any(isinstance(feature, Sump) for feature in design.shell.features):
        return None
    place = {"a_mm": round(pickup.x_mm - side / 2), "b_mm": round(pickup.y_mm - side / 2)}
    sump = {"id": "try-sump", "name": "sump", "long_mm": side, "wide_mm": side, "deep_mm": SUMP_DEEP_MM}
    return Sump.model_validate(sump | place).model_dump(mode="json")


def _surge_for(design: Design, workshop: Workshop, log: Log) -> float:
    """What bridges the longest dry spell, with the house rule's margin, to a tenth of a litre."""
    tank = slosh_tank(solids_of(design), design.ports)
    if tank is None:
        return 0.0
    setup = setup_of(design, workshop.rules)
    longest = max((spell.seconds for spell in slosh_run(tank, log, setup).spells), default=0.0)
    litres = setup.draw_l_per_h / SECONDS_PER_HOUR * longest * (1 + workshop.rules.surge_margin)
    return float(np.ceil(litres * 10) / 10)
