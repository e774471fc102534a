"""The interface's one page: every address that isn't the API's opens it."""

from django.conf import settings
from django.http import HttpRequest, HttpResponse, HttpResponseNotFound


def interface(_request: HttpRequest) -> HttpResponse:
    """The built front end; its own router shows the screen for the address."""
    page = settings.WEB_BUILD / "index.html"
    if not page.is_file():
        return HttpResponseNotFound("The front end has not been built: run bin/demo.", content_type="text/plain")
    return HttpResponse(page.read_bytes(), headers={"Cache-Control": "no-cache"})
