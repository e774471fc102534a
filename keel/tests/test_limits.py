"""Where a finding begins: a hair before its limit nothing is said, a hair beyond it is; worked out by hand."""

import json
from collections.abc import Callable
from math import exp, pi, sqrt
from typing import Any, NamedTuple
from unittest import TestCase

from keel.analysis.showing import Showing
from keel.design.workshop import Workshop
from keel.evaluation import evaluate
from keel.formats.document import read_design

Item = dict[str, Any]
BOX: Item = {
    "kind": "box", "length_mm": 600.0, "width_mm": 400.0, "height_mm": 300.0, "metal": "5052-H32",
    "thickness_mm": 3.0, "bend_radius_mm": 6.0,
}  # fmt: skip
ROOM: Item = {"length_mm": 900.0, "width_mm": 700.0, "height_mm": 600.0}
INSIDE_L = (594 * 394 * 294 - (4 - pi) * 6**2 * 594) / 1e6
"""What the box holds: its inside less what four bends of 6 mm inside radius take off [L]."""
RATED_L = INSIDE_L * (1 - (exp(0.00095 * 40) - (1 + 23.8e-6 * 40) ** 3))
"""Less what petrol needs to warm by 40 K, the shell growing with it [L]."""


LIP_MM = 20.0 - 3.0
"""How far the wrapper stands out over the pans: their flanges go over their own sheet."""


def shell(**more: Any) -> Item:
    """The box with something about it otherwise."""
    return {"shell": BOX | more}


def features(*found: Item) -> Item:
    """The box with features, named by their place."""
    return shell(features=[{"id": f"f{n}", "name": f"f{n}"} | feature for n, feature in enumerate(found)])


def narrow(wide: float, *found: Item) -> Item:
    """A narrow box with features."""
    return {"shell": features(*found)["shell"] | {"width_mm": wide}}


def well(a: float, b: float = 150.0, **more: Any) -> Item:
    """A well in the roof."""
    return {"kind": "well", "a_mm": a, "b_mm": b, "long_mm": 100.0, "wide_mm": 100.0, "deep_mm": 40.0} | more


def ports(*found: Item) -> Item:
    """The box with ports, named by their place."""
    return shell() | {"ports": [{"id": f"p{n}", "name": f"p{n}"} | port for n, port in enumerate(found)]}


def at(x: float, y: float, role: str = "fitting", **more: Any) -> Item:
    """A port in the roof."""
    return {"role": role, "x_mm": x, "y_mm": y} | more


def in_bay(**more: Any) -> Item:
    """The box somewhere in a bay."""
    return {"bay": ROOM} | shell(x_mm=100.0, y_mm=100.0, z_mm=200.0, **more)


def engine(flow: float, **brief: Any) -> Item:
    """The box behind an engine that burns so much."""
    case = {"id": "c", "name": "c", "measured_l_per_h": flow, "rail_kpa": 300.0}
    points = [{"kpa": 0.0, "l_per_h": 200.0}, {"kpa": 300.0, "l_per_h": 120.0}]
    pump = {"id": "p", "pump": {"name": "pump", "curves": [{"voltage_v": 13.5, "points": points}]}}
    return shell() | {"brief": {"cases": [case], "pumps": [pump]} | brief}


def seat(hole: float, outer: float, **more: Any) -> Item:
    """A boss."""
    return {"hole_mm": hole, "outer_mm": outer} | more


class Limit(NamedTuple):
    """From where on something is said, going up or down with one figure of a design."""

    code: str
    made: Callable[[float], Item]
    at: float
    beyond: int
    """Above (1) or below (-1) it is said."""
    hair: float = 0.02
    rules: Item | None = None


LIMITS = (
    Limit("capacity.below", lambda v: shell() | {"brief": {"target_l": v}}, RATED_L, 1),
    Limit("capacity.beyond", lambda v: shell() | {"brief": {"target_l": v}}, RATED_L / 1.25, -1),
    Limit("bend.radius", lambda v: shell(bend_radius_mm=v), 3.0, -1),
    Limit("bend.radius", lambda v: shell(metal="mild steel", bend_radius_mm=v), 3.0, -1),
    Limit("bend.radius", lambda v: shell(metal="6061-T6", bend_radius_mm=v), 9.0, -1),
    Limit("wall.weldable", lambda v: shell(thickness_mm=v), 1.6, -1),
    Limit("wall.weldable", lambda v: shell(metal="mild steel", thickness_mm=v), 0.9, -1),
    Limit("wall.weldable", lambda v: shell(metal="5083-H111", thickness_mm=v), 2.0, -1),
    # At its narrowest the brake closes a wrapper 150 mm inside.
    Limit("brake.closed_box", lambda v: shell(height_mm=v), 156.0, -1),
    Limit("brake.closed_box", lambda v: shell(width_mm=v), 156.0, -1),
    # A wrapper stands out at each end by the rest of a flange of 20 mm.
    Limit("brake.width", lambda v: shell(length_mm=v), 1250.0 - 2 * LIP_MM, 1),
    # A tray's walls stop at the lid's inner face: its fingers pass 100 mm.
    Limit("brake.deep", lambda v: shell(height_mm=v) | {"sheet": {"scheme": "tray and lid"}}, 103.0, 1),
    Limit("pan.flange", lambda v: shell() | {"sheet": {"flange_mm": v}}, 12.0, -1),
    Limit("rolls.width", lambda v: {"shell": lying(v)}, 1250.0, 1),
    Limit("rolls.tight", lambda v: {"shell": lying(600.0, v)}, 2 * 50.0, -1),
    Limit("inside.free_run", lambda v: narrow(340.0, wall(v)), 350.0 + 1.0 + 3.0, 1),
    Limit("land.narrow", lambda v: features(well(v)), 12.0, -1),
    Limit("land.narrow", lambda v: features(well(100.0), well(200.0 + v)), 12.0, -1),
    Limit("feature.overlap", lambda v: features(well(100.0), well(v)), 200.0, -1),
    Limit("feature.past_edge", lambda v: features(well(v)), 500.0, 1),
    Limit("fuel.share", lambda v: shell() | {"brief": {"vehicle_kg": v}}, RATED_L * 0.745 * (1 / 0.15 - 1), -1, 0.5),
    Limit("pump.short", lambda v: engine(v), 100.0, 1),
    Limit("pump.beyond", lambda v: engine(50.0, cases=[case_at(v)]), 300.0, 1),
    Limit("bay.clearance", lambda v: in_bay() | {"bay": ROOM | {"keep_outs": [beside(v)]}}, 10.0, -1),
    Limit("bay.clearance", lambda v: in_bay() | {"bay": ROOM | {"keep_outs": [beside(v, "exhaust, bare")]}}, 100.0, -1),
    Limit("bay.clearance", lambda v: in_bay() | {"bay": ROOM | {"keep_outs": [beside(v, "ground", 42.5)]}}, 42.5, -1),
    Limit("opening.turned", lambda v: in_bay() | {"bay": ROOM | {"opening": hatch(v, 500.0)}}, 600.0 + 2 * LIP_MM, -1),
    Limit("opening.turned", lambda v: in_bay() | {"bay": ROOM | {"opening": hatch(700.0, v)}}, 400.0, -1),
    Limit(
        "port.room",
        lambda v: ports(at(100, 200, spanner_mm=60.0), at(v, 200, across_mm=60.0, stands_mm=30.0)),
        190.0,
        -1,
    ),
    Limit("port.hole", lambda v: ports(at(300, 200, diagonal_mm=v, hangs_mm=50.0, seat=seat(60, 90))), 60.0, 1),
    Limit("port.on_seam", lambda v: ports(at(300, v, seat=seat(30, 60))), 200.0 + 30.0, -1),
    Limit("port.seam", lambda v: ports(at(300, v, seat=seat(30, 60))), 200.0 + 30.0 + 12.0, -1),
    Limit("reach.short", lambda v: ports(at(300, 200, "pickup", hanger={"made_for_mm": v})), 297.0, -1, 1.2),
    Limit("reach.mismatch", lambda v: ports(at(300, 200, "pickup", hanger=hanger(v))), 297.0 + 1.0, 1, 0.1),
    Limit("vent.lean", lambda v: ports(at(300, 200, "vent", vent={"rollover": True, "lean_deg": v})), 10.0, 1),
)
MORE_LIMITS = (
    Limit("sliver", lambda v: features(well(250.0, deep_mm=v)), 300.0 - 3 - 3 - 10, 1),
    Limit("sump.ground", lambda v: over_ground(v), 150.0 + 40.0, -1),
    Limit("drain.high", lambda v: ports(at(300, 200, "drain", z_mm=v)), 3.0 + 2.0, 1),
    Limit("return.high", lambda v: ports(at(300, 200, "return", z_mm=v)), 300.0 / 2, 1),
    Limit("return.near", lambda v: ports(at(200, 200, "pickup"), at(200 + v, 200, "return", z_mm=8.0)), 120.0, -1),
    # A brake bends as much as 5 mm of mild steel: force goes with yield and thickness squared.
    Limit("brake.thick", lambda v: shell(thickness_mm=v, bend_radius_mm=15.0), 5.0 * sqrt(210 / 193), 1),
    Limit("brake.thick", lambda v: shell(metal="mild steel", thickness_mm=v, bend_radius_mm=15.0), 5.0, 1),
    # Round a wrapper, less four deductions of 2 (r + t) - π/2 (r + K t), on a sheet of 2500 mm.
    Limit("stock.size", lambda v: shell(width_mm=v), (2500 + 4 * (2 * 9 - pi / 2 * (6 + 0.4 * 3))) / 2 - 300, 1),
    Limit("inside.torch", lambda v: shell(length_mm=1210.0, features=[named(wall(v))]), 600.0, 1),
    # Four corners with two equal legs each, of a plate of 394 × 294.
    Limit("baffle.tight", lambda v: sharp(features(wall(300.0) | {"corner_mm": v})), sqrt(0.08 * 394 * 294 / 2), -1),
    Limit("baffle.open", lambda v: sharp(features(wall(300.0) | {"corner_mm": v})), sqrt(0.15 * 394 * 294 / 2), 1),
    Limit("surge.lift", lambda v: surged(lift_l_per_h=v), 100.0, -1),
    # What 100 L/h take in 6 s comes back at the 60 L/h by which the lift pump is stronger.
    Limit("surge.refill", lambda v: surged(lift_l_per_h=160.0, gap_s=v), 100 * 6 / 60, -1),
    Limit("reach.cut", lambda v: ports(at(300, 200, "pickup", hanger={"made_for_mm": v})), 297.0, 1, 1.2),
    # A twentieth of the tank's depth on the floor, half a hundredth under the lid.
    Limit("fuel.unreached", lambda v: sharp(ports(at(300, 200, "pickup", z_mm=v))), 3 + 0.05 * 294, 1),
    Limit("air.trapped", lambda v: sharp(ports(at(300, 200, "vent", z_mm=v))), 297 - 0.005 * 294, -1),
)


def sharp(document: Item) -> Item:
    """The same with corners that are welded."""
    return document | {"shell": document["shell"] | {"bend_radius_mm": 0.0}}


def named(feature: Item) -> Item:
    """A feature with a name."""
    return {"id": "f", "name": "f"} | feature


def over_ground(underside: float) -> Item:
    """The box with a sump of 40 mm so far over the ground."""
    sump = well(100.0, kind="sump")
    document = {"bay": ROOM | {"sides": {"floor": {"kind": "ground"}}}} | features(sump)
    return document | {"shell": document["shell"] | {"z_mm": underside}}


def surged(**surge: Any) -> Item:
    """The box feeding a surge tank that has to bridge six seconds."""
    return engine(100.0, surge={"uncovered_s": 6.0} | surge)


def wall(at_mm: float) -> Item:
    """A plate with its corners off."""
    return {"kind": "baffle", "axis": "x", "at_mm": at_mm, "corner_mm": 60.0}


def lying(run: float, diameter: float = 300.0) -> Item:
    """A cylinder along x."""
    return {"kind": "cylinder", "axis": "x", "run_mm": run, "diameter_mm": diameter, "thickness_mm": 3.0}


def beside(gap: float, kind: str = "hard metal", typed: float | None = None) -> Item:
    """A block so far in front of the box."""
    place = {"x_mm": 700.0 + LIP_MM + gap, "y_mm": 250.0, "z_mm": 300.0}
    size = {"length_mm": 40.0, "width_mm": 40.0, "height_mm": 40.0}
    return {"id": "k", "name": "k", "clearance": {"kind": kind, "mm": typed}} | place | size


def hatch(long: float, wide: float) -> Item:
    """A way in through the roof of the bay."""
    return {"side": "roof", "a_mm": 50.0, "b_mm": 50.0, "long_mm": long, "wide_mm": wide}


def hanger(measured: float) -> Item:
    """One whose depth was measured a second time."""
    return {"made_for_mm": 300.0, "measured_mm": measured}


def case_at(rail_kpa: float) -> Item:
    """An engine that asks for another pressure."""
    return {"id": "c", "name": "c", "measured_l_per_h": 50.0, "rail_kpa": rail_kpa}


class Limits(TestCase):
    """A figure on either side of where it should begin."""

    def codes(self, document: Item, rules: Item | None = None) -> set[str]:
        """What is found."""
        shop = Workshop.model_validate({"rules": rules or {}})
        return {f.code for f in evaluate(read_design(json.dumps(document)), shop, Showing(remedies=False)).findings}

    def test_each_begins_at_its_limit(self) -> None:
        """Silent a hair before it, said a hair beyond."""
        for place, limit in enumerate((*LIMITS, *MORE_LIMITS)):
            with self.subTest(place=place, code=limit.code, at=limit.at):
                step = limit.hair * limit.beyond
                self.assertNotIn(limit.code, self.codes(limit.made(limit.at - step), limit.rules), "before")
                self.assertIn(limit.code, self.codes(limit.made(limit.at + step), limit.rules), "beyond")

    def test_a_house_rule_moves_it(self) -> None:
        """Each rule that a shop changes moves what it decides, and by as much."""
        moved = (
            ("land_mm", 30.0, "land.narrow", lambda v: features(well(v)), 30.0, -1),
            ("free_run_mm", 200.0, "inside.free_run", lambda v: narrow(190.0, wall(200.0), wall(v)), 404.0, 1),
            ("flange_least_mm", 25.0, "pan.flange", lambda v: shell() | {"sheet": {"flange_mm": v}}, 25.0, -1),
            (
                "beyond_target",
                0.5,
                "capacity.beyond",
                lambda v: shell() | {"brief": {"target_l": v}},
                RATED_L / 1.5,
                -1,
            ),
            ("pump_margin", 0.5, "pump.short", lambda v: engine(v), 80.0, 1),
            (
                "fuel_share",
                0.1,
                "fuel.share",
                lambda v: shell() | {"brief": {"vehicle_kg": v}},
                RATED_L * 0.745 * 9,
                -1,
            ),
        )
        for rule, value, code, made, limit, beyond in moved:
            with self.subTest(rule):
                step = 0.5 * beyond
                self.assertNotIn(code, self.codes(made(limit - step), {rule: value}))
                self.assertIn(code, self.codes(made(limit + step), {rule: value}))

    def test_the_pressure_it_bears(self) -> None:
        """A house rule a hair above what the weakest panel bears, and a hair below."""
        bears = evaluate(read_design(json.dumps(shell()))).shell.safe_proof_kpa
        self.assertNotIn("proof.weak", self.codes(shell(), {"proof_least_kpa": bears - 0.01}))
        self.assertIn("proof.weak", self.codes(shell(), {"proof_least_kpa": bears + 0.01}))

    def test_thickness_by_the_plate_equation(self) -> None:
        """The lid of a box twice as long as wide under two extra g: the sheet that it wants is where it is silent."""
        found = evaluate(read_design(json.dumps(shell(thickness_mm=1.0, bend_radius_mm=2.0)))).shell.panels
        for panel in found:
            bears = panel.allowed_share * 90.0
            by_hand = sqrt(panel.stress_mpa / bears) * panel.thickness_mm
            self.assertAlmostEqual(panel.least_thickness_mm, by_hand, delta=0.051, msg=panel.name)
        need = max(panel.least_thickness_mm for panel in found)
        thin, thick = (self.codes(shell(thickness_mm=need + by, bend_radius_mm=12.0)) for by in (-0.15, 0.15))
        self.assertIn("wall.thin", thin)
        self.assertNotIn("wall.thin", thick)
