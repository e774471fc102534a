"""One question about a tank: each study is run when it is first read, and once."""

from __future__ import annotations

from dataclasses import dataclass, field, replace
from math import ceil
from typing import Any, TypeVar, cast

from keel.analysis.memory import Memory
from keel.analysis.showing import Showing
from keel.analysis.study import DocumentPart, Input, Maybe, Study
from keel.design.document import Design
from keel.design.workshop import Workshop
from keel.solid.neighbours import Scans
from keel.solid.solids import AnyShell, Solids

T = TypeVar("T")
ROUNDING = 1e-6
"""A length this share of a step over a mark is on it."""


@dataclass(frozen=True)
class Asked:
    """What is asked: a design by a workshop's rules, and what of it is to be shown."""

    design: Design
    workshop: Workshop = field(default_factory=Workshop)
    scans: Scans = field(default_factory=dict)
    showing: Showing = field(default_factory=Showing)


class TankAnalysis:
    """The studies of one question.

    Parameters
    ----------
    asked : Asked
        Design, workshop, scans, what is shown.
    memory : Memory, optional
        What was worked out for other questions; an empty one by default.
    explains : bool
        Whether reasons are wanted of what is found. A remedy that is tried is asked what it settles and raises only.
    """

    def __init__(self, asked: Asked, memory: Memory | None = None, *, explains: bool = True) -> None:
        self.asked, self.memory, self.explains = asked, Memory() if memory is None else memory, explains
        self._keys: dict[str, bytes] = {}
        self._values: dict[str, Any] = {}
        self._parts: dict[DocumentPart[Any], bytes] = {}
        self._origins: dict[Study[Any], bytes] = {}

    def __getitem__(self, wanted: Input[T]) -> T:
        if wanted.name not in self._values:
            self._values[wanted.name] = wanted.value(self)
        return cast(T, self._values[wanted.name])

    @property
    def is_at_rest(self) -> bool:
        """Whether nothing is dragged, and it is no trial of a remedy."""
        return self.asked.showing.remedies and self.explains

    def get(self, wanted: Input[T]) -> T | None:
        """The same, or None where something that it needs is missing."""
        return self[Maybe(wanted)]

    def key(self, wanted: Input[Any]) -> bytes:
        """The digest of what an input comes from."""
        if wanted.name not in self._keys:
            self._keys[wanted.name] = wanted.key(self)
            if isinstance(wanted, DocumentPart):
                self._parts[wanted] = self._keys[wanted.name]
        return self._keys[wanted.name]

    def hold(self) -> None:
        """Have what was worked out here outlast, in the memory, what was worked out since."""
        for one, key in self._origins.items():
            self.memory.hold(one, key, self._values[one.name])

    def remember(self, study: Study[T]) -> T:
        """A study's result, out of memory where it was worked out from the same before."""
        key = study.origin(self)
        result = self.memory.recall(study, key, lambda: study.run(self))
        self._origins[study] = key
        return result

    @property
    def design(self) -> Design:
        """The design that is asked about."""
        return self.asked.design

    @property
    def workshop(self) -> Workshop:
        """By whose rules."""
        return self.asked.workshop

    @property
    def scans(self) -> Scans:
        """Kept scans by fingerprint."""
        return self.asked.scans

    @property
    def shell(self) -> AnyShell:
        """The shell, which has to be there."""
        shell = self.asked.design.shell
        if shell is None:
            raise LookupError("there is no shell")
        return shell

    @property
    def solids(self) -> Solids:
        """The tank's solids as fuel meets them."""
        from keel.analysis.parts import SOLIDS  # it is built on this module

        return self[SOLIDS]

    def marked(self, mm: float) -> float:
        """A length rounded up to what the reader marks out by [mm]."""
        step = self.asked.showing.mark_mm
        return float(round(ceil(mm / step - ROUNDING) * step, 6))

    def of(self, design: Design) -> TankAnalysis:
        """What another design would come to, with the same memory; what it shares keeps its digests."""
        other = TankAnalysis(replace(self.asked, design=design), self.memory, explains=False)
        for part, key in self._parts.items():
            if part.is_same(self.asked, other.asked):
                other._keys[part.name] = other._parts[part] = key
        return other
