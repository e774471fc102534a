"""The slosh run against worked figures, and what has to hold of any run."""

from dataclasses import replace
from math import pi, sqrt, tanh
from unittest import TestCase

import numpy as np
from hypothesis import example, given, settings
from hypothesis import strategies as st

from keel.__main__ import main
from keel.analysis.showing import Showing
from keel.design.document import Design
from keel.design.features import Baffle, Holes, Notch, Partition
from keel.design.ports import Port, Seat
from keel.design.shell import BoxShell, Corner, CylinderShell
from keel.design.slosh import KINDS, LAPS, Manoeuvre
from keel.design.workshop import HouseRules
from keel.evaluation import evaluate
from keel.findings.finding import Finding
from keel.solid.build import build
from keel.solid.compartments import compartments
from keel.solid.solids import AnyShell
from keel.studies.inside.baffle_layout import suggested_array
from keel.studies.slosh import kernel
from keel.studies.slosh.log import Log, still
from keel.studies.slosh.manoeuvres import demo_lap, log_of
from keel.studies.slosh.model import Setup, SloshTank, slosh_tank
from keel.studies.slosh.refill import Refill, refill
from keel.studies.slosh.run import slosh_run
from keel.studies.slosh.starvation import lowest_fill, starvation_map
from keel.tests.samples import box, profile

WALL = 2.0


def tank_of(shell: AnyShell, *ports: Port) -> SloshTank:
    """Ready to run, with a pickup."""
    made = slosh_tank(build(shell), ports)
    assert made is not None
    return made


def inside(length: float, width: float, height: float, *features: Baffle | Partition) -> BoxShell:
    """A box by its inside."""
    made = box(length, width, height, measured="inside", thickness_mm=WALL, bend_radius_mm=0.5, features=features)
    assert isinstance(made, BoxShell)
    return made


def pickup(x: float, y: float, z: float = 5.0, **more: object) -> Port:
    """An inlet, from the inner rear right lower corner."""
    return Port.model_validate(
        {"id": "p", "name": "pickup", "role": "pickup", "x_mm": WALL + x, "y_mm": WALL + y, "z_mm": WALL + z} | more
    )


def slotted(at: float, wide: float, high: float, along: float) -> Baffle:
    """A thin baffle at y with one slot in its foot."""
    notch = Notch(at_mm=WALL + along, wide_mm=wide, high_mm=high)
    return Baffle(
        id="b", name="baffle", axis="y", at_mm=WALL + at - 0.15, thickness_mm=0.3, corner_mm=0, notches=(notch,)
    )


def push(seconds: float, left_g: float) -> Log:
    """Switched on at once and held."""
    log = still("push", seconds)
    return replace(log, left_g=np.full(len(log.throttle_fraction), left_g))


class WorkedFigures(TestCase):
    """Building blocks and a run, worked out by hand and by an adaptive integrator."""

    def test_pickup_side_runs_dry_in_a_turn(self) -> None:
        """Sudden 1 g to the left, a floor slot, 120 L/h: dry after 8.2175 s with 7.2075 L left on its side."""
        tank = tank_of(inside(600, 600, 300, slotted(300, 120, 12, 300)), pickup(300, 450))
        ran = slosh_run(tank, push(12, 1.0), Setup(fill=0.4, draw_l_per_h=120.0, lag=False))
        self.assertAlmostEqual(ran.spells[0].start_s, 8.21750033, delta=0.005 * 8.2175)
        at = round(ran.spells[0].start_s / 0.02)
        self.assertAlmostEqual(ran.held_l[at, 1], 7.2075, delta=0.005 * 7.2075)
        self.assertAlmostEqual(ran.held_l[at, 0], 35.7185833, delta=0.005 * 35.72)
        self.assertAlmostEqual(ran.used_l, 0.273916678, delta=0.005 * 0.2739)
        first = (ran.held_l[1, 0] - ran.held_l[0, 0]) / 0.02
        self.assertAlmostEqual(first, 2.02512564, delta=0.005 * 2.025)

    def test_where_a_turn_leaves_it(self) -> None:
        """Half a g through an opening along the floor ends as one plane through both sides."""
        shell = inside(400, 800, 350, slotted(300, 380, 10, 200))
        tank = tank_of(shell, pickup(200, 500))
        ran = slosh_run(tank, push(60, 0.5), Setup(fill=110 / 350, draw_l_per_h=0.0, lag=False))
        self.assertAlmostEqual(ran.held_l[-1, 0], 26.5977527, delta=1e-3 * 26.6)
        self.assertAlmostEqual(ran.held_l[-1, 1], 8.60224726, delta=2e-3 * 8.6)

    def test_two_columns_level_out(self) -> None:
        """900 mm² under water between equal and unequal areas: to a tenth of 150 mm in 12.86 and 7.014 s."""
        for right, left, seconds in ((300, 300, 12.8596397), (300, 112.5, 7.01434895)):
            shell = inside(400, right + left, 500, slotted(right, 75, 12, 200))
            tank = tank_of(shell, pickup(200, right + 50))
            high, low = 300.0, 150.0
            start = np.array([400 * right * high, 400 * left * low])
            log = still("level out", 30)
            ran = slosh_run(tank, log, Setup(draw_l_per_h=0.0, lag=False), start=start)
            levels = ran.planes[:, :, 3]
            apart = np.abs(levels[:, 0] - levels[:, 1])
            self.assertAlmostEqual(float(ran.times_s[np.argmax(apart < 15)]), seconds, delta=0.01 * seconds + 0.02)

    def test_first_mode(self) -> None:
        """A surface let go swings at ω² = (π g/L) tanh(π h/L)."""
        for length, deep in ((600, 120), (350, 200), (250, 300)):
            tank = tank_of(inside(length, 300, 2 * deep), pickup(50, 50))
            log = still("let go", 12)
            kick = replace(log, forward_g=np.where(log.times_s < 3.0, 0.05, 0.0))
            ran = slosh_run(tank, kick, Setup(fill=0.5, draw_l_per_h=0.0))
            lean = ran.planes[:, 0, 0]
            cross = np.flatnonzero((lean[:-1] > 0) & (lean[1:] <= 0) & (log.times_s[1:] > 3.0))
            period = float(np.diff(log.times_s[cross]).mean())
            omega = sqrt(pi * 9.80665 / (length / 1000) * tanh(pi * deep / length)) * sqrt(1 - 0.05**2)
            self.assertAlmostEqual(2 * pi / period, omega, delta=0.02 * omega)


class AnyRun(TestCase):
    """What has to hold whatever is run."""

    def nine(self) -> SloshTank:
        """Crossed baffles."""
        across = (Baffle(id=f"x{n}", name=f"x{n}", axis="x", at_mm=200.0 * n) for n in (1, 2))
        along = (Baffle(id=f"y{n}", name=f"y{n}", axis="y", at_mm=150.0 * n) for n in (1, 2))
        return tank_of(box(600, 450, 240, features=(*across, *along)), pickup(300, 220))

    def test_compartments_of_crossed_baffles(self) -> None:
        """Nine, holding the cell less the plates; lapped plates have corners only outside."""
        tank = self.nine()
        self.assertEqual(len(tank.rooms), 9)
        pairs = {(o.first, o.second) for o in tank.openings}
        self.assertEqual(len(pairs), 8)
        shell = box(600, 450, 240, features=())
        self.assertAlmostEqual(sum(r.mesh.volume_mm3 for r in tank.rooms) / 1e6, build(shell).brimful_l, delta=1.5)

    @settings(max_examples=12, deadline=None)
    @given(
        kind=st.sampled_from(KINDS),
        g=st.floats(0.1, 2.0),
        fill=st.floats(0.02, 1.0),
        draw=st.floats(0, 900),
        back=st.floats(0, 300),
        surge=st.sampled_from([0.0, 1.5]),
        lag=st.booleans(),
    )
    def test_nothing_is_lost(
        self, kind: str, g: float, fill: float, draw: float, back: float, surge: float, lag: bool
    ) -> None:
        """What was there is there or used; nothing goes below zero or over the brim; the same again is the same."""
        tank = self.nine()
        log = log_of(Manoeuvre.model_validate({"kind": kind, "g": g, "seconds": 4.0}))
        setup = Setup(
            fill=fill, draw_l_per_h=draw, return_l_per_h=back, surge_l=surge, lift_l_per_h=400 if surge else 0, lag=lag
        )
        ran = slosh_run(tank, log, setup)
        total = ran.held_l.sum(axis=1) + ran.surge_l
        self.assertAlmostEqual(total[0] - total[-1], ran.used_l, delta=1e-9 * max(total[0], 1.0))
        self.assertTrue(np.all(ran.held_l >= -1e-9))
        self.assertTrue(np.all(ran.held_l <= tank.packed.capacity / 1e6 + 1e-6))
        again = slosh_run(tank, log, setup)
        self.assertTrue(np.array_equal(again.held_l, ran.held_l))

    def test_an_hour_keeps_its_mass(self) -> None:
        """To 1e-9 of the fill."""
        tank = self.nine()
        log = demo_lap(LAPS[0]).repeated(58)
        ran = slosh_run(tank, log, Setup(fill=0.9, draw_l_per_h=20.0))
        self.assertGreater(log.times_s[-1], 3590)
        lost = ran.held_l[0].sum() - ran.held_l[-1].sum() - ran.used_l
        self.assertLess(abs(lost), 1e-9 * ran.held_l[0].sum())

    def test_doors_keep_fuel_in(self) -> None:
        """Flaps that open towards the pickup's side hold more there in a turn than plain openings do."""

        def left_with(**openings: object) -> float:
            baffle = Baffle.model_validate(
                {"id": "b", "name": "b", "axis": "y", "at_mm": 200, "corner_mm": 0} | openings
            )
            tank = tank_of(inside(400, 400, 200, baffle), pickup(200, 300))
            ran = slosh_run(tank, push(6, 1.0), Setup(fill=0.3, draw_l_per_h=0.0, lag=False))
            return float(ran.held_l[-1, 1])

        size = {"at_mm": 200, "wide_mm": 80, "high_mm": 40}
        hole = {"holes": [{"at_mm": 160, "up_mm": 30, "diameter_mm": 40, "count": 2, "pitch_mm": 80}]}
        self.assertLess(left_with(**hole), 3.0)
        self.assertGreater(left_with(doors=[size | {"opens": "ahead"}]), 4.7)
        self.assertLess(left_with(doors=[size | {"opens": "back"}]), 3.0)

    def test_transfer_and_surge(self) -> None:
        """A jet empties a far lobe that would stay; a surge tank bridges what starves without it."""
        wall = slotted(200, 60, 180, 200).model_copy(update={"notches": (Notch(at_mm=202, wide_mm=300, high_mm=1),)})
        shell = inside(400, 400, 200, wall)
        jet = Port(id="j", name="jet", role="transfer", x_mm=202, y_mm=100, z_mm=WALL + 4)
        log, setup = push(60, 0.15), Setup(fill=0.1, draw_l_per_h=100.0, return_l_per_h=300.0, lag=False)
        without, with_jet = tank_of(shell, pickup(200, 300)), tank_of(shell, pickup(200, 300), jet)
        self.assertGreater(slosh_run(with_jet, log, setup).moved_l, 0.5)
        self.assertLess(slosh_run(with_jet, log, setup).dry_s, slosh_run(without, log, setup).dry_s)
        bridged = replace(setup, surge_l=3.0, lift_l_per_h=150.0)
        self.assertEqual(slosh_run(without, log, bridged).spells, [])
        self.assertLess(slosh_run(without, log, bridged).surge_l[-1], 2.9)


class Starving(TestCase):
    """Steady pushes, and the lowest fill."""

    def saddle(self, *inlets: float) -> SloshTank:
        """Two lobes over a tunnel 200 wide and 150 high, 320 deep."""
        outline = [(0, 0), (300, 0), (300, 150), (500, 150), (500, 0), (800, 0), (800, 320), (0, 320)]
        shell = profile(outline, 400.0, 2.0, "x", shape="saddle")
        return tank_of(shell, *(pickup(200, y, id=f"p{n}") for n, y in enumerate(inlets)))

    def test_lobes_keep_their_fuel(self) -> None:
        """Nothing passes through the tunnel: only what stands over it in a push runs across."""
        tank = self.saddle(150)
        lobes = [room.mesh.points[:, 1].mean() for room in tank.rooms]
        self.assertEqual((len(lobes), len(tank.openings)), (3, 2))
        setup = Setup(fill=0.2, draw_l_per_h=0.0, lag=False)
        gentle, hard = (slosh_run(tank, push(20, g), setup) for g in (0.2, 1.5))
        right, left = int(np.argmin(lobes)), int(np.argmax(lobes))
        self.assertAlmostEqual(gentle.held_l[-1, left], gentle.held_l[0, left], places=9)
        self.assertGreater(hard.held_l[-1, right], hard.held_l[0, right] + 1)
        brim = slosh_run(tank, push(20, 0.2), replace(setup, fill=0.8))
        self.assertGreater(brim.held_l[-1, right], tank.level(0.8)[right] / 1e6 + 1)

    def test_a_lobe_starves_alone(self) -> None:
        """With a pickup in one lobe its own fuel counts; one in either lobe holds out longer."""
        one, both = starvation_map(self.saddle(20)), starvation_map(self.saddle(20, 780))
        at = one.fills.index(0.2)
        alone, joined = one.g[one.directions_deg.index(270.0)][at], both.g[both.directions_deg.index(270.0)][at]
        assert alone is not None
        self.assertLess(alone, 1.0)
        self.assertTrue(joined is None or joined > alone)

    def test_map_against_the_plane(self) -> None:
        """In a box the inlet is dry when the wedge below it holds all: 0.8 g to the left in a worked tank."""
        tank = tank_of(inside(500, 400, 300), pickup(250, 200, 10.0))
        found = starvation_map(tank)
        left, fill = found.directions_deg.index(90.0), found.fills.index(0.25)
        # At a quarter, 75 mm deep: the plane through the inlet (200, 10) cuts off a quarter of the section when
        # the triangle under it, legs l and l·g, is 30 000 mm²; at the right wall it stands 10 + 200 g.
        g = found.g[left][fill]
        assert g is not None
        high = 10 + 200 * g
        foot = 200 + 10 / g
        area = high * foot / 2 - (max(0.0, high - 300) ** 2 / (2 * g)) - (max(0.0, foot - 400) ** 2 * g / 2)
        self.assertAlmostEqual(area, 0.25 * 400 * 300, delta=0.01 * 30000)
        self.assertEqual(found.g[0][0], 0.0)
        self.assertIsNone(found.g[0][-1])
        for row in found.g:
            known = [v if v is not None else 9.0 for v in row]
            self.assertEqual(known, sorted(known))

    def test_lowest_fill(self) -> None:
        """Just above it nothing starves; a little below something does."""
        tank = tank_of(inside(500, 400, 300), pickup(250, 60, 10.0))
        log, setup = log_of(Manoeuvre(kind="corner to the right", g=0.7, seconds=3.0)), Setup(draw_l_per_h=60.0)
        fill = lowest_fill(tank, log, setup)
        assert fill is not None
        self.assertEqual(slosh_run(tank, log, replace(setup, fill=fill)).spells, [])
        self.assertTrue(slosh_run(tank, log, replace(setup, fill=fill - 0.01)).spells)

    def test_a_partition_makes_cells_not_compartments(self) -> None:
        """Nothing passes a partition; a row of holes is an opening each."""
        shell = inside(600, 300, 200, Partition(id="w", name="w", axis="x", at_mm=300))
        rooms, openings = compartments(build(shell))
        self.assertEqual((len(rooms), openings), (2, []))
        row = Holes(at_mm=60, up_mm=60, diameter_mm=30, count=4, pitch_mm=60)
        plate = Baffle(id="b", name="b", axis="x", at_mm=300, corner_mm=0, holes=(row,))
        _, openings = compartments(build(inside(600, 300, 200, plate)))
        self.assertEqual(len(openings), 4)
        for opening in openings:
            self.assertAlmostEqual(opening.ring[:, 1].max() - opening.ring[:, 1].min(), 30, delta=0.5)

    def test_compiled_ahead(self) -> None:
        """The command that compiles it runs it."""
        self.assertEqual(main(["warm"]), 0)

    def test_nothing_to_draw_from(self) -> None:
        """No pickup, no run; a dry start is one long dry spell."""
        self.assertIsNone(slosh_tank(build(inside(300, 300, 200)), ()))
        ran = slosh_run(tank_of(inside(300, 300, 200), pickup(150, 150, 30.0)), still("s", 2), Setup(fill=0.05))
        self.assertEqual(len(ran.spells), 1)
        self.assertAlmostEqual(ran.dry_s, 2.0, delta=0.03)
        self.assertEqual(kernel.MOST_SPELLS, 4096)


class Refilling(TestCase):
    """Whether a surge tank keeps up."""

    def test_full_again_before_the_next_dip(self) -> None:
        """Three dips: the first leaves it full again, the second doesn't; without a surge tank nothing is said."""
        run = slosh_run(
            tank_of(box(300, 300, 100), pickup(150, 150)),
            still("still", 8.0),
            Setup(fill=0.5),
        )
        depths = np.array([[5.0, -1, -1, 3, 4, -2, 3, -1, 2]]).T
        surge = np.array([1.0, 1.0, 0.7, 0.9, 1.0, 1.0, 0.6, 0.8, 1.0])
        seen = refill(replace(run, times_s=np.arange(9.0), depths_mm=depths, surge_l=surge), 1.0)
        self.assertEqual(seen, Refill(0.6, 6.0, 8.0, dips=3, not_full=1))
        self.assertIsNone(refill(run, 0.0))

    def test_a_weak_lift_pump_falls_behind(self) -> None:
        """One corner after another: with little over it never fills up again, with plenty it does every time."""
        corners = log_of(Manoeuvre(kind="corner to the left", g=0.9, seconds=4, again=4))
        tank = tank_of(box(600, 400, 300), pickup(300, 200))
        ran = {lift: slosh_run(tank, corners, Setup(0.1, 120.0, surge_l=1.0, lift_l_per_h=lift)) for lift in (125, 900)}
        weak, strong = (refill(run, 1.0) for run in ran.values())
        assert weak is not None and strong is not None
        self.assertGreaterEqual(strong.dips, 4)
        self.assertEqual((strong.not_full, strong.full_again_s is not None), (0, True))
        self.assertGreater(weak.not_full, 2)


LONG = ("box", "wedge", "step", "saddle", "D", "lying", "standing")


def long_shell(kind: str, long: float, wide: float, high: float) -> AnyShell:
    """A shell of a kind that fuel runs far in."""
    match kind:
        case "box":
            return box(long, wide, high)
        case "wedge":
            return profile([(0, 0), (long, 0), (long, high / 2), (0, high)], wide, 2.0, shape="wedge")
        case "step":
            outline = [(0, 0), (long / 2, 0), (long / 2, high / 3), (long, high / 3), (long, high), (0, high)]
            return profile(outline, wide, 2.0, shape="step")
        case "saddle":
            a, b, up = wide * 0.35, wide * 0.65, high * 0.4
            outline = [(0, 0), (a, 0), (a, up), (b, up), (b, 0), (wide, 0), (wide, high), (0, high)]
            return profile(outline, long, 2.0, "x", shape="saddle")
        case "D":
            corners = [Corner(across_mm=0, up_mm=0), Corner(across_mm=wide, up_mm=0, bow_mm=high / 4)]
            corners += [Corner(across_mm=wide, up_mm=high), Corner(across_mm=0, up_mm=high)]
            return profile([], long, 2.0, "x", shape="D", corners=tuple(corners))
        case "lying":
            return CylinderShell(axis="x", diameter_mm=high * 1.5, run_mm=long, thickness_mm=2.0)
    return CylinderShell(axis="z", diameter_mm=wide, run_mm=high, thickness_mm=2.0)


class InsideJudged(TestCase):
    """Free runs, clear areas, shut compartments, and the array that is offered."""

    def judged(self, *features: Baffle, ports: tuple[Port, ...] = ()) -> dict[str, Finding]:
        """Findings of a 700 × 400 × 300 tank by code."""
        shell = box(700, 400, 300, thickness_mm=4.0, features=features)
        return {f.code: f for f in evaluate(Design(shell=shell, ports=ports)).findings}

    def test_the_fewest_plates_are_offered(self) -> None:
        """A long tank is remarked on; the offered plates keep the rule and miss the hanger."""
        hanger = Port(id="h", name="hanger", x_mm=350, y_mm=200, hangs_mm=200, hangs_across_mm=90)
        found = self.judged(ports=(hanger,))["inside.free_run"]
        self.assertIn("692 mm lengthwise", found.title.plain())
        (remedy,) = found.remedies
        plates = [f for f in remedy.patch["shell"]["features"] if f["kind"] == "baffle"]
        self.assertLessEqual(len(plates), 4)
        for plate in plates:
            self.assertGreaterEqual(abs(plate["at_mm"] - (350 if plate["axis"] == "x" else 200)), 60)
        filler = Port(id="f", name="filler", role="filler", x_mm=250, y_mm=90, seat=Seat(hole_mm=60, outer_mm=110))
        beside = self.judged(ports=(filler,))["inside.free_run"].remedies[0].patch["shell"]["features"]
        welded = self.judged(*(Baffle.model_validate(plate) for plate in beside), ports=(filler,))
        self.assertFalse({"port.seam", "inside.free_run"} & set(welded))
        settled = self.judged(*(Baffle.model_validate(plate) for plate in plates), ports=(hanger,))
        self.assertFalse({"baffle.tight", "inside.free_run", "port.meets"} & set(settled))
        bare = self.judged()["inside.free_run"].remedies[0]
        self.assertEqual([plate["axis"] for plate in bare.patch["shell"]["features"]], ["x", "y"])

    @settings(max_examples=25, deadline=None)
    @given(st.sampled_from(LONG), st.integers(500, 1100), st.integers(300, 700), st.integers(200, 340))
    @example("standing", 500, 586, 200)
    def test_an_offered_array_keeps_the_rules(self, kind: str, long: int, wide: int, high: int) -> None:
        """In any kind of shell: runs within the rule, plates opened within it, nothing shut or off a plate."""
        shell = long_shell(kind, float(long), float(wide), float(high))
        plates = suggested_array(Design(shell=shell), build(shell), HouseRules())
        made = Design(shell=shell.model_copy(update={"features": tuple(plates)}))
        found = {f.code for f in evaluate(made, None, Showing(remedies=False)).findings}
        self.assertFalse({"inside.free_run", "baffle.open", "baffle.tight", "baffle.misses"} & found)
        # The high end of a wedge is where its vent goes, the low one of a step its pickup, and there is none here.
        self.assertTrue("inside.shut" not in found or kind in ("wedge", "step"))

    def test_where_nothing_is_clear_it_says_so(self) -> None:
        """A pump as wide as the rule's run in the middle: even plates are offered, named as in its way."""
        pump = Port(id="h", name="pump", role="pickup", x_mm=350, y_mm=200, hangs_mm=200, hangs_across_mm=380)
        (remedy,) = self.judged(ports=(pump,))["inside.free_run"].remedies
        self.assertIn("something has to move", remedy.label.plain())
        self.assertIn("pump meets", " ".join(words.plain() for words in remedy.raises))

    def test_an_array_counts_the_walls_that_stand(self) -> None:
        """Two cells 340 long want no plate across, one of 400 wants one in its middle."""
        for at, wanted in ((341.0, []), (280.0, [480.0])):
            shell = box(680, 300, 300, thickness_mm=2.0, features=(Partition(id="p", name="p", at_mm=at),))
            plates = suggested_array(Design(shell=shell), build(shell), HouseRules())
            self.assertEqual([plate.at_mm for plate in plates if plate.axis == "x"], wanted)

    def test_plates_over_a_tunnel_part_what_runs_over_it(self) -> None:
        """With one plate across, each end of a saddle has its own way over the hump, as wide as that end."""
        outline = [(0, 0), (300, 0), (300, 150), (500, 150), (500, 0), (800, 0), (800, 320), (0, 320)]
        plate = Baffle(id="b", name="b", axis="x", at_mm=300, thickness_mm=2.0)
        solids = build(profile(outline, 800.0, 2.0, "x", shape="saddle", features=(plate,)))
        rooms, openings = compartments(solids)
        over = [o for o in openings if o.hump]
        self.assertEqual(len(rooms), 4)
        self.assertEqual([np.ptp(o.ring[:, 0]).round(2) for o in over], [298.0, 496.0])
        self.assertEqual({frozenset((o.first, o.second)) for o in over}, {frozenset((0, 1)), frozenset((2, 3))})

    def test_too_open_too_tight_and_shut(self) -> None:
        """By clear area; and a compartment that only opens at mid-height keeps air and fuel."""

        def plate(**more: object) -> Baffle:
            named = {"id": "b", "name": "b", "axis": "x", "at_mm": 350}
            return Baffle.model_validate(named | more)

        self.assertIn("baffle.open", self.judged(plate(corner_mm=120)))
        self.assertIn("baffle.tight", self.judged(plate(corner_mm=20)))
        sound = self.judged(plate(corner_mm=80))
        self.assertFalse({"baffle.open", "baffle.tight", "inside.shut"} & set(sound))
        mid = self.judged(plate(corner_mm=0, holes=[{"at_mm": 100, "up_mm": 150, "diameter_mm": 80, "count": 2}]))
        self.assertIn("air and fuel", mid["inside.shut"].title.plain())
