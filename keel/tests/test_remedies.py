"""Remedies on any design at all: what is said of one before it is taken is what is found afterwards."""

import json
import re
from unittest import TestCase

from keel.analysis.memory import Memory
from keel.analysis.showing import Showing
from keel.design.document import Design
from keel.design.workshop import Workshop
from keel.evaluation import Evaluation, evaluate
from keel.findings.finding import Change, Finding, Remedy
from keel.findings.patch import apply, merged
from keel.formats.document import UnreadableDesignError, read_design
from keel.solid.faults import GeometryError
from keel.stations.pricing import INFORMS
from keel.studies.result import Words
from keel.tests.wild import Wild

TIMES = {"hours_per_m": 0.5, "minutes_per_bend": 6.0, "minutes_per_port": 30.0, "minutes_per_fitting": 15.0}
SHOP = Workshop.model_validate({"prices": TIMES})
AT_REST, QUICK = Showing(), Showing(remedies=False)


def keys(seen: Evaluation) -> set[str]:
    """What is found that a remedy can settle or raise."""
    return {finding.key for finding in seen.findings if finding.code not in INFORMS}


def said(title: Words) -> str:
    """A title without which part of the tank comes too near: of a remedy that isn't asked."""
    return re.sub(r"^.*? (?=[\d.]+ mm (into|from) )", "", title.plain())


def bends(seen: Evaluation) -> int:
    """How many bends its parts have; what an opening parts in two is bent in one."""
    return sum(len({bend.order for bend in part.bends}) * part.quantity for part in seen.sheet.unfolded.parts)


class Announced(TestCase):
    """Wild designs, each remedy of each finding taken."""

    def test_a_remedy_does_what_it_says(self) -> None:
        """Its finding goes; litres, kilograms and weld move as told; so many findings go and those named come up."""
        taken = 0
        for seed in range(2000, 2012):
            try:
                design = read_design(json.dumps(Wild(seed).document()))
                memory = Memory()
                before = evaluate(design, SHOP, AT_REST, memory=memory)
            except (UnreadableDesignError, GeometryError):
                continue
            for finding in before.findings:
                for remedy in finding.remedies:
                    with self.subTest(seed=seed, finding=finding.key, remedy=remedy.label.plain()):
                        self.taken(design, before, finding, remedy, memory)
                        taken += 1
        self.assertGreater(taken, 50)

    def taken(self, design: Design, before: Evaluation, finding: Finding, remedy: Remedy, memory: Memory) -> None:
        """Take one remedy, and look."""
        after = evaluate(apply(design, remedy.patch), SHOP, QUICK, memory=memory)
        self.assertNotIn(finding.key, keys(after))
        self.assertEqual(remedy.settles, len(keys(before) - keys(after)))
        come_up = sorted(said(each.title) for each in after.findings if each.key in keys(after) - keys(before))
        self.assertEqual(sorted(map(said, remedy.raises)), come_up)
        assert remedy.change is not None
        self.moved(before, after, remedy.change)
        document = json.loads(design.model_dump_json())
        self.assertNotEqual(merged(document, remedy.patch), document, "it changes something")
        ports = len(apply(design, remedy.patch).ports) - len(design.ports)
        fittings = (remedy.change.minutes or 0.0) - 30 * remedy.change.weld_m - 6 * (bends(after) - bends(before))
        self.assertAlmostEqual(fittings - 30 * ports, 15.0 * round((fittings - 30 * ports) / 15.0), places=6)

    def moved(self, before: Evaluation, after: Evaluation, told: Change) -> None:
        """The tally moved by what was told."""
        was, now = before.shell.figures, after.shell.figures
        for name in ("brimful_l", "rated_l", "weld_m"):
            self.assertAlmostEqual(getattr(now, name) - getattr(was, name), getattr(told, name), places=9)
        if told.empty_kg is not None:
            self.assertAlmostEqual(now.empty_kg - was.empty_kg, told.empty_kg, places=9)
