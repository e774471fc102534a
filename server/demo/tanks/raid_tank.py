"""The buggy's stepped tank, and the same with a pot and a plate."""

from typing import Any

from server.demo.library import fitted, part, sender
from server.demo.tanks.pieces import bend, box, facing_aft, stop, strap, vent
from server.demo.tanks.raid_lines import RAID_LINES, hung_in
from server.demo.tanks.raid_wiring import RAID_WIRING

RAID_TANK: dict[str, Any] = {
    "brief": {
        "fuel": "petrol E10",
        "target_l": 75.0,
        "reason": "Desert stage of 230 km at 30 L/100 km, no fuel stop",
        "vehicle_kg": 1180.0,
        "cases": [
            {"id": "now", "name": "Now", "engine": "petrol, naturally aspirated", "power_kw": 165.0, "duty": 0.55},
            {"id": "blown", "name": "Blown, next season", "engine": "petrol, forced induction", "power_kw": 240.0}
            | {"duty": 0.5, "rail_kpa": 400.0},
        ],
        "pumps": [fitted(1), fitted(2, spare=True)],
        "surge": {"uncovered_s": 4.0, "gap_s": 6.0, "lift_l_per_h": 208.0},
        "card": [
            {"id": "raid", "rule": "Raid rules 7.2", "subject": "rated capacity at most", "limit": 120.0},
            {"id": "share", "rule": "Raid rules 7.5", "subject": "fuel share of vehicle at most", "limit": 0.08},
        ],
    },
    "bay": {
        "datum": "rear, right, on the frame rail",
        "length_mm": 820.0,
        "width_mm": 620.0,
        "height_mm": 470.0,
        "sides": {"rear": {"kind": "hard metal", "mm": 30.0}, "roof": {"kind": "cover or body skin"}},
        "keep_outs": [
            box("silencer", (0.0, 500.0, 330.0), (300.0, 120.0, 140.0), "exhaust, shielded"),
            box("gearbox tail", (560.0, 200.0, 0.0), (260.0, 220.0, 150.0), "moving at full travel"),
        ],
    },
    "shell": {
        "kind": "profile",
        "shape": "step",
        "wrap_axis": "y",
        "corners": [bend(0, 0), bend(440, 0), bend(440, 185), bend(720, 185), bend(720, 365), bend(0, 365)],
        "run_mm": 400.0,
        "x_mm": 40.0,
        "y_mm": 20.0,
        "z_mm": 10.0,
        "metal": "5052-H32",
        "thickness_mm": 3.0,
        "bend_radius_mm": 4.5,
    },
    "ports": [
        part("Pot module, 230 deep", "module", 150.0, 200.0, clock_deg=18.0, hose_deg=0.0),
        part("Filler neck, 51 mm", "filler", 350.0, 80.0, neck={"bore_mm": 51.0, "bonded": True}),
        part(
            "Vent with roll-over valve, 10 mm",
            "vent",
            40.0,
            360.0,
            vent=vent(10.0, 1.2, opens_kpa=0.3, rollover=True),
        ),
        part("Return boss, 8 mm", "return", 400.0, 330.0, z_mm=60.0),
    ],
    "filling": {"supply": "jug", "head_mm": 400.0, "wanted_s": 60.0},
    "sheet": {"seam": "side"},
    "slosh": {"over": "shipped lap", "lap": "Dry Fork desert stage", "fill": 0.3},
    "lines": RAID_LINES,
    "wiring": RAID_WIRING,
    "gauge": {"senders": [facing_aft(sender("Swing arm, 150 mm", "sender", 330.0, 330.0))], "reserve_l": 8.0},
    "mount": {
        "corner": {"x_mm": -320.0, "y_mm": -220.0, "z_mm": 440.0},
        "use": "competition",
        "filler": {"port": "filler", "x_mm": 380.0, "y_mm": -150.0, "z_mm": 640.0, "side": "right", "up_deg": 35.0},
        "straps": [
            strap(1, 290.0, (0.0, 440.0), 4.0, width_mm=30.0, thickness_mm=1.5),
            strap(2, 600.0, (0.0, 440.0), 4.0, width_mm=30.0, thickness_mm=1.5)
            | {"high": {"out_mm": 440.0, "z_mm": 4.0, "structure": {"found": "body sheet", "thickness_mm": 1.2}}},
        ],
        "stops": [
            stop("front", (765.0, 220.0, 220.0), bolts={"count": 4}),
            stop("rear", (35.0, 220.0, 60.0), bolts={"count": 4}, arm_mm=50.0, base_mm=35.0),
        ],
    },
}

RAID_INSIDE: dict[str, Any] = RAID_TANK | {
    "lines": hung_in("draw"),
    "ports": [part("Draw tube, 12 mm, uncut", "draw", 150.0, 200.0, hose_deg=0.0), *RAID_TANK["ports"][1:]],
    "shell": RAID_TANK["shell"]
    | {
        "features": [
            {
                "kind": "pot",
                "id": "pot",
                "name": "pot",
                "a_mm": 60.0,
                "b_mm": 110.0,
                "long_mm": 180.0,
                "wide_mm": 180.0,
                "high_mm": 110.0,
                "doors": [
                    {"side": "front", "wide_mm": 60.0, "high_mm": 30.0},
                    {"side": "left", "wide_mm": 60.0, "high_mm": 30.0},
                    {"side": "rear", "wide_mm": 60.0, "high_mm": 30.0},
                ],
            },
            {
                "kind": "baffle",
                "id": "step-plate",
                "name": "plate under the step",
                "at_mm": 438.0,
                "corner_mm": 30.0,
                "holes": [{"at_mm": 125.0, "up_mm": 270.0, "diameter_mm": 50.0, "count": 2, "pitch_mm": 150.0}],
            },
        ],
    },
}
