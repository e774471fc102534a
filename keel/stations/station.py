"""What a station is."""

from collections.abc import Callable, Iterable, Iterator, Mapping
from dataclasses import dataclass, field
from functools import wraps
from typing import Any

from keel.analysis.study import Study
from keel.analysis.tank import TankAnalysis
from keel.design.base import Part
from keel.design.document import Design
from keel.design.workshop import HouseRules
from keel.findings.finding import Finding, Prescriber, Remedy, Rule, StationName

DocumentRule = Callable[[Design, HouseRules], Iterator[Finding]]
Offer = Callable[[TankAnalysis], Remedy | None]
"""A change that is offered without a finding, untried."""
Comparison = Callable[[TankAnalysis], list[Any]]
"""Other ways set beside what is drawn."""


def once(is_begun: Callable[[Design], bool], rules: Iterable[Rule]) -> tuple[Rule, ...]:
    """Rules that aren't asked before there is anything of a station: nothing is worked out for nothing.

    Parameters
    ----------
    is_begun : callable
        Whether there is.
    rules : iterable of Rule
        The station's.

    Returns
    -------
    tuple of Rule
        In the same order.
    """

    def asked(rule: Rule) -> Rule:
        @wraps(rule)
        def judged(tank: TankAnalysis) -> Iterator[Finding]:
            return rule(tank) if is_begun(tank.design) else iter(())

        return judged

    return tuple(map(asked, rules))


def _never(_design: Design) -> bool:
    return False


@dataclass(frozen=True, eq=False)
class Station:
    """One station of the work.

    Attributes
    ----------
    name, title : str
        Its name in addresses and findings, and on the screen.
    is_begun : callable
        Whether anything of a design belongs to it.
    lacks : callable
        Whether something is missing although it is begun.
    part : type, optional
        The model of its part of the document, under its name, where `Design` doesn't declare it.
    studies : mapping of str to Study
        What it shows, by the name under which an evaluation has it.
    offers : mapping of str to callable
        Changes that are offered without a finding; each is tried and priced at rest.
    comparisons : mapping of str to callable
        Other ways to do what is drawn, side by side, at rest; each says by its annotation what it lists.
    document_rules : tuple of callable
        What is judged with or without a shell.
    rules : tuple of callable
        What is judged once there is a shell.
    prescribers : mapping of str to callable
        By the code of a finding, what would put it right.
    """

    name: StationName
    title: str
    is_begun: Callable[[Design], bool]
    lacks: Callable[[Design], bool] = _never
    part: type[Part] | None = None
    studies: Mapping[str, Study[Any]] = field(default_factory=dict)
    offers: Mapping[str, Offer] = field(default_factory=dict)
    comparisons: Mapping[str, Comparison] = field(default_factory=dict)
    document_rules: tuple[DocumentRule, ...] = ()
    rules: tuple[Rule, ...] = ()
    prescribers: Mapping[str, Prescriber] = field(default_factory=dict)

    @property
    def shows(self) -> bool:
        """Whether an evaluation has anything of it beyond findings."""
        return bool(self.studies or self.offers or self.comparisons)
