"""What a design is driven over: its manoeuvre, a lap that ships, or one that the workshop keeps."""

from keel.design.document import Design
from keel.studies.slosh.log import Log
from keel.studies.slosh.manoeuvres import demo_lap, log_of
from server.http.errors import refused
from server.slosh.models import Lap
from server.workshop.models import Workshop


def log_for(workshop: Workshop, design: Design) -> Log:
    """The log of a design's setting.

    Raises
    ------
    ApiError
        When it names a lap that the workshop doesn't keep.
    """
    slosh = design.slosh
    if slosh.over == "manoeuvre":
        return log_of(slosh.manoeuvre)
    if slosh.over == "shipped lap":
        return demo_lap(slosh.lap)
    found = Lap.objects.filter(workshop=workshop, pk=slosh.kept_lap or 0).first()
    if found is None:
        raise refused("slosh.kept_lap", slosh.kept_lap, "a lap that the workshop keeps", "This lap isn't kept here.")
    return found.log()
