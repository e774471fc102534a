"""Wiring that several tests start from: one pump behind its relay, stopped in a crash; a lamp, a gauge, bonds."""

import json
from collections.abc import Sequence
from typing import Any

from keel.analysis.showing import Showing
from keel.design.document import Design
from keel.design.workshop import Workshop
from keel.evaluation import Evaluation, evaluate
from keel.formats.document import read_design
from keel.tests.line_samples import PARTS, PORTS, RUNS, SHELL, Item, replaced

BARE = [port | {"connection": {"size": "-8" if port["id"] == "draw" else "-6"}} for port in PORTS]
FILLER: Item = {"id": "fill", "name": "filler", "role": "filler", "x_mm": 50, "y_mm": 350} | {
    "neck": {"hose": "nitrile hose"}
}
SENDER: Item = {"id": "level", "name": "level", "x_mm": 450, "y_mm": 300, "action": {"kind": "tube"}}
CLAD: list[Item] = replaced(PARTS, "filter", metal="6061-T6")


def device(key: str, kind: str, x: float = 1000.0, *, y: float = 600.0, z: float = 500.0, **more: Any) -> Item:
    """A device; what isn't one of its own fields is of what it does."""
    own = {name: more.pop(name) for name in ("stands", "sealed", "name") if name in more}
    place = {"x_mm": x, "y_mm": y, "z_mm": z}
    return {"id": key, "name": key, "does": {"kind": kind} | more} | place | own


def wire(key: str, start: str, end: str, length: float | None = 500.0, **more: Any) -> Item:
    """A wire from "device.terminal" to another; "pump:" or "sender:" before other stations' things."""
    ends = {}
    for side, text in (("start", start), ("end", end)):
        of, _, rest = text.rpartition(":")
        name, _, terminal = rest.partition(".")
        ends[side] = {"of": of or "device", "id": name, "terminal": terminal}
    return {"id": key, "name": key.upper(), "length_mm": length} | ends | more


DEVICES: list[Item] = [
    device("battery", "battery"),
    device("earth", "earth point", 1050),
    device("fuse", "fuse", 1100),
    device("relay", "relay", 1150),
    device("small", "fuse", 1200),
    device("ignition", "switch", 1250),
    device("crash", "cut-off", 1300),
    device("oil", "cut-off", 1325, opens="without oil pressure", primes="starter"),
    device("lamp", "lamp", 1350, means="refuel"),
    device("low", "level switch", 300, y=200, z=310, height_mm=50.0, stands="in the tank's wall", sealed=True),
    device("gauge", "gauge", 1400),
]
WIRES: list[Item] = [
    wire("w1", "battery.-", "earth.earth", 300.0),
    wire("w2", "battery.+", "fuse.in", 150.0),
    wire("w3", "fuse.out", "relay.in"),
    wire("w4", "relay.out", "pump:pump.+", 2000.0),
    wire("w5", "pump:pump.-", "earth.earth", 800.0),
    wire("w6", "battery.+", "small.in", 150.0),
    wire("w7", "small.out", "ignition.in"),
    wire("w8", "ignition.out", "crash.in"),
    wire("w9", "oil.out", "relay.coil +"),
    wire("w10", "relay.coil -", "earth.earth"),
    wire("w11", "ignition.out", "lamp.+"),
    wire("w12", "lamp.-", "low.in"),
    wire("w13", "low.out", "earth.earth"),
    wire("w14", "ignition.out", "gauge.+"),
    wire("w15", "gauge.sender", "sender:level.signal"),
    wire("w16", "sender:level.-", "earth.earth"),
    wire("w17", "gauge.-", "earth.earth"),
    wire("w18", "crash.out", "oil.in"),
]
BONDS: list[Item] = [
    {"id": "b1", "name": "b1", "start": "tank", "end": "chassis"},
    {"id": "b2", "name": "b2", "start": "filler:fill", "end": "tank"},
    {"id": "b3", "name": "b3", "start": "part:filter", "end": "chassis"},
]


def wired_up(
    devices: Sequence[Item] = DEVICES,
    wires: Sequence[Item] = WIRES,
    bonds: Sequence[Item] = BONDS,
    *,
    parts: Sequence[Item] = CLAD,
    lines: Item | None = None,
    gauge: Item | None = None,
    **more: Any,
) -> Design:
    """A box with a line and its wiring."""
    brief = {"fuel": "petrol E10", "cases": [{"id": "now", "name": "Now", "measured_l_per_h": 90.0}]}
    document = {
        "brief": brief,
        "shell": SHELL,
        "ports": [*BARE, FILLER],
        "gauge": {"senders": [SENDER]} | (gauge or {}),
        "lines": {"parts": list(parts), "runs": RUNS} | (lines or {}),
        "wiring": {"devices": list(devices), "wires": list(wires), "bonds": list(bonds)},
    } | more
    return read_design(json.dumps(document))


def found_at_wiring(design: Design, workshop: Workshop | None = None) -> set[str]:
    """Codes of what is found."""
    return {one.code for one in looked_at(design, workshop).findings if one.station == "wiring"}


def looked_at(design: Design, workshop: Workshop | None = None, *, remedies: bool = False) -> Evaluation:
    """A whole answer."""
    return evaluate(design, workshop or Workshop(), showing=Showing(remedies=remedies))
