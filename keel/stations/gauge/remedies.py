"""What puts a sender right."""

from collections.abc import Iterator

from keel.analysis.tank import TankAnalysis
from keel.findings.edits import changed_items
from keel.findings.finding import Finding, Remedy
from keel.findings.fuels import fuels_of
from keel.studies.result import words

MOST_OFFERED = 2


def other_sender(tank: TankAnalysis, finding: Finding) -> Iterator[Remedy]:
    """A sender of the library's that is listed for all the fuels, of the same action first."""
    senders, name = tank.design.gauge.senders, finding.subject
    sender = next(sender for sender in senders if sender.id == name)
    known = sorted(tank.workshop.senders, key=lambda one: one.action.kind != sender.action.kind)
    for one in [one for one in known if set(fuels_of(tank)) <= set(one.fuels)][:MOST_OFFERED]:
        fields = one.model_dump(mode="json", include={"action", "ohms_empty", "ohms_full", "fuels"})
        yield Remedy(
            label=words("{sender} at its place", sender=one.name),
            patch={"gauge": {"senders": changed_items(senders, name, **fields)}},
        )
