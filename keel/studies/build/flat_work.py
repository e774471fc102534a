"""Work on sheet while it lies flat, and its bends."""

import re
from collections import defaultdict
from collections.abc import Iterator, Sequence
from itertools import pairwise
from math import dist

from keel.design.ports import Port
from keel.studies.build.bench import Bench, port_digest
from keel.studies.build.cautions import LOUD, PINCHED, ROLLED_IN, SHARP, SLIVERS, SOLVENT, of_welding
from keel.studies.build.operation import Operation
from keel.studies.result import words
from keel.studies.sheet.bending import Bending
from keel.studies.sheet.cutting import Cutting
from keel.studies.sheet.machines import is_sent
from keel.studies.sheet.parts import FlatPart, Spot

MM_PER_M, MM2_PER_M2 = 1e3, 1e6
BY_HAND = "no means typed"


def edge_m(part: FlatPart) -> float:
    """All edges of a part, its openings' too, over all pieces of it [m].

    Parameters
    ----------
    part : FlatPart
        As it is cut.

    Returns
    -------
    float
        Metres.
    """
    rings = [part.outline, *part.holes]
    return part.quantity * sum(_round(ring) for ring in rings) / MM_PER_M


def _round(ring: Sequence[Spot]) -> float:
    return sum(dist(a, b) for a, b in pairwise([*ring, ring[0]]))


def slug(name: str) -> str:
    """A name as a part of an operation's id."""
    return re.sub(r"[^a-z0-9]+", "-", name.lower()).strip("-")[:60] or "other"


def titles(parts: Sequence[FlatPart]) -> str:
    """Parts by their titles, how many of each."""
    return "; ".join(part.title.lower() + (f" × {part.quantity}" if part.quantity > 1 else "") for part in parts)


class FlatWork:
    """Operations on flats.

    Parameters
    ----------
    bench : Bench
        Makes operations.
    parts : sequence of FlatPart
        As they are cut.
    cutting : sequence of Cutting
        What cuts each.
    bendings : sequence of Bending
        What bends each.
    ports : sequence of Port
        What is welded in.
    sent_out : sequence of str
        Parts that somebody else makes.
    """

    def __init__(
        self,
        bench: Bench,
        parts: Sequence[FlatPart],
        cutting: Sequence[Cutting],
        bendings: Sequence[Bending],
        ports: Sequence[Port],
        sent_out: Sequence[str],
    ) -> None:
        self.bench, self.parts, self.ports, self.sent_out = bench, parts, ports, sent_out
        self.by = {one.name: next(iter(one.by), BY_HAND) for one in cutting}
        self.loud = {one.name for one in cutting if one.loud}
        self.on = {one.name: one.machine for one in bendings}

    def all(self) -> list[Operation]:
        """In the order in which they are done."""
        cut, seats = list(self._cut()), list(self._seats())
        deburred = self._deburred([one.id for one in cut])
        return [*self._prepared(), *cut, deburred, *seats, *self._sent(seats), *self._bent(seats)]

    def _prepared(self) -> Iterator[Operation]:
        area = sum(2 * part.area_mm2 * part.quantity for part in self.parts) / MM2_PER_M2
        sheets = sorted({part.thickness_mm for part in self.parts})
        yield self.bench.operation(
            "prepare",
            "sheet",
            words("Clean and prepare both faces of the sheet while it is flat"),
            area,
            parts=[part.name for part in self.parts],
            tools=["degreaser", "clean wipes"],
            cautions=[SOLVENT, SHARP],
            cheap_now=[words("A surface finish on what will be inside: nothing reaches it later.")],
            basis={"sheet": ", ".join(f"{mm:g}" for mm in sheets)},
        )

    def _cut(self) -> Iterator[Operation]:
        groups: dict[str, list[FlatPart]] = defaultdict(list)
        for part in self.parts:
            groups[self.by.get(part.name, BY_HAND)].append(part)
        for means, cut in groups.items():
            said = "Cut {parts}" if means == BY_HAND else "Cut {parts} with the {means}"
            holes = [part.title.lower() for part in cut if part.bores]
            yield self.bench.operation(
                "cut",
                slug(means),
                words(said, parts=titles(cut), means=means[:1].lower() + means[1:]),
                sum(edge_m(part) for part in cut),
                parts=[part.name for part in cut],
                needs=["prepare:sheet"],
                tools=[*([] if means == BY_HAND else [means]), "scriber", "two datum edges"],
                cautions=[SLIVERS, SHARP, *([LOUD] if any(part.name in self.loud for part in cut) else [])],
                cheap_now=[words("Holes of ports in {parts}: drilled flat, from two edges.", parts=", ".join(holes))]
                if holes
                else [],
                basis=self.bench.basis(cut),
            )

    def _deburred(self, cut: Sequence[str]) -> Operation:
        return self.bench.operation(
            "deburr",
            "edges",
            words("Deburr all edges and holes, both faces"),
            sum(edge_m(part) for part in self.parts),
            parts=[part.name for part in self.parts],
            needs=cut,
            tools=["file", "deburring blade"],
            cautions=[SHARP],
            basis=self.bench.basis(self.parts),
        )

    def _seats(self) -> Iterator[Operation]:
        """Bosses and rings go in while the part lies flat: a straight table draws it flat again."""
        for port in self.ports:
            if port.seat is None:
                continue
            inside = [part for part in self.parts if any(bore.port == port.id for bore in part.bores)]
            yield self.bench.operation(
                "seat",
                port.id,
                words(
                    "Weld the {seat} of {port} into {part} while it is flat",
                    seat=port.seat.kind,
                    port=port.name,
                    part=titles(inside[:1]) or "its panel",
                ),
                1,
                parts=[port.id, *(part.name for part in inside)],
                needs=["deburr:edges"],
                tools=["clamps", "backing bar", f"a gauge for {port.seat.thread}" if port.seat.thread else "square"],
                consumables=[words("filler rod and gas")],
                cautions=of_welding(self.bench.metal),
                cheap_now=[words("Blind ports that may be wanted later: no heat once it is proved or lined.")],
                basis={port.name: port_digest(port)} | self.bench.basis(inside),
            )

    def _sent(self, seats: Sequence[Operation]) -> Iterator[Operation]:
        sent = [part for part in self.parts if is_sent(part.name, self.sent_out)]
        if sent:
            yield self.bench.operation(
                "send",
                "parts",
                words("Send out {parts}, with the sheet that says what must come back", parts=titles(sent)),
                sum(part.quantity for part in sent),
                parts=[part.name for part in sent],
                needs=["deburr:edges", *(one.id for one in seats if set(one.parts) & {p.name for p in sent})],
                basis=self.bench.basis(sent),
            )

    def _bent(self, seats: Sequence[Operation]) -> Iterator[Operation]:
        for part in self.parts:
            if is_sent(part.name, self.sent_out) or not (part.bends or part.rolls):
                continue
            needs = ["deburr:edges", *(one.id for one in seats if part.name in one.parts)]
            if part.rolls:
                yield self._rolled(part, needs)
            if part.bends:
                yield self._on_the_brake(part, needs + ([f"roll:{part.name}"] if part.rolls else []))

    def _on_the_brake(self, part: FlatPart, needs: Sequence[str]) -> Operation:
        machine = self.on.get(part.name, "the brake")
        return self.bench.operation(
            "bend",
            part.name,
            words("Bend {part}, {n} bends, on {machine}", part=titles([part]), n=len(part.bends), machine=machine),
            len(part.bends) * part.quantity,
            parts=[part.name],
            needs=needs,
            tools=[machine, "bend sheet", "protractor"],
            cautions=[PINCHED],
            basis=self.bench.basis([part]),
        )

    def _rolled(self, part: FlatPart, needs: Sequence[str]) -> Operation:
        return self.bench.operation(
            "roll",
            part.name,
            words("Roll {part}", part=titles([part])),
            part.quantity,
            parts=[part.name],
            needs=needs,
            tools=[self.bench.workshop.rolls.name, "template of the radius"],
            cautions=[ROLLED_IN],
            basis=self.bench.basis([part]),
        )
