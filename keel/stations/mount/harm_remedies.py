"""What would keep a mount from harming the tank."""

from collections.abc import Iterator, Sequence
from math import ceil, sqrt

from manifold3d import Manifold

from keel.analysis.parts import ENVELOPE
from keel.analysis.tank import TankAnalysis
from keel.design.mount import Bearer, Strap
from keel.findings.finding import Finding, Remedy
from keel.findings.shell_edits import of_gauge
from keel.stations.mount.edits import mount_patch
from keel.studies.mount.bearers import bearer_places
from keel.studies.mount.holding_solids import bearer_solid
from keel.studies.mount.leaned_on import LEANED_ON, PatchCheck
from keel.studies.mount.mounted_gaps import band_of, runs_over
from keel.studies.mount.near_seams import NEAR_SEAMS
from keel.studies.mount.straps import strap_path
from keel.studies.result import words

STEP_MM = 5.0


def thicker_there(tank: TankAnalysis, finding: Finding) -> Iterator[Remedy]:
    """Sheet that bears it."""
    check = next(one for one in tank[LEANED_ON] if one.by == finding.subject)
    gauges = [gauge for gauge in tank.workshop.gauges_of(tank.shell.metal) if gauge >= check.thickness_needed_mm]
    gauge = gauges[0] if gauges else ceil(2 * check.thickness_needed_mm) / 2
    yield Remedy(label=words("{gauge_sheet} sheet", gauge_sheet=gauge), patch={"shell": of_gauge(tank, gauge)})
    mount = tank.design.mount
    if not finding.subject:
        yield Remedy(label=words("Nobody stands on it: a guard or a sign"), patch={"mount": {"stood_on_kg": None}})
        return
    brackets = [
        one.model_copy(update={"foot_mm": float(STEP_MM * ceil(_foot_for(one.foot_mm, check) / STEP_MM))})
        if one.id == finding.subject
        else one
        for one in mount.brackets
    ]
    foot = next(one.foot_mm for one in brackets if one.id == finding.subject)
    label = words("Foot of {name} {foot_mm} long", name=check.name, foot_mm=foot)
    yield Remedy(label=label, patch=mount_patch(brackets=brackets))


def _foot_for(foot_mm: float, check: PatchCheck) -> float:
    """A foot so long that the load at its end, which falls with it, is borne."""
    return foot_mm * max(1.1, check.stress_mpa / check.allowed_mpa)


def safe_place(tank: TankAnalysis, finding: Finding) -> Iterator[Remedy]:
    """The nearest place on the same face that is far enough from every seam."""
    near = next((one for one in tank[NEAR_SEAMS] if one.id == finding.subject), None)
    if near is None or near.safe is None:
        return
    mount, safe = tank.design.mount, near.safe
    moved = [
        one.model_copy(update={"x_mm": safe.x, "y_mm": safe.y, "z_mm": safe.z}) if one.id == near.id else one
        for one in mount.new_work
    ]
    old = next(one for one in mount.new_work if one.id == near.id)
    by = sqrt((safe.x - old.x_mm) ** 2 + (safe.y - old.y_mm) ** 2 + (safe.z - old.z_mm) ** 2)
    yield Remedy(label=words("{name} {by_mm} further on", name=near.name, by_mm=by), patch=mount_patch(new_work=moved))


def beside_port(tank: TankAnalysis, finding: Finding) -> Iterator[Remedy]:
    """The nearest station of a strap or a bearer, either way, at which it runs over nothing."""
    mount = tank.design.mount
    for name, held in (("straps", mount.straps), ("bearers", mount.bearers)):
        for one in held:
            if one.id == finding.subject:
                yield from _beside(tank, name, held, one)


def _beside(tank: TankAnalysis, name: str, held: Sequence[Strap | Bearer], one: Strap | Bearer) -> Iterator[Remedy]:
    for off in (STEP_MM * n * way for n in range(1, 60) for way in (-1.0, 1.0)):
        moved = one.model_copy(update={"at_mm": one.at_mm + off})
        body = _laid(moved, tank)
        if body is not None and not runs_over(body, tank[ENVELOPE]):
            label = words("{name} at {at_mm}", name=one.name, at_mm=moved.at_mm)
            yield Remedy(label=label, patch=mount_patch(**{name: [moved if each is one else each for each in held]}))
            return


def _laid(one: Strap | Bearer, tank: TankAnalysis) -> Manifold | None:
    """A strap or a bearer as a solid; None where it doesn't lie on the tank."""
    if isinstance(one, Strap):
        path = strap_path(one, tank.solids)
        return None if path.problem else band_of(one, path)
    places = bearer_places([one], tank.solids)
    return bearer_solid(one, places[0]) if places else None
