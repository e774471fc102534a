"""Every edge meets what it is welded to."""

import json
from dataclasses import replace
from typing import Any
from unittest import TestCase

import numpy as np
from hypothesis import given, settings
from hypothesis import strategies as st

from keel.analysis.tank import Asked, TankAnalysis
from keel.formats.document import UnreadableDesignError, read_design
from keel.stations.sheet import proof_rules
from keel.studies.sheet.fold_proof import FOLD_PROOF, fold_proof
from keel.studies.sheet.lying import lying
from keel.studies.sheet.seam_proof import SEAM_PROOF, SeamProof, seam_proof
from keel.studies.sheet.shell_parts import BARE_SOLIDS, PIECES, SHELL_PARTS
from keel.tests.test_let_in import tank
from keel.tests.wild import Wild

SCHEMES = ("wrapper and pans", "two U's", "tray and lid", "flat plates", "wrapper and flat ends")
SEAMS = ("lid", "side", "floor", "corner butt", "corner open")


def proof(document: dict[str, Any]) -> SeamProof:
    """Of a design."""
    return TankAnalysis(Asked(read_design(json.dumps(document))))[SEAM_PROOF]


class Meeting(TestCase):
    """Parts folded up, edge by edge."""

    @settings(max_examples=40, deadline=None)
    @given(
        st.sampled_from(SCHEMES),
        st.sampled_from(SEAMS),
        st.sampled_from("xy"),
        st.integers(200, 900),
        st.sampled_from((1.5, 2.0, 3.0, 5.0)),
        st.floats(0, 2),
    )
    def test_every_box(self, scheme: str, seam: str, wrap: str, long: int, thick: float, gap: float) -> None:
        """Of every scheme and seam no edge is open, and none has more to weld over than the gap at the ends."""
        shell = {"length_mm": long, "width_mm": 420, "height_mm": 310, "thickness_mm": thick, "wrap_axis": wrap}
        sheet = {"scheme": scheme, "seam": seam, "pan_gap_mm": round(gap, 2)}
        found = proof({"shell": shell | {"bend_radius_mm": thick * 1.5}, "sheet": sheet})
        self.assertEqual(found.open, [])
        self.assertGreaterEqual(found.edges, 16)
        self.assertLess(found.widest_mm, round(gap, 2) * 2**0.5 + 1e-6)

    def test_profiles_and_rolls(self) -> None:
        """Steps, wedges with welded corners, rolled edges and drums."""
        corners = [
            (0, 0, 0, "bend"),
            (440, 0, 0, "weld"),
            (440, 185, 0, "bend"),
            (720, 185, 40, "bend"),
            (720, 365, 0, "bend"),
        ]
        corners.append((0, 365, 0, "weld"))
        made = [{"across_mm": a, "up_mm": b, "bow_mm": c, "joint": d} for a, b, c, d in corners]
        step = {"kind": "profile", "shape": "step", "wrap_axis": "y", "run_mm": 400, "thickness_mm": 3}
        found = proof({"shell": step | {"bend_radius_mm": 4.5, "corners": made}})
        self.assertEqual(found.open, [])
        self.assertGreater(found.edges, 12)
        drum = {"kind": "cylinder", "axis": "x", "diameter_mm": 300, "run_mm": 500, "thickness_mm": 2}
        self.assertEqual(proof({"shell": drum}).open, [])

    def test_wild_shells(self) -> None:
        """Whatever can be made has no open edge."""
        looked = 0
        for seed in range(300, 380):
            try:
                found = TankAnalysis(Asked(read_design(json.dumps(Wild(seed).document()))))[SEAM_PROOF]
            except UnreadableDesignError:
                continue
            looked += found.edges
            self.assertEqual(found.open, [], seed)
        self.assertGreater(looked, 600)

    def test_what_is_off_is_a_stop(self) -> None:
        """An end 5 off its place: neither proof lets it pass, and each names it; where it belongs none says so."""
        of = tank(scheme="flat plates")
        self.assertEqual([*proof_rules.seams_meet(of), *proof_rules.folds_up(of)], [])
        pieces = []
        for piece in of[PIECES]:
            matrix = np.array(piece.place.matrix).reshape(4, 4)
            matrix[0, 3] -= 5.0 if piece.place.name == "rear" else 0.0
            pieces.append(lying(piece.part, replace(piece.place, matrix=matrix.ravel().tolist())))
        of._values[SEAM_PROOF.name] = seam_proof(pieces, of[SHELL_PARTS])
        of._values[FOLD_PROOF.name] = fold_proof(pieces, of[BARE_SOLIDS], 0.0)
        (off,) = proof_rules.folds_up(of)
        self.assertEqual((off.severity, off.subject, round(float(off.title.values["off_mm"]), 6)), ("stop", "end", 5.0))
        open_ = {finding.subject for finding in proof_rules.seams_meet(of)}
        self.assertIn("end", open_)

    @settings(max_examples=20, deadline=None)
    @given(st.integers(0, 2), st.sampled_from((-1, 1)), st.floats(6, 40))
    def test_a_part_that_is_off(self, axis: int, way: int, by: float) -> None:
        """An end that lies elsewhere leaves edges open, by as much as it is off."""
        of = tank(scheme="flat plates")
        pieces = list(of[PIECES])
        number = next(n for n, piece in enumerate(pieces) if piece.part.name == "end")
        place = pieces[number].place
        matrix = np.array(place.matrix).reshape(4, 4)
        matrix[axis, 3] += way * by
        pieces[number] = lying(pieces[number].part, replace(place, matrix=matrix.ravel().tolist()))
        found = seam_proof(pieces, of[SHELL_PARTS])
        self.assertTrue(found.open)
        self.assertLess(max(edge.gap_mm for edge in found.open), by + 1.0)
        self.assertGreater(max(edge.gap_mm for edge in found.open), by - 4.5)
