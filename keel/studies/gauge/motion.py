"""How the needle follows the float, and ohms and litres from each other."""

from collections.abc import Callable
from math import radians, sin

from keel.design.gauge import Gauge, Sender, SwingArm
from keel.solid.solids import Solids
from keel.studies.gauge.column import Column, column_of
from keel.studies.gauge.swing import Slide, Swing, swing_for

CLEAR_MM = 3.0
"""Room kept between float and floor or roof where no mark is typed [mm]."""
TUBE_ENDS_MM = 8.0
"""A tube sender stops this far off floor and roof [mm]."""


def marks_of(sender: Sender, column: Column) -> tuple[float, float]:
    """Heights of the empty and the full mark: typed, or just clear of floor and roof [mm]."""
    if isinstance(sender.action, SwingArm):
        clear = sender.action.float_mm / 2 + CLEAR_MM
    else:
        clear = TUBE_ENDS_MM
        if sender.action.length_mm is not None:
            bottom = column.depth_mm - TUBE_ENDS_MM - sender.action.length_mm
            return (
                max(0.0, bottom) if sender.empty_mm is None else sender.empty_mm,
                column.depth_mm - clear if sender.full_mm is None else sender.full_mm,
            )
    return (
        min(clear, column.depth_mm / 4) if sender.empty_mm is None else sender.empty_mm,
        max(column.depth_mm - clear, column.depth_mm * 3 / 4) if sender.full_mm is None else sender.full_mm,
    )


def motion_of(sender: Sender, column: Column) -> Swing | Slide:
    """How the needle follows the float.

    Parameters
    ----------
    sender : Sender
        Any sender.
    column : Column
        Heights and litres where it hangs.

    Returns
    -------
    Swing or Slide
        A swinging arm or a float on a rod.
    """
    empty, full = marks_of(sender, column)
    arm = sender.action
    if not isinstance(arm, SwingArm):
        return Slide(empty, full)
    if arm.method == "new arm and pivot":
        return swing_for(arm, empty, full)
    pivot = full - arm.made_arm_mm * sin(radians(arm.full_stop_deg)) if arm.pivot_mm is None else arm.pivot_mm
    return Swing(arm.made_arm_mm, pivot, arm.empty_stop_deg, arm.full_stop_deg)


def litres_for_ohms(sender: Sender, column: Column, ohms: float) -> float:
    """Litres that a sender's ohms stand for; beyond its stops those at the stop [L]."""
    needle = (ohms - sender.ohms_empty) / (sender.ohms_full - sender.ohms_empty)
    return column.litres(motion_of(sender, column).height(min(1.0, max(0.0, needle))))


def ohms_for_litres(sender: Sender, column: Column, litres: float) -> float:
    """Ohms that a sender reads with so much in its cell."""
    needle = motion_of(sender, column).needle(column.height(min(max(litres, 0.0), column.brimful_l)))
    return sender.ohms_empty + needle * (sender.ohms_full - sender.ohms_empty)


def needle_reader(gauge: Gauge, solids: Solids) -> Callable[[float], float] | None:
    """Where the needle stands for litres on the level: the first sender's, or the mean of averaged ones.

    None without a sender, or with several cells, where litres in all don't say which cell they are in.

    Parameters
    ----------
    gauge : Gauge
        Senders and how they are joined.
    solids : Solids
        The shell worked out.

    Returns
    -------
    callable
        A function of litres [L], giving a share of the needle's travel, 0 to 1.
    """
    if len(solids.cells) != 1:
        return None
    found = [(motion_of(s, place[1]), place[1]) for s in gauge.senders if (place := column_of(solids, s))]
    if not found:
        return None
    read = found if gauge.joined == "averaged" else found[:1]
    return lambda litres: sum(motion.needle(column.height(litres)) for motion, column in read) / len(read)
