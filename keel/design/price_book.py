"""What small things cost, where they come from and how many are on the shelf, by the name that a buying list has."""

from typing import Annotated

from pydantic import Field

from keel.design.base import Name, Part

Money = Annotated[float, Field(ge=0, le=1e6)]
Supplier = Annotated[str, Field(max_length=80)]


class BookPrice(Part):
    """One line of the price book."""

    name: Name = Field(description="As the buying list names it")
    price: Money | None = Field(default=None, description="Of one, or of a metre")
    supplier: Supplier = ""
    on_shelf: Annotated[float, Field(ge=0, le=1e6)] = Field(default=0, description="Pieces or metres on the shelf")
