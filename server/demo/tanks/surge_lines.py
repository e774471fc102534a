"""The single-seater's lines: a lift pump keeps the surge cylinder full, the rail pump draws from it."""

from typing import Any

from server.demo.line_parts import line_part, run

SURGE_LINES: dict[str, Any] = {
    "parts": [
        line_part("Main tank, -8", "main", (-520.0, 130.0, 120.0), "main tank"),
        line_part("Sandpiper suction screen, -8", "screen", (-220.0, 40.0, 60.0), "lift screen"),
        line_part("Tern lift pump, 8 mm tails", "lift", (-60.0, -60.0, 60.0), "lift pump", does={"lifts_mm": 450.0}),
        line_part("Tee, -6", "tee", (20.0, 128.0, 140.0), "tee into the cylinder"),
        line_part("Gannet rail pump, 60 mm, -8 in, -6 out", "pump", (420.0, 300.0, 60.0), "rail pump"),
        line_part("Dunlin main filter, 10 µm, -6", "filter", (660.0, 300.0, 120.0), "main filter"),
        line_part("Rail for four injectors, -6 bosses", "rail", (1100.0, 200.0, 320.0), "rail")
        | {"does": {"kind": "rail", "injectors": 4, "rated_l_per_h": 46.0, "rated_kpa": 300.0, "bore_mm": 13.0}},
        line_part("Ruff regulator, referenced, -6", "regulator", (1480.0, 200.0, 320.0), "regulator"),
    ],
    "runs": [
        run("draw", "suction hose", "main.out", "screen.in", 11.1, rated_kpa=700.0),
        run("to-lift", "hose to the lift pump", "screen.out", "lift.in", 8.0, rated_kpa=700.0),
        run("to-tee", "hose to the tee", "lift.out", "tee.a", 8.0, rated_kpa=700.0, sleeved=True),
        run("in", "hose into the cylinder", "tee.b", "tank.lift", rated_kpa=700.0),
        run(
            "feed",
            "hose to the rail pump",
            "tank.draw",
            "pump.in",
            11.1,
            rated_kpa=700.0,
            corners=[(157.0, 300.0, 313.0), (157.0, 300.0, 60.0)],
        ),
        run("to-filter", "hose to the filter", "pump.out", "filter.in", rated_kpa=2000.0),
        run("to-rail", "hose to the rail", "filter.out", "rail.in", rated_kpa=2000.0),
        run("after-rail", "hose to the regulator", "rail.out", "regulator.in", rated_kpa=2000.0),
        run(
            "return",
            "return hose",
            "regulator.return",
            "tee.c",
            rated_kpa=2000.0,
            corners=[(1480.0, 60.0, 300.0), (60.0, 60.0, 200.0)],
        ),
        run(
            "overflow",
            "overflow hose",
            "tank.back",
            "main.overflow",
            10.0,
            rated_kpa=700.0,
            corners=[(310.0, 129.0, 250.0), (310.0, -30.0, 230.0), (-200.0, -30.0, 150.0)],
        ),
        run(
            "reference",
            "reference hose",
            "regulator.reference",
            "rail.manifold",
            6.0,
            corners=[(1480.0, 110.0, 320.0), (1100.0, 110.0, 320.0)],
        ),
    ],
}
