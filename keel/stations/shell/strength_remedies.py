"""What makes weak panels bear more."""

from collections.abc import Iterator
from math import ceil

from keel.analysis.tank import TankAnalysis
from keel.design.shell import CylinderShell
from keel.findings.finding import Finding, Remedy, of_station
from keel.findings.shell_edits import no_thinner, of_gauge, with_features
from keel.reference.metals import METALS
from keel.studies.result import Words, words
from keel.studies.strength.panels.arrays import ARRAYS, Array
from keel.studies.strength.panels.panel import Panel
from keel.studies.strength.panels.rows import PANELS

_finding = of_station("shell")


def thicker(tank: TankAnalysis, _finding: Finding) -> Iterator[Remedy]:
    """The next sheets in stock that would do; a swage across the panel; or baffles that split it."""
    metal, shell = METALS[tank.shell.metal], tank.shell
    need = max(metal.weldable_from_mm, *(panel.least_thickness_mm for panel in tank[PANELS]))
    gauges = tank.workshop.gauges_of(shell.metal)
    enough = [gauge for gauge in gauges if gauge >= need and gauge > shell.thickness_mm]
    for gauge in enough[:1] or [ceil(need * 2) / 2]:
        patch = of_gauge(tank, gauge)
        for name in ("ends_thickness_mm", "features_thickness_mm"):
            own = getattr(shell, name)
            if own is not None and own < gauge:
                patch[name] = gauge
        features = [no_thinner(feature, gauge) for feature in shell.features]
        if features != list(shell.features):
            patch |= with_features(features)["shell"]
        yield Remedy(label=words("{gauge_sheet} sheet", gauge_sheet=gauge), patch={"shell": patch})
    yield from swage(tank, _finding)
    yield from braced(tank, _finding)


def swage(tank: TankAnalysis, finding: Finding) -> Iterator[Remedy]:
    """A swage or cross-break across every panel that is too weak."""
    if isinstance(tank.shell, CylinderShell):
        return
    least = tank.workshop.rules.proof_least_kpa if finding.code == "proof.weak" else 0.0
    plain = (panel for panel in tank[PANELS] if not panel.swaged and panel.what != "partition")
    weak = [panel.name for panel in plain if _is_weak(panel, least)]
    if weak:
        yield Remedy(
            label=words("A swage across the middle of the {names}", names=", ".join(weak)),
            patch={"shell": {"swages": [*tank.shell.swages, *weak]}},
        )


def _is_weak(panel: Panel, least_proof_kpa: float) -> bool:
    return panel.is_thin or panel.proof_kpa < least_proof_kpa


def braced(tank: TankAnalysis, finding: Finding) -> Iterator[Remedy]:
    """The fewest evenly placed baffles that split the weak panels enough; the two best mixes of directions."""
    if isinstance(tank.shell, CylinderShell):
        return
    least = tank.workshop.rules.proof_least_kpa if finding.code == "proof.weak" else 0.0
    enough: list[Array] = []
    for array in tank[ARRAYS]:
        fewer = any(one.across <= array.across and one.along <= array.along for one in enough)
        if len(enough) < 2 and not fewer and not array.is_thin and array.proof_kpa >= least:
            enough.append(array)
            features = [*tank.shell.features, *array.plates]
            yield Remedy(label=_array(array.across, array.along), patch=with_features(features))


def _array(across: int, along: int) -> Words:
    ways = [f"{many} {how}" for many, how in ((across, "across the tank"), (along, "lengthwise")) if many]
    noun = "A baffle" if across + along == 1 else "Baffles"
    return words("{noun}, welded to the panels: {ways}", noun=noun, ways=" and ".join(ways))
