"""The traveller and the sheet for work that goes out, read back; gates passed unmet on every paper."""

import io
from typing import Any

from pypdf import PdfReader

from keel.design.document import Design
from server.jobs.models import TankDesign
from server.tests.helpers import BOX, ApiTestCase
from server.workshop.models import Person

VENT: dict[str, Any] = {"id": "vent", "name": "vent", "role": "vent", "x_mm": 500.0, "y_mm": 200.0}
VENT |= {"seat": {"hole_mm": 20.0, "outer_mm": 30.0}}
MODULE: dict[str, Any] = {"id": "module", "name": "module", "role": "pickup", "x_mm": 150.0, "y_mm": 120.0}
MODULE |= {"seat": {"kind": "flange", "hole_mm": 100.0, "outer_mm": 150.0, "bolt_circle_mm": 125.0, "bolts": 8}}
MODULE |= {"hanger": {"made_for_mm": 400.0}, "hangs_mm": 300.0, "hangs_across_mm": 60.0}


class BuildPapers(ApiTestCase):
    """Of a box with two ports."""

    def setUp(self) -> None:
        """The design, and where its log is."""
        super().setUp()
        self.workshop.rules = {"rates": {"prepare_min_per_m2": 10.0, "weld_min_per_m": 20.0}}
        self.workshop.save()
        design = Design.model_validate(BOX | {"ports": [VENT, MODULE]})
        self.built = TankDesign.started(self.job, "Built", design, None, "started")
        self.count = 0

    def write(self, kind: str, **values: Any) -> None:
        """One entry."""
        self.count += 1
        entry = {"id": f"c{self.count}", "kind": kind, "design": self.built.pk} | values
        at = f"jobs/numbered/{self.job.number}/log"
        status, rows = self.fabricator("POST", at, {"entries": [entry]})
        self.assertEqual((status, rows[0]["refused"]), (200, None))

    def pages(self, name: str) -> list[str]:
        """Words of each page of a paper."""
        status, data = self.viewer("GET", f"designs/{self.built.pk}/files/{name}")
        self.assertEqual(status, 200, data)
        return [" ".join(page.extract_text().split()) for page in PdfReader(io.BytesIO(data)).pages]

    def test_traveller(self) -> None:
        """Every operation once and in order, with its minutes, gates before what they hold, and the phone's address."""
        text = " ".join(self.pages("traveller.pdf"))
        self.assertIn(f"On the phone: http://testserver/floor/{self.job.number}?design={self.built.pk}", text)
        titles = ["Count 10 bought pieces", "Clean and prepare both faces", "Deburr all edges", "Weld the boss of vent"]
        titles += ["Bend wrapper", "Weld the rear pan", "GATE: Inside clean", "Close the tank", "Plug all 2 openings"]
        titles += ["GATE: Depth under module measured twice", "Cut the hanger of module", "GATE: Ready to fit module"]
        titles += ["Fit module", "GATE: All that was counted in", "Look the tank over"]
        found = [text.find(title) for title in titles]
        self.assertEqual(found, sorted(found))
        self.assertNotIn(-1, found)
        self.assertEqual(text.count("GATE: All heat is done"), 1)
        self.assertIn("Pass 3, bolts 1, 5, 2, 6, 3, 7, 4, 8: 100", text)
        self.assertIn("Count plugs in: ______ of 2", text)
        self.assertIn("1 × Boss of vent: ______ here, ______ caps", text)
        self.assertIn("As many out as in of plugs, screws of module: ______ in", text)

    def test_in_the_readers_units(self) -> None:
        """Lengths in inches for who reads inches."""
        Person.objects.filter(username="viewer").update(units="in_usgal")
        text = " ".join(self.pages("traveller.pdf"))
        self.assertIn('Drawn 13.661"', text)
        self.assertIn('Tube: 15.433", 13 7/16" from seat to inlet', text)
        self.assertNotIn(" mm", text)

    def test_as_far_as_it_is(self) -> None:
        """What is done is ticked with name and time, what was agreed stands first, what changed says so."""
        self.write("agreed", about="finish", what="brushed", consent="harbour office")
        self.write("started", subject="prepare:sheet")
        self.write("done", subject="prepare:sheet")
        self.write("skipped", subject="cut:no-means-typed", reason="bought cut")
        text = " ".join(self.pages("traveller.pdf"))
        self.assertIn("Agreed, finish: brushed (harbour office)", text)
        self.assertEqual(text.count("Fabricator,"), 2)
        self.assertIn("skipped: bought cut", text)
        document = self.built.current().document
        document["ports"][0]["x_mm"] = 520.0
        for kind in ("started", "done"):
            self.write(kind, subject="receive:goods")
        status, _ = self.fabricator("PUT", f"designs/{self.built.pk}", {"design": document, "base_revision": 1})
        self.assertEqual(status, 200)
        self.assertNotIn("CHANGED", " ".join(self.pages("traveller.pdf")))

    def test_unmet_on_every_page(self) -> None:
        """A gate that was passed unmet stands on every page of every paper, by whom and why, until it is taken back."""
        papers = ("job-sheet.pdf", "bend-sheet.pdf", "traveller.pdf", "dip-stick.pdf", "port-vent.pdf", "sent-out.pdf")
        for name in papers:
            self.assertNotIn("PASSED UNMET", " ".join(self.pages(name)), name)
        self.write("override", subject="inside:front-pan", name="Marla Quent", reason="mirror is broken")
        for name in papers:
            for page in self.pages(name):
                self.assertIn("GATE PASSED UNMET. Inside clean and looked at before the front pan shuts it", page, name)
                self.assertIn("mirror is broken", page, name)
        self.write("correction", of=f"c{self.count}")
        self.assertNotIn("PASSED UNMET", self.pages("job-sheet.pdf")[0])

    def test_sent_out(self) -> None:
        """A page for each thing that is away; back, it has none; with nothing away a blank one to fill in."""
        blank = self.pages("sent-out.pdf")
        self.assertEqual(len(blank), 1)
        self.assertIn("Work: ____", blank[0])
        more = {"state": "welded, clean", "may_meet": "acid at 60 °C", "returns": "wrapper and its 2 plugs"}
        self.write("sent", subject="wrapper", parts=["wrapper"], to="The platers", work="Zinc", **more)
        self.write("sent", subject="end-pan", parts=["end-pan"], to="The bender", work="Flanges")
        first, second = self.pages("sent-out.pdf")
        for words in ("Zinc", "The platers", "Wrapper", "welded, clean", "acid at 60 °C", "wrapper and its 2 plugs"):
            self.assertIn(words, first)
        self.assertIn("The bender", second)
        self.assertIn("no heat, flame or grinding before the workshop has given a gas reading", second)
        self.write("back", of="c1")
        self.assertEqual(len(self.pages("sent-out.pdf")), 1)
