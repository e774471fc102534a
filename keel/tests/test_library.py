"""The public face: what docs/library.md shows does what it says there."""

import ast
import re
from collections.abc import Iterator
from contextlib import redirect_stdout
from io import StringIO
from pathlib import Path
from unittest import TestCase

import keel

PAGE = Path(keel.__file__).parents[1] / "docs/library.md"
ROOT = Path(keel.__file__).parent
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


def sources() -> Iterator[tuple[str, ast.Module]]:
    """Each module of the core, tests apart, under the room it is in."""
    for path in sorted(ROOT.rglob("*.py")):
        if "tests" not in path.parts:
            yield str(path.parent.relative_to(ROOT)), ast.parse(path.read_text())


class Described(TestCase):
    """Functions that a room lends to others."""

    def test_each_says_what_it_takes_and_gives(self) -> None:
        """But a station's rules and remedies: they share one signature, and it is described with the registry."""
        lent = {
            (name.name, lender)
            for room, module in sources()
            for node in ast.walk(module)
            if isinstance(node, ast.ImportFrom) and (node.module or "").startswith("keel.")
            for lender in ["/".join((node.module or "").split(".")[1:-1]) or "."]
            for name in node.names
            if lender != room and not lender.startswith("stations/")
        }
        silent, seen = [], 0
        for room, module in sources():
            for function in module.body:
                is_lent = isinstance(function, ast.FunctionDef) and (function.name, room) in lent
                if not is_lent or any(ast.unparse(by) == "overload" for by in function.decorator_list):
                    continue
                seen += 1
                described, gives = ast.get_docstring(function) or "", ast.unparse(function.returns)
                if function.args.args and "Parameters\n---" not in described:
                    silent.append(f"{room}: {function.name} takes")
                if gives not in ("None", "NoReturn") and "Returns\n---" not in described:
                    silent.append(f"{room}: {function.name} gives")
        self.assertGreater(seen, 100)
        self.assertEqual(silent, [])
