"""The workshop's vehicles: measured once, shared by the jobs that are for them."""

from collections.abc import Iterable
from typing import Any

from django.db import transaction
from django.db.models import F
from django.shortcuts import get_object_or_404
from ninja import Router, Schema
from pydantic import ConfigDict, ValidationError

from keel.design.faults import faults
from keel.design.vehicle import Vehicle
from server.http.errors import ApiError, ErrorOut, refused
from server.jobs.models import Revision
from server.workshop.guard import Request, anyone, writer
from server.workshop.models import MeasuredVehicle, Workshop

router = Router(tags=["vehicles"])
MOST_VEHICLES = 500


class VehicleOut(Schema):
    """A vehicle, its version, and the jobs that are for it."""

    id: int
    key: str
    version: int
    vehicle: Vehicle
    jobs: list[int]


class VehicleIn(Schema):
    """A vehicle as it is to be."""

    model_config = ConfigDict(extra="forbid")

    vehicle: dict[str, Any]


class VehicleChange(VehicleIn):
    """The same, and the version that it is based on."""

    base_version: int


@router.get("vehicles", response={200: list[VehicleOut]}, auth=anyone)
def list_vehicles(request: Request) -> list[VehicleOut]:
    """All vehicles of the workshop."""
    return _out(request.user.workshop, request.user.workshop.vehicles.all())


@router.post("vehicles", response={201: VehicleOut, 422: ErrorOut}, auth=writer)
def add_vehicle(request: Request, data: VehicleIn) -> tuple[int, VehicleOut]:
    """Keep a new vehicle."""
    workshop = request.user.workshop
    if workshop.vehicles.count() >= MOST_VEHICLES:
        message = f"A workshop keeps {MOST_VEHICLES} vehicles; remove one first."
        raise refused("vehicles", MOST_VEHICLES, f"at most {MOST_VEHICLES}", message)
    made = MeasuredVehicle.objects.create(workshop=workshop, document_json=_read(data.vehicle))
    return 201, _out(workshop, [made])[0]


@router.put(
    "vehicles/{vehicle_id}", response={200: VehicleOut, 404: ErrorOut, 409: ErrorOut, 422: ErrorOut}, auth=writer
)
def change_vehicle(request: Request, vehicle_id: int, data: VehicleChange) -> VehicleOut:
    """Change a vehicle for all its jobs; 409 when somebody else did meanwhile."""
    workshop, document = request.user.workshop, _read(data.vehicle)
    with transaction.atomic():
        kept = get_object_or_404(MeasuredVehicle.objects.select_for_update(), pk=vehicle_id, workshop=workshop)
        if kept.version != data.base_version:
            raise ApiError(409, "conflict", "Somebody changed this vehicle meanwhile. Load it and try again.")
        kept.document_json, kept.version = document, kept.version + 1
        kept.save()
    return _out(workshop, [kept])[0]


@router.delete("vehicles/{vehicle_id}", response={204: None, 404: ErrorOut, 422: ErrorOut}, auth=writer)
def remove_vehicle(request: Request, vehicle_id: int) -> tuple[int, None]:
    """Remove a vehicle that no design is for."""
    workshop = request.user.workshop
    kept = get_object_or_404(MeasuredVehicle, pk=vehicle_id, workshop=workshop)
    jobs = _jobs(workshop).get(kept.key, [])
    if jobs:
        numbers = ", ".join(f"{number}" for number in jobs)
        raise refused(
            "vehicle", kept.key, "no job", f"{kept} is the vehicle of job {numbers}: take it out there first."
        )
    kept.delete()
    return 204, None


def _read(document: dict[str, Any]) -> dict[str, Any]:
    try:
        return Vehicle.model_validate(document).model_dump(mode="json", exclude={"id"})
    except ValidationError as error:
        found = faults(error)
        raise ApiError(422, "invalid", found[0].message, found) from error


def _jobs(workshop: Workshop) -> dict[str, list[int]]:
    """Numbers of the jobs with a design whose present revision is for a vehicle, by that."""
    current = Revision.objects.filter(tank__workshop=workshop, number=F("tank__revision"))
    found: dict[str, list[int]] = {}
    named = current.exclude(document__mount__vehicle=None).values_list("document__mount__vehicle", "tank__job__number")
    for key, number in named.order_by("tank__job__number"):
        if key and number not in found.setdefault(key, []):
            found[key].append(number)
    return found


def _out(workshop: Workshop, kept: Iterable[MeasuredVehicle]) -> list[VehicleOut]:
    jobs = _jobs(workshop)
    return [
        VehicleOut(id=one.pk, key=one.key, version=one.version, vehicle=one.measured(), jobs=jobs.get(one.key, []))
        for one in kept
    ]
