"""How flat parts are laid out on the sheet, and what the tool is asked, as the screen calculates them."""

from random import Random
from typing import Any
from unittest import TestCase

import numpy as np
from pydantic import TypeAdapter, ValidationError

from keel.analysis.tank import Asked as AskedOf
from keel.analysis.tank import TankAnalysis
from keel.design.document import Design
from keel.design.features import Baffle, Sump
from keel.design.workshop import Workshop
from keel.formats.document import design_from
from keel.solid.faults import GeometryError
from keel.stations.sheet.as_built import departures
from keel.studies.sheet.flats import FLATS
from keel.studies.sheet.fold_view import FOLD_PIECES, FoldPiece
from keel.studies.sheet.lying import lying
from keel.tests.test_trials import tank
from keel.trials.search import OPENING, Ask, search_cases
from tests.web.node import call
from tests.web.test_fields import changed
from tests.web.test_pages import TANKS

CHANCE = Random(20261125)


READABLE = 220
"""The largest part is at least so large [px]."""


def parts() -> list[dict[str, Any]]:
    """A few flat parts of odd sizes."""
    return [
        {"name": f"p{n}", "length_mm": CHANCE.uniform(40, 2400), "width_mm": CHANCE.uniform(30, 900)}
        for n in range(CHANCE.randint(1, 7))
    ]


class Flats(TestCase):
    """Flat parts in rows."""

    def test_nothing_overlaps_or_runs_out(self) -> None:
        """At the scale that is found no two cells meet, none runs out at the side, and all fit or are large to read."""
        sheets = [(parts(), CHANCE.uniform(500, 1500), CHANCE.uniform(300, 1000)) for _ in range(40)]
        scales = call("drawing/flats", [("fitted", *sheet) for sheet in sheets])
        laid = call("drawing/flats", [("inRows", p, w, s) for (p, w, _), s in zip(sheets, scales, strict=True)])
        for (given, width, height), scale, found in zip(sheets, scales, laid, strict=True):
            boxes = []
            for place, part in zip(found["laid"], given, strict=True):
                left, foot = place["x"], place["y"]
                right, top = left + part["length_mm"] * scale, foot - part["width_mm"] * scale
                boxes.append((left, top, right, foot))
                self.assertLessEqual(right, width + 1e-6)
            for n, (a, b, c, d) in enumerate(boxes):
                for e, f, g, h in boxes[n + 1 :]:
                    self.assertTrue(c <= e or g <= a or d <= f or h <= b, "two parts overlap")
            largest = max(size for part in given for size in (part["length_mm"], part["width_mm"]))
            if scale * largest > READABLE + 1e-6:
                self.assertLessEqual(found["height"], height + 1e-6)

    def test_words_in_lines(self) -> None:
        """No line is longer than there is room for, unless one word is; no word is lost."""
        text = "Its inside faces you, rim up; rear, left, front, right from the left. Fold and close at the corner."
        for letters, lines in zip(range(5, 60), call("drawing/flats", [("wrapped", text, n) for n in range(5, 60)]), strict=True):
            self.assertEqual(" ".join(lines), text)
            self.assertTrue(all(len(line) <= letters or " " not in line for line in lines))

    def test_labels_give_way(self) -> None:
        """In order, never nearer than their room, and where they want to be when there is room."""
        wanted = [[sorted(CHANCE.uniform(0, 600) for _ in range(8)), 56] for _ in range(30)]
        for (at, room), given in zip(wanted, call("drawing/flats", [("spread", *w) for w in wanted]), strict=True):
            self.assertTrue(all(b - a >= room - 1e-9 for a, b in zip(given, given[1:], strict=False)))
            self.assertTrue(all(g >= w for g, w in zip(given, at, strict=True)))
            self.assertEqual(given[0], at[0])
        bounded = call("drawing/flats", [("spread", *w, 640) for w in wanted])
        for (_, room), given in zip(wanted, bounded, strict=True):
            self.assertTrue(all(b - a >= room - 1e-9 for a, b in zip(given, given[1:], strict=False)))
            self.assertLessEqual(given[-1], 640)


class Folding(TestCase):
    """Parts that fold up on the screen."""

    def test_as_the_core_folds_them(self) -> None:
        """Half way and folded, every panel lies where the core says."""
        document = tank(Sump(id="s", name="s", a_mm=220, b_mm=130, long_mm=160, wide_mm=140, deep_mm=40))
        of = TankAnalysis(AskedOf(document))
        pieces = [piece for piece in of[FOLD_PIECES] if len(piece.panels) > 1]
        self.assertTrue(pieces)
        parts = {part.name: part for part in of[FLATS].parts}
        for piece in pieces:
            part = parts[piece.part]
            place = next(one for one in part.places if one.name == piece.piece)
            for share in (0.35, 1.0):
                (found,) = call("drawing/fold", [("folded", TypeAdapter(FoldPiece).dump_python(piece, mode="json"), share)])
                expected = lying(part, place, share).panels
                self.assertEqual(len(found), len(expected))
                for mine, theirs in zip(found, expected, strict=True):
                    np.testing.assert_allclose(np.reshape(mine, (4, 4)), theirs.matrix, atol=1e-6)


class Sizes(TestCase):
    """Sizes that can be typed as built."""

    def test_each_is_one_place_that_the_core_knows(self) -> None:
        """Of every demo tank: put otherwise one value of the design changes, and the core takes the path and finds it."""
        for name, document in TANKS.items():
            design = design_from(document)
            plain = design.model_dump(mode="json")
            (sizes,) = call("stations/sheet/sizes", [("sizesOf", plain)])
            self.assertGreater(len(sizes), 4, name)
            self.assertEqual(len({size["of"] for size in sizes}), len(sizes))
            moved = call("stations/sheet/sizes", [("withSize", plain, size["of"], size["mm"] + 1) for size in sizes])
            for size, after in zip(sizes, moved, strict=True):
                places = changed(plain, after)
                self.assertEqual(len(places), 1, size)
                entry = {"id": "b", "of": size["of"], "name": size["name"], "planned_mm": size["mm"]}
                after["sheet"]["as_built"] = [entry]
                try:
                    (one,) = departures(TankAnalysis(AskedOf(Design.model_validate(after))))
                except (ValidationError, GeometryError):
                    continue
                self.assertAlmostEqual((one.built_mm or 0.0) - one.planned_mm, 1.0, msg=size)

    def test_a_part_small(self) -> None:
        """Its picture lies within its box, its up upward, as wide to high as it is."""
        for given in parts():
            part = given | {"outline": [(0, 0), (given["length_mm"], 0), (0, given["width_mm"])], "holes": []}
            (path,) = call("stations/sheet/chosen", [("pathIn", part, 84, 40)])
            spots = [tuple(map(float, spot.split(","))) for spot in path.strip("Mz").split("L")]
            (left, foot), (right, _), (_, top) = spots
            self.assertTrue(-1e-6 <= left < right <= 84 + 1e-6 and -1e-6 <= top < foot <= 40 + 1e-6)
            self.assertAlmostEqual((right - left) / (foot - top), given["length_mm"] / given["width_mm"], places=6)


class Asking(TestCase):
    """Design search."""

    def test_the_screen_counts_what_the_core_tries(self) -> None:
        """For any choice of what may be varied, as many runs as there are cases; fewer where openings want a plate."""
        design = tank(Sump(id="s", name="s", a_mm=220, b_mm=130, long_mm=160, wide_mm=140, deep_mm=40), Baffle(id="b", name="b", at_mm=200))
        document = design.model_dump(mode="json")
        (ways,) = call("stations/slosh/ask", [("possibleWays", document)])
        self.assertIn("sump_deep_mm", ways)
        askings = []
        for _ in range(40):
            on = {way: CHANCE.random() < 0.4 for way in ways}
            if on["plates_across"]:
                on["plate_at_mm"] = False
            varied = {}
            for way in ways:
                low, more = (CHANCE.randint(0, 2), CHANCE.randint(0, 2)) if "plates" in way else (20 * CHANCE.randint(1, 4), 30 * CHANCE.randint(0, 2))
                varied[way] = {"on": on[way], "low": low, "high": low + more, "steps": CHANCE.randint(1, 4)}
            places = {"on": CHANCE.random() < 0.3, "along": CHANCE.randint(1, 3), "across": CHANCE.randint(1, 3)}
            askings.append({"down_to_l": None, "least": "money", "ways": varied, "places": places})
        asks = call("stations/slosh/ask", [("askOf", asking, 8.0, ways) for asking in askings])
        counted = call("stations/slosh/ask", [("runsOf", ask) for ask in asks])
        tried = 0
        for ask, runs in zip(asks, counted, strict=True):
            if 2 <= runs <= 600:
                tried += 1
                cases = search_cases(design, Ask.model_validate(ask, strict=False), Workshop())
                self.assertLessEqual(len(cases), runs, ask)
                bare = (ask["plates_across"] or {"low": 1})["low"] == 0 and any(ask[way] for way in OPENING)
                self.assertTrue(len(cases) == runs or bare, ask)
        self.assertGreater(tried, 10)


class Labels(TestCase):
    """Labels of a drawing."""

    def test_they_keep_apart(self) -> None:
        """Whatever is crowded: none that is shown lies on another, on what is fixed, or off the page; the first stay."""
        page = {"x": 0, "y": 0, "width": 900, "height": 600}

        def box(wide: float, high: float) -> dict[str, float]:
            return {"x": CHANCE.uniform(0, 820), "y": CHANCE.uniform(0, 580), "width": wide, "height": high}

        asked = []
        for _ in range(60):
            fixed = [box(CHANCE.uniform(10, 60), 14) for _ in range(12)]
            boxes = [box(CHANCE.uniform(20, 75), 14) for _ in range(25)]
            labels = [{"box": b, "at": {"x": b["x"], "y": b["y"]}, "priority": n % 5, "led": True} for n, b in enumerate(boxes)]
            asked.append((labels, fixed))
        hidden = 0
        for (labels, fixed), spots in zip(asked, call("drawing/labels", [("placed", *a, page) for a in asked]), strict=True):
            taken = list(fixed)
            for label, spot in zip(labels, spots, strict=True):
                hidden += spot["hidden"]
                if spot["hidden"]:
                    continue
                b = label["box"] | {"x": label["box"]["x"] + spot["dx"], "y": label["box"]["y"] + spot["dy"]}
                self.assertTrue(0 <= b["x"] and b["x"] + b["width"] <= 900 and 0 <= b["y"] and b["y"] + b["height"] <= 600)
                for o in taken:
                    apart = b["x"] >= o["x"] + o["width"] or o["x"] >= b["x"] + b["width"]
                    self.assertTrue(apart or b["y"] >= o["y"] + o["height"] or o["y"] >= b["y"] + b["height"])
                taken.append(b)
        self.assertLess(hidden, 15, "of 1500")
        alone = {"box": {"x": 5, "y": 5, "width": 30, "height": 12}, "at": {"x": 0, "y": 0}, "priority": 1, "led": True}
        (spots,) = call("drawing/labels", [("placed", [alone], [], page)])
        self.assertEqual(spots, [{"dx": 0, "dy": 0, "hidden": False}])
