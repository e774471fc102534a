"""What is said of a brief and of a gauge, and a sender measured in its tank."""

import json
from typing import Any, get_args
from unittest import TestCase

import numpy as np
from hypothesis import given, settings
from hypothesis import strategies as st
from scipy.optimize import isotonic_regression

from keel.analysis.showing import Showing
from keel.design.brief import CardSubject
from keel.design.gauge import Sender, SwingArm
from keel.evaluation import Evaluation, evaluate
from keel.findings.finding import Finding
from keel.formats.document import read_design
from keel.solid.build import build
from keel.studies.gauge.calibration import calculated_ohms, fitted
from keel.studies.gauge.poured_curve import monotone
from keel.tests.samples import box

BOX: dict[str, Any] = {"length_mm": 600, "width_mm": 400, "height_mm": 300}
SADDLE = [(0, 0), (300, 0), (300, 150), (500, 150), (500, 0), (800, 0), (800, 320), (0, 320)]
ARM: dict[str, Any] = {"kind": "swing arm", "made_arm_mm": 120, "empty_deg": -40, "full_deg": 40, "heading_deg": 0}


def judged(**parts: Any) -> Evaluation:
    """The evaluation of a box with those parts of a design."""
    return evaluate(read_design(json.dumps({"shell": BOX} | parts)))


def by_code(**parts: Any) -> dict[str, Finding]:
    """Its findings by code."""
    return {finding.code: finding for finding in judged(**parts).findings}


def pump(flow: float, low: float | None = None) -> dict[str, Any]:
    """A pump that gives so much at 300 kPa and 13.5 V, and something less at 11 V."""
    points = [{"kpa": 0, "l_per_h": flow * 2}, {"kpa": 300, "l_per_h": flow}]
    curves = [{"voltage_v": 13.5, "points": points}]
    if low is not None:
        weak = [{"kpa": 0, "l_per_h": low * 2}, {"kpa": 300, "l_per_h": low}]
        curves.insert(0, {"voltage_v": 11.0, "points": weak})
    return {"id": "p", "pump": {"name": "Pump", "curves": curves}}


class BriefJudged(TestCase):
    """Pumps, surge volume, rule card, what is outgrown."""

    def brief(self, *pumps: dict[str, Any], **more: Any) -> dict[str, Any]:
        """An engine that burns 100 L/h."""
        return {"cases": [{"id": "now", "name": "Now", "measured_l_per_h": 100.0} | more], "pumps": list(pumps)}

    def test_pumps_against_demand(self) -> None:
        """Enough, too little, too little at low voltage only, and no figure at that pressure."""
        margin = 1.2  # 20 % on top is the house rule
        self.assertFalse({"pump.short", "pump.low_voltage", "pump.beyond"} & set(by_code(brief=self.brief(pump(130)))))
        short = by_code(brief=self.brief(pump(110)))["pump.short"]
        self.assertEqual(short.title.plain(), "Pump flow 110.0 L/h for Now, at least 120.0 L/h (+20.0 %, house rule)")
        weak = by_code(brief=self.brief(pump(130, 90), low_v=11.0))
        low = weak["pump.low_voltage"].title.values
        self.assertAlmostEqual(float(low["needed_lph"]) - float(low["running_lph"]), 100 * margin - 90)
        self.assertNotIn("pump.short", weak)
        self.assertIn("pump.beyond", by_code(brief=self.brief(pump(130), rail_kpa=400)))

    def test_a_surge_tank_that_never_refills(self) -> None:
        """Lift at or under the draw; over it, but too slowly for the gap; fast enough."""
        for lift, gap, code in ((100.0, 60.0, "surge.lift"), (120.0, 20.0, "surge.refill"), (400.0, 20.0, None)):
            surge = {"uncovered_s": 9.0, "gap_s": gap, "lift_l_per_h": lift}
            found = by_code(brief=self.brief() | {"surge": surge})
            self.assertEqual({"surge.lift", "surge.refill"} & set(found), {code} - {None})
        surge = {"uncovered_s": 9.0, "gap_s": 20.0, "lift_l_per_h": 120.0}
        refill = by_code(brief=self.brief() | {"surge": surge})["surge.refill"]
        self.assertAlmostEqual(refill.why.values["drawn_l"], 0.25)
        self.assertAlmostEqual(refill.title.values["refill_s"], 45.0)
        self.assertAlmostEqual(refill.title.values["gap_s"], 20.0)

    def test_every_limit_of_a_card(self) -> None:
        """A hair inside nothing is said; a hair outside the rule is named with both figures."""
        brief = self.brief() | {"vehicle_kg": 900.0}
        seen = judged(brief=brief)
        fuel = seen.shell.figures.rated_l * 0.745
        values = {
            "rated capacity at most": seen.shell.figures.rated_l,
            "brimful capacity at most": seen.shell.figures.brimful_l,
            "rated capacity at least": seen.shell.figures.rated_l,
            "fuel mass at most": fuel,
            "full mass at most": seen.shell.figures.full_kg,
            "wall thickness at least": 3.0,
            "fuel share of vehicle at most": fuel / (900 + fuel),
        }
        self.assertEqual(set(values), set(get_args(CardSubject)))
        for subject, value in values.items():
            assert value is not None
            for factor, broken in ((0.999, "most" in subject), (1.001, "least" in subject)):
                rule = {"id": "r", "rule": "4.2", "subject": subject, "limit": value * factor}
                found = by_code(brief=brief | {"card": [rule]})
                self.assertEqual("card" in found, broken, (subject, factor))
                if broken:
                    title = found["card"].title
                    self.assertTrue(title.plain().startswith(f"4.2: {subject.rpartition(' at ')[0]}"))
                    shown = {name.split("_")[0]: number for name, number in title.values.items() if "_" in name}
                    self.assertAlmostEqual(shown["limit"], rule["limit"])
                    self.assertAlmostEqual(shown["value"], value)

    def test_what_a_later_engine_outgrows(self) -> None:
        """Pumps, fuel, capacity and surge volume, each with what is worth building in now; the same engine nothing."""
        now = {"id": "now", "name": "Now", "measured_l_per_h": 100.0}
        later = {"id": "later", "name": "Later", "measured_l_per_h": 180.0, "fuel": "E85"}
        brief = {"cases": [now, later], "pumps": [pump(130)], "surge": {"uncovered_s": 9.0}}
        found = {item.part: item for item in judged(brief=brief).brief.outgrown}
        self.assertEqual(list(found), ["pumps", "fuel", "run time", "surge volume"])
        self.assertAlmostEqual(found["pumps"].then.values["short_lph"], 180 * 1.2 - 130)
        self.assertAlmostEqual(found["run time"].worth.values["share_pct"], 0.8)
        volumes = [found["surge volume"].now.values["now_l"], found["surge volume"].then.values["then_l"]]
        self.assertAlmostEqual(volumes[1] / volumes[0], 1.8)
        self.assertEqual(judged(brief=brief | {"cases": [now, now | {"id": "same"}]}).brief.outgrown, [])

    def test_fuel_as_a_share_of_the_vehicle(self) -> None:
        """53 kg are much of a 200 kg buggy and little of a lorry."""
        self.assertIn("fuel.share", by_code(brief={"vehicle_kg": 200.0}))
        self.assertNotIn("fuel.share", by_code(brief={"vehicle_kg": 9000.0}))


class GaugeJudged(TestCase):
    """Senders that hang wrong, needles that lie, lobes that go unseen."""

    def found(self, shell: dict[str, Any] | None = None, **sender: Any) -> dict[str, Finding]:
        """Findings with one sender."""
        one = {"id": "s", "name": "sender", "x_mm": 200, "y_mm": 200, "action": ARM} | sender
        return by_code(gauge={"senders": [one]}, **({"shell": shell} if shell else {}))

    def test_where_it_hangs(self) -> None:
        """Beyond the tank; its float in the front wall; its stops beyond floor or roof."""
        self.assertIn("sender.outside", self.found(x_mm=900))
        self.assertIn("sender.meets", self.found(x_mm=560))
        free = self.found()
        self.assertFalse({"sender.outside", "sender.meets", "sender.stops"} & set(free))
        supplied = ARM | {"method": "as supplied", "pivot_mm": 280}
        self.assertIn("sender.stops", self.found(action=supplied))

    def test_a_needle_that_lies(self) -> None:
        """In a wedge a straight needle is off by a tenth and more; what is below E is said."""
        corners = [{"across_mm": a, "up_mm": z} for a, z in ((0, 0), (60, 0), (600, 300), (0, 300))]
        wedge = {"kind": "profile", "shape": "free", "corners": corners, "run_mm": 400, "wrap_axis": "y"}
        found = self.found(wedge, x_mm=100, action=ARM | {"heading_deg": 90, "made_arm_mm": 60})
        self.assertEqual("high", found["gauge.lies"].title.values["way"])
        self.assertIn("Less is left", found["gauge.lies"].why.plain())
        high = self.found(empty_mm=60, full_mm=280)
        self.assertIn("gauge.reserve", high)
        self.assertNotIn("gauge.reserve", self.found(empty_mm=15, full_mm=280))

    def test_two_lobes_want_two_senders(self) -> None:
        """One sees one lobe; with a second none is blind."""
        corners = [{"across_mm": a, "up_mm": z} for a, z in SADDLE]
        shell = {"kind": "profile", "shape": "saddle", "corners": corners, "run_mm": 500, "wrap_axis": "x"}
        senders = [{"id": f"s{y}", "name": "s", "x_mm": 200, "y_mm": y, "action": ARM} for y in (150, 650)]
        inlet = {"id": "p", "name": "p", "role": "pickup", "x_mm": 250, "y_mm": 150}
        for some, blind in ((senders[:1], True), (senders, False)):
            found = by_code(shell=shell, ports=[inlet], gauge={"senders": some})
            self.assertEqual("gauge.one_eye" in found, blind)


class Calibrated(TestCase):
    """A curve through what was poured and read."""

    SENDER = Sender(
        id="s",
        name="s",
        x_mm=300,
        y_mm=200,
        action=SwingArm(made_arm_mm=120, empty_deg=-40, full_deg=40),
        ohms_empty=240,
        ohms_full=33,
    )
    SOLIDS = build(box(600, 400, 300))

    @given(st.lists(st.floats(-100, 100), min_size=1, max_size=30))
    def test_pooled_neighbours_are_nearest(self, values: list[float]) -> None:
        """The rising sequence nearest in least squares, as another solver finds it."""
        np.testing.assert_allclose(monotone(values), isotonic_regression(values).x, atol=1e-9)

    @settings(max_examples=30)
    @given(st.lists(st.integers(1, 66), min_size=3, max_size=12, unique=True), st.floats(-3, 3))
    def test_a_true_sender_fits_itself(self, litres: list[int], off: float) -> None:
        """Readings as calculated are off by nothing; litres poured wrong by a constant are off by that."""
        points = []
        for poured in litres:
            ohms = calculated_ohms(self.SENDER, self.SOLIDS, poured)
            assert ohms is not None
            points.append((poured + off, ohms))
        found = fitted(self.SENDER, self.SOLIDS, points)
        assert found is not None and found.worst_l is not None
        reached = [reading for reading in found.readings if 33.01 < reading.ohms < 239.99]
        for reading in reached:
            self.assertAlmostEqual(reading.off_l, off, places=4)
        curve = [point.litres for point in found.curve]
        self.assertEqual(curve, sorted(curve))
        self.assertGreaterEqual(min(curve), min(p for p, _ in points) - 1e-9)
        self.assertLessEqual(max(curve), max(p for p, _ in points) + 1e-9)

    def test_too_few_and_nowhere(self) -> None:
        """Two readings make no curve; a sender beside the tank none at all."""
        found = fitted(self.SENDER, self.SOLIDS, [(5, 200), (40, 90)])
        assert found is not None
        self.assertEqual((len(found.readings), found.curve, found.worst_l), (2, [], None))
        outside = self.SENDER.model_copy(update={"x_mm": 900.0})
        self.assertIsNone(fitted(outside, self.SOLIDS, [(5, 200)]))
        self.assertIsNone(calculated_ohms(outside, self.SOLIDS, 5.0))


BAY: dict[str, Any] = {"length_mm": 900, "width_mm": 600, "height_mm": 500}
WELL: dict[str, Any] = {"kind": "well", "a_mm": 100, "b_mm": 100, "long_mm": 100, "wide_mm": 100, "deep_mm": 50}
SUMP: dict[str, Any] = {"kind": "sump", "id": "s", "name": "sump", "a_mm": 100, "b_mm": 100, "deep_mm": 40}
PLATE: dict[str, Any] = {"kind": "baffle", "id": "b", "name": "baffle", "at_mm": 300}


def with_features(*features: dict[str, Any]) -> dict[str, Any]:
    """The box with features."""
    return {"shell": BOX | {"features": list(features)}}


def wells(second_at: float) -> dict[str, Any]:
    """Two wells, the second starting there."""
    return with_features(
        WELL | {"id": "w1", "name": "one"}, WELL | {"id": "w2", "name": "two", "a_mm": second_at, "b_mm": 130}
    )


def port(role: str, **more: Any) -> dict[str, Any]:
    """One port in the middle."""
    return {"id": role, "name": role, "role": role, "x_mm": 300, "y_mm": 200} | more


def opening(long: float, wide: float) -> dict[str, Any]:
    """A bay with an opening in its roof."""
    return {"bay": BAY | {"opening": {"side": "roof", "a_mm": 50, "b_mm": 50, "long_mm": long, "wide_mm": wide}}}


def on_ground(floor_mm: float) -> dict[str, Any]:
    """A tank with a sump over the ground."""
    sump = SUMP | {"long_mm": 120, "wide_mm": 120}
    shell = BOX | {"z_mm": floor_mm, "features": [sump]}
    return {"bay": BAY | {"sides": {"floor": {"kind": "ground"}}}, "shell": shell}


def cylinder(run: float) -> dict[str, Any]:
    """A lying one."""
    return {"shell": {"kind": "cylinder", "axis": "x", "diameter_mm": 300, "run_mm": run}}


def spanner(second_at: float) -> dict[str, Any]:
    """Two ports that want room for a spanner."""
    return {"ports": [port("vent", spanner_mm=60), port("filler", spanner_mm=60, x_mm=second_at)]}


SAID_AND_NOT: dict[str, tuple[dict[str, Any], dict[str, Any]]] = {
    "air.trapped": ({"ports": [port("vent", z_mm=250)]}, {"ports": [port("vent")]}),
    "fuel.unreached": ({"ports": [port("pickup", z_mm=100)]}, {"ports": [port("pickup")]}),
    "feature.overlap": (wells(150), wells(300)),
    "feature.past_edge": (wells(540), wells(300)),
    "inside.braces": (with_features(PLATE), with_features()),
    "opening.short": (opening(500, 250), opening(700, 500)),
    "opening.turned": (opening(610, 310), opening(700, 500)),
    "pan.flange": ({"sheet": {"flange_mm": 10}}, {"sheet": {"flange_mm": 20}}),
    "pan.impossible": ({"shell": BOX | {"width_mm": 20}}, {"shell": BOX | {"width_mm": 120}}),
    "port.room": (spanner(340), spanner(440)),
    "rolls.width": (cylinder(1300), cylinder(1200)),
    "sump.ground": (on_ground(170), on_ground(260)),
}
"""By code: a design of which it is said, and one beside it of which it isn't."""


class SaidAndNot(TestCase):
    """Findings come up with their cause and go with it."""

    def test_each_comes_and_goes(self) -> None:
        """One change of a design raises it, the change back settles it; its title says what is wrong in figures."""
        for code, (wrong, right) in SAID_AND_NOT.items():
            with self.subTest(code):
                said, silent = (
                    evaluate(read_design(json.dumps({"shell": BOX} | parts)), None, Showing(remedies=False)).findings
                    for parts in (wrong, right)
                )
                titles = [finding.title for finding in said if finding.code == code]
                self.assertTrue(titles)
                self.assertNotIn(code, {finding.code for finding in silent})
                if code not in ("pan.impossible", "opening.turned"):
                    self.assertTrue(any(isinstance(value, float | int) for value in titles[0].values.values()))
