"""How long the mount's figures take, and the way in: as ratios against an alternative in the same run.

    python bench/mount.py

A strap's path by tangents and hull, against the convex hull of an outline padded with fine rounds; the load cases;
boxes round the corner of two corridors, found by search, against their closed form.
"""

import json
import statistics
import sys
import time
from collections.abc import Callable
from pathlib import Path
from typing import Any

sys.path.insert(0, str(Path(__file__).resolve().parent.parent))

import numpy as np
from shapely import MultiPoint, box

from keel.analysis.parts import BAY, ENVELOPE, SOLIDS
from keel.analysis.tank import Asked, TankAnalysis
from keel.design.workshop import Workshop
from keel.formats.document import read_design
from keel.solid.taut import NoBandError, band_over
from keel.solid.tilting.corner import Corner
from keel.solid.tilting.scene import rectangle
from keel.solid.tilting.search import Search
from keel.studies.mount.bearers import bearer_places
from keel.studies.mount.full_mass import FULL_MASS
from keel.studies.mount.loads import mount_loads
from keel.studies.mount.stop_places import stop_places
from keel.studies.mount.straps import STRAPS, strap_paths
from keel.studies.mount.way_in import way_in
from keel.tests.test_straps import hull_length
from keel.warm import warm_answers
from server.demo.tanks.day_tank import DAY_TANK

FAR = 5000.0
EVER = (-1e4, 1e4)


def milliseconds(what: Callable[[], object], times: int) -> float:
    """The median of so many."""
    taken = []
    for _ in range(times):
        start = time.perf_counter()
        what()
        taken.append((time.perf_counter() - start) * 1e3)
    return statistics.median(taken)


def straps() -> None:
    """Two hundred random sections."""
    rng, worst, taken, other, count = np.random.default_rng(7), 0.0, 0.0, 0.0, 0
    while count < 200:
        outline = MultiPoint(rng.uniform(-200, 200, (12, 2))).convex_hull
        pad = float(rng.uniform(0, 12))
        ends = (float(rng.uniform(-450, -210)), float(rng.uniform(-300, 0))), (float(rng.uniform(210, 450)), -100.0)
        start = time.perf_counter()
        try:
            band = band_over(outline, pad, *ends)
        except NoBandError:
            continue
        middle = time.perf_counter()
        wanted = hull_length(outline, pad, *ends)
        if wanted is None:
            continue
        taken, other = taken + middle - start, other + time.perf_counter() - middle
        worst, count = max(worst, abs(band.long_mm - wanted)), count + 1
    print(f"straps: {count} random sections, {worst:.5f} mm off the padded hull, {taken / count * 1e3:.2f} ms each")
    print(f"  alternative: the hull of a finely padded outline takes {other / taken:.1f} x as long")


def load_cases(tank: TankAnalysis) -> None:
    """Six directions, seven mounts."""
    mount, solids, mass = tank.design.mount, tank[SOLIDS], tank[FULL_MASS]
    paths, rules = tank[STRAPS], tank.workshop.rules

    def cases() -> None:
        mount_loads(
            mount, paths, bearer_places(mount.bearers, solids), stop_places(mount.stops, solids), mass, solids, rules
        )

    print(f"load cases: {milliseconds(cases, 40):.2f} ms (limit 50)")
    print(f"  straps' own sections and paths: {milliseconds(lambda: strap_paths(mount.straps, solids), 20):.2f} ms")


def corridors() -> None:
    """Boxes two millimetres longer and shorter than what passes."""
    rng, right, searched, closed = np.random.default_rng(3), 0, 0.0, 0.0
    for _ in range(20):
        first, second = (float(v) for v in rng.uniform(250, 600, 2))
        thick, more = float(rng.uniform(40, 200)), float(rng.choice([-2.0, 2.0]))
        corner = Corner(first, second)
        start = time.perf_counter()
        long = corner.longest_mm(thick)[0] + more
        middle = time.perf_counter()
        passes = _search(first, second, long, thick).found().passes
        searched, closed = searched + time.perf_counter() - middle, closed + middle - start
        right += passes == (more < 0 or corner.slides(long, thick))
    print(f"corridors: {right} of 20 right within 2 mm, {searched / 20 * 1e3:.0f} ms each")
    print(f"  alternative: the closed form, for this one shape, takes {searched / closed:.0f} x less")


def _search(first: float, second: float, long: float, thick: float) -> Search:
    walls = [
        rectangle("a", (-FAR, -FAR), (FAR, 0.0), EVER),
        rectangle("b", (second, -FAR), (FAR, FAR), EVER),
        rectangle("c", (-FAR, first), (0.0, FAR), EVER),
    ]
    middle = (-1500.0, first / 2)
    low, high = ((middle[0] + s * long / 2, middle[1] + s * thick / 2) for s in (-1, 1))
    moving = [rectangle("box", low, high, (0.0, 10.0))]
    return Search(moving, walls, middle, (-2500, -600, 900, 3000), box(-600, 2000, 900, 3000))


def main() -> None:
    """Measure and print."""
    warm_answers()
    document: dict[str, Any] = json.loads(json.dumps(DAY_TANK))
    tank = TankAnalysis(Asked(read_design(json.dumps(document)), Workshop()))
    straps()
    load_cases(tank)
    corridors()
    start = time.perf_counter()
    found = way_in(tank[BAY], tank[ENVELOPE], tank[SOLIDS], {}, tank.design.mount, 3.0)
    assert found is not None
    took, said = time.perf_counter() - start, f"{found.layers} angles, passes {found.passes}"
    print(f"way in of the day tank: {took:.1f} s (limit 20), {said}")


if __name__ == "__main__":
    main()
