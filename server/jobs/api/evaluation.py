"""The core's answers about a design that need not be saved yet."""

from time import monotonic
from typing import Any

from django.http import HttpResponse
from ninja import Router, Schema
from pydantic import ConfigDict

from keel.evaluate import Evaluation, Showing, evaluate
from keel.formats.document import design_from
from server.http.errors import ErrorOut
from server.jobs.scans import scans_of
from server.workshop.guard import Request, anyone

LONGEST_S = 5.0
"""Once an answer has taken so long no more remedies are tried for it [s]."""

router = Router(tags=["evaluation"])


class Question(Schema):
    """A design to work out, and what of it to show."""

    model_config = ConfigDict(extra="forbid")

    design: dict[str, Any]
    showing: Showing = Showing()


@router.post("evaluate", response={200: Evaluation, 422: ErrorOut}, auth=anyone)
def evaluate_design(request: Request, data: Question) -> HttpResponse:
    """Work a design out by the workshop's rules. Nothing is stored."""
    design, workshop, begun = design_from(data.design), request.user.workshop, monotonic()
    scans = scans_of(workshop, design)
    answer = evaluate(design, workshop.document(), data.showing, scans, lambda: monotonic() - begun > LONGEST_S)
    return HttpResponse(answer.model_dump_json(), content_type="application/json")
