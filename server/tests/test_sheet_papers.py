"""What goes to the bender, to somebody else, and to the cutter, read back."""

import io
import zipfile
from typing import Any

import ezdxf
from pypdf import PdfReader

from keel.formats.document import design_from
from server.jobs.models import TankDesign
from server.tests.helpers import BOX, ApiTestCase
from server.workshop.models import Person

WELL = {"kind": "well", "id": "w", "name": "pump well", "a_mm": 100.0, "b_mm": 60.0, "long_mm": 140.0, "wide_mm": 120.0}
SHELL = BOX["shell"] | {"features": [WELL | {"deep_mm": 50.0}], "thickness_mm": 3.0, "bend_radius_mm": 4.5}


def entities(dxf: bytes) -> bytes:
    """What a file draws: its head has the time it was made."""
    return dxf.partition(b"ENTITIES")[2].partition(b"ENDSEC")[0]


class SheetPapers(ApiTestCase):
    """Of a box that is wrapped and has pans and a well."""

    def made(self, rules: dict[str, Any] | None = None, **sheet: Any) -> TankDesign:
        """A design of it, in a shop with some settings."""
        self.workshop.rules = rules or {}
        self.workshop.save()
        document = {"shell": SHELL, "sheet": {"scheme": "wrapper and pans"} | sheet}
        return TankDesign.started(self.job, "Other", design_from(document), None, "started")

    def file(self, tank: TankDesign, name: str) -> bytes:
        """One file of a design."""
        status, data = self.viewer("GET", f"designs/{tank.pk}/files/{name}")
        self.assertEqual(status, 200, data)
        return bytes(data)

    def words(self, tank: TankDesign, name: str) -> list[str]:
        """Words of each page of a paper."""
        pages = PdfReader(io.BytesIO(self.file(tank, name))).pages
        return [" ".join(page.extract_text().split()) for page in pages]

    def listed(self, tank: TankDesign) -> set[str]:
        """Names of all files of the sheet."""
        status, data = self.viewer("GET", f"designs/{tank.pk}/papers")
        self.assertEqual(status, 200, data)
        return {one["name"] for one in data if one["station"] == "sheet"}

    def test_a_page_a_bent_part(self) -> None:
        """Each bend in turn with the angle of the shop's own strip; of plates that aren't bent there is none."""
        strip = {"metal": "5052-H32", "thickness_mm": 3.0, "radius_mm": 4.5, "flat_mm": 150.0, "leg_a_mm": 78.0}
        rules = {"strips": [strip | {"leg_b_mm": 78.0, "bent_to_deg": 92.4}], "brake": {"name": "Old leaf"}}
        tank = self.made(rules)
        wrapper, pans = self.words(tank, "bend-sheet.pdf")
        self.assertIn("Bend sheet: wrapper × 1", wrapper)
        self.assertIn("On Old leaf", wrapper)
        self.assertEqual(wrapper.count("92.4°"), 4)
        self.assertEqual(wrapper.count("90.0°"), 4)
        self.assertIn("Bend a strip of the same sheet", wrapper)
        self.assertIn("end pan × 2", pans)
        self.assertIn("longest last", pans)
        self.assertEqual(pans.count("92.4°"), 4)
        flat = self.made(rules, scheme="flat plates")
        self.assertNotIn("bend-sheet.pdf", self.listed(flat))

    def test_what_no_order_makes(self) -> None:
        """The sheet says which bend is left over, and how many can be made."""
        tank = self.made({"brake": {"name": "Old leaf", "smallest_closed_box_mm": 900.0}})
        wrapper = self.words(tank, "bend-sheet.pdf")[0]
        self.assertIn("No order makes all bends on Old leaf", wrapper)

    def test_a_question(self) -> None:
        """One page with figures and room to answer; of a part that is no longer there it isn't offered."""
        asked = {"id": "q-1", "part": "wrapper", "to": "the harbour press", "asked": "Can you close this box?"}
        tank = self.made(questions=[asked, asked | {"id": "q-2", "part": "lid u"}])
        (page,) = self.words(tank, "question-q-1.pdf")
        for words in (
            "A question to the harbour press",
            "Can you close this box?",
            "5052-H32",
            "It can be bent as drawn",
        ):
            self.assertIn(words, page)
        self.assertEqual(page.count("90.0° towards you"), 4)
        self.assertEqual({name for name in self.listed(tank) if name.startswith("question")}, {"question-q-1.pdf"})
        status, data = self.viewer("GET", f"designs/{tank.pk}/files/question-q-2.pdf")
        self.assertEqual((status, data["code"]), (404, "not_found"))

    def test_sent_out(self) -> None:
        """A page for who makes it; its bends are no affair of the bend sheet."""
        tank = self.made(sent_out=["end-pan"])
        (page,) = self.words(tank, "send-out-end-pan.pdf")
        self.assertIn("To be made: end pan × 2", page)
        self.assertEqual(len(self.words(tank, "bend-sheet.pdf")), 1)
        self.assertNotIn("send-out-wrapper.pdf", self.listed(tank))

    def test_all_parts_in_one_file(self) -> None:
        """Every flat, the well's plates among them, each as it is by itself."""
        tank = self.made()
        data = self.file(tank, "parts.zip")
        packed = zipfile.ZipFile(io.BytesIO(data))
        names = set(packed.namelist())
        well = {f"let-in-w-{side}.dxf" for side in ("bottom", "rear-side", "front-side", "right-side", "left-side")}
        self.assertEqual(names, {"wrapper.dxf", "end-pan.dxf"} | well)
        self.assertEqual(names, {name for name in self.listed(tank) if name.endswith(".dxf")})
        for name in names:
            self.assertEqual(entities(packed.read(name)), entities(self.file(tank, name)))
        wrapper = ezdxf.read(io.StringIO(packed.read("wrapper.dxf").decode())).modelspace()
        rings = [list(line.get_points("xy")) for line in wrapper.query('LWPOLYLINE[layer=="CUT"]')]
        self.assertEqual(len(rings), 2, "the outline, and the well's mouth")
        mouth = min(rings, key=lambda ring: max(x for x, _ in ring) - min(x for x, _ in ring))
        sizes = sorted(max(spot[way] for spot in mouth) - min(spot[way] for spot in mouth) for way in (0, 1))
        for size, expected in zip(sizes, (126.0, 146.0), strict=True):
            self.assertAlmostEqual(size, expected, places=3)

    def test_inches(self) -> None:
        """For who reads inches places and radii are in inches."""
        Person.objects.filter(username="viewer").update(units="in_usgal")
        tank = self.made()
        wrapper = self.words(tank, "bend-sheet.pdf")[0]
        self.assertIn("0.177", wrapper)
        self.assertNotIn("4.50", wrapper)
