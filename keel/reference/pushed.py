"""Hoses pushed on tails and tubes, and tubes pushed in grommets: how far, with what, and where the clamp goes.

References
----------
House rules, on the careful side of usual workshop practice; a hose maker's own sheet counts before them.
"""

from dataclasses import dataclass

from keel.reference.compatibility import HoseName

LEAST_MM, TIMES = 20.0, 1.5
"""A hose is pushed on by so many outside diameters of what it is pushed on, and so far at least."""
BEAD_MM = 4.0
"""From a tube's end to behind its bead."""
WARM_C = 60.0
CLAMP_MM, OFF_MM = 9.0, 3.0
"""Width of a clamp, and how far it stays off the bead and off the hose's end."""


@dataclass(frozen=True, slots=True)
class Helped:
    """What a hose may be helped on with.

    Attributes
    ----------
    lubricant : str
        What is allowed, and what isn't.
    warming : str
        How warm, and with what; `{warm_c}` stands for `WARM_C`.
    """

    lubricant: str
    warming: str


_RUBBER = Helped(
    "a wipe of the fuel itself or of clean engine oil; no soap, no silicone, no grease",
    "cold: to {warm_c} in warm water, dried; never a flame or a heat gun where fuel has been",
)
HELPED: dict[HoseName, Helped] = {
    "nitrile hose": _RUBBER,
    "fluoropolymer-lined hose": Helped(
        "a drop of clean engine oil on the tail only; nothing on the lining", "not needed; never hotter than the hand"
    ),
    "PTFE hose": Helped(
        "none: it is held by its own screwed or crimped end", "not to be warmed: it doesn't shrink back"
    ),
    "EPDM hose": Helped("none: not for fuel, and oil ruins it", "not to be used"),
    "silicone hose": Helped("none: not for fuel", "not to be used"),
}


def insertion_mm(outside_mm: float) -> float:
    """How far a hose is pushed on a tail or a tube.

    Parameters
    ----------
    outside_mm : float
        Across what it is pushed on [mm].

    Returns
    -------
    float
        Along it [mm].
    """
    return max(LEAST_MM, TIMES * outside_mm)


def clamp_from_end_mm(insertion: float, *, beaded: bool) -> tuple[float, float]:
    """Where the clamp's middle may be, from the hose's end [mm].

    Parameters
    ----------
    insertion : float
        How far it is pushed on [mm].
    beaded : bool
        There is a bead that the clamp stays behind.

    Returns
    -------
    (float, float)
        From its own width and a margin off the end, to as much short of the bead or of the tail's tip. Where that
        leaves nothing the second is smaller than the first.
    """
    near = OFF_MM + CLAMP_MM / 2
    return near, insertion - (BEAD_MM if beaded else 0.0) - near
