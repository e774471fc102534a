"""What makes a mount stronger never makes it weaker, and loads follow the mass and the g: on random mounts."""

import json
from collections.abc import Callable, Iterator
from copy import deepcopy
from functools import cache
from itertools import count
from typing import Any
from unittest import TestCase

from keel.analysis.memory import Memory
from keel.analysis.tank import Asked, TankAnalysis
from keel.design.workshop import Workshop
from keel.formats.document import UnreadableDesignError, read_design
from keel.solid.faults import GeometryError
from keel.studies.mount.full_mass import FULL_MASS, G0
from keel.studies.mount.loads import MOUNT_LOADS, Loads
from keel.tests.wild import Wild

Item = dict[str, Any]
Reserves = dict[tuple[str, str, str], float]
MANY = 30
SHEET = ("tear-out", "bearing", "pull-through")
LARGER = {"M5": "M6", "M8": "M10", "M12": "M16", "3/8 UNC": "1/2 UNC"}
AGAINST = {"forward": -1.0, "rearward": 1.0}
STRONGER = {"4.6": "8.8", "8.8": "10.9", "A2-70": "8.8", "SAE 8": "SAE 8"}


@cache
def remembered(_shell: str) -> Memory:
    """What was worked out of a shell before: only its mount is another."""
    return Memory()


def analysed(document: Item) -> TankAnalysis:
    """A document worked out."""
    asked = Asked(read_design(json.dumps(document)), Workshop())
    return TankAnalysis(asked, remembered(json.dumps(document["shell"])))


def loads(document: Item) -> Loads:
    """What its mounts carry and bear."""
    return analysed(document)[MOUNT_LOADS]


def reserves(found: Loads) -> Reserves:
    """How many times its load each link bears."""
    return {(check.id, link.at, link.name): link.reserve for check in found.mounts for link in check.links}


@cache
def mounted() -> list[tuple[Item, Loads]]:
    """Random tanks whose mounts carry something."""
    found: list[tuple[Item, Loads]] = []
    for seed in count(9000):
        document = Wild(seed).document()
        try:
            carried = loads(document)
        except (GeometryError, UnreadableDesignError):
            continue
        if any(check.links for check in carried.mounts):
            found.append((document, carried))
        if len(found) == MANY:
            return found
    raise AssertionError


def places_of(document: Item) -> Iterator[Item]:
    """All that is bolted."""
    mount = document["mount"]
    for strap in mount["straps"]:
        yield from (strap["low"], strap["high"])
    yield from (*mount["feet"], *mount["stops"], *mount["bearers"])


def changed(document: Item, change: Callable[[Item], None]) -> Item:
    """The same with something done to every bolted place."""
    other = deepcopy(document)
    for place in places_of(other):
        change(place)
    return other


class Stronger(TestCase):
    def assert_none_weaker(self, change: Callable[[Item], None], names: tuple[str, ...]) -> None:
        better = 0
        for document, before in mounted():
            was, now = reserves(before), reserves(loads(changed(document, change)))
            for link, reserve in was.items():
                if link[2] in names:
                    self.assertGreaterEqual(now[link], reserve * (1 - 1e-9), (link, json.dumps(document)))
                    better += now[link] > reserve * 1.001
        self.assertGreater(better, 10)

    def test_larger_bolts(self) -> None:
        def larger(place: Item) -> None:
            place["bolts"]["size"] = LARGER[place["bolts"]["size"]]

        self.assert_none_weaker(larger, ("bolt",))

    def test_bolts_of_a_better_grade(self) -> None:
        def better(place: Item) -> None:
            place["bolts"]["grade"] = STRONGER[place["bolts"]["grade"]]

        self.assert_none_weaker(better, ("bolt",))

    def test_more_bolts(self) -> None:
        def more(place: Item) -> None:
            place["bolts"]["count"] += 1

        self.assert_none_weaker(more, ("bolt", "tear-out", "bearing"))

    def test_thicker_structure(self) -> None:
        def thicker(place: Item) -> None:
            place["structure"]["thickness_mm"] *= 1.5

        self.assert_none_weaker(thicker, SHEET)

    def test_holes_further_from_the_edge(self) -> None:
        def further(place: Item) -> None:
            place["structure"]["edge_mm"] += 10.0

        self.assert_none_weaker(further, ("tear-out",))

    def test_larger_plates(self) -> None:
        def larger(place: Item) -> None:
            plate = place["structure"]["plate"]
            if plate:
                plate.update(long_mm=plate["long_mm"] + 15.0, wide_mm=plate["wide_mm"] + 15.0)

        self.assert_none_weaker(larger, SHEET)

    def test_wider_and_thicker_straps(self) -> None:
        better = 0
        for document, before in mounted():
            other = deepcopy(document)
            for strap in other["mount"]["straps"]:
                strap.update(width_mm=strap["width_mm"] + 8.0)
            was, now = reserves(before), reserves(loads(other))
            for link, reserve in was.items():
                if link[2] == "strap":
                    self.assertGreater(now[link], reserve, (link, json.dumps(document)))
                    better += 1
        self.assertGreater(better, 5)

    def test_a_lower_face_or_a_longer_foot_of_a_stop(self) -> None:
        better = 0
        for document, before in mounted():
            for change in ({"arm_mm": 10.0}, {"base_mm": 90.0}):
                other = deepcopy(document)
                for stop in other["mount"]["stops"]:
                    stop.update(change)
                was, now = reserves(before), reserves(loads(other))
                for link, reserve in was.items():
                    if link[2] in ("bolt", "pull-through", "spreading plate"):
                        self.assertGreaterEqual(now.get(link, reserve), reserve * (1 - 1e-9), link)
                        better += now.get(link, reserve) > reserve * 1.001
        self.assertGreater(better, 3)


class Follows(TestCase):
    def test_twice_the_g_is_twice_the_load_and_half_the_reserve(self) -> None:
        for document, _ in mounted():
            made = []
            for times in (1.0, 2.0):
                g = {"forward_g": 6.0, "rearward_g": 4.0, "sideways_g": 5.0, "up_g": 3.0, "down_g": 2.0}
                card = {name: times * value for name, value in g.items()}
                made.append(loads(document | {"mount": document["mount"] | {"use": "rule card", "loads": card}}))
            once, twice = reserves(made[0]), reserves(made[1])
            self.assertEqual(once.keys(), twice.keys())
            for link, reserve in once.items():
                self.assertAlmostEqual(twice[link], reserve / 2, delta=1e-6 * reserve)
            for first, second in zip(made[0].cases, made[1].cases, strict=True):
                self.assertAlmostEqual(second.load_n, 2 * first.load_n)
                self.assertEqual(first.is_held, second.is_held)

    def test_what_is_fitted_adds_its_own_weight_times_the_g(self) -> None:
        for document, before in mounted():
            other = document | {"mount": document["mount"] | {"extra_kg": 12.5}}
            for first, second in zip(before.cases, loads(other).cases, strict=True):
                self.assertAlmostEqual(second.load_n - first.load_n, 12.5 * G0 * first.g, delta=1e-6 * second.load_n)

    def test_every_case_is_the_full_mass_at_its_g(self) -> None:
        for document, found in mounted():
            mass = analysed(document)[FULL_MASS]
            assert mass is not None
            for case in found.cases:
                self.assertAlmostEqual(case.load_n, mass.kg * G0 * case.g, delta=1e-9 * case.load_n)
                if case.is_held and case.way in AGAINST:
                    held = sum(by.force.x for by in case.by) * AGAINST[case.way]
                    self.assertGreater(held, 0.9 * case.load_n)
