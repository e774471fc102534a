"""What the page adds and drags, worked out by the core: each comes out as it was shown."""

import json
from functools import cache
from typing import Any, get_args
from unittest import TestCase

from keel.analysis.showing import Showing
from keel.design.bay import Bay
from keel.design.document import Design
from keel.design.features import Baffle, Feature, Partition, Pot
from keel.design.ports import Port
from keel.design.workshop import Workshop
from keel.evaluation import Evaluation, evaluate
from keel.formats.document import design_from
from keel.solid.neighbours import solid_of_keep_out
from keel.solid.shapes import block, bounds_of
from server.demo.saltmarsh import RULES
from tests.web.node import call
from tests.web.test_pages import TANKS

KINDS = ("well", "sump", "relief", "roof step", "partition", "baffle", "pot")
SHOWN = Showing(results=("shell", "inside", "ports"), remedies=False)


def answer(design: Design) -> Evaluation:
    """What the core says of a design."""
    return evaluate(design, Workshop.model_validate(RULES), SHOWN)


@cache
def opened(name: str) -> tuple[Any, Any]:
    """A demo tank as the page has it: the document and what is known of it."""
    design = design_from(TANKS[name])
    return design.model_dump(mode="json"), json.loads(answer(design).model_dump_json())


class Adding(TestCase):
    """One press adds something that can be made."""

    def test_features(self) -> None:
        """Of every kind, into every demo tank, twice: the core takes it, and it does what its kind does."""
        for name in TANKS:
            for kind in KINDS:
                with self.subTest(tank=name, kind=kind):
                    before = design_from(TANKS[name])
                    # A pot takes up so much of a small tank that a second one may have no room.
                    for _ in range(1 if kind == "pot" else 2):
                        known = answer(before)
                        shown = before.model_dump(mode="json"), json.loads(known.model_dump_json())
                        (document,) = call("edits.ts", [("withFeature", *shown, kind)])
                        after = design_from(document)
                        self.check(after.shell.features[-1], known, answer(after))
                        names = [feature.name for feature in after.shell.features]
                        self.assertEqual(len(set(names)), len(before.shell.features) + 1)
                        before = after

    def check(self, feature: Feature, before: Evaluation, after: Evaluation) -> None:
        """More fuel in a sump, less beside what is cut out; what stands inside takes its metal's room alone."""
        more = after.shell.figures.brimful_l - before.shell.figures.brimful_l
        if feature.kind == "sump":
            self.assertGreater(more, 0)
        elif isinstance(feature, Baffle | Partition | Pot):
            self.assertLess(abs(more), 2.0)
        else:
            self.assertLess(more, -0.01)
        cells = 1 if isinstance(feature, Partition) else 0
        self.assertEqual(len(after.shell.capacity.cells), len(before.shell.capacity.cells) + cells)

    def test_ports(self) -> None:
        """One of each role on every demo tank: on the tank, of different names, none where another stands already."""
        roles = get_args(Port.model_fields["role"].annotation)
        for name in TANKS:
            with self.subTest(tank=name):
                (document,) = call("edits.ts", [("withPorts", *opened(name), roles)])
                design = design_from(document)
                added = {port.id: port for port in design.ports[-len(roles) :]}
                self.assertEqual([port.role for port in added.values()], list(roles))
                self.assertEqual(len({port.name for port in design.ports}), len(design.ports))
                seen = answer(design)
                outside = [f for f in seen.findings if f.code == "port.outside" and f.subject in added]
                self.assertEqual([f.title.plain() for f in outside], [])
                crowds = [f.title.plain() for f in seen.findings if f.code == "port.room"]
                body = seen.shell.geometry.body
                if min(body.high.x - body.low.x, body.high.y - body.low.y) > 250:
                    self.assertEqual(crowds, [])
                self.assertFalse([title for title in crowds if " 0 mm apart" in title])

    def test_keep_outs(self) -> None:
        """Of every kind, twice: each has its own name, and lies in the bay where the page draws it."""
        bay = Bay(length_mm=900, width_mm=520, height_mm=410)
        (document,) = call("edits.ts", [("withKeepOuts", bay.model_dump(mode="json"))])
        made = Bay.model_validate(document)
        self.assertEqual(len({keep_out.name for keep_out in made.keep_outs}), 6)
        (drawn,) = call("edits.ts", [("drawnKeepOuts", document)])
        for keep_out, shown in zip(made.keep_outs, drawn, strict=True):
            solid = solid_of_keep_out(keep_out, made)
            assert solid is not None
            box, seen = bounds_of(solid), bounds_of(solid ^ block((0, 0, 0), (900, 520, 410)))
            if keep_out.kind == "slope":
                self.assertAlmostEqual(min(up for _, up in shown), seen.low[2], places=3)
                continue
            for place, axis in enumerate("xyz"):
                self.assertAlmostEqual(shown["low"][axis], box.low[place], delta=0.2)
                self.assertAlmostEqual(shown["high"][axis], box.high[place], delta=0.2)


class Dragging(TestCase):
    """A face goes where the hand has it; what lies opposite stays."""

    def test_faces_of_the_tank(self) -> None:
        """Each of the six, of every kind of shell, out and in; a drag is one step."""
        for name in ("day tank", "raid tank", "cart tank"):
            document, known = opened(name)
            was = known["shell"]["geometry"]["body"]
            for place in range(6):
                for mm in (37.0, -23.0):
                    with self.subTest(tank=name, face=place, mm=mm):
                        (moved,) = call("edits.ts", [("withFaceMoved", document, known, place, mm)])
                        axis, end = moved["axis"], "high" if moved["high"] else "low"
                        is_ = answer(design_from(moved["design"])).model_dump(mode="json")["shell"]["geometry"]["body"]
                        self.assertEqual(moved["steps"], 1)
                        self.assertAlmostEqual(is_[end][axis], moved["to"], places=2)
                        other = "low" if moved["high"] else "high"
                        self.assertAlmostEqual(is_[other][axis], was[other][axis], places=2)

    def test_far_faces_of_the_bay(self) -> None:
        """The three of them; the near ones are the datum."""
        document, known = opened("day tank")
        (moved,) = call("edits.ts", [("withBayMoved", document, known, 15.0)])
        for size in ("length_mm", "width_mm", "height_mm"):
            self.assertEqual(moved["bay"][size], document["bay"][size] + 15)


class Seams(TestCase):
    """A closing seam that is let go of somewhere on the drawing."""

    def test_to_the_nearest_face(self) -> None:
        """Along lid, side and floor by whole percents, to the middle where that is near, to the corner if it is meant."""
        design = design_from({"shell": {"length_mm": 800, "width_mm": 400, "height_mm": 300}})
        faces = json.loads(evaluate(design).model_dump_json())["sheet"]["seam"]["faces"]
        spots = [[100, 290], [205, 320], [-10, 120], [300, 4], [1, 303]]
        (found,) = call("edits.ts", [("seamsAt", faces, spots, True)])
        self.assertEqual(
            [(one["seam"], one["seam_share"]) for one in found],
            [("lid", 0.25), ("lid", 0.5), ("side", 0.4), ("floor", 0.75), ("corner butt", 0.5)],
        )
        (free,) = call("edits.ts", [("seamsAt", faces, [[203, 290], [399.5, 290]], False)])
        self.assertAlmostEqual(free[0]["seam_share"], 203 / 400)
        self.assertEqual(free[1]["seam_share"], 0.98, "an end too short is none")
