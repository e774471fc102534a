"""What a station is."""

from collections.abc import Callable, Iterator, Mapping
from dataclasses import dataclass, field

from keel.design.document import Design
from keel.design.workshop import HouseRules
from keel.findings.finding import Finding, Prescriber, Rule, StationName

DocumentRule = Callable[[Design, HouseRules], Iterator[Finding]]


def _never(_design: Design) -> bool:
    return False


@dataclass(frozen=True)
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
    document_rules: tuple[DocumentRule, ...] = ()
    rules: tuple[Rule, ...] = ()
    prescribers: Mapping[str, Prescriber] = field(default_factory=dict)
