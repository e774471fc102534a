"""Findings come up when they should, and each remedy does what it says."""

import json
from typing import Any
from unittest import TestCase

from hypothesis import given, settings
from hypothesis import strategies as st

from keel.analysis.showing import Showing
from keel.design.bay import Bay
from keel.design.brief import Brief
from keel.design.document import Design
from keel.design.shell import BoxShell
from keel.design.workshop import Brake, HouseRules, StockSheet, Workshop
from keel.evaluation import evaluate
from keel.findings.finding import Finding
from keel.findings.patch import apply, merged
from keel.formats.document import UnreadableDesignError, read_design
from keel.solid.faults import GeometryError
from keel.studies.strength.plate_bending import fuel_head_kpa, panel_deflection_mm, panel_stress_mpa
from keel.tests.samples import bays, box, design, shells
from keel.tests.wild import Wild

SOUND = {"bend_radius_mm": 4.5}


def found(subject: Design, code: str, workshop: Workshop | None = None) -> Finding | None:
    """The first finding of a code."""
    return next((f for f in evaluate(subject, workshop).findings if f.code == code), None)


class Rules(TestCase):
    """Each rule at its edge."""

    def test_below_target_offers_each_dimension(self) -> None:
        """Longer, wider, taller: each reaches the target with the least size that can be marked out."""
        short = design(box(**SOUND), brief=Brief(target_l=120.0))
        for mark in (1e-7, 1.0, 25.4 / 16):
            seen = evaluate(short, None, Showing(mark_mm=mark))
            finding = next(f for f in seen.findings if f.code == "capacity.below")
            self.assertEqual(len(finding.remedies), 3)
            for remedy in finding.remedies:
                after = evaluate(apply(short, remedy.patch), None, Showing(remedies=False)).shell.figures
                assert after is not None and remedy.change is not None
                self.assertGreaterEqual(after.rated_l, 120 - 1e-6)
                self.assertLess(after.rated_l, 120 + 1e-6 + 0.32 * mark, "a mark more of the largest side")
                marks = [v / mark for name, v in remedy.patch["shell"].items() if name[0] in "lwh"]
                self.assertTrue(mark < 1 or all(abs(n - round(n)) < 1e-5 for n in marks), marks)
        rated = evaluate(short).shell.figures
        assert rated is not None
        self.assertIsNone(found(design(box(**SOUND), brief=Brief(target_l=rated.rated_l)), "capacity.below"))

    def test_beyond_target_by_more_than_a_quarter(self) -> None:
        """Questioned above 25 %, not at it."""
        rated = evaluate(design(box(**SOUND))).shell.figures
        assert rated is not None
        at = Brief(target_l=rated.rated_l / 1.25)
        above = Brief(target_l=rated.rated_l / 1.2501)
        self.assertIsNone(found(design(box(**SOUND), brief=at), "capacity.beyond"))
        self.assertIsNotNone(found(design(box(**SOUND), brief=above), "capacity.beyond"))

    def test_radius_below_the_metals_least(self) -> None:
        """6061-T6 wants three thicknesses, 5052 one."""
        for metal, least in (("6061-T6", 9.0), ("5052-H32", 3.0), ("mild steel", 3.0)):
            self.assertIsNone(found(design(box(metal=metal, bend_radius_mm=least)), "bend.radius"))
            finding = found(design(box(metal=metal, bend_radius_mm=least - 0.1)), "bend.radius")
            assert finding is not None
            self.assertEqual(finding.severity, "stop")
            self.assertTrue(finding.remedies)

    def test_brake_that_cannot_close_the_wrapper(self) -> None:
        """Judged by the inside of the section, not of the length."""
        workshop = Workshop(brake=Brake(smallest_closed_box_mm=200))
        self.assertIsNone(found(design(box(800, 206, 206, **SOUND)), "brake.closed_box", workshop))
        low = design(box(800, 400, 205.9, **SOUND))
        finding = found(low, "brake.closed_box", workshop)
        assert finding is not None
        taller = finding.remedies[0]
        patched = apply(low, taller.patch).shell
        assert patched is not None
        self.assertAlmostEqual(patched.height_mm, 206)  # type: ignore[union-attr]

    def test_longer_than_the_brake_or_the_sheet(self) -> None:
        """The lips count; turning the wrapper is offered when it helps."""
        workshop = Workshop(brake=Brake(width_mm=1000))
        self.assertIsNone(found(design(box(966, **SOUND)), "brake.width", workshop))
        finding = found(design(box(966.5, **SOUND)), "brake.width", workshop)
        assert finding is not None
        self.assertIn({"shell": {"wrap_axis": "y"}}, [remedy.patch for remedy in finding.remedies])
        small = Workshop(stock=[StockSheet(length_mm=1000, width_mm=1000, metal="5052-H32", thickness_mm=3)])
        self.assertIsNotNone(found(design(box(**SOUND)), "stock.size", small))
        self.assertIsNotNone(found(design(box(**SOUND)), "stock.none", Workshop(stock=[])))

    def test_a_wrapper_too_long_for_the_sheet_is_drawn_in(self) -> None:
        """By just enough, on a sheet listed either way round; the part then lies on it."""
        long = design(box(700, 600, 500, **SOUND))
        for size in ({"length_mm": 2000, "width_mm": 1000}, {"length_mm": 1000, "width_mm": 2000}):
            shop = Workshop(stock=[StockSheet(**size, metal="5052-H32", thickness_mm=3)])
            finding = found(long, "stock.size", shop)
            assert finding is not None
            narrower = next(r for r in finding.remedies if "width_mm" in r.patch["shell"])
            made = evaluate(apply(long, narrower.patch), shop).sheet.unfolded
            assert made is not None
            self.assertLessEqual(made.parts[0].length_mm, 2000)
            self.assertGreater(made.parts[0].length_mm, 1998, "drawn in by no more than a millimetre on two sides")

    def test_thin_wall_names_what_it_needs(self) -> None:
        """The floor of a big box in thin sheet; the next sheet in stock that does is offered."""
        thin = design(box(900, 500, 400, thickness_mm=2.0, bend_radius_mm=4.0))
        finding = found(thin, "wall.thin")
        assert finding is not None
        self.assertEqual(finding.title.values["panel"], "floor")
        self.assertTrue(finding.remedies)
        self.assertIsNotNone(found(design(box(thickness_mm=1.0, bend_radius_mm=2.0)), "wall.weldable"))

    def test_words_carry_their_numbers(self) -> None:
        """Every quantity named in a sentence is there, and reads in metric."""
        subject = design(
            box(metal="6061-T6"), brief=Brief(target_l=300.0), bay=Bay(length_mm=700, width_mm=500, height_mm=400)
        )
        for finding in evaluate(subject, Workshop(brake=Brake(width_mm=300, smallest_closed_box_mm=900))).findings:
            for sentence in (finding.title, finding.why, *(remedy.label for remedy in finding.remedies)):
                self.assertNotIn("{", sentence.plain())


class Remedies(TestCase):
    """Whatever is wrong, what is offered puts it right."""

    @given(shells(), bays(2), st.floats(5, 400), st.sampled_from([150.0, 400.0]))
    @settings(max_examples=12)
    def test_every_remedy_settles_its_finding(self, shell: BoxShell, bay: Bay, target: float, closed: float) -> None:
        """Taking a remedy makes its finding go, with the change it announced."""
        workshop = Workshop(brake=Brake(smallest_closed_box_mm=closed))
        subject = Design(brief=Brief(target_l=target), bay=bay, shell=shell)
        before = evaluate(subject, workshop)
        assert before.shell.figures is not None
        for finding in before.findings:
            for remedy in finding.remedies:
                after = evaluate(apply(subject, remedy.patch), workshop, Showing(remedies=False))
                assert after.shell.figures is not None and remedy.change is not None
                self.assertNotIn(finding.key, {item.key for item in after.findings})
                moved = after.shell.figures.brimful_l - before.shell.figures.brimful_l
                self.assertAlmostEqual(moved, remedy.change.brimful_l, places=9)

    @given(st.recursive(st.integers() | st.none(), lambda below: st.dictionaries(st.sampled_from("abc"), below)))
    def test_merge_patch_twice_is_once(self, patch: Any) -> None:
        """Applying a merge patch again changes nothing more, and the original stays."""
        if not isinstance(patch, dict):
            return
        document = {"a": {"b": 1}, "c": 2}
        once = merged(document, patch)
        self.assertEqual(merged(once, patch), once)
        self.assertEqual(document, {"a": {"b": 1}, "c": 2})


class Panels(TestCase):
    """Plate formulas against worked figures."""

    def test_lid_under_pressure(self) -> None:
        """520 × 350 × 2 mm 5052 at 12 kPa, clamped and simply supported."""
        self.assertAlmostEqual(panel_stress_mpa(12, 520, 350, 2), 165.186, delta=0.0165)
        self.assertAlmostEqual(panel_deflection_mm(12, 520, 350, 2, 70), 7.61184375, delta=7e-4)
        self.assertAlmostEqual(panel_stress_mpa(12, 520, 350, 2, "simply supported"), 176.589, delta=0.0177)
        self.assertAlmostEqual(panel_deflection_mm(12, 520, 350, 2, 70, "simply supported"), 26.6345625, delta=2.6e-3)

    def test_floor_under_fuel(self) -> None:
        """300 mm of petrol at 3 g extra on 480 × 300."""
        head = fuel_head_kpa(0.745, 300, 3)
        self.assertAlmostEqual(head, 8.7671451, places=6)
        self.assertAlmostEqual(panel_stress_mpa(head, 480, 300, 2), 92.3180379, delta=0.0093)

    def test_pressure_a_panel_bears(self) -> None:
        """0.6 of 90 MPa in 2.5 mm: lid, side and end of 820 × 420 × 360."""
        for sides, expected in (((820, 420), 3.865405548), ((820, 360), 5.208333333), ((420, 360), 7.0231032)):
            self.assertAlmostEqual(0.6 * 90 / panel_stress_mpa(1, *sides, 2.5), expected, delta=0.003 * expected)


class Stations(TestCase):
    """The state of each station."""

    def test_states_follow_the_work(self) -> None:
        """Not judged yet, then needs attention, then blocked, then ready."""

        def states(subject: Design, rules: Workshop | None = None) -> dict[str, str]:
            return {s.station: s.state for s in evaluate(subject, rules, Showing(remedies=False)).stations}

        names = [
            "brief",
            "bay",
            "shell",
            "inside",
            "ports",
            "gauge",
            "sheet",
            "build",
            "proof",
            "mount",
            "lines",
            "wiring",
            "buying",
            "handover",
        ]
        self.assertEqual(states(Design()), dict.fromkeys(names, "not judged yet"))
        self.assertEqual(states(Design(brief=Brief(fuel="diesel")))["brief"], "needs attention")
        room = Bay(length_mm=900, width_mm=500, height_mm=400)
        shell = box(500, 300, 300, x_mm=100, y_mm=100, z_mm=20, **SOUND)
        done = states(Design(bay=room, shell=shell))
        self.assertEqual([done[name] for name in ("bay", "shell", "sheet")], ["ready"] * 3)
        self.assertEqual([done[name] for name in ("ports", "gauge", "build")], ["not judged yet"] * 3)
        self.assertEqual(states(Design(bay=room, shell=box(**SOUND)))["bay"], "blocked")
        lax = Workshop(rules=HouseRules(bump_g=20.0))
        self.assertEqual(states(Design(bay=room, shell=shell), lax)["shell"], "needs attention")


class Whole(TestCase):
    """Any document at all."""

    @given(st.integers(0, 10**9))
    @settings(max_examples=40, deadline=None)
    def test_worked_out_or_refused_by_name(self, seed: int) -> None:
        """Whatever is in it, it is evaluated or refused with a field; stranded fuel is never more than there is."""
        try:
            seen = evaluate(read_design(json.dumps(Wild(seed).document())), None, Showing(remedies=False))
        except UnreadableDesignError as error:
            self.assertTrue(all(fault.field for fault in error.faults))
            return
        except GeometryError as error:
            self.assertTrue(error.fault.field)
            return
        if seen.shell.figures and seen.shell.figures.stranded_l is not None and seen.shell.figures.usable_l is not None:
            self.assertLessEqual(seen.shell.figures.stranded_l, seen.shell.figures.brimful_l + 1e-6)
            self.assertLessEqual(seen.shell.figures.usable_l, seen.shell.figures.rated_l + 1e-6)

    def test_remedies_stop_when_it_is_enough(self) -> None:
        """No more than asked for are tried; the findings stay, and how many are left is said."""
        subject = design(box(1200, 500, 400, thickness_mm=1.0, bend_radius_mm=0.5), brief=Brief(target_l=300.0))
        all_of_them = evaluate(subject)
        self.assertEqual(all_of_them.untried, 0)
        asked = iter([False, False, True])
        some = evaluate(subject, enough=lambda: next(asked, True))
        self.assertGreater(some.untried, 0)
        self.assertEqual([f.key for f in some.findings], [f.key for f in all_of_them.findings])
        tried, wanted = (sum(len(f.remedies) for f in seen.findings) for seen in (some, all_of_them))
        self.assertLess(tried, wanted)
        self.assertIsNone(some.bay.fit)
