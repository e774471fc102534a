"""Ports' holes on the flats of the demo's tanks: each on its part, and where its port is once it is folded."""

from unittest import TestCase

import numpy as np
from hypothesis import given, settings
from hypothesis import strategies as st
from shapely import Point, Polygon

from keel.analysis.tank import Asked, TankAnalysis
from keel.formats.document import design_from
from keel.solid.standing import surface_at
from keel.studies.sheet.flats import FLATS
from keel.studies.sheet.lying import lying, panel_places, to_flat, zone_places
from keel.studies.sheet.parts import Bore, FlatPart
from server.demo.saltmarsh import CART_TANK, DAY_TANK, RAID_TANK, SURGE


class Holes(TestCase):
    """Ports' holes on the flats."""

    def test_every_port_has_its_hole(self) -> None:
        """On one part, as wide as its seat says; folded up, it lies where the port goes through the outside."""
        for document in (DAY_TANK, RAID_TANK, CART_TANK, SURGE):
            design = design_from(document)
            tank = TankAnalysis(Asked(design))
            parts = [part for part in tank[FLATS].parts if not part.name.startswith("ring-")]
            found = [(part, bore) for part in parts for bore in part.bores if not bore.bolt]
            for port in design.ports:
                if port.seat is None:
                    continue
                here = [(part, bore) for part, bore in found if bore.port == port.id]
                self.assertEqual(len(here), 1, port.name)
                part, bore = here[0]
                self.assertEqual(bore.diameter_mm, port.seat.hole_mm)
                off = np.linalg.norm(folded_up(part, bore) - surface_at(tank.solids, port))
                self.assertLess(off, 0.6, f"{port.name} on {part.name}")
                bolts = [other for other in part.bores if other.port == port.id and other.bolt]
                self.assertEqual(len(bolts), (port.seat.bolts or 0) if port.seat.bolt_mm else 0)

    @given(st.floats(0.05, 0.95), st.floats(0.05, 0.95))
    @settings(max_examples=40, deadline=None)
    def test_there_and_back(self, along: float, up: float) -> None:
        """A place of a flat is found again from where it lies in the tank, on flats, bends and rolls."""
        for document in (DAY_TANK, RAID_TANK, SURGE):
            tank = TankAnalysis(Asked(design_from(document)))
            part = tank[FLATS].parts[0]
            piece = lying(part, part.places[0])
            spot = (along * part.length_mm, up * part.width_mm)
            where = folded_up(part, Bore("", "", spot, 1.0))
            found = to_flat(piece, where)
            assert found is not None
            np.testing.assert_allclose(found.spot, spot, atol=1e-6)


def folded_up(part: FlatPart, bore: Bore) -> np.ndarray:
    """Where a hole's middle lies in the tank."""
    piece = lying(part, part.places[0])
    spot = np.array([bore.middle])
    for panel in piece.panels:
        if panel.turn is not None and panel.parent is not None:
            start, end = np.array(panel.turn.start), np.array(panel.turn.end)
            way = (end - start) / np.linalg.norm(end - start)
            off = float((spot[0] - start) @ np.array([-way[1], way[0]]))
            if abs(off) <= panel.turn.zone_mm / 2:
                return zone_places(piece.panels[panel.parent].matrix, panel.turn, spot, piece.outside)[0]
    panel = next(p for p in piece.panels if Polygon(p.outline).buffer(1e-6).covers(Point(bore.middle)))
    return panel_places(panel, spot, piece.outside)[0]
