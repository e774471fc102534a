"""Refuse bodies that are too large before anything reads them."""

from collections.abc import Callable

from django.conf import settings
from django.http import HttpRequest, HttpResponse, JsonResponse


class BodyLimitMiddleware:
    """413 for a request whose body is over the limit, naming both."""

    def __init__(self, get_response: Callable[[HttpRequest], HttpResponse]) -> None:
        self.get_response = get_response

    def __call__(self, request: HttpRequest) -> HttpResponse:
        """Look at the announced length only."""
        length = request.headers.get("Content-Length", "")
        most = settings.KEEL_UPLOAD_LIMITS.get(request.path, settings.KEEL_BODY_LIMIT)
        if not length.isdigit() or int(length) <= most:
            return self.get_response(request)
        limit = f"{most} bytes or less"
        message = f"This is {length} bytes; {limit} are taken."
        fault = {"field": "document", "value": int(length), "limit": limit, "message": message}
        return JsonResponse({"code": "too_large", "message": message, "errors": [fault]}, status=413)
