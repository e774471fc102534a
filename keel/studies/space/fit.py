"""Fit to bay: the largest shell of the chosen kind and proportions that clears everything."""

from typing import Any

from keel.analysis.parts import ENVELOPE, SCANS, WORKSHOP, only
from keel.analysis.study import Maybe, study
from keel.design.document import Design
from keel.design.features import Baffle, Partition, Pot
from keel.design.shell import BoxShell
from keel.design.workshop import Workshop
from keel.solid.box import Cuboid, solid_of
from keel.solid.build import build
from keel.solid.envelope import Envelope, envelope_of
from keel.solid.faults import GeometryError
from keel.solid.neighbours import Scans
from keel.solid.solids import AnyShell
from keel.solid.standing import stands_out
from keel.studies.space.clearance import all_clear, boxes_of
from keel.studies.space.free_space import largest_spaces
from keel.studies.space.largest_fit import Overhang, Placement, grown_into, overhang_of
from keel.studies.space.resize import changed

BLENDS = 7
STANDS_INSIDE = (Baffle, Partition, Pot)


def fit_to_bay(
    design: Design, workshop: Workshop, envelope: Envelope | None = None, scans: Scans | None = None
) -> Placement | None:
    """The largest shell, of the design's kind, proportions, metal and bends, that clears the bay.

    Parameters
    ----------
    design : Design
        Its shell tells kind, thickness, radius and how sizes are measured; where there is none yet,
        a box with the defaults of `BoxShell` is fitted.
    workshop : Workshop
        House rules for clearances and flanges.
    envelope : Envelope, optional
        The present shell with all that stands out from it.
    scans : mapping, optional
        Kept scans by fingerprint.

    Returns
    -------
    dict or None
        The fields of the shell to set, or None without a bay, or when nothing that can be made fits.

    Notes
    -----
    A box among boxes is found exactly (`largest_spaces`). Other shapes are grown: for each stretch along
    the axis that neighbours leave, the section is widened face by face until nothing gives, from several
    starts; the largest found is given. A neighbour that is not the same all along the axis counts at its
    widest there.
    """
    if design.bay is None:
        return None
    like = design.shell or BoxShell(length_mm=1000, width_mm=1000, height_mm=1000)
    over = _overhang(like, design, workshop, envelope)
    if isinstance(like, BoxShell) and boxes_of(design.bay) is not None:
        return _box_in_boxes(like, design, workshop, over)
    careful = grown_into(like, design.bay, workshop, over, scans or {})
    stands = any(stands_out(port) for port in design.ports)
    if careful is None or not stands or design.shell is None:
        return careful
    plain = Design.model_copy(design, update={"ports": ()})
    over = _overhang(like, plain, workshop, _envelope(plain, like, workshop))
    bold = grown_into(like, design.bay, workshop, over, scans or {})
    return careful if bold is None else _between(careful, bold, design, workshop, scans or {})


def _envelope(design: Design, shell: AnyShell, workshop: Workshop) -> Envelope:
    """All that has to clear of a design with another shell."""
    lip = 0.0
    if isinstance(shell, BoxShell):
        lip = _lip(shell, design, workshop)
    return envelope_of(build(_outside_only(shell), design.sheet.making), lip, design.ports)


def _lip(shell: BoxShell, design: Design, workshop: Workshop) -> float:
    """How far the wrapper stands out beyond each end [mm]."""
    return solid_of(shell, design.sheet.making, design.sheet.flange_mm, workshop.rules).lip


def _outside_only(shell: AnyShell) -> AnyShell:
    """A shell without what stands inside it."""
    return shell.model_copy(update={"features": tuple(f for f in shell.features if not isinstance(f, STANDS_INSIDE))})


def _between(careful: Placement, bold: Placement, design: Design, workshop: Workshop, scans: Scans) -> Placement:
    """What stands on the lid counts as if all the lid were that high in `careful`, not at all in `bold`.

    The furthest on the way from the one to the other that truly clears, by halving.
    """
    assert design.shell is not None and design.bay is not None
    low, best = 0.0, careful
    high = 1.0
    for step in range(BLENDS):
        share = 1.0 if step == 0 else (low + high) / 2
        fields = _blend(careful, bold, share)
        try:
            envelope = _envelope(design, changed(design.shell, fields), workshop)
        except (GeometryError, ValueError):
            high = share
            continue
        if all_clear(design.bay, envelope, workshop.rules, scans):
            low, best = share, fields
            if share == 1.0:
                break
        else:
            high = share
    return best


def _blend(a: Any, b: Any, share: float) -> Any:
    """Numbers part of the way from one document to another of the same make."""
    if isinstance(a, dict):
        return {key: _blend(value, b[key], share) for key, value in a.items()}
    if isinstance(a, list | tuple):
        return [_blend(x, y, share) for x, y in zip(a, b, strict=True)]
    return a + (b - a) * share if isinstance(a, float | int) else a


def _overhang(like: AnyShell, design: Design, workshop: Workshop, envelope: Envelope | None) -> Overhang:
    if design.shell is not None and envelope is not None:
        return overhang_of(envelope, build(design.shell, design.sheet.making).body)
    if not isinstance(like, BoxShell):
        return Overhang((0, 0, 0), (0, 0, 0))
    lip = _lip(like, design, workshop)
    lips = (lip, 0.0, 0.0) if like.wrap_axis == "x" else (0.0, lip, 0.0)
    return Overhang(lips, lips)


def _box_in_boxes(like: BoxShell, design: Design, workshop: Workshop, over: Overhang) -> Placement | None:
    assert design.bay is not None
    best: Placement | None = None
    most = 0.0
    for space in largest_spaces(design.bay, workshop.rules):
        if space.volume_mm3 <= most:
            break
        shell = _box_shell_in(space, like, over)
        if shell is None:
            continue
        volume = solid_of(shell, design.sheet.making, design.sheet.flange_mm, workshop.rules).volume_mm3
        if volume > most:
            most, best = volume, placement(shell)
    return best


def _box_shell_in(space: Cuboid, like: BoxShell, over: Overhang) -> BoxShell | None:
    inner = space.grown((-over.low[0], -over.low[1], -over.low[2]), (-over.high[0], -over.high[1], -over.high[2]))
    inside = like.measured == "inside"
    sizes = {
        name: inner.size[i] - (like.walls_mm(name) if inside else 0.0)
        for i, name in enumerate(("length_mm", "width_mm", "height_mm"))
    }
    place = {"x_mm": inner.low[0], "y_mm": inner.low[1], "z_mm": inner.low[2]}
    try:
        shell = changed(like, place | sizes)
        build(shell)
    except (GeometryError, ValueError):
        return None
    assert isinstance(shell, BoxShell)
    return shell


def first_shell(placed: Placement) -> dict[str, Any]:
    """A whole shell, every default written out, for a design that has none yet.

    Parameters
    ----------
    placed : Placement
        Place and size of a box that fits.

    Returns
    -------
    dict
        A shell as the document writes it.
    """
    return BoxShell.model_validate(placed).model_dump(mode="json")


def placement(shell: BoxShell) -> Placement:
    """The fields of a box that say where it is and how large [mm]."""
    names = ("x_mm", "y_mm", "z_mm", "length_mm", "width_mm", "height_mm")
    return {name: getattr(shell, name) for name in names}


FIT = study(fit_to_bay, only("bay", "sheet", "ports", "shell?"), WORKSHOP, Maybe(ENVELOPE), SCANS).at_rest()
