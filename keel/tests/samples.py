"""Designs that several tests start from."""

from math import cos, pi, sin
from typing import Any

from hypothesis import strategies as st

from keel.design.bay import Bay, Clearance, KeepOut
from keel.design.document import Design
from keel.design.features import Feature, Relief, Sump, Well
from keel.design.shell import BoxShell, Corner, CylinderShell, ProfileShell


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


def profile(
    places: list[tuple[float, float]], run: float, thickness: float, axis: str = "y", **more: Any
) -> ProfileShell:
    """A profile shell with sharp corners from (across, up) places."""
    corners = tuple(Corner(across_mm=a, up_mm=z) for a, z in places)
    fields = {"corners": corners, "run_mm": run, "thickness_mm": thickness, "wrap_axis": axis, "bend_radius_mm": 0.0}
    return ProfileShell(**fields | more)


def well(a: float, b: float, long: float, wide: float, deep: float, **more: Any) -> Well:
    """A rectangular well in the roof."""
    return Well(
        **{"id": "w", "name": "well", "a_mm": a, "b_mm": b, "long_mm": long, "wide_mm": wide, "deep_mm": deep} | more
    )


PILOT = box(
    1150,
    620,
    560,
    thickness_mm=5.0,
    features=(
        well(300, 210, 260, 200, 120),
        Sump(id="s", name="sump", a_mm=60, b_mm=200, long_mm=220, wide_mm=200, deep_mm=60),
        Relief(id="r", name="relief", x_mm=0, y_mm=530, z_mm=0, length_mm=1150, width_mm=90, height_mm=70),
    ),
)
"""A pilot boat's tank: a box with well, sump and relief."""

STEP = profile([(0, 0), (480, 0), (480, 140), (900, 140), (900, 380), (0, 380)], 500, 2.0)
SADDLE = profile(
    [(0, 0), (400, 0), (400, 220), (700, 220), (700, 0), (1100, 0), (1100, 420), (0, 420)],
    600,
    4.0,
    "x",
    shape="saddle",
)
WEDGE = profile([(0, 0), (520, 0), (560, 60), (560, 190), (230, 345), (0, 345)], 640, 3.0)


@st.composite
def outlines(draw: st.DrawFn) -> tuple[Corner, ...]:
    """Profiles that never cross themselves: corners at growing angles round a middle."""
    count = draw(st.integers(3, 8))
    turns = [(place + draw(st.floats(0.1, 0.9))) / count for place in range(count)]
    reach = [draw(st.integers(90, 300)) for _ in turns]
    return tuple(
        Corner(across_mm=300 + r * cos(2 * pi * t), up_mm=300 + r * sin(2 * pi * t), joint="weld")
        for r, t in zip(reach, turns, strict=True)
    )


@st.composite
def any_shells(draw: st.DrawFn) -> BoxShell | ProfileShell | CylinderShell:
    """Boxes, profiles and cylinders, some with a well and a relief; not all of them can be made."""
    kind = draw(st.sampled_from(["box", "profile", "cylinder"]))
    features: tuple[Feature, ...] = ()
    if draw(st.booleans()):
        a, b = draw(lengths(0, 150)), draw(lengths(0, 150))
        features = (well(a, b, draw(lengths(30, 120)), draw(lengths(30, 120)), draw(lengths(10, 60))),)
    if draw(st.booleans()):
        low = [draw(lengths(-40, 200)) for _ in range(3)]
        cut = Relief(
            id="r", name="relief", x_mm=low[0], y_mm=low[1], z_mm=low[2], length_mm=90, width_mm=120, height_mm=70
        )
        features = (*features, cut)
    if kind == "box":
        return draw(shells()).model_copy(update={"features": features})
    if kind == "cylinder":
        return CylinderShell(
            axis=draw(st.sampled_from(["x", "y", "z"])),
            diameter_mm=draw(lengths(120, 500)),
            run_mm=draw(lengths(120, 800)),
            dish_mm=draw(st.sampled_from([0.0, 20.0])),
            thickness_mm=2.0,
            features=features,
        )
    axis = draw(st.sampled_from(["x", "y"]))
    corners = draw(outlines())
    return ProfileShell(
        corners=corners,
        run_mm=draw(lengths(100, 800)),
        thickness_mm=2.0,
        wrap_axis=axis,
        bend_radius_mm=0.0,
        features=features,
    )
