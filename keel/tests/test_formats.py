"""What goes out comes back in: the shop's library, flanges, laps."""

import csv
import io
import time
from math import atan2, degrees, hypot, pi
from typing import Any
from unittest import TestCase

import ezdxf
import numpy as np
from hypothesis import given, settings
from hypothesis import strategies as st

from keel.design.gauge import SenderPart, SwingArm, TubeSender
from keel.design.ports import Hanger, HoseBend, NeckPath, Port, PortPart, Seat, Valve, VentPath
from keel.design.pumps import Pump, PumpCurve, PumpPoint
from keel.formats.headings import as_kept, in_units
from keel.formats.lap import LapColumns, look_at_lap, read_lap
from keel.formats.lap_out import run_csv
from keel.formats.library import pumps_csv, read_pumps, read_senders, senders_csv
from keel.formats.part_library import parts_csv, read_parts
from keel.formats.ports import flange_dxf
from keel.formats.table import UnreadableTableError, read_table, written
from keel.reference.quantities import UNIT_SETS
from keel.studies.slosh.log import Log
from keel.studies.slosh.run import Ran

WORDS = st.text("abcdefg XYZ,;\"'äß12", min_size=1, max_size=12).map(str.strip).filter(bool)
THOUSANDTHS = st.integers(1, 9_999_999).map(lambda n: n / 1000)


@st.composite
def pumps(draw: st.DrawFn) -> Pump:
    """Any pump whose curves fall."""
    curves = []
    for volt in sorted(draw(st.sets(st.sampled_from([9.0, 11.5, 12.75, 13.5]), min_size=1, max_size=3))):
        pressures = sorted(draw(st.sets(st.integers(0, 900_000), min_size=2, max_size=5)))
        flows = sorted(draw(st.lists(THOUSANDTHS, min_size=len(pressures), max_size=len(pressures))), reverse=True)
        points = [PumpPoint(kpa=kpa / 1000, l_per_h=flow) for kpa, flow in zip(pressures, flows, strict=True)]
        curves.append(PumpCurve(voltage_v=volt, points=tuple(points)))
    stands = draw(st.sampled_from(["in the tank", "outside"]))
    fuels = tuple(draw(st.lists(st.sampled_from(["diesel", "petrol E10", "E85"]), unique=True)))
    return Pump(name=draw(WORDS), curves=tuple(curves), stands=stands, outlet=draw(WORDS), fuels=fuels)


PARTS = [
    PortPart(name="A, “odd”; part", role="spare", stands_mm=12.345, across_mm=1234.567, spanner_mm=80),
    PortPart(
        name="Module",
        role="pickup",
        hangs_mm=231.25,
        hangs_across_mm=101.6,
        seat=Seat(kind="flange", hole_mm=110, outer_mm=150, bolt_circle_mm=130.175, bolts=6, bolt_mm=5.5, torque_nm=8),
        hanger=Hanger(made_for_mm=231.25, sprung=True, strainer_mm=21.5, bracket_mm=90, bracket_least_mm=31.5),
    ),
    PortPart(
        name="Valve",
        role="vent",
        seat=Seat(hole_mm=18, outer_mm=30, thread="M18 × 1.5", seal="PTFE"),
        vent=VentPath(
            bore_mm=9.5,
            length_m=1.25,
            rollover=True,
            hose="nitrile hose",
            valves=(Valve(name="check, 2 way", opens_kpa=1.25), Valve(name="flap", opens_kpa=0.3)),
        ),
        bend=HoseBend(outer_mm=17.5, radius_mm=60, turns_deg=75, run_mm=40),
    ),
    PortPart(
        name="Neck",
        role="filler",
        seat=Seat(kind="neck", hole_mm=51, outer_mm=60),
        neck=NeckPath(bore_mm=51, hose="PTFE hose", valves=(Valve(name="flap", opens_kpa=0.125),)),
    ),
]
SENDERS = [
    SenderPart(
        name="Arm", ohms_empty=240, ohms_full=33.3, action=SwingArm(made_arm_mm=150, empty_deg=-40, full_deg=40)
    ),
    SenderPart(
        name="Tube", ohms_empty=10, ohms_full=180.25, action=TubeSender(length_mm=1234.567), fuels=("E85", "diesel")
    ),
]


class Library(TestCase):
    """The shop's library."""

    @given(st.lists(pumps(), min_size=1, max_size=3, unique_by=lambda pump: pump.name))
    @settings(max_examples=60)
    def test_pumps_come_back(self, made: list[Pump]) -> None:
        """Every pump, whatever its name has in it, to the last digit; with semicolons and decimal commas too."""
        read, problems = read_pumps(pumps_csv(made))
        self.assertEqual((read, problems), (made, []))

    def test_parts_and_senders_come_back(self) -> None:
        """As they were."""
        self.assertEqual(read_parts(parts_csv(PARTS)), (PARTS, []))
        self.assertEqual(read_senders(senders_csv(SENDERS)), (SENDERS, []))

    def test_a_reader_in_inches(self) -> None:
        """Headings and numbers are the reader's; what went out in inches, psi and gallons comes back as it was."""
        heading = parts_csv(PARTS, "in_usgal").decode().splitlines()[0].split(",")
        self.assertLessEqual({"hole_in", "torque_lbfft", "vent_length_ft", "vent_opens_psi", "seat"}, set(heading))
        self.assertFalse([name for name in heading if name.endswith(("_mm", "_kpa", "_nm"))])
        for units in ("in_usgal", "in_impgal"):
            back, problems = read_parts(parts_csv(PARTS, units))
            self.assertEqual(problems, [])
            for part, other in zip(PARTS, back, strict=True):
                holes = [one.seat.hole_mm if one.seat else 0.0 for one in (part, other)]
                np.testing.assert_allclose(*holes, rtol=1e-6)
                for mine, theirs in ((part.vent, other.vent), (part.neck, other.neck)):
                    pressures = [[v.opens_kpa for v in path.valves] if path else [] for path in (mine, theirs)]
                    np.testing.assert_allclose(*pressures, rtol=1e-6)
            points = (PumpPoint(kpa=0, l_per_h=250), PumpPoint(kpa=300, l_per_h=99))
            pump = Pump(name="p", curves=(PumpCurve(voltage_v=13.5, points=points),))
            (again,), problems = read_pumps(pumps_csv([pump], units))
            self.assertEqual(problems, [])
            self.assertAlmostEqual(again.curves[0].points[1].kpa, 300, places=3)
            self.assertAlmostEqual(again.curves[0].points[0].l_per_h, 250, places=3)

    @given(st.sampled_from(["hole_mm", "l_per_h", "kpa", "mass_kg_each", "area_m2_each", "litres", "tank_l", "weld_m"]))
    def test_headings_turn_back(self, kept: str) -> None:
        """Any heading, in any set of units, is known again with the same number of what is kept."""
        for units in UNIT_SETS:
            name, per = in_units(kept, units)
            self.assertEqual(as_kept(name), (kept, per))

    def test_decimal_commas(self) -> None:
        """A table from a spreadsheet that writes them."""
        table = "name;role;hole_mm;outer_mm\nBoss;return;14,5;28,25\n"
        (boss,), problems = read_parts(table.encode())
        assert boss.seat is not None
        self.assertEqual((boss.seat.hole_mm, boss.seat.outer_mm, problems), (14.5, 28.25, []))
        _, said = read_parts(b'name,role,hole_mm,outer_mm\nBoss,return,"14,5",28\n')
        self.assertIn("decimal point", said[0].message)
        _, said = read_parts(b"name,role,vent_bore_mm,vent_rollover\nValve,vent,8,maybe\n")
        self.assertEqual(said[0].field, "row 2, vent_rollover")
        for column, cell in (("vent_valves", "flap stiff"), ("seal", "putty"), ("hose_radius_mm", "-4")):
            _, said = read_parts(f"name,role,hole_mm,outer_mm,{column}\nValve,vent,8,20,{cell}\n".encode())
            self.assertIn(f"row 2, {column}", [fault.field for fault in said])
        _, said = read_senders(b"name,kind,ohms_empty,ohms_full,fuels\nTube,tube,10,180,tea\n")
        self.assertEqual(said[0].field, "row 2, fuels")


class Flanges(TestCase):
    """A seat's holes at full size."""

    @given(st.floats(-180, 180), st.integers(3, 24), st.floats(0, 360))
    @settings(max_examples=40)
    def test_bolts_lie_on_their_circle(self, clock: float, bolts: int, stop: float) -> None:
        """The hole, and so many bolts a turn apart, the first at its clocking."""
        seat = Seat(kind="flange", hole_mm=80, outer_mm=120, bolt_circle_mm=100, bolts=bolts, bolt_mm=5)
        port = Port(id="p", name="p", x_mm=0, y_mm=0, seat=seat, clock_deg=clock, stop_deg=stop)
        drawn = ezdxf.read(io.StringIO(flange_dxf(port).decode())).modelspace()
        circles = [(c.dxf.center, c.dxf.radius) for c in drawn.query('CIRCLE[layer=="CUT"]')]
        hole, *rest = circles
        self.assertEqual((hole[1], len(rest)), (40, bolts))
        angles = [degrees(atan2(place.y, place.x)) for place, _ in rest]
        for place, radius in rest:
            self.assertAlmostEqual(hypot(place.x, place.y), 50)
            self.assertEqual(radius, 2.5)
        for number, angle in enumerate(angles):
            off = (angle - clock - 360 * number / bolts) % 360
            self.assertAlmostEqual(min(off, 360 - off), 0, places=6)


class Laps(TestCase):
    """Laps from a logger."""

    def read(self, columns: dict[str, Any], **chosen: Any) -> Any:
        """The log that a table of columns makes."""
        rows = "\n".join(",".join(f"{v:.9g}" for v in row) for row in zip(*columns.values(), strict=True))
        content = f"{','.join(columns)}\n{rows}\n".encode()
        return read_lap(content, LapColumns(**({"time": "t", "forward": "f", "left": "l"} | chosen)), "lap")[0]

    @given(st.integers(10, 400), st.floats(-1, 1), st.floats(-1, 1), st.booleans(), st.booleans())
    @settings(max_examples=40)
    def test_brought_to_even_times(self, hertz: int, ahead: float, left: float, ms: bool, flipped: bool) -> None:
        """Straight lines stay straight at any rate, unit and sense."""
        t = np.arange(0, 12, 1 / hertz)
        g = 9.80665
        columns = {"t": t * (1000 if ms else 1), "f": ahead * t / 12 * g, "l": left * g * np.ones(len(t))}
        log = self.read(columns, time_unit="ms" if ms else "s", unit="m/s²", left_flipped=flipped)
        np.testing.assert_allclose(log.forward_g, ahead * log.times_s / 12, atol=1e-6)
        np.testing.assert_allclose(log.left_g, -left if flipped else left, atol=1e-6)
        self.assertAlmostEqual(log.times_s[-1], t[-1], delta=0.021)

    @given(st.floats(0.2, 1), st.booleans())
    @settings(max_examples=20)
    def test_throttle_and_fuel(self, share: float, per_cent: bool) -> None:
        """Per cent or a share; cm³/min or L/h; where fuel was logged it is what is drawn."""
        t = np.arange(0, 5, 0.05)
        ones = np.ones(len(t))
        columns = {"t": t, "f": 0 * ones, "l": 0 * ones, "p": share * (100 if per_cent else 1) * ones, "u": 500 * ones}
        log = self.read(columns, throttle="p")
        np.testing.assert_allclose(log.drawn(80.0), 80 * share, rtol=1e-6)
        burnt = self.read(columns, throttle="p", fuel="u", fuel_unit="cm³/min")
        np.testing.assert_allclose(burnt.drawn(80.0), 30.0, rtol=1e-9)

    def test_units_that_headings_name(self) -> None:
        """m/s², milliseconds and cm³ a minute are guessed from the headings; nothing is guessed from “ams”."""
        guess = look_at_lap(b"time (ms),accel x (m/s^2),accel y (m/s^2),fuel (cc/min)\n0,1,2,3\n").guess
        self.assertEqual((guess["unit"], guess["time_unit"], guess["fuel_unit"]), ("m/s²", "ms", "cm³/min"))
        guess = look_at_lap(b"time,ax,ay,fuel flow\n0,1,2,3\n").guess
        self.assertEqual((guess["unit"], guess["time_unit"], guess["fuel_unit"]), ("g", "s", "L/h"))

    def test_a_long_run_keeps_its_times(self) -> None:
        """After an hour the rows are still a fiftieth of a second apart, to the last digit."""
        log = Log("long", 0.02, *(np.zeros(180_001) for _ in range(3)), np.ones(180_001), np.zeros(180_001))
        held, one = np.full((180_001, 1), 12.3456789), np.ones(180_001)
        ran = Ran(log.times_s, held, np.zeros((180_001, 1, 4)), -held, one, [], one, 0.0, 0.0, 0.0, 0.0, 0.0)
        last = run_csv(log, ran, ["tank"]).decode().splitlines()[-2:]
        self.assertEqual([row.split(",")[0] for row in last], ["3599.98", "3600"])
        self.assertAlmostEqual(float(last[0].split(",")[5]), 12.3456789, places=5)

    def test_a_circle_is_a_circle(self) -> None:
        """A skid pad sampled at 17 Hz keeps its g to what straight pieces cost."""
        t = np.arange(0, 20, 1 / 17)
        turn = 2 * pi * t / 8
        log = self.read({"t": t, "f": 0.9 * np.cos(turn), "l": 0.9 * np.sin(turn)})
        size = np.hypot(log.forward_g, log.left_g)
        self.assertLess(float(size.max()), 0.9 + 1e-9)
        self.assertGreater(float(size.min()), 0.9 * np.cos(pi / 17 / 8) - 1e-6)

    def test_milliseconds_taken_for_seconds(self) -> None:
        """Twenty seconds in ms read as seconds: refused, with what is likely the matter."""
        t = np.arange(0, 20, 0.05)
        with self.assertRaises(UnreadableTableError) as caught:
            self.read({"t": t * 1000, "f": 0 * t, "l": 0 * t})
        self.assertIn("If its time is in milliseconds", caught.exception.fault.message)


class Tables(TestCase):
    """CSV out and in."""

    @given(st.text(max_size=30), st.floats(-1e6, 1e6))
    def test_no_cell_is_a_formula(self, text: str, number: float) -> None:
        """Text that would run has an apostrophe before it and is read back as it was; numbers stay numbers."""
        name = " ".join(text.replace("\x00", "").split()) or "x"
        for said in (name, "=" + name, "-" + name, "'" + name, "'=" + name, "@x", "+1+1"):
            content = written(["name", "litres"], [[said, number]])
            cells = next(row for n, row in enumerate(csv.reader(io.StringIO(content.decode(), newline=""))) if n == 1)
            self.assertFalse(cells[0].startswith(("=", "+", "-", "@", "\t", "\r")) and not is_number(cells[0]), cells)
            self.assertEqual(float(cells[1]), number)
            (row,) = read_table(content, {"name": "text", "litres": "number"}, {}).rows.values()
            self.assertEqual(row["name"], said)

    def test_what_is_no_table(self) -> None:
        """A quote left open over a whole file; a heading of megabytes."""
        for content in (b'name,litres\n"' + b"x" * 200_000, b"name," * 4_000_000):
            began = time.monotonic()
            with self.assertRaises(UnreadableTableError):
                read_table(content, {"name": "text", "litres": "number"}, {})
            with self.assertRaises(UnreadableTableError):
                look_at_lap(content)
            self.assertLess(time.monotonic() - began, 2.0)


def is_number(text: str) -> bool:
    """Whether a cell is a number."""
    try:
        float(text)
    except ValueError:
        return False
    return True
