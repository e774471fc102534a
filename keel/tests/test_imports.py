"""Drawings and scans from elsewhere: good, odd and hostile."""

import io
import struct
import time
from unittest import TestCase

import ezdxf
import numpy as np
from ezdxf import units
from hypothesis import given, settings
from hypothesis import strategies as st

from keel.design.shell import ProfileShell
from keel.formats.outline import read_outline
from keel.formats.outline_pieces import UnreadableOutlineError
from keel.formats.stl import MOST_TRIANGLES, UnreadableMeshError, read_stl, thinned
from keel.solid.build import build
from keel.solid.shapes import block, mesh_of

SQUARE = [(0, 0), (4, 0), (4, 3), (0, 3)]


def drawing(unit: int = units.MM) -> "ezdxf.document.Drawing":
    """An empty drawing."""
    return ezdxf.new("R2010", units=unit)


def as_bytes(document: "ezdxf.document.Drawing") -> bytes:
    """A drawing as a file."""
    stream = io.StringIO()
    document.write(stream)
    return stream.getvalue().encode()


class Outlines(TestCase):
    """Profiles from DXF."""

    def refused(self, data: bytes, words: str) -> None:
        """The reason names what and where."""
        with self.assertRaises(UnreadableOutlineError) as caught:
            read_outline(data)
        self.assertRegex(caught.exception.fault.message, words)
        self.assertEqual(caught.exception.fault.field, "file")

    def test_closed_polyline_in_inches_with_an_arc(self) -> None:
        """A D of 6 × 4 in with a half-round side, drawn clockwise and away from the origin."""
        document = drawing(units.IN)
        places = [(10, 10, 0), (10, 14, 0), (14, 14, -1), (14, 10, 0)]
        document.modelspace().add_lwpolyline(places, format="xyb", close=True)
        corners, remark = read_outline(as_bytes(document))
        self.assertIn("inches", remark)
        self.assertEqual([(c.across_mm, c.up_mm) for c in corners], [(0, 0), (101.6, 0), (101.6, 101.6), (0, 101.6)])
        self.assertAlmostEqual(corners[1].bow_mm, 50.8, places=4)
        tank = ProfileShell(corners=tuple(corners), run_mm=300, thickness_mm=2.0, bend_radius_mm=0.0)
        self.assertAlmostEqual(build(tank).body.size[0], 152.4, places=4)

    def test_loose_lines_and_arcs_any_way_round(self) -> None:
        """Edges in any order and direction are joined."""
        document = drawing(units.CM)
        space = document.modelspace()
        space.add_line((4, 3), (4, 0))
        space.add_line((0, 0), (0, 3))
        space.add_arc((2, 3), 2, 0, 180)
        space.add_line((4, 0), (0, 0))
        space.add_text("not an edge")
        corners, _ = read_outline(as_bytes(document))
        self.assertEqual(len(corners), 4)
        self.assertAlmostEqual(max(c.bow_mm for c in corners), 20, places=6)

    def test_a_rectangle_in_metres(self) -> None:
        """0.6 × 0.4 m is read; 600 × 400 of them is too large, and the unit is named."""
        small, large = drawing(units.M), drawing(units.M)
        small.modelspace().add_lwpolyline([(0, 0), (0.6, 0), (0.6, 0.4), (0, 0.4)], close=True)
        large.modelspace().add_lwpolyline([(0, 0), (600, 0), (600, 400), (0, 400)], close=True)
        corners, remark = read_outline(as_bytes(small))
        self.assertEqual((corners[2].across_mm, corners[2].up_mm), (600, 400))
        self.assertIn("metres", remark)
        self.refused(as_bytes(large), r"600000 mm across \(metres\)")

    def test_hostile_outlines(self) -> None:
        """Far too many edges, whole and empty arcs, huge bulges, bow ties, slivers, nothing twice: refused, at once."""
        many = drawing()
        for n in range(16_000):
            many.modelspace().add_line((n, n % 7), (n + 1, (n + 1) % 7))
        data, began = as_bytes(many), time.monotonic()
        self.refused(data, "16000 lines")
        self.assertLess(time.monotonic() - began, 2.0)
        polylines = {
            "crosses itself": [(0, 0, 0), (400, 300, 0), (400, 0, 0), (0, 300, 0), (-50, 100, 0)],
            "it is a line": [(0, 0, 0), (400, 0, 0), (200, 0, 0)],
            "goes round nearly all": [(0, 0, 0), (400, 0, 1e9), (400, 300, 0)],
            "fewer than two edges": [(5, 5, 0), (5, 5, 0), (5, 5, 0)],
            "lies nowhere": [(0, 0, 0), (1e300, 0, 0), (400, 300, 0)],
        }
        for words, places in polylines.items():
            document = drawing()
            document.modelspace().add_lwpolyline(places, format="xyb", close=True)
            self.refused(as_bytes(document), words)
        for start, end in ((0, 360), (40, 40)):
            document = drawing()
            document.modelspace().add_arc((0, 0), 100, start, end)
            self.refused(as_bytes(document), "whole circle, or nothing")

    def test_what_is_wrong_and_where(self) -> None:
        """Open, several, none, splines, circles, no DXF at all."""
        opened = drawing()
        opened.modelspace().add_lwpolyline([(0, 0), (400, 0), (400, 300), (0, 300)])
        self.refused(as_bytes(opened), r"open at 0.00, 300.00 mm: the nearest end is 300.00 mm away")
        two = drawing()
        for shift in (0, 1000):
            two.modelspace().add_lwpolyline([(x + shift, y) for x, y in SQUARE], close=True)
        self.refused(as_bytes(two), "2 outlines")
        self.refused(as_bytes(drawing()), "no lines")
        curved = drawing()
        curved.modelspace().add_spline([(0, 0), (1, 2), (3, 1)])
        self.refused(as_bytes(curved), "spline")
        round_one = drawing()
        round_one.modelspace().add_circle((0, 0), 5)
        self.refused(as_bytes(round_one), "cylinder")
        for data in (b"", b"hello", b"\x00\xff" * 50, b"  0\nSECTION\n  2\nENTITIES\n"):
            with self.assertRaises(UnreadableOutlineError):
                read_outline(data)

    @given(st.binary(max_size=300))
    @settings(max_examples=60)
    def test_no_bytes_break_it(self, data: bytes) -> None:
        """Whatever comes, it is an outline or a reason."""
        with self.assertRaises(UnreadableOutlineError):
            read_outline(data)


def ascii_stl(corners: np.ndarray) -> bytes:
    """Triangles as text."""
    facets = [
        "facet normal 0 0 0\nouter loop\n" + "".join(f"vertex {x} {y} {z}\n" for x, y, z in t) + "endloop\nendfacet\n"
        for t in corners
    ]
    return ("solid part\n" + "".join(facets) + "endsolid part\n").encode()


def binary_stl(corners: np.ndarray, header: bytes = b"") -> bytes:
    """Triangles as records."""
    body = b"".join(struct.pack("<12fH", 0, 0, 0, *t.ravel(), 0) for t in corners)
    return header.ljust(80, b" ") + struct.pack("<I", len(corners)) + body


class Scans(TestCase):
    """Meshes from STL."""

    CORNERS = mesh_of(block((0.0, 0.0, 0.0), (4.0, 3.0, 2.0))).corners

    def refused(self, data: bytes, words: str) -> None:
        """The reason."""
        with self.assertRaises(UnreadableMeshError) as caught:
            read_stl(data, "mm")
        self.assertRegex(caught.exception.fault.message, words)

    def test_text_and_binary_in_every_unit(self) -> None:
        """Eight points, twelve triangles, the right size; a binary header may begin with 'solid'."""
        for data in (ascii_stl(self.CORNERS), binary_stl(self.CORNERS), binary_stl(self.CORNERS, b"solid thing")):
            for unit, size in (("mm", 1), ("cm", 10), ("m", 1000), ("in", 25.4)):
                mesh = read_stl(data, unit)  # type: ignore[arg-type]
                self.assertEqual((len(mesh.points), len(mesh.triangles)), (8, 12))
                self.assertAlmostEqual(mesh.volume_mm3, 24 * size**3, delta=1e-5 * size**3)

    def test_what_is_wrong(self) -> None:
        """Cut short, empty, no numbers, not finite, too many, the wrong unit."""
        self.refused(binary_stl(self.CORNERS)[:-30], "cut short: 12 triangles need 684 bytes, it has 654")
        self.refused(ascii_stl(self.CORNERS)[:-60], "cut short or broken")
        self.refused(b"", "too short")
        self.refused(b"solid nothing\nendsolid\n", "no triangles")
        self.refused(ascii_stl(self.CORNERS).replace(b"vertex 4.0", b"vertex four", 1), "'four' stands where")
        self.refused(ascii_stl(self.CORNERS).replace(b"vertex 4.0", b"vertex nan", 1), "no finite numbers")
        self.refused(b" " * 80 + struct.pack("<I", MOST_TRIANGLES + 1), "200000 are taken")
        self.refused(binary_stl(self.CORNERS[:, [0, 0, 0]]), "no triangle of the file has any area")
        with self.assertRaisesRegex(UnreadableMeshError, "right unit"):
            read_stl(binary_stl(self.CORNERS * 10), "m")

    def test_thinned_keeps_the_size(self) -> None:
        """A fine sphere shown with at most so many triangles spans what it did."""
        turn = np.linspace(0, 2 * np.pi, 200)
        rings = np.array(
            [[np.cos(t) * np.sin(p), np.sin(t) * np.sin(p), np.cos(p)] for p in turn[:100] / 2 for t in turn]
        )
        index = np.arange(100 * 200 - 201)
        triangles = np.column_stack([index, index + 1, index + 200])
        from keel.solid.polyhedron import Mesh

        mesh = Mesh(rings * 100, triangles)
        shown = thinned(mesh, 2000)
        self.assertLessEqual(len(shown.triangles), 2000)
        np.testing.assert_allclose(np.ptp(shown.points, axis=0), np.ptp(mesh.points, axis=0), rtol=0.06)
