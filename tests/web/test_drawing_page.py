"""The drawing as a work surface, by its keys: what a finger drags, arrows move."""

from typing import Any

from keel.formats.document import design_from
from keel.reference.quantities import UnitSet
from server.jobs.models import TankDesign
from server.workshop.models import Person
from tests.web.person import AtThePage
from tests.web.test_fields import changed
from tests.web.test_pages import TANKS

HANDLE = "[data-handle]"
STEP = {"mm_l": 1.0, "in_usgal": 25.4 / 16}


class Drawing(AtThePage):
    """Grips, dimensions, corners, cut lines."""

    def open_tank(self, name: str, station: str) -> None:
        """A demo tank at a station."""
        self.tank = TankDesign.started(self.job, name, design_from(TANKS[name]), self.maker, "")
        self.open_station(station)
        self.until(lambda: self.do("count", "[data-dimension]"), "the drawing")

    def numbers(self, document: Any, places: set[tuple[str | int, ...]]) -> list[float]:
        """Numbers at places of a document."""
        found = []
        for place in sorted(places, key=str):
            value = document
            for step in place:
                value = value[step]
            found.append(float(value))
        return found

    def test_every_grip_obeys_the_arrows(self) -> None:
        """One key is one step of a millimetre, or a sixteenth of an inch, and one undo; the other key brings it back."""
        tries: list[tuple[UnitSet, str, str]] = [
            ("mm_l", "raid tank", "bay"),
            ("in_usgal", "surge tank", "shell"),
        ]
        for units, tank, station in tries:
            Person.objects.filter(pk=self.maker.pk).update(units=units)
            self.open_tank(tank, station)
            for nth, grip in enumerate(self.do("attributes", HANDLE, "data-handle")):
                with self.subTest(tank=tank, grip=grip):
                    self.check_grip(nth, STEP[units])

    def check_grip(self, nth: int, step: float) -> None:
        """One grip: there, back, and both undone. A profile's corners follow to a thousandth of a millimetre."""
        there, back = ("Right", "Left") if self.lies_across(nth) else ("Up", "Down")
        before = self.do("design")
        self.do("keyed", HANDLE, nth, f"{{Arrow{there}}}")
        after = self.do("design")
        places = changed(before, after)
        was, is_ = self.numbers(before, places), self.numbers(after, places)
        self.assertAlmostEqual(max(abs(b - a) for a, b in zip(was, is_, strict=True)), step, delta=0.002)
        self.do("keyed", HANDLE, nth, f"{{Arrow{back}}}")
        for a, b in zip(was, self.numbers(self.do("design"), places), strict=True):
            self.assertAlmostEqual(a, b, delta=0.002)
        for _ in range(2):
            self.do("keys", "{Control>}z{/Control}")
        self.assertEqual(self.do("design"), before)

    def lies_across(self, nth: int) -> bool:
        """Whether a grip moves from side to side on the page."""
        return bool(self.do("attributes", HANDLE, "aria-orientation")[nth] == "horizontal")

    def test_a_size_is_typed_on_the_drawing(self) -> None:
        """Every figure that may be changed opens with Enter; the new one is there, in the panel, and in the design."""
        self.open_tank("day tank", "shell")
        figures = "[data-dimension][role=button]"
        labels = self.do("attributes", figures, "data-dimension")
        self.assertGreaterEqual(len(labels), 4)
        for nth, label in enumerate(labels[:4]):
            with self.subTest(figure=label):
                before = self.do("design")
                was = float(self.do("attributes", figures, "aria-label")[nth].split()[-3].replace("\u2009", ""))
                self.do("keyed", figures, nth, "{Enter}")
                self.type_into(f"{label}, mm", f"{was + 4:g}")
                self.do("keyed", "input:focus, body", 0, "{Enter}")
                self.until(lambda was=before: self.do("design") != was, "changed")  # type: ignore[misc]
                self.press("Undo")
                self.assertEqual(self.do("design"), before)
        self.do("keyed", figures, 0, "{Enter}")
        self.type_into(f"{labels[0]}, mm", "5 kg")
        self.assertIn("a length is wanted here", self.text("section[aria-label=Drawing]"))

    def test_corners_of_a_profile(self) -> None:
        """Arrows move one, with Shift ten at a time; a plus on an edge makes one more; Delete takes it away again."""
        self.open_tank("raid tank", "shell")
        corners = self.do("design")["shell"]["corners"]
        self.do("keyed", "[data-corner='3']", 0, "{Shift>}{ArrowUp}{/Shift}{ArrowRight}")
        moved = self.do("design")["shell"]["corners"][3]
        self.assertEqual(
            (moved["across_mm"], moved["up_mm"]), (corners[3]["across_mm"] + 1, corners[3]["up_mm"] + 10)
        )
        self.do("keyed", "[data-edge='4']", 0, "{Enter}")
        more = self.do("design")["shell"]["corners"]
        self.assertEqual(len(more), len(corners) + 1)
        for name in ("across_mm", "up_mm"):
            self.assertAlmostEqual(more[5][name], (more[4][name] + more[6][name]) / 2, places=3)
        self.do("keyed", "[data-corner='5']", 0, "{Delete}")
        self.assertEqual(len(self.do("design")["shell"]["corners"]), len(corners))

    def test_the_seam_goes_along_its_face(self) -> None:
        """Arrows move it along by a millimetre, Page up to the next face; the panel has the same place to type."""
        self.open_tank("day tank", "shell")
        self.open_station("sheet")
        self.until(lambda: "Show the tank" in self.text("aside"), "the flats")
        self.press("Show the tank")
        self.until(lambda: self.do("count", "[data-seam='side']"), "on the view along the wrapper")
        high = self.do("design")["shell"]["corners"][1]["up_mm"] or 420
        self.do("keyed", "[data-seam]", 0, "{Shift>}{ArrowUp}{/Shift}")
        share = self.do("design")["sheet"]["seam_share"]
        self.assertAlmostEqual(share, 0.5 + 10 / high, places=3)
        self.until(lambda: "Seam up from floor" in self.text("aside"), "typed too")
        self.do("typed", "Seam up from floor", f"{high / 4:g}", "aside", 0)
        self.assertAlmostEqual(self.do("design")["sheet"]["seam_share"], 0.25, places=3)
        self.do("keyed", "[data-seam]", 0, "{PageUp}")
        self.assertEqual(self.do("design")["sheet"]["seam"], "floor")

    def test_what_is_cut_is_only_looked_at(self) -> None:
        """A cut line goes by its keys, says where it is, and changes nothing of the design."""
        self.open_tank("cart tank", "shell")
        before = self.do("design")
        cut = "[data-cut='x']"
        at = float(self.do("attributes", cut, "aria-valuenow")[0])
        self.do("keyed", cut, 0, "{Shift>}{ArrowRight}{/Shift}")
        self.assertEqual(float(self.do("attributes", cut, "aria-valuenow")[0]), at + 10)
        self.until(lambda: f"cut B at {at + 10:.0f} mm" in self.text("section[aria-label=Drawing]"), "where")
        self.assertEqual(self.do("design"), before)

    def test_a_reader_in_inches_reads_the_drawing_in_inches(self) -> None:
        """Every figure on every view; none is left in millimetres."""
        Person.objects.filter(pk=self.maker.pk).update(units="in_usgal")
        for tank, station in (("day tank", "ports"), ("raid tank", "bay"), ("surge tank", "gauge")):
            self.open_tank(tank, station)
            with self.subTest(tank=tank):
                said = self.text("section[aria-label=Drawing]")
                self.assertNotRegex(said, r"\d mm\b|\d L\b")
                self.assertRegex(said, r"\d in\b|\"")
