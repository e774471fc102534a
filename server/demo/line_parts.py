"""Line parts of the made-up workshop's library. No maker sells any of them."""

from typing import Any

from server.demo.library import PUMPS
from server.demo.line_joints import bosses, flares, joint
from server.demo.more_line_parts import MORE_PARTS

LINE_PARTS: list[dict[str, Any]] = [
    {
        "name": "Shag in-tank pump, with its check valve",
        "does": {
            "kind": "pump",
            "place": "in the tank",
            "curves": PUMPS[1]["curves"],
            "check_opens_kpa": 6.0,
            "current_a": 7.5,
            "dead_head_kpa": 720.0,
            "noise_db": 48.0,
            "minutes_to_replace": 35.0,
        },
        "connections": [joint("in", "hose tail", "12 mm"), joint("out", "hose tail", "8 mm")],
        "long_mm": 118.0,
        "across_mm": 39.0,
        "rated_kpa": 800.0,
        "seals": ["fluoroelastomer"],
        "fuels": ["petrol E10", "race petrol", "E85"],
        "kg": 0.4,
        "price": 96.0,
    },
    {
        "name": "Gannet rail pump, 60 mm, -8 in, -6 out",
        "does": {
            "kind": "pump",
            "curves": PUMPS[2]["curves"],
            "check_opens_kpa": 8.0,
            "current_a": 11.5,
            "dead_head_kpa": 900.0,
            "lifts_mm": 300.0,
            "noise_db": 63.0,
            "minutes_to_replace": 20.0,
        },
        "connections": [*flares("-8", "in"), *flares("-6", "out")],
        "long_mm": 190.0,
        "across_mm": 60.0,
        "rated_kpa": 1000.0,
        "metal": "6061-T6",
        "seals": ["fluoroelastomer"],
        "fuels": ["petrol E10", "race petrol", "E85", "methanol"],
        "kg": 1.1,
        "price": 178.0,
    },
    {
        "name": "Tern lift pump, 8 mm tails",
        "does": {
            "kind": "pump",
            "curves": PUMPS[0]["curves"],
            "current_a": 3.0,
            "dead_head_kpa": 85.0,
            "lifts_mm": 450.0,
            "noise_db": 58.0,
            "minutes_to_replace": 15.0,
        },
        "connections": [joint("in", "hose tail", "8 mm"), joint("out", "hose tail", "8 mm")],
        "long_mm": 110.0,
        "across_mm": 50.0,
        "rated_kpa": 200.0,
        "seals": ["nitrile"],
        "kg": 0.5,
        "price": 44.0,
    },
    {
        "name": "Sandpiper suction screen, -8",
        "does": {
            "kind": "filter",
            "stage": "screen",
            "fineness_um": 100.0,
            "area_cm2": 65.0,
            "linear": 0.0015,
            "square": 0.000004,
            "loaded_times": 3.0,
            "swap_hours": 100.0,
            "element": "stainless mesh",
            "minutes_to_replace": 10.0,
        },
        "connections": flares("-8", "in", "out"),
        "long_mm": 140.0,
        "across_mm": 55.0,
        "rated_kpa": 700.0,
        "metal": "6061-T6",
        "seals": ["fluoroelastomer"],
        "kg": 0.35,
        "price": 62.0,
    },
    {
        "name": "Dunlin main filter, 10 µm, -6",
        "does": {
            "kind": "filter",
            "stage": "main",
            "fineness_um": 10.0,
            "area_cm2": 900.0,
            "linear": 0.02,
            "square": 0.00005,
            "loaded_times": 4.0,
            "swap_hours": 60.0,
            "element": "glass fibre",
            "minutes_to_replace": 12.0,
        },
        "connections": flares("-6", "in", "out"),
        "long_mm": 150.0,
        "across_mm": 60.0,
        "rated_kpa": 1000.0,
        "metal": "6061-T6",
        "seals": ["fluoroelastomer"],
        "kg": 0.5,
        "price": 58.0,
    },
    {
        "name": "Knot check valve, -6",
        "does": {"kind": "check valve", "opens_kpa": 6.0, "square": 0.0003},
        "connections": flares("-6", "in", "out"),
        "long_mm": 60.0,
        "across_mm": 25.0,
        "rated_kpa": 1500.0,
        "metal": "6061-T6",
        "seals": ["fluoroelastomer"],
        "kg": 0.08,
        "price": 29.0,
    },
    {
        "name": "Quarter-turn valve, -8",
        "does": {"kind": "isolating valve", "bore_mm": 10.5, "fittings_k": 0.4},
        "connections": flares("-8", "in", "out"),
        "long_mm": 75.0,
        "across_mm": 40.0,
        "rated_kpa": 1000.0,
        "metal": "stainless 304L",
        "seals": ["PTFE"],
        "kg": 0.3,
        "price": 41.0,
    },
    {
        "name": "Tee, -6",
        "does": {"kind": "tee", "bore_mm": 8.0, "fittings_k": 0.9},
        "connections": flares("-6", "a", "b", "c"),
        "long_mm": 60.0,
        "across_mm": 30.0,
        "rated_kpa": 1500.0,
        "metal": "6061-T6",
        "kg": 0.09,
        "price": 18.0,
    },
    {
        "name": "In-tank outlet block, 8 mm tails",
        "does": {"kind": "tee", "bore_mm": 7.0, "fittings_k": 0.9},
        "connections": [joint(name, "hose tail", "8 mm") for name in ("a", "b")] + flares("-6", "c"),
        "long_mm": 60.0,
        "across_mm": 40.0,
        "rated_kpa": 1000.0,
        "metal": "6061-T6",
        "kg": 0.12,
        "price": 36.0,
    },
    {
        "name": "Rail for four injectors, -6 bosses",
        "does": {
            "kind": "rail",
            "injectors": 4,
            "rated_l_per_h": 30.0,
            "rated_kpa": 300.0,
            "duty_limit": 0.85,
            "bore_mm": 13.0,
        },
        "connections": bosses("-6", "in", "out"),
        "long_mm": 380.0,
        "across_mm": 30.0,
        "rated_kpa": 1000.0,
        "metal": "6061-T6",
        "seals": ["fluoroelastomer"],
        "kg": 0.5,
        "price": 110.0,
    },
    {
        "name": "Ruff regulator, referenced, -6",
        "does": {
            "kind": "regulator",
            "way": "bypass",
            "set_kpa": 300.0,
            "is_referenced": True,
            "rises": [
                {"l_per_h": 0.0, "kpa": 0.0},
                {"l_per_h": 220.0, "kpa": 0.0},
                {"l_per_h": 320.0, "kpa": 14.0},
                {"l_per_h": 420.0, "kpa": 46.0},
            ],
            "wide_open": 0.0009,
        },
        "connections": [
            *bosses("-6", "in", "return"),
            *({**one, "capped": True} for one in bosses("-6", "out")),
            joint("reference", "hose tail", "6 mm"),
        ],
        "long_mm": 70.0,
        "across_mm": 60.0,
        "rated_kpa": 1000.0,
        "metal": "6061-T6",
        "seals": ["fluoroelastomer"],
        "fuels": ["petrol E10", "race petrol", "E85", "methanol"],
        "kg": 0.4,
        "price": 132.0,
    },
    {
        "name": "Ruff regulator, constant, with a 10 µm filter",
        "does": {
            "kind": "regulator",
            "way": "bypass",
            "set_kpa": 400.0,
            "rises": [
                {"l_per_h": 0.0, "kpa": 0.0},
                {"l_per_h": 160.0, "kpa": 0.0},
                {"l_per_h": 260.0, "kpa": 20.0},
            ],
            "wide_open": 0.002,
            "fineness_um": 10.0,
            "filter_linear": 0.03,
        },
        "connections": [joint(name, "quick connector", "8 mm") for name in ("in", "out", "return")],
        "long_mm": 160.0,
        "across_mm": 70.0,
        "rated_kpa": 700.0,
        "metal": "stainless 304L",
        "seals": ["fluoroelastomer"],
        "kg": 0.45,
        "price": 74.0,
    },
    *MORE_PARTS,
]


def line_part(name: str, key: str, at: tuple[float, float, float], called: str = "", **more: Any) -> dict[str, Any]:
    """A part of the library where it is put; `does` adds to what it does."""
    found = next(part for part in LINE_PARTS if part["name"] == name)
    does = found["does"] | more.pop("does", {})
    place = {"x_mm": at[0], "y_mm": at[1], "z_mm": at[2]}
    return found | place | {"id": key, "name": called or name, "part": name, "does": does} | more


def run(key: str, name: str, start: str, end: str, bore_mm: float = 7.9, **more: Any) -> dict[str, Any]:
    """A hose from 'part.connection' to 'part.connection'; corners are places."""

    def end_of(text: str) -> dict[str, Any]:
        part, _, port = text.partition(".")
        return {"part": part, "port": port}

    if "corners" in more:
        more["corners"] = [dict(zip(("x_mm", "y_mm", "z_mm"), at, strict=True)) for at in more["corners"]]
    return {"id": key, "name": name, "start": end_of(start), "end": end_of(end), "bore_mm": bore_mm} | more
