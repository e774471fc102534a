"""The made-up workshop that the demo shows: people, machines, customers, jobs. Nobody in it is real."""

from typing import Any

from server.demo.library import PARTS, PUMPS, SENDERS, fitted, part, sender

WORKSHOP = "Saltmarsh Tank & Sheet"
PASSWORD = "tide-and-tinplate"

PEOPLE: list[tuple[str, str, str]] = [
    ("marla", "Marla Quent", "owner"),
    ("osric", "Osric Tallow", "fabricator"),
    ("fenna", "Fenna Brill", "viewer"),
]

RULES: dict[str, Any] = {
    "pumps": PUMPS,
    "parts": PARTS,
    "senders": SENDERS,
    "brake": {
        "name": "The old folder",
        "width_mm": 1250.0,
        "smallest_closed_box_mm": 180.0,
        "shortest_flange_mm": 14.0,
    },
    "prices": {
        "currency": "cr",
        "metal_per_kg": {
            "mild steel": 2.4,
            "stainless 304L": 6.5,
            "3003-H14": 6.0,
            "5052-H32": 6.8,
            "5083-H111": 7.4,
            "6061-T6": 7.0,
        },
        "weld_per_m": 46.0,
        "hours_per_m": 0.7,
        "foam_per_l": 3.2,
        "bladder": 620.0,
        "surge_tank": 390.0,
    },
}

CUSTOMERS: list[tuple[str, str, str]] = [
    ("Eelgate Pilots", "harbour office, ask for the mate", "Pilot cutter 'Patience'. Survey due in spring."),
    ("Dry Fork Raiders", "Juno at the yard gate", "Dune-raid buggy, number 41. Pays on collection."),
    ("Larkfield Aerodrome", "fuel shed", "Service cart, wants everything labelled."),
    ("Corrie Hill Club", "Bram, evenings only", "Single-seater 'Thistle', hill climbs."),
    ("Mudflat Rescue", "the hovercraft shed", "Craft 2, wants a spare that drops straight in."),
]


def _bend(across: float, up: float, bow: float = 0.0) -> dict[str, Any]:
    return {"across_mm": across, "up_mm": up, "bow_mm": bow, "joint": "bend"}


def _vent(bore: float, length: float, **more: Any) -> dict[str, Any]:
    asked = dict.fromkeys(("outside", "below_people", "away_from_exhaust", "falls_away"), True)
    return {"bore_mm": bore, "length_m": length} | asked | more


def _facing_aft(sender: dict[str, Any]) -> dict[str, Any]:
    return sender | {"action": sender["action"] | {"heading_deg": 180.0}}


def _box(name: str, place: tuple[float, float, float], size: tuple[float, float, float], kind: str) -> dict[str, Any]:
    return {
        "kind": "box",
        "id": name.replace(" ", "-"),
        "name": name,
        **dict(zip(("x_mm", "y_mm", "z_mm"), place, strict=True)),
        **dict(zip(("length_mm", "width_mm", "height_mm"), size, strict=True)),
        "clearance": {"kind": kind},
    }


_DAY_TANK: dict[str, Any] = {
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
            _box("gland grease pump", (0.0, 0.0, 420.0), (140.0, 160.0, 140.0), "hard metal"),
        ],
        "opening": {"side": "roof", "a_mm": 60.0, "b_mm": 60.0, "long_mm": 760.0, "wide_mm": 1100.0},
    },
    "shell": {
        "kind": "profile",
        "shape": "saddle",
        "wrap_axis": "x",
        "corners": [
            _bend(0, 0),
            _bend(400, 0),
            _bend(400, 220),
            _bend(700, 220),
            _bend(700, 0),
            _bend(1100, 0),
            _bend(1100, 420),
            _bend(0, 420),
        ],
        "run_mm": 600.0,
        "x_mm": 150.0,
        "y_mm": 40.0,
        "z_mm": 6.0,
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
            vent=_vent(16.0, 3.0),
        ),
        part("Return boss, 8 mm", "return", 500.0, 190.0, z_mm=60.0),
        part("Drain boss", "starboard-drain", 90.0, 190.0, face="floor"),
        part("Drain boss", "port-drain", 90.0, 910.0, face="floor"),
    ],
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
}

_RAID_TANK: dict[str, Any] = {
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
            _box("silencer", (0.0, 500.0, 330.0), (300.0, 120.0, 140.0), "exhaust, shielded"),
            _box("gearbox tail", (560.0, 200.0, 0.0), (260.0, 220.0, 150.0), "moving at full travel"),
        ],
    },
    "shell": {
        "kind": "profile",
        "shape": "step",
        "wrap_axis": "y",
        "corners": [_bend(0, 0), _bend(440, 0), _bend(440, 185), _bend(720, 185), _bend(720, 365), _bend(0, 365)],
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
            vent=_vent(10.0, 1.2, opens_kpa=0.3, rollover=True),
        ),
        part("Return boss, 8 mm", "return", 400.0, 330.0, z_mm=60.0),
    ],
    "filling": {"supply": "jug", "head_mm": 400.0, "wanted_s": 60.0},
    "slosh": {"over": "shipped lap", "lap": "Dry Fork desert stage", "fill": 0.3},
    "gauge": {"senders": [_facing_aft(sender("Swing arm, 150 mm", "sender", 330.0, 330.0))], "reserve_l": 8.0},
}

_RAID_INSIDE: dict[str, Any] = _RAID_TANK | {
    "ports": [part("Draw tube, 12 mm, uncut", "draw", 150.0, 200.0, hose_deg=0.0), *_RAID_TANK["ports"][1:]],
    "shell": _RAID_TANK["shell"]
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

_SURGE: dict[str, Any] = {
    "brief": {
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
            _box("battery tray", (0.0, 0.0, 0.0), (80.0, 260.0, 120.0), "hard metal"),
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
        {"id": "back", "name": "back to the main tank", "role": "vent", "face": "front", "x_mm": 109.0, "y_mm": 57.0}
        | {"z_mm": 265.0, "stands_mm": 0.0, "vent": _vent(10.0, 1.5)},
        {"id": "lift", "name": "from the lift pump", "role": "return", "face": "rear", "x_mm": 5.0, "y_mm": 57.0}
        | {"z_mm": 110.0, "stands_mm": 0.0},
    ],
}

_CART_TANK: dict[str, Any] = {
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
        "keep_outs": [_box("hose reel post", (0.0, 0.0, 0.0), (60.0, 60.0, 380.0), "hard metal")],
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
    "filling": {"supply": "nozzle", "supply_kpa": 30.0, "nozzle_bore_mm": 25.0},
    "slosh": {"manoeuvre": {"kind": "braking", "g": 0.4, "seconds": 4.0}},
    "gauge": {
        "senders": [
            sender("Reed tube", "avgas sender", 340.0, 120.0),
            sender("Reed tube", "kerosene sender", 690.0, 120.0),
        ]
    },
}

_HOVER_TANK: dict[str, Any] = {
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
            _box("steering cable run", (0.0, 500.0, 0.0), (900.0, 60.0, 60.0), "moving at full travel"),
        ],
    },
    "shell": {
        "kind": "profile",
        "shape": "wedge",
        "wrap_axis": "y",
        "corners": [_bend(0, 0), _bend(800, 0), _bend(800, 105), _bend(0, 200)],
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
    "gauge": {"senders": [_facing_aft(sender("Swing arm, 150 mm", "sender", 420.0, 220.0))], "reserve_l": 6.0},
}

JOBS: list[dict[str, Any]] = [
    {
        "title": "Pilot cutter day tank",
        "customer": "Eelgate Pilots",
        "state": "design",
        "note": "Saddle over the shaft tunnel, under the wheelhouse sole.",
        "designs": [("Day tank", _DAY_TANK)],
    },
    {
        "title": "Dune-raid buggy rear tank",
        "customer": "Dry Fork Raiders",
        "state": "design",
        "note": "Silencer stays where it is. They want every litre the space gives.",
        "designs": [("Rear tank", _RAID_TANK), ("Rear tank with a pot", _RAID_INSIDE)],
    },
    {
        "title": "Airfield service cart",
        "customer": "Larkfield Aerodrome",
        "state": "build",
        "note": "Stainless, two fuels, labels on both sides.",
        "designs": [("Two-cell tank", _CART_TANK)],
    },
    {
        "title": "Hill-climb surge tank",
        "customer": "Corrie Hill Club",
        "state": "enquiry",
        "note": "Stands behind the seat, under the cowl.",
        "designs": [("Surge cylinder", _SURGE)],
    },
    {
        "title": "Rescue hovercraft tank",
        "customer": "Mudflat Rescue",
        "state": "design",
        "note": "Shallow wedge, the transfer module sits in a well at the aft edge.",
        "designs": [("Wedge tank", _HOVER_TANK)],
    },
]
