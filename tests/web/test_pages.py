"""Every station's page of the demo's tanks, rendered without a browser."""

import re
from collections.abc import Iterator
from functools import cache
from html.parser import HTMLParser
from typing import Any
from unittest import TestCase

from keel.design.document import Design
from keel.design.workshop import Workshop
from keel.evaluation import evaluate
from keel.formats.document import UnreadableDesignError, design_from
from keel.reference.quantities import UnitSet
from keel.solid.faults import GeometryError
from keel.tests.wild import Wild
from server.demo.saltmarsh import CART_TANK, DAY_TANK, RAID_INSIDE, RAID_TANK, RULES, SURGE
from tests.web.node import call

TANKS: dict[str, dict[str, Any]] = {
    "day tank": DAY_TANK,
    "raid tank": RAID_TANK,
    "raid tank with plates": RAID_INSIDE,
    "cart tank": CART_TANK,
    "surge tank": SURGE,
}
METRIC = re.compile(r"(?:^|[\d,×]\s)(mm|cm|m|m²|cm²|L|kg|kPa|MPa|kW|L/h|kg/h|N·m|km|°C)(?![\w/²·])")
"""A metric unit behind a number, or by itself beside a field or over a column."""


def written(document: Any) -> Iterator[str]:
    """What people wrote into a document: it stays in their units."""
    if isinstance(document, str):
        yield document
    elif isinstance(document, dict | list):
        for part in document.values() if isinstance(document, dict) else document:
            yield from written(part)


class Page(HTMLParser):
    """Text that is shown, what its choices show, and labels of its fields."""

    def __init__(self, html: str) -> None:
        super().__init__()
        self.texts: list[str] = []
        self.choices: dict[str, str] = {}
        self._labels: dict[str, str] = {}
        self._label = ""
        self._unseen = self._choice = 0
        self._goes_on = False
        self.feed(html)

    def handle_starttag(self, tag: str, attrs: list[tuple[str, str | None]]) -> None:
        """Styles and scripts aren't shown; a choice's text is what stands in it."""
        self._goes_on = False
        if tag in ("style", "script"):
            self._unseen += 1
        if self._choice:
            self._choice += tag == "div"
        elif dict(attrs).get("role") == "combobox":
            self._choice = 1
            self.choices[(dict(attrs).get("aria-labelledby") or "").split()[0]] = ""
        elif (dict(attrs).get("id") or "").endswith("-label"):
            self._label = dict(attrs).get("id") or ""

    def handle_endtag(self, tag: str) -> None:
        """Out of it."""
        self._goes_on = False
        if tag in ("style", "script"):
            self._unseen -= 1
        if self._choice and tag == "div":
            self._choice -= 1

    def handle_data(self, data: str) -> None:
        """Collect; what only a comment parts is one text."""
        if self._unseen:
            return
        if self._choice:
            self.choices[next(reversed(self.choices))] += data
        elif self._goes_on:
            self.texts[-1] += data
        else:
            self.texts.append(data)
        self._goes_on = True
        if self._label:
            self._labels[self._label], self._label = data, ""

    def left_open(self) -> list[str]:
        """Labels of choices that show nothing; what adds something is only pressed, nothing is chosen there."""
        empty = [name for name, text in self.choices.items() if not text.strip(" \u200b")]
        return [label for name in empty if not (label := self._labels.get(name, name)).startswith("Add ")]


def without(text: str, names: list[str]) -> str:
    """A text less what people wrote."""
    for name in names:
        if name in text:
            text = re.sub(rf"(?<!\w){re.escape(name)}(?!\w)", "", text)
    return text


@cache
def answered(name: str) -> tuple[Any, Any]:
    """A tank as a document, and what the core says of it."""
    design: Design = design_from(TANKS[name])
    answer = evaluate(design, Workshop.model_validate(RULES))
    return design.model_dump(mode="json"), answer.model_dump(mode="json")


def rendered(document: Any, answer: Any, units: UnitSet) -> dict[str, Page]:
    """Each station's page of a design for a reader."""
    (shown,) = call("pages.tsx", [("pages", document, answer, units)])
    return {station: Page(html) for station, html in shown.items()}


@cache
def pages(name: str, units: UnitSet) -> dict[str, Page]:
    """Each station's page of a tank for a reader."""
    return rendered(*answered(name), units)


def wild(count: int, first: int) -> Iterator[tuple[int, Design, Any]]:
    """Designs at random that something can be made of, and what the core says of them."""
    for seed in range(first, first + 20 * count):
        try:
            design = design_from(Wild(seed).document())
            answer = evaluate(design, Workshop.model_validate(RULES), enough=lambda: True)
        except (UnreadableDesignError, GeometryError):
            continue
        yield seed, design, answer.model_dump(mode="json")
        count -= 1
        if not count:
            return


class Pages(TestCase):
    """What a reader sees at each station."""

    def test_every_choice_says_what_is_chosen(self) -> None:
        """Also one that is left open; and every page of every tank comes without an error."""
        for name in TANKS:
            for station, page in pages(name, "mm_l").items():
                with self.subTest(tank=name, station=station):
                    text = " ".join(page.texts)
                    self.assertNotRegex(text, r"went wrong|undefined|NaN|\[object|\{\w+\}")
                    self.assertGreater(len(text), 100)
                    self.assertEqual(page.left_open(), [])

    def test_a_reader_in_inches_sees_no_metric_unit(self) -> None:
        """In either gallon, at every station, in findings and tally; but for names and what people wrote."""
        readers: list[tuple[UnitSet, list[str]]] = [("in_usgal", list(TANKS)), ("in_impgal", ["raid tank"])]
        for units, tanks in readers:
            for name in tanks:
                document = TANKS[name]
                names = sorted({*written(document), *written(RULES)}, key=len, reverse=True)
                for station, page in pages(name, units).items():
                    with self.subTest(tank=name, station=station, units=units):
                        left = [text for text in page.texts if METRIC.search(without(text, names))]
                        self.assertEqual(left, [])

    def test_any_design_at_all(self) -> None:
        """Whatever is in it each page comes, with figures and words, in the reader's units."""
        readers: tuple[UnitSet, ...] = ("mm_l", "in_usgal", "in_impgal")
        for number, (seed, design, answer) in enumerate(wild(6, 60)):
            document, units = design.model_dump(mode="json"), readers[number % 3]
            names = sorted({*written(document), *written(RULES)}, key=len, reverse=True)
            for station, page in rendered(document, answer, units).items():
                with self.subTest(seed=seed, station=station, units=units):
                    self.assertNotRegex(" ".join(page.texts), r"went wrong|undefined|NaN|\[object|\{\w+\}|Infinity")
                    self.assertEqual(page.left_open(), [])
                    if units != "mm_l":
                        self.assertEqual([t for t in page.texts if METRIC.search(without(t, names))], [])
