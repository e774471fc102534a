"""Station by station as a person works there; figures against sums done by hand."""

import io
from math import pi

import ezdxf
import numpy as np

from keel.design.document import Design
from server.jobs.models import TankDesign
from tests.web.person import AtThePage

BAY = {"length_mm": 900.0, "width_mm": 500.0, "height_mm": 400.0}
SHELL = {"length_mm": 700.0, "width_mm": 400.0, "height_mm": 300.0, "x_mm": 60.0, "y_mm": 50.0, "z_mm": 20.0}
SENDER = {
    "name": "Arm 120",
    "action": {"kind": "swing arm", "made_arm_mm": 120.0, "empty_deg": -45.0, "full_deg": 45.0},
}


class Station(AtThePage):
    """A box in a bay."""

    document = {"brief": {"target_l": 100.0}, "bay": BAY, "shell": SHELL | {"bend_radius_mm": 0.0}}
    drawn = False

    def findings(self) -> str:
        """What is found here."""
        return self.text("#findings")


class Bay(Station):
    """The space."""

    def test_a_keep_out_and_its_clearance(self) -> None:
        """Put beside the tank too near it is a stop that names the gap; a shop's own clearance settles it, removal too."""
        self.open_station("bay")
        self.press("Add a keep-out")
        for label, size in {"Length": "300", "From rear": "100", "Width": "60", "From right": "455"}.items():
            self.type_into(label, size)
        self.type_into("Height", "200")
        self.choose("What it is", "exhaust, bare")
        self.until(lambda: "5.0 mm" in self.findings() or "5 mm" in self.findings(), "the gap of 5 mm")
        self.assertIn("keep-out", self.findings())
        self.type_into("Clearance", "4")
        self.until(lambda: "Nothing to put right" in self.findings(), "its own clearance")
        self.type_into("From right", "440")
        self.until(lambda: "keep-out" in self.findings(), "it overlaps")
        self.press("Remove keep-out")
        self.until(lambda: "Nothing to put right" in self.findings(), "gone")
        self.assertEqual(self.saved()["bay"]["keep_outs"], [])

    def test_an_opening_too_low(self) -> None:
        """The tank's smallest section has to go through: 300 by 400 doesn't through 290, and does through 310."""
        self.open_station("bay")
        self.press("Measure an opening")
        self.choose("Side of the bay", "rear")
        self.type_into("Width", "480", nth=-1)
        self.type_into("Height", "290", nth=-1)
        self.until(lambda: "290" in self.findings(), "it doesn't go in")
        self.type_into("Height", "310", nth=-1)
        self.until(lambda: "Nothing to put right" in self.findings(), "it goes in")
        self.assertEqual(self.saved()["bay"]["opening"]["wide_mm"], 310.0)

    def test_a_scan_of_a_part(self) -> None:
        """An STL in inches becomes a keep-out of its true size; one that is none is refused in words."""
        low, high = np.zeros(3), np.array([4.0, 2.0, 1.0])
        corners = [[(low, high)[bit >> axis & 1][axis] for axis in range(3)] for bit in range(8)]
        faces = [(0, 2, 1), (1, 2, 3), (4, 5, 6), (5, 7, 6), (0, 1, 4), (1, 5, 4)]
        faces += [(2, 6, 3), (3, 6, 7), (0, 4, 2), (2, 4, 6), (1, 3, 5), (3, 7, 5)]
        lines = ["solid part"]
        for face in faces:
            lines += ["facet normal 0 0 0", "outer loop"]
            lines += [f"vertex {' '.join(str(value) for value in corners[place])}" for place in face]
            lines += ["endloop", "endfacet"]
        self.open_station("bay")
        self.choose("Unit of the file", "an inch")
        self.do("given", "STL file", "part.stl", "nothing of the kind")
        self.until(lambda: self.do("count", "aside [role=alert]"), "refused")
        self.do("given", "STL file", "part.stl", "\n".join([*lines, "endsolid"]))
        self.shows("12 triangles, 101.6 × 50.8 × 25.4 mm", "aside")
        self.assertEqual(self.saved()["bay"]["keep_outs"][0]["kind"], "scan")

    def test_the_outline_of_a_bay_that_is_no_box(self) -> None:
        """Typed corner by corner; a corner more, one less; the tank that stands outside of it is found."""
        self.open_station("bay")
        self.press("Type an outline")
        corners = len([label for label in self.labels() if label.endswith(" across")])
        self.press("A corner after 1")
        self.until(lambda: f"{corners + 1} across" in self.labels(), "a corner more")
        self.press(f"Remove corner {corners + 1}")
        self.until(lambda: f"{corners + 1} across" not in self.labels(), "one less")
        points = self.saved()["bay"]["profile"]["points"]
        self.assertEqual(len(points), corners)

    def labels(self) -> list[str]:
        """Fields of the panel."""
        return [field["label"] for field in self.do("fields", "aside")]


class Shell(Station):
    """Shape and capacity."""

    def test_every_shape_holds_what_a_sum_says(self) -> None:
        """A box by its inside; then a standing cylinder of the same sizes by pi r² h."""
        self.open_station("shell")
        self.until_tally((700 - 6) * (400 - 6) * (300 - 6) / 1e6)
        self.choose("Tank shape", "Cylinder, standing")
        self.type_into("Outside diameter", "300")
        self.type_into("Height to the rims", "500")
        self.type_into("Sheet thickness", "3")
        inside = pi * (150 - 3) ** 2 / 1e6
        # What was typed before it is answered on the way.
        self.until(lambda: inside * (500 - 2 * 30) < self.tally() <= inside * (500 - 6) + 0.02, "a cylinder")

    def test_inside_sizes_are_inside(self) -> None:
        """Measured otherwise the tank stays what it is; typed between the plates it holds the full product."""
        self.open_station("shell")
        before = self.tally()
        self.choose("Dimensions", "between the plates (inside)")
        self.until(lambda: self.value("Length inside") == "694", "the same tank")
        self.until_tally(before)
        for label, size in (("Length", "700"), ("Width", "400"), ("Height", "300")):
            self.type_into(f"{label} inside", size)
        self.until_tally(700 * 400 * 300 / 1e6)

    def test_a_well_costs_what_it_displaces(self) -> None:
        """Its depth and section out of the capacity, at the line that is named after it; a sump adds; both go again."""
        self.open_station("shell")
        before = self.tally()
        self.press("Add a well")
        for label, size in (("Length", "100"), ("Width", "80"), ("Depth", "50")):
            self.type_into(label, size, nth=-1)
        # Its metal takes room too: 3 mm on every side, and as much below as the lid has above.
        self.until_tally(before - (100 + 6) * (80 + 6) * 50 / 1e6)
        self.type_into("Name", "hatch", nth=-1)
        self.press("Remove hatch")
        self.until_tally(before)

    def test_a_profile_from_a_drawing(self) -> None:
        """A triangle drawn in inches in a DXF becomes the tank's outline in millimetres; a file that is none is refused."""
        drawing = ezdxf.new(units=1)
        drawing.modelspace().add_lwpolyline([(0, 0), (20, 0), (0, 10)], close=True)
        out = io.StringIO()
        drawing.write(out)
        self.open_station("shell")
        self.choose("Tank shape", "Step (L)")
        self.press("Profile, 6 corners")
        self.do("given", "DXF drawing", "bad.dxf", "no drawing")
        self.until(lambda: self.do("count", "aside [role=alert]"), "refused")
        self.do("given", "DXF drawing", "wedge.dxf", out.getvalue())
        self.shows("Profile, 3 corners", "aside")
        corners = self.saved()["shell"]["corners"]
        places = sorted((round(corner["across_mm"], 2), round(corner["up_mm"], 2)) for corner in corners)
        self.assertEqual(places, [(0.0, 0.0), (0.0, 254.0), (508.0, 0.0)])

    def test_the_fuel_on_a_slope(self) -> None:
        """Shown at a share of brimful and nose up; one press stands it level again. Nothing of it is saved."""
        self.open_station("shell")
        asked = self.do("design")
        self.type_into("Pitch, nose up", "10")
        self.type_into("Fill shown", "40", nth=0)
        self.until(lambda: self.value("Pitch, nose up") == "10", "leaning")
        self.press("Level, at rest")
        self.until(lambda: self.value("Pitch, nose up") == "0", "level")
        self.assertEqual(self.do("design"), asked)


class Inside(Station):
    """What stands and lies in it."""

    def test_foam_takes_its_share(self) -> None:
        """Three per cent of the volume, typed as five; out again, the fuel is what it was."""
        self.open_station("inside")
        before = self.tally()
        self.press("Add foam")
        self.until(lambda: self.tally() < before, "less")
        self.type_into("Volume taken", "5")
        self.until_tally(before * 0.95)
        self.press("Remove the foam")
        self.until_tally(before)

    def test_a_baffle_and_where_it_may_stand(self) -> None:
        """It is added, moved, and taken out by undo; one outside of the tank is refused by name and nothing is lost."""
        self.open_station("inside")
        self.press("Add a baffle")
        self.until(lambda: self.do("rows"), "it is listed")
        self.do("unfolded", 0)
        self.type_into("From rear", "200")
        self.assertEqual(self.saved()["shell"]["features"][0]["at_mm"], 200.0)
        self.type_into("From rear", "5000")
        self.until(lambda: self.do("count", "[data-tally][data-old], [data-old]"), "figures of before")
        self.assertEqual(self.value("From rear"), "5000")
        self.press("Undo")
        self.until(lambda: self.value("From rear") == "200", "as it was")


class Ports(Station):
    """In, out and air."""

    def test_ports_and_what_they_leave(self) -> None:
        """A pickup that hangs short strands what its inlet is above the floor: length by width by height."""
        self.open_station("ports")
        self.choose("Add a port", "pickup, where fuel is drawn")
        self.until(lambda: self.tally("stranded_l") > 0, "something stays")
        self.type_into("Inlet above underside", "50")
        inside = (700 - 6) * (400 - 6) / 1e6
        self.until_tally(inside * (50 - 3), "stranded_l")
        self.press("Remove pickup")
        self.until(lambda: self.text("[data-tally=stranded_l]").endswith("–"), "none, nothing to say")

    def test_a_part_of_the_shops(self) -> None:
        """Its sizes come with it and may be changed; the shop's stay as they are."""
        part = {"name": "Bung", "role": "drain", "stands_mm": 14.0, "across_mm": 30.0, "hangs_mm": 0.0}
        self.workshop.rules = {"parts": [part | {"seat": {"kind": "boss", "hole_mm": 22.0, "outer_mm": 34.0}}]}
        self.workshop.save()
        self.open_station("ports")
        options = self.do("choices", "Add a port", "aside", 0)
        self.choose("Add a port", next(option for option in options if option.startswith("drain")))
        self.choose("Part from the library", "Bung, drain")
        self.until(lambda: self.value("Outside height") == "14", "its height")
        self.type_into("Outside height", "20")
        kept = self.saved()["ports"][0]
        self.assertEqual((kept["stands_mm"], kept["seat"]["hole_mm"], kept["part"]), (20.0, 22.0, "Bung"))
        self.workshop.refresh_from_db()
        self.assertEqual(self.workshop.document().parts[0].stands_mm, 14.0)


class Gauge(Station):
    """The needle."""

    def test_a_sender_from_the_shop(self) -> None:
        """Its arm comes with it; the float's reach is that of its stops, and marks outside of it are found."""
        self.workshop.rules = {"senders": [SENDER]}
        self.workshop.save()
        self.open_station("gauge")
        self.choose("Add a sender from the library", "Arm 120")
        self.until(lambda: "Arm 120" in " ".join(self.do("rows")), "listed")
        kept = self.saved()["gauge"]["senders"][0]
        self.assertEqual(kept["action"]["made_arm_mm"], 120.0)
        self.type_into("Low-level warning volume", "8")
        self.assertEqual(self.saved()["gauge"]["reserve_l"], 8.0)
        self.press("Remove Arm 120")
        self.until(lambda: not self.do("rows"), "gone")
        self.assertEqual(self.saved()["gauge"]["senders"], [])


class Sheet(Station):
    """Flat parts."""

    def test_flats_by_the_sum_and_files(self) -> None:
        """A wider flange makes the ends larger by twice as much; a file is asked for and kept."""
        self.open_station("sheet")
        self.until(lambda: self.do("count", "[data-file='wrapper.dxf']"), "files")
        self.type_into("Pan flange", "22")
        self.assertEqual(self.saved()["sheet"]["flange_mm"], 22.0)
        before = self.do("files")
        self.do("clicked", "[data-file='cut-list.csv']")
        self.until(lambda: self.do("files") == before + 1, "kept")

    def test_nothing_to_cut_yet(self) -> None:
        """Without a shape it says where to begin."""
        self.tank = TankDesign.started(self.job, "Empty", Design(), self.maker, "")
        self.open(f"/designs/{self.tank.pk}/sheet")
        self.shows("give the tank a shape at Shell first", "aside")
