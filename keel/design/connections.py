"""What is at the end of a part, a hose or a tube: standard, size, hand, seal, bore."""

from typing import Annotated

from pydantic import Field, model_validator

from keel.design.base import Bore, Gap, Part, refuse
from keel.reference.compatibility import SealName
from keel.reference.connections import SEALS, SIZES, Hand, SealKind, Size, Standard


class Connection(Part):
    """One side of a joint."""

    standard: Standard = "37° flare"
    size: Annotated[str, Field(max_length=20)] = Field(default="-6", description="A size of that standard")
    hand: Hand = "male"
    seal: SealName | None = Field(default=None, description="What its rubber is made of, where it seals by any")
    bore_mm: Bore | None = Field(default=None, description="Smallest bore inside [mm]; empty: the size's usual one")
    sealant: bool = Field(default=False, description="Tape or paste goes on its thread")

    @model_validator(mode="after")
    def _size_is_of_the_standard(self) -> "Connection":
        known = SIZES[self.standard]
        if self.size not in known:
            message = f"{self.standard} has no size '{self.size}': it comes as {', '.join(known)}"
            refuse(message, field="size", value=self.size, limit=f"one of {', '.join(known)}")
        return self

    @property
    def sized(self) -> Size:
        """Its size."""
        return SIZES[self.standard][self.size]

    @property
    def bore(self) -> float:
        """Smallest bore [mm]."""
        return self.sized.bore_mm if self.bore_mm is None else self.bore_mm

    @property
    def seals_by(self) -> SealKind:
        """What makes it tight."""
        return SEALS[self.standard]


class Adapter(Part):
    """A piece between a part's connection and a line's end that don't fit each other."""

    part_side: Connection
    line_side: Connection
    bore_mm: Bore | None = Field(default=None, description="Bore right through [mm]; empty: the lesser of its ends'")
    length_mm: Gap = Field(default=0, description="From seat to seat [mm]")
    special: bool = Field(default=False, description="Made for this job: it has a sheet of its own")

    @property
    def bore(self) -> float:
        """Smallest bore through it [mm]."""
        ends = min(self.part_side.bore, self.line_side.bore)
        return ends if self.bore_mm is None else min(ends, self.bore_mm)
