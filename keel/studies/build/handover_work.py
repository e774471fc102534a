"""The last part of the work: first fuel, lines proved, first fill, engine, first drive, handed over."""

from collections.abc import Sequence

from keel.design.work import WorkKind
from keel.design.workshop import HouseRules
from keel.reference.fuels import FuelName
from keel.studies.build.bench import Bench
from keel.studies.build.operation import (
    Condition,
    FlushedClean,
    Gate,
    JointsDry,
    LineHolds,
    Looked,
    NothingOpen,
    Operation,
    PouredIn,
)
from keel.studies.handover.first_fill import WAIT_MIN, FillStep
from keel.studies.handover.line_joints import LineProof
from keel.studies.result import Words, in_words, words

KIND: WorkKind = "commission"
VAPOUR = words(
    "Vapour runs along the floor to flames and sparks metres away, and burns who stands in it: battery off while fuel "
    "is poured, no flame or heater in the room, extinguisher within reach, the pouring can bonded to the tank."
)
UNDER_FUEL = words(
    "A joint under pressure throws a fan of fuel that burns skin and eyes and lights at anything hot: goggles, gloves, "
    "cold engine, somebody at the switch."
)
BEFORE_FUEL = {
    "extinguisher": "Extinguisher for burning liquids within reach, its date good",
    "spill": "Tray, absorbent and a closed can for what is spilt",
    "moving air": "Moving air along the floor, nothing that sparks or burns in the room",
    "can bonded": "Pouring can or nozzle bonded to the filler before it is opened",
    "known fuel": "Fuel of known kind and age: labelled, and none of last season's",
}


class HandoverWork:
    """Operations and gates from first fuel to hand-over.

    Parameters
    ----------
    bench : Bench
        Makes operations.
    proof : LineProof
        Joints and circuits.
    fills : sequence of FillStep
        The first fill.
    fuel : FuelName
        The brief's.
    """

    def __init__(self, bench: Bench, proof: LineProof, fills: Sequence[FillStep], fuel: FuelName) -> None:
        self.bench, self.proof, self.fills, self.fuel = bench, proof, fills, fuel
        self.rules: HouseRules = bench.workshop.rules
        self.pumped = [one for one in proof.circuits if one.kpa > 0]
        self.made: list[Operation] = []

    def all(self, needs: Sequence[str]) -> list[Operation]:
        """In their order, each after the one before it."""
        if not self.fills:
            return []
        self.made = []
        self._add("ready", words("Make ready for first fuel: {fuel}", fuel=self.fuel), needs, cautions=[VAPOUR])
        by_cell: dict[str, list[FillStep]] = {}
        for step in self.fills:
            by_cell.setdefault(step.cell, []).append(step)
        first = {cell: 1 + (not steps[0].litres) for cell, steps in by_cell.items()}
        for cell, steps in by_cell.items():
            for step in steps[: first[cell]]:
                self._pour(step)
        self._lines()
        for cell, steps in by_cell.items():
            for step in steps[first[cell] :]:
                self._pour(step)
        self._add("vent", words("Vent breath: cap shut, air drawn and let out by the vent alone"))
        self._add("slope", words("Full on the steepest slope it meets, both ways: look under vent, cap and overflow"))
        self._add("engine", words("Run the engine, warm it through, look again at every joint"), cautions=[UNDER_FUEL])
        self._add("drive", words("First drive, then look again at every joint"))
        self._add("hand-over", words("Hand over: papers, keys, dates for the next look"))
        return self.made

    def _add(
        self,
        on: str,
        title: Words,
        needs: Sequence[str] = (),
        cautions: Sequence[Words] = (),
        steps: Sequence[Words] = (),
    ) -> None:
        before = [self.made[-1].id] if self.made else list(needs)
        self.made.append(self.bench.operation(KIND, on, title, 1, needs=before, cautions=cautions, steps=steps))

    def _pour(self, step: FillStep) -> None:
        if not step.litres:
            self._add(f"pour-{step.id}", words("Read the sender of the {cell} while it is empty", cell=step.cell))
            return
        where = words("Pour the {cell} up to {litres_l}", cell=step.cell, litres_l=step.litres)
        steps = [words("Wait {wait_min}, then look at every joint below the level.", wait_min=WAIT_MIN)]
        self._add(f"pour-{step.id}", where, cautions=[VAPOUR], steps=steps)

    def _lines(self) -> None:
        if self.proof.circuits:
            names = in_words([one.name for one in self.proof.circuits])
            self._add("flush", words("Flush into a can until clean: {names}", names=names), cautions=[VAPOUR])
        if self.pumped:
            self._add("prime", words("Prime without starting: pumps on, engine off, air let out into a can"))
            self._add("hold", words("Hold the lines at working pressure"), cautions=[UNDER_FUEL])
        if self.proof.joints:
            said = words("Visit all {n} joints, in walking order: dry, marked", n=len(self.proof.joints))
            self._add("joints", said, cautions=[UNDER_FUEL])

    def gates(self) -> list[Gate]:
        """What each of those steps waits for before it counts as done."""
        there = {one.id for one in self.made}
        return [gate for gate in self._gates() if set(gate.before) <= there] if there else []

    def _gates(self) -> list[Gate]:
        checks: list[Condition] = [Looked(f"first fuel: {key}", words(said)) for key, said in BEFORE_FUEL.items()]
        burns = words("Who pours without it has nothing at hand in the seconds that count.")
        leaks = words("What drips now at rest sprays when the pump runs.")
        found = [
            Gate(
                "first fuel", words("Ready for first fuel"), [_id("ready")], [*checks, NothingOpen("first fuel")], burns
            )
        ]
        found += [self._filled(step, leaks) for step in self.fills]
        found += [
            Gate(
                "lines flushed",
                words("What comes out of the lines is clean"),
                [_id("flush")],
                [FlushedClean(f"flush {one.name}") for one in self.proof.circuits],
                words("Swarf and rubber from the cut ends stop a regulator open or an injector shut."),
            ),
            Gate(
                "lines held",
                words("Lines hold their working pressure"),
                [_id("hold")],
                self._held(),
                leaks,
            ),
            Gate("joints dry", words("Every joint dry and marked"), [_id("joints")], [self._dry("")], leaks),
            Gate("vent breathes", words("The vent lets air in and out"), [_id("vent")], [_seen("vent")], _VENT),
            Gate("dry on a slope", words("Nothing runs out on a slope"), [_id("slope")], [_seen("slope")], _SLOPE),
            Gate(
                "engine may run",
                words("Nothing open that has to be closed before the engine runs"),
                [_id("engine")],
                [NothingOpen("engine running"), *self._held()],
                words("What is loose, untied or missing now is found by the first fire."),
                firm=True,
            ),
            Gate(
                "dry after the engine",
                words("Every joint dry after the engine ran"),
                [_id("drive")],
                [self._dry("engine")],
                leaks,
            ),
            Gate(
                "hand-over",
                words("Nothing open, everything dry after the first drive"),
                [_id("hand-over")],
                [self._dry("drive"), NothingOpen("hand-over")],
                words("The customer drives off with whatever is open, and doesn't know of it."),
                firm=True,
            ),
        ]
        return found

    def _held(self) -> list[Condition]:
        """Every line with a pump; tightening one of its joints asks for it again."""
        rules, joints = self.rules, self.proof.joints
        return [
            LineHolds(
                one.id,
                one.name,
                one.kpa,
                rules.line_hold_min,
                rules.line_fall,
                tuple(joint.id for joint in joints if joint.circuit == one.id),
            )
            for one in self.pumped
        ]

    def _filled(self, step: FillStep, why: Words) -> Gate:
        key = f"pour-{step.id}"
        read = PouredIn(_id(key), step.litres, step.holds_l)
        if not step.litres:
            dry = words("The {cell} read while it is empty", cell=step.cell)
            empty = words("Without it nobody knows what is left when the needle stands at empty.")
            return Gate(key, dry, [_id(key)], [read], empty)
        below = in_words(step.below) if step.below else ""
        dry = words("Dry below the level: {names}", names=below) if below else words("Dry under the whole tank")
        conditions: list[Condition] = [
            read,
            Looked(f"dry {key}", dry),
            Looked(f"smell {key}", words("No smell of fuel behind any cover")),
        ]
        return Gate(key, words("Dry with {litres_l} in it", litres_l=step.litres), [_id(key)], conditions, why)

    def _dry(self, after: str) -> JointsDry:
        return JointsDry(
            tuple((one.id, one.name, tuple(one.marks)) for one in self.proof.joints), _id(after) if after else ""
        )


_VENT = words("A tank that can't breathe starves the engine, or bulges in the sun and breaks a seam.")
_SLOPE = words("Fuel that runs from the vent on a slope runs along the exhaust.")
_SEEN = {
    "vent": words("Air goes in and out by the vent, at the rate the engine draws"),
    "slope": words("No drop at vent, cap or overflow, nose up and nose down"),
}


def _seen(key: str) -> Looked:
    return Looked(f"seen {key}", _SEEN[key])


def _id(on: str) -> str:
    return f"{KIND}:{on}"
