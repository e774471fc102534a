"""Papers of the ports: the schedule, and a template of every seat."""

from collections.abc import Iterator
from functools import partial

from keel.analysis.tank import TankAnalysis
from keel.design.ports import Port
from keel.formats.ports import flange_dxf, schedule_csv
from keel.studies.drawing.geometry import GEOMETRY, PORT_PLACES
from keel.studies.ports.reach import REACHES
from server.http.errors import ApiError
from server.papers.paper import Paper, StationPapers, Wanted
from server.papers.port_sheet import port_pdf


def _schedule(wanted: Wanted) -> bytes:
    tank = wanted.tank
    return schedule_csv(tank.design.ports, tank[PORT_PLACES], tank[GEOMETRY].body.low.z, wanted.heading.reader)


def _template(port: Port, wanted: Wanted) -> bytes:
    reach = next((reach for reach in wanted.tank[REACHES] if reach.id == port.id), None)
    return port_pdf(wanted.heading, port, reach)


def _outline(port: Port, _wanted: Wanted) -> bytes:
    return flange_dxf(port)


def _papers(tank: TankAnalysis) -> Iterator[Paper]:
    yield Paper("ports.csv", "Port schedule, CSV", _schedule)
    for port in tank.design.ports:
        if port.seat is not None:
            yield Paper(f"port-{port.id}.pdf", f"{port.name}, template 1:1 PDF", partial(_template, port))
            yield Paper(f"port-{port.id}.dxf", f"{port.name}, DXF", partial(_outline, port))


def _missing(tank: TankAnalysis, name: str) -> ApiError | None:
    stem, _, kind = name.removeprefix("port-").rpartition(".")
    port = next((port for port in tank.design.ports if port.id == stem and kind in ("dxf", "pdf")), None)
    if port is None or not name.startswith("port-"):
        return None
    return ApiError(422, "no_seat", f"{port.name} has no boss or flange yet: give it one at Ports.")


PORTS_PAPERS = StationPapers("ports", _papers, _missing)
