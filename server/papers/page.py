"""A paper's page: one font, one heading, one table, one ruler; words keep within their width."""

import io
from collections.abc import Sequence
from pathlib import Path
from typing import Literal
from xml.sax.saxutils import escape

from reportlab.lib.colors import Color, HexColor
from reportlab.lib.pagesizes import A4
from reportlab.lib.styles import ParagraphStyle
from reportlab.lib.units import inch, mm
from reportlab.pdfbase import pdfmetrics
from reportlab.pdfbase.ttfonts import TTFont
from reportlab.pdfgen.canvas import Canvas
from reportlab.platypus import Paragraph, Table, TableStyle

from server.papers.heading import Heading

FONTS = Path(__file__).parent / "fonts"
PLAIN, BOLD = "Archivo", "Archivo Bold"
INK, QUIET, LINE = HexColor("#1d262b"), HexColor("#5b686f"), HexColor("#b8c2c7")
PAPER = HexColor("#ffffff")
METAL, FUEL, ACCENT = HexColor("#35505c"), HexColor("#c96f12"), HexColor("#4b3fa0")
STOP, CAUTION = HexColor("#a31621"), HexColor("#7d5200")
MARGIN = 12 * mm
HEAD = 16 * mm
"""What the heading takes below the top margin."""
LEADING = 1.25
UNMET = 9 * mm
"""Where gates that were passed unmet are told, from the lower edge."""
WRITTEN_OUT = str.maketrans({"Ω": "ohm", "≥": "at least ", "≤": "at most ", "→": "to", "✓": "yes"})
Align = Literal["left", "right", "middle"]

for _name, _file in ((PLAIN, "Archivo-Regular.ttf"), (BOLD, "Archivo-Bold.ttf")):
    pdfmetrics.registerFont(TTFont(_name, FONTS / _file))


class Page:
    """A paper being written, a page at a time.

    Attributes
    ----------
    canvas : Canvas
        For what is drawn.
    heading : Heading
        Whose it is, of what.
    width, height : float
        Of the page [points].
    font : str
        Of plain words.
    paper : Color
        What nothing is printed on.
    """

    font, paper = PLAIN, PAPER

    def __init__(self, heading: Heading, subject: str, size: tuple[float, float] = A4) -> None:
        self._stream = io.BytesIO()
        self.canvas = Canvas(self._stream, pagesize=size, initialFontName=PLAIN)
        self.canvas.setTitle(f"{heading.job}: {heading.design} r{heading.revision}, {subject}")
        self.canvas.setAuthor(heading.author or heading.workshop)
        self.heading, (self.width, self.height) = heading, size

    def start(self, title: str) -> float:
        """The heading of a page, with what the page is; gives the height below it [points]."""
        of, across = self.heading, self.width - 2 * MARGIN
        top, left = self.height - MARGIN, across * 0.64
        self.words(f"{of.job} – {of.design}", MARGIN, top, left, 12, bold=True, lines=1)
        self.words(title, MARGIN, top - 6 * mm, left, 9, lines=1)
        right = MARGIN + left
        who = " – ".join(part for part in (of.workshop, of.customer) if part)
        kept = f"revision {of.revision}, {of.saved:%Y-%m-%d %H:%M} UTC" + (f", {of.author}" if of.author else "")
        self.words(who, right, top - 0.6 * mm, across - left, 8.5, align="right", lines=1)
        self.words(kept, right, top - 6 * mm, across - left, 8.5, colour=QUIET, align="right", lines=1)
        self.canvas.setStrokeColor(INK)
        self.canvas.setLineWidth(0.8)
        self.canvas.line(MARGIN, top - 12 * mm, self.width - MARGIN, top - 12 * mm)
        self._unmet()
        return float(top - HEAD)

    def _unmet(self) -> None:
        """Gates that were passed unmet, in red along the foot of every page."""
        passed = self.heading.unmet
        if passed:
            said = f"{'GATE' if len(passed) == 1 else f'{len(passed)} GATES'} PASSED UNMET. " + " ".join(passed)
            self.words(said, MARGIN, UNMET, self.width - 2 * MARGIN, 7, bold=True, colour=STOP, lines=2)

    def tall(self, text: str, width: float, size: float = 9, *, bold: bool = False) -> float:
        """How tall words are, wrapped to a width [points]."""
        return float(
            Paragraph(escape(printable(text)), _style(size, bold, INK, "left")).wrapOn(self.canvas, width, self.height)[
                1
            ]
        )

    def words(
        self,
        text: str,
        x: float,
        y: float,
        width: float,
        size: float = 9,
        *,
        bold: bool = False,
        colour: Color = INK,
        align: Align = "left",
        lines: int | None = None,
    ) -> float:
        """Words from a height down, wrapped to a width; with `lines` made smaller until they take no more.

        Gives the height below them [points].
        """
        while True:
            paragraph = Paragraph(escape(printable(text)), _style(size, bold, colour, align))
            _, tall = paragraph.wrapOn(self.canvas, width, self.height)
            if lines is None or size <= 4 or tall <= (lines + 0.5) * size * LEADING:
                break
            size -= 0.25
        paragraph.drawOn(self.canvas, x, y - tall)
        return float(y - tall)

    def label(
        self, text: str, x: float, y: float, size: float = 7, *, bold: bool = False, colour: Color = INK,
        align: Align = "left",
    ) -> None:  # fmt: skip
        """A few words on a base line, beside something drawn."""
        label(self.canvas, text, x, y, size, bold=bold, colour=colour, align=align)

    def table(
        self,
        rows: Sequence[Sequence[str]],
        x: float,
        y: float,
        widths: Sequence[float],
        size: float = 8.5,
        *,
        head: bool = True,
        strong: Sequence[int] = (),
        texts: Sequence[int] = (0,),
    ) -> float:
        """A table from a height down, its cells wrapped; with a heading its figures stand right, its `texts` left.

        `strong` are columns set bold. Gives the height below it [points].
        """
        cells = [
            [
                Paragraph(
                    escape(printable(cell)),
                    _style(
                        size - 1 if head and not row else size,
                        column in strong and not (head and not row),
                        QUIET if head and not row else INK,
                        "left" if not head or column in {0, *texts} else "right",
                    ),
                )
                for column, cell in enumerate(line)
            ]
            for row, line in enumerate(rows)
        ]
        table = Table(cells, colWidths=list(widths))
        ruled = [("LINEBELOW", (0, 0), (-1, 0), 0.6, INK)] if head else []
        table.setStyle(
            TableStyle(
                [
                    ("TOPPADDING", (0, 0), (-1, -1), 1.2),
                    ("BOTTOMPADDING", (0, 0), (-1, -1), 2.2),
                    ("LEFTPADDING", (0, 0), (-1, -1), 0),
                    ("RIGHTPADDING", (0, 0), (-1, -1), 8),
                    ("VALIGN", (0, 0), (-1, -1), "TOP"),
                    ("LINEBELOW", (0, 0), (-1, -1), 0.25, LINE),
                    *ruled,
                ]
            )
        )
        _, tall = table.wrapOn(self.canvas, sum(widths), self.height)
        table.drawOn(self.canvas, x, y - tall)
        return float(y - tall)

    def ruler(self, x: float, y: float) -> None:
        """A hundred millimetres, or four inches, to check the print by."""
        canvas = self.canvas
        whole, steps, step = ("100 mm", 10, 10 * mm) if self.heading.reader == "mm_l" else ('4"', 8, inch / 2)
        canvas.setStrokeColor(INK)
        canvas.setLineWidth(0.6)
        canvas.line(x, y, x + steps * step, y)
        for tick in range(steps + 1):
            is_long = tick % (steps // 2) == 0
            canvas.line(x + tick * step, y, x + tick * step, y + (4 if is_long else 2.5) * mm)
        self.label(f"{whole} exactly, or the print is not to scale: print at 100 %", x, y - 4 * mm)

    def next(self) -> None:
        """End the page."""
        self.canvas.showPage()

    def pdf(self) -> bytes:
        """The whole paper."""
        self.canvas.save()
        return self._stream.getvalue()


def printable(text: str) -> str:
    """A text with signs that the font lacks written out."""
    return text.translate(WRITTEN_OUT)


def label(
    canvas: Canvas, text: str, x: float, y: float, size: float = 7, *, bold: bool = False, colour: Color = INK,
    align: Align = "left",
) -> None:  # fmt: skip
    """A few words on a base line of a canvas."""
    canvas.setFont(BOLD if bold else PLAIN, size)
    canvas.setFillColor(colour)
    draw = {"left": canvas.drawString, "right": canvas.drawRightString, "middle": canvas.drawCentredString}[align]
    draw(x, y, printable(text))


def _style(size: float, bold: bool, colour: Color, align: Align) -> ParagraphStyle:
    alignment = {"left": 0, "middle": 1, "right": 2}[align]
    return ParagraphStyle(
        "words",
        fontName=BOLD if bold else PLAIN,
        fontSize=size,
        leading=size * LEADING,
        textColor=colour,
        alignment=alignment,
        splitLongWords=True,
    )
