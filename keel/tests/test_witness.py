"""Lines on the flats where plates and pots land."""

from unittest import TestCase

import numpy as np

from keel.formats.dxf import part_dxf
from keel.studies.sheet.flats import FLATS
from keel.studies.sheet.lying import panel_places
from keel.studies.sheet.shell_parts import PIECES
from keel.studies.sheet.witness import LANDED
from keel.tests.test_let_in import WELL, T, tank

BAFFLE = {"kind": "baffle", "id": "b", "name": "wall", "at_mm": 250, "corner_mm": 40}
POT = {"kind": "pot", "id": "p", "name": "pot", "a_mm": 350, "b_mm": 150, "long_mm": 120, "wide_mm": 90, "high_mm": 80}


class Landing(TestCase):
    """In a box of 600 × 400 × 300."""

    def test_marks_lie_under_the_plates_faces(self) -> None:
        """Folded up, every line of the plate is at one of its two faces, 250 and 253; the pot's are round its foot."""
        for scheme in ("wrapper and pans", "two U's", "tray and lid", "flat plates", "wrapper and flat ends"):
            made = tank(BAFFLE, POT, scheme=scheme)
            pieces = {(piece.part.name, piece.place.name): piece for piece in made[PIECES]}
            long = {"wall": 0.0, "pot": 0.0}
            for one in made[LANDED]:
                piece = pieces[one.part, one.piece]
                for mark in one.marks:
                    middle = np.mean([mark.start, mark.end], axis=0)
                    panel = next(p for p in piece.panels if _covers(p.outline, middle))
                    ends = panel_places(panel, np.array([mark.start, mark.end]), T)
                    long[mark.label] += float(np.linalg.norm(ends[1] - ends[0]))
                    if mark.label == "wall":
                        self.assertLess(min(abs(ends[:, 0] - 250).max(), abs(ends[:, 0] - 253).max()), 0.02, scheme)
                    else:
                        self.assertTrue(np.all(np.abs(ends[:, 2] - T) < 0.1), scheme)
            self.assertAlmostEqual(long["pot"], 2 * (120 + 90), delta=0.1, msg=scheme)
            # All round but for the corners cut off, twice; bends take what lies in them.
            around = 2 * (394 + 294 - 4 * 40)
            self.assertGreater(long["wall"], 2 * (around - 8 * 4.5 - 10), scheme)
            self.assertLess(long["wall"], 2 * around + 1, scheme)

    def test_they_are_etched_round_openings(self) -> None:
        """On the DXF they lie on the layer to etch; over a well's mouth there is nothing to etch."""
        made = tank(BAFFLE, WELL, scheme="flat plates")[FLATS].parts
        lid = next(part for part in made if part.holes)
        self.assertIn(b"ETCH", part_dxf(lid, title="t", thickness_mm=T, metal="5052-H32"))
        self.assertTrue(lid.marks)
        for mark in lid.marks:
            self.assertFalse(_covers(lid.holes[0], np.mean([mark.start, mark.end], axis=0)))


def _covers(ring: list[tuple[float, float]], spot: np.ndarray) -> bool:
    """Whether a place lies within a ring: how often a ray from it leaves (even-odd)."""
    (x, y), inside = spot, False
    for (ax, ay), (bx, by) in zip(ring, [*ring[1:], ring[0]], strict=True):
        if (ay > y) != (by > y) and x < (bx - ax) * (y - ay) / (by - ay) + ax:
            inside = not inside
    return inside
