"""The hovercraft's shallow wedge."""

from typing import Any

from server.demo.library import fitted, part, sender
from server.demo.tanks.pieces import bend, box, facing_aft

HOVER_TANK: dict[str, Any] = {
    "brief": {
        "fuel": "petrol E10",
        "reason": "Two hours on the flats at 18 L/h",
        "basis": {"kind": "run time", "hours": 2.0, "reserve": 0.1},
        "cases": [{"id": "flats", "name": "On the flats", "power_kw": 60.0, "measured_l_per_h": 18.0}],
        "pumps": [fitted(1)],
    },
    "bay": {
        "datum": "aft, starboard, on the hull skin",
        "length_mm": 900.0,
        "width_mm": 560.0,
        "height_mm": 260.0,
        "keep_outs": [
            {
                "kind": "slope",
                "id": "deck-line",
                "name": "deck line",
                "blocked": "roof",
                "along": "x",
                "start_mm": 260.0,
                "end_mm": 150.0,
                "clearance": {"kind": "cover or body skin"},
            },
            box("steering cable run", (0.0, 500.0, 0.0), (900.0, 60.0, 60.0), "moving at full travel"),
        ],
    },
    "shell": {
        "kind": "profile",
        "shape": "wedge",
        "wrap_axis": "y",
        "corners": [bend(0, 0), bend(800, 0), bend(800, 105), bend(0, 200)],
        "run_mm": 440.0,
        "x_mm": 30.0,
        "y_mm": 15.0,
        "z_mm": 8.0,
        "metal": "5052-H32",
        "thickness_mm": 2.5,
        "bend_radius_mm": 4.0,
        "features": [
            {
                "kind": "well",
                "id": "module-well",
                "name": "module well",
                "face": "roof",
                "a_mm": 0.0,
                "b_mm": 140.0,
                "long_mm": 170.0,
                "wide_mm": 160.0,
                "deep_mm": 70.0,
            }
        ],
    },
    "ports": [
        part("Short module, 140 deep", "module", 85.0, 220.0, clock_deg=90.0, stop_deg=-120.0, hose_deg=0.0),
        part("Flush filler, 38 mm", "filler", 200.0, 90.0, neck={"bore_mm": 38.0, "bonded": True}),
        part("Elbow vent, 8 mm", "vent", 40.0, 60.0),
    ],
    "gauge": {"senders": [facing_aft(sender("Swing arm, 150 mm", "sender", 420.0, 220.0))], "reserve_l": 6.0},
}
