"""The workshop's rules and machines."""

from typing import Annotated, Any

from django.db import transaction
from ninja import Router, Schema
from pydantic import Field, ValidationError

from keel.design.base import LONGEST_MM
from keel.design.faults import faults
from keel.design.workshop import K_LEAST, K_MOST, Brake
from keel.design.workshop import Workshop as WorkshopRules
from keel.reference.test_strip import k_from_strip
from keel.studies.sheet.brakes import machine_of
from keel.studies.sheet.parts import Spot
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
        name=workshop.name, version=workshop.version, settings=workshop.settings(), usual=WorkshopRules()
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
    # Vehicles are kept apart, each with a version of its own.
    rules = rules.model_copy(update={"vehicles": []})
    with transaction.atomic():
        workshop = Workshop.objects.select_for_update().get(pk=request.user.workshop_id)
        if workshop.version != data.base_version:
            raise ApiError(409, "conflict", "Somebody saved other settings meanwhile. Load them and try again.")
        workshop.rules = rules.model_dump(mode="json")
        workshop.version += 1
        workshop.save()
    return workshop_out(workshop)


StripLength = Annotated[float, Field(ge=1, le=LONGEST_MM, allow_inf_nan=False)]


class Strip(Schema):
    """A test strip: its length flat, both outside legs after one bend, thickness and inside radius."""

    flat_mm: StripLength
    leg_a_mm: StripLength
    leg_b_mm: StripLength
    thickness_mm: Annotated[float, Field(ge=0.3, le=25, allow_inf_nan=False)]
    radius_mm: Annotated[float, Field(ge=0, le=LONGEST_MM, allow_inf_nan=False)]
    angle_deg: Annotated[float, Field(ge=5, le=175, allow_inf_nan=False)] = 90


class StripAnswer(Schema):
    """K, and whether it is one a brake can have."""

    k: float
    usable: bool


@router.post("workshop/k-from-strip", response={200: StripAnswer, 422: ErrorOut}, auth=anyone)
def strip_k(request: Request, data: Strip) -> StripAnswer:
    """K of the brake from a measured test strip. Nothing is stored."""
    k = k_from_strip(data.flat_mm, (data.leg_a_mm, data.leg_b_mm), data.angle_deg, data.thickness_mm, data.radius_mm)
    return StripAnswer(k=k, usable=K_LEAST <= k <= K_MOST)


class BrakeShape(Schema):
    """A brake from its end, the sheet at height 0, the bend at the origin [mm]: beam or punch, bed or die, leaf."""

    tool: list[Spot]
    under: list[Spot]
    leaf: list[Spot]


@router.post("workshop/brake-shape", response={200: BrakeShape, 422: ErrorOut}, auth=anyone)
def brake_shape(request: Request, data: Brake) -> BrakeShape:
    """What of a brake a part has to pass, as it was measured or as its sizes say. Nothing is stored."""
    tool, under, leaf = machine_of(data).shown
    return BrakeShape(tool=tool, under=under, leaf=leaf)
