"""Sentences with quantities, workshops as documents, and the words of what was refused."""

import ast
import re
from pathlib import Path
from unittest import TestCase

from hypothesis import example, given
from hypothesis import strategies as st
from pydantic import ValidationError

import keel
from keel.design.faults import faults
from keel.design.workshop import K_BY_FAMILY, HouseRules, Workshop
from keel.formats.quantities import ReaderUnits, quantity_text
from keel.reference.metals import METALS
from keel.studies.result import KNOWN_ENDINGS, metric, words

UNITS: tuple[ReaderUnits, ...] = ("mm_l", "in_usgal", "in_impgal")


class Sentences(TestCase):
    """`Words`."""

    def test_quantities_by_the_ending_of_their_name(self) -> None:
        """Each ending has its unit; a share is shown as per cent; text passes through."""
        sentence = words(
            "{gap_mm}, {wall_sheet}, {rated_l}, {mass_kg}, {weld_m}, {stress_mpa}, {head_kpa}, {share_pct}, {n}, {who}",
            gap_mm=10.0, wall_sheet=3.0, rated_l=59.116, mass_kg=8.5, weld_m=3.345, stress_mpa=66.7,
            head_kpa=7.54, share_pct=0.0359, n=4, who="{braces} stay",
        )  # fmt: skip
        shown = "10 mm, 3 mm, 59.12 L, 8.50 kg, 3.35 m, 67 MPa, 7.5 kPa, 3.6 %, 4, {braces} stay"
        self.assertEqual(sentence.plain(), shown)

    def test_in_inches(self) -> None:
        """Sixteenths for lengths, thousandths for sheet, the right gallon, pounds."""
        cases = (("gap_mm", 12.7), ("wall_sheet", 3.0), ("rated_l", 10.0), ("mass_kg", 1.0))
        shown = [[quantity_text(name, value, units) for name, value in cases] for units in UNITS]
        self.assertEqual(shown[0], ["12.7 mm", "3.0 mm".replace(".0", ""), "10.00 L", "1.00 kg"])
        self.assertEqual(shown[1], ['1/2"', '0.118"', "2.64 US gal", "2.20 lb"])
        self.assertEqual(shown[2][2], "2.20 imp gal")

    def test_every_unit_is_known(self) -> None:
        """Whatever a sentence of the core names with an ending, the core and the interface know how to show it."""
        with self.assertRaises(KeyError):
            words("{load_stone}", load_stone=3.0).plain()
        named = {
            name
            for room in ("findings", "stations", "studies", "trials")
            for file in (Path(keel.__file__).parent / room).rglob("*.py")
            for node in ast.walk(ast.parse(file.read_text()))
            if isinstance(node, ast.Constant) and isinstance(node.value, str)
            for name in re.findall(r"\{([a-z]+(?:_[a-z0-9]+)+)\}", node.value)
        }
        self.assertGreater(len(named), 100)
        self.assertLessEqual({name.rpartition("_")[2] for name in named}, KNOWN_ENDINGS)

    @given(st.floats(-1e4, 1e4), st.sampled_from(["mm", "l", "kg", "m", "pct", "sheet"]))
    @example(-0.00390625, "l")
    def test_no_minus_zero(self, value: float, kind: str) -> None:
        """A quantity that rounds to zero has no sign, in anyone's units."""
        name = f"x_{kind}"
        for shown in (metric(name, value), *(quantity_text(name, value, units) for units in UNITS)):
            if not any(digit in shown.partition("/")[0] for digit in "123456789"):
                self.assertFalse(shown.startswith("-"), shown)


class Workshops(TestCase):
    """The workshop's document."""

    def test_usual_values(self) -> None:
        """A K for every metal by its family; stock for every metal."""
        usual = Workshop()
        for name, metal in METALS.items():
            self.assertEqual(usual.k_for(name), K_BY_FAMILY[metal.family])
            self.assertTrue(any(sheet.metal == name for sheet in usual.stock))

    def test_a_metal_never_measured_has_the_usual_k(self) -> None:
        """A document with one measured K keeps the others usual."""
        shop = Workshop.model_validate({"k_factors": {"mild steel": 0.44}})
        self.assertEqual((shop.k_for("mild steel"), shop.k_for("stainless 304L")), (0.44, 0.45))

    def test_nonsense_is_named(self) -> None:
        """An unknown metal, a K that can't be, a rule that isn't one."""
        document = {
            "k_factors": {"mild steel": 0.9},
            "stock": [{"metal": "unobtainium", "length_mm": 1, "width_mm": 1, "thickness_mm": 1}],
            "rules": {"ullage": 3},
        }
        try:
            Workshop.model_validate(document)
        except ValidationError as error:
            fields = {fault.field: fault.limit for fault in faults(error)}
        self.assertEqual(fields["k_factors.mild steel"], "0.5 or less")
        self.assertIn("mild steel", fields["stock.0.metal"])
        self.assertEqual(fields["rules.ullage"], "a field of the format")

    def test_every_rule_says_what_it_is(self) -> None:
        """The settings page and the schema have words for each."""
        for name, field in HouseRules.model_fields.items():
            self.assertTrue(field.description, name)
