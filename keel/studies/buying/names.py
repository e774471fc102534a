"""What small things are called on a buying list: the same thing always by the same name."""

from keel.studies.result import Words, words


def hose_end(size: str, elbow_deg: float) -> Words:
    """A screwed end of a hose."""
    way = f"{elbow_deg:.0f}° elbow" if elbow_deg else "straight"
    return words("hose end {size}, {way}", size=size, way=way)


def bulkhead_fitting(size: str) -> Words:
    """What a line goes through sheet by, metal all through."""
    return words("bulkhead fitting {size}", size=size)


def grommet(outside_mm: float, hole_mm: float) -> Words:
    """Rubber in a hole."""
    text = "grommet for {outside_mm} in a hole of {hole_mm}"
    return words(text, outside_mm=float(round(outside_mm)), hole_mm=float(round(hole_mm)))
