"""Whether what hangs from a flange reaches the floor, goes in, clears and lands; and how it is cut."""

from collections.abc import Sequence
from dataclasses import dataclass

from manifold3d import Manifold

from keel.analysis.parts import PORTS, RULES, SOLIDS
from keel.analysis.study import study
from keel.design.ports import DRAWS, Hanger, Port
from keel.design.workshop import HouseRules
from keel.solid.solids import Solids
from keel.studies.liquid.draining import inlet_off_mm, seat_height, short_by_mm
from keel.studies.ports.hung_solids import floor_under, hanging, names_outside
from keel.studies.result import Words, in_words, words


@dataclass(frozen=True, slots=True)
class CutStep:
    """One step of the hanger's cut sheet."""

    what: str
    length_mm: float | None
    how: Words
    undone: bool
    """Whether it can be undone; before one that can't, the second measurement has to agree."""


@dataclass(frozen=True, slots=True)
class Reach:
    """One hanger at its place. A negative `short_mm` is what has to be cut off."""

    id: str
    name: str
    depth_mm: float
    made_for_mm: float
    short_mm: float
    too_long_mm: float
    """What it stays too long by with bracket and tube cut to their least."""
    drop_mm: float
    """Flange seat to inlet, as it has to be."""
    inlet_off_mm: float
    second_mm: float | None
    agrees: bool | None
    """Whether the second measurement agrees; empty before it is taken."""
    steps: list[CutStep]


@dataclass(frozen=True, slots=True)
class Hung:
    """What hangs from a port, hanger or not: through its hole, clear of everything."""

    id: str
    name: str
    passes: bool | None
    """Whether it passes its own hole; empty where sizes are missing."""
    hole_mm: float | None
    widest_mm: float
    meets: list[str]


def reaches(solids: Solids, ports: Sequence[Port], rules: HouseRules) -> list[Reach]:
    """Every hanger in the roof against the depth at its place.

    Parameters
    ----------
    solids : Solids
        The shell worked out.
    ports : sequence of Port
        Ports of the design.
    rules : HouseRules
        House rules.

    Returns
    -------
    list of Reach
        A row a hanger [mm].
    """
    found = []
    for port in ports:
        if port.hanger is None or port.role not in DRAWS or port.face != "roof":
            continue
        floor = floor_under(solids, port)
        if floor is not None:
            found.append(_reach(solids, port, port.hanger, floor, rules))
    return found


def _reach(solids: Solids, port: Port, hanger: Hanger, floor: float, rules: HouseRules) -> Reach:
    depth = seat_height(solids, port) - floor
    off = inlet_off_mm(port)
    drop = depth + rules.sleeve_mm if hanger.sprung else depth - off
    second = hanger.measured_mm
    bracket, tube = _lengths(hanger, depth, drop)
    return Reach(
        id=port.id,
        name=port.name,
        depth_mm=depth,
        made_for_mm=hanger.made_for_mm,
        short_mm=short_by_mm(solids, port, floor),
        too_long_mm=max(0.0, 2 * hanger.grip_mm - tube),
        drop_mm=drop,
        inlet_off_mm=off,
        second_mm=second,
        agrees=None if second is None else abs(second - depth) <= rules.measure_mm,
        steps=_cut_sheet(hanger, bracket, max(tube, 2 * hanger.grip_mm), drop, rules),
    )


def _lengths(hanger: Hanger, depth: float, drop: float) -> tuple[float, float]:
    """Bracket and tube that bring the inlet to its place: the bracket gives first, no further than it may [mm]."""
    surplus = max(0.0, hanger.made_for_mm + hanger.extend_mm - depth)
    bracket = max(min(hanger.bracket_least_mm, hanger.bracket_mm), hanger.bracket_mm - surplus)
    return bracket, drop - bracket - hanger.pump_mm - hanger.strainer_mm + 2 * hanger.grip_mm


def _cut_sheet(hanger: Hanger, bracket: float, tube: float, drop: float, rules: HouseRules) -> list[CutStep]:
    """Bracket first, then the tube: each with its grip; what must be slid on stands before the piece it goes on."""
    steps = []
    less = hanger.bracket_mm - bracket
    if less > rules.measure_mm:
        how = words("{made_mm} as supplied less {less_mm}", made_mm=hanger.bracket_mm, less_mm=less)
        if bracket <= hanger.bracket_least_mm:
            how = words(how.text + ", the least that it may be; the tube gives the rest", **how.values)
        steps.append(CutStep("bracket", bracket, how, False))
    if hanger.grip_mm:
        steps.append(CutStep("clamps", None, words("slide both on before the tube's second end is pushed home"), True))
    steps.append(CutStep("tube", tube, _tube_sum(hanger, bracket, drop, rules), False))
    if hanger.strainer_mm:
        steps.append(CutStep("strainer", None, words("push on last, pull on it: it must not come off"), True))
    return steps


def _tube_sum(hanger: Hanger, bracket: float, drop: float, rules: HouseRules) -> Words:
    """How a tube's length comes about; what the hanger doesn't have isn't named."""
    parts = {"bracket": bracket, "pump": hanger.pump_mm, "strainer": hanger.strainer_mm}
    less = in_words([f"{name} {{{name}_mm}}" for name, size in parts.items() if size])
    said = "{drop_mm} from seat to inlet"
    if less:
        said += f" less {less}"
    if hanger.grip_mm:
        said += ", with {grip_mm} more in each clamp"
    if hanger.sprung:
        said += "; {sleeve_mm} of it squeezes the sleeve"
    sizes = {f"{name}_mm": size for name, size in parts.items()}
    values = {"drop_mm": drop, **sizes, "grip_mm": hanger.grip_mm, "sleeve_mm": rules.sleeve_mm}
    return Words(said, {name: value for name, value in values.items() if f"{{{name}}}" in said})


def hung(solids: Solids, ports: Sequence[Port]) -> list[Hung]:
    """Everything that hangs: whether it goes through its hole, and what it meets inside."""
    solid_of = {port.id: solid for port in ports if (solid := hanging(solids, port)) is not None}
    found = []
    for port in ports:
        widest = max(port.hangs_across_mm, port.diagonal_mm)
        if not widest and port.id not in solid_of:
            continue
        hole = port.seat.hole_mm if port.seat else None
        meets = [] if port.id not in solid_of else names_outside(solids, solid_of[port.id])
        meets += [
            p.name
            for p in ports
            if p.id != port.id
            and p.id in solid_of
            and port.id in solid_of
            and _cross(solid_of[p.id], solid_of[port.id])
        ]
        found.append(
            Hung(port.id, port.name, None if hole is None or not widest else widest <= hole, hole, widest, meets)
        )
    return found


def _cross(a: Manifold, b: Manifold) -> bool:
    return bool((a ^ b).volume() > 1.0)


REACHES = study(reaches, SOLIDS, PORTS, RULES)
HUNG = study(hung, SOLIDS, PORTS)
