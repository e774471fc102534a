"""The design document: the one definition that the API, the types and the schema come from."""

from collections.abc import Iterator
from contextlib import contextmanager
from difflib import get_close_matches
from typing import Annotated, Any, Literal

from pydantic import ConfigDict, Field, ValidationError, model_validator

from keel.design.base import Part, refuse, with_kind
from keel.design.bay import Bay
from keel.design.brief import Brief
from keel.design.buying import Buying
from keel.design.faults import fault_of
from keel.design.gauge import Gauge
from keel.design.inside import Inside
from keel.design.lines import Lines
from keel.design.mount import Mount
from keel.design.ports import MOST_PORTS, Filling, Port
from keel.design.proof import Proof
from keel.design.sheet import SheetScheme
from keel.design.shell import BoxShell, Shell
from keel.design.slosh import Slosh
from keel.design.wiring import Wiring

VERSION = 1
OLD_METHOD = "school"
MOST_FOREIGN_PARTS = 20
ALIKE = 0.75
"""A name as near to a known one as this is a slip of the pen, not another station's part."""
_STATION_PARTS: dict[str, type[Part]] = {}
"""Parts that belong to stations registered for a while, by their name in the document."""


def _declared_alone(schema: dict[str, Any]) -> None:
    schema.pop("additionalProperties", None)


class Design(Part):
    """A tank's design. Lengths in mm, volumes in L, vehicle axes (x forward, y left, z up).

    Parts of stations that are not known here are kept as they are and written back.
    """

    model_config = ConfigDict(extra="allow", json_schema_extra=_declared_alone)

    format: Literal["core-keel/design"] = "core-keel/design"
    version: Literal[1] = 1
    brief: Brief = Brief()
    bay: Annotated[Bay | None, Field(description="Empty until the space has been measured")] = None
    shell: Annotated[Shell | None, Field(description="Empty until there is a shape")] = None
    ports: Annotated[tuple[Port, ...], Field(max_length=MOST_PORTS, strict=False)] = ()
    filling: Filling = Filling()
    gauge: Gauge = Gauge()
    inside: Inside = Inside()
    slosh: Slosh = Slosh()
    sheet: SheetScheme = SheetScheme()
    proof: Proof = Proof()
    mount: Mount = Mount()
    lines: Lines = Lines()
    wiring: Wiring = Wiring()
    buying: Buying = Buying()

    @model_validator(mode="before")
    @classmethod
    def _a_shell_is_a_box_unless_it_says(cls, document: Any) -> Any:
        return with_kind(document, "shell")

    @model_validator(mode="before")
    @classmethod
    def _foreign_parts_are_objects(cls, document: Any) -> Any:
        if not isinstance(document, dict):
            return document
        foreign = {name: part for name, part in document.items() if name not in cls.model_fields}
        for name, part in foreign.items():
            meant = get_close_matches(str(name), cls.model_fields, 1, ALIKE)
            if meant or not isinstance(part, dict | Part):
                message = f"'{name}' is not a field here" + (f"; did you mean '{meant[0]}'?" if meant else "")
                refuse(message, field=str(name)[:80], value=type(part).__name__, limit="a field of the format")
        if len(foreign) > MOST_FOREIGN_PARTS:
            message = f"{len(foreign)} parts of unknown stations: at most {MOST_FOREIGN_PARTS} are kept"
            refuse(message, field="", value=len(foreign), limit=MOST_FOREIGN_PARTS)
        known = {name: _read(name, part) for name, part in foreign.items() if name in _STATION_PARTS}
        return document | known

    @model_validator(mode="after")
    def _flange_fits(self) -> "Design":
        flange, shell = self.sheet.flange_mm, self.shell
        if flange is None or not isinstance(shell, BoxShell):
            return self
        least = shell.end_wall_mm + shell.bend_radius_mm
        if flange < least:
            refuse(
                f"a {flange:g} mm flange is lost in its own bend: it must be {least:g} mm or more "
                f"(thickness {shell.end_wall_mm:g} + inside radius {shell.bend_radius_mm:g})",
                field="sheet.flange_mm",
                value=flange,
                limit=least,
            )
        return self


def _read(name: str, part: Any) -> Part:
    """A station's part, with the first of its faults named by its place in the document."""
    try:
        return _STATION_PARTS[name].model_validate(part)
    except ValidationError as error:
        fault = fault_of(error.errors(include_url=False)[0], name)
        refuse(fault.message, field=fault.field, value=fault.value, limit=fault.limit)


@contextmanager
def with_part(name: str, model: type[Part]) -> Iterator[None]:
    """Know one station's part more for a while.

    Parameters
    ----------
    name : str
        Name of the station, as the document writes it.
    model : type[Part]
        What the part looks like.

    Returns
    -------
    iterator of None
        A context; the part is unknown again after it.
    """
    _STATION_PARTS[name] = model
    try:
        yield
    finally:
        del _STATION_PARTS[name]


def upgrade(document: Any) -> Any:
    """Bring a stored document of an older format version up to the present one.

    Parameters
    ----------
    document : Any
        Parsed JSON. Documents of the present version, and things that are no design
        at all, come back as they are for validation to judge.

    Returns
    -------
    Any
        The document for `Design.model_validate`.
    """
    if isinstance(document, dict):
        _refuse_newer(document.get("version"))
    document = _arms_by_method(document)
    slosh = document.get("slosh") if isinstance(document, dict) else None
    if not isinstance(slosh, dict) or "foam" not in slosh:
        return document
    # Foam was once a switch of the slosh run.
    inside = document.get("inside") or {}
    if slosh["foam"] is True and isinstance(inside, dict):
        inside = {"foam": {}} | inside
    return document | {"slosh": {name: value for name, value in slosh.items() if name != "foam"}, "inside": inside}


def _arms_by_method(document: Any) -> Any:
    """An arm's method was once called its school."""
    gauge = document.get("gauge") if isinstance(document, dict) else None
    if not isinstance(gauge, dict) or not isinstance(gauge.get("senders"), list):
        return document

    def renamed(sender: Any) -> Any:
        action = sender.get("action") if isinstance(sender, dict) else None
        if not isinstance(action, dict) or OLD_METHOD not in action:
            return sender
        return sender | {"action": {"method" if name == OLD_METHOD else name: v for name, v in action.items()}}

    return document | {"gauge": gauge | {"senders": [renamed(sender) for sender in gauge["senders"]]}}


class NewerVersionError(ValueError):
    """A document of a format version that is not known yet."""

    def __init__(self, version: int) -> None:
        super().__init__(f"the document is of format version {version}; this Core Keel reads up to version {VERSION}")
        self.version = version


def _refuse_newer(version: Any) -> None:
    if isinstance(version, int) and version > VERSION:
        raise NewerVersionError(version)
