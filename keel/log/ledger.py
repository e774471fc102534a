"""The ledger of open items: what the design leaves open, what the log does, and what somebody wrote down."""

from collections.abc import Iterator, Sequence
from dataclasses import replace

from keel.findings.open_items import STEPS, OpenItem
from keel.log.facts import CAPS, Facts
from keel.log.gates import GateState, differing
from keel.log.line_proof import joint_lacks, last_seen
from keel.log.proofs import CellProof
from keel.studies.build.handover_work import KIND
from keel.studies.build.operation import Gate, JointsDry, NothingOpen, Operation, Traveller
from keel.studies.result import Words, words


def ledger(
    traveller: Traveller,
    order: Sequence[Operation],
    said: Facts,
    gates: Sequence[GateState],
    proofs: Sequence[CellProof],
    drawn: Sequence[OpenItem],
) -> list[OpenItem]:
    """Everything open, what has to be closed first before the rest.

    Parameters
    ----------
    traveller : Traveller
        What the design asks for.
    order : sequence of Operation
        As it is planned.
    said : Facts
        What stands in the log.
    gates : sequence of GateState
        Those that don't go by the ledger.
    proofs : sequence of CellProof
        Leak tests.
    drawn : sequence of OpenItem
        What the design leaves open.

    Returns
    -------
    list of OpenItem
        What somebody lets stay is among them and says why.
    """
    found = [
        *drawn,
        *_undone(order, said),
        *_passed_unmet(gates, order),
        *_proofs(proofs, said),
        *_away(said),
        *_caps(said),
        *_joints(traveller, said),
        *_left(said),
    ]
    return sorted((_as_it_stands(one, said) for one in found), key=lambda one: STEPS.index(one.before))


def goes_by_ledger(gate: Gate) -> bool:
    """Whether a gate asks for nothing to be open.

    Parameters
    ----------
    gate : Gate
        As the design asks for it.

    Returns
    -------
    bool
        Such a gate is in no ledger itself.
    """
    return any(isinstance(one, NothingOpen) for one in gate.conditions)


def _as_it_stands(item: OpenItem, said: Facts) -> OpenItem:
    """Who lets something stay answers for what was said of it then, not for what has become of it."""
    closed = said.closed.get(item.key)
    if closed is None or not closed.entry.stays or closed.entry.said not in ("", item.what.plain()):
        return item
    return replace(item, stays=closed.entry.reason.strip(), by=closed.author)


def _undone(order: Sequence[Operation], said: Facts) -> Iterator[OpenItem]:
    """Steps of the build that are open, told together; what covers the metal by itself."""
    settled = {*said.done, *said.skipped}
    left = [one for one in order if one.kind != KIND and one.id not in settled]
    bare = [one for one in left if one.covers]
    for one in bare:
        yield OpenItem(f"step {one.id}", "to be coated", one.title, "first fuel", "build", one.id)
    rest = [one for one in left if one not in bare]
    if rest:
        what = words("{n} steps of the build are open, next: {title}", n=len(rest), title=rest[0].title.plain())
        yield OpenItem("steps", "missing", what, "first fuel", "build", rest[0].id)


def _passed_unmet(gates: Sequence[GateState], order: Sequence[Operation]) -> Iterator[OpenItem]:
    kinds = {one.id: one.kind for one in order}
    for gate in gates:
        if gate.standing == "overridden" and gate.override is not None:
            commission = any(kinds.get(one) == KIND for one in gate.gate.before)
            what = words("{title}: passed unmet, {reason}", title=gate.gate.title.plain(), reason=gate.override.reason)
            station = "handover" if commission else "build"
            yield OpenItem(
                f"gate {gate.gate.id}",
                "overridden",
                what,
                "hand-over",
                station,
                gate.gate.before[0],
                by=gate.override.name,
            )


def _proofs(proofs: Sequence[CellProof], said: Facts) -> Iterator[OpenItem]:
    """A cell whose test was begun and has not passed; leaks that nobody has repaired."""
    for one in proofs:
        if one.standing not in ("passed", "not tested"):
            why = one.lacks.plain() if one.lacks else one.standing
            what = words("Leak test of the {cell}: {why}", cell=one.cell, why=why)
            yield OpenItem(f"proof {one.cell}", "not proved", what, "first fuel", "proof", one.cell)


def _away(said: Facts) -> Iterator[OpenItem]:
    for name, sent in said.sent.items():
        back = said.back.get(name)
        if back is None or not back.entry.whole:
            what = words("{work}, sent to {to}: not back as it should be", work=sent.entry.work, to=sent.entry.to)
            yield OpenItem(f"sent {name}", "missing", what, "first fuel", "build", sent.entry.subject, by=sent.author)


def _caps(said: Facts) -> Iterator[OpenItem]:
    for kind in differing((), said):
        into, out = (said.counts.get((kind, way), 0) for way in ("in", "out"))
        what = words("{kind}: {into} in, {out} out", kind=kind, into=into, out=out)
        temporary = kind == CAPS
        yield OpenItem(
            f"count {kind}"[:120], "temporary" if temporary else "missing", what, "first fuel", "build", kind
        )


def _joints(traveller: Traveller, said: Facts) -> Iterator[OpenItem]:
    """Joints that somebody has looked at and that don't hold yet; the others belong to the step that visits them."""
    asked = next((one for gate in traveller.gates for one in gate.conditions if isinstance(one, JointsDry)), None)
    for joint, name, marks in asked.joints if asked else ():
        if last_seen(joint, said) is None:
            continue
        lacks: Words | None = joint_lacks(joint, marks, said, None)
        if lacks is not None:
            what = words("{name}: {lacks}", name=name, lacks=lacks.plain())
            yield OpenItem(f"joint {joint}"[:120], "loose", what, "engine running", "handover", joint)


def _left(said: Facts) -> Iterator[OpenItem]:
    for name, left in said.left.items():
        key = f"left {name}"
        if key in said.closed and not said.closed[key].entry.stays:
            continue
        entry = left.entry
        yield OpenItem(key, entry.why, words("{what}", what=entry.what), entry.before, "handover", name, by=left.author)
