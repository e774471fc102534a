"""Designs that several tests start from."""

from typing import Any

from hypothesis import strategies as st

from keel.design.bay import Bay, Clearance, KeepOut
from keel.design.document import Design
from keel.design.shell import BoxShell


def box(length: float = 800, width: float = 400, height: float = 350, **more: Any) -> BoxShell:
    """A box shell, by default the one of the worked figures: 3 mm, sharp corners."""
    return BoxShell(**{"length_mm": length, "width_mm": width, "height_mm": height, "bend_radius_mm": 0.0} | more)


def design(shell: BoxShell | None = None, **more: Any) -> Design:
    """A design with that shell."""
    return Design(shell=shell or box(), **more)


def lengths(low: float, high: float) -> st.SearchStrategy[float]:
    """Lengths to a tenth of a millimetre."""
    return st.integers(int(low * 10), int(high * 10)).map(lambda tenths: tenths / 10)


@st.composite
def shells(draw: st.DrawFn) -> BoxShell:
    """Boxes that can be bent."""
    thickness = draw(st.sampled_from([1.2, 2.0, 3.0, 5.0]))
    return BoxShell(
        length_mm=draw(lengths(80, 1500)),
        width_mm=draw(lengths(80, 1500)),
        height_mm=draw(lengths(80, 900)),
        x_mm=draw(lengths(-50, 300)),
        y_mm=draw(lengths(-50, 300)),
        z_mm=draw(lengths(-50, 300)),
        measured=draw(st.sampled_from(["outside", "inside"])),
        thickness_mm=thickness,
        bend_radius_mm=draw(st.sampled_from([0.0, 1.0, 2.0, 5.0])) * thickness,
        metal=draw(st.sampled_from(["mild steel", "5052-H32", "6061-T6"])),
        wrap_axis=draw(st.sampled_from(["x", "y"])),
    )


@st.composite
def keep_outs(draw: st.DrawFn, name: str) -> KeepOut:
    """Boxes in or about a bay, on a 10 mm grid so that edges often meet."""
    tens = st.integers(-5, 70).map(lambda n: n * 10.0)
    sizes = st.integers(1, 40).map(lambda n: n * 10.0)
    return KeepOut(
        id=name,
        name=name,
        x_mm=draw(tens),
        y_mm=draw(tens),
        z_mm=draw(tens),
        length_mm=draw(sizes),
        width_mm=draw(sizes),
        height_mm=draw(sizes),
        clearance=Clearance(mm=draw(st.sampled_from([0.0, 10.0, 25.0]))),
    )


@st.composite
def bays(draw: st.DrawFn, most: int = 4) -> Bay:
    """Bays with a few keep-outs."""
    count = draw(st.integers(0, most))
    return Bay(
        length_mm=draw(lengths(200, 900)),
        width_mm=draw(lengths(200, 900)),
        height_mm=draw(lengths(200, 700)),
        keep_outs=[draw(keep_outs(f"k{place}")) for place in range(count)],
    )
