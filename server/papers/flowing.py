"""A paper of tables, one after the other, that goes on to the next page where one ends low."""

from collections.abc import Sequence

from reportlab.lib.pagesizes import A4
from reportlab.lib.units import mm

from server.papers.heading import Heading
from server.papers.page import MARGIN, Page

STEP = 18


class FlowingSheet:
    """Tables under their titles.

    Parameters
    ----------
    heading : Heading
        Whose paper it is.
    subject, title : str
        What it is about, in a word and as its heading.
    size : (float, float)
        Of its pages [points].
    """

    def __init__(self, heading: Heading, subject: str, title: str, size: tuple[float, float] = A4) -> None:
        self.page, self.subject = Page(heading, subject, size), subject
        self.y = self.page.start(title)

    def room(self, tall: float) -> None:
        """A new page where less than that is left."""
        if self.y < 24 * mm + tall:
            self.page.next()
            self.y = self.page.start(f"{self.subject.capitalize()}, continued")

    def words(self, text: str, size: float = 9, *, bold: bool = False) -> None:
        """A paragraph."""
        self.y = self.page.words(text, MARGIN, self.y, self.page.width - 2 * MARGIN, size, bold=bold) - 4 * mm

    def table(self, title: str, rows: list[list[str]], widths: list[float], texts: Sequence[int] = (0, 1, 2)) -> None:
        """A table with a title; on a new page where less than a few rows fit."""
        for begin in range(1, len(rows), STEP):
            part = [rows[0], *rows[begin : begin + STEP]]
            self.room(8 * mm + 7 * mm * len(part))
            self.y = self.page.words(title, MARGIN, self.y, 180 * mm, 10.5, bold=True) - 1 * mm
            self.y = self.page.table(part, MARGIN, self.y, [wide * mm for wide in widths], texts=texts) - 5 * mm

    def pdf(self) -> bytes:
        """The finished paper."""
        self.page.next()
        return self.page.pdf()
