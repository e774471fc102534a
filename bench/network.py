"""How long a network of pipes takes to settle in all its modes, beside a general root finder on the same equations.

python bench/network.py
"""

import statistics
import sys
import time
from dataclasses import replace
from functools import partial
from pathlib import Path

import numpy as np
from numpy.typing import NDArray
from scipy.optimize import root

sys.path.insert(0, str(Path(__file__).resolve().parent.parent))

from keel.network.elements import BypassRegulator, DeadHeadRegulator, Element, Fuel, Pump
from keel.network.solve import LEAKS, Equations, Network, settle
from keel.tests.test_network import Thrown

MODES, PARTS, STRETCHES = 8, 40, 12
COUNT = 40


def large(first: int) -> list[Network]:
    """Networks of about so many parts, in eight modes."""
    found, seed = list[Network](), first
    while len(found) < COUNT:
        seed += 1
        network = Thrown(seed, MODES, STRETCHES).network()
        if 0.95 * PARTS <= len(network.elements) <= 1.05 * PARTS:
            found.append(network)
    return found


def one_mode(network: Network, mode: int) -> Network:
    """The same in one of its modes."""
    # A general root finder knows no modes: it is given one after the other.
    fuel = Fuel(network.fuel.density[mode : mode + 1], network.fuel.viscosity[mode : mode + 1])
    held = {name: kpa[mode : mode + 1] for name, kpa in network.held_kpa.items()}
    drawn = {name: lph[mode : mode + 1] for name, lph in network.drawn_lph.items()}
    return Network([in_mode(one, mode) for one in network.elements], held, drawn, fuel)


def in_mode(one: Element, mode: int) -> Element:
    """An element's figures of one mode."""
    if isinstance(one, Pump):
        return replace(one, curves=[one.curves[mode]])
    if isinstance(one, BypassRegulator | DeadHeadRegulator):
        return replace(one, reference_kpa=one.reference_kpa[mode : mode + 1])
    return one


def left_of(equations: Equations, at: NDArray[np.float64]) -> NDArray[np.float64]:
    """What is left of every equation."""
    left: NDArray[np.float64] = equations.left(at[None], equations.found(at[None], LEAKS[-1]))[0]
    return left


def by_root(network: Network) -> tuple[float, int]:
    """Seconds of a general root finder over all modes, and in how many it settles."""
    start, settled = time.perf_counter(), 0
    for mode in range(MODES):
        equations = Equations(one_mode(network, mode))
        found = root(partial(left_of, equations), np.ones(equations.count), method="hybr")
        settled += bool(found.success)
    return time.perf_counter() - start, settled


def main() -> None:
    """Measure and print."""
    networks = large(0)
    settle(networks[0])
    ours, others, settled, found = [], [], 0, 0
    for network in networks:
        start = time.perf_counter()
        answer = settle(network)
        ours.append(time.perf_counter() - start)
        found += int(answer.is_settled.sum())
        seconds, good = by_root(network)
        others.append(seconds)
        settled += good
    parts = statistics.mean(len(network.elements) for network in networks)
    took, other = statistics.median(ours), statistics.median(others)
    print(f"{parts:.0f} parts, {MODES} modes: {took * 1e3:.1f} ms (limit 100), {found} of {COUNT * MODES} settle")
    print(f"  alternative: a general root finder takes {other / took:.1f} x as long, {settled} of them settle")


if __name__ == "__main__":
    main()
