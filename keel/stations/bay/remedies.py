"""What makes room in the bay."""

from collections.abc import Iterator

from keel.analysis.tank import TankAnalysis
from keel.design.ports import Port
from keel.design.shell import BoxShell, CylinderShell
from keel.findings.edits import with_port
from keel.findings.finding import Finding, Patch, Remedy
from keel.findings.shell_edits import resized_tank
from keel.solid.box import AXES
from keel.studies.result import words
from keel.studies.space.clearance import GAPS
from keel.studies.space.fit import FIT, first_shell
from keel.studies.space.fouling import FOULING
from keel.studies.space.gap import Gap
from keel.studies.space.opening import GOES_IN
from keel.studies.space.resize import ALONG, SHRUNK, directions, resized, size_along


def clear_the_gap(tank: TankAnalysis, finding: Finding) -> Iterator[Remedy]:
    """Move away, draw the shell in, or fit it to the bay."""
    gap = next(g for g in tank[GAPS] if g.key == finding.subject)
    axis = AXES.index(gap.axis)
    short = tank.marked(gap.needed_mm - _straight_gap(tank, gap))
    position = (f"{AXES[axis]}_mm", getattr(tank.shell, f"{AXES[axis]}_mm"))
    fouls = tank[FOULING][gap.kind, gap.key]
    alone = fouls.ports[0] if len(fouls.ports) == 1 else None
    if alone is not None and fouls.is_hose:
        yield from _hose_elsewhere(tank, alone)
    if alone is not None and axis < 2:
        yield from _moved_aside(tank, alone, axis, gap.toward, short)
    if axis == 2 and fouls.ports and min(port.stands_mm for port in fouls.ports) > short:
        lower = [
            p.model_dump(mode="json") | ({"stands_mm": p.stands_mm - short} if p in fouls.ports else {})
            for p in tank.design.ports
        ]
        yield Remedy(label=words("{name} {less_mm} shorter", name=fouls.name, less_mm=short), patch={"ports": lower})
    yield Remedy(
        label=words("Move the tank {move_mm} away from there", move_mm=short),
        patch={"shell": {position[0]: position[1] - gap.toward * short}},
    )
    yield from _drawn_in(tank, axis, gap.toward, short)
    yield from fit(tank, finding)


def _hose_elsewhere(tank: TankAnalysis, port: Port) -> Iterator[Remedy]:
    """Let its hose leave to either side, or back."""
    for turn in (90, -90, 180):
        way = ((port.hose_deg or 0.0) + turn) % 360
        yield Remedy(
            label=words("Let the hose at {name} leave at {way_deg}", name=port.name, way_deg=way),
            patch=with_port(tank, port.id, hose_deg=way),
        )


def _moved_aside(tank: TankAnalysis, port: Port, axis: int, toward: int, short: float) -> Iterator[Remedy]:
    """Move a port alone, where it stays over the tank."""
    name = f"{AXES[axis]}_mm"
    at = getattr(port, name) - toward * short
    if not 0 < at < tank.solids.body.size[axis]:
        return
    ports = [p.model_dump(mode="json") | ({name: at} if p is port else {}) for p in tank.design.ports]
    yield Remedy(
        label=words("Move {name} {move_mm} away from there", name=port.name, move_mm=short), patch={"ports": ports}
    )


def _drawn_in(tank: TankAnalysis, axis: int, toward: int, short: float) -> Iterator[Remedy]:
    direction = next((d for d in directions(tank.shell) if ALONG.get(d) == axis), None)
    if direction is None and isinstance(tank.shell, CylinderShell):
        direction = "diameter"
    if direction is None:
        return
    size = size_along(tank.shell, direction)
    if size <= short:
        return
    drawn: Patch = resized(tank.shell, direction, size - short)
    if toward < 0:
        name = f"{AXES[axis]}_mm"
        drawn[name] = getattr(tank.shell, name) + short
    yield Remedy(
        label=words("Make it {less_mm} {how} on that side", less_mm=short, how=SHRUNK[direction]),
        patch={"shell": drawn},
    )


def _straight_gap(tank: TankAnalysis, gap: Gap) -> float:
    """The gap along its own axis; for a neighbour past a corner the nearest gap is askew."""
    axis = gap.axis
    return abs(getattr(gap.end, axis) - getattr(gap.start, axis)) if gap.gap_mm >= 0 else gap.gap_mm


def fit(tank: TankAnalysis, _finding: Finding) -> Iterator[Remedy]:
    """The largest shell of this kind that clears everything."""
    placed = tank.get(FIT)
    if placed is not None:
        kind = "box" if isinstance(tank.shell, BoxShell) else "tank of this shape found"
        label = words("Fit it to the bay: the largest {kind} that clears everything", kind=kind)
        yield Remedy(label=label, patch={"shell": _markable(tank, placed)})


def fit_to_bay_offer(tank: TankAnalysis) -> Remedy | None:
    """The largest tank of this kind that clears the bay; a first one where there is no shell yet."""
    placed = tank.get(FIT)
    if placed is None:
        return None
    shell = placed if tank.design.shell else first_shell(placed)
    return Remedy(label=words("Fit to bay"), patch={"shell": _markable(tank, shell)})


ALONG_AXES: dict[str, tuple[str, ...]] = {"length_mm": ("x_mm",), "width_mm": ("y_mm",), "height_mm": ("z_mm",)}


def _markable(tank: TankAnalysis, placed: Patch) -> Patch:
    """A box or a cylinder on whole marks within the space that was found; a profile keeps its shape as it is."""
    if "corners" in placed:
        return placed
    shell = tank.design.shell
    along = f"{shell.axis}_mm" if isinstance(shell, CylinderShell) else ""
    starts: dict[str, float] = {name: tank.marked(placed[name]) for name in ("x_mm", "y_mm", "z_mm") if name in placed}
    across = tuple(name for name in starts if name != along)
    sizes = ALONG_AXES | {"run_mm": (along,), "diameter_mm": across}
    moved = {name: starts[name] - placed[name] for name in starts}
    ends = {}
    for size, names in sizes.items():
        if size in placed:
            left = placed[size] - max((moved.get(name, 0.0) for name in names), default=0.0)
            ends[size] = -tank.marked(-left)
    return placed | starts | ends


def through_the_opening(tank: TankAnalysis, _finding: Finding) -> Iterator[Remedy]:
    """Smaller in the direction that is too large."""
    answer = tank.get(GOES_IN)
    if answer is None:
        return
    for direction in directions(tank.shell):
        less = -answer.room_mm
        if less < size_along(tank.shell, direction) / 2:
            yield resized_tank(tank, direction, -less)
