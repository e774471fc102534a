"""Vents of a full tank on a slope, against a surface that is found by counting places."""

from math import cos, radians, sin
from typing import Any
from unittest import TestCase

import numpy as np
from hypothesis import given, settings
from hypothesis import strategies as st

from keel.analysis.tank import Asked, TankAnalysis
from keel.design.document import Design
from keel.design.workshop import Workshop
from keel.studies.liquid.capacity import CAPACITY
from keel.studies.ports.attitudes import SLOPE_DEG
from keel.studies.ports.vents_on_slopes import AIR_TRAPPED_ON_SLOPES, UNDER_MM, VENTS_ON_SLOPES
from keel.tests.samples import box

SIZE = (794.0, 394.0, 344.0)
"""Inside of the sample box."""
MANY = 36
SLACK_MM = 6.0
"""The counted surface is no better than its places are near each other."""
# The side that is up: which way its height grows.
WAYS = {
    "nose up": (1.0, 0.0),
    "nose down": (-1.0, 0.0),
    "left side up": (0.0, 1.0),
    "right side up": (0.0, -1.0),
}


def vent(number: int, x: float, y: float, **more: Any) -> dict[str, Any]:
    """A vent in the roof."""
    whole = {"id": f"v{number}", "name": f"vent {number}", "role": "vent", "face": "roof", "x_mm": x, "y_mm": y}
    return whole | more


def analysed(ports: list[dict[str, Any]], **shell: Any) -> TankAnalysis:
    """A box with ports."""
    made = Design.model_validate({"shell": box().model_dump() | shell, "ports": ports})
    return TankAnalysis(Asked(made, Workshop()))


def counted(way: tuple[float, float], share: float) -> tuple[np.ndarray[Any, Any], float]:
    """Up on a slope, and how high the surface of a share of the box then is along it [mm]."""
    lean = radians(SLOPE_DEG)
    up = np.array([way[0] * sin(lean), way[1] * sin(lean), cos(lean)])
    along = [(np.arange(MANY) + 0.5) / MANY * size + 3.0 for size in SIZE]
    places = np.stack(np.meshgrid(*along, indexing="ij"), axis=-1).reshape(-1, 3)
    return up, float(np.quantile(places @ up, share))


class OnSlopes(TestCase):
    @settings(max_examples=40, deadline=None)
    @given(st.lists(st.tuples(st.floats(10, 790), st.floats(10, 390)), min_size=1, max_size=3))
    def test_under_where_the_counted_surface_is_over_all_of_them(self, spots: list[tuple[float, float]]) -> None:
        tank = analysed([vent(n, x, y) for n, (x, y) in enumerate(spots)])
        held = tank[CAPACITY].cells[0]
        share = held.rated_l * 1e6 / (SIZE[0] * SIZE[1] * SIZE[2])
        under = {name for one in tank[VENTS_ON_SLOPES] for name in one.slopes}
        tops = np.array([(x, y, 347.0) for x, y in spots])
        for name, way in WAYS.items():
            up, level = counted(way, share)
            over = float((tops @ up).max()) - level + UNDER_MM
            if abs(over) > SLACK_MM:
                self.assertEqual(name in under, over < 0, (name, over))

    def test_a_vent_at_each_end_breathes_on_every_slope(self) -> None:
        corners = [vent(n, x, y) for n, (x, y) in enumerate([(15, 15), (15, 385), (785, 15), (785, 385)])]
        self.assertEqual(analysed(corners)[VENTS_ON_SLOPES], [])

    def test_what_has_no_vent_isnt_judged_here(self) -> None:
        self.assertEqual(analysed([])[VENTS_ON_SLOPES], [])

    def test_a_vent_behind_traps_the_air_before_it(self) -> None:
        tank = analysed([vent(0, 15.0, 200.0)])
        self.assertEqual(tank[VENTS_ON_SLOPES][0].slopes, ["nose up"])
        trapped = next(iter(tank[AIR_TRAPPED_ON_SLOPES].values()))
        # All of the air that is over the height of the vent when the nose is up.
        lean = radians(SLOPE_DEG)
        up, _ = counted(WAYS["nose up"], 0.5)
        along = [(np.arange(90) + 0.5) / 90 * size + 3.0 for size in SIZE]
        places = np.stack(np.meshgrid(*along, indexing="ij"), axis=-1).reshape(-1, 3)
        over = (places @ up) > 15.0 * sin(lean) + 347.0 * cos(lean)
        wanted = float(over.mean()) * SIZE[0] * SIZE[1] * SIZE[2] / 1e6
        self.assertAlmostEqual(trapped, wanted, delta=0.02 * wanted)

    def test_each_cell_has_its_own_vents(self) -> None:
        wall = {"kind": "partition", "id": "p", "name": "wall", "axis": "x", "at_mm": 400.0}
        tank = analysed([vent(0, 15.0, 200.0), vent(1, 785.0, 200.0)], features=[wall])
        self.assertEqual([one.slopes for one in tank[VENTS_ON_SLOPES]], [["nose up"], ["nose down"]])
