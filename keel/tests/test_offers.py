"""What is offered for a finding, field by field: places, sizes and sheets against sums by hand."""

import json
from math import ceil, pi, sqrt
from typing import Any
from unittest import TestCase

from keel.design.workshop import Workshop
from keel.evaluation import evaluate
from keel.findings.finding import Remedy
from keel.formats.document import read_design
from keel.reference.metals import METALS

BOX = {"length_mm": 800.0, "width_mm": 400.0, "height_mm": 350.0, "thickness_mm": 3.0, "bend_radius_mm": 6.0}
PICKUP = {"id": "p", "name": "pickup", "role": "pickup", "x_mm": 400, "y_mm": 200}
VENT = {"id": "v", "name": "vent", "role": "vent", "x_mm": 395, "y_mm": 200, "vent": {"bore_mm": 3, "rollover": True}}
FILLER = {"id": "f", "name": "filler", "role": "filler", "x_mm": 700, "y_mm": 300, "neck": {"bonded": True}}


def well(**more: Any) -> dict[str, Any]:
    """A well of 100 by 80 mm in the roof."""
    place = {"a_mm": 30, "b_mm": 200, "long_mm": 100, "wide_mm": 80, "deep_mm": 40}
    return {"kind": "well", "id": "w", "name": "well"} | place | more


def offers(code: str, shop: dict[str, Any] | None = None, **parts: Any) -> dict[str, Remedy]:
    """What is offered for a finding of a box, by its words; the finding has to be there."""
    document = {"shell": BOX} | parts
    seen = evaluate(read_design(json.dumps(document)), Workshop.model_validate(shop or {}))
    finding = next((f for f in seen.findings if f.code == code), None)
    assert finding is not None, f"{code} among {[f.code for f in seen.findings]}"
    return {remedy.label.plain(): remedy for remedy in finding.remedies}


def feature(remedy: Remedy, name: str = "w") -> dict[str, Any]:
    """A feature as a remedy leaves it."""
    features: list[dict[str, Any]] = remedy.patch["shell"]["features"]  # type: ignore[index,assignment,call-overload]
    return next(f for f in features if f["id"] == name)


def the_port(remedy: Remedy, name: str) -> dict[str, Any]:
    """A port as a remedy leaves it."""
    ports: list[dict[str, Any]] = remedy.patch["ports"]  # type: ignore[assignment]
    return next(p for p in ports if p["id"] == name)


class Wells(TestCase):
    """Recesses in the roof."""

    def of_well(self, code: str, **more: Any) -> dict[str, Remedy]:
        """Offers for the well."""
        return offers(code, shell=BOX | {"features": [well(**more)]})

    def test_to_the_two_nearest_edges(self) -> None:
        """30 mm from the rear and 120 from the left: those two, and a drain where it stands."""
        found = self.of_well("well.holds_water")
        rear, left = found["Move well 30 mm to the rear edge"], found["Move well 120 mm to the left edge"]
        self.assertEqual((feature(rear)["a_mm"], feature(rear)["b_mm"]), (0, 200))
        self.assertEqual((feature(left)["a_mm"], feature(left)["b_mm"]), (30, 320))
        drained = found["Lead a drain tube out of it"]
        self.assertTrue(feature(drained)["drain"])
        self.assertEqual(len(found), 3)

    def test_from_the_far_edges(self) -> None:
        """Near the front and the right: 20 and 50 mm."""
        found = self.of_well("well.holds_water", a_mm=680, b_mm=50)
        self.assertEqual(feature(found["Move well 20 mm to the front edge"])["a_mm"], 700)
        self.assertEqual(feature(found["Move well 50 mm to the right edge"])["b_mm"], 0)

    def test_a_round_one_is_only_drained(self) -> None:
        """A circle meets an edge in a point."""
        found = self.of_well("well.holds_water", form="round")
        self.assertEqual(list(found), ["Lead a drain tube out of it"])

    def test_a_strip_too_narrow(self) -> None:
        """5 mm of it: to the edge, or the 12 of the house rule; at the far side measured from there."""
        for field, near, edge, gone, strip in (
            ("a_mm", 5, "rear", 0, 12),
            ("b_mm", 5, "right", 0, 12),
            ("a_mm", 695, "front", 700, 688),
            ("b_mm", 315, "left", 320, 308),
        ):
            found = self.of_well("land.narrow", drain=True, **{field: near})
            self.assertEqual(feature(found["Leave a strip of 12 mm"])[field], strip)
            self.assertEqual(feature(found[f"Take well to the {edge} edge"])[field], gone)

    def test_a_sump_too(self) -> None:
        """In the floor it is the same; by a shop whose strips are wider."""
        sump = well(kind="sump", id="w", a_mm=10)
        found = offers("land.narrow", {"rules": {"land_mm": 20}}, shell=BOX | {"features": [sump]})
        self.assertEqual(feature(found["Leave a strip of 20 mm"])["a_mm"], 20)

    def test_a_gap_that_no_torch_reaches(self) -> None:
        """Between its wall and the tank's, 8 mm less the sheet: to the wall, where there is none."""
        found = self.of_well("sliver", drain=True, a_mm=8)
        self.assertEqual(feature(found["Take well to the rear edge"])["a_mm"], 0)
        self.assertFalse([words for words in found if "front" in words or "left" in words])


class Fuel(TestCase):
    """Pickups and vents where they belong."""

    tunnel = {"kind": "relief", "id": "r", "name": "tunnel", "x_mm": 350, "y_mm": -1, "z_mm": -1}
    tunnel |= {"length_mm": 100, "width_mm": 402, "height_mm": 150}

    def test_a_second_pickup_in_the_other_half(self) -> None:
        """A tunnel parts the floor: what the pickup doesn't drain wants one of its own, just off its floor."""
        found = offers("fuel.unreached", shell=BOX | {"features": [self.tunnel]}, ports=[PICKUP | {"x_mm": 100}])
        words = next(each for each in found if each.startswith("A second pickup"))
        ports: list[dict[str, Any]] = found[words].patch["ports"]  # type: ignore[assignment]
        self.assertEqual(len(ports), 2)
        second = next(p for p in ports if p["id"] != "p")
        self.assertEqual((second["role"], second["name"]), ("pickup", "second pickup"))
        self.assertGreater(second["x_mm"], 450)
        self.assertNotEqual(second["id"], "p")

    def test_a_vent_to_the_top(self) -> None:
        """Let in by a foot it traps air over it; at the highest place it doesn't."""
        found = offers("air.trapped", ports=[PICKUP, VENT | {"z_mm": 250}, FILLER])
        moved = the_port(found["Open vent at the highest place"], "v")
        self.assertTrue(moved["z_mm"] is None or moved["z_mm"] >= 344)

    def test_larger_vents(self) -> None:
        """The next two sizes that vents come in, and the one for the time that is wanted."""
        shop = {"rules": {"back_pressure_kpa": 0.5}}
        found = offers("fill.back_pressure", shop, ports=[PICKUP, VENT, FILLER])
        bores = [the_port(remedy, "v")["vent"]["bore_mm"] for remedy in found.values()]
        self.assertTrue(set(bores) <= {4.0, 5.0}, bores)
        for words, remedy in found.items():
            self.assertIn(f"{the_port(remedy, 'v')['vent']['bore_mm']:g} mm bore", words)
            self.assertTrue(the_port(remedy, "v")["vent"]["rollover"], "the rest of it stays")

    def test_a_drain_to_the_lowest_place(self) -> None:
        """In the sump's floor, wherever that is."""
        sump = well(kind="sump", id="s", a_mm=200, b_mm=100, deep_mm=50)
        drain = {"id": "d", "name": "drain", "role": "drain", "face": "floor", "x_mm": 600, "y_mm": 200}
        found = offers("drain.high", shell=BOX | {"features": [sump]}, ports=[PICKUP, drain])
        moved = the_port(found["Move drain to the lowest place"], "d")
        self.assertTrue(200 < moved["x_mm"] < 300 and 100 < moved["y_mm"] < 180, moved)
        self.assertEqual(moved["face"], "floor")


class Hangers(TestCase):
    """Modules that are too short or too long."""

    def module(self, made_for: float, **more: Any) -> dict[str, Any]:
        """A module in the roof, on a seat of 120 mm."""
        seat = {"hole_mm": 80, "outer_mm": 120}
        hanger = {"made_for_mm": made_for, "kind": "module"}
        return PICKUP | {"name": "module", "seat": seat, "hanger": hanger, "hangs_mm": made_for} | more

    def well_for(self, x: float, y: float) -> tuple[dict[str, Any], dict[str, Remedy]]:
        """The well that is offered round a module that is too short."""
        found = offers("reach.short", ports=[self.module(250, x_mm=x, y_mm=y)])
        words = next(each for each in found if each.startswith("A well "))
        features: list[dict[str, Any]] = found[words].patch["shell"]["features"]  # type: ignore
        self.assertEqual(len(features), 1)
        return features[0], found

    def test_a_well_with_room_for_fingers(self) -> None:
        """60 mm of flange and 30 for fingers either way; in the middle it wants a drain."""
        cut, _ = self.well_for(400, 200)
        self.assertEqual((cut["a_mm"], cut["long_mm"], cut["b_mm"], cut["wide_mm"]), (310, 180, 110, 180))
        self.assertTrue(cut["drain"])

    def test_run_out_to_an_edge(self) -> None:
        """Nearer to an edge than it is wide it is run out to that one, and to one only, and sheds water by itself."""
        for x, y, span in (
            (150, 200, ((0, 240), (110, 290))),
            (700, 200, ((610, 800), (110, 290))),
            (400, 120, ((310, 490), (0, 210))),
            (400, 300, ((310, 490), (210, 400))),
        ):
            cut, _ = self.well_for(x, y)
            self.assertEqual((cut["a_mm"], cut["a_mm"] + cut["long_mm"]), span[0])
            self.assertEqual((cut["b_mm"], cut["b_mm"] + cut["wide_mm"]), span[1])
            self.assertFalse(cut["drain"])

    def test_as_deep_as_it_is_short(self) -> None:
        """All ways out make up the same length: a well, a longer hanger, a shallower tank."""
        cut, found = self.well_for(400, 200)
        longer = next(remedy for words, remedy in found.items() if words.startswith("Lengthen module"))
        self.assertEqual(the_port(longer, "p")["hanger"]["extend_mm"], cut["deep_mm"])
        lower = next(remedy for words, remedy in found.items() if words.startswith("Make the tank"))
        self.assertEqual(lower.patch["shell"]["height_mm"], 350 - cut["deep_mm"])  # type: ignore[index,call-overload]
        remote = next(remedy for words, remedy in found.items() if words.startswith("Draw through a hose"))
        self.assertTrue(the_port(remote, "p")["hanger"]["remote"])
        self.assertAlmostEqual(cut["deep_mm"], 344 + 3 - 250, delta=12)

    def test_a_ring_under_what_is_too_long(self) -> None:
        """Up to 30 mm; beyond that only a deeper tank helps."""

        def bulky(pump: float) -> dict[str, Any]:
            parts = {"made_for_mm": 477.0, "bracket_mm": 70.0, "pump_mm": pump, "strainer_mm": 30.0}
            return self.module(477, hanger=parts)

        high = offers("reach.long", ports=[bulky(305)])
        ring = next(remedy for words, remedy in high.items() if words.startswith("Stand module on a ring"))
        deeper = next(remedy for words, remedy in high.items() if words.startswith("Make the tank"))
        over = deeper.patch["shell"]["height_mm"] - 350  # type: ignore[index,call-overload,operator]
        self.assertEqual(the_port(ring, "p")["seat"]["plate_mm"], over)
        self.assertTrue(0 < over <= 30)
        far = offers("reach.long", ports=[bulky(335)])
        self.assertFalse([words for words in far if "ring" in words])


class Machines(TestCase):
    """What the shop can bend and cut."""

    def test_the_thickest_that_the_brake_bends(self) -> None:
        """As thick as steel by the root of the yields, of what is in stock."""
        for metal in ("stainless 304L", "6061-T6", "5052-H32"):
            most = 1.5 * sqrt(METALS["mild steel"].yield_mpa / METALS[metal].yield_mpa)  # type: ignore[index]
            gauges = (0.8, 1.0, 1.2, 1.5, 2.0, 3.0)
            size = {"length_mm": 2500, "width_mm": 1250, "metal": metal}
            stock = [size | {"thickness_mm": gauge} for gauge in gauges]
            shop = {"brake": {"thickest_steel_mm": 1.5}, "stock": stock}
            found = offers("brake.thick", shop, shell=BOX | {"metal": metal, "ends_thickness_mm": 4.0})
            (remedy,) = found.values()
            fits = max(gauge for gauge in gauges if gauge <= most)
            self.assertEqual(remedy.patch["shell"], {"thickness_mm": fits, "ends_thickness_mm": fits}, metal)

    def test_a_brake_too_narrow(self) -> None:
        """As much shorter as its overall length is over the brake."""
        found = offers("brake.width", {"brake": {"width_mm": 700}})
        shorter = next(remedy for words, remedy in found.items() if "shorter" in words)
        lips = 2 * (20 - 3)
        self.assertEqual(shorter.patch["shell"]["length_mm"], 700 - lips)  # type: ignore[index,call-overload]

    def test_a_box_too_small_to_close(self) -> None:
        """As much higher or wider as it lacks inside."""
        found = offers("brake.closed_box", {"brake": {"smallest_closed_box_mm": 360}})
        taller = next(remedy for words, remedy in found.items() if "taller" in words)
        self.assertEqual(taller.patch["shell"]["height_mm"], 366)  # type: ignore[index,call-overload]


class Openings(TestCase):
    """The way into the bay."""

    def test_smaller_by_what_it_lacks(self) -> None:
        """330 wide where 400 have to pass: every way offered is a smaller tank."""
        bay = {"length_mm": 900, "width_mm": 500, "height_mm": 500}
        opening = {"side": "roof", "a_mm": 0, "b_mm": 0, "long_mm": 870, "wide_mm": 330}
        found = offers(
            "opening.short", bay=bay | {"opening": opening}, shell=BOX | {"x_mm": 30, "y_mm": 50, "z_mm": 20}
        )
        for words, remedy in found.items():
            (field, size), *_ = remedy.patch["shell"].items()  # type: ignore[union-attr]
            self.assertLess(size, BOX[field], words)  # type: ignore[index]
        self.assertTrue(found)


class Neighbours(TestCase):
    """A tank too near to what shares its bay."""

    bay = {"length_mm": 1000.0, "width_mm": 600.0, "height_mm": 500.0}
    placed = {"x_mm": 100.0, "y_mm": 100.0, "z_mm": 80.0}

    def beside(self, keep_out: dict[str, Any], *ports: dict[str, Any], **shell: Any) -> dict[str, Remedy]:
        """Offers where a keep-out stands too near; hard metal wants 10 mm."""
        one = {"kind": "box", "id": "k", "name": "rail", "length_mm": 100, "width_mm": 20, "height_mm": 100} | keep_out
        bay = self.bay | {"keep_outs": [one]}
        return offers("bay.clearance", bay=bay, ports=list(ports), shell=BOX | self.placed | shell)

    def test_to_the_left_and_to_the_right_of_it(self) -> None:
        """4 mm off its left side: 6 mm to the right, or so much narrower; off its right side the other way round."""
        left = self.beside({"x_mm": 400, "y_mm": 504, "z_mm": 150})
        self.assertEqual(left["Move the tank 6 mm away from there"].patch, {"shell": {"y_mm": 94}})
        self.assertEqual(left["Make it 6 mm narrower on that side"].patch, {"shell": {"width_mm": 394}})
        right = self.beside({"x_mm": 400, "y_mm": 76, "z_mm": 150})
        self.assertEqual(right["Move the tank 6 mm away from there"].patch, {"shell": {"y_mm": 106}})
        self.assertEqual(right["Make it 6 mm narrower on that side"].patch, {"shell": {"width_mm": 394, "y_mm": 106}})

    def test_before_behind_above_and_below(self) -> None:
        """Each along its own axis, lips counted: so much shorter, so much lower."""
        lip = 17
        front = self.beside({"x_mm": 900 + lip + 2, "y_mm": 200, "z_mm": 150, "length_mm": 20})
        self.assertEqual(front["Make it 8 mm shorter on that side"].patch, {"shell": {"length_mm": 792}})
        rear = self.beside({"x_mm": 100 - lip - 2 - 20, "y_mm": 200, "z_mm": 150, "length_mm": 20})
        self.assertEqual(rear["Make it 8 mm shorter on that side"].patch, {"shell": {"length_mm": 792, "x_mm": 108}})
        above = self.beside({"x_mm": 400, "y_mm": 200, "z_mm": 433})
        self.assertEqual(above["Make it 7 mm lower on that side"].patch, {"shell": {"height_mm": 343}})
        below = self.beside({"x_mm": 400, "y_mm": 200, "z_mm": 40, "height_mm": 37})
        self.assertEqual(below["Make it 7 mm lower on that side"].patch, {"shell": {"height_mm": 343, "z_mm": 87}})

    def test_into_it(self) -> None:
        """What it stands in has to be left by as much, and its clearance more."""
        found = self.beside({"x_mm": 400, "y_mm": 490, "z_mm": 150})
        self.assertIn("Move the tank 20 mm away from there", found)

    def test_a_valve_under_the_roof(self) -> None:
        """What stands on the lid alone is too high: a lower one, or the tank moved down."""
        vent = VENT | {"stands_mm": 60, "across_mm": 40}
        found = self.beside({"x_mm": 350, "y_mm": 250, "z_mm": 495, "width_mm": 100}, vent)
        (words,) = [each for each in found if each.startswith("vent ") and each.endswith("shorter")]
        self.assertEqual(the_port(found[words], "v")["stands_mm"], 55)
        self.assertEqual(found["Move the tank 5 mm away from there"].patch, {"shell": {"z_mm": 75}})

    def test_a_valve_beside_a_rail(self) -> None:
        """It alone is moved aside, not the tank; never off the tank."""
        vent = VENT | {"stands_mm": 50, "across_mm": 40, "x_mm": 770, "z_mm": None}
        found = self.beside({"x_mm": 895, "y_mm": 200, "z_mm": 440, "width_mm": 200}, vent)
        words = next(each for each in found if each.startswith("Move vent"))
        self.assertEqual(the_port(found[words], "v")["x_mm"], 770 - 5)

    def test_a_cylinder_beside_it(self) -> None:
        """It is drawn in across by its diameter."""
        cylinder = {"kind": "cylinder", "axis": "x", "diameter_mm": 300.0, "run_mm": 700.0, "thickness_mm": 3.0}
        one = {"kind": "box", "id": "k", "name": "rail", "length_mm": 700, "width_mm": 20, "height_mm": 400}
        bay = self.bay | {"keep_outs": [one | {"x_mm": 100, "y_mm": 404, "z_mm": 10}]}
        found = offers("bay.clearance", bay=bay, shell=cylinder | self.placed)
        self.assertIn("Make it 6 mm smaller across on that side", found)


class Stock(TestCase):
    """Parts and the sheets they are cut from."""

    step = [(0, 0), (480, 0), (480, 140), (900, 140), (900, 380), (0, 380)]

    def sheet(self, length: float, width: float, thickness: float = 3.0) -> dict[str, Any]:
        """A shop with one size of sheet."""
        size = {"length_mm": length, "width_mm": width, "metal": "5052-H32", "thickness_mm": thickness}
        return {"stock": [size]}

    def test_a_wrapper_too_long(self) -> None:
        """What it is too long by goes off the section, half from either pair of sides."""
        found = offers("stock.size", self.sheet(1400, 1250))
        wrapper = 2 * (400 + 350) - 4 * (2 * 9 - pi / 2 * (6 + 0.4 * 3))
        less = ceil((wrapper - 1400) / 2)
        self.assertEqual(found[f"{less} mm narrower"].patch["shell"]["width_mm"], 400 - less)  # type: ignore
        self.assertEqual(found[f"{less} mm lower"].patch["shell"]["height_mm"], 350 - less)  # type: ignore
        self.assertEqual(len(found), 2, "wrapped the other way it is longer still")

    def test_in_two_pieces(self) -> None:
        """Corners that part the outline in halves: of a step those after 1320 of 2560 mm."""
        corners = [{"across_mm": a, "up_mm": u} for a, u in self.step]
        shell = {"kind": "profile", "corners": corners, "run_mm": 500.0, "thickness_mm": 3.0, "bend_radius_mm": 6.0}
        found = offers("stock.size", self.sheet(2000, 1250), shell=shell | {"wrap_axis": "y"})
        words = next(each for each in found if "two pieces" in each)
        joints = [c["joint"] for c in found[words].patch["shell"]["corners"]]  # type: ignore
        self.assertEqual(joints.count("weld"), 2)
        first, second = (n for n, joint in enumerate(joints) if joint == "weld")
        sides = [480, 140, 420, 240, 900, 380]
        half = sum(sides[first:second])
        best = min(abs(sum(sides[a:b]) - sum(sides) / 2) for a in range(6) for b in range(a + 1, 6))
        self.assertAlmostEqual(abs(half - sum(sides) / 2), best, delta=25)

    def test_a_thickness_that_is_not_there(self) -> None:
        """The next one up that is."""
        found = offers("stock.none", self.sheet(3000, 1500, 4.0))
        remedy = next(iter(found.values()))
        self.assertEqual(remedy.patch["shell"]["thickness_mm"], 4.0)  # type: ignore[index,call-overload]


class Hazards(TestCase):
    """What can hurt somebody, put right."""

    def of_ports(self, code: str, *ports: dict[str, Any], **parts: Any) -> dict[str, Remedy]:
        """Offers of a tank with ports."""
        return offers(code, ports=list(ports), **parts)

    def test_a_wall_between_two_fuels(self) -> None:
        """Across the middle of the longer side, whichever that is; a port of each kind in either cell."""
        cases = [
            {"id": "a", "name": "a", "engine": "petrol, naturally aspirated", "fuel": "petrol E10"},
            {"id": "b", "name": "b", "engine": "diesel", "fuel": "diesel"},
        ]
        for size, axis in (({}, "x"), ({"length_mm": 300.0}, "y")):
            found = self.of_ports("fuels.one_cell", PICKUP | {"x_mm": 100}, shell=BOX | size, brief={"cases": cases})
            remedy = found["A partition across the middle"]
            features: list[dict[str, Any]] = remedy.patch["shell"]["features"]  # type: ignore
            wall = features[-1]
            self.assertEqual((wall["kind"], wall["axis"]), ("partition", axis))
            self.assertEqual(wall["at_mm"], 400 if axis == "x" else 200)

    def test_straps_valves_and_caps(self) -> None:
        """Each sets the one thing and leaves the rest of the port as it is."""
        plain = VENT | {"vent": {"bore_mm": 12}}
        valve = self.of_ports("vent.rollover", PICKUP, plain, FILLER)["A roll-over valve in vent"]
        self.assertEqual(
            (the_port(valve, "v")["vent"]["rollover"], the_port(valve, "v")["vent"]["bore_mm"]), (True, 12)
        )
        loose = FILLER | {"neck": {"bonded": False, "bore_mm": 50}}
        strap = self.of_ports("filler.unbonded", PICKUP, VENT, loose)["A bonding strap from filler to the chassis"]
        self.assertEqual((the_port(strap, "f")["neck"]["bonded"], the_port(strap, "f")["neck"]["bore_mm"]), (True, 50))
        blind = self.of_ports("port.blind", PICKUP, VENT | {"capped": True}, FILLER)
        self.assertFalse(the_port(blind["Open vent"], "v")["capped"])
        self.assertEqual(the_port(blind["Make vent a spare"], "v")["role"], "spare")
