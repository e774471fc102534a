"""Every paper of any design at all: it comes, it can be read back, nothing runs off its pages."""

import csv
import io
import json
import zipfile
from collections.abc import Iterator
from itertools import pairwise
from math import isfinite
from typing import Any

import ezdxf
from pypdf import PdfReader
from reportlab.lib.units import mm
from shapely.geometry import Polygon

from keel.formats.document import UnreadableDesignError, read_design
from keel.solid.faults import GeometryError
from keel.tests.wild import Wild
from server.jobs.models import TankDesign
from server.tests.helpers import ApiTestCase
from server.tests.test_papers import spans

ODD = ("None", "nan", "inf ", "{", "}")
"""What no reader should ever see."""


class AnyDesign(ApiTestCase):
    """Wild designs, each of its files."""

    def tanks(self, count: int, first: int) -> Iterator[TankDesign]:
        """Designs that somebody saved, of which something can be made."""
        seed = first
        while count:
            seed += 1
            try:
                design = read_design(json.dumps(Wild(seed).document()))
            except (UnreadableDesignError, GeometryError):
                continue
            tank = TankDesign.started(self.job, f"Wild {seed}", design, None, "")
            if len(self.named(tank)) > 1:
                yield tank
                count -= 1

    def named(self, tank: TankDesign) -> list[str]:
        """The files that are offered."""
        status, offered = self.viewer("GET", f"designs/{tank.pk}/papers")
        self.assertEqual(status, 200, offered)
        return [paper["name"] for paper in offered]

    def test_every_file_of_every_design(self) -> None:
        """Offered and there, in either kind of units."""
        looks = {"pdf": self.look_at_pdf, "dxf": self.look_at_dxf, "csv": self.look_at_csv, "json": self.look_at_json}
        looks["zip"] = self.look_at_zip
        read = dict.fromkeys((*looks, "svg"), 0)
        for number, tank in enumerate(self.tanks(14, 40)):
            units = ("mm_l", "in_usgal")[number % 2]
            self.viewer("PATCH", "session/preferences", {"units": units})
            for name in self.named(tank):
                with self.subTest(tank=tank.name, file=name, units=units):
                    answer = self.viewer.client.get(f"/api/designs/{tank.pk}/files/{name}")
                    self.assertEqual(answer.status_code, 200, answer.content[:300])
                    kind = name.rpartition(".")[2]
                    read[kind] += 1
                    if kind in looks:
                        looks[kind](answer.content, tank)
        self.assertGreater(min(read.values()), 10, read)

    def look_at_pdf(self, content: bytes, tank: TankDesign) -> None:
        """Whose it is stands on every page; all words lie on the paper."""
        for page in PdfReader(io.BytesIO(content)).pages:
            self.assertIn(str(self.job.number), page.extract_text())
            wide, high = float(page.mediabox.width), float(page.mediabox.height)
            for text, start, end, up in spans(page):
                self.assertTrue(4 * mm < start and end < wide - 4 * mm and 3 * mm < up < high - 3 * mm, text)
                self.assertFalse([odd for odd in ODD if odd in text], text)

    def look_at_dxf(self, content: bytes, tank: TankDesign) -> None:
        """What is cut is closed and holds something; no entity is without a length, none is there twice."""
        drawing = ezdxf.read(io.StringIO(content.decode()))
        cut = drawing.modelspace().query('LWPOLYLINE[layer=="CUT"]')
        self.assertTrue(len(cut) > 0 or len(drawing.modelspace().query('CIRCLE[layer=="CUT"]')) > 0)
        seen = set[tuple[Any, ...]]()
        for line in cut:
            self.assertTrue(line.closed)
            places = [(x, y) for x, y, *_ in line.get_points()]
            if not any(bulge for *_, bulge in line.get_points()):
                shape = Polygon(places)
                self.assertTrue(shape.is_valid and shape.area > 1.0)
            self.assertTrue(all(isfinite(value) for place in places for value in place))
            self.assertFalse([1 for a, b in pairwise(places) if a == b])
            seen.add(tuple(sorted((round(x, 4), round(y, 4)) for x, y in places)))
        self.assertEqual(len(seen), len(cut))

    def look_at_zip(self, content: bytes, tank: TankDesign) -> None:
        """As many drawings as parts have one, each sound."""
        packed = zipfile.ZipFile(io.BytesIO(content))
        self.assertIsNone(packed.testzip())
        drawn = {
            name for name in self.named(tank) if name.endswith(".dxf") and not name.startswith(("port-", "strap-"))
        }
        self.assertEqual(set(packed.namelist()), drawn)

    def look_at_csv(self, content: bytes, tank: TankDesign) -> None:
        """As many cells in each row as the heading has, none of them odd."""
        heading, *rows = list(csv.reader(io.StringIO(content.decode("utf-8-sig"))))
        self.assertEqual(len(set(heading)), len(heading))
        for row in rows:
            self.assertEqual(len(row), len(heading))
            self.assertFalse([cell for cell in row if cell in ODD or cell in ("None", "nan", "inf")])

    def look_at_json(self, content: bytes, tank: TankDesign) -> None:
        """The design as it is kept."""
        self.assertEqual(read_design(content.decode()), tank.current().design())
