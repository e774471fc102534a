"""Work at the mount: matched with the tank in place, welded with it out, masked, reinforced, bolted down last."""

from collections.abc import Sequence
from math import ceil

from keel.design.mount import Bearer, Foot, Mount, Stop
from keel.studies.build.bench import Bench
from keel.studies.build.operation import AllDone, Condition, Count, Gate, Looked, Operation
from keel.studies.mount.straps import StrapPath
from keel.studies.result import Words, in_words, words

MM_PER_M = 1000.0
ONE_LIFTS_KG = 25.0
"""More than that is lifted by two."""
MATCH, FEET, MASK, MOUNTED, MARKED = "join:match", "weld:feet", "plug:masking", "fit:mount", "look:mount"
STRAP = "strap-"
"""What operations on a strap are called by: made beside the tank, they undo no leak test."""


class MountWork:
    """Operations and gates of the mount.

    Parameters
    ----------
    bench : Bench
        Makes operations.
    mount : Mount
        What holds the tank.
    paths : sequence of StrapPath
        Its straps as they lie.
    empty_kg : float or None
        What is lifted; None where it isn't known.
    """

    def __init__(self, bench: Bench, mount: Mount, paths: Sequence[StrapPath], empty_kg: float | None) -> None:
        self.bench, self.mount, self.empty_kg = bench, mount, empty_kg
        self.straps = [path for path in paths if not path.problem]
        down: list[Foot | Stop | Bearer] = [*mount.feet, *mount.stops, *mount.bearers]
        self.matched = [one.name for one in down if one.match_made]
        self.matched += [s.name for s in mount.straps if s.low.match_made or s.high.match_made]
        self.welded = [foot for foot in mount.feet if foot.weld_mm > 0]
        self.is_held = bool(self.straps or down)

    def hot(self, needs: Sequence[str]) -> list[Operation]:
        """Marked, drilled or tacked with the tank in place; welded with it out; before its leak test."""
        found: list[Operation] = []
        if self.matched:
            found.append(self._match(needs))
        if self.welded:
            metres = sum(foot.weld_mm for foot in self.welded) / MM_PER_M
            said = words("Weld {names} to the tank, tank out of the vehicle", names=_named(self.welded))
            before = [MATCH] if self.matched else needs
            cautions = [words("Heat near the vehicle's lines, carpet and wiring burns it down: the tank is out first.")]
            found.append(self.bench.operation("weld", "feet", said, metres, needs=before, cautions=cautions))
        return found

    def _match(self, needs: Sequence[str]) -> Operation:
        return self.bench.operation(
            "join",
            "match",
            words("Tank in the vehicle, dry: mark, drill or tack {names} to it", names=in_words(self.matched)),
            len(self.matched),
            needs=needs,
            tools=["clamps", "pads as thick as the finished ones", "transfer punch"],
            cautions=[self._heavy(), words("Swarf falls into the open tank: every opening plugged first.")],
            steps=[
                words("Set the tank down on its pads, with all that stands on it clear."),
                words("Mark or tack, with no heat but a tack, and note which end is which."),
                words("Lift it out before anything is drilled through or welded out."),
            ],
        )

    def made(self) -> list[Operation]:
        """Straps cut and bent."""
        found: list[Operation] = []
        for path in self.straps:
            said = words("Cut {name} {cut_mm} long and mark its bends from one end", name=path.name, cut_mm=path.cut_mm)
            cut = self.bench.operation("cut", f"{STRAP}{path.id}", said, 2 * path.cut_mm / MM_PER_M)
            bent = words("Bend {name}, {n} bends, its loops last", name=path.name, n=len(path.marks))
            needs = [cut.id]
            found += [cut, self.bench.operation("bend", f"{STRAP}{path.id}", bent, len(path.marks) + 2, needs=needs)]
        return found

    def masked(self, needs: Sequence[str], covering: Sequence[Operation]) -> list[Operation]:
        """What paint and lining must not reach."""
        if not covering or not self.is_held:
            return []
        said = words("Mask by the list: threads, sealing faces, the bonding point, undersides of feet")
        return [self.bench.operation("plug", "masking", said, 1, needs=needs, tools=["masking list", "plugs"])]

    def mounted(self, needs: Sequence[str]) -> list[Operation]:
        """Structure made good, then the tank bolted down: all loose first, tightened last."""
        if not self.is_held:
            return []
        found = [
            self.bench.operation(
                "look",
                f"cut-{cut.id}",
                words(
                    "Make {name} good: {reinforcement}", name=cut.name, reinforcement=cut.reinforcement or "not said"
                ),
                1,
                cautions=[words("A vehicle that is cut and not made good folds up there. A licensed trade signs.")],
            )
            for cut in self.mount.cuts
        ]
        bolts = sum(place.bolts.count for place in self.mount.bolted())
        found.append(
            self.bench.operation(
                "fit",
                "mount",
                words("Set the tank on its pads and bolt it down: all bolts loose first, tightened last"),
                max(1, len(self.mount.bolted())),
                needs=[*needs, *(one.id for one in found), *(f"bend:{STRAP}{path.id}" for path in self.straps)],
                tools=["torque spanner", "new self-locking nuts", "marking paint"],
                cautions=[
                    self._heavy(),
                    words("Fingers between tank and bearer are crushed: it is lowered on blocks."),
                ],
                steps=[
                    words("Pads on, none of them where water stands."),
                    words("All bolts in by hand, then straps drawn up in turn until the tank no longer moves."),
                    words("Tighten from the middle outward; both ends of a strap in turn."),
                ],
                counts=[Count("mount bolts", "in", bolts)],
            )
        )
        marked = words("Every mount bolt tightened and marked, no strap or pad on an edge")
        found.append(
            self.bench.operation("look", "mount", marked, 1, needs=[MOUNTED], tools=["marking paint", "mirror"])
        )
        return found

    def gates(self, operations: Sequence[Operation]) -> list[Gate]:
        """The tank is out before heat at its mounts; cut structure is made good before it goes in.

        Parameters
        ----------
        operations : sequence of Operation
            Those of the traveller: gates stand before those alone that are there.

        Returns
        -------
        list of Gate
            The second is passed by nobody unmet.
        """
        there = {one.id for one in operations}
        found: list[Gate] = []
        if FEET in there:
            looked: list[Condition] = [
                Looked("tank out", words("The tank is out of the vehicle, and so are its fumes"))
            ]
            why = words("A weld beside carpet, wiring and lines sets the vehicle on fire.")
            found.append(Gate("mount-out", words("Tank out before its feet are welded"), [FEET], looked, why))
        cuts = [cut for cut in self.mount.cuts if f"look:cut-{cut.id}" in there]
        if cuts:
            conditions: list[Condition] = [AllDone(tuple(f"look:cut-{cut.id}" for cut in cuts))]
            conditions += [
                Looked(f"cut {cut.id}", words("{name} is made good, seen from both sides", name=cut.name), photo=True)
                for cut in cuts
            ]
            why = words("Behind the tank nobody sees it again, and the vehicle gives way there.")
            title = words("Cut structure made good")
            found.append(Gate("mount-structure", title, [MOUNTED], conditions, why, firm=True))
        return found

    def _heavy(self) -> Words:
        if self.empty_kg is None:
            return words("A tank is lifted by two, and its lower edge is guided by a third who sees it.")
        people = max(1, ceil(self.empty_kg / ONE_LIFTS_KG))
        return words(
            "The empty tank weighs {mass_kg}, fuel left in it on top: {people} to lift, backs straight, one looks.",
            mass_kg=self.empty_kg,
            people=people,
        )


def _named(feet: Sequence[Foot]) -> str:
    return in_words([foot.name for foot in feet])
