"""Price remedies: try each on the design and say what it settles, raises and costs."""

from dataclasses import replace

from pydantic import ValidationError

from keel.findings.finding import Change, Finding, Remedy
from keel.findings.judge import judge
from keel.findings.patch import apply
from keel.findings.remedies import PRESCRIBERS
from keel.solid.faults import GeometryError
from keel.studies.studied import Studied, study
from keel.studies.work import minutes_more, money_more, work

INFORMS = frozenset({"inside.order", "inside.braces", "inside.braces_none"})
"""Findings that say how it is done or what it does: none is settled or raised by a remedy."""


def with_remedies(seen: Studied, findings: list[Finding]) -> list[Finding]:
    """The findings with their remedies, each tried and priced.

    A remedy that leads to no valid design, or doesn't settle its finding, is left out.
    """
    pricing = Pricing(seen, findings)
    return [replace(finding, remedies=pricing.remedies(finding)) for finding in findings]


class Pricing:
    """Tries remedies on one design. Several findings may ask for the same one: it is tried once."""

    def __init__(self, seen: Studied, findings: list[Finding]) -> None:
        self.seen = seen
        self.present = {finding.key for finding in findings if finding.code not in INFORMS}
        self._tried: dict[str, tuple[Studied, list[Finding]] | None] = {}

    def remedies(self, finding: Finding) -> list[Remedy]:
        """The priced remedies that settle a finding."""
        drafts = PRESCRIBERS[finding.code](self.seen, finding) if finding.code in PRESCRIBERS else ()
        return [priced for draft in drafts if (priced := self.price(draft, finding.key)) is not None]

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
            self._tried[name] = _try(self.seen, remedy)
        tried = self._tried[name]
        if tried is None:
            return None
        after, findings = tried
        then = {item.key: item.title for item in findings if item.code not in INFORMS}
        if key in then:
            return None
        return replace(
            remedy,
            change=_change(self.seen, after),
            settles=len(self.present - then.keys()),
            raises=[title for key, title in then.items() if key not in self.present],
        )


def _try(seen: Studied, remedy: Remedy) -> tuple[Studied, list[Finding]] | None:
    try:
        after = study(apply(seen.design, remedy.patch), seen.workshop, seen.scans)
        return (after, judge(after)) if after else None
    except (ValidationError, GeometryError):
        return None


def _change(before: Studied, after: Studied) -> Change:
    a, b, prices = before.figures, after.figures, before.workshop.prices
    was, is_ = work(before.design, a, before.sheet), work(after.design, b, after.sheet)
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
