"""Quantities as people read and type them, in three sets of units: the one table for core, papers and interface.

A quantity is kept in one unit, which is the ending of its name (`proof_kpa`). Lengths, thicknesses and volumes have
rules of their own (sixteenths, thousandths, which gallon) in `keel.formats.quantities`.

References
----------
The international yard and pound of 1959 (0.9144 m, 0.45359237 kg), the US gallon of 231 in³, the imperial gallon of
4.54609 L, standard gravity 9.80665 m/s², the mechanical horsepower of 550 ft·lbf/s: NIST SP 811, appendix B.
"""

from dataclasses import asdict, dataclass, field
from typing import Literal

from keel.reference.units import (
    KILOGRAMS_PER_POUND,
    LITRES_PER_IMPERIAL_GALLON,
    LITRES_PER_US_GALLON,
    MM_PER_INCH,
    STANDARD_GRAVITY,
)

UnitSet = Literal["mm_l", "in_usgal", "in_impgal"]
UNIT_SETS: tuple[UnitSet, ...] = ("mm_l", "in_usgal", "in_impgal")
KG_PER_LB = KILOGRAMS_PER_POUND
N_PER_LBF = KG_PER_LB * STANDARD_GRAVITY
M_PER_FT = 0.3048
KPA_PER_PSI = N_PER_LBF / MM_PER_INCH**2 * 1000
KW_PER_HP = 550 * M_PER_FT * N_PER_LBF / 1000
KM_PER_MILE = 1.609344
KPA_PER_MMHG = 0.1333224
KPA_PER_INHG = KPA_PER_MMHG * MM_PER_INCH


@dataclass(frozen=True)
class Shown:
    """How a quantity is shown: its unit, how much of what is kept one of it is, where it has its zero, decimals."""

    unit: str
    per: float = 1.0
    digits: int = 1
    zero: float = 0.0


@dataclass(frozen=True)
class Quantity:
    """One kind of quantity.

    Attributes
    ----------
    kind : str
        What it is called when something else was typed ("a pressure").
    metric, us, imperial : Shown
        In each set of units.
    typed : dict of str to float
        Units that may be typed, in lower case, each as how much of what is kept one of it is.
    """

    kind: str
    metric: Shown
    us: Shown
    imperial: Shown
    typed: dict[str, float] = field(default_factory=dict)

    def shown(self, units: UnitSet) -> Shown:
        """How it is shown in a set of units."""
        return {"mm_l": self.metric, "in_usgal": self.us, "in_impgal": self.imperial}[units]


def _same(kind: str, unit: str, digits: int, **typed: float) -> Quantity:
    shown = Shown(unit, 1.0, digits)
    return Quantity(kind, shown, shown, shown, typed)


def _per_gallon(kind: str, unit: str, top: float, digits: int, scale: float = 1.0, **typed: float) -> Quantity:
    """Something per volume or a volume per something, by the gallon of the place."""
    name, metric = unit.split(" | ")
    us, imperial = LITRES_PER_US_GALLON**top, LITRES_PER_IMPERIAL_GALLON**top
    return Quantity(
        kind,
        Shown(metric, 1.0, digits),
        Shown(name.format("US gal"), scale * us, digits),
        Shown(name.format("imp gal"), scale * imperial, digits),
        typed,
    )


def _two(kind: str, metric: Shown, inch: Shown, **typed: float) -> Quantity:
    return Quantity(kind, metric, inch, inch, typed)


QUANTITIES: dict[str, Quantity] = {
    "kg": _two(
        "a mass",
        Shown("kg", 1.0, 2),
        Shown("lb", KG_PER_LB, 2),
        kg=1.0,
        g=1e-3,
        lb=KG_PER_LB,
        lbs=KG_PER_LB,
        oz=KG_PER_LB / 16,
    ),
    "kpa": _two(
        "a pressure",
        Shown("kPa", 1.0, 1),
        Shown("psi", KPA_PER_PSI, 2),
        kpa=1.0,
        pa=1e-3,
        bar=100.0,
        mbar=0.1,
        psi=KPA_PER_PSI,
        mmh2o=0.00980665,
        inh2o=0.2490889,
    ),
    "finekpa": _two(
        "a pressure", Shown("kPa", 1.0, 3), Shown("psi", KPA_PER_PSI, 4), kpa=1.0, pa=1e-3, mbar=0.1, psi=KPA_PER_PSI
    ),
    "barokpa": _two(
        "an air pressure",
        Shown("kPa", 1.0, 2),
        Shown("inHg", KPA_PER_INHG, 2),
        kpa=1.0,
        hpa=0.1,
        mbar=0.1,
        inhg=KPA_PER_INHG,
        mmhg=KPA_PER_MMHG,
        psi=KPA_PER_PSI,
    ),
    "sccm": _same("a leak", "scc/min", 2, **{"scc/min": 1.0}),
    "mpa": _two("a stress", Shown("MPa", 1.0, 0), Shown("ksi", KPA_PER_PSI, 1), mpa=1.0, ksi=KPA_PER_PSI),
    "kw": _two("a power", Shown("kW", 1.0, 1), Shown("hp", KW_PER_HP, 1), kw=1.0, w=1e-3, hp=KW_PER_HP, bhp=KW_PER_HP),
    "lph": _per_gallon("a flow", "{}/h | L/h", 1, 1),
    "kgl": _per_gallon("a density", "lb/{} | kg/L", -1, 3, KG_PER_LB),
    "kgh": _two("a mass flow", Shown("kg/h", 1.0, 1), Shown("lb/h", KG_PER_LB, 1), **{"kg/h": 1.0, "lb/h": KG_PER_LB}),
    "kgkwh": _two(
        "a fuel consumption",
        Shown("kg/kWh", 1.0, 3),
        Shown("lb/(hp·h)", KG_PER_LB / KW_PER_HP, 3),
        **{"kg/kwh": 1.0, "g/kwh": 1e-3, "lb/hph": KG_PER_LB / KW_PER_HP, "lb/hp·h": KG_PER_LB / KW_PER_HP},
    ),
    "m": _two(
        "a length", Shown("m", 1.0, 2), Shown("ft", M_PER_FT, 2), m=1.0, cm=0.01, mm=1e-3, ft=M_PER_FT, **{"in": 0.0254}
    ),
    "m2": _two("an area", Shown("m²", 1.0, 2), Shown("ft²", M_PER_FT**2, 2)),
    "cm2": _two("an area", Shown("cm²", 1.0, 1), Shown("in²", 6.4516, 2)),
    "n": _two("a force", Shown("N", 1.0, 0), Shown("lbf", N_PER_LBF, 0), n=1.0, kn=1e3, lbf=N_PER_LBF),
    "nm": _two(
        "a torque",
        Shown("N·m", 1.0, 1),
        Shown("lbf·ft", N_PER_LBF * M_PER_FT, 1),
        n·m=1.0,
        nm=1.0,
        lbf·ft=N_PER_LBF * M_PER_FT,
        lbft=N_PER_LBF * M_PER_FT,
        ftlb=N_PER_LBF * M_PER_FT,
    ),
    "km": _two(
        "a distance", Shown("km", 1.0, -1), Shown("mi", KM_PER_MILE, 1), km=1.0, mi=KM_PER_MILE, miles=KM_PER_MILE
    ),
    "k": _two(
        "a rise of temperature",
        Shown("K", 1.0, 0),
        Shown("°F", 5 / 9, 0),
        k=1.0,
        **{"°c": 1.0, "°f": 5 / 9, "f": 5 / 9},
    ),
    "c": _two(
        "a temperature",
        Shown("°C", 1.0, 0),
        Shown("°F", 5 / 9, 0, -160 / 9),
        **{"°c": 1.0, "c": 1.0, "°f": 5 / 9, "f": 5 / 9},
    ),
    "perkg": _two("a price by mass", Shown("/kg", 1.0, 2), Shown("/lb", 1 / KG_PER_LB, 2)),
    "perm": _two("a price by length", Shown("/m", 1.0, 2), Shown("/ft", 1 / M_PER_FT, 2)),
    "persqm": _two("a rate by area", Shown("/m²", 1.0, 1), Shown("/ft²", 1 / M_PER_FT**2, 2)),
    "perl": _per_gallon("a price by volume", "/{} | /L", -1, 2),
    "pct": Quantity("a share", *(Shown("%", 0.01, 1),) * 3, {"%": 0.01}),
    "g": _same("an acceleration", "g", -1, g=1.0),
    "deg": _same("an angle", "°", 0, **{"°": 1.0, "deg": 1.0}),
    "h": _same("a time", "h", 2, h=1.0, min=1 / 60),
    "min": _same("a time", "min", 0, min=1.0, h=60.0),
    "s": _same("a time", "s", 1, s=1.0, min=60.0, ms=1e-3),
    "ms": _two("a velocity", Shown("m/s", 1.0, 2), Shown("ft/s", M_PER_FT, 1), **{"m/s": 1.0, "ft/s": M_PER_FT}),
    "rpm": _same("a speed of rotation", "rpm", 0, rpm=1.0),
    "um": _same("a fineness", "µm", -1, um=1.0, µm=1.0, micron=1.0),
    "v": _same("a voltage", "V", -1, v=1.0),
    "a": _same("a current", "A", 1, a=1.0, ma=1e-3),
    "mohm": _same("a resistance", "mΩ", 1, mω=1.0, mohm=1.0, ω=1e3, ohm=1e3),
    "ohm": _same("a resistance", "Ω", 1, ω=1.0, ohm=1.0, ohms=1.0),
}
"""By the ending of a name. Digits below zero: as many as there are."""


def shown_text(quantity: str, value: float, units: UnitSet, digits: int | None = None) -> str:
    """A quantity with its unit, rounded for reading.

    Parameters
    ----------
    quantity : str
        A key of `QUANTITIES`.
    value : float
        As it is kept.
    units : str
        The reader's set of units.
    digits : int, optional
        Decimals, where the usual ones won't do.

    Returns
    -------
    str
        Number and unit, as papers and findings write them.

    Raises
    ------
    KeyError
        For an ending that is no known unit: a number must not lose its unit on the way to the reader.
    """
    how = QUANTITIES[quantity].shown(units)
    places = how.digits if digits is None else digits
    amount = round((value - how.zero) / how.per, 9) + 0.0
    text = f"{amount:g}" if places < 0 else f"{amount:z.{places}f}"
    return f"{text}{'' if how.unit == '°' else ' '}{how.unit}"


def quantity_table() -> dict[str, object]:
    """The table as plain values, for the interface: what each ending is, how it is shown, what may be typed.

    Returns
    -------
    dict
        By ending: sets of units, digits, names that may be typed.
    """
    return {
        ending: {"kind": one.kind, "typed": one.typed} | {units: asdict(one.shown(units)) for units in UNIT_SETS}
        for ending, one in QUANTITIES.items()
    }
