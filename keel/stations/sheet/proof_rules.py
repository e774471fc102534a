"""The flats held against the tank as drawn; looked at once the hand rests. Of each part the worst place is named."""

from collections.abc import Iterator

from keel.analysis.tank import TankAnalysis
from keel.findings.finding import Finding, of_station
from keel.studies.result import words
from keel.studies.sheet.fold_proof import FOLD_PROOF
from keel.studies.sheet.let_in import LET_IN
from keel.studies.sheet.seam_proof import SEAM_PROOF
from keel.studies.sheet.unfold import SHEET

_sheet = of_station("sheet")


def folds_up(tank: TankAnalysis) -> Iterator[Finding]:
    """Every part of the shell, folded up, lies where the tank was designed; looked at once the hand rests."""
    if not tank.is_at_rest:
        return
    proof = tank[FOLD_PROOF]
    off = sorted((piece for piece in proof.pieces if piece.off_mm > proof.limit_mm), key=lambda one: one.off_mm)
    for name, piece in {piece.name: piece for piece in off}.items():
        yield _sheet(
            "sheet.fold",
            name,
            "stop",
            words(
                "The {part} folds up {off_mm} off the tank as drawn, at most {limit_mm}",
                part=piece.title.lower(),
                off_mm=piece.off_mm,
                limit_mm=proof.limit_mm,
            ),
            words(
                "Folded by its flat, its {piece} misses the drawn outside by most {x_mm} from the rear, {y_mm} from "
                "the right and {z_mm} above the floor: what has to meet there wouldn't.",
                piece=piece.piece,
                x_mm=piece.at.x,
                y_mm=piece.at.y,
                z_mm=piece.at.z,
            ),
        )


def seams_meet(tank: TankAnalysis) -> Iterator[Finding]:
    """Every edge, folded up, meets what it is welded to; looked at once the hand rests."""
    if not tank.is_at_rest:
        return
    proof = tank[SEAM_PROOF]
    for name, edge in {edge.part: edge for edge in sorted(proof.open, key=lambda one: one.gap_mm)}.items():
        yield _sheet(
            "sheet.seam",
            name,
            "stop",
            words(
                "An edge of the {part} is {gap_mm} off what it is welded to, at most {limit_mm}",
                part=edge.title.lower(),
                gap_mm=edge.gap_mm,
                limit_mm=proof.limit_mm,
            ),
            words(
                "It is {long_mm} long; folded up it lies {x_mm} from the rear, {y_mm} from the right and {z_mm} above "
                "the floor.",
                long_mm=edge.long_mm,
                x_mm=edge.at.x,
                y_mm=edge.at.y,
                z_mm=edge.at.z,
            ),
        )


def features_not_unfolded(tank: TankAnalysis) -> Iterator[Finding]:
    """Say which features have no flat plates; looked for once the hand rests."""
    if not tank.is_at_rest:
        return
    unfolded = {part.feature for part in [*tank[SHEET].parts, *tank[LET_IN]]}
    left_out = [cost.name for cost in tank.solids.costs if cost.id not in unfolded]
    if left_out:
        yield _sheet(
            "sheet.features",
            "",
            "note",
            words("Not among the flat parts: {names}", names=", ".join(left_out)),
            words(
                "A round side that narrows is unfolded only where it comes out of a box's flat face. Lay these plates "
                "out by hand; their openings in the shell are drawn, and mass and weld in the tally have them in."
            ),
        )
