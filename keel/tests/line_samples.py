"""Lines that several tests start from: a box, its ports, and a return layout all at one height."""

import json
from collections.abc import Sequence
from typing import Any

from keel.analysis.showing import Showing
from keel.analysis.tank import Asked, TankAnalysis
from keel.design.document import Design
from keel.design.workshop import Workshop
from keel.evaluation import Evaluation, evaluate
from keel.formats.document import read_design

Item = dict[str, Any]
SHELL: Item = {"length_mm": 600, "width_mm": 400, "height_mm": 300, "metal": "5052-H32", "thickness_mm": 3}
PORTS: list[Item] = [
    {"id": "draw", "name": "draw", "role": "pickup", "x_mm": 300, "y_mm": 200}
    | {"hanger": {"kind": "sock", "made_for_mm": 300, "strainer_mm": 10}},
    {"id": "back", "name": "back", "role": "return", "x_mm": 500, "y_mm": 200},
    {"id": "vent", "name": "vent", "role": "vent", "x_mm": 100, "y_mm": 100},
]
CASES: list[Item] = [
    {"id": "now", "name": "Now", "engine": "petrol, naturally aspirated", "measured_l_per_h": 90.0},
    {"id": "later", "name": "Later", "engine": "petrol, naturally aspirated", "measured_l_per_h": 150.0},
]


def joint(name: str, size: str = "-6", hand: str = "male", standard: str = "37° flare", **more: Any) -> Item:
    """A connection."""
    return {"id": name, "standard": standard, "size": size, "hand": hand} | more


def flares(*names: str, size: str = "-6") -> list[Item]:
    """Male flares."""
    return [joint(name, size) for name in names]


def curve(*points: tuple[float, float], volts: float = 13.5) -> Item:
    """A pump's curve from pressures and flows."""
    return {"voltage_v": volts, "points": [{"kpa": kpa, "l_per_h": flow} for kpa, flow in points]}


def part(key: str, kind: str, x: float, *, z: float = 300.0, joints: Sequence[Item] = (), **more: Any) -> Item:
    """A part of a kind at a place; what isn't one of a part's own fields is of what it does."""
    own = ("hangs_in", "rated_kpa", "metal", "seals", "fuels", "price", "long_mm", "across_mm", "y_mm", "heading_deg")
    does = {name: value for name, value in more.items() if name not in own}
    return {
        "id": key,
        "name": key,
        "does": {"kind": kind} | does,
        "x_mm": x,
        "y_mm": 200.0,
        "z_mm": z,
        "connections": list(joints),
        "long_mm": 20.0,
    } | {name: value for name, value in more.items() if name in own}


def run(key: str, start: str, end: str, bore: float = 8.7, **more: Any) -> Item:
    """A hose from 'part.connection' to 'part.connection'."""
    ends = [dict(zip(("part", "port"), text.split("."), strict=True)) for text in (start, end)]
    return {"id": key, "name": key, "start": ends[0], "end": ends[1], "bore_mm": bore, "rated_kpa": 2000.0} | more


PUMP = part(
    "pump",
    "pump",
    900,
    joints=[*flares("in", size="-8"), *flares("out")],
    curves=[curve((0, 240), (300, 200), (600, 0), volts=11.0), curve((0, 300), (300, 240), (700, 0))],
    check_opens_kpa=5.0,
    current_a=8.0,
)
SCREEN = part("screen", "filter", 750, joints=flares("in", "out", size="-8"), stage="screen", fineness_um=120.0)
SCREEN["does"] |= {"linear": 0.001, "element": "stainless mesh"}
FILTER = part("filter", "filter", 1100, joints=flares("in", "out"), fineness_um=10.0, linear=0.01, area_cm2=600.0)
FINAL = part("first", "filter", 1200, joints=flares("in", "out"), stage="commissioning", linear=0.005)
RAIL = part("rail", "rail", 1400, joints=flares("in", "out"), injectors=4, rated_l_per_h=40.0)
REGULATOR = part(
    "regulator",
    "regulator",
    1600,
    joints=[*flares("in", "return"), joint("out", capped=True), joint("reference", "6 mm", standard="hose tail")],
    is_referenced=True,
    set_kpa=300.0,
)
RUNS: list[Item] = [
    run("suction", "tank.draw", "screen.in", 14.3),
    run("to-pump", "screen.out", "pump.in", 11.1),
    run("supply", "pump.out", "filter.in"),
    run("between", "filter.out", "first.in"),
    run("to-rail", "first.out", "rail.in"),
    run("after", "rail.out", "regulator.in"),
    run("return", "regulator.return", "tank.back"),
    run("reference", "regulator.reference", "rail.manifold", 6.0),
]
PARTS: list[Item] = [SCREEN, PUMP, FILTER, FINAL, RAIL, REGULATOR]

SURGE = part(
    "surge", "surge tank", 850, z=150, joints=flares("lift", "return", "out", "overflow", size="-8"), volume_l=2.0
)
LIFT = part("lift", "pump", 780, joints=flares("in", "out", size="-8"), curves=[curve((0, 400), (60, 300))])
LIFT["does"] |= {"check_opens_kpa": 5.0}
JET = part("jet", "jet pump", 700, joints=flares("drive", "suction", "out"), least_kpa=30.0, nozzle_square=1e-5)
TEE = part("tee", "tee", 1000, joints=flares("a", "b", "c"), bore_mm=8.7)
SENSOR = part("sensor", "sensor", 1000, joints=flares("in", "out"), bore_mm=8.7, fittings_k=0.5)
VENT_END = part("end", "vent end", -300, z=0, joints=[joint("in", "10 mm", standard="hose tail")])
CANISTER = part(
    "canister", "canister", -100, z=350, joints=[joint(n, "10 mm", standard="hose tail") for n in ("in", "out")]
)
VALVE = part("valve", "isolating valve", 860, joints=flares("in", "out", size="-8"))
CHECK = part("check", "check valve", 1000, joints=flares("in", "out"))
DEAD_HEAD = part("dead-head", "regulator", 1300, joints=flares("in", "out"), way="dead-head")
NOZZLE = part("nozzle", "delivery nozzle", 1500, joints=[joint("in", "3/8", standard="G parallel", seal="nitrile")])
OTHER_TANK = part("main", "other tank", -300, joints=flares("out", "return", size="-8"))
DRIVEN = part("driven", "engine-driven pump", 1200, joints=flares("in", "out"), curves=[])
DRIVEN["does"]["curves"] = [{"rpm": 1000.0, "points": curve((0, 120), (40, 0))["points"]}]
LIBRARY = Workshop.model_validate(
    {
        "line_parts": [
            {name: value for name, value in one.items() if name not in ("id", "x_mm", "y_mm", "z_mm")}
            for one in (
                *(PUMP, LIFT, SCREEN, FILTER, FINAL, RAIL, REGULATOR, DEAD_HEAD, SURGE, JET, TEE, SENSOR, VENT_END),
                *(CANISTER, VALVE, CHECK, NOZZLE, OTHER_TANK, DRIVEN),
            )
        ]
    },
    strict=False,
)
"""A workshop that knows a part of nearly every kind."""


def replaced(items: Sequence[Item], key: str, **changed: Any) -> list[Item]:
    """Items with one of them changed; its `does` is added to."""
    does = changed.pop("does", {})
    return [
        one | changed | ({"does": one["does"] | does} if does else {}) if one["id"] == key else one for one in items
    ]


def without(items: Sequence[Item], *keys: str) -> list[Item]:
    """Items but for some."""
    return [one for one in items if one["id"] not in keys]


def plumbed(
    parts: Sequence[Item] = PARTS, runs: Sequence[Item] = RUNS, *, ports: Sequence[Item] = PORTS, **more: Any
) -> Design:
    """A box with a line; `brief` and `shell` take the place of the usual ones, the rest is of the lines."""
    brief = {"fuel": "petrol E10", "cases": CASES[:1]} | more.pop("brief", {})
    shell = SHELL | more.pop("shell", {})
    lines = {"parts": list(parts), "runs": list(runs)} | more
    known = [port | {"connection": {"size": "-8" if port["id"] == "draw" else "-6"}} for port in ports]
    document = {"brief": brief, "shell": shell, "ports": known, "lines": lines}
    return read_design(json.dumps(document))


def analysed(design: Design, workshop: Workshop | None = None) -> TankAnalysis:
    """Its studies."""
    return TankAnalysis(Asked(design, workshop or Workshop()))


def judged(design: Design, *, remedies: bool = False) -> Evaluation:
    """Everything said of it."""
    return evaluate(design, showing=Showing(remedies=remedies))


_WAYS = (
    "heat", "moving", "low", "rear", "rub", "rub_tank", "rub_line", "edge", "through", "no_hole", "hole_tight",
    "hole_wide", "slanted", "unclamped", "askew", "tube_askew", "no_slack", "over_hot", "unseen", "part_in",
)  # fmt: skip
WAYS = {f"lines.{code}" for code in _WAYS}
"""What is found of where runs and parts lie: the samples draw straight from port to port, through whatever is there."""


def codes(design: Design) -> set[str]:
    """Codes of what is found at Lines, but for where they lie."""
    found = judged(design).findings
    return {finding.code for finding in found if finding.station == "lines" and finding.code not in WAYS}
