"""What a tank bears under test, where its seams run, and what is wrong with a plan."""

from typing import Any
from unittest import TestCase

import numpy as np
from hypothesis import given, settings

from keel.analysis.parts import SOLIDS
from keel.analysis.tank import Asked, TankAnalysis
from keel.design.document import Design
from keel.design.proof import TestGauge
from keel.design.shell import BoxShell
from keel.design.workshop import HouseRules, Workshop
from keel.evaluation import Evaluation, evaluate
from keel.solid.facets import facets_of
from keel.solid.faults import GeometryError
from keel.studies.proof.bearing import SAFE_PROOF, WALL_PANELS
from keel.studies.proof.methods import METHODS, MethodFigures
from keel.studies.proof.plan import PROOF_PLAN, CellPlan, ProofPlan
from keel.studies.proof.seam_paths import SEAM_PATHS, chained
from keel.studies.proof.walk import WALK, WalkSeam
from keel.studies.proof.wall import TestPanel
from keel.studies.sheet.flats import FLATS
from keel.studies.strength.curved import dish_buckling_kpa, hoop_kpa, round_wall_buckling_kpa
from keel.studies.strength.panels.let_in import let_in_faces
from keel.studies.strength.panels.loads import Loads
from keel.studies.strength.panels.rows import PANELS
from keel.tests.samples import box, shells
from keel.tests.wild import Wild

ALUMINIUM: dict[str, Any] = {"metal": "5052-H32", "thickness_mm": 2.5}
WALL: dict[str, Any] = {"kind": "partition", "id": "wall", "name": "wall", "at_mm": 500.0}
CYLINDER: dict[str, Any] = {"kind": "cylinder", "diameter_mm": 300.0, "run_mm": 500.0, "thickness_mm": 1.5}
CYLINDER |= {"metal": "mild steel"}
STOUT = CYLINDER | {"diameter_mm": 110.0, "run_mm": 270.0, "thickness_mm": 3.0}


def tank(shell: dict[str, Any], workshop: Workshop | None = None, **more: Any) -> TankAnalysis:
    """A tank to be asked about."""
    document = {"shell": box().model_dump() | shell if "kind" not in shell else shell} | more
    return TankAnalysis(Asked(Design.model_validate(document), workshop or Workshop()))


def walls(shell: dict[str, Any]) -> dict[str, TestPanel]:
    """Its wall by name; of several the weakest."""
    found: dict[str, TestPanel] = {}
    for panel in tank(shell)[WALL_PANELS]:
        found.setdefault(panel.name, panel)
    return found


def plan(shell: dict[str, Any], workshop: Workshop | None = None, **proof: Any) -> ProofPlan:
    """How it is tested."""
    return tank(shell, workshop, proof=proof)[PROOF_PLAN]


def cell(shell: dict[str, Any], **proof: Any) -> CellPlan:
    """The first of its cells."""
    return plan(shell, **proof).cells[0]


class Walls(TestCase):
    """What each part of the wall bears."""

    def test_by_hand(self) -> None:
        """A box of welded plates: q = 0.6 σ t²/(β b²), the simply supported row; all six faces lie where they are."""
        plates = {"length_mm": 820.0, "width_mm": 420.0, "height_mm": 360.0} | ALUMINIUM
        found = tank(plates, sheet={"scheme": "flat plates"})[WALL_PANELS]
        lid = next(panel for panel in found if panel.name == "lid")
        beta = 0.5688 + (820 / 420 - 1.8) / 0.2 * (0.6102 - 0.5688)
        self.assertAlmostEqual(lid.safe_kpa, 54e3 * 2.5**2 / (beta * 420**2), 3)
        self.assertEqual(lid.held, "simply supported all round")
        self.assertEqual({panel.name for panel in found}, {"lid", "floor", "rear end", "front end", *SIDES})
        for panel in found:
            corners = np.array([[p.x, p.y, p.z] for p in panel.corners])
            first, second = np.linalg.norm(np.diff(corners, axis=0), axis=1)[:2]
            self.assertAlmostEqual(first, panel.first_mm)
            self.assertAlmostEqual(second, panel.second_mm)

    @settings(max_examples=30, deadline=None)
    @given(shells())
    def test_no_panel_is_left_out(self, shell: BoxShell) -> None:
        """The weakest of the wall is the weakest of the panels that Shell judges, and what is shown during a drag."""
        asked = TankAnalysis(Asked(Design(shell=shell), Workshop()))
        weakest = asked[WALL_PANELS][0].safe_kpa
        self.assertAlmostEqual(weakest, min(panel.proof_kpa for panel in asked[PANELS]))
        self.assertAlmostEqual(asked[SAFE_PROOF], min(20.0, weakest))

    def test_a_well_of_thin_sheet(self) -> None:
        """Sides of what is let in count too: a large one of thin sheet is the weakest, and Shell says so."""
        well = {"kind": "well", "id": "w", "name": "deep well", "a_mm": 100.0, "b_mm": 60.0, "deep_mm": 200.0}
        well |= {"long_mm": 500.0, "wide_mm": 250.0}
        shell = {"thickness_mm": 4.0, "features_thickness_mm": 1.0, "features": [well]}
        asked = tank(shell)
        weakest = asked[WALL_PANELS][0]
        self.assertEqual((weakest.name, weakest.what), ("deep well, bottom", "well"))
        self.assertEqual((weakest.first_mm, weakest.second_mm), (500.0, 250.0))
        self.assertLess(asked[SAFE_PROOF], min(panel.proof_kpa for panel in asked[PANELS]))
        found = evaluate(asked.design)
        self.assertTrue(any("deep well, bottom" in one.title.plain() for one in found.findings))

    def test_where_let_in_sides_lie(self) -> None:
        """Corners of every side of sloped wells and sumps, steps and reliefs lie on its plane, and bow out of it."""
        sloped = {"a_mm": 100.0, "b_mm": 60.0, "long_mm": 200.0, "wide_mm": 150.0, "deep_mm": 80.0, "slope_mm": 20.0}
        step = {"kind": "roof step", "id": "s", "name": "step", "reach_mm": 150.0, "drop_mm": 60.0}
        relief = {"kind": "relief", "id": "r", "name": "relief", "x_mm": -10.0, "y_mm": 300.0, "z_mm": -10.0}
        relief |= {"length_mm": 900.0, "width_mm": 200.0, "height_mm": 70.0}
        features: list[dict[str, Any]] = [
            sloped | {"kind": "well", "id": "w", "name": "well"},
            sloped | {"kind": "well", "id": "v", "name": "side well", "face": "left"},
            sloped | {"kind": "sump", "id": "p", "name": "sump"},
            *(step | {"id": side, "name": side, "side": side} for side in ("front", "left")),
            relief,
        ]
        for document in features:
            asked = tank({"features": [document]})
            feature, body = asked.shell.features[0], asked[SOLIDS].body
            loads = Loads("petrol E10", asked[SOLIDS], HouseRules(), ())
            facets = {f"{document['name']}, {one.name}": one for one in facets_of(feature, body)}  # type: ignore[arg-type]
            faces = list(let_in_faces(asked[SOLIDS], loads))
            self.assertEqual(len(faces), {"roof step": 2, "relief": 2}.get(document["kind"], 5))
            for face in faces:
                facet, frame = facets[face.name], face.frames[0]
                corner, first, second = (np.array(each) for each in (frame.corner, frame.first, frame.second))
                out = 1.0 if document["kind"] == "sump" else -1.0
                np.testing.assert_allclose(frame.out, out * facet.normal, atol=1e-9)
                for u, v in ((0.0, 0.0), (face.sides[0], 0.0), (0.0, face.sides[1])):
                    self.assertAlmostEqual(float((corner + u * first + v * second) @ facet.normal), facet.offset, 6)

    def test_cells(self) -> None:
        """A partition is pressed from both cells, each face from the cell that it shuts."""
        found = walls({"features": [WALL]})
        self.assertEqual(found["wall"].cells, ["rear cell", "front cell"])
        self.assertEqual(found["rear end"].cells, ["rear cell"])
        self.assertEqual(found["front end"].cells, ["front cell"])
        lids = [panel for panel in tank({"features": [WALL]})[WALL_PANELS] if panel.name == "lid"]
        self.assertEqual({panel.cells[0] for panel in lids}, {"rear cell", "front cell"})
        self.assertEqual({round(panel.first_mm) for panel in lids}, {502, 298})

    def test_round_walls(self) -> None:
        """Pressure stretches a ring, vacuum buckles it long before; a dish's own buckling counts; ends bow."""
        found = walls(CYLINDER)
        stretched = hoop_kpa(0.6 * 210, 150.0, 1.5)
        self.assertAlmostEqual(found["wall"].safe_kpa, stretched)
        buckles = round_wall_buckling_kpa(200.0, 300.0, 1.5, 500.0) / 3
        self.assertAlmostEqual(found["wall"].vacuum_kpa, min(stretched, buckles))
        self.assertLess(found["wall"].vacuum_kpa, stretched)
        self.assertTrue(found["lid"].round)
        dished = walls(CYLINDER | {"dish_mm": 40.0})["lid"]
        ball = (150.0**2 + 40.0**2) / 80.0
        self.assertAlmostEqual(dished.vacuum_kpa, min(dished.safe_kpa, dish_buckling_kpa(200.0, ball, 1.5) / 3))

    def test_round_features(self) -> None:
        """A round well is pressed on its hump, a sump in its hollow; bottoms are discs; a round relief buckles."""
        round_ = {"form": "round", "a_mm": 250.0, "b_mm": 60.0, "long_mm": 250.0, "wide_mm": 1.0, "deep_mm": 100.0}
        well, sump = (round_ | {"kind": kind, "id": kind, "name": kind} for kind in ("well", "sump"))
        relief = {"kind": "relief", "id": "r", "name": "tunnel", "form": "x", "x_mm": -10.0, "y_mm": 150.0}
        relief |= {"z_mm": -100.0, "length_mm": 900.0, "width_mm": 200.0, "height_mm": 200.0}
        thin = {"features_thickness_mm": 0.8, "metal": "mild steel"}
        stretched = hoop_kpa(0.6 * 210, 125.0, 0.8)
        buckles = round_wall_buckling_kpa(200.0, 250.0, 0.8, 100.0) / 3
        for feature, safe, vacuum in ((well, buckles, stretched), (sump, stretched, buckles)):
            found = walls(thin | {"features": [feature]})
            wall, bottom = found[f"{feature['name']}, wall"], found[f"{feature['name']}, bottom"]
            self.assertAlmostEqual(wall.safe_kpa, min(safe, stretched))
            self.assertAlmostEqual(wall.vacuum_kpa, min(vacuum, stretched))
            self.assertTrue(bottom.round)
            self.assertEqual(bottom.out.z, 1.0 if feature is well else -1.0)
            self.assertLess(bottom.safe_kpa, walls(thin)["lid"].safe_kpa * 3)
        tunnel = walls(thin | {"features": [relief]})["tunnel"]
        self.assertAlmostEqual(tunnel.safe_kpa, round_wall_buckling_kpa(200.0, 200.0, 0.8, 800.0) / 3)
        self.assertLess(tank(thin | {"features": [relief]})[SAFE_PROOF], tunnel.safe_kpa + 1e-9)

    def test_buckling_formulas(self) -> None:
        """Longer and thinner buckle sooner; an endless tube has Bresse's pressure, whatever its length."""
        endless = 2 * 200e6 / (1 - 0.09) * (1.5 / 300) ** 3
        self.assertAlmostEqual(round_wall_buckling_kpa(200.0, 300.0, 1.5, 1e6), endless)
        lengths = [round_wall_buckling_kpa(200.0, 300.0, 1.5, long) for long in (200.0, 500.0, 2000.0)]
        self.assertEqual(lengths, sorted(lengths, reverse=True))


SIDES = ("left side", "right side")


class Plans(TestCase):
    """What follows for the test."""

    def test_what_is_not_typed(self) -> None:
        """The usual pressure where the tank bears it, else what its weakest panel does; limiter between the two."""
        strong, weak = cell(STOUT), cell(ALUMINIUM)
        self.assertEqual(strong.pressure_kpa, 10.0)
        self.assertTrue(strong.is_capped)
        self.assertLessEqual(weak.pressure_kpa, weak.safe_kpa)
        self.assertTrue(weak.pressure_kpa <= weak.limiter_kpa <= weak.safe_kpa)
        self.assertAlmostEqual(weak.column_mm, 102 * weak.limiter_kpa)
        self.assertGreaterEqual(weak.minutes, 2 * weak.least_min.both)

    def test_lower_is_longer(self) -> None:
        """At a lower pressure the same hole loses less: it takes longer, and the panel bows less."""
        lower = cell(ALUMINIUM).lower
        self.assertEqual([one.least_min for one in lower], sorted(one.least_min for one in lower))
        self.assertEqual([one.bow_mm for one in lower], sorted((one.bow_mm for one in lower), reverse=True))

    def test_bars(self) -> None:
        """Each bar more makes it no weaker; as many as are planned count."""
        one = cell(ALUMINIUM)
        found = [step.safe_kpa for step in one.braced]
        self.assertEqual(found, sorted(found))
        self.assertGreater(found[-1], one.safe_kpa)
        self.assertEqual(cell(ALUMINIUM, braces=2).bears_kpa, found[1])

    def test_free_volume(self) -> None:
        """Hoses add, parts take; foam takes its share only while it is in."""
        plain = cell(ALUMINIUM)
        brimful = tank(ALUMINIUM)[SOLIDS].brimful_l
        self.assertAlmostEqual(plain.volume_l, brimful)
        self.assertAlmostEqual(cell(ALUMINIUM, hoses_l=0.5, parts_l=2.0).volume_l, brimful - 1.5)
        foam = tank(ALUMINIUM, inside={"foam": {}}, proof={"foam_in": True})
        self.assertLess(foam[PROOF_PLAN].cells[0].volume_l, brimful)
        out = tank(ALUMINIUM, inside={"foam": {}})
        self.assertAlmostEqual(out[PROOF_PLAN].cells[0].volume_l, brimful)


class Methods(TestCase):
    """The methods side by side."""

    def compared(self, shell: dict[str, Any], workshop: Workshop | None = None) -> dict[str, MethodFigures]:
        """By name."""
        return {one.method: one for one in tank(shell, workshop)[METHODS]}

    def test_which_is_favoured(self) -> None:
        """Decay where it decides in a day's work; with a coarse gauge soap, or water where soap shows too little."""
        fine = self.compared(STOUT)
        self.assertEqual([name for name, one in fine.items() if one.is_favoured], ["pressure decay"])
        smallest, limit = fine["pressure decay"].smallest_sccm, cell(STOUT).limit_sccm
        assert smallest is not None
        self.assertLess(smallest, 0.51 * limit)
        coarse = Workshop(test_gauges=[TestGauge(resolution_kpa=1.0)])
        for shell, first in (
            (STOUT | {"run_mm": 20_000.0}, "soap and low pressure"),
            (ALUMINIUM | {"thickness_mm": 1.5}, "submerged"),
        ):
            found = self.compared(shell, coarse)
            self.assertEqual([name for name, one in found.items() if one.is_favoured], [first])

    def test_what_is_hidden(self) -> None:
        """Nobody soaps the wall between two cells; both are tested, so everything takes its time twice."""
        one, two = self.compared(ALUMINIUM), self.compared(ALUMINIUM | {"features": [WALL]})
        self.assertIn("wall", two["soap and low pressure"].misses.plain())
        self.assertEqual(two["submerged"].minutes, 2 * one["submerged"].minutes)


def judged(shell: dict[str, Any], workshop: Workshop | None = None, **proof: Any) -> Evaluation:
    """A plan judged."""
    document = {"shell": box().model_dump() | shell, "proof": proof}
    return evaluate(Design.model_validate(document), workshop)


class Findings(TestCase):
    """Every finding comes up, with its number and limit, and its remedy settles it."""

    def settled(self, code: str, title: str, found: Evaluation) -> None:
        """It comes up with that title, and each remedy offered makes it go away."""
        finding = next((one for one in found.findings if one.code == code), None)
        assert finding is not None, [one.code for one in found.findings]
        self.assertIn(title, finding.title.plain())
        self.assertTrue(finding.remedies, code)
        self.assertFalse(any(one.code == code for one in judged(ALUMINIUM).findings))

    def test_each(self) -> None:
        """Too high, limiter wrong either way, too short, too coarse, beyond the scale, no such gauge, fuel first."""
        safe = cell(ALUMINIUM).safe_kpa
        self.settled("proof.pressure", f"9.000 kPa, limit {safe:.3f} kPa", judged(ALUMINIUM, pressure_kpa=9.0))
        self.settled("proof.limiter", "opens at 15.000 kPa", judged(ALUMINIUM, limiter_kpa=15.0))
        self.settled("proof.limiter", "below the test pressure", judged(ALUMINIUM, limiter_kpa=1.0))
        self.settled("proof.short", "Test of the tank 3 min long", judged(ALUMINIUM, minutes=3.0))
        self.settled("proof.gauge", "lost", judged(ALUMINIUM, gauge="lost"))
        self.settled("proof.paper", "last check", judged(ALUMINIUM, method="filled, on dry paper"))
        coarse = Workshop(test_gauges=[TestGauge(resolution_kpa=1.0), TestGauge(name="fine")])
        self.settled("proof.coarse", "limit 1440 min", judged(ALUMINIUM, coarse))
        short = Workshop(test_gauges=[TestGauge(most_kpa=1.0), TestGauge(name="wide")])
        self.settled("proof.scale", "end of the gauge's scale 1.0 kPa", judged(ALUMINIUM, short))
        rules = Workshop(rules=HouseRules(proof_kpa=60.0, proof_cap_kpa=60.0))
        found = evaluate(Design.model_validate({"shell": STOUT, "proof": {"limiter": "water column"}}), rules)
        self.assertIn("proof.column", {one.code for one in found.findings})


def walked(shell: dict[str, Any], **more: Any) -> dict[str, WalkSeam]:
    """Its seams by name."""
    return {seam.name: seam for seam in tank(shell, **more)[WALK]}


class Seams(TestCase):
    """Where seams run."""

    def test_as_long_as_they_are_welded(self) -> None:
        """Whatever it is made of, the seams in space are the seams that are welded, to the rounds of its corners."""
        schemes = ("wrapper and pans", "wrapper and flat ends", "two U's", "tray and lid", "flat plates")
        for scheme in schemes:
            for seam in ("lid", "side", "floor", "corner butt"):
                asked = tank({"bend_radius_mm": 3.0}, sheet={"scheme": scheme, "seam": seam})
                found = sum(one.length_mm for one in asked[SEAM_PATHS] if one.kind in ("end", "lengthwise"))
                with self.subTest(scheme=scheme, seam=seam):
                    self.assertAlmostEqual(found / asked[FLATS].weld_mm, 1.0, delta=0.025)

    def test_any_design(self) -> None:
        """No design fails; every seam shuts some cell and has a spot to look at first, on it."""
        for seed in range(40):
            wild = TankAnalysis(Asked(Design.model_validate(Wild(seed).document()), Workshop()))
            try:
                seams, cells = wild[WALK], {one.name for one in wild[SOLIDS].cells}
            except (GeometryError, LookupError):
                continue
            for seam in seams:
                with self.subTest(seed=seed, seam=seam.name):
                    self.assertTrue(seam.cells and set(seam.cells) <= cells)
                    self.assertTrue(seam.spots)
                    self.assertTrue(all(-1e-6 <= spot.at_mm <= seam.length_mm + 1e-6 for spot in seam.spots))

    def test_crossings_and_uneven_joints(self) -> None:
        """Where the closing seam meets an end, where a wall passes behind it; a thick end in a thin wall is told."""
        found = walked({"ends_thickness_mm": 5.0, "thickness_mm": 2.0, "features": [WALL]})
        self.assertIn("Crossing of the closing seam", [one.why.plain() for one in found["rear end"].spots])
        self.assertIn("Crossing of the wall", [one.why.plain() for one in found["closing seam"].spots])
        assert found["rear end"].uneven is not None
        self.assertEqual(found["rear end"].uneven.plain(), "5 mm end in 2 mm wall")
        self.assertEqual((found["rear end"].cells, found["wall"].cells), (["rear cell"], ["rear cell", "front cell"]))

    def test_let_in(self) -> None:
        """The seams of a welded well are its mouth, its uprights and its foot; bent ones are left out."""
        well = {"kind": "well", "id": "w", "name": "well", "a_mm": 100.0, "b_mm": 60.0, "deep_mm": 80.0}
        well |= {"long_mm": 200.0, "wide_mm": 150.0}
        welded = walked({"features": [well]})["well"]
        self.assertAlmostEqual(welded.length_mm, 2 * (700.0) + 4 * 80.0, 0)
        folded = walked({"bend_radius_mm": 4.5, "features": [well | {"folded": True}]})["well"]
        self.assertLess(folded.length_mm, welded.length_mm - 600)
        dome = walked({"features": [well | {"form": "round"}]})["well"]
        self.assertAlmostEqual(dome.length_mm, 2 * np.pi * 200.0, delta=8.0)

    def test_tabs_go_through(self) -> None:
        """Each tab is welded round outside: as long as it is wide, as thick as its plate, on the shell's face."""
        plate: dict[str, Any] = {"kind": "baffle", "id": "b", "name": "baffle", "at_mm": 300.0, "thickness_mm": 2.0}
        plate |= {"tabs": {"wide_mm": 20.0, "pitch_mm": 150.0}}
        found = walked({"thickness_mm": 3.0, "features": [plate]})["baffle, tabs"]
        self.assertGreater(len(found.lines), 3)
        self.assertAlmostEqual(found.length_mm, len(found.lines) * 2 * (20.0 + 2.0))
        for line in found.lines:
            faces = [(p.y, p.z) for p in line]
            self.assertTrue(all(y in (0.0, 400.0) for y, _ in faces) or all(z in (0.0, 350.0) for _, z in faces), faces)

    def test_uneven_features(self) -> None:
        """A well of thin sheet in a thick lid is told at its seams."""
        well = {"kind": "well", "id": "w", "name": "well", "a_mm": 100.0, "b_mm": 60.0, "deep_mm": 80.0}
        well |= {"long_mm": 200.0, "wide_mm": 150.0}
        uneven = walked({"thickness_mm": 4.0, "features_thickness_mm": 2.0, "features": [well]})["well"].uneven
        assert uneven is not None
        self.assertEqual(uneven.plain(), "2 mm sheet in 4 mm wall")

    def test_chained(self) -> None:
        """Edges end to end are one line, a branch parts them, and none is lost."""
        spots = np.array([[0, 0, 0], [1, 0, 0], [2, 0, 0], [2, 1, 0], [3, 0, 0]], float)
        edges = np.array([[spots[0], spots[1]], [spots[2], spots[1]], [spots[2], spots[3]], [spots[4], spots[2]]])
        lines = chained(edges)
        self.assertEqual(sorted(len(line.points) for line in lines), [2, 2, 3])
        self.assertAlmostEqual(sum(line.length_mm for line in lines), 4.0)
