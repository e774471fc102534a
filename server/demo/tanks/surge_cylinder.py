"""The hill-climb car's surge cylinder."""

from typing import Any

from server.demo.library import fitted, part
from server.demo.tanks.pieces import box, vent
from server.demo.tanks.surge_lines import SURGE_LINES

SURGE: dict[str, Any] = {
    "brief": {
        "is_surge_tank": True,
        "fuel": "race petrol",
        "target_l": 2.2,
        "reason": "Longest left-hander is 9 s at 150 L/h, six times over",
        "cases": [
            {"id": "thistle", "name": "Thistle", "engine": "petrol, naturally aspirated", "power_kw": 190.0}
            | {"measured_l_per_h": 150.0, "rail_kpa": 300.0},
        ],
        "pumps": [fitted(2)],
        "surge": {"uncovered_s": 9.0, "gap_s": 12.0, "lift_l_per_h": 208.0},
    },
    "bay": {
        "datum": "rear, right, on the floor pan",
        "length_mm": 240.0,
        "width_mm": 260.0,
        "height_mm": 420.0,
        "keep_outs": [
            box("battery tray", (0.0, 0.0, 0.0), (80.0, 260.0, 120.0), "hard metal"),
            {
                "kind": "slope",
                "id": "cowl",
                "name": "cowl",
                "blocked": "roof",
                "along": "x",
                "start_mm": 420.0,
                "end_mm": 330.0,
                "clearance": {"kind": "cover or body skin"},
            },
        ],
    },
    "shell": {
        "kind": "cylinder",
        "axis": "z",
        "diameter_mm": 114.3,
        "run_mm": 270.0,
        "x_mm": 100.0,
        "y_mm": 72.0,
        "z_mm": 8.0,
        "metal": "5052-H32",
        "thickness_mm": 2.5,
        "dish_mm": 0.0,
    },
    "ports": [
        part("Draw tube, 12 mm, uncut", "draw", 57.0, 57.0, hose_deg=90.0),
        {
            "id": "back",
            "name": "back to the main tank",
            "role": "overflow",
            "face": "front",
            "x_mm": 109.0,
            "y_mm": 57.0,
        }
        | {"z_mm": 265.0, "stands_mm": 0.0, "vent": vent(10.0, 1.5)},
        {"id": "lift", "name": "from the lift pump", "role": "return", "face": "rear", "x_mm": 5.0, "y_mm": 57.0}
        | {"z_mm": 110.0, "stands_mm": 0.0},
    ],
    "lines": SURGE_LINES,
}
