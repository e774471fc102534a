"""What is wrong with the filler's way from the body to the tank, and what would put it right."""

from collections.abc import Iterator
from math import ceil, radians, sin, tan

from keel.analysis.tank import TankAnalysis
from keel.findings.finding import Finding, Remedy, saying
from keel.studies.mount.filler_pieces import OLD_MEASURED
from keel.studies.mount.filler_route import FILLER
from keel.studies.result import words

_mount = saying("mount")
MOST_TURN_DEG = 60.0
LEAST_SIGHT = 0.25
STEP_MM = 5.0


def filler_runs_down(tank: TankAnalysis) -> Iterator[Finding]:
    """The fill hose falls all the way, without a sharp turn, pushed on far enough."""
    route, rules = tank[FILLER], tank.workshop.rules
    if route is None:
        return
    if route.fall_deg < rules.filler_fall_deg:
        yield _mount(
            "filler.fall", "", "stop", "Fill hose falls {fall_deg}, limit {least_deg} (house rule)",
            "Fuel stands in it, the nozzle shuts off, and what stands there runs out over somebody at the cap.",
            fall_deg=route.fall_deg, least_deg=rules.filler_fall_deg,
        )  # fmt: skip
    turn = max(route.turn_neck_deg, route.turn_opening_deg)
    if turn > MOST_TURN_DEG:
        yield _mount(
            "filler.turn", "", "caution", "Fill hose turns {turn_deg} at one end, limit {most_deg}",
            "It kinks there or needs an elbow, and fills slowly.",
            turn_deg=turn, most_deg=MOST_TURN_DEG,
        )  # fmt: skip
    if route.overlap_mm < rules.filler_overlap_mm:
        yield _mount(
            "filler.overlap", "", "stop", "Fill hose overlaps its pipes by {overlap_mm}, limit {least_mm} (house rule)",
            "It slides off in a knock, and the tank empties itself there.",
            overlap_mm=route.overlap_mm, least_mm=rules.filler_overlap_mm,
        )  # fmt: skip


def filler_is_reached_and_seen(tank: TankAnalysis) -> Iterator[Finding]:
    """Room for hand and nozzle at the opening, and a sight of the rising fuel."""
    route = tank[FILLER]
    if route is None:
        return
    for code, gap, beside, what in (
        ("filler.hand", route.hand_mm, route.hand_at, "a hand"),
        ("filler.nozzle", route.nozzle_mm, route.nozzle_at, "the nozzle"),
    ):
        if gap <= 0:
            yield _mount(
                code, "", "stop", "No room for {what} at the body opening: {beside} is in its way",
                "It is filled from a can at an angle, and every time some of it goes beside.",
                what=what, beside=beside,
            )  # fmt: skip
    if route.sees < LEAST_SIGHT:
        yield _mount(
            "filler.sight", "", "caution", "Rising fuel seen from {seen_pct} of places about it, limit {least_pct}",
            "Nobody sees it come: the first sign is fuel on something hot.",
            seen_pct=route.sees, least_pct=LEAST_SIGHT,
        )  # fmt: skip


def the_old_tank_is_measured(tank: TankAnalysis) -> Iterator[Finding]:
    """What only the old tank in its place shows is measured before it comes out; it agrees with what is drawn."""
    asked = tank[OLD_MEASURED]
    missing = [one for one in asked if one.measured_mm is None]
    is_in = tank.design.mount.old_tank == "in its place"
    if missing:
        yield _mount(
            "filler.old_measures", "", "caution" if is_in else "note",
            "{count} of {all} measurements that need the old tank in its place aren't taken: {first} first"
            if is_in
            else "{count} of {all} measurements can't be taken any more, the old tank is out: {first} first",
            "Once it is out nobody can say where its neck met the body, and the new hose is cut by guess."
            if is_in
            else "Take them from the old hoses, or with the new tank set in on blocks, before a hose is cut.",
            count=len(missing), all=len(asked), first=missing[0].name,
        )  # fmt: skip
    within = tank.workshop.rules.measure_mm
    for one in asked:
        if one.off_mm > within and one.drawn_mm is not None and one.measured_mm is not None:
            yield _mount(
                "filler.old_differs", one.name.replace(" ", "-").replace("'", "")[:80], "stop",
                "{what}: measured {measured_mm}, drawn {drawn_mm}, at most {within_mm} apart",
                "Fall, cut lengths and end angles are those of what is drawn: one of the two is wrong.",
                what=one.name, measured_mm=one.measured_mm, drawn_mm=one.drawn_mm, within_mm=within,
            )  # fmt: skip


def people_are_covered(tank: TankAnalysis) -> Iterator[Finding]:
    """Metal without a gap between the fill hose and people."""
    route = tank[FILLER]
    if route is not None and route.bare_to:
        yield _mount(
            "filler.cover", "", "stop", "No metal without a gap between fill hose and {person}",
            "A hose that tears in a crash sprays over whoever sits there. Rulebook and local code come first.",
            person=route.bare_to,
        )  # fmt: skip


def steeper(tank: TankAnalysis, _finding: Finding) -> Iterator[Remedy]:
    """The opening higher, or the pipe behind it shorter."""
    route, drawn = tank[FILLER], tank.design.mount.filler
    if route is None or drawn is None:
        return
    least = radians(tank.workshop.rules.filler_fall_deg)
    flat = route.straight_mm * max(1e-3, (1 - sin(radians(route.fall_deg)) ** 2) ** 0.5)
    more = flat * tan(least) - route.straight_mm * sin(radians(route.fall_deg))
    up = float(STEP_MM * ceil((more + 1.0) / STEP_MM))
    patch = {"mount": {"filler": {"z_mm": drawn.z_mm + up}}}
    yield Remedy(label=words("Body opening {up_mm} higher", up_mm=up), patch=patch)


def longer_overlap(tank: TankAnalysis, _finding: Finding) -> Iterator[Remedy]:
    """Pushed on as far as the rule says."""
    least = tank.workshop.rules.filler_overlap_mm
    yield Remedy(
        label=words("Hose pushed {least_mm} over each pipe", least_mm=least),
        patch={"mount": {"filler": {"overlap_mm": least}}},
    )
