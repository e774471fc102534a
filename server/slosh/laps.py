"""What a design is driven over: its manoeuvre, a lap that ships, or one that the workshop keeps."""

from keel.design.document import Design
from keel.studies.slosh.log import Log, joined
from keel.studies.slosh.manoeuvres import demo_lap, log_of
from server.http.errors import refused
from server.slosh.models import Lap
from server.workshop.models import Workshop

MOST_SECONDS = 4 * 3600.0
"""A run is no longer than this in all [s]."""


def log_for(workshop: Workshop, design: Design) -> Log:
    """The log of a design's setting.

    Raises
    ------
    ApiError
        When it names a lap that the workshop doesn't keep, or runs for too long.
    """
    slosh = design.slosh
    if slosh.over == "manoeuvre":
        return log_of(slosh.manoeuvre)
    if slosh.over == "shipped lap":
        laps = [demo_lap(slosh.lap)]
    else:
        laps = [_kept(workshop, "slosh.kept_lap", slosh.kept_lap)]
        laps += [_kept(workshop, f"slosh.then_laps.{n}", pk) for n, pk in enumerate(slosh.then_laps)]
    seconds = slosh.laps * sum(float(lap.times_s[-1]) for lap in laps)
    if seconds > MOST_SECONDS:
        message = f"Driven {slosh.laps} times that is {seconds / 60:.0f} minutes; {MOST_SECONDS / 60:.0f} are taken."
        raise refused("slosh.laps", slosh.laps, f"{MOST_SECONDS / 60:.0f} minutes in all", message)
    return joined(laps * slosh.laps)


def _kept(workshop: Workshop, field: str, number: int | None) -> Log:
    found = Lap.objects.filter(workshop=workshop, pk=number or 0).first()
    if found is None:
        what = "No lap is chosen yet: take one from a logger's CSV." if number is None else "This lap isn't kept here."
        raise refused(field, number, "a lap that the workshop keeps", what)
    return found.log()
