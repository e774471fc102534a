"""Photos as the log speaks of them: what each is of, where it shows, what is drawn on it."""

from collections.abc import Sequence
from dataclasses import dataclass, field
from datetime import datetime

from keel.log.entries import Drawn, Pinned, Received

Stroke = tuple[tuple[float, float], ...]


@dataclass(slots=True)
class Picture:
    """A photo.

    Attributes
    ----------
    id : str
        Its own name.
    subject, note : str
        What it was taken of, and what was said then; empty where no entry that stands names it.
    author : str
        Who took it.
    happened : datetime or None
        When.
    revision : int or None
        Of the design then.
    spot_mm : tuple of float or None
        Where on the tank it shows, from the body's rear, right, lower corner [mm].
    strokes : tuple of Stroke
        Lines on it, in shares of its width and height.
    """

    id: str
    subject: str = ""
    note: str = ""
    author: str = ""
    happened: datetime | None = None
    revision: int | None = None
    spot_mm: tuple[float, float, float] | None = None
    strokes: tuple[Stroke, ...] = field(default=())


def pictures(entries: Sequence[Received]) -> dict[str, Picture]:
    """All photos that standing entries speak of.

    Parameters
    ----------
    entries : sequence of Received
        Those that stand, in the order they came.

    Returns
    -------
    dict of str to Picture
        By name. The first entry that names a photo says what it is of; the last pin and drawing stand.
    """
    found: dict[str, Picture] = {}
    for one in entries:
        entry = one.entry
        if isinstance(entry, Pinned):
            found.setdefault(entry.photo, Picture(entry.photo)).spot_mm = (entry.x_mm, entry.y_mm, entry.z_mm)
        elif isinstance(entry, Drawn):
            found.setdefault(entry.photo, Picture(entry.photo)).strokes = entry.strokes
        for name in entry.photos:
            picture = found.setdefault(name, Picture(name))
            if not picture.happened:
                picture.subject = str(getattr(entry, "subject", None) or "")
                picture.note, picture.author, picture.happened = entry.note, one.author, one.happened
                picture.revision = entry.revision
    return found
