"""The pilot cutter's lines: a lift pump, two filters, and a jet pump in the return that empties the far lobe."""

from typing import Any

from server.demo.line_parts import line_part, run

DIESEL: dict[str, Any] = {"hose": "nitrile hose", "rated_kpa": 1000.0}

THROUGH: dict[str, Any] = {"panel": "engine-bulkhead"}

DAY_LINES: dict[str, Any] = {
    "parts": [
        line_part("Water separator, 30 µm, 8 mm tails", "separator", (840.0, 230.0, 480.0), "water separator"),
        line_part("Tern lift pump, 8 mm tails", "lift", (1060.0, 230.0, 480.0), "lift pump", does={"lifts_mm": 600.0}),
        line_part("Fine filter, 5 µm, 8 mm tails", "filter", (1390.0, 330.0, 480.0), "fine filter"),
        line_part("Injection pump, 8 mm tails", "injection", (1750.0, 560.0, 420.0), "injection pump"),
        line_part("Whimbrel jet pump, 8 mm tails", "jet", (600.0, 640.0, 520.0), "jet pump", heading_deg=270.0),
        line_part(
            "Vent end with flame screen, 18 mm tail", "vent-end", (540.0, 1240.0, 1150.0), "vent end at the coaming"
        ),
    ],
    "runs": [
        run("draw", "suction hose", "tank.starboard-draw", "separator.in", 8.0, **DIESEL),
        run("to-lift", "hose to the lift pump", "separator.out", "lift.in", 8.0, passes=[THROUGH], **DIESEL),
        run(
            "to-filter",
            "hose to the fine filter",
            "lift.out",
            "filter.in",
            8.0,
            corners=[(1190.0, 230.0, 480.0), (1250.0, 330.0, 480.0)],
            **DIESEL,
        ),
        run(
            "to-engine",
            "hose to the injection pump",
            "filter.out",
            "injection.in",
            8.0,
            corners=[(1540.0, 330.0, 460.0), (1540.0, 560.0, 420.0)],
            **DIESEL,
        ),
        run(
            "drive",
            "return to the jet pump",
            "injection.return",
            "jet.drive",
            8.0,
            corners=[(1750.0, 765.0, 460.0), (1300.0, 765.0, 520.0), (600.0, 765.0, 520.0)],
            passes=[THROUGH],
            **DIESEL,
        ),
        run(
            "far-lobe",
            "hose from the port lobe",
            "tank.port-draw",
            "jet.suction",
            8.0,
            corners=[(450.0, 950.0, 560.0), (720.0, 850.0, 570.0), (720.0, 640.0, 520.0)],
            **DIESEL,
        ),
        run(
            "back",
            "hose to the starboard lobe",
            "jet.out",
            "tank.return",
            8.0,
            corners=[(600.0, 480.0, 520.0), (650.0, 230.0, 548.0)],
            **DIESEL,
        ),
        run(
            "vent",
            "vent hose",
            "tank.vent",
            "vent-end.in",
            18.0,
            corners=[(690.0, 1240.0, 540.0), (300.0, 1240.0, 700.0), (300.0, 1240.0, 1150.0)],
            length_mm=3000.0,
            hose="nitrile hose",
        ),
    ],
    "reid_kpa": 1.0,
    "old": [
        {
            "id": "old-suction",
            "name": "old suction hose",
            "did": "from tank to separator",
            "fate": "remove",
        },
        {"id": "old-return", "name": "old return pipe", "did": "back from the injectors", "fate": "cap"}
        | {"closed_by": "8 mm plug, clamped"},
        {"id": "old-sender", "name": "sender wire, green", "kind": "wire", "did": "to the gauge", "fate": "move"}
        | {"to": "wire.w13"},
        {"id": "old-breather", "name": "thin hose to the coaming", "kind": "vapour part", "did": ""},
    ],
}
