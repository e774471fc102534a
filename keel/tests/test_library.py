"""The public face: what docs/library.md shows does what it says there."""

import re
from contextlib import redirect_stdout
from io import StringIO
from pathlib import Path
from unittest import TestCase

import keel

PAGE = Path(keel.__file__).parents[1] / "docs/library.md"
EXAMPLE = re.compile(r"```python\n(.*?)```\n\n```text\n(.*?)```", re.DOTALL)


class Library(TestCase):
    """`import keel`."""

    def test_the_examples_print_what_stands_there(self) -> None:
        """Each is run as it stands."""
        examples = EXAMPLE.findall(PAGE.read_text())
        self.assertGreaterEqual(len(examples), 3)
        for code, printed in examples:
            heard = StringIO()
            with redirect_stdout(heard):
                exec(code, {})
            self.assertEqual(heard.getvalue(), printed, code)

    def test_the_face_is_described(self) -> None:
        """Every public name can be had and stands on the page; others are no part of it."""
        page = PAGE.read_text()
        for name in keel.__all__:
            self.assertTrue(callable(getattr(keel, name)), name)
            self.assertIn(name, page)
        with self.assertRaises(AttributeError):
            _ = keel.studies_of_everything
