"""What was worked out before, kept as long as there is room."""

from __future__ import annotations

from collections import Counter, OrderedDict
from collections.abc import Callable
from threading import Lock
from typing import Any, TypeVar, cast

from keel.analysis.study import Study

T = TypeVar("T")


class Memory:
    """Results of studies by what they came from; of each study the last few.

    It may be shared by threads: a result that two of them want at once is worked out twice, and is the same.

    Attributes
    ----------
    recalled, worked_out : Counter of str
        How often each study was found here, and how often it had to be run.
    """

    def __init__(self) -> None:
        self._results: dict[str, OrderedDict[bytes, Any]] = {}
        self._lock = Lock()
        self.recalled: Counter[str] = Counter()
        self.worked_out: Counter[str] = Counter()

    def recall(self, study: Study[T], key: bytes, work_out: Callable[[], T]) -> T:
        """A study's result from what has this digest; run only if it isn't here."""
        with self._lock:
            kept = self._results.setdefault(study.name, OrderedDict())
            if key in kept:
                kept.move_to_end(key)
                self.recalled[study.name] += 1
                return cast(T, kept[key])
        result = work_out()
        self.hold(study, key, result)
        with self._lock:
            self.worked_out[study.name] += 1
        return result

    def hold(self, study: Study[T], key: bytes, result: T) -> None:
        """Keep a result as the latest of its study."""
        with self._lock:
            kept = self._results.setdefault(study.name, OrderedDict())
            kept[key] = result
            kept.move_to_end(key)
            while len(kept) > study.keeps:
                kept.popitem(last=False)
