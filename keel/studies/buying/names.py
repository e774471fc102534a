"""What small things are called on a buying list: the same thing always by the same name."""

from keel.studies.result import Words, words


def hose_end(size: str, elbow_deg: float) -> Words:
    """A screwed end of a hose.

    Parameters
    ----------
    size : str
        Of its thread.
    elbow_deg : float
        How far it turns; 0: straight.

    Returns
    -------
    Words
        Its name.
    """
    way = f"{elbow_deg:.0f}° elbow" if elbow_deg else "straight"
    return words("hose end {size}, {way}", size=size, way=way)


def bulkhead_fitting(size: str) -> Words:
    """What a line goes through sheet by, metal all through.

    Parameters
    ----------
    size : str
        Of its thread.

    Returns
    -------
    Words
        Its name.
    """
    return words("bulkhead fitting {size}", size=size)


def grommet(outside_mm: float, hole_mm: float) -> Words:
    """Rubber in a hole, by its stock size in whole millimetres: line and hole.

    Parameters
    ----------
    outside_mm, hole_mm : float
        Across the line and across the hole [mm].

    Returns
    -------
    Words
        Its name.
    """
    return words("grommet {size}", size=f"{outside_mm:.0f}/{hole_mm:.0f}")
