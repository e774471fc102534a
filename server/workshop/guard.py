"""Who may do what: signed in, may write, owns the workshop."""

from typing import Any

from django.http import HttpRequest
from ninja.security import SessionAuth

from server.http.errors import ApiError
from server.workshop.models import Person, Role


class Request(HttpRequest):
    """A request of somebody signed in."""

    user: Person


class RoleAuth(SessionAuth):
    """Session and form token, and one of the roles."""

    def __init__(self, *roles: Role) -> None:
        super().__init__(csrf=True)
        self.roles = roles

    def authenticate(self, request: HttpRequest, key: str | None) -> Any:
        """The person, or None for a stranger; 403 for somebody whose role doesn't allow it."""
        person = super().authenticate(request, key)
        if person is not None and person.role not in self.roles:
            names = " or ".join(self.roles)
            raise ApiError(403, "role", f"Your role is {person.role}; this takes {names}.")
        return person


anyone = RoleAuth(Role.OWNER, Role.FABRICATOR, Role.VIEWER)
writer = RoleAuth(Role.OWNER, Role.FABRICATOR)
owner = RoleAuth(Role.OWNER)
