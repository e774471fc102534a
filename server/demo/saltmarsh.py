"""The made-up workshop that the demo shows: people, machines, customers, jobs. Nobody in it is real."""

from typing import Any

WORKSHOP = "Saltmarsh Tank & Sheet"
PASSWORD = "tide-and-tinplate"

PEOPLE: list[tuple[str, str, str]] = [
    ("marla", "Marla Quent", "owner"),
    ("osric", "Osric Tallow", "fabricator"),
    ("fenna", "Fenna Brill", "viewer"),
]

RULES: dict[str, Any] = {
    "brake": {
        "name": "The old folder",
        "width_mm": 1250.0,
        "smallest_closed_box_mm": 180.0,
        "shortest_flange_mm": 14.0,
    },
}

CUSTOMERS: list[tuple[str, str, str]] = [
    ("Eelgate Pilots", "harbour office, ask for the mate", "Pilot cutter 'Patience'. Survey due in spring."),
    ("Dry Fork Raiders", "Juno at the yard gate", "Dune-raid buggy, number 41. Pays on collection."),
    ("Larkfield Aerodrome", "fuel shed", "Service cart, wants everything labelled."),
]

_DAY_TANK: dict[str, Any] = {
    "brief": {"fuel": "diesel", "target_l": 150.0, "reason": "Eight hours at 18 L/h and a bit in hand"},
    "bay": {
        "datum": "aft, starboard, top of the bearer",
        "length_mm": 1180.0,
        "width_mm": 760.0,
        "height_mm": 560.0,
        "sides": {"front": {"kind": "hard metal", "mm": 40.0}},
        "keep_outs": [
            {
                "id": "shaft-tunnel",
                "name": "shaft tunnel",
                "x_mm": 0.0,
                "y_mm": 610.0,
                "z_mm": 0.0,
                "length_mm": 1180.0,
                "width_mm": 150.0,
                "height_mm": 240.0,
                "clearance": {"kind": "moving at full travel"},
            },
            {
                "id": "stern-gland-pump",
                "name": "gland grease pump",
                "x_mm": 0.0,
                "y_mm": 0.0,
                "z_mm": 420.0,
                "length_mm": 140.0,
                "width_mm": 160.0,
                "height_mm": 140.0,
                "clearance": {"kind": "hard metal"},
            },
        ],
    },
    "shell": {
        "length_mm": 950.0,
        "width_mm": 520.0,
        "height_mm": 380.0,
        "x_mm": 80.0,
        "y_mm": 40.0,
        "z_mm": 6.0,
        "metal": "5083-H111",
        "thickness_mm": 5.0,
        "bend_radius_mm": 10.0,
    },
    "sheet": {"flange_mm": 30.0},
}

_RAID_TANK: dict[str, Any] = {
    "brief": {"fuel": "petrol E10", "target_l": 60.0, "reason": "Desert stage of 190 km at 30 L/100 km, no fuel stop"},
    "bay": {
        "datum": "rear, right, on the frame rail",
        "length_mm": 760.0,
        "width_mm": 620.0,
        "height_mm": 420.0,
        "sides": {"rear": {"kind": "hard metal", "mm": 30.0}, "roof": {"kind": "cover or body skin"}},
        "keep_outs": [
            {
                "id": "silencer",
                "name": "silencer",
                "x_mm": 0.0,
                "y_mm": 480.0,
                "z_mm": 280.0,
                "length_mm": 300.0,
                "width_mm": 140.0,
                "height_mm": 140.0,
                "clearance": {"kind": "exhaust, shielded"},
            }
        ],
    },
    "shell": {
        "length_mm": 560.0,
        "width_mm": 410.0,
        "height_mm": 280.0,
        "x_mm": 90.0,
        "y_mm": 40.0,
        "z_mm": 10.0,
        "metal": "5052-H32",
        "thickness_mm": 3.0,
        "bend_radius_mm": 4.5,
    },
}

_CART_TANK: dict[str, Any] = {
    "brief": {"fuel": "avgas 100", "target_l": 90.0, "reason": "Four fills of a trainer without driving back"},
    "bay": {
        "datum": "rear, right, cart deck",
        "length_mm": 900.0,
        "width_mm": 520.0,
        "height_mm": 380.0,
        "keep_outs": [],
    },
    "shell": {
        "length_mm": 800.0,
        "width_mm": 450.0,
        "height_mm": 320.0,
        "x_mm": 50.0,
        "y_mm": 30.0,
        "z_mm": 8.0,
        "metal": "stainless 304L",
        "thickness_mm": 2.0,
        "bend_radius_mm": 2.0,
    },
}

JOBS: list[dict[str, Any]] = [
    {
        "title": "Pilot cutter day tank",
        "customer": "Eelgate Pilots",
        "state": "design",
        "note": "Sits beside the shaft tunnel, under the wheelhouse sole.",
        "designs": [("Day tank", _DAY_TANK)],
    },
    {
        "title": "Dune-raid buggy rear tank",
        "customer": "Dry Fork Raiders",
        "state": "design",
        "note": "Silencer stays where it is. They want every litre the space gives.",
        "designs": [("Rear tank", _RAID_TANK)],
    },
    {
        "title": "Airfield service cart",
        "customer": "Larkfield Aerodrome",
        "state": "build",
        "note": "Stainless, labels on both sides.",
        "designs": [("Avgas side", _CART_TANK)],
    },
]
