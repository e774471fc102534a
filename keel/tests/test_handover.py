"""From first fuel to hand-over: joints in walking order, lines held, the fill, the ledger of what is open."""

from datetime import timedelta
from itertools import pairwise
from typing import Any
from unittest import TestCase

import numpy as np
from hypothesis import given
from hypothesis import strategies as st

from keel.findings.open_items import OpenItem, open_in, stands_before
from keel.log.entries import ENTRY, Received
from keel.log.facts import facts
from keel.log.handover_checks import why_not_poured
from keel.log.handover_entries import Poured
from keel.log.standing import standing
from keel.log.state import BuildState, build_state
from keel.studies.build.traveller import TRAVELLER
from keel.studies.gauge.poured_curve import face_truth, lamp_minutes, poured_curve
from keel.studies.handover.explanation import EXPLANATION
from keel.studies.handover.first_fill import FIRST_FILL
from keel.studies.handover.line_joints import LINE_PROOF
from keel.studies.handover.walking import walking_order
from keel.studies.liquid.capacity import CAPACITY
from keel.studies.result import words
from keel.studies.wiring.supply import STOPPINGS
from keel.tests.line_samples import analysed
from keel.tests.test_log import START
from keel.tests.wiring_samples import looked_at, wired_up

POURED_L = [0.0, 3.0, 10.0, 18.0, 27.0, 42.0, 57.0, 70.5]
READ_OHM = [238.0, 236.0, 214.0, 188.0, 161.0, 118.0, 74.0, 36.0]
SPOTS = st.lists(st.tuples(*[st.floats(-1000, 1000)] * 3), min_size=1, max_size=9)


def length(way: list[int], spots: np.ndarray, start: np.ndarray) -> float:
    """Of a walk past places."""
    line = np.vstack([start, spots[way]])
    return float(np.linalg.norm(np.diff(line, axis=0), axis=1).sum())


class Walking(TestCase):
    """Past every joint."""

    @given(SPOTS)
    def test_every_place_once_and_no_turn_is_shorter(self, places: list[tuple[float, float, float]]) -> None:
        """A permutation; no stretch of it turned round makes it shorter."""
        spots, start = np.array(places), np.zeros(3)
        way = walking_order(spots, start)
        self.assertEqual(sorted(way), list(range(len(places))))
        whole = length(way, spots, start)
        for first in range(len(way)):
            for last in range(first + 1, len(way)):
                turned = way[:first] + way[first : last + 1][::-1] + way[last + 1 :]
                self.assertLessEqual(whole, length(turned, spots, start) + 1e-6)

    def test_along_a_rail(self) -> None:
        """Places on a line are walked along it, whatever their order."""
        spots = np.array([[x, 0.0, 0.0] for x in (500.0, 100.0, 300.0, 900.0, 700.0)])
        self.assertEqual(walking_order(spots, np.zeros(3)), [1, 2, 0, 4, 3])


class PouredAndRead(TestCase):
    """A sender's curve from eight poured points."""

    def test_worked_case(self) -> None:
        """Litres at ohms, what the eighths tell, the reserve's ohms, the lamp."""
        curve = poured_curve(list(zip(POURED_L, READ_OHM, strict=True)), 240.0, 33.0)
        assert curve is not None
        asked = [curve.litres_at(ohm) for ohm in (230.0, 200.0, 150.0, 100.0, 50.0)]
        np.testing.assert_allclose(asked, [4.909090909, 14.30769231, 30.8372093, 48.13636364, 65.52631579], atol=1e-6)
        face = face_truth(curve, 72.0, 240.0, 33.0)
        true = [0.0, 9.960227273, 17.92307692, 26.54166667, 35.54651163, 44.51420455, 53.33522727, 62.37335526, 70.5]
        np.testing.assert_allclose(face.true_l, true, atol=1e-6)
        np.testing.assert_allclose(face.error_l, [9.0 * n - one for n, one in enumerate(true)], atol=1e-6)
        self.assertAlmostEqual(face.largest_l, 1.5)
        self.assertAlmostEqual(curve.ohms_at(8.0), 220.2857143, places=6)
        self.assertAlmostEqual(lamp_minutes(11.2, 3.0, 23.18168168), 21.22365438, places=5)

    def test_a_seeded_error_comes_out(self) -> None:
        """A sender bent so that it reads up to a tenth too much is told within a fiftieth of the capacity."""
        capacity = 80.0
        bent = [share + 0.1 * np.sin(np.pi * share) for share in np.linspace(0, 1, 8)]
        points = [
            (share * capacity, 240.0 - 207.0 * off) for share, off in zip(np.linspace(0, 1, 8), bent, strict=True)
        ]
        curve = poured_curve(points, 240.0, 33.0)
        assert curve is not None
        for share in np.linspace(0, 1, 101):
            read = 240.0 - 207.0 * (share + 0.1 * np.sin(np.pi * share))
            self.assertLess(abs(curve.litres_at(read) - share * capacity), 0.02 * capacity)

    @given(st.lists(st.floats(0, 400), min_size=3, max_size=12), st.booleans())
    def test_it_never_runs_back(self, ohms: list[float], rising: bool) -> None:
        """However the readings scatter, more ohms of the right way are more litres, within what was poured."""
        empty, full = (0.0, 400.0) if rising else (400.0, 0.0)
        curve = poured_curve([(float(n), one) for n, one in enumerate(ohms)], empty, full)
        assert curve is not None
        asked = [curve.litres_at(one) for one in np.linspace(empty, full, 21)]
        self.assertTrue(all(a <= b + 1e-9 for a, b in pairwise(asked)))
        self.assertTrue(all(0 <= one <= len(ohms) - 1 for one in asked))


def written(n: int, entry: dict[str, Any]) -> Received:
    """An entry that came in at its number's minute."""
    when = START + timedelta(minutes=n)
    return Received(n, "somebody", when, when, ENTRY.validate_python({"id": f"e{n}"} | entry))


class Handed(TestCase):
    """A box with a line, its wiring and a sender, on its way to the customer."""

    design = wired_up(gauge={"reserve_l": 10.0})

    def state(self, *log: dict[str, Any], drawn: list[OpenItem] | None = None) -> BuildState:
        """After a log, an entry a minute."""
        lines = [written(n, one) for n, one in enumerate(log, start=1)]
        now = START + timedelta(minutes=len(log) + 1)
        return build_state(analysed(self.design)[TRAVELLER], lines, now, None, drawn or [])

    def lacks(self, state: BuildState, gate: str) -> str:
        """Why a gate is shut."""
        found = next(one for one in state.gates if one.gate.id == gate)
        return "; ".join(one.plain() for one in found.lacks)

    def test_steps_of_the_fill(self) -> None:
        """Ten litres, a quarter, half, all; of a box the level is litres over its floor; the needle goes with it."""
        tank = analysed(self.design)
        fills = tank[FIRST_FILL]
        self.assertEqual([round(one.share, 2) for one in fills][-3:], [0.25, 0.5, 1.0])
        litres, levels = [one.litres for one in fills], [one.level_mm for one in fills]
        self.assertEqual(litres, sorted(litres))
        floor = (litres[1] - litres[0]) / (levels[1] - levels[0])
        self.assertAlmostEqual((litres[2] - litres[1]) / (levels[2] - levels[1]), floor, places=3)
        shares = [one.needles[0].share for one in fills]
        self.assertEqual(shares, sorted(shares))

    def test_only_what_is_reached_is_below(self) -> None:
        """Joints below a level are below the next, and stand on this tank's line."""
        fills = analysed(self.design)[FIRST_FILL]
        for one, after in pairwise(fills):
            self.assertLessEqual(set(one.below), set(after.below))

    def test_a_joint_counts_when_dry_and_marked(self) -> None:
        """Weeping it stands in the ledger; tightened it has to be seen again, and its marks are made anew."""
        joint = next(one for one in analysed(self.design)[LINE_PROOF].joints if one.marks == ["torque"])
        see = {"kind": "joint", "subject": joint.id}
        mark = {"kind": "joint mark", "subject": joint.id, "mark": "torque"}

        def said(*log: dict[str, Any]) -> str:
            state = self.state(*log)
            of = next(one for one in state.commission.joints if one.id == joint.id)
            in_ledger = any(one.key == f"joint {joint.id}" for one in state.ledger)
            self.assertEqual(in_ledger, of.found != "" and of.lacks is not None)
            self.assertEqual(of.found == "dry" and of.marked == of.marks, of.lacks is None)
            return of.lacks.plain() if of.lacks else ""

        self.assertEqual(said(), "not looked at yet")
        self.assertEqual(said(mark, see | {"found": "weep"}), "it weeps")
        self.assertEqual(said(see | {"found": "dry"}), "no mark yet that it is tight")
        self.assertEqual(said(mark, see | {"found": "dry"}), "")
        self.assertIn("not seen dry", said(mark, see | {"found": "tightened"}))
        again = (mark, see | {"found": "leak"}, see | {"found": "tightened"}, see | {"found": "dry"})
        self.assertEqual(said(*again), "no mark yet that it is tight")
        self.assertEqual(said(*again, mark), "")

    def test_looked_at_again_after_the_drive(self) -> None:
        """What was dry before it isn't known to be dry after it."""
        joints = analysed(self.design)[LINE_PROOF].joints
        dry = [{"kind": "joint", "subject": one.id, "found": "dry"} for one in joints]
        marks = [{"kind": "joint mark", "subject": one.id, "mark": mark} for one in joints for mark in one.marks]
        drive = {"kind": "done", "subject": "commission:drive"}
        state = self.state(*dry, *marks, drive)
        self.assertEqual(self.lacks(state, "joints dry"), "")
        self.assertIn(f"{len(joints)} of {len(joints)} joints", self.lacks(state, "hand-over"))
        self.assertTrue(all(one.lacks is not None for one in state.commission.joints))
        again = self.state(*dry, *marks, drive, *dry)
        self.assertNotIn("joints", self.lacks(again, "hand-over"))
        self.assertTrue(all(one.lacks is None for one in again.commission.joints))

    def test_a_line_is_held(self) -> None:
        """At its working pressure, long enough, with little lost, by a gauge that is one."""
        line = self.state().commission.held[0]
        self.assertGreater(line.kpa, 100.0)

        def said(*readings: tuple[float, float], **more: Any) -> str:
            log = [
                {"kind": "line read", "subject": line.circuit, "minute": minute, "kpa": kpa} | more
                for minute, kpa in readings
            ]
            return self.lacks(self.state(*log), "lines held")

        kpa = line.kpa + 1.0
        self.assertIn("not held yet", said())
        self.assertIn("wanted", said((0, line.kpa - 5.0), (12, line.kpa - 5.0)))
        self.assertIn("wanted", said((0, kpa), (4, kpa)))
        self.assertIn("lost", said((0, kpa), (11, 0.9 * kpa)))
        self.assertIn("lost", said((0, kpa), (5, 0.9 * kpa), (11, kpa)))
        self.assertEqual(said((0, kpa), (11, 0.97 * kpa)), "")
        self.assertIn("simulated", said((0, kpa), (11, kpa), simulated=True))
        self.assertIn("wanted", said((0, kpa), (11, kpa), (0, kpa)))
        joint = next(one for one in analysed(self.design)[LINE_PROOF].joints if one.circuit == line.circuit)
        read = [{"kind": "line read", "subject": line.circuit, "minute": minute, "kpa": kpa} for minute in (0, 11)]
        tightened = {"kind": "joint", "subject": joint.id, "found": "tightened"}
        for gate in ("lines held", "engine may run"):
            self.assertIn("hold it again", self.lacks(self.state(*read, tightened), gate))
            self.assertNotIn("hold", self.lacks(self.state(tightened, *read), gate))

    def test_no_more_than_it_holds(self) -> None:
        """More than brimful is refused with both figures; less than before too."""
        traveller, fills = analysed(self.design)[TRAVELLER], analysed(self.design)[FIRST_FILL]

        def why(step: int, litres: float, *before: dict[str, Any]) -> str:
            entry = Poured(id="p", subject=f"commission:pour-{fills[step].id}", litres=litres)
            log = [written(n, one) for n, one in enumerate(before, start=1)]
            found = why_not_poured(entry, traveller, facts(standing(log).entries))
            return found.plain() if found else ""

        self.assertIn("holds", why(-1, fills[-1].holds_l + 1.0))
        self.assertEqual(why(-1, fills[-1].holds_l), "")
        first = {"kind": "poured", "subject": f"commission:pour-{fills[0].id}", "litres": 11.0}
        self.assertIn("after", why(1, 9.0, first))

    def test_the_engine_waits_for_the_ledger(self) -> None:
        """What is open holds it; what somebody lets stay, or closes, doesn't; nobody passes that gate unmet."""
        left = {"kind": "left open", "id": "cap-1", "what": "cap on the return", "before": "engine running"}
        open_one = self.state(left).ledger
        self.assertIn("left cap-1", {one.key for one in stands_before(open_one, "engine running")})
        self.assertNotIn("left cap-1", {one.key for one in stands_before(open_one, "first fuel")})
        closed = {"kind": "closed", "subject": "left cap-1", "reason": "joined"}
        self.assertNotIn("left cap-1", {one.key for one in self.state(left, closed).ledger})
        stays = self.state(left, closed | {"stays": True}).ledger
        self.assertEqual(next(one.stays for one in stays if one.key == "left cap-1"), "joined")
        self.assertNotIn("left cap-1", {one.key for one in stands_before(stays, "hand-over")})
        told = self.state(left, closed | {"stays": True, "said": "cap on the feed"}).ledger
        self.assertEqual(next(one.stays for one in told if one.key == "left cap-1"), "")
        gates = {one.gate.id: one.gate.firm for one in self.state().gates}
        self.assertTrue(gates["engine may run"] and gates["hand-over"])
        drawn = [OpenItem("finding x", "stop", words("x"), "first fuel", "ports", "p")]
        others = len(stands_before(self.state().ledger, "engine running"))
        self.assertIn(f"{others + 1} open", self.lacks(self.state(drawn=drawn), "engine may run"))

    def test_every_stop_of_a_design_is_open(self) -> None:
        """And what is merely unknown or untied too."""
        findings = looked_at(wired_up(bonds=[])).findings
        keys = {one.key for one in open_in(findings)}
        self.assertLessEqual({f"finding {one.key}" for one in findings if one.severity == "stop"}, keys)
        self.assertTrue(any(one.startswith("finding wiring.unbonded") for one in keys))


class Explained(TestCase):
    """How it works, in the customer's words."""

    def test_it_tells_of_what_is_there(self) -> None:
        """Every cell with its litres, every vent, what uses the fuel; nothing of what isn't there."""
        design = wired_up(gauge={"reserve_l": 10.0})
        said = {one.title: " ".join(line.plain() for line in one.lines) for one in analysed(design)[EXPLANATION]}
        held = analysed(design)[CAPACITY]
        self.assertIn(f"{held.rated_l:.2f}", said["The tank"])
        for port in design.ports:
            self.assertEqual(f"out by {port.name}." in said["Filling and breathing"], port.role == "vent")
        self.assertIn("rail", said["From the tank to the engine"])
        (stop,) = analysed(design)[STOPPINGS]
        self.assertIn(f"in a crash by {stop.in_crash[0]}", said["Pumps, and what stops them"])
        bare = wired_up(devices=[], wires=[], parts=[], lines={"runs": []})
        self.assertNotIn("From the tank to the engine", {one.title for one in analysed(bare)[EXPLANATION]})
