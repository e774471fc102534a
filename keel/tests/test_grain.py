"""Which way parts lie on their sheet."""

from unittest import TestCase

from hypothesis import given, settings
from hypothesis import strategies as st

from keel.evaluation import evaluate
from keel.findings.patch import apply
from keel.studies.sheet.flats import FLATS
from keel.studies.sheet.grain import bent_along
from keel.tests.test_let_in import tank

SCHEMES = ("wrapper and pans", "wrapper and flat ends", "two U's", "tray and lid", "flat plates")


class Grain(TestCase):
    """Bends go across it."""

    @settings(max_examples=20, deadline=None)
    @given(st.sampled_from(SCHEMES), st.floats(200, 900), st.floats(200, 900))
    def test_across_most_of_the_bends(self, scheme: str, length: float, width: float) -> None:
        """No part has more bent along its grain than across it; without bends it runs along the longer side."""
        for part in tank(scheme=scheme, shell={"length_mm": length, "width_mm": width})[FLATS].parts:
            level, upright = bent_along(part)
            along, across = (level, upright) if part.grain == "length" else (upright, level)
            self.assertLessEqual(along, across + 1e-6)
            if level == upright == 0:
                self.assertEqual(part.grain == "length", part.length_mm >= part.width_mm)

    def test_a_sheet_too_narrow(self) -> None:
        """Bends of 1434 on a sheet 1250 wide lie along its grain: tight ones are cautioned of, sure ones aren't."""
        long = tank(scheme="wrapper and pans", shell={"length_mm": 1400, "width_mm": 250, "height_mm": 250}).design
        found = [one for one in evaluate(long).findings if one.code == "stock.grain"]
        self.assertEqual([one.subject for one in found], ["wrapper"])
        self.assertEqual((found[0].title.values["radius_mm"], found[0].title.values["sure_mm"]), (4.5, 6.0))
        (remedy,) = found[0].remedies
        self.assertNotIn("stock.grain", {one.code for one in evaluate(apply(long, remedy.patch)).findings})
        steel = apply(long, {"shell": {"metal": "mild steel"}})
        self.assertNotIn("stock.grain", {one.code for one in evaluate(steel).findings}, "it bears any way")
