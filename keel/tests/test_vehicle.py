"""A vehicle about the bay: what of it has to be cleared, how far, and what is refused."""

from typing import Any
from unittest import TestCase

from hypothesis import given, settings
from hypothesis import strategies as st

from keel.analysis.parts import BAY
from keel.analysis.showing import Showing
from keel.analysis.tank import Asked, TankAnalysis
from keel.design.bay import Bay, KeepOut
from keel.design.document import Design
from keel.design.vehicle import Vehicle, VehicleCorner, VehiclePart
from keel.design.workshop import Workshop
from keel.evaluation import evaluate
from keel.reference.clearances import CLEARANCE_MM
from keel.solid.vehicle import bay_in_vehicle, in_bay, swept_box
from keel.stations.mount.rules import wheel_loads_add_up
from keel.studies.mount.vehicle_shown import VEHICLE_SHOWN
from keel.studies.space.clearance import GAPS
from keel.tests.samples import box

ROOM: dict[str, Any] = {"length_mm": 1000.0, "width_mm": 600.0, "height_mm": 500.0}
TANK: dict[str, Any] = {
    "length_mm": 600.0,
    "width_mm": 400.0,
    "height_mm": 300.0,
    "x_mm": 200.0,
    "y_mm": 100.0,
    "z_mm": 50.0,
}
AT = {"x_mm": 300.0, "y_mm": -300.0, "z_mm": 250.0}


def part(kind: str, **more: Any) -> dict[str, Any]:
    place = {"x_mm": 1300.0, "y_mm": -200.0, "z_mm": 300.0}
    return {"id": "it", "name": "it", "kind": kind} | place | more


def analysed(vehicle: dict[str, Any], **more: Any) -> TankAnalysis:
    """A tank in a bay whose corner lies at (300, −300, 250) of the vehicle."""
    mount = {"vehicle": "v", "corner": AT} | more
    document = Design.model_validate({"bay": ROOM, "shell": box().model_dump() | TANK, "mount": mount})
    kept = Vehicle.model_validate({"id": "v"} | vehicle)
    return TankAnalysis(Asked(document, Workshop(vehicles=[kept])))


def gap(vehicle: dict[str, Any], key: str = "vehicle-it") -> tuple[float, float]:
    """Distance to what is of the vehicle, and what is needed [mm]."""
    found = next(one for one in analysed(vehicle)[GAPS] if one.key == key)
    return round(found.gap_mm, 6), found.needed_mm


class WhatHasToBeCleared(TestCase):
    """The tank's lips end at 817 mm of the bay: 1117 mm of the vehicle."""

    def test_structure_stands_where_it_was_measured(self) -> None:
        self.assertEqual(gap({"parts": [part("structure")]}), (183.0, 10))

    def test_a_moving_part_counts_with_all_its_travel(self) -> None:
        self.assertEqual(gap({"parts": [part("moving part", travel_x_mm=-150.0)]}), (33.0, 25))
        self.assertEqual(gap({"parts": [part("moving part", travel_x_mm=150.0)]}), (183.0, 25))

    def test_a_bare_face_of_a_hot_part_keeps_the_tank_further_off_than_a_shielded_one(self) -> None:
        bare, needed = gap({"parts": [part("hot part")]})
        shielded, same = gap({"parts": [part("hot part", shielded=["rear"])]})
        self.assertEqual((needed, same), (50, 50))
        # A hundred are wanted of a bare face, fifty of a shielded one.
        self.assertEqual((bare, shielded), (133.0, 183.0))

    def test_the_workshops_own_clearances_tell_a_bare_face_from_a_shielded_one(self) -> None:
        hot = Vehicle.model_validate({"parts": [part("hot part")]})
        own = CLEARANCE_MM | {"exhaust, bare": 180.0, "exhaust, shielded": 60.0}
        usual, wide = (in_bay(hot, VehicleCorner(), by)[0] for by in (CLEARANCE_MM, own))
        assert isinstance(usual, KeepOut) and isinstance(wide, KeepOut)
        self.assertAlmostEqual(usual.x_mm - wide.x_mm, 120.0 - 50.0)

    def test_planned_parts_say_so(self) -> None:
        bay = analysed({"parts": [part("planned part")]})[BAY]
        self.assertTrue(bay.keep_outs[-1].planned)

    def test_people_are_no_neighbours_of_the_shell(self) -> None:
        bay = analysed({"parts": [part("person")]})[BAY]
        self.assertEqual(bay.keep_outs, [])

    def test_panels_ground_and_rear_zone(self) -> None:
        panel = {"id": "it", "name": "bulkhead", "axis": "x", "at_mm": 1200.0, "a_mm": -400.0, "b_mm": 0.0}
        panel |= {"long_mm": 900.0, "wide_mm": 900.0}
        self.assertEqual(gap({"panels": [panel]}), (83.0, 15))
        self.assertEqual(gap({"ground_mm": 100.0}, "vehicle-ground"), (200.0, 150))
        # Its rear lip stands at 183 mm of the bay.
        self.assertEqual(gap({"rearmost_mm": 100.0}, "vehicle-rear"), (383.0, 300))

    def test_a_panel_that_is_fitted_after_the_tank_is_away_while_it_goes_in(self) -> None:
        panel = {"id": "p", "name": "p", "at_mm": 0.0, "a_mm": 0.0, "b_mm": 0.0, "long_mm": 1.0, "wide_mm": 1.0}
        vehicle = Vehicle.model_validate({"panels": [panel | {"closes": True}, panel | {"id": "q"}]})
        self.assertEqual([one.id for one in in_bay(vehicle, VehicleCorner(), closed=False)], ["vehicle-q"])
        self.assertEqual(len(in_bay(vehicle, VehicleCorner())), 2)

    def test_without_a_vehicle_the_bay_is_as_it_was(self) -> None:
        bay = Bay.model_validate(ROOM)
        self.assertIs(bay_in_vehicle(bay, None, VehicleCorner()), bay)

    @settings(max_examples=50, deadline=None)
    @given(st.floats(-500, 500), st.floats(-500, 500), st.floats(-500, 500), st.floats(-300, 300))
    def test_moving_bay_and_vehicle_alike_changes_nothing(self, x: float, y: float, z: float, travel: float) -> None:
        here = VehiclePart.model_validate(part("moving part", travel_y_mm=travel))
        there = here.model_copy(update={"x_mm": here.x_mm + x, "y_mm": here.y_mm + y, "z_mm": here.z_mm + z})
        kept, moved = swept_box(here), swept_box(there, (x, y, z))
        for a, b in zip((*kept[0], *kept[1]), (*moved[0], *moved[1]), strict=True):
            self.assertAlmostEqual(a, b, places=9)


class WhatIsShownAndFound(TestCase):
    def test_a_short_gap_to_the_vehicle_is_found_and_goes_away_with_its_remedy(self) -> None:
        near = part("structure", x_mm=1120.0)
        tank = analysed({"parts": [near]})
        asked = Showing(results=("bay.gaps",))
        found = evaluate(tank.design, tank.workshop, asked).findings
        finding = next(one for one in found if one.code == "bay.clearance" and one.subject == "vehicle-it")
        self.assertTrue(finding.remedies)
        self.assertNotIn("keep_outs", str(finding.remedies[0].patch))

    def test_it_is_drawn_in_the_bays_axes(self) -> None:
        hole = {"name": "loom", "a_mm": -100.0, "b_mm": 300.0, "long_mm": 40.0, "wide_mm": 30.0}
        panel = {"id": "it", "name": "bulkhead", "axis": "x", "at_mm": 1200.0, "a_mm": -400.0, "b_mm": 0.0}
        panel |= {"long_mm": 900.0, "wide_mm": 900.0, "gaps": [hole]}
        shown = analysed({"panels": [panel], "wheelbase_mm": 2500.0})[VEHICLE_SHOWN]
        assert shown is not None
        drawn = shown.parts[0]
        self.assertEqual((drawn.low.x, drawn.low.y, drawn.low.z), (900.0, -100.0, -250.0))
        self.assertEqual((drawn.holes[0].low.y, drawn.holes[0].high.z), (200.0, 80.0))
        self.assertEqual(shown.axles_mm, [-300.0, 2200.0])

    def test_a_vehicle_that_is_gone_is_a_stop_until_it_is_taken_out(self) -> None:
        document = Design.model_validate({"shell": box().model_dump(), "mount": {"vehicle": "gone"}})
        asked = Showing(results=("mount",))
        finding = next(one for one in evaluate(document, showing=asked).findings if one.code == "mount.no_vehicle")
        self.assertEqual(finding.remedies[0].patch, {"mount": {"vehicle": None}})
        without = Design.model_validate({"shell": box().model_dump()})
        self.assertNotIn("mount.no_vehicle", {one.code for one in evaluate(without, showing=asked).findings})


class WhatIsRefused(TestCase):
    def test_wheel_loads_that_do_not_add_up(self) -> None:
        loads = {"front_left_kg": 250.0, "front_right_kg": 250.0, "rear_left_kg": 300.0, "rear_right_kg": 300.0}
        apart = "Wheel loads of it add up to 1100.00 kg, weighed as a whole 1200.00 kg, limit 1.0 % apart"
        for whole, said in ((1105.0, []), (1200.0, [apart])):
            tank = analysed(loads | {"name": "it", "whole_kg": whole})
            self.assertEqual([one.title.plain() for one in wheel_loads_add_up(tank)], said)
        # Typed one after the other they disagree for a while: nothing typed is refused for that.
        self.assertEqual(list(wheel_loads_add_up(analysed(loads | {"whole_kg": 1200.0, "rear_right_kg": None}))), [])

    def test_a_panel_without_area(self) -> None:
        with self.assertRaises(ValueError):
            Vehicle.model_validate(
                {
                    "panels": [
                        {"id": "p", "name": "p", "at_mm": 0.0, "a_mm": 0.0, "b_mm": 0.0, "long_mm": 0.0, "wide_mm": 5.0}
                    ]
                }
            )

    def test_a_scan_without_a_file_and_two_of_one_id(self) -> None:
        with self.assertRaisesRegex(ValueError, "scan without a file"):
            VehiclePart.model_validate(part("scan"))
        with self.assertRaisesRegex(ValueError, "two parts of the vehicle"):
            Vehicle.model_validate({"parts": [part("structure"), part("person")]})

    def test_keep_outs_of_the_bay_come_before_the_vehicles(self) -> None:
        own = {"kind": "box", "id": "own", "name": "own", "x_mm": 0.0, "y_mm": 0.0, "z_mm": 0.0}
        own |= {"length_mm": 10.0, "width_mm": 10.0, "height_mm": 10.0}
        bay = Bay.model_validate(ROOM | {"keep_outs": [own]})
        vehicle = Vehicle.model_validate({"parts": [part("structure")]})
        whole = bay_in_vehicle(bay, vehicle, VehicleCorner())
        self.assertEqual([one.id for one in whole.keep_outs], ["own", "vehicle-it"])
        self.assertIsInstance(whole.keep_outs[1], KeepOut)
