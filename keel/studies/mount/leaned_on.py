"""A shell that somebody leans, sits or stands on, or that carries a bracket: what its panels bear of that."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass

from keel.analysis.parts import MOUNT, RULES, SHELL, SOLIDS
from keel.analysis.study import study
from keel.design.mount import Bracket, Mount
from keel.design.workshop import HouseRules
from keel.reference.metals import METALS
from keel.solid.solids import AnyShell, Solids
from keel.studies.mount.full_mass import G0
from keel.studies.mount.loads import loads_of
from keel.studies.strength.panels.panel import Panel
from keel.studies.strength.panels.rows import PANELS
from keel.studies.strength.patch_load import patch_stress

SUDDEN = 2.0
"""A foot that is set down at once presses twice its weight: half of the energy of a sudden load is in the spring."""
FOOT_MM = 100.0
SIDES_ALONG = {"rear": 0, "front": 0, "right": 1, "left": 1, "floor": 2, "roof": 2}


@dataclass(frozen=True, slots=True)
class PatchCheck:
    """One panel under somebody's foot, or under a bracket's.

    Attributes
    ----------
    by : str
        Id of the bracket; empty for somebody who stands there.
    panel : str
        Which panel.
    load_n, patch_mm : float
        On how large a patch.
    stress_mpa, allowed_mpa : float
        Where that is worst, and the house rule's share of the yield.
    sags_mm : float
        How far it gives.
    thickness_needed_mm : float
        Sheet with which it would bear it.
    """

    by: str
    name: str
    panel: str
    load_n: float
    patch_mm: float
    stress_mpa: float
    allowed_mpa: float
    sags_mm: float
    thickness_needed_mm: float

    @property
    def bears(self) -> bool:
        """Whether it stays within what is allowed."""
        return self.stress_mpa <= self.allowed_mpa


def leaned_on(
    mount: Mount, panels: Sequence[Panel], shell: AnyShell, solids: Solids, rules: HouseRules
) -> list[PatchCheck]:
    """Panels under what leans on them.

    Parameters
    ----------
    mount : Mount
        Who stands on the tank, and what is bracketed to it.
    panels : sequence of Panel
        Flat panels as baffles split them.
    shell : AnyShell
        Its metal.
    solids : Solids
        Along which axis it is drawn out.
    rules : HouseRules
        Loads by use.

    Returns
    -------
    list of PatchCheck
        The weakest panel of the lid for a person, that of its side for each bracket. Rolled walls are left out.
    """
    found = list[PatchCheck]()
    if mount.stood_on_kg:
        load = mount.stood_on_kg * G0 * SUDDEN
        found += _weakest("", "somebody who stands on it", _facing("roof", panels, solids), load, FOOT_MM, shell)
    most_g = max(loads_of(mount, rules).model_dump().values())
    for bracket in mount.brackets:
        load, patch = _pressed(bracket, most_g)
        found += _weakest(bracket.id, bracket.name, _facing(bracket.side, panels, solids), load, patch, shell)
    return found


def _pressed(bracket: Bracket, g: float) -> tuple[float, float]:
    """What a bracket's foot presses with where it presses most, and on how large a patch: half of its foot."""
    force = bracket.kg * G0 * g
    return force / 2 + force * bracket.off_mm / bracket.foot_mm, bracket.foot_mm / 2


def _facing(side: str, panels: Sequence[Panel], solids: Solids) -> list[Panel]:
    """Panels that look to a side of the tank."""
    word = "lid" if side == "roof" else side
    ends = solids.section.axis == SIDES_ALONG[side]
    return [panel for panel in panels if not panel.round and (word in panel.name or (ends and "end" in panel.name))]


def _weakest(
    by: str, name: str, panels: Sequence[Panel], load_n: float, patch_mm: float, shell: AnyShell
) -> Iterator[PatchCheck]:
    metal = METALS[shell.metal]
    checks = []
    for panel in panels:
        if len(panel.edges) < 4:
            continue
        edges = [edge.held for edge in panel.edges]
        sides = (panel.first_mm, panel.second_mm)
        made = patch_stress(sides, panel.thickness_mm, edges, load_n, patch_mm, metal.youngs_modulus_gpa)
        needed = panel.thickness_mm * (made.stress_mpa / panel.allowed_mpa) ** 0.5
        checks.append(
            PatchCheck(
                by,
                name,
                panel.name,
                load_n,
                patch_mm,
                made.stress_mpa,
                panel.allowed_mpa,
                made.deflection_mm,
                needed,
            )
        )
    if checks:
        yield max(checks, key=lambda check: check.stress_mpa / check.allowed_mpa)


LEANED_ON = study(leaned_on, MOUNT, PANELS, SHELL, SOLIDS, RULES)
