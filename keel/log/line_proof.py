"""What the log says of the lines: joints as they were seen last, lines as they held."""

from collections.abc import Sequence
from datetime import datetime

from keel.log.facts import Facts, Said
from keel.log.handover_entries import JointSeen, LineRead
from keel.studies.build.operation import LineHolds
from keel.studies.result import Words, words

ROUNDED_KPA = 0.5
"""What is asked for is shown rounded: so much less is as much."""
MARK_WORDS = {
    "pull": "no pull on it yet",
    "pushed": "no mark yet where it is pushed to",
    "torque": "no mark yet that it is tight",
}


def last_seen(joint: str, said: Facts) -> Said[JointSeen] | None:
    """What was seen, or done, at a joint last.

    Parameters
    ----------
    joint : str
        Its id.
    said : Facts
        What stands in the log.

    Returns
    -------
    Said or None
        None where nobody looked.
    """
    seen = said.seen.get(joint)
    return seen[-1] if seen else None


def joint_lacks(joint: str, marks: Sequence[str], said: Facts, after: datetime | None) -> Words | None:
    """Why a joint doesn't count yet.

    Parameters
    ----------
    joint : str
        Its id.
    marks : sequence of str
        What it takes.
    said : Facts
        What stands in the log.
    after : datetime or None
        It has to be seen dry later than this.

    Returns
    -------
    Words or None
        None where it counts. A mark made before it was tightened doesn't stand.
    """
    last = last_seen(joint, said)
    if last is None or (after is not None and last.happened < after):
        return words("not looked at yet")
    if last.entry.found == "tightened":
        return words("tightened, and not seen dry since")
    if last.entry.found != "dry":
        return words("it leaks") if last.entry.found == "leak" else words("it weeps")
    stand = standing_marks(joint, marks, said)
    return next((words(MARK_WORDS[mark]) for mark in marks if mark not in stand), None)


def standing_marks(joint: str, marks: Sequence[str], said: Facts) -> list[str]:
    """The marks of a joint that count: good ones, made since it was tightened last.

    Parameters
    ----------
    joint : str
        Its id.
    marks : sequence of str
        What it takes.
    said : Facts
        What stands in the log.

    Returns
    -------
    list of str
        Of those that it takes.
    """
    tightened = tightened_at(joint, said)
    made = {mark: said.marked.get((joint, mark)) for mark in marks}
    return [
        mark
        for mark, one in made.items()
        if one is not None and one.entry.good and (tightened is None or one.happened >= tightened)
    ]


def tightened_at(joint: str, said: Facts) -> datetime | None:
    """When a joint was tightened last.

    Parameters
    ----------
    joint : str
        Its id.
    said : Facts
        What stands in the log.

    Returns
    -------
    datetime or None
        None where it never was.
    """
    return max((one.happened for one in said.seen.get(joint, []) if one.entry.found == "tightened"), default=None)


def holding(circuit: str, said: Facts) -> list[Said[LineRead]]:
    """The readings of a line since it was last set under pressure.

    Parameters
    ----------
    circuit : str
        Which line.
    said : Facts
        What stands in the log.

    Returns
    -------
    list of Said
        From the last one at minute 0 on.
    """
    taken = said.held.get(circuit, [])
    begun = max((n for n, one in enumerate(taken) if one.entry.minute == 0), default=None)
    return [] if begun is None else taken[begun:]


def line_lacks(asked: LineHolds, said: Facts) -> Words | None:
    """Why a line doesn't count as tight yet.

    Parameters
    ----------
    asked : LineHolds
        Working pressure, how long, how much it may lose.
    said : Facts
        What stands in the log.

    Returns
    -------
    Words or None
        None where it held, and none of its joints was tightened since.
    """
    taken = holding(asked.circuit, said)
    if not taken:
        said_so = "{name} not held yet: {working_kpa} for {hold_min}"
        return words(said_so, name=asked.name, working_kpa=asked.kpa, hold_min=asked.minutes)
    first, last = taken[0].entry, max((one.entry for one in taken), key=lambda one: one.minute)
    if any(one.entry.simulated for one in taken):
        return words("{name} held by a simulated gauge: it proves nothing", name=asked.name)
    if first.kpa < asked.kpa - ROUNDED_KPA:
        low = "{name} held at {held_kpa}, {working_kpa} wanted"
        return words(low, name=asked.name, held_kpa=first.kpa, working_kpa=asked.kpa)
    lost = first.kpa - min(one.entry.kpa for one in taken)
    if lost > asked.fall * first.kpa:
        return words("{name} lost {lost_kpa} of {held_kpa}", name=asked.name, lost_kpa=lost, held_kpa=first.kpa)
    if last.minute < asked.minutes:
        short = "{name} held for {minute_min}, {hold_min} wanted"
        return words(short, name=asked.name, minute_min=last.minute, hold_min=asked.minutes)
    ended = max(one.happened for one in taken)
    if any((at := tightened_at(joint, said)) is not None and at > ended for joint in asked.joints):
        return words("{name}: joints tightened since it was held, hold it again", name=asked.name)
    return None
