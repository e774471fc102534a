"""Quantities as a reader wants them on paper."""

from keel.reference.gauges import gauge_of
from keel.reference.metals import MetalName
from keel.reference.quantities import UnitSet, shown_text
from keel.reference.units import LITRES_PER_IMPERIAL_GALLON, LITRES_PER_US_GALLON, MM_PER_INCH
from keel.reference.wires import gauge_of as wire_gauge_of
from keel.studies.result import Value, Words, metric

ReaderUnits = UnitSet
SIXTEENTHS = 16


def length_text(mm: float, units: ReaderUnits) -> str:
    """A length in millimetres to 0.1, or in inches to the nearest 1/16.

    Parameters
    ----------
    mm : float
        A length [mm].
    units : ReaderUnits
        The reader's set of units.

    Returns
    -------
    str
        With its unit.
    """
    if units == "mm_l":
        return f"{mm:z.1f}".removesuffix(".0")
    parts = round(abs(mm) / MM_PER_INCH * SIXTEENTHS)
    sign = "-" if mm < 0 and parts else ""
    whole, over = divmod(parts, SIXTEENTHS)
    if not over:
        return f'{sign}{whole}"'
    below = SIXTEENTHS
    while over % 2 == 0:
        over, below = over // 2, below // 2
    return f'{sign}{whole} {over}/{below}"' if whole else f'{sign}{over}/{below}"'


def cut_text(mm: float, units: ReaderUnits) -> str:
    """A size to cut or mark to: millimetres to 0.1, or inches to a thousandth, a sixteenth being too coarse.

    Parameters
    ----------
    mm : float
        A length [mm].
    units : ReaderUnits
        The reader's set of units.

    Returns
    -------
    str
        With its unit.
    """
    return length_text(mm, units) if units == "mm_l" else f'{mm / MM_PER_INCH:z.3f}"'


def cut_with_unit(mm: float, units: ReaderUnits) -> str:
    """A size to cut or mark to within a sentence, where no heading says the unit.

    Parameters
    ----------
    mm : float
        A length [mm].
    units : ReaderUnits
        The reader's set of units.

    Returns
    -------
    str
        With its unit in every set.
    """
    return cut_text(mm, units) + (" mm" if units == "mm_l" else "")


def fine_text(mm: float, units: ReaderUnits) -> str:
    """A size that others are worked out from, a bend's deduction: millimetres to 0.01, or inches to a thousandth.

    Parameters
    ----------
    mm : float
        A length [mm].
    units : ReaderUnits
        The reader's set of units.

    Returns
    -------
    str
        With its unit.
    """
    return f"{mm:z.2f}" if units == "mm_l" else cut_text(mm, units)


def sheet_text(metal: MetalName, mm: float, units: ReaderUnits) -> str:
    """A sheet's thickness; in inches with the gauge number it goes by in that metal.

    Parameters
    ----------
    metal : MetalName
        Name of the metal.
    mm : float
        Thickness [mm].
    units : ReaderUnits
        The reader's set of units.

    Returns
    -------
    str
        With its unit.
    """
    if units == "mm_l":
        return f"{length_text(mm, units)} mm"
    gauge = gauge_of(metal, mm)
    return cut_text(mm, units) + (f" ({gauge} gauge)" if gauge is not None else "")


def volume_text(litres: float, units: ReaderUnits) -> str:
    """A volume in litres, US gallons or imperial gallons, to 0.01.

    Parameters
    ----------
    litres : float
        A volume [L].
    units : ReaderUnits
        The reader's set of units.

    Returns
    -------
    str
        With its unit.
    """
    match units:
        case "mm_l":
            return f"{litres:z.2f} L"
        case "in_usgal":
            return f"{litres / LITRES_PER_US_GALLON:z.2f} US gal"
        case "in_impgal":
            return f"{litres / LITRES_PER_IMPERIAL_GALLON:z.2f} imp gal"


def wire_text(mm2: float, units: ReaderUnits) -> str:
    """A wire's size: its copper, or the American gauge with at least so much.

    Parameters
    ----------
    mm2 : float
        Copper [mm²].
    units : ReaderUnits
        The reader's set of units.

    Returns
    -------
    str
        With its unit.
    """
    gauge = None if units == "mm_l" else wire_gauge_of(mm2)
    return f"{mm2:.4g} mm²" if gauge is None else f"AWG {gauge}"


def quantity_text(name: str, value: Value, units: ReaderUnits) -> str:
    """A sentence's quantity (see `Words`) in the reader's units.

    Parameters
    ----------
    name : str
        The quantity's name; its ending says the unit.
    value : Value
        A number in that unit, or a word.
    units : ReaderUnits
        The reader's set of units.

    Returns
    -------
    str
        With its unit.
    """
    _, is_measured, kind = name.rpartition("_")
    if not isinstance(value, float | int) or not is_measured or units == "mm_l":
        return metric(name, value)
    if kind == "mm":
        return length_text(value, units)
    if kind == "sheet":
        return cut_text(value, units)
    if kind == "wire":
        return wire_text(value, units)
    if kind == "l":
        return volume_text(value, units)
    return shown_text(kind, value, units)


def sentence_text(sentence: Words, units: ReaderUnits) -> str:
    """A sentence with its quantities in the reader's units.

    Parameters
    ----------
    sentence : Words
        A sentence whose quantities are numbers.
    units : ReaderUnits
        The reader's set of units.

    Returns
    -------
    str
        To be printed.
    """
    return sentence.plain(lambda name, value: quantity_text(name, value, units))
