"""Stand-ins for an ohm meter and a flow meter: what the calculated sender would read, with an instrument's faults."""

from random import Random

POUR_L_PER_S = 0.5
"""How fast the simulated hose runs."""
LEAST_S, MOST_S = 1.0, 8.0
"""A simulated pour takes between these: nobody waits as long as for a real one."""
FLOW_BIAS, FLOW_NOISE = 0.003, 0.002
OHM_BIAS, OHM_NOISE = 0.012, 0.4
"""The flow meter reads a little high; the sender is wound a little off and its wiper is rough."""


def pour_seconds(litres: float) -> float:
    """How long a simulated pour takes."""
    return min(MOST_S, max(LEAST_S, litres / POUR_L_PER_S))


def flow_meter(litres: float, seed: int) -> float:
    """What the flow meter counts of a pour [L]: the same for the same seed."""
    return litres * (1 + FLOW_BIAS + Random(seed).gauss(0.0, FLOW_NOISE))


def ohm_meter(true_ohms: float, low: float, high: float, seed: int) -> float:
    """What the ohm meter shows, within the sender's own range: the same for the same seed."""
    read = true_ohms + OHM_BIAS * (high - low) + Random(seed * 31 + 7).gauss(0.0, OHM_NOISE)
    return min(max(low, high), max(min(low, high), read))
