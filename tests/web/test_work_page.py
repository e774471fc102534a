"""A design at its page: what is typed is worked out, saved, taken back, brought back, and never lost."""

import json
from typing import Any

from keel.design.document import Design
from server.jobs.models import TankDesign
from server.tests.helpers import Api, person
from server.workshop.models import Person
from tests.web.person import AtThePage

BAY = {"length_mm": 900.0, "width_mm": 500.0, "height_mm": 400.0}
SHELL = {"length_mm": 700.0, "width_mm": 400.0, "height_mm": 300.0, "x_mm": 60.0, "y_mm": 50.0, "z_mm": 20.0}
TANK: dict[str, Any] = {"brief": {"target_l": 100.0}, "bay": BAY, "shell": SHELL}


class Working(AtThePage):
    """With the owner's hands."""

    document = TANK
    drawn = False

    def revisions(self) -> list[str]:
        """Notes of what was saved."""
        return [revision.note for revision in self.tank.revisions.order_by("number")]

    def test_a_size_typed_is_worked_out_saved_and_taken_back(self) -> None:
        """Figures follow within the answer, the change stands beside them; undo, redo and undo are kept too."""
        self.open_station("shell")
        before = self.tally("brimful_l")
        self.type_into("Length outside", "72 cm")
        self.until(lambda: self.tally("brimful_l") > before, "more fuel")
        more = self.tally("brimful_l") - before
        self.assertAlmostEqual(more, 20 * (400 - 6) * (300 - 6) / 1e6, delta=0.02)
        self.assertAlmostEqual(float(self.text("[data-tally=brimful_l] [data-delta]")), more, delta=0.011)
        self.assertEqual(self.saved()["shell"]["length_mm"], 720.0)
        self.press("Undo")
        self.until_tally(before)
        self.assertEqual(self.saved()["shell"]["length_mm"], 700.0)
        self.press("Redo")
        self.until(lambda: self.tally("brimful_l") > before, "more again")
        self.assertEqual(self.saved()["shell"]["length_mm"], 720.0)
        self.assertFalse(self.do("isEnabled", "Redo", "body"))

    def test_what_cannot_be_made_is_said_and_kept(self) -> None:
        """The field's own complaint, the figures of before, nothing saved over what was good; put right, all goes on."""
        self.open_station("shell")
        before = self.tally("brimful_l")
        self.type_into("Sheet thickness", "40")
        self.shows("25 mm or less", "aside")
        self.assertEqual(self.value("Sheet thickness"), "40")
        self.assertEqual(self.tally("brimful_l"), before)
        self.shows("figures are from before")
        self.do("rest", 800)
        self.tank.refresh_from_db()
        self.assertNotEqual(self.tank.current().document["shell"].get("thickness_mm"), 40.0)
        self.type_into("Sheet thickness", "4")
        self.until(lambda: self.tally("brimful_l") < before, "less fuel")
        self.assertEqual(self.saved()["shell"]["thickness_mm"], 4.0)

    def test_a_limit_is_told_in_the_readers_units(self) -> None:
        """Two thousand kilopascals are the most; an inch reader is told so in psi. A share is told as it is typed."""
        Person.objects.filter(pk=self.maker.pk).update(units="in_usgal")
        self.open_station("brief")
        self.press("Add the engine’s demand")
        self.type_into("Rail pressure", "400 psi")
        self.until(lambda: self.said("Rail pressure") == "Rail pressure must be 290.08 psi or less", "psi")
        self.type_into("Average duty", "130")
        self.until(lambda: self.said("Average duty") == "Average duty must be 100 % or less", "per cent")
        self.type_into("Average duty", "80")
        self.type_into("Rail pressure", "43.5")
        self.until(lambda: not self.said("Rail pressure"), "put right")
        self.assertAlmostEqual(self.saved()["brief"]["cases"][0]["rail_kpa"], 299.92, places=1)

    def test_the_server_goes_away_and_comes_back(self) -> None:
        """It is said; what is typed meanwhile stays on the device, also over a reload, and is saved when it is back."""
        self.open_station("shell")
        self.away = True
        self.type_into("Width outside", "410")
        self.shows("No answer from the server")
        self.until(lambda: self.do("count", "[data-save=away]"), "not saved")
        self.assertEqual(self.value("Width outside"), "410")
        self.away = False
        self.open_station("shell")
        self.assertEqual(self.value("Width outside"), "410")
        self.assertEqual(self.saved()["shell"]["width_mm"], 410.0)

    def test_two_people_over_one_design(self) -> None:
        """Both sides are shown in words and units; either can be gone on with, the other stays in the revisions."""
        other = person("other", "fabricator", self.workshop)
        for mine in (True, False):
            with self.subTest(mine=mine):
                self.open_station("shell")
                theirs = TANK | {"shell": SHELL | {"height_mm": 310.0 + mine, "x_mm": 65.0}}
                body = {"design": theirs, "base_revision": self.tank.current().number, "note": ""}
                self.assertEqual(Api(other)("PUT", f"designs/{self.tank.pk}", body)[0], 200)
                self.type_into("Length outside", "730" if mine else "740")
                self.shows("Two versions of this design")
                said = self.text("[role=dialog]")
                self.assertIn("shell › height300 mm", said)
                self.assertIn(f"{310 + mine} mm", said)
                self.press("Go on with mine" if mine else "Go on with Other’s")
                kept = self.saved()["shell"]
                self.assertEqual(kept["height_mm"], 300.0 if mine else 310.0)
                self.assertEqual(kept["length_mm"], 730.0 if mine else 700.0)
                notes = self.revisions()
                self.assertTrue(any("conflict" in note for note in notes), notes)

    def test_a_revision_is_looked_at_and_brought_back(self) -> None:
        """What differs is listed by name with units; restoring makes a new revision, and the page goes on from it."""
        self.open_station("shell")
        self.type_into("Length outside", "650")
        self.saved()
        self.press("Revisions")
        self.shows("Choose a revision", "[role=dialog]")
        self.until(lambda: self.do("clicked", "[role=dialog] li:last-child, [role=dialog] ul > :last-child") is None)
        self.shows("shell › length650 mm700 mm", "[role=dialog]")
        self.press("Restore")
        self.until(lambda: self.value("Length outside") == "700", "as it was")
        self.assertEqual(self.saved()["shell"]["length_mm"], 700.0)
        self.assertGreaterEqual(len(self.revisions()), 3)

    def test_a_remedy_is_tried_and_taken(self) -> None:
        """Trying shows what would be, and changes nothing; taking it settles its finding, and undo takes it back."""
        self.tank.save_revision(Design.model_validate(TANK | {"shell": SHELL | {"z_mm": 2.0}}), self.maker, 1)
        self.open_station("bay")
        remedy = "[data-remedy]"
        self.until(lambda: self.do("count", remedy), "remedies")
        finding = self.text("[data-finding]")
        before = self.do("design")
        self.press("Try", remedy)
        self.shows("if taken")
        self.assertEqual(self.do("design"), before)
        self.press("Trying", remedy)
        self.press("Apply", remedy)
        self.until(lambda: finding not in self.text("[data-finding]"), "settled")
        self.assertNotEqual(self.do("design"), before)
        self.press("Undo")
        self.assertEqual(self.do("design"), before)

    def test_renamed_and_pinned(self) -> None:
        """A new name is on the page and in the store; a pinned state is compared with until it is let go."""
        self.open_station("shell")
        self.press("Rename")
        self.type_into("Name", "Second thought")
        self.press("Rename", "[role=dialog]")
        self.shows("Second thought", "header")
        self.tank.refresh_from_db()
        self.assertEqual(self.tank.name, "Second thought")
        delta = "[data-tally=brimful_l] [data-delta]"
        self.press("Pin")
        for length, more in (("710", "+1.1"), ("720", "+2.3")):
            self.type_into("Length outside", length)
            self.until(lambda more=more: self.text(delta).startswith(more), "against the pin")  # type: ignore[misc]
        self.shows("against the pin")
        self.press("Unpin")
        self.until(lambda: self.text(delta).startswith("+1.1"), "against the last")

    def test_one_who_may_only_look(self) -> None:
        """Every field is there and none can be changed; no request changes anything."""
        self.sign_in(person("looker", "viewer", self.workshop))
        self.open(f"/designs/{self.tank.pk}/shell")
        self.until(lambda: self.do("count", "[data-tally=brimful_l]"), "figures")
        self.until(lambda: "Length outside" in self.text("aside"), "the panel")
        left = [field["label"] for field in self.do("fields", "aside")]
        looks = {"Fill shown", "Pitch, nose up", "Right side down", "Accelerating", "Turning left", "Thrown upward"}
        self.assertLessEqual(set(left), looks | {"Step between rows, in the files"})
        self.assertFalse(self.do("isEnabled", "Rename", "body"))
        self.assertEqual([ask for ask in self.asked if ask.startswith(("PUT", "DELETE"))], [])

    def test_an_unknown_part_is_written_back_untouched(self) -> None:
        """A station that isn't known here keeps its part of the document over a change of another."""
        revision = self.tank.current()
        revision.document = revision.document | {"plumb": {"lines": [1, 2], "made_by": "a later version"}}
        revision.save()
        self.open_station("shell")
        self.type_into("Length outside", "705")
        kept = self.saved()
        self.assertEqual(kept["plumb"], {"lines": [1, 2], "made_by": "a later version"})
        self.assertEqual(kept["shell"]["length_mm"], 705.0)

    def test_another_workshops_design_is_nothing_here(self) -> None:
        """Nor is one that never was, or an address that is none; each page leads back."""
        stranger = person("stranger", "owner", type(self.workshop).objects.create(name="Next Door"))
        self.sign_in(stranger)
        for path in (f"/designs/{self.tank.pk}/shell", "/designs/999999/shell", "/designs/x/shell", "/jobs/9", "/elsewhere"):
            with self.subTest(path=path):
                self.open(path)
                self.until(lambda: "nothing here" in self.text("main").lower(), "nothing here")
        self.assertNotIn("Launch tank", json.dumps(self.text("body")))
        self.assertEqual(TankDesign.objects.count(), 1)
