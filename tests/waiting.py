"""Waiting for a page to become what it is to be."""

import time
from collections.abc import Callable
from typing import Any


def waited(what: Callable[[], Any], why: str, patience_s: float, pause: Callable[[], Any]) -> Any:
    """What something gives once it is true; until then it may also raise: the page is still changing.

    Raises
    ------
    AssertionError
        After so many seconds, with what it gave or raised last.
    """
    deadline = time.monotonic() + patience_s
    last: Any = None
    while time.monotonic() < deadline:
        try:
            last = what()
        except Exception as error:
            last = error
        else:
            if last:
                return last
        pause()
    raise AssertionError(f"waited in vain for {why or what}: {last!r} {last}")
