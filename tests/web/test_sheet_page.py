"""Flat parts as they stand on the page, against a developed length worked out by hand."""

from math import pi, tan
from typing import Any

from tests.web.person import AtThePage

SHELL = {"length_mm": 800.0, "width_mm": 400.0, "height_mm": 300.0, "thickness_mm": 3.0, "bend_radius_mm": 6.0}
FLANGE, GAP, K = 20.0, 0.5, 0.4


def deduction(radius: float, k: float = K, sheet: float = 3.0) -> float:
    """Twice the setback less the neutral line's arc, at a right angle."""
    return 2 * (radius + sheet) * tan(pi / 4) - pi / 2 * (radius + k * sheet)


class AtTheSheet(AtThePage):
    """A box that is bent from 3 mm."""

    document: dict[str, Any] = {"shell": SHELL}
    drawn = False

    def setUp(self) -> None:
        """At the sheet."""
        super().setUp()
        self.open_station("sheet")
        self.until(lambda: "wrapper" in self.text("aside table"), "parts")

    def row(self, part: str) -> str:
        """A part's row in the list."""
        return self.text("aside table").partition(part)[2]

    def until_flat(self, part: str, length: float, width: float) -> None:
        """Wait for a part's sizes."""
        wanted = f"{length:.1f}".removesuffix(".0") + " × " + f"{width:.1f}".removesuffix(".0")
        self.until(lambda: self.row(part).startswith(wanted), f"{part} {wanted}, not {self.row(part)[:24]}")


class Flats(AtTheSheet):
    """Each part by hand."""

    def test_a_wrapper_in_one(self) -> None:
        """Four bends round 400 by 300, less four deductions; along it the lips of both pans."""
        self.until_flat("wrapper", 2 * (400 + 300) - 4 * deduction(6), 800 + 2 * (FLANGE - 3))
        self.assertIn(f"Bend deduction at 90°{deduction(6):.3f} mm", self.text("aside").replace("\u2009", " "))

    def test_its_pans(self) -> None:
        """Inside of the wrapper less a gap a side, and a flange more on every side, less its bend."""
        wide, high = 394 - 2 * GAP, 294 - 2 * GAP
        reach = 2 * (FLANGE - deduction(6))
        self.until_flat("end pan", wide + reach, high + reach)
        self.type_into("Pan gap a side", "1")
        self.until_flat("end pan", wide - 1 + reach, high - 1 + reach)
        self.type_into("Pan flange", "25")
        self.until_flat("end pan", wide - 1 + reach + 10, high - 1 + reach + 10)
        self.until_flat("wrapper", 1400 - 4 * deduction(6), 800 + 2 * (25 - 3))
        self.type_into("Pan flange", "")
        self.type_into("Pan gap a side", "")
        self.until_flat("end pan", wide + reach, high + reach)

    def test_closed_at_a_corner(self) -> None:
        """Three bends are left: a deduction less, and a plate that butts against the other."""
        self.choose("Closing seam", "at a lid corner, butted")
        three = 3 * deduction(6)
        self.until(lambda: self.row("wrapper") and "× 834" in self.row("wrapper"), "listed")
        length = float(self.row("wrapper").split(" ×")[0])
        self.assertTrue(1400 - 6 - three <= length <= 1400 - three, length)
        self.assertEqual(self.saved()["sheet"]["seam"], "corner butt")

    def test_k_of_the_shop(self) -> None:
        """The shop's own K for the metal moves every line."""
        self.workshop.rules = {"k_factors": {"5052-H32": 0.45}}
        self.workshop.save()
        self.open_station("sheet")
        self.until_flat("wrapper", 1400 - 4 * deduction(6, 0.45), 834)
        self.assertIn("K, from the workshop0.45", self.text("aside"))

    def test_thicker_or_tighter(self) -> None:
        """Changed at the shell it is changed here: 6 by 4 mm, then a bend of 12."""
        self.open_station("shell")
        self.type_into("Sheet thickness", "4")
        self.open_station("sheet")
        self.until_flat("wrapper", 1400 - 4 * deduction(6, sheet=4), 800 + 2 * (FLANGE - 4))
        self.open_station("shell")
        self.type_into("Inside bend radius", "12")
        self.open_station("sheet")
        self.until_flat("wrapper", 1400 - 4 * deduction(12, sheet=4), 800 + 2 * (FLANGE - 4))


class Schemes(AtTheSheet):
    """Ways to make it, side by side."""

    def card(self, title: str) -> str:
        """What stands on a way's card."""
        return self.text(f"[data-scheme='{title}']")

    def test_taken_by_a_press(self) -> None:
        """Two U's: the parts are theirs, no wrapper is closed, and one step brings the wrapper back."""
        self.until(lambda: self.card("tray and lid"), "compared")
        title = "two U’s, rear and front up from the floor"
        self.assertIn("3.60 m weld, 1.60 at the floor", self.card(title))
        self.do("clicked", f"[data-scheme='{title}']")
        self.until_flat("floor u", 800 + 2 * 297 - 2 * deduction(6), 400 - 6)
        self.until_flat("lid u", 800 - 6, 400 + 2 * 297 - 2 * deduction(6))
        self.assertNotIn("Closing seam", [field["label"] for field in self.do("fields", "aside")])
        self.assertEqual(self.saved()["sheet"]["scheme"], "two U's")
        self.until(lambda: self.do("count", f"[data-scheme='{title}'][aria-pressed=true]") == 1, "it is the one")
        self.press("Undo")
        self.until_flat("wrapper", 2 * (400 + 300) - 4 * deduction(6), 834)

    def test_what_cannot_be_made_says_why(self) -> None:
        """A tray deeper than the brake's fingers: named with both figures and by how much it is too deep."""
        self.until(lambda: self.card("tray and lid"), "compared")
        said = self.card("tray and lid")
        self.assertIn("297 mm high", said)
        self.assertIn("at most 100 mm", said)
        self.assertIn("197 mm lower", said)
        self.do("clicked", "[data-scheme='tray and lid']")
        self.shows("297 mm high", "#findings")
        self.workshop.rules = {"brake": {"fingers_mm": 300.0}}
        self.workshop.save()
        self.open_station("sheet")
        self.until(lambda: self.card("tray and lid") and "high" not in self.card("tray and lid"), "it can be made")

    def test_from_the_panel(self) -> None:
        """The same by the list of parts; flat plates have no bends."""
        self.choose("Parts", "six flat plates")
        self.until_flat("floor", 394, 800)
        self.until_flat("right side", 294, 800)
        self.assertIn("Bends0", self.text("aside"))


class Bending(AtTheSheet):
    """Step by step on the folder."""

    def test_in_turn(self) -> None:
        """From the free edges inward, each a degree or two further than wanted; pans only how far."""
        wrapper = "[aria-label='Bends of the wrapper']"
        self.until(lambda: self.text(wrapper), "worked out")
        steps = self.text(wrapper).split(" to ")[1:]
        self.assertEqual(len(steps), 4)
        for step in steps:
            self.assertTrue(90 < float(step.split("°")[0]) < 93, step)
        self.assertEqual(self.do("count", f"{wrapper} polygon"), 4)
        self.assertEqual(self.text("[aria-label='Bends of the end pan']").count("90.0° is left"), 4)

    def test_a_box_that_cannot_be_closed(self) -> None:
        """Narrower both ways than the shop's smallest closed box: what can be bent is shown, and what is in the way named."""
        self.workshop.rules = {"brake": {"smallest_closed_box_mm": 450.0}}
        self.workshop.save()
        self.open_station("sheet")
        self.until(lambda: "can’t be made" in self.text("[aria-label='Bends of the wrapper']"), "stuck")
        self.assertLess(self.do("count", "[aria-label='Bends of the wrapper'] li"), 4)
        self.shows("closes from 450 mm", "#findings")
