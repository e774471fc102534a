"""Flows and pressures of networks: a worked layout, loops by another method, what can't be, and any network at all."""

from dataclasses import replace
from math import sqrt
from typing import Any
from unittest import TestCase

import numpy as np
from hypothesis import given, settings
from hypothesis import strategies as st

from keel.network.curves import Curve, Curves
from keel.network.elements import (
    BypassRegulator,
    CheckValve,
    DeadHeadRegulator,
    Element,
    Fuel,
    Pipe,
    Pump,
    Resistance,
)
from keel.network.friction import colebrook, friction, pipe_loss, velocity
from keel.network.solve import Network, Settled, settle

PETROL = (0.745, 0.55)
AT_10_V = Curve.of([0, 100, 200, 300, 400, 450], [176, 158, 132, 98, 44, 0])
AT_13_5_V = Curve.of([0, 100, 200, 300, 400, 500, 600, 680], [262, 250, 232, 209, 180, 141, 84, 0])


def fuel(modes: int, density: float = PETROL[0], viscosity: float = PETROL[1]) -> Fuel:
    return Fuel(np.full(modes, density), np.full(modes, viscosity))


def each(*values: float) -> np.ndarray[Any, np.dtype[np.float64]]:
    return np.array(values, dtype=np.float64)


def at_volts(volts: float) -> Curve:
    """Between both tables, at equal rise of pressure."""
    share = (volts - 10) / 3.5
    places = sorted({*AT_10_V.places, *AT_13_5_V.places})
    return Curve.of(places, [(1 - share) * AT_10_V.at(at) + share * AT_13_5_V.at(at) for at in places])


def only(found: Settled, of: str) -> float:
    """The one mode's figure of a joint or an element."""
    (value,) = found.pressures_kpa.get(of, found.flows_lph.get(of, np.zeros(0)))
    return float(value)


class Losses(TestCase):
    """Friction."""

    def test_a_hose_with_fittings(self) -> None:
        """4.6 m of 11.1 mm with fittings of K 3.4 at 420 L/h."""
        one = np.ones(1)
        sizes = (11.1 * one, 4.6 * one, 3.4 * one)
        loss, _ = pipe_loss(420.0 * one, *sizes, PETROL[0] * one, PETROL[1] * one, 0.0015 * one)
        self.assertAlmostEqual(float(velocity(420.0 * one, 11.1 * one)[0]), 1.205621407, places=8)
        self.assertAlmostEqual(float(loss[0]), 7.451835406, delta=1e-6)

    def test_factors_of_every_kind_of_flow(self) -> None:
        """Laminar, between, turbulent, at 0.0015 in 8.7 mm."""
        reynolds = each(1500, 2600, 3900, 15000)
        wanted = (0.04266666667, 0.03442451547, 0.03967763234, 0.02812969022)
        for found, factor in zip(friction(reynolds, np.full(4, 0.0015 / 8.7))[0], wanted, strict=True):
            self.assertAlmostEqual(float(found), factor, delta=1e-9)

    @given(st.floats(3.7, 7.0), st.floats(-6, -1.5))
    def test_colebrook_is_solved(self, reynolds: float, rough: float) -> None:
        """Put back into its own equation nothing is left."""
        re, relative = each(10**reynolds), each(10**rough)
        root = 1 / sqrt(float(colebrook(re, relative)[0][0]))
        self.assertAlmostEqual(root, -2 * np.log10(relative[0] / 3.7 + 2.51 * root / re[0]), delta=1e-10)

    @given(st.floats(-900, 900), st.floats(3, 25), st.floats(0, 8), st.floats(0, 10), st.floats(0.4, 5))
    def test_slope_and_sign(self, flow: float, bore: float, long: float, fittings: float, thick: float) -> None:
        """Its slope is that of its own figures; turned round it loses as much the other way."""

        def loss(lph: float) -> tuple[float, float]:
            found = pipe_loss(*(each(x) for x in (lph, bore, long, fittings, 0.75, thick, 0.0015)))
            return float(found[0][0]), float(found[1][0])

        near = 1e-4 * (1 + abs(flow))
        reynolds = abs(flow) / 3.6e6 / (np.pi / 4 * (bore / 1e3) ** 2) * bore * 1e3 / thick
        by_figures = (loss(flow + near)[0] - loss(flow - near)[0]) / (2 * near)
        if min(abs(reynolds - edge) for edge in (2000, 4000)) > 1 + 0.001 * reynolds:
            self.assertAlmostEqual(loss(flow)[1], by_figures, delta=1e-3 * by_figures + 1e-6)
        self.assertAlmostEqual(loss(-flow)[0], -loss(flow)[0])


class TwoPumps(TestCase):
    """Two pumps with check valves, filter, hose, rail, bypass regulator, return: idle, full, low voltage, one dead."""

    def setUp(self) -> None:
        """The layout in its four modes."""
        curves = [at_volts(volts) for volts in (13.5, 13.5, 11.2, 13.5)]
        rises = Curve.of([0, 220, 320, 420], [0, 0, 14, 46])
        elements: list[Element] = [
            Pump("one", "tank", "a", curves),
            Pump("two", "tank", "b", [*curves[:3], None]),
            CheckValve("check one", "a", "tee", 6.0, 0.0004),
            CheckValve("check two", "b", "tee", 6.0, 0.0004),
            Resistance("filter", "tee", "filtered", 0.02, 0.00012),
            Pipe("supply", "filtered", "rail", 8.7, 4.2, 2.8),
            BypassRegulator("regulator", "rail", "out", 300.0, rises, 0.0009, each(-62, 95, 95, 95)),
            Pipe("return", "out", "tank", 8.7, 4.6, 3.1),
        ]
        drawn = {"rail": each(6, 214, 214, 214)}
        self.found = settle(Network(elements, {"tank": np.zeros(4)}, drawn, fuel(4)))

    def test_flows_and_pressures(self) -> None:
        """As worked out elsewhere by nested halving."""
        self.assertTrue(self.found.is_settled.all())
        self.assertTrue(self.found.is_fed.all())
        wanted = {
            "one": (197.2930578, 162.9254561, 107.0, 214.0),
            "two": (197.2930578, 162.9254561, 107.0, 0.0),
            "supply": (394.5861155, 325.8509122, 214.0, 214.0),
            "regulator": (388.5861155, 111.8509122, 0.0, 0.0),
            "tee": (318.7989461, 427.1630001, 353.3826642, 253.9424696),
            "filtered": (292.2234395, 407.9045239, 343.6071442, 244.1669496),
            "rail": (273.947557, 395.0, 337.5710559, 238.1308613),
            "out": (19.50646901, 2.07682378, 0.0, 0.0),
        }
        for of, values in wanted.items():
            found = self.found.pressures_kpa.get(of, self.found.flows_lph.get(of, np.zeros(4)))
            for mode, value in enumerate(values):
                self.assertAlmostEqual(float(found[mode]), value, delta=1e-6, msg=f"{of} {mode}")

    def test_nothing_is_lost(self) -> None:
        """What comes to each joint leaves it, to a thousand-millionth."""
        flows = self.found.flows_lph
        for comes, leaves in (
            (flows["check one"] + flows["check two"], flows["filter"]),
            (flows["supply"], flows["regulator"] + each(6, 214, 214, 214)),
            (flows["regulator"], flows["return"]),
        ):
            self.assertLess(float(np.abs(comes - leaves).max()), 1e-9)


class Regulators(TestCase):
    """What holds a pressure."""

    def test_a_bypass_against_a_pump_alone(self) -> None:
        """No losses: surplus and pressure of a small regulator, constant and with a reference, by pairs of lines."""
        pump = Curve.of([0, 100, 200, 300, 400, 500, 600, 700, 740], [318, 304, 287, 266, 240, 206, 158, 70, 0])
        rises = Curve.of([0, 140, 200, 260, 320], [0, 0, 22, 61, 118])
        cases = (
            (each(0, 0, 0), (247.2882806, 222.4807528, 125.0), (352.7373824, 336.6124893, 300.0)),
            (each(-66, -38, 145), (261.7090454, 230.9324209, 83.7), (296.6235932, 304.1060736, 445.0)),
        )
        for reference, bypassed, rail in cases:
            elements: list[Element] = [
                Pump("pump", "tank", "rail", [pump] * 3),
                BypassRegulator("regulator", "rail", "tank", 300.0, rises, 0.0, reference),
            ]
            found = settle(Network(elements, {"tank": np.zeros(3)}, {"rail": each(5, 34, 141)}, fuel(3)))
            self.assertTrue(np.allclose(found.flows_lph["regulator"], bypassed, atol=1e-6))
            self.assertTrue(np.allclose(found.pressures_kpa["rail"], rail, atol=1e-6))

    def test_a_dead_head_holds_what_is_behind_it(self) -> None:
        """Drawn little it holds its set pressure; drawn much the pump's pressure less its own loss."""
        elements: list[Element] = [
            Pump("pump", "tank", "line", [AT_13_5_V] * 2),
            DeadHeadRegulator("regulator", "line", "rail", 300.0, 0.002),
        ]
        found = settle(Network(elements, {"tank": np.zeros(2)}, {"rail": each(20.0, 200.0)}, fuel(2)))
        self.assertAlmostEqual(found.pressures_kpa["rail"][0], 300.0, delta=1e-6)
        self.assertAlmostEqual(found.pressures_kpa["line"][0], 680 - 20 / 84 * 80, delta=1e-6)
        line = 300 + (209 - 200) / 29 * 100
        self.assertAlmostEqual(found.pressures_kpa["line"][1], line, delta=1e-6)
        self.assertAlmostEqual(found.pressures_kpa["rail"][1], min(300.0, line - 0.002 * 200**2), delta=1e-6)

    def test_nothing_drawn_dead_heads_the_pump(self) -> None:
        """Against a shut path it stands at the end of its table."""
        elements: list[Element] = [
            Pump("pump", "tank", "line", [AT_13_5_V]),
            Pipe("hose", "line", "rail"),
            DeadHeadRegulator("regulator", "rail", "end", 300.0),
        ]
        found = settle(Network(elements, {"tank": np.zeros(1)}, {}, fuel(1)))
        self.assertTrue(found.is_settled[0])
        self.assertAlmostEqual(only(found, "line"), 680.0, delta=0.01)
        self.assertAlmostEqual(only(found, "pump"), 0.0, delta=1e-6)


class Loops(TestCase):
    """Branches beside each other."""

    def test_two_branches_share_by_their_roots(self) -> None:
        """Resistances b and 4 b: twice as much through the lesser."""
        elements: list[Element] = [
            Pump("pump", "tank", "a", [AT_13_5_V]), Resistance("wide", "a", "b", 0.0, 0.001),
            Resistance("narrow", "a", "b", 0.0, 0.004), Resistance("back", "b", "tank", 0.0, 0.002),
        ]  # fmt: skip
        found = settle(Network(elements, {"tank": np.zeros(1)}, {}, fuel(1)))
        self.assertAlmostEqual(only(found, "wide") / only(found, "narrow"), 2.0, delta=1e-9)
        flow = only(found, "pump")
        both = 1 / (1 / sqrt(0.001) + 1 / sqrt(0.004)) ** 2
        self.assertAlmostEqual(only(found, "a"), (both + 0.002) * flow**2, delta=1e-6)
        self.assertAlmostEqual(flow, AT_13_5_V.at(only(found, "a")), delta=1e-6)

    @settings(max_examples=40)
    @given(st.lists(st.floats(1e-4, 1e-2), min_size=7, max_size=7), st.floats(50, 400))
    def test_two_loops_by_turns(self, squares: list[float], drawn: float) -> None:
        """A square of pipes with a pipe across it, against corrections loop by loop."""
        ends = [("in", "a"), ("in", "b"), ("a", "b"), ("a", "c"), ("b", "d"), ("c", "d")]
        elements: list[Element] = [
            Resistance(f"r{n}", *pair, 0.0, square) for n, (pair, square) in enumerate(zip(ends, squares, strict=False))
        ]
        elements.append(Resistance("out", "d", "sink", 0.0, squares[6]))
        held = {"sink": np.zeros(1)}
        found = settle(Network(elements, held, {"in": each(-drawn)}, fuel(1)))
        self.assertTrue(found.is_settled[0])
        # Loops: in-a-b, and a-c-d-b; what one branch carries more the other carries less.
        flows = np.array([drawn / 2, drawn / 2, 0.0, drawn / 2, drawn / 2, drawn / 2])
        loops = ([(0, 1), (2, 1), (1, -1)], [(3, 1), (5, 1), (4, -1), (2, -1)])
        for _ in range(4000):
            for loop in loops:
                lost = sum(sign * squares[n] * flows[n] * abs(flows[n]) for n, sign in loop)
                slope = sum(2 * squares[n] * abs(flows[n]) for n, _ in loop)
                for n, sign in loop:
                    flows[n] -= sign * lost / max(slope, 1e-12)
        for n in range(6):
            self.assertAlmostEqual(only(found, f"r{n}"), flows[n], delta=0.005 * drawn)

    def test_a_shut_check_valve_keeps_a_weak_pump_out(self) -> None:
        """Beside a strong pump at 500 kPa one that ends at 450 gives nothing, and nothing comes back through it."""
        for is_checked in (True, False):
            join: Element = (
                CheckValve("valve", "b", "tee", 5.0) if is_checked else Resistance("valve", "b", "tee", 0.01)
            )
            elements = [
                Pump("strong", "tank", "tee", [AT_13_5_V]), Pump("weak", "tank", "b", [AT_10_V]), join,
                BypassRegulator("regulator", "tee", "tank", 500.0),
            ]  # fmt: skip
            found = settle(Network(elements, {"tank": np.zeros(1)}, {}, fuel(1)))
            self.assertAlmostEqual(only(found, "tee"), 500.0, delta=1e-6)
            self.assertAlmostEqual(only(found, "valve"), 0.0, delta=1e-6)
            self.assertAlmostEqual(only(found, "strong"), 141.0, delta=1e-6)


class WhatCannotBe(TestCase):
    """It is said."""

    def test_more_is_asked_than_can_come(self) -> None:
        """No pump runs and the engine draws: no joint can be drawn below a vacuum."""
        elements: list[Element] = [Pump("pump", "tank", "rail", [None, AT_13_5_V])]
        found = settle(Network(elements, {"tank": np.zeros(2)}, {"rail": each(60, 60)}, fuel(2)))
        self.assertEqual(found.is_fed.tolist(), [False, True])

    def test_curves_that_are_none(self) -> None:
        """Places that don't rise, no point at all, rows of unlike length."""
        for places, values in (([0.0, 0.0], [1.0, 2.0]), ([], []), ([0.0, 1.0], [1.0])):
            with self.assertRaises(ValueError):
                Curve.of(places, values)

    @given(st.integers(0, 10_000))
    def test_curves_beside_each_other(self, seed: int) -> None:
        """Stacked they say what each says alone, and their slopes."""
        rng = np.random.default_rng(seed)
        rows = []
        for _ in range(2):
            row = []
            for _ in range(3):
                places = np.cumsum(rng.uniform(0.5, 50, int(rng.integers(1, 6))))
                row.append(Curve.of(places.tolist(), rng.uniform(-10, 10, len(places)).tolist()))
            rows.append(row)
        at = rng.uniform(-20, 220, (2, 3))
        values, slopes = Curves.stacked(rows).at(at)
        for n in range(2):
            for k in range(3):
                self.assertAlmostEqual(float(values[n, k]), rows[n][k].at(at[n, k]), delta=1e-9)
                ahead = rows[n][k].at(at[n, k] + 1e-7) - rows[n][k].at(at[n, k] - 1e-7)
                if not any(abs(at[n, k] - place) < 1e-6 for place in rows[n][k].places):
                    self.assertAlmostEqual(float(slopes[n, k]), ahead / 2e-7, delta=1e-4)


class Likeness(TestCase):
    """The same network told otherwise, and a stronger one."""

    @settings(max_examples=25)
    @given(st.integers(0, 1_000_000))
    def test_order_names_and_modes_do_not_matter(self, seed: int) -> None:
        """Elements shuffled, joints named otherwise, modes turned round: the same flows."""
        network = Thrown(seed).network()
        found, rng = settle(network), np.random.default_rng(seed)

        def renamed(name: str) -> str:
            return name if name == "tank" else f"other {name}"

        elements = [replace(one, start=renamed(one.start), end=renamed(one.end)) for one in network.elements]
        rng.shuffle(elements)  # type: ignore[arg-type]
        elements = [backward(one) for one in elements]
        held = {name: kpa[::-1] for name, kpa in network.held_kpa.items()}
        drawn = {renamed(name): lph[::-1] for name, lph in network.drawn_lph.items()}
        fuel_ = Fuel(network.fuel.density[::-1], network.fuel.viscosity[::-1])
        other = settle(Network(elements, held, drawn, fuel_))
        for name, flow in found.flows_lph.items():
            fed = found.is_fed
            self.assertTrue(np.allclose(flow[fed], other.flows_lph[name][::-1][fed], atol=1e-5), name)

    @settings(max_examples=40)
    @given(st.floats(9.0, 13.4), st.floats(0.05, 1.0), st.floats(5.0, 12.0), st.floats(0.2, 8.0))
    def test_what_helps_never_hurts(self, volts: float, more: float, bore: float, long: float) -> None:
        """More voltage, a wider or a shorter hose: at least as much comes to an open end."""

        def delivered(at: float, wide: float, length: float) -> float:
            elements: list[Element] = [
                Pump("pump", "tank", "line", [at_volts(at)]),
                CheckValve("valve", "line", "behind", 4.0, 0.0003),
                Pipe("hose", "behind", "out", wide, length, 3.0),
            ]
            held = {"tank": np.zeros(1), "out": each(150.0)}
            return only(settle(Network(elements, held, {}, fuel(1))), "hose")

        plain = delivered(volts, bore, long)
        self.assertGreaterEqual(delivered(volts + more, bore, long), plain - 1e-6)
        self.assertGreaterEqual(delivered(volts, bore + more, long), plain - 1e-6)
        self.assertGreaterEqual(delivered(volts, bore, long / (1 + more)), plain - 1e-6)

    @settings(max_examples=40)
    @given(st.integers(0, 1_000_000), st.floats(0.5, 1.5))
    def test_where_the_search_begins_does_not_matter(self, seed: int, share: float) -> None:
        """Drawn on more or less, it settles from near as it does from anywhere."""
        network = Thrown(seed).network()
        near = settle(network)
        other = replace(network, drawn_lph={name: lph * share for name, lph in network.drawn_lph.items()})
        straight, begun = settle(other), settle(other, near=near)
        fed = straight.is_fed
        self.assertTrue(begun.is_settled.all())
        for name, flow in straight.flows_lph.items():
            self.assertTrue(np.allclose(flow[fed], begun.flows_lph[name][fed], atol=1e-5), name)
        for name, kpa in straight.pressures_kpa.items():
            self.assertTrue(np.allclose(kpa[fed], begun.pressures_kpa[name][fed], atol=1e-3, equal_nan=True), name)

    def test_height_is_pressure(self) -> None:
        """A metre up and a metre down again costs nothing; a metre up costs ρ g h."""
        for rises, lost in (((1000.0, -1000.0), 0.0), ((1000.0, 0.0), PETROL[0] * 9.80665)):
            elements: list[Element] = [
                Pipe("up", "tank", "top", 20.0, 0.001, 0.0, 0.0015, rises[0]),
                Pipe("down", "top", "end", 20.0, 0.001, 0.0, 0.0015, rises[1]),
            ]
            found = settle(Network(elements, {"tank": np.zeros(1)}, {"end": each(1.0)}, fuel(1)))
            self.assertAlmostEqual(only(found, "end"), -lost, delta=1e-3)


def backward(one: Element) -> Element:
    """An element's figures with the modes turned round."""
    if isinstance(one, Pump):
        return replace(one, curves=one.curves[::-1])
    if isinstance(one, BypassRegulator | DeadHeadRegulator) and len(one.reference_kpa) > 1:
        return replace(one, reference_kpa=one.reference_kpa[::-1])
    return one


class AnyNetwork(TestCase):
    """Pumps, valves, loops, rails and regulators thrown together."""

    @settings(max_examples=120)
    @given(st.integers(0, 1_000_000))
    def test_it_settles_and_keeps_its_laws(self, seed: int) -> None:
        """Nothing is lost at a joint; nothing runs backward through what shuts; regulators hold or are shut or open."""
        network = Thrown(seed).network()
        found = settle(network)
        self.assertTrue(found.is_settled.all(), found.left)
        modes = len(network.fuel.density)
        balance = {name: -network.drawn_lph.get(name, np.zeros(modes)) for name in network.joints}
        for one in network.elements:
            balance[one.start] = balance[one.start] - found.flows_lph[one.id]
            balance[one.end] = balance[one.end] + found.flows_lph[one.id]
        for mode in np.flatnonzero(found.is_fed):
            for name, left in balance.items():
                if name not in network.held_kpa:
                    self.assertLess(abs(float(left[mode])), 1e-9 * 1000, name)
            for one in network.elements:
                self.keeps(one, found, int(mode))

    def keeps(self, one: Element, found: Settled, mode: int) -> None:
        """Its own law, told otherwise than the solver has it."""
        flow = float(found.flows_lph[one.id][mode])
        before, behind = (float(found.pressures_kpa[at][mode]) for at in (one.start, one.end))
        if isinstance(one, Pump):
            curve = one.curves[mode]
            self.assertAlmostEqual(flow, curve.at(behind - before) if curve else 0.0, delta=1e-5)
        elif isinstance(one, CheckValve):
            self.assertGreater(flow, -1e-6)
            self.assertLess(before - behind, one.opens_kpa + one.square * flow**2 + 1e-5)
            if flow > 1e-5:
                self.assertAlmostEqual(before - behind, one.opens_kpa + one.square * flow**2, delta=1e-5)
        elif isinstance(one, BypassRegulator):
            held = one.set_kpa + one.reference_kpa[mode]
            self.assertGreater(flow, -1e-6)
            if flow < 1e-6:
                self.assertLess(before, max(held, behind) + 1e-5)
            else:
                wanted = max(held + one.rises.at(flow), behind + one.wide_open * flow**2)
                self.assertAlmostEqual(before, wanted, delta=1e-5)
        elif isinstance(one, DeadHeadRegulator):
            held = one.set_kpa + one.reference_kpa[mode]
            self.assertGreater(flow, -1e-6)
            if flow > 1e-5:
                self.assertAlmostEqual(behind, min(held, before - one.wide_open * flow**2), delta=1e-5)


class Thrown:
    """A network of some ten to forty elements that somebody might lay out, or hardly."""

    def __init__(self, seed: int, modes: int = 3, stretches: int | None = None) -> None:
        self.rng, self.modes = np.random.default_rng(seed), modes
        self.elements: list[Element] = []
        self.drawn: dict[str, Any] = {}
        self.joints = iter(f"j{n}" for n in range(1000))
        at = self.pumps()
        for _ in range(stretches or int(self.rng.integers(1, 6))):
            at = self.stretch(at)
        self.rail(at)

    def between(self, low: float, high: float) -> float:
        return float(self.rng.uniform(low, high))

    def add(self, kind: type[Element], start: str, end: str, *figures: Any) -> None:
        self.elements.append(kind(f"e{len(self.elements)}", start, end, *figures))

    def pipe(self, start: str, end: str) -> None:
        sizes = (self.between(4, 14), self.between(0.1, 6), self.between(0, 8), 0.0015)
        self.add(Pipe, start, end, *sizes, self.between(-600, 600))

    def curve(self) -> Curve:
        count = int(self.rng.integers(2, 7))
        places = np.cumsum(self.rng.uniform(20, 200, count))
        flows = np.sort(self.rng.uniform(20, 400, count))[::-1]
        return Curve.of([0.0, *places.tolist()], [*flows.tolist(), 0.0])

    def pumps(self) -> str:
        """One to three beside each other, some standing still, most with a check valve."""
        tee = next(self.joints)
        for _ in range(int(self.rng.integers(1, 4))):
            start, end = "tank", next(self.joints)
            if self.rng.random() < 0.3:
                start = next(self.joints)
                self.pipe("tank", start)
            self.add(Pump, start, end, [self.curve() if self.rng.random() < 0.85 else None for _ in range(self.modes)])
            if self.rng.random() < 0.85:
                self.add(CheckValve, end, tee, self.between(0, 20), self.between(0, 1e-3))
            else:
                self.pipe(end, tee)
        if self.rng.random() < 0.4:
            self.add(Resistance, tee, "tank", 0.0, self.between(0.01, 1))
        return tee

    def stretch(self, at: str) -> str:
        """A filter, a hose, or two branches, crossed or not."""
        end = next(self.joints)
        if self.rng.random() < 0.3:
            self.add(Resistance, at, end, self.between(0, 0.1), self.between(0, 1e-3))
        elif self.rng.random() < 0.5:
            self.pipe(at, end)
        else:
            first, second = next(self.joints), next(self.joints)
            for middle in (first, second):
                self.pipe(at, middle)
                self.pipe(middle, end)
            if self.rng.random() < 0.5:
                self.pipe(first, second)
        return end

    def rail(self, at: str) -> None:
        """The engine, and a regulator of either kind, or none."""
        self.drawn[at] = self.rng.uniform(0, 120, self.modes)
        reference, wide = self.rng.uniform(-70, 120, self.modes), self.between(0, 1e-3)
        out = next(self.joints)
        if self.rng.random() < 0.6:
            rises = Curve.of([0, 150, 300], [0, 0, self.between(0, 60)])
            self.add(BypassRegulator, at, out, self.between(80, 450), rises, wide, reference)
            self.pipe(out, "tank")
        elif self.rng.random() < 0.7:
            self.add(DeadHeadRegulator, at, out, self.between(80, 450), wide, reference)
            self.drawn[out] = self.rng.uniform(0, 60, self.modes)

    def network(self) -> Network:
        """All of it."""
        thin = Fuel(np.full(self.modes, 0.745), self.rng.uniform(0.4, 4, self.modes))
        return Network(self.elements, {"tank": self.rng.uniform(-2, 3, self.modes)}, self.drawn, thin)
