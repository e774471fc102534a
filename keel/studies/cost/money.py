"""What a tank costs to make by the workshop's own prices."""

from keel.design.document import Design
from keel.design.workshop import Prices
from keel.studies.cost.figures import Figures


def money(design: Design, figures: Figures, prices: Prices) -> float | None:
    """Sheet, seams, and what is bought for the inside.

    Parameters
    ----------
    design : Design
        With a shell.
    figures : Figures
        Its mass and weld.
    prices : Prices
        Of the workshop.

    Returns
    -------
    float or None
        In the workshop's currency: kg × its metal's price + m × a metre of weld + foam by the litre of brimful + bag
        + surge tank. None where one of the prices that it takes isn't typed.
    """
    assert design.shell is not None
    inside = design.inside
    fillings = sum(filling.kg for filling in (inside.foam, inside.bladder) if filling)
    takes = [
        (
            figures.empty_kg - fillings if figures.empty_kg is not None else None,
            prices.metal_per_kg.get(design.shell.metal),
        ),
        (figures.weld_m, prices.weld_per_m),
    ]
    if inside.foam:
        takes.append((figures.brimful_l, prices.foam_per_l))
    if inside.bladder:
        takes.append((1.0, prices.bladder))
    if design.slosh.surge_l:
        takes.append((1.0, prices.surge_tank))
    total = 0.0
    for much, price in takes:
        if much is None or price is None:
            return None
        total += much * price
    return total
