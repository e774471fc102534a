"""How far first fuel, lines and first fill are: each joint, each line, each step, as the log has them."""

from dataclasses import dataclass
from datetime import datetime
from typing import Literal

from keel.log.facts import Facts
from keel.log.handover_entries import Poured
from keel.log.line_proof import holding, joint_lacks, last_seen, line_lacks, standing_marks
from keel.studies.build.operation import JointsDry, LineHolds, PouredIn, Traveller
from keel.studies.result import Words


@dataclass(frozen=True, slots=True)
class JointState:
    """A joint as it was seen last.

    Attributes
    ----------
    found : str
        Dry, weep, leak or tightened; empty: nobody looked.
    marked : list of str
        Marks that stand, of those that it takes.
    lacks : Words or None
        Why it doesn't count yet; after engine and drive it is looked at again.
    by, when : str, datetime or None
        Who looked last.
    """

    id: str
    name: str
    marks: list[str]
    found: Literal["", "dry", "weep", "leak", "tightened"]
    marked: list[str]
    lacks: Words | None
    by: str
    when: datetime | None


@dataclass(frozen=True, slots=True)
class HeldState:
    """A line as it was held last, minutes and pressures [kPa]; `fall` is the share that it may lose meanwhile."""

    circuit: str
    name: str
    kpa: float
    minutes: float
    fall: float
    readings: list[tuple[float, float]]
    simulated: bool
    began: datetime | None
    lacks: Words | None


@dataclass(frozen=True, slots=True)
class PouredState:
    """A step of the fill as it was poured."""

    step: str
    poured: Poured
    by: str
    when: datetime


@dataclass(frozen=True, slots=True)
class Commission:
    """How far it is."""

    joints: list[JointState]
    held: list[HeldState]
    poured: list[PouredState]


def commission(traveller: Traveller, said: Facts) -> Commission:
    """How far first fuel, lines and first fill are.

    Parameters
    ----------
    traveller : Traveller
        What the design asks for.
    said : Facts
        What stands in the log.

    Returns
    -------
    Commission
        In the order in which things are asked for.
    """
    conditions = [one for gate in traveller.gates for one in gate.conditions]
    visits = [one for one in conditions if isinstance(one, JointsDry)]
    asked = visits[0] if visits else None
    after = max((said.done[one.after].happened for one in visits if one.after in said.done), default=None)
    steps = [one.subject for one in conditions if isinstance(one, PouredIn)]
    return Commission(
        joints=[_joint(joint, name, marks, said, after) for joint, name, marks in (asked.joints if asked else ())],
        held=[_held(one, said) for one in dict.fromkeys(one for one in conditions if isinstance(one, LineHolds))],
        poured=[
            PouredState(step, said.poured[step].entry, said.poured[step].author, said.poured[step].happened)
            for step in steps
            if step in said.poured
        ],
    )


def points_poured(found: Commission) -> dict[str, list[tuple[float, float]]]:
    """What each sender read, and how much was in its cell then.

    Parameters
    ----------
    found : Commission
        Steps of the fill as they were poured.

    Returns
    -------
    dict of str to list of (float, float)
        By sender: litres and ohms.
    """
    points: dict[str, list[tuple[float, float]]] = {}
    for one in found.poured:
        for sender, ohms in one.poured.ohms.items():
            points.setdefault(sender, []).append((one.poured.litres, ohms))
    return points


def _joint(joint: str, name: str, marks: tuple[str, ...], said: Facts, after: datetime | None) -> JointState:
    last = last_seen(joint, said)
    return JointState(
        id=joint,
        name=name,
        marks=list(marks),
        found=last.entry.found if last else "",
        marked=standing_marks(joint, marks, said),
        lacks=joint_lacks(joint, marks, said, after),
        by=last.author if last else "",
        when=last.happened if last else None,
    )


def _held(asked: LineHolds, said: Facts) -> HeldState:
    taken = holding(asked.circuit, said)
    return HeldState(
        circuit=asked.circuit,
        name=asked.name,
        kpa=asked.kpa,
        minutes=asked.minutes,
        fall=asked.fall,
        readings=[(one.entry.minute, one.entry.kpa) for one in taken],
        simulated=any(one.entry.simulated for one in taken),
        began=taken[0].happened if taken else None,
        lacks=line_lacks(asked, said),
    )
