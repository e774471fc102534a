"""A station is registered once: its rules, remedies and mark come up by that alone."""

from collections.abc import Iterator
from unittest import TestCase

from keel.analysis.parts import SHELL, station_part
from keel.analysis.showing import Showing
from keel.analysis.study import study
from keel.analysis.tank import TankAnalysis
from keel.design.base import Part
from keel.design.document import Design
from keel.evaluation import evaluate
from keel.findings.finding import Finding, Remedy, of_station
from keel.formats.document import UnreadableDesignError, design_from, design_json, read_design
from keel.solid.solids import AnyShell
from keel.stations.registry import prescriber_of, registered, stations
from keel.stations.station import Station
from keel.studies.result import words
from keel.tests.samples import box, design

_finding = of_station("paint")


class Paint(Part):
    """A station's part of the document."""

    coats: int = 1


def coats_needed(paint: Paint, shell: AnyShell) -> int:
    """A coat more on thin metal."""
    return paint.coats + (shell.thickness_mm < 2)


def is_thin(shell: AnyShell) -> bool:
    """Whether it wants painting."""
    return shell.thickness_mm < 2


COATS = study(coats_needed, station_part("paint", Paint), SHELL)
THIN = study(is_thin, SHELL)


def is_painted(tank: TankAnalysis) -> Iterator[Finding]:
    """Wants thin metal painted."""
    if tank[THIN]:
        thick, title = tank.shell.thickness_mm, "Paint it: {wall_sheet}, limit 2 mm"
        yield _finding("paint.thin", "shell", "caution", words(title, wall_sheet=thick), words("It rusts through."))


def thicker(_tank: TankAnalysis, finding: Finding) -> Iterator[Remedy]:
    """Thicker, and one that doesn't help."""
    for thickness in (2.0, 1.5):
        label = words("{wall_sheet} for the {what}", wall_sheet=thickness, what=finding.subject)
        yield Remedy(label=label, patch={"shell": {"thickness_mm": thickness}})


PAINT = Station(
    "paint",
    "Paint",
    is_begun=lambda subject: subject.shell is not None,
    part=Paint,
    studies={"coats": COATS},
    rules=(is_painted,),
    prescribers={"paint.thin": thicker},
)


class OneMore(TestCase):
    """A made-up station."""

    def test_by_one_registration(self) -> None:
        """Its finding with the one remedy that settles it, and its mark; gone when it is gone."""
        thin = design(box(thickness_mm=1.0, bend_radius_mm=2.0))
        with registered(PAINT):
            seen = evaluate(thin)
            self.assertEqual(seen.paint.coats, 2)
            typed = design_from({"paint": {"coats": 3}, "shell": thin.shell.model_dump()})
            self.assertEqual(evaluate(typed, None, Showing(remedies=False)).paint.coats, 4)
            self.assertIsNone(evaluate(Design()).paint.coats)
            self.assertIsNone(evaluate(thin, None, Showing(results=("bay.gaps",), remedies=False)).paint)
            with self.assertRaisesRegex(UnreadableDesignError, "paint.coats"):
                design_from({"paint": {"coats": "many"}})
            found = next(finding for finding in seen.findings if finding.station == "paint")
            self.assertEqual((found.key, found.subject), ("paint.thin:shell", "shell"))
            self.assertEqual([remedy.label.plain() for remedy in found.remedies], ["2 mm for the shell"])
            self.assertEqual([(s.title, s.state) for s in seen.stations][-1], ("Paint", "needs attention"))
            thick = evaluate(design(box(thickness_mm=2.5, bend_radius_mm=2.5)))
            self.assertEqual([s.state for s in thick.stations][-1], "ready")
            self.assertEqual([s.state for s in evaluate(Design()).stations][-1], "not judged yet")
        after = evaluate(thin)
        self.assertNotIn("paint", {finding.station for finding in after.findings} | {s.station for s in after.stations})

    def test_a_part_of_an_unknown_station_is_kept(self) -> None:
        """It comes back as it was; a name that is no part, too many of them, and a newer format are refused by name."""
        foreign = {"sails": {"area_m2": 12.5, "reefs": [1, 2]}}
        kept = read_design(design_json(design_from(foreign)))
        self.assertEqual(kept.model_dump(mode="json")["sails"], foreign["sails"])
        for document, said in (
            ({"sials": 3}, "'sials' is not a field here"),
            ({"portts": {}}, "did you mean 'ports'?"),
            ({f"part{n}": {} for n in range(30)}, "at most 20"),
            ({"version": 7}, "format version 7; this Core Keel reads up to version 1"),
        ):
            with self.assertRaisesRegex(UnreadableDesignError, said):
                design_from(document)

    def test_no_code_belongs_to_two(self) -> None:
        """Every station's name and every prescribed code once; a finding's station is one of them."""
        names = [station.name for station in stations()]
        codes = [code for station in stations() for code in station.prescribers]
        self.assertEqual((len(names), len(codes)), (len(set(names)), len(set(codes))))
        self.assertIsNone(prescriber_of("paint.thin"))
        thin = evaluate(design(box(thickness_mm=1.0, bend_radius_mm=0.0)))
        self.assertLessEqual({finding.station for finding in thin.findings}, set(names))
