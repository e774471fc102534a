"""The made-up workshop's library: pumps, parts and senders. No maker sells any of them."""

from typing import Any


def _curve(voltage: float, *points: tuple[float, ...]) -> dict[str, Any]:
    """Pressure [kPa], flow [L/h] and, where it is known, current [A]."""
    named = [dict(zip(("kpa", "l_per_h", "current_a"), point, strict=False)) for point in points]
    return {"voltage_v": voltage, "points": named}


PUMPS: list[dict[str, Any]] = [
    {
        "name": "Tern lift pump, 8 mm tails",
        "curves": [
            _curve(9.5, (0, 152), (30, 133), (60, 100)),
            _curve(11.5, (0, 190), (30, 172), (60, 140)),
            _curve(13.5, (0, 225), (30, 208), (60, 176)),
        ],
        "stands": "outside",
        "outlet": "8 mm tail",
    },
    {
        "name": "Shag in-tank pump, 39 mm",
        "curves": [
            _curve(9.5, (0, 164, 4.0), (200, 127, 5.1), (300, 104, 5.8), (400, 76, 6.4), (500, 34, 7.0)),
            _curve(11.5, (0, 214, 4.6), (200, 178, 5.7), (300, 156, 6.4), (400, 128, 7.0), (500, 92, 7.7)),
            _curve(13.5, (0, 262, 5.2), (200, 228, 6.3), (300, 205, 6.9), (400, 178, 7.5), (500, 146, 8.2)),
        ],
        "outlet": "M12 × 1.5",
        "fuels": ["petrol E10", "race petrol", "E85"],
    },
    {
        "name": "Gannet rail pump, 60 mm",
        "curves": [
            _curve(9.5, (0, 256), (300, 186), (500, 128), (600, 88)),
            _curve(11.5, (0, 330), (300, 262), (500, 206), (600, 168)),
            _curve(13.5, (0, 402), (300, 334), (500, 278), (600, 244)),
        ],
        "stands": "outside",
        "outlet": "M14 × 1.5",
        "fuels": ["petrol E10", "race petrol", "E85", "methanol"],
    },
]

_RING = {
    "kind": "flange",
    "hole_mm": 122.0,
    "outer_mm": 168.0,
    "bolt_circle_mm": 148.0,
    "bolts": 10,
    "bolt_mm": 6.5,
    "torque_nm": 8.0,
    "plate_mm": 6.0,
}


def _boss(hole: float, outer: float, thread: str) -> dict[str, Any]:
    return {"kind": "boss", "hole_mm": hole, "outer_mm": outer, "thread": thread}


PARTS: list[dict[str, Any]] = [
    {
        "name": "Pot module, 230 deep",
        "role": "pickup",
        "stands_mm": 32.0,
        "across_mm": 150.0,
        "hangs_mm": 229.0,
        "hangs_across_mm": 112.0,
        "diagonal_mm": 118.0,
        "spanner_mm": 95.0,
        "seat": _RING,
        "hanger": {"kind": "module", "made_for_mm": 230.0, "bracket_mm": 70.0, "pump_mm": 118.0, "strainer_mm": 14.0},
    },
    {
        "name": "Short module, 140 deep",
        "role": "pickup",
        "stands_mm": 30.0,
        "across_mm": 110.0,
        "hangs_mm": 132.0,
        "hangs_across_mm": 84.0,
        "diagonal_mm": 90.0,
        "spanner_mm": 70.0,
        "seat": {"kind": "lock ring", "hole_mm": 94.0, "outer_mm": 132.0, "plate_mm": 6.0},
        "hanger": {
            "kind": "module",
            "made_for_mm": 140.0,
            "sprung": True,
            "bracket_mm": 30.0,
            "pump_mm": 70.0,
            "strainer_mm": 10.0,
        },
    },
    {
        "name": "Draw tube, 12 mm, uncut",
        "role": "pickup",
        "stands_mm": 35.0,
        "across_mm": 40.0,
        "seat": _boss(21.0, 40.0, "G 1/2"),
        "hanger": {"kind": "tube", "made_for_mm": 450.0, "grip_mm": 0.0},
    },
    {
        "name": "Vent with roll-over valve, 10 mm",
        "role": "vent",
        "stands_mm": 46.0,
        "across_mm": 34.0,
        "spanner_mm": 28.0,
        "seat": _boss(16.0, 30.0, "M16 × 1.5"),
        "vent": {"bore_mm": 10.0, "opens_kpa": 0.3, "rollover": True},
    },
    {
        "name": "Deck vent, 16 mm",
        "role": "vent",
        "stands_mm": 60.0,
        "across_mm": 40.0,
        "spanner_mm": 32.0,
        "seat": _boss(21.0, 40.0, "G 1/2"),
        "vent": {"bore_mm": 16.0},
    },
    {
        "name": "Filler neck, 51 mm",
        "role": "filler",
        "stands_mm": 70.0,
        "across_mm": 76.0,
        "seat": {"kind": "neck", "hole_mm": 51.0, "outer_mm": 63.0},
        "neck": {"bore_mm": 51.0},
    },
    {
        "name": "Flush filler, 38 mm",
        "role": "filler",
        "stands_mm": 24.0,
        "across_mm": 66.0,
        "seat": {"kind": "neck", "hole_mm": 44.0, "outer_mm": 56.0},
        "neck": {"bore_mm": 38.0},
    },
    {
        "name": "Elbow vent, 8 mm",
        "role": "vent",
        "stands_mm": 22.0,
        "across_mm": 26.0,
        "spanner_mm": 22.0,
        "seat": _boss(12.0, 24.0, "M12 × 1.5"),
        "vent": {"bore_mm": 8.0},
    },
    {
        "name": "Return boss, 8 mm",
        "role": "return",
        "stands_mm": 30.0,
        "across_mm": 30.0,
        "spanner_mm": 26.0,
        "seat": _boss(14.0, 28.0, "M14 × 1.5"),
    },
    {
        "name": "Drain boss",
        "role": "drain",
        "stands_mm": 12.0,
        "across_mm": 30.0,
        "seat": _boss(17.0, 34.0, "M18 × 1.5"),
    },
]

SENDERS: list[dict[str, Any]] = [
    {
        "name": "Swing arm, 150 mm",
        "action": {"kind": "swing arm", "made_arm_mm": 150.0, "empty_deg": -44.0, "full_deg": 40.0, "float_mm": 38.0},
        "ohms_empty": 240.0,
        "ohms_full": 33.0,
        "fuels": ["petrol E10", "race petrol", "diesel", "kerosene", "avgas 100"],
    },
    {
        "name": "Reed tube",
        "action": {"kind": "tube"},
        "ohms_empty": 10.0,
        "ohms_full": 180.0,
        "fuels": ["petrol E10", "race petrol", "E85", "methanol", "diesel", "kerosene", "avgas 100"],
    },
]


def part(name: str, port: str, x: float, y: float, **more: Any) -> dict[str, Any]:
    """A port of a design, fitted with a part of the library."""
    found = next(item for item in PARTS if item["name"] == name)
    return found | {"id": port, "name": port.replace("-", " "), "part": name, "x_mm": x, "y_mm": y} | more


def sender(name: str, called: str, x: float, y: float, **more: Any) -> dict[str, Any]:
    """A sender of a design, as the library has it."""
    found = next(item for item in SENDERS if item["name"] == name)
    return found | {"id": called.replace(" ", "-"), "name": called, "x_mm": x, "y_mm": y} | more


def fitted(place: int, *, spare: bool = False) -> dict[str, Any]:
    """One of the library's pumps in a design."""
    return {"id": f"pump-{place + 1}", "pump": PUMPS[place], "spare": spare}
