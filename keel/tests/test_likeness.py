"""The same tank told in another way is the same tank: moved, in a mirror, under other names, in another order."""

import json
from collections import Counter
from collections.abc import Callable, Iterator
from dataclasses import replace
from typing import Any
from unittest import TestCase

import numpy as np

from keel.analysis.showing import Showing
from keel.design.attitude import Attitude
from keel.design.document import Design
from keel.evaluation import Evaluation, evaluate
from keel.formats.document import UnreadableDesignError, read_design
from keel.solid.faults import GeometryError
from keel.solid.interior import solids_of
from keel.studies.slosh.log import still
from keel.studies.slosh.model import Setup, slosh_tank
from keel.studies.slosh.run import slosh_run
from keel.tests.mirror import mirrored, swapped
from keel.tests.mount_told import alike_every_way, mirrored_mount, moved, quartered_mount
from keel.tests.quarter import quartered
from keel.tests.wild import Wild

Item = dict[str, Any]
TURNS = {"left turn": "right turn", "right turn": "left turn"}


def read(document: Item) -> Design:
    """A document as a design."""
    return read_design(json.dumps(document))


def whole(count: int, first: int, usable: Callable[[Item], bool] = lambda _: True) -> Iterator[tuple[Item, Evaluation]]:
    """Wild designs that can be worked out, and what is said of them."""
    seed = first
    while count:
        document = Wild(seed).document()
        seed += 1
        if not usable(document):
            continue
        try:
            seen = evaluate(read(document), None, AT_REST)
        except (UnreadableDesignError, GeometryError):
            continue
        yield document, seen
        count -= 1


SLOPES = (
    (Attitude(pitch_deg=9), Attitude(roll_deg=9)),
    (Attitude(forward_g=0.6), Attitude(left_g=0.6)),
    (Attitude(left_g=0.5), Attitude(forward_g=-0.5)),
)
"""What is felt before and after the turn."""


def even(document: Item) -> bool:
    """Whether nothing in it has a hand: a seam in the middle, no hoses that lie forward."""
    return document["sheet"]["seam"] in ("lid", "floor") and not any(port["bend"] for port in document["ports"])


AT_REST = Showing(remedies=False)
MOVED_MM = (1234.5, -77.7, 310.0)
WITHIN = 1e-3
"""Places are taken a micrometre aside where they would lie on an edge, and always to the same side."""


def figures(seen: Evaluation) -> dict[str, float]:
    """Litres, kilograms, metres, kilopascals and parts that any telling has to give alike."""
    told = {
        f"{station}.{name}": value
        for station, study in (
            ("shell", seen.shell.figures),
            ("shell", seen.shell.capacity),
            ("sheet", seen.sheet.unfolded),
        )
        for name, value in vars_of(study).items()
        if isinstance(value, int | float)
    }
    told |= {f"{name}.{n}": value for name, study in also(seen) for n, value in enumerate(sorted(floats(study)))}
    told["proof"] = seen.shell.safe_proof_kpa or 0.0
    told["panels"] = len(seen.shell.panels or [])
    told["parts"] = len(seen.sheet.unfolded.parts)
    told["bends"] = sum(len(part.bends) for part in seen.sheet.unfolded.parts)
    told["area"] = sum(part.area_mm2 for part in seen.sheet.unfolded.parts)
    for cell in seen.shell.capacity.cells:
        told |= {
            f"of all cells² {name}": told.get(f"of all cells² {name}", 0) + value**2
            for name, value in vars_of(cell).items()
            if isinstance(value, float)
        }
    return told


def also(seen: Evaluation) -> Iterator[tuple[str, Any]]:
    """Other results that have no place in them."""
    yield from (
        ("brief.demands", seen.brief.demands),
        ("brief.target", seen.brief.target),
        ("brief.surge", seen.brief.surge),
    )
    yield from (
        ("inside.bracing", [one for one in seen.inside.bracing or [] if one.helps]),
        ("ports.fill_runs", seen.ports.fill_runs),
    )
    yield "mount.straps", [(one.cut_mm, one.runs and sum(run.long_mm for run in one.runs)) for one in seen.mount.straps]
    held = seen.mount.loads
    yield "mount.loads", [case.load_n for case in held.cases]
    yield "mount.held", [by.force_n for case in held.cases for by in case.by]
    yield "mount.bears", [(link.load_n, link.bears_n) for one in held.mounts for link in one.links]
    readings = seen.gauge.truth.readings if seen.gauge.truth else []
    yield "gauge.tenths", [(tenth.litres, tenth.needle) for reading in readings for tenth in reading.tenths]


def floats(told: Any) -> Iterator[float]:
    """Every figure of a result."""
    if isinstance(told, float):
        yield told
    elif isinstance(told, dict | list | tuple):
        for part in told.values() if isinstance(told, dict) else told:
            yield from floats(part)
    elif hasattr(told, "__dataclass_fields__"):
        yield from floats(vars_of(told))


def vars_of(study: Any) -> dict[str, Any]:
    """The fields of a result."""
    return {name: getattr(study, name) for name in study.__dataclass_fields__}


def found(seen: Evaluation) -> Counter[str]:
    """How often each thing is found."""
    return Counter(finding.code for finding in seen.findings)


class Likeness(TestCase):
    """Nothing hangs on where, how and in what order a tank is told."""

    def alike(self, one: Evaluation, other: Evaluation, document: Item) -> None:
        """Figures and findings are the same."""
        first, second = figures(one), figures(other)
        self.assertEqual(first.keys(), second.keys())
        for name, value in first.items():
            self.assertAlmostEqual(
                value, second[name], delta=WITHIN * max(1.0, abs(value)), msg=f"{name}: {json.dumps(document)}"
            )
        self.assertEqual(found(one), found(other), json.dumps(document))

    def test_moved(self) -> None:
        """Without a bay it doesn't matter where a tank stands."""
        for document, seen in whole(12, 100, lambda d: d["bay"] is None):
            shell = document["shell"]
            place = {
                name: round(shell[name] + by, 1) for name, by in zip(("x_mm", "y_mm", "z_mm"), MOVED_MM, strict=True)
            }
            told = document | {"shell": shell | place, "mount": moved(document, MOVED_MM)}
            self.alike(seen, evaluate(read(told), None, AT_REST), document)

    def test_named_otherwise_and_in_another_order(self) -> None:
        """Names and the order of ports, senders and keep-outs are for people alone."""
        for document, seen in whole(12, 300):
            told = document | {
                "ports": [
                    port | {"id": f"other-{n}", "name": f"Thing {n}"} for n, port in enumerate(document["ports"])
                ][::-1],
                "gauge": {"senders": document["gauge"]["senders"][::-1]},
            }
            if document["bay"]:
                told["bay"] = document["bay"] | {"keep_outs": document["bay"]["keep_outs"][::-1]}
            self.alike(seen, evaluate(read(told), None, AT_REST), document)

    def test_in_a_mirror(self) -> None:
        """Left for right: litres, sheet, panels and gaps stay, and a left turn leaves what a right one did."""
        for document, seen in whole(20, 500, even):
            told = mirrored(document)
            told["mount"] = mirrored_mount(document, told)
            image = evaluate(read(told), None, AT_REST)
            self.alike(seen, image, document)
            self.assertEqual(self.gaps(seen), self.gaps(image, swapped), json.dumps(document))

    def test_turned_by_a_quarter(self) -> None:
        """Without a bay, along is as good as across."""
        for document, _ in whole(20, 700, lambda d: d["bay"] is None and even(d)):
            level = alike_every_way(document)
            told = quartered(level)
            told["mount"] = quartered_mount(level, told)
            self.alike(evaluate(read(level), None, AT_REST), evaluate(read(told), None, AT_REST), document)

    def test_on_a_slope_turned_by_a_quarter(self) -> None:
        """What nose up leaves, the right side down leaves after the turn."""
        for document, _ in whole(
            8, 1100, lambda d: d["bay"] is None and any(p["role"] == "pickup" for p in d["ports"])
        ):
            for one, other in SLOPES:
                first, second = (
                    evaluate(
                        read(told), None, Showing(remedies=False, attitude=attitude, results=("shell.drained",))
                    ).shell.drained
                    for told, attitude in ((document, one), (quartered(document), other))
                )
                for name in ("stranded_l", "trapped_l"):
                    litres = [sum(getattr(cell, name) or 0.0 for cell in drained) for drained in (first, second)]
                    self.assertAlmostEqual(*litres, delta=5 * WITHIN, msg=f"{name} {one} {json.dumps(document)}")

    def test_a_turn_in_a_mirror(self) -> None:
        """What a left turn leaves, a right turn leaves in the mirror."""
        asked = Showing(remedies=True, results=("ports.in_attitudes",))
        for document, _ in whole(8, 900, lambda d: any(p["role"] == "pickup" for p in d["ports"])):
            one, other = (
                {
                    each.attitude: (each.stranded_l, each.trapped_l)
                    for each in evaluate(read(d), None, asked, enough=lambda: True).ports.in_attitudes or []
                }
                for d in (document, mirrored(document))
            )
            for attitude, litres in one.items():
                for mine, its in zip(litres, other[TURNS.get(attitude, attitude)], strict=True):
                    self.assertAlmostEqual(
                        mine or 0.0, its or 0.0, delta=5 * WITHIN, msg=f"{attitude}: {json.dumps(document)}"
                    )

    def gaps(self, seen: Evaluation, named: Callable[[str], str] = str) -> list[tuple[str, float]]:
        """Gaps to what stands around, by name."""
        gaps = seen.bay.gaps
        return sorted((named(gap.neighbour), round(gap.gap_mm, 3)) for gap in gaps) if gaps else []

    def test_twice_as_large(self) -> None:
        """Every length doubled: eight times the fuel, four times the end, twice the weld, and the same pressure."""
        for document, _ in whole(12, 1500, lambda d: d["shell"]["kind"] != "cylinder" and even(d)):
            small = {"shell": document["shell"], "sheet": {"flange_mm": 20.0, "pan_gap_mm": 0.5}}
            once, twice = (evaluate(read(told), None, AT_REST) for told in (small, doubled(small)))
            for name, times in (("brimful_l", 8), ("weld_m", 2)):
                first, second = (getattr(told.shell.figures, name) for told in (once, twice))
                self.assertAlmostEqual(second, times * first, delta=WITHIN * max(1.0, second), msg=f"{name} {document}")
            panels = [[panel for panel in told.shell.panels if panel.what == "wrapper"] for told in (once, twice)]
            for one, other in zip(*panels, strict=True):
                self.assertAlmostEqual(other.first_mm, 2 * one.first_mm, delta=1e-6 * one.first_mm)
                self.assertAlmostEqual(other.proof_kpa, one.proof_kpa, delta=1e-6 * one.proof_kpa)

    def test_a_run_in_a_mirror(self) -> None:
        """A long left turn leaves in each design what a right one leaves in its image, and runs dry as soon."""
        for document, _ in whole(4, 1700, lambda d: any(p["role"] == "pickup" for p in d["ports"])):
            told = list[tuple[float, float]]()
            for one, left_g in ((document, 0.7), (mirrored(document), -0.7)):
                subject = read(one)
                tank = slosh_tank(solids_of(subject), subject.ports)
                if tank is None:
                    break
                log = still("turn", 20.0)
                turn = replace(log, left_g=np.full(len(log.throttle_fraction), left_g))
                ran = slosh_run(tank, turn, Setup(fill=0.3, draw_l_per_h=60.0))
                told.append((float(ran.held_l[-1].sum()), sum(spell.seconds for spell in ran.spells)))
            if len(told) == 2:
                np.testing.assert_allclose(told[0], told[1], rtol=0.01, atol=0.05, err_msg=json.dumps(document))


def doubled(told: Any) -> Any:
    """Every length in a part of a document twice as long."""
    if isinstance(told, list):
        return [doubled(part) for part in told]
    if not isinstance(told, dict):
        return told
    return {
        name: 2 * value if name.endswith("_mm") and value is not None else doubled(value)
        for name, value in told.items()
    }
