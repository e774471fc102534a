"""Work on the shell: what stands inside goes in while an end is open, then it is cleaned, looked at, and closed."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass

from keel.design.features import Partition
from keel.solid.solids import Solids
from keel.studies.build.bench import Bench
from keel.studies.build.cautions import SOLVENT, SWARF, TIGHT, of_welding, preparing
from keel.studies.build.flat_work import MM_PER_M, slug
from keel.studies.build.operation import AllDone, Condition, FlushedClean, Gate, Looked, Operation
from keel.studies.inside.assembly import Assembly
from keel.studies.result import words
from keel.studies.sheet.model import Seam, Sheet
from keel.studies.sheet.parts import FlatPart

LET_IN = ("well", "sump", "relief", "roof step")
OPENING_AGAIN = 2.0
"""A seam that was closed is cut open and welded once more: so many times the work of its weld."""


@dataclass(frozen=True, slots=True)
class SeamGroup:
    """Seams that are welded in one go."""

    name: str
    seams: tuple[Seam, ...]

    @property
    def metres(self) -> float:
        """All of them [m]."""
        return sum(seam.length_mm for seam in self.seams) / MM_PER_M


def seam_groups(seams: Sequence[Seam]) -> tuple[list[SeamGroup], SeamGroup]:
    """The seams in the order in which they are welded, the one that shuts the tank apart.

    Parameters
    ----------
    seams : sequence of Seam
        Of a shell.

    Returns
    -------
    (list of SeamGroup, SeamGroup)
        Of a wrapper the closing seam first and its second end last; of plates the lid last; where all seams join two
        halves all are last.
    """
    closing = [seam for seam in seams if "closing seam" in seam.name or seam.name.startswith("seam ")]
    rest = [seam for seam in seams if seam not in closing]
    if closing:
        ends = _by_name(rest)
        name = closing[0].name if len(closing) == 1 else "body seams"
        return [SeamGroup(name, tuple(closing)), *ends[:-1]], ends[-1]
    lid = [seam for seam in rest if seam.at == "top"]
    lower = [seam for seam in rest if seam.at != "top"]
    if any(seam.at == "floor" for seam in lower) and not any(seam.name.startswith("upright") for seam in lower):
        return _by_name(lower), SeamGroup("lid", tuple(lid))
    if lower and not any(seam.at == "floor" for seam in lower):
        return [SeamGroup("upright edges", tuple(lower))], SeamGroup("lid", tuple(lid))
    return [], SeamGroup("all seams", tuple(seams))


def _by_name(seams: Sequence[Seam]) -> list[SeamGroup]:
    names = dict.fromkeys(seam.name.split(",")[0] for seam in seams)
    return [SeamGroup(name, tuple(seam for seam in seams if seam.name.split(",")[0] == name)) for name in names]


class ShellWork:
    """Operations from bent parts to a closed tank.

    Parameters
    ----------
    bench : Bench
        Makes operations.
    made : Sheet
        Parts and seams.
    solids : Solids
        What stands inside, and how much of it is welded.
    assembly : Assembly
        In which order it goes in.
    before : sequence of Operation
        What was done on the parts so far.
    """

    def __init__(
        self, bench: Bench, made: Sheet, solids: Solids, assembly: Assembly, before: Sequence[Operation]
    ) -> None:
        self.bench, self.made, self.solids, self.assembly, self.before = bench, made, solids, assembly, before
        self.metal = bench.metal
        self.first, self.last = seam_groups(made.seams)
        self.own = [part for part in made.parts if not part.feature]

    def closing(self) -> list[Operation]:
        """From bent parts to a closed tank, in the order in which it is done."""
        found: list[Operation] = [*self._let_in(), *self._joined(), *self._tacked(), *self._body(), *self._inside()]
        for group in self.first[1:]:
            before = [one.id for one in found]
            if self._shuts_a_cell:
                found += self._clean_and_look(group, before)
            found.append(self._first_end(group, before))
        found += self._clean_and_look(self.last, [one.id for one in found])
        return [*found, self._closed()]

    def gates(self) -> list[Gate]:
        """A last look before a room inside is shut: both ends shut one where a partition stands between them."""
        shut = [(self._first_end(group, ()), group) for group in self.first[1:] if self._shuts_a_cell]
        return [self._last_look(one, group) for one, group in [*shut, (self._closed(), self.last)]]

    def dressed(self, needs: Sequence[str]) -> Operation:
        """What is ground flush, once everything is plugged."""
        metres = sum(seam.length_mm for seam in self.made.seams) / MM_PER_M
        return self.bench.operation(
            "dress",
            "seams",
            words("Dress seams where they are seen or must be flat, nowhere else"),
            metres,
            parts=[part.name for part in self.own],
            needs=needs,
            tools=["file", "flap disc"],
            cautions=[words("Grinding thins the weld: stop flush, leave the bead where nobody sees it.")],
        )

    @property
    def _shuts_a_cell(self) -> bool:
        """Whether a partition stands across: each end then shuts a cell of its own."""
        axis = "xyz"[self.solids.section.axis]
        return any(isinstance(one, Partition) and one.axis == axis for one in self.solids.shell.features)

    def _last_look(self, shuts: Operation, group: SeamGroup) -> Gate:
        room = slug(group.name)
        again = "Afterwards it is {seam_m} of seam cut open and welded again"
        values: dict[str, float] = {"seam_m": group.metres}
        if shuts.minutes:
            again, values = again + ", about {again_min}", values | {"again_min": OPENING_AGAIN * shuts.minutes}
        seen = words("Looked into every corner with a light: no swarf, no rag, no tool")
        done = AllDone((f"clean:{room}", f"look:{room}"))
        conditions: list[Condition] = [done, FlushedClean(f"inside:{room}"), Looked(f"inside:{room}", seen, photo=True)]
        return Gate(
            f"inside:{room}",
            words("Inside clean and looked at before the {seam} shuts it", seam=group.name),
            [shuts.id],
            conditions,
            words(again + "; swarf left inside ruins pumps.", **values),
        )

    def _end(self, group: SeamGroup) -> tuple[list[FlatPart], list[str]]:
        """The part that some seams weld on, and which piece of it: of two alike one is the rear's."""
        word = group.name.split()[0]
        parts = [part for part in self.own if any(place.name == word for place in part.places)]
        return (parts, [word]) if parts else (self.own, [])

    @property
    def _body_parts(self) -> list[FlatPart]:
        """The shell's parts that aren't its ends."""
        ends = {part.name for group in (*self.first[1:], self.last) for part in self._end(group)[0]}
        return [part for part in self.own if part.name not in ends] or self.own

    def _made(self, parts: Sequence[FlatPart]) -> list[str]:
        """What has to be done on some parts before they are put together: the last that was done on each."""
        names = {part.name for part in parts}
        on = [one.id for one in self.before if names & set(one.parts) and one.kind not in ("prepare", "cut")]
        return on or ["deburr:edges"]

    def _of(self, feature: str) -> list[FlatPart]:
        return [part for part in self.made.parts if part.feature == feature]

    def _weld(
        self,
        on: str,
        said: str,
        metres: float,
        parts: Sequence[FlatPart],
        needs: Sequence[str],
        pieces: Sequence[str] = (),
    ) -> Operation:
        return self.bench.operation(
            "weld",
            on,
            words(said),
            metres,
            parts=[part.name for part in parts],
            pieces=pieces,
            needs=needs,
            tools=["torch", "clamps", "stainless brush"],
            consumables=[words("filler rod and gas for {weld_m} of seam", weld_m=metres)],
            steps=[preparing(self.metal)],
            cautions=of_welding(self.metal),
            basis=self.bench.basis(parts),
        )

    def _let_in(self) -> Iterator[Operation]:
        """Wells and sumps are welded in while the panel round them is within reach from both sides."""
        for cost in self.solids.costs:
            if cost.kind in LET_IN and cost.weld_mm:
                parts = self._of(cost.id)
                yield self._weld(
                    cost.id,
                    f"Weld {cost.name} together and in",
                    cost.weld_mm / MM_PER_M,
                    parts,
                    self._made(parts or self.own),
                )

    def _joined(self) -> Iterator[Operation]:
        crossed = self.assembly.crossed
        if crossed:
            ids = [cost.id for cost in self.solids.costs if cost.name in crossed]
            parts = [part for name in ids for part in self._of(name)]
            yield self.bench.operation(
                "join",
                "crossed",
                words("Slide {names} into each other and tack: they go in as one", names=", ".join(crossed)),
                len(crossed) - 1,
                parts=[part.name for part in parts],
                needs=self._made(parts),
                tools=["square", "clamps"],
                cautions=of_welding(self.metal),
                basis=self.bench.basis(parts),
            )

    def _tacked(self) -> Iterator[Operation]:
        body = self.first[0] if self.first else self.last
        yield self.bench.operation(
            "tack",
            "body",
            words("Fit the body and tack {seam}, diagonals equal", seam=body.name),
            body.metres,
            parts=[part.name for part in self._body_parts],
            needs=[*self._made(self.own), *(one.id for one in self._let_in())],
            tools=["clamps", "square", "tape for the diagonals"],
            steps=[preparing(self.metal)],
            cautions=of_welding(self.metal),
            cheap_now=[words("Brackets and blind bosses on the body: the torch reaches both faces.")],
            basis=self.bench.basis(self.own),
        )

    def _inside(self) -> Iterator[Operation]:
        """Plates and pots, each welded to the body before an end hides it."""
        ids = {cost.name: cost for cost in self.solids.costs}
        plates = [ids[name] for name in self.assembly.order if name in ids]
        pots = [cost for cost in self.solids.costs if cost.kind == "pot"]
        for cost in (*plates, *pots):
            parts = self._of(cost.id)
            needs = [*self._made(parts), "tack:body", *self._first_seam(), *(one.id for one in self._joined())]
            yield self._weld(f"inside-{cost.id}", f"Weld {cost.name} in", cost.weld_mm / MM_PER_M, parts, needs)

    def _first_seam(self) -> list[str]:
        return [f"weld:{slug(self.first[0].name)}"] if self.first else []

    def _body(self) -> Iterator[Operation]:
        for group in self.first[:1]:
            said = f"Weld the {group.name}, inside first"
            yield self._weld(slug(group.name), said, group.metres, self._body_parts, ["tack:body"])

    def _first_end(self, group: SeamGroup, before: Sequence[str]) -> Operation:
        """An end welded while the other is open: from inside first, unless a pan's flange or a partition forbids."""
        from_inside = not (self._shuts_a_cell or group.name.endswith(" pan"))
        said = f"Weld the {group.name}" + (", inside first" if from_inside else "")
        parts, pieces = self._end(group)
        return self._weld(slug(group.name), said, group.metres, parts, before, pieces)

    def _clean_and_look(self, group: SeamGroup, needs: Sequence[str]) -> list[Operation]:
        room, parts = slug(group.name), [part.name for part in self.made.parts]
        cleaned = self.bench.operation(
            "clean",
            room,
            words(
                "Clean the inside before the {seam} shuts it: brush, blow, flush until nothing comes", seam=group.name
            ),
            self._rooms,
            parts=parts,
            needs=needs,
            tools=["brush", "magnet", "light", "white rag"],
            consumables=[words("flushing fluid, caught and looked through")],
            cautions=[SOLVENT, SWARF],
            cheap_now=[words("The inside is within arm's reach now, and never again.")],
        )
        looked = self.bench.operation(
            "look",
            room,
            words("Look inside: every seam, every corner, every opening free"),
            self._rooms,
            parts=parts,
            needs=[cleaned.id],
            tools=["light", "mirror"],
        )
        return [cleaned, looked]

    def _closed(self) -> Operation:
        parts, pieces = self._end(self.last)
        return self.bench.operation(
            "close",
            slug(self.last.name),
            words("Close the tank: weld the {seam}", seam=self.last.name),
            self.last.metres,
            parts=[part.name for part in parts],
            pieces=pieces,
            needs=[f"look:{slug(self.last.name)}"],
            tools=["torch", "clamps"],
            consumables=[words("filler rod and gas for {weld_m} of seam", weld_m=self.last.metres)],
            steps=[preparing(self.metal)],
            cautions=[TIGHT, *of_welding(self.metal)],
            basis=self.bench.basis(self.own),
        )

    @property
    def _rooms(self) -> int:
        """Spaces between plates that are cleaned one by one."""
        return len(self.assembly.order) + 1
