"""How long a table of levels takes: the exact method against trimming and bisecting with a solid modeller.

    python bench/hydrostatics.py

A shell of about 200 faces; 72 directions all round at half a g, 41 fills; the level for each fill. The
alternative, in the same run: bisect on the level, each time trimming the solid by the plane and taking the
trimmed mesh's volume, until the level is known to 1e-4 mm. It is run on a sample of the same questions, and
its time is scaled up; the levels of the sample are compared.
"""

import sys
import time
from pathlib import Path

import numpy as np

sys.path.insert(0, str(Path(__file__).resolve().parent.parent))

from keel.design.features import Relief, Sump, Well
from keel.design.shell import BoxShell
from keel.solid.build import build
from keel.solid.polyhedron import Waterline

DIRECTIONS, FILLS, SAMPLE = 72, 41, 60
WITHIN_MM = 1e-4


def shell() -> BoxShell:
    """A box with bent corners, wells, a sump and reliefs."""
    wells = tuple(
        Well(
            id=f"w{n}",
            name=f"w{n}",
            a_mm=60 + 170 * n,
            b_mm=90,
            long_mm=90,
            wide_mm=110,
            deep_mm=40 + 9 * n,
            slope_mm=8,
        )
        for n in range(5)
    )
    sump = Sump(id="s", name="s", a_mm=60, b_mm=120, long_mm=160, wide_mm=140, deep_mm=50)
    cut = Relief(id="r", name="r", x_mm=-10, y_mm=330, z_mm=-10, length_mm=960, width_mm=100, height_mm=90)
    return BoxShell(length_mm=940, width_mm=420, height_mm=360, bend_radius_mm=5, features=(*wells, sump, cut))


def directions() -> list[np.ndarray]:
    """Upward against the force felt in 72 steady turns all round at half a g."""
    turns = 2 * np.pi * np.arange(DIRECTIONS) / DIRECTIONS
    return [np.array([0.5 * np.cos(t), 0.5 * np.sin(t), 1.0]) for t in turns]


def trimmed_level(line: Waterline, solid: object, volume: float) -> float:
    """The level by trimming and bisecting."""
    low, high = 0.0, line.depth
    while high - low > WITHIN_MM:
        middle = (low + high) / 2
        trimmed = solid.trim_by_plane(list(-line.up), -(line.lowest + middle))  # type: ignore[attr-defined]
        low, high = (low, middle) if trimmed.volume() > volume else (middle, high)
    return (low + high) / 2


def main() -> None:
    """Measure and print."""
    cell = build(shell()).cells[0]
    volumes = cell.mesh.volume_mm3 * np.arange(FILLS) / (FILLS - 1)
    ways = directions()
    Waterline(cell.mesh, ways[0]).levels(volumes)
    start = time.perf_counter()
    table = [Waterline(cell.mesh, way).levels(volumes) for way in ways]
    exact = time.perf_counter() - start

    chance = np.random.default_rng(4)
    asked = [
        (int(d), int(f))
        for d, f in zip(chance.integers(0, DIRECTIONS, SAMPLE), chance.integers(1, FILLS - 1, SAMPLE), strict=True)
    ]
    lines = {d: Waterline(cell.mesh, ways[d]) for d, _ in asked}
    start = time.perf_counter()
    found = [trimmed_level(lines[d], cell.solid, volumes[f]) for d, f in asked]
    trimming = (time.perf_counter() - start) / SAMPLE * DIRECTIONS * FILLS
    apart = max(abs(level - table[d][f]) for (d, f), level in zip(asked, found, strict=True))

    print(f"shell of {len(cell.mesh.triangles)} triangles, {DIRECTIONS} directions x {FILLS} fills")
    print(f"exact method         {exact:8.3f} s for all {DIRECTIONS * FILLS} levels")
    print(f"trim and bisect      {trimming:8.1f} s, from {SAMPLE} of them, to {WITHIN_MM:g} mm")
    print(f"ratio                {trimming / exact:8.0f} x, levels apart by {apart:.1e} mm at most")


if __name__ == "__main__":
    main()
