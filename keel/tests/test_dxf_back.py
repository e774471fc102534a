"""Every part's DXF read back: what the cutter's computer meets."""

import io
import json
from collections import Counter
from math import hypot, pi
from typing import Any
from unittest import TestCase

import ezdxf
from hypothesis import given, settings
from hypothesis import strategies as st

from keel.analysis.tank import Asked, TankAnalysis
from keel.design.document import Design
from keel.formats.document import UnreadableDesignError, read_design
from keel.formats.dxf import part_dxf
from keel.solid.faults import GeometryError
from keel.studies.sheet.flats import FLATS
from keel.studies.sheet.parts import FlatPart
from keel.tests.test_let_in import RELIEF, STEP, SUMP, WELL, tank
from keel.tests.wild import Wild

LEAST_MM = 1e-4


def area(spots: list[tuple[float, float]]) -> float:
    """Of a closed polyline, by trapezia under its sides."""
    pairs = zip(spots, [*spots[1:], spots[0]], strict=True)
    return abs(sum((bx - ax) * (ay + by) / 2 for (ax, ay), (bx, by) in pairs))


class ReadBack(TestCase):
    """By a library that knows nothing of tanks."""

    def read(self, part: FlatPart) -> None:
        """Closed, nothing doubled or without length, areas and counts right, holes where they belong."""
        text = part_dxf(part, title="t", thickness_mm=part.thickness_mm, metal="5052-H32").decode()
        document = ezdxf.read(io.StringIO(text))
        self.assertEqual(document.header["$INSUNITS"], 4, "millimetres")
        space = document.modelspace()
        rings = []
        for line in space.query('LWPOLYLINE[layer=="CUT"]'):
            self.assertTrue(line.closed)
            spots = [(x, y) for x, y, *_ in line.get_points()]
            rings.append(spots)
            for (ax, ay), (bx, by) in zip(spots, [*spots[1:], spots[0]], strict=True):
                self.assertGreater(hypot(bx - ax, by - ay), LEAST_MM, f"{part.name}: a side without length")
        circles = list(space.query('CIRCLE[layer=="CUT"]'))
        self.assertEqual(len(rings), 1 + len(part.holes))
        self.assertEqual(len(circles), len(part.bores))
        round_holes = sum(pi * circle.dxf.radius**2 for circle in circles)
        self.assertAlmostEqual(area(rings[0]) - sum(map(area, rings[1:])) - round_holes, part.area_mm2, delta=0.1)
        self.assertEqual(
            sorted((round(c.dxf.center.x, 3), round(c.dxf.center.y, 3), round(2 * c.dxf.radius, 3)) for c in circles),
            sorted((round(b.middle[0], 3), round(b.middle[1], 3), round(b.diameter_mm, 3)) for b in part.bores),
        )
        self.assertGreaterEqual(min(x for x, _ in rings[0]), -1e-6)
        self.assertAlmostEqual(max(x for x, _ in rings[0]), part.length_mm, places=4)
        self.assertAlmostEqual(max(y for _, y in rings[0]), part.width_mm, places=4)
        drawn: Counter[Any] = Counter()
        for line in space.query("LINE"):
            ends = sorted((round(p.x, 3), round(p.y, 3)) for p in (line.dxf.start, line.dxf.end))
            self.assertNotEqual(ends[0], ends[1], f"{part.name}: a line without length")
            drawn[line.dxf.layer, *ends] += 1
        drawn.update((round(c.dxf.center.x, 3), round(c.dxf.center.y, 3)) for c in circles)
        self.assertEqual([one for one, count in drawn.items() if count > 1], [], f"{part.name}: drawn twice")
        bends = Counter(line.dxf.layer for line in space.query("LINE") if line.dxf.layer.startswith("BEND"))
        self.assertEqual(sum(bends.values()), len(part.bends))

    def each(self, design: Design) -> int:
        """Every part of a design."""
        parts = TankAnalysis(Asked(design))[FLATS].parts
        for part in parts:
            self.read(part)
        return len(parts)

    def test_every_scheme_with_everything(self) -> None:
        """Wells, sumps, reliefs, steps, crossing baffles, pots and ports at once."""
        inside = [
            {"kind": "baffle", "id": "a", "name": "a", "at_mm": 180},
            {"kind": "baffle", "id": "b", "name": "b", "axis": "y", "at_mm": 300},
            {
                "kind": "pot",
                "id": "p",
                "name": "p",
                "a_mm": 230,
                "b_mm": 60,
                "long_mm": 90,
                "wide_mm": 80,
                "high_mm": 70,
            },
        ]
        seat = {"hole_mm": 40, "outer_mm": 70, "bolt_circle_mm": 55, "bolts": 5, "bolt_mm": 5}
        ports = [
            {"id": f"p{n}", "name": f"port {n}", "role": "spare", "x_mm": x, "y_mm": 90, "seat": seat}
            for n, x in enumerate((90, 400))
        ]
        round_well = WELL | {"form": "round", "long_mm": 110}
        seen = 0
        for scheme in ("wrapper and pans", "two U's", "tray and lid", "flat plates", "wrapper and flat ends"):
            made = tank(round_well, SUMP | {"a_mm": 400}, RELIEF, STEP, *inside, scheme=scheme, ports=ports)
            seen += self.each(made.design)
        self.assertGreater(seen, 70)

    def test_a_filler_on_a_rolled_shell(self) -> None:
        """A hole in a roll stays round on the flat."""
        shell = {"kind": "cylinder", "axis": "x", "diameter_mm": 300, "run_mm": 500, "thickness_mm": 2}
        port = {"id": "f", "name": "filler", "role": "filler", "x_mm": 200, "y_mm": 0, "z_mm": 150, "face": "left"}
        document = {"shell": shell, "ports": [port | {"seat": {"hole_mm": 50, "outer_mm": 80}}]}
        design = read_design(json.dumps(document))
        self.each(design)
        wrapper = TankAnalysis(Asked(design))[FLATS].parts[0]
        self.assertEqual([bore.diameter_mm for bore in wrapper.bores], [50])
        u = wrapper.bores[0].middle[0]
        self.assertAlmostEqual(min(u, pi * 298 - u), pi * 298 / 4, delta=1.0)

    @settings(max_examples=30, deadline=None)
    @given(st.integers(0, 10_000))
    def test_wild_designs(self, seed: int) -> None:
        """Whatever can be made."""
        try:
            self.each(read_design(json.dumps(Wild(seed).document())))
        except (UnreadableDesignError, GeometryError, LookupError):
            return
