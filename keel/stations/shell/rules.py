"""What is wrong with the shell: capacity, walls, bends, what stays and what is trapped."""

from collections.abc import Iterator
from math import ceil

from keel.analysis.tank import TankAnalysis
from keel.design.shell import CylinderShell, ProfileShell
from keel.findings.finding import Finding, of_station, saying
from keel.findings.fuels import attacked, fuels_of
from keel.reference.compatibility import OF_METAL
from keel.reference.metals import METALS
from keel.solid.pools import lobes
from keel.studies.cost.figures import FIGURES
from keel.studies.demand.target import TARGET_L
from keel.studies.liquid.draining import LEVEL, PORTS_OUTSIDE
from keel.studies.proof.bearing import WEAKEST
from keel.studies.result import words
from keel.studies.sheet.unfold import SHEET
from keel.studies.strength.panels.panel import Panel, how_held
from keel.studies.strength.panels.rows import PANELS

_shell = of_station("shell")
_say = saying("shell")
ROUNDING_MM = 1e-6
ROUNDING_L = 1e-6
UNREACHED_SHARE = 0.05
"""Stranded fuel beyond this share of brimful is worth a caution."""
TRAPPED_SHARE = 0.005
"""Air that can't leave, beyond this share of brimful, is worth a caution."""
UNEVEN_SHARE = 0.25
"""Lobes that differ by more than this are called uneven."""


def metal_bears_it(tank: TankAnalysis) -> Iterator[Finding]:
    """The shell's metal, unless it is lined."""
    if tank.design.inside.lining is None:
        metal = tank.shell.metal
        for fuel in fuels_of(tank):
            against = OF_METAL.get((METALS[metal].family, fuel))
            yield from attacked(_shell, ("fuel.metal", "", fuel), fuel, metal, against, "Bare, {why}.")


def capacity_below(tank: TankAnalysis) -> Iterator[Finding]:
    """Rated capacity reaches the brief's target."""
    target, rated = tank[TARGET_L], tank[FIGURES].rated_l
    if target is not None and rated < target - ROUNDING_L:
        yield _shell(
            "capacity.below",
            "",
            "caution",
            words(
                "Rated capacity {rated_l}, {short_l} below the target of {target_l}",
                rated_l=rated,
                short_l=target - rated,
                target_l=target,
            ),
            words(
                "It is {brimful_l} brimful, less the ullage that fuel needs to expand.",
                brimful_l=tank[FIGURES].brimful_l,
            ),
        )


def capacity_beyond(tank: TankAnalysis) -> Iterator[Finding]:
    """Rated capacity isn't far above the brief's target."""
    target, rated = tank[TARGET_L], tank[FIGURES].rated_l
    allowed = tank.workshop.rules.beyond_target
    if target is not None and rated > target * (1 + allowed) + ROUNDING_L:
        yield _shell(
            "capacity.beyond",
            "",
            "note",
            words(
                "Rated capacity {rated_l}, {more_pct} above the target of {target_l}, limit {allowed_pct} (house rule)",
                rated_l=rated,
                more_pct=rated / target - 1,
                target_l=target,
                allowed_pct=allowed,
            ),
            words("That is metal, weight and fuel that nobody asked for."),
        )


def wall_thickness(tank: TankAnalysis) -> Iterator[Finding]:
    """The sheet is thick enough to weld and for its largest panels."""
    metal, thickness = METALS[tank.shell.metal], tank.shell.thickness_mm
    if thickness < metal.weldable_from_mm - ROUNDING_MM:
        yield _say(
            "wall.weldable",
            "",
            "caution",
            "Wall {thickness_sheet} of {metal}, at least {least_sheet} to weld tight",
            "Thinner sheet burns through and its seams leak; a tank needs every seam tight.",
            thickness_sheet=thickness,
            metal=tank.shell.metal,
            least_sheet=metal.weldable_from_mm,
        )
    worst = max(tank[PANELS], key=lambda panel: panel.least_thickness_mm / panel.thickness_mm)
    if worst.least_thickness_mm > worst.thickness_mm + ROUNDING_MM:
        yield _thin(worst, tank.workshop.rules.stress_share)


def _thin(panel: Panel, stress_share: float) -> Finding:
    title = "Sheet of the {panel} {thickness_sheet}, at least {least_sheet}"
    why = (
        "The {what}, {long_mm} × {short_mm} flat, under {head_kpa}, " + panel.load.text + ": {stress_mpa}, "
        "allowed {allowed_mpa} ({share_pct} of the yield beside a weld, house rule). "
        "Its edges: {edges}; safe proof pressure of this panel {proof_kpa}{safe}."
    )
    safe = "; it bows by more than half its thickness, where this sum errs safe"
    return _say(
        "wall.thin",
        "",
        "caution",
        title,
        why,
        **panel.load.values,
        panel=panel.name,
        least_sheet=ceil(panel.least_thickness_mm * 10) / 10,
        thickness_sheet=panel.thickness_mm,
        what=panel.what,
        edges=how_held(panel),
        proof_kpa=panel.proof_kpa,
        long_mm=panel.long_mm,
        short_mm=panel.short_mm,
        head_kpa=panel.pressure_kpa,
        stress_mpa=panel.stress_mpa,
        allowed_mpa=panel.allowed_mpa,
        share_pct=stress_share,
        safe=safe if panel.small_deflection_exceeded else "",
    )


def bend_radius(tank: TankAnalysis) -> Iterator[Finding]:
    """The bend radius is one the metal bears."""
    if isinstance(tank.shell, CylinderShell) or not tank[SHEET].bends:
        return
    metal, thickness, radius = METALS[tank.shell.metal], tank.shell.thickness_mm, tank.shell.bend_radius_mm
    least, sure = metal.bend_radius_least * thickness, metal.bend_radius_sure * thickness
    if radius >= least - ROUNDING_MM:
        return
    yield _shell(
        "bend.radius",
        "",
        "stop",
        words(
            "Bend radius {radius_sheet}, at least {least_sheet} for {thickness_sheet} {metal}",
            radius_sheet=radius,
            least_sheet=least,
            thickness_sheet=thickness,
            metal=tank.shell.metal,
        ),
        words("Bent tighter it cracks along the bend; {sure_sheet} is sure.", sure_sheet=sure),
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
            words(
                "Lobes hold {most_l} and {least_l} below the hump, limit {limit_pct} apart",
                most_l=most,
                least_l=least,
                limit_pct=UNEVEN_SHARE,
            ),
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
            words(
                "{stranded_l} of the {cell} can't be drawn on the level, limit {limit_l} ({limit_pct} of brimful)",
                stranded_l=cell.stranded_l,
                cell=cell.cell,
                limit_l=UNREACHED_SHARE * cell.brimful_l,
                limit_pct=UNREACHED_SHARE,
            ),
            words(
                "{own_l} lies below the pickup and {other_l} in pools that don't run to it: fuel carried for nothing.",
                own_l=cell.stranded_l - elsewhere,
                other_l=elsewhere,
            ),
        )


def air_can_leave(tank: TankAnalysis) -> Iterator[Finding]:
    """The vent is at the highest place on the level."""
    for cell in tank[LEVEL]:
        if cell.trapped_l is not None and cell.trapped_l > TRAPPED_SHARE * cell.brimful_l:
            yield _shell(
                "air.trapped",
                cell.cell,
                "caution",
                words(
                    "Trapped air {trapped_l} in the {cell}, limit {limit_l} ({limit_pct} of brimful)",
                    trapped_l=cell.trapped_l,
                    cell=cell.cell,
                    limit_l=TRAPPED_SHARE * cell.brimful_l,
                    limit_pct=TRAPPED_SHARE,
                ),
                words(
                    "The vent opens below the highest place, so that much never fills. It is off the rated capacity."
                ),
            )


def proof_is_safe(tank: TankAnalysis) -> Iterator[Finding]:
    """The weakest panel bears a useful proof pressure."""
    least = tank.workshop.rules.proof_least_kpa
    weakest = tank[WEAKEST]
    if weakest.bears_kpa < least:
        yield _shell(
            "proof.weak",
            "",
            "note",
            words(
                "Test pressure of the {panel} at most {proof_kpa}, at least {least_kpa} wanted (house rule)",
                proof_kpa=weakest.bears_kpa,
                panel=weakest.name,
                least_kpa=least,
            ),
            words(
                "More bends it for good: {share_pct} of the yield beside a weld ({metal}, {thickness_sheet}). Brace "
                "it, test longer, or stiffen the panel.",
                share_pct=tank.workshop.rules.stress_share,
                metal=tank.shell.metal,
                thickness_sheet=weakest.thickness_mm,
            ),
        )
