"""More of one thing is never less of another: wild designs with one figure made larger."""

import json
from collections.abc import Iterator
from typing import Any
from unittest import TestCase

from keel.analysis.showing import Showing
from keel.design.attitude import Attitude
from keel.design.workshop import Workshop
from keel.evaluation import Evaluation, evaluate
from keel.formats.document import UnreadableDesignError, read_design
from keel.solid.faults import GeometryError
from keel.studies.demand.surge import over_spells, surge_sizing
from keel.tests.samples import box, design
from keel.tests.test_likeness import AT_REST, whole

Item = dict[str, Any]
HAIR = 1e-6


def with_shell(document: Item, **more: Any) -> Item:
    """The document with some of its shell's fields otherwise."""
    return document | {"shell": document["shell"] | more}


def seen(document: Item, shop: Workshop | None = None) -> Evaluation | None:
    """What is said of a document; None where it can't be made."""
    try:
        return evaluate(read_design(json.dumps(document)), shop, AT_REST)
    except (UnreadableDesignError, GeometryError):
        return None


def made(count: int, first: int, **more: Any) -> Iterator[tuple[Item, Evaluation, Evaluation]]:
    """Wild designs, and what is said of them before and after their shell's fields are changed."""
    for document, before in whole(count, first):
        changes = {name: change(document["shell"]) for name, change in more.items()}
        after = seen(with_shell(document, **changes))
        if after is not None:
            yield document, before, after


class Sheet(TestCase):
    """Thicker, and more of it."""

    def test_thicker_sheet(self) -> None:
        """Half as thick again: heavier, holds less, stands more."""
        tried = 0
        for document, thin, thick in made(12, 7000, thickness_mm=lambda shell: shell["thickness_mm"] * 1.5):
            with self.subTest(document=json.dumps(document)):
                self.assertLess(thick.shell.figures.brimful_l, thin.shell.figures.brimful_l)
                if None not in (thin.shell.figures.empty_kg, thick.shell.figures.empty_kg):
                    self.assertGreater(thick.shell.figures.empty_kg, thin.shell.figures.empty_kg)
                self.assertGreaterEqual(thick.shell.safe_proof_kpa, thin.shell.safe_proof_kpa - HAIR)
            tried += 1
        self.assertGreater(tried, 9)

    def test_a_well_more(self) -> None:
        """It takes room and costs weld, wherever it is."""
        mouth = {"a_mm": 20.0, "b_mm": 20.0, "long_mm": 40.0, "wide_mm": 40.0, "deep_mm": 20.0}
        well = {"kind": "well", "id": "more", "name": "more"} | mouth
        tried = 0
        for document, without, with_it in made(15, 7100, features=lambda shell: [*shell["features"], well]):
            with self.subTest(document=json.dumps(document)):
                self.assertLessEqual(with_it.shell.figures.brimful_l, without.shell.figures.brimful_l + HAIR)
                self.assertGreater(with_it.shell.figures.weld_m, without.shell.figures.weld_m)
            tried += 1
        self.assertGreater(tried, 5)

    def test_the_yield_s_share(self) -> None:
        """A house rule that allows less of the yield allows less pressure, and asks for no thinner a wall."""
        for document, usual in whole(15, 7200):
            strict = seen(document, Workshop.model_validate({"rules": {"stress_share": 0.3}}))
            assert strict is not None
            for one, other in zip(usual.shell.panels, strict.shell.panels, strict=True):
                self.assertLessEqual(other.proof_kpa, one.proof_kpa + HAIR)
                self.assertAlmostEqual(one.pressure_kpa, other.pressure_kpa)


class Fuel(TestCase):
    """More of it, held harder."""

    def test_levels_rise_with_litres(self) -> None:
        """In any attitude more fuel stands higher, and no less of it is drawn."""
        attitude = Attitude(pitch_deg=7, left_g=0.3)
        for document, _ in whole(12, 7300):
            subject, levels, shares = read_design(json.dumps(document)), list[list[float]](), (0.2, 0.5, 0.8)
            for share in shares:
                showing = Showing(remedies=False, fill_fraction=share, attitude=attitude, results=("shell.fill",))
                cells = evaluate(subject, None, showing).shell.fill.cells
                levels.append([cell.level_mm for cell in cells])
            for low, middle, high in zip(*levels, strict=True):
                self.assertTrue(low < middle < high, json.dumps(document))

    def test_a_harder_bump_presses_harder(self) -> None:
        """On every panel, and no finding of strength goes away by it."""
        for document, usual in whole(12, 7400):
            rough = seen(document, Workshop.model_validate({"rules": {"bump_g": 8.0, "push_g": 6.0}}))
            assert rough is not None
            for one, other in zip(usual.shell.panels, rough.shell.panels, strict=True):
                self.assertGreaterEqual(other.pressure_kpa, one.pressure_kpa - HAIR)
                self.assertGreaterEqual(other.stress_share, one.stress_share - HAIR)
            weak = {"wall.thin", "proof.weak"}
            quiet, loud = (sum(f.code in weak for f in told.findings) for told in (usual, rough))
            self.assertGreaterEqual(loud, quiet)

    def test_a_higher_pickup_leaves_more(self) -> None:
        """Millimetre by millimetre; a vent further down traps more."""
        sizes = box(600, 400, 300, thickness_mm=2.0)
        left, trapped = list[float](), list[float]()
        for off in (5.0, 25.0, 60.0, 140.0):
            ports = [
                {"id": "p", "name": "pickup", "role": "pickup", "x_mm": 300.0, "y_mm": 200.0, "z_mm": off},
                {"id": "v", "name": "vent", "role": "vent", "x_mm": 300.0, "y_mm": 200.0, "z_mm": 300.0 - off},
            ]
            (cell,) = evaluate(design(sizes, ports=ports), None, AT_REST).shell.capacity.cells
            left.append(cell.stranded_l)
            trapped.append(cell.trapped_l)
        self.assertEqual((left, trapped), (sorted(left), sorted(trapped)))
        for litres, off in zip(left, (5.0, 25.0, 60.0, 140.0), strict=True):
            self.assertAlmostEqual(litres, 596 * 396 * (off - 2) / 1e6, places=6)


class Feeding(TestCase):
    """What feeds the engine."""

    def test_a_thirstier_engine(self) -> None:
        """More power asks for more flow, a larger surge tank and leaves it lower."""
        flows, volumes, lows = list[float](), list[float](), list[float]()
        for power in (80.0, 160.0, 320.0):
            case = {"id": "c", "name": "c", "power_kw": power, "rail_kpa": 300.0}
            answer = seen(
                {"brief": {"cases": [case]}, "shell": {"length_mm": 400.0, "width_mm": 300.0, "height_mm": 200.0}}
            )
            assert answer is not None
            (demand,) = answer.brief.demands
            flows.append(demand.flow_l_per_h)
            self.assertGreater(demand.needed_l_per_h, demand.flow_l_per_h)
            volumes.append(surge_sizing(demand.flow_l_per_h, 6.0, 0.2).volume_l)
            lows.append(
                over_spells(2.0, demand.flow_l_per_h, 500.0, [(4.0, False), (2.0, True), (4.0, False)]).lowest_l
            )
        self.assertEqual((flows, volumes), (sorted(flows), sorted(volumes)))
        self.assertEqual(lows, sorted(lows, reverse=True))
        self.assertAlmostEqual(flows[2] / flows[0], 4.0, places=9)

    def test_a_wider_vent(self) -> None:
        """It fills no slower, and no harder on the tank."""
        times, pressures = list[float](), list[float]()
        for bore in (5.0, 8.0, 13.0, 20.0):
            ports = [
                {
                    "id": "f",
                    "name": "filler",
                    "role": "filler",
                    "x_mm": 150.0,
                    "y_mm": 100.0,
                    "neck": {"bore_mm": 38.0},
                },
                {"id": "v", "name": "vent", "role": "vent", "x_mm": 450.0, "y_mm": 300.0, "vent": {"bore_mm": bore}},
            ]
            (run,) = evaluate(
                design(box(600, 400, 300, thickness_mm=2.0), ports=ports), None, AT_REST
            ).ports.fill_runs.values()
            times.append(run.seconds)
            pressures.append(run.peak_kpa)
        self.assertEqual(times, sorted(times, reverse=True))
        self.assertEqual(pressures, sorted(pressures, reverse=True))
        self.assertLess(times[-1], times[0])
