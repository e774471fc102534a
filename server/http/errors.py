"""One shape for everything that goes wrong: code, message, and for bad fields what, where and the limit."""

import json
import logging
import sys
from datetime import timedelta
from typing import Any

from django.conf import settings
from django.db import InterfaceError, OperationalError
from django.http import Http404, HttpRequest, HttpResponse, JsonResponse
from ninja import NinjaAPI, Schema
from ninja.errors import AuthenticationError, HttpError, ValidationError

from keel.design.faults import MOST_FAULTS, Fault, fault_of
from keel.formats.document import UnreadableDesignError
from keel.formats.outline_pieces import UnreadableOutlineError
from keel.formats.stl import UnreadableMeshError
from keel.formats.table import UnreadableTableError
from keel.solid.faults import GeometryError

Unworkable = UnreadableDesignError | GeometryError | UnreadableOutlineError | UnreadableMeshError | UnreadableTableError

log = logging.getLogger(__name__)


class ErrorOut(Schema):
    """The body of every answer that isn't a success."""

    code: str
    message: str
    errors: list[Fault] = []


class ApiError(Exception):
    """An answer other than success, raised from anywhere below a view."""

    def __init__(self, status: int, code: str, message: str, errors: list[Fault] | None = None, **more: Any) -> None:
        super().__init__(message)
        self.status = status
        self.body = {
            "code": code,
            "message": message,
            "errors": [fault.model_dump() for fault in errors or []],
            **more,
        }


def refused(field: str, value: Any, limit: str, message: str) -> ApiError:
    """A 422 for one field."""
    return ApiError(422, "invalid", message, [Fault(field=field, value=value, limit=limit, message=message)])


def not_yours() -> ApiError:
    """The 404 for what isn't there, or belongs to another workshop."""
    return ApiError(404, "not_found", "There is nothing here, or it belongs to another workshop.")


def install_handlers(api: NinjaAPI) -> None:
    """Give every exception of the API its answer."""

    @api.exception_handler(ApiError)
    def api_error(_request: HttpRequest, error: ApiError) -> HttpResponse:
        return JsonResponse(error.body, status=error.status)

    @api.exception_handler(ValidationError)
    def invalid(request: HttpRequest, error: ValidationError) -> HttpResponse:
        sent = _sent(request)
        named = [_fault(sent, details) for details in error.errors[:MOST_FAULTS]]
        return _invalid(named, len(error.errors) - len(named))

    @api.exception_handler(UnreadableDesignError)
    @api.exception_handler(GeometryError)
    @api.exception_handler(UnreadableOutlineError)
    @api.exception_handler(UnreadableMeshError)
    @api.exception_handler(UnreadableTableError)
    def unworkable(_request: HttpRequest, error: Unworkable) -> HttpResponse:
        return _invalid(error.faults if isinstance(error, UnreadableDesignError) else [error.fault])

    @api.exception_handler(AuthenticationError)
    def stranger(_request: HttpRequest, _error: AuthenticationError) -> HttpResponse:
        return _answer(401, "signed_out", "Sign in first.")

    @api.exception_handler(Http404)
    def missing(_request: HttpRequest, _error: Http404) -> HttpResponse:
        return JsonResponse(not_yours().body, status=404)

    @api.exception_handler(HttpError)
    def other(_request: HttpRequest, error: HttpError) -> HttpResponse:
        if error.status_code == 400:
            return _answer(422, "invalid", "The request's body is not whole JSON.")
        return _answer(error.status_code, "refused", str(error))

    @api.exception_handler(OperationalError)
    @api.exception_handler(InterfaceError)
    def away(_request: HttpRequest, _error: Exception) -> HttpResponse:
        return _database_away()


def locked_out(_request: HttpRequest, *_more: object) -> JsonResponse:
    """Too many wrong passwords: how long to wait, in words and for machines."""
    wait = timedelta(hours=settings.AXES_COOLOFF_TIME)
    minutes = wait // timedelta(minutes=1)
    answer = _answer(429, "locked", f"Too many wrong passwords. Try again in {minutes} minutes.")
    answer.headers["Retry-After"] = str(wait // timedelta(seconds=1))
    return answer


def _answer(status: int, code: str, message: str) -> JsonResponse:
    return JsonResponse({"code": code, "message": message, "errors": []}, status=status)


def _invalid(found: list[Fault], unnamed: int = 0) -> JsonResponse:
    first, others = found[0].message if found else "The request can't be read.", len(found) - 1 + unnamed
    more = f" (and {others} more)" if others > 0 else ""
    body = {"code": "invalid", "message": first + more, "errors": [fault.model_dump() for fault in found]}
    return JsonResponse(body, status=422)


def _fault(sent: Any, details: dict[str, Any]) -> Fault:
    """Ninja drops the value that was refused; fetch it from what was sent."""
    place = [step for step in details["loc"] if step not in ("body", "query", "path", "data")]
    return fault_of({**details, "loc": place, "input": _value_at(sent, place)})


def _sent(request: HttpRequest) -> Any:
    """What the request carries: its body as JSON, or its query."""
    try:
        return json.loads(request.body) if request.body else request.GET.dict()
    except ValueError:
        return None


def _value_at(value: Any, place: list[str | int]) -> Any:
    try:
        for step in place:
            value = value[step]
    except (LookupError, TypeError):
        return None
    return value


def _database_away() -> JsonResponse:
    return _answer(503, "database_away", "The store can't be reached just now. Nothing was saved; try again.")


def not_found(request: HttpRequest, exception: Exception) -> JsonResponse:
    """Django's own 404."""
    return JsonResponse(not_yours().body, status=404)


def csrf_failure(_request: HttpRequest, reason: str = "") -> JsonResponse:
    """A form token that is missing or stale."""
    return _answer(403, "csrf", f"The page is out of date; load it again. {reason}".strip())


def server_error(_request: HttpRequest) -> JsonResponse:
    """What escaped every handler: the database going away, or a fault of ours."""
    if isinstance(sys.exc_info()[1], OperationalError | InterfaceError):
        return _database_away()
    return _answer(500, "fault", "Something went wrong here. It has been logged; what you typed is still on screen.")
