"""The workshop's rules and machines."""

from typing import Any

from django.db import transaction
from ninja import Router, Schema
from pydantic import ValidationError

from keel.design.faults import faults
from keel.design.workshop import Workshop as WorkshopRules
from server.http.errors import ApiError, ErrorOut
from server.workshop.guard import Request, anyone, owner
from server.workshop.models import Workshop

router = Router(tags=["workshop"])


class WorkshopOut(Schema):
    """A workshop's settings and their version."""

    name: str
    version: int
    settings: WorkshopRules
    usual: WorkshopRules


class WorkshopIn(Schema):
    """New settings, based on a version."""

    base_version: int
    settings: dict[str, Any]


def workshop_out(workshop: Workshop) -> WorkshopOut:
    """A workshop with its settings and the usual ones to compare them with."""
    return WorkshopOut(
        name=workshop.name, version=workshop.version, settings=workshop.document(), usual=WorkshopRules()
    )


@router.get("workshop", response=WorkshopOut, auth=anyone)
def read_workshop(request: Request) -> WorkshopOut:
    """The workshop's rules and machines, and the usual values to compare them with."""
    return workshop_out(request.user.workshop)


@router.put("workshop", response={200: WorkshopOut, 409: ErrorOut, 422: ErrorOut}, auth=owner)
def write_workshop(request: Request, data: WorkshopIn) -> WorkshopOut:
    """Save the rules; 409 when somebody saved others meanwhile."""
    try:
        rules = WorkshopRules.model_validate(data.settings)
    except ValidationError as error:
        found = faults(error)
        raise ApiError(422, "invalid", found[0].message, found) from error
    with transaction.atomic():
        workshop = Workshop.objects.select_for_update().get(pk=request.user.workshop_id)
        if workshop.version != data.base_version:
            raise ApiError(409, "conflict", "Somebody saved other settings meanwhile. Load them and try again.")
        workshop.rules = rules.model_dump(mode="json")
        workshop.version += 1
        workshop.save()
    return workshop_out(workshop)
