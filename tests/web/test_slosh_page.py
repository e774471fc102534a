"""Slosh as it is driven: one held turn by hand, what it starves, what bridges it; and the bay's neighbours."""

from typing import Any

from tests.web.person import AtThePage

SHELL = {"length_mm": 806.0, "width_mm": 406.0, "height_mm": 306.0, "thickness_mm": 3.0, "bend_radius_mm": 0.0}
PICKUP = {"id": "p", "name": "pickup", "role": "pickup", "x_mm": 603.0, "y_mm": 383.0}
CASE = {"id": "a", "name": "Now", "measured_l_per_h": 100.0}


class Driven(AtThePage):
    """A box of 96 litres whose pickup is at its left wall: a left turn takes the fuel from it."""

    document: dict[str, Any] = {
        "shell": SHELL,
        "brief": {"cases": [CASE]},
        "ports": [PICKUP],
        "slosh": {"fill": 0.08},
    }
    drawn = False

    def setUp(self) -> None:
        """At the station, driven once."""
        super().setUp()
        self.open_station("slosh")
        self.until(lambda: "L at the start;" in self.text("main"), "driven")

    def board(self) -> str:
        """What is said of the run."""
        return self.text("main")

    def dry_s(self) -> float:
        """How long it was dry."""
        said = self.board().partition("Dry for ")[2]
        return float(said.split(" ")[0]) if said else 0.0

    def missing_l(self) -> float:
        """What the engine didn't get."""
        return float(self.board().partition(" L used, ")[2].split(" ")[0])

    def test_what_is_missing(self) -> None:
        """While it is dry the engine lacks its 100 L/h; the spell's beginning leads there."""
        self.assertGreater(self.dry_s(), 5.0)
        self.assertIn("in 1 spell", self.board())
        self.assertNotIn("in 1 spells", self.board())
        self.assertAlmostEqual(self.missing_l(), 100 / 3600 * self.dry_s(), delta=0.006)
        self.press("Show", "main")
        self.until(lambda: "0.80 g" in self.board().partition("braking")[2][:40], "at that moment")

    def test_the_other_way_it_is_never_dry(self) -> None:
        """A right turn piles the fuel up where it is drawn; without its swing nothing uncovers it."""
        self.tick("Slosh lag: the surface swings")
        self.choose("Manoeuvre", "corner to the right")
        self.until(lambda: "Never dry" in self.board(), "covered throughout")
        self.assertEqual(self.missing_l(), 0.0)
        self.press("Undo")
        self.until(lambda: self.dry_s() > 5, "as before")

    def test_an_engine_that_draws_more(self) -> None:
        """Typed here it counts before the brief's; emptied the brief's counts again."""
        self.type_into("Engine fuel flow", "200")
        self.until(lambda: abs(self.missing_l() - 200 / 3600 * self.dry_s()) < 0.006, "twice as much is missing")
        self.type_into("Engine fuel flow", "")
        self.until(lambda: abs(self.missing_l() - 100 / 3600 * self.dry_s()) < 0.006, "as the brief says")

    def test_a_surge_tank_bridges_it(self) -> None:
        """A third of a litre outlasts seven seconds of 100 L/h; a tenth doesn't."""
        self.type_into("Surge tank", "0.33", "aside")
        self.type_into("Lift pump", "300")
        self.until(lambda: self.missing_l() == 0.0, "nothing is missing")
        self.type_into("Surge tank", "0.1", "aside")
        self.until(lambda: 0 < self.missing_l() < 0.12, "the rest is missing")

    def test_as_long_as_it_is_held(self) -> None:
        """Twice as long a turn is dry for as much longer; twice over it is dry twice."""
        before = self.dry_s()
        self.type_into("Duration", "9")
        self.until(lambda: abs(self.dry_s() - before - 3) < 0.15, "three seconds longer")
        self.type_into("Repeats", "2")
        self.until(lambda: self.dry_s() > 1.9 * (before + 3), "twice")

    def test_a_brake_on_the_stopwatch(self) -> None:
        """Held at 0.2 g the surface leans by a fifth: at a fifth full 60 mm stand 36 lower at the wall, and cover it."""
        self.tick("Slosh lag: the surface swings")
        self.press("Time it")
        self.until(lambda: "0.2 g" in self.board().partition("Held at")[2], "timed")
        rows = self.board().partition("Held at")[2].split(" g")
        # 5 and 10 per cent run dry; 15, 45 mm deep, is 9 over the floor there: just covered; from there on nothing is.
        held = rows[0].partition("50 % full")[2] + rows[1]
        self.assertTrue(held.rstrip("0.4").endswith("–––"), held)
        self.assertIn("s", held)

    def test_a_search_that_is_stopped(self) -> None:
        """Asked for it waits for a worker, says how much there is to try, and can be called off."""
        self.press("Start search")
        self.shows("8 to try", "main")
        self.press("Stop", "main", -1)
        self.until(lambda: "Start search" in self.board(), "off")


class Bay(AtThePage):
    """A tank with room to spare in its bay."""

    document: dict[str, Any] = {
        "bay": {"length_mm": 1000.0, "width_mm": 600.0, "height_mm": 450.0},
        "shell": SHELL | {"bend_radius_mm": 6.0, "x_mm": 97.0, "y_mm": 97.0, "z_mm": 72.0},
    }
    drawn = False

    def findings(self) -> str:
        """What is found here."""
        return self.text("#findings")

    def test_a_side_that_gets_hot(self) -> None:
        """97 mm from a wall is enough for metal; an exhaust behind it wants more, and a shop's own figure settles it."""
        self.open_station("bay")
        self.until(lambda: "Nothing to put right" in self.findings(), "clear")
        options = self.do("choices", "right", "aside", 0)
        hot = next(option for option in options if "exhaust" in option and "bare" in option)
        self.choose("right", hot)
        self.shows("97 mm from", "#findings")
        self.type_into("Clearance", "97", "aside", 2)
        self.until(lambda: "Nothing to put right" in self.findings(), "as the shop has it")
        right = self.saved()["bay"]["sides"]["right"]
        self.assertEqual((right["kind"], right["mm"]), (hot, 97))

    def test_what_is_planned_counts_too(self) -> None:
        """Room for what isn't fitted yet is checked like the rest, and kept as planned."""
        self.open_station("bay")
        self.press("Add a round one")
        for label, text in (("Diameter", "80"), ("Long", "1000"), ("From right", "300"), ("From floor", "120")):
            self.type_into(label, text)
        self.tick("Planned, not fitted yet")
        self.until(lambda: "into the round keep-out" in self.findings(), "it is in the way")
        self.type_into("From floor", "20")
        self.until(lambda: "12 mm" in self.findings() or "Nothing to put right" in self.findings(), "beneath")
        self.assertTrue(self.saved()["bay"]["keep_outs"][0]["planned"])

    def test_fitted_from_the_bay_and_from_the_shell(self) -> None:
        """Either page offers the same box, with what it brings; pressed, the tank is as large as the bay allows."""
        said = []
        for station in ("bay", "shell"):
            self.open_station(station)
            self.until(lambda: "L brimful" in self.fit(), f"offered at {station}")
            said.append(self.fit())
        self.assertEqual(said[0], said[1])
        before = self.tally()
        more = float(said[1].split("+")[1].split(" ")[0])
        self.press("Fit a box to the bay")
        self.until_tally(before + more)
        self.until(lambda: "as large as the bay allows" in self.fit(), "no larger one")

    def fit(self) -> str:
        """What stands under the button."""
        return self.text("aside").partition("Fit a box to the bay")[2].partition("Findings")[0]
