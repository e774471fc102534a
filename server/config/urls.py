"""Addresses: the API, the health check, and the interface for everything else."""

from django.urls import path, re_path

from server.config.api import api
from server.config.health import healthz
from server.config.pages import interface

urlpatterns = [
    path("healthz", healthz),
    path("api/", api.urls),
    re_path(r"^(?!api/|assets/|static/).*$", interface),
]

handler404 = "server.http.errors.not_found"
handler500 = "server.http.errors.server_error"
