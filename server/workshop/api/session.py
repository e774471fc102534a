"""Signing in and out, one's own password and preferences."""

from typing import Annotated, Literal

from django.contrib.auth import authenticate, login, logout, update_session_auth_hash
from django.contrib.auth.password_validation import validate_password
from django.core.exceptions import ValidationError
from django.http import HttpRequest, HttpResponse
from django.middleware.csrf import get_token
from ninja import Router, Schema
from ninja.utils import check_csrf
from pydantic import Field

from keel.design.base import PLAIN
from server.http.errors import ApiError, ErrorOut, locked_out, refused
from server.workshop.guard import Request, anyone
from server.workshop.models import Person

router = Router(tags=["session"])

UnitsName = Literal["mm_l", "in_usgal", "in_impgal"]
ThemeName = Literal["system", "light", "dark"]
RoleName = Literal["owner", "fabricator", "viewer"]
Text = Annotated[str, Field(min_length=1, max_length=150, pattern=PLAIN)]


class SessionOut(Schema):
    """Who is signed in."""

    username: str
    name: str
    role: RoleName
    workshop: str
    units: UnitsName
    theme: ThemeName


class SignIn(Schema):
    """A name and a password."""

    username: Text
    password: Text


class PasswordChange(Schema):
    """The old password and the new one."""

    old: Text
    new: Text


class Preferences(Schema):
    """What a person likes; an empty field stays as it was."""

    units: UnitsName | None = None
    theme: ThemeName | None = None


def session_of(person: Person) -> SessionOut:
    """The session as the interface wants it."""
    return SessionOut.model_validate(
        {
            "username": person.username,
            "name": person.name,
            "role": person.role,
            "workshop": person.workshop.name,
            "units": person.units,
            "theme": person.theme,
        }
    )


@router.get("session", response={200: SessionOut, 401: ErrorOut})
def who(request: HttpRequest) -> SessionOut:
    """Who is signed in; sets the form token either way."""
    get_token(request)
    if not isinstance(request.user, Person):
        raise ApiError(401, "signed_out", "Sign in first.")
    return session_of(request.user)


@router.post("session", response={200: SessionOut, 401: ErrorOut, 403: ErrorOut, 422: ErrorOut, 429: ErrorOut})
def sign_in(request: HttpRequest, data: SignIn) -> SessionOut | HttpResponse:
    """Sign in. Too many wrong passwords lock the name for a while."""
    if check_csrf(request):
        raise ApiError(403, "csrf", "The page is out of date; load it again.")
    person = authenticate(request, username=data.username, password=data.password)
    if getattr(request, "axes_locked_out", False):
        return locked_out(request)
    if not isinstance(person, Person):
        raise ApiError(401, "wrong_password", "That name and password don't go together.")
    login(request, person)
    return session_of(person)


@router.delete("session", response={204: None, 401: ErrorOut}, auth=anyone)
def sign_out(request: Request) -> tuple[int, None]:
    """Sign out."""
    logout(request)
    return 204, None


@router.post("session/password", response={204: None, 422: ErrorOut}, auth=anyone)
def change_password(request: Request, data: PasswordChange) -> tuple[int, None]:
    """Change one's own password; other sessions of the person end."""
    if not request.user.check_password(data.old):
        raise refused("old", None, "your present password", "That is not your present password.")
    set_password(request.user, data.new, field="new")
    update_session_auth_hash(request, request.user)
    return 204, None


def set_password(person: Person, password: str, field: str) -> None:
    """Give a person a password, or refuse a weak one as a 422 on `field`."""
    try:
        validate_password(password, person)
    except ValidationError as error:
        text = " ".join(error.messages)
        raise refused(field, None, "10 characters or more, not a common word", text) from error
    person.set_password(password)
    person.save()


@router.patch("session/preferences", response={200: SessionOut, 422: ErrorOut}, auth=anyone)
def set_preferences(request: Request, data: Preferences) -> SessionOut:
    """Remember units and theme for this person, on any device."""
    person = request.user
    for name, value in data.dict(exclude_none=True).items():
        setattr(person, name, value)
    person.save(update_fields=["units", "theme"])
    return session_of(person)
