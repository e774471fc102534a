"""The leak test in the order of work: every cell once all heat is done, before anything hides a seam."""

from collections.abc import Sequence

from keel.design.workshop import HouseRules
from keel.reference.metals import METALS
from keel.reference.units import MM2_PER_M2
from keel.studies.build.bench import Bench
from keel.studies.build.cautions import SOLVENT, UNDER_PRESSURE
from keel.studies.build.flat_work import slug
from keel.studies.build.operation import CellTest, FreeOfVapour, Gate, Operation, Proved
from keel.studies.proof.walk import WalkSeam
from keel.studies.result import words
from keel.studies.sheet.parts import FlatPart

VAPOUR, PROVED = "vapour", "proof"
RUSTS = "steel"


def cell_tests(cells: Sequence[str], seams: Sequence[WalkSeam], calibration_months: float) -> list[CellTest]:
    """What is proved: each cell along its own seams, the others open.

    Parameters
    ----------
    cells : sequence of str
        Their names.
    seams : sequence of WalkSeam
        All seams, in the order in which they are walked.
    calibration_months : float
        How long a gauge's calibration holds [months].

    Returns
    -------
    list of CellTest
        One a cell.
    """
    return [
        CellTest(
            cell=cell,
            seams=tuple(seam.id for seam in seams if cell in seam.cells),
            neighbours=tuple(other for other in cells if other != cell),
            calibration_months=calibration_months,
        )
        for cell in cells
    ]


class ProofWork:
    """Operations and gates of the leak test.

    Parameters
    ----------
    bench : Bench
        Makes operations.
    tests : sequence of CellTest
        Cells that are proved.
    own : sequence of FlatPart
        The shell's own parts: what is painted.
    """

    def __init__(self, bench: Bench, tests: Sequence[CellTest], own: Sequence[FlatPart]) -> None:
        self.bench, self.tests, self.own = bench, tests, own
        self.rules: HouseRules = bench.workshop.rules

    def proving(self, needs: Sequence[str]) -> list[Operation]:
        """Each cell by itself."""
        return [self._proved(test, needs) for test in self.tests]

    def covering(self, needs: Sequence[str], lining: str | None) -> list[Operation]:
        """Bare steel is painted, an inside is lined where the design says so; other covers are added by people."""
        return [*self._painted(needs), *self._lined(needs, lining)]

    def _lined(self, needs: Sequence[str], lining: str | None) -> list[Operation]:
        if lining is None:
            return []
        said = words("Line the inside: {lining}, by its label", lining=lining)
        return [self.bench.operation("cover", "lining", said, self._area, needs=needs, cautions=[SOLVENT], covers=True)]

    @property
    def _area(self) -> float:
        """Of the shell, one face [m²]."""
        return sum(part.area_mm2 * part.quantity for part in self.own) / MM2_PER_M2

    def _painted(self, needs: Sequence[str]) -> list[Operation]:
        if METALS[self.bench.metal].family != RUSTS:
            return []
        said = words("Prime and paint the outside: bare steel rusts from the first night")
        tools = ["plugs in every opening", "degreaser", "primer"]
        return [self.bench.operation("cover", "outside", said, self._area, needs=needs, tools=tools, covers=True)]

    def gates(self, covering: Sequence[Operation]) -> list[Gate]:
        """No vapour before the test; the test before it is called done, and before anything covers a seam."""
        proved = [self._id(test) for test in self.tests]
        vapour = FreeOfVapour("never held fuel", "vapour", self.rules.vapour_most, self.rules.vapour_oldest_min)
        why = words("Vapour under pressure, a spark at the compressor or a fitting: the tank bursts burning.")
        covered = words(
            "Paint, lining or a cover shuts a pinhole until it is on the road: the leak then comes with fuel, and the "
            "coat has to come off."
        )
        cells = tuple(test.cell for test in self.tests)
        hidden = [*proved, *(one.id for one in covering)]
        return [
            Gate(VAPOUR, words("Tank free of vapour before its leak test"), proved, [vapour], why, firm=True),
            Gate(PROVED, words("Leak test passed"), hidden, [Proved(cells)], covered, covering=True),
        ]

    def _proved(self, test: CellTest, needs: Sequence[str]) -> Operation:
        said = words("Leak test of the {cell}", cell=test.cell)
        if test.neighbours:
            said = words("Leak test of the {cell}, {others} open", cell=test.cell, others=", ".join(test.neighbours))
        return self.bench.operation(
            "prove",
            slug(test.cell),
            said,
            1,
            parts=[test.cell],
            needs=needs,
            tools=["test gauge", "relief valve or water column", "soapy water, brush", "light"],
            cautions=[UNDER_PRESSURE],
            steps=[words("Plan, readings and the walk along its seams: station Proof, or the leak test at the bench")],
        )

    @staticmethod
    def _id(test: CellTest) -> str:
        return f"prove:{slug(test.cell)}"
