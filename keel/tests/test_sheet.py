"""Flat parts: bend arithmetic against worked cases, and the flat folded up again."""

import io
import itertools
from math import cos, pi, sin
from unittest import TestCase

import ezdxf
import numpy as np
from hypothesis import given
from hypothesis import strategies as st
from shapely.geometry import Polygon

from keel.design.document import Design
from keel.design.sheet import SheetScheme
from keel.design.shell import BoxShell, CylinderShell
from keel.design.workshop import Workshop
from keel.formats.cutlist import cut_list_csv
from keel.formats.dxf import LAYERS, part_dxf
from keel.formats.svg import part_svg
from keel.reference.test_strip import k_from_strip, setback
from keel.studies.sheet.bends import bend_allowance, bend_deduction, bend_lines, flat_length
from keel.studies.sheet.shell_parts import shell_sheet
from keel.studies.sheet.wrapper import folding_order, wrapper_legs
from keel.tests.samples import STEP, box, design, profile, shells

R3 = {"bend_radius_mm": 3.0}
STEP_R3 = STEP.model_copy(update=R3)
SEAMS = ("lid", "side", "floor", "corner butt", "corner open")


class WorkedFigures(TestCase):
    """Figures that were worked out by other means."""

    def test_l_and_u(self) -> None:
        """2 mm steel, r 2, K 0.42."""
        deduction = bend_deduction(90, 2, 2, 0.42)
        self.assertAlmostEqual(bend_allowance(90, 2, 2, 0.42), 4.461061568, places=6)
        self.assertAlmostEqual(setback(90, 2, 2), 4, places=9)
        self.assertAlmostEqual(deduction, 3.538938432, places=6)
        self.assertAlmostEqual(flat_length([80, 60], [deduction]), 136.4610616, places=5)
        self.assertAlmostEqual(flat_length([45, 350, 45], [deduction] * 2), 432.9221231, places=5)
        for found, expected in zip(bend_lines([45, 350, 45], [deduction] * 2), [43.23053078, 389.6915924], strict=True):
            self.assertAlmostEqual(found, expected, places=6)

    def test_other_angles(self) -> None:
        """3 mm aluminium, r 4.5, K 0.40: 45°, 30° and 120°."""
        for angle, expected in ((45, 1.736433904), (30, 1.034724866), (120, 14.04271003)):
            self.assertAlmostEqual(bend_deduction(angle, 4.5, 3, 0.40), expected, places=6)

    def test_big_u(self) -> None:
        """350-800-350 outside, t 3, r 3, K 0.42."""
        self.assertAlmostEqual(flat_length([350, 800, 350], [bend_deduction(90, 3, 3, 0.42)] * 2), 1489.38, places=2)

    def test_k_from_a_strip(self) -> None:
        """A 150 mm strip of 2 mm that measures 78.2 and 75.6 after a bend of inside radius 3."""
        self.assertAlmostEqual(k_from_strip(150, (78.2, 75.6), 90, 2, 3), 0.4735212943, places=6)

    def test_closed_wrapper(self) -> None:
        """400 × 350 outside in 2.5 mm, r 3, K 0.40: mid-face, butted corner, open corner."""
        deduction = bend_deduction(90, 3, 2.5, 0.4)
        self.assertAlmostEqual(deduction, 4.716814693, places=6)
        flats = {"lid": 1481.132741, "corner butt": 1483.349556, "corner open": 1480.849556}
        for seam, expected in flats.items():
            legs = wrapper_legs(400, 350, 2.5, seam)  # type: ignore[arg-type]
            self.assertAlmostEqual(flat_length(legs, [deduction] * (len(legs) - 1)), expected, places=5)
        lines = bend_lines(wrapper_legs(400, 350, 2.5, "lid"), [deduction] * 4)
        for found, expected in zip(lines, [197.6415927, 542.924778, 938.2079633, 1283.491149], strict=True):
            self.assertAlmostEqual(found, expected, places=5)

    def test_inset_pan_and_its_notch(self) -> None:
        """The pan of that wrapper: base 394 × 344, flange 20, clearance 1."""
        shell = box(800, 400, 350, thickness_mm=2.5, bend_radius_mm=3.0)
        made = shell_sheet(design(shell, sheet=SheetScheme(flange_mm=20, pan_gap_mm=0.5)), Workshop())
        assert made is not None
        pan, notch = made.parts[1], made.notch
        assert notch is not None
        self.assertAlmostEqual(pan.length_mm, 424.5663706, places=6)
        self.assertAlmostEqual(pan.width_mm, 374.5663706, places=6)
        self.assertAlmostEqual(pan.bends[0].start[0], 17.64159265, places=6)
        self.assertAlmostEqual(notch.by_rule_mm, 21, places=9)
        self.assertAlmostEqual(notch.flanges_clear_mm, 17.78318531, places=6)
        self.assertAlmostEqual(notch.side_mm, 21, places=9)

    def test_weld_and_bends(self) -> None:
        """800 × 400 × 350: 3800 mm by nominal sizes, the lips' share of the closing seam on top; 12 bends."""
        made = shell_sheet(design(box(bend_radius_mm=3.0)), Workshop())
        assert made is not None
        self.assertAlmostEqual(made.weld_mm, 3800 + 2 * 17, places=6)
        self.assertAlmostEqual(made.weld_mm, 3800, delta=0.015 * 3800)
        self.assertAlmostEqual(made.weld_at_floor_mm, 800, places=6)
        self.assertEqual(made.bends, 12)

    def test_last_bend_is_an_inner_one(self) -> None:
        """The free edges are bent first, so that the wrapper closes last."""
        self.assertEqual(folding_order(4), [1, 3, 4, 2])
        self.assertEqual(folding_order(3), [1, 3, 2])


class Properties(TestCase):
    """What holds for every box."""

    @given(shells(), st.sampled_from(SEAMS))
    def test_wrapper_folds_up_to_its_section(self, shell: BoxShell, seam: str) -> None:
        """Walk along the flat's neutral line, turn at each bend: it closes, and the outside is the section's."""
        scheme = SheetScheme(seam=seam)  # type: ignore[arg-type]
        made = shell_sheet(Design(shell=shell, sheet=scheme), Workshop())
        assert made is not None
        if not made.parts:
            return
        wrapper = made.parts[0]
        t, r, k = shell.thickness_mm, shell.bend_radius_mm, made.k
        x = y = heading = along = 0.0
        corners = []
        for bend in sorted(wrapper.bends, key=lambda bend: bend.start[0]):
            half = bend_allowance(90, r, t, k) / 2
            straight = bend.start[0] - half - along
            x, y = x + straight * cos(heading), y + straight * sin(heading)
            tip = r + t
            corners.append(
                (x + tip * cos(heading) + t * k * sin(heading), y + tip * sin(heading) - t * k * cos(heading))
            )
            arc = r + k * t
            x += arc * (sin(heading + pi / 2) - sin(heading))
            y += arc * (cos(heading) - cos(heading + pi / 2))
            heading += pi / 2
            along = bend.start[0] + half
        assert made.section_inside_mm is not None
        width, height = (size + 2 * t for size in made.section_inside_mm)
        sides = [abs(b[0] - a[0]) + abs(b[1] - a[1]) for a, b in itertools.pairwise(corners)]
        expected = {"side": [width, height, width]}.get(
            seam, [height, width, height] if seam in ("lid", "floor") else [width, height]
        )
        for found, wanted in zip(sides, expected, strict=True):
            # The flat neutral line lies k t inside the outer face; two corners put it right on both ends.
            self.assertAlmostEqual(found, wanted, delta=1e-6)

    @given(shells(), st.sampled_from(SEAMS))
    def test_parts_are_whole(self, shell: BoxShell, seam: str) -> None:
        """Outlines are simple polygons; bends and marks lie on the metal; notches leave the flanges apart."""
        made = shell_sheet(Design(shell=shell, sheet=SheetScheme(seam=seam)), Workshop())  # type: ignore[arg-type]
        assert made is not None
        self.assertEqual(bool(made.parts), made.impossible is None)
        for part in made.parts:
            outline = Polygon(part.outline)
            self.assertTrue(outline.is_valid)
            self.assertAlmostEqual(outline.area, part.area_mm2, delta=1e-9 * part.area_mm2)
            for bend in part.bends:
                middle = [(a + b) / 2 for a, b in zip(bend.start, bend.end, strict=True)]
                self.assertTrue(
                    outline.contains(
                        Polygon([(middle[0] + a, middle[1] + b) for a, b in ((-0.1, -0.1), (0.1, -0.1), (0, 0.1))])
                    )
                )
        assert made.notch is not None
        self.assertGreaterEqual(made.notch.side_mm, made.notch.flanges_clear_mm)
        self.assertGreaterEqual(made.notch.side_mm, made.notch.wrapper_radius_mm)


class Profiles(TestCase):
    """Wrappers of folded profiles and rolled cylinders, and their ends."""

    def test_a_rectangle_unfolds_as_the_box_does(self) -> None:
        """Same legs, same deductions, same bend lines, whichever kind it is."""
        drawn = profile([(0, 0), (400, 0), (400, 350), (0, 350)], 800, 2.5, "x", bend_radius_mm=3.0)
        made, plain = (
            shell_sheet(Design(shell=drawn), Workshop()),
            shell_sheet(design(box(thickness_mm=2.5, **R3)), Workshop()),
        )
        assert made is not None and plain is not None
        self.assertAlmostEqual(made.parts[0].length_mm, 1481.132741, places=5)
        for one, other in zip(made.parts[0].bends, plain.parts[0].bends, strict=True):
            self.assertAlmostEqual(one.start[0], other.start[0], places=6)
            self.assertEqual((one.order, one.direction), (other.order, other.direction))

    def test_step_folds_up_to_its_outline(self) -> None:
        """Walk along the outer face, left round a bend up and right round one down: the outline comes out."""
        made = shell_sheet(Design(shell=STEP_R3), Workshop())
        assert made is not None
        t, r, k = STEP_R3.thickness_mm, 3.0, made.k
        half = bend_allowance(90, r, t, k) / 2
        wrapper, corners = made.parts[0], []
        x = y = heading = along = 0.0
        for bend in wrapper.bends:
            way, reach = (1, r + t) if bend.direction == "up" else (-1, r)
            straight = bend.start[0] - half - along + reach
            x, y = x + straight * cos(heading), y + straight * sin(heading)
            corners.append((x, y))
            heading += way * pi / 2
            x, y = x + reach * cos(heading), y + reach * sin(heading)
            along = bend.start[0] + half
        sides = [abs(b[0] - a[0]) + abs(b[1] - a[1]) for a, b in itertools.pairwise(corners)]
        np.testing.assert_allclose(sides, [380, 480, 140, 420, 240], atol=1e-6)
        self.assertEqual([bend.direction for bend in wrapper.bends], ["up", "up", "up", "down", "up", "up"])

    def test_welded_corners_part_the_wrapper(self) -> None:
        """Two welded corners, two pieces, two lengthwise seams; the ends' outline is the inside of the section."""
        corners = [c.model_copy(update={"joint": "weld"}) if n in (1, 4) else c for n, c in enumerate(STEP_R3.corners)]
        made = shell_sheet(Design(shell=STEP_R3.model_copy(update={"corners": tuple(corners)})), Workshop())
        assert made is not None
        self.assertEqual([part.name for part in made.parts], ["wrapper-1", "wrapper-2", "end"])
        self.assertEqual(sum(seam.name.startswith("seam at corner") for seam in made.seams), 2)
        inside = 896 * 376 - 420 * 140
        self.assertAlmostEqual(made.parts[2].area_mm2, inside, delta=0.01 * inside)

    def test_ends_are_marked_out_from_their_corners(self) -> None:
        """Where the inner faces meet, less the gap all round, from the plate's own datum corner."""
        made = shell_sheet(Design(shell=STEP_R3), Workshop())
        assert made is not None
        t, gap = STEP_R3.thickness_mm, made.pan_gap_mm
        by = t + gap
        outside = [(corner.across_mm, corner.up_mm) for corner in STEP_R3.corners]
        inward = [(1, 1), (-1, 1), (-1, 1), (-1, 1), (-1, -1), (1, -1)]
        expected = [(u + a * by - by, v + b * by - by) for (u, v), (a, b) in zip(outside, inward, strict=True)]
        np.testing.assert_allclose(made.parts[-1].corners, expected, atol=1e-9)

    def test_cylinder(self) -> None:
        """π (D − t) by its length, two discs of the bore less the gap; the mass is the metal's."""
        made = shell_sheet(Design(shell=CylinderShell(diameter_mm=200, run_mm=300, thickness_mm=2)), Workshop())
        assert made is not None and made.mass_kg is not None
        self.assertAlmostEqual(made.parts[0].length_mm, pi * 198, places=9)
        self.assertAlmostEqual(made.parts[1].area_mm2, pi * 97.5**2, places=3)
        self.assertAlmostEqual(made.mass_kg, (pi * 198 * 300 + 2 * pi * 97.5**2) * 2 * 2680e-9, places=6)
        self.assertAlmostEqual(made.weld_mm, 300 + 2 * pi * 196, places=6)


class Files(TestCase):
    """What goes to the cutter is read back by another program."""

    def test_dxf_reads_back(self) -> None:
        """Closed outlines on CUT with the part's area, bend lines on their layers, millimetres."""
        made = shell_sheet(design(box(bend_radius_mm=4.5)), Workshop())
        assert made is not None
        for part in made.parts:
            data = part_dxf(part, title="Tést ⌀ tank", thickness_mm=3, metal="5052-H32")
            document = ezdxf.read(io.StringIO(data.decode("utf-8")))
            self.assertEqual((document.header["$INSUNITS"], document.header["$MEASUREMENT"]), (4, 1))
            self.assertEqual(document.audit().errors, [])
            self.assertLessEqual(set(LAYERS), {layer.dxf.name for layer in document.layers})
            space = document.modelspace()
            outlines = space.query('LWPOLYLINE[layer=="CUT"]')
            self.assertEqual(len(space.query('*[layer=="CUT"]')), 1)
            self.assertTrue(all(line.closed for line in outlines))
            area = sum(Polygon([(x, y) for x, y, *_ in line.get_points()]).area for line in outlines)
            self.assertAlmostEqual(area, part.area_mm2, delta=1e-6 * part.area_mm2)
            for way in ("UP", "DOWN"):
                drawn = space.query(f'LINE[layer=="BEND_{way}"]')
                self.assertEqual(len(drawn), sum(bend.direction == way.lower() for bend in part.bends))
            self.assertEqual(len(space.query('LINE[layer=="ETCH"]')), len(part.marks))

    def test_svg_is_full_size(self) -> None:
        """Width and height in millimetres, one unit a millimetre, names escaped."""
        made = shell_sheet(design(), Workshop())
        assert made is not None
        text = part_svg(made.parts[1], title="<A & B>", thickness_mm=3, metal="5052-H32").decode()
        self.assertIn(f'width="{made.parts[1].length_mm + 20:.6f}mm"', text)
        self.assertIn("&lt;A &amp; B&gt;", text)

    def test_cut_list(self) -> None:
        """A row a part."""
        made = shell_sheet(design(), Workshop())
        assert made is not None
        rows = cut_list_csv(made, metal="5052-H32").decode().splitlines()
        self.assertEqual(len(rows), 3)
        self.assertTrue(rows[2].startswith("end-pan,2,5052-H32,3,"))

    def test_cut_list_in_the_readers_units(self) -> None:
        """What is rolled says its diameter in inches to who reads inches."""
        made = shell_sheet(design(CylinderShell(axis="z", diameter_mm=114.3, run_mm=270, thickness_mm=1.6)), Workshop())
        assert made is not None
        for units, across in (("mm_l", "114.3 mm"), ("in_usgal", '4.500""')):
            row = cut_list_csv(made, metal="5052-H32", units=units).decode().splitlines()[1]
            self.assertIn(f"Roll to {across} outside diameter", row)
