"""The buggy's lines: two pumps in the module, one of them a spare; filter, rail, a referenced regulator, a return."""

from typing import Any

from server.demo.line_parts import line_part, run

RAID_LINES: dict[str, Any] = {
    "parts": [
        line_part(
            "Shag in-tank pump, with its check valve",
            "pump-1",
            (190.0, 200.0, 90.0),
            "pump 1",
            hangs_in="module",
            does={"fuse": "fuse A", "relay": "relay A", "switch": "cut-off"},
        ),
        line_part(
            "Shag in-tank pump, with its check valve",
            "pump-2",
            (190.0, 240.0, 90.0),
            "pump 2, spare",
            hangs_in="module",
            does={
                "fuse": "fuse B",
                "relay": "relay B",
                "switch": "cut-off",
                "spare": True,
                "brought_in": "switch on the dash, from pump A to pump B",
            },
        ),
        line_part(
            "In-tank outlet block, 8 mm tails", "block", (190.0, 220.0, 300.0), "outlet block", hangs_in="module"
        ),
        line_part("Dunlin main filter, 10 µm, -6", "filter", (720.0, -35.0, 110.0), "main filter"),
        line_part("Rail for four injectors, -6 bosses", "rail", (1500.0, 130.0, 520.0), "rail"),
        line_part("Ruff regulator, referenced, -6", "regulator", (1810.0, 130.0, 520.0), "regulator"),
    ],
    "runs": [
        run("riser-1", "hose from pump 1", "pump-1.out", "block.a", 8.0, length_mm=190.0),
        run("riser-2", "hose from pump 2", "pump-2.out", "block.b", 8.0, length_mm=190.0),
        run(
            "supply",
            "supply tube",
            "block.c",
            "filter.in",
            rated_kpa=2000.0,
            kind="tube",
            outside_mm=9.53,
            corners=[(190.0, 220.0, 460.0), (190.0, -35.0, 460.0), (190.0, -35.0, 110.0)],
        ),
        run(
            "to-rail",
            "hose to the rail",
            "filter.out",
            "rail.in",
            rated_kpa=2000.0,
            corners=[(1100.0, -35.0, 110.0), (1200.0, 130.0, 520.0)],
            passes=[{"panel": "firewall"}],
        ),
        run("after-rail", "hose to the regulator", "rail.out", "regulator.in", rated_kpa=2000.0),
        run(
            "return",
            "return hose",
            "regulator.return",
            "tank.return",
            rated_kpa=2000.0,
            corners=[
                (1810.0, 250.0, 520.0),
                (1810.0, 250.0, 300.0),
                (1810.0, -85.0, 60.0),
                (560.0, -85.0, 60.0),
                (560.0, -85.0, 405.0),
            ],
            passes=[{"panel": "firewall"}],
        ),
        run(
            "reference",
            "reference hose",
            "regulator.reference",
            "rail.manifold",
            6.0,
            corners=[(1810.0, 50.0, 520.0), (1500.0, 50.0, 520.0)],
        ),
    ],
}


def hung_in(port: str) -> dict[str, Any]:
    """The same with its pumps in another port."""
    parts = [part | ({"hangs_in": port} if "hangs_in" in part else {}) for part in RAID_LINES["parts"]]
    return RAID_LINES | {"parts": parts}
