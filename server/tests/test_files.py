"""Files to download."""

import csv
import io
import re

import ezdxf
from shapely.geometry import Polygon

from keel.design.document import Design
from server.jobs.models import Customer, TankDesign
from server.tests.helpers import ApiTestCase, paper_text


class Files(ApiTestCase):
    """What comes out is what is saved."""

    def test_every_file_is_there(self) -> None:
        """With its type, and a name that says job, design and revision."""
        starts = {
            "design.json": b"{",
            "cut-list.csv": b"part,",
            "strapping.csv": b"cell,level_mm,",
            "wrapper.dxf": b"  0",
            "end-pan.svg": b"<?xml",
            "job-sheet.pdf": b"%PDF",
        }
        for name, start in starts.items():
            answer = self.viewer.client.get(f"/api/designs/{self.tank.pk}/files/{name}")
            self.assertEqual(answer.status_code, 200, name)
            self.assertTrue(answer.content.startswith(start), (name, answer.content[:20]))
            self.assertIn(f'filename="{self.job.number}-main-r1-{name}"', answer.headers["Content-Disposition"])
        for name in ("lid.dxf", "wrapper.exe", "nothing", "end-pan"):
            self.refused(self.viewer("GET", f"designs/{self.tank.pk}/files/{name}"), 404, "not_found")

    def test_dxf_has_the_evaluated_area(self) -> None:
        """The file's outline encloses what the evaluation says."""
        _, data = self.viewer("GET", f"designs/{self.tank.pk}/files/end-pan.dxf")
        outline = ezdxf.read(io.StringIO(data.decode())).modelspace().query('LWPOLYLINE[layer=="CUT"]')[0]
        design = self.tank.current().design().model_dump(mode="json")
        pan = self.viewer("POST", "evaluate", {"design": design})[1]["sheet"]["unfolded"]["parts"][1]
        area = Polygon([(x, y) for x, y, *_ in outline.get_points()]).area
        self.assertAlmostEqual(area, pan["area_mm2"], delta=1e-6 * pan["area_mm2"])

    def test_job_sheet_is_one_page(self) -> None:
        """One page, in either unit, findings and all."""
        for units in ("mm_l", "in_usgal"):
            self.owner("PATCH", "session/preferences", {"units": units})
            _, data = self.owner("GET", f"designs/{self.tank.pk}/files/job-sheet.pdf")
            self.assertEqual(len(re.findall(rb"/Type /Page\b", data)), 1)

    def test_job_sheet_says_the_figures(self) -> None:
        """Litres, masses, flats and open findings as evaluated; the customer's name; the reader's units."""
        Customer.objects.create(workshop=self.workshop, name="Tove Skarn")
        self.job.customer = Customer.objects.get(name="Tove Skarn")
        self.job.save()
        design = self.tank.current().design().model_dump(mode="json")
        answer = self.viewer("POST", "evaluate", {"design": design})[1]
        brimful, parts = answer["shell"]["figures"]["brimful_l"], answer["sheet"]["unfolded"]["parts"]
        metric = self.sheet_text("mm_l")
        for said in (f"{brimful:.2f} L", "Tove Skarn", "First", "5052-H32, 3 mm", "revision 1", "Leak-test before"):
            self.assertIn(said, metric)
        for part in parts:
            self.assertIn(f"{part['title']} × {part['quantity']}: {part['length_mm']:.1f} ×", metric)
        self.assertIn(f"{answer['shell']['figures']['empty_kg']:.1f} kg", metric)
        self.assertIn("CAUTION: Sheet of the floor 3 mm, at least", metric)
        inches = self.sheet_text("in_usgal")
        self.assertIn(f"{brimful / 3.785411784:.2f} US gal", inches)
        self.assertIn('31 1/2"', inches)
        self.assertIn(f'{parts[0]["length_mm"] / 25.4:.3f}" × {parts[0]["width_mm"] / 25.4:.3f}"', inches)

    def sheet_text(self, units: str) -> str:
        """All text of the job sheet in some units, in the order drawn."""
        self.owner("PATCH", "session/preferences", {"units": units})
        _, data = self.owner("GET", f"designs/{self.tank.pk}/files/job-sheet.pdf")
        return paper_text(data)

    def test_tables_are_the_readers(self) -> None:
        """Inches, gallons, pounds, with headings that say so; the library comes back in as it went out."""

        def table(name: str) -> list[dict[str, str]]:
            _, data = self.owner("GET", f"designs/{self.tank.pk}/files/{name}")
            return list(csv.DictReader(io.StringIO(data.decode())))

        metric = table("cut-list.csv"), table("strapping.csv")
        part = {"name": "Boss", "role": "return", "seat": {"hole_mm": 25.4, "outer_mm": 50.8}}
        settings = self.owner("GET", "workshop")[1]
        body = {"base_version": settings["version"], "settings": settings["settings"] | {"parts": [part]}}
        self.assertEqual(self.owner("PUT", "workshop", body)[0], 200)
        self.owner("PATCH", "session/preferences", {"units": "in_usgal"})
        inches = table("cut-list.csv"), table("strapping.csv")
        pairs = [("flat_length_mm", "flat_length_in", 25.4), ("mass_kg_each", "mass_lb_each", 0.45359237)]
        for before, after in zip(metric[0], inches[0], strict=True):
            for name, other, per in pairs:
                self.assertAlmostEqual(float(before[name]) / per, float(after[other]), places=4)
        for before, after in zip(metric[1], inches[1], strict=True):
            self.assertAlmostEqual(float(before["volume_l"]) / 3.785411784, float(after["volume_usgal"]), places=4)
        _, parts = self.owner("GET", "workshop/parts.csv")
        row = next(csv.DictReader(io.StringIO(parts.decode())))
        self.assertEqual((row["hole_in"], row["outer_in"]), ("1", "2"))
        answer = self.owner.client.post("/api/workshop/parts.csv", data=parts, content_type="text/csv")
        self.assertEqual(answer.json()["problems"], [])
        self.assertEqual(answer.json()["parts"][0]["seat"]["hole_mm"], 25.4)

    def test_names_from_anywhere_make_a_sheet(self) -> None:
        """Letters that the paper's font lacks don't stop it."""
        self.tank.name = "Łódź 日本 tank"
        self.tank.save()
        answer = self.viewer.client.get(f"/api/designs/{self.tank.pk}/files/job-sheet.pdf")
        self.assertEqual(answer.status_code, 200)
        self.assertIn("odz", answer.headers["Content-Disposition"])

    def test_nothing_to_make_files_of(self) -> None:
        """Without a shell, or with pans that can't be folded, the reason is given."""
        empty = TankDesign.started(self.job, "Empty", Design(), None, "")
        self.refused(self.viewer("GET", f"designs/{empty.pk}/files/wrapper.dxf"), 422, "no_shell")
        shell = {"length_mm": 300, "width_mm": 300, "height_mm": 32, "thickness_mm": 3.0, "bend_radius_mm": 12.0}
        tiny = TankDesign.started(self.job, "Tiny", Design.model_validate({"shell": shell}), None, "")
        self.refused(self.viewer("GET", f"designs/{tiny.pk}/files/cut-list.csv"), 422, "no_parts")
        self.assertEqual(self.viewer("GET", f"designs/{tiny.pk}/files/strapping.csv")[0], 200)
