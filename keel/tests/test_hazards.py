"""Dangers: each raises its finding, and what is offered for it settles it when it is tried."""

import json
from typing import Any
from unittest import TestCase

from keel.analysis.showing import Showing
from keel.design.document import Design
from keel.design.workshop import Workshop
from keel.evaluation import Evaluation, evaluate
from keel.findings.finding import Finding
from keel.findings.patch import apply
from keel.formats.document import read_design
from keel.studies.demand.surge_tank import surge_tank

BOX: dict[str, Any] = {"kind": "box", "length_mm": 600, "width_mm": 400, "height_mm": 300, "thickness_mm": 4}
BOX |= {"bend_radius_mm": 6}
WALL = {"kind": "partition", "id": "w", "name": "wall", "at_mm": 300, "thickness_mm": 4}


def port(role: str, name: str = "", x: float = 300, y: float = 200, **more: Any) -> dict[str, Any]:
    """A port in the roof."""
    return {"id": name or role, "name": name or role, "role": role, "x_mm": x, "y_mm": y} | more


VENT = port("vent", vent={"rollover": True})
FILLER = port("filler", x=200, neck={"bonded": True})
PICKUP = port("pickup", x=400)
WHOLE = [PICKUP, VENT, FILLER]


def tank(*ports: dict[str, Any], shell: dict[str, Any] | None = None, **more: Any) -> Design:
    """A box with those ports."""
    return read_design(json.dumps({"shell": BOX | (shell or {}), "ports": ports} | more))


def seen(subject: Design, remedies: bool = False) -> Evaluation:
    """The design worked out."""
    return evaluate(subject, None, Showing(remedies=remedies))


def codes(subject: Design) -> set[str]:
    """What is found."""
    return {finding.code for finding in seen(subject).findings}


class Dangers(TestCase):
    """What used to raise nothing."""

    def settled(
        self, subject: Design, code: str, severity: str, offered: int = 1, shop: Workshop | None = None
    ) -> Finding:
        """The finding, of a severity, with so many remedies or more, each of which takes it away."""
        finding = next((f for f in evaluate(subject, shop).findings if f.code == code), None)
        assert finding is not None, code
        self.assertEqual(finding.severity, severity)
        self.assertGreaterEqual(len(finding.remedies), offered, code)
        for remedy in finding.remedies:
            after = {f.key for f in seen(apply(subject, remedy.patch)).findings}
            self.assertNotIn(finding.key, after, remedy.label.plain())
        return finding

    def test_a_whole_tank_is_quiet(self) -> None:
        """And so is one whose ports haven't been begun."""
        loud = {"cell.no_vent", "cell.no_pickup", "cell.no_filler", "vent.rollover", "filler.unbonded", "transfer.idle"}
        self.assertFalse(loud & codes(tank(*WHOLE)))
        self.assertFalse(loud & codes(tank()))

    def test_a_cell_lacks_something(self) -> None:
        """Vent, filler, pickup: of the one tank, or of the second cell, whose litres then say why none is usable."""
        for lacking in WHOLE:
            self.settled(tank(*(p for p in WHOLE if p is not lacking)), f"cell.no_{lacking['role']}", "stop")
        halved = tank(*(p | {"x_mm": 150} for p in WHOLE), shell={"features": [WALL]})
        self.assertLessEqual({"cell.no_vent", "cell.no_pickup", "cell.no_filler"}, codes(halved))
        capacity = seen(halved).shell.capacity
        assert capacity is not None and capacity.why_none is not None
        self.assertIsNone(capacity.usable_l)
        self.assertIn("front cell", capacity.why_none.plain())

    def test_closed_blind(self) -> None:
        """What is capped is no pickup, vent or filler, in the figures neither."""
        for role in ("pickup", "vent", "filler"):
            subject = tank(*(p | {"capped": p["role"] == role} for p in WHOLE))
            self.assertIn(f"cell.no_{role}", codes(subject))
            self.settled(subject, "port.blind", "note", 2)
        blind = seen(tank(PICKUP | {"capped": True}, VENT, FILLER))
        assert blind.shell.figures is not None
        self.assertIsNone(blind.shell.figures.usable_l)
        self.assertIsNone(
            seen(tank(PICKUP, VENT | {"capped": True}, FILLER | {"capped": True})).shell.drained[0].trapped_l
        )

    def test_valve_and_strap(self) -> None:
        """No roll-over valve; a filler that isn't bonded, or of which nobody said."""
        self.settled(tank(PICKUP, port("vent"), FILLER), "vent.rollover", "caution")
        self.settled(tank(PICKUP, VENT, port("filler", neck={"bonded": False})), "filler.unbonded", "stop")
        self.settled(tank(PICKUP, VENT, port("filler")), "filler.bonding_open", "note")

    def test_remedies_carry_their_work(self) -> None:
        """A valve 20 min and 24 + 20 min at 38 an hour; a vent's hole 35 min more; nothing where one isn't typed."""
        typed = {"hours_per_m": 0.5, "per_hour": 38.0, "minutes_per_fitting": 20.0, "per_fitting": 24.0}
        prices = typed | {"weld_per_m": 40.0, "metal_per_kg": {"5052-H32": 7.0}, "minutes_per_port": 35.0}
        lacks = (tank(PICKUP, port("vent"), FILLER), "vent.rollover"), (tank(PICKUP, FILLER), "cell.no_vent")
        for (subject, code), minutes in zip(lacks, (20, 55), strict=True):
            for left_out in (None, "minutes_per_fitting", "per_fitting"):
                shop = Workshop.model_validate({"prices": {k: v for k, v in prices.items() if k != left_out}})
                finding = next(f for f in evaluate(subject, shop).findings if f.code == code)
                change = finding.remedies[0].change
                assert change is not None
                self.assertEqual(change.minutes, None if left_out == "minutes_per_fitting" else minutes)
                if left_out is None:
                    self.assertAlmostEqual(change.money or 0, 24 + minutes * 38 / 60)
                else:
                    self.assertIsNone(change.money)

    def test_a_vent_under_fuel_on_a_slope(self) -> None:
        """At the front edge it is under with the nose down; a second one at the rear end settles it."""
        subject = tank(PICKUP, VENT | {"x_mm": 590}, FILLER)
        finding = self.settled(subject, "vent.under", "caution")
        self.assertIn("nose down", finding.title.plain())
        self.assertNotIn("nose up", finding.title.plain())

    def test_a_transfer_that_nothing_drives(self) -> None:
        """It adds nothing to usable litres until a return or a pump drives it."""
        lobe = port("transfer", x=100, z_mm=9)
        plate = {"kind": "relief", "id": "r", "name": "tunnel", "x_mm": 200, "y_mm": -10, "z_mm": -10}
        tunnel = plate | {"length_mm": 150, "width_mm": 420, "height_mm": 160}
        subject = tank(*WHOLE, lobe, shell={"features": [tunnel]})
        self.settled(subject, "transfer.idle", "stop", 2)
        without, driven = (
            tank(*WHOLE, shell={"features": [tunnel]}),
            tank(*WHOLE, lobe | {"pumped": True}, shell={"features": [tunnel]}),
        )
        idle, none, moved = (seen(d).shell.figures for d in (subject, without, driven))
        assert idle and none and moved and idle.usable_l and none.usable_l and moved.usable_l
        self.assertAlmostEqual(idle.usable_l, none.usable_l)
        self.assertGreater(moved.usable_l, none.usable_l + 5)

    def test_fuel_against_what_it_meets(self) -> None:
        """Pump, engine, sender, seal, hose, metal, lining."""
        curve = {"voltage_v": 13.5, "points": [{"kpa": 0, "l_per_h": 200}, {"kpa": 400, "l_per_h": 100}]}
        pump = {"id": "p", "pump": {"name": "Wick 200", "curves": [curve], "fuels": ["petrol E10"]}}
        bears = {"name": "Wick 300", "curves": [curve], "fuels": ["petrol E10", "methanol"]}
        level = {"name": "Tube", "action": {"kind": "tube"}, "fuels": ["petrol E10"]}
        shop = Workshop.model_validate({"pumps": [pump["pump"], bears], "senders": [level]})
        wrong = tank(*WHOLE, brief={"fuel": "methanol", "pumps": [pump]})
        (only,) = self.settled(wrong, "fuel.pump", "stop", shop=shop).remedies
        self.assertIn("Wick 300", only.label.plain())
        self.assertNotIn("fuel.pump", codes(tank(*WHOLE, brief={"fuel": "petrol E10", "pumps": [pump]})))
        diesel = {"id": "d", "name": "Tug", "engine": "diesel", "power_kw": 50}
        self.settled(tank(*WHOLE, brief={"fuel": "petrol E10", "cases": [diesel]}), "fuel.engine", "stop", 2)
        sender = {"id": "s", "name": "s", "x_mm": 300, "y_mm": 200, "action": {"kind": "tube"}, "fuels": ["diesel"]}
        self.settled(tank(*WHOLE, gauge={"senders": [sender]}), "fuel.sender", "stop", shop=shop)
        sealed = VENT | {"seat": {"hole_mm": 20, "outer_mm": 40, "seal": "nitrile"}}
        self.settled(tank(PICKUP, sealed, FILLER, brief={"fuel": "methanol"}), "fuel.rubber", "stop")
        self.settled(tank(PICKUP, sealed, FILLER, brief={"fuel": "E85"}), "fuel.rubber", "caution")
        hosed = FILLER | {"neck": {"bonded": True, "hose": "EPDM hose"}}
        self.settled(tank(PICKUP, VENT, hosed), "fuel.rubber", "stop")
        self.settled(tank(*WHOLE, brief={"fuel": "methanol"}), "fuel.metal", "caution")
        self.settled(tank(*WHOLE, brief={"fuel": "E85"}, inside={"lining": "epoxy"}), "fuel.lining", "stop")

    def test_two_fuels(self) -> None:
        """They need two cells, and nothing that leads from one to the other."""
        cases = [
            {"id": "a", "name": "a", "engine": "petrol, naturally aspirated", "fuel": "avgas 100"},
            {"id": "b", "name": "b", "engine": "diesel", "fuel": "kerosene"},
        ]
        self.settled(tank(*WHOLE, brief={"cases": cases}), "fuels.one_cell", "stop")
        ports = [p | {"id": f"{p['id']}-{x}", "x_mm": x + n * 40} for x in (80, 380) for n, p in enumerate(WHOLE)]
        apart = {"shell": {"features": [WALL]}, "brief": {"cases": cases}}
        self.assertNotIn("fuels.meet", codes(tank(*ports, **apart)))
        self.settled(tank(*ports, port("transfer", x=100), **apart), "fuels.meet", "stop")
        home = port("return", x=100)
        self.settled(tank(*ports, home, **apart), "fuels.meet", "stop")
        self.assertNotIn("fuels.meet", codes(tank(*ports, home, port("return", "two", x=400), **apart)))


class InTheShop(TestCase):
    """What can't be made, or mustn't be cut yet."""

    def test_too_thick_for_the_brake(self) -> None:
        """5 mm of mild steel is 5.2 mm of 5052 by yield; thinner sheet in stock is offered."""
        subject = tank(shell={"thickness_mm": 6.0, "bend_radius_mm": 12})
        finding = next(f for f in seen(subject, True).findings if f.code == "brake.thick")
        self.assertEqual(finding.severity, "stop")
        self.assertTrue(finding.remedies)
        self.assertNotIn("brake.thick", codes(tank(shell={"thickness_mm": 5.0, "bend_radius_mm": 12})))

    def test_a_part_says_which_holes_it_lacks(self) -> None:
        """Holes that land on the shell or a well's plates are drawn; where these aren't unfolded there is a stop."""
        seat = {"hole_mm": 60, "outer_mm": 80}
        subject = tank(*(p | {"seat": seat, "y_mm": 100} for p in WHOLE))
        self.assertNotIn("sheet.holes", {f.code for f in seen(subject, True).findings})
        made = seen(subject).sheet.unfolded
        assert made is not None
        bores = {part.name: sorted(bore.name for bore in part.bores) for part in made.parts}
        self.assertEqual(bores, {"wrapper": ["filler", "pickup", "vent"], "end-pan": []})
        well = {"kind": "well", "id": "w", "name": "well", "a_mm": 60, "b_mm": 40, "long_mm": 120, "wide_mm": 120}
        for more, stop in (({}, False), ({"form": "round", "slope_mm": 10, "a_mm": -20}, True)):
            recess = well | {"deep_mm": 80} | more
            inside = tank(PICKUP | {"seat": seat, "x_mm": 80, "y_mm": 100}, shell={"features": [recess]})
            self.assertEqual("sheet.holes:wrapper" in {f.key for f in seen(inside, True).findings}, stop)

    def test_a_hole_on_the_closing_seam(self) -> None:
        """The wrapper closes elsewhere, or the port moves aside."""
        subject = tank(PICKUP, VENT, FILLER | {"seat": {"hole_mm": 60, "outer_mm": 80}})
        finding = next(f for f in seen(subject, True).findings if f.code == "port.on_seam")
        self.assertEqual(finding.severity, "stop")
        self.assertGreaterEqual(len(finding.remedies), 3)
        for remedy in finding.remedies:
            self.assertNotIn("port.on_seam", codes(apply(subject, remedy.patch)), remedy.label.plain())


class SurgeTanks(TestCase):
    """A surge tank, made or drawn."""

    def test_a_made_one_passes_its_own_rules(self) -> None:
        """Cylinder and box: an overflow is judged as one, nothing is missing."""
        asked = {"surge.no_overflow", "surge.no_return", "cell.no_vent", "cell.no_pickup", "cell.no_filler"}
        main = tank(*WHOLE)
        for form, litres in (("cylinder", 2.0), ("box", 2.0), ("box", 0.1), ("box", 12.0)):
            made = surge_tank(main, litres, Workshop(), form)
            found, figures = codes(made), seen(made).shell.figures
            self.assertFalse((asked | {"vent.rollover", "rolls.tight", "brake.closed_box"}) & found, (form, found))
            assert figures is not None
            self.assertGreaterEqual(figures.rated_l, litres - 1e-6)

    def test_what_it_lacks(self) -> None:
        """Without overflow, return or outlet."""
        made = surge_tank(tank(*WHOLE), 2.0, Workshop())
        for role, code in (
            ("overflow", "surge.no_overflow"),
            ("return", "surge.no_return"),
            ("pickup", "cell.no_pickup"),
        ):
            left = made.model_copy(update={"ports": tuple(p for p in made.ports if p.role != role)})
            finding = next(f for f in seen(left, True).findings if f.code == code)
            self.assertEqual(finding.severity, "stop")
            self.assertTrue(finding.remedies, code)


class Fouling(TestCase):
    """What comes too near is named, and moving it is offered."""

    def found(self, ports: list[dict[str, Any]], keep: dict[str, float], **bay: Any) -> Finding:
        """The one clearance stop of a box of 600 × 400 × 300 in a large bay with one keep-out."""
        block = {"kind": "box", "id": "k", "name": "strut", "clearance": {"kind": "hard metal"}}
        bay = {"length_mm": 2000, "width_mm": 2000, "height_mm": 1000, "keep_outs": [block | keep]} | bay
        shell = {"x_mm": 700, "y_mm": 800, "z_mm": 300}
        subject = tank(*ports, shell=shell, bay=bay)
        (finding,) = (f for f in seen(subject, True).findings if f.code == "bay.clearance")
        for remedy in finding.remedies:
            self.assertNotIn(finding.key, {f.key for f in seen(apply(subject, remedy.patch)).findings})
        return finding

    def test_a_filler_neck(self) -> None:
        """A neck under a strut: it is named, and lowering or moving it is offered before the tank is."""
        neck = FILLER | {"stands_mm": 120, "across_mm": 60}
        strut = {"x_mm": 860, "y_mm": 900, "z_mm": 690, "length_mm": 80, "width_mm": 200, "height_mm": 40}
        finding = self.found([PICKUP, VENT, neck], strut)
        self.assertIn("Filler", finding.title.plain())
        self.assertIn("filler", finding.remedies[0].label.plain())

    def test_the_shell(self) -> None:
        """Beside its wall it is the shell, whatever stands on the lid."""
        neck = FILLER | {"stands_mm": 120, "across_mm": 60}
        strut = {"x_mm": 1305, "y_mm": 900, "z_mm": 400, "length_mm": 40, "width_mm": 200, "height_mm": 40}
        finding = self.found([PICKUP, VENT, neck], strut)
        self.assertRegex(finding.title.plain(), "^The (shell|wrapper's lip)")
