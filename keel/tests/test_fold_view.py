"""What the screen folds: panels on their turns, wherever openings part a part."""

import json
from math import cos, radians, sin
from unittest import TestCase

import numpy as np

from keel.analysis.tank import Asked, TankAnalysis
from keel.formats.document import read_design
from keel.solid.polyhedron import Array
from keel.studies.sheet.fold_view import FOLD_PIECES, FoldPanel, FoldPiece
from keel.studies.sheet.shell_parts import BARE_SOLIDS
from keel.tests.test_let_in import RELIEF, STEP, SUMP, WELL, tank


def moved(panel: FoldPanel) -> Array:
    """What a panel's turn does, told otherwise than the core does: along the line, over it, up; shape (4, 4)."""
    start, end = np.array(panel.start), np.array(panel.end)
    along = (end - start) / np.linalg.norm(end - start)
    frame = np.eye(4)
    frame[:2, 0], frame[:2, 1] = along, (-along[1], along[0])
    frame[:2, 3] = start - frame[:2, 1] * panel.zone_mm / 2
    angle, way = radians(panel.angle_deg), 1.0 if panel.angle_deg > 0 else -1.0
    # In that frame: back over the zone, up onto the axis, round it, down again.
    turn = np.eye(4)
    turn[1:3, 1:3] = (cos(angle), -sin(angle)), (sin(angle), cos(angle))
    axis, back = np.eye(4), np.eye(4)
    axis[2, 3], back[1, 3] = way * panel.far_mm, -panel.zone_mm
    return np.asarray(frame @ axis @ turn @ np.linalg.inv(axis) @ back @ np.linalg.inv(frame))


def spots(piece: FoldPiece) -> Array:
    """Every corner of a piece's far face in the tank, shape (n, 3)."""
    placed: list[Array] = []
    found = []
    for panel in piece.panels:
        own = np.array(piece.matrix).reshape(4, 4) if panel.parent is None else placed[panel.parent] @ moved(panel)
        placed.append(own)
        corners = [spot for shape in panel.rings for ring in shape for spot in ring]
        if corners:
            flat = np.column_stack([np.array(corners), np.zeros(len(corners)), np.ones(len(corners))])
            found.append((flat @ own.T)[:, :3])
    return np.concatenate(found)


class Folded(TestCase):
    """Folded by the panels that the screen has."""

    def assert_in_the_tank(self, of: TankAnalysis, lip: float) -> None:
        """Nothing sticks out of the tank but the lips, and nothing is missing on any side of it."""
        every = np.concatenate([spots(piece) for piece in of[FOLD_PIECES]])
        body = of[BARE_SOLIDS].bounds
        low, high = np.array(body.low), np.array(body.high)
        low[0], high[0] = low[0] - lip, high[0] + lip
        np.testing.assert_array_less(low - 0.6, every.min(axis=0))
        np.testing.assert_array_less(every.max(axis=0), high + 0.6)
        np.testing.assert_allclose(np.r_[every.min(axis=0), every.max(axis=0)], np.r_[low, high], atol=0.6)

    def test_every_scheme(self) -> None:
        """With a well, a sump and a relief that takes a corner away; a relief may part a part in two."""
        over_a_bend = WELL | {"id": "v", "name": "open well", "b_mm": 0, "wide_mm": 90, "a_mm": 420}
        features = (WELL | {"form": "round", "long_mm": 120}, over_a_bend, SUMP | {"a_mm": 350}, RELIEF)
        plate = {"kind": "baffle", "id": "b", "name": "b", "at_mm": 300}
        lips = {"wrapper and pans": 17.0, "two U's": 0.0, "tray and lid": 0.0, "flat plates": 0.0}
        for scheme, lip in lips.items():
            with self.subTest(scheme):
                made = tank(*features, plate, scheme=scheme)
                self.assert_in_the_tank(made, lip)
                self.assertIn("inside-b", {piece.part for piece in made[FOLD_PIECES]})

    def test_a_roll_and_what_a_step_parts(self) -> None:
        """A cylinder's roll closes on itself; a roof step across the wrapper parts it, each piece where it lies."""
        shell = {"kind": "cylinder", "axis": "x", "diameter_mm": 300, "run_mm": 500, "thickness_mm": 2}
        self.assert_in_the_tank(TankAnalysis(Asked(read_design(json.dumps({"shell": shell})))), 0.0)
        across = tank(STEP, scheme="wrapper and flat ends", shell={"wrap_axis": "y"})
        self.assertIn("wrapper-piece-2", {piece.part for piece in across[FOLD_PIECES]})
        body = across[BARE_SOLIDS].bounds
        for piece in across[FOLD_PIECES]:
            found = spots(piece)
            np.testing.assert_array_less(np.array(body.low) - 0.6, found.min(axis=0))
            np.testing.assert_array_less(found.max(axis=0), np.array(body.high) + 0.6)
