"""Ports out: the schedule as CSV, a flange's holes as DXF, the gauge's breakpoints as CSV."""

import io
from collections.abc import Sequence
from math import cos, radians, sin

from ezdxf import units
from ezdxf.filemanagement import new

from keel.design.ports import Port
from keel.formats.table import written
from keel.reference.quantities import UnitSet
from keel.studies.drawing.geometry import PortPlace
from keel.studies.gauge.calibration import CurvePoint
from keel.studies.gauge.readings import GaugeTruth

SCHEDULE = (
    "port", "role", "face", "from_rear_mm", "from_right_mm", "opening_over_underside_mm", "hole_mm", "seat",
    "seat_outer_mm",
    "bolt_circle_mm", "bolts", "bolt_hole_mm", "first_bolt_deg", "stop_deg", "hose_deg",
    "stands_mm", "hangs_mm", "closed", "part",
)  # fmt: skip


def schedule_csv(
    ports: Sequence[Port], places: Sequence[PortPlace], underside_mm: float, units: UnitSet = "mm_l"
) -> bytes:
    """The port schedule, a row a port; heights count from the body's underside.

    Parameters
    ----------
    ports : sequence of Port
        Ports of the design.
    places : sequence of PortPlace
        Where each of them is, in vehicle axes.
    underside_mm : float
        Height of the body's underside [mm].
    units : UnitSet
        The reader's set of units.

    Returns
    -------
    bytes
        CSV.
    """
    heights = {place.id: place.place.z - underside_mm for place in places}
    rows = []
    for port in ports:
        seat = port.seat
        holes = (
            (seat.hole_mm, seat.kind, seat.outer_mm, seat.bolt_circle_mm, seat.bolts, seat.bolt_mm)
            if seat
            else (None,) * 6
        )
        place = (port.x_mm, port.y_mm, round(heights.get(port.id, 0.0), 2))
        angles = (port.clock_deg, port.stop_deg, port.hose_deg)
        rest = (port.stands_mm, port.hangs_mm, "yes" if port.capped else "", port.part)
        rows.append([port.name, port.role, port.face, *place, *holes, *angles, *rest])
    return written(SCHEDULE, rows, units)


def breakpoints_csv(truth: GaugeTruth, units: UnitSet = "mm_l") -> bytes:
    """For a gauge that learns: each sender's ohms and true litres from empty to full.

    Parameters
    ----------
    truth : GaugeTruth
        What each needle shows against what is in.
    units : UnitSet
        The reader's set of units.

    Returns
    -------
    bytes
        CSV.
    """
    rows = [
        [
            reading.name,
            reading.cell,
            f"{mark.ohms:.2f}",
            f"{mark.litres:.3f}",
            f"{mark.float_mm:.1f}",
            f"{mark.needle:.4f}",
        ]
        for reading in truth.readings
        for mark in reading.breakpoints
    ]
    return written(("sender", "cell", "ohms", "litres", "float_mm", "needle"), rows, units)


def curve_csv(curve: Sequence[CurvePoint], *, simulated: bool, units: UnitSet = "mm_l") -> bytes:
    """A measured curve: ohms, litres, and the litres calculated.

    Parameters
    ----------
    curve : sequence of CurvePoint
        Points poured or counted out.
    simulated : bool
        Whether the bench was a stand-in: the file says so.
    units : UnitSet
        The reader's set of units.

    Returns
    -------
    bytes
        CSV.
    """
    source = "simulated" if simulated else "measured"
    rows = [[f"{point.ohms:.2f}", f"{point.litres:.3f}", f"{point.calculated_l:.3f}", source] for point in curve]
    return written(("ohms", "litres", "calculated_litres", "source"), rows, units)


def bolt_places(port: Port) -> list[tuple[float, float]]:
    """Bolt holes about the port's middle, seen from outside, the first at its clocking [mm]: x forward, y left.

    Parameters
    ----------
    port : Port
        With a bolt circle, or none.

    Returns
    -------
    list of (float, float)
        Places [mm]; empty without bolts.
    """
    seat = port.seat
    if seat is None or not seat.bolts or seat.bolt_circle_mm is None:
        return []
    angles = [radians(port.clock_deg + 360 * n / seat.bolts) for n in range(seat.bolts)]
    return [(seat.bolt_circle_mm / 2 * cos(a), seat.bolt_circle_mm / 2 * sin(a)) for a in angles]


def marks(port: Port, long_mm: float) -> list[tuple[tuple[float, float], tuple[float, float]]]:
    """Strokes to etch about a port's middle [mm]: outward from its seat at the first bolt or mark, and across the
    end of another at the stop of its lock ring.

    Parameters
    ----------
    port : Port
        Any port.
    long_mm : float
        Length of a stroke [mm].

    Returns
    -------
    list of tuple[tuple[float, float], tuple[float, float]]
        Ends of each stroke [mm].
    """
    assert port.seat is not None
    rim = port.seat.outer_mm / 2

    def at(deg: float, out: float, aside: float = 0.0) -> tuple[float, float]:
        a = radians(deg)
        return out * cos(a) - aside * sin(a), out * sin(a) + aside * cos(a)

    found = [(at(port.clock_deg, rim), at(port.clock_deg, rim + long_mm))]
    if port.stop_deg is not None:
        out, half = rim + long_mm, long_mm / 2
        found += [(at(port.stop_deg, rim), at(port.stop_deg, out))]
        found += [(at(port.stop_deg, out, -half), at(port.stop_deg, out, half))]
    return found


def flange_dxf(port: Port) -> bytes:
    """Hole, ring, bolt circle and mark of a port's seat at full size, about its middle (R2010, millimetres).

    Layers CUT (hole and bolt holes), RING (outside of the seat), ETCH (bolt circle, cross and mark).

    Parameters
    ----------
    port : Port
        Any port.

    Returns
    -------
    bytes
        DXF text, encoded.
    """
    seat = port.seat
    assert seat is not None
    document = new("R2010", units=units.MM)
    document.header["$MEASUREMENT"] = 1
    for name, colour in (("CUT", 7), ("RING", 5), ("ETCH", 3), ("TEXT", 8)):
        document.layers.add(name, color=colour)
    space = document.modelspace()
    space.add_circle((0, 0), seat.hole_mm / 2, dxfattribs={"layer": "CUT"})
    space.add_circle((0, 0), seat.outer_mm / 2, dxfattribs={"layer": "RING"})
    if seat.bolt_circle_mm:
        space.add_circle((0, 0), seat.bolt_circle_mm / 2, dxfattribs={"layer": "ETCH"})
    for x, y in bolt_places(port):
        space.add_circle((x, y), (seat.bolt_mm or 5.0) / 2, dxfattribs={"layer": "CUT"})
    reach = seat.outer_mm / 2 + 10
    for end in ((reach, 0.0), (0.0, reach)):
        space.add_line((-end[0], -end[1]), end, dxfattribs={"layer": "ETCH"})
    for start, end in marks(port, 8.0):
        space.add_line(start, end, dxfattribs={"layer": "ETCH"})
    text = space.add_text(f"{port.name}: outside face up, forward to the right", height=5, dxfattribs={"layer": "TEXT"})
    text.set_placement((-seat.outer_mm / 2, -reach - 10))
    stream = io.StringIO()
    document.write(stream)
    return stream.getvalue().encode("utf-8")
