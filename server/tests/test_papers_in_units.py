"""A paper says the same in every set of units: as many quantities of each kind, each as much, none in foreign units."""

import csv
import io
import re
from collections.abc import Iterator
from dataclasses import dataclass
from fractions import Fraction

from pypdf import PdfReader

from keel.formats.headings import as_kept
from keel.reference.quantities import QUANTITIES, UNIT_SETS, UnitSet
from keel.reference.units import LITRES_PER_IMPERIAL_GALLON, LITRES_PER_US_GALLON, MM_PER_INCH
from server.demo.management.commands.load_demo import Command
from server.jobs.models import TankDesign
from server.tests.helpers import Api, ApiTestCase
from server.workshop.models import Person

Amount = tuple[float, float]
"""How much, in what is kept, and half of the last place it is written to."""
VOLUMES = {"mm_l": 1.0, "in_usgal": LITRES_PER_US_GALLON, "in_impgal": LITRES_PER_IMPERIAL_GALLON}

NUMBER = re.compile(
    r'(?<![\w.,/])(?P<figure>[-−]?\d+ \d+/\d+|[-−]?\d+/\d+(?=")|[-−]?\d+(?:\.\d+)?)'
    r'(?P<unit>"|\s?(?:mm|m²|m|cm²|L/h|L|kg|kPa|kW|N·m|N|°C|MPa|K'
    r"|in²|ft²|ft|US gal/h|US gal|imp gal/h|imp gal|lb|psi|hp|lbf·ft|lbf|°F|ksi)(?![\w/²·]))?"
)
METRIC = {"mm", "m²", "m", "cm²", "L/h", "L", "kg", "kPa", "kW", "N·m", "N", "°C", "MPa", "K"}
LENGTHS = {"mm": 1.0, '"': MM_PER_INCH}
AS_IT_IS = re.compile(
    r'(100 mm|4") exactly|304L|\(\d+ gauge\)|sizes in inches to 1/16, flats to 1/1000"?|out \d+ mm|'
    r"\d+ mm(?= (hose tail|beaded tube|plain tube|quick connector))|"
    r"(\d+\.\d+ )+(kPa|psi)(?= 0 \d+)|(neck|tube|vent|valve|boss|filler), \d+ mm(?! along)|Nitrile hose \d+ mm|"
    r"[\d.]+ mm²|AWG \d+|\d+ mm(?= tails?\b)|pump, \d+ mm(?=, -\d)|\d+ mm(?= plug, clamped)"
)
"""The ruler of each set, gauge numbers, a page's heading, names, words somebody typed, what tails are called, round
figures beside a plot; sizes of wire, which go in steps of their own (`keel.tests.test_wiring` has them)."""
HEADING = 6
"""Lines that a page begins with, at most."""
SCALED = ("dip-stick", "gauge-face")
"""Papers whose marks stand at round figures of the reader's units."""


@dataclass(frozen=True)
class Figure:
    """A number on a paper, and the unit that stands behind it."""

    text: str
    unit: str
    near: str
    """What stands round it."""

    def value(self) -> float:
        """How many of its unit."""
        text, sign = self.text.lstrip("-−"), -1 if self.text[0] in "-−" else 1
        return sign * float(sum(Fraction(part) for part in text.split()))

    def half(self) -> float:
        """Half of the last place it is written to."""
        if self.unit == '"' and "." not in self.text:
            return 1 / 32
        return 0.5 * 10.0 ** -len(self.text.partition(".")[2])

    def kept(self, units: UnitSet, kind: str) -> Amount:
        """What it says in what is kept."""
        if kind == "mm":
            per, zero = LENGTHS[self.unit or "mm"], 0.0
        elif kind == "l":
            per, zero = VOLUMES[units], 0.0
        else:
            how = QUANTITIES[kind].shown(units)
            per, zero = how.per, how.zero
        return self.value() * per + zero, self.half() * per


def told(content: bytes) -> str:
    """A paper's words, the heading of its pages once: where a page ends depends on how wide its figures are."""
    first, *others = (page.extract_text().split("\n") for page in PdfReader(io.BytesIO(content)).pages)
    heading = set(first[:HEADING])
    return "\n".join([*first, *(line for page in others for line in page if line not in heading)])


def figures(text: str) -> list[Figure]:
    """All numbers of a paper in their order."""
    text = AS_IT_IS.sub("", " ".join(text.split()))
    return [
        Figure(found["figure"], (found["unit"] or "").strip(), text[max(0, found.start() - 30) : found.end() + 10])
        for found in NUMBER.finditer(text)
    ]


def kind_of(unit: str, units: UnitSet, kept: str) -> str:
    """What a unit of a set measures that is another one in metric: a degree is a temperature or a rise of it."""
    if unit in LENGTHS:
        return "mm"
    if unit in ("L", "US gal", "imp gal"):
        return "l"
    alike = [(kind, one) for kind, one in QUANTITIES.items() if one.shown(units).unit == unit]
    return next((kind for kind, one in alike if one.metric.unit == kept), alike[0][0] if alike else "")


class SameInEveryUnits(ApiTestCase):
    """The papers of the demo's designs."""

    def setUp(self) -> None:
        """The demo's workshop, and somebody of it."""
        Command()._load(verbose=False)
        self.reader = Api(Person.objects.get(username="fenna"))

    def files(self, ending: str) -> Iterator[tuple[str, dict[UnitSet, bytes]]]:
        """Every file of a kind, as readers of each set of units get it."""
        for tank in TankDesign.objects.all():
            names = [paper["name"] for paper in self.reader("GET", f"designs/{tank.pk}/papers")[1]]
            for name in (one for one in names if one.endswith(ending)):
                got: dict[UnitSet, bytes] = {}
                for units in UNIT_SETS:
                    self.reader("PATCH", "session/preferences", {"units": units})
                    status, got[units] = self.reader("GET", f"designs/{tank.pk}/files/{name}")
                    self.assertEqual(status, 200)
                yield f"{tank.job.number} {tank.name}: {name}", got

    def test_papers(self) -> None:
        """Number by number, in the order they stand."""
        compared = 0
        for name, got in self.files(".pdf"):
            if any(scaled in name for scaled in SCALED):
                continue
            kept, *others = (figures(told(content)) for content in got.values())
            for units, said in zip(UNIT_SETS[1:], others, strict=True):
                with self.subTest(name, units=units):
                    self.assertEqual(len(kept), len(said))
                    for one, other in zip(kept, said, strict=True):
                        compared += self.same(one, other, units)
        self.assertGreater(compared, 1000)

    def same(self, one: Figure, other: Figure, units: UnitSet) -> bool:
        """As much, to the places that both are written to; whether it was a quantity with a unit."""
        self.assertNotIn(other.unit, METRIC, other)
        kind = kind_of(other.unit, units, one.unit)
        if not kind and not one.unit:
            self.assertTrue(self.is_same_in_a_table(one, other, units), f"{one} {other}")
            return False
        self.assertTrue(kind, f"{one} {other}")
        (value, half), (said, other_half) = one.kept("mm_l", kind), other.kept(units, kind)
        self.assertAlmostEqual(value, said, delta=(half + other_half) * 1.001, msg=f"{one} {other}")
        return True

    def is_same_in_a_table(self, one: Figure, other: Figure, units: UnitSet) -> bool:
        """Whether two numbers without a unit are one, or one in the unit of a table's heading."""
        hows = [(how.per, how.zero) for how in (quantity.shown(units) for quantity in QUANTITIES.values())]
        return any(
            abs(one.value() - zero - other.value() * per) <= (one.half() + other.half() * per) * 1.001
            for per, zero in [(1.0, 0.0), *hows]
        )

    def test_tables(self) -> None:
        """Each column by its heading."""
        compared = 0
        for name, got in self.files(".csv"):
            kept, *others = (list(csv.DictReader(io.StringIO(content.decode("utf-8-sig")))) for content in got.values())
            for rows in others:
                self.assertEqual(len(rows), len(kept), name)
                for row, as_kept_row in zip(rows, kept, strict=True):
                    for heading, cell in row.items():
                        metric, per = as_kept(heading)
                        self.assertIn(metric, as_kept_row, name)
                        if per != 1.0 and cell:
                            value, half = Figure(cell, "", "").value() * per, Figure(cell, "", "").half() * per
                            there = Figure(as_kept_row[metric], "", "")
                            said, other_half = there.value(), there.half()
                            self.assertAlmostEqual(
                                value, said, delta=(half + other_half) * 1.001, msg=f"{name} {heading}"
                            )
                            compared += 1
        self.assertGreater(compared, 500)
