"""Refuse bodies that are too large before anything keeps them."""

from collections.abc import Callable

from django.conf import settings
from django.http import HttpRequest, HttpResponse, JsonResponse
from django.http.request import UnreadablePostError

MEGA = 1e6
CHUNK = 1 << 16
MOST_READ = 300_000_000
"""A body beyond this is cut off, and its sender hears nothing [bytes]."""


class BodyLimitMiddleware:
    """413 for a request whose body is over the limit, naming both."""

    def __init__(self, get_response: Callable[[HttpRequest], HttpResponse]) -> None:
        self.get_response = get_response

    def __call__(self, request: HttpRequest) -> HttpResponse:
        """Look at the announced length only."""
        length = request.headers.get("Content-Length", "")
        most = settings.KEEL_UPLOAD_LIMITS.get(request.path, settings.KEEL_BODY_LIMIT)
        if not (length.isascii() and length.isdecimal()) or int(length) <= most:
            return self.get_response(request)
        _read_away(request)
        message = f"This is {int(length) / MEGA:.4g} MB; {most / MEGA:g} MB or less are taken."
        fault = {"field": "document", "value": int(length), "limit": f"{most} bytes or less", "message": message}
        return JsonResponse({"code": "too_large", "message": message, "errors": [fault]}, status=413)


def _read_away(request: HttpRequest) -> None:
    """Take the body in and drop it: a browser listens for an answer only once it has sent everything."""
    left = MOST_READ
    try:
        while left > 0 and (part := request.read(CHUNK)):
            left -= len(part)
    except UnreadablePostError:
        return
