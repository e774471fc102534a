"""Is the service able to work? Database and migrations."""

from django.db import DatabaseError, connection
from django.db.migrations.executor import MigrationExecutor
from django.http import HttpRequest, JsonResponse


def healthz(_request: HttpRequest) -> JsonResponse:
    """200 when the database answers and every migration is applied, else 503; says which."""
    try:
        executor = MigrationExecutor(connection)
        waiting = executor.migration_plan(executor.loader.graph.leaf_nodes())
    except DatabaseError:
        return JsonResponse({"status": "down", "database": "unreachable", "migrations": "unknown"}, status=503)
    migrations = f"{len(waiting)} waiting" if waiting else "applied"
    return JsonResponse(
        {"status": "down" if waiting else "up", "database": "up", "migrations": migrations},
        status=503 if waiting else 200,
    )
