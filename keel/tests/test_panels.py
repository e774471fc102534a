"""Panels: how their edges are held, what presses on them, what they bear."""

import json
from itertools import product
from typing import Any
from unittest import TestCase

import numpy as np
import numpy.typing as npt

from keel.analysis.showing import Showing
from keel.design.workshop import HouseRules, Workshop
from keel.evaluation import Evaluation, evaluate
from keel.formats.document import read_design
from keel.reference.plates import ROWS, STRIP_BETA, Held
from keel.studies.strength.panels.panel import Panel, how_held
from keel.studies.strength.plate_bending import coefficients, panel_deflection_mm, panel_stress_mpa, pushed_kpa

Array = npt.NDArray[np.float64]
HOW: dict[str, Held] = {"c": "clamped", "s": "simply supported"}
ENDS = {"cc": "both", "cs": "one", "ss": "none"}


def chebyshev(n: int) -> Array:
    """The matrix that differentiates at n + 1 Chebyshev points of −1 … 1."""
    x = np.cos(np.pi * np.arange(n + 1) / n)
    c = np.hstack([2, np.ones(n - 1), 2]) * (-1.0) ** np.arange(n + 1)
    between = x[:, None] - x[None, :] + np.eye(n + 1)
    d = np.outer(c, 1 / c) / between
    return np.asarray(d - np.diag(d.sum(axis=1)))


def plate(long: float, of_long: str, of_short: str, n: int = 20) -> tuple[float, float]:
    """β and α of a plate 1 wide by plate theory: ∇⁴w = q/D at Chebyshev points, edges as two letters each."""
    d, one = chebyshev(n), np.eye(n + 1)
    dx, dy = d * 2 / long, d * 2
    xx, yy = np.kron(dx @ dx, one), np.kron(one, dy @ dy)
    system, load = xx @ xx + 2 * xx @ yy + yy @ yy, np.ones((n + 1) ** 2)
    at = np.arange((n + 1) ** 2).reshape(n + 1, n + 1)
    free = {"c": (np.kron(dx, one), np.kron(one, dy)), "s": (xx, yy)}
    for k in range(1, n):
        for letter, edge, within in ((of_long[1], 0, 1), (of_long[0], n, n - 1)):
            system[at[within, k]], load[at[within, k]] = free[letter][0][at[edge, k]], 0
    for k in range(2, n - 1):
        for letter, edge, within in ((of_short[1], 0, 1), (of_short[0], n, n - 1)):
            system[at[k, within]], load[at[k, within]] = free[letter][1][at[k, edge]], 0
    for edge in {*at[0], *at[n], *at[:, 0], *at[:, n]}:
        system[edge], load[edge] = np.eye((n + 1) ** 2)[edge], 0
    bow = np.linalg.solve(system, load)
    moments = (xx @ bow + 0.3 * (yy @ bow), yy @ bow + 0.3 * (xx @ bow))
    return 6 * max(float(np.abs(m).max()) for m in moments), 12 * (1 - 0.3**2) * float(np.abs(bow).max())


def seen(shell: dict[str, Any], rules: HouseRules | None = None, **more: Any) -> Evaluation:
    """A shell evaluated."""
    workshop = None if rules is None else Workshop(rules=rules)
    return evaluate(read_design(json.dumps({"shell": shell, **more})), workshop, Showing(remedies=False))


def panel(evaluation: Evaluation, name: str) -> Panel:
    """One of its panels."""
    return next(found for found in evaluation.shell.panels if found.name == name)


BOX = {"kind": "box", "length_mm": 800, "width_mm": 400, "height_mm": 300, "thickness_mm": 2.5, "bend_radius_mm": 4}


class PlateTheory(TestCase):
    """Coefficients against the plate equation itself."""

    def test_mixed_rows_are_never_below_it(self) -> None:
        """Every mix, between the columns too: what the equation says, or up to a hundredth more."""
        for (of_long, ends), (of_short, sides) in product(ENDS.items(), repeat=2):
            if ends == sides and ends != "one":
                continue
            for ratio in (1.05, 1.35, 1.9, 2.75):
                held = tuple(HOW[letter] for letter in of_long + of_short)
                assert len(held) == 4
                found, theory = coefficients(ratio, 1.0, held), plate(ratio, of_long, of_short)
                for value, right, most, near in zip(found, theory, (STRIP_BETA, 0.1421), (5e-4, 5e-3), strict=True):
                    self.assertGreaterEqual(value, min(right, most) * (1 - near), (of_long, of_short, ratio))
                    self.assertLess(value, right * 1.015, (of_long, of_short, ratio))

    def test_handbook_rows(self) -> None:
        """The rows with four edges alike, at their columns."""
        for letter, ends in (("cc", "both"), ("ss", "none")):
            row = ROWS[ends, ends]  # type: ignore[index]
            for ratio, beta, alpha in zip(row.ratios[:6], row.beta, row.alpha, strict=False):
                right = plate(ratio, letter, letter)
                self.assertAlmostEqual(beta, right[0], delta=0.003 * right[0])
                self.assertAlmostEqual(alpha, right[1], delta=0.006 * right[1])

    def test_a_square_with_one_clamped_edge(self) -> None:
        """Neither handbook row is safe: 0.50 against 0.31 and 0.29."""
        held: tuple[Held, Held, Held, Held] = ("clamped", "simply supported", "simply supported", "simply supported")
        self.assertGreater(coefficients(1, 1, held)[0], 0.50)
        self.assertLess(max(coefficients(1, 1)[0], coefficients(1, 1, "simply supported")[0]), 0.31)

    def test_worked_panels(self) -> None:
        """5052-H32 as welded, 0.6 of 90 MPa: panels by their edges, a pushed partition, and its sheet."""
        cases = (
            (700, 380, 2.5, "cccc", 4.776275032, 4.776275032),
            (700, 380, 2.5, "ccss", 3.107, 3.3872),
            (700, 300, 2.5, "cccc", 7.5, 7.5),
            (380, 300, 2.0, "ssss", 5.973120956, 5.973120956),
            (380, 300, 2.0, "cscc", 3.1904, 5.4739),
        )
        for first, second, thick, letters, least, most in cases:
            a, b, c, d = (HOW[letter] for letter in letters)
            bears = 54.0 / panel_stress_mpa(1.0, first, second, thick, (a, b, c, d))
            self.assertGreaterEqual(bears, least * 0.997, letters)
            self.assertLessEqual(bears, most * 1.003, letters)
        self.assertAlmostEqual(panel_deflection_mm(4.776275032, 700, 380, 2.5, 70), 2.450348403, delta=0.007)
        pressed = pushed_kpa(0.745, 300, 420, 4.0) + 3.0
        self.assertAlmostEqual(pressed, 17.46578941, places=5)
        stress = panel_stress_mpa(pressed, 380, 300, 2.5, "simply supported")
        self.assertAlmostEqual(stress, 101.0556603, delta=0.3)
        self.assertAlmostEqual(2.5 * (stress / 54) ** 0.5, 3.41997909, delta=0.01)


class Edges(TestCase):
    """Edges follow the joints, and what the user says of them."""

    def test_a_flat_end_set_in_can_turn(self) -> None:
        """Ends of a profile are welded on one side: β of a plate on supports, 21 % less than clamped here."""
        corners = [{"across_mm": a, "up_mm": b} for a, b in ((0, 0), (600, 0), (600, 300), (0, 300))]
        shell = {"kind": "profile", "corners": corners, "run_mm": 500, "thickness_mm": 2, "wrap_axis": "x"}
        ends = panel(seen(shell), "ends")
        self.assertEqual(how_held(ends), "simply supported all round")
        self.assertAlmostEqual(ends.proof_kpa, 54 * 4 / (0.6102 * 300**2) * 1e3, delta=0.01)
        held = [{"panel": "ends", "beside": edge.beside, "held": "clamped"} for edge in ends.edges]
        inside = panel(seen(shell | {"edges": held}), "ends")
        self.assertAlmostEqual(inside.proof_kpa / ends.proof_kpa, 0.6102 / 0.4974, places=4)
        self.assertEqual({edge.joint for edge in inside.edges}, {"as typed"})

    def test_a_box_by_its_scheme(self) -> None:
        """Pans are bent all round; the wrapper turns at its lips, and at a seam that lies in a corner."""
        plain = seen(BOX)
        self.assertEqual(how_held(panel(plain, "rear and front")), "clamped all round")
        lid = {edge.beside: edge.held for edge in panel(plain, "lid").edges}
        self.assertEqual(lid["rear end"], "simply supported")
        self.assertEqual((lid["right side"], lid["left side"]), ("clamped", "clamped"))
        seamed = {edge.beside: edge for edge in panel(seen(BOX, sheet={"seam": "corner butt"}), "lid").edges}
        self.assertEqual(seamed["right side"].joint, "weld on one side")
        self.assertEqual(seamed["left side"].joint, "bend")

    def test_round_ends(self) -> None:
        """A flat end of a cylinder on its weld: σ = 1.2375 q R²/t²."""
        shell = {"kind": "cylinder", "diameter_mm": 400, "run_mm": 600, "thickness_mm": 2, "metal": "5052-H32"}
        self.assertAlmostEqual(panel(seen(shell), "ends").proof_kpa, 54 / (1.2375 * 100**2) * 1e3, places=4)

    def test_a_brace_is_an_edge(self) -> None:
        """The field beside a baffle ends at it, held by the sheet that goes on over it."""
        shell = BOX | {"features": [{"kind": "baffle", "id": "b", "name": "plate b", "at_mm": 298.75}]}
        floor = panel(seen(shell), "floor")
        self.assertEqual(floor.first_mm, 500)
        self.assertEqual((floor.edges[0].beside, floor.edges[0].held), ("plate b", "clamped"))


class Partitions(TestCase):
    """A plate without openings is a panel with fuel on one side."""

    wall = {"kind": "partition", "id": "p", "name": "wall", "at_mm": 299.5, "thickness_mm": 1.0, "flange_mm": 0}

    def test_a_thin_one_is_the_tank_s_weakest(self) -> None:
        """1 mm in 800 × 400 × 300 bears about 1.5 kPa, and so the tank does."""
        found = seen(BOX | {"thickness_mm": 3.0, "features": [self.wall]})
        self.assertAlmostEqual(panel(found, "wall").proof_kpa, 1.5, delta=0.1)
        self.assertEqual(found.shell.safe_proof_kpa, panel(found, "wall").proof_kpa)
        weak = next(finding for finding in found.findings if finding.code == "proof.weak")
        self.assertIn("Test pressure of the wall at most 1.5 kPa", weak.title.plain())

    def test_the_longer_cell_is_pushed_against_it(self) -> None:
        """At 4 g: ρ (g H + a L) over H = 295 mm and the 500 mm of the longer cell."""
        found = panel(seen(BOX | {"features": [self.wall]}, HouseRules(push_g=4)), "wall")
        self.assertAlmostEqual(found.pressure_kpa, 0.745 * 9.80665 * (295 + 4 * 500) / 1000, places=4)
        self.assertAlmostEqual(found.stress_share, found.stress_mpa / 90, places=9)

    def test_the_rule_s_share_is_said(self) -> None:
        """Not always 60 %."""
        found = seen(BOX | {"thickness_mm": 1.5}, HouseRules(stress_share=0.5))
        self.assertEqual({p.allowed_share for p in found.shell.panels}, {0.5})
        said = next(finding for finding in found.findings if finding.code == "wall.thin")
        self.assertIn("50 % of the yield", said.why.plain().replace("50.0", "50"))
        self.assertIn("Its edges: ", said.why.plain())
