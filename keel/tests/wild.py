"""Whole design documents at random: most can be made, some can't; none may break the core."""

from typing import Any, get_args

import numpy as np

from keel.design.sheet import BoxScheme

FACES = ("roof", "floor", "front", "rear", "left", "right")
ROLES = ("pickup", "vent", "overflow", "filler", "drain", "return", "transfer", "spare", "fitting")
FUELS = ("petrol E10", "E85", "methanol", "diesel", "kerosene")
KINDS = ("box", "profile", "cylinder")
METALS = ("mild steel", "stainless 304L", "5052-H32", "5083-H111", "6061-T6")


class Wild:
    """Draws documents from a seed."""

    def __init__(self, seed: int) -> None:
        self._chance = np.random.default_rng(seed)

    def mm(self, low: float, high: float) -> float:
        """A length, to a tenth."""
        return round(float(self._chance.uniform(low, high)), 1)

    def pick(self, *items: Any) -> Any:
        """One of some."""
        return items[int(self._chance.integers(len(items)))]

    def some(self, most: int, kind: str, make: Any) -> list[dict[str, Any]]:
        """Up to so many things, named by their kind."""
        count = int(self._chance.integers(most + 1))
        return [{"id": f"{kind}-{n}", "name": f"{kind} {n}"} | make() for n in range(count)]

    def document(self) -> dict[str, Any]:
        """A whole design."""
        fuel = self.pick(*FUELS)
        made: dict[str, Any] = {
            "brief": {"fuel": fuel, "target_l": self.mm(5, 150), "is_surge_tank": self.pick(True, *[False] * 9)},
            "bay": self.pick(None, self._bay()),
            "shell": self._shell(),
            "ports": self.some(6, "port", self._port),
            "gauge": {"senders": self.some(2, "sender", self._sender)},
            "sheet": {"seam": self.pick("lid", "floor", "side", "corner butt")},
            "inside": self.pick({}, {}, {"foam": {"takes": 0.03}}, {"lining": "epoxy"}),
        }
        made["sheet"]["scheme"] = self.pick("wrapper and pans", *get_args(BoxScheme))
        made["mount"] = self.pick({}, self._mount())
        return made

    def _mount(self) -> dict[str, Any]:
        return {
            "use": self.pick("road", "competition"),
            "coating_mm": self.mm(0, 0.5),
            "straps": self.some(3, "strap", self._strap),
            "feet": self.some(4, "foot", self._foot),
            "stops": self.some(3, "stop", lambda: self._spot() | {"side": self.pick(*FACES)} | self._bolted()),
            "bearers": self.some(2, "bearer", self._bearer),
            "brackets": self.some(1, "bracket", lambda: {"side": self.pick(*FACES), "kg": self.mm(0.2, 8)}),
            "new_work": self.some(1, "hole", self._spot),
            "cuts": self.some(1, "cut", lambda: {"reinforcement": self.pick("", "a doubler")}),
            "stood_on_kg": self.pick(None, 80.0),
        }

    def _spot(self) -> dict[str, Any]:
        return {"x_mm": self.mm(-100, 1300), "y_mm": self.mm(-100, 900), "z_mm": self.mm(-100, 700)}

    def _bolted(self) -> dict[str, Any]:
        bolts = {"size": self.pick("M5", "M8", "M12", "3/8 UNC"), "grade": self.pick("4.6", "8.8", "A2-70", "SAE 8")}
        bolts |= {"count": self.pick(1, 2, 4), "locking": self.pick("self-locking nut", "none")}
        plate = {"long_mm": self.mm(30, 90), "wide_mm": self.mm(30, 90), "thickness_mm": self.mm(1, 5)}
        structure = {"found": self.pick("frame rail", "body sheet"), "thickness_mm": self.mm(0.6, 6)}
        structure |= {
            "edge_mm": self.mm(6, 40),
            "plate": self.pick(None, plate),
            "from_both_sides": self.pick(True, False),
        }
        return {"bolts": bolts, "structure": structure, "match_made": self.pick(True, False)}

    def _strap(self) -> dict[str, Any]:
        low = self.mm(-200, 300)
        ends = {"low": low, "high": low + self.mm(100, 900)}
        anchors = {name: {"out_mm": out, "z_mm": self.mm(-150, 150)} | self._bolted() for name, out in ends.items()}
        lies = {"across": self.pick("x", "y"), "passes": self.pick("over", "over", "under"), "at_mm": self.mm(0, 700)}
        strip = {"width_mm": self.mm(15, 50), "thickness_mm": self.mm(0.8, 3), "pad_mm": self.pick(0.0, 5.0)}
        return anchors | lies | strip | {"existing_mm": self.pick(None, None, self.mm(500, 2500))}

    def _foot(self) -> dict[str, Any]:
        return self._spot() | {"axis": self.pick("x", "y", "z"), "weld_mm": self.pick(0.0, 40.0)} | self._bolted()

    def _bearer(self) -> dict[str, Any]:
        low = self.mm(-100, 200)
        lies = {"along": self.pick("x", "y"), "stands": self.pick("under", "over"), "at_mm": self.mm(0, 700)}
        span = {"low_mm": low, "high_mm": low + self.mm(100, 900)}
        return lies | span | {"shape": self.pick("round tube", "square tube", "flat bar")} | self._bolted()

    def _bay(self) -> dict[str, Any]:
        size = {"length_mm": self.mm(400, 1500), "width_mm": self.mm(400, 1500), "height_mm": self.mm(300, 900)}
        opening = {"side": self.pick(*FACES), "a_mm": 0.0, "b_mm": 0.0}
        opening |= {"long_mm": self.mm(200, 900), "wide_mm": self.mm(200, 900)}
        return size | {"keep_outs": self.some(3, "keep-out", self._keep_out), "opening": self.pick(None, opening)}

    def _keep_out(self) -> dict[str, Any]:
        place = {axis: self.mm(-100, 900) for axis in ("x_mm", "y_mm", "z_mm")}
        block = {
            "kind": "box",
            "length_mm": self.mm(20, 300),
            "width_mm": self.mm(20, 300),
            "height_mm": self.mm(20, 300),
        }
        shaft = {"kind": "cylinder", "axis": self.pick("x", "y", "z"), "diameter_mm": self.mm(20, 200)}
        return place | self.pick(block, shaft | {"run_mm": self.mm(50, 900)})

    def _shell(self) -> dict[str, Any]:
        place = {"x_mm": self.mm(-50, 150), "y_mm": self.mm(-50, 150), "z_mm": self.mm(-20, 100)}
        metal = {"metal": self.pick(*METALS), "thickness_mm": self.pick(1.0, 1.5, 2.0, 3.0, 5.0)}
        more = {"bend_radius_mm": self.mm(0, 8), "features": self.some(4, "feature", self._feature)}
        sizes = {
            "box": {"length_mm": self.mm(80, 1200), "width_mm": self.mm(80, 800), "height_mm": self.mm(60, 600)},
            "cylinder": {"axis": self.pick("x", "y", "z"), "diameter_mm": self.mm(80, 600), "run_mm": self.mm(80, 900)},
            "profile": {"wrap_axis": self.pick("x", "y"), "run_mm": self.mm(80, 900), "corners": self._corners()},
        }
        kind = self.pick(*KINDS)
        if kind == "cylinder":
            more = {"features": more["features"], "dish_mm": self.pick(0.0, 30.0)}
        return {"kind": kind} | sizes[kind] | place | metal | more

    def _corners(self) -> list[dict[str, Any]]:
        """Corners at growing angles round a middle: the outline never crosses itself."""
        count = int(self._chance.integers(3, 9))
        turns = 2 * np.pi * (np.arange(count) + self._chance.uniform(0.1, 0.9, count)) / count
        reach = self._chance.uniform(80, 350, count)
        places = np.column_stack([350 + reach * np.cos(turns), 350 + reach * np.sin(turns)]).round(1).tolist()
        return [{"across_mm": a, "up_mm": u, "joint": self.pick("bend", "weld")} for a, u in places]

    def _feature(self) -> dict[str, Any]:
        mouth = {
            "a_mm": self.mm(0, 300),
            "b_mm": self.mm(0, 300),
            "long_mm": self.mm(20, 200),
            "wide_mm": self.mm(20, 200),
        }
        place = {axis: self.mm(-50, 300) for axis in ("x_mm", "y_mm", "z_mm")}
        size = {"length_mm": self.mm(20, 300), "width_mm": self.mm(20, 300), "height_mm": self.mm(20, 200)}
        plate = {"axis": self.pick("x", "y"), "at_mm": self.mm(20, 500)}
        return dict(
            self.pick(
                {"kind": "well", "form": self.pick("box", "round"), "deep_mm": self.mm(5, 150)} | mouth,
                {"kind": "sump", "deep_mm": self.mm(5, 100)} | mouth,
                {"kind": "pot", "high_mm": self.mm(20, 200)} | mouth,
                {"kind": "relief", "form": self.pick("box", "x", "y", "z")} | place | size,
                {"kind": "baffle", "corner_mm": self.mm(10, 40), "top_gap_mm": self.pick(0.0, 15.0)} | plate,
                {"kind": "partition"} | plate,
                {"kind": "roof step", "side": self.pick("front", "left"), "reach_mm": self.mm(10, 300)}
                | {"drop_mm": self.mm(5, 200)},
            )
        )

    def _port(self) -> dict[str, Any]:
        seat = {"hole_mm": self.mm(8, 60), "outer_mm": self.mm(61, 150)}
        bend = {"outer_mm": self.mm(8, 30), "radius_mm": self.mm(20, 80), "turns_deg": self.mm(10, 180)}
        hanger = {"made_for_mm": self.mm(50, 400), "kind": self.pick("module", "hanger", "tube", "sock")}
        return {
            "role": self.pick(*ROLES), "face": self.pick(*FACES[:1] * 4, *FACES),
            "capped": self.pick(True, *[False] * 5), "x_mm": self.mm(0, 600), "y_mm": self.mm(0, 500),
            "z_mm": self.pick(None, None, self.mm(0, 400)),
            "stands_mm": self.mm(0, 80), "across_mm": self.mm(0, 80), "hangs_mm": self.mm(0, 200),
            "hangs_across_mm": self.mm(0, 90), "seat": self.pick(None, seat), "bend": self.pick(None, None, bend),
            "hanger": self.pick(None, hanger), "vent": self.pick(None, {"bore_mm": self.mm(4, 30)}),
            "neck": self.pick(None, {"bore_mm": self.mm(20, 60)}),
        }  # fmt: skip

    def _sender(self) -> dict[str, Any]:
        arm = {"kind": "swing arm", "made_arm_mm": self.mm(60, 250), "empty_deg": self.mm(-60, -10)}
        arm |= {"full_deg": self.mm(0, 60)}
        return {"x_mm": self.mm(0, 500), "y_mm": self.mm(0, 400), "action": self.pick(arm, {"kind": "tube"})}
