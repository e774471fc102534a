"""Call functions of the front end's TypeScript from Python: Vite loads them in Node as it would for the page."""

import atexit
import json
import os
import subprocess
from collections.abc import Callable
from functools import cache
from typing import Any, Literal

from django.conf import settings

WEB = settings.BASE_DIR / "web"
Serve = Callable[[dict[str, Any]], dict[str, Any]]


def nobody(request: dict[str, Any]) -> dict[str, Any]:
    """A server that is away."""
    return {"away": True}


class Node:
    """Node with Vite in it, asked line by line; with a document to draw on where there is a page."""

    def __init__(self, kind: Literal["modules", "page"]) -> None:
        self._process = subprocess.Popen(
            ["node", "tests/runner.mjs", kind],
            cwd=WEB,
            # A page as it is shipped; modules as they are written, with all that React checks.
            env=os.environ | {"NODE_ENV": "production" if kind == "page" else "development"},
            stdin=subprocess.PIPE,
            stdout=subprocess.PIPE,
            text=True,
        )
        atexit.register(self._process.kill)

    def _say(self, line: Any) -> None:
        assert self._process.stdin is not None
        self._process.stdin.write(json.dumps(line) + "\n")
        self._process.stdin.flush()

    def call(self, module: str, calls: list[tuple[Any, ...]], serve: Serve = nobody) -> list[Any]:
        """Results of `(function, *arguments)` calls of one module; `serve` answers what they ask the server.

        The module is one under `web/src`, or one under `web/tests` where its name has an ending.
        """
        source = f"/tests/{module}" if "." in module else f"/src/{module}.ts"
        self._say([source, calls])
        assert self._process.stdout is not None
        while True:
            answer = json.loads(self._process.stdout.readline())
            if "request" not in answer:
                break
            self._say({"reply": {"id": answer["request"]["id"], **serve(answer["request"])}})
        if "error" in answer:
            raise AssertionError(answer["error"])
        results: list[Any] = answer["results"]
        return results


@cache
def node(kind: Literal["modules", "page"]) -> Node:
    """One of each, started when it is first asked."""
    return Node(kind)


def call(module: str, calls: list[tuple[Any, ...]]) -> list[Any]:
    """Results of functions that need no page."""
    return node("modules").call(module, calls)
