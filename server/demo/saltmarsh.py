"""The made-up workshop that the demo shows: people, machines, customers, jobs. Nobody in it is real."""

from typing import Any

from server.demo import cart_log, proof_logs
from server.demo.library import PARTS, PUMPS, SENDERS
from server.demo.line_parts import LINE_PARTS
from server.demo.tanks.cart_tank import CART_TANK
from server.demo.tanks.day_tank import DAY_TANK
from server.demo.tanks.hover_tank import HOVER_TANK
from server.demo.tanks.raid_tank import RAID_INSIDE, RAID_TANK
from server.demo.tanks.surge_cylinder import SURGE

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
    "line_parts": LINE_PARTS,
    "hoses": [
        {"name": "Lined hose -6", "bore_mm": 7.9, "outside_mm": 13.0, "least_radius_mm": 76.0, "rated_kpa": 2000.0}
        | {"per_m": 21.0},
        {"name": "Lined hose -8", "bore_mm": 10.3, "outside_mm": 16.0, "least_radius_mm": 102.0, "rated_kpa": 2000.0}
        | {"per_m": 26.0},
        {"name": "Nitrile hose 8 mm", "hose": "nitrile hose", "bore_mm": 8.0, "outside_mm": 14.0, "per_m": 6.0}
        | {"least_radius_mm": 70.0, "rated_kpa": 1000.0},
    ],
    "price_book": [
        {"name": "bulkhead fitting -6", "price": 14.0, "supplier": "Lockgate Supplies", "on_shelf": 2.0},
        {"name": "hose end -6, straight", "price": 9.5, "supplier": "Lockgate Supplies", "on_shelf": 6.0},
        {
            "name": "grommet 13/19",
            "price": 0.9,
            "supplier": "Lockgate Supplies",
            "on_shelf": 40.0,
        },
        {"name": "hose end -6, 90° elbow", "price": 16.0, "supplier": "Lockgate Supplies"},
    ],
    "benders": [
        {
            "name": "Lever bender, 3/8 in",
            "outside_mm": 9.53,
            "radius_mm": 24.0,
            "grip_mm": 22.0,
            "springback": [
                {"angle_deg": 30.0, "back_deg": 1.4},
                {"angle_deg": 90.0, "back_deg": 3.1},
                {"angle_deg": 150.0, "back_deg": 4.6},
            ],
        },
        {"name": "Lever bender, 8 mm", "outside_mm": 8.0, "radius_mm": 22.0, "grip_mm": 20.0},
    ],
    "test_gauges": proof_logs.GAUGES,
    "cutters": [
        {"name": "Treadle shear", "cuts": "straight edges", "thickest_steel_mm": 2.0, "longest_mm": 1250.0}
        | {"edge": "clean, a little rolled"},
        {
            "name": "Nibbler",
            "thickest_steel_mm": 2.5,
            "curve_mm": 4.0,
            "edge": "clean, slivers in the eye",
            "loud": True,
        },
        {"name": "Jigsaw", "thickest_steel_mm": 4.0, "curve_mm": 12.0, "edge": "rough, to be filed", "loud": True},
        {"name": "Hole saws", "cuts": "round holes", "thickest_steel_mm": 4.0, "from_mm": 16.0, "to_mm": 68.0},
    ],
    "strips": [
        {"metal": "5052-H32", "thickness_mm": 3.0, "radius_mm": 4.5, "flat_mm": 150.0, "leg_a_mm": 77.9}
        | {"leg_b_mm": 78.1, "left_deg": 90.0, "bent_to_deg": 92.5},
    ],
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
        "per_hour": 38.0,
        "minutes_per_bend": 6.0,
        "minutes_per_port": 35.0,
        "minutes_per_fitting": 20.0,
        "per_fitting": 24.0,
        "foam_per_l": 3.2,
        "bladder": 620.0,
        "surge_tank": 390.0,
    },
    "rates": {
        "receive_min_each": 3.0,
        "prepare_min_per_m2": 12.0,
        "send_min_each": 25.0,
        "cut_min_per_m": 9.0,
        "deburr_min_per_m": 2.5,
        "roll_min_each": 18.0,
        "join_min_each": 15.0,
        "tack_min_per_m": 22.0,
        "weld_min_per_m": 28.0,
        "clean_min_each": 15.0,
        "look_min_each": 5.0,
        "dress_min_per_m": 14.0,
        "plug_min_each": 1.0,
        "trim_min_each": 12.0,
        "prove_min_each": 25.0,
        "cover_min_per_m2": 30.0,
        "commission_min_each": 15.0,
    },
}

CUSTOMERS: list[tuple[str, str, str]] = [
    ("Eelgate Pilots", "harbour office, ask for the mate", "Pilot cutter 'Patience'. Survey due in spring."),
    ("Dry Fork Raiders", "Juno at the yard gate", "Dune-raid buggy, number 41. Pays on collection."),
    ("Larkfield Aerodrome", "fuel shed", "Service cart, wants everything labelled."),
    ("Corrie Hill Club", "Bram, evenings only", "Single-seater 'Thistle', hill climbs."),
    ("Mudflat Rescue", "the hovercraft shed", "Craft 2, wants a spare that drops straight in."),
]

GUIDE: dict[str, str] = {
    "brief": "Open Passage under Demand, type another measured flow, and watch the required pump flow follow.",
    "bay": "Drag the shaft tunnel sideways and see which gap turns red; Undo puts it back.",
    "shell": "Drag the lid up by its handle: the figures below follow, and the target is met or missed.",
    "inside": "Apply the baffles that the finding offers, then drag one along the tank.",
    "ports": "Press Try on the remedy for the vents: the drawing shows the change before it is made.",
    "gauge": "Press Show the needle and compare the E mark with the litres that are left.",
    "slosh": "Press Play: the fuel moves as the vehicle does, and every second without fuel is marked.",
    "sheet": "Press a flat part's DXF: that is the file for the cutter.",
    "proof": "Look at the third round: the gauge fell all evening, and the tank is tight all the same.",
    "mount": "Press forward: the arrows show who holds the tank. Then press Show the way in and search it.",
    "lines": "Press the running modes in turn: pressures change on the drawing and along the strip under it.",
    "bench": "Press Start measuring, then pour: the simulated meter sends its readings by itself.",
}
"""What to try at each station of the first job."""

JOBS: list[dict[str, Any]] = [
    {
        "title": "Pilot cutter day tank",
        "customer": "Eelgate Pilots",
        "state": "build",
        "note": "Saddle over the shaft tunnel, under the wheelhouse sole.",
        "guide": GUIDE,
        "vehicle": "cutter",
        "designs": [("Day tank", DAY_TANK)],
        "log": proof_logs.day_tank,
    },
    {
        "title": "Dune-raid buggy rear tank",
        "customer": "Dry Fork Raiders",
        "state": "design",
        "note": "Silencer stays where it is. They want every litre the space gives.",
        "vehicle": "buggy",
        "designs": [("Rear tank", RAID_TANK), ("Rear tank with a pot", RAID_INSIDE)],
    },
    {
        "title": "Airfield service cart",
        "customer": "Larkfield Aerodrome",
        "state": "build",
        "note": "Stainless, two fuels, labels on both sides.",
        "designs": [("Two-cell tank", CART_TANK)],
        "log": cart_log.log,
    },
    {
        "title": "Hill-climb surge tank",
        "customer": "Corrie Hill Club",
        "state": "enquiry",
        "note": "Stands behind the seat, under the cowl.",
        "designs": [("Surge cylinder", SURGE)],
    },
    {
        "title": "Rescue hovercraft tank",
        "customer": "Mudflat Rescue",
        "state": "design",
        "note": "Shallow wedge, the transfer module sits in a well at the aft edge.",
        "designs": [("Wedge tank", HOVER_TANK)],
    },
    {
        "title": "Airfield service cart, the first",
        "customer": "Larkfield Aerodrome",
        "state": "build",
        "note": "The sister of 103, a fortnight ahead of it: both cells proved, to be fitted.",
        "designs": [("Two-cell tank", CART_TANK)],
        "log": proof_logs.service_cart,
    },
]
