"""The filler's way from the body to the tank: fall, lengths, room for hand and nozzle, sight, metal before people."""

import json
from math import asin, degrees, hypot
from typing import Any
from unittest import TestCase

from keel.analysis.showing import Showing
from keel.analysis.tank import Asked, TankAnalysis
from keel.design.document import Design
from keel.design.vehicle import Vehicle
from keel.design.workshop import Workshop
from keel.evaluation import evaluate
from keel.findings.patch import apply
from keel.studies.mount.filler_pieces import FILLER_PIECES
from keel.studies.mount.filler_route import FILLER, Filler
from keel.tests.samples import box

ROOM: dict[str, Any] = {"length_mm": 1000.0, "width_mm": 600.0, "height_mm": 700.0}
NECK: dict[str, Any] = {"id": "neck", "name": "filler neck", "role": "filler", "x_mm": 400.0, "y_mm": 200.0}
NECK |= {"stands_mm": 50.0, "across_mm": 60.0, "face": "roof"}
ROUTE: dict[str, Any] = {"port": "neck", "x_mm": 400.0, "y_mm": 600.0, "z_mm": 650.0, "stub_mm": 60.0}
DRIVER = {"id": "driver", "name": "driver", "kind": "person", "x_mm": 1200.0, "y_mm": 100.0, "z_mm": 200.0}
DRIVER |= {"length_mm": 300.0, "width_mm": 400.0, "height_mm": 500.0}
FIREWALL: dict[str, Any] = {
    "id": "wall",
    "name": "firewall",
    "axis": "x",
    "at_mm": 1050.0,
    "a_mm": -400.0,
    "b_mm": -400.0,
}
FIREWALL |= {"long_mm": 1600.0, "wide_mm": 1800.0}


def analysed(
    route: dict[str, Any] | None = None, keep_outs: list[dict[str, Any]] | None = None, **vehicle: Any
) -> TankAnalysis:
    mount = {"filler": ROUTE | (route or {}), "vehicle": "v"}
    bay = ROOM | {"keep_outs": keep_outs or []}
    document = Design.model_validate({"shell": box().model_dump(), "bay": bay, "ports": [NECK], "mount": mount})
    return TankAnalysis(Asked(document, Workshop(vehicles=[Vehicle.model_validate({"id": "v"} | vehicle)])))


def route(**more: Any) -> Filler:
    found = analysed(more)[FILLER]
    assert found is not None
    return found


def codes(tank: TankAnalysis) -> set[str]:
    found = evaluate(tank.design, tank.workshop, Showing(remedies=False, results=("mount",))).findings
    return {one.code for one in found if one.station == "mount" and one.code.startswith("filler.")}


def block(name: str, low: tuple[float, float, float], size: tuple[float, float, float]) -> dict[str, Any]:
    x, y, z = low
    length, width, height = size
    place = {"kind": "box", "id": name, "name": name, "x_mm": x, "y_mm": y, "z_mm": z}
    return place | {"length_mm": length, "width_mm": width, "height_mm": height}


class Figures(TestCase):
    def test_fall_and_lengths_by_hand(self) -> None:
        made = route(up_deg=0.0)
        # The roof at 350 mm, the neck 50 mm up, the pipe 60 mm inside the body.
        self.assertEqual((made.neck.x, made.neck.y, round(made.neck.z, 6)), (400.0, 200.0, 400.0))
        across, up = 600.0 - 60.0 - 200.0, 250.0
        self.assertAlmostEqual(made.straight_mm, hypot(across, up), places=6)
        self.assertAlmostEqual(made.fall_deg, degrees(asin(up / hypot(across, up))), places=6)
        self.assertAlmostEqual(made.hose_mm, 1.03 * hypot(across, up) + 70.0, places=6)
        self.assertAlmostEqual(made.vent_mm, 1.03 * (hypot(across, up) + 60.0) + 70.0, places=6)
        self.assertAlmostEqual(made.turn_neck_deg + made.turn_opening_deg, 90.0, places=6)

    def test_nothing_about_it_leaves_room_and_sight(self) -> None:
        made = route()
        self.assertEqual((made.hand_at, made.nozzle_at, made.sees, made.bare_to), ("", "", 1.0, ""))

    def test_without_its_port_there_is_no_route(self) -> None:
        self.assertIsNone(analysed({"port": "gone"})[FILLER])


class Findings(TestCase):
    def test_a_roomy_steep_one_has_none(self) -> None:
        self.assertEqual(codes(analysed()), set())

    def test_one_that_hardly_falls_is_put_right_by_its_remedy(self) -> None:
        tank = analysed({"z_mm": 460.0})
        self.assertIn("filler.fall", codes(tank))
        found = evaluate(tank.design, tank.workshop, Showing(results=("mount",))).findings
        finding = next(one for one in found if one.code == "filler.fall")
        after = apply(tank.design, json.loads(json.dumps(finding.remedies[0].patch)))
        self.assertNotIn("filler.fall", codes(TankAnalysis(Asked(after, tank.workshop))))

    def test_a_short_overlap_and_a_sharp_turn(self) -> None:
        self.assertEqual(codes(analysed({"overlap_mm": 10.0})), {"filler.overlap"})
        self.assertEqual(codes(analysed({"side": "right"})), {"filler.turn"})

    def test_no_room_for_hand_or_nozzle(self) -> None:
        beside = block("battery", (380.0, 690.0, 640.0), (40.0, 40.0, 200.0))
        found = codes(analysed({"up_deg": 0.0}, [beside]))
        self.assertLessEqual({"filler.hand", "filler.nozzle"}, found)
        further = block("battery", (380.0, 760.0, 640.0), (40.0, 40.0, 200.0))
        found = codes(analysed({"up_deg": 0.0}, [further]))
        self.assertIn("filler.nozzle", found)
        self.assertNotIn("filler.hand", found)

    def test_hidden_under_a_cap_nobody_sees_it_rise(self) -> None:
        lid = block("dressed-up cap", (100.0, 640.0, 300.0), (700.0, 60.0, 800.0)) | {"id": "cap"}
        self.assertIn("filler.sight", codes(analysed({"up_deg": 0.0}, [lid])))

    def test_people_have_metal_without_a_gap_before_them(self) -> None:
        self.assertEqual(codes(analysed(parts=[DRIVER])), {"filler.cover"})
        self.assertEqual(codes(analysed(parts=[DRIVER], panels=[FIREWALL])), set())
        self.assertEqual(codes(analysed(parts=[DRIVER], panels=[FIREWALL | {"metal": None}])), {"filler.cover"})

    def test_an_open_gap_is_no_cover_until_it_is_sealed(self) -> None:
        gap = {"name": "loom gap", "a_mm": -300.0, "b_mm": -300.0, "long_mm": 1400.0, "wide_mm": 1500.0}
        for sealed, expected in ((False, {"filler.cover"}), (True, set[str]())):
            panel = FIREWALL | {"gaps": [gap | {"sealed": sealed}]}
            self.assertEqual(codes(analysed(parts=[DRIVER], panels=[panel])), expected)


class Pieces(TestCase):
    """What the way in is cut from, and what only the old tank shows."""

    def test_lengths_and_end_angles(self) -> None:
        """From the tank outward: the neck's height, hoses by the way, the pipe cut as far off square as it leans."""
        pieces = {one.what: one for one in analysed({"up_deg": 25.0})[FILLER_PIECES]}
        way = route(up_deg=25.0)
        self.assertEqual(pieces["neck on the tank"].cut_mm, 50.0)
        hose = pieces["fill hose"]
        self.assertEqual((hose.first_deg, hose.last_deg), (way.turn_neck_deg, way.turn_opening_deg))
        self.assertAlmostEqual(hose.cut_mm, way.straight_mm * 1.03 + 70.0)
        pipe = pieces["pipe behind the opening"]
        self.assertEqual(pipe.cut_mm, 60.0)
        self.assertAlmostEqual(pipe.last_deg, 25.0)

    def test_the_old_tank_is_measured_while_it_is_in(self) -> None:
        """Asked for then; what can't be had any more is said; what differs from the drawing is a stop."""

        def told(state: str, **taken: float) -> dict[str, str]:
            names = {"over": "opening over the bay's floor", "hose": "old fill hose, cut length"}
            measures = [{"name": names[name], "value_mm": value} for name, value in taken.items()]
            tank = analysed()
            mount = tank.design.mount.model_dump(mode="json") | {"old_tank": state, "old_measures": measures}
            design = Design.model_validate(tank.design.model_dump(mode="json") | {"mount": mount}, strict=False)
            found = evaluate(design, tank.workshop, Showing(remedies=False, results=("mount",))).findings
            return {one.code: one.severity for one in found if one.code.startswith("filler.old")}

        self.assertEqual(told("none"), {})
        self.assertEqual(told("in its place", over=650.0), {"filler.old_measures": "caution"})
        self.assertEqual(told("out", over=650.5, hose=400.0), {"filler.old_measures": "note"})
        differs = told("in its place", over=660.0)
        self.assertEqual(differs, {"filler.old_measures": "caution", "filler.old_differs": "stop"})
