"""The pilot cutter's saddle tank over its shaft tunnel."""

from typing import Any

from server.demo.library import fitted, part, sender
from server.demo.tanks.day_lines import DAY_LINES
from server.demo.tanks.day_wiring import DAY_WIRING
from server.demo.tanks.pieces import bend, box, stop, strap, vent

M10: dict[str, Any] = {"size": "M10", "grade": "A4-80"}
BEARER: dict[str, Any] = {"found": "frame rail", "metal": "stainless 304L", "thickness_mm": 6.0, "edge_mm": 30.0}

DAY_TANK: dict[str, Any] = {
    "brief": {
        "fuel": "diesel",
        "reason": "Ten hours at 18 L/h and a bit in hand",
        "basis": {"kind": "run time", "hours": 10.0, "reserve": 0.05},
        "cases": [
            {"id": "passage", "name": "Passage", "engine": "diesel", "power_kw": 75.0, "measured_l_per_h": 18.0}
            | {"rail_kpa": 40.0},
            {"id": "later", "name": "With the heater", "engine": "diesel", "measured_l_per_h": 19.5, "rail_kpa": 40.0},
        ],
        "pumps": [fitted(0)],
        "card": [
            {"id": "survey", "rule": "Harbour survey 4: wall", "subject": "wall thickness at least", "limit": 4.0},
            {"id": "trim", "rule": "Builder's trim sheet", "subject": "full mass at most", "limit": 240.0},
        ],
    },
    "bay": {
        "datum": "aft, starboard, top of the bearer",
        "length_mm": 820.0,
        "width_mm": 1180.0,
        "height_mm": 560.0,
        "sides": {"front": {"kind": "hard metal", "mm": 40.0}},
        "keep_outs": [
            {
                "kind": "cylinder",
                "id": "shaft-tunnel",
                "name": "shaft tunnel",
                "axis": "x",
                "x_mm": 0.0,
                "y_mm": 590.0,
                "z_mm": 90.0,
                "diameter_mm": 200.0,
                "run_mm": 820.0,
                "clearance": {"kind": "moving at full travel"},
            },
            box("gland grease pump", (0.0, 0.0, 420.0), (140.0, 160.0, 140.0), "hard metal"),
        ],
        "opening": {"side": "roof", "a_mm": 60.0, "b_mm": 60.0, "long_mm": 760.0, "wide_mm": 1100.0},
    },
    "shell": {
        "kind": "profile",
        "shape": "saddle",
        "wrap_axis": "x",
        "corners": [
            bend(0, 0),
            bend(400, 0),
            bend(400, 220),
            bend(700, 220),
            bend(700, 0),
            bend(1100, 0),
            bend(1100, 420),
            bend(0, 420),
        ],
        "run_mm": 600.0,
        "x_mm": 150.0,
        "y_mm": 40.0,
        "z_mm": 18.0,
        "metal": "5083-H111",
        "thickness_mm": 4.0,
        "bend_radius_mm": 8.0,
    },
    "ports": [
        part("Draw tube, 12 mm, uncut", "starboard-draw", 300.0, 190.0, hose_deg=0.0),
        part("Draw tube, 12 mm, uncut", "port-draw", 300.0, 910.0, hose_deg=0.0),
        part("Filler neck, 51 mm", "filler", 300.0, 550.0, neck={"bore_mm": 51.0, "bonded": True}),
        part(
            "Deck vent, 16 mm",
            "vent",
            540.0,
            1020.0,
            vent=vent(16.0, 3.0),
            connection={"standard": "hose tail", "size": "18 mm", "hand": "male"},
        ),
        part("Return boss, 8 mm", "return", 500.0, 190.0, z_mm=60.0),
        part("Drain boss", "starboard-drain", 90.0, 190.0, face="floor"),
        part("Drain boss", "port-drain", 90.0, 910.0, face="floor"),
    ],
    "lines": DAY_LINES,
    "wiring": DAY_WIRING,
    "sheet": {"seam": "side"},
    "filling": {"supply": "nozzle", "supply_kpa": 20.0, "nozzle_bore_mm": 19.0, "wanted_s": 240.0},
    "slosh": {"over": "shipped lap", "lap": "Eelgate harbour in chop", "fill": 0.2},
    "gauge": {
        "senders": [
            sender("Reed tube", "starboard sender", 190.0, 120.0),
            sender("Reed tube", "port sender", 190.0, 980.0),
        ],
        "joined": "averaged",
        "reserve_l": 25.0,
    },
    "mount": {
        "corner": {"x_mm": 300.0, "y_mm": -590.0, "z_mm": 400.0},
        "straps": [
            strap(1, 230.0, (12.0, 1168.0), 6.0, bolts=M10, structure=BEARER, width_mm=40.0, thickness_mm=2.0),
            strap(2, 560.0, (12.0, 1168.0), 6.0, bolts=M10, structure=BEARER, width_mm=40.0, thickness_mm=2.0),
        ],
        "stops": [
            stop("rear", (145.0, 240.0, 100.0), bolts=M10 | {"count": 3}, structure=BEARER)
            | {"name": "rear stop, starboard"},
            stop("rear", (145.0, 940.0, 100.0), bolts=M10 | {"count": 3}, structure=BEARER)
            | {"id": "rear-stop-2", "name": "rear stop, port"},
            stop("front", (755.0, 240.0, 100.0), bolts=M10 | {"count": 3}, structure=BEARER)
            | {"id": "front-stop", "name": "front stop, starboard"},
            stop("front", (755.0, 940.0, 100.0), bolts=M10 | {"count": 3}, structure=BEARER)
            | {"id": "front-stop-2", "name": "front stop, port"},
            stop("right", (450.0, 35.0, 90.0), bolts=M10 | {"count": 2}, structure=BEARER),
            stop("left", (450.0, 1145.0, 90.0), bolts=M10 | {"count": 2}, structure=BEARER),
        ],
    },
}
