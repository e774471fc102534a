"""Tables and units against what they come from: weights of sheet by the square foot, definitions of units."""

from unittest import TestCase

from hypothesis import given
from hypothesis import strategies as st

from keel.formats.headings import as_kept, in_units
from keel.formats.quantities import cut_text, length_text, sheet_text
from keel.reference.clearances import CLEARANCE_MM
from keel.reference.engines import BSFC_KG_PER_KWH, TIMES_PETROL
from keel.reference.fuels import FUELS
from keel.reference.gauges import GAUGES, gauge_of
from keel.reference.hoses import DASH_BORE_MM
from keel.reference.metals import METALS
from keel.reference.plates import ROWS
from keel.reference.quantities import QUANTITIES, UNIT_SETS, shown_text
from keel.studies.strength.plate_bending import coefficients

STEEL_LB_PER_FT2 = {
    3: 10.0, 4: 9.375, 5: 8.75, 6: 8.125, 7: 7.5, 8: 6.875, 9: 6.25, 10: 5.625, 11: 5.0, 12: 4.375, 13: 3.75,
    14: 3.125, 15: 2.8125, 16: 2.5, 17: 2.25, 18: 2.0, 19: 1.75, 20: 1.5, 21: 1.375, 22: 1.25, 23: 1.125, 24: 1.0,
    25: 0.875, 26: 0.75, 27: 0.6875, 28: 0.625, 29: 0.5625, 30: 0.5,
}  # fmt: skip
"""What the standard gauge of steel is made by."""
STAINLESS_640THS = {
    3: 160, 4: 150, 5: 140, 6: 130, 7: 120, 8: 110, 9: 100, 10: 90, 11: 80, 12: 70, 13: 60, 14: 50, 15: 45, 16: 40,
    17: 36, 18: 32, 19: 28, 20: 24, 21: 22, 22: 20, 23: 18, 24: 16, 25: 14, 26: 12, 27: 11, 28: 10, 29: 9, 30: 8,
}  # fmt: skip
"""The gauge that stainless is sold by, in 640ths of an inch."""
ALUMINIUM_INCH = {
    8: 0.1285, 10: 0.1019, 11: 0.0907, 12: 0.0808, 14: 0.0641, 16: 0.0508, 18: 0.0403, 20: 0.0320, 22: 0.0253,
    24: 0.0201,
}  # fmt: skip
"""As printed in sheet tables."""
ONE_OF = {
    ("kpa", "psi"): 6.894757293168361, ("kpa", "bar"): 100.0, ("kpa", "mbar"): 0.1, ("kpa", "mmh2o"): 0.00980665,
    ("kw", "hp"): 0.745699871582270, ("kg", "lb"): 0.45359237, ("kg", "oz"): 0.028349523125,
    ("n", "lbf"): 4.4482216152605,
    ("nm", "lbf·ft"): 1.3558179483314, ("km", "mi"): 1.609344, ("m", "ft"): 0.3048, ("m", "in"): 0.0254,
    ("mpa", "ksi"): 6.894757293168361, ("kgkwh", "lb/hp·h"): 0.608277388,
}  # fmt: skip
"""Exact, or to the last digit printed, from the definitions of 1959."""


class Sheets(TestCase):
    """The same number is another thickness in another metal."""

    def test_steel_by_its_weight(self) -> None:
        """41.82 lb a square foot for each inch; printed to a ten-thousandth."""
        for number, weight in STEEL_LB_PER_FT2.items():
            self.assertAlmostEqual(GAUGES["steel"][number] / 25.4, weight / 41.82, delta=0.000051, msg=number)

    def test_stainless_by_640ths(self) -> None:
        """Printed to a ten-thousandth of an inch."""
        for number, parts in STAINLESS_640THS.items():
            self.assertAlmostEqual(GAUGES["stainless"][number] / 25.4, parts / 640, delta=0.000051, msg=number)

    def test_aluminium_by_the_wire_gauge(self) -> None:
        """Each number is thinner than the one before by the 39th root of 92."""
        for number, inch in ALUMINIUM_INCH.items():
            self.assertAlmostEqual(GAUGES["aluminium"][number] / 25.4, inch, delta=0.000051, msg=number)
        for number in range(3, 30):
            step = GAUGES["aluminium"][number] / GAUGES["aluminium"][number + 1]
            self.assertAlmostEqual(step**39, 92.0, places=6)

    def test_never_mixed(self) -> None:
        """14 gauge is 1.9 mm of steel, 2.0 of stainless, 1.6 of aluminium: each is known by its own number alone."""
        for metal, mm in (("mild steel", 1.897), ("stainless 304L", 1.984), ("5052-H32", 1.628)):
            self.assertEqual(gauge_of(metal, mm), 14)
            self.assertIn("14 ga", sheet_text(metal, mm, "in_usgal"))
            self.assertNotIn("ga", sheet_text(metal, mm, "mm_l"))
        self.assertEqual((gauge_of("mild steel", 1.628), gauge_of("5052-H32", 1.897)), (None, None))
        self.assertIsNone(gauge_of("mild steel", 3.2))

    def test_thinner_by_every_number(self) -> None:
        """In every metal."""
        for table in GAUGES.values():
            thick = [table[number] for number in sorted(table)]
            self.assertEqual(thick, sorted(thick, reverse=True))


class Units(TestCase):
    """What one of a unit is, and how it is written."""

    def test_what_may_be_typed(self) -> None:
        """One of each."""
        for (quantity, unit), one in ONE_OF.items():
            self.assertAlmostEqual(QUANTITIES[quantity].typed[unit] / one, 1.0, places=7, msg=(quantity, unit))

    def test_gallons_are_those_of_the_place(self) -> None:
        """231 cubic inches, or ten pounds of water."""
        us, imperial = (QUANTITIES["lph"].shown(units).per for units in ("in_usgal", "in_impgal"))
        self.assertAlmostEqual(us, 231 * 25.4**3 / 1e6, places=9)
        self.assertAlmostEqual(imperial, 4.54609, places=9)
        dense = [QUANTITIES["kgl"].shown(units).per for units in ("in_usgal", "in_impgal")]
        self.assertAlmostEqual(0.745 / dense[0], 0.745 * 3.785411784 / 0.45359237, places=9)
        self.assertAlmostEqual(0.745 / dense[1], 0.745 * 4.54609 / 0.45359237, places=9)

    def test_degrees(self) -> None:
        """A temperature has its own zero, a rise has not."""
        for celsius, fahrenheit in ((0, 32), (20, 68), (100, 212), (-40, -40)):
            self.assertEqual(shown_text("c", celsius, "in_usgal"), f"{fahrenheit} °F")
        self.assertEqual(shown_text("k", 40, "in_usgal"), "72 °F")
        self.assertEqual(shown_text("k", 40, "mm_l"), "40 K")

    @given(st.sampled_from(sorted(QUANTITIES)), st.sampled_from(UNIT_SETS), st.floats(-1e5, 1e5))
    def test_what_is_shown_is_what_is_kept(self, quantity: str, units: str, value: float) -> None:
        """Read back from what is written, within half of its last place."""
        how = QUANTITIES[quantity].shown(units)
        text = shown_text(quantity, value, units)
        number, places = float(text.split()[0].rstrip("°")), max(0, how.digits)
        back = number * how.per + how.zero
        room = 0.5 * 10**-places * abs(how.per) if how.digits >= 0 else 1e-5 * abs(value) + 1e-9
        self.assertLessEqual(abs(back - value), room * (1 + 1e-6) + 1e-9)
        self.assertNotRegex(text, r"^-0(\.0+)?(\s|$|°)")

    @given(st.floats(0, 20_000))
    def test_lengths_to_mark_out(self, mm: float) -> None:
        """Whole sixteenths, within a thirty-second; sizes to cut within half a thousandth."""
        text = length_text(mm, "in_usgal").rstrip('"')
        whole, _, fraction = text.rpartition(" ") if "/" in text else (text, "", "")
        above, _, below = fraction.partition("/")
        inches = float(whole or 0) + (int(above) / int(below) if fraction else 0.0)
        self.assertLessEqual(abs(inches - mm / 25.4), 1 / 32 + 1e-9)
        self.assertTrue(not fraction or (int(above) % 2 == 1 and int(below) in (2, 4, 8, 16)))
        self.assertLessEqual(abs(float(cut_text(mm, "in_usgal").rstrip('"')) - mm / 25.4), 0.0005 + 1e-9)
        self.assertLessEqual(abs(float(length_text(mm, "mm_l")) - mm), 0.05 + 1e-9)

    def test_headings_of_tables(self) -> None:
        """A column's name ends with the reader's unit, and says how much of what is kept one of it is."""
        for kept, units, name, per in (
            ("hole_mm", "in_usgal", "hole_in", 25.4),
            ("litres", "in_usgal", "us_gallons", 3.785411784),
            ("litres", "in_impgal", "imp_gallons", 4.54609),
            ("proof_kpa", "in_usgal", "proof_psi", 6.894757293168361),
            ("hole_mm", "mm_l", "hole_mm", 1.0),
        ):
            found, much = in_units(kept, units)
            self.assertEqual(found, name)
            self.assertAlmostEqual(much, per, places=9)
            self.assertEqual(as_kept(found)[0], kept)


class Physics(TestCase):
    """Orders that hold whatever the source."""

    def test_fuels_and_engines(self) -> None:
        """Diesel is the heaviest and runs on the least; alcohol takes more than petrol by the heat that it lacks."""
        self.assertEqual(max(FUELS, key=lambda name: FUELS[name].density_kg_per_l), "diesel")
        for fuel in FUELS.values():
            self.assertTrue(0.68 < fuel.density_kg_per_l < 0.88)
            self.assertTrue(0.0007 < fuel.expansion_per_k < 0.0013)
        least = min(BSFC_KG_PER_KWH, key=lambda kind: BSFC_KG_PER_KWH[kind].middle)
        self.assertEqual(least, "diesel")
        for name, heat in (("E85", 29.2), ("methanol", 19.9)):
            self.assertTrue(
                TIMES_PETROL[name].low <= 43.0 / heat * 1.03 and 43.0 / heat * 0.9 <= TIMES_PETROL[name].high
            )
        # 0.45 to 0.55 lb/(hp·h).
        natural = BSFC_KG_PER_KWH["petrol, naturally aspirated"]
        self.assertAlmostEqual(natural.low / 0.608277388, 0.45, places=2)
        self.assertAlmostEqual(natural.high / 0.608277388, 0.55, places=2)

    def test_metals(self) -> None:
        """Beside a weld none is stronger; what cracks later needs no larger radius."""
        for name, metal in METALS.items():
            self.assertLessEqual(metal.welded_yield_mpa, metal.yield_mpa, name)
            self.assertLessEqual(metal.bend_radius_least, metal.bend_radius_sure, name)
            light = metal.family == "aluminium"
            self.assertTrue((2600 if light else 7700) < metal.density_kg_per_m3 < (2800 if light else 8100), name)
            self.assertTrue(60 < metal.youngs_modulus_gpa < (80 if light else 215), name)
        self.assertLess(METALS["6061-T6"].welded_yield_mpa, 0.5 * METALS["6061-T6"].yield_mpa)

    def test_distances_and_bores(self) -> None:
        """What burns is further than what doesn't; a hose's bore grows with its size and stays below its tube's."""
        self.assertGreater(CLEARANCE_MM["exhaust, bare"], CLEARANCE_MM["exhaust, shielded"])
        self.assertGreater(CLEARANCE_MM["exhaust, shielded"], CLEARANCE_MM["hard metal"])
        bores = [DASH_BORE_MM[dash] for dash in sorted(DASH_BORE_MM)]
        self.assertEqual(bores, sorted(bores))
        for dash, bore in DASH_BORE_MM.items():
            self.assertLess(bore, dash / 16 * 25.4)

    @given(st.floats(1.0, 8.0), st.sampled_from(sorted(ROWS)))
    def test_plates(self, ratio: float, ends: tuple[str, str]) -> None:
        """Longer plates are no stronger; none bows less than one clamped all round."""
        held = {
            "both": ("clamped", "clamped"),
            "one": ("clamped", "simply supported"),
            "none": ("simply supported",) * 2,
        }
        edges = (*held[ends[0]], *held[ends[1]])
        beta, alpha = coefficients(100 * ratio, 100.0, edges)
        longer = coefficients(110 * ratio, 100.0, edges)
        self.assertGreaterEqual(longer[0], beta - 1e-3)
        self.assertGreaterEqual(longer[1], alpha - 1e-4)
        stiff = coefficients(100 * ratio, 100.0, "clamped")
        self.assertGreaterEqual(alpha, stiff[1] - 1e-4)
