"""The design document in and out, bad input, and the core from the command line."""

import io
import json
from contextlib import redirect_stderr, redirect_stdout
from pathlib import Path
from tempfile import TemporaryDirectory
from typing import Any
from unittest import TestCase

from hypothesis import given
from hypothesis import strategies as st

from keel.__main__ import main
from keel.design.bay import Bay
from keel.design.document import Design
from keel.design.shell import BoxShell
from keel.formats.document import UnreadableDesignError, design_from, design_json, design_schema, read_design
from keel.formats.quantities import length_text, volume_text
from keel.tests.samples import bays, shells

SHELL: dict[str, Any] = {"length_mm": 800, "width_mm": 400, "height_mm": 350}


def complaint(document: Any) -> tuple[str, Any, str]:
    """Field, value and limit of the first fault of a refused document."""
    text = document if isinstance(document, str) else json.dumps(document)
    try:
        read_design(text)
    except UnreadableDesignError as error:
        fault = error.faults[0]
        assert fault.message
        return fault.field, fault.value, fault.limit
    raise AssertionError("taken without complaint")


class Older(TestCase):
    """Documents as they were once written."""

    def test_an_arms_method_under_its_old_name(self) -> None:
        """It is read under the new one; anything else about the sender stays."""
        arm = {"kind": "swing arm", "made_arm_mm": 180.0, "empty_deg": -40.0, "full_deg": 40.0, "school": "as supplied"}
        sender = {"id": "g", "name": "sender", "x_mm": 10.0, "y_mm": 10.0, "action": arm}
        (read,) = design_from({"gauge": {"senders": [sender]}}).gauge.senders
        self.assertEqual(read.model_dump()["action"]["method"], "as supplied")
        self.assertEqual(read.model_dump()["action"]["made_arm_mm"], 180.0)
        self.assertEqual(design_from({"gauge": {"senders": []}}).gauge.senders, ())


class BadInput(TestCase):
    """Each fault names field, value and limit."""

    def test_numbers_out_of_range(self) -> None:
        """Zero, negative, not a number, endless, huge, text."""
        cases = (
            (0, 0, "above 0 mm"),
            (-5, -5, "above 0 mm"),
            (float("nan"), "nan", "a finite number"),
            (float("inf"), "inf", "a finite number"),
            (1e9, 1e9, "20000 mm or less"),
            ("12", "12", "a number"),
            (None, None, "a number"),
            (True, True, "a number"),
        )
        for value, shown, limit in cases:
            with self.subTest(value=value):
                self.assertEqual(complaint({"shell": SHELL | {"length_mm": value}}), ("shell.length_mm", shown, limit))

    def test_wall_that_fills_the_tank(self) -> None:
        """Half the smallest outside size is too much; inside sizes don't mind."""
        document = {
            "shell": {"length_mm": 80, "width_mm": 40, "height_mm": 20, "thickness_mm": 10.0, "bend_radius_mm": 0.0}
        }
        field, value, limit = complaint(document)
        self.assertEqual((field, value, limit), ("shell.thickness_mm", 10.0, "10 mm"))
        document["shell"] |= {"measured": "inside"}
        self.assertIsNotNone(read_design(json.dumps(document)).shell)

    def test_bends_that_do_not_fit(self) -> None:
        """Two radii must fit in the section, not along the wrapper."""
        field, _, limit = complaint({"shell": SHELL | {"bend_radius_mm": 180.0}})
        self.assertEqual((field, limit), ("shell.bend_radius_mm", "172 mm"))
        flat = SHELL | {"width_mm": 60, "bend_radius_mm": 40.0, "wrap_axis": "y"}
        self.assertIsNotNone(read_design(json.dumps({"shell": flat})).shell)

    def test_flange_lost_in_its_bend(self) -> None:
        """A flange is at least thickness and radius."""
        field, value, limit = complaint({"shell": SHELL, "sheet": {"flange_mm": 7.0}})
        self.assertEqual((field, value, limit), ("sheet.flange_mm", 7.0, "7.5 mm"))

    def test_documents_that_are_no_designs(self) -> None:
        """Wrong version, unknown field, broken text, the wrong thing altogether, too large."""
        self.assertEqual(complaint({"version": 2})[0], "version")
        self.assertEqual(complaint({"shel": {}})[0], "shel")
        self.assertEqual(complaint('{"shell": {"length_mm": 8')[0], "document")
        self.assertEqual(complaint("[]")[0], "document")
        self.assertEqual(complaint("[" * 100_000)[0], "document")
        field, value, limit = complaint(json.dumps({"brief": {"reason": "x" * 5_000_000}}))
        self.assertEqual((field, limit), ("document", "1000000 bytes or less"))
        self.assertIn("bytes", str(value))

    def test_keep_outs(self) -> None:
        """The list's place is in the path; ids differ; forty are the most."""
        one = {"id": "a", "name": "a", "x_mm": 0, "y_mm": 0, "z_mm": 0, "length_mm": 1, "width_mm": 1, "height_mm": 1}
        bay = {"length_mm": 500, "width_mm": 500, "height_mm": 500}
        self.assertEqual(complaint({"bay": bay | {"keep_outs": [one, one]}})[:2], ("bay.keep_outs.1.id", "a"))
        self.assertEqual(
            complaint({"bay": bay | {"keep_outs": [one, one | {"id": "b", "x_mm": 3e4}]}})[0], "bay.keep_outs.1.x_mm"
        )
        many = [one | {"id": f"k{place}"} for place in range(41)]
        self.assertEqual(complaint({"bay": bay | {"keep_outs": many}})[0], "bay.keep_outs")

    @given(
        st.recursive(
            st.none() | st.booleans() | st.floats() | st.text(max_size=5),
            lambda b: (
                st.lists(b, max_size=3)
                | st.dictionaries(st.sampled_from(["shell", "bay", "brief", "length_mm", "version"]), b, max_size=3)
            ),
            max_leaves=8,
        )
    )
    def test_anything_is_read_or_refused(self, document: Any) -> None:
        """No other way out."""
        try:
            read_design(json.dumps(document))
        except UnreadableDesignError as error:
            self.assertTrue(error.faults)


class RoundTrip(TestCase):
    """What is written is read again."""

    @given(shells(), bays(3))
    def test_json(self, shell: BoxShell, bay: Bay) -> None:
        """To JSON and back is the same design."""
        design = Design(shell=shell, bay=bay)
        self.assertEqual(read_design(design_json(design)), design)

    def test_schema_names_every_part(self) -> None:
        """The JSON Schema has the document's parts."""
        self.assertLessEqual({"brief", "bay", "shell", "sheet", "version"}, set(design_schema()["properties"]))

    def test_paper_quantities(self) -> None:
        """Sixteenths in lowest terms; three kinds of volume."""
        self.assertEqual(
            [length_text(mm, "in_usgal") for mm in (412.75, 25.4, 3.175, -6.35, 0)],
            ['16 1/4"', '1"', '1/8"', '-1/4"', '0"'],
        )
        self.assertEqual(length_text(412.75, "mm_l"), "412.8")
        self.assertEqual(
            [volume_text(10, u) for u in ("mm_l", "in_usgal", "in_impgal")], ["10.00 L", "2.64 US gal", "2.20 imp gal"]
        )  # type: ignore[arg-type]


class CommandLine(TestCase):
    """`python -m keel`."""

    def run_with(self, *arguments: str) -> tuple[int, str, str]:
        """Exit code, standard output, standard error."""
        out, err = io.StringIO(), io.StringIO()
        with redirect_stdout(out), redirect_stderr(err):
            code = main(arguments)
        return code, out.getvalue(), err.getvalue()

    def test_evaluate(self) -> None:
        """Prints the evaluation as JSON; a line a fault and exit code 2 on bad input."""
        with TemporaryDirectory() as folder:
            good, bad = Path(folder, "good.json"), Path(folder, "bad.json")
            good.write_text(json.dumps({"shell": SHELL | {"bend_radius_mm": 0}}))
            bad.write_text(json.dumps({"shell": {"length_mm": -1, "width_mm": "x", "height_mm": 5}}))
            code, out, _ = self.run_with("evaluate", str(good))
            self.assertEqual(code, 0)
            self.assertAlmostEqual(json.loads(out)["shell"]["figures"]["brimful_l"], 107.615584, places=6)
            code, out, err = self.run_with("evaluate", str(bad))
            self.assertEqual((code, out), (2, ""))
            self.assertEqual([line.split(":")[0] for line in err.splitlines()], ["shell.length_mm", "shell.width_mm"])
            self.assertEqual(self.run_with("evaluate", str(Path(folder, "none.json")))[0], 2)
            rules = Path(folder, "rules.json")
            rules.write_text('{"brake": {"width_mm": -1}}')
            self.assertEqual(self.run_with("evaluate", str(good), "--workshop", str(rules))[0], 2)

    def test_schema(self) -> None:
        """Prints the JSON Schema."""
        code, out, _ = self.run_with("schema")
        self.assertEqual((code, json.loads(out)["title"]), (0, "Design"))
