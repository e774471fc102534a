"""What is wrong with where runs lie: too near what is hot, moves, cuts or rubs; through sheet; loose; out of sight."""

from collections.abc import Iterator

from keel.analysis.tank import TankAnalysis
from keel.findings.finding import Finding, Severity, saying
from keel.studies.lines.clamps import CLAMPS
from keel.studies.lines.crossings import CROSSINGS, GROMMET_MM, SLANT_DEG, Crossing
from keel.studies.lines.joint_places import JOINT_PLACES, LEAST_SIGHT
from keel.studies.lines.part_gaps import PART_GAPS
from keel.studies.lines.route_gaps import ROUTE_GAPS, Danger, RouteGap
from keel.studies.lines.slack import SLACKS

_lines = saying("lines")
_GAP: dict[Danger, tuple[str, Severity, str]] = {
    "heat": ("lines.heat", "stop", "Heat ages a hose, boils what is in it, and lights what leaks from it."),
    "moves": ("lines.moving", "stop", "What moves saws through it or tears it off."),
    "ground": ("lines.low", "stop", "A stone or a kerb takes it off."),
    "rear": ("lines.rear", "caution", "It is torn open when somebody runs into the back."),
    "metal": ("lines.rub", "caution", "It rubs there until it leaks: further off, or in a sleeve."),
    "edge": ("lines.edge", "caution", "An edge cuts it in use or in a knock: further off, or in a sleeve."),
    "tank": ("lines.rub_tank", "caution", "It wears itself, or the tank, through: further off, or in a sleeve."),
    "line": ("lines.rub_line", "caution", "They rub each other: set apart, or held together and one in a sleeve."),
}
THROUGH_WHY = "It can't lie there: take it round, or give it a hole."
FITTING_LAPS_MM = 3.0
"""A bulkhead fitting's shoulder laps over a hole that is so much too wide."""


def runs_keep_off(tank: TankAnalysis) -> Iterator[Finding]:
    """No run lies in something, or nearer to it than it may."""
    for gap in tank[ROUTE_GAPS]:
        if gap.gap_mm < 0 and gap.danger in ("metal", "tank"):
            if not _goes_through(tank, gap):
                yield _lines(
                    "lines.through",
                    f"{gap.run}.{gap.beside}"[:80],
                    "stop",
                    "{name} lies in {beside}",
                    THROUGH_WHY,
                    name=gap.name,
                    beside=gap.beside_name,
                )
        elif gap.is_short:
            code, severity, why = _GAP[gap.danger]
            yield _lines(
                code,
                f"{gap.run}.{gap.beside}"[:80],
                severity,
                "{name} meets {beside}, limit {needed_mm} from it"
                if gap.gap_mm < 0
                else "{name} {gap_mm} from {beside}, limit {needed_mm}",
                why,
                name=gap.name,
                beside=gap.beside_name,
                gap_mm=gap.gap_mm,
                needed_mm=gap.needed_mm,
            )


def parts_stand_clear(tank: TankAnalysis) -> Iterator[Finding]:
    """No part stands in something, or too near to what is hot or moves."""
    for gap in tank[PART_GAPS]:
        yield _lines(
            "lines.part_in",
            f"{gap.id}.{gap.beside}"[:80],
            "stop",
            "{name} {gap_mm} from {beside}, limit {needed_mm}"
            if gap.needed_mm and gap.gap_mm
            else "{name} stands in {beside}",
            "Heat ages it and boils what is in it." if gap.hot else "It can't be there: put it beside.",
            name=gap.name,
            beside=gap.beside_name,
            gap_mm=gap.gap_mm,
            needed_mm=gap.needed_mm,
        )


def _goes_through(tank: TankAnalysis, gap: RouteGap) -> bool:
    """It is said of the crossing."""
    return any(one.id == gap.run and one.panel == gap.beside for one in tank[CROSSINGS])


def sheet_is_passed_by_holes(tank: TankAnalysis) -> Iterator[Finding]:
    """Wherever a run goes through sheet a hole is there for it, and its edge is guarded."""
    for one in tank[CROSSINGS]:
        yield from _no_hole(one) if one.way is None or one.sealed else _tight(one)
        if one.off_square_deg > SLANT_DEG and one.way == "grommet":
            yield _lines(
                "lines.slanted",
                f"{one.id}.{one.panel}"[:80],
                "caution",
                "{name} goes through {panel} {slant_deg} off square, limit {most_deg} (house rule)",
                "Its grommet is squeezed on one side and works out of the hole: straighten it there.",
                name=one.name,
                panel=one.panel_name,
                slant_deg=one.off_square_deg,
                most_deg=SLANT_DEG,
            )


def _no_hole(one: Crossing) -> Iterator[Finding]:
    yield _lines(
        "lines.no_hole",
        f"{one.id}.{one.panel}"[:80],
        "stop",
        "{name} goes through {panel} at {hole}, which is sealed"
        if one.sealed
        else "{name} goes through {panel}, which has no hole there",
        "It needs a hole of {needed_mm} with its edge guarded, or a way round. A bulkhead between people and fuel is "
        "closed again against flame.",
        name=one.name,
        panel=one.panel_name,
        hole=one.hole,
        needed_mm=one.needed_mm,
    )


def _tight(one: Crossing) -> Iterator[Finding]:
    if one.way == "grommet" and one.edge_mm < GROMMET_MM - 1e-6:
        yield _lines(
            "lines.hole_tight",
            f"{one.id}.{one.panel}"[:80],
            "stop",
            "{name} touches the edge of {hole}"
            if one.edge_mm <= 0
            else "{name} {edge_mm} from the edge of {hole}, limit {least_mm} of rubber",
            "Sheet cuts a hose through in weeks. Its hole is {needed_mm} across, with the run in its middle.",
            name=one.name,
            hole=f"{one.hole} in {one.panel_name}" if one.hole else f"its hole in {one.panel_name}",
            edge_mm=one.edge_mm,
            least_mm=GROMMET_MM,
            needed_mm=one.needed_mm,
        )
    elif one.way == "bulkhead fitting" and one.hole and one.hole_mm > one.needed_mm + FITTING_LAPS_MM:
        yield _lines(
            "lines.hole_wide",
            f"{one.id}.{one.panel}"[:80],
            "stop",
            "{name} stands in {hole} in {panel}, {hole_mm} wide, limit {needed_mm}",
            "There is no sheet for its nut to hold on: a board over the gap, or a hole of its own beside it.",
            name=one.name,
            hole=one.hole,
            panel=one.panel_name,
            hole_mm=one.hole_mm,
            needed_mm=one.needed_mm,
        )


def runs_are_held(tank: TankAnalysis) -> Iterator[Finding]:
    """Every clamp that the spacing asks for has something to be fixed to."""
    loose: dict[str, list[str]] = {}
    for clamp in tank[CLAMPS]:
        loose.setdefault(clamp.run, [])
        if not clamp.fixed_to:
            loose[clamp.run].append(clamp.name)
    for run, names in loose.items():
        if names:
            yield _lines(
                "lines.unclamped",
                run,
                "caution",
                "{name}: no hold within {reach_mm} for {count} of its clamps",
                "It hangs free, swings, and breaks at its ends. Lead it along a rail or a panel, or make brackets; "
                "measure what is there at Mount.",
                name=names[0],
                count=len(names),
                reach_mm=tank.workshop.rules.clamp_reach_mm,
            )


def hoses_have_slack(tank: TankAnalysis) -> Iterator[Finding]:
    """Nothing is pulled tight when the engine moves or the tank comes out with its hoses on."""
    for one in tank[SLACKS]:
        if one.is_short:
            yield _lines(
                "lines.no_slack",
                one.id,
                "stop",
                "{name} is rigid, and the tank is to come {off_mm} out with it on"
                if one.kind == "tube"
                else "{name}: {has_mm} long, limit {needs_mm} with the tank {off_mm} out"
                if one.off_mm
                else "{name}: {has_mm} long, limit {needs_mm} where its ends are furthest apart",
                "It is pulled off its fitting, or bears the tank's weight. A tube is undone first, or ends in a hose.",
                name=one.name,
                has_mm=one.has_mm,
                needs_mm=one.needs_mm,
                off_mm=one.off_mm,
            )


def joints_are_in_good_places(tank: TankAnalysis) -> Iterator[Finding]:
    """No joint drips on what is hot, and every one can be looked at."""
    for joint in tank.get(JOINT_PLACES) or []:
        if joint.over:
            yield _lines(
                "lines.over_hot",
                f"{joint.run}.{joint.side}",
                "stop",
                "{name}: its {side} is {over_mm} over {over}",
                "What weeps there drips on it and burns: the joint elsewhere, or a shield that leads drips away.",
                name=joint.name,
                side=joint.side,
                over=joint.over,
                over_mm=joint.over_mm,
            )
        if joint.sees < LEAST_SIGHT:
            yield _lines(
                "lines.unseen",
                f"{joint.run}.{joint.side}",
                "caution" if joint.sees_open < LEAST_SIGHT else "note",
                "{name}: nobody sees its {side}"
                if joint.sees_open < LEAST_SIGHT
                else "{name}: its {side} is only seen with covers off",
                "A joint that isn't looked at leaks until somebody smells it.",
                name=joint.name,
                side=joint.side,
            )
