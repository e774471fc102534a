"""The made-up vehicles that the demo's tanks are for, by the key that its designs name them by."""

from typing import Any

BUGGY: dict[str, Any] = {
    "name": "Dune-raid buggy",
    "datum": "middle of the rear axle, on the ground",
    "wheelbase_mm": 2650.0,
    "track_front_mm": 1560.0,
    "track_rear_mm": 1580.0,
    "front_left_kg": 246.0,
    "front_right_kg": 252.0,
    "rear_left_kg": 338.0,
    "rear_right_kg": 344.0,
    "whole_kg": 1180.0,
    "ground_mm": 0.0,
    "rearmost_mm": -720.0,
    "panels": [
        {"id": "firewall", "name": "firewall", "axis": "x", "at_mm": 540.0, "a_mm": -380.0, "b_mm": 420.0}
        | {"long_mm": 760.0, "wide_mm": 620.0, "thickness_mm": 1.2, "metal": "mild steel"}
        | {
            "gaps": [
                {"name": "loom gap", "a_mm": 180.0, "b_mm": 560.0, "long_mm": 45.0, "wide_mm": 45.0},
                {"name": "brake line", "a_mm": -200.0, "b_mm": 480.0, "long_mm": 14.0, "wide_mm": 14.0, "sealed": True},
            ]
        },
        {"id": "tail-cover", "name": "tail cover", "axis": "z", "at_mm": 930.0, "a_mm": -420.0, "b_mm": -360.0}
        | {"long_mm": 940.0, "wide_mm": 720.0, "thickness_mm": 1.5, "metal": "5052-H32", "closes": True},
    ],
    "parts": [
        {"id": "seat", "name": "seat", "kind": "moving part", "x_mm": 700.0, "y_mm": 60.0, "z_mm": 430.0}
        | {"length_mm": 460.0, "width_mm": 420.0, "height_mm": 560.0, "travel_x_mm": -120.0},
        {"id": "rail-right", "name": "frame rail, right", "x_mm": -700.0, "y_mm": -275.0, "z_mm": 400.0}
        | {"length_mm": 2300.0, "width_mm": 40.0, "height_mm": 80.0},
        {"id": "cage-leg-right", "name": "cage leg, right", "x_mm": -200.0, "y_mm": -290.0, "z_mm": 480.0}
        | {"length_mm": 50.0, "width_mm": 40.0, "height_mm": 440.0},
        {"id": "driver", "name": "driver", "kind": "person", "x_mm": 760.0, "y_mm": 80.0, "z_mm": 480.0}
        | {"length_mm": 380.0, "width_mm": 380.0, "height_mm": 620.0},
    ],
}

CUTTER: dict[str, Any] = {
    "name": "Pilot cutter, engine room",
    "datum": "aft bulkhead, centre line, top of the keel",
    "panels": [
        {
            "id": "engine-bulkhead",
            "name": "engine bulkhead",
            "axis": "x",
            "at_mm": 1240.0,
            "a_mm": -900.0,
            "b_mm": 200.0,
        }
        | {"long_mm": 1800.0, "wide_mm": 1100.0, "thickness_mm": 6.0, "metal": "5083-H111"},
        {"id": "deck-hatch", "name": "deck hatch", "axis": "z", "at_mm": 1000.0, "a_mm": 380.0, "b_mm": -600.0}
        | {"long_mm": 900.0, "wide_mm": 1200.0, "thickness_mm": 5.0, "metal": "5083-H111", "closes": True},
    ],
    "parts": [
        {"id": "exhaust", "name": "wet exhaust", "kind": "hot part", "x_mm": 200.0, "y_mm": 700.0, "z_mm": 520.0}
        | {"length_mm": 900.0, "width_mm": 110.0, "height_mm": 110.0, "shielded": ["right"]},
        {
            "id": "charger",
            "name": "battery charger",
            "kind": "planned part",
            "x_mm": 1130.0,
            "y_mm": -560.0,
            "z_mm": 640.0,
        }
        | {"length_mm": 90.0, "width_mm": 240.0, "height_mm": 180.0},
    ],
}

VEHICLES: dict[str, dict[str, Any]] = {"buggy": BUGGY, "cutter": CUTTER}
