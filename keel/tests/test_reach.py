"""Hangers, holes, lands and what the ports need: depths by hand, findings with remedies that settle them."""

from typing import Any
from unittest import TestCase

import numpy as np
from hypothesis import given
from hypothesis import strategies as st
from pydantic import ValidationError

from keel.analysis.showing import Showing
from keel.design.brief import Brief, CardRule, DemandCase, Surge
from keel.design.document import Design
from keel.design.features import Baffle, Door, Holes, Sump
from keel.design.ports import Filling, Hanger, NeckPath, Port, Seat, VentPath
from keel.design.workshop import Workshop
from keel.evaluation import Evaluation, evaluate
from keel.findings.patch import apply
from keel.formats.ports import marks
from keel.solid.build import build
from keel.studies.demand.surge_tank import surge_tank
from keel.studies.ports.torque import least_jump_deg, star_order
from keel.tests.samples import WEDGE, box, profile, well
from keel.tests.test_demand import fitted

RING = Seat(kind="flange", hole_mm=100, outer_mm=140, bolt_circle_mm=122, bolts=6, bolt_mm=6, plate_mm=3)


def hanger(made: float, **more: Any) -> Port:
    """A hanger with its pump through a ring in the roof."""
    port = {"id": "h", "name": "hanger", "role": "pickup", "x_mm": 200, "y_mm": 150, "seat": RING}
    return Port.model_validate(port | {"hanger": Hanger(made_for_mm=made), "hangs_across_mm": 60} | more)


def tank(*ports: Port, **more: Any) -> Design:
    """A 600 × 400 × 300 box of 3 mm with rounded corners and these ports."""
    return Design(shell=box(600, 400, 300, bend_radius_mm=6.0, **more), ports=ports)


def seen(subject: Design, remedies: bool = False) -> Evaluation:
    """The design worked out."""
    return evaluate(subject, None, Showing(remedies=remedies))


def codes(subject: Design) -> set[str]:
    """What is found."""
    return {finding.code for finding in seen(subject).findings}


class Reaching(TestCase):
    """Depth at its place against what a hanger is made for."""

    def test_depth_from_seat_to_floor(self) -> None:
        """Over a flat floor, a sump, and beside a bend; the ring lifts the seat."""
        flat = 300 - 3 + 3
        (found,) = seen(tank(hanger(250))).ports.reaches
        self.assertAlmostEqual(found.depth_mm, flat, places=4)
        self.assertAlmostEqual(found.short_mm, 50, places=4)
        self.assertAlmostEqual(found.drop_mm, flat - 5, places=4)
        sump = Sump(id="s", name="sump", a_mm=120, b_mm=80, long_mm=160, wide_mm=140, deep_mm=60)
        (deep,) = seen(tank(hanger(250), features=(sump,))).ports.reaches
        self.assertAlmostEqual(deep.depth_mm, flat + 60, places=3)
        (rim,) = seen(tank(hanger(250, x_mm=130, hangs_across_mm=80), features=(sump,))).ports.reaches
        self.assertAlmostEqual(rim.depth_mm, flat, places=3)
        wedge = Design(shell=WEDGE, ports=(hanger(250, hangs_across_mm=0),))
        (sloped,) = seen(wedge).ports.reaches
        lid = build(WEDGE).outer.ray_cast([200, 150, 900], [200, 150, 100])[0].position[2]
        self.assertAlmostEqual(sloped.depth_mm, lid + 3 - WEDGE.thickness_mm, places=2)

    def test_a_short_one_strands_what_it_cannot_reach(self) -> None:
        """Its inlet hangs so much higher; each method is priced and settles it."""
        subject = tank(hanger(250))
        short, full = seen(subject).shell.drained[0], seen(tank(hanger(300))).shell.drained[0]
        assert short.stranded_l is not None and full.stranded_l is not None
        self.assertAlmostEqual(short.stranded_l - full.stranded_l, 594 * 394 * 50 / 1e6, delta=0.01)
        finding = next(f for f in seen(subject, True).findings if f.code == "reach.short")
        self.assertEqual(len(finding.remedies), 4)
        for remedy in finding.remedies:
            self.assertNotIn("reach.short", codes(apply(subject, remedy.patch)), remedy.label.plain())
        lost = [remedy.change.brimful_l if remedy.change else 0 for remedy in finding.remedies]
        self.assertLess(lost[3], lost[0])
        self.assertEqual(lost[1], 0)

    def test_cut_sheet(self) -> None:
        """Surplus comes off the bracket, the tube gets its grips; a sleeve is squeezed; mismatch stops."""
        long = Hanger(made_for_mm=340, bracket_mm=120, pump_mm=110, strainer_mm=40, grip_mm=25, sprung=True)
        (found,) = seen(tank(hanger(1, hanger=long))).ports.reaches
        self.assertAlmostEqual(found.short_mm, -40, places=4)
        steps = {step.what: step.length_mm for step in found.steps}
        self.assertAlmostEqual(steps["bracket"] or 0, 80, places=4)
        self.assertAlmostEqual(steps["tube"] or 0, 320 - 80 - 110 - 40 + 50, places=4)
        self.assertIn("reach.cut", codes(tank(hanger(1, hanger=long))))
        for second, said in ((300.4, False), (304.0, True)):
            again = long.model_copy(update={"measured_mm": second})
            self.assertEqual("reach.mismatch" in codes(tank(hanger(1, hanger=again))), said)

    def test_no_length_below_what_the_part_allows(self) -> None:
        """The bracket stops at its least, the tube gives the rest; where that isn't enough it is said, once."""
        parts = {"bracket_mm": 70.0, "pump_mm": 110.0, "strainer_mm": 30.0}
        subject = tank(hanger(1, hanger=Hanger(made_for_mm=477, **parts), hangs_mm=477))
        (found,) = seen(subject).ports.reaches
        steps = {step.what: step.length_mm or 0 for step in found.steps}
        self.assertEqual(steps["bracket"], 20)
        self.assertAlmostEqual(steps["tube"], 300 - 5 - 20 - 110 - 30 + 50, delta=1e-3)
        self.assertEqual({"reach.cut", "reach.long", "port.meets"} & codes(subject), {"reach.cut"})
        bulky = parts | {"pump_mm": 280.0}
        subject = tank(hanger(1, hanger=Hanger(made_for_mm=477, **bulky), hangs_mm=477))
        self.assertEqual({"reach.cut", "reach.long", "port.meets"} & codes(subject), {"reach.long"})
        finding = next(f for f in seen(subject, True).findings if f.code == "reach.long")
        self.assertAlmostEqual(float(finding.title.values["over_mm"]), 280 + 30 + 20 - 295, delta=1e-3)
        self.assertTrue(finding.remedies)

    def test_no_more_stays_than_is_in_it(self) -> None:
        """What can't be drawn, at the fill shown: all of it where the surface lies below the inlet."""
        subject = tank(hanger(250))
        for fill in (0.05, 0.1, 0.6):
            (cell,) = evaluate(subject, None, Showing(remedies=False, fill_fraction=fill)).shell.drained
            self.assertAlmostEqual(
                cell.from_l if fill < 0.15 else cell.brimful_l, cell.brimful_l * (fill if fill < 0.15 else 1)
            )
            assert cell.stranded_l is not None
            self.assertAlmostEqual(cell.stranded_l, min(fill * cell.brimful_l, 594 * 394 * 55 / 1e6), delta=0.05)

    def test_a_drain_under_a_plate(self) -> None:
        """It lies on the floor there, not on the foot of a hole in the plate over it."""
        hole = Holes(at_mm=150, up_mm=107, diameter_mm=40)
        plate = Baffle(id="b", name="b", at_mm=190, holes=(hole,))
        drain = Port(id="d", name="d", role="drain", face="floor", x_mm=191, y_mm=150)
        self.assertNotIn("drain.high", codes(tank(drain, features=(plate,))))

    def test_hole_and_neighbours(self) -> None:
        """Too wide for its hole; through a baffle; into another; a slim one is silent."""
        self.assertIn("port.hole", codes(tank(hanger(300, diagonal_mm=130))))
        self.assertIn(
            "port.meets", codes(tank(hanger(300, hangs_mm=280), features=(Baffle(id="b", name="b", at_mm=190),)))
        )
        other = Port(id="o", name="o", x_mm=250, y_mm=150, hangs_mm=100, hangs_across_mm=60)
        self.assertIn("port.meets", codes(tank(hanger(300, hangs_mm=280), other)))
        quiet = codes(tank(hanger(300, hangs_mm=280, diagonal_mm=95)))
        self.assertFalse({"port.hole", "port.meets"} & quiet)

    def test_lands(self) -> None:
        """Flat sheet to the bend, on a slope too; near a seam, near a well; off the face."""
        (land,) = seen(tank(hanger(300))).ports.landings
        self.assertEqual(land.flat_mm, land.needed_mm)
        (near,) = seen(tank(hanger(300, y_mm=86))).ports.landings
        self.assertAlmostEqual(near.flat_mm, 86 - 9, delta=1.5)
        wedge = profile([(0, 0), (600, 0), (600, 150), (0, 300)], 300.0, 2.0, "y", shape="wedge")
        (sloping,) = seen(tank(hanger(300)).model_copy(update={"shell": wedge})).ports.landings
        self.assertEqual(sloping.flat_mm, sloping.needed_mm)
        self.assertIn("port.land", codes(tank(hanger(300, y_mm=86))))
        self.assertIn("port.on_seam", codes(tank(hanger(300, y_mm=200))))
        self.assertIn("port.seam", codes(tank(hanger(300, y_mm=200 - 140 / 2 - 6))))
        self.assertIn("port.land", codes(tank(hanger(300), features=(well(280, 100, 100, 100, 40),))))
        self.assertIn("port.off_face", codes(tank(hanger(300, y_mm=30))))
        side = hanger(300, face="front", x_mm=590, z_mm=150.0, hanger=None, role="fitting")
        (front,) = seen(tank(side)).ports.landings
        self.assertEqual(front.flat_mm, front.needed_mm)

    def test_seats_that_cannot_be(self) -> None:
        """A hole as large as its ring, bolts off it."""
        with self.assertRaisesRegex(ValidationError, "as large as its seat"):
            Seat(hole_mm=100, outer_mm=100)
        with self.assertRaisesRegex(ValidationError, "run out of the ring"):
            Seat(hole_mm=100, outer_mm=140, bolt_circle_mm=138, bolt_mm=6)


class Bolts(TestCase):
    """Tightening order."""

    def test_known_best(self) -> None:
        """The least jump is the greatest that any order reaches."""
        for bolts, jump in ((5, 144), (6, 120), (8, 135)):
            self.assertAlmostEqual(least_jump_deg(star_order(bolts)), jump)

    @given(st.integers(3, 24))
    def test_every_bolt_once_and_far_apart(self, bolts: int) -> None:
        """A permutation, never under 90°."""
        order = star_order(bolts)
        self.assertEqual(sorted(order), list(range(1, bolts + 1)))
        self.assertGreaterEqual(least_jump_deg(order), 90)


class Needs(TestCase):
    """Air, filling, drain, return, the brief."""

    def port(self, role: str, **more: Any) -> Port:
        """One of a role."""
        return Port.model_validate({"id": role, "name": role, "role": role, "x_mm": 300, "y_mm": 100} | more)

    def test_air_path(self) -> None:
        """Not looked at: a note; wrong: a stop; a leaning valve: a stop."""
        self.assertIn("vent.unchecked", codes(tank(self.port("vent", vent=VentPath()))))
        self.assertIn("vent.route", codes(tank(self.port("vent", vent=VentPath(outside=False)))))
        self.assertIn("vent.lean", codes(tank(self.port("vent", vent=VentPath(rollover=True, lean_deg=25)))))
        good = VentPath(outside=True, below_people=True, away_from_exhaust=True, falls_away=True, rollover=True)
        quiet = codes(tank(self.port("vent", vent=good, y_mm=200)))
        self.assertFalse({c for c in quiet if c.startswith("vent")})

    def test_filling(self) -> None:
        """No vent is a stop; a narrow one spits back, and a larger one settles it; drawing can suck it in."""
        neck = self.port("filler", x_mm=500, neck=NeckPath(bore_mm=38))
        self.assertIn("cell.no_vent", codes(tank(neck)))
        subject = tank(neck, self.port("vent", vent=VentPath(bore_mm=3)))
        finding = next(f for f in seen(subject, True).findings if f.code == "fill.back_pressure")
        self.assertTrue(finding.remedies)
        (run,) = seen(subject).ports.fill_runs.values()
        self.assertAlmostEqual(
            run.points[-1].litres, seen(subject).shell.capacity.rated_l if seen(subject).shell.capacity else 0
        )
        slow = subject.model_copy(update={"filling": Filling(wanted_s=30)})
        self.assertIn("fill.slow", codes(slow))
        thirsty = DemandCase(id="a", name="a", measured_l_per_h=4000.0)
        self.assertIn("draw.vacuum", codes(subject.model_copy(update={"brief": Brief(cases=(thirsty,))})))

    def test_drain_return_spare(self) -> None:
        """A drain above the sump; a return near the roof, near the pickup; an open spare."""
        sump = Sump(id="s", name="sump", a_mm=120, b_mm=80, long_mm=160, wide_mm=140, deep_mm=60)
        high = tank(self.port("drain", face="floor", x_mm=500), features=(sump,))
        finding = next(f for f in seen(high, True).findings if f.code == "drain.high")
        self.assertTrue(finding.remedies)
        self.assertIn("return.high", codes(tank(self.port("return"))))
        near = self.port("return", x_mm=230, y_mm=150, z_mm=40.0)
        self.assertIn("return.near", codes(tank(hanger(300), near)))
        self.assertIn("port.open", codes(tank(self.port("spare"))))
        self.assertNotIn("port.open", codes(tank(self.port("spare", capped=True))))

    def test_rule_card(self) -> None:
        """A limit is named in its finding; kept, it is silent."""
        for limit, said in ((40.0, True), (90.0, False)):
            rule = CardRule(id="r", rule="Article 5", subject="rated capacity at most", limit=limit)
            found = [
                f for f in seen(tank().model_copy(update={"brief": Brief(card=(rule,))})).findings if f.code == "card"
            ]
            self.assertEqual(bool(found), said)
            if found:
                self.assertIn("Article 5: rated capacity 6", found[0].title.plain())

    def test_surge_schools_and_a_tank_of_its_own(self) -> None:
        """A sump that lasts is favoured, else the pot; the surge tank made holds the volume and stands by itself."""
        case = DemandCase(id="a", name="a", measured_l_per_h=180.0)
        brief = Brief(cases=(case,), pumps=fitted(), surge=Surge(uncovered_s=9.0, lift_l_per_h=150))
        plain = tank().model_copy(update={"brief": brief})
        answer = seen(plain).brief.surge
        assert answer is not None
        self.assertEqual([s.name for s in answer.methods if s.favoured], ["in-tank surge pot"])
        self.assertIn("surge.lift", codes(plain))
        sump = Sump(id="s", name="sump", a_mm=120, b_mm=80, long_mm=160, wide_mm=140, deep_mm=60)
        door = Door(at_mm=200, wide_mm=60, high_mm=40)
        plate = Baffle(id="b", name="b", at_mm=100, doors=(door,))
        wide, short = hanger(300, hangs_across_mm=200), hanger(200, hangs_across_mm=60)
        for features, ports, favoured in (
            ((sump,), (), "in-tank surge pot"),
            ((sump, plate), (), "baffled sump with trap doors"),
            ((), (wide,), "external surge tank"),
            ((), (short,), "external surge tank"),
        ):
            answer = seen(tank(*ports, features=features).model_copy(update={"brief": brief})).brief.surge
            assert answer is not None
            self.assertEqual([s.name for s in answer.methods if s.favoured], [favoured], features)
        volume, forms = answer.sizing.volume_l, ("cylinder", "box")
        for form, litres, most in ((forms[0], volume, 1.1 * volume), (forms[1], 4.0, 4.2), (forms[1], volume, 1.4)):
            made = surge_tank(plain, litres, Workshop(), form)
            figures = seen(made).shell.figures
            assert figures is not None and made.shell is not None
            self.assertEqual(made.shell.kind, form)
            self.assertGreaterEqual(figures.rated_l, litres)
            self.assertLess(figures.rated_l, most, "the brake closes no smaller box than 1.4 L")
            self.assertEqual([c for c in codes(made) if c.startswith(("port.", "brake."))], [])

    def test_a_lock_ring_is_turned_home_where_a_hand_gets_to_it(self) -> None:
        """Its stop is asked for, must not lie under the hose whichever way round, and is etched with a bar across."""
        seat = Seat(kind="lock ring", hole_mm=60, outer_mm=90)
        said = {}
        for stop, hose in ((None, 10.0), (-172.0, 165.0), (-140.0, 165.0), (30.0, None)):
            port = hanger(250, seat=seat, stop_deg=stop, hose_deg=hose)
            found = [f for f in seen(tank(port)).findings if f.code == "port.stop"]
            said[stop] = [f.severity for f in found]
        self.assertEqual(said, {None: ["note"], -172.0: ["caution"], -140.0: [], 30.0: []})
        first, stroke, bar = marks(port, 8.0)
        self.assertAlmostEqual(first[0][0], 45.0)
        self.assertAlmostEqual(np.hypot(*stroke[1]), 53.0)
        self.assertAlmostEqual(np.dot(np.subtract(*stroke), np.subtract(*bar)), 0.0)
