"""What hurts people at a step, and what to do about it: hazard, harm, action."""

from keel.reference.metals import METALS, MetalName
from keel.studies.result import Words, words

SHARP = words("Fresh edges cut to the bone: gloves until they are deburred.")
SLIVERS = words("Slivers fly: goggles, and nobody in their line.")
LOUD = words("The only tool that cuts this is loud: ears covered, and not at every hour.")
PINCHED = words("Beam and leaf crush fingers: hands out before it moves; two people where the sheet swings up.")
ROLLED_IN = words("Rolls draw in gloves and sleeves: bare hands well back from them, the stop within reach.")
SOLVENT = words("Vapour of solvents burns and stuns: moving air, no flame, gloves.")
NO_CHLORINE = words(
    "Solvents with chlorine turn into poison gas under the arc: none near a weld, joints dry before it."
)
SWARF = words("Swarf left inside blocks pickups and ruins pumps: catch it while the hole is made.")
ARC = words("The arc burns eyes and skin: mask, gloves, everybody round it warned.")
CHROME = words("Fumes from stainless steel hold chromium, which causes cancer: draw them off at the seam.")
HOT = words("Metal stays hot long after it looks cold: mark it.")
TIGHT = words("A room closed by welding breathes out through the last gap: leave one opening unplugged.")


def of_welding(metal: MetalName) -> list[Words]:
    """What hurts at a weld.

    Parameters
    ----------
    metal : MetalName
        What is welded.

    Returns
    -------
    list of Words
        Hazard, harm, action each.
    """
    return [ARC, HOT, NO_CHLORINE, *([CHROME] if METALS[metal].family == "stainless" else [])]


def preparing(metal: MetalName) -> Words:
    """How a joint is made ready for its weld.

    Parameters
    ----------
    metal : MetalName
        What is welded.

    Returns
    -------
    Words
        What to do.
    """
    if METALS[metal].family == "aluminium":
        return words("Strip the oxide with a stainless brush kept for it, wipe, and weld the same day.")
    return words("Wipe both sides of the joint clean of oil and marking.")


UNDER_PRESSURE = words(
    "A tank under a few kilopascals stores enough to throw a plug or a lid into a face: limiter fitted and tried, "
    "plugs tied, goggles on, nobody bends over it, and never with a compressor straight on."
)
