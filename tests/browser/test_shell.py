"""Shaping a tank on the drawing, and seeing what stays in it."""

import re
import struct

import ezdxf
from ezdxf import units
from selenium.webdriver import Keys
from selenium.webdriver.common.by import By

from keel.solid.shapes import block, mesh_of
from server.jobs.models import Scan
from server.workshop.models import Person
from tests.browser.test_slice import SliceTestCase


class Shaping(SliceTestCase):
    """From a box to a step tank with a well, in inches."""

    def nudge(self, css: str, key: str, times: int) -> None:
        """Press a key on something a few times."""
        for _ in range(times):
            self.until(lambda: self.find(css).send_keys(key) or True, css)

    def test_a_step_tank_from_scratch(self) -> None:
        """Choose the kind, drag a corner, type one, add a well, see the litres move, tilt it, read the pools."""
        Person.objects.filter(username="maker").update(units="in_usgal")
        self.open_tank("shell")
        whole = self.tally("brimful_l")
        self.choose("Tank shape", "Step (L)")
        self.until(lambda: self.tally("brimful_l") < whole, "less than the box")
        self.until(lambda: self.shell()["kind"] == "profile", "saved")

        step = self.tally("brimful_l")
        self.drag("[data-corner='3']", 0, -30)
        self.until(lambda: self.shell()["corners"][3]["up_mm"] > 120, "the corner went up")
        self.assertNotEqual(self.tally("brimful_l"), step)
        self.press("Undo")
        self.until(lambda: self.tally("brimful_l") == step, "back")

        self.keys("[data-corner='2']", Keys.ARROW_UP)
        self.click("[data-dimension='Corner 3 up']")
        self.keys("input[data-typing]", Keys.CONTROL, "a")
        self.keys("input[data-typing]", "4 1/2", Keys.ENTER)
        self.until(lambda: abs(self.shell()["corners"][2]["up_mm"] - 114.3) < 1e-6, "typed on the drawing")

        before = self.tally("brimful_l")
        self.press("Wells, sumps and partitions")
        self.press("Add a well")
        self.until(lambda: self.tally("brimful_l") < before, "the well takes litres")
        taken = re.search(r"−([\d.]+) US gal", self.text("[data-feature-row=well-1] [data-cost]"))
        assert taken is not None
        self.assertAlmostEqual(float(taken[1]), before - self.tally("brimful_l"), delta=0.011)
        self.find("[data-finding='well.holds_water:well-1']")
        self.saved()
        self.assert_accessible("a step tank with a well")

        self.station("ports")
        self.choose("Add a port", "pickup, where fuel is drawn")
        self.until(lambda: self.tally("stranded_l") > 0, "what the pickup leaves")
        self.station("shell")
        self.press("On a slope, braking, in a turn")
        level = self.text("[data-drained]")
        self.nudge("[data-pad=left_g]", Keys.ARROW_DOWN, 30)
        self.until(lambda: "2 pools" in self.text("[data-drained]"), "the ledge keeps its own pool when braking")
        self.assertNotEqual(self.text("[data-drained]"), level)
        self.until(lambda: "stays" in self.text("[data-remainders=elevation]"), "its litres on the drawing")

    def test_a_shape_that_crosses_itself_is_named_and_kept(self) -> None:
        """The reason stands in the panel, the last figures stay, and putting it right takes it away."""
        self.open_tank("shell")
        self.choose("Tank shape", "Wedge, sloping lid")
        self.until(lambda: self.shell()["kind"] == "profile", "saved")
        fields = self.browser.find_elements(By.XPATH, "//label[normalize-space()='Across']/..//input")
        fields[1].send_keys(Keys.CONTROL, "a")
        fields[1].send_keys("-100", Keys.ENTER)
        self.until(lambda: "crosses itself" in self.text("aside"), "the reason")
        self.assertGreater(self.tally("brimful_l"), 0)
        self.press("Undo")
        self.until(lambda: "crosses itself" not in self.text("aside"), "right again")

    def test_profile_and_scan_from_files(self) -> None:
        """A drawing in inches becomes the profile; a broken one says why; a scan becomes a neighbour with a gap."""
        self.open_tank("shell")
        self.choose("Tank shape", "Free profile")
        good, bad = self.downloads / "profile.dxf", self.downloads / "open.dxf"
        for path, closed in ((good, True), (bad, False)):
            document = ezdxf.new("R2010", units=units.IN)
            document.modelspace().add_lwpolyline([(0, 0), (20, 0), (20, 6), (8, 12), (0, 12)], close=closed)
            document.saveas(path)
        self.keys("input[aria-label='DXF drawing']", str(bad))
        self.until(lambda: "open at" in self.text("aside"), "the reason")
        self.keys("input[aria-label='DXF drawing']", str(good))
        self.until(lambda: "5 edges, inches" in self.text("aside"), "taken")
        self.until(lambda: self.shell()["corners"][1]["across_mm"] == 508, "kept in millimetres")

        corners = mesh_of(block((600.0, 0.0, 0.0), (700.0, 80.0, 90.0))).corners
        scan = self.downloads / "bracket.stl"
        body = b"".join(struct.pack("<12fH", 0, 0, 0, *t.ravel(), 0) for t in corners)
        scan.write_bytes(b" " * 80 + struct.pack("<I", len(corners)) + body)
        self.station("bay")
        self.press("A scan of a part or of the cavity")
        self.keys("input[aria-label='STL file']", str(scan))
        self.until(lambda: "12 triangles" in self.text("aside"), "what came in")
        self.until(lambda: self.text("[data-gap=scan-1]"), "its gap on the drawing")
        self.assertEqual(Scan.objects.count(), 1)
        self.assertEqual(self.fetch("GET", f"scans/{Scan.objects.get().fingerprint}")[0], 200)
        self.browser.delete_all_cookies()
        self.be("neighbour")
        self.go("/")
        self.assertEqual(self.fetch("GET", f"scans/{Scan.objects.get().fingerprint}")[0], 404)

    def test_will_it_go_in(self) -> None:
        """An opening that is too small is a stop with how much; made larger it passes as it stands."""
        self.open_tank("bay")
        self.press("Opening of the bay")
        self.press("Measure an opening")
        self.until(lambda: "installed orientation" in self.text("[data-goes-in]"), "whole roof open")
        fields = self.browser.find_elements(By.XPATH, "//*[@data-goes-in]/preceding-sibling::*//input")
        fields[-1].send_keys(Keys.CONTROL, "a")
        fields[-1].send_keys("250", Keys.ENTER)
        self.until(lambda: "Doesn’t pass the opening: 50 mm too large" in self.text("[data-goes-in]"), "by how much")
        self.find("[data-finding='opening.short']")
