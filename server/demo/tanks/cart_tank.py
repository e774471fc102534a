"""The service cart's two cells."""

from typing import Any

from server.demo.library import part, sender
from server.demo.tanks.cart_lines import CART_LINES
from server.demo.tanks.pieces import box

CART_TANK: dict[str, Any] = {
    "brief": {
        "fuel": "avgas 100",
        "target_l": 100.0,
        "reason": "Avgas and kerosene on one cart, a trainer's fill of each",
    },
    "bay": {
        "datum": "rear, right, cart deck",
        "length_mm": 900.0,
        "width_mm": 520.0,
        "height_mm": 430.0,
        "keep_outs": [box("hose reel post", (0.0, 0.0, 0.0), (60.0, 60.0, 380.0), "hard metal")],
    },
    "shell": {
        "kind": "box",
        "length_mm": 760.0,
        "width_mm": 450.0,
        "height_mm": 320.0,
        "x_mm": 95.0,
        "y_mm": 40.0,
        "z_mm": 8.0,
        "metal": "stainless 304L",
        "thickness_mm": 2.0,
        "bend_radius_mm": 2.0,
        "features": [
            {
                "kind": "partition",
                "id": "fuel-wall",
                "name": "wall between the fuels",
                "axis": "x",
                "at_mm": 460.0,
                "thickness_mm": 2.0,
            }
        ],
    },
    "ports": [
        part("Draw tube, 12 mm, uncut", "avgas-draw", 230.0, 120.0),
        part("Filler neck, 51 mm", "avgas-filler", 110.0, 330.0, neck={"bore_mm": 51.0, "bonded": True}),
        part("Deck vent, 16 mm", "avgas-vent", 400.0, 400.0),
        part("Draw tube, 12 mm, uncut", "kerosene-draw", 610.0, 120.0),
        part("Filler neck, 51 mm", "kerosene-filler", 560.0, 330.0, neck={"bore_mm": 51.0, "bonded": True}),
        part("Deck vent, 16 mm", "kerosene-vent", 700.0, 400.0),
    ],
    "lines": CART_LINES,
    "filling": {"supply": "nozzle", "supply_kpa": 30.0, "nozzle_bore_mm": 25.0},
    "slosh": {"manoeuvre": {"kind": "braking", "g": 0.4, "seconds": 4.0}},
    "gauge": {
        "senders": [
            sender("Reed tube", "avgas sender", 340.0, 120.0),
            sender("Reed tube", "kerosene sender", 690.0, 120.0),
        ]
    },
}
