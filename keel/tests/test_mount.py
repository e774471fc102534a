"""What mounts carry and bear: worked figures, equilibrium, and every finding of the station."""

import json
from math import log, pi
from typing import Any
from unittest import TestCase

import numpy as np
from hypothesis import given, settings
from hypothesis import strategies as st

from keel.analysis.showing import Showing
from keel.analysis.tank import Asked, TankAnalysis
from keel.design.document import Design
from keel.design.mount import Bearer, Bolting, Foot, Mount, Strap, Structure
from keel.design.workshop import HouseRules, Workshop
from keel.evaluation import Evaluation, evaluate
from keel.findings.patch import apply
from keel.formats.mount import bolts_csv
from keel.reference.fasteners import BOLT_YIELD_MPA, BOLTS
from keel.studies.mount.bearers import BEARER_PLACES, section_modulus_mm3
from keel.studies.mount.bolt_list import BOLTS_LISTED
from keel.studies.mount.fastening import (
    bearing_n,
    bolt_group,
    edge_needed_mm,
    links_of,
    pull_through_n,
    shear_yield_mpa,
    tear_out_n,
)
from keel.studies.mount.full_mass import FULL_MASS, G0
from keel.studies.mount.loads import MOUNT_LOADS, Loads
from keel.studies.mount.protection import PROTECTION
from keel.studies.mount.sharing import Spring, shared
from keel.studies.mount.stack_up import bolt_length_mm, stack_mm, stud
from keel.studies.mount.stop_places import STOP_PLACES
from keel.studies.mount.straps import STRAPS
from keel.studies.strength.patch_load import patch_stress
from keel.tests.samples import box

SHELL: dict[str, Any] = {
    "length_mm": 900.0,
    "width_mm": 400.0,
    "height_mm": 350.0,
    "y_mm": -200.0,
    "bend_radius_mm": 17.0,
}
X, Y, Z = np.eye(3)
FOIL: dict[str, Any] = {"thickness_mm": 0.3, "metal": "3003-H14"}


def anchor(out: float, up: float = -25.0, **more: Any) -> dict[str, Any]:
    return {"out_mm": out, "z_mm": up} | more


def strap(number: int, at: float, **more: Any) -> dict[str, Any]:
    """A strap across, both ends alike unless told otherwise."""
    ends = {"low": anchor(-262.0), "high": anchor(262.0)}
    return {"id": f"s{number}", "name": f"strap {number}", "at_mm": at, "pad_mm": 6.0} | ends | more


def stop(side: str, place: tuple[float, float, float], **more: Any) -> dict[str, Any]:
    x, y, z = place
    bolts = {"size": "M12", "count": 4}
    return {"id": side, "name": f"{side} stop", "side": side, "x_mm": x, "y_mm": y, "z_mm": z, "bolts": bolts} | more


def foot(number: int, x: float, y: float, **more: Any) -> dict[str, Any]:
    return {"id": f"f{number}", "name": f"foot {number}", "x_mm": x, "y_mm": y, "z_mm": 0.0} | more


STRAPPED: dict[str, Any] = {"straps": [strap(1, 200.0), strap(2, 700.0)]}
STOPS = [
    stop("front", (905.0, 0.0, 100.0)),
    stop("rear", (-5.0, 0.0, 100.0)),
    stop("left", (450.0, 205.0, 100.0)),
    stop("right", (450.0, -205.0, 100.0)),
]
HELD = STRAPPED | {"stops": STOPS}


def document(mount: dict[str, Any], **more: Any) -> Design:
    return Design.model_validate({"shell": box().model_dump() | SHELL, "mount": mount} | more)


def analysed(mount: dict[str, Any], rules: HouseRules | None = None, **more: Any) -> TankAnalysis:
    return TankAnalysis(Asked(document(mount, **more), Workshop(rules=rules or HouseRules())))


def loads(mount: dict[str, Any], **more: Any) -> Loads:
    return analysed(mount, **more)[MOUNT_LOADS]


def judged(design: Design, *, remedies: bool = False) -> Evaluation:
    """What is found at the station alone."""
    return evaluate(design, showing=Showing(remedies=remedies, results=("mount",)))


def codes(evaluation: Evaluation) -> set[str]:
    return {finding.code for finding in evaluation.findings if finding.station == "mount"}


def found(mount: dict[str, Any]) -> set[str]:
    return codes(judged(document(mount)))


class WorkedFigures(TestCase):
    """Four bolts under a load beside them, and the thin sheet that they sit in."""

    def test_bolt_group_and_sheet(self) -> None:
        places = np.array([[-60.0, -40.0], [66.0, -40.0], [54.0, 46.0], [-60.0, 40.0]])
        load = 58.0 * 9.80665 * 8.0 * 0.5
        self.assertAlmostEqual(load, 2275.1428, delta=1e-3)
        forces = bolt_group(places, (0.0, -load), (150.0, 25.0))
        np.testing.assert_allclose(forces[:, 0], [-662.4614776, -662.4614776, 710.3502591, 614.5726961], atol=0.01)
        np.testing.assert_allclose(forces[:, 1], [388.9899303, -1622.338893, -1430.783767, 388.9899303], atol=0.01)
        shear = np.hypot(forces[:, 0], forces[:, 1])
        np.testing.assert_allclose(shear, [768.2241699, 1752.380864, 1597.416564, 727.3326369], rtol=1e-6)
        worst = float(shear.max())
        self.assertAlmostEqual(shear_yield_mpa(640.0) * 36.6 / worst, 7.717416333, delta=1e-5)
        torn, drawn = tear_out_n(0.9, 180.0, 18.0, 8.0), bearing_n(0.9, 180.0, 8.0)
        pulled = pull_through_n(0.9, 180.0, pi * 24.0)
        for bears, wanted, reserve in (
            (torn, 2618.860821, 1.494458696),
            (drawn, 1944.0, 1.109347882),
            (pulled, 7052.051928, 4.024268965),
        ):
            self.assertAlmostEqual(bears, wanted, delta=wanted * 1e-6)
            self.assertAlmostEqual(bears / worst, reserve, delta=1e-5)
        self.assertAlmostEqual(edge_needed_mm(worst, 0.9, 180.0, 8.0), 13.36794041, delta=1e-5)

    def test_stud_over_its_stack(self) -> None:
        stack = [(2.0, 0.15), (3.0, 0.3), (1.0, 0.1), (4.0, 0.15)]
        studs = [stud(length, stack, 0.4, 0.8, 0.8) for length in (12.0, 14.0, 16.0, 20.0)]
        np.testing.assert_allclose([one.proud_mm for one in studs], [2.0, 4.0, 6.0, 10.0])
        np.testing.assert_allclose([one.least_mm for one in studs], [0.9, 2.9, 4.9, 8.9])
        np.testing.assert_allclose([one.most_mm for one in studs], [3.1, 5.1, 7.1, 11.1])
        self.assertEqual([one.is_short for one in studs], [True, False, False, False])

    def test_two_straps_share_by_the_lever(self) -> None:
        # 71 kg at 8 g, its weight at 350 mm between straps at 130 and 640 mm.
        springs = [Spring(name, at * X, -Z, one_way=True) for name, at in (("a", 130.0), ("b", 640.0))]
        forces = shared(np.array([0.0, 0.0, 71 * G0 * 8]), 350.0 * X, springs).forces
        np.testing.assert_allclose(forces, [3167.355663, 2402.821537], rtol=1e-6)


class Sharing(TestCase):
    @settings(max_examples=100, deadline=None)
    @given(st.integers(0, 10**9))
    def test_forces_hold_the_load_in_balance(self, seed: int) -> None:
        rng = np.random.default_rng(seed)
        places = rng.uniform(-500, 500, (int(rng.integers(4, 9)), 3))
        springs = [Spring(f"{n}", place, way) for n, place in enumerate(places) for way in (X, Y, Z)]
        load, at = rng.uniform(-9000, 9000, 3), rng.uniform(-200, 200, 3)
        result = shared(load, at, springs)
        self.assertTrue(result.is_held)
        force = sum(f * spring.along for f, spring in zip(result.forces, springs, strict=True))
        moment = sum(np.cross(s.at - at, f * s.along) for f, s in zip(result.forces, springs, strict=True))
        np.testing.assert_allclose(force, -load, atol=1e-5)
        np.testing.assert_allclose(moment, 0.0, atol=1e-2)

    @settings(max_examples=60, deadline=None)
    @given(st.integers(0, 10**9))
    def test_what_only_presses_never_pulls(self, seed: int) -> None:
        rng = np.random.default_rng(seed)
        springs = [Spring(f"{n}", place, Z, one_way=True) for n, place in enumerate(rng.uniform(-500, 500, (6, 3)))]
        result = shared(np.array([0.0, 0.0, -5000.0]), rng.uniform(-250, 250, 3), springs)
        self.assertTrue((result.forces >= 0).all())
        if result.is_held:
            self.assertAlmostEqual(float(result.forces.sum()), 5000.0, delta=5000 * 0.06)

    def test_nothing_holds_against_its_own_way(self) -> None:
        pushing = [Spring("a", np.zeros(3), X, one_way=True)]
        self.assertTrue(shared(-1000.0 * X, np.zeros(3), pushing).is_held)
        self.assertFalse(shared(1000.0 * X, np.zeros(3), pushing).is_held)
        self.assertFalse(shared(1000.0 * Y, np.zeros(3), pushing).is_held)
        self.assertFalse(shared(1000.0 * X, np.zeros(3), []).is_held)

    def test_in_a_plane_it_is_the_bolt_group(self) -> None:
        places = np.array([[-60.0, -40.0, 0.0], [66.0, -40.0, 0.0], [54.0, 46.0, 0.0], [-60.0, 40.0, 0.0]])
        springs = [Spring(f"{n}", place, way) for n, place in enumerate(places) for way in (X, Y, Z)]
        result = shared(np.array([0.0, -2275.1428, 0.0]), np.array([150.0, 25.0, 0.0]), springs)
        wanted = bolt_group(places[:, :2], (0.0, -2275.1428), (150.0, 25.0))
        np.testing.assert_allclose(-result.forces.reshape(4, 3)[:, :2], wanted, atol=1e-6)


class LoadCases(TestCase):
    def test_full_mass_is_the_fuel_and_the_metal_where_they_are(self) -> None:
        mass = analysed(HELD)[FULL_MASS]
        assert mass is not None
        self.assertAlmostEqual(mass.kg, mass.empty_kg + mass.fuel_kg)
        self.assertAlmostEqual(mass.at.x, 450.0, delta=0.5)
        self.assertAlmostEqual(mass.at.y, 0.0, delta=1e-6)
        # The fuel ends below the roof, the metal's middle is the tank's.
        self.assertLess(mass.at.z, 175.0)
        self.assertGreater(mass.at.z, 160.0)

    def test_up_is_shared_by_the_straps_alone(self) -> None:
        up = next(case for case in loads(HELD).cases if case.way == "up")
        self.assertEqual({held.holder for held in up.by}, {"s1", "s2"})
        self.assertAlmostEqual(sum(held.force_n for held in up.by), up.load_n, delta=1e-6 * up.load_n)
        mass = loads(HELD).mass
        assert mass is not None
        first = next(held.force_n for held in up.by if held.holder == "s1")
        self.assertAlmostEqual(first, up.load_n * (700.0 - mass.at.x) / 500.0, delta=1e-6 * up.load_n)

    def test_braking_tips_the_tank_about_its_lower_edge(self) -> None:
        forward = next(case for case in loads(HELD).cases if case.way == "forward")
        carried = {held.holder: held.force_n for held in forward.by}
        self.assertAlmostEqual(carried["front"], forward.load_n, delta=1e-6 * forward.load_n)
        self.assertGreater(carried["s1"], carried.get("s2", 0.0))

    def test_a_strap_holds_down_what_would_tip_about_the_edge_it_rests_on(self) -> None:
        # Its front half hangs over: it tips about the edge of its foot, not about its foremost corner.
        low = {"kind": "relief", "id": "r", "name": "axle", "form": "box", "x_mm": 500.0, "y_mm": -1.0, "z_mm": -1.0}
        low |= {"length_mm": 401.0, "width_mm": 402.0, "height_mm": 151.0}
        for features, edge in (([], 900.0), ([low], 500.0)):
            made = TankAnalysis(Asked(Design.model_validate({"shell": box().model_dump() | SHELL | {
                "bend_radius_mm": 0.0, "features": features}, "mount": {"straps": [strap(1, 200.0)], "stops": [
                stop("front", (905.0, 0.0, 60.0)), *STOPS[1:]]}}), Workshop()))  # fmt: skip
            forward = next(case for case in made[MOUNT_LOADS].cases if case.way == "forward")
            carried = next(held for held in forward.by if held.holder == "s1")
            mass = made[FULL_MASS]
            assert mass is not None
            wanted = forward.load_n * (mass.at.z - 60.0) / (edge - 200.0)
            self.assertAlmostEqual(carried.force_n, wanted, delta=1e-3 * forward.load_n)

    def test_feet_alone_hold_every_way(self) -> None:
        feet = [foot(n, x, y) for n, (x, y) in enumerate([(-20, -180), (-20, 180), (920, -180), (920, 180)])]
        checked = loads({"feet": feet, "use": "competition"})
        self.assertTrue(all(case.is_held for case in checked.cases))
        for case in checked.cases:
            total = np.sum([[held.force.x, held.force.y, held.force.z] for held in case.by], axis=0)
            self.assertAlmostEqual(float(np.linalg.norm(total)), case.load_n, delta=1e-6 * case.load_n)
        # Its weight acts above the bolts: braking lifts the rear feet.
        forward = next(case for case in checked.cases if case.way == "forward")
        for held in forward.by:
            self.assertEqual(held.force.z < 0, held.holder in ("f0", "f1"), held)

    def test_a_flange_on_a_rail_is_lifted_off_it_and_a_tank_hung_below_pulls_down(self) -> None:
        # The same feet above the centre of mass: on top of their rail, then under it.
        corners = enumerate([(-20, -180), (-20, 180), (920, -180), (920, 180)])
        feet = [foot(n, x, y, z_mm=340.0) for n, (x, y) in corners]
        for at, way in ((None, "up"), ("high side", "down")):
            checked = loads({"feet": [one | {"structure_at": at} for one in feet]})
            pulled = {link.way for check in checked.mounts for link in check.links if link.name == "pull-through"}
            self.assertIn(way, pulled)
            self.assertNotIn("down" if way == "up" else "up", pulled)

    def test_what_is_fitted_weighs_too(self) -> None:
        plain, laden = (analysed(HELD | {"extra_kg": more})[FULL_MASS] for more in (0.0, 12.0))
        assert plain is not None and laden is not None
        self.assertAlmostEqual(laden.kg - plain.kg, 12.0)

    def test_hanging_straps_carry_its_weight(self) -> None:
        hung = [
            strap(n, at, passes="under", low=anchor(-262.0, 375.0), high=anchor(262.0, 375.0))
            for n, at in ((1, 200.0), (2, 700.0))
        ]
        down = next(case for case in loads({"straps": hung}).cases if case.way == "down")
        self.assertEqual({held.holder for held in down.by}, {"s1", "s2"})

    def test_the_loads_are_the_house_rules_or_the_cards(self) -> None:
        road, race = loads(HELD), loads(HELD | {"use": "competition"})
        self.assertEqual([case.g for case in road.cases], [8, 8, 5, 5, 5, 5])
        self.assertEqual([case.g for case in race.cases], [20, 20, 8, 8, 8, 8])
        card = {"forward_g": 25.0, "rearward_g": 10.0, "sideways_g": 9.0, "up_g": 4.0, "down_g": 3.0}
        typed = loads(HELD | {"use": "rule card", "loads": card})
        self.assertEqual([case.g for case in typed.cases], [25, 10, 9, 9, 4, 3])
        with self.assertRaisesRegex(ValueError, "aren't typed"):
            Mount.model_validate({"use": "rule card"})


class Links(TestCase):
    def test_a_bolt_bears_less_across_than_along(self) -> None:
        place = Foot.model_validate(foot(1, 0.0, 0.0))
        along = next(link for link in links_of(place, 1000.0, 0.0) if link.name == "bolt")
        across = next(link for link in links_of(place, 0.0, 1000.0) if link.name == "bolt")
        self.assertAlmostEqual(along.bears_n, BOLT_YIELD_MPA["8.8"] * BOLTS["M8"].stress_area_mm2)
        self.assertAlmostEqual(along.reserve / across.reserve, 3**0.5)

    def test_a_plate_helps_and_a_thin_one_bends_first(self) -> None:
        thin = {"found": "body sheet", "thickness_mm": 0.9}
        bare = Foot.model_validate(foot(1, 0.0, 0.0, structure=thin))

        def with_plate(thick: float) -> dict[str, float]:
            plate = {"long_mm": 80.0, "wide_mm": 80.0, "thickness_mm": thick}
            place = Foot.model_validate(foot(1, 0.0, 0.0, structure=thin | {"plate": plate}))
            return {link.name: link.reserve for link in links_of(place, 4000.0, 0.0)}

        alone = {link.name: link.reserve for link in links_of(bare, 4000.0, 0.0)}
        self.assertGreater(with_plate(3.0)["pull-through"], 3 * alone["pull-through"])
        self.assertAlmostEqual(with_plate(4.0)["spreading plate"] / with_plate(2.0)["spreading plate"], 4.0)

    @settings(max_examples=80, deadline=None)
    @given(st.sampled_from(sorted(BOLTS)), st.floats(0.5, 12), st.floats(0, 40))
    def test_a_bolt_fills_its_nut_and_is_the_shortest_that_does(self, size: Any, thick: float, held: float) -> None:
        place = Foot(
            id="f", name="f", x_mm=0, y_mm=0, z_mm=0, bolts=Bolting(size=size), structure=Structure(thickness_mm=thick)
        )
        bolt, length = BOLTS[size], bolt_length_mm(place, held)
        needed = stack_mm(place, held) + bolt.locking_nut_mm + bolt.pitch_mm
        if length is not None:
            self.assertGreaterEqual(length, needed - 1e-6)
            self.assertLess(length - needed, 30.0)


class Prying(TestCase):
    """A stop is pushed over as well as along: its bolts are pulled by the lever of its face over its foot."""

    def links(self, **more: Any) -> dict[str, float]:
        held = HELD | {"stops": [stop("front", (905.0, 0.0, 100.0), **more), *STOPS[1:]]}
        check = next(one for one in loads(held).mounts if one.id == "front")
        return {link.name: link.load_n for link in check.links}

    @settings(max_examples=25, deadline=None)
    @given(st.floats(0, 300), st.floats(10, 200))
    def test_moments_about_the_edge_of_its_foot(self, arm: float, base: float) -> None:
        flat, pried = self.links(arm_mm=0.0), self.links(arm_mm=arm, base_mm=base)
        self.assertNotIn("pull-through", flat)
        self.assertAlmostEqual(pried["tear-out"], flat["tear-out"], places=6)
        pull = flat["bolt"] * arm / base
        self.assertAlmostEqual(pried["bolt"], (flat["bolt"] ** 2 + pull**2) ** 0.5, delta=1e-6 * pried["bolt"])
        self.assertAlmostEqual(pried.get("pull-through", 0.0) * 4, pull, delta=1e-6 * max(1.0, pull))

    def test_a_tall_stop_on_a_short_foot_is_weak_and_a_longer_foot_helps(self) -> None:
        tall = stop("front", (905.0, 0.0, 100.0), arm_mm=300.0, base_mm=15.0)
        mount = HELD | {"stops": [tall, *STOPS[1:]]}
        self.assertEqual(found(mount), {"mount.weak"})
        finding = next(one for one in judged(document(mount), remedies=True).findings if one.code == "mount.weak")
        longer = next(one for one in finding.remedies if one.label.text.startswith("Foot of"))
        base = float(str(longer.label.values["base_mm"]))
        after = document(mount | {"stops": [tall | {"base_mm": base}, *STOPS[1:]]})
        self.assertNotIn("mount.weak", codes(judged(after)))
        short = document(mount | {"stops": [tall | {"base_mm": base - 5.0}, *STOPS[1:]]})
        self.assertIn("mount.weak", codes(judged(short)))

    def test_all_that_is_weak_is_put_right_one_after_the_other(self) -> None:
        weak = stop("front", (905.0, 0.0, 100.0), arm_mm=250.0, base_mm=20.0, bolts={"size": "M8", "count": 2})
        mount = HELD | {"stops": [weak, *STOPS[1:]]}
        finding = next(one for one in judged(document(mount), remedies=True).findings if one.code == "mount.weak")
        labels = [remedy.label.plain() for remedy in finding.remedies]
        self.assertIn("Every weak link of front stop at once", labels)
        for remedy in finding.remedies:
            after = judged(apply(document(mount), json.loads(json.dumps(remedy.patch))))
            self.assertNotIn("mount.weak", codes(after), remedy.label.plain())


class Findings(TestCase):
    """Each comes up, and goes away with what its remedy does."""

    def assert_settled_by_its_remedy(self, mount: dict[str, Any], code: str) -> None:
        design = document(mount)
        finding = next(one for one in judged(design, remedies=True).findings if one.code == code)
        self.assertTrue(finding.remedies, finding.title.plain())
        for remedy in finding.remedies:
            patch = json.loads(json.dumps(remedy.patch))
            after = judged(apply(design, patch))
            self.assertNotIn(finding.key, {one.key for one in after.findings}, remedy.label.plain())

    def test_a_well_held_tank_has_none(self) -> None:
        self.assertEqual(found(HELD), set())

    def test_an_empty_mount_has_none(self) -> None:
        self.assertEqual(found({}), set())

    def test_nothing_holds_it_that_way(self) -> None:
        self.assertEqual(found(STRAPPED), {"mount.unheld"})
        self.assert_settled_by_its_remedy(STRAPPED, "mount.unheld")

    def test_what_holds_it_lets_it_turn(self) -> None:
        aside = HELD | {"stops": [stop("front", (905.0, 150.0, 100.0)), *STOPS[1:]]}
        evaluation = judged(document(aside))
        said = [one.title.text for one in evaluation.findings if one.code == "mount.unheld"]
        self.assertEqual([text.split(":")[0] for text in said], ["What holds the tank {way} lets it turn"])

    def test_without_a_mass_nothing_is_silently_passed(self) -> None:
        shell = box().model_dump() | SHELL | {"bend_radius_mm": 170.0, "height_mm": 350.0}
        made = Design.model_validate({"shell": shell, "mount": HELD, "sheet": {"flange_mm": 200.0}})
        tank = TankAnalysis(Asked(made, Workshop()))
        expected = {"mount.no_mass"} if tank[FULL_MASS] is None else set[str]()
        self.assertEqual(codes(judged(made)) & {"mount.no_mass"}, expected)

    def test_one_strap(self) -> None:
        mount = HELD | {"straps": [strap(1, 450.0)]}
        self.assertIn("mount.one_strap", found(mount))
        self.assert_settled_by_its_remedy(mount, "mount.one_strap")

    def test_a_strap_that_lies_nowhere(self) -> None:
        self.assertIn("mount.path", found(HELD | {"straps": [strap(1, 200.0), strap(2, 2000.0)]}))

    def test_each_weak_link(self) -> None:
        weak: list[tuple[str, dict[str, Any]]] = [
            ("strap", {"straps": [strap(1, 200.0, width_mm=12.0, thickness_mm=0.5), strap(2, 700.0)]}),
            ("bolt of strap 1 at the right end", {"straps": [
                strap(1, 200.0, low=anchor(-262.0, bolts={"size": "M4", "grade": "4.6"})), strap(2, 700.0)]}),
            ("pull-through of strap 1 at the left end", {"straps": [
                strap(1, 200.0, high=anchor(262.0, structure=FOIL)), strap(2, 700.0)]}),
            ("bearing of front stop", {"stops": [
                stop("front", (905.0, 0.0, 100.0), structure={"thickness_mm": 0.8, "edge_mm": 60.0}), *STOPS[1:]]}),
            ("tear-out of front stop", {"stops": [
                stop("front", (905.0, 0.0, 100.0), structure={"thickness_mm": 1.5, "edge_mm": 9.0}), *STOPS[1:]]}),
        ]  # fmt: skip
        for name, part in weak:
            with self.subTest(name):
                evaluation = judged(document(HELD | part | {"use": "competition"}))
                finding = next(one for one in evaluation.findings if one.code == "mount.weak")
                self.assertEqual(str(finding.title.values["link"]).lower(), name if name != "strap" else "strap 1")
                self.assertLess(float(finding.title.values["reserve"]), 1.5)
                self.assert_settled_by_its_remedy(HELD | part | {"use": "competition"}, "mount.weak")

    def test_a_stop_off_the_tank_within_it_or_beside_it(self) -> None:
        for x, said in ((930.0, "front stop stands 30 mm off the tank"), (880.0, "front stop stands 20 mm within")):
            mount = HELD | {"stops": [stop("front", (x, 0.0, 100.0)), *STOPS[1:]]}
            self.assertEqual(found(mount), {"mount.stop"})
            finding = next(one for one in judged(document(mount)).findings if one.code == "mount.stop")
            self.assertTrue(finding.title.plain().startswith(said), finding.title.plain())
            self.assert_settled_by_its_remedy(mount, "mount.stop")
        beside = HELD | {"stops": [stop("front", (905.0, 0.0, 400.0)), *STOPS[1:]]}
        self.assertEqual(found(beside), {"mount.stop", "mount.unheld"})

    def test_a_stop_in_a_recess_bears_on_the_recesss_face(self) -> None:
        relief = {"kind": "relief", "id": "r", "name": "axle", "form": "box", "x_mm": 700.0, "y_mm": -1.0, "z_mm": -1.0}
        relief |= {"length_mm": 201.0, "width_mm": 402.0, "height_mm": 151.0}
        shell = box().model_dump() | SHELL | {"features": [relief]}
        for x, gap in ((705.0, 5.0), (905.0, 205.0)):
            stops = [stop("front", (x, 0.0, 100.0))]
            made = TankAnalysis(Asked(Design.model_validate({"shell": shell, "mount": {"stops": stops}}), Workshop()))
            self.assertAlmostEqual(made[STOP_PLACES][0].gap_mm or 0.0, gap, delta=1e-6)

    def test_a_weld_that_tears_off(self) -> None:
        feet = [
            foot(n, x, y, weld_mm=15.0) for n, (x, y) in enumerate([(-20, -180), (-20, 180), (920, -180), (920, 180)])
        ]
        evaluation = judged(document({"feet": feet, "use": "competition"}))
        said = {str(one.title.values["link"]) for one in evaluation.findings if one.code == "mount.weak"}
        self.assertIn("Weld to the tank of foot 0", said)

    def test_bolts_that_cannot_be_trusted(self) -> None:
        for code, place in (
            ("mount.spanner", {"structure": {"from_both_sides": False}}),
            ("mount.locking", {"bolts": {"locking": "none"}}),
            ("mount.worn", {"bolts": {"state": "reused, worn"}}),
        ):
            with self.subTest(code):
                mount = HELD | {"straps": [strap(1, 200.0, low=anchor(-262.0, **place)), strap(2, 700.0)]}
                self.assertEqual(found(mount), {code})
                self.assert_settled_by_its_remedy(mount, code)

    def test_thin_body_sheet(self) -> None:
        sheet = {"found": "body sheet", "thickness_mm": 1.2}
        mount = HELD | {"straps": [strap(1, 200.0, high=anchor(262.0, structure=sheet)), strap(2, 700.0)]}
        self.assertEqual(found(mount), {"mount.thin_sheet"})
        plate = {"plate": {"long_mm": 60.0, "wide_mm": 60.0, "thickness_mm": 6.0}}
        mount = HELD | {"straps": [strap(1, 200.0, high=anchor(262.0, structure=sheet | plate)), strap(2, 700.0)]}
        self.assertEqual(found(mount), set())

    def test_no_bolt_is_long_enough(self) -> None:
        thick = {"size": "M4", "count": 12}
        mount = HELD | {
            "stops": [*STOPS, stop("floor", (450.0, 0.0, 0.0), bolts=thick, structure={"thickness_mm": 50.0})]
        }
        self.assertNotIn("mount.bolt_length", found(mount))
        feet = [
            foot(
                1,
                450.0,
                0.0,
                foot_mm=50.0,
                structure={"thickness_mm": 50.0, "plate": {"long_mm": 60.0, "wide_mm": 60.0, "thickness_mm": 50.0}},
                bolts={"size": "M16"},
            ),
            foot(
                2,
                450.0,
                100.0,
                foot_mm=50.0,
                structure={"thickness_mm": 50.0, "plate": {"long_mm": 60.0, "wide_mm": 60.0, "thickness_mm": 50.0}},
                bolts={"size": "1/2 UNC"},
            ),
        ]
        self.assertIn("mount.bolt_length", found(HELD | {"feet": feet}))

    def test_a_hollow_under_a_strap(self) -> None:
        well = {"kind": "well", "id": "w", "name": "well", "face": "roof", "a_mm": 100.0, "b_mm": 150.0}
        shell = (
            box().model_dump() | SHELL | {"features": [well | {"long_mm": 200.0, "wide_mm": 100.0, "deep_mm": 60.0}]}
        )
        design = Design.model_validate({"shell": shell, "mount": HELD})
        self.assertEqual(codes(judged(design)), {"mount.hollow"})
        row = next(row for row in TankAnalysis(Asked(design, Workshop()))[PROTECTION].pads if row.id == "s1")
        self.assertIn("block", row.note.text)

    def test_an_existing_strap(self) -> None:
        for length, severity in ((1200.0, "stop"), (1400.0, "caution")):
            mount = HELD | {"straps": [strap(1, 200.0, existing_mm=length), strap(2, 700.0)]}
            path = next(one for one in analysed(mount)[STRAPS] if one.id == "s1")
            # A fifth of 25 mm stays in hand, or all of it.
            limit = path.cut_mm - 20.0 if severity == "stop" else path.cut_mm
            said = next(one.title.values for one in judged(document(mount)).findings if one.code == "mount.existing")
            self.assertAlmostEqual(float(str(said["limit_mm"])), limit, delta=0.06)
            self.assertAlmostEqual(float(str(said["off_mm"])), abs(limit - length), delta=0.06)
            finding = next(one for one in judged(document(mount)).findings if one.code == "mount.existing")
            self.assertEqual(finding.severity, severity)
            self.assert_settled_by_its_remedy(mount, "mount.existing")


class Cradles(TestCase):
    """Tubes under the tank, and a cage's over it."""

    settled = Findings.assert_settled_by_its_remedy
    rails: list[dict[str, Any]] = [
        {"id": f"r{n}", "name": f"bearer {n}", "at_mm": at, "low_mm": -260.0, "high_mm": 260.0, "outer_mm": 40.0}
        for n, at in ((1, 200.0), (2, 700.0))
    ]
    bars: list[dict[str, Any]] = [
        one | {"id": f"b{n}", "name": f"bar {n}", "stands": "over"} for n, one in enumerate(rails)
    ]

    def test_bearers_share_its_weight_by_the_lever(self) -> None:
        checked = loads(HELD | {"bearers": self.rails})
        down = next(case for case in checked.cases if case.way == "down")
        assert checked.mass is not None
        first = next(held.force_n for held in down.by if held.holder == "r1")
        self.assertAlmostEqual(first, down.load_n * (700.0 - checked.mass.at.x) / 500.0, delta=1e-6 * down.load_n)

    def test_a_tube_bends_by_the_book(self) -> None:
        made = analysed(HELD | {"bearers": self.rails})
        down = next(case for case in made[MOUNT_LOADS].cases if case.way == "down")
        check = next(check for check in made[MOUNT_LOADS].mounts if check.id == "r1")
        load = next(held.force_n for held in down.by if held.holder == "r1")
        # 40 × 2 square tube on 520 mm, the tank on 400 mm of it but for its rounds, half a millimetre up.
        modulus = (40**4 - 36**4) / 240
        outside = 17.0 + made.solids.shell.thickness_mm
        contact = 400 - 2 * (outside - (outside**2 - (outside - 0.5) ** 2) ** 0.5)
        moment = load * (2 * 520 - contact) / 8
        self.assertAlmostEqual(check.links[0].reserve, 210 * modulus / moment, delta=2e-4)

    def test_it_lies_on_what_is_lowest_over_the_bar(self) -> None:
        sump = {"kind": "sump", "id": "s", "name": "sump", "a_mm": 600.0, "b_mm": 150.0, "long_mm": 200.0}
        sump |= {"wide_mm": 120.0, "deep_mm": 60.0}
        step = {"kind": "relief", "id": "r", "name": "tunnel", "form": "box", "x_mm": 150.0, "y_mm": -1.0, "z_mm": -1.0}
        step |= {"length_mm": 100.0, "width_mm": 402.0, "height_mm": 81.0}
        shell = box().model_dump() | SHELL | {"features": [sump, step]}
        made = TankAnalysis(Asked(Design.model_validate({"shell": shell, "mount": {"bearers": [
            *self.rails, self.rails[0] | {"id": "r3", "name": "third", "at_mm": 450.0}]}}), Workshop()))  # fmt: skip
        at = {place.id: (place.z_mm, place.start_mm, place.end_mm) for place in made[BEARER_PLACES]}
        for found, wanted in zip(at["r2"], (-60.0, -50.0, 70.0), strict=True):
            self.assertAlmostEqual(found, wanted, delta=0.01)
        self.assertAlmostEqual(at["r1"][0], 80.0, delta=0.01)
        self.assertAlmostEqual(at["r3"][0], 0.0, delta=0.01)

    def test_a_cage_holds_it_down_with_its_bolts(self) -> None:
        checked = loads({"bearers": [*self.rails, *self.bars], "stops": STOPS})
        up = next(case for case in checked.cases if case.way == "up")
        self.assertEqual({held.holder for held in up.by}, {"b0", "b1"})
        bar = next(check for check in checked.mounts if check.id == "b0")
        self.assertEqual({link.name for link in bar.links}, {"bending", "bolt", "pull-through"})

    def test_a_slender_tube_is_made_stouter(self) -> None:
        slender = [one | {"outer_mm": 16.0, "wall_mm": 1.0} for one in self.rails]
        mount = HELD | {"bearers": slender, "use": "competition"}
        self.assertIn("mount.weak", found(mount))
        self.settled(mount, "mount.weak")

    def test_a_bearer_beside_the_tank_carries_nothing(self) -> None:
        beside = [self.rails[0], self.rails[1] | {"at_mm": 1200.0}]
        checked = loads(HELD | {"bearers": beside})
        self.assertEqual(next(check for check in checked.mounts if check.id == "r2").links, [])
        self.assertIn("mount.bearer", found(HELD | {"bearers": beside}))
        self.assertNotIn("mount.bearer", found(HELD | {"bearers": self.rails}))

    def test_what_cannot_be_a_tube_is_refused(self) -> None:
        for wrong, said in (({"wall_mm": 30.0}, "more than half"), ({"high_mm": -300.0}, "not beyond its start")):
            with self.assertRaisesRegex(ValueError, said):
                Mount.model_validate({"bearers": [self.rails[0] | wrong]})

    @settings(max_examples=30, deadline=None)
    @given(st.sampled_from(["round tube", "square tube", "flat bar"]), st.floats(10, 80), st.floats(0.02, 0.5))
    def test_a_section_resists_as_its_moment_of_inertia_says(self, shape: Any, outer: float, share: float) -> None:
        bar = Bearer.model_validate(self.rails[0] | {"shape": shape, "outer_mm": outer, "wall_mm": share * outer})
        # Strip by strip: Z = Σ b y² dy / (outer / 2).
        inner = max(0.0, outer - 2 * bar.wall_mm)
        ys = (np.arange(20_000) + 0.5) / 20_000 * outer - outer / 2

        def chord(size: float) -> Any:
            if shape == "round tube":
                return 2 * np.sqrt(np.maximum(0.0, size**2 / 4 - ys**2))
            return np.where(np.abs(ys) <= size / 2, size, 0.0)

        wide = np.full_like(ys, bar.wall_mm) if shape == "flat bar" else chord(outer) - chord(inner)
        inertia = float((wide * ys**2).sum()) * outer / 20_000
        self.assertAlmostEqual(section_modulus_mm3(bar) / (inertia / (outer / 2)), 1.0, delta=2e-3)


class WithoutHarm(TestCase):
    """Who stands on it, what is bracketed to it, what is drilled later, what is cut away for it."""

    settled = Findings.assert_settled_by_its_remedy

    def test_who_stands_on_it(self) -> None:
        mount = HELD | {"stood_on_kg": 90.0}
        check = judged(document(mount)).mount.leaned_on[0]  # type: ignore[attr-defined]
        self.assertAlmostEqual(check.load_n, 2 * 90 * G0)
        self.assertEqual(found(mount), {"mount.leaned_on"})
        finding = next(one for one in judged(document(mount), remedies=True).findings if one.code == "mount.leaned_on")
        self.assertGreaterEqual(len(finding.remedies), 2)
        self.settled(mount, "mount.leaned_on")

    def test_baffles_help_the_lid(self) -> None:
        def sags(features: list[dict[str, Any]]) -> float:
            shell = box().model_dump() | SHELL | {"features": features}
            made = Design.model_validate({"shell": shell, "mount": HELD | {"stood_on_kg": 90.0}})
            return float(judged(made).mount.leaned_on[0].stress_mpa)  # type: ignore[attr-defined]

        plates = [
            {"kind": "baffle", "id": f"b{n}", "name": f"baffle {n}", "at_mm": 225.0 * n, "corner_mm": 30.0}
            for n in (1, 2, 3)
        ]
        self.assertLess(sags(plates), 0.95 * sags([]))

    def test_a_bracket_with_a_short_foot(self) -> None:
        bracket = {"id": "b", "name": "filter bracket", "side": "front", "kg": 6.0, "off_mm": 150.0, "foot_mm": 40.0}
        mount = HELD | {"brackets": [bracket], "use": "competition"}
        self.assertEqual(found(mount), {"mount.leaned_on"})
        self.settled(mount, "mount.leaned_on")
        self.assertEqual(found(mount | {"brackets": [bracket | {"kg": 0.5, "off_mm": 30.0, "foot_mm": 120.0}]}), set())

    def test_a_hole_beside_a_seam_and_the_nearest_safe_place(self) -> None:
        hole = {"id": "h", "name": "guide hole", "x_mm": 890.0, "y_mm": -100.0, "z_mm": 350.0, "across_mm": 10.0}
        mount = HELD | {"new_work": [hole]}
        near = judged(document(mount), remedies=True).mount.near_seams[0]  # type: ignore[attr-defined]
        self.assertFalse(near.clears)
        # The nearest seam is that of the front end, 900 mm on; its own edge and the rule's 25 mm are kept.
        self.assertAlmostEqual(near.safe.x, 870.0, delta=5.0)
        self.assertAlmostEqual(near.safe.y, -100.0, delta=5.0)
        self.settled(mount, "mount.near_seam")
        self.assertEqual(found(HELD | {"new_work": [hole | {"x_mm": 450.0}]}), set())

    def test_cut_structure_needs_its_reinforcement(self) -> None:
        cut = {"id": "c", "name": "frame web"}
        self.assertEqual(found(HELD | {"cuts": [cut]}), {"mount.cut"})
        self.assertEqual(found(HELD | {"cuts": [cut | {"reinforcement": "doubler plate, plug-welded"}]}), set())

    def test_a_strap_over_a_port_is_moved_beside_it(self) -> None:
        port = {"id": "p", "name": "filler", "role": "filler", "x_mm": 205.0, "y_mm": 200.0, "face": "roof"}
        port |= {"across_mm": 60.0, "stands_mm": 40.0}
        made = document(HELD, ports=[port])
        self.assertEqual(codes(judged(made)), {"mount.over_port"})
        finding = next(one for one in judged(made, remedies=True).findings if one.code == "mount.over_port")
        after = apply(made, json.loads(json.dumps(finding.remedies[0].patch)))
        self.assertEqual(codes(judged(after)), set())

    def test_a_cage_bar_over_a_port_is_moved_beside_it(self) -> None:
        port = {"id": "p", "name": "filler", "role": "filler", "x_mm": 405.0, "y_mm": 200.0, "face": "roof"}
        port |= {"across_mm": 60.0, "stands_mm": 40.0}
        bar = {"id": "b", "name": "bar", "stands": "over", "at_mm": 410.0, "low_mm": -262.0, "high_mm": 262.0}
        made = document(HELD | {"bearers": [bar]}, ports=[port])
        finding = next(one for one in judged(made, remedies=True).findings if one.code == "mount.over_port")
        for remedy in finding.remedies:
            after = judged(apply(made, json.loads(json.dumps(remedy.patch))))
            self.assertNotIn("mount.over_port", codes(after))
        self.assertTrue(finding.remedies)

    def test_stops_bearers_and_bolts_keep_off_what_moves_too(self) -> None:
        held: list[tuple[str, dict[str, Any]]] = [
            ("front stop", {}),
            ("bearer 1", {"bearers": [Cradles.rails[0] | {"name": "bearer 1"}]}),
            ("foot 1's bolt", {"feet": [foot(1, 450.0, 300.0)]}),
        ]
        room = {"length_mm": 1400.0, "width_mm": 800.0, "height_mm": 700.0}
        for (name, more), (x, y, z) in zip(
            held, [(965.0, -50.0, 80.0), (150.0, -50.0, -110.0), (400.0, 320.0, -30.0)], strict=True
        ):
            shaft = {"kind": "box", "id": "k", "name": "shaft", "x_mm": x, "y_mm": y, "z_mm": z, "length_mm": 100.0}
            shaft |= {"width_mm": 100.0, "height_mm": 60.0, "clearance": {"kind": "moving at full travel"}}
            evaluation = judged(document(HELD | more, bay=room | {"keep_outs": [shaft]}))
            said = {str(one.title.values["name"]) for one in evaluation.findings if one.code == "mount.gap"}
            self.assertEqual(said, {name})

    def test_a_strap_beside_what_moves(self) -> None:
        moving = {"kind": "box", "id": "k", "name": "shaft", "x_mm": 180.0, "y_mm": 255.0, "z_mm": 100.0}
        moving |= {
            "length_mm": 40.0,
            "width_mm": 40.0,
            "height_mm": 40.0,
            "clearance": {"kind": "moving at full travel"},
        }
        room = {"length_mm": 1000.0, "width_mm": 500.0, "height_mm": 500.0}
        near = codes(judged(document(HELD, bay=room | {"keep_outs": [moving]})))
        self.assertIn("mount.gap", near)
        far = moving | {"y_mm": 330.0}
        self.assertNotIn("mount.gap", codes(judged(document(HELD, bay=room | {"keep_outs": [far]}))))


class PatchLoads(TestCase):
    """A plate under a small patch against the handbook's closed forms."""

    def test_in_the_middle_of_a_simply_supported_plate(self) -> None:
        # 3W/(2πt²)((1+ν) ln(2b/πr) + β) with β for a/b; the patch as a circle of its area.
        for long, beta in ((400.0, 0.435), (800.0, 0.958)):
            made = patch_stress((long, 400.0), 3.0, ["simply supported"] * 4, 1000.0, 60.0, 200.0)
            radius = 60.0 / pi**0.5
            wanted = 3 * 1000 / (2 * pi * 9) * (1.3 * log(2 * 400 / (pi * radius)) + beta)
            self.assertAlmostEqual(made.stress_mpa / wanted, 1.0, delta=0.03)

    def test_a_clamped_edge_is_worst_with_the_patch_beside_it(self) -> None:
        made = patch_stress((400.0, 400.0), 3.0, ["clamped"] * 4, 1000.0, 40.0, 200.0)
        middle = 3 * 1000 / (2 * pi * 9) * (1.3 * log(2 * 400 / (pi * 40.0 / pi**0.5)) - 0.238)
        self.assertGreaterEqual(made.stress_mpa, 0.98 * middle)

    @settings(max_examples=20, deadline=None)
    @given(st.floats(200, 900), st.floats(200, 900), st.floats(1.5, 6), st.floats(200, 3000))
    def test_it_goes_with_the_load_and_the_thickness_squared(self, a: float, b: float, t: float, load: float) -> None:
        edges: list[Any] = ["clamped", "simply supported", "clamped", "simply supported"]
        one = patch_stress((a, b), t, edges, load, 100.0, 70.0)
        other = patch_stress((b, a), t / 2, edges[2:] + edges[:2], 2 * load, 100.0, 70.0)
        self.assertAlmostEqual(other.stress_mpa / one.stress_mpa, 8.0, delta=1e-6)
        self.assertAlmostEqual(other.deflection_mm / one.deflection_mm, 16.0, delta=1e-6)


class Lists(TestCase):
    def test_bolts_by_place(self) -> None:
        rows = analysed(HELD)[BOLTS_LISTED]
        self.assertEqual(len(rows), 4 + 4)
        self.assertEqual(rows[0].name, "strap 1, right end")
        text = bolts_csv(rows).decode()
        self.assertEqual(len(text.strip().splitlines()), 9)
        self.assertIn("length_in", bolts_csv(rows, "in_usgal").decode().splitlines()[0])

    def test_coating_takes_room_in_every_hole(self) -> None:
        kept = analysed(HELD | {"coating_mm": 0.15})[PROTECTION]
        self.assertTrue(all(abs(one.drill_mm - one.hole_mm - 0.3) < 1e-9 for one in kept.holes))
        self.assertEqual(len(kept.holes), len(analysed(HELD)[BOLTS_LISTED]))

    def test_a_strap_has_a_pad_as_long_as_it_touches(self) -> None:
        made = analysed(HELD)
        row = next(row for row in made[PROTECTION].pads if row.id == "s1")
        path = judged(document(HELD)).mount.straps[0]  # type: ignore[attr-defined]
        touching = path.path_mm - path.runs[0].long_mm - path.runs[-1].long_mm
        self.assertAlmostEqual(row.long_mm or 0.0, touching, places=6)

    def test_unlike_metals_are_kept_apart(self) -> None:
        feet = [foot(1, 0.0, 0.0), foot(2, 100.0, 0.0, structure={"metal": "5052-H32"})]
        shell = box().model_dump() | SHELL | {"metal": "5052-H32"}
        made = TankAnalysis(Asked(Design.model_validate({"shell": shell, "mount": {"feet": feet}}), Workshop()))
        rows = [row.id for row in made[PROTECTION].pads if row.what.startswith("isolating")]
        self.assertEqual(rows, ["f1"])

    def test_two_mounts_with_one_id_are_refused(self) -> None:
        with self.assertRaisesRegex(ValueError, "two mounts have the id"):
            Mount(straps=[Strap.model_validate(strap(1, 0.0)), Strap.model_validate(strap(1, 9.0))])
