"""The line worked out: worked cases through the whole document, and what has to hold for any line."""

from collections.abc import Sequence
from typing import Any
from unittest import TestCase

import numpy as np
from hypothesis import given, settings
from hypothesis import strategies as st

from keel import Showing, apply, evaluate
from keel.analysis.tank import TankAnalysis
from keel.design.connections import Connection
from keel.design.line_functions import PumpDoes, ports_of
from keel.design.workshop import Workshop
from keel.formats.line_library import line_parts_csv, read_line_parts
from keel.network.outage import outage
from keel.reference.connections import SIZES
from keel.reference.quantities import UNIT_SETS
from keel.reference.vapour import REID_KPA, atmosphere_kpa, vapour_kpa
from keel.stations.lines.layouts import layouts
from keel.studies.lines.as_wired import LINE_MODES
from keel.studies.lines.bores import NARROWEST
from keel.studies.lines.circuits import CIRCUITS
from keel.studies.lines.failures import FAILURES
from keel.studies.lines.flows import FLOWS, LOADED_FLOWS, STOPPED
from keel.studies.lines.growth import LINE_GROWTH
from keel.studies.lines.heat import HEAT
from keel.studies.lines.injection import FEEDS
from keel.studies.lines.joints import JOINTS
from keel.studies.lines.mating import adapter_between, mate_of, mismatch
from keel.studies.lines.pump_curves import dead_head_kpa
from keel.studies.lines.speeds import ENGINE_DRIVEN
from keel.studies.lines.stretches import STRETCHES
from keel.studies.lines.strip import STRIP
from keel.studies.lines.suction import INLETS, boils_at
from keel.studies.lines.surplus import SURPLUSES
from keel.tests.line_samples import (
    CASES,
    LIBRARY,
    PARTS,
    PORTS,
    PUMP,
    RUNS,
    VENT_END,
    Item,
    analysed,
    curve,
    flares,
    joint,
    judged,
    part,
    plumbed,
    replaced,
    run,
    without,
)

AT = 300.0
CLOSE: Item = {"kind": "direct", "fittings_k": 0.0}


def tube(key: str, start: str, end: str, bore: float = 60.0, **more: Any) -> Item:
    """A way that loses next to nothing, or as much as is said."""
    return run(key, start, end, bore, **CLOSE | more)


def level(key: str, kind: str, **more: Any) -> Item:
    """A part whose connections all lie at one height; where in plan doesn't matter."""
    return part(key, kind, 900, z=AT, **more)


TABLES = [
    curve((0, 176), (100, 158), (200, 132), (300, 98), (400, 44), (450, 0), volts=10.0),
    curve((0, 262), (100, 250), (200, 232), (300, 209), (400, 180), (500, 141), (600, 84), (680, 0)),
]
WORKED: list[Item] = [
    level("main", "other tank", level_mm=0.0),
    level("split", "tee", bore_mm=60.0, fittings_k=0.0),
    level("pump-a", "pump", curves=TABLES),
    level("pump-b", "pump", curves=TABLES),
    level("check-a", "check valve", opens_kpa=6.0, square=0.0004),
    level("check-b", "check valve", opens_kpa=6.0, square=0.0004),
    level("tee", "tee", bore_mm=60.0, fittings_k=0.0),
    level("filter", "filter", linear=0.02, square=0.00012, loaded_times=1.0),
    level("rail", "rail", bore_mm=60.0),
    level("regulator", "regulator", set_kpa=300.0, is_referenced=True, wide_open=0.0009)
    | {
        "does": {"kind": "regulator", "set_kpa": 300.0, "is_referenced": True, "wide_open": 0.0009}
        | {"rises": [{"l_per_h": flow, "kpa": kpa} for flow, kpa in ((0, 0), (220, 0), (320, 14), (420, 46))]}
    },
]
WAYS: list[Item] = [
    tube("draw", "main.out", "split.a"),
    tube("to-a", "split.b", "pump-a.in"),
    tube("to-b", "split.c", "pump-b.in"),
    tube("a", "pump-a.out", "check-a.in"),
    tube("b", "pump-b.out", "check-b.in"),
    tube("a-tee", "check-a.out", "tee.a"),
    tube("b-tee", "check-b.out", "tee.b"),
    tube("to-filter", "tee.c", "filter.in"),
    run("supply", "filter.out", "rail.in", 8.7, length_mm=4200.0, fittings_k=2.8),
    tube("after", "rail.out", "regulator.in"),
    run("return", "regulator.return", "main.return", 8.7, length_mm=4600.0, fittings_k=3.1),
    run("reference", "regulator.reference", "rail.manifold", 6.0),
]


def moded(*given: tuple[float, float, float, Sequence[str]]) -> list[Item]:
    """Modes from draw, manifold, voltage and what stands still."""
    return [
        {"id": f"m{n}", "name": f"m{n}", "draw_l_per_h": draw, "manifold_kpa": kpa, "voltage_v": volts}
        | {"still": list(still), "fuel_c": 15.0}
        for n, (draw, kpa, volts, still) in enumerate(given)
    ]


class WorkedCases(TestCase):
    """Figures worked out elsewhere, met by the document as a user would type it."""

    def near(self, found: Sequence[float | None] | None, wanted: Sequence[float], within: float) -> None:
        """Each figure within so much."""
        np.testing.assert_allclose(np.array(found, dtype=float), wanted, atol=within, rtol=0)

    def test_two_pumps_and_a_return(self) -> None:
        """Idle, full power, low voltage, one pump dead: flows, and pressure at tee, filter, rail and regulator."""
        modes = moded((6, -62, 13.5, ()), (214, 95, 13.5, ()), (214, 95, 11.2, ()), (214, 95, 13.5, ["pump-b"]))
        tank = analysed(plumbed(WORKED, WAYS, modes=modes))
        flows = tank[FLOWS]
        self.assertEqual((flows.unsettled, flows.unfed, flows.loose), ([], [], []))
        supply, back = flows.run("supply"), flows.run("return")
        assert supply and back
        self.near(supply.flow_lph, [394.5861155, 325.8509122, 214.0, 214.0], 0.02)
        self.near(back.flow_lph, [388.5861155, 111.8509122, 0.0, 0.0], 0.02)
        self.near(flows.kpa("tee", "c"), [318.7989461, 427.1630001, 353.3826642, 253.9424696], 0.03)
        self.near(flows.kpa("filter", "out"), [292.2234395, 407.9045239, 343.6071442, 244.1669496], 0.03)
        self.near(flows.kpa("rail", "rail"), [273.947557, 395.0, 337.5710559, 238.1308613], 0.03)
        self.near(flows.kpa("regulator", "return")[:2], [19.50646901, 2.07682378], 0.02)  # type: ignore[index]
        over = [row.over_kpa for row in tank[SURPLUSES][0].modes]
        self.near(over, [35.947557, 0.0, -57.42894414, -156.8691387], 0.03)

    def test_surplus_at_idle_and_injectors(self) -> None:
        """A small and a large regulator, constant and referenced: bypass, rail, what the injectors give."""
        points = (0, 318), (100, 304), (200, 287), (300, 266), (400, 240), (500, 206), (600, 158), (700, 70), (740, 0)
        small = ((0, 0), (140, 0), (200, 22), (260, 61), (320, 118))
        large = ((0, 0), (260, 0), (340, 18))
        wanted = {
            (small, False): ([247.2882806, 222.4807528, 125.0], [352.7373824, 336.6124893, 300.0], 106.3098232),
            (small, True): ([261.7090454, 230.9324209, 83.7], [296.6235932, 304.1060736, 445.0], 147.9),
            (large, False): ([260.9447331, 232.0, 125.0], [300.212565, 300.0, 300.0], 106.3098232),
            (large, True): ([274.189544, 239.98, 83.7], [237.1926474, 262.0, 445.0], 147.9),
        }
        manifolds = [kpa - 100.0 for kpa in (34.0, 62.0, 245.0)]
        modes = moded(*((draw, kpa, 13.5, ()) for draw, kpa in zip((5.0, 34.0, 141.0), manifolds, strict=True)))
        for (rises, referenced), (bypass, rail, able) in wanted.items():
            regulator = level("regulator", "regulator", set_kpa=300.0, is_referenced=referenced, wide_open=0.0)
            regulator["does"]["rises"] = [{"l_per_h": flow, "kpa": kpa} for flow, kpa in rises]
            injected = level("rail", "rail", injectors=6, rated_l_per_h=29.0, rated_kpa=300.0, bore_mm=60.0)
            parts = [WORKED[0], level("pump", "pump", curves=[curve(*points)]), injected, regulator]
            ways = [
                tube("draw", "main.out", "pump.in"),
                tube("supply", "pump.out", "rail.in"),
                tube("after", "rail.out", "regulator.in"),
                tube("return", "regulator.return", "main.return"),
            ]
            tank = analysed(plumbed(parts, ways, modes=modes))
            back = tank[FLOWS].part("regulator")
            assert back is not None
            self.near(back.flow_lph, bypass, 0.03)
            rows = tank[FEEDS][0].modes
            self.near([row.kpa for row in rows], rail, 0.03)
            self.near([row.able_lph for row in rows][2:], [able], 0.02)
            self.assertAlmostEqual(tank[FEEDS][0].across_needed_kpa or 0.0, 272.6610683, places=5)
        self.assertEqual(max(one.highest_kpa for one in tank[STRETCHES]), 740.0)
        self.assertEqual(max(one.rating_needed_kpa for one in tank[STRETCHES]), 1110.0)

    def test_vapour_and_the_air(self) -> None:
        """Reid 62 kPa at three temperatures, the atmosphere at 1600 m, and where fuel boils."""
        for celsius, wanted in ((20.0, 37.09090301), (40.0, 70.58676577), (55.0, 108.6319998)):
            self.assertAlmostEqual(vapour_kpa(62.0, celsius), wanted, delta=wanted * 1e-5)
        self.assertAlmostEqual(atmosphere_kpa(1600.0), 83.52353831, places=4)
        for static, wanted in ((95.881894, 50.51034349), (78.08043231, 43.38622849)):
            self.assertAlmostEqual(boils_at(62.0, static) or 0.0, wanted, delta=1e-3)

    def test_a_mode_on_another_fuel(self) -> None:
        """Its case's fuel, or its own: denser, with another vapour pressure, and attacking other rubbers."""
        cases = [CASES[0], CASES[1] | {"fuel": "E85"}]
        modes = moded((90, 0, 13.5, ()), (90, 0, 13.5, ()), (90, 0, 13.5, ()))
        modes = [modes[0], modes[1] | {"case": "later"}, modes[2] | {"fuel": "avgas 100"}]
        tank = analysed(plumbed(modes=modes, brief={"cases": cases}, reid_kpa=60.0))
        rows = tank[INLETS][0].modes
        self.assertEqual([row.reid_kpa for row in rows], [60.0, REID_KPA["E85"], REID_KPA["avgas 100"]])
        self.assertEqual([mode.fuel for mode in tank[LINE_MODES]], [None, "E85", "avgas 100"])
        head = tank[FLOWS].kpa("rail", "in") or []
        self.assertEqual(len({round(kpa or 0.0, 4) for kpa in head}), 3, "three densities")

    def test_suction_lines(self) -> None:
        """Two lines of 11.1 mm from tanks that stand under the air's pressure: static pressure at the inlet."""
        cases = [
            (240.0, 350.0, 1800.0, 3.9, 1.2, {0: 95.881894, 1600: 78.08043231}),
            (260.0, 480.0, 1400.0, 4.2, 1.5, {0: 94.48061641}),
        ]
        for flow, lift, long, fittings, under, wanted in cases:
            pump = level("pump", "pump", curves=[curve((0, flow), (1, flow - 0.001), (900, 0))])
            pump["connections"] = [one | {"bore_mm": 11.1} for one in flares("in", "out", size="-8")]
            parts = [WORKED[0] | {"z_mm": AT - lift}, pump, level("out", "delivery nozzle")]
            parts[2]["does"] |= {"least_kpa": 0.0, "most_kpa": 5000.0}
            ways = [
                run("suction", "main.out", "pump.in", 11.1, length_mm=long, fittings_k=fittings),
                tube("away", "pump.out", "out.in"),
            ]
            modes = [
                mode | {"altitude_m": high}
                for mode, high in zip(moded(*[(flow, 0, 13.5, ())] * len(wanted)), wanted, strict=True)
            ]
            tank = analysed(plumbed(parts, ways, modes=modes, reid_kpa=62.0))
            found = [(row.inlet_kpa or 0.0) - under for row in tank[INLETS][0].modes]
            self.near(found, list(wanted.values()), 0.05)
            self.assertAlmostEqual(tank[INLETS][0].lift_mm, lift)
            speed = next(one.fastest_ms for one in tank[STRETCHES] if one.id == "suction")
            self.assertAlmostEqual(speed, flow / 3.6e6 / (np.pi / 4 * 0.0111**2), places=4)

    def test_one_element_out(self) -> None:
        """Two pumps with check valves: what runs, what feeds, which modes remain, what stops all."""
        electric = [("battery", "master switch"), ("master switch", "cut-off")]
        for side in "AB":
            electric += [
                ("cut-off", f"fuse {side}"),
                (f"fuse {side}", f"relay {side}"),
                (f"relay {side}", f"pump {side}"),
            ]
        fuel = [("tee", "filter"), ("filter", "rail")]
        for side in "AB":
            fuel += [
                ("tank", f"strainer {side}"),
                (f"strainer {side}", f"pump {side}"),
                (f"pump {side}", f"check {side}"),
            ]
            fuel += [(f"check {side}", "tee")]
        both, a, b = ["pump A", "pump B"], ["pump A"], ["pump B"]
        wanted = {
            "none": (both, both, 4),
            "pump A": (b, b, 2),
            "fuse A": (b, b, 2),
            "relay B": (a, a, 3),
            "strainer A": (both, b, 2),
            "check B": (both, a, 3),
            "filter": (both, [], 0),
            "cut-off": ([], [], 0),
        }
        flows, demand = {"pump A": 176.0, "pump B": 151.0}, {"idle": 6.0, "cruise": 48.0, "race": 162.0, "full": 240.0}
        for out, (running, feeding, modes) in wanted.items():
            found = outage(electric, fuel, both, out)
            self.assertEqual((found.running, found.feeding), (running, feeding), out)
            given = sum(flows[pump] for pump in found.feeding)
            self.assertEqual(len([mode for mode, lph in demand.items() if lph <= given]), modes, out)
        elements = {name for link in electric + fuel for name in link} - {"battery", "tank", "tee", "rail"}
        stop = sorted(name for name in elements if not outage(electric, fuel, both, name).feeding)
        self.assertEqual(stop, ["cut-off", "filter", "master switch"])


class Mating(TestCase):
    """What goes on what."""

    def test_screwed_together_with_an_adapter(self) -> None:
        """A flare and a boss share a thread and don't seal; with the adapter that is offered they do."""
        boss = replaced(PARTS, "rail", connections=[joint("in", standard="O-ring boss", hand="female"), *flares("out")])
        plain = plumbed(boss, replaced(RUNS, "to-rail", kind="direct"))
        bad = next(one for one in analysed(plain)[JOINTS] if one.run == "to-rail")
        self.assertEqual((bad.fits, bad.fault), (False, "seal"))
        found = next(one for one in judged(plain, remedies=True).findings if one.subject == "to-rail")
        self.assertEqual(len(found.remedies), 2)
        for remedy in found.remedies:
            after = analysed(apply(plain, remedy.patch))
            self.assertTrue(all(one.fits for one in after[JOINTS]), remedy.label)

    def one(self, standard: str, size: str, hand: str = "male", **more: Any) -> Connection:
        """A connection."""
        return Connection.model_validate({"standard": standard, "size": size, "hand": hand} | more)

    def test_an_adapter_fits_on_both_sides_or_not(self) -> None:
        """A hose end on a boss by way of an adapter: one of a wrong size on either side is found."""
        boss = replaced(PARTS, "rail", connections=[joint("in", standard="O-ring boss", hand="female"), *flares("out")])
        end = {"standard": "37° flare", "size": "-6", "hand": "female"}
        male = {"standard": "O-ring boss", "size": "-6", "hand": "male", "seal": "fluoroelastomer"}
        for part_side, line_side, fits in (
            (male, end | {"hand": "male"}, True),
            (male | {"size": "-8"}, end | {"hand": "male"}, False),
            (male, end | {"hand": "male", "size": "-8"}, False),
        ):
            adapter = {"part_side": part_side, "line_side": line_side}
            hose = replaced(RUNS, "to-rail", end={"part": "rail", "port": "in", "connection": end, "adapter": adapter})
            found = next(
                one for one in analysed(plumbed(boss, hose))[JOINTS] if (one.run, one.side) == ("to-rail", "end")
            )
            self.assertEqual(found.fits, fits, (part_side["size"], line_side["size"]))

    def test_near_sizes_are_named(self) -> None:
        """Inch and metric sizes that start in each other; those that are far apart are just another size."""
        near = [
            (("37° flare", "-6"), ("metric O-ring", "M14 × 1.5")),
            (("NPT taper", "1/4"), ("G parallel", "1/4")),
            (("37° flare", "-10"), ("metric O-ring", "M22 × 1.5")),
            (("metric O-ring", "M10 × 1"), ("G parallel", "1/8")),
            (("quick connector", "5/16 in"), ("quick connector", "8 mm")),
            (("hose tail", "8 mm"), ("hose tail", "5/16 in")),
        ]
        for first, second in near:
            for one, other in ((first, second), (second, first)):
                found = mismatch(self.one(*one), self.one(*other, hand="female"))
                assert found is not None, (one, other)
                self.assertEqual(found.fault, "near size", (one, other))
        far = mismatch(self.one("37° flare", "-6"), self.one("37° flare", "-8", "female"))
        assert far is not None
        self.assertEqual(far.fault, "size")

    def test_same_thread_without_a_seal(self) -> None:
        """A flare screws into a boss and leaks."""
        found = mismatch(self.one("37° flare", "-6"), self.one("O-ring boss", "-6", "female", seal="nitrile"))
        assert found is not None
        self.assertEqual(found.fault, "seal")

    def test_every_size_has_a_mate_and_an_adapter(self) -> None:
        """A thing and its mate fit; an adapter fits what it was made for on both sides."""
        threaded = [
            self.one(standard, size, seal="nitrile")
            for standard, sizes in SIZES.items()
            if standard not in ("hose tail", "beaded tube", "plain tube")
            for size in sizes
        ]
        for one in threaded:
            self.assertIsNone(mismatch(one, mate_of(one)), one)
        for one, other in zip(threaded, reversed(threaded), strict=True):
            adapter = adapter_between(one, other)
            self.assertIsNone(mismatch(adapter.part_side, one))
            self.assertIsNone(mismatch(adapter.line_side, other))
            self.assertLessEqual(adapter.bore, min(one.bore, other.bore))


def wild(choices: st.DataObject, workshop: Workshop) -> tuple[list[Item], list[Item]]:
    """Parts and runs that somebody might throw together."""
    kinds = choices.draw(st.lists(st.sampled_from(workshop.line_parts), min_size=1, max_size=7), "parts")
    parts: list[Item] = []
    free = [("tank", port["id"]) for port in PORTS]
    for n, component in enumerate(kinds):
        places = {f"{axis}_mm": choices.draw(st.integers(-400, 1500)) + 0.0 for axis in "xyz"}
        hung = choices.draw(st.sampled_from([None, None, None, "draw", "nowhere"]))
        own = {"id": f"p{n}", "name": f"part {n}", "hangs_in": hung}
        parts.append(component.model_dump(mode="json") | places | own)
        free += [(f"p{n}", port) for port in ports_of(component.does)]
    order = choices.draw(st.permutations(free), "joined")
    pairs = list(zip(order[::2], order[1::2], strict=False))
    some = pairs[: choices.draw(st.integers(0, len(pairs)))]
    runs = [run(f"r{n}", ".".join(a), ".".join(b), 4.0 + n) for n, (a, b) in enumerate(some)]
    return parts, runs


class AnyLine(TestCase):
    """What holds whatever somebody draws."""

    @given(st.data())
    @settings(max_examples=25, deadline=None)
    def test_it_is_answered_and_balances(self, choices: st.DataObject) -> None:
        """No line is too odd for an answer; what comes to a tee leaves it; findings say their figures."""
        parts, runs = wild(choices, LIBRARY)
        design = plumbed(parts, runs)
        seen = evaluate(design, showing=Showing(remedies=False))
        for finding in seen.findings:
            finding.title.plain()
            finding.why.plain()
        flows = analysed(design)[FLOWS]
        self.assertEqual(flows.unsettled, [])
        for one in parts:
            if one["does"]["kind"] != "tee" or one["hangs_in"]:
                continue
            for mode in range(5):
                total, known = 0.0, True
                for way in runs:
                    flow = flows.run(way["id"])
                    lph = flow.flow_lph[mode] if flow else 0.0
                    known &= lph is not None
                    total += (lph or 0.0) * ((way["end"]["part"] == one["id"]) - (way["start"]["part"] == one["id"]))
                self.assertTrue(not known or abs(total) < 1e-5, total)

    def test_the_strip_goes_on_without_a_gap(self) -> None:
        """Every piece begins where a piece before it ends, at the same pressure."""
        pieces = analysed(plumbed())[STRIP]
        ends = {(round(one.to_m, 6), round(one.end_kpa[0] or 0.0, 6)) for one in pieces}
        starts = [one for one in pieces if one.from_m > 0]
        self.assertGreater(len(starts), 8)
        for one in starts:
            self.assertIn((round(one.from_m, 6), round(one.start_kpa[0] or 0.0, 6)), ends, one.name)

    def test_turned_round_it_is_the_same(self) -> None:
        """Which end of a run is called its start changes nothing but the sign of its flow."""
        turned = [one | {"start": one["end"], "end": one["start"]} for one in RUNS]
        first, second = (analysed(plumbed(runs=runs))[FLOWS] for runs in (RUNS, turned))
        for one in without(RUNS, "reference"):
            a, b = first.run(one["id"]), second.run(one["id"])
            assert a and b
            np.testing.assert_allclose(np.array(a.flow_lph, float), -np.array(b.flow_lph, float), atol=1e-6)
            np.testing.assert_allclose(np.array(a.start_kpa, float), np.array(b.end_kpa, float), atol=1e-6)


class Figures(TestCase):
    """Single figures by hand."""

    def test_loaded_filters_lose_more(self) -> None:
        """A filter due for a swap loses its factor more, and the rail keeps its pressure all the same."""
        tank = analysed(plumbed())
        clean, loaded = tank[FLOWS], tank[LOADED_FLOWS]
        for name, flows in (("clean", clean), ("loaded", loaded)):
            through = flows.part("filter")
            drop = [
                a - b for a, b in zip(flows.kpa("filter", "in") or [], flows.kpa("filter", "out") or [], strict=True)
            ]  # type: ignore[operator]
            assert through is not None
            times = 3.0 if name == "loaded" else 1.0
            np.testing.assert_allclose(drop, [0.01 * times * (lph or 0.0) for lph in through.flow_lph], rtol=1e-6)

    def test_heat_is_what_the_engine_leaves(self) -> None:
        """8 A at 13.5 V are 108 W; 90 L/h at 300 kPa take 7.5 W of it."""
        full = next(row for row in analysed(plumbed())[HEAT].modes if row.mode == "Full power")
        self.assertAlmostEqual(full.electric_w, 108.0)
        self.assertAlmostEqual(full.used_w, 90.0 * 300.0 / 3600, delta=0.05)
        self.assertAlmostEqual(full.heat_w, full.electric_w - full.used_w)

    def test_staging(self) -> None:
        """The second pump comes on where the first, less the margin, ends."""
        tank = analysed(plumbed(WORKED, WAYS, modes=moded((6, -62, 13.5, ()), (214, 95, 13.5, ()))))
        stages, first = tank[HEAT].stages, tank[FLOWS].part("pump-a")
        assert first is not None
        self.assertEqual(stages[0].on_at_lph, 0.0)
        self.assertAlmostEqual(stages[1].on_at_lph, (first.flow_lph[1] or 0.0) / 1.2)
        self.assertEqual(analysed(plumbed())[HEAT].stages, [], "one pump alone")

    def test_narrowest_place(self) -> None:
        """Inside a bought part counts: a filter with a 4 mm bore is found."""
        tight = replaced(PARTS, "filter", connections=[one | {"bore_mm": 4.0} for one in flares("in", "out")])
        found = analysed(plumbed(tight))[NARROWEST]
        way = next(one for one in found if one.end == "rail")
        self.assertEqual(way.narrowest.bore_mm, 4.0)
        self.assertIn("filter", way.narrowest.at)
        need = (4 * way.narrowest.most_lph / 3.6e6 / 3.5 / np.pi) ** 0.5 * 1e3
        self.assertAlmostEqual(way.narrowest.needed_mm or 0.0, need, places=6)
        wide = replaced(PARTS, "filter", connections=[one | {"bore_mm": 6.5} for one in flares("in", "out")])
        way = next(one for one in analysed(plumbed(wide))[NARROWEST] if one.end == "rail")
        self.assertEqual(way.narrowest.bore_mm, 6.5)
        self.assertEqual(way.tightest.limit_ms, 1.0, "a suction of 7.9 mm lacks more than 6.5 mm under pressure")

    def test_dead_head(self) -> None:
        """As typed, where the table ends at nothing, or its last line carried on."""

        def pump(*points: tuple[float, float], **more: Any) -> PumpDoes:
            return PumpDoes.model_validate({"curves": (curve(*points),)} | more, strict=False)

        self.assertEqual(dead_head_kpa(pump((0, 100), (500, 0))), (500.0, False))
        self.assertEqual(dead_head_kpa(pump((0, 100), (300, 50))), (600.0, True))
        self.assertEqual(dead_head_kpa(pump((0, 100), (300, 50), dead_head_kpa=720.0)), (720.0, False))

    def test_a_spare_counts_for_nothing_until_it_is_brought_in(self) -> None:
        """The pump dies: nothing runs; with the spare in everything does."""
        spare = PUMP | {
            "id": "spare",
            "name": "spare",
            "does": PUMP["does"] | {"spare": True, "brought_in": "switch B"},
        }
        tee = part("tee", "tee", 1000, joints=flares("a", "b", "c"), bore_mm=8.7)
        split = part("split", "tee", 820, joints=flares("a", "b", "c", size="-8"), bore_mm=11.1)
        runs = [
            *without(RUNS, "to-pump", "supply"),
            run("to-split", "screen.out", "split.a", 11.1),
            run("first-in", "split.b", "pump.in", 11.1),
            run("spare-in", "split.c", "spare.in", 11.1),
            run("first-out", "pump.out", "tee.a"),
            run("spare-out", "spare.out", "tee.b"),
            run("supply", "tee.c", "filter.in"),
        ]
        tank = analysed(plumbed([*PARTS, spare, tee, split], runs))
        alone = tank[FLOWS].part("spare")
        assert alone is not None
        self.assertLess(max(abs(lph or 0.0) for lph in alone.flow_lph), 1e-6)
        dead = next(one for one in tank[FAILURES] if one.out == "pump dead")
        self.assertEqual(dead.left, [])
        self.assertEqual((dead.spare, dead.brought_in), ("spare", "switch B"))
        self.assertEqual(len(dead.with_spare), len(tank[LINE_MODES]))
        blocked = next(one for one in tank[FAILURES] if one.out == "filter blocked")
        self.assertEqual((blocked.left, blocked.with_spare), ([], []))

    def test_a_starved_engine_stops(self) -> None:
        """Nothing is judged where nothing comes; what is left is shown with nothing drawn."""
        dead = moded((90, 0, 13.5, ()), (90, 0, 13.5, ("pump",)))
        tank = analysed(plumbed(modes=dead))
        self.assertEqual((tank[FLOWS].unfed, tank[STOPPED].modes), ([1], [1]))
        left = next(one for one in tank[STOPPED].runs if one.id == "to-rail")
        self.assertIsNone(tank[FEEDS][0].modes[1].kpa)
        self.assertAlmostEqual(left.flow_lph[0] or 0.0, 0.0, places=6)

    def test_nothing_is_left_of_an_engine_that_is_only_sucked_through(self) -> None:
        """A carburettor's least pressure has no slack: a dead pump leaves no mode, in which its card asks for 5 kPa."""
        engine = part("engine", "injection pump", 1500, joints=flares("in", "return"), least_kpa=5.0, most_kpa=300.0)
        parts = [one for one in PARTS if one["id"] in ("screen", "pump", "filter")] + [engine, VENT_END]
        runs = [one for one in RUNS if one["id"] in ("suction", "to-pump", "supply")] + [
            run("to-engine", "filter.out", "engine.in"),
            run("return", "engine.return", "tank.back"),
            run("vent", "tank.vent", "end.in", 7.6),
        ]
        tank = analysed(plumbed(parts, runs))
        dead = next(one for one in tank[FAILURES] if one.out == "pump dead")
        self.assertEqual(dead.left, [])
        self.assertEqual(len(dead.lost), len(tank[LINE_MODES]))
        self.assertNotIn("vent", {one.id for one in tank[FLOWS].runs}, "air is no fuel")

    def test_what_turns_and_what_feeds(self) -> None:
        """A pump behind a shut check valve turns and feeds nothing; one fuse stops one, the switch both."""
        parts = [
            one | {"does": one["does"] | {"switch": "master", "fuse": f"fuse {one['id'][-1]}"}}
            if one["id"] in ("pump-a", "pump-b")
            else one
            for one in WORKED
        ]
        tank = analysed(plumbed(parts, WAYS, modes=moded((60, 0, 13.5, ()), (330, 0, 13.5, ()))))
        found = {one.out: (one.running, one.feeding, one.left) for one in tank[FAILURES]}
        both, b = ["pump-a", "pump-b"], ["pump-b"]
        self.assertEqual(found["pump-a dead"], (b, b, ["m0"]))
        self.assertEqual(found["fuse a open"], (b, b, ["m0"]))
        self.assertEqual(found["check-a stuck shut"], (both, b, ["m0"]))
        self.assertEqual(found["filter blocked"], (both, [], []))
        self.assertEqual(found["master open"], ([], [], []))

    def test_what_a_later_case_outgrows(self) -> None:
        """A weak pump; a blind port now against one in a finished tank, by the shop's own prices."""
        weak = replaced(PARTS, "pump", does={"curves": [curve((0, 130), (300, 105), (500, 0))]})
        design = plumbed(weak, brief={"cases": CASES})
        prices = {"per_hour": 40.0, "minutes_per_port": 30.0, "per_fitting": 8.0}
        shop = Workshop.model_validate({"prices": prices, "rules": {"reopen_h": 5.0}})
        found = {one.part: one for one in analysed(design, shop)[LINE_GROWTH]}
        pump = found["pump"].build_in
        assert pump is not None
        self.assertEqual((pump.now_h, pump.later_h), (0.5, 5.5))
        self.assertEqual((pump.now_price, pump.later_price), (28.0, 228.0))
        self.assertAlmostEqual(pump.pays_from or 0.0, 28 / 228)
        unpriced = {one.part: one for one in analysed(design)[LINE_GROWTH]}["pump"].build_in
        assert unpriced is not None
        self.assertEqual((unpriced.now_price, unpriced.pays_from), (None, None))

    def test_an_engine_driven_pump_follows_its_speed(self) -> None:
        """Half the speed of its slowest curve gives half of it; standing still it gives nothing."""
        tables = [{"rpm": 1000.0, "points": curve((0, 60), (40, 60), (41, 0))["points"]}]
        driven = level("pump", "engine-driven pump", curves=tables, ratio=0.5, needs_flooded=False)
        parts = [WORKED[0], driven, level("out", "other tank", level_mm=0.0)]
        ways = [tube("in", "main.out", "pump.in"), tube("away", "pump.out", "out.return")]
        modes = [
            one | {"engine_rpm": rpm} for one, rpm in zip(moded(*[(0, 0, 13.5, ())] * 3), (2000, 1000, 0), strict=True)
        ]
        flow = analysed(plumbed(parts, ways, modes=modes))[FLOWS].part("pump")
        assert flow is not None
        np.testing.assert_allclose(np.array(flow.flow_lph, float), [60, 30, 0], atol=1e-3)

    def test_a_driven_pump_over_the_engines_speeds(self) -> None:
        """It has enough from where its line between two cards, at its own pressure, crosses what is drawn."""
        cards = [curve((0, 40), (40, 0)), curve((0, 150), (45, 0))]
        tables = [{"rpm": rpm, "points": card["points"]} for rpm, card in zip((400.0, 3000.0), cards, strict=True)]
        driven = part("driven", "engine-driven pump", 1200, joints=flares("in", "out"), curves=tables, ratio=0.5)
        engine = part("engine", "carburettor", 1500, joints=flares("in"), least_kpa=12.0, most_kpa=40.0)
        runs = [run("in", "tank.draw", "driven.in", 11.1), run("out", "driven.out", "engine.in")]
        ports = [PORTS[0], PORTS[1] | {"capped": True}, PORTS[2]]
        modes = [
            mode | {"engine_rpm": rpm}
            for mode, rpm in zip(moded((3, 0, 13.5, ()), (60, 0, 13.5, ())), (800, 4000), strict=True)
        ]
        found = analysed(plumbed([driven, engine], runs, ports=ports, modes=modes))[ENGINE_DRIVEN][0]
        kpa = found.working_kpa
        self.assertTrue(12.0 < kpa < 16.0, "what the carburettor wants, the lines' loss, the head")
        self.assertEqual([row.shaft_rpm for row in found.speeds], [400.0, 2000.0, 3000.0])
        slow, fast = 40 - kpa, 150 * (1 - kpa / 45)
        self.assertAlmostEqual(found.speeds[1].working_lph or 0.0, slow + (fast - slow) * 1600 / 2600, places=6)
        shaft = 400 + 2600 * (60 - slow) / (fast - slow)
        self.assertAlmostEqual(found.enough_from_rpm or 0.0, 2 * shaft, delta=1.0)
        self.assertEqual([row.drawn_lph for row in found.speeds], [3.0, 60.0, None])

    def test_a_jet_moves_its_ratio(self) -> None:
        """Above its least pressure a jet moves its ratio of what drives it, and all of it comes out."""
        jet = part(
            "jet",
            "jet pump",
            700,
            joints=flares("drive", "suction", "out"),
            ratio=1.5,
            least_kpa=5.0,
            nozzle_square=2e-3,
        )
        runs = [
            *without(RUNS, "return"),
            run("return", "regulator.return", "jet.drive"),
            run("out", "jet.out", "tank.back"),
            run("far", "tank.other", "jet.suction"),
        ]
        other = PORTS[0] | {"id": "other", "name": "other", "x_mm": 200}
        flows = analysed(plumbed([*PARTS, jet], runs, ports=[*PORTS, other]))[FLOWS]
        moved, out, far = flows.part("jet"), flows.run("out"), flows.run("far")
        assert moved and out and far
        for drive, more, away, drawn in zip(moved.flow_lph, moved.moved_lph, out.flow_lph, far.flow_lph, strict=True):
            self.assertAlmostEqual(more or 0.0, 1.5 * (drive or 0.0), places=6)
            self.assertAlmostEqual(away or 0.0, 2.5 * (drive or 0.0), places=4)
            self.assertAlmostEqual(drawn or 0.0, more or 0.0, places=6)

    def test_each_engine_is_judged_by_its_own_regulator(self) -> None:
        """A rail at 300 kPa and a carburettor behind a dead-head regulator at 25 kPa, on one tank."""
        small = [curve((0, 240), (60, 180), (90, 0), volts=volts) for volts in (11.0, 13.5)]
        second = [
            part("p2", "pump", 200, curves=small),
            part("r2", "regulator", 250, way="dead-head", set_kpa=25.0),
            part("bowl", "carburettor", 300, joints=flares("in")),
        ]
        runs = [*RUNS, run("c1", "tank.other", "p2.in"), run("c2", "p2.out", "r2.in"), run("c3", "r2.out", "bowl.in")]
        ports = [*PORTS, PORTS[0] | {"id": "other", "name": "other", "x_mm": 100}]
        rail, bowl = analysed(plumbed([*PARTS, *second], runs, ports=ports))[FEEDS]
        self.assertEqual((rail.modes[2].wanted_kpa, bowl.modes[2].wanted_kpa), (300.0, 25.0))
        self.assertAlmostEqual(bowl.modes[2].kpa or 0.0, 25.0, delta=0.5)

    def test_two_cells_are_two_circuits(self) -> None:
        """A partition and a line that doesn't cross it: two fuels, nothing joined."""
        wall: Item = {"features": [{"kind": "partition", "id": "wall", "name": "wall", "axis": "x", "at_mm": 250}]}
        second = [
            part("burner", "burner", 300, joints=flares("in")),
            part("p2", "pump", 200, curves=[curve((0, 60), (100, 0))]),
        ]
        ports = [*PORTS, PORTS[0] | {"id": "other", "name": "other", "x_mm": 100}]
        runs = [*RUNS, run("b1", "tank.other", "p2.in"), run("b2", "p2.out", "burner.in")]
        kept = plumbed(
            [*PARTS, *second], runs, ports=ports, shell=wall, fuels=[{"cell": "rear cell", "fuel": "kerosene"}]
        )
        found = analysed(kept)[CIRCUITS]
        self.assertEqual([set(one.fuels.values()) for one in found], [{"petrol E10"}, {"kerosene"}])
        self.assertEqual([one.joins for one in found], [[], []])


class Layouts(TestCase):
    """Every layout fits the tank it is offered for."""

    def tank(self) -> TankAnalysis:
        """With the parts of the library."""
        return analysed(plumbed([], []), LIBRARY)

    def test_each_can_be_taken(self) -> None:
        """What is applied joins up: nothing open, nothing loose, no joint that doesn't fit; its figures are its own."""
        tank = self.tank()
        for one in layouts(tank):
            if one.stop is not None:
                continue
            after = apply(tank.design, one.patch)
            seen = evaluate(after, tank.workshop, showing=Showing(remedies=False))
            found = {finding.code for finding in seen.findings if finding.station == "lines"}
            wrong = {
                "lines.short_hose",
                "lines.kink",
                "lines.crowded",
                "lines.open",
                "lines.loose",
                "lines.joint",
                "lines.unsettled",
                "lines.unfed",
                "lines.two_fuels",
                "lines.through",
            }
            self.assertEqual(found & wrong, set(), one.title)
            self.assertEqual(len(seen.lines.joints or []), one.joints, one.title)  # type: ignore[union-attr]
            self.assertEqual(len(after.lines.parts), one.parts)
            again = next(other for other in layouts(analysed(after, tank.workshop)) if other.title == one.title)
            self.assertTrue(again.joints == one.joints and again.metres > 0)

    def test_two_cells_are_kept_apart(self) -> None:
        """A tank of two cells is offered a path for each, with nothing in common."""
        wall: Item = {"features": [{"kind": "partition", "id": "wall", "name": "wall", "axis": "x", "at_mm": 250}]}
        ports = [*PORTS, PORTS[0] | {"id": "other", "name": "other", "x_mm": 100}]
        tank = analysed(
            plumbed([], [], ports=ports, shell=wall, fuels=[{"cell": "rear cell", "fuel": "kerosene"}]), LIBRARY
        )
        apart = next(one for one in layouts(tank) if one.title.startswith("Fuels apart"))
        self.assertIsNone(apart.stop)
        found = analysed(apply(tank.design, apart.patch), LIBRARY)[CIRCUITS]
        self.assertEqual([len(one.fuels) for one in found], [1, 1])

    def test_what_each_means_for_the_injectors(self) -> None:
        """Referenced: the same across the injectors at idle and full power; constant: what the manifold takes off."""
        found = {one.title.split(":")[0].split(",")[0]: one for one in layouts(self.tank())}
        back = found["Return"]
        self.assertAlmostEqual(back.idle_kpa or 0.0, back.full_kpa or 1.0, delta=1.0)
        for title in ("Regulator at the tank", "Dead-head"):
            constant = found[title]
            self.assertAlmostEqual((constant.idle_kpa or 0.0) - (constant.full_kpa or 0.0), 65.0, delta=3.0)
        self.assertIsNotNone(found["Low pressure"].stop)
        self.assertEqual(sum(one.favoured for one in found.values()), 1)


class LibraryFile(TestCase):
    """Line parts as CSV."""

    def test_there_and_back_in_every_units(self) -> None:
        """All of the demo's parts; in inches to the rounding of a cell."""
        parts = LIBRARY.line_parts
        for units in UNIT_SETS:
            back, problems = read_line_parts(line_parts_csv(parts, units))
            self.assertEqual((len(back), problems), (len(parts), []))
            for one, other in zip(parts, back, strict=True):
                self.assertEqual(one.connections, other.connections)
                self.assertAlmostEqual(one.long_mm, other.long_mm, places=4)
                if units == "mm_l":
                    self.assertEqual(one, other)

    def test_a_bad_cell_is_named(self) -> None:
        """Row and column; good rows are kept."""
        text = b"name,kind,opens_kpa\nX,check valve,9999\nY,spring,\nZ,check valve,6\n"
        found, problems = read_line_parts(text)
        self.assertEqual([one.name for one in found], ["Z"])
        self.assertEqual([one.field for one in problems], ["row 2, opens_kpa", "row 3, kind"])
