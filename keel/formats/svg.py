"""Flat parts as SVG at full size: one user unit is one millimetre."""

from xml.sax.saxutils import escape, quoteattr

from keel.studies.sheet.parts import Bore, FlatPart, Spot

MARGIN_MM = 10.0
STYLES = {
    "CUT": "fill:none;stroke:#111;stroke-width:0.5",
    "BEND_UP": "stroke:#4b3fa0;stroke-width:0.35;stroke-dasharray:8 3",
    "BEND_DOWN": "stroke:#4b3fa0;stroke-width:0.35;stroke-dasharray:2 3",
    "ETCH": "stroke:#777;stroke-width:0.25",
    "TEXT": "font-family:sans-serif;font-size:8px;text-anchor:middle;fill:#111",
}


def part_svg(part: FlatPart, *, title: str, thickness_mm: float, metal: str) -> bytes:
    """One flat part as an SVG file.

    Parameters
    ----------
    part : FlatPart
        A flat part.
    title : str
        Its name on the drawing.
    thickness_mm : float
        Of the sheet [mm].
    metal : str
        As people call it.

    Returns
    -------
    bytes
        UTF-8; width and height in millimetres so that it prints 1:1, a group for each of the
        layers CUT, BEND_UP, BEND_DOWN, ETCH, TEXT. y runs upward as on the DXF.
    """
    width, height = part.length_mm + 2 * MARGIN_MM, part.width_mm + 2 * MARGIN_MM
    groups = {
        "CUT": [
            *(_polygon(part, ring) for ring in (part.outline, *part.holes)),
            *(_circle(part, bore) for bore in part.bores),
        ],
        "BEND_UP": [_line(part, b.start, b.end) for b in part.bends if b.direction == "up"],
        "BEND_DOWN": [_line(part, b.start, b.end) for b in part.bends if b.direction == "down"],
        "ETCH": [_line(part, m.start, m.end) for m in part.marks],
        "TEXT": _texts(part, title, f"{metal} {thickness_mm:g} mm, inside face up"),
    }
    body = "\n".join(
        f"<g id={quoteattr(name)} style={quoteattr(STYLES[name])}>{''.join(items)}</g>"
        for name, items in groups.items()
    )
    head = (
        '<?xml version="1.0" encoding="UTF-8"?>\n'
        f'<svg xmlns="http://www.w3.org/2000/svg" width="{width:.6f}mm" height="{height:.6f}mm" '
        f'viewBox="{-MARGIN_MM} {-MARGIN_MM} {width:.6f} {height:.6f}">\n'
    )
    return f"{head}<title>{escape(title)}: {escape(part.title)}</title>\n{body}\n</svg>\n".encode()


def _flip(part: FlatPart, spot: Spot) -> Spot:
    return spot[0], part.width_mm - spot[1]


def _polygon(part: FlatPart, ring: list[Spot]) -> str:
    points = " ".join(f"{x:.6f},{y:.6f}" for x, y in (_flip(part, spot) for spot in ring))
    return f'<polygon points="{points}"/>'


def _circle(part: FlatPart, bore: Bore) -> str:
    x, y = _flip(part, bore.middle)
    return f'<circle cx="{x:.6f}" cy="{y:.6f}" r="{bore.diameter_mm / 2:.6f}"/>'


def _line(part: FlatPart, start: Spot, end: Spot) -> str:
    (x1, y1), (x2, y2) = _flip(part, start), _flip(part, end)
    return f'<line x1="{x1:.6f}" y1="{y1:.6f}" x2="{x2:.6f}" y2="{y2:.6f}"/>'


def _texts(part: FlatPart, title: str, stuff: str) -> list[str]:
    x, y = part.length_mm / 2, part.width_mm / 2
    lines = [title, f"{part.title} × {part.quantity}", stuff]
    lines += part.warnings
    turned = f' transform="rotate(-90 {x:.3f} {y - 24:.3f})"' if part.grain == "width" else ""
    grain = f'<text x="{x:.3f}" y="{y - 24:.3f}"{turned}>← grain →</text>'
    return [grain] + [
        f'<text x="{x:.3f}" y="{y + 12 * row:.3f}">{escape(line)}</text>' for row, line in enumerate(lines)
    ]
