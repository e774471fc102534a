"""Straps that bond tank, necks and filters to the chassis: fitted once the tank is held, measured, the reading kept."""

from collections.abc import Sequence

from keel.studies.build.bench import Bench
from keel.studies.build.operation import Gate, Operation, ReadingAtMost
from keel.studies.result import in_words, words
from keel.studies.wiring.bonds import Bonding

FIT, MEASURED, GATE = "fit:bonds", "look:bonds", "bonded"


class BondWork:
    """Operations and gate of the bonds.

    Parameters
    ----------
    bench : Bench
        Makes operations.
    bonding : Bonding
        Which pieces of metal are bonded.
    """

    def __init__(self, bench: Bench, bonding: Bonding) -> None:
        self.bench = bench
        self.bonded = [piece for piece in bonding.pieces if piece.joined and piece.metal != "chassis"]

    def all(self, needs: Sequence[str]) -> list[Operation]:
        """Fitted, then measured; nothing where nothing is bonded."""
        if not self.bonded:
            return []
        names = in_words([piece.name for piece in self.bonded])
        fitted = self.bench.operation(
            "fit",
            "bonds",
            words("Fit the bonding straps: {names} to the chassis", names=names),
            len(self.bonded),
            needs=needs,
            tools=["wire brush", "star washers", "grease"],
            steps=[words("Bare metal under every lug, a star washer, tight; then paint or grease over it.")],
        )
        said = words("Measure from {names} to the chassis, and write the readings down", names=names)
        steps = [words("Touch the test leads together first, and take that reading off.")]
        measured = self.bench.operation(
            "look", "bonds", said, len(self.bonded), needs=[FIT], tools=["ohmmeter"], steps=steps
        )
        return [fitted, measured]

    def gates(self) -> list[Gate]:
        """Every piece reads low enough before the tank is called bonded."""
        if not self.bonded:
            return []
        most = self.bench.workshop.rules.bond_ohm
        readings = [ReadingAtMost(f"{piece.name} to chassis", most, None, "Ω") for piece in self.bonded]
        why = words("Fuel that runs in charges what isn't bonded; the spark jumps to the nozzle in vapour.")
        return [Gate(GATE, words("Tank, necks and chassis are one"), [MEASURED], list(readings), why)]
