"""Trying a design with something changed: what is varied, what each case costs, which one is favoured."""

from dataclasses import replace
from unittest import TestCase

from hypothesis import given
from hypothesis import strategies as st
from pydantic import ValidationError

from keel.analysis.tank import Asked, TankAnalysis
from keel.design.brief import Brief, CardRule
from keel.design.document import Design
from keel.design.features import Baffle, Pot, Sump
from keel.design.gauge import Gauge, Sender, SwingArm
from keel.design.inside import Foam, Inside
from keel.design.ports import Port
from keel.design.shell import CylinderShell
from keel.design.slosh import Manoeuvre, Slosh
from keel.design.workshop import Prices, Workshop
from keel.findings.patch import apply, difference, merged
from keel.solid.build import build
from keel.solid.faults import GeometryError
from keel.studies.cost.figures import FIGURES
from keel.studies.cost.money import money
from keel.studies.inside.plate_placement import taken_by
from keel.studies.slosh.manoeuvres import log_of
from keel.tests.samples import box
from keel.trials.advice import advice
from keel.trials.insides import inside_cases, other_case
from keel.trials.search import Ask, Counts, Places, Span, search_cases
from keel.trials.trial import Case, Trial, favoured, tried

SHOP = Workshop()
KEYS = st.sampled_from("abc")
JSON = st.booleans() | st.integers() | st.text(max_size=3) | st.lists(st.integers(), max_size=3)
TURN = Manoeuvre(kind="corner to the left", g=0.8, seconds=4)


def tank(*features: object, x: float = 300.0, y: float = 200.0) -> Design:
    """A 600 × 400 × 300 box with a pickup, turned left at 0.8 g with a tenth in it."""
    pickup = Port(id="p", name="pickup", role="pickup", x_mm=x, y_mm=y)
    slosh = Slosh(manoeuvre=TURN, fill=0.1, draw_l_per_h=120.0, lag=False)
    return Design(shell=box(600, 400, 300, features=features), ports=(pickup,), slosh=slosh)


class Searching(TestCase):
    """Ask the tool."""

    def test_every_choice_with_every_other(self) -> None:
        """Counts, spans and places multiply; each patch makes the design that its choice says."""
        sump = Sump(id="s", name="sump", a_mm=220, b_mm=130, long_mm=160, wide_mm=140, deep_mm=40)
        old = Baffle(id="old", name="old", axis="x", at_mm=200)
        design = tank(sump, old)
        ask = Ask(
            down_to_l=8.0,
            plates_across=Counts(low=0, high=2),
            sump_deep_mm=Span(low=30, high=60, steps=4),
            corner_mm=Span(low=40, high=40, steps=5),
        )
        cases = search_cases(design, ask, SHOP)
        self.assertEqual(len(cases), 3 * 4)
        for case in cases:
            assert case.patch is not None
            made = apply(design, case.patch).shell
            assert made is not None
            plates = [f for f in made.features if isinstance(f, Baffle)]
            self.assertEqual(len(plates), case.choice["plates_across"])
            self.assertNotIn("old", [plate.id for plate in plates])
            self.assertEqual({plate.corner_mm for plate in plates} - {40.0}, set())
            (deep,) = [f.deep_mm for f in made.features if isinstance(f, Sump)]
            self.assertEqual(deep, case.choice["sump_deep_mm"])

    def test_a_plate_moved_and_a_pot_set_down(self) -> None:
        """The first drawn baffle at each place, with each pot; the pot goes where the pickup is tried."""
        old, other = (Baffle(id=name, name=name, axis="x", at_mm=at) for name, at in (("old", 200), ("other", 450)))
        places = Places(along=2, across=1)
        ask = Ask(
            down_to_l=8, plate_at_mm=Span(low=100, high=300), pot_mm=Span(low=0, high=120, steps=2), places=places
        )
        cases = search_cases(tank(old, other), ask, SHOP)
        self.assertEqual(len(cases), 3 * 2 * 2)
        for case in cases:
            assert case.patch is not None
            made = apply(tank(old, other), case.patch)
            assert made.shell is not None
            at = {f.id: f.at_mm for f in made.shell.features if isinstance(f, Baffle)}
            self.assertEqual(at, {"old": case.choice["plate_at_mm"], "other": 450})
            pots = [f for f in made.shell.features if isinstance(f, Pot)]
            self.assertEqual(len(pots), int(case.choice["pot_mm"] > 0))
            for pot in pots:
                self.assertAlmostEqual(pot.a_mm + pot.long_mm / 2, made.ports[0].x_mm, delta=0.5)
        with self.assertRaises(GeometryError) as caught:
            search_cases(tank(), Ask(down_to_l=8, plate_at_mm=Span(low=100, high=300)), SHOP)
        self.assertEqual(caught.exception.fault.field, "ask.plate_at_mm")

    def test_what_cannot_be_asked(self) -> None:
        """Nothing varied, too many runs, a sump that isn't there, a range that runs downward: each says why."""
        for ask, said in (
            (Ask(down_to_l=5), "nothing is varied"),
            (Ask(down_to_l=5, places=Places(along=24, across=24), surge_l=Span(low=0, high=2)), "1728 runs"),
            (Ask(down_to_l=5, sump_deep_mm=Span(low=20, high=60)), "no sump"),
        ):
            with self.assertRaisesRegex(GeometryError, said):
                search_cases(tank(), ask, SHOP)
        with self.assertRaisesRegex(ValidationError, "runs downward"):
            Span(low=3, high=2)

    def test_openings_of_every_baffle(self) -> None:
        """Doors open towards the pickup from either side, beside its place; notches come and go; all can be made."""
        plates = [Baffle(id=f"b{at}", name="b", axis="x", at_mm=at) for at in (150, 450)]
        design = tank(*plates, y=60.0)
        ask = Ask(down_to_l=5, door_mm=Span(low=0, high=80, steps=2), notch_mm=Span(low=0, high=40, steps=2))
        cases = search_cases(design, ask, SHOP)
        self.assertEqual(len(cases), 4)
        for case in cases:
            made = [f for f in apply(design, case.patch or {}).shell.features if isinstance(f, Baffle)]  # type: ignore[union-attr]
            doors = [(door.opens, door.at_mm, door.wide_mm) for plate in made for door in plate.doors]
            self.assertEqual(doors, [("ahead", 80, 80), ("back", 80, 80)] if case.choice["door_mm"] else [])
            self.assertEqual({len(plate.notches) for plate in made}, {3 if case.choice["notch_mm"] else 0})
            self.assertIsNone(tried(case, design, SHOP, log_of(TURN), lowest=False).problem)
        bare = search_cases(tank(), ask.model_copy(update={"plates_across": Counts(low=0, high=1)}), SHOP)
        self.assertEqual([case.choice["plates_across"] for case in bare], [0, 1, 1, 1, 1])
        with self.assertRaisesRegex(GeometryError, "no baffle to open"):
            search_cases(tank(), ask, SHOP)

    def test_the_map_of_places(self) -> None:
        """Turned left, fuel runs right: the further right the pickup, the less it runs dry; on a plate, never."""
        design = tank(Baffle(id="b", name="b", axis="x", at_mm=299))
        cases = search_cases(design, Ask(down_to_l=12.0, places=Places(along=3, across=4)), SHOP)
        trials = [tried(case, design, SHOP, log_of(TURN), 12.0, lowest=False) for case in cases]
        by_place = {(trial.choice["x_mm"], trial.choice["y_mm"]): trial for trial in trials}
        xs, ys = sorted({x for x, _ in by_place}), sorted({y for _, y in by_place})
        for x in (xs[0], xs[2]):
            dry = [by_place[x, y].dry_s for y in ys]
            self.assertEqual(dry, sorted(dry))
            self.assertLess(dry[0] + 2, dry[-1])
        self.assertTrue(all(by_place[xs[1], y].problem for y in ys))
        self.assertEqual({round(trial.start_l, 6) for trial in trials if trial.problem is None}, {12.0})


class Trying(TestCase):
    """Price and favour."""

    def test_insides_are_priced(self) -> None:
        """A plate costs litres, metal and weld; the surge tank offered bridges the longest spell; one that can't be."""
        design = tank()
        log = log_of(TURN)
        trials = {case.name: tried(case, design, SHOP, log) for case in inside_cases(design, SHOP, log)}
        drawn, plated = (
            trials["as drawn"],
            next(trial for name, trial in trials.items() if name.startswith("one baffle lengthwise")),
        )
        self.assertLess(plated.brimful_l, drawn.brimful_l)
        self.assertGreater(plated.weld_m, drawn.weld_m + 0.9)
        self.assertGreater(drawn.dry_s, 1)
        (surge,) = [trial for name, trial in trials.items() if "surge" in name]
        self.assertTrue(surge.runs_through)
        self.assertIn("less than 500 L", tried(Case("a", None), design, SHOP, log, 500.0).problem or "")
        bad = tried(Case("a", {"shell": {"length_mm": -3.0}}), design, SHOP, log)
        self.assertIn("greater than 0", bad.problem or "")

    def test_hours_and_what_the_rules_ask(self) -> None:
        """Hours by the metre where they are typed; the free run and the rule card held against each try by name."""
        rule = CardRule(id="r", rule="4.2", subject="brimful capacity at most", limit=60.0)
        design = tank().model_copy(update={"brief": Brief(card=(rule,))})
        shop = SHOP.model_copy(update={"prices": Prices(hours_per_m=0.5)})
        plates = [Baffle(id=a, name=a, axis=a, at_mm=at, corner_mm=85.0) for a, at in (("x", 300.0), ("y", 200.0))]
        patch = {"shell": {"features": [plate.model_dump(mode="json") for plate in plates]}}
        bare, plated = (tried(Case("c", p), design, shop, log_of(TURN), lowest=False) for p in (None, patch))
        self.assertEqual(bare.hours, bare.weld_m * 0.5)
        self.assertIsNone(tried(Case("c", None), design, SHOP, log_of(TURN), lowest=False).hours)
        said = [words.plain() for words in bare.breaks]
        self.assertEqual([text[:14] for text in said], ["Unbaffled run ", "4.2: brimful c"])
        self.assertFalse(any("Unbaffled run" in words.plain() for words in plated.breaks))

    def test_plates_keep_off_what_stands_and_swings(self) -> None:
        """Beside a pot and a float's sweep, not through them: every suggested plate can be made."""
        pot = Pot(id="pot", name="pot", a_mm=220, b_mm=120, long_mm=160, wide_mm=160, high_mm=100)
        arm = SwingArm(made_arm_mm=120, empty_deg=-30, full_deg=30, heading_deg=0)
        gauge = Gauge(senders=(Sender(id="s", name="s", x_mm=420, y_mm=60, action=arm),))
        design = tank(pot).model_copy(update={"gauge": gauge})
        taken = taken_by(design, build(box(600, 400, 300)), 25.0)
        self.assertEqual(taken.clear_place("x", 300), 205)
        self.assertGreaterEqual(taken.clear_place("y", 0), 25 + 3)  # a brush passes between it and the wall
        # For this depth the arm is made 248 mm long, not 120: from there to the front is no room.
        self.assertEqual(taken.clear_place("x", 500), 205)
        self.assertEqual(taken.clear_places("x", [200, 400]), [140, 200])
        for case in inside_cases(design, SHOP, log_of(TURN)):
            self.assertIsNone(tried(case, design, SHOP, log_of(TURN), lowest=False).problem, case.name)

    def test_which_is_favoured(self) -> None:
        """Least dry first; of those that run through, the lowest start, then the price asked for."""
        one = Trial("one", {}, None, dry_s=0.0, weld_m=3.0, empty_kg=5.0)
        light, dry = replace(one, name="light", weld_m=4.0, empty_kg=4.0), replace(one, name="dry", dry_s=0.5, weld_m=1)
        broken = replace(one, name="broken", weld_m=0, problem="can't be made")
        all_of = [dry, broken, light, one]
        self.assertIs(favoured(all_of), one)
        self.assertIs(favoured(all_of, "metal"), light)
        self.assertIs(favoured([dry, broken]), dry)
        self.assertIsNone(favoured([broken]))
        low = replace(one, name="low", lowest_l=3.0, weld_m=9.0)
        self.assertIs(favoured([replace(one, lowest_l=6.0), low]), low)


class Compared(TestCase):
    """Another design as a case."""

    def test_the_patch_makes_it_that_tank(self) -> None:
        """Tank, ports and plumbing are the other's; what it is driven over and filled to stays."""
        here = tank(Baffle(id="b", name="b", at_mm=200))
        tube = CylinderShell(axis="x", diameter_mm=300, run_mm=500, metal="5052-H32", thickness_mm=3)
        slosh = here.slosh.model_copy(update={"surge_l": 1.5, "lift_l_per_h": 200.0, "fill": 0.9})
        other = Design(shell=tube, ports=here.ports, slosh=slosh)
        case = other_case(here, "other", other)
        assert case.patch is not None
        made = apply(here, case.patch)
        self.assertEqual((made.shell, made.ports, made.inside), (other.shell, other.ports, other.inside))
        self.assertEqual((made.slosh.surge_l, made.slosh.lift_l_per_h), (1.5, 200.0))
        self.assertEqual((made.slosh.fill, made.slosh.manoeuvre), (here.slosh.fill, here.slosh.manoeuvre))
        self.assertIsNone(other_case(here, "same", here).patch)

    @given(st.recursive(JSON, lambda below: st.dictionaries(KEYS, below, max_size=3), max_leaves=8), KEYS)
    def test_a_difference_leads_there(self, value: object, key: str) -> None:
        """Applied to the one document it gives the other, whatever both are; between alike ones there is none."""
        before: dict[str, object] = {key: {"a": 1, "b": {"c": 2}}, "gone": 1}
        after: dict[str, object] = {key: value}
        self.assertEqual(merged(before, difference(before, after)), after)
        self.assertEqual(difference(after, after), {})


class Money(TestCase):
    """By the workshop's prices."""

    def test_by_hand(self) -> None:
        """Metal, weld, foam and surge tank; none without one of the prices that it takes."""
        prices = Prices(metal_per_kg={"5052-H32": 10}, weld_per_m=50, foam_per_l=3, surge_tank=400)
        held = TankAnalysis(Asked(tank(), SHOP))[FIGURES]
        assert held.empty_kg is not None
        plain = 10 * held.empty_kg + 50 * held.weld_m
        self.assertAlmostEqual(money(tank(), held, prices) or 0, plain)
        foamed = tank().model_copy(update={"inside": Inside(foam=Foam(kg=2)), "slosh": Slosh(surge_l=1)})
        held = TankAnalysis(Asked(foamed, SHOP))[FIGURES]
        wanted = plain + 3 * held.brimful_l + 400
        self.assertAlmostEqual(money(foamed, held, prices) or 0, wanted)
        self.assertIsNone(money(foamed, held, prices.model_copy(update={"surge_tank": None})))
        self.assertIsNone(money(tank(), held, Prices(weld_per_m=50)))


class WhatNext(TestCase):
    """A search in which nothing runs through."""

    def test_further_or_something_else(self) -> None:
        """A way at the end of its range is taken further; else the first that was not varied."""
        ask = Ask(down_to_l=8.0, places=Places(), surge_l=Span(low=0, high=2), pot_mm=Span(low=0, high=200))
        dry = {"dry_s": 2.5, "spells": 3}
        tries = [
            Trial("a", {"surge_l": 0, "pot_mm": 100}, {}, dry_s=9.0, spells=4),
            Trial("b", {"surge_l": 2}, {}, **dry),
        ]
        said = advice(ask, tries)
        assert said is not None
        self.assertIn("2.5 s dry, in 3 spells. The surge tank is at the end", said.plain())
        said = advice(ask, [Trial("b", {"surge_l": 1, "pot_mm": 100}, {}, **dry)])
        assert said is not None
        self.assertIn("Vary the sump's depth next", said.plain())
        said = advice(Ask(down_to_l=8.0), [Trial("b", {}, {}, **dry)])
        assert said is not None
        self.assertIn("Vary the pickup's place next", said.plain())
        self.assertIsNone(advice(ask, [*tries, Trial("c", {}, {})]))
