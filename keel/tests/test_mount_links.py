"""Each link of a mount by hand: which end, which way, how much it bears; what carries a load by another reckoning."""

from math import pi, radians, sin, sqrt
from typing import Any
from unittest import TestCase

import numpy as np
from hypothesis import given, settings
from hypothesis import strategies as st
from scipy.optimize import linprog, lsq_linear

from keel.design.mount import Bearer, Bolted, Bolting, Foot, Mount, SpreadingPlate, Strap, Structure
from keel.reference.fasteners import BOLT_YIELD_MPA, BOLTS
from keel.reference.metals import METALS
from keel.studies.mount.bearers import BEARER_PLACES, bends, section_modulus_mm3
from keel.studies.mount.fastening import bolt_bears_n, links_of, plate_bears_n, pried_n
from keel.studies.mount.full_mass import G0
from keel.studies.mount.load_case import LinkCheck, LoadCase, MountCheck
from keel.studies.mount.loads import MOUNT_LOADS, g_that_way, loads_of
from keel.studies.mount.resting import resting_places
from keel.studies.mount.sharing import LEFT_SHARE, Spring, shared
from keel.studies.mount.stack_up import bolt_length_mm, stack_mm, stud
from keel.studies.mount.straps import STRAPS
from keel.tests.test_mount import HELD, STOPS, analysed, foot, loads, stop, strap

STEEL = METALS["mild steel"].yield_mpa
OVER = {"id": "b", "name": "bar", "stands": "over", "at_mm": 450.0, "bolts": {"size": "M6", "count": 2}}


def link(check: MountCheck, name: str, at: str = "") -> LinkCheck:
    """One link of a mount."""
    return next(one for one in check.links if (one.name, one.at) == (name, at))


def check_of(mount: dict[str, Any], key: str, **more: Any) -> tuple[MountCheck, dict[str, LoadCase]]:
    """A mount's links, and the cases by direction."""
    checked = loads(mount, **more)
    return next(one for one in checked.mounts if one.id == key), {case.way: case for case in checked.cases}


class Ends(TestCase):
    """Whose bolt carries how much."""

    def test_a_straps_ends_are_named_and_bear_by_their_own_bolts(self) -> None:
        """The smaller bolt at the left is the weaker; lengthwise the ends are rear and front."""
        one = strap(1, 450.0)
        one["high"] = one["high"] | {"bolts": {"size": "M5"}}
        check, _ = check_of(HELD | {"straps": [one, strap(2, 460.0)]}, "s1")
        right, left = link(check, "bolt", "right"), link(check, "bolt", "left")
        self.assertAlmostEqual(right.load_n, left.load_n)
        ratio = BOLTS["M8"].stress_area_mm2 / BOLTS["M5"].stress_area_mm2
        self.assertAlmostEqual(right.bears_n / left.bears_n, ratio)
        ends = {"low": {"out_mm": -40.0, "z_mm": -10.0}, "high": {"out_mm": 940.0, "z_mm": -10.0}}
        along = {"id": "s1", "name": "strap", "across": "x", "at_mm": 0.0} | ends
        check, _ = check_of({"straps": [along], "stops": STOPS}, "s1")
        self.assertEqual({one.at for one in check.links} - {""}, {"rear", "front"})

    def test_a_straps_pull(self) -> None:
        """Each leg pulls F / (sin a + sin b): half of it upright, more where it leans."""
        mount = HELD | {"straps": [strap(1, 450.0), strap(2, 460.0)]}
        check, cases = check_of(mount, "s1")
        path = analysed(mount)[STRAPS][0]
        up = next(held.force_n for held in cases["up"].by if held.holder == "s1")
        most = max(held.force_n for case in cases.values() for held in case.by if held.holder == "s1")
        sines = sum(sin(radians(lean)) for lean in path.leans_deg)
        self.assertAlmostEqual(link(check, "strap").load_n, most / sines, delta=1e-6 * up)
        self.assertAlmostEqual(link(check, "strap").bears_n, 30 * 1.5 * METALS["stainless 304L"].yield_mpa)

    def test_a_cages_bar_pulls_most_at_the_end_the_tank_is_nearer_to(self) -> None:
        """The tank from -200 to 200 under a bar from -250 to 550: 0.6875 of the load is at its right end."""
        check, cases = check_of(HELD | {"straps": [], "bearers": [OVER | {"low_mm": -250.0, "high_mm": 550.0}]}, "b")
        most = max(held.force_n for case in cases.values() for held in case.by if held.holder == "b")
        self.assertAlmostEqual(link(check, "bolt", "right").load_n, most * 550 / 800, delta=1e-6 * most)
        mirrored = HELD | {"straps": [], "bearers": [OVER | {"low_mm": -550.0, "high_mm": 250.0}]}
        check, _ = check_of(mirrored, "b")
        self.assertAlmostEqual(link(check, "bolt", "left").load_n, most * 550 / 800, delta=1e-6 * most)
        even = HELD | {"straps": [], "bearers": [OVER | {"low_mm": -250.0, "high_mm": 250.0}]}
        check, _ = check_of(even, "b")
        self.assertAlmostEqual(
            next(one for one in check.links if one.name == "bolt").load_n, most / 2, delta=1e-6 * most
        )

    def test_a_cradles_bar_is_not_pulled(self) -> None:
        """What lies on it presses it down on its supports: it bends, no bolt is pulled."""
        under = OVER | {"stands": "under", "low_mm": -250.0, "high_mm": 250.0}
        check, _ = check_of(HELD | {"bearers": [under]}, "b")
        self.assertEqual({one.name for one in check.links}, {"bending"})

    def test_a_foot_is_pulled_only_off_its_structure(self) -> None:
        """Up lifts it off what lies below; the same foot under a rail is pulled by what is down."""
        corners = [(-20, -180), (-20, 180), (920, -180), (920, 180)]
        for at, way in (("low side", "up"), ("high side", "down")):
            feet = [foot(n, x, y, structure_at=at) for n, (x, y) in enumerate(corners)]
            card = {"forward_g": 0.0, "rearward_g": 0.0, "sideways_g": 0.0, "up_g": 6.0, "down_g": 6.0}
            checked = loads({"feet": feet, "loads": card, "use": "rule card"})
            links = [one for check in checked.mounts for one in check.links]
            pulled = {one.way for one in links if one.name == "pull-through"}
            self.assertEqual(pulled, {way})

    def test_a_foots_weld(self) -> None:
        """Length × 0.7 of the thinner of foot and wall × shear yield beside a weld."""
        for thick in (1.0, 8.0):
            feet = [
                foot(n, x, y, weld_mm=50.0, foot_mm=thick)
                for n, (x, y) in enumerate([(-20, -180), (-20, 180), (920, -180), (920, 180)])
            ]
            tank = analysed({"feet": feet})
            check = next(one for one in tank[MOUNT_LOADS].mounts if one.id == "f0")
            metal = METALS[tank.shell.metal]
            throat = min(thick, tank.shell.thickness_mm) / sqrt(2)
            wanted = 50.0 * throat * metal.welded_yield_mpa / sqrt(3)
            self.assertAlmostEqual(link(check, "weld to the tank").bears_n / wanted, 1.0, delta=0.02)
            most = max(held.force_n for case in tank[MOUNT_LOADS].cases for held in case.by if held.holder == "f0")
            self.assertAlmostEqual(link(check, "weld to the tank").load_n, most)

    def test_each_link_is_told_where_it_has_least(self) -> None:
        """One row a link and an end, the weakest first, none without a load."""
        for check in loads(HELD | {"bearers": [OVER | {"low_mm": -250.0, "high_mm": 250.0}]}).mounts:
            rows = [(one.name, one.at) for one in check.links]
            self.assertEqual(len(rows), len(set(rows)))
            self.assertEqual([one.reserve for one in check.links], sorted(one.reserve for one in check.links))
            for one in check.links:
                self.assertGreater(one.load_n, 0.0)
                self.assertAlmostEqual(one.reserve, one.bears_n / one.load_n)


class Bolts(TestCase):
    """What a bolt and the sheet round it bear, and how long it is."""

    def test_pull_and_shear_together(self) -> None:
        """σ² + 3 τ² is the yield's square at the load it is said to bear, whatever the mix."""
        bolts = Bolting(size="M8", count=3)
        area = 3 * BOLTS["M8"].stress_area_mm2
        for pull, shear in ((5000.0, 0.0), (0.0, 5000.0), (3000.0, 4000.0)):
            found = bolt_bears_n(bolts, pull, shear)
            scale = found.bears_n / found.load_n
            stress = sqrt((scale * pull / area) ** 2 + 3 * (scale * shear / area) ** 2)
            self.assertAlmostEqual(stress, BOLT_YIELD_MPA["8.8"], delta=1e-6)

    def test_a_block_pushed_over(self) -> None:
        """Twice the arm twice the pull; twice the base half of it."""
        self.assertAlmostEqual(pried_n(1000.0, 25.0, 50.0), 500.0)
        self.assertAlmostEqual(pried_n(1000.0, 50.0, 50.0), 1000.0)
        self.assertAlmostEqual(pried_n(1000.0, 25.0, 100.0), 250.0)

    def test_a_spreading_plate(self) -> None:
        """80 by 60 by 3 under a 24 mm washer: the strip that bends most decides; a wider washer helps."""
        plate = SpreadingPlate(long_mm=80.0, wide_mm=60.0, thickness_mm=3.0)
        structure = Structure(plate=plate)
        long_way = STEEL * 60 * 9 / 6 * 8 / (2 * 80 - 24)
        wide_way = STEEL * 80 * 9 / 6 * 8 / (2 * 60 - 24)
        self.assertAlmostEqual(plate_bears_n(structure, 24.0), min(long_way, wide_way), delta=1e-6)
        self.assertGreater(plate_bears_n(structure, 40.0), plate_bears_n(structure, 24.0))

    def test_sheet_by_hand(self) -> None:
        """Two M8 in 1.2 mm body sheet, 20 mm from its edge, pulled 2 kN and pushed 3 kN."""
        place = Bolted(bolts=Bolting(size="M8", count=2), structure=Structure(thickness_mm=1.2, edge_mm=20.0))
        found = {one.name: one for one in links_of(place, 2000.0, 3000.0)}
        hole, washer = BOLTS["M8"].hole_mm, BOLTS["M8"].large_washer_mm
        self.assertEqual({name: one.load_n for name, one in found.items() if name != "bolt"},
                         {"tear-out": 1500.0, "bearing": 1500.0, "pull-through": 1000.0})  # fmt: skip
        self.assertAlmostEqual(found["tear-out"].bears_n, 2 * (20 - hole / 2) * 1.2 * STEEL / sqrt(3))
        self.assertAlmostEqual(found["bearing"].bears_n, 1.5 * hole * 1.2 * STEEL)
        self.assertAlmostEqual(found["pull-through"].bears_n, pi * washer * 1.2 * STEEL / sqrt(3))

    def test_stack_and_length(self) -> None:
        """Held 5, sheet 3, plate 4, a washer at both ends; nut and one turn of thread beyond it."""
        plate = SpreadingPlate(long_mm=80.0, wide_mm=60.0, thickness_mm=4.0)
        bolt = BOLTS["M8"]
        place = Bolted(bolts=Bolting(size="M8"), structure=Structure(thickness_mm=3.0, plate=plate))
        stack = 5.0 + 3.0 + 4.0 + 2 * bolt.washer_thick_mm
        self.assertAlmostEqual(stack_mm(place, 5.0), stack)
        needed = stack + bolt.locking_nut_mm + bolt.pitch_mm
        found = bolt_length_mm(place, 5.0)
        assert found is not None
        self.assertGreaterEqual(found, needed - 1e-9)
        self.assertLess(found - needed, 5.0)
        bare = Bolted(bolts=Bolting(size="M8"), structure=Structure(thickness_mm=3.0))
        self.assertAlmostEqual(stack_mm(place, 5.0) - stack_mm(bare, 5.0), 4.0)
        self.assertIsNone(bolt_length_mm(place, 500.0))

    @given(st.floats(0.0, 60.0), st.sampled_from(["M5", "M6", "M8", "M10", "M12"]))
    def test_never_too_short(self, held: float, size: Any) -> None:
        """A bolt that is listed fills its nut by a turn, and the next shorter one doesn't."""
        place = Bolted(bolts=Bolting(size=size))
        found = bolt_length_mm(place, held)
        assert found is not None
        needed = stack_mm(place, held) + BOLTS[size].locking_nut_mm + BOLTS[size].pitch_mm
        self.assertGreaterEqual(found, needed - 1e-6)
        shorter = bolt_length_mm(place, held - 5.0)
        self.assertTrue(shorter is None or shorter <= found)

    def test_a_stud_at_its_worst(self) -> None:
        """16 long over 10: 6 out, 1.1 either way; it needs its point and a turn of thread."""
        made = stud(16.0, [(2.0, 0.15), (3.0, 0.3), (1.0, 0.1), (4.0, 0.15)], 0.4, 0.8, 1.25)
        for found, wanted in ((made.proud_mm, 6.0), (made.least_mm, 4.9), (made.most_mm, 7.1), (made.wanted_mm, 2.05)):
            self.assertAlmostEqual(found, wanted)
        self.assertFalse(made.is_short)
        self.assertTrue(stud(11.0, [(2.0, 0.15), (3.0, 0.3), (1.0, 0.1), (4.0, 0.15)], 0.4, 0.8, 1.25).is_short)

    def test_sections(self) -> None:
        """30 by 2 mm tubes and a 30 by 5 bar, from their second moments of area."""
        bar = {"id": "b", "name": "b", "at_mm": 0.0, "low_mm": 0.0, "high_mm": 1.0, "outer_mm": 30.0}
        inertia = {
            "square tube": (30**4 - 26**4) / 12,
            "round tube": pi * (30**4 - 26**4) / 64,
            "flat bar": 5 * 30**3 / 12,
        }
        for shape, second in inertia.items():
            wall = 5.0 if shape == "flat bar" else 2.0
            made = Bearer.model_validate(bar | {"shape": shape, "wall_mm": wall})
            self.assertAlmostEqual(section_modulus_mm3(made), second / 15.0)


class Loads(TestCase):
    """Which g, and who stands against it."""

    def test_a_rule_cards_loads_count_only_for_a_rule_card(self) -> None:
        """Typed and then put aside they count no more."""
        rules = analysed(HELD).workshop.rules
        card = {"forward_g": 31.0, "rearward_g": 21.0, "sideways_g": 11.0, "up_g": 7.0, "down_g": 9.0}
        ways = ("forward", "rearward", "to the left", "to the right", "up", "down")
        typed = loads_of(Mount.model_validate({"use": "rule card", "loads": card}), rules)
        self.assertEqual([g_that_way(typed, way) for way in ways], [31.0, 21.0, 11.0, 11.0, 7.0, 9.0])
        aside = loads_of(Mount.model_validate({"use": "road", "loads": card}), rules)
        self.assertEqual(aside.forward_g, rules.road_lengthwise_g)
        race = loads_of(Mount.model_validate({"use": "competition", "loads": card}), rules)
        self.assertEqual((race.sideways_g, race.up_g), (rules.competition_sideways_g, rules.competition_vertical_g))

    def test_down_is_borne_by_what_it_sits_on_if_nothing_carries_it(self) -> None:
        """Straps over it leave it on its floor; a cradle carries it; straps under it do."""
        for mount, who in ((HELD, set()), (HELD | {"bearers": [OVER | {"stands": "under", "low_mm": -250.0,
                                                                      "high_mm": 250.0}]}, {"b"})):  # fmt: skip
            down = next(case for case in loads(mount).cases if case.way == "down")
            self.assertTrue(down.is_held)
            self.assertEqual({held.holder for held in down.by}, who)
            self.assertAlmostEqual(sum(held.force_n for held in down.by), down.load_n if who else 0.0, delta=1.0)

    def test_it_tips_about_the_bars_it_lies_on(self) -> None:
        """Bars at 300 and 600 under it: pushed forward it turns about the front one, not about its front edge."""
        bars = [OVER | {"id": f"b{n}", "name": f"bar {n}", "stands": "under", "at_mm": at, "low_mm": -250.0,
                        "high_mm": 250.0} for n, at in enumerate((300.0, 600.0))]  # fmt: skip
        low = stop("front", (905.0, 0.0, 60.0))
        tank = analysed({"straps": [strap(1, 100.0)], "stops": [low, *STOPS[1:]], "bearers": bars})
        places = {one.id: one for one in tank[BEARER_PLACES]}
        rests = resting_places(tank.design.mount, places, tank.solids, True)
        found = np.array([rest.at for rest in rests])
        self.assertEqual({rest.holder for rest in rests}, {"b0", "b1"})
        self.assertEqual(sorted({round(float(x)) for x in found[:, 0]}), [300, 600])
        self.assertAlmostEqual(float(np.ptp(found[:, 1])), 400.0, delta=40.0)
        self.assertTrue(np.allclose(found[:, 2], 0.0))
        forward = next(case for case in tank[MOUNT_LOADS].cases if case.way == "forward")
        mass = tank[MOUNT_LOADS].mass
        assert mass is not None
        held = next(one for one in forward.by if one.holder == "s1")
        self.assertAlmostEqual(held.force_n, forward.load_n * (mass.at.z - 60) / 500, delta=1e-3 * forward.load_n)
        pressed = {one.holder: one.force_n for one in forward.by if one.holder.startswith("b")}
        self.assertEqual(set(pressed), {"b1"})
        self.assertAlmostEqual(pressed["b1"], held.force_n, delta=1e-3 * forward.load_n)
        check = next(one for one in tank[MOUNT_LOADS].mounts if one.id == "b1")
        place = places["b1"]
        arm, span = place.start_mm + 250.0, 500.0
        tipped = bends(tank.design.mount.bearers[1], place, 1.0, is_tipped=True).bears_n
        spread = bends(tank.design.mount.bearers[1], place, 1.0).bears_n
        wanted = max(arm * (span - arm) / span, (2 * span - (place.end_mm - place.start_mm)) / 8)
        self.assertAlmostEqual(spread / tipped, wanted / ((2 * span - (place.end_mm - place.start_mm)) / 8))
        self.assertLessEqual(link(check, "bending").reserve, tipped / held.force_n + 1e-9)

    def test_what_hangs_tips_about_its_roof(self) -> None:
        """Under straps it is pressed up: it rests at its roof's corners."""
        tank = analysed(HELD)
        found = np.array([rest.at for rest in resting_places(tank.design.mount, {}, tank.solids, False)])
        self.assertTrue(np.allclose(found[:, 2], 350.0))
        self.assertAlmostEqual(float(np.ptp(found[:, 0])), 900.0, delta=20.0)

    def test_mass_times_g(self) -> None:
        """Each case's load is the full mass by standard gravity by its g."""
        checked = loads(HELD)
        assert checked.mass is not None
        for case in checked.cases:
            self.assertAlmostEqual(case.load_n, checked.mass.kg * G0 * case.g)


class Shares(TestCase):
    """A load on springs that can only press is what a linear and a bounded program make of it."""

    @settings(max_examples=150)
    @given(st.integers(0, 100_000))
    def test_least_energy(self, seed: int) -> None:
        """Held wherever forces in balance exist at all; of those the ones with least energy."""
        rng = np.random.default_rng(seed)
        at, load = rng.uniform(-100, 100, 3), rng.normal(size=3) * 3000
        springs = []
        for n in range(int(rng.integers(4, 11))):
            way = rng.normal(size=3)
            place, one_way = rng.uniform(-400, 400, 3), bool(rng.random() < 0.6)
            springs.append(Spring(f"s{n}", place, way / np.linalg.norm(way), one_way))
        found = shared(load, at, springs)
        ways, places = np.array([one.along for one in springs]), np.array([one.at for one in springs]) - at
        wrench = np.hstack([ways, np.cross(places, ways) / np.abs(places).max()]).T
        wanted = -np.concatenate([load, np.zeros(3)])
        low = [0.0 if one.one_way else -np.inf for one in springs]
        self.assertTrue(np.all(found.forces >= np.array(low)))
        exists = linprog(np.ones(len(low)), A_eq=wrench, b_eq=wanted, bounds=[(one, None) for one in low]).status in (
            0,
            3,
        )
        left = float(np.abs(wrench @ found.forces - wanted).max() / np.linalg.norm(load))
        self.assertEqual(found.is_held, left <= LEFT_SHARE)
        if not exists:
            self.assertGreater(left, 1e-6)
            return
        self.assertTrue(found.is_held)
        if left < 1e-6 and np.abs(found.forces).max() < 50 * np.linalg.norm(load):
            heavy = 1e4
            rows = np.vstack([heavy * wrench, np.eye(len(low))])
            right = np.concatenate([heavy * wanted, np.zeros(len(low))])
            other = lsq_linear(rows, right, bounds=(low, np.inf), method="bvls", tol=1e-14).x
            self.assertLess(np.sum(found.forces**2), 1.01 * np.sum(other**2) + 1.0)


class Typed(TestCase):
    """What a document may leave out."""

    def test_a_foot_needs_no_more_than_its_place(self) -> None:
        """Everything else is usual."""
        one = Foot(id="f", name="f", x_mm=0.0, y_mm=0.0, z_mm=0.0)
        self.assertEqual((one.bolts, one.weld_mm, one.axis), (Bolting(), 0, "z"))
        self.assertEqual(Strap.model_validate(strap(1, 5.0)).low.structure, Structure())
