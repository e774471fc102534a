"""Every field of every station's panel: what is typed gets into one place of the design, and comes out again."""

from collections.abc import Iterator
from typing import Any

from django.core.management import call_command
from pydantic import ValidationError

from keel.design.document import Design
from keel.formats.document import design_from
from server.jobs.models import TankDesign
from server.workshop.models import Person, Workshop
from tests.web.person import AtThePage
from tests.web.test_pages import TANKS

STATIONS = ("brief", "bay", "shell", "inside", "ports", "gauge", "slosh", "sheet")
NOT_OF_THE_DESIGN = (
    "Add ",
    "Fill shown",
    "Pitch, nose up",
    "Right side down",
    "Accelerating",
    "Turning left",
    "Thrown upward",
    "Unit of the file",
    "Step between rows, in the files",
    "Surge tank as a",
    "What came out otherwise",
    "As built",
    "Bend that came out otherwise",
    "Angle inside, measured",
)
"""How the fuel is looked at, how a file is read, what is offered; a size as built is kept in two places."""

def leaves(document: Any, path: tuple[str | int, ...] = ()) -> Iterator[tuple[tuple[str | int, ...], Any]]:
    """Every value of a document with its place."""
    if isinstance(document, dict | list):
        for key, part in document.items() if isinstance(document, dict) else enumerate(document):
            yield from leaves(part, (*path, key))
        if not document:
            yield path, None
    else:
        yield path, document


def changed(before: Any, after: Any) -> set[tuple[str | int, ...]]:
    """Places where two documents differ."""
    one, other = dict(leaves(before)), dict(leaves(after))
    return {place for place in one.keys() | other.keys() if one.get(place) != other.get(place)}


def another(shown: str) -> str:
    """A number near the one that is shown, written as it is."""
    try:
        number = float(shown.replace("−", "-") or "3")
    except ValueError:
        return f"{shown} x"
    return f"{number * 1.125 + 1:.0f}" if number >= 4 else f"{number + 0.25:g}"


class EveryField(AtThePage):
    """Fields as they come, station by station."""

    drawn = False
    computes = True
    answered: dict[str, Any]

    def serve(self, request: dict[str, Any]) -> dict[str, Any]:
        """Once the page is there the core's last answer does for all: here it is about the document."""
        if request["path"] != "/api/evaluate":
            return super().serve(request)
        if self.computes:
            self.answered = super().serve(request)
        return self.answered

    def open_tank(self, name: str, station: str) -> None:
        """A demo tank at a station."""
        self.tank = TankDesign.started(self.job, name, design_from(TANKS[name]), self.maker, "")
        self.computes = True
        self.open_station(station)
        self.computes = False

    def check_kept(self, field: dict[str, Any], before: Any, to: str) -> None:
        """It changed one thing, is shown as it was put, and the core takes it or says what of it is wrong."""
        after = self.do("design")
        places = changed(before, after)
        self.assertTrue(places, f"{to} changes nothing")
        self.assertEqual(self.value(field["label"], "aside", field["nth"]), to)
        try:
            Design.model_validate(after)
        except ValidationError as error:
            self.assertLessEqual({fault["loc"][0] for fault in error.errors()}, {place[0] for place in places})

    def undone(self, before: Any) -> None:
        """One step back brings all of it back."""
        self.do("keys", "{Control>}z{/Control}")
        self.assertEqual(self.do("design"), before)

    def check_typed(self, field: dict[str, Any]) -> None:
        """A number near the one that stands there goes into one place, and one step back takes it out."""
        before, words = self.do("design"), another(field["value"])
        self.do("typed", field["label"], words, "aside", field["nth"])
        self.assertEqual(len({place[:-1] for place in changed(before, self.do("design"))}), 1)
        self.check_kept(field, before, words)
        self.undone(before)

    def check_chosen(self, field: dict[str, Any]) -> None:
        """Another option can be chosen, and is what is shown then."""
        others = [o for o in self.do("choices", field["label"], "aside", field["nth"]) if o != field["value"]]
        before = self.do("design")
        self.do("chosen", field["label"], others[-1], "aside", field["nth"])
        self.check_kept(field, before, others[-1])
        self.undone(before)

    def check_ticked(self, field: dict[str, Any]) -> None:
        """The box can be turned over."""
        before = self.do("design")
        self.do("ticked", field["label"], "aside", field["nth"])
        self.assertTrue(changed(before, self.do("design")))
        self.undone(before)

    def test_one_by_one(self) -> None:
        """What is typed, chosen or ticked gets into one place, is shown as it was put, and goes out by one step."""
        checks = {"typed": self.check_typed, "choice": self.check_chosen, "box": self.check_ticked}
        seen: set[tuple[str, str]] = set()
        for tank, stations in (("raid tank with plates", STATIONS), ("day tank", ("brief", "bay", "ports"))):
            for station in stations:
                self.open_tank(tank, station)
                for row in (None, *range(len(self.do("rows")))):
                    if row is not None:
                        self.do("unfolded", row)
                    for field in self.do("fields", "aside"):
                        about = station, field["label"]
                        if about in seen or field["label"].startswith(NOT_OF_THE_DESIGN):
                            continue
                        seen.add(about)
                        with self.subTest(tank=tank, station=station, field=field["label"]):
                            checks[field["kind"]](field)
        self.assertGreater(len(seen), 100)
