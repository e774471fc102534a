"""A station is registered once: its rules, remedies and mark come up by that alone."""

from collections.abc import Iterator
from unittest import TestCase

from keel.design.document import Design
from keel.evaluation import evaluate
from keel.findings.finding import Finding, Remedy, of_station
from keel.stations.registry import prescriber_of, registered, stations
from keel.stations.station import Station
from keel.studies.result import words
from keel.studies.studied import Studied
from keel.tests.samples import box, design

_finding = of_station("paint")


def is_painted(seen: Studied) -> Iterator[Finding]:
    """Wants thin metal painted."""
    if seen.shell.thickness_mm < 2:
        thick, title = seen.shell.thickness_mm, "Paint it: {wall_sheet}, limit 2 mm"
        yield _finding("paint.thin", "shell", "caution", words(title, wall_sheet=thick), words("It rusts through."))


def thicker(_seen: Studied, finding: Finding) -> Iterator[Remedy]:
    """Thicker, and one that doesn't help."""
    for thickness in (2.0, 1.5):
        label = words("{wall_sheet} for the {what}", wall_sheet=thickness, what=finding.subject)
        yield Remedy(label=label, patch={"shell": {"thickness_mm": thickness}})


def is_thin(subject: Design) -> bool:
    """Whether there is anything to paint."""
    return subject.shell is not None


PAINT = Station("paint", "Paint", is_begun=is_thin, rules=(is_painted,), prescribers={"paint.thin": thicker})


class OneMore(TestCase):
    """A made-up station."""

    def test_by_one_registration(self) -> None:
        """Its finding with the one remedy that settles it, and its mark; gone when it is gone."""
        thin = design(box(thickness_mm=1.0, bend_radius_mm=2.0))
        with registered(PAINT):
            seen = evaluate(thin)
            found = next(finding for finding in seen.findings if finding.station == "paint")
            self.assertEqual((found.key, found.subject), ("paint.thin:shell", "shell"))
            self.assertEqual([remedy.label.plain() for remedy in found.remedies], ["2 mm for the shell"])
            self.assertEqual([(s.title, s.state) for s in seen.stations][-1], ("Paint", "in work"))
            thick = evaluate(design(box(thickness_mm=2.5, bend_radius_mm=2.5)))
            self.assertEqual([s.state for s in thick.stations][-1], "settled")
            self.assertEqual([s.state for s in evaluate(Design()).stations][-1], "untouched")
        after = evaluate(thin)
        self.assertNotIn("paint", {finding.station for finding in after.findings} | {s.station for s in after.stations})

    def test_no_code_belongs_to_two(self) -> None:
        """Every station's name and every prescribed code once; a finding's station is one of them."""
        names = [station.name for station in stations()]
        codes = [code for station in stations() for code in station.prescribers]
        self.assertEqual((len(names), len(codes)), (len(set(names)), len(set(codes))))
        self.assertIsNone(prescriber_of("paint.thin"))
        thin = evaluate(design(box(thickness_mm=1.0, bend_radius_mm=0.0)))
        self.assertLessEqual({finding.station for finding in thin.findings}, set(names))
