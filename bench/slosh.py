"""How long a slosh run takes: the compiled run against the same equations through scipy's LSODA, in the same run.

    python bench/slosh.py              20 minutes at 50 Hz on a tank of nine compartments

The alternative integrates the quasi-static equations (no lag) with solve_ivp, LSODA, rtol 1e-6, the right-hand side
made of the same compiled sums; both start and draw alike, and both are asked for the dry time.
"""

import sys
import time
from dataclasses import replace
from pathlib import Path
from typing import Any

import numpy as np
from scipy.integrate import solve_ivp

sys.path.insert(0, str(Path(__file__).resolve().parent.parent))

from keel.design.features import Baffle, Notch
from keel.design.ports import Port
from keel.design.shell import BoxShell
from keel.design.slosh import LAPS
from keel.reference.units import MM3_PER_LITRE
from keel.solid.build import build
from keel.studies.slosh import kernel
from keel.studies.slosh.log import Log
from keel.studies.slosh.manoeuvres import demo_lap
from keel.studies.slosh.model import SECONDS_PER_HOUR, Setup, SloshTank, slosh_tank
from keel.studies.slosh.opening_flows import high, opening_flows
from keel.studies.slosh.run import STEP_S, Ran, slosh_run
from keel.studies.slosh.standing import stand
from keel.studies.slosh.state import State
from keel.studies.slosh.surfaces import view_of

PER_SECOND = MM3_PER_LITRE / SECONDS_PER_HOUR
SETUP = Setup(fill=0.2, draw_l_per_h=60.0, lag=False)


def nine() -> SloshTank:
    """A box with two baffles each way: nine compartments, open corners and a notch in every bay."""
    across = [
        Baffle(
            id=f"x{n}",
            name=f"x{n}",
            axis="x",
            at_mm=300.0 * n,
            notches=tuple(Notch(at_mm=v, wide_mm=60, high_mm=25) for v in (100, 300, 500)),
        )
        for n in (1, 2)
    ]
    along = [
        Baffle(
            id=f"y{n}",
            name=f"y{n}",
            axis="y",
            at_mm=200.0 * n,
            notches=tuple(Notch(at_mm=v, wide_mm=60, high_mm=25) for v in (150, 450, 750)),
        )
        for n in (1, 2)
    ]
    shell = BoxShell(length_mm=900, width_mm=600, height_mm=300, thickness_mm=2, features=(*across, *along))
    tank = slosh_tank(build(shell), [Port(id="p", name="p", role="pickup", x_mm=450, y_mm=300)])
    assert tank is not None
    return tank


def through_scipy(tank: SloshTank, log: Log, setup: Setup) -> tuple[float, float]:
    """Seconds it took, and the dry seconds: the same right-hand side, integrated by LSODA."""
    rooms, ways, feeds = tank.packed, tank.ways, tank.feeds(setup)
    count, specific_force, times = len(rooms.capacity), log.specific_force, log.times_s
    view, centre = view_of(rooms), np.empty((1, 3))
    state = State(
        np.zeros(count), np.zeros((count, 3)), np.ones(count), np.zeros(count), np.ones(count),
        np.zeros((count, 2)), np.zeros((count, 2)), np.arange(count), np.zeros(1), np.zeros(5),
    )  # fmt: skip
    draw = setup.draw_l_per_h * PER_SECOND
    flows = np.empty(len(ways.doors))

    def rate(t: float, volumes: np.ndarray) -> np.ndarray:
        state.volumes[:] = np.clip(volumes[:count], 0, rooms.capacity)
        target = np.array([np.interp(t, times, specific_force[:, i]) for i in range(3)])
        kernel.swing(rooms, state, target, 0.05, False, 0.0)
        stand(rooms, ways, state, view)
        change = np.zeros(count + 1)
        opening_flows(ways, state, 0.0, flows, centre)
        np.subtract.at(change, ways.sides[:, 0], flows)
        np.add.at(change, ways.sides[:, 1], flows)
        wanted = draw * np.interp(t, times, log.throttle_fraction)
        i = feeds.pickup_in[0]
        if state.levels[i] > high(feeds.pickups, 0, state.ups, i) and state.volumes[i] > 0:
            change[i] -= wanted
        else:
            change[count] = 1.0
        return change

    start = time.perf_counter()
    begin = np.append(tank.level(setup.fill), 0.0)
    # Dry time is the last of the sums: it is held to a tenth of a millisecond, volumes to a mm³.
    within = np.append(np.full(count, 1.0), 1e-4)
    end = float(times[-1])
    answer: Any = solve_ivp(rate, (0.0, end), begin, method="LSODA", rtol=1e-6, atol=within, max_step=0.05)
    return time.perf_counter() - start, float(answer.y[count, -1])


def timed(tank: SloshTank, log: Log, setup: Setup, step: float = STEP_S) -> tuple[float, Ran]:
    """Seconds and the run."""
    start = time.perf_counter()
    ran = slosh_run(tank, log, setup, step)
    return time.perf_counter() - start, ran


def main() -> None:
    """Measure and print."""
    tank = nine()
    lap = demo_lap(LAPS[1])
    long = lap.repeated(round(1200 / (len(lap.times_s) * lap.dt_s)))
    slosh_run(tank, demo_lap(LAPS[0]), SETUP)
    triangles = int(tank.packed.triangle_at[-1])
    print(f"{len(tank.rooms)} compartments, {len(tank.openings)} openings, {triangles} triangles")
    for name, setup in (("no lag", SETUP), ("with lag", replace(SETUP, lag=True))):
        taken, ran = timed(tank, long, setup)
        lost = abs(ran.held_l[0].sum() - ran.held_l[-1].sum() - ran.used_l) / ran.held_l[0].sum()
        print(f"20 min at 50 Hz, {name:9} {taken:7.2f} s   dry {ran.dry_s:8.2f} s   mass off by {lost:.1e} of the fill")
    short = demo_lap(LAPS[0])
    taken, ran = min((timed(tank, short, SETUP) for _ in range(3)), key=lambda result: result[0])
    theirs, dry = min(through_scipy(tank, short, SETUP) for _ in range(3))
    print(f"62 s: compiled {taken:.3f} s, dry {ran.dry_s:.3f} s; LSODA {theirs:.1f} s, dry {dry:.3f} s")
    off, spells = abs(dry - ran.dry_s), len(ran.spells)
    print(f"the compiled run is {theirs / taken:.0f} x faster (best of three each); ", end="")
    print(f"dry time differs by {off / dry:.2%}, {off * 1e3:.0f} ms in all over {spells} spells")
    print("convergence with the step, the same lap:")
    for step in (0.02, 0.01, 0.005, 0.0025, 0.00125):
        taken, ran = timed(tank, short, SETUP, step)
        print(f"  {step * 1e3:6.2f} ms  dry {ran.dry_s:8.4f} s  {taken:.3f} s")


if __name__ == "__main__":
    main()
