"""Every finding at Lines comes up where it should, and goes away again."""

import json
from collections.abc import Callable
from pathlib import Path
from typing import Any
from unittest import TestCase

from keel import Showing, apply, evaluate
from keel.design.document import Design
from keel.design.workshop import Workshop
from keel.formats.document import UnreadableDesignError, read_design
from keel.studies.lines.old_map import OLD_MAP
from keel.tests.line_samples import (
    FILTER,
    JET,
    LIFT,
    PARTS,
    PORTS,
    PUMP,
    RUNS,
    SCREEN,
    SENSOR,
    SURGE,
    TEE,
    VENT_END,
    WAYS,
    Item,
    analysed,
    codes,
    curve,
    flares,
    joint,
    judged,
    part,
    plumbed,
    replaced,
    run,
    without,
)

Change = Callable[[], Design]
SECOND: Item = PUMP | {"id": "second", "name": "second"}
SPLIT: Item = part("split", "tee", 820, joints=flares("a", "b", "c", size="-8"), bore_mm=11.1)
TWO_PUMPS: list[Item] = [
    *without(RUNS, "to-pump", "supply"),
    run("to-split", "screen.out", "split.a", 11.1),
    run("to-first", "split.b", "pump.in", 11.1),
    run("to-second", "split.c", "second.in", 11.1),
    run("first-out", "pump.out", "tee.a"),
    run("second-out", "second.out", "tee.b"),
    run("supply", "tee.c", "filter.in"),
]
TWO_LINES: list[Item] = [
    *without(RUNS, "to-pump", "supply"),
    run("to-pump", "screen.out", "pump.in", 11.1),
    run("second-in", "tank.other", "second.in", 14.3),
    run("first-out", "pump.out", "tee.a"),
    run("second-out", "second.out", "tee.b"),
    run("supply", "tee.c", "filter.in"),
]
OTHER: Item = PORTS[0] | {"id": "other", "name": "other", "x_mm": 200}
JETTED: list[Item] = [
    *without(RUNS, "return"),
    run("return", "regulator.return", "jet.drive"),
    run("out", "jet.out", "tank.back"),
    run("far", "tank.other", "jet.suction"),
]
SURGED: list[Item] = [
    *without(RUNS, "to-pump", "return"),
    run("to-lift", "screen.out", "lift.in", 14.3),
    run("into", "lift.out", "surge.lift", 11.1),
    run("out", "surge.out", "pump.in", 11.1),
    run("return", "regulator.return", "surge.return"),
    run("overflow", "surge.overflow", "tank.back", 11.1),
]
OVER: list[Item] = [{"x_mm": x, "y_mm": 200, "z_mm": 500} for x in (1250, 1350)]
NARROW: list[Item] = [one | {"bore_mm": 3.0} for one in flares("in", "out")]
AVGAS: list[Item] = [{"cell": "front cell", "fuel": "avgas 100"}]
WALLED: Item = {"features": [{"kind": "partition", "id": "wall", "name": "wall", "axis": "x", "at_mm": 400}]}


def does(key: str, **changed: Any) -> Change:
    """A part that does something else."""
    return lambda: plumbed(replaced(PARTS, key, does=changed))


def own(key: str, **changed: Any) -> Change:
    """A part that is something else."""
    return lambda: plumbed(replaced(PARTS, key, **changed))


def line(key: str, **changed: Any) -> Change:
    """A run that is something else."""
    return lambda: plumbed(runs=replaced(RUNS, key, **changed))


def modes(*given: Item, **more: Any) -> Change:
    """Running modes of one's own."""
    return lambda: plumbed(modes=[{"id": f"m{n}", "name": f"Mode {n}"} | one for n, one in enumerate(given)], **more)


def end(part_id: str, port: str, **connection: Any) -> Item:
    """A run's end with a connection of its own."""
    return {"part": part_id, "port": port, "connection": connection}


def old(**said: Any) -> Change:
    """The sample with one thing of an old tank."""
    return lambda: plumbed(old=[{"id": "old", "name": "old hose"} | said])


COMES_UP: dict[str, Change] = {
    "lines.old_unknown": old(),
    "lines.old_nowhere": old(fate="keep"),
    "lines.old_gone": old(fate="move", to="ghost.in"),
    "lines.old_taken": old(fate="keep", to="rail.in"),
    "lines.old_uncapped": old(fate="cap"),
    "lines.old_vapour": old(fate="remove", kind="vapour part"),
    "lines.unfed": lambda: plumbed(runs=without(RUNS, "supply")),
    "lines.beyond": modes({"voltage_v": 9.0}),
    "lines.short": modes({"draw_l_per_h": 230.0}),
    "lines.injectors": does("rail", rated_l_per_h=26.0),
    "lines.surplus": does(
        "regulator", rises=[{"l_per_h": 0, "kpa": 0}, {"l_per_h": 100, "kpa": 0}, {"l_per_h": 260, "kpa": 60}]
    ),
    "lines.boils": modes({"fuel_c": 55.0}),
    "lines.lift": does("pump", lifts_mm=100.0),
    "lines.fast": line("suction", bore_mm=6.0),
    "lines.wrong_fuel": own("rail", fuels=["diesel"]),
    "lines.kink": line("to-rail", corners=OVER, radius_mm=30.0),
    "lines.crowded": line("to-rail", corners=OVER),
    "lines.short_hose": line("to-rail", start={"part": "first", "port": "out", "takes_mm": 190.0}),
    "lines.turns_back": line("to-rail", corners=[OVER[0] | {"x_mm": 1210}, OVER[0] | {"x_mm": 1210, "z_mm": 400}]),
    "lines.short_straight": line("to-rail", kind="tube", corners=[OVER[0], OVER[0] | {"y_mm": 220}]),
    "lines.springback": line("to-rail", kind="tube", corners=OVER),
    "lines.narrow": lambda: plumbed(replaced(PARTS, "first", connections=NARROW)),
    "lines.rating": line("supply", rated_kpa=900.0),
    "lines.unrated": line("supply", rated_kpa=None),
    "lines.reference": lambda: plumbed(runs=without(RUNS, "reference")),
    "lines.open": lambda: plumbed(replaced(PARTS, "regulator", connections=flares("in", "return", "out"))),
    "lines.port_open": lambda: plumbed(ports=[*PORTS, OTHER]),
    "lines.port_gone": lambda: plumbed(ports=[PORTS[0], PORTS[1] | {"capped": True}, PORTS[2]]),
    "lines.joint": line(
        "supply", end=end("filter", "in", standard="metric O-ring", size="M14 × 1.5", hand="female", seal="nitrile")
    ),
    "lines.unknown_joint": own("filter", connections=[]),
    "lines.tape": lambda: plumbed(replaced(PARTS, "filter", connections=[joint("in", sealant=True), joint("out")])),
    "lines.bead": lambda: plumbed(
        replaced(PARTS, "filter", connections=[joint("in", "8 mm", standard="plain tube"), joint("out")]),
        replaced(RUNS, "supply", bore_mm=8.0),
    ),
    "lines.loose": lambda: plumbed([*PARTS, SENSOR]),
    "lines.pushed": line("reference", start={"part": "regulator", "port": "reference", "pushed_mm": 15.0}),
    "lines.unstrained": lambda: plumbed(
        without(PARTS, "screen"),
        [*without(RUNS, "suction", "to-pump"), run("suction", "tank.draw", "pump.in", 14.3)],
        ports=[{name: value for name, value in PORTS[0].items() if name != "hanger"}, *PORTS[1:]],
    ),
    "lines.fine_before_pump": does("screen", fineness_um=10.0),
    "lines.unfiltered": lambda: plumbed(
        without(PARTS, "filter", "first"),
        [*without(RUNS, "supply", "between", "to-rail"), run("supply", "pump.out", "rail.in")],
    ),
    "lines.commissioning": does("first", stage="main"),
    "lines.no_check": lambda: plumbed(
        [*replaced(PARTS, "pump", does={"check_opens_kpa": None}), SECOND, TEE, SPLIT], TWO_PUMPS
    ),
    "lines.no_isolating": lambda: plumbed([*PARTS, SECOND, TEE, SPLIT], TWO_PUMPS),
    "lines.shut": lambda: plumbed(
        [
            *PARTS,
            SECOND
            | {"does": SECOND["does"] | {"curves": [curve((0, 200), (150, 0), volts=11.0), curve((0, 200), (150, 0))]}},
            TEE,
        ],
        TWO_LINES,
        ports=[*PORTS, OTHER],
    ),
    "lines.jet": lambda: plumbed([*PARTS, JET], JETTED, ports=[*PORTS, OTHER]),
    "lines.overflow": lambda: plumbed(
        [*PARTS, SURGE, LIFT], replaced(SURGED, "overflow", bore_mm=3.0, length_mm=3000.0)
    ),
    "lines.surge_empties": lambda: plumbed(
        [*PARTS, SURGE, LIFT | {"does": LIFT["does"] | {"curves": [curve((0, 60), (60, 30))]}}], SURGED
    ),
    "lines.surge_ports": lambda: plumbed(
        [*PARTS, SURGE | {"does": SURGE["does"] | {"outlet_is_lowest": False}}, LIFT], SURGED
    ),
    "lines.surge_return": lambda: plumbed(
        [*PARTS, SURGE, LIFT],
        [
            *without(SURGED, "return", "overflow"),
            run("return", "regulator.return", "tank.back"),
            run("over", "surge.overflow", "tank.other", 11.1),
        ],
        ports=[*PORTS, PORTS[1] | {"id": "other", "name": "other", "y_mm": 100}],
    ),
    "lines.sensor": lambda: plumbed(
        [*PARTS, SENSOR],
        [*without(RUNS, "supply"), run("to-sensor", "pump.out", "sensor.in"), run("supply", "sensor.out", "filter.in")],
    ),
    "lines.vent_end": lambda: plumbed(
        [*PARTS, VENT_END | {"does": {"kind": "canister"}}], [*RUNS, run("vent", "tank.vent", "end.in", 10.0)]
    ),
    "lines.vent_loop": lambda: plumbed(
        [*PARTS, VENT_END | {"z_mm": 260.0}],
        [*RUNS, run("vent", "tank.vent", "end.in", 10.0, corners=[{"x_mm": -100, "y_mm": 200, "z_mm": 150}])],
    ),
    "lines.vent_vacuum": lambda: plumbed(
        [
            *PARTS,
            VENT_END,
            part(
                "valve",
                "vapour valve",
                -100,
                z=350,
                joints=[joint(n, "10 mm", standard="hose tail") for n in ("in", "out")],
                opens_in_kpa=3.0,
            ),
        ],
        [*RUNS, run("vent", "tank.vent", "valve.in", 10.0), run("vent-2", "valve.out", "end.in", 10.0)],
    ),
    "lines.vent_differs": lambda: plumbed([*PARTS, VENT_END], [*RUNS, run("vent", "tank.vent", "end.in", 10.0)]),
    "lines.two_fuels": lambda: plumbed(shell=WALLED, fuels=AVGAS),
    "lines.rubber": line("return", hose="silicone hose"),
    "lines.metal": lambda: plumbed(replaced(PARTS, "filter", metal="5052-H32"), brief={"fuel": "methanol"}),
    "lines.element": lambda: plumbed(brief={"fuel": "E85"}),
    "lines.unnamed_fuel": own("pump", fuels=["diesel"]),
    "lines.part_rating": own("filter", rated_kpa=400.0),
    "lines.reference_long": line("reference", length_mm=2500.0),
    "lines.slow_swap": does("pump", minutes_to_replace=45.0),
    "lines.label": lambda: plumbed(shell=WALLED, fuels=AVGAS),
    "lines.spout": lambda: plumbed(shell=WALLED, fuels=AVGAS),
    "lines.approval": lambda: plumbed(approval="A-17"),
    "lines.needle": lambda: plumbed(
        [*without(PARTS, "regulator", "rail"), part("bowl", "carburettor", 1400, joints=flares("in"))],
        [*without(RUNS, "after", "return", "reference", "to-rail"), run("to-bowl", "first.out", "bowl.in")],
    ),
    "lines.reference_end": lambda: plumbed(
        runs=[*without(RUNS, "reference", "between"), run("reference", "regulator.reference", "filter.out", 6.0)]
    ),
}
"""What brings each finding up; without it none of them is there."""


class Found(TestCase):
    """One line that nothing is wrong with, and what is found where something is."""

    def test_nothing_is_found_where_nothing_is_wrong(self) -> None:
        """The line that all others differ from by one thing."""
        self.assertEqual(codes(plumbed()), set())

    def test_each_comes_up(self) -> None:
        """By the one thing that brings it."""
        for code, change in COMES_UP.items():
            with self.subTest(code):
                self.assertIn(code, codes(change()))

    def test_all_codes_are_there(self) -> None:
        """No rule can find what this table doesn't bring up."""
        rooms = Path(__file__).parents[1] / "stations" / "lines"
        texts = "".join(path.read_text() for path in rooms.glob("*rules.py"))
        said = {word.split('"')[0] for word in texts.split('"lines.')[1:] if ":" not in word.split('"')[0]}
        self.assertEqual(
            {f"lines.{name}" for name in said} - set(COMES_UP) - WAYS, {"lines.unsettled", "lines.vent_near"}
        )

    def test_a_surge_tank_is_open_by_its_overflow_only(self) -> None:
        """Joined, a pump's dead-head doesn't stand in it; capped, it does."""
        surge = SURGE | {"rated_kpa": 50.0}
        parts = [*PARTS, surge, LIFT]
        self.assertNotIn("lines.part_rating", codes(plumbed(parts, SURGED)))
        shut = [one | {"capped": one["id"] == "overflow"} for one in surge["connections"]]
        capped = replaced(parts, "surge", connections=shut)
        self.assertIn("lines.part_rating", codes(plumbed(capped, without(SURGED, "overflow"))))

    def test_a_mode_on_a_fuel_that_a_rail_is_not_for(self) -> None:
        """The brief's fuel is right, the mode's isn't."""
        petrol = replaced(PARTS, "rail", fuels=["petrol E10"])
        mode = {"id": "m", "name": "m", "draw_l_per_h": 60.0}
        self.assertNotIn("lines.wrong_fuel", codes(plumbed(petrol, modes=[mode])))
        self.assertIn("lines.wrong_fuel", codes(plumbed(petrol, modes=[mode | {"fuel": "E85"}])))

    def test_what_puts_it_right(self) -> None:
        """Remedies settle what they are offered for."""
        offered = {
            "lines.joint", "lines.open", "lines.port_open", "lines.reference", "lines.fast", "lines.injectors",
            "lines.no_check", "lines.tape", "lines.vent_differs",
        }  # fmt: skip
        for code in sorted(offered):
            with self.subTest(code):
                design = COMES_UP[code]()
                found = next(one for one in judged(design, remedies=True).findings if one.code == code)
                self.assertTrue(found.remedies, found.title.plain())
                for remedy in found.remedies:
                    after = apply(design, remedy.patch)
                    keys = {one.key for one in judged(after).findings}
                    self.assertNotIn(found.key, keys, remedy.label.plain())

    def test_a_vent_beside_people_and_heat(self) -> None:
        """It depends on the vehicle: beside the driver it is a stop, farther off it isn't."""
        driver = {"id": "driver", "name": "driver", "kind": "person", "x_mm": -500.0, "y_mm": 0.0, "z_mm": 0.0}
        vehicle = {"id": "buggy", "name": "Buggy", "parts": [driver]}
        shop = Workshop.model_validate({"vehicles": [vehicle]}, strict=False)
        for x, near in ((-300.0, True), (700.0, False)):
            design = plumbed([*PARTS, VENT_END | {"x_mm": x}], [*RUNS, run("vent", "tank.vent", "end.in", 10.0)])
            placed = design.model_copy(update={"mount": design.mount.model_copy(update={"vehicle": "buggy"})})
            found = {one.code for one in evaluate(placed, shop, showing=Showing(remedies=False)).findings}
            self.assertEqual("lines.vent_near" in found, near, x)

    def test_a_failure_is_shown_and_not_asked_to_suffice(self) -> None:
        """A mode in which a pump is dead is no stop."""
        dead: Item = {"id": "dead", "name": "Pump dead", "still": ["pump"]}
        self.assertIn("lines.unfed", codes(plumbed(modes=[dead])))
        self.assertEqual(codes(plumbed(modes=[dead | {"failure": True}])), set())


class OldToNew(TestCase):
    """An old line is as good a partner as a new one."""

    def test_it_answers_for_its_connection(self) -> None:
        """A connection and a port of the tank that an old line goes on at are open no more; its fate is told."""
        runs = without(RUNS, "return")
        kept = [
            {"id": "a", "name": "old return", "fate": "keep", "to": "regulator.return"},
            {"id": "b", "name": "old pipe", "fate": "move", "to": "tank.back"},
            {"id": "c", "name": "old vent", "fate": "cap", "closed_by": "plug"},
            {"id": "d", "name": "old wire", "kind": "wire", "fate": "remove"},
        ]
        bare, mapped = codes(plumbed(runs=runs)), codes(plumbed(runs=runs, old=kept))
        self.assertLessEqual({"lines.open", "lines.port_open"}, bare)
        self.assertFalse({code for code in mapped if code.startswith(("lines.open", "lines.port", "lines.old"))})
        told = analysed(plumbed(runs=runs, old=kept))[OLD_MAP]
        self.assertEqual([one.goes_to for one in told.things], ["return of regulator", "back of the tank", "plug", ""])
        self.assertEqual(told.open, 0)


class Refused(TestCase):
    """What no line can be."""

    def refused(self, field: str, words: str, **lines: Any) -> None:
        """A document that isn't read, by a fault that names field and reason."""
        whole: Item = {"parts": PARTS, "runs": RUNS} | lines
        document = {"shell": {"length_mm": 600, "width_mm": 400, "height_mm": 300}, "ports": PORTS, "lines": whole}
        with self.assertRaises(UnreadableDesignError) as caught:
            read_design(json.dumps(document))
        faults = caught.exception.faults
        self.assertIn(field, [fault.field for fault in faults])
        self.assertIn(words, " ".join(fault.message for fault in faults))

    def test_by_field_and_reason(self) -> None:
        """A port used twice, a part that isn't there, no bore, a curve that rises, sizes that no standard has."""
        twice = [*RUNS, run("again", "pump.out", "rail.out")]
        self.refused("lines.runs.8.start.port", "both joined to 'out' of pump", runs=twice)
        self.refused("lines.runs.8.end.part", "isn't there", runs=[*RUNS, run("again", "regulator.out", "ghost.in")])
        self.refused(
            "lines.runs.8.end.port", "has no connection 'z'", runs=[*RUNS, run("x", "regulator.out", "rail.z")]
        )
        self.refused("lines.runs.0.bore_mm", "above 0", runs=replaced(RUNS, "suction", bore_mm=0.0))
        rising = replaced(PARTS, "pump", does={"curves": [curve((0, 100), (100, 120))]})
        self.refused("lines.parts.1.does.pump.curves.0.points.1.l_per_h", "falls as the pressure rises", parts=rising)
        odd = replaced(PARTS, "filter", connections=[joint("in", "-7")])
        self.refused("lines.parts.2.connections.0.size", "37° flare has no size '-7'", parts=odd)
        self.refused("lines.parts.1.id", "is taken", parts=[SCREEN, SCREEN, FILTER])
        self.refused(
            "lines.parts.0.connections.1.id", "is there twice", parts=[SCREEN | {"connections": flares("in", "in")}]
        )
        falling = [{"l_per_h": 0, "kpa": 5}, {"l_per_h": 10, "kpa": 4}]
        self.refused(
            "lines.parts.5.does.regulator.rises.1",
            "must not fall",
            parts=replaced(PARTS, "regulator", does={"rises": falling}),
        )
