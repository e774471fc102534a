"""The core's answers about a design that need not be saved yet."""

from typing import Any

from django.http import HttpResponse
from ninja import Router, Schema
from pydantic import ConfigDict

from keel.analysis.showing import Showing
from keel.evaluation import evaluate, evaluation_model
from keel.formats.document import design_from
from server.http.errors import ErrorOut
from server.jobs.memory import MEMORY
from server.jobs.patience import Patience
from server.jobs.scans import scans_of
from server.workshop.guard import Request, anyone

router = Router(tags=["evaluation"])


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
