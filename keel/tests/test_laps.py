"""Laps as loggers write them: gaps, repeats, wrong units, commas; what is done about it is said with its figures."""

from typing import Any
from unittest import TestCase

import numpy as np

from keel.formats.lap import LapColumns, look_at_lap, read_lap
from keel.formats.table import UnreadableTableError
from keel.studies.slosh.log import Log

HERTZ = 20


def times(seconds: float = 10.0) -> np.ndarray:
    """Even times."""
    return np.arange(0, seconds, 1 / HERTZ)


def written(columns: dict[str, Any], mark: str = ",") -> bytes:
    """A table; with semicolons numbers have commas."""
    whole = zip(*columns.values(), strict=True)
    rows = [[f"{value:.6g}" if isinstance(value, float) else str(value) for value in row] for row in whole]
    if mark != ",":
        rows = [[cell.replace(".", ",") for cell in row] for row in rows]
    return "\n".join(mark.join(row) for row in [list(columns), *rows]).encode()


def lap(columns: dict[str, Any], mark: str = ",", **chosen: Any) -> tuple[Log, list[str]]:
    """A lap and what was said of it."""
    usual = {"time": "t", "forward": "f", "left": "l"}
    return read_lap(written(columns, mark), LapColumns(**(usual | chosen)), "lap")


def plain(seconds: float = 10.0, **more: Any) -> dict[str, Any]:
    """A steady lap: 0.3 g forward, 0.2 to the left."""
    t = times(seconds)
    return {"t": t.tolist(), "f": [0.3] * len(t), "l": [0.2] * len(t)} | more


class Odd(TestCase):
    """What is put right, and said."""

    def test_nothing_odd(self) -> None:
        """A sound lap needs no words."""
        log, notes = lap(plain())
        self.assertEqual(notes, [])
        np.testing.assert_allclose(log.forward_g, 0.3)
        self.assertAlmostEqual(log.times_s[-1], 9.94, delta=0.021)

    def test_rows_without_numbers(self) -> None:
        """They are left out, counted, and the first is named by its row in the file."""
        table = plain()
        table["f"] = [*table["f"][:5], "", *table["f"][6:50], "n/a", *table["f"][51:]]
        log, notes = lap(table)
        self.assertEqual(notes, ["2 rows left out: a number is missing, first in row 7"])
        np.testing.assert_allclose(log.forward_g, 0.3)

    def test_times_that_stand_or_run_back(self) -> None:
        """Only rows later than all before count."""
        table = plain()
        table["t"][10] = table["t"][9]
        table["t"][30:33] = [0.1, 0.2, 0.3]
        _, notes = lap(table)
        self.assertEqual(notes, ["4 rows left out: their time is not later than the one before"])

    def test_a_gap_is_bridged(self) -> None:
        """Straight, from what was before it to what comes after, and said with its length and place."""
        table = plain()
        kept = [n for n, t in enumerate(table["t"]) if not 4.0 < t < 6.0]
        table = {name: [column[n] for n in kept] for name, column in table.items()}
        table["l"] = [0.2 if t < 5 else 0.6 for t in table["t"]]
        log, notes = lap(table)
        self.assertEqual(notes, ["1 gap bridged straight, the first of 2.00 s at 4.0 s"])
        self.assertAlmostEqual(float(log.left_g[round(5.0 / log.dt_s)]), 0.4, places=6)

    def test_the_vertical_one_taken_for_another(self) -> None:
        """What stands at one g most of the time is likely the vertical column; with gravity off it is a ride."""
        table = plain(u=[1.0] * len(times()))
        log, notes = lap(table, left="u")
        self.assertEqual(notes, ["“u” stands at 1.00 g most of the time: is it the vertical one?"])
        rides, quiet = lap(table, up="u", up_has_gravity=True)
        self.assertEqual(quiet, [])
        np.testing.assert_allclose(rides.up_g, 0.0, atol=1e-12)
        self.assertTrue(log.left_g.max() == 1.0)
        for steady, said in ((0.59, []), (0.61, ["0.61"])):
            found = lap(plain() | {"f": [steady] * len(times())})[1]
            self.assertEqual([note.split(" g ")[0].split(" ")[-1] for note in found], said)

    def test_fuel_below_zero(self) -> None:
        """A meter that reads backwards now and then burns nothing then."""
        burnt = [20.0] * len(times())
        burnt[3] = burnt[4] = -5.0
        log, notes = lap(plain(b=burnt), fuel="b")
        assert log.fuel_l_per_h is not None
        self.assertEqual(float(log.fuel_l_per_h.min()), 0.0)
        self.assertIn("below zero", notes[0])
        self.assertEqual(float(log.fuel_l_per_h.max()), 20.0)

    def test_commas_and_semicolons(self) -> None:
        """A table from a country that writes 0,3 is the same lap; tabs part as well."""
        for mark in (";", "\t"):
            log, notes = lap(plain(), mark)
            np.testing.assert_allclose(log.forward_g, 0.3)
            self.assertEqual(notes, [])

    def test_flipped_and_in_metres(self) -> None:
        """9.80665 m/s² are a g; a sensor mounted the other way round is turned."""
        table = plain() | {"f": [9.80665] * len(times())}
        log, _ = lap(table, unit="m/s²", forward_flipped=True)
        np.testing.assert_allclose(log.forward_g, -1.0)
        np.testing.assert_allclose(log.left_g, 0.2 / 9.80665)


class Refused(TestCase):
    """What is no lap, and why."""

    def why(self, columns: dict[str, Any], **chosen: Any) -> str:
        """What is said of it."""
        with self.assertRaises(UnreadableTableError) as caught:
            lap(columns, **chosen)
        return caught.exception.fault.message

    def test_columns_that_are_not_there(self) -> None:
        """Named; a lap without any push is none."""
        self.assertIn("there is no column “g_lat” in it", self.why(plain(), left="g_lat"))
        self.assertIn("forward or left", self.why(plain(), forward="", left=""))

    def test_too_few_too_slow_too_long(self) -> None:
        """Ten rows, ten a second, two hours."""
        self.assertIn("only 9 rows", self.why(plain(9 / HERTZ - 0.01)))
        slow = {"t": [0.2 * n for n in range(60)], "f": [0.1] * 60, "l": [0.1] * 60}
        self.assertIn("5 samples a second", self.why(slow))
        long = {"t": [0.1 * n for n in range(73_000)], "f": [0.1] * 73_000, "l": [0.1] * 73_000}
        self.assertIn("runs for 7300 s", self.why(long))

    def test_beyond_what_a_vehicle_bears(self) -> None:
        """Seven g, or an angle taken for it; the limit is named."""
        table = plain() | {"f": [0.1] * 100 + [7.0] + [0.1] * 99}
        self.assertIn("“f” reaches 7 g, 6 g are taken", self.why(table))

    def test_what_is_no_table(self) -> None:
        """Bytes, one column, nothing."""
        for content in (b"", b"t\n1\n2\n", b"\xff\xfe\x00", b"t,f,l\n"):
            with self.assertRaises(UnreadableTableError):
                read_lap(content, LapColumns(time="t", forward="f", left="l"), "lap")
            with self.assertRaises(UnreadableTableError):
                look_at_lap(content)
