"""The design document: the one definition that the API, the types and the schema come from."""

from typing import Annotated, Any, Literal

from pydantic import Field, model_validator

from keel.design.base import Part, refuse, with_kind
from keel.design.bay import Bay
from keel.design.brief import Brief
from keel.design.gauge import Gauge
from keel.design.inside import Inside
from keel.design.ports import MOST_PORTS, Filling, Port
from keel.design.sheet import SheetScheme
from keel.design.shell import BoxShell, Shell
from keel.design.slosh import Slosh

VERSION = 1


class Design(Part):
    """A tank's design. Lengths in mm, volumes in L, vehicle axes (x forward, y left, z up)."""

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

    @model_validator(mode="before")
    @classmethod
    def _a_shell_is_a_box_unless_it_says(cls, document: Any) -> Any:
        return with_kind(document, "shell")

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
    slosh = document.get("slosh") if isinstance(document, dict) else None
    if not isinstance(slosh, dict) or "foam" not in slosh:
        return document
    # Foam was once a switch of the slosh run.
    inside = document.get("inside") or {}
    if slosh["foam"] is True and isinstance(inside, dict):
        inside = {"foam": {}} | inside
    return document | {"slosh": {name: value for name, value in slosh.items() if name != "foam"}, "inside": inside}
