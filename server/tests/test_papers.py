"""What is printed stands where it should: scales, faces, parts, runs."""

import io
from math import atan2, degrees, hypot
from typing import Any

from pypdf import PageObject, PdfReader
from reportlab.lib.pagesizes import A4
from reportlab.lib.units import mm
from reportlab.pdfbase import pdfmetrics

from keel.design.document import Design
from server.jobs.models import Customer, TankDesign
from server.papers.dip_stick import FOOT, TILE
from server.papers.gauge_face import needle_angle
from server.papers.page import BOLD, PLAIN
from server.papers.port_sheet import TILE_HIGH, TILE_WIDE
from server.tests.helpers import BOX, ApiTestCase

HALF_FIGURE = 1.25
"""Half the width of a figure on the face [points]."""
POT = {
    "kind": "pot",
    "id": "pot",
    "name": "pot",
    "a_mm": 100.0,
    "b_mm": 100.0,
    "long_mm": 150.0,
    "wide_mm": 120.0,
    "high_mm": 90.0,
}
PLATES = [
    {"kind": "baffle", "id": f"b{n}", "name": f"plate {n}", "at_mm": 300.0 + 60 * n, "flange_mm": 15.0}
    for n in range(6)
]
SENDER = {
    "id": "s",
    "name": "sender",
    "x_mm": 400.0,
    "y_mm": 200.0,
    "action": {"kind": "swing arm", "made_arm_mm": 150.0, "empty_deg": -40.0, "full_deg": 40.0},
}


def placed(page: PageObject) -> list[tuple[str, float, float]]:
    """Words of a page with their places [points]."""
    found: list[tuple[str, float, float]] = []

    def visit(text: str, _cm: Any, tm: Any, _font: Any, _size: Any) -> None:
        if text.strip():
            found.append((text.strip(), float(tm[4]), float(tm[5])))

    page.extract_text(visitor_text=visit)
    return found


def spans(page: PageObject) -> list[tuple[str, float, float, float]]:
    """Words of a page: where they begin and end across, and their height [points]."""
    found: list[tuple[str, float, float, float]] = []

    def visit(text: str, cm: Any, tm: Any, font: Any, size: Any) -> None:
        for line in text.split("\n"):
            if line.strip() and font is not None:
                bold = "Bold" in str(font.get("/BaseFont", ""))
                wide = pdfmetrics.stringWidth(line.strip(), BOLD if bold else PLAIN, float(size)) * float(tm[0] * cm[0])
                x, y = tm[4] * cm[0] + cm[4], tm[5] * cm[3] + cm[5]
                found.append((line.strip(), float(x), float(x + wide), float(y)))

    page.extract_text(visitor_text=visit)
    return found


class Papers(ApiTestCase):
    """PDFs, read back."""

    def pages(self, name: str, tank: TankDesign | None = None) -> list[PageObject]:
        """Pages of a file of a design."""
        status, data = self.viewer("GET", f"designs/{(tank or self.tank).pk}/files/{name}")
        self.assertEqual(status, 200, data)
        return list(PdfReader(io.BytesIO(data)).pages)

    def made(self, **more: Any) -> TankDesign:
        """A design of the box with something in it."""
        return TankDesign.started(self.job, "Made", Design.model_validate(BOX | more), None, "")

    def test_a_dip_stick_is_full_size(self) -> None:
        """Every level's figure stands as many millimetres over the strip's foot as it says, on every tile."""
        pages = self.pages("dip-stick.pdf?pitch_mm=25")
        seen = 0
        for tile, page in enumerate(pages):
            for text, x, y in placed(page):
                if x < 40 * mm and text.replace(".", "").isdigit():
                    seen += 1
                    self.assertAlmostEqual(y + 2, FOOT + float(text) * mm - tile * TILE, delta=0.06 * mm)
        self.assertGreater(seen, 10)
        self.assertGreater(len(pages), 1)

    def test_a_large_template_is_tiled(self) -> None:
        """A ring of 380 mm on 2 × 3 sheets: joined edge to edge, every figure lies at its full-size place, once."""
        seat = {
            "kind": "flange",
            "hole_mm": 300.0,
            "outer_mm": 380.0,
            "bolt_circle_mm": 350.0,
            "bolts": 8,
            "bolt_mm": 8.0,
        }
        port = {"id": "hatch", "name": "hatch", "x_mm": 400.0, "y_mm": 200.0, "seat": seat}
        first, *tiles = self.pages("port-hatch.pdf", self.made(ports=[port]))
        self.assertIn("NOT to scale", first.extract_text())
        self.assertEqual(len(tiles), 6)
        seen: dict[str, list[tuple[float, float]]] = {}
        for number, page in enumerate(tiles):
            row, column = divmod(number, 3)
            self.assertIn(f"row {row + 1} of 2, column {column + 1} of 3", page.extract_text())
            left, foot = (A4[0] - TILE_WIDE) / 2, 30 * mm
            for text, x, y in placed(page):
                if (
                    text in {str(n) for n in range(1, 9)}
                    and left < x < left + TILE_WIDE
                    and foot < y < foot + TILE_HIGH
                ):
                    joined = (x - left + (column - 1.5) * TILE_WIDE, y + 4 - foot - row * TILE_HIGH)
                    seen.setdefault(text, []).append(joined)
        self.assertEqual(sorted(seen), [str(n) for n in range(1, 9)])
        for places in seen.values():
            self.assertEqual(len(places), 1)
            self.assertAlmostEqual(hypot(places[0][0] + 3, places[0][1]) / mm, (300 + 350 - 8) / 4, delta=0.2)

    def test_nothing_runs_off_the_page(self) -> None:
        """With names as long as they may be, on every paper, in either kind of units."""
        long = ("Wide Mouthed Widow " * 5)[:80].strip()
        self.job.title = long
        self.job.customer = Customer.objects.create(workshop=self.workshop, name=long[::-1])
        self.job.save()
        seat = {
            "kind": "flange",
            "hole_mm": 80.0,
            "outer_mm": 120.0,
            "bolt_circle_mm": 100.0,
            "bolts": 10,
            "bolt_mm": 6.5,
        }
        port = {
            "id": "p",
            "name": long,
            "role": "pickup",
            "x_mm": 400.0,
            "y_mm": 200.0,
            "seat": seat | {"torque_nm": 8.0},
        }
        hanger = {"made_for_mm": 230.0, "bracket_mm": 60.0, "pump_mm": 110.0, "strainer_mm": 12.0}
        shell: dict[str, Any] = BOX["shell"]
        more = {"ports": [port | {"hanger": hanger}], "gauge": {"senders": [SENDER | {"name": long}]}}
        design = Design.model_validate(BOX | more | {"shell": shell | {"features": [POT | {"name": long}, *PLATES]}})
        tank = TankDesign.started(self.job, long, design, None, "")
        for units in ("mm_l", "in_usgal"):
            self.viewer("PATCH", "session/preferences", {"units": units})
            for name in ("job-sheet.pdf", "port-p.pdf", "gauge-face.pdf", "dip-stick.pdf"):
                for number, page in enumerate(self.pages(name, tank)):
                    wide = float(page.mediabox.width)
                    for text, start, end, height in spans(page):
                        with self.subTest(paper=name, page=number, units=units, text=text):
                            self.assertGreaterEqual(start, 5 * mm)
                            self.assertLessEqual(end, wide - 5 * mm)
                            self.assertGreater(height, 4 * mm)

    def test_a_sheet_that_lacks_holes_says_so(self) -> None:
        """On the job sheet, beside the part: the hole of a port in a well that isn't unfolded is on no part."""
        seat = {"hole_mm": 60.0, "outer_mm": 80.0}
        port = {"id": "vent", "name": "vent", "role": "vent", "x_mm": 40.0, "y_mm": 100.0, "seat": seat}
        plain = self.pages("job-sheet.pdf", self.made(ports=[port]))[0]
        self.assertNotIn("DON'T CUT YET", plain.extract_text())
        mouth = {"kind": "well", "id": "w", "name": "well", "a_mm": -20, "b_mm": 40, "long_mm": 120, "wide_mm": 120}
        mouth |= {"form": "round", "slope_mm": 10}
        shell: dict[str, Any] = BOX["shell"]
        made = self.made(ports=[port], shell=shell | {"features": [mouth | {"deep_mm": 60}]})
        page = self.pages("job-sheet.pdf", made)[0]
        self.assertIn("DON'T CUT YET: holes not drawn for vent", page.extract_text())

    def test_a_gauge_face_tells_the_truth(self) -> None:
        """Each tenth's figure stands where the needle points when so much is in."""
        tank = self.made(gauge={"senders": [SENDER]})
        document = tank.current().design().model_dump(mode="json")
        (reading,) = self.viewer("POST", "evaluate", {"design": document})[1]["gauge"]["truth"]["readings"]
        words = placed(self.pages("gauge-face.pdf", tank)[0])
        y, other = (next(w[2] for w in words if w[0] == letter) for letter in "EF")
        self.assertAlmostEqual(y, other, places=3)
        middle = A4[0] / 2
        checked = 0
        for tenth in reading["tenths"]:
            name = f"{tenth['share'] * 10:.0f}"
            spots = [(a, b) for text, a, b in words if text == name and abs(a - middle) < 27 * mm and b > y - 2]
            if not 0 < tenth["needle"] < 1 or not spots:
                continue
            checked += 1
            angle = needle_angle(tenth["needle"])
            best = min(
                abs(degrees(atan2(b + 1.5 - self.centre(y), a + HALF_FIGURE - middle)) - angle) for a, b in spots
            )
            self.assertLess(best, 0.2)
        self.assertGreater(checked, 4)

    def centre(self, y: float) -> float:
        """Height of the face's middle, from that of its E."""
        return y + 3 - 0.55 * 26 * mm * 0.7071067811865476

    def test_parts_inside_have_pages_of_their_own(self) -> None:
        """Six to a page, each with its flat sizes and note as evaluated; the first page has the shell's alone."""
        shell: dict[str, Any] = BOX["shell"]
        tank = self.made(shell=shell | {"features": [POT, *PLATES]})
        document = tank.current().design().model_dump(mode="json")
        parts = self.viewer("POST", "evaluate", {"design": document})[1]["sheet"]["unfolded"]["parts"]
        pages = self.pages("job-sheet.pdf", tank)
        self.assertEqual(len(pages), 1 + 2)
        texts = [page.extract_text() for page in pages]
        for place, part in enumerate(parts):
            where = 0 if part["feature"] is None else 1 + (place - 2) // 6
            size = f"{part['title']} × {part['quantity']}: "
            self.assertIn(size, texts[where])
            for other, text in enumerate(texts):
                if other != where:
                    self.assertNotIn(size, text)
        self.assertIn("the flanges come towards you", texts[1])
