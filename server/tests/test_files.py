"""Files to take away."""

import io
import re

import ezdxf
from shapely.geometry import Polygon

from keel.design.document import Design
from server.jobs.models import TankDesign
from server.tests.helpers import ApiTestCase


class Files(ApiTestCase):
    """What comes out is what is saved."""

    def test_every_file_is_there(self) -> None:
        """With its type, and a name that says job, design and revision."""
        starts = {
            "design.json": b"{",
            "cut-list.csv": b"part,",
            "strapping.csv": b"level_mm,",
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
        pan = self.viewer("POST", "evaluate", {"design": design})[1]["sheet"]["parts"][1]
        area = Polygon([(x, y) for x, y, *_ in outline.get_points()]).area
        self.assertAlmostEqual(area, pan["area_mm2"], delta=1e-6 * pan["area_mm2"])

    def test_job_sheet_is_one_page(self) -> None:
        """One page, in either unit, findings and all."""
        for units in ("mm_l", "in_usgal"):
            self.owner("PATCH", "session/preferences", {"units": units})
            _, data = self.owner("GET", f"designs/{self.tank.pk}/files/job-sheet.pdf")
            self.assertEqual(len(re.findall(rb"/Type /Page\b", data)), 1)

    def test_nothing_to_make_files_of(self) -> None:
        """Without a shell, or with pans that can't be folded, the reason is given."""
        empty = TankDesign.started(self.job, "Empty", Design(), None, "")
        self.refused(self.viewer("GET", f"designs/{empty.pk}/files/wrapper.dxf"), 422, "no_shell")
        shell = {"length_mm": 300, "width_mm": 300, "height_mm": 32, "thickness_mm": 3.0, "bend_radius_mm": 12.0}
        tiny = TankDesign.started(self.job, "Tiny", Design.model_validate({"shell": shell}), None, "")
        self.refused(self.viewer("GET", f"designs/{tiny.pk}/files/cut-list.csv"), 422, "no_parts")
        self.assertEqual(self.viewer("GET", f"designs/{tiny.pk}/files/strapping.csv")[0], 200)
