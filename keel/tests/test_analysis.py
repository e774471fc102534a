"""Studies declare what they read: what was worked out before is the same as what would be worked out now."""

import json
from typing import Any
from unittest import TestCase

from hypothesis import given, settings
from hypothesis import strategies as st

from keel.analysis.memory import Memory
from keel.analysis.parts import BRIEF, SHELL, only
from keel.analysis.showing import Showing
from keel.analysis.study import Maybe, study
from keel.analysis.tank import Asked, TankAnalysis
from keel.design.document import Design
from keel.design.workshop import Workshop
from keel.evaluation import evaluate
from keel.findings.patch import apply
from keel.solid.faults import GeometryError
from keel.solid.solids import AnyShell
from keel.tests.samples import box, design

RICH: dict[str, Any] = {
    "brief": {
        "target_l": 60,
        "vehicle_kg": 900,
        "cases": [{"id": "c", "name": "race", "power_kw": 150, "rail_kpa": 300}],
        "surge": {"uncovered_s": 4},
    },
    "bay": {
        "length_mm": 900,
        "width_mm": 560,
        "height_mm": 420,
        "opening": {"side": "roof", "a_mm": 10, "b_mm": 10, "long_mm": 850, "wide_mm": 500},
        "keep_outs": [
            {"id": "k", "name": "strut", "kind": "cylinder", "axis": "z", "x_mm": 850, "y_mm": 60, "z_mm": 0}
            | {"diameter_mm": 60, "run_mm": 400}
        ],
    },
    "shell": {
        "length_mm": 700,
        "width_mm": 420,
        "height_mm": 260,
        "x_mm": 40,
        "y_mm": 60,
        "z_mm": 40,
        "thickness_mm": 2,
        "features": [
            {"kind": "sump", "id": "s", "name": "sump", "a_mm": 60, "b_mm": 140}
            | {"long_mm": 160, "wide_mm": 140, "deep_mm": 30},
            {"kind": "baffle", "id": "b", "name": "baffle", "axis": "x", "at_mm": 340, "corner_mm": 40},
        ],
    },
    "ports": [
        {"id": "p", "name": "pickup", "role": "pickup", "x_mm": 140, "y_mm": 210, "hanger": {"made_for_mm": 230}},
        {"id": "v", "name": "vent", "role": "vent", "x_mm": 40, "y_mm": 40, "vent": {"bore_mm": 8}},
        {
            "id": "f",
            "name": "filler",
            "role": "filler",
            "x_mm": 600,
            "y_mm": 200,
            "seat": {"hole_mm": 50, "outer_mm": 80},
        },
    ],
    "gauge": {
        "senders": [
            {"id": "g", "name": "sender", "x_mm": 480, "y_mm": 200}
            | {"action": {"kind": "swing arm", "made_arm_mm": 180, "empty_deg": -40, "full_deg": 40}}
        ]
    },
}
EDITS: dict[str, list[dict[str, Any]]] = {
    "moved": [{"shell": {"z_mm": 55}}, {"shell": {"x_mm": 20}}],
    "shaped": [{"shell": {"thickness_mm": 3}}, {"shell": {"height_mm": 300}}, {"shell": {"features": []}}],
    "joined": [{"sheet": {"seam": "floor"}}, {"sheet": {"flange_mm": 25}}],
    "asked": [{"brief": {"fuel": "diesel"}}, {"brief": {"target_l": 90}}, {"brief": {"cases": [], "surge": None}}],
    "filled": [{"inside": {"foam": {}}}, {"filling": {"nozzle_bore_mm": 25}}, {"gauge": {"reserve_l": 5}}],
    "cleared": [{"bay": {"keep_outs": []}}, {"bay": {"opening": None}}, {"bay": None}],
    "piped": [
        {"ports": RICH["ports"][:2]},
        {"ports": [RICH["ports"][0] | {"name": "draw"}, *RICH["ports"][1:]]},
        {"ports": [RICH["ports"][0], RICH["ports"][1] | {"x_mm": 650.0, "stands_mm": 60.0}, RICH["ports"][2]]},
    ],
    "gauged": [{"gauge": {"senders": []}}],
}
LOOKS = [
    {},
    {"fill_fraction": 0.3},
    {"attitude": {"pitch_deg": 10}},
    {"attitude": {"forward_g": -0.8}, "cut_x_mm": 100.0},
    {"results": ("brief", "bay.gaps")},
]
SHOPS = [{}, {"rules": {"bump_g": 4.0}}, {"rules": {"brush_mm": 60.0}}, {"rules": {"pump_margin": 0.4}}]


class Reused(TestCase):
    """One memory for many questions."""

    @given(st.data())
    @settings(max_examples=7, deadline=None)
    def test_reused_and_fresh_are_identical(self, data: st.DataObject) -> None:
        """Whatever was edited on the way here, by whatever rules, however it is looked at."""
        memory, subject = Memory(), Design.model_validate(RICH)
        for _ in range(data.draw(st.integers(2, 5), "edits")):
            patch = data.draw(st.sampled_from([patch for kind in EDITS.values() for patch in kind]), "patch")
            shop = Workshop.model_validate(data.draw(st.sampled_from(SHOPS), "shop"))
            look = data.draw(st.sampled_from(LOOKS), "look") | {"remedies": data.draw(st.booleans(), "rested")}
            if subject.bay is not None or not patch.get("bay"):
                subject = apply(subject, patch)
            showing = Showing.model_validate(look)
            try:
                fresh = evaluate(subject, shop, showing)
            except GeometryError as error:
                with self.assertRaisesRegex(GeometryError, str(error)[:20]):
                    evaluate(subject, shop, showing, memory=memory)
                continue
            reused = evaluate(subject, shop, showing, memory=memory)
            self.assertEqual(json.loads(reused.model_dump_json()), json.loads(fresh.model_dump_json()))

    def test_what_did_not_change_is_not_worked_out_again(self) -> None:
        """The same again takes nothing; a name in the brief no solid; a moved port no flat."""
        memory, subject = Memory(), Design.model_validate(RICH)
        still = Showing(remedies=False)
        evaluate(subject, None, still, memory=memory)

        def worked_out(patch: dict[str, Any]) -> set[str]:
            before = memory.worked_out.copy()
            evaluate(apply(subject, patch), None, still, memory=memory)
            return {name.rpartition(".")[2] for name in memory.worked_out - before}

        self.assertEqual(worked_out({}), set())
        self.assertEqual(
            worked_out({"brief": {"reason": "leaks"}}) & {"solids_of", "capacity", "panels", "gaps"}, set()
        )
        moved = worked_out(EDITS["piped"][2])
        self.assertLessEqual({"level_drained", "envelope_of", "gaps"}, moved)
        self.assertEqual(moved & {"solids_of", "shell_sheet", "internal_parts", "panels", "bracing"}, set())


class Declared(TestCase):
    """What a study reads is all that it gets."""

    def test_only_what_is_named(self) -> None:
        """A design with a few parts has the others empty; without a shell what needs one isn't there."""
        tank = TankAnalysis(Asked(Design.model_validate(RICH)))
        seen = tank[only("shell", "sheet.seam")]
        self.assertEqual((seen.shell, seen.ports, seen.bay), (tank.design.shell, (), None))
        bare = TankAnalysis(Asked(Design()))
        self.assertIsNone(bare.get(only("shell")))
        self.assertIsNotNone(bare.get(only("shell?")))
        with self.assertRaises(LookupError):
            bare[SHELL]

    def test_run_once_and_only_if_it_has_to(self) -> None:
        """A study runs once an analysis, again only if what it read is another; by value, if what that gives is."""
        ran: list[str] = []

        def wall(shell: AnyShell) -> float:
            ran.append("wall")
            return shell.thickness_mm

        def doubled(mm: float) -> float:
            ran.append("doubled")
            return 2 * mm

        def said(mm: float | None) -> str:
            return f"{mm}"

        thickness = study(wall, SHELL).by_value()
        twice = study(doubled, thickness)
        self.assertEqual(study(said, Maybe(twice)).returns, str)
        memory = Memory()
        for thick, long in ((2.0, 500), (2.0, 500), (2.0, 600), (3.0, 600)):
            tank = TankAnalysis(Asked(design(box(long, thickness_mm=thick))), memory)
            self.assertEqual((tank[twice], tank[twice]), (2 * thick, 2 * thick))
        self.assertEqual(ran, ["wall", "doubled", "wall", "wall", "doubled"])

    def test_the_last_few_are_kept(self) -> None:
        """A study keeps so many results; what an analysis holds outlasts what came after it."""
        first = study(lambda brief: brief.target_l, BRIEF).keeping(2)
        memory = Memory()

        def ask(litres: float) -> TankAnalysis:
            tank = TankAnalysis(Asked(Design.model_validate({"brief": {"target_l": litres}})), memory)
            self.assertEqual(tank[first], litres)
            return tank

        base = ask(10)
        ask(20)
        base.hold()
        ask(30)
        ask(10)
        self.assertEqual(sum(memory.worked_out.values()), 3)
        ask(20)
        self.assertEqual(sum(memory.worked_out.values()), 4)
