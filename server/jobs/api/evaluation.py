"""The core's answers about a design that need not be saved yet."""

from typing import Annotated, Any

from django.http import HttpResponse
from ninja import Router, Schema
from pydantic import ConfigDict, Field

from keel.analysis.showing import Showing
from keel.design.faults import Fault
from keel.design.shell import MOST_CORNERS
from keel.evaluation import evaluate, evaluation_model
from keel.formats.document import design_from
from keel.solid.faults import GeometryError
from keel.studies.sheet.as_bent import AsBent, Wrapped, as_bent
from server.http.errors import ErrorOut
from server.jobs.memory import MEMORY
from server.jobs.patience import Patience
from server.jobs.scans import scans_of
from server.workshop.guard import Request, anyone

router = Router(tags=["evaluation"])


class BendQuestion(Schema):
    """A design, and a corner of its section whose angle was measured once it was bent [°, inside]."""

    model_config = ConfigDict(extra="forbid")

    design: dict[str, Any]
    corner: Annotated[int, Field(ge=0, le=MOST_CORNERS)]
    built_deg: Annotated[float, Field(gt=0, lt=180, allow_inf_nan=False)]


class Question(Schema):
    """A design to work out, and what of it to show."""

    model_config = ConfigDict(extra="forbid")

    design: dict[str, Any]
    showing: Showing = Showing()


@router.post("evaluate", response={200: evaluation_model(), 422: ErrorOut}, auth=anyone)
def evaluate_design(request: Request, data: Question) -> HttpResponse:
    """Work a design out by the workshop's rules. Nothing is stored."""
    patience = Patience()
    design, workshop = design_from(data.design), request.user.workshop
    answer = evaluate(design, workshop.document(), data.showing, scans_of(workshop, design), patience.is_over, MEMORY)
    return HttpResponse(answer.model_dump_json(), content_type="application/json")


@router.post("sheet/as-bent", response={200: AsBent, 422: ErrorOut}, auth=anyone)
def bend_as_built(request: Request, data: BendQuestion) -> AsBent:
    """How far a seam stands open after a bend that came out otherwise, and what becomes of four sides; not stored."""
    design = design_from(data.design)
    if not isinstance(design.shell, Wrapped):
        raise GeometryError(Fault(field="design.shell", value="", limit="a wrapped shell", message="it has no section"))
    return as_bent(design.shell, design.sheet.making, data.corner, data.built_deg, design.sheet.seam_share)
