"""Scans and profiles sent in, and designs that refer to them."""

import io
import re
import struct
from typing import Any

import ezdxf
from ezdxf import units

from keel.formats.document import design_from
from keel.solid.shapes import block, mesh_of
from server.jobs.models import Scan, TankDesign
from server.tests.helpers import ApiTestCase, paper_text

SADDLE = {
    "shell": {
        "kind": "profile",
        "shape": "saddle",
        "wrap_axis": "x",
        "corners": [
            {"across_mm": a, "up_mm": z}
            for a, z in ((0, 0), (400, 0), (400, 220), (700, 220), (700, 0), (1100, 0), (1100, 420), (0, 420))
        ],
        "run_mm": 600.0,
        "metal": "5083-H111",
        "thickness_mm": 4.0,
        "bend_radius_mm": 8.0,
    }
}


def stl(low: tuple[float, float, float], high: tuple[float, float, float]) -> bytes:
    """A box as a binary STL file."""
    corners = mesh_of(block(low, high)).corners
    body = b"".join(struct.pack("<12fH", 0, 0, 0, *t.ravel(), 0) for t in corners)
    return b" " * 80 + struct.pack("<I", len(corners)) + body


def dxf(places: list[tuple[float, float]], closed: bool = True) -> bytes:
    """An outline in inches."""
    document = ezdxf.new("R2010", units=units.IN)
    document.modelspace().add_lwpolyline(places, close=closed)
    stream = io.StringIO()
    document.write(stream)
    return stream.getvalue().encode()


class Scans(ApiTestCase):
    """Kept once, by fingerprint, within the workshop."""

    BAY = {"length_mm": 1000.0, "width_mm": 600.0, "height_mm": 500.0}
    SHELL = {"length_mm": 600.0, "width_mm": 300.0, "height_mm": 300.0, "x_mm": 150.0, "y_mm": 100.0, "z_mm": 20.0}

    def upload(self, data: bytes, who: Any = None, query: str = "unit=mm&name=bracket") -> tuple[int, Any]:
        """Send a file as it is."""
        return (who or self.fabricator)("POST", f"scans?{query}", raw=data)

    def test_kept_once_and_seen_by_the_workshop_alone(self) -> None:
        """The same mesh twice is one row; a viewer may look but not send; next door it isn't there."""
        data = stl((0, 0, 0), (40, 30, 20))
        status, scan = self.upload(data)
        self.assertEqual(status, 200, scan)
        self.assertEqual((scan["triangles"], scan["high_mm"]), (12, [40, 30, 20]))
        self.assertEqual(len(scan["shown_triangles"]), 36)
        self.assertEqual(self.upload(data)[1]["fingerprint"], scan["fingerprint"])
        self.assertEqual(Scan.objects.count(), 1)
        self.refused(self.upload(data, self.viewer), 403, "role")
        self.refused(self.upload(data, self.nobody), 401, "signed_out")
        address = f"scans/{scan['fingerprint']}"
        self.assertEqual(self.viewer("GET", address)[0], 200)
        self.refused(self.stranger("GET", address), 404, "not_found")
        self.refused(self.viewer("GET", "scans/nothing"), 404, "not_found")

    def test_units_count(self) -> None:
        """The same file in inches is 25.4 times as large, and another scan."""
        data = stl((0, 0, 0), (4, 3, 2))
        self.assertAlmostEqual(self.upload(data, query="unit=in")[1]["high_mm"][0], 101.6, places=4)
        self.assertEqual(self.upload(data)[1]["high_mm"][0], 4)
        self.assertEqual(Scan.objects.count(), 2)

    def test_what_is_no_scan_says_why(self) -> None:
        """Cut short, empty, no unit, an unknown unit, too large to be read at all."""
        data = stl((0, 0, 0), (4, 3, 2))
        body = self.refused(self.upload(data[:-20]), 422, "invalid")
        self.assertEqual(body["errors"][0]["field"], "file")
        self.assertIn("cut short", body["message"])
        self.refused(self.upload(b""), 422, "invalid")
        self.refused(self.upload(data, query="name=x"), 422, "invalid")
        self.assertIn(
            "unit", self.refused(self.upload(data, query="unit=furlong"), 422, "invalid")["errors"][0]["field"]
        )
        with self.settings(KEEL_UPLOAD_LIMITS={"/api/scans": 600}):
            body = self.refused(self.upload(data), 413, "too_large")
        self.assertEqual(body["errors"][0]["value"], len(data))
        self.assertEqual(Scan.objects.count(), 0)

    def test_a_design_is_judged_against_its_scan(self) -> None:
        """The gap is the scan's; next door, where it isn't kept, the same design has none; files are still made."""
        fingerprint = self.upload(stl((797, 100, 20), (900, 300, 200)))[1]["fingerprint"]
        keep_out = {"kind": "scan", "id": "k", "name": "bracket", "scan": fingerprint}
        design = {"bay": self.BAY | {"keep_outs": [keep_out]}, "shell": self.SHELL}
        answer = self.viewer("POST", "evaluate", {"design": design})[1]
        gap = next(gap for gap in answer["bay"]["gaps"] if gap["key"] == "k")
        self.assertAlmostEqual(gap["gap_mm"], 30, places=3)
        elsewhere = self.stranger("POST", "evaluate", {"design": design})[1]
        self.assertNotIn("k", {gap["key"] for gap in elsewhere["bay"]["gaps"]})
        status, made = self.fabricator("POST", f"jobs/{self.job.pk}/designs", {"name": "With scan", "design": design})
        self.assertEqual(status, 201, made)
        self.assertEqual(self.viewer("GET", f"designs/{made['id']}/files/job-sheet.pdf")[0], 200)


class Outlines(ApiTestCase):
    """Profiles from drawings: read, not kept."""

    def test_corners_come_back_in_millimetres(self) -> None:
        """Ready to be put into the design."""
        status, found = self.fabricator("POST", "outline", raw=dxf([(0, 0), (20, 0), (20, 6), (8, 12), (0, 12)]))
        self.assertEqual(status, 200, found)
        self.assertEqual(found["corners"][2], {"across_mm": 508, "up_mm": 152.4, "bow_mm": 0, "joint": "bend"})
        self.assertIn("inches", found["remark"])

    def test_refusals(self) -> None:
        """An open outline names the gap; viewers and strangers are kept out."""
        body = self.refused(
            self.fabricator("POST", "outline", raw=dxf([(0, 0), (20, 0), (20, 6)], closed=False)), 422, "invalid"
        )
        self.assertIn("open at", body["message"])
        self.refused(self.fabricator("POST", "outline", raw=b"nonsense"), 422, "invalid")
        self.refused(self.viewer("POST", "outline", raw=b"x"), 403, "role")
        self.refused(self.nobody("POST", "outline", raw=b"x"), 401, "signed_out")


class Shells(ApiTestCase):
    """Designs of other kinds through the API, and the papers made of them."""

    def test_wrong_shapes_are_named_but_kept(self) -> None:
        """A profile that crosses itself is saved as typed; asking about it, and for its files, says what is wrong."""
        shell = SADDLE["shell"]
        bow_tie = ((0.0, 0.0), (400.0, 0.0), (0.0, 300.0), (400.0, 300.0))
        corners = [{"across_mm": across, "up_mm": up, "bow_mm": 0.0, "joint": "bend"} for across, up in bow_tie]
        crossed = {"shell": shell | {"corners": corners}}
        body = self.refused(self.viewer("POST", "evaluate", {"design": crossed}), 422, "invalid")
        self.assertEqual(body["errors"][0]["field"], "shell.corners")
        self.assertIn("crosses itself", body["message"])
        saved = self.fabricator("PUT", f"designs/{self.tank.pk}", {"base_revision": 1, "design": crossed, "note": ""})
        self.assertEqual(saved[0], 200, saved[1])
        self.refused(self.viewer("GET", f"designs/{self.tank.pk}/files/wrapper.dxf"), 422, "invalid")
        self.assertEqual(self.viewer("GET", f"designs/{self.tank.pk}/files/design.json")[0], 200)

    def test_faults_of_fields_have_plain_paths(self) -> None:
        """No name of a kind stands in the path of a field."""
        for part, field in (
            ({"shell": {"kind": "cylinder", "diameter_mm": -5, "run_mm": 100}}, "shell.diameter_mm"),
            ({"shell": SADDLE["shell"] | {"run_mm": "long"}}, "shell.run_mm"),
            ({"shell": {"kind": "sphere"}}, "shell.kind"),
            ({"shell": self.box_with({"kind": "well", "id": "w", "name": "w"})}, "shell.features.0.a_mm"),
            ({"ports": [{"id": "p", "name": "p", "role": "spout", "x_mm": 0, "y_mm": 0}]}, "ports.0.role"),
        ):
            body = self.refused(self.viewer("POST", "evaluate", {"design": part}), 422, "invalid")
            self.assertEqual(body["errors"][0]["field"], field)

    @staticmethod
    def box_with(feature: dict[str, Any]) -> dict[str, Any]:
        """A box with one feature."""
        return {"kind": "box", "length_mm": 800.0, "width_mm": 400.0, "height_mm": 350.0, "features": [feature]}

    def test_strapping_and_dip_stick_at_a_pitch(self) -> None:
        """Rows at the step asked for, each cell by itself; the strip as tall as the tank, on the pages it takes."""
        wall = {"kind": "partition", "id": "p", "name": "wall", "axis": "x", "at_mm": 300.0, "thickness_mm": 4.0}
        shell = self.box_with(wall)
        self.fabricator("PUT", f"designs/{self.tank.pk}", {"base_revision": 1, "design": {"shell": shell}, "note": ""})
        _, data = self.viewer("GET", f"designs/{self.tank.pk}/files/strapping.csv?pitch_mm=50")
        rows = [line.split(",") for line in data.decode().splitlines()[1:]]
        self.assertEqual({row[0] for row in rows}, {"rear cell", "front cell"})
        levels = [float(row[1]) for row in rows if row[0] == "rear cell"]
        self.assertEqual(levels, [0, 50, 100, 150, 200, 250, 300, 344])
        answer = self.viewer.client.get(f"/api/designs/{self.tank.pk}/files/dip-stick.pdf?pitch_mm=50")
        self.assertEqual(answer.status_code, 200)
        # 344 mm inside needs two tiles of 230 mm; two cells, four pages.
        self.assertEqual(len(re.findall(rb"/Type /Page\b", answer.content)), 4)
        self.refused(self.viewer("GET", f"designs/{self.tank.pk}/files/strapping.csv?pitch_mm=0"), 422, "invalid")

    def test_litres_on_the_dip_stick_are_the_tables(self) -> None:
        """The strip's figures, read off the paper, are those of the strapping table."""
        self.fabricator("PUT", f"designs/{self.tank.pk}", {"base_revision": 1, "design": SADDLE, "note": ""})
        _, table = self.viewer("GET", f"designs/{self.tank.pk}/files/strapping.csv?pitch_mm=40")
        _, paper = self.viewer("GET", f"designs/{self.tank.pk}/files/dip-stick.pdf?pitch_mm=40")
        said = set(re.findall(r"([\d.]+) L", paper_text(paper)))
        rows = [line.split(",") for line in table.decode().splitlines()[1:]]
        self.assertLessEqual({f"{float(row[2]):.2f}" for row in rows}, said)

    def test_every_kind_has_its_papers(self) -> None:
        """Parts, lists and a one-page sheet for profiles and cylinders too."""
        cylinder = {"shell": {"kind": "cylinder", "axis": "z", "diameter_mm": 200.0, "run_mm": 300.0}}
        for document, names in ((SADDLE, ("wrapper", "end")), (cylinder, ("wrapper", "end"))):
            tank = TankDesign.started(self.job, "Other", design_from(document), None, "")
            for name in names:
                for kind in ("dxf", "svg"):
                    self.assertEqual(self.viewer("GET", f"designs/{tank.pk}/files/{name}.{kind}")[0], 200, name)
            _, sheet = self.viewer("GET", f"designs/{tank.pk}/files/job-sheet.pdf")
            self.assertEqual(len(re.findall(rb"/Type /Page\b", sheet)), 1)
            _, cuts = self.viewer("GET", f"designs/{tank.pk}/files/cut-list.csv")
            self.assertEqual(len(cuts.decode().splitlines()), 3)
