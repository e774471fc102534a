"""What a finding's title says is what was measured: figures and limits of ports, hangers and mounts by hand."""

from math import hypot
from typing import Any
from unittest import TestCase

from keel.analysis.showing import Showing
from keel.design.document import Design
from keel.design.workshop import Workshop
from keel.evaluation import evaluate
from keel.findings.finding import Finding
from keel.stations.ports.flow_rules import LEAN_MOST_DEG, LOW_MM, NEAR_PICKUP_MM
from keel.tests.test_mount import HELD, STOPS, document, strap

SHELL = {"length_mm": 600.0, "width_mm": 400.0, "height_mm": 300.0, "thickness_mm": 2.0, "bend_radius_mm": 0.0}
SEAT = {"kind": "flange", "hole_mm": 100.0, "outer_mm": 140.0, "bolt_circle_mm": 122.0, "bolts": 6, "bolt_mm": 6.0}


def found(design: Design, station: str) -> dict[tuple[str, str], Finding]:
    """Findings at a station by code and whom they are about."""
    seen = evaluate(design, Workshop(), Showing(remedies=False, results=(station,)))
    return {(finding.code, finding.subject): finding for finding in seen.findings}


def figures(finding: Finding) -> dict[str, float]:
    """Numbers of a title."""
    return {name: float(value) for name, value in finding.title.values.items() if not isinstance(value, str)}


class AtThePorts(TestCase):
    """Depths, distances, leans."""

    def at(self, **port: Any) -> dict[tuple[str, str], Finding]:
        """Findings of a tank with a pickup low at its left and one more port."""
        pickup = {"id": "draw", "name": "draw", "role": "pickup", "x_mm": 500.0, "y_mm": 300.0, "z_mm": 10.0,
                  "hangs_mm": 280.0}  # fmt: skip
        ports = [pickup, {"id": "p", "name": "port", "x_mm": 200.0, "y_mm": 150.0} | port]
        return found(Design.model_validate({"shell": SHELL, "ports": ports}), "ports")

    def assert_figures(self, finding: Finding, **wanted: float) -> None:
        """Each as it was reckoned."""
        said = figures(finding)
        for name, value in wanted.items():
            self.assertAlmostEqual(said[name], value, delta=0.01, msg=f"{finding.code} {name}")

    def test_a_hanger_too_short_or_to_be_cut(self) -> None:
        """Made for 250 in 298 of depth: 48 short; made for 340: 42 to be cut."""
        hanger = {"made_for_mm": 250.0, "grip_mm": 0.0}
        one = {"role": "pickup", "hangs_across_mm": 60.0, "seat": SEAT}
        short = self.at(**one, hanger=hanger)["reach.short", "p"]
        depth = figures(short)["depth_mm"]
        self.assertAlmostEqual(depth, 298.0, delta=0.01)
        self.assert_figures(short, short_mm=depth - 250.0)
        long = self.at(**one, hanger=hanger | {"made_for_mm": 340.0, "bracket_mm": 120.0})["reach.cut", "p"]
        self.assert_figures(long, more_mm=340.0 - depth, depth_mm=depth)

    def test_two_measurements(self) -> None:
        """Both are said, and how far apart they may be."""
        hanger = {"made_for_mm": 300.0, "measured_mm": 312.5}
        one = {"role": "pickup", "hangs_across_mm": 60.0, "seat": SEAT, "hanger": hanger}
        self.assert_figures(
            self.at(**one)["reach.mismatch", "p"], second_mm=312.5, depth_mm=298.0,
            measure_mm=Workshop().rules.measure_mm,
        )  # fmt: skip

    def test_a_part_too_wide_for_its_hole(self) -> None:
        """Its diagonal and the hole."""
        one = {"role": "pickup", "seat": SEAT, "hangs_across_mm": 60.0, "diagonal_mm": 121.0, "hangs_mm": 200.0}
        self.assert_figures(self.at(**one)["port.hole", "p"], widest_mm=121.0, hole_mm=100.0)
        self.assertNotIn(("port.hole", "p"), self.at(**one | {"diagonal_mm": 99.0}))

    def test_a_return_that_ends_high_or_near_the_pickup(self) -> None:
        """Above half of the inside's depth; nearer to the pickup than it may be."""
        high = self.at(role="return", face="rear", x_mm=0.0, y_mm=200.0, z_mm=250.0)
        self.assert_figures(high["return.high", "p"], up_mm=248.0, half_mm=148.0)
        low = self.at(role="return", face="rear", x_mm=0.0, y_mm=200.0, z_mm=149.0)
        self.assertNotIn(("return.high", "p"), low)

    def test_how_near_a_return_is(self) -> None:
        """In space, not in plan alone."""
        draw = {"id": "draw", "name": "draw", "role": "pickup", "face": "rear", "y_mm": 100.0, "z_mm": 40.0}
        for across, up in ((30.0, 40.0), (80.0, 5.0), (0.0, NEAR_PICKUP_MM - 1)):
            back = {"id": "p", "name": "p", "role": "return", "face": "rear", "y_mm": 100.0 + across, "z_mm": 40.0 + up}
            ports = [port | {"x_mm": 0.0} for port in (draw, back)]
            all_found = found(Design.model_validate({"shell": SHELL, "ports": ports}), "ports")
            apart = hypot(across, up)
            self.assertEqual(("return.near", "p") in all_found, apart < NEAR_PICKUP_MM)
            if apart < NEAR_PICKUP_MM:
                self.assert_figures(all_found["return.near", "p"], near_mm=apart, least_mm=NEAR_PICKUP_MM)

    def test_a_drain_above_the_lowest_place(self) -> None:
        """So far above it; one at the floor is none."""
        high = self.at(role="drain", face="rear", x_mm=0.0, y_mm=200.0, z_mm=62.0)
        self.assert_figures(high["drain.high", "p"], up_mm=60.0, most_mm=LOW_MM)
        self.assertNotIn(("drain.high", "p"), self.at(role="drain", face="floor"))

    def test_a_leaning_valve(self) -> None:
        """Its lean and how much it may."""
        vent = {"rollover": True, "lean_deg": LEAN_MOST_DEG + 4.0}
        self.assert_figures(self.at(role="vent", vent=vent)["vent.lean", "p"], lean_deg=LEAN_MOST_DEG + 4.0,
                            most_deg=LEAN_MOST_DEG)  # fmt: skip
        upright = {"rollover": True, "lean_deg": LEAN_MOST_DEG}
        self.assertNotIn(("vent.lean", "p"), self.at(role="vent", vent=upright))

    def test_a_spare_port_is_closed(self) -> None:
        """Open it is a stop."""
        self.assertIn(("port.open", "p"), self.at(role="spare", capped=False))
        self.assertNotIn(("port.open", "p"), self.at(role="spare", capped=True))


class AtTheMount(TestCase):
    """Sheet, spanners, stops, straps that are there."""

    def at(self, mount: dict[str, Any]) -> dict[tuple[str, str], Finding]:
        return found(document(mount), "mount")

    def test_thin_body_sheet_alone_asks_for_a_plate(self) -> None:
        """A thin frame rail doesn't, nor thick body sheet, nor one with a plate."""
        plate = {"long_mm": 80.0, "wide_mm": 80.0, "thickness_mm": 3.0}
        for structure, asks in (
            ({"found": "body sheet", "thickness_mm": 1.0}, True),
            ({"found": "frame rail", "thickness_mm": 1.0}, False),
            ({"found": "body sheet", "thickness_mm": 3.0}, False),
            ({"found": "body sheet", "thickness_mm": 1.0, "plate": plate}, False),
        ):
            stops = [STOPS[0] | {"structure": structure}, *STOPS[1:]]
            self.assertEqual(("mount.thin_sheet", "front") in self.at(HELD | {"stops": stops}), asks, structure)

    def test_a_nut_that_no_spanner_reaches(self) -> None:
        """Unless it is captive."""
        shut = {"from_both_sides": False}
        for captive in (False, True):
            bolts = STOPS[0]["bolts"] | {"captive": captive}
            stops = [STOPS[0] | {"structure": shut, "bolts": bolts}, *STOPS[1:]]
            self.assertEqual(("mount.spanner", "front") in self.at(HELD | {"stops": stops}), not captive)

    def test_which_end_of_a_strap(self) -> None:
        """Low is right or rear, high is left or front."""
        shut = {"structure": {"from_both_sides": False}}
        for end, name in (("low", "right"), ("high", "left")):
            one = strap(1, 200.0)
            one[end] = one[end] | shut
            finding = self.at(HELD | {"straps": [one, strap(2, 700.0)]})["mount.spanner", f"s1.{end}"]
            self.assertIn(name, finding.title.plain())

    def test_a_stop_that_stands_off(self) -> None:
        """How far it is off and what its pad is."""
        off = STOPS[0] | {"x_mm": 917.0}
        finding = self.at(HELD | {"stops": [off, *STOPS[1:]]})["mount.stop", "front"]
        said = figures(finding)
        self.assertIn(17.0, [round(value, 3) for value in said.values()])
        self.assertIn(5.0, [round(value, 3) for value in said.values()])
