"""Is the service able to work? Database, migrations, and the queue of studies."""

from datetime import timedelta
from typing import Any

from django.db import DatabaseError, connection
from django.db.migrations.executor import MigrationExecutor
from django.http import HttpRequest, JsonResponse
from django.utils import timezone
from procrastinate.contrib.django.models import ProcrastinateJob, ProcrastinateWorker

BEAT = timedelta(seconds=60)
"""A worker that was heard of since then lives."""


def healthz(_request: HttpRequest) -> JsonResponse:
    """200 when the database answers and every migration is applied, else 503; says which, and how the queue stands."""
    try:
        executor = MigrationExecutor(connection)
        waiting = executor.migration_plan(executor.loader.graph.leaf_nodes())
    except DatabaseError:
        return JsonResponse({"status": "down", "database": "unreachable", "migrations": "unknown"}, status=503)
    migrations = f"{len(waiting)} waiting" if waiting else "applied"
    said: dict[str, Any] = {"status": "down" if waiting else "up", "database": "up", "migrations": migrations}
    if not waiting:
        said["queue"] = _queue()
    return JsonResponse(said, status=503 if waiting else 200)


def _queue() -> dict[str, Any]:
    """How many parts of studies wait and are worked on, and whether somebody takes them up."""
    jobs = ProcrastinateJob.objects.filter(queue_name="studies", task_name="slosh.run_part")
    workers = ProcrastinateWorker.objects.filter(last_heartbeat__gt=timezone.now() - BEAT).count()
    waiting = jobs.filter(status="todo").count()
    return {
        "state": "working" if workers else "no worker" if waiting else "idle, no worker",
        "workers": workers,
        "waiting": waiting,
        "doing": jobs.filter(status="doing").count(),
        "failed": jobs.filter(status="failed").count(),
    }
