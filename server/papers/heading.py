"""What stands over every paper: whose, of what, which revision, in whose units."""

from dataclasses import dataclass
from datetime import datetime

from keel.formats.quantities import ReaderUnits
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
    units: str

    @property
    def reader(self) -> ReaderUnits:
        """Units of the person who prints."""
        return "in_usgal" if self.units == "in_usgal" else "in_impgal" if self.units == "in_impgal" else "mm_l"


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
        units=reader.units,
    )
