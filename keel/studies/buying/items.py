"""One thing to buy, and how alike ones come together."""

from collections.abc import Iterable
from dataclasses import dataclass
from typing import Literal

from keel.design.buying import BuyingUnit
from keel.studies.result import Words

ItemKind = Literal[
    "hose", "hose end", "tube", "tube end", "adapter", "clamp", "grommet", "cap", "part", "wire", "wire end", "device",
    "bond", "tank fitting", "sheet", "consumable", "spare", "own",
]  # fmt: skip
MOST_SHOWN = 60


@dataclass(frozen=True, slots=True)
class Item:
    """Something that is needed.

    Attributes
    ----------
    quantity : float
        In its unit.
    needed_for : str
        Where, in a few words.
    at : str
        The connection that it is the mate of, as "part.port"; empty: of none.
    """

    kind: ItemKind
    name: Words
    quantity: float
    unit: BuyingUnit = "each"
    needed_for: str = ""
    at: str = ""
    price: float | None = None

    @property
    def key(self) -> str:
        """Its name in metric units: by that it is found again."""
        return self.name.plain()


@dataclass(frozen=True, slots=True)
class Gathered:
    """All alike items as one."""

    kind: ItemKind
    name: Words
    key: str
    quantity: float
    unit: BuyingUnit
    needed_for: list[str]
    price: float | None


def gathered(items: Iterable[Item]) -> list[Gathered]:
    """Alike items together, in the order in which each first comes.

    Parameters
    ----------
    items : iterable of Item
        One by one.

    Returns
    -------
    list of Gathered
        Alike are those of one kind, name and unit.
    """
    alike: dict[tuple[str, str, str], list[Item]] = {}
    for item in items:
        alike.setdefault((item.kind, item.key, item.unit), []).append(item)
    return [
        Gathered(
            kind=several[0].kind,
            name=several[0].name,
            key=several[0].key,
            quantity=sum(item.quantity for item in several),
            unit=several[0].unit,
            needed_for=list(dict.fromkeys(item.needed_for for item in several if item.needed_for))[:MOST_SHOWN],
            price=next((item.price for item in several if item.price is not None), None),
        )
        for several in alike.values()
    ]
