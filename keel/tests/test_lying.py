"""Flat parts folded up: they come to lie where the tank was designed, and its holes where its ports are."""

from unittest import TestCase

from hypothesis import assume, given, settings
from hypothesis import strategies as st

from keel.analysis.tank import Asked, TankAnalysis
from keel.design.document import Design
from keel.design.sheet import SheetScheme
from keel.design.shell import CylinderShell, ProfileShell
from keel.solid.faults import GeometryError
from keel.solid.solids import AnyShell
from keel.studies.sheet.fold_proof import FOLD_PROOF
from keel.tests.samples import SADDLE, STEP, WEDGE, any_shells, shells

LIMIT_MM = 1e-3
SEAMS = st.sampled_from(["lid", "floor", "side", "corner butt", "corner open"])


def worst_of(shell: AnyShell, seam: str = "lid") -> dict[str, float]:
    """How far each part of a shell lies from its place once it is folded [mm]."""
    design = Design(shell=shell, sheet=SheetScheme(seam=seam))
    tank = TankAnalysis(Asked(design))
    return {f"{one.name}, {one.piece}": one.off_mm for one in tank[FOLD_PROOF].pieces}


class FoldsUp(TestCase):
    """The outside of every part against the shell it was unfolded from."""

    def check(self, shell: AnyShell, seam: str = "lid") -> None:
        """No place of any part lies further off than a good fitter sees."""
        for name, off in worst_of(shell, seam).items():
            self.assertLess(off, LIMIT_MM, f"{name} of {shell!r}, seam {seam}")

    @given(shells(), SEAMS)
    @settings(max_examples=60, deadline=None)
    def test_boxes(self, shell: AnyShell, seam: str) -> None:
        """A wrapper and two pans, closed anywhere."""
        assume(shell.bend_radius_mm > 0)
        self.check(shell, seam)

    def test_profiles(self) -> None:
        """A step, a saddle, a wedge: bends that turn in and out."""
        for shell in (STEP, SADDLE, WEDGE):
            for seam in ("lid", "floor", "side"):
                self.check(shell.model_copy(update={"bend_radius_mm": 2 * shell.thickness_mm}), seam)

    @given(any_shells(), st.sampled_from(["lid", "floor", "side"]))
    @settings(max_examples=60, deadline=None)
    def test_any_shell(self, shell: AnyShell, seam: str) -> None:
        """Of any kind: rolled edges and welded corners among them."""
        assume(isinstance(shell, CylinderShell | ProfileShell) or shell.bend_radius_mm > 0)
        try:
            self.check(shell.model_copy(update={"features": ()}), seam)
        except GeometryError:
            return

    @given(st.sampled_from("xyz"), st.floats(120, 900), st.floats(0.8, 5))
    @settings(max_examples=20, deadline=None)
    def test_cylinders(self, axis: str, across: float, thick: float) -> None:
        """A roll all the way round, and two discs."""
        self.check(CylinderShell(axis=axis, diameter_mm=across, run_mm=400, thickness_mm=thick))
