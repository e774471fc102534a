"""What studies read: parts of the design, of the workshop, of what is shown; and the solids made of them."""

from collections.abc import Callable
from typing import Any, TypeVar

from keel.analysis.study import DocumentPart, study
from keel.analysis.tank import Asked
from keel.design.attitude import Attitude
from keel.design.base import Part
from keel.design.bay import Bay
from keel.design.document import Design
from keel.design.shell import BoxShell
from keel.design.vehicle import Vehicle
from keel.design.workshop import Workshop
from keel.reference.clearances import CLEARANCE_MM
from keel.solid.box import BoxSolid, solid_of
from keel.solid.envelope import envelope_of
from keel.solid.interior import solids_of
from keel.solid.solids import AnyShell
from keel.solid.vehicle import bay_in_vehicle

T = TypeVar("T")
P = TypeVar("P", bound=Part)


def vehicle_of(asked: Asked) -> Vehicle | None:
    """The vehicle that the tank is for, where the workshop has it."""
    return asked.workshop.vehicle(asked.design.mount.vehicle)


def bay_of(asked: Asked) -> Bay | None:
    """The bay with what of its vehicle the tank has to clear."""
    bay = asked.design.bay
    clearances, corner = asked.workshop.rules.clearances_mm, asked.design.mount.corner
    return None if bay is None else bay_in_vehicle(bay, vehicle_of(asked), corner, CLEARANCE_MM | clearances)


def _value(asked: Asked, path: str) -> Any:
    if path == "bay":
        return bay_of(asked)
    found: Any = asked.design
    for name in path.split("."):
        found = getattr(found, name)
    return found


def only(*paths: str) -> DocumentPart[Design]:
    """A design with these parts alone, all others as in an empty one.

    Parameters
    ----------
    *paths : str
        Parts, or a part's fields ("sheet.seam"). A shell or a bay that is named has to be there, unless a question
        mark follows ("shell?").

    Returns
    -------
    DocumentPart[Design]
        What a study reads: a design of those parts.
    """
    named = [path.rstrip("?") for path in paths]
    needed = [path for path in paths if path in ("shell", "bay")]
    empty = Design()

    def take(asked: Asked) -> Design:
        values: dict[str, Any] = {}
        for path in named:
            part, _, field = path.partition(".")
            value = _value(asked, path)
            before = values.get(part, getattr(empty, part))
            values[part] = before.model_copy(update={field: value}) if field else value
        return empty.model_copy(update=values)

    return DocumentPart(
        f"design({', '.join(paths)})",
        take,
        content=lambda asked: tuple(_value(asked, path) for path in named),
        is_there=lambda asked: all(_value(asked, path) is not None for path in needed),
    )


def _needed(name: str, take: Callable[[Asked], T | None]) -> DocumentPart[T]:
    """A part that studies can only be run with."""

    def there(asked: Asked) -> T:
        value = take(asked)
        if value is None:
            raise LookupError(f"there is no {name}")
        return value

    return DocumentPart(
        name, there, content=lambda asked: (take(asked),), is_there=lambda asked: take(asked) is not None
    )


BRIEF = DocumentPart("brief", lambda asked: asked.design.brief)
FUEL = DocumentPart("brief.fuel", lambda asked: asked.design.brief.fuel)
BAY: DocumentPart[Bay] = _needed("bay", bay_of)
SHELL: DocumentPart[AnyShell] = _needed("shell", lambda asked: asked.design.shell)
PORTS = DocumentPart("ports", lambda asked: asked.design.ports)
FILLING = DocumentPart("filling", lambda asked: asked.design.filling)
GAUGE = DocumentPart("gauge", lambda asked: asked.design.gauge)
INSIDE = DocumentPart("inside", lambda asked: asked.design.inside)
PROOF = DocumentPart("proof", lambda asked: asked.design.proof)
MOUNT = DocumentPart("mount", lambda asked: asked.design.mount)
STRAPS_DRAWN = DocumentPart("mount.straps", lambda asked: asked.design.mount.straps)
BEARERS_DRAWN = DocumentPart("mount.bearers", lambda asked: asked.design.mount.bearers)
STOPS_DRAWN = DocumentPart("mount.stops", lambda asked: asked.design.mount.stops)
"""What of a mount is worked out by itself: a strap's path doesn't change with a stop."""
LINES = DocumentPart("lines", lambda asked: asked.design.lines)
WIRING = DocumentPart("wiring", lambda asked: asked.design.wiring)
BUYING = DocumentPart("buying", lambda asked: asked.design.buying)
SEAM = DocumentPart("sheet.making", lambda asked: asked.design.sheet.making)
VEHICLE: DocumentPart[Vehicle | None] = DocumentPart("vehicle", vehicle_of)
WORKSHOP: DocumentPart[Workshop] = DocumentPart("workshop", lambda asked: asked.workshop)
RULES = DocumentPart("workshop.rules", lambda asked: asked.workshop.rules)
SCANS = DocumentPart("scans", lambda asked: asked.scans, content=lambda asked: tuple(sorted(asked.scans)))
ATTITUDE: DocumentPart[Attitude] = DocumentPart("attitude", lambda asked: asked.showing.attitude)
FILL_FRACTION = DocumentPart("fill", lambda asked: asked.showing.fill_fraction)
CUTS = DocumentPart("cuts", lambda asked: (asked.showing.cut_x_mm, asked.showing.cut_y_mm))


def _plain_shell(asked: Asked) -> AnyShell | None:
    shell = asked.design.shell
    return None if shell is None else shell.model_copy(update={"features": ()})


PLAIN = DocumentPart(
    "shell without features, sheet",
    lambda asked: Design(shell=_plain_shell(asked), sheet=asked.design.sheet),
    content=lambda asked: (_plain_shell(asked), asked.design.sheet),
    is_there=lambda asked: asked.design.shell is not None,
)
"""What a shell's own flat parts come from."""


def station_part(name: str, model: type[P]) -> DocumentPart[P]:
    """The part of a station that is registered for a while; an empty one where the document has none."""
    return DocumentPart(name, lambda asked: getattr(asked.design, name, None) or model())


def box_as_made(design: Design, workshop: Workshop) -> BoxSolid | None:
    """A box with its lips and corners as its sheet scheme makes them; None for other kinds."""
    if not isinstance(design.shell, BoxShell):
        return None
    return solid_of(design.shell, design.sheet.making, design.sheet.flange_mm, workshop.rules)


def lip_of(box: BoxSolid | None) -> float:
    """How far the wrapper stands out beyond each end plate [mm]."""
    return box.lip if box else 0.0


BOX = study(box_as_made, only("shell", "sheet"), WORKSHOP)
LIP = study(lip_of, BOX).by_value()
SOLIDS = study(solids_of, only("shell", "sheet.seam", "sheet.scheme", "inside")).keeping(12)
ENVELOPE = study(envelope_of, SOLIDS, LIP, PORTS).keeping(12)
"""The shell with its lips and what stands on it."""
