"""The way in: asked for, watched, stopped."""

from datetime import datetime
from typing import Annotated, Any, Literal, cast

from django.db import transaction
from django.shortcuts import get_object_or_404
from django.utils import timezone
from ninja import Router, Schema
from pydantic import ConfigDict, Field, TypeAdapter

from keel.design.base import Gap
from keel.formats.document import design_from
from keel.studies.mount.way_in import PLAY_MM, WayIn
from server.http.errors import ApiError, ErrorOut, refused
from server.jobs.api.designs import own_design
from server.mount.models import WaySearch
from server.mount.tasks import enqueue, mend
from server.workshop.guard import Request, anyone, writer

router = Router(tags=["mount"])
MOST_RUNNING = 4
MOST_PLAY_MM = 100.0
WAY_IN = TypeAdapter(WayIn)
State = Literal["running", "done", "cancelled"]


class WaySearchIn(Schema):
    """A design as it is on the screen, and the room that is kept all round."""

    model_config = ConfigDict(extra="forbid")

    design: dict[str, Any]
    play_mm: Annotated[Gap, Field(le=MOST_PLAY_MM)] = PLAY_MM


class WaySearchOut(Schema):
    """A search as far as it is."""

    id: int
    state: State
    asked: datetime
    author: str
    share: float
    play_mm: float
    found: WayIn | None
    problem: str
    design: dict[str, Any]
    vehicle_changed: bool


@router.post("designs/{design_id}/way-in", response={201: WaySearchOut, 404: ErrorOut, 422: ErrorOut}, auth=writer)
def ask_for(request: Request, design_id: int, data: WaySearchIn) -> tuple[int, WaySearchOut]:
    """Put a search on the queue."""
    tank, design = own_design(request, design_id), design_from(data.design)
    if design.shell is None:
        raise ApiError(422, "no_shell", "There is no shell yet: give the tank its sizes first.")
    if design.bay is None or design.bay.opening is None:
        message = "There is no opening yet: give the bay the one that the tank goes in through."
        raise ApiError(422, "no_opening", message)
    running = WaySearch.objects.filter(tank__job__workshop=request.user.workshop, state=WaySearch.State.RUNNING).count()
    if running >= MOST_RUNNING:
        message = f"{running} searches are running already: wait for one, or stop one."
        raise refused("way-in", running, f"below {MOST_RUNNING}", message)
    with transaction.atomic():
        search = WaySearch.objects.create(
            tank=tank,
            author=request.user,
            design=design.model_dump(mode="json"),
            play_mm=data.play_mm,
            vehicle_version=_version(request, design.mount.vehicle),
        )
        enqueue(search)
    return 201, _out(request, search)


@router.get("designs/{design_id}/way-in", response={200: WaySearchOut | None, 404: ErrorOut}, auth=anyone)
def latest(request: Request, design_id: int) -> WaySearchOut | None:
    """The latest search of a design, as far as it is; none where there was none."""
    search = own_design(request, design_id).way_searches.select_related("author").first()
    if search is None:
        return None
    mend(search)
    return _out(request, search)


@router.post("way-in/{search_id}/stop", response={200: WaySearchOut, 404: ErrorOut}, auth=writer)
def stop(request: Request, search_id: int) -> WaySearchOut:
    """Stop a search."""
    search = get_object_or_404(WaySearch, pk=search_id, tank__job__workshop=request.user.workshop)
    running = WaySearch.objects.filter(pk=search.pk, state=WaySearch.State.RUNNING)
    running.update(state=WaySearch.State.CANCELLED, finished=timezone.now())
    search.refresh_from_db()
    return _out(request, search)


def _version(request: Request, key: str | None) -> int | None:
    """A vehicle's version now; None without a vehicle."""
    kept = request.user.workshop.vehicles.all() if key else ()
    return next((vehicle.version for vehicle in kept if vehicle.key == key), None)


def _out(request: Request, search: WaySearch) -> WaySearchOut:
    return WaySearchOut(
        id=search.pk,
        state=cast(State, search.state),
        asked=search.asked,
        author=search.author.name,
        share=search.share,
        play_mm=search.play_mm,
        found=WAY_IN.validate_python(search.found) if search.found else None,
        problem=search.problem,
        design=search.design,
        vehicle_changed=_version(request, search.design.get("mount", {}).get("vehicle")) != search.vehicle_version,
    )
