"""The buying list: what is said of its lines, and lines that people add."""

from typing import Annotated, Literal

from pydantic import Field, model_validator

from keel.design.base import Name, Part, refuse
from keel.design.features import Id
from keel.design.price_book import Money, Supplier

MOST_LINES, MOST_OWN = 400, 100
Pieces = Annotated[float, Field(ge=0, le=1e6)]
BuyingUnit = Literal["each", "m", "m²", "kg"]


class BuyingLine(Part):
    """What is said of one line of the list, by its name there; empty: as the price book has it."""

    name: Name
    supplier: Supplier = ""
    price: Money | None = Field(default=None, description="Of one, or of a metre; empty: the price book's")
    on_shelf: Pieces | None = Field(default=None, description="On the shelf; empty: what the price book says")
    ordered: Pieces = Field(default=0, description="Ordered, arrived ones too")


class OwnItem(Part):
    """A line that somebody added."""

    id: Id
    name: Name
    quantity: Annotated[float, Field(gt=0, le=1e6)] = 1
    unit: BuyingUnit = "each"
    spare: bool = Field(default=False, description="A spare to carry")


class Buying(Part):
    """The list for the day; what is on it follows from the design."""

    lines: Annotated[tuple[BuyingLine, ...], Field(max_length=MOST_LINES, strict=False)] = ()
    own: Annotated[tuple[OwnItem, ...], Field(max_length=MOST_OWN, strict=False)] = ()

    @model_validator(mode="after")
    def _once_each(self) -> "Buying":
        for kind, key in (("lines", "name"), ("own", "id")):
            seen: set[str] = set()
            for place, one in enumerate(getattr(self, kind)):
                name = getattr(one, key)
                if name in seen:
                    refuse(f"'{name}' is there twice", field=f"{kind}.{place}.{key}", value=name, limit="each once")
                seen.add(name)
        return self
