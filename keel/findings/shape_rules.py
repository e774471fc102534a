"""Rules of the shape: features, the opening, rolls, lobes, and fuel that nothing can reach."""

from collections.abc import Iterator
from dataclasses import dataclass

import numpy as np

from keel.analysis.tank import TankAnalysis
from keel.design.features import Sump, Well
from keel.design.shell import ProfileShell
from keel.findings.finding import Finding, of_station
from keel.solid.cuts import FACE_AXIS
from keel.solid.polyhedron import Array
from keel.solid.pools import lobes
from keel.studies.liquid.draining import LEVEL, PORTS_OUTSIDE
from keel.studies.result import in_words, words
from keel.studies.sheet.unfold import SHEET
from keel.studies.space.clearance import needed_mm
from keel.studies.space.opening import GOES_IN, LEAST_LEAN_DEG, Passage
from keel.studies.strength.panels.rows import PANELS

ROUNDING_MM = 1e-6
UNREACHED_SHARE = 0.05
"""Stranded fuel beyond this share of brimful is worth a caution."""
UNEVEN_SHARE = 0.25
"""Lobes that differ by more than this are called uneven."""
_bay, _shell, _sheet = of_station("bay"), of_station("shell"), of_station("sheet")


def passes_opening(tank: TankAnalysis) -> Iterator[Finding]:
    """The shell goes in through the bay's opening, and which way round."""
    answer = tank.get(GOES_IN)
    if answer is None or answer.straight:
        return
    way = answer.best
    said: dict[str, float | str] = {
        "long_mm": answer.long_mm, "wide_mm": answer.wide_mm, "room_mm": abs(way.room_mm), "how": way_round(way),
        "off": in_words(answer.off), "deep_mm": way.deep_mm, "bay_mm": answer.deep_mm,
    }  # fmt: skip
    if not answer.passes:
        text = "At best {how}, and then {room_mm} over in an opening of {long_mm} × {wide_mm}. "
        if answer.off:
            text += "Tried with {off} off too. "
        title = "Doesn't pass the opening: {room_mm} too large"
        yield _bay("opening.short", "", "stop", words(title, **said), words(text + NOT_TRIED, **said))
        return
    text = "The opening is {long_mm} × {wide_mm}; held so, {room_mm} is left on the tighter pair of sides. "
    if way.turns_inside:
        text += "It reaches {deep_mm} along the way in and the bay is {bay_mm} deep: it turns while in the opening. "
        text += NOT_TRIED
    elif not way.as_it_stands:
        text += "Inside it has to be turned to stand: see that there is room."
    if answer.off:
        text += " What is off goes on inside: see that hand and spanner reach it."
        title = "Passes the opening only without {off}, {how}"
        yield _bay("opening.ports_off", "", "caution", words(title, **said), words(text, **said))
        return
    yield _bay("opening.turned", "", "note", words("Passes the opening only {how}", **said), words(text, **said))


NOT_TRIED = "Turning it on the way is not calculated."


def way_round(way: Passage) -> str:
    """How a tank is held as it goes in, in words."""
    if way.as_it_stands:
        return "in its installed orientation"
    if way.leaning_deg > LEAST_LEAN_DEG:
        return f"with {way.leading} first, leaning {way.leaning_deg:.0f}° to {way.leaning_to}"
    turned = f", turned {way.turned_deg:.0f}°" if way.turned_deg > LEAST_LEAN_DEG else ""
    return f"with {way.leading} first{turned}"


def well_sheds_water(tank: TankAnalysis) -> Iterator[Finding]:
    """A well in the roof is open to an edge, sloped, or drained."""
    for well in tank.shell.features:
        if not isinstance(well, Well) or well.face != "roof" or well.drain:
            continue
        size = tank.solids.body.size
        wide = well.long_mm if well.form == "round" else well.wide_mm
        edges = (well.a_mm, well.b_mm, size[0] - well.a_mm - well.long_mm, size[1] - well.b_mm - wide)
        if min(edges) <= ROUNDING_MM:
            continue
        yield _shell(
            "well.holds_water",
            well.id,
            "caution",
            words("{name} holds rain and grit round its flange", name=well.name),
            words(
                "It is {edge_mm} from the nearest edge and has no drain, so what falls in stays in, "
                "{deep_mm} deep, over the seal. Open it to an edge or lead a drain tube out of it.",
                edge_mm=min(edges),
                deep_mm=well.deep_mm,
            ),
        )


@dataclass(frozen=True)
class _Mouth:
    """Where a well or a sump opens: its face, and its span along the face's two axes."""

    of: Well | Sump
    face: str
    a: tuple[float, float]
    b: tuple[float, float]


def lands_are_wide_enough(tank: TankAnalysis) -> Iterator[Finding]:
    """Strips of metal between a feature and an edge, or between two features, can be welded."""
    least, mouths = tank.workshop.rules.land_mm, _mouths(tank)
    apart = _apart(mouths)
    for place, mouth in enumerate(mouths):
        strips = [*_strips_to_edges(tank, mouth), *apart[place].tolist()]
        gap = min((strip for strip in strips if strip > ROUNDING_MM), default=None)
        if gap is not None and ROUNDING_MM < gap < least - ROUNDING_MM:
            yield _shell(
                "land.narrow",
                mouth.of.id,
                "caution",
                words(
                    "Strip beside {name} {strip_mm}, at least {least_mm} (house rule)",
                    name=mouth.of.name,
                    strip_mm=gap,
                    least_mm=least,
                ),
                words(
                    "A narrower strip between a seam and a bend or another seam warps and can't be welded well on both "
                    "sides."
                ),
            )


def mouths_keep_apart(tank: TankAnalysis) -> Iterator[Finding]:
    """Wells and sumps neither run into each other nor past the edge of their face."""
    mouths = _mouths(tank)
    apart = _apart(mouths)
    for place, one in enumerate(mouths):
        over = -min(0.0, *_strips_to_edges(tank, one))
        if over > ROUNDING_MM:
            yield _shell(
                "feature.past_edge",
                one.of.id,
                "caution",
                words(
                    "{name} runs {over_mm} past the edge of the {face}", name=one.of.name, over_mm=over, face=one.face
                ),
                words("What is past the edge isn't there to be cut. Make it smaller, or move it in."),
            )
        for there, other in enumerate(mouths[place + 1 :], start=place + 1):
            if apart[place, there] < -ROUNDING_MM:
                yield _shell(
                    "feature.overlap",
                    one.of.id,
                    "stop",
                    words("{one} and {other} run into each other", one=one.of.name, other=other.of.name),
                    words(
                        "By {over_mm}. Their litres are counted once, but two plates can't stand in one place.",
                        over_mm=-float(apart[place, there]),
                    ),
                    other.of.id,
                )


def _mouths(tank: TankAnalysis) -> list[_Mouth]:
    found = []
    for one in tank.shell.features:
        if isinstance(one, Well | Sump):
            wide = one.long_mm if one.form == "round" else one.wide_mm
            face = one.face if isinstance(one, Well) else "floor"
            found.append(_Mouth(one, face, (one.a_mm, one.a_mm + one.long_mm), (one.b_mm, one.b_mm + wide)))
    return found


def _strips_to_edges(tank: TankAnalysis, one: _Mouth) -> list[float]:
    first, second = [i for i in range(3) if i != FACE_AXIS[one.face][0]]
    size = tank.solids.body.size
    return [one.a[0], one.b[0], size[first] - one.a[1], size[second] - one.b[1]]


def _apart(mouths: list[_Mouth]) -> Array:
    """Strips between mouths of one face, shape (n, n) [mm]: below zero they overlap; endless on other faces."""
    if not mouths:
        return np.zeros((0, 0))
    a, b = np.array([m.a for m in mouths]), np.array([m.b for m in mouths])
    x = np.maximum(a[None, :, 0] - a[:, None, 1], a[:, None, 0] - a[None, :, 1])
    y = np.maximum(b[None, :, 0] - b[:, None, 1], b[:, None, 0] - b[None, :, 1])
    strips = np.where(np.maximum(x, y) > 0, np.hypot(np.maximum(x, 0), np.maximum(y, 0)), np.maximum(x, y))
    faces = np.array([m.face for m in mouths])
    strips[(faces[:, None] != faces[None, :]) | np.eye(len(mouths), dtype=bool)] = np.inf
    return np.asarray(strips)


def walls_leave_no_sliver(tank: TankAnalysis) -> Iterator[Finding]:
    """Fuel space between a recess and a wall isn't too thin to be made or cleaned."""
    least = max(tank.workshop.rules.sliver_mm, 2 * tank.shell.thickness_mm)
    inner = tank.solids.inner_body
    for cost in tank.solids.costs:
        if cost.kind not in ("well", "relief"):
            continue
        wall = tank.shell.feature_wall_mm
        for axis in range(3):
            for gap in (cost.box.low[axis] - wall - inner.low[axis], inner.high[axis] - cost.box.high[axis] - wall):
                if 1e-3 < gap < least - ROUNDING_MM:
                    yield _shell(
                        "sliver",
                        cost.id,
                        "caution",
                        words(
                            "Space beside {name} {gap_mm}, at least {least_mm} (house rule)",
                            name=cost.name,
                            gap_mm=gap,
                            least_mm=least,
                        ),
                        words("Less can't be welded from inside, cleaned or lined; take it to the wall or leave more."),
                        "xyz"[axis],
                    )


def sump_clears_ground(tank: TankAnalysis) -> Iterator[Finding]:
    """A sump hangs no lower than the ground clearance lets it."""
    bay = tank.design.bay
    if bay is None or bay.sides.floor.kind != "ground":
        return
    least = needed_mm(bay.sides.floor, tank.workshop.rules)
    for cost in tank.solids.costs:
        low = cost.box.low[2]
        if cost.kind == "sump" and low < least - ROUNDING_MM:
            yield _shell(
                "sump.ground",
                cost.id,
                "stop",
                words(
                    "{name} is {low_mm} above the ground, needs {least_mm}", name=cost.name, low_mm=low, least_mm=least
                ),
                words("It is the first thing a stone or a kerb meets, and it holds the last of the fuel."),
            )


def rolls_can_be_made(tank: TankAnalysis) -> Iterator[Finding]:
    """No roll is tighter than the workshop's rolls bend."""
    radius, rolls = tank[SHEET].roll_radius_mm, tank.workshop.rolls
    if radius is not None and radius < rolls.least_radius_mm - ROUNDING_MM:
        yield _sheet(
            "rolls.tight",
            "",
            "stop",
            words(
                "Roll radius {radius_mm}, at least {least_mm} on {name}",
                radius_mm=radius,
                least_mm=rolls.least_radius_mm,
                name=rolls.name,
            ),
            words("Tighter has to be bent in steps or bought in."),
        )
    if radius is not None and tank[SHEET].overall_mm > rolls.width_mm + ROUNDING_MM:
        yield _sheet(
            "rolls.width",
            "",
            "stop",
            words(
                "The roll is {long_mm} long, {name} takes {width_mm}",
                long_mm=tank[SHEET].overall_mm,
                name=rolls.name,
                width_mm=rolls.width_mm,
            ),
            words("Make the tank shorter along its axis, or have it rolled elsewhere."),
        )


def lobes_are_even(tank: TankAnalysis) -> Iterator[Finding]:
    """The lobes of a saddle hold about the same, or somebody knows that they don't."""
    shell = tank.shell
    if not isinstance(shell, ProfileShell) or shell.shape != "saddle":
        return
    lobes = lobe_litres(tank)
    if len(lobes) < 2:
        return
    least, most = min(lobes), max(lobes)
    if most > 0 and (most - least) / most > UNEVEN_SHARE:
        yield _shell(
            "saddle.uneven",
            "",
            "note",
            words("The lobes hold {most_l} and {least_l} below the hump", most_l=most, least_l=least),
            words(
                "The smaller runs dry first, and its side of the vehicle rides higher; "
                "a transfer has to run the right way."
            ),
        )


def lobe_litres(tank: TankAnalysis) -> list[float]:
    """What each lobe of a shell holds below the hump on the level [L]."""
    return [litres for cell in tank.solids.cells for litres in lobes(cell.mesh)]


def fuel_can_be_reached(tank: TankAnalysis) -> Iterator[Finding]:
    """The pickup reaches the fuel on the level; it is inside the tank; each cell has one once any has."""
    for port in tank.design.ports:
        if port.role != "fitting" and port.id in tank[PORTS_OUTSIDE]:
            yield _shell(
                "port.outside",
                port.id,
                "stop",
                words("{name} opens outside the tank", name=port.name),
                words("Its opening is not in any cell; nothing is calculated with it. Move it inside the walls."),
            )
    for cell in tank[LEVEL]:
        if cell.stranded_l is None or cell.stranded_l <= UNREACHED_SHARE * cell.brimful_l:
            continue
        elsewhere = sum(pool.litres for pool in cell.pools if not pool.own)
        yield _shell(
            "fuel.unreached",
            cell.cell,
            "caution",
            words("{stranded_l} of the {cell} can't be drawn on the level", stranded_l=cell.stranded_l, cell=cell.cell),
            words(
                "{own_l} lies below the pickup and {other_l} in pools that don't run to it. "
                "More than {share_pct} of brimful is fuel carried for nothing.",
                own_l=cell.stranded_l - elsewhere,
                other_l=elsewhere,
                share_pct=UNREACHED_SHARE,
            ),
        )


def air_can_leave(tank: TankAnalysis) -> Iterator[Finding]:
    """The vent is at the highest place on the level."""
    for cell in tank[LEVEL]:
        if cell.trapped_l is not None and cell.trapped_l > 0.005 * cell.brimful_l:
            yield _shell(
                "air.trapped",
                cell.cell,
                "caution",
                words(
                    "{trapped_l} of air stays in the {cell} when it is filled", trapped_l=cell.trapped_l, cell=cell.cell
                ),
                words(
                    "The vent opens below the highest place, so that much never fills. It is off the rated capacity."
                ),
            )


def proof_is_safe(tank: TankAnalysis) -> Iterator[Finding]:
    """The weakest panel bears a useful proof pressure."""
    weakest = min(tank[PANELS], key=lambda panel: panel.proof_kpa)
    least = tank.workshop.rules.proof_least_kpa
    if weakest.proof_kpa < least:
        yield _shell(
            "proof.weak",
            "",
            "note",
            words(
                "Test it at no more than {proof_kpa}: the {panel} gives first",
                proof_kpa=weakest.proof_kpa,
                panel=weakest.name,
            ),
            words(
                "At {share_pct} of the yield beside a weld ({metal}, {thickness_sheet}) that is the most it bears, "
                "below the {least_kpa} of the house rule. Brace it, test longer, or stiffen the panel.",
                share_pct=tank.workshop.rules.stress_share,
                metal=tank.shell.metal,
                thickness_sheet=weakest.thickness_mm,
                least_kpa=least,
            ),
        )


def features_not_unfolded(tank: TankAnalysis) -> Iterator[Finding]:
    """Say which features the flat parts leave out."""
    unfolded = {part.feature for part in tank[SHEET].parts}
    left_out = [cost.name for cost in tank.solids.costs if cost.kind != "roof step" and cost.id not in unfolded]
    if left_out:
        yield _sheet(
            "sheet.features",
            "",
            "note",
            words("Not among the flat parts: {names}", names=", ".join(left_out)),
            words(
                "Their plates and their openings in the shell have to be laid out by hand. "
                "The mass in the tally has them in; weld, too."
            ),
        )
