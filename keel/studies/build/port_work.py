"""Work at the openings: plugged while the tank is built, then fitted one by one, each behind its own looks."""

from collections.abc import Iterator, Sequence
from typing import Literal

from keel.design.gauge import Sender
from keel.design.ports import Port
from keel.design.workshop import HouseRules
from keel.reference.compatibility import OF_RUBBER
from keel.reference.fuels import FuelName
from keel.studies.build.bench import Bench, port_digest
from keel.studies.build.operation import (
    AllDone,
    Condition,
    Count,
    CountsMatch,
    FlushedClean,
    Gate,
    Looked,
    MeasurementsAgree,
    Operation,
    Tightening,
)
from keel.studies.ports.reach import CutStep, Reach
from keel.studies.ports.torque import PASSES, star_order
from keel.studies.result import Words, words

PLUGS = "plugs"
FINISHED = "look:finished"
COUNTED: tuple[Literal["in", "out"], ...] = ("in", "out")
HOT_KINDS = ("seat", "weld", "tack", "join", "close", "dress")
"""Work with heat or sparks: all of it comes before seals, floats and linings."""


class PortWork:
    """Operations at ports and senders.

    Parameters
    ----------
    bench : Bench
        Makes operations.
    ports, senders : sequence
        What is fitted.
    reaches : sequence of Reach
        Hangers against the depth, and how they are cut.
    before : sequence of Operation
        What was done so far.
    fuel : FuelName
        What seals have to stand.
    """

    def __init__(
        self,
        bench: Bench,
        ports: Sequence[Port],
        senders: Sequence[Sender],
        reaches: Sequence[Reach],
        before: Sequence[Operation],
        fuel: FuelName,
    ) -> None:
        self.fuel = fuel
        self.bench, self.ports, self.senders, self.before = bench, ports, senders, before
        self.reaches = {reach.id: reach for reach in reaches}
        self.rules: HouseRules = bench.workshop.rules
        self.fitted = [port for port in ports if not port.capped]

    def all(self) -> list[Operation]:
        """In the order in which they are done."""
        openings, found = [port.id for port in self.ports], []
        if not openings:
            return []
        for port in self.fitted:
            found += [*self._trimmed(port), self._fitted(port)]
        found += [self._sender(sender) for sender in self.senders]
        out = self._unplugged(openings, [one.id for one in found])
        return [*found, out, self._finished(openings, [out.id])]

    def gates(self) -> list[Gate]:
        """Before each fitting, before each cut, and at the end."""
        if not self.ports:
            return []
        hot = tuple(one.id for one in self.before if one.kind in HOT_KINDS)
        behind = [f"fit:{port.id}" for port in self.fitted] + [f"fit:{_sender_id(one)}" for one in self.senders]
        why = words(
            "Seals, floats and linings don't bear heat, and vapour burns: a weld after this means all out again."
        )
        found = [Gate("heat", words("All heat is done"), behind, [AllDone(hot)], why)]
        for port in self.fitted:
            found += [*self._measured(port), *self._looks(port)]
        found += [self._bench_reading(sender) for sender in self.senders]
        return [*found, self._counted()]

    def _counted(self) -> Gate:
        """Whatever was counted in is counted out before the tank leaves."""
        kinds = [PLUGS, *(_screws(port) for port in self.fitted if port.seat and port.seat.bolts)]
        lost = words(
            "A plug left in starves the engine or bursts the tank at its first fill; a screw left in jams a pump."
        )
        return Gate(
            "counts",
            words("All that was counted in is out again"),
            [FINISHED],
            [CountsMatch(tuple(kinds)), CountsMatch()],
            lost,
        )

    def plugged(self, needs: Sequence[str]) -> list[Operation]:
        """All openings shut before anything is ground: none where there are no openings."""
        openings = [port.id for port in self.ports]
        return [self._plugged(openings, needs)] if openings else []

    def _plugged(self, openings: Sequence[str], needs: Sequence[str]) -> Operation:
        return self.bench.operation(
            "plug",
            "in",
            words("Plug all {n} openings and count the plugs in", n=len(openings)),
            len(openings),
            parts=openings,
            needs=needs,
            consumables=[words("{n} plugs, coloured, on tethers", n=len(openings))],
            counts=[Count(PLUGS, "in", len(openings))],
        )

    def _unplugged(self, openings: Sequence[str], needs: Sequence[str]) -> Operation:
        return self.bench.operation(
            "plug",
            "out",
            words("Count the plugs out: {n} went in", n=len(openings)),
            len(openings),
            parts=openings,
            needs=needs,
            counts=[Count(PLUGS, "out", len(openings))],
        )

    def _finished(self, openings: Sequence[str], needs: Sequence[str]) -> Operation:
        return self.bench.operation(
            "look",
            "finished",
            words("Look the tank over: every opening fitted or capped, nothing left on the bench"),
            1,
            parts=openings,
            needs=needs,
            cheap_now=[
                words("The tank is still out: bend rigid lines to it, label hoses and wires, clean and paint its bay."),
            ],
        )

    def _trimmed(self, port: Port) -> Iterator[Operation]:
        """A hanger's pieces, each cut to length once: the order is that of the cut sheet."""
        reach = self.reaches.get(port.id)
        cuts = [step for step in reach.steps if step.length_mm is not None] if reach else []
        if reach is None or not cuts:
            return
        said = [_cut_step(step) for step in reach.steps]
        yield self.bench.operation(
            "trim",
            port.id,
            words("Cut the hanger of {port} to length", port=port.name),
            len(cuts),
            parts=[port.id],
            needs=["plug:in"],
            tools=["tube cutter", "square", "depth stick"],
            cautions=[words("A cut too short can't be undone: measure twice, by two ways.")],
            steps=said,
            basis={port.name: port_digest(port)},
        )

    def _fitted(self, port: Port) -> Operation:
        seat = port.seat
        bolts = seat.bolts if seat and seat.bolts else 0
        trimmed = [one.id for one in self._trimmed(port)]
        return self.bench.operation(
            "fit",
            port.id,
            words("Fit {port}", port=port.name),
            1,
            parts=[port.id],
            needs=["plug:in", *trimmed],
            tools=[*(["torque spanner"] if bolts else ["spanner"]), "mirror"],
            consumables=[self._seal(seat.seal)] if seat and seat.seal else [],
            tightening=Tightening(star_order(bolts), seat.torque_nm, list(PASSES)) if seat and bolts else None,
            steps=_tightening(bolts, seat.torque_nm if seat else None),
            counts=[Count(_screws(port), way, bolts) for way in COUNTED] if bolts else [],
            basis={port.name: port_digest(port)},
        )

    def _seal(self, seal: str) -> Words:
        """A seal, and what the fuel does to it."""
        against = OF_RUBBER.get((seal, self.fuel))
        if against is None:
            return words("{seal} seal, stands {fuel}; no sealer but what the maker names", seal=seal, fuel=self.fuel)
        verdict = "not for" if against.verdict == "no" else "with care in"
        return words(
            "{seal} seal, {verdict} {fuel}: {why}", seal=seal, verdict=verdict, fuel=self.fuel, why=against.why
        )

    def _sender(self, sender: Sender) -> Operation:
        return self.bench.operation(
            "fit",
            _sender_id(sender),
            words("Fit {sender}", sender=sender.name),
            1,
            parts=[sender.id],
            needs=["plug:in"],
            tools=["ohmmeter", "spanner"],
        )

    def _measured(self, port: Port) -> Iterator[Gate]:
        reach = self.reaches.get(port.id)
        for one in self._trimmed(port):
            assert reach is not None
            depth = MeasurementsAgree(f"depth:{port.id}", reach.depth_mm, self.rules.measure_mm)
            yield Gate(
                f"measure:{port.id}",
                words("Depth under {port} measured twice, by two ways", port=port.name),
                [one.id],
                [depth],
                words("A hanger cut too short hangs its inlet high: {port} then needs a new one.", port=port.name),
            )

    def _looks(self, port: Port) -> Iterator[Gate]:
        """What is out of sight once it is in."""
        conditions: list[Condition] = [
            Looked(f"{name}:{port.id}", said, photo=photo) for name, said, photo in _looks_at(port)
        ]
        if port.hanger or port.hangs_mm:
            conditions.insert(0, FlushedClean(f"swarf:{port.id}"))
        if not conditions:
            return
        yield Gate(
            f"fit:{port.id}",
            words("Ready to fit {port}", port=port.name),
            [f"fit:{port.id}"],
            conditions,
            words("Once {port} is in, none of this is seen again without taking it out.", port=port.name),
        )

    def _bench_reading(self, sender: Sender) -> Gate:
        said = words("{sender} read on the bench at both ends of its travel", sender=sender.name)
        return Gate(
            f"bench:{sender.id}",
            said,
            [f"fit:{_sender_id(sender)}"],
            [Looked(f"bench:{sender.id}", said)],
            words("A sender that sticks is found now by hand, later by an empty tank."),
        )


def _screws(port: Port) -> str:
    return f"screws of {port.name}"


def _sender_id(sender: Sender) -> str:
    return f"sender-{sender.id}"


def _looks_at(port: Port) -> Iterator[tuple[str, Words, bool]]:
    """Checks by what a port has: name, words, whether a photo is asked for."""
    seat = port.seat
    if port.hanger or port.part:
        yield "caps", words("Transport caps off, each counted out"), False
    if seat and (seat.seal or seat.kind in ("flange", "lock ring")):
        yield "dry", words("Tried dry, without seal or sealer: it goes home by hand"), False
        yield "gasket", words("Gasket or seal on first, the right way round"), False
    if port.stop_deg is not None or (seat and seat.kind == "lock ring"):
        yield "stop", words("Ring at its stop, tab in its notch"), True
    if port.hanger:
        yield "pull", words("Pulled on every latch, clip, hose and strainer of it: nothing comes off"), False
    if port.hanger or port.hangs_mm:
        yield "pinch", words("No wire or hose pinched under the flange"), True


def _cut_step(step: CutStep) -> Words:
    length = "" if step.length_mm is None else "{length_sheet}, "
    values = step.how.values | ({} if step.length_mm is None else {"length_sheet": step.length_mm})
    after = "" if step.undone else "; it can't be undone"
    return Words(f"{step.what.capitalize()}: {length}{step.how.text}{after}", values)


def _tightening(bolts: int, torque_nm: float | None) -> list[Words]:
    """Bolt by bolt, pass by pass; none where there are no bolts."""
    if not bolts:
        return []
    order = ", ".join(map(str, star_order(bolts)))
    steps = [words("{n} screws and washers counted onto the bench", n=bolts)]
    for number, share in enumerate(PASSES, start=1):
        said = f"Pass {number}, bolts {order}: "
        full = words(said + "{share_pct} of full torque", share_pct=share)
        steps.append(words(said + "{torque_nm}", torque_nm=share * torque_nm) if torque_nm else full)
    return [*steps, words("None left on the bench")]
