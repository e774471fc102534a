"""What slots in the shell for tabs come too near to, and what they ask for."""

from collections.abc import Iterator
from itertools import combinations

import numpy as np

from keel.analysis.tank import TankAnalysis
from keel.design.features import Baffle, Partition
from keel.findings.finding import Finding, Remedy, of_station
from keel.findings.shell_edits import with_feature
from keel.solid.standing import surface_at
from keel.studies.result import words
from keel.studies.sheet.shell_parts import BARE_SOLIDS
from keel.studies.sheet.tabs import TABS

_sheet = of_station("sheet")


def slots_stand_apart(tank: TankAnalysis) -> Iterator[Finding]:
    """Slots keep the least strip of sheet from each other and from ports; looked at once the hand rests."""
    for name, plate, other, gap in _near(tank) if tank.is_at_rest else ():
        if gap < tank.workshop.rules.land_mm:
            yield _sheet(
                "tabs.near",
                plate,
                "stop",
                words(
                    "Slot for the {name} {gap_mm} from {other}, at least {least_mm}",
                    name=name,
                    gap_mm=max(gap, 0.0),
                    other=other,
                    least_mm=tank.workshop.rules.land_mm,
                ),
                words(
                    "What is left between them burns away or cracks. Move one of them, or weld the plate without tabs."
                ),
            )


def _near(tank: TankAnalysis) -> Iterator[tuple[str, str, str, float]]:
    """What lies beside each plate's slots: its nearest other plate's slot and its nearest port, and how far off."""
    found: dict[tuple[str, str, str], float] = {}
    for one, other in combinations(tank[TABS], 2):
        if one.plate != other.plate:
            gap = float(np.linalg.norm(one.at - other.at)) - (one.wide_mm + other.wide_mm) / 2
            key = one.name, one.plate, f"that for the {other.name}"
            found[key] = min(gap, found.get(key, gap))
    for port in tank.design.ports if tank[TABS] else ():
        for tab in tank[TABS] if port.seat else ():
            assert port.seat is not None
            off = float(np.linalg.norm(tab.at - surface_at(tank[BARE_SOLIDS], port)))
            key = tab.name, tab.plate, port.name
            gap = off - tab.wide_mm / 2 - port.seat.hole_mm / 2
            found[key] = min(gap, found.get(key, gap))
    yield from ((*key, gap) for key, gap in found.items())


def slots_are_seams(tank: TankAnalysis) -> Iterator[Finding]:
    """A slot through the shell has to be closed from outside; looked at once the hand rests."""
    for feature in tank.shell.features if tank.is_at_rest else ():
        if isinstance(feature, Baffle | Partition) and feature.tabs:
            count = sum(tab.plate == feature.id for tab in tank[TABS])
            about = words("{count} slots in the shell for tabs of the {name}", count=count, name=feature.name)
            if count:
                what = "Each is one more seam: weld it shut from outside and prove it. Etched lines do without them."
                yield _sheet("tabs.seams", feature.id, "note", about, words(what))
            else:
                what = "No straight edge of it meets a flat panel with room for one: it has neither tabs nor flanges."
                yield _sheet("tabs.seams", feature.id, "caution", about, words(what))


def without_tabs(tank: TankAnalysis, finding: Finding) -> Iterator[Remedy]:
    """Weld a plate by flanges, as the house does."""
    for feature in tank.shell.features:
        if feature.id == finding.subject and isinstance(feature, Baffle | Partition):
            label = words("Flanges on the {name} instead of tabs", name=feature.name)
            yield Remedy(label=label, patch=with_feature(tank.shell, feature, tabs=None))
