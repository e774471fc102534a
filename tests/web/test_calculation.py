"""Typed lengths and volumes, merge patches, snaps and the layout of the views."""

from fractions import Fraction
from random import Random
from typing import Any
from unittest import TestCase

from keel.findings.patch import merged
from keel.formats.quantities import length_text, volume_text
from keel.formats.quantities import sheet_text
from keel.reference.hoses import DASH_BORE_MM
from keel.reference.quantities import QUANTITIES, UNIT_SETS, shown_text
from tests.web.node import call

CHANCE = Random(20261124)
"""Seeded: each run of Node costs a second, so one batch has to do for many examples."""

READ = [
    ("412", False, 412),
    ("41.2 cm", False, 412),
    ("1,5 m", False, 1500),
    ("350+12", False, 362),
    ("350 - 12.5", False, 337.5),
    ("16 1/4", True, 412.75),
    ("16-1/4", True, 412.75),
    ('16.25"', False, 412.75),
    ("1' 4 1/4\"", False, 412.75),
    ("1′ 4 1/4″", True, 412.75),
    ("2 ft 3 in", False, 685.8),
    ("3/8", True, 9.525),
    ("5 1/2 - 1/16", True, 138.1125),
    ("3 mm", True, 3),
    ("1'", False, 304.8),
    ("-20", False, -20),
    ("10 in + 4 mm", False, 258),
]
REFUSED = ["", "   ", "abc", "12 13", "1e9", "20+", "1/0", "--5", "5 furlongs", "1' 2' 3'", "4..5", "NaN"]


class Lengths(TestCase):
    """Lengths the way people say them."""

    def test_what_people_say(self) -> None:
        """Each saying comes out in millimetres."""
        results = call("units/length", [("parseLength", text, inches) for text, inches, _ in READ])
        for (text, _, expected), result in zip(READ, results, strict=True):
            with self.subTest(text=text):
                self.assertTrue(result["ok"], result)
                self.assertAlmostEqual(result["value"], expected, places=6)

    def test_a_hose_by_its_dash_size(self) -> None:
        """In a bore `-8` is the bore of a hose of that size, never more than its sixteenths; elsewhere a length."""
        for dash, bore in DASH_BORE_MM.items():
            (read,) = call("units/bore", [("parseBore", f"-{dash}", dash % 3 == 0)])
            self.assertEqual(read, {"ok": True, "value": bore})
            self.assertLess(bore, dash * 25.4 / 16)
        odd, plain, inches = call("units/bore", [("parseBore", text, True) for text in ("-7", "8 mm", "3/8")])
        self.assertFalse(odd["ok"])
        self.assertIn("dash size 7", odd["reason"])
        self.assertEqual((plain["value"], inches["value"]), (8, 9.525))

    def test_what_is_not_understood_has_a_reason(self) -> None:
        """Never a number, always a reason."""
        for text, result in zip(REFUSED, call("units/length", [("parseLength", t, False) for t in REFUSED]), strict=True):
            with self.subTest(text=text):
                self.assertFalse(result["ok"])
                self.assertTrue(result["reason"])

    def test_what_is_offered_for_typing_over_is_read_back(self) -> None:
        """Leaving a field as it is changes nothing by more than its last digit."""
        lengths = [CHANCE.uniform(-19_000, 19_000) for _ in range(300)]
        for inches, least in ((False, 0.0005), (True, 0.0013)):
            texts = call("units/length", [("editLength", mm, inches) for mm in lengths])
            read = call("units/length", [("parseLength", text, inches) for text in texts])
            for mm, text, result in zip(lengths, texts, read, strict=True):
                self.assertTrue(result["ok"], text)
                self.assertAlmostEqual(result["value"], mm, delta=least + 1e-9)

    def test_screen_and_paper_agree(self) -> None:
        """The same sixteenths on screen and on the job sheet, and within half a sixteenth of the truth."""
        lengths = [CHANCE.uniform(0, 2_000) for _ in range(300)]
        for mm, shown in zip(lengths, call("units/length", [("showLength", mm, True) for mm in lengths]), strict=True):
            whole, _, part = shown.removesuffix('"').rpartition(" ")
            inches = (int(whole) if whole else 0) + Fraction(part)
            self.assertLessEqual(abs(float(inches) * 25.4 - mm), 25.4 / 32 + 1e-9)
            if abs((mm / 25.4 * 16) % 1 - 0.5) > 1e-6:
                self.assertEqual(shown, length_text(mm, "in_usgal"))


class Volumes(TestCase):
    """Litres and both gallons."""

    def test_units_are_kept_apart(self) -> None:
        """A gallon is US or imperial; without a word it is the reader's own, and nobody's in litres."""
        cases = [
            ("60", "mm_l", 60),
            ("10 L", "in_usgal", 10),
            ("10", "in_usgal", 37.85411784),
            ("10 gal", "in_impgal", 45.4609),
            ("1 us gal", "in_impgal", 3.785411784),
            ("2,5 imp gal", "mm_l", 11.365225),
            ("750 ml", "mm_l", 0.75),
        ]
        for (text, _, litres), read in zip(
            cases, call("units/volume", [("parseVolume", text, units) for text, units, _ in cases]), strict=True
        ):
            self.assertAlmostEqual(read["value"], litres, places=9, msg=text)
        refused = ("10 gal", "ten", "", "-4", "4 pints")
        for read in call("units/volume", [("parseVolume", text, "mm_l") for text in refused]):
            self.assertFalse(read["ok"])
        kinds = ("mm_l", "in_usgal", "in_impgal")
        for units, shown in zip(
            kinds, call("units/volume", [("showVolumeUnit", 61.32, units, 2) for units in kinds]), strict=True
        ):
            self.assertEqual(shown, volume_text(61.32, units))  # type: ignore[arg-type]

    def test_nothing_has_no_sign(self) -> None:
        """What rounds to zero is zero; less than nothing has a true minus."""
        shown = call("units/volume", [("showVolume", litres, "mm_l", 2) for litres in (-0.0039, -0.0, 0.004, -0.01)])
        self.assertEqual(shown, ["0.00", "0.00", "0.00", "\u22120.01"])


def anything(depth: int = 3) -> Any:
    """A small JSON object, number or null by chance."""
    if depth == 0 or CHANCE.random() < 0.4:
        return CHANCE.choice([None, 0, 1, 2])
    return {key: anything(depth - 1) for key in CHANCE.sample("abc", CHANCE.randint(0, 3))}


class Patches(TestCase):
    """Merge patches here and in the core."""

    def test_screen_and_core_apply_a_patch_alike(self) -> None:
        """What a remedy shows on screen is what the core priced."""
        cases = [({"a": anything(), "b": anything()}, {"a": anything(), "c": anything()}) for _ in range(300)]
        results = call("work/patch", [("merged", document, patch) for document, patch in cases])
        for (document, patch), result in zip(cases, results, strict=True):
            self.assertEqual(result, merged(document, patch))


class Quantities(TestCase):
    """Everything that isn't a length or a volume."""

    TYPED = (
        ("16 psi", "kpa", "mm_l", 110.3161),
        ("2.5 bar", "kpa", "in_usgal", 250.0),
        ("16", "kpa", "in_usgal", 110.3161),
        ("110 hp", "kw", "mm_l", 82.0270),
        ("30 lb", "kg", "mm_l", 13.6078),
        ("12,5", "kg", "mm_l", 12.5),
        ("14 lbf·ft", "nm", "mm_l", 18.9814),
        ("212 °F", "c", "mm_l", 100.0),
        ("-40", "c", "in_impgal", -40.0),
        ("45 min", "h", "mm_l", 0.75),
        ("300 mi", "km", "mm_l", 482.8032),
        ("−15", "deg", "mm_l", -15.0),
    )
    REFUSED = (
        ("16 mm", "kpa", "“16 mm” is a length; a pressure is wanted here: kPa, pa, bar, mbar"),
        ("3 kg", "kw", "“3 kg” is a mass; a power is wanted here: kW, w, hp, bhp"),
        ("some", "kg", "“some” is not a mass"),
        ("", "kg", "type a mass"),
    )

    def test_any_unit_of_the_kind_may_be_typed(self) -> None:
        """With a unit it counts as that, without one as the reader's; another kind is named, with what is wanted."""
        read = call("units/quantity", [("parseQuantity", text, of, units) for text, of, units, _ in self.TYPED])
        for (text, _, _, value), found in zip(self.TYPED, read, strict=True):
            self.assertAlmostEqual(found["value"], value, places=3, msg=text)
        read = call("units/quantity", [("parseQuantity", text, of, "mm_l") for text, of, _ in self.REFUSED])
        self.assertEqual([found["reason"] for found in read], [reason for *_, reason in self.REFUSED])
        for module, name, text, said in (
            ("units/length", "parseLength", "16 psi", "“16 psi” is a pressure; a length is wanted here"),
            ("units/volume", "parseVolume", "30 lb", "“30 lb” is a mass; a volume is wanted here"),
            ("units/flow", "parseFlow", "20 kw", "“20 kw” is a power; a flow is wanted here"),
        ):
            (found,) = call(module, [(name, text, "mm_l" if name != "parseLength" else False)])
            self.assertIn(said, found["reason"])
        flows = call("units/flow", [("parseFlow", text, "mm_l") for text in ("60 L/h", "2 L/min", "10 us gal/h", "5")])
        for found, litres in zip(flows, (60, 120, 37.854118, 5), strict=True):
            self.assertAlmostEqual(found["value"], litres, places=5)

    def test_sheet_by_its_gauge_number(self) -> None:
        """The same number is another thickness in another metal; one it has not is refused; named as in papers."""
        typed = [("14 ga", "mild steel"), ("14ga", "5052-H32"), ("gauge 14", "stainless 304L"), ("3.2", "5052-H32")]
        read = call("units/sheet", [("parseSheet", text, metal, False) for text, metal in typed])
        for found, mm in zip(read, (1.897, 1.628, 1.984, 3.2), strict=True):
            self.assertAlmostEqual(found["value"], mm, places=3)
        (found,) = call("units/sheet", [("parseSheet", "44 ga", "5052-H32", True)])
        self.assertEqual(found["reason"], "5052-H32 has no gauge 44: 3 to 30 are known")
        sheets = [("5052-H32", 3.2), ("5052-H32", 2.58), ("mild steel", 1.5), ("stainless 304L", 1.5)]
        for (metal, mm), text in zip(sheets, call("units/sheet", [("gaugeText", *s) for s in sheets]), strict=True):
            paper = sheet_text(metal, mm, "in_usgal")  # type: ignore[arg-type]
            self.assertEqual(f"({text})" in paper, bool(text), (metal, mm))
        self.assertEqual(sheet_text("5052-H32", 2.58, "in_usgal"), '0.102" (10 gauge)')
        self.assertEqual(sheet_text("5052-H32", 3.0, "mm_l"), "3 mm")

    def test_shown_as_the_core_shows_it(self) -> None:
        """The same text on the page as in papers, in every set of units; what is left as it is stays as it is."""
        cases = [(of, CHANCE.uniform(0.5, 900), units) for of in QUANTITIES for units in UNIT_SETS for _ in range(4)]
        shown = call("units/quantity", [("showQuantity", of, value, units) for of, value, units in cases])
        for (of, value, units), text in zip(cases, shown, strict=True):
            self.assertEqual(text.replace("−", "-"), shown_text(of, value, units), (of, value, units))
        left = call("units/quantity", [("editQuantity", of, value, units) for of, value, units in cases])
        again = [("parseQuantity", text, of, units) for text, (of, _, units) in zip(left, cases, strict=True)]
        for (of, value, _), read in zip(cases, call("units/quantity", again), strict=True):
            self.assertAlmostEqual(read["value"], value, delta=1e-3 * max(1.0, QUANTITIES[of].us.per), msg=of)


class Drawing(TestCase):
    """Snaps and the layout of the sheet."""

    BAY = {"length_mm": 900, "width_mm": 500, "height_mm": 400, "keep_outs": [
        {"kind": "box", "id": "pipe", "name": "pipe", "x_mm": 700, "y_mm": 0, "z_mm": 0, "length_mm": 50, "width_mm": 500, "height_mm": 50}
    ]}  # fmt: skip
    EVALUATION = {
        "shell": {"geometry": {"axis": "x", "lip_mm": 17}},
        "bay": {
            "gaps": [
                {"key": "front", "needed_mm": 10},
                {"key": "pipe", "needed_mm": 25},
                {"key": "roof", "needed_mm": 15},
            ]
        },
    }

    def test_faces_snap_to_where_they_clear(self) -> None:
        """Clearance and lip are both kept; the nearer snap wins; else the round number."""
        front, roof = call(
            "drawing/snaps",
            [("shellSnaps", self.BAY, self.EVALUATION, axis, True) for axis in ("x", "z")],
        )
        self.assertEqual([snap["at"] for snap in front], [900 - 10 - 17, 700 - 25 - 17])
        self.assertEqual(roof[0]["at"], 400 - 15)
        at = call("drawing/snaps", [("snapped", mm, front, 5, 8) for mm in (655, 870, 801, 803)])
        self.assertEqual([snap["at"] for snap in at], [658, 873, 800, 805])
        self.assertIn("pipe", at[0]["why"])

    def test_views_share_a_scale_and_stay_on_the_page(self) -> None:
        """Plan over elevation, end beside it; nothing off the page, nothing on top of another."""
        for bounds in ({"x": [0, 900], "y": [0, 500], "z": [0, 400]}, {"x": [-100, 200], "y": [0, 1500], "z": [0, 90]}):
            laid = call("drawing/layout", [("layOut", bounds, 795, 676)])[0]
            plan, elevation, end = laid["views"]
            self.assertEqual({view["scale"] for view in laid["views"]}, {plan["scale"]})
            self.assertEqual(plan["x0"], elevation["x0"])
            self.assertEqual(elevation["y0"], end["y0"])
            self.assertGreaterEqual(elevation["y0"] - elevation["height"], plan["y0"] + 40)
            self.assertGreaterEqual(end["x0"], elevation["x0"] + elevation["width"] + 40)
            self.assertGreaterEqual(plan["y0"] - plan["height"], 0)
            self.assertLessEqual(end["x0"] + end["width"], 795)
            self.assertLessEqual(elevation["y0"], 676)
