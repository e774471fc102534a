"""Where a wrapper closes, and where it is dragged to."""

from typing import Any
from unittest import TestCase

import numpy as np
from hypothesis import given, settings
from hypothesis import strategies as st

from keel.analysis.tank import Asked, TankAnalysis
from keel.design.document import Design
from keel.design.sheet import SheetScheme
from keel.evaluation import evaluate
from keel.findings.patch import apply
from keel.studies.sheet.as_bent import as_bent
from keel.studies.sheet.fold_proof import FOLD_PROOF
from keel.studies.sheet.lying import Lying, panel_places
from keel.studies.sheet.seam import SEAM_PLACES
from keel.studies.sheet.seam_proof import SEAM_PROOF
from keel.studies.sheet.shell_parts import PIECES
from keel.tests.samples import STEP, WEDGE
from keel.tests.test_let_in import tank


def ends_of(piece: Lying) -> list[Any]:
    """The middles of a wrapper's two free ends, on the outside, in the tank."""
    part = piece.part
    found = []
    for u in (0.0, part.length_mm):
        spot = u, part.width_mm / 2
        panel = min(piece.panels, key=lambda one: min(np.hypot(x - u, y - spot[1]) for x, y in one.outline))
        found.append(panel_places(panel, np.array([spot]))[0])
    return found


class Places(TestCase):
    """Anywhere along lid, side and floor."""

    def check(self, made: TankAnalysis) -> None:
        """Folded up both ends are where the seam is drawn, nothing lies off its place, every edge meets another."""
        at = made[SEAM_PLACES].at
        assert at is not None
        (wrapper,) = (piece for piece in made[PIECES] if piece.part.name == "wrapper")
        for end in ends_of(wrapper):
            self.assertLess(
                np.linalg.norm(np.delete(end - np.array([at.x, at.y, at.z]), made.solids.section.axis)), 0.01
            )
        self.assertLess(max(piece.off_mm for piece in made[FOLD_PROOF].pieces), 0.1)
        self.assertEqual(made[SEAM_PROOF].open, [])

    @settings(max_examples=30, deadline=None)
    @given(
        st.sampled_from(("wrapper and pans", "wrapper and flat ends")),
        st.sampled_from(("lid", "side", "floor")),
        st.floats(0.1, 0.9),
        st.sampled_from("xy"),
    )
    def test_of_a_box(self, scheme: str, seam: str, share: float, wrap: str) -> None:
        """Wound either way, with pans or flat ends."""
        sheet = {"scheme": scheme, "seam": seam, "seam_share": share}
        made = tank(shell={"wrap_axis": wrap}, sheet=sheet)
        self.check(made)
        where = {one.seam: one for one in made[SEAM_PLACES].faces}[made.design.sheet.seam]
        at = made[SEAM_PLACES].at
        assert at is not None
        low, high, spot = (np.array([one.x, one.y, one.z]) for one in (where.low, where.high, at))
        self.assertAlmostEqual(float(np.linalg.norm(spot - low) / np.linalg.norm(high - low)), share, places=6)

    @settings(max_examples=20, deadline=None)
    @given(st.sampled_from((STEP, WEDGE)), st.sampled_from(("lid", "side", "floor")), st.floats(0.15, 0.85))
    def test_of_a_profile(self, shell: Any, seam: Any, share: float) -> None:
        """A step and a wedge."""
        bent = shell.model_copy(update={"bend_radius_mm": 4.0})
        self.check(TankAnalysis(Asked(Design(shell=bent, sheet=SheetScheme(seam=seam, seam_share=share)))))

    def test_no_closing_seam(self) -> None:
        """Plates, and two U's, have none to be dragged."""
        for scheme in ("flat plates", "two U's"):
            self.assertIsNone(tank(scheme=scheme)[SEAM_PLACES].at)

    def test_too_near_a_corner(self) -> None:
        """An end too short for the brake is a stop; half way along it is none."""
        design = tank(scheme="wrapper and pans", sheet={"scheme": "wrapper and pans", "seam_share": 0.02}).design
        (stop,) = (one for one in evaluate(design).findings if one.code == "brake.leg")
        self.assertAlmostEqual(stop.title.values["leg_mm"], 8.0)
        (remedy,) = stop.remedies
        self.assertNotIn("brake.leg", {one.code for one in evaluate(apply(design, remedy.patch)).findings})

    def test_a_bend_turns_the_seam_by_its_distance(self) -> None:
        """How far it stands open goes by where it is."""
        shell = tank().design.shell
        near, far = (as_bent(shell, "lid", 2, 88, share).gap_mm for share in (0.9, 0.1))  # type: ignore[arg-type]
        self.assertAlmostEqual(far / near, 9.0, places=6)
