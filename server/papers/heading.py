"""What stands over every paper: whose, of what, which revision, in whose units."""

from dataclasses import dataclass
from datetime import datetime

from keel.log.state import BuildState
from keel.reference.quantities import UnitSet
from server.jobs.models import Revision, TankDesign
from server.workshop.models import Person


@dataclass(frozen=True)
class Heading:
    """What stands over the sheet."""

    workshop: str
    job: str
    customer: str
    design: str
    revision: int
    saved: datetime
    author: str
    reader: UnitSet
    """Units of the person who prints."""
    unmet: tuple[str, ...] = ()
    """Gates that were passed unmet, by whom, why: in red on every page."""


def unmet(state: BuildState) -> tuple[str, ...]:
    """Gates that were passed unmet, each in a line."""
    passed = [(gate.gate.title.plain(), gate.override) for gate in state.gates if gate.standing == "overridden"]
    return tuple(f"{title}, by {over.name} on {over.when:%d %b %Y}: {over.reason}" for title, over in passed if over)


def heading_of(reader: Person, tank: TankDesign, revision: Revision, passed: tuple[str, ...] = ()) -> Heading:
    """The heading of a revision's papers, in its reader's units, with the gates that were passed unmet."""
    return Heading(
        workshop=tank.workshop.name,
        job=f"{tank.job.number} {tank.job.title}",
        customer=tank.job.customer.name if tank.job.customer else "",
        design=tank.name,
        revision=revision.number,
        saved=revision.saved,
        author=revision.author.name if revision.author else "",
        reader=reader.reads,
        unmet=passed,
    )
