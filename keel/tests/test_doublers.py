"""Rings round ports."""

from math import hypot, pi
from unittest import TestCase

from keel.reference.metals import METALS
from keel.studies.sheet.flats import FLATS
from keel.studies.sheet.hole_checks import HOLE_CHECKS
from keel.tests.test_let_in import tank

SEAT = {"kind": "flange", "hole_mm": 94.0, "outer_mm": 132.0, "bolt_circle_mm": 113.0, "bolts": 6, "bolt_mm": 6.0}


class Rings(TestCase):
    """A module's ring of 6 mm, and a boss without one."""

    def test_a_ring(self) -> None:
        """As wide, thick and heavy as its seat says, less every hole; its bolts on their circle, the first one up."""
        ports = [
            {"id": "m", "name": "module", "role": "pickup", "x_mm": 300, "y_mm": 200, "seat": SEAT | {"plate_mm": 6.0}},
            {
                "id": "v",
                "name": "vent",
                "role": "vent",
                "x_mm": 100,
                "y_mm": 90,
                "seat": {"hole_mm": 20, "outer_mm": 34},
            },
        ]
        made = {part.name: part for part in tank(ports=ports)[FLATS].parts}
        self.assertEqual([name for name in made if name.startswith("ring-")], ["ring-m"])
        ring = made["ring-m"]
        self.assertAlmostEqual(ring.length_mm, 132, delta=0.1)
        self.assertEqual((ring.thickness_mm, ring.title, ring.feature), (6.0, "Ring of module", "m"))
        area = pi / 4 * (132**2 - 94**2 - 6 * 6**2)
        self.assertAlmostEqual(ring.area_mm2 / area, 1, places=5)
        self.assertAlmostEqual(ring.mass_kg, area * 6 * METALS["5052-H32"].density_kg_per_m3 / 1e9, places=4)
        middle, *bolts = [bore.middle for bore in ring.bores]
        for bolt in bolts:
            self.assertAlmostEqual(hypot(bolt[0] - middle[0], bolt[1] - middle[1]), 56.5)
        self.assertAlmostEqual(bolts[0][0], middle[0])
        self.assertGreater(bolts[0][1], middle[1])
        shell = [
            part for part in made.values() if any(bore.port == "m" for bore in part.bores) and part.name != "ring-m"
        ]
        self.assertEqual(len(shell), 1, "its hole is in the shell too")
        # The ring's hole is judged where it is in the shell, not against the ring's own rim.
        self.assertEqual({check.part for check in tank(ports=ports)[HOLE_CHECKS]}, {shell[0].name})
