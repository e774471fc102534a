"""What a design leaves open: findings that have to be closed before fuel, engine or customer."""

from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from typing import Literal

from keel.findings.finding import Finding, StationName
from keel.studies.build.operation import Before
from keel.studies.result import Words

LeftWhy = Literal["temporary", "loose", "untied", "missing", "held open", "unknown", "to be coated"]
"""What people say of something that they leave open."""
OpenWhy = LeftWhy | Literal["overridden", "not proved", "stop"]


@dataclass(frozen=True, slots=True)
class OpenItem:
    """Something that stands open.

    Attributes
    ----------
    key : str
        What entries of the log name it by; the same while the same thing is open.
    before : Before
        The step that it has to be closed before.
    station, subject : str
        Where it is closed, and on what there; a station's subject is a finding's, an operation's or a joint's.
    stays : str
        Why somebody lets it stay as it is; empty: it blocks.
    by : str
        Who left it open, or lets it stay.
    """

    key: str
    why: OpenWhy
    what: Words
    before: Before
    station: StationName
    subject: str
    stays: str = ""
    by: str = ""


STEPS: tuple[Before, ...] = ("first fuel", "engine running", "hand-over")
"""In their order: what is open before one is open before the next."""
KNOWN: dict[str, tuple[OpenWhy, Before]] = {
    "lines.old_unknown": ("unknown", "engine running"),
    "lines.old_uncapped": ("missing", "first fuel"),
    "lines.old_gone": ("unknown", "engine running"),
    "lines.old_vapour": ("unknown", "hand-over"),
    "lines.port_open": ("missing", "first fuel"),
    "lines.open": ("missing", "first fuel"),
    "lines.loose": ("loose", "engine running"),
    "lines.unclamped": ("untied", "engine running"),
    "lines.unknown_joint": ("unknown", "engine running"),
    "port.open": ("missing", "first fuel"),
    "filler.bonding_open": ("missing", "first fuel"),
    "filler.unbonded": ("missing", "first fuel"),
    "filler.old_measures": ("unknown", "hand-over"),
    "wiring.unbonded": ("missing", "first fuel"),
    "wiring.bond_gone": ("missing", "first fuel"),
    "wiring.open": ("loose", "engine running"),
    "wiring.unwired": ("loose", "engine running"),
    "wiring.in_tank_loose": ("untied", "first fuel"),
    "mount.cut": ("held open", "first fuel"),
    "mount.locking": ("loose", "engine running"),
    "buying.no_mate": ("missing", "first fuel"),
    "buying.too_many": ("unknown", "hand-over"),
}
"""Findings that are open items whatever their weight: why, and before which step."""
CARRIES_FUEL = ("shell", "ports", "proof", "mount", "lines", "wiring")


def open_in(findings: Iterable[Finding]) -> list[OpenItem]:
    """Findings that stand open: every stop, and those that name something left, loose or unknown.

    Parameters
    ----------
    findings : iterable of Finding
        All of a design's.

    Returns
    -------
    list of OpenItem
        In their order. Notes are none, unless they name such a thing.
    """
    found = []
    for one in findings:
        known = KNOWN.get(one.code)
        if known is None and one.severity != "stop":
            continue
        why, before = known or ("stop", "first fuel" if one.station in CARRIES_FUEL else "hand-over")
        found.append(OpenItem(f"finding {one.key}"[:120], why, one.title, before, one.station, one.subject))
    return found


def stands_before(items: Sequence[OpenItem], before: Before) -> list[OpenItem]:
    """What blocks a step: open before it or before an earlier one, and nobody lets it stay.

    Parameters
    ----------
    items : sequence of OpenItem
        The ledger.
    before : Before
        The step.

    Returns
    -------
    list of OpenItem
        In the ledger's order.
    """
    counted = STEPS[: STEPS.index(before) + 1]
    return [one for one in items if one.before in counted and not one.stays]
