"""Ways to bridge a dry spell, side by side: litres, seconds, joints, metal, and why one can't be had."""

from math import pi
from typing import Any
from unittest import TestCase

from keel.analysis.showing import Showing
from keel.evaluation import evaluate
from keel.formats.document import design_from
from keel.reference.metals import METALS
from keel.studies.demand.surge_methods import SurgeAnswer, cylinder_for, slender_box_for

CASE = {"id": "now", "name": "Now", "measured_l_per_h": 180.0}
"""Twenty seconds of it are a litre, and a fifth more by the house rule."""
BOX = {"length_mm": 800.0, "width_mm": 400.0, "height_mm": 350.0, "thickness_mm": 3.0, "bend_radius_mm": 0.0}
SUMP = {"kind": "sump", "id": "s", "name": "sump", "a_mm": 100, "b_mm": 100, "long_mm": 206, "wide_mm": 156}
DOOR = {"at_mm": 200.0, "wide_mm": 60.0, "high_mm": 25.0}
PLATE = {"kind": "baffle", "id": "b", "name": "plate", "axis": "x", "at_mm": 400.0, "doors": [DOOR]}
SUMP_WAY, POT_WAY, OUTSIDE_WAY, PICKUPS_WAY = range(4)


def pickup(name: str = "p", **more: Any) -> dict[str, Any]:
    """A pickup in the middle of the tank."""
    return {"id": name, "name": name, "role": "pickup", "x_mm": 300, "y_mm": 200} | more


def answer(
    seconds: float = 20.0, *, ports: tuple[Any, ...] = (), features: tuple[Any, ...] = (), **shell: Any
) -> SurgeAnswer:
    """What a tank whose pickup is dry for so long is told."""
    brief = {"cases": [CASE], "surge": {"uncovered_s": seconds}}
    document = {"brief": brief, "shell": BOX | {"features": list(features)} | shell, "ports": list(ports)}
    found = evaluate(design_from(document), None, Showing(remedies=False)).brief.surge
    assert found is not None
    return found


class Figures(TestCase):
    """Each way by hand."""

    def test_size(self) -> None:
        """180 L/h over 20 s and a fifth: 1.2 L, whatever the way."""
        found = answer()
        self.assertAlmostEqual(found.sizing.volume_l, 1.2)
        self.assertEqual((found.case, found.engine_l_per_h), ("Now", 180.0))
        for way in (POT_WAY, OUTSIDE_WAY):
            self.assertAlmostEqual(found.methods[way].holds_l, 1.2)
            self.assertAlmostEqual(found.methods[way].lasts_s, 24.0)

    def test_a_sump_with_doors(self) -> None:
        """It holds what is in it, 200 by 150 by 50 mm, for half a minute; without doors it keeps nothing there."""
        ways = answer(features=(SUMP | {"deep_mm": 50}, PLATE)).methods
        self.assertAlmostEqual(ways[SUMP_WAY].holds_l, 1.5, places=3)
        self.assertAlmostEqual(ways[SUMP_WAY].lasts_s, 30.0, delta=0.05)
        self.assertTrue(ways[SUMP_WAY].possible)
        shut = answer(features=(SUMP | {"deep_mm": 50},)).methods[SUMP_WAY]
        self.assertFalse(shut.possible)
        self.assertIn("no trap doors", shut.why.plain())
        none = answer().methods[SUMP_WAY]
        self.assertEqual((none.possible, none.holds_l), (False, 0.0))
        self.assertIn("no sump yet", none.why.plain())

    def test_metal_of_an_upright_cylinder(self) -> None:
        """Wall and two ends of 2.5 mm of the tank's own metal, 2.2 times as high as wide."""
        across, tall = cylinder_for(1.2)
        self.assertAlmostEqual(pi / 4 * across**2 * tall / 1e6, 1.2)
        self.assertAlmostEqual(tall / across, 2.2)
        square, high = slender_box_for(1.2)
        self.assertAlmostEqual(square**2 * high / 1e6, 1.2)
        self.assertAlmostEqual(high / square, 2.2)
        sheet_m3 = (pi * across * tall + 2 * pi / 4 * across**2) * 2.5e-9
        for metal in ("5052-H32", "mild steel"):
            kg = sheet_m3 * METALS[metal].density_kg_per_m3  # type: ignore[index]
            for way in (POT_WAY, OUTSIDE_WAY):
                self.assertAlmostEqual(answer(metal=metal).methods[way].metal_kg, kg)

    def test_joints(self) -> None:
        """Nothing more for a sump; the tank outside has most; a second pickup two of its own, a third too."""
        for present, joints in ((0, 4), (1, 2), (2, 2)):
            ways = answer(ports=tuple(pickup(f"p{n}", y_mm=100 + 150 * n) for n in range(present))).methods
            self.assertEqual([way.joints for way in ways], [0, 2, 10, joints])
            self.assertEqual([way.hoses for way in ways], [0, 1, 5, 1])
            self.assertTrue(ways[PICKUPS_WAY].why.plain().startswith(f"{present} now"))
            self.assertEqual(ways[PICKUPS_WAY].lasts_s, 0.0)


class Favoured(TestCase):
    """Fewest joints of those that last and can be had."""

    def favoured(self, seconds: float = 20.0, **more: Any) -> int:
        """Its place; there is just one."""
        marks = [way.favoured for way in answer(seconds, **more).methods]
        self.assertEqual(sum(marks), 1)
        return marks.index(True)

    def test_in_turn(self) -> None:
        """The sump while it lasts, then the pot, then, where no pot goes in, the tank outside."""
        sump = (SUMP | {"deep_mm": 50}, PLATE)
        self.assertEqual(self.favoured(29.9, features=sump), SUMP_WAY)
        self.assertEqual(self.favoured(30.1, features=sump), POT_WAY)
        self.assertEqual(self.favoured(20.0, features=sump[:1]), POT_WAY)
        self.assertEqual(self.favoured(20.0, height_mm=100), OUTSIDE_WAY)


class NoPot(TestCase):
    """Why a pot can't be had."""

    def why(self, **more: Any) -> str:
        """What is said of it."""
        way = answer(**more).methods[POT_WAY]
        self.assertFalse(way.possible)
        return way.why.plain()

    def test_too_flat_a_tank(self) -> None:
        """As high as it would be wide and a hand over it is the least: 89 and 25 mm for 1.2 L."""
        across, _ = cylinder_for(1.2)
        least = across + 25
        self.assertTrue(answer(height_mm=least + 6.5).methods[POT_WAY].possible)
        self.assertIn("deep inside", self.why(height_mm=least + 5.5))

    def test_lower_it_grows_wider(self) -> None:
        """The same litres under a lower roof: as wide as they come to."""
        said = answer(height_mm=156).methods[POT_WAY].why.values
        self.assertAlmostEqual(float(said["tall_mm"]), 125.0)
        self.assertAlmostEqual(pi / 4 * float(said["across_mm"]) ** 2 * 125 / 1e6, 1.2)

    def test_too_narrow(self) -> None:
        """Wider than the tank is inside."""
        self.assertIn("no room", self.why(seconds=600.0, width_mm=200))

    def test_what_hangs_is_too_wide(self) -> None:
        """With 5 mm all round: a hanger of 70 mm goes into a pot of 89, one of 85 doesn't."""
        self.assertTrue(answer(ports=(pickup(hangs_across_mm=70, hangs_mm=300),)).methods[POT_WAY].possible)
        said = self.why(ports=(pickup("module", hangs_across_mm=85, hangs_mm=300),))
        self.assertTrue(said.startswith("module is 85 mm wide"), said)

    def test_what_hangs_is_too_short(self) -> None:
        """A module that stops short of the floor draws nothing out of a pot on it."""
        hanger = {"made_for_mm": 200.0, "kind": "module"}
        said = self.why(ports=(pickup("module", hangs_across_mm=60, hangs_mm=200, hanger=hanger),))
        self.assertIn("short of its foot", said)
