"""What a bolt passes and how long it has to be; how far a stud stands out of its nut."""

from collections.abc import Sequence
from dataclasses import dataclass

from keel.design.mount import Bolted
from keel.reference.fasteners import BOLTS, lengths_of

PITCHES_PROUD = 1.0
"""So many turns of thread stand out of a nut."""


def stack_mm(bolted: Bolted, held_mm: float) -> float:
    """What a bolt passes: what it holds, the structure, a plate, a washer at either end [mm].

    Parameters
    ----------
    bolted : Bolted
        The place.
    held_mm : float
        What is bolted to it: a strap's end, a foot [mm].

    Returns
    -------
    float
        Under the head to the nut [mm].
    """
    plate = bolted.structure.plate
    more = plate.thickness_mm if plate else 0.0
    return held_mm + bolted.structure.thickness_mm + more + 2 * BOLTS[bolted.bolts.size].washer_thick_mm


def bolt_length_mm(bolted: Bolted, held_mm: float) -> float | None:
    """The shortest bolt as sold that stands out of its nut by a turn of thread [mm]; None where none is long enough.

    Parameters
    ----------
    bolted : Bolted
        The place.
    held_mm : float
        What is bolted to it [mm].

    Returns
    -------
    float or None
        Length under the head [mm].
    """
    bolt = BOLTS[bolted.bolts.size]
    nut = bolt.locking_nut_mm if bolted.bolts.locking == "self-locking nut" else bolt.nut_mm
    needed = stack_mm(bolted, held_mm) + nut + PITCHES_PROUD * bolt.pitch_mm
    return next((length for length in lengths_of(bolted.bolts.size) if length >= needed - 1e-9), None)


@dataclass(frozen=True, slots=True)
class Stud:
    """A stud's length over its stack: how far it stands out of the nut, with every tolerance at its worst [mm]."""

    length_mm: float
    proud_mm: float
    least_mm: float
    most_mm: float
    wanted_mm: float

    @property
    def is_short(self) -> bool:
        """Whether it may not fill its nut."""
        return self.least_mm < self.wanted_mm


def stud(
    length_mm: float, stack: Sequence[tuple[float, float]], tolerance_mm: float, point_mm: float, pitch_mm: float
) -> Stud:
    """How far a stud stands out of its nut.

    Parameters
    ----------
    length_mm, tolerance_mm : float
        Of the stud [mm].
    stack : sequence of (float, float)
        Plate, free gasket, washer, nut: each with its tolerance, plus or minus [mm].
    point_mm, pitch_mm : float
        What of its end has no thread, and the thread's pitch [mm].

    Returns
    -------
    Stud
        It has to stand out by its point and a turn of thread.
    """
    proud = length_mm - sum(size for size, _ in stack)
    spread = tolerance_mm + sum(within for _, within in stack)
    return Stud(length_mm, proud, proud - spread, proud + spread, point_mm + PITCHES_PROUD * pitch_mm)
