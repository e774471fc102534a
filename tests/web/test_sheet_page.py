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
    """Step by step on the folder, once a part is at hand."""

    def take(self, part: str) -> None:
        """Take a part from the row."""
        self.until(lambda: self.do("count", f"button[data-part='{part}']"), part)
        self.do("clicked", f"button[data-part='{part}']")
        self.until(lambda: self.do("count", f"button[data-part='{part}'][aria-pressed=true]"), "at hand")

    def test_in_turn(self) -> None:
        """From the free edges inward, each a degree or two further than wanted; pans only how far."""
        wrapper = "[aria-label='Bends of the wrapper']"
        self.take("wrapper")
        self.until(lambda: self.text(wrapper), "worked out")
        steps = self.text(wrapper).split(" to ")[1:5]
        self.assertEqual(len(steps), 4)
        for step in steps:
            self.assertTrue(90 < float(step.split("°")[0]) < 93, step)
        self.assertEqual(self.do("count", f"{wrapper} polygon"), 4 * 3, "beam, bed and leaf, four times")
        self.take("end-pan")
        self.until(lambda: self.text("[aria-label='Bends of the end pan']").count("90.0° is left") == 4, "a pan's")

    def test_a_box_that_cannot_be_closed(self) -> None:
        """Narrower both ways than the smallest closed box: what can be bent is shown, what is in the way named."""
        self.workshop.rules = {"brake": {"smallest_closed_box_mm": 450.0}}
        self.workshop.save()
        self.open_station("sheet")
        self.take("wrapper")
        self.until(lambda: "can’t be made" in self.text("[aria-label='Bends of the wrapper']"), "stuck")
        self.assertLess(self.do("count", "[aria-label='Bends of the wrapper'] li"), 4)
        self.shows("closes from 450 mm", "#findings")

    def test_another_brake_or_somebody_else(self) -> None:
        """On a brake that is long enough it is bent there; sent out nobody's brake counts, and a page goes with it."""
        self.workshop.rules = {"brake": {"name": "Short one", "width_mm": 500.0}}
        self.workshop.save()
        self.open_station("sheet")
        self.shows("Short one at most 500 mm", "#findings")
        self.take("wrapper")
        self.tick("Sent out")
        self.until(lambda: "at most 500 mm" not in self.text("#findings"), "no longer judged")
        self.until(lambda: self.do("count", "[data-file='send-out-wrapper.pdf']"), "a page to send")
        self.assertEqual(self.saved()["sheet"]["sent_out"], ["wrapper"])
        self.press("Undo")
        self.workshop.rules |= {"more_brakes": [{"name": "Long one", "width_mm": 1250.0}]}
        self.workshop.save()
        self.open_station("sheet")
        self.take("wrapper")
        self.until(lambda: "On Long one" in self.text("[aria-label='Bends of the wrapper']"), "bent there")

    def test_a_question_and_its_answer(self) -> None:
        """What can't be bent is asked of somebody else; what they say stays with the design."""
        self.workshop.rules = {"brake": {"smallest_closed_box_mm": 450.0}}
        self.workshop.save()
        self.open_station("sheet")
        self.press("Ask somebody else about the wrapper")
        self.until(lambda: self.do("count", "[data-file='question-q-1.pdf']"), "a page to send")
        self.type_into("Who is asked", "the press shop at the harbour")
        self.type_into("In their words", "Yes, as two U's.")
        self.choose("Their answer", "they can make it")
        (kept,) = self.saved()["sheet"]["questions"]
        self.assertEqual((kept["part"], kept["can"], kept["answer"]), ("wrapper", True, "Yes, as two U's."))
        self.assertIn("Can you bend the wrapper", kept["asked"])
        self.press("Remove the question")
        self.until(lambda: self.saved()["sheet"]["questions"] == [], "gone")

    def test_what_cuts_it(self) -> None:
        """By the means that the workshop lists; a wrapper is straight all round, its hole is sawn."""
        means = [{"name": "Shear", "cuts": "straight edges"}, {"name": "Saws", "cuts": "round holes", "to_mm": 80.0}]
        self.workshop.rules = {"cutters": means}
        self.workshop.save()
        self.open_station("sheet")
        self.take("wrapper")
        self.shows("Cut with Shear.")
        self.take("end-pan")
        self.until(lambda: "Cut with" not in self.text("main"), "its corners are notched")
        self.shows("Nothing here cuts the outline of the end pan", "#findings")


class Built(AtTheSheet):
    """What came out otherwise."""

    def test_a_shorter_side(self) -> None:
        """Typed as built the tank is so, litres and the part that follows are named, and it goes back as planned."""
        self.choose("What came out otherwise", "length, 800")
        self.type_into("As built", "788")
        self.until(lambda: "planned 800" in self.text("[data-departure]"), "kept")
        litres = -12 * 394 * 294 / 1e6
        self.assertIn(f"−{-litres:.2f}", self.text("[data-departure]"))
        self.until_flat("wrapper", 1400 - 4 * deduction(6), 788 + 2 * (FLANGE - 3))
        table = self.text("[aria-label='Parts that change']")
        self.assertIn("Wrapper", table)
        self.assertNotIn("End pan", table)
        kept = self.saved()
        self.assertEqual((kept["shell"]["length_mm"], kept["sheet"]["as_built"][0]["planned_mm"]), (788, 800))
        self.press("As planned")
        self.until_flat("wrapper", 1400 - 4 * deduction(6), 834)
        self.assertEqual(self.saved()["sheet"]["as_built"], [])

    def test_a_part_that_is_cut(self) -> None:
        """Once it is cut, what changes it is a stop."""
        self.until(lambda: self.do("count", "button[data-part='wrapper']"), "parts")
        self.do("clicked", "button[data-part='wrapper']")
        self.tick("Cut already")
        self.choose("What came out otherwise", "length, 800")
        self.type_into("As built", "788")
        self.shows("Wrapper is cut already", "#findings")
