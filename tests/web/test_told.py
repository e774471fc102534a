"""What the core says stands on the page, in the reader's units: no figure is told otherwise than it was worked out."""

import re
from collections.abc import Iterator
from itertools import chain
from typing import Any
from unittest import TestCase

from keel.reference.quantities import KG_PER_LB, KPA_PER_PSI, M_PER_FT, N_PER_LBF, UnitSet
from keel.reference.units import LITRES_PER_IMPERIAL_GALLON, LITRES_PER_US_GALLON
from tests.web.test_pages import answered, pages

LITRES: dict[UnitSet, float] = {
    "mm_l": 1.0,
    "in_usgal": LITRES_PER_US_GALLON,
    "in_impgal": LITRES_PER_IMPERIAL_GALLON,
}
NUMBER = re.compile(r"−?\d[\d\u2009]*(?:\.\d+)?")
READ: list[tuple[str, UnitSet]] = [
    ("day tank", "mm_l"), ("raid tank with plates", "mm_l"), ("raid tank", "in_impgal"), ("cart tank", "in_usgal"),
    ("surge tank", "in_usgal"),
]  # fmt: skip


def told(name: str, units: UnitSet) -> Iterator[tuple[str, str, float]]:
    """Page by page what a reader is to find there, and what it is."""
    _, answer = answered(name)
    litre, kpa = LITRES[units], 1.0 if units == "mm_l" else KPA_PER_PSI
    shell, brief, ports, gauge = (answer[station] for station in ("shell", "brief", "ports", "gauge"))
    for line in shell["capacity"]["lines"]:
        yield "shell, panel", line["what"], line["litres"] / litre
    for what in ("brimful_l", "rated_l"):
        yield "shell, panel", what, shell["capacity"][what] / litre
        yield "tally", what, shell["capacity"][what] / litre
    for panel in shell["panels"]:
        yield "shell, panel", f"proof of {panel['name']}", panel["proof_kpa"] / kpa
    for demand in brief["demands"] or []:
        yield "brief, board", f"flow of {demand['name']}", demand["flow_l_per_h"] / litre
        yield "brief, board", f"needed for {demand['name']}", demand["needed_l_per_h"] / litre
    for one in ports["in_attitudes"] or []:
        for what in ("stranded_l", "trapped_l"):
            if one[what] is not None:
                yield "ports, board", f"{what} {one['attitude']}", one[what] / litre
    for cell, run in (ports["fill_runs"] or {}).items():
        yield "ports, board", f"filling the {cell}", run["peak_kpa"] / kpa
    for reading in gauge["truth"]["readings"] if gauge["truth"] else []:
        for what in ("left_at_empty_l", "above_full_l", "worst_l"):
            yield "gauge, board", f"{what} of {reading['name']}", reading[what] / litre


def told_later(name: str, units: UnitSet) -> Iterator[tuple[str, str, float]]:
    """The same of the stations where it is made and held."""
    _, answer = answered(name)
    is_metric = units == "mm_l"
    newton, kilo, metre = (1.0, 1.0, 1.0) if is_metric else (N_PER_LBF, KG_PER_LB, M_PER_FT)
    loads = answer["mount"]["loads"]
    for case in loads["cases"] if loads else []:
        yield "mount, panel", f"load {case['way']}", case["load_n"] / newton
    if loads and loads["mass"] and loads["cases"]:
        yield "mount, panel", "full mass", loads["mass"]["kg"] / kilo
    for way in answer["mount"]["ways"] or []:
        yield "mount, panel", f"{way['title']}, mass", way["kg"] / kilo
        yield "mount, panel", f"{way['title']}, bolts", float(way["bolts"])
        if way["reserve"] is not None:
            yield "mount, panel", f"{way['title']}, reserve", way["reserve"]
    for strap in answer["mount"]["straps"] if is_metric else []:
        yield "mount, panel", f"{strap['name']}, cut", strap["cut_mm"]
    for scheme in answer["sheet"]["schemes"] or []:
        yield "sheet, board", f"{scheme['title']}, weld", scheme["weld_m"] / metre
        yield "sheet, board", f"{scheme['title']}, bends", float(scheme["bends"])


def stands(value: float, text: str) -> bool:
    """Whether a number on the page is that value, rounded to the places it shows; one with none has to be whole."""
    for shown in NUMBER.findall(text):
        plain = shown.replace("−", "-").replace("\u2009", "")
        places = len(plain.partition(".")[2])
        if abs(float(plain) - value) <= 0.5 * 10**-places * (1 + 1e-9) and (places > 0 or abs(value) >= 100 or value == round(value)):
            return True
    return False


class Told(TestCase):
    """Boards and panels of the demo's tanks."""

    def test_every_figure_stands_where_it_belongs(self) -> None:
        """Capacity line by line, panels, demands, what stays and is trapped, filling, the needle's worst."""
        count = 0
        for name, units in READ:
            shown = {station: " ".join(page.texts) for station, page in pages(name, units).items()}
            for station, what, value in chain(told(name, units), told_later(name, units)):
                with self.subTest(tank=name, units=units, station=station, what=what):
                    self.assertTrue(stands(value, shown[station]), f"{value} not among {shown[station]}")
                    count += 1
        self.assertGreater(count, 250)
