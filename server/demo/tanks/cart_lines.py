"""The service cart's lines: two fuels, and nothing in common between them."""

from typing import Any

from server.demo.line_joints import joint
from server.demo.line_parts import line_part, run

RUBBER: dict[str, Any] = {"seals": ["fluoroelastomer"], "heading_deg": 270.0}


def _side(fuel: str, x: float) -> tuple[list[dict[str, Any]], list[dict[str, Any]]]:
    """Separator, pump, filter and nozzle of one fuel, down the cart's right side."""
    nozzle = [joint("in", "G parallel", "3/8", seal="fluoroelastomer")]
    screen, pump, fine, end = (f"{fuel}-{what}" for what in ("screen", "pump", "filter", "nozzle"))
    parts = [
        line_part("Water separator, 30 µm, 8 mm tails", screen, (x, -150.0, 200.0), f"{fuel} separator", **RUBBER),
        line_part("Tern lift pump, 8 mm tails", pump, (x, -350.0, 150.0), f"{fuel} pump", **RUBBER),
        line_part("Fine filter, 5 µm, 8 mm tails", fine, (x, -530.0, 200.0), f"{fuel} filter", **RUBBER),
        line_part("Delivery nozzle, 3/8 in", end, (x, -850.0, 300.0), f"{fuel} nozzle", connections=nozzle, **RUBBER)
        | {"fuels": ["avgas 100" if fuel == "avgas" else fuel]},
    ]
    hose = {"rated_kpa": 1000.0}
    runs = [
        run(
            f"{fuel}-draw",
            f"{fuel} suction hose",
            f"tank.{fuel}-draw",
            f"{screen}.in",
            8.0,
            corners=[(x, 5.0, 363.0), (x, 5.0, 200.0)],
            **hose,
        ),
        run(f"{fuel}-to-pump", f"hose to the {fuel} pump", f"{screen}.out", f"{pump}.in", 8.0, **hose),
        run(f"{fuel}-to-filter", f"hose to the {fuel} filter", f"{pump}.out", f"{fine}.in", 8.0, **hose),
        run(f"{fuel}-delivery", f"{fuel} delivery hose", f"{fine}.out", f"{end}.in", 8.0, length_mm=6000.0, **hose),
    ]
    return parts, runs


AVGAS, KEROSENE = _side("avgas", 325.0), _side("kerosene", 705.0)

CART_LINES: dict[str, Any] = {
    "parts": [*AVGAS[0], *KEROSENE[0]],
    "runs": [*AVGAS[1], *KEROSENE[1]],
    "modes": [
        {"id": "avgas", "name": "Avgas delivery", "draw_l_per_h": 180.0, "still": ["kerosene-pump", "kerosene-nozzle"]},
        {"id": "kerosene", "name": "Kerosene delivery", "draw_l_per_h": 180.0, "still": ["avgas-pump", "avgas-nozzle"]},
        {"id": "hot", "name": "Avgas delivery, hot", "draw_l_per_h": 180.0, "fuel_c": 40.0}
        | {"still": ["kerosene-pump", "kerosene-nozzle"]},
        {"id": "low", "name": "Kerosene, low voltage", "draw_l_per_h": 180.0, "voltage_v": 11.5}
        | {"still": ["avgas-pump", "avgas-nozzle"]},
    ],
    "fuels": [
        {"cell": "rear cell", "fuel": "avgas 100", "label": "AVGAS 100, red band", "spout_mm": 49.0},
        {"cell": "front cell", "fuel": "kerosene", "label": "KEROSENE, black band", "spout_mm": 40.0},
    ],
}
