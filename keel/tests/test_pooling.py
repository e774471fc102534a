"""Pools as pools in the slosh run and the starvation map: held still, a run ends where the pools say."""

import random
from collections.abc import Iterator
from dataclasses import replace
from unittest import TestCase

import numpy as np

from keel.design.attitude import Attitude, specific_force
from keel.design.features import Baffle, Door, Feature, Relief, Sump
from keel.design.inside import Foam, Inside
from keel.design.ports import Port
from keel.design.shell import BoxShell
from keel.solid.build import build
from keel.solid.faults import GeometryError
from keel.solid.interior import solids_of
from keel.solid.solids import Solids
from keel.studies.liquid.draining import drained
from keel.studies.slosh.log import Log, still
from keel.studies.slosh.model import Setup, SloshTank, slosh_tank
from keel.studies.slosh.run import slosh_run
from keel.studies.slosh.starvation import lowest_fill, starvation_map
from keel.tests.samples import PILOT, SADDLE, STEP, box, design, profile, well

DRAW_L_PER_H = 900.0


def inlet(x: float, y: float, z: float | None = None) -> Port:
    """A pickup."""
    return Port(id="p", name="pickup", role="pickup", x_mm=x, y_mm=y, z_mm=z)


def held(attitude: Attitude, seconds: float) -> Log:
    """An attitude held for a while."""
    log, force = still("held", seconds), specific_force(attitude)
    ahead, left, up = (np.full(len(log.throttle_fraction), -value) for value in force)
    return replace(log, forward_g=ahead, left_g=left, up_g=up - 1)


def drawn_dry(solids: Solids, port: Port, attitude: Attitude) -> tuple[SloshTank, float] | None:
    """The tank, and what is left in it once a brimful one, held so, gives no more [L]."""
    tank = slosh_tank(solids, [port])
    if tank is None:
        return None
    log = held(attitude, 1.2 * 3600 * solids.brimful_l / DRAW_L_PER_H)
    ran = slosh_run(tank, log, Setup(fill=1.0, draw_l_per_h=DRAW_L_PER_H, lag=False), step_s=0.02)
    return tank, float(ran.held_l[-1].sum())


Place = tuple[float, float]


def outlined(kind: str, long: float, wide: float, high: float, rng: random.Random) -> tuple[list[Place], str, Place]:
    """A section with low places, which axis it runs along, and where in it the inlet sits."""
    a, b, up, aside = rng.uniform(0.2, 0.4), rng.uniform(0.55, 0.8), high * rng.uniform(0.2, 0.5), rng.uniform(0.2, 0.8)
    lid, middle = [(long, high), (0.0, high)], wide * rng.uniform(0.2, 0.8)
    step = [(0.0, 0.0), (a * long, 0.0), (a * long, up)]
    if kind == "step":
        return [*step, (long, up), *lid], "y", (a * long * aside, middle)
    if kind == "two steps":
        return [*step, (b * long, up), (b * long, 1.5 * up), (long, 1.5 * up), *lid], "y", (a * long * aside, middle)
    if kind == "slanting":
        hump = [(a * long, 0.0), (a * long + 30, up), (b * long, up), (b * long + 40, 0.0), (long, high * 0.1)]
        return [(0.0, 0.0), *hump, *lid], "y", (a * long * aside, middle)
    hump = [(a * wide, 0.0), (a * wide, up), (b * wide, up), (b * wide, 0.0), (wide, 0.0)]
    return [(0.0, 0.0), *hump, (wide, high), (0.0, high)], "x", (middle / wide * long, a * wide * aside)


def boxed(kind: str, long: float, wide: float, high: float, rng: random.Random) -> tuple[Feature, Place]:
    """What a box is given, and where its inlet sits."""
    if kind == "sump":
        x, y = long * rng.uniform(0.1, 0.5), wide * rng.uniform(0.1, 0.5)
        size = {"a_mm": x, "b_mm": y, "long_mm": 120.0, "wide_mm": 100.0, "deep_mm": rng.randint(3, 9) * 10.0}
        form = rng.choice(["box", "round"])
        return Sump.model_validate({"id": "s", "name": "sump", "form": form, **size}), (x + 50, y + 50)
    low = (long * rng.uniform(-0.1, 0.5), wide * rng.uniform(-0.2, 0.6), rng.choice([0.0, 0.3 * high]))
    size = {"x_mm": low[0], "y_mm": low[1], "z_mm": low[2], "length_mm": 0.4 * long, "width_mm": 0.4 * wide}
    place = long * rng.uniform(0.2, 0.8), wide * rng.uniform(0.2, 0.8)
    return Relief(id="r", name="relief", height_mm=0.35 * high, **size), place


def tanks(count: int, seed: int) -> Iterator[tuple[Solids, Port, Attitude]]:
    """Steps, saddles, sumps, reliefs, wells and baffles of random sizes, each in a random attitude."""
    rng = random.Random(seed)
    while count:
        kind = rng.choice(["step", "two steps", "saddle", "slanting", "sump", "relief"])
        long, wide, high = rng.randint(40, 100) * 10.0, rng.randint(30, 70) * 10.0, rng.randint(22, 45) * 10.0
        features = list[Feature]()
        if rng.random() < 0.4:
            features.append(well(long * 0.3, wide * 0.3, 0.3 * long, 0.3 * wide, 0.25 * high))
        if rng.random() < 0.4:
            at_mm = float(round(min(long, wide) * rng.uniform(0.3, 0.7)))
            features.append(Baffle(id="b", name="baffle", axis=rng.choice(["x", "y"]), at_mm=at_mm))
        if kind in ("sump", "relief"):
            given, place = boxed(kind, long, wide, high, rng)
            shell = box(long, wide, high, thickness_mm=2.0, features=(given, *features))
        else:
            outline, axis, place = outlined(kind, long, wide, high, rng)
            shell = profile(outline, wide if axis == "y" else long, 2.0, axis, features=tuple(features))
        push = {"forward_g": rng.uniform(-1.2, 1.2), "left_g": rng.uniform(-1.2, 1.2)}
        attitude = Attitude(pitch_deg=rng.uniform(-20, 20), **push)
        try:
            solids = build(shell)
        except GeometryError:
            continue
        yield solids, inlet(*place), attitude if rng.random() < 0.8 else Attitude()
        count -= 1


class EndOfARun(TestCase):
    """Held still, a run ends where the pools of the drained tank lie."""

    def test_a_ledge_keeps_its_fuel_in_braking(self) -> None:
        """Under 0.6 g the step tank gives all but 26.46 L, 26.14 of it behind the step; at 30 L hardly any is left."""
        braking = Attitude(forward_g=-5.88399 / 9.80665)
        dry = drawn_dry(build(STEP), inlet(440, 250, 7), braking)
        assert dry is not None
        self.assertAlmostEqual(dry[1], 26.4619472, delta=0.002 * 26.46)
        tank = dry[0]
        fill = 30 / 137.935616
        ran = slosh_run(tank, held(braking, 1200), Setup(fill=fill, draw_l_per_h=30.0, lag=False))
        self.assertAlmostEqual(ran.used_l, 7.8, delta=0.1)

    def test_eighty_tanks(self) -> None:
        """Of random shape in random attitudes: within a hundredth of the tank, the run never the lower by more."""
        tried = 0
        for solids, port, attitude in tanks(80, 7):
            dry = drawn_dry(solids, port, attitude)
            if dry is None:
                continue
            left = sum(
                cell.brimful_l if cell.stranded_l is None else cell.stranded_l
                for cell in drained(solids, [port], attitude)
            )
            self.assertLess(abs(dry[1] - left), 0.01 * solids.brimful_l, (solids.shell, attitude))
            self.assertGreater(dry[1] - left, -0.003 * solids.brimful_l, (solids.shell, attitude))
            self.assertLess(dry[0].basins.left_mm3, 0.001 * solids.brimful_l * 1e6)
            tried += 1
        self.assertGreater(tried, 75)

    def test_parted_no_more_than_it_takes(self) -> None:
        """A box with a well is one piece, a step two, a saddle three, a sump one more; nothing is lost."""
        plain = box(600, 400, 300, features=(well(100, 100, 200, 150, 90),))
        sump = Sump(id="s", name="sump", a_mm=200, b_mm=150, long_mm=120, wide_mm=100, deep_mm=50)
        for shell, count in ((plain, 1), (STEP, 2), (SADDLE, 3), (box(600, 400, 300, features=(sump,)), 2), (PILOT, 3)):
            solids = build(shell)
            made = slosh_tank(solids, [inlet(170, 250)])
            assert made is not None
            self.assertEqual(len(made.rooms), count)
            self.assertAlmostEqual(sum(r.mesh.volume_mm3 for r in made.rooms) / 1e6, solids.brimful_l, places=4)

    def test_the_lowest_fill_counts_no_fuel_behind_a_step(self) -> None:
        """A long braking that draws 10 L wants what the ledge holds on top of it: 26.5 L."""
        tank = slosh_tank(build(STEP), [inlet(440, 250, 7)])
        assert tank is not None
        log = held(Attitude(forward_g=-0.6), 600)
        fill = lowest_fill(tank, log, Setup(draw_l_per_h=60.0, lag=False))
        assert fill is not None
        self.assertAlmostEqual(fill * 137.9, 36.5, delta=0.5)


class SlowlyPushed(TestCase):
    """The starvation map keeps pools apart."""

    def map_at(self, shell: BoxShell, port: Port, degrees: float, fill: float, most: float = 4.0) -> float | None:
        """The g that uncovers it in a direction, at the nearest fill of the map."""
        tank = slosh_tank(build(shell), [port])
        assert tank is not None
        found = starvation_map(tank, most)
        column = int(np.argmin(np.abs(np.array(found.fills) - fill)))
        return found.g[found.directions_deg.index(degrees)][column]

    def test_worked_figures(self) -> None:
        """A box in a left turn: by hand; beyond the rule's largest push there is no answer."""
        shell, port = box(600, 450, 300), inlet(300, 225, 8)
        for fill, g in ((0.15, 0.748872179), (0.25, 1.27888263), (0.4, 3.1981982)):
            found = self.map_at(shell, port, 90.0, fill)
            assert found is not None
            self.assertAlmostEqual(found, g, delta=1e-4 * g)
        self.assertIsNone(self.map_at(shell, port, 90.0, 0.4, most=3.0))

    def test_a_sump_stays_full_to_its_rim(self) -> None:
        """60 mm deep, 120 long: the wedge that an inlet in its middle needs is gone at a lean of its own, not before.

        The sump's fuel turns about the rim's low edge: the inlet, 40 mm below the rim and 60 mm from it, comes out
        when the surface through that edge falls to it: at 40/60 g, however little lies on the floor.
        """
        sump = Sump(id="s", name="sump", a_mm=240, b_mm=150, long_mm=124, wide_mm=100, deep_mm=60)
        shell = box(600, 400, 300, thickness_mm=2.0, features=(sump,))
        found = self.map_at(shell, inlet(302, 200, -38), 0.0, 0.025)
        assert found is not None
        self.assertAlmostEqual(found, 40 / 60, delta=0.02)

    def test_what_ran_over_a_step_is_gone(self) -> None:
        """In braking the step tank's inlet is dry as soon as the run's end says, not when one plane through all is."""
        tank = slosh_tank(build(STEP), [inlet(440, 250, 7)])
        assert tank is not None
        found = starvation_map(tank)
        column, row = found.fills.index(0.2), found.directions_deg.index(180.0)
        g = found.g[row][column]
        assert g is not None
        for share, wet in ((0.97, True), (1.03, False)):
            log = held(Attitude(forward_g=0.0), 240)
            ramp = np.minimum(1.0, log.times_s / 200.0)
            ran = slosh_run(
                tank, replace(log, forward_g=-g * share * ramp), Setup(fill=0.2, draw_l_per_h=1e-6, lag=False)
            )
            self.assertEqual(bool(ran.depths_mm[-1, 0] > 0), wet)

    def test_doors_keep_it(self) -> None:
        """Flaps that open towards the pickup hold it longer than holes do in the push that drains it."""

        def g(opens: str | None) -> float:
            size = {"at_mm": 200.0, "wide_mm": 80.0, "high_mm": 40.0}
            door = () if opens is None else (Door.model_validate(size | {"opens": opens}),)
            notch = ({"at_mm": 200.0, "wide_mm": 80.0, "high_mm": 40.0},) if opens is None else ()
            plate = {
                "id": "b",
                "name": "b",
                "axis": "y",
                "at_mm": 200.0,
                "corner_mm": 0,
                "doors": door,
                "notches": notch,
            }
            shell = box(400, 400, 200, thickness_mm=2.0, features=(Baffle.model_validate(plate),))
            return self.map_at(shell, inlet(200, 230, 10), 90.0, 0.3) or 4.0

        self.assertGreater(g("ahead"), 1.5 * g(None))
        self.assertAlmostEqual(g("back"), g(None), delta=0.05)

    def test_foam_changes_no_level(self) -> None:
        """At the same share of brimful the same push uncovers it, foam or none."""
        port = inlet(300, 200, 10)
        shell = box(600, 400, 300)
        maps = []
        for inside in (Inside(), Inside(foam=Foam(takes=0.2))):
            tank = slosh_tank(solids_of(design(shell, inside=inside)), [port])
            assert tank is not None
            maps.append(np.array([[9.0 if v is None else v for v in row] for row in starvation_map(tank).g]))
        self.assertLess(np.abs(maps[0] - maps[1]).max(), 1e-3)
