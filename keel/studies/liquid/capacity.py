"""How much the shell holds: brimful, ullage, trapped air, rated, cell by cell, with every step of the sum."""

from collections.abc import Sequence
from dataclasses import dataclass
from math import exp, pi

from keel.analysis.parts import BOX, FUEL, INSIDE, RULES, SOLIDS
from keel.analysis.study import study
from keel.design.inside import Inside
from keel.design.shell import CylinderShell
from keel.design.workshop import HouseRules
from keel.reference.fuels import FUELS, FuelName
from keel.reference.metals import METALS
from keel.reference.units import MM3_PER_LITRE
from keel.solid.box import BoxSolid
from keel.solid.rings import ring_area
from keel.solid.solids import AnyShell, Solids
from keel.studies.liquid.draining import LEVEL, Drained
from keel.studies.result import Words, words

SEEN_L = 1e-5
"""A rest of the sum below this is of rounds that are chords in the solid [L]."""


@dataclass(frozen=True, slots=True)
class CapacityLine:
    """One step of the sum, so that a doubter can follow it by hand."""

    what: str
    litres: float
    how: Words


@dataclass(frozen=True, slots=True)
class CellCapacity:
    """Litres of one cell; what it can't be known without is empty."""

    cell: str
    brimful_l: float
    trapped_l: float | None
    rated_l: float
    stranded_l: float | None
    usable_l: float | None


@dataclass(frozen=True, slots=True)
class Capacity:
    """Litres the shell holds.

    `usable_l` is rated capacity less what is stranded on the level; empty unless every cell has a pickup.
    """

    brimful_l: float
    ullage_fraction: float
    ullage_l: float
    trapped_l: float
    rated_l: float
    stranded_l: float | None
    usable_l: float | None
    why_none: Words | None
    """Why there is no usable figure."""
    lines: list[CapacityLine]
    not_counted: list[CapacityLine]
    cells: list[CellCapacity]


def ullage_fraction(expansion_per_k: float, rise_k: float, shell_expansion_per_k: float, least: float) -> float:
    """Share of the brimful volume to leave empty for warming.

    Parameters
    ----------
    expansion_per_k : float
        Fuel's volume expansion β [1/K].
    rise_k : float
        Warming to allow for, ΔT [K].
    shell_expansion_per_k : float
        Shell metal's linear expansion α [1/K]; 0 leaves the shell's own growth out.
    least : float
        The share never goes below this.

    Returns
    -------
    float
        max(least, exp(β ΔT) − 1 − ((1 + α ΔT)³ − 1)).

    Notes
    -----
    Fuel grows by exp(β ΔT) (β constant), the shell's inside by (1 + α ΔT)³.
    """
    fuel = exp(expansion_per_k * rise_k) - 1
    shell = (1 + shell_expansion_per_k * rise_k) ** 3 - 1
    return max(least, fuel - shell)


def ullage_for(fuel: FuelName, shell: AnyShell, rules: HouseRules) -> float:
    """Ullage fraction for a fuel in a shell's metal by the house rules.

    Parameters
    ----------
    fuel : FuelName
        Name of the fuel.
    shell : AnyShell
        The shell.
    rules : HouseRules
        House rules.

    Returns
    -------
    float
        Share of brimful, 0 to 1.
    """
    return ullage_fraction(
        FUELS[fuel].expansion_per_k, rules.ullage_rise_k, METALS[shell.metal].expansion_per_k, rules.ullage_least
    )


def capacity(
    fuel: FuelName,
    solids: Solids,
    box: BoxSolid | None,
    rules: HouseRules,
    level: Sequence[Drained],
    fillings: Inside | None = None,
) -> Capacity:
    """Brimful, rated and usable capacity of a shell.

    Parameters
    ----------
    fuel, rules
        Fuel and the ullage rule.
    solids : Solids
        The shell worked out.
    box : BoxSolid or None
        The same as plates and corner radii, where it is a box.
    level : sequence of Drained
        Each cell drained and filled on the level.
    fillings : Inside, optional
        Foam and bladder, which are in the solids already.

    Returns
    -------
    Capacity
        Litres, with each step of the sum. rated = brimful · (1 − ullage) − trapped air.
    """
    brimful, fraction = solids.brimful_l, ullage_for(fuel, solids.shell, rules)
    ullage = brimful * fraction
    cells = [_cell(cell, fraction) for cell in level]
    trapped = sum(cell.trapped_l or 0.0 for cell in level)
    stranded = None if any(cell.stranded_l is None for cell in level) else sum(c.stranded_l or 0.0 for c in level)
    rated = sum(cell.rated_l for cell in cells)
    inside = _box_lines(box) if box else _body_lines(solids)
    features = [_feature_line(solids, place) for place in range(len(solids.costs))]
    lines = [*inside, *features]
    lines += _filling_lines(solids, fillings or Inside(), sum(line.litres for line in lines))
    rest = brimful - sum(line.litres for line in lines)
    if abs(rest) > SEEN_L:
        lines.append(CapacityLine("Spaces too small to fill", rest, words("cut off by features")))
    lines.append(_ullage_line(ullage, fraction, fuel, rules))
    if trapped > 0:
        lines.append(
            CapacityLine("Trapped air", -trapped, words("on the level, air that can't get to the vent or filler"))
        )
    return Capacity(
        brimful_l=brimful,
        ullage_fraction=fraction,
        ullage_l=ullage,
        trapped_l=trapped,
        rated_l=rated,
        stranded_l=stranded,
        usable_l=None if stranded is None else max(0.0, rated - stranded),
        why_none=_why_none(level),
        lines=lines,
        not_counted=[_groove_line(box)] if box else [],
        cells=cells,
    )


def _why_none(level: Sequence[Drained]) -> Words | None:
    """Why no litres count as usable."""
    dry = [cell.cell for cell in level if cell.stranded_l is None]
    if not dry:
        return None
    return words("none: nothing draws from the {cells}", cells=" and the ".join(dry))


def _filling_lines(solids: Solids, fillings: Inside, box_l: float) -> list[CapacityLine]:
    """What a bag and foam take off the litres of the bare shell."""
    lines = []
    bag_l = sum(cell.mesh.volume_mm3 / cell.mesh.porosity for cell in solids.cells) / MM3_PER_LITRE
    bladder, foam = fillings.bladder, fillings.foam
    if bladder is not None:
        how = words(
            "{bag_sheet} of bag and {shrink_mm} off the box all round",
            bag_sheet=bladder.bag_mm,
            shrink_mm=bladder.shrink_mm,
        )
        lines.append(CapacityLine("Bladder", bag_l - box_l, how))
    if foam is not None:
        how = words("takes {share_pct} of the space, evenly", share_pct=foam.takes)
        lines.append(CapacityLine("Foam", -foam.takes * bag_l, how))
    return lines


def _cell(cell: Drained, fraction: float) -> CellCapacity:
    rated = max(0.0, cell.brimful_l * (1 - fraction) - (cell.trapped_l or 0.0))
    return CellCapacity(
        cell=cell.cell,
        brimful_l=cell.brimful_l,
        trapped_l=cell.trapped_l,
        rated_l=rated,
        stranded_l=cell.stranded_l,
        usable_l=None if cell.stranded_l is None else max(0.0, rated - cell.stranded_l),
    )


def _box_lines(solid: BoxSolid) -> list[CapacityLine]:
    length, width, height = solid.inner.size
    run = solid.inner.size[solid.wrap]
    return [
        CapacityLine(
            what="Between the plates",
            litres=solid.inner.volume_mm3 / MM3_PER_LITRE,
            how=words(
                "{length_mm} × {width_mm} × {height_mm} inside", length_mm=length, width_mm=width, height_mm=height
            ),
        ),
        CapacityLine(
            what="Corner radii",
            litres=-solid.corner_loss_mm2 * run / MM3_PER_LITRE,
            how=words(
                "{bends} bends, each (1 − π/4) × ({radius_sheet})² × {run_mm}",
                bends=4 - len(solid.welded),
                radius_sheet=solid.radius,
                run_mm=run,
            ),
        ),
        *_end_bends(solid),
    ]


def _end_bends(solid: BoxSolid) -> list[CapacityLine]:
    """What the radii of ends that are bent up from the floor take."""
    if not solid.bent_ends:
        return []
    how = words(
        "{bends} bends, each (1 − π/4) × ({radius_sheet})² × {run_mm}; where bends meet in a corner counted once",
        bends=solid.bent_ends,
        radius_sheet=solid.radius,
        run_mm=solid.inner.size[solid.across],
    )
    return [CapacityLine("Radii of the ends", -solid.ends_loss_mm3 / MM3_PER_LITRE, how)]


def _body_lines(solids: Solids) -> list[CapacityLine]:
    shell, section = solids.shell, solids.section
    run = section.inner_span[1] - section.inner_span[0]
    if isinstance(shell, CylinderShell):
        bore = shell.diameter_mm - 2 * shell.thickness_mm
        if shell.dish_mm:
            return [
                CapacityLine(
                    "Cylinder and dished ends",
                    solids.body_inner_l,
                    words("π/4 × ({bore_mm})² × {run_mm} and two caps of a sphere", bore_mm=bore, run_mm=shell.run_mm),
                )
            ]
        how = words("π/4 × ({bore_mm})² × {run_mm} between the ends", bore_mm=bore, run_mm=run)
        return [CapacityLine("Cylinder inside", pi / 4 * bore**2 * run / MM3_PER_LITRE, how)]
    area = ring_area(section.inner)
    how = words(
        "profile inside the metal {area_cm2}, bends and rolls counted, × {run_mm} between the ends",
        area_cm2=area / 100,
        run_mm=run,
    )
    return [CapacityLine("Profile drawn out", area * run / MM3_PER_LITRE, how)]


def _feature_line(solids: Solids, place: int) -> CapacityLine:
    cost = solids.costs[place]
    length, width, height = cost.box.size
    return CapacityLine(
        what=cost.name,
        litres=cost.litres,
        how=words(
            "{kind}, {length_mm} × {width_mm} × {height_mm} over all, its metal counted; what came before it "
            "in the list is already off",
            kind=cost.kind,
            length_mm=length,
            width_mm=width,
            height_mm=height,
        ),
    )


def _ullage_line(ullage: float, fraction: float, fuel: FuelName, rules: HouseRules) -> CapacityLine:
    return CapacityLine(
        what="Ullage",
        litres=-ullage,
        how=words(
            "{share_pct} of brimful: {fuel} warmed by {rise_k}, the shell's own growth taken off; "
            "never under {least_pct} (house rules)",
            share_pct=fraction,
            fuel=fuel,
            rise_k=rules.ullage_rise_k,
            least_pct=rules.ullage_least,
        ),
    )


def _groove_line(solid: BoxSolid) -> CapacityLine:
    across, height = solid.inner.size[solid.across], solid.inner.size[2]
    radius = solid.radius + solid.end_thickness
    groove = (1 - pi / 4) * radius**2 * 2 * (across + height) * 2
    return CapacityLine(
        what="Groove behind the end pans' bends",
        litres=groove / MM3_PER_LITRE,
        how=words(
            "(1 − π/4) × ({radius_sheet})² round both pans; left out, so the figure errs low", radius_sheet=radius
        ),
    )


def ullage_fraction_of(held: Capacity) -> float:
    """The share of brimful that is left empty."""
    return held.ullage_fraction


CAPACITY = study(capacity, FUEL, SOLIDS, BOX, RULES, LEVEL, INSIDE)
ULLAGE = study(ullage_fraction_of, CAPACITY).by_value()
