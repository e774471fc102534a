"""Pads, covers, coated holes and masking: each by its place, its size by hand."""

from typing import Any
from unittest import TestCase

from keel.analysis.tank import TankAnalysis
from keel.reference.fasteners import BOLTS
from keel.studies.mount.protection import PROTECTION, PadRow, Protection
from keel.studies.mount.straps import STRAPS
from keel.tests.test_mount import HELD, STOPS, analysed, foot, strap

BAR = {"id": "b", "name": "bar", "at_mm": 450.0, "low_mm": -260.0, "high_mm": 260.0, "outer_mm": 30.0}


def protected(mount: dict[str, Any], **more: Any) -> Protection:
    return analysed(mount, **more)[PROTECTION]


def pads(mount: dict[str, Any], what: str) -> dict[str, PadRow]:
    """Rows of one kind, by the place they are for."""
    return {row.place: row for row in protected(mount).pads if what in row.what}


def port(key: str, kind: str, **more: Any) -> dict[str, Any]:
    seat: dict[str, Any] = {"kind": kind, "hole_mm": 40.0, "outer_mm": 60.0} | more
    return {"id": key, "name": key, "x_mm": 200.0 + 120 * len(key), "y_mm": 200.0, "seat": seat}


class Pads(TestCase):
    """What lies between tank and metal."""

    def test_a_straps_pad_is_as_long_as_it_touches(self) -> None:
        """Its runs between the two that lead to the anchors, five millimetres wider than the strap on either side."""
        tank: TankAnalysis = analysed(HELD)
        for path in tank[STRAPS]:
            row = next(row for row in tank[PROTECTION].pads if row.id == path.id)
            touching = sum(run.long_mm for run in path.runs[1:-1])
            self.assertAlmostEqual(row.long_mm or 0.0, touching)
            self.assertEqual((row.wide_mm, row.thick_mm), (40.0, 6.0))
            self.assertLess(row.long_mm or 0.0, path.path_mm)

    def test_no_pad_where_none_is_wanted(self) -> None:
        """A strap or a stop without one isn't listed."""
        bare = [strap(1, 200.0, pad_mm=0.0), strap(2, 700.0)]
        stops = [one | {"pad_mm": 0.0} for one in STOPS]
        found = protected(HELD | {"straps": bare, "stops": stops}).pads
        self.assertEqual([row.id for row in found if row.wide_mm], ["s2"])

    def test_a_hollow_is_filled_by_a_block(self) -> None:
        """As deep as the strap bridges it, less the pad it has anyway."""
        hollow = {"kind": "relief", "id": "r", "name": "pipe", "form": "box", "x_mm": 150.0, "y_mm": 100.0,
                  "z_mm": 290.0, "length_mm": 120.0, "width_mm": 200.0, "height_mm": 80.0}  # fmt: skip
        shell = {"shell": analysed(HELD).design.shell.model_dump() | {"features": [hollow]}}  # type: ignore[union-attr]
        tank = analysed(HELD, **shell)
        path = next(one for one in tank[STRAPS] if one.id == "s1")
        self.assertAlmostEqual(path.bridged_mm, 60.0 + 6.0, delta=0.5)
        row = next(row for row in tank[PROTECTION].pads if row.id == "s1")
        self.assertAlmostEqual(float(row.note.values["deep_mm"]), path.bridged_mm - 6.0)

    def test_bars_and_stops(self) -> None:
        """As wide as the bar, or as the stop's face."""
        rows = pads(HELD | {"bearers": [BAR]}, "rubber")
        self.assertEqual((rows["bar"].wide_mm, rows["bar"].thick_mm), (30.0, 5.0))
        self.assertEqual((rows["front stop"].wide_mm, rows["front stop"].thick_mm), (60.0, 5.0))

    def test_unlike_metals_are_kept_apart(self) -> None:
        """A foot of an aluminium tank on steel is isolated; on aluminium it isn't."""
        feet = [foot(1, -20.0, 0.0), foot(2, 920.0, 0.0, structure={"metal": "5052-H32"})]
        tank = analysed({"feet": feet})
        own = tank.shell.metal
        isolated = {row.place for row in tank[PROTECTION].pads if "isolating" in row.what}
        self.assertEqual(isolated, {"foot 1"} if own == "5052-H32" else {"foot 2"})


class Covers(TestCase):
    """Bolt ends that the tank could chafe on."""

    def test_only_near_the_tank_and_at_their_own_end(self) -> None:
        """An anchor 12 mm beside the tank gets a cap, the one 80 mm off none; lengthwise they are rear and front."""
        near = strap(1, 450.0)
        near["low"] = {"out_mm": -212.0, "z_mm": 60.0}
        near["high"] = {"out_mm": 280.0, "z_mm": 60.0}
        rows = pads({"straps": [near]}, "cap")
        self.assertEqual(set(rows), {"strap 1, right end"})
        self.assertAlmostEqual(float(rows["strap 1, right end"].note.values["off_mm"]), 12.0, delta=0.05)
        ends = {"low": {"out_mm": -80.0, "z_mm": 60.0}, "high": {"out_mm": 914.0, "z_mm": 60.0}}
        along = {"id": "s1", "name": "strap 1", "across": "x", "at_mm": 0.0} | ends
        rows = pads({"straps": [along]}, "cap")
        self.assertEqual(set(rows), {"strap 1, front end"})
        self.assertAlmostEqual(float(rows["strap 1, front end"].note.values["off_mm"]), 14.0, delta=0.05)


class Coating(TestCase):
    """Room for the coat, and what it must not reach."""

    def test_holes_grow_by_twice_the_coat(self) -> None:
        """Every bolted place has its own size of hole, both ends of each strap."""
        mount = HELD | {"feet": [foot(1, -20.0, 0.0, bolts={"size": "M6"})], "coating_mm": 0.25}
        found = {row.place: row for row in protected(mount).holes}
        self.assertEqual(len(found), 4 + len(STOPS) + 1)
        for place, size in (("strap 1, right end", "M8"), ("foot 1", "M6"), ("front stop", "M12")):
            hole = BOLTS[size].hole_mm  # type: ignore[index]
            self.assertEqual((found[place].drill_mm, found[place].hole_mm), (hole + 0.5, hole))

    def test_masking(self) -> None:
        """Threads and faces against paint and lining, a neck against paint alone, feet and the bonding point."""
        ports = [port("boss", "boss"), port("neck", "neck"),
                 port("flange", "flange", bolt_circle_mm=52.0, bolts=6, bolt_mm=5.0)]  # fmt: skip
        rows = protected({"feet": [foot(1, -20.0, 0.0)]}, ports=ports).masked
        against = {row.place: row.against for row in rows}
        self.assertEqual(against["boss"], "paint and lining")
        self.assertEqual(against["flange"], "paint and lining")
        self.assertEqual(against["neck"], "paint")
        self.assertIn("foot 1", against)
        self.assertIn("bonding point", against)
        self.assertFalse([row for row in protected({"feet": []}).masked if row.place == "bonding point"])
