"""Wiring: what flows by hand and by Kirchhoff, every finding brought up alone, and what pumps make of it at Lines."""

import ast
from collections.abc import Callable
from itertools import pairwise
from math import inf
from pathlib import Path
from typing import Any
from unittest import TestCase

import networkx as nx
import numpy as np
from hypothesis import assume, given
from hypothesis import strategies as st

import keel
from keel import apply
from keel.design.document import Design
from keel.design.pumps import PumpCurve, PumpPoint
from keel.design.wiring import CutOffDoes
from keel.design.workshop import HouseRules
from keel.formats.document import UnreadableDesignError
from keel.reference.wires import CRIMP_OHM, EARTH_OHM, INSIDE_OHM
from keel.stations.registry import prescriber_of
from keel.stations.wiring.cut_offs import cut_off_added
from keel.stations.wiring.feed_ways import feed_ways
from keel.studies.build.operation import ReadingAtMost
from keel.studies.build.traveller import TRAVELLER
from keel.studies.lines.as_wired import LINE_MODES, at_battery
from keel.studies.lines.failures import FAILURES
from keel.studies.lines.flows import FLOWS
from keel.studies.lines.heat import HEAT
from keel.studies.lines.pump_curves import curve_at, dead_head_kpa
from keel.studies.wiring.diagram import DIAGRAM
from keel.studies.wiring.lamps import LEVELS
from keel.studies.wiring.pins import PINS, WIRE_LABELS
from keel.studies.wiring.runs import WIRE_RUNS
from keel.studies.wiring.state import Case, state_of
from keel.studies.wiring.supply import PUMP_SUPPLIES, STOPPINGS
from keel.studies.wiring.voltages import PUMP_VOLTAGES
from keel.studies.wiring.wired import WIRED
from keel.tests.line_samples import Item, analysed, replaced, without
from keel.tests.test_wiring import CURRENT, FLOW, KPA, VOLTS, on_card
from keel.tests.wiring_samples import (
    BONDS,
    CLAD,
    DEVICES,
    WIRES,
    device,
    found_at_wiring,
    looked_at,
    wire,
    wired_up,
)
from keel.wiring.capacity import carries
from keel.wiring.copper import resistance
from keel.wiring.network import Branch, largest_fuse, responses

Change = Callable[[], Design]


class Network(TestCase):
    """Kirchhoff's laws on networks at random, and by hand."""

    def test_two_loads_on_one_wire(self) -> None:
        """4 A and 2 A through 0.1 Ω in common, 0.05 Ω and 0.2 Ω of their own, 0.03 Ω back."""
        branches = [
            Branch("common", "+", "a", 0.1),
            Branch("first", "a", "b", 0.05),
            Branch("second", "a", "c", 0.2),
            Branch("back", "d", "-", 0.03),
        ]
        found = responses(branches, [("b", "d"), ("c", "d")], ("+", "-"))
        np.testing.assert_allclose(found.volts, [[0.18, 0.13], [0.13, 0.33]])
        np.testing.assert_allclose(found.volts @ [4.0, 2.0], [0.98, 1.18])
        np.testing.assert_allclose(found.amperes @ [4.0, 2.0], [6.0, 4.0, 2.0, 6.0])

    def test_two_ways_side_by_side(self) -> None:
        """Current parts by the conductances."""
        branches = [Branch("thick", "+", "a", 0.1), Branch("thin", "+", "a", 0.3), Branch("back", "b", "-", 0.025)]
        found = responses(branches, [("a", "b")], ("+", "-"))
        np.testing.assert_allclose(found.volts, [[0.1]])
        np.testing.assert_allclose(found.amperes[:, 0], [0.75, 0.25, 1.0])

    @given(st.integers(2, 9), st.integers(0, 2**32 - 1))
    def test_what_flows_in_flows_out(self, nodes: int, seed: int) -> None:
        """At every terminal; no load helps another; each hurts the other as much as that one it."""
        random = np.random.default_rng(seed)
        names = ["+", "-", *(f"n{n}" for n in range(nodes))]
        pairs = [tuple(random.choice(len(names), 2, replace=False)) for _ in range(3 * nodes)]
        branches = [
            Branch(f"b{n}", names[a], names[b], float(random.uniform(0.01, 2))) for n, (a, b) in enumerate(pairs)
        ]
        graph = nx.Graph([(one.start, one.end) for one in branches])
        joined = [
            name for name in names[2:] if name in graph and any(nx.has_path(graph, name, p) for p in "+-" if p in graph)
        ]
        assume(len(joined) >= 2)
        loads = [(joined[0], joined[1]), (joined[-1], joined[0])]
        found = responses(branches, loads, ("+", "-"))
        np.testing.assert_allclose(found.volts, found.volts.T, atol=1e-9)
        self.assertTrue((np.diag(found.volts) >= -1e-12).all())
        for load, (plus, minus) in enumerate(loads):
            for name in names[2:]:
                out = sum(found.amperes[n, load] for n, one in enumerate(branches) if one.start == name)
                into = sum(found.amperes[n, load] for n, one in enumerate(branches) if one.end == name)
                drawn = (name == plus) - (name == minus)
                self.assertAlmostEqual(into - out, drawn, places=7)

    @given(st.integers(2, 6), st.integers(0, 2**32 - 1))
    def test_the_fuse_that_counts(self, nodes: int, seed: int) -> None:
        """Of all ways to a terminal that whose smallest fuse is the largest: against every way there is."""
        random = np.random.default_rng(seed)
        names = ["+", *(f"n{n}" for n in range(nodes))]
        graph: nx.Graph[str] = nx.Graph()
        for a, b in [tuple(random.choice(len(names), 2, replace=False)) for _ in range(2 * nodes)]:
            rating = float(random.choice([3, 10, 15, 30])) if random.random() < 0.7 else inf
            graph.add_edge(names[a], names[b], rating=rating)
        graph.add_node("+")
        branches = [
            Branch("b", a, b, 0.01, None if rating == inf else rating) for a, b, rating in graph.edges(data="rating")
        ]
        found = largest_fuse(branches, "+")
        for name in nx.node_connected_component(graph, "+") - {"+"}:
            ways = nx.all_simple_paths(graph, "+", name)
            best = max(min(graph[a][b]["rating"] for a, b in pairwise(way)) for way in ways)
            self.assertEqual(found[name], best, name)


class ByHand(TestCase):
    """The sample's figures."""

    def test_the_pumps_way(self) -> None:
        """Copper, crimps, contacts and earths, one after the other; what the relay's coil adds is the shared wire's."""
        tank = analysed(wired_up())
        load = tank[WIRED].load("pump", "pump")
        assert load is not None
        copper = sum(resistance(length, 2.5) for length in (0.15, 0.5, 2.0, 0.8, 0.3))
        ohm = copper + 10 * CRIMP_OHM + INSIDE_OHM["fuse"] + INSIDE_OHM["relay"]
        self.assertAlmostEqual(load.loop_ohm or 0.0, ohm, places=9)
        shared = resistance(0.3, 2.5) + 2 * CRIMP_OHM
        self.assertAlmostEqual(load.drop_v or 0.0, 8.0 * ohm + 0.55 * shared, places=9)
        self.assertEqual(EARTH_OHM, 0.001)

    def test_a_pump_at_the_end_of_its_wire_gives_less(self) -> None:
        """Voltage by the fixed point on its card, at the flows of a case worked out elsewhere."""
        curves = tuple(
            PumpCurve(
                voltage_v=volts,
                points=tuple(
                    PumpPoint(kpa=k, l_per_h=q, current_a=a) for k, q, a in zip(KPA, flows, drawn, strict=True)
                ),
            )
            for volts, flows, drawn in zip(VOLTS, FLOW, CURRENT, strict=True)
        )
        does = (
            analysed(wired_up())
            .design.lines.parts[1]
            .does.model_copy(update={"curves": tuple(curves), "current_a": None})
        )
        for size in (0.75, 1.5, 4.0):
            ohm = resistance(5.2, size, contacts_ohm=0.008)
            made = at_battery(does, ohm, 0.0, [13.6])
            found = curve_at([(curve.voltage_v, curve.points) for curve in made.curves], 13.6)
            assert found is not None
            for kpa in (0.0, 200.0, 430.0, 550.0):
                volts = 13.6
                for _ in range(200):
                    volts = 13.6 - ohm * on_card(CURRENT, kpa, volts)
                self.assertAlmostEqual(found.at(kpa), on_card(FLOW, kpa, volts), delta=0.05)
            self.assertEqual(made.dead_head_kpa, dead_head_kpa(does)[0])
        self.assertEqual(at_battery(does, 2.0, 0.0, [13.6]).curves, ())

    def test_it_comes_to_the_rail(self) -> None:
        """The flow at Lines is that behind the wires; a longer way leaves less, and never a thinner wire."""
        flows, areas = [], []
        for metres in (0.5, 3.0, 9.0):
            long = [one | {"length_mm": metres * 1000} if one["id"] == "w4" else one for one in WIRES]
            typed = [one | {"area_mm2": 1.0} if one["id"] == "w4" else one for one in long]
            tank = analysed(wired_up(wires=typed))
            rows = [row for row in tank[PUMP_VOLTAGES] if row.mode == "Full power"]
            load = tank[WIRED].load("pump", "pump")
            assert load is not None
            self.assertAlmostEqual(rows[0].supply_v - (rows[0].at_pump_v or 0.0), load.drop_v or 0.0, delta=0.01)
            flow = tank[FLOWS].part("pump")
            assert flow is not None
            flows.append(flow.flow_lph[2] or 0.0)
            chosen = analysed(wired_up(wires=long))[WIRED].wire("w4")
            assert chosen is not None
            areas.append(chosen.area_mm2)
        self.assertTrue(all(a > b for a, b in pairwise(flows)), flows)
        self.assertEqual(areas, sorted(areas))

    def test_litres_at_the_low_switch(self) -> None:
        """A box of 594 × 394 mm inside, 50 mm deep."""
        (level,) = analysed(wired_up())[LEVELS]
        self.assertAlmostEqual(level.left_l or 0.0, 594 * 394 * 50 / 1e6, delta=0.02)


@st.composite
def loomed(draw: st.DrawFn) -> Design:
    """The sample with lengths, heat and a current at random."""
    lengths = {one["id"]: draw(st.floats(100, 12_000)) for one in WIRES if one["id"] not in ("w2", "w6")}
    warm = draw(st.floats(20, 110))
    wires = [one | {"length_mm": lengths.get(one["id"], 150.0), "air_c": warm} for one in WIRES]
    return wired_up(wires=wires, parts=replaced(CLAD, "pump", does={"current_a": draw(st.floats(0.5, 22))}))


class Chosen(TestCase):
    """What is chosen is never too small."""

    @given(loomed())
    def test_sizes_and_fuses(self, design: Design) -> None:
        """Each wire bears its current and the fuse before it, or is the thickest; no more is lost than may be."""
        figures = analysed(design)[WIRED]
        thickest = {one.id for one in figures.wires if one.area_mm2 >= 10.0}
        for one in figures.wires:
            enough = max(one.current_a or 0.0, one.fuse_a or 0.0)
            if one.side != "signal" and one.id not in thickest:
                self.assertGreaterEqual(one.carries_a + 1e-9, enough, one.id)
        for load in figures.loads:
            if not thickest & set(load.wires):
                self.assertLessEqual(load.drop_v or 0.0, HouseRules().wire_drop_v + 1e-9, load.key)
        for fuse in figures.fuses:
            self.assertGreaterEqual((fuse.rating_a or 0.0) + 1e-9, 1.25 * fuse.current_a)

    @given(st.floats(0.2, 10), st.floats(20, 140))
    def test_heat_takes_from_what_a_wire_carries(self, area: float, air: float) -> None:
        """Never more in a warmer place, never more than the table, nothing where its insulation gives out."""
        self.assertGreaterEqual(carries(area, "PVC", air), carries(area, "PVC", air + 10))
        self.assertLessEqual(carries(area, "fluoropolymer", air), carries(area, "fluoropolymer", 20.0))
        self.assertEqual(carries(area, "PVC", 90.0), 0.0)


def _devices(**changed: Item) -> list[Item]:
    """The devices with what some of them do changed."""
    found = DEVICES
    for key, does in changed.items():
        found = replaced(found, key, does=does)
    return found


def _but_for(word: str) -> list[Item]:
    """The wires that have nothing to do with something."""
    return [one for one in WIRES if word not in str(one)]


HUNG: list[Item] = replaced(CLAD, "pump", hangs_in="draw")
KNOT: Item = device("knot", "splice", 300, y=200, z=200, stands="in the tank")
GHOST: Item = {"id": "b9", "name": "b9", "start": "filler:ghost", "end": "tank"}
DIRECT = [
    *without(WIRES, "w3", "w4", "w9", "w10"),
    wire("w3", "ignition.out", "crash.in"),
    wire("w4", "crash.out", "pump:pump.+"),
]
PAST = [*without(WIRES, "w8", "w9"), wire("w9", "ignition.out", "relay.coil +")]
STAGED = [
    *without(WIRES, "w9"),
    wire("c1", "crash.out", "ecu.+"),
    wire("c2", "ecu.-", "earth.earth"),
    wire("w9", "ecu.out 1", "relay.coil +"),
]
BOOSTED: Item = {"from_manifold_kpa": 300.0}
PLUG: Item = device("plug", "connector")
COMES_UP: dict[str, Change] = {
    "wiring.no_battery": lambda: wired_up(
        without(DEVICES, "battery"), [one for one in WIRES if "battery" not in str(one)]
    ),
    "wiring.batteries": lambda: wired_up([*DEVICES, device("second", "battery")]),
    "wiring.short": lambda: wired_up(wires=[*WIRES, wire("bad", "fuse.out", "earth.earth")]),
    "wiring.gone": lambda: wired_up(wires=[*WIRES, wire("x", "relay.out", "pump:ghost.+")]),
    "wiring.unwired": lambda: wired_up(wires=_but_for("pump")),
    "wiring.open": lambda: wired_up(wires=without(WIRES, "w5")),
    "wiring.no_current": lambda: wired_up(parts=replaced(CLAD, "pump", does={"current_a": None})),
    "wiring.drop": lambda: wired_up(wires=replaced(WIRES, "w4", area_mm2=1.5, length_mm=5000.0)),
    "wiring.thin": lambda: wired_up(wires=replaced(WIRES, "w4", area_mm2=0.5)),
    "wiring.no_fuse": lambda: wired_up(wires=replaced(WIRES, "w2", length_mm=900.0)),
    "wiring.fuse_over": lambda: wired_up(_devices(fuse={"rating_a": 30.0}), replaced(WIRES, "w4", area_mm2=1.5)),
    "wiring.fuse_none": lambda: wired_up(parts=replaced(CLAD, "pump", does={"current_a": 60.0})),
    "wiring.fuse_small": lambda: wired_up(_devices(fuse={"rating_a": 7.5})),
    "wiring.fuse_large": lambda: wired_up(_devices(fuse={"rating_a": 25.0})),
    "wiring.contact": lambda: wired_up(_devices(relay={"rating_a": 5.0})),
    "wiring.no_relay": lambda: wired_up(wires=DIRECT),
    "wiring.no_cut_off": lambda: wired_up(wires=PAST),
    "wiring.no_crash_cut_off": lambda: wired_up(_devices(crash={"opens": "without oil pressure", "primes": "starter"})),
    "wiring.no_stall_cut_off": lambda: wired_up(_devices(oil={"opens": "in a crash", "primes": ""})),
    "wiring.no_prime": lambda: wired_up(_devices(oil={"opens": "when the engine stands", "primes": ""})),
    "wiring.never_on": lambda: wired_up([*DEVICES, device("ecu", "controller", outputs=[BOOSTED])], STAGED),
    "wiring.through_wall": lambda: wired_up(parts=HUNG),
    "wiring.in_fuel": lambda: wired_up(parts=HUNG),
    "wiring.in_tank_loose": lambda: wired_up(parts=HUNG),
    "wiring.spark": lambda: wired_up(replaced(DEVICES, "low", stands="in the tank", sealed=False)),
    "wiring.joint_in_vapour": lambda: wired_up([*DEVICES, KNOT]),
    "wiring.unbonded": lambda: wired_up(bonds=BONDS[1:]),
    "wiring.bond_gone": lambda: wired_up(bonds=[*BONDS, GHOST]),
    "wiring.lamp_unsaid": lambda: wired_up(_devices(lamp={"means": ""})),
    "wiring.lamp_always": lambda: wired_up(
        [*DEVICES, device("on", "lamp", means="power")],
        [*WIRES, wire("l1", "battery.+", "on.+", 150.0), wire("l2", "on.-", "battery.-", 150.0)],
    ),
    "wiring.no_level": lambda: wired_up(_devices(low={"height_mm": None})),
    "wiring.reserve": lambda: wired_up(gauge={"reserve_l": 20.0}),
    "wiring.same_number": lambda: wired_up(wires=replaced(WIRES, "w3", name="W4")),
    "wiring.pin_open": lambda: wired_up(
        [*DEVICES, device("plug", "connector")], [*WIRES, wire("x", "lamp.-", "plug.1")]
    ),
}
"""What brings each up."""
BY_NEIGHBOUR: dict[str, tuple[Item, Item]] = {
    "wiring.heat": ({"kind": "box", "clearance": {"kind": "exhaust, bare"}}, {}),
    "wiring.moving": ({"kind": "box", "clearance": {"kind": "moving at full travel"}}, {}),
    "wiring.low": ({"kind": "box", "clearance": {"kind": "ground"}}, {}),
    "wiring.rear": ({"kind": "box", "clearance": {"kind": "rear impact zone"}}, {}),
    "wiring.rub": ({"kind": "box", "clearance": {"kind": "hard metal"}}, {"supported": False}),
}
"""What stands 12 mm below a wire, and what the wire is."""
LED = [device("a", "battery", 800, y=700, z=520), device("b", "earth point", 1400, y=700, z=520)]
BAY: Item = {"length_mm": 2500, "width_mm": 1500, "height_mm": 900}


def led(devices: list[Item], bay: Item, **own: Any) -> Design:
    """One wire of its own from the first device to the second."""
    return wired_up(devices, [wire("w1", "a.-", "b.earth", None, **own)], bay=bay)


def beside(neighbour: Item, own: Item, z: float = 455.0, height: float = 60.0) -> Design:
    """A wire of its own past a neighbour."""
    box = {"id": "n", "name": "neighbour", "x_mm": 1000, "y_mm": 650, "z_mm": z} | neighbour
    box |= {"length_mm": 100, "width_mm": 100, "height_mm": height}
    return led(LED, BAY | {"keep_outs": [box]}, **own)


class Found(TestCase):
    """Every finding."""

    def test_the_sample_is_sound(self) -> None:
        """Nothing is found."""
        self.assertEqual(found_at_wiring(wired_up()), set())

    def test_each_comes_up(self) -> None:
        """Where it should."""
        for code, change in COMES_UP.items():
            with self.subTest(code):
                self.assertIn(code, found_at_wiring(change()))

    def test_short_wires_in_a_row_add_up(self) -> None:
        """Two of 150 mm past a splice are 300 mm without a fuse."""
        split = [
            *without(WIRES, "w2"),
            wire("a", "battery.+", "knot.joint", 150.0),
            wire("b", "knot.joint", "fuse.in", 150.0),
        ]
        self.assertIn("wiring.no_fuse", found_at_wiring(wired_up([*DEVICES, device("knot", "splice")], split)))

    def test_beside_its_neighbours(self) -> None:
        """Near what is hot, moves, is low, is struck, or rubs; tied down a wire rubs on nothing."""
        for code, (neighbour, own) in BY_NEIGHBOUR.items():
            with self.subTest(code):
                self.assertIn(code, found_at_wiring(beside(neighbour, own)))
        self.assertNotIn("wiring.rub", found_at_wiring(beside(*BY_NEIGHBOUR["wiring.rub"][:1], {"supported": True})))
        metal = BY_NEIGHBOUR["wiring.rub"][0]
        self.assertIn("wiring.through", found_at_wiring(beside(metal, {}, 480.0, 200.0)))
        sheet = {"kind": "box", "id": "n", "name": "sheet", "clearance": {"kind": "hard metal"}}
        sheet |= {"x_mm": 1000, "y_mm": 0, "z_mm": 0, "length_mm": 2, "width_mm": 1400, "height_mm": 800}
        for grommets in (True, False):
            passing = led(LED, BAY | {"keep_outs": [sheet]}, grommets=grommets)
            self.assertEqual("wiring.no_grommet" in found_at_wiring(passing), not grommets)
        over = led(LED, BAY | {"keep_outs": [sheet | {"height_mm": 510}]}, supported=False)
        self.assertIn("wiring.edge", found_at_wiring(over))
        low = [one | {"z_mm": 306.0, "y_mm": 200.0, "x_mm": x} for one, x in zip(LED, (-100.0, 900.0), strict=True)]
        self.assertIn("wiring.rub_tank", found_at_wiring(led(low, BAY, supported=False)))

    def test_all_codes_are_there(self) -> None:
        """Every code of the rules is brought up by something here."""
        folder = Path(keel.__file__).parent / "stations/wiring"
        said = {
            node.value
            for path in folder.glob("*_rules.py")
            for node in ast.walk(ast.parse(path.read_text()))
            if isinstance(node, ast.Constant) and isinstance(node.value, str) and node.value.startswith("wiring.")
        }
        tested = {*COMES_UP, *BY_NEIGHBOUR, "wiring.through", "wiring.no_grommet", "wiring.edge", "wiring.rub_tank"}
        self.assertEqual(said, tested)

    def test_remedies_settle(self) -> None:
        """Each that is offered settles its finding when it is taken."""
        offered = 0
        beside_it = {code: (lambda of=of: beside(*of)) for code, of in BY_NEIGHBOUR.items()}
        for code, change in {**COMES_UP, **beside_it}.items():
            prescribe, before = prescriber_of(code), change()
            found = next(one for one in looked_at(before).findings if one.code == code)
            for remedy in prescribe(analysed(before), found) if prescribe else ():
                offered += 1
                after = {one.key for one in looked_at(apply(before, remedy.patch)).findings}
                self.assertNotIn(found.key, after, remedy.label.plain())
        self.assertGreater(offered, 12)


class Stops(TestCase):
    """What stops the pumps, and what fails with what."""

    def test_in_a_crash(self) -> None:
        """A cut-off in the coil's feed stops it; one that only the lamp comes through doesn't."""
        (stop,) = analysed(wired_up())[STOPPINGS]
        self.assertEqual((stop.in_crash, stop.without_engine), (["crash"], ["oil"]))
        past = [*without(WIRES, "w9"), wire("w9", "ignition.out", "relay.coil +")]
        (stop,) = analysed(wired_up(wires=past))[STOPPINGS]
        self.assertEqual(stop.in_crash, [])

    def test_a_second_feed_past_the_cut_off(self) -> None:
        """What is fed two ways is stopped by neither alone."""
        more = [*WIRES, wire("past", "ignition.out", "relay.coil +")]
        self.assertIn("wiring.no_cut_off", found_at_wiring(wired_up(wires=more)))

    def test_failures_go_by_what_is_drawn(self) -> None:
        """A blown fuse and a loose earth stop the pump; a gauge's fuse isn't asked for by name."""
        named = replaced(CLAD, "pump", does={"fuse": "typed fuse"})
        out = {one.out: one.running for one in analysed(wired_up(parts=named))[FAILURES]}
        self.assertEqual(out["fuse open"], [])
        self.assertEqual(out["earth open"], [])
        self.assertNotIn("typed fuse open", out)
        bare = {one.out for one in analysed(wired_up([], [], [], parts=named))[FAILURES]}
        self.assertIn("typed fuse open", bare)

    def test_a_changeover_brings_the_spare_in(self) -> None:
        """At its first way it feeds one pump, at its second the other; each fails alone."""
        spare = CLAD[1] | {"id": "second", "name": "second", "does": CLAD[1]["does"] | {"spare": True}}
        devices = [*DEVICES, device("change", "changeover switch"), device("relay2", "relay")]
        wires = [
            *without(WIRES, "w9"),
            wire("c0", "crash.out", "change.in"),
            wire("c1", "change.a", "relay.coil +"),
            wire("c2", "change.b", "relay2.coil +"),
            wire("c3", "relay2.coil -", "earth.earth"),
            wire("c4", "fuse.out", "relay2.in"),
            wire("c5", "relay2.out", "pump:second.+"),
            wire("c6", "pump:second.-", "earth.earth"),
        ]
        tank = analysed(wired_up(devices, wires, parts=[*CLAD, spare]))
        first, second = tank[PUMP_SUPPLIES]
        self.assertEqual((first.is_whole, second.is_whole, any(first.on), any(second.on)), (True, True, True, False))
        self.assertIn("relay", [link.id for link in first.through])
        self.assertNotIn("relay", [link.id for link in second.through])
        self.assertAlmostEqual(next(one for one in tank[WIRED].fuses if one.id == "fuse").current_a, 8.0, places=6)

    def test_a_staged_pump_is_off_at_idle(self) -> None:
        """It gives nothing there and warms nothing; at full power it is on."""
        devices = [*DEVICES, device("ecu", "controller", outputs=[{"from_draw": 0.5}])]
        tank = analysed(wired_up(devices, STAGED))
        off = {mode.name: mode.off for mode in tank[LINE_MODES]}
        self.assertEqual((off["Idle"], off["Full power"]), (["pump"], []))
        flow = tank[FLOWS].part("pump")
        assert flow is not None
        self.assertLess(abs(flow.flow_lph[0] or 0.0), 0.1)
        self.assertEqual(tank[HEAT].modes[0].electric_w, 0.0)
        self.assertGreater(tank[HEAT].modes[2].electric_w, 50.0)


class Shown(TestCase):
    """Pins, labels, diagram, ways to feed."""

    def test_every_end_has_its_label_and_stands_in_the_table(self) -> None:
        """Two labels a wire; each of its ends once among the pins."""
        tank = analysed(wired_up())
        self.assertEqual(len(tank[WIRE_LABELS]), 2 * len(WIRES))
        ends = [wire.id for pin in tank[PINS] for wire in pin.wires]
        self.assertEqual(sorted(ends), sorted(2 * [one["id"] for one in WIRES]))

    def test_the_diagram_leads_to_the_right(self) -> None:
        """Every line goes to a column further on; no two boxes share a place; what isn't drawn is named."""
        for way in feed_ways(analysed(wired_up(gauge={"reserve_l": 10.0}))):
            tank = analysed(apply(wired_up(gauge={"reserve_l": 10.0}), way.patch))
            shown = tank[DIAGRAM]
            places = [(box.column, box.row) for box in shown.boxes]
            self.assertEqual(len(places), len(set(places)))
            column = {f"{box.of}:{box.id}": box.column for box in shown.boxes}
            for line in shown.lines:
                self.assertLess(column[line.start], column[line.end])
            drawn = {name for line in shown.lines for name in line.wires}
            named = {said.split(" to ")[0].lower() for box in shown.boxes for said in box.earths}
            self.assertEqual(drawn | named, {one.id for one in tank.design.wiring.wires})

    def test_each_way_to_feed_is_sound(self) -> None:
        """No stop but what isn't bonded, and no pump runs on after a crash or in a stall."""
        for title, patch in [(way.title, way.patch) for way in feed_ways(analysed(wired_up()))]:
            with self.subTest(title):
                after = apply(wired_up(), patch)
                stops = [
                    one.code for one in looked_at(after).findings if one.station == "wiring" and one.severity == "stop"
                ]
                self.assertEqual(stops, [])
                stoppings = analysed(after)[STOPPINGS]
                self.assertTrue(all(one.in_crash and (one.without_engine or one.by_controller) for one in stoppings))

    def test_one_cut_off_stops_every_pump_that_lacks_it(self) -> None:
        """In the coils' common feed: no second one for the second pump, and the gauge stays lit."""
        pump = next(one for one in CLAD if one["does"]["kind"] == "pump")
        second = {**pump, "id": "pump-2", "name": "Pump 2"}
        bare = wired_up(devices=[], wires=[], parts=[*CLAD, second])
        design = apply(bare, feed_ways(analysed(bare))[0].patch)
        blind = [
            one if one.id != "stall" else one.model_copy(update={"does": CutOffDoes()}) for one in design.wiring.devices
        ]
        design = design.model_copy(update={"wiring": design.wiring.model_copy(update={"devices": tuple(blind)})})
        found = [one for one in looked_at(design).findings if one.code == "wiring.no_stall_cut_off"]
        first, other = (next(cut_off_added(analysed(design), one)).patch for one in found)
        self.assertEqual(first, other)
        after = apply(design, first)
        self.assertTrue(all(one.in_crash and one.without_engine for one in analysed(after)[STOPPINGS]))
        oil = [one.id for one in after.wiring.devices if getattr(one.does, "opens", "") == "without oil pressure"]
        self.assertTrue(state_of(after.wiring, Case(out=oil)).drives("device", "gauge"))

    def test_each_device_has_a_place_of_its_own(self) -> None:
        """With as many pumps as one plug has pins for, in every way."""
        pump = next(one for one in CLAD if one["does"]["kind"] == "pump")
        more = [{**pump, "id": f"pump-{n}", "name": f"Pump {n}"} for n in range(2, 6)]
        design = wired_up(devices=[], wires=[], parts=[*CLAD, *more])
        found = feed_ways(analysed(design))
        self.assertEqual(len(found), 4)
        for way in found:
            outside = [one for one in apply(design, way.patch).wiring.devices if one.stands == "outside"]
            self.assertEqual(len({(one.x_mm, one.y_mm, one.z_mm) for one in outside}), len(outside))

    def test_a_wire_tied_to_a_hose_is_as_long_as_that(self) -> None:
        """Never shorter than its ends are apart; along the hose it is longer than straight."""
        tied = replaced(WIRES, "w4", length_mm=None, along=["to-rail"])
        straight = replaced(WIRES, "w4", length_mm=None)
        lengths = [analysed(wired_up(wires=wires))[WIRE_RUNS].length_m("w4") for wires in (straight, tied)]
        self.assertGreater(lengths[1], lengths[0])
        apart = np.linalg.norm(np.array([1150.0, 600.0, 500.0]) - np.array([900.0, 200.0, 300.0])) / 1e3
        self.assertAlmostEqual(lengths[0], apart + 2 * HouseRules().wire_spare_mm / 1e3, places=6)


class Bonded(TestCase):
    """From filler to tank to chassis."""

    def test_over_each_other(self) -> None:
        """A neck bonded to the tank is bonded as soon as the tank is; the traveller asks for each reading."""
        gates = {gate.id: gate for gate in analysed(wired_up())[TRAVELLER].gates}
        asked = [one for one in gates["bonded"].conditions if isinstance(one, ReadingAtMost)]
        self.assertEqual(
            {one.subject for one in asked}, {f"{n} to chassis" for n in ("tank", "neck of filler", "filter")}
        )
        self.assertEqual({one.most for one in asked}, {10.0})
        loose = found_at_wiring(wired_up(bonds=BONDS[1:]))
        self.assertEqual(loose, {"wiring.unbonded"})
        self.assertNotIn("bonded", {gate.id for gate in analysed(wired_up(bonds=[]))[TRAVELLER].gates})

    def test_a_drawn_strap_answers_for_the_port(self) -> None:
        """Ports asks whether a filler is bonded until a strap is drawn."""
        with_strap, bare = (
            {one.code for one in looked_at(wired_up(bonds=bonds)).findings} for bonds in (BONDS, BONDS[:1])
        )
        self.assertNotIn("filler.bonding_open", with_strap)
        self.assertIn("filler.bonding_open", bare)


class Refused(TestCase):
    """What no wiring can be."""

    def refused(self, field: str, words: str, **changed: Any) -> None:
        """A document that isn't read, by a fault that names field and reason."""
        with self.assertRaises(UnreadableDesignError) as caught:
            wired_up(**changed)
        self.assertIn(field, [fault.field for fault in caught.exception.faults])
        self.assertIn(words, " ".join(fault.message for fault in caught.exception.faults))

    def test_by_field_and_reason(self) -> None:
        """No length, both ends at one terminal, terminals and devices that aren't there, names used twice."""
        self.refused("wiring.wires.3.length_mm", "above 0", wires=replaced(WIRES, "w4", length_mm=0.0))
        self.refused("wiring.wires.18.end", "same terminal", wires=[*WIRES, wire("x", "lamp.+", "lamp.+")])
        self.refused("wiring.wires.18.end.terminal", "isn't a terminal", wires=[*WIRES, wire("x", "lamp.+", "fuse.z")])
        self.refused("wiring.wires.18.end.id", "isn't there", wires=[*WIRES, wire("x", "lamp.+", "ghost.in")])
        self.refused("wiring.devices.11.id", "is taken", devices=[*DEVICES, device("fuse", "fuse")])
        self.refused("wiring.wires.3.area_mm2", "0.2", wires=replaced(WIRES, "w4", area_mm2=0.0))
