"""What a mount weighs: sheet, tube and bar of it; bolts and pads are left out."""

from collections.abc import Iterator, Sequence
from math import pi

from keel.design.mount import Bearer, Mount
from keel.reference.metals import METALS
from keel.studies.mount.straps import StrapPath

MM3_PER_M3 = 1e9
STEEL = METALS["mild steel"].density_kg_per_m3 / MM3_PER_M3
"""Kilograms a cubic millimetre."""
STOP_PLATE_MM = 5.0
"""A stop is a bracket bent of plate so thick."""
FOOT_MM = (60.0, 40.0)
"""A foot or tab is so long and wide."""


def holding_kg(mount: Mount, paths: Sequence[StrapPath]) -> float:
    """What straps, feet, stops, bars and spreading plates weigh.

    Parameters
    ----------
    mount : Mount
        What holds the tank.
    paths : sequence of StrapPath
        Its straps as they lie, in their order.

    Returns
    -------
    float
        Without bolts and pads [kg]. All but straps counts as steel; a stop is a bracket of 5 mm plate, a foot a plate
        of 60 mm by 40 mm.
    """
    straps = sum(
        path.cut_mm * strap.width_mm * strap.thickness_mm * METALS[strap.metal].density_kg_per_m3 / MM3_PER_M3
        for strap, path in zip(mount.straps, paths, strict=True)
        if not path.problem
    )
    return straps + sum(_steel_mm3(mount)) * STEEL


def _steel_mm3(mount: Mount) -> Iterator[float]:
    for place in mount.bolted():
        plate = place.structure.plate
        if plate is not None:
            yield plate.long_mm * plate.wide_mm * plate.thickness_mm
    yield from (FOOT_MM[0] * FOOT_MM[1] * foot.foot_mm for foot in mount.feet)
    yield from (stop.wide_mm * (2 * stop.arm_mm + stop.base_mm) * STOP_PLATE_MM for stop in mount.stops)
    yield from (_section_mm2(bar) * (bar.high_mm - bar.low_mm) for bar in mount.bearers)


def _section_mm2(bar: Bearer) -> float:
    inside = max(0.0, bar.outer_mm - 2 * bar.wall_mm)
    if bar.shape == "flat bar":
        return bar.outer_mm * bar.wall_mm
    return (bar.outer_mm**2 - inside**2) * (pi / 4 if bar.shape == "round tube" else 1.0)
