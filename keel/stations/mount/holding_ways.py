"""Ways to hold the tank, side by side: each fitted to it, as strong as its loads ask, with what it takes."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace
from itertools import count, product

from keel.analysis.tank import TankAnalysis
from keel.design.mount import Bearer, Foot, Stop, Strap
from keel.design.shell import CylinderShell
from keel.findings.finding import Patch
from keel.reference.metals import METALS
from keel.stations.mount.edits import bolted_down, mount_patch
from keel.stations.mount.remedies import AT_SHARES, SIDE_OF, load_that_way_n, placed_straps, stops_at
from keel.stations.mount.stronger import strengthened
from keel.studies.mount.bolt_list import bolt_list
from keel.studies.mount.holding_mass import MM3_PER_M3, STEEL, holding_kg
from keel.studies.mount.load_case import Way
from keel.studies.mount.loads import MOUNT_LOADS, Loads
from keel.studies.mount.straps import STRAPS
from keel.studies.result import Words, words

FOOT_SHARES = (0.1, 0.9)
FLANGE_SHARES = (0.1, 0.5, 0.9)
BESIDE_MM = 20.0
"""Bolts of feet, tabs and flanges stand so far off the tank's sides: room for a washer and a spanner."""
BOX_OFF_MM = 40.0
"""Bolts of a box: its pad, its wall, and room for a spanner."""
OVERHANG_MM = 50.0
"""Bars of a cradle or a cage are held so far beside the tank."""
FOOT_WELD_MM = 60.0
PAD_MM, BOX_SHEET_MM = 5.0, 1.5
USUAL = Foot(id="foot", name="foot", x_mm=0.0, y_mm=0.0, z_mm=0.0)


@dataclass(frozen=True, slots=True)
class HoldingWay:
    """One way to hold the tank.

    Attributes
    ----------
    title : str
        What it is called.
    patch : Patch
        The mount's lists as they would be.
    chosen : bool
        Whether the tank is held so.
    pieces, bolts : int
        To be made; through the vehicle.
    kg : float
        What is added to the vehicle, without bolts and pads.
    weld_mm : float
        On the tank.
    unheld : list of str
        Ways in which nothing would hold it.
    weakest : str
        The mount with the least reserve, and its weakest link.
    reserve : float or None
        Of that link; empty where the tank's mass isn't known.
    least_reserve : float
        What the house rule asks for.
    means : Words
        What it is good for, and what it costs.
    stop : Words or None
        Why this tank can't be held so.
    favoured : bool
        Whether the figures favour it.
    why : Words or None
        By which figure.
    """

    title: str
    patch: Patch
    chosen: bool
    pieces: int
    bolts: int
    kg: float
    weld_mm: float
    unheld: list[Way]
    weakest: str
    reserve: float | None
    least_reserve: float
    means: Words
    stop: Words | None
    favoured: bool
    why: Words | None


@dataclass(frozen=True, slots=True)
class _Arrangement:
    """What is put where, and what is said of it."""

    title: str
    means: Words
    straps: Sequence[Strap] = ()
    feet: Sequence[Foot] = ()
    stops: Sequence[Stop] = ()
    bearers: Sequence[Bearer] = ()
    stop: Words | None = None
    sheet_kg: float = 0.0
    """What is made of sheet beyond its bolted places: a box, a flange."""


def holding_ways(tank: TankAnalysis) -> list[HoldingWay]:
    """Straps, a cradle, a cage, its own flange, feet, a box: each as strong as the loads ask.

    Parameters
    ----------
    tank : TankAnalysis
        The design under evaluation.

    Returns
    -------
    list of HoldingWay
        Bolts, straps and tubes of each are as large as its reserve asks. The figures favour what holds it every way
        with no heat on the tank for the least mass.
    """
    found = [_judged(tank, arrangement) for arrangement in _arrangements(tank)]
    cold = [way for way in found if not way.weld_mm and not way.unheld and not way.stop]
    able = [way for way in cold if way.reserve is not None and way.reserve >= tank.workshop.rules.mount_reserve]
    if not able:
        return found
    best = min(able, key=lambda way: way.kg)
    why = words("holds it every way with no heat on the tank, for the least mass")
    return [replace(way, favoured=True, why=why) if way is best else way for way in found]


def _arrangements(tank: TankAnalysis) -> Iterator[_Arrangement]:
    """What hangs on weld or on the tank's own edge comes last."""
    straps, stops, under = placed_straps(tank), _stops(tank), _bars(tank, "under")
    means = words("No heat and no hole in the tank. Out in minutes. Pads hold no water if they are open below.")
    yield _Arrangement("Straps over it, stops round it", means, straps=straps, stops=stops)
    means = words("Carries a heavy or a round tank along its length; spreads what lands on it over the bars.")
    is_round = isinstance(tank.shell, CylinderShell)
    title = "Saddles under it, bands over it" if is_round else "Cradle under it, straps over it"
    yield _Arrangement(title, means, straps=straps, stops=stops, bearers=under)
    means = words("Nothing goes round the tank, and knocks meet the bars first. Heavier; slowest to undo.")
    cage = [*under, *_bars(tank, "over")]
    yield _Arrangement("Cage of tube round it", means, stops=stops, bearers=cage)
    means = words(
        "Its walls are metal between fuel and people, and hold a small leak. Heavier. Its lid bears {up_n} upward.",
        up_n=load_that_way_n(tank, "up"),
    )
    yield _Arrangement("Box with a lid, bolted down", means, feet=_box(tank), sheet_kg=_box_kg(tank))
    means = words(
        "Drops in from above, bolts in reach. A strip welded along both long sides, on rubber: a vehicle that twists "
        "cracks it at its ends."
    )
    no_edge = words("A round tank has no edge to stand on") if is_round else None
    feet, kg = _flange(tank), _flange_kg(tank)
    yield _Arrangement("Flange bolted through", means, feet=feet, stop=no_edge, sheet_kg=kg)
    means = words(
        "Fewest parts. Each foot is heat on the tank, before its leak test, on a doubler: a vehicle that twists cracks "
        "it there first."
    )
    yield _Arrangement("Four feet welded to it", means, feet=_feet(tank))


def _stops(tank: TankAnalysis) -> list[Stop]:
    numbers = count(1)
    return [stop for side in SIDE_OF.values() for stop in stops_at(tank, side, numbers)]


def _bars(tank: TankAnalysis, stands: str) -> list[Bearer]:
    box = tank.solids.bounds
    ends = {
        "low_mm": tank.marked(box.low[1] - OVERHANG_MM),
        "high_mm": tank.marked(box.high[1] + OVERHANG_MM),
    }
    return [
        Bearer.model_validate(
            {
                "id": f"bar-{stands}-{number}",
                "name": f"bar {number} {stands} it",
                "stands": stands,
                "at_mm": tank.marked(box.low[0] + share * box.size[0]),
            }
            | ends
        )
        for number, share in enumerate(AT_SHARES, start=1)
    ]


def _feet_at(tank: TankAnalysis, called: str, shares: Sequence[float], off: float, z: float, like: Foot) -> list[Foot]:
    """Feet along both long sides."""
    box = tank.solids.bounds
    sides = (tank.marked(box.low[1] - off), tank.marked(box.high[1] + off))
    key = called.replace(" ", "-")
    places = [(tank.marked(box.low[0] + share * box.size[0]), side) for share, side in product(shares, sides)]
    return [
        like.model_copy(
            update={"id": f"{key}-{n}", "name": f"{called} {n}", "x_mm": x, "y_mm": y, "z_mm": tank.marked(z)}
        )
        for n, (x, y) in enumerate(places, start=1)
    ]


def _feet(tank: TankAnalysis) -> list[Foot]:
    like = USUAL.model_copy(update={"weld_mm": FOOT_WELD_MM})
    return _feet_at(tank, "foot", FOOT_SHARES, BESIDE_MM, tank.solids.bounds.low[2], like)


def _flange(tank: TankAnalysis) -> list[Foot]:
    """As long a weld a bolt as there is flange for it."""
    box, thick = tank.solids.bounds, tank.shell.thickness_mm
    like = USUAL.model_copy(update={"foot_mm": thick, "weld_mm": box.size[0] / len(FLANGE_SHARES)})
    return _feet_at(tank, "flange bolt", FLANGE_SHARES, BESIDE_MM, box.high[2], like)


def _flange_kg(tank: TankAnalysis) -> float:
    """Two strips of the tank's own sheet, its bolts in the middle of their width."""
    density = METALS[tank.shell.metal].density_kg_per_m3 / MM3_PER_M3
    return 2 * tank.solids.bounds.size[0] * 2 * BESIDE_MM * tank.shell.thickness_mm * density


def _box(tank: TankAnalysis) -> list[Foot]:
    low = tank.solids.bounds.low[2] - PAD_MM
    return _feet_at(tank, "box foot", FOOT_SHARES, BOX_OFF_MM, low, USUAL)


def _box_kg(tank: TankAnalysis) -> float:
    """Six walls of steel sheet a pad's width off the tank."""
    long, wide, high = (size + 2 * PAD_MM for size in tank.solids.bounds.size)
    return 2 * (long * wide + wide * high + high * long) * BOX_SHEET_MM * STEEL


def _judged(tank: TankAnalysis, arrangement: _Arrangement) -> HoldingWay:
    lists = {name: list(getattr(arrangement, name)) for name in ("straps", "feet", "stops", "bearers")}
    mount, held = strengthened(tank, tank.design.mount.model_copy(update=lists))
    loads = held[MOUNT_LOADS]
    weakest, reserve = _weakest(loads)
    return HoldingWay(
        title=arrangement.title,
        patch=mount_patch(**{name: getattr(mount, name) for name in lists}),
        chosen=mount == tank.design.mount,
        pieces=len(mount.straps) + len(bolted_down(mount)),
        bolts=sum(row.count for row in bolt_list(mount)),
        kg=holding_kg(mount, held[STRAPS]) + arrangement.sheet_kg,
        weld_mm=sum(foot.weld_mm for foot in mount.feet),
        unheld=[case.way for case in loads.cases if not case.is_held],
        weakest=weakest,
        reserve=reserve,
        least_reserve=tank.workshop.rules.mount_reserve,
        means=arrangement.means,
        stop=arrangement.stop,
        favoured=False,
        why=None,
    )


def _weakest(loads: Loads) -> tuple[str, float | None]:
    links = [(check.links[0], check) for check in loads.mounts if check.links]
    if not links:
        return "", None
    link, check = min(links, key=lambda pair: pair[0].reserve)
    return f"{check.name}, {link.name}", link.reserve
