"""What the filler's way is cut from, with the angle of each end; what only the old tank in its place shows."""

from collections.abc import Sequence
from dataclasses import dataclass
from math import degrees

import numpy as np

from keel.analysis.parts import MOUNT, PORTS
from keel.analysis.study import study
from keel.design.mount import FillerRoute, Mount, OldMeasureName
from keel.design.ports import Port
from keel.solid.standing import OUTWARD
from keel.studies.mount.filler_route import FILLER, Filler, axis_of


@dataclass(frozen=True, slots=True)
class FillerPiece:
    """A piece of the way in.

    Attributes
    ----------
    cut_mm : float
        Its length.
    first_deg, last_deg : float
        Of a pipe how far off square that end is cut; of a hose how far it turns there.
    pushed_mm : float
        How far it is pushed over, or let into, at either end.
    """

    what: str
    cut_mm: float
    first_deg: float
    last_deg: float
    pushed_mm: float


def filler_pieces(mount: Mount, ports: Sequence[Port], filler: Filler | None) -> list[FillerPiece]:
    """Neck, fill hose, vent hose beside it, pipe at the opening.

    Parameters
    ----------
    mount : Mount
        The opening.
    ports : sequence of Port
        The neck.
    filler : Filler or None
        The way between them.

    Returns
    -------
    list of FillerPiece
        From the tank outward; empty without a way. The first end is the one nearer to the tank.
    """
    route = mount.filler
    port = next((one for one in ports if filler is not None and one.id == filler.port), None)
    if filler is None or route is None or port is None:
        return []
    turns = filler.turn_neck_deg, filler.turn_opening_deg
    return [
        FillerPiece("neck on the tank", port.stands_mm, 0.0, 0.0, filler.overlap_mm),
        FillerPiece("fill hose", filler.hose_mm, *turns, filler.overlap_mm),
        FillerPiece("vent hose beside it", filler.vent_mm, *turns, filler.overlap_mm),
        FillerPiece("pipe behind the opening", route.stub_mm, 0.0, _off_body(route), filler.overlap_mm),
    ]


def _off_body(route: FillerRoute) -> float:
    """How far off square the pipe meets the body's side."""
    return degrees(float(np.arccos(np.clip(axis_of(route) @ np.array(OUTWARD[route.side]), -1.0, 1.0))))


@dataclass(frozen=True, slots=True)
class OldMeasured:
    """A measurement that needs the old tank in its place.

    Attributes
    ----------
    drawn_mm, measured_mm : float or None
        As drawn, where the drawing says it; as taken, None where it isn't.
    """

    name: OldMeasureName
    drawn_mm: float | None
    measured_mm: float | None

    @property
    def off_mm(self) -> float:
        """How far the two are apart; nothing where one isn't known."""
        if self.drawn_mm is None or self.measured_mm is None:
            return 0.0
        return abs(self.drawn_mm - self.measured_mm)


def old_measured(mount: Mount) -> list[OldMeasured]:
    """Everything that can only be measured while the old tank is in.

    Parameters
    ----------
    mount : Mount
        The opening, and what was measured.

    Returns
    -------
    list of OldMeasured
        Empty where there is no old tank, or no opening in the body.
    """
    route = mount.filler
    if route is None or mount.old_tank == "none":
        return []
    drawn: dict[OldMeasureName, float | None] = {
        "opening from the bay's rear": route.x_mm,
        "opening from the bay's right": route.y_mm,
        "opening over the bay's floor": route.z_mm,
        "pipe behind the opening": route.stub_mm,
        "outside of that pipe": None,
        "old fill hose, cut length": None,
        "old vent hose, cut length": None,
        "old tank's lid over the bay's floor": None,
        "old tank to the body, at the narrowest": None,
    }
    taken = {one.name: one.value_mm for one in mount.old_measures}
    return [OldMeasured(name, value, taken.get(name)) for name, value in drawn.items()]


FILLER_PIECES = study(filler_pieces, MOUNT, PORTS, FILLER)
OLD_MEASURED = study(old_measured, MOUNT)
