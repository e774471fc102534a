"""The service cart's log up to the middle of its build: what was done, when, by whom, with what to show for it."""

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Any

from keel.studies.build.operation import Traveller

SEATS = ("avgas-draw", "avgas-filler", "avgas-vent", "kerosene-draw", "kerosene-filler", "kerosene-vent")


@dataclass(frozen=True)
class Said:
    """Who wrote what: days before today, hour of that day."""

    who: str
    day: int
    hour: float
    kind: str
    values: dict[str, Any]


def worked(who: str, day: int, hour: float, minutes: float, subject: str) -> Iterator[Said]:
    """An operation from beginning to end."""
    yield Said(who, day, hour, "started", {"subject": subject})
    yield Said(who, day, hour + minutes / 60, "done", {"subject": subject})


def came() -> Iterator[Said]:
    """What was bought, counted in: a neck came dented and was sent again; a maker's sheet asks for a wait."""
    yield Said("osric", 7, 14.0, "started", {"subject": "receive:goods"})
    for n, seat in enumerate(SEATS):
        whole = seat != "kerosene-filler"
        yield Said("osric", 7, 14.05 + 0.05 * n, "arrived", {"subject": f"seat:{seat}", "value": 1, "whole": whole})
    for n, seat in enumerate(SEATS):
        caps = 2 if seat.endswith("draw") else 1
        fitting = {"subject": f"fitting:{seat}", "value": 1, "caps": caps}
        yield Said("osric", 7, 14.4 + 0.04 * n, "arrived", fitting)
    asks = "Valve seat stands open when delivered: blow through before fitting"
    maker = {"subject": "fitting:avgas-vent", "asks": asks, "before": "fit:avgas-vent"}
    yield Said("osric", 7, 14.7, "maker", maker)
    yield Said("osric", 7, 14.8, "paused", {"subject": "receive:goods"})
    yield Said("osric", 6, 8.25, "started", {"subject": "receive:goods"})
    again = {"subject": "seat:kerosene-filler", "value": 1}
    yield Said("osric", 6, 8.3, "arrived", again | {"note": "second one, true"})
    yield Said("osric", 6, 8.4, "done", {"subject": "receive:goods"})


def log(_traveller: Traveller) -> Iterator[Said]:
    """Everything in its order."""
    extra = {"about": "extra", "what": "Earth stud on the front pan", "price": 45.0}
    yield Said("marla", 6, 8.1, "agreed", extra | {"consent": "fuel shed, by telephone"})
    seen = {"about": "visible face", "what": "Left side and lid are seen; the rest stays as welded"}
    yield Said("marla", 6, 8.2, "agreed", seen | {"consent": "fuel shed, on the drawing"})
    yield from came()
    yield from worked("osric", 6, 8.5, 34, "prepare:sheet")
    yield from worked("osric", 6, 9.4, 171, "cut:nibbler")
    yield from worked("osric", 6, 13.0, 48, "deburr:edges")
    for n, seat in enumerate(SEATS):
        yield from worked("marla", 5, 8.2 + 0.62 * n, 29 + 2 * (n % 3), f"seat:{seat}")
    yield Said(
        "marla", 5, 12.1, "note", {"subject": "seat:kerosene-filler", "photos": ["neck"]} | {"note": "Ring true"}
    )
    yield from worked("osric", 4, 8.3, 31, "bend:wrapper")
    yield Said(
        "osric", 4, 8.9, "note", {"subject": "bend:wrapper", "photos": ["bend"], "note": "91.5 on the leaf, 90 left"}
    )
    yield from worked("osric", 4, 9.0, 52, "bend:end-pan")
    yield from worked("osric", 4, 10.1, 27, "bend:inside-fuel-wall")
    yield from worked("marla", 3, 8.2, 22, "tack:body")
    yield from worked("marla", 3, 8.7, 33, "weld:closing-seam")
    yield from worked("marla", 3, 9.5, 41, "weld:inside-fuel-wall")
    yield from worked("osric", 3, 13.0, 25, "clean:rear-pan")
    for hour, caught in ((13.5, "swarf"), (13.7, "dust"), (13.9, "nothing")):
        round_ = {"subject": "inside:rear-pan", "caught": caught, "clean": caught == "nothing"}
        yield Said("osric", 3, hour, "flushed", round_)
    yield from worked("marla", 3, 14.1, 8, "look:rear-pan")
    reason = "No photo: the camera was at the airfield. Looked in twice with lamp and mirror."
    yield Said("marla", 3, 14.4, "override", {"subject": "inside:rear-pan", "name": "Marla Quent", "reason": reason})
    yield from worked("marla", 2, 8.2, 47, "weld:rear-pan")
    yield Said(
        "marla", 2, 9.2, "note", {"subject": "weld:rear-pan", "photos": ["seam"], "note": "Start of the seam redone"}
    )
    yield Said("marla", 2, 9.3, "drawn", {"photo": "seam", "strokes": [ROUND_THE_START]})
    yield Said("marla", 2, 9.3, "pinned", {"photo": "seam", "x_mm": 0.0, "y_mm": 40.0, "z_mm": 300.0})
    yield Said("osric", 1, 13.2, "started", {"subject": "clean:front-pan"})


ROUND_THE_START = [
    [0.24, 0.5],
    [0.27, 0.4],
    [0.34, 0.36],
    [0.41, 0.41],
    [0.43, 0.5],
    [0.4, 0.6],
    [0.33, 0.63],
    [0.26, 0.58],
    [0.24, 0.5],
]
