"""What stands over every paper: whose, of what, which revision, in whose units."""

from dataclasses import dataclass
from datetime import datetime

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


def heading_of(reader: Person, tank: TankDesign, revision: Revision) -> Heading:
    """The heading of a revision's papers, in its reader's units."""
    return Heading(
        workshop=tank.workshop.name,
        job=f"{tank.job.number} {tank.job.title}",
        customer=tank.job.customer.name if tank.job.customer else "",
        design=tank.name,
        revision=revision.number,
        saved=revision.saved,
        author=revision.author.name if revision.author else "",
        reader=reader.reads,
    )
