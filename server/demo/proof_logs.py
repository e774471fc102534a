"""Made-up leak tests: the day tank's three rounds, the service cart's two cells both ways."""

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Any

from keel.design.proof import TestGauge
from keel.studies.build.operation import Traveller
from keel.studies.proof.rig import Rig, Surroundings
from server.demo.built import built
from server.demo.cart_log import Said, worked
from server.demo.finished import finished

GAUGE: dict[str, Any] = {"name": "Bench gauge 2", "calibrated": "2026-05-18"}
OLD_DIAL: dict[str, Any] = {
    "name": "Old dial, to 40 kPa",
    "most_kpa": 40.0,
    "resolution_kpa": 0.2,
    "temperature_resolution_k": 0.5,
    "barometer_resolution_kpa": 0.1,
}
GAUGES = [GAUGE, OLD_DIAL]


@dataclass(frozen=True)
class Cell:
    """What a made-up test is done on."""

    name: str
    volume_l: float
    pressure_kpa: float
    limiter_kpa: float
    neighbours: tuple[str, ...] = ()

    def begun(self, proof: str, method: str, minutes: float | None = None) -> dict[str, Any]:
        """How a test of it begins."""
        gauge = {"gauge": GAUGE} if method == "pressure decay" else {}
        return {
            "id": proof,
            "subject": self.name,
            "method": method,
            "pressure_kpa": self.pressure_kpa,
            "limiter": "water column",
            "limiter_kpa": self.limiter_kpa,
            "minutes": minutes,
            "neighbours_open": list(self.neighbours),
        } | gauge

    def rig(self, leak_sccm: float, around: Surroundings, seed: int) -> Rig:
        """The tank that its readings come from."""
        gauge = TestGauge.model_validate(GAUGE)
        return Rig(self.volume_l, self.pressure_kpa, leak_sccm, around, gauge, seed=seed)


DAY_TANK = Cell("tank", 226.2, 4.7, 4.77)
REAR = Cell("rear cell", 64.5, 6.5, 6.59, ("front cell",))
FRONT = Cell("front cell", 41.7, 6.5, 6.6, ("rear cell",))
CART_STAYS = {
    "finding lines.needle:kerosene-nozzle": "The charger stays on while the cart is out: no flat battery",
    "finding buying.no_mate": "Both draws are welded bosses, their fittings came with the hoses",
    "finding lines.unknown_joint:avgas-draw": "Both draws are M18 × 1.5, as their drawing says",
    "finding lines.unclamped:avgas-draw": "Held by a bracket on the cart's frame, close to the separator",
    "finding lines.unclamped:kerosene-draw": "Held by a bracket on the cart's frame, close to the separator",
}
BRACKET = "P clip on a stand-off from the nearest frame, pulled at and firm"
CUTTER_STAYS = {
    "finding stock.size:wrapper": "Cut from the long sheet that the yard gave",
    "finding buying.no_mate": "Draws and drains are welded bosses",
    "finding lines.unknown_joint:starboard-draw": "All three M18 × 1.5, as their drawing says",
} | {f"finding lines.unclamped:{run}": BRACKET for run in ("draw", "to-engine", "drive", "far-lobe", "back", "vent")}
MORNING = Surroundings(15.2, per_h_c=0.22, barometer_kpa=101.62, barometer_per_h_kpa=-0.02)
"""The boat shed warms up: the gauge stands although the tank leaks."""
EVENING = Surroundings(19.4, per_h_c=-0.42, barometer_kpa=101.36, barometer_per_h_kpa=0.03)
"""The shed cools down: the gauge falls although the tank is tight."""
NOON = Surroundings(18.3, per_h_c=-0.1, barometer_kpa=100.92, barometer_per_h_kpa=0.02)


def day_tank(traveller: Traveller) -> Iterator[Said]:
    """Built, then soaped, then read in warming air, then in cooling air."""
    yield from built(traveller, 9, "bend")
    yield Said("marla", 4, 8.0, "checked", {"subject": "vapour", "check": "never held fuel"})
    seams = next(test.seams for test in traveller.tests if test.cell == "tank")
    yield Said("marla", 4, 9.0, "proof begun", DAY_TANK.begun("soap1", "soap and low pressure"))
    for n, seam in enumerate(seams):
        yield Said("osric", 4, 9.1 + 0.04 * n, "seam walked", {"of": "soap1", "subject": seam})
    crossing = {"subject": "rear-end", "at_mm": 3245.0, "x_mm": 0.0, "y_mm": 0.0, "z_mm": 208.0}
    leak = {"id": "leak1", "of": "soap1", "size": "slow bubbles", "photos": ["seam"]} | crossing
    yield Said("osric", 4, 9.6, "leak found", leak | {"note": "Where the closing seam meets the end"})
    drain = {"subject": "seat-port-drain", "at_mm": 30.0, "x_mm": 300.0, "y_mm": 900.0, "z_mm": 0.0}
    yield Said("osric", 4, 9.7, "leak found", {"id": "leak2", "of": "soap1", "size": "quick bubbles"} | drain)
    yield Said("marla", 4, 9.9, "proof ended", {"of": "soap1"})
    yield Said("marla", 4, 10.6, "leak repaired", {"of": "leak1", "how": "Ground out 15 mm, welded again"})
    yield Said("marla", 4, 11.0, "leak repaired", {"of": "leak2", "how": "Ring washed over once more"})
    yield from _read("decay1", DAY_TANK, 3, 8.2, 180, DAY_TANK.rig(2.6, MORNING, 11))
    neck = {"subject": "seat-filler", "at_mm": 96.0, "x_mm": 300.0, "y_mm": 519.0, "z_mm": 420.0}
    yield Said("osric", 3, 10.9, "leak found", {"id": "leak3", "of": "decay1", "size": "slow bubbles"} | neck)
    yield Said("marla", 3, 11.3, "proof ended", {"of": "decay1", "note": "The gauge hardly moved: the shed warmed up"})
    yield Said("marla", 3, 13.0, "leak repaired", {"of": "leak3", "how": "Crater at the end of the bead filled"})
    yield from _read("decay2", DAY_TANK, 2, 16.5, 240, DAY_TANK.rig(0.12, EVENING, 12))
    yield Said("marla", 2, 20.6, "proof ended", {"of": "decay2", "note": "Fell by itself as the shed cooled"})
    yield from worked("marla", 2, 20.7, 10, "prove:tank")
    yield from finished(traveller, 1, "seam", CUTTER_STAYS, until="commission:joints")
    left = {"what": "Gauge hose capped with a plug, its union comes on Thursday", "why": "temporary"}
    yield Said("osric", 0, 7.5, "left open", left | {"before": "engine running"})
    yield Said("osric", 0, 7.6, "joint", {"subject": "to-lift.end", "found": "weep"})


def service_cart(traveller: Traveller) -> Iterator[Said]:
    """Each cell with the other open; one leak, mended, and both again."""
    yield from built(traveller, 20, "seam")
    yield Said("marla", 14, 8.0, "checked", {"subject": "vapour", "check": "never held fuel"})
    yield from _read("rear1", REAR, 13, 8.2, 90, REAR.rig(0.1, NOON, 21))
    yield Said("marla", 13, 9.8, "proof ended", {"of": "rear1"})
    yield from _read("front1", FRONT, 13, 10.2, 60, FRONT.rig(3.4, NOON, 22))
    draw = {"subject": "seat-kerosene-draw", "at_mm": 40.0, "x_mm": 610.0, "y_mm": 225.0, "z_mm": 320.0}
    yield Said("osric", 13, 11.0, "leak found", {"id": "leak4", "of": "front1", "size": "quick bubbles"} | draw)
    yield Said("marla", 13, 11.3, "proof ended", {"of": "front1"})
    yield Said("marla", 13, 13.1, "leak repaired", {"of": "leak4", "how": "Start of the ring ground out and closed"})
    yield from _read("front2", FRONT, 12, 8.2, 60, FRONT.rig(0.08, NOON, 23))
    yield Said("marla", 12, 9.3, "proof ended", {"of": "front2"})
    yield from _read("rear2", REAR, 12, 9.6, 90, REAR.rig(0.1, NOON, 24))
    yield Said("marla", 12, 11.2, "proof ended", {"of": "rear2", "note": "Again: the repair warmed the wall between"})
    yield from worked("marla", 12, 11.4, 5, "prove:rear-cell")
    yield from worked("marla", 12, 11.6, 5, "prove:front-cell")
    yield from finished(traveller, 10, "seam", CART_STAYS)


def _read(proof: str, cell: Cell, day: int, hour: float, minutes: float, rig: Rig) -> Iterator[Said]:
    """A test by its readings, one a minute."""
    yield Said("marla", day, hour, "proof begun", cell.begun(proof, "pressure decay", minutes))
    yield Said("marla", day, hour, "readings", {"of": proof, "rig": rig, "minutes": minutes})
