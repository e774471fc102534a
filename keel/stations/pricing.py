"""Price remedies: try each on the design and say what it settles, raises and costs."""

from collections.abc import Callable
from dataclasses import dataclass, replace

from pydantic import ValidationError

from keel.analysis.tank import TankAnalysis
from keel.findings.finding import Change, Finding, Remedy
from keel.findings.patch import apply
from keel.solid.faults import GeometryError
from keel.stations.judge import findings_on
from keel.stations.registry import prescriber_of
from keel.studies.cost.figures import FIGURES
from keel.studies.cost.work import minutes_more, money_more, work
from keel.studies.result import Words
from keel.studies.sheet.shell_parts import BARE_SOLIDS
from keel.studies.sheet.unfold import SHEET

INFORMS = frozenset(
    {
        *("inside.order", "inside.braces", "inside.braces_none", "brake.order", "cut.none", "built.cut"),
        *("proof.coarse", "proof.scale"),
        *("sheet.fold", "sheet.seam", "sheet.holes", "sheet.features", "hole.bend", "hole.edge", "hole.runs_out"),
    }
)
"""Findings that say how it is done or what it does, or are looked for once at the end: no remedy's trial asks."""


@dataclass(frozen=True)
class _Tried:
    """What a remedy changes, and what is found then."""

    change: Change
    titles: dict[str, Words]


class Pricing:
    """Tries remedies on one design. Several findings may ask for the same one: it is tried once.

    Parameters
    ----------
    tank : TankAnalysis
        The design as it is.
    findings : list of Finding
        What is found on it, what weighs most first.
    enough : callable
        Asked before each try; once it says so, what is left is counted as `untried`.
    """

    def __init__(self, tank: TankAnalysis, findings: list[Finding], enough: Callable[[], bool] = lambda: False) -> None:
        self.tank, self.findings, self.enough = tank, findings, enough
        self.present = {finding.key for finding in findings if finding.code not in INFORMS}
        self.untried = 0
        self._tried: dict[str, _Tried | None] = {}

    def with_remedies(self) -> list[Finding]:
        """The findings with their remedies, each tried and priced.

        A remedy that leads to no valid design, or doesn't settle its finding, is left out.
        """
        return [replace(finding, remedies=self.remedies(finding)) for finding in self.findings]

    def remedies(self, finding: Finding) -> list[Remedy]:
        """The priced remedies that settle a finding."""
        prescriber = prescriber_of(finding.code)
        if prescriber is None:
            return []
        if self.enough():
            self.untried += 1
            return []
        drafts = prescriber(self.tank, finding)
        return [priced for draft in drafts if (priced := self.price(draft, finding.key)) is not None]

    def offered(self, remedy: Remedy | None) -> Remedy | None:
        """A change that is offered without a finding: priced where there is a tank to compare with."""
        if remedy is None or self.tank.design.shell is None:
            return remedy
        return self.price(remedy)

    def price(self, remedy: Remedy, key: str | None = None) -> Remedy | None:
        """A remedy with what it changes, settles and raises.

        Parameters
        ----------
        remedy : Remedy
            Its patch is tried on the design.
        key : str, optional
            The finding it has to settle.

        Returns
        -------
        Remedy or None
            None when the design would be invalid or the finding would stay.
        """
        name = repr(remedy.patch)
        if name not in self._tried:
            if self.enough():
                self.untried += 1
                return None
            self._tried[name] = _try(self.tank, remedy)
        tried = self._tried[name]
        if tried is None or key in tried.titles:
            return None
        then = tried.titles
        return replace(
            remedy,
            change=tried.change,
            settles=len(self.present - then.keys()),
            raises=[title for key, title in then.items() if key not in self.present],
        )


def _try(tank: TankAnalysis, remedy: Remedy) -> _Tried | None:
    try:
        after = tank.of(apply(tank.design, remedy.patch))
        if after.design.shell is None:
            return None
        titles = {item.key: item.title for item in findings_on(after) if item.code not in INFORMS}
        return _Tried(_change(tank, after), titles)
    except (ValidationError, GeometryError):
        return None


def _change(before: TankAnalysis, after: TankAnalysis) -> Change:
    a, b, prices = before[FIGURES], after[FIGURES], before.workshop.prices
    was = work(before.design, a, before[SHEET], before[BARE_SOLIDS])
    is_ = work(after.design, b, after[SHEET], after[BARE_SOLIDS])
    heavier = b.empty_kg - a.empty_kg if a.empty_kg is not None and b.empty_kg is not None else None
    return Change(
        brimful_l=b.brimful_l - a.brimful_l,
        rated_l=b.rated_l - a.rated_l,
        empty_kg=heavier,
        weld_m=b.weld_m - a.weld_m,
        minutes=minutes_more(was, is_, prices),
        money=money_more((before.design, a), (after.design, b), was, is_, prices),
        currency=prices.currency,
    )
