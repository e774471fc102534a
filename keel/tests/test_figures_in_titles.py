"""Titles at Shell, Bay, Gauge and Proof say what was measured, on both sides of each limit, by hand."""

from math import ceil
from typing import Any
from unittest import TestCase

from keel.analysis.tank import Asked, TankAnalysis
from keel.design.document import Design
from keel.design.workshop import Workshop
from keel.findings.finding import Finding
from keel.reference.metals import METALS
from keel.stations.gauge.rules import LIES_SHARE, RESERVE_SHARE
from keel.stations.proof.rules import LONGEST_MIN, TALLEST_COLUMN_MM
from keel.stations.shell.rules import TRAPPED_SHARE, UNREACHED_SHARE
from keel.studies.cost.figures import FIGURES
from keel.studies.gauge.gauge import GAUGE_TRUTH
from keel.studies.proof.plan import PROOF_PLAN
from keel.studies.strength.panels.rows import PANELS
from keel.tests.test_figures_in_findings import figures, found

SHELL = {
    "length_mm": 800.0, "width_mm": 400.0, "height_mm": 300.0, "thickness_mm": 2.0, "bend_radius_mm": 6.0,
    "metal": "mild steel",
}  # fmt: skip


class Titles(TestCase):
    """A document, a station, a code; figures of its title."""

    def at(self, station: str, document: dict[str, Any]) -> dict[tuple[str, str], Finding]:
        return found(Design.model_validate(document), station)

    def analysed(self, document: dict[str, Any]) -> TankAnalysis:
        return TankAnalysis(Asked(Design.model_validate(document), Workshop()))

    def says(self, finding: Finding, **wanted: float) -> None:
        """Each as it was reckoned."""
        said = figures(finding)
        for name, value in wanted.items():
            self.assertAlmostEqual(said[name], value, delta=1e-3 * abs(value) + 1e-9, msg=f"{finding.code} {name}")


class AtTheShell(Titles):
    """Capacity, sheet, bends."""

    def test_below_and_beyond_the_target(self) -> None:
        """How much is missing; how many per cent too much, by the house rule."""
        rated = self.analysed({"shell": SHELL})[FIGURES].rated_l
        allowed = Workshop().rules.beyond_target
        for target, code in ((rated + 7.5, "capacity.below"), (rated / (1.02 + allowed), "capacity.beyond")):
            all_found = self.at("shell", {"shell": SHELL, "brief": {"target_l": target}})
            others = {"capacity.below", "capacity.beyond"} - {code}
            self.assertFalse({key for key, _ in all_found} & others)
            if code == "capacity.below":
                self.says(all_found[code, ""], rated_l=rated, short_l=7.5, target_l=target)
            else:
                self.says(all_found[code, ""], more_pct=rated / target - 1, allowed_pct=allowed)
        for target in (rated, rated / (0.999 + allowed)):
            codes = {key for key, _ in self.at("shell", {"shell": SHELL, "brief": {"target_l": target}})}
            self.assertFalse(codes & {"capacity.below", "capacity.beyond"}, target)

    def test_too_thin_to_weld(self) -> None:
        """Below what that metal is welded from, not at it."""
        for metal in ("mild steel", "5052-H32", "stainless 304L"):
            least = METALS[metal].weldable_from_mm
            for thick, is_thin in ((least - 0.1, True), (least, False)):
                all_found = self.at("shell", {"shell": SHELL | {"metal": metal, "thickness_mm": thick}})
                self.assertEqual(("wall.weldable", "") in all_found, is_thin, metal)
                if is_thin:
                    self.says(all_found["wall.weldable", ""], thickness_sheet=thick, least_sheet=least)

    def test_too_thin_for_its_panels(self) -> None:
        """The panel that lacks most, what it takes to a tenth; with that sheet it is enough."""
        thin = SHELL | {"thickness_mm": 0.8, "length_mm": 1500.0, "width_mm": 900.0, "height_mm": 600.0}
        tank = self.analysed({"shell": thin})
        worst = max(tank[PANELS], key=lambda panel: panel.least_thickness_mm / panel.thickness_mm)
        finding = self.at("shell", {"shell": thin})["wall.thin", ""]
        needed = ceil(worst.least_thickness_mm * 10) / 10
        self.says(finding, thickness_sheet=0.8, least_sheet=needed)
        self.assertNotIn(("wall.thin", ""), self.at("shell", {"shell": thin | {"thickness_mm": needed + 0.1}}))

    def test_bent_too_tight(self) -> None:
        """Times the thickness, by the metal."""
        for metal in ("mild steel", "5052-H32"):
            least = METALS[metal].bend_radius_least * 3.0
            shell = SHELL | {"metal": metal, "thickness_mm": 3.0}
            if least > 0.5:
                tight = self.at("shell", {"shell": shell | {"bend_radius_mm": least - 0.2}})
                self.says(tight["bend.radius", ""], radius_sheet=least - 0.2, least_sheet=least, thickness_sheet=3.0)
            enough = self.at("shell", {"shell": shell | {"bend_radius_mm": least}})
            self.assertNotIn(("bend.radius", ""), enough)

    def test_fuel_that_no_pickup_reaches(self) -> None:
        """Under a pickup that ends so high all of it stays: floor times height."""
        inside = 796.0 * 396.0 / 1e6
        for up in (5.0, 60.0):
            draw = {"id": "d", "name": "draw", "role": "pickup", "face": "rear", "x_mm": 10.0, "y_mm": 200.0,
                    "z_mm": 2.0 + up}  # fmt: skip
            all_found = self.at("shell", {"shell": SHELL | {"bend_radius_mm": 0.0}, "ports": [draw]})
            share = up / 296.0
            stays = [one for (code, _), one in all_found.items() if "stranded_l" in figures(one)]
            self.assertEqual(bool(stays), share > UNREACHED_SHARE, up)
            for finding in stays:
                self.says(finding, stranded_l=inside * up)
        self.assertLess(TRAPPED_SHARE, UNREACHED_SHARE)


class AtTheBay(Titles):
    """Gaps to sides and neighbours."""

    def test_gaps_by_subtraction(self) -> None:
        """A box 12 mm from a keep-out that asks for 25; the same pushed 6 mm into it; far off, nothing."""
        for gap in (12.0, -6.0, 40.0):
            post = {"id": "k", "name": "post", "x_mm": 100.0 + 800.0 + gap, "y_mm": 100.0, "z_mm": 50.0,
                    "length_mm": 60.0, "width_mm": 300.0, "height_mm": 200.0,
                    "clearance": {"kind": "hard metal", "mm": 25.0}}  # fmt: skip
            bay = {"length_mm": 1400.0, "width_mm": 700.0, "height_mm": 600.0, "keep_outs": [post]}
            shell = SHELL | {"x_mm": 100.0, "y_mm": 100.0, "z_mm": 100.0, "metal": "mild steel"}
            all_found = self.at("bay", {"bay": bay, "shell": shell, "sheet": {"scheme": "flat plates"}})
            mine = {subject: one for (code, subject), one in all_found.items() if code == "bay.clearance"}
            self.assertEqual(bool(mine), gap < 25.0, mine)
            for finding in mine.values():
                said = figures(finding)
                self.assertAlmostEqual(said["needed_mm"], 25.0)
                if gap > 0:
                    self.assertAlmostEqual(said["gap_mm"], gap, delta=0.01)
                else:
                    self.assertAlmostEqual(said["over_mm"], -gap, delta=0.01)


class AtTheGauge(Titles):
    """What a needle says."""

    def document(self, **arm: Any) -> dict[str, Any]:
        action = {"kind": "swing arm", "made_arm_mm": 120.0, "empty_deg": -45.0, "full_deg": 45.0} | arm
        sender = {"id": "s", "name": "sender", "x_mm": 400.0, "y_mm": 200.0, "action": action}
        return {"shell": SHELL, "gauge": {"senders": [sender]}}

    def test_left_at_empty_and_lies(self) -> None:
        """Both against shares of brimful; the worst eighth by looking at all of them."""
        seen = set()
        for pivot in (60.0, 110.0, 150.0, 200.0):
            document = self.document(method="as supplied", pivot_mm=pivot)
            try:
                design = Design.model_validate(document)
            except ValueError:
                document = self.document(pivot_mm=pivot)
                design = Design.model_validate(document)
            (reading,) = TankAnalysis(Asked(design, Workshop()))[GAUGE_TRUTH].readings
            all_found = self.at("gauge", document)
            left = reading.left_at_empty_l > RESERVE_SHARE * reading.brimful_l
            worst = max((abs(mark.error_l) for mark in reading.eighths), default=0.0)
            lies = worst > LIES_SHARE * reading.brimful_l
            self.assertEqual(("gauge.reserve", "s") in all_found, left)
            self.assertEqual(("gauge.lies", "s") in all_found, lies)
            if left:
                self.says(all_found["gauge.reserve", "s"], left_l=reading.left_at_empty_l,
                          limit_l=0.1 * reading.brimful_l)  # fmt: skip
            if lies:
                self.says(all_found["gauge.lies", "s"], error_l=worst, limit_l=0.08 * reading.brimful_l)
            seen |= {("left", left), ("lies", lies)}
        self.assertIn(("left", True), seen)

    def test_one_outside(self) -> None:
        """It is said, and nothing is reckoned with it."""
        document = self.document()
        document["gauge"]["senders"][0]["x_mm"] = 900.0
        self.assertIn(("sender.outside", "s"), self.at("gauge", document))


class AtTheProof(Titles):
    """Pressures, limiter, column, minutes, scale."""

    def plan(self, **proof: Any) -> tuple[dict[tuple[str, str], Finding], Any]:
        document = {"shell": SHELL | {"thickness_mm": 3.0}, "proof": proof}
        all_found = {(code, ""): one for (code, _), one in self.at("proof", document).items()}
        return all_found, self.analysed(document)[PROOF_PLAN].cells[0]

    def test_above_what_it_bears(self) -> None:
        """A pressure over the weakest panel's is a stop that names both."""
        _, cell = self.plan(pressure_kpa=1.0)
        over, _ = self.plan(pressure_kpa=cell.bears_kpa + 1.0)
        self.says(over["proof.pressure", ""], pressure_finekpa=cell.bears_kpa + 1.0, safe_finekpa=cell.bears_kpa)
        under, _ = self.plan(pressure_kpa=cell.bears_kpa - 0.01, limiter_kpa=cell.bears_kpa)
        self.assertFalse({"proof.pressure", "proof.limiter"} & {code for code, _ in under})

    def test_a_limiter_on_either_side(self) -> None:
        """Above what the cell bears it is no limiter; below the test pressure it lets the test off."""
        _, cell = self.plan(pressure_kpa=1.0)
        high, _ = self.plan(pressure_kpa=1.0, limiter_kpa=cell.bears_kpa + 0.5)
        self.says(high["proof.limiter", ""], limiter_finekpa=cell.bears_kpa + 0.5, safe_finekpa=cell.bears_kpa)
        low, _ = self.plan(pressure_kpa=1.0, limiter_kpa=0.8)
        self.says(low["proof.limiter", ""], limiter_finekpa=0.8, pressure_finekpa=1.0)

    def test_a_column_taller_than_a_ladder(self) -> None:
        """Its height by the pressure; a valve has none."""
        _, cell = self.plan(pressure_kpa=1.0)
        pressure = min(cell.bears_kpa, 24.0) - 0.5
        tall, now = self.plan(pressure_kpa=pressure, limiter="water column")
        self.assertEqual(("proof.column", "") in tall, now.column_mm > TALLEST_COLUMN_MM)
        if now.column_mm > TALLEST_COLUMN_MM:
            self.says(tall["proof.column", ""], column_mm=now.column_mm, most_mm=TALLEST_COLUMN_MM)
        valve, _ = self.plan(pressure_kpa=pressure)
        self.assertNotIn(("proof.column", ""), valve)

    def test_too_short(self) -> None:
        """A minute under the least, and at it."""
        _, cell = self.plan(pressure_kpa=2.0)
        least = cell.least_min.both
        short, _ = self.plan(pressure_kpa=2.0, minutes=least * 0.9)
        self.says(short["proof.short", ""], planned_min=least * 0.9, least_min=least)
        enough, _ = self.plan(pressure_kpa=2.0, minutes=least * 1.01)
        self.assertNotIn(("proof.short", ""), enough)
        self.assertEqual(("proof.coarse", "") in enough, least > LONGEST_MIN)

    def test_off_the_scale(self) -> None:
        """A limiter beyond the end of the gauge's scale."""
        most = Workshop().test_gauge("").most_kpa
        off, _ = self.plan(pressure_kpa=1.0, limiter_kpa=most + 1.0)
        self.says(off["proof.scale", ""], limiter_finekpa=most + 1.0, most_kpa=most)
        on, _ = self.plan(pressure_kpa=1.0, limiter_kpa=most)
        self.assertNotIn(("proof.scale", ""), on)

    def test_paper_last(self) -> None:
        """Fuel on paper is cautioned about."""
        self.assertIn(("proof.paper", ""), self.plan(method="filled, on dry paper")[0])
        self.assertNotIn(("proof.paper", ""), self.plan(method="submerged")[0])
