"""The people of a workshop, kept by its owner."""

from typing import Annotated

from django.db import IntegrityError, transaction
from django.shortcuts import get_object_or_404
from ninja import Router, Schema
from pydantic import Field

from keel.design.base import Name
from server.http.errors import ErrorOut, refused
from server.workshop.api.session import RoleName, Text, set_password
from server.workshop.guard import Request, owner
from server.workshop.models import Person

router = Router(tags=["people"], auth=owner)

Username = Annotated[str, Field(min_length=2, max_length=60, pattern=r"^[a-z0-9._-]+$")]


class PersonOut(Schema):
    """Somebody of the workshop."""

    id: int
    username: str
    name: str
    role: RoleName
    trades: list[str]
    is_active: bool


class PersonIn(Schema):
    """Somebody new, with a first password to hand over."""

    username: Username
    name: Name
    role: RoleName
    password: Text


class PersonChange(Schema):
    """What to change; an empty field stays as it was."""

    name: Name | None = None
    role: RoleName | None = None
    trades: Annotated[list[Name], Field(max_length=20)] | None = None
    is_active: bool | None = None


@router.get("people", response=list[PersonOut])
def people(request: Request) -> list[Person]:
    """Everybody of the workshop, by name."""
    return list(request.user.workshop.people.order_by("name"))


@router.post("people", response={201: PersonOut, 422: ErrorOut})
def add_person(request: Request, data: PersonIn) -> tuple[int, Person]:
    """Add somebody to the workshop."""
    person = Person(workshop=request.user.workshop, username=data.username, name=data.name, role=data.role)
    try:
        with transaction.atomic():
            set_password(person, data.password, field="password")
    except IntegrityError as error:
        raise refused("username", data.username, "a name nobody has yet", "That name is taken.") from error
    return 201, person


@router.patch("people/{person_id}", response={200: PersonOut, 404: ErrorOut, 422: ErrorOut})
def change_person(request: Request, person_id: int, data: PersonChange) -> Person:
    """Rename somebody, change the role, or close the account. Owners can't shut themselves out."""
    person = get_object_or_404(Person, pk=person_id, workshop=request.user.workshop)
    changes = data.dict(exclude_none=True)
    if person == request.user and (changes.get("role", "owner") != "owner" or not changes.get("is_active", True)):
        raise refused("role", changes.get("role"), "owner", "You can't take the workshop away from yourself.")
    for name, value in changes.items():
        setattr(person, name, value)
    person.save()
    return person
