"""The lines' figures worked out a second time, by hand."""

from math import atan2, log10, pi, sqrt, tan
from typing import Any
from unittest import TestCase

import numpy as np
from hypothesis import given, settings
from hypothesis import strategies as st

from keel.stations.lines.layouts import layouts
from keel.studies.lines.air_paths import AIR_PATHS, AirPath
from keel.studies.lines.as_wired import LINE_MODES
from keel.studies.lines.filtration import FILTRATION
from keel.studies.lines.flows import FLOWS
from keel.studies.lines.injection import FEEDS
from keel.studies.lines.places import LINE_PLACES, RunWay
from keel.studies.lines.stretches import STRETCHES, Stretch
from keel.studies.lines.tank_side import TANK_PORTS
from keel.tests.line_samples import (
    CANISTER,
    FILTER,
    LIBRARY,
    PARTS,
    PORTS,
    REGULATOR,
    RUNS,
    VENT_END,
    Item,
    analysed,
    codes,
    joint,
    part,
    plumbed,
    replaced,
    run,
    without,
)

VENTED: list[Item] = [*PARTS, CANISTER, VENT_END]
AIR: list[Item] = [
    *RUNS,
    run("to-canister", "tank.vent", "canister.in", 7.6, length_mm=800.0),
    run("to-end", "canister.out", "end.in", 7.6, length_mm=1200.0),
]


def turned(one: Item) -> Item:
    """The same run drawn from its other end."""
    return one | {"start": one["end"], "end": one["start"], "corners": one.get("corners", [])[::-1]}


def corner(x: float, y: float, z: float) -> Item:
    """A corner of a run."""
    return {"x_mm": x, "y_mm": y, "z_mm": z}


class Ways(TestCase):
    """How long runs are, and what turns in them."""

    def way(self, **changed: Any) -> RunWay:
        """The way of the hose to the rail."""
        places = analysed(plumbed(runs=replaced(RUNS, "to-rail", **changed)))[LINE_PLACES]
        return next(way for way in places.runs if way.id == "to-rail")

    def test_lengths_and_corners(self) -> None:
        """Three hundredths more of a hose than of a tube; a corner's K by its angle; as typed where typed."""
        plain = self.way()
        ends = np.array([[at.x, at.y, at.z] for at in plain.way])
        straight = float(np.linalg.norm(ends[1] - ends[0]))
        self.assertAlmostEqual(plain.length_mm, 1.03 * straight)
        self.assertAlmostEqual(self.way(kind="tube").length_mm, straight)
        self.assertEqual(self.way(length_mm=777.0).length_mm, 777.0)
        round_corner = self.way(kind="tube", corners=[corner(*(ends[0] + [0.0, 0.0, 200.0]))], radius_mm=20.0)
        way = np.array([[at.x, at.y, at.z] for at in round_corner.way])
        sizes = np.linalg.norm(np.diff(way, axis=0), axis=1)
        turn = float(np.arccos((way[1] - way[0]) @ (way[2] - way[1]) / sizes.prod()))
        self.assertAlmostEqual(round_corner.length_mm, float(sizes.sum()) - 20.0 * (2 * tan(turn / 2) - turn))
        up = ends[0] + [0.0, 0.0, 100.0]
        bent = self.way(corners=[corner(*up)])
        over = ends[1] - up
        angle = pi / 2 - atan2(over[2], float(np.hypot(over[0], over[1])))
        self.assertAlmostEqual(bent.length_mm, 1.03 * (100.0 + float(np.linalg.norm(over))))
        self.assertAlmostEqual(bent.fittings_k - plain.fittings_k, 0.3 * angle / (pi / 2))
        self.assertAlmostEqual(bent.rise_mm, ends[1][2] - ends[0][2])

    def test_narrow_ends_lose_by_the_fourth_power(self) -> None:
        """Half the bore at an end is sixteen times its loss."""
        wide = self.way(bore_mm=7.9)
        narrow = replaced(PARTS, "rail", connections=[joint("in", bore_mm=3.95), joint("out")])
        places = analysed(plumbed(narrow, replaced(RUNS, "to-rail", bore_mm=7.9)))[LINE_PLACES]
        found = next(way for way in places.runs if way.id == "to-rail")
        self.assertAlmostEqual(found.fittings_k / wide.fittings_k, (1 + 16) / 2)

    def test_a_line_begins_where_its_port_ends(self) -> None:
        """What stands out of the tank is added to its wall: the pump's lift and the hose's way begin there."""
        begins = []
        for stands in (0.0, 30.0):
            tank = analysed(plumbed(ports=[PORTS[0] | {"stands_mm": stands}, *PORTS[1:]]))
            way = next(one.way for one in tank[LINE_PLACES].runs if one.id == "suction")
            self.assertAlmostEqual(tank[TANK_PORTS]["draw"].flange_z_mm, way[0].z)
            begins.append(way[0].z)
        self.assertAlmostEqual(begins[1] - begins[0], 30.0)


class Stretches(TestCase):
    """Speeds and pressures of runs."""

    def stretch(self, name: str, parts: list[Item] = PARTS, **changed: Any) -> Stretch:
        """One run judged."""
        tank = analysed(plumbed(parts, replaced(RUNS, name, **changed)))
        return next(one for one in tank[STRETCHES] if one.id == name)

    def test_speed_and_the_bore_that_would_do(self) -> None:
        """Flow through the bore's area; at the bore that is needed the limit is just met."""
        tank = analysed(plumbed())
        flow, one = tank[FLOWS].run("supply"), self.stretch("supply")
        assert flow is not None
        most = max(abs(lph or 0.0) for lph in flow.flow_lph)
        self.assertAlmostEqual(one.fastest_ms, most / 3.6e6 / (pi / 4 * (one.bore_mm / 1e3) ** 2))
        self.assertEqual(one.limit_ms, 3.5)
        self.assertAlmostEqual(most / 3.6e6 / (pi / 4 * ((one.bore_needed_mm or 0.0) / 1e3) ** 2), 3.5)
        self.assertEqual([self.stretch(name).limit_ms for name in ("suction", "return")], [1.0, 2.5])

    def test_the_pump_against_a_shut_line_counts(self) -> None:
        """What stands behind the pump is its dead-head pressure; what the regulator lets by is under none of it."""
        shut = self.stretch("supply")
        self.assertEqual((shut.highest_kpa, shut.rating_needed_kpa), (700.0, 1050.0))
        self.assertIn("shut", shut.highest_when)
        back = self.stretch("return")
        self.assertLess(back.highest_kpa, 60.0)
        self.assertNotIn("shut", back.highest_when)
        typed = self.stretch("supply", replaced(PARTS, "pump", does={"dead_head_kpa": 900.0}))
        self.assertEqual(typed.highest_kpa, 900.0)

    def test_the_limit_is_where_it_is_said_to_be(self) -> None:
        """A hose rated for just so much is let by, for a little less it isn't."""
        for rated, found in ((1050.0, False), (1049.0, True)):
            line = plumbed(runs=replaced(RUNS, "supply", rated_kpa=rated))
            self.assertEqual("lines.rating" in codes(line), found, rated)


class Filters(TestCase):
    """What filters lose."""

    def test_clean_and_due(self) -> None:
        """A Q + b Q² at the most that goes through, and so many times that when it is due for a swap."""
        parts = replaced(PARTS, "filter", does={"linear": 0.01, "square": 2e-5, "loaded_times": 4.0, "area_cm2": 500.0})
        found = next(one for one in analysed(plumbed(parts))[FILTRATION] if one.part == "filter")
        clean = 0.01 * found.most_lph + 2e-5 * found.most_lph**2
        self.assertAlmostEqual(found.clean_kpa, clean)
        self.assertAlmostEqual(found.loaded_kpa, 4 * clean)
        self.assertAlmostEqual(found.load_lph_cm2 or 0.0, found.most_lph / 500.0)

    def test_one_in_a_regulator(self) -> None:
        """It is a main filter, and counts as one."""
        housed = replaced(PARTS, "regulator", does={"fineness_um": 10.0, "filter_linear": 0.02})
        found = next(one for one in analysed(plumbed(housed))[FILTRATION] if one.part == "regulator")
        self.assertEqual((found.stage, found.fineness_um), ("main", 10.0))
        self.assertAlmostEqual(found.clean_kpa, 0.02 * found.most_lph)


class Air(TestCase):
    """The way of the air."""

    def path(self, runs: list[Item] = AIR, parts: list[Item] = VENTED) -> AirPath:
        """Of the one vent."""
        return analysed(plumbed(parts, runs))[AIR_PATHS][0]

    def test_lengths_bores_and_openings(self) -> None:
        """Lengths and opening pressures add up, the smallest bore counts; the open end opens at nothing."""
        parts = replaced(VENTED, "canister", does={"bore_mm": 6.0, "opens_out_kpa": 0.4, "opens_in_kpa": 0.25})
        valve = part(
            "tip", "roll-over valve", -200, z=0, joints=[joint(n, "10 mm", standard="hose tail") for n in ("in", "out")]
        )
        valve["does"] |= {"opens_out_kpa": 0.5, "opens_in_kpa": 0.1}
        runs = [
            *without(AIR, "to-end"),
            run("to-tip", "canister.out", "tip.in", 7.6, length_mm=500.0),
            run("to-end", "tip.out", "end.in", 7.6, length_mm=1200.0),
        ]
        path = self.path(runs, [*parts, valve])
        self.assertEqual(path.through, ["canister", "tip", "end"])
        self.assertAlmostEqual(path.length_m, 2.5)
        self.assertAlmostEqual(path.out_kpa, 0.9)
        self.assertAlmostEqual(path.in_kpa, 0.35)
        self.assertEqual((path.bore_mm, path.closes, path.ends), (6.0, True, "end"))
        self.assertGreater(path.vacuum_kpa or 0.0, 0.35)

    @settings(max_examples=25, deadline=None)
    @given(st.booleans(), st.booleans(), st.floats(20, 200))
    def test_a_low_loop_whichever_way_it_is_drawn(self, first: bool, second: bool, deep: float) -> None:
        """As deep as its lowest point lies under the lower summit beside it."""
        high = 420.0
        loop = [corner(20.0, 100.0, high), corner(0.0, 100.0, high - deep), corner(-20.0, 100.0, high + 30.0)]
        runs = replaced(AIR, "to-canister", corners=loop)
        runs = [
            turned(one) if (one["id"], True) in (("to-canister", first), ("to-end", second)) else one for one in runs
        ]
        canister = replaced(VENTED, "canister", z_mm=high + 40.0)
        self.assertAlmostEqual(self.path(runs, canister).low_mm, deep, places=6)

    def test_where_it_ends_nowhere(self) -> None:
        """As far as it goes, and said."""
        path = self.path(without(AIR, "to-end"))
        self.assertEqual((path.through, path.ends, path.vacuum_kpa), (["canister"], "", None))


class Usual(TestCase):
    """Modes that nobody typed, and what layouts are compared by."""

    def test_the_usual_modes(self) -> None:
        """Shares of full power, the manifold's vacuum, the case's low voltage, hot fuel."""
        case = {"id": "now", "name": "Now", "engine": "petrol, forced induction", "measured_l_per_h": 90.0}
        case |= {"low_v": 11.2, "supply_v": 13.8}
        found = {mode.name: mode for mode in analysed(plumbed(brief={"cases": [case]}))[LINE_MODES]}
        self.assertAlmostEqual(found["Idle"].draws_lph, 0.03 * 90)
        self.assertAlmostEqual(found["Cruise"].draws_lph, 0.25 * 90)
        self.assertEqual([found[name].manifold_kpa for name in ("Idle", "Cruise", "Full power")], [-65.0, -35.0, 100.0])
        self.assertEqual((found["Full power"].voltage_v, found["Full power, low voltage"].voltage_v), (13.8, 11.2))
        self.assertEqual((found["Full power"].fuel_c, found["Full power, hot"].fuel_c), (20.0, 45.0))

    def test_layouts_add_up(self) -> None:
        """Prices and lengths are those of what is drawn; two pumps as loud as each other are 3 dB louder."""
        loud = [
            one.model_copy(update={"does": one.does.model_copy(update={"noise_db": 60.0})})
            if one.does.kind == "pump"
            else one
            for one in LIBRARY.line_parts
        ]
        priced = [one.model_copy(update={"price": 10.0 + n}) for n, one in enumerate(loud)]
        shop = LIBRARY.model_copy(update={"line_parts": priced})
        found = [one for one in layouts(analysed(plumbed([], []), shop)) if one.stop is None]
        self.assertGreater(len(found), 3)
        for layout in found:
            drawn = layout.patch["lines"]["parts"]
            pumps = sum(1 for item in drawn if item["does"]["kind"] == "pump")
            self.assertAlmostEqual(layout.noise_db or 0.0, 60.0 + 10 * log10(pumps), msg=layout.title)
            prices = [item["price"] for item in drawn]
            known = None not in prices
            self.assertEqual(layout.price, sum(prices) if known else None, layout.title)

    def test_an_injector_is_an_orifice(self) -> None:
        """A quarter of the pressure, half the flow; the least pressure with which they do is where both meet."""
        for kpa in (75.0, 300.0):
            parts = replaced(PARTS, "regulator", does=REGULATOR["does"] | {"set_kpa": kpa, "is_referenced": True})
            feed = analysed(plumbed(parts))[FEEDS][0]
            row = next(one for one in feed.modes if one.mode == "Full power")
            self.assertAlmostEqual(row.able_lph or 0.0, 0.85 * 4 * 40.0 * sqrt((row.across_kpa or 0.0) / 300.0))
            self.assertAlmostEqual(feed.across_needed_kpa or 0.0, 300.0 * (90.0 / (0.85 * 160.0)) ** 2)

    def test_a_layout_leaves_nothing_open(self) -> None:
        """Connections of parts outside the tank are joined or capped, those that hang in it need no cap."""
        for layout in layouts(analysed(plumbed([], []), LIBRARY)):
            lines = layout.patch.get("lines", {"parts": [], "runs": []})
            joined = {(end["part"], end["port"]) for one in lines["runs"] for end in (one["start"], one["end"])}
            for item in lines["parts"]:
                for one in item["connections"]:
                    wanted = not item["hangs_in"] and (item["id"], one["id"]) not in joined
                    self.assertEqual(one["capped"], wanted, (layout.title, item["name"], one["id"]))


class Order(TestCase):
    """A suction filter's limit."""

    def test_fine_before_a_pump(self) -> None:
        """60 µm is coarse enough, 59 isn't."""
        for fine, found in ((60.0, False), (59.0, True)):
            screen = replaced(PARTS, "screen", does={"fineness_um": fine})
            self.assertEqual("lines.fine_before_pump" in codes(plumbed(screen)), found, fine)
        self.assertEqual(FILTER["does"]["fineness_um"], 10.0)
