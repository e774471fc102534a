"""Whether a tank goes in through the bay's opening, which way round and with what off; hoses that bend over."""

from unittest import TestCase

import numpy as np

from keel.analysis.showing import Showing
from keel.design.bay import Bay, KeepOut, Opening
from keel.design.document import Design
from keel.design.ports import HoseBend, Port
from keel.design.shell import Corner, ProfileShell
from keel.evaluation import evaluate
from keel.findings.finding import Finding
from keel.findings.patch import apply
from keel.solid.build import build
from keel.solid.standing import standing, surface_at
from keel.studies.space.opening import GoesIn
from keel.tests.samples import box

ROOM = Bay(length_mm=1000, width_mm=600, height_mm=500)
TANK = box(600, 300, 300, x_mm=150, y_mm=100, z_mm=20, bend_radius_mm=4.5)


class Openings(TestCase):
    """Through the opening."""

    def test_opening(self) -> None:
        """634 over its lips, 300 wide and high: through 640 × 310, end first through 310 × 310, not through 290."""
        for long, wide, passes, straight in (
            (640.0, 310.0, True, True),
            (310.0, 310.0, True, False),
            (290.0, 700.0, False, False),
        ):
            room = ROOM.model_copy(update={"opening": Opening(side="roof", a_mm=0, b_mm=0, long_mm=long, wide_mm=wide)})
            answer = evaluate(Design(bay=room, shell=TANK), None, Showing(remedies=False)).bay.goes_in
            assert answer is not None
            self.assertEqual((answer.passes, answer.straight), (passes, straight))
        self.assertAlmostEqual(answer.room_mm, -10, places=6)

    def test_opening_across_the_corner(self) -> None:
        """A plate 700 × 20 in section goes through 520 × 520 turned by 45°, not through 490."""
        plate = box(400, 700, 26, thickness_mm=1.0, bend_radius_mm=0.0)
        for side, passes in ((520.0, True), (490.0, False)):
            room = ROOM.model_copy(update={"opening": Opening(a_mm=0, b_mm=0, long_mm=side, wide_mm=side)})
            answer = evaluate(Design(bay=room, shell=plate), None, Showing(remedies=False)).bay.goes_in
            assert answer is not None
            ends = next(way for way in answer.ways if way.leading == "front or rear")
            self.assertEqual(ends.passes, passes)
            self.assertAlmostEqual(ends.turned_deg % 90, 45, delta=0.5)

    def room_with(self, long: float, wide: float, **more: float) -> Bay:
        """A bay with an opening of that size in its roof."""
        return ROOM.model_copy(update={"opening": Opening(a_mm=0, b_mm=0, long_mm=long, wide_mm=wide)} | more)

    def opening_answer(self, subject: Design) -> tuple[GoesIn, list[Finding]]:
        """Whether a design goes in, and what is found about it."""
        seen = evaluate(subject, None, Showing(remedies=False))
        assert seen.bay.goes_in is not None
        return seen.bay.goes_in, [finding for finding in seen.findings if finding.code.startswith("opening.")]

    def test_opening_passed_leaning(self) -> None:
        """A wedge of 400 × 400 in section, 500 long, is 283 over its slant: through 510 × 290 leaning by 45° only."""
        corners = tuple(Corner(across_mm=a, up_mm=u) for a, u in ((0, 0), (400, 0), (0, 400)))
        wedge = ProfileShell(corners=corners, run_mm=500, thickness_mm=2, bend_radius_mm=3)
        for wide, passes in ((290.0, True), (278.0, False)):
            answer, (finding,) = self.opening_answer(Design(bay=self.room_with(510.0, wide), shell=wedge))
            self.assertEqual(answer.passes, passes, answer.ways)
            if passes:
                self.assertAlmostEqual(answer.best.leaning_deg, 45, delta=2)
                self.assertIn("leaning", finding.title.plain())
                self.assertFalse(any(way.passes for way in answer.ways if way.leaning_deg < 1))

    def test_opening_with_ports_off(self) -> None:
        """300 high and wide, into 640 × 310 and 350 deep: a bolted valve and a hose have to come off.

        A low plug may stay on; a neck that is welded on has to go through.
        """
        seat = {"hole_mm": 30, "outer_mm": 50}
        at = {"x_mm": 300, "y_mm": 280, "face": "left", "z_mm": 150, "across_mm": 60}
        valve = Port.model_validate({"id": "v", "name": "valve", "stands_mm": 60, "seat": seat} | at)
        plug = Port.model_validate({"id": "p", "name": "plug", "stands_mm": 8, "seat": seat} | at | {"x_mm": 60})
        neck = Port.model_validate({"id": "n", "name": "neck", "stands_mm": 8, "seat": {"kind": "neck"} | seat} | at)
        bend = neck.model_copy(update={"bend": HoseBend(outer_mm=40, radius_mm=60)})
        welded = neck.model_copy(update={"stands_mm": 60.0})
        room = self.room_with(640, 310, height_mm=350)
        for ports, off in (((valve, plug), ["valve"]), ((bend,), ["the hose at neck"]), ((plug, neck), [])):
            answer, found = self.opening_answer(Design(bay=room, shell=TANK, ports=ports))
            self.assertEqual((answer.off, answer.passes), (off, True))
            self.assertEqual([f.code for f in found], ["opening.ports_off"] if off else [])
        answer, (finding,) = self.opening_answer(Design(bay=room, shell=TANK, ports=(welded,)))
        self.assertTrue(answer.best.turns_inside)
        self.assertIn("not calculated", finding.why.plain())

    def test_a_way_in_longer_than_the_bay_is_deep(self) -> None:
        """End first through 310 × 310 it reaches 634 in; in a bay 500 deep that ends in a turn, and it says so."""
        for deep, said in ((500.0, True), (700.0, False)):
            answer, (finding,) = self.opening_answer(Design(bay=self.room_with(310, 310, height_mm=deep), shell=TANK))
            self.assertTrue(answer.passes)
            self.assertEqual("not calculated" in finding.why.plain(), said)


class Hoses(TestCase):
    """What bends over above a port."""

    def test_hose_bend_has_a_body(self) -> None:
        """By Pappus, with its reach to the side, up and out by face."""
        bend = HoseBend(outer_mm=30, radius_mm=80, turns_deg=90, run_mm=50)
        solids = build(TANK)
        for face, way, along in (("roof", 2, 0), ("front", 0, 2), ("left", 1, 0)):
            port = Port.model_validate(
                {"id": "h", "name": "h", "face": face, "x_mm": 300, "y_mm": 150, "z_mm": 150, "stands_mm": 20}
                | {"across_mm": 0, "bend": bend.model_dump()}
            )
            (hose,) = standing(solids, port)
            length = 80 * np.pi / 2 + 50
            self.assertAlmostEqual(hose.solid.volume() / (np.pi * 15**2 * length), 1, delta=2e-3)
            box, root = hose.solid.bounding_box(), surface_at(solids, port)
            self.assertAlmostEqual(box[3 + way], root[way] + 20 + 80 + 15, delta=0.2)
            self.assertAlmostEqual(box[3 + along], root[along] + 80 + 50, delta=0.2)

    def test_hose_bend_that_fouls(self) -> None:
        """A hose towards a strut beside the port: it is named, and letting it leave elsewhere settles it."""
        strut = KeepOut(id="k", name="strut", x_mm=600, y_mm=100, z_mm=370, length_mm=40, width_mm=200, height_mm=100)
        room = ROOM.model_copy(update={"keep_outs": [strut]})
        bend = HoseBend(outer_mm=30, radius_mm=60, run_mm=60)
        seat = {"hole_mm": 30, "outer_mm": 50}
        port = Port.model_validate(
            {"id": "h", "name": "outlet", "x_mm": 400, "y_mm": 150, "stands_mm": 20, "seat": seat}
            | {"across_mm": 30, "bend": bend.model_dump()}
        )
        subject = Design(bay=room, shell=TANK, ports=(port,))
        finding = next(f for f in evaluate(subject).findings if f.key == "bay.clearance:k")
        self.assertIn("hose at outlet", finding.title.plain())
        turned = [r for r in finding.remedies if "leave at" in r.label.plain()]
        self.assertTrue(turned)
        for remedy in turned:
            after = evaluate(apply(subject, remedy.patch), None, Showing(remedies=False))
            self.assertNotIn(finding.key, {f.key for f in after.findings})
