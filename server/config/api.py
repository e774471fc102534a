"""The API, put together from the apps."""

from ninja import NinjaAPI

from server.bench.api import router as bench
from server.floor.api import router as floor
from server.floor.leak_test_api import router as leak_tests
from server.http.errors import install_handlers
from server.jobs.api.customers import router as customers
from server.jobs.api.designs import router as designs
from server.jobs.api.evaluation import router as evaluation
from server.jobs.api.imports import router as imports
from server.jobs.api.jobs import router as jobs
from server.jobs.api.overview import router as overview
from server.mount.api import router as mount
from server.mount.vehicles import router as vehicles
from server.papers.api import router as papers
from server.slosh.api import router as slosh
from server.slosh.studies import router as studies
from server.workshop.api.library import router as library
from server.workshop.api.people import router as people
from server.workshop.api.session import router as session
from server.workshop.api.settings import router as workshop

api = NinjaAPI(title="Core Keel", version="1", docs_url=None, urls_namespace="api")
install_handlers(api)
for router in (
    session,
    people,
    workshop,
    customers,
    jobs,
    overview,
    designs,
    evaluation,
    imports,
    papers,
    library,
    bench,
    slosh,
    studies,
    mount,
    vehicles,
    floor,
    leak_tests,
):
    api.add_router("", router)
