"""The core's answers about a design that need not be saved yet."""

from typing import Annotated, Any

from django.http import HttpResponse
from ninja import Router, Schema
from pydantic import Field

from keel.evaluate import Evaluation, evaluate
from keel.formats.document import design_from
from keel.studies.attitude import Attitude
from server.http.errors import ErrorOut
from server.workshop.guard import Request, anyone

router = Router(tags=["evaluation"])


class Question(Schema):
    """A design to work out, and the fill to show."""

    design: dict[str, Any]
    attitude: Attitude = Attitude()
    fill_fraction: Annotated[float, Field(ge=0, le=1, allow_inf_nan=False)] | None = None


@router.post("evaluate", response={200: Evaluation, 422: ErrorOut}, auth=anyone)
def evaluate_design(request: Request, data: Question) -> HttpResponse:
    """Work a design out by the workshop's rules. Nothing is stored."""
    answer = evaluate(design_from(data.design), request.user.workshop.document(), data.fill_fraction, data.attitude)
    return HttpResponse(answer.model_dump_json(), content_type="application/json")
