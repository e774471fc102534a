"""A design's solids as fuel meets them: the shell, less a bladder's bag, less what foam takes."""

from dataclasses import replace

from keel.design.document import Design
from keel.design.inside import Bladder
from keel.design.shell import BoxShell, ProfileShell
from keel.solid.build import build
from keel.solid.faults import GeometryError, wrong
from keel.solid.polygon import ShapeError
from keel.solid.solids import AnyShell, Cell, Solids


def solids_of(design: Design) -> Solids:
    """The solids of a design that has a shell.

    Parameters
    ----------
    design : Design
        Its shell, its seam, and what fills it.

    Returns
    -------
    Solids
        With a bladder, inside and cells are the bag's, as far off the box all round as the bag is thick and shrunk;
        the rounds of its hollow corners are those of the box. Foam takes its share evenly: the cells' meshes hold
        that much less at every level.

    Raises
    ------
    GeometryError
        For shapes that don't work, and for a bag without room.
    """
    assert design.shell is not None
    return filled(design, design.shell)


def filled(design: Design, shell: AnyShell) -> Solids:
    """The same with another shell in the design's place.

    Parameters
    ----------
    design : Design
        The design.
    shell : AnyShell
        Another shell.

    Returns
    -------
    Solids
        That shell worked out.
    """
    solids, inside = build(shell, design.sheet.making), design.inside
    if inside.bladder is not None:
        solids = _bagged(solids, shell, inside.bladder, design.sheet.making)
    if inside.foam is not None:
        share = 1 - inside.foam.takes
        cells = [Cell(cell.name, cell.solid, replace(cell.mesh, porosity=share)) for cell in solids.cells]
        solids = replace(solids, cells=cells)
    return solids


def _bagged(solids: Solids, shell: AnyShell, bladder: Bladder, seam: str) -> Solids:
    """The box with the bag's inside: that of a box of the same outside whose walls are so much thicker."""
    off = bladder.off_mm
    if 2 * (max(shell.thickness_mm, shell.end_wall_mm) + off) >= min(solids.body.size):
        message = f"a bag {off:g} mm off the box has no room"
        raise wrong("inside.bladder.shrink_mm", message, bladder.shrink_mm, "less")
    more = {
        "thickness_mm": shell.thickness_mm + off,
        "ends_thickness_mm": shell.end_wall_mm + off,
        "features_thickness_mm": shell.feature_wall_mm + off,
    }
    if isinstance(shell, BoxShell | ProfileShell):
        more["bend_radius_mm"] = max(0.0, shell.bend_radius_mm - off)
    thick = shell.model_copy(update=more)
    if isinstance(thick, BoxShell) and thick.measured == "inside":
        length, width, height = solids.body.size
        sizes = {"length_mm": length, "width_mm": width, "height_mm": height}
        thick = thick.model_copy(update={"measured": "outside", **sizes})
    try:
        bag = build(thick, seam)
    except (GeometryError, ShapeError) as error:
        message = f"a bag {off:g} mm off the box has no room: {error}"
        raise wrong("inside.bladder.shrink_mm", message, bladder.shrink_mm, "less") from error
    return replace(solids, inner=bag.inner, cells=bag.cells)
