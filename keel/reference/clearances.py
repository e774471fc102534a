"""Clearance classes: what a neighbour is decides how far away the tank has to stay.

References
----------
Usual workshop practice, taken on the careful side; no standard fixes them for all vehicles. Local code and the class's
rules count before them, and a workshop types its own.
"""

from typing import Literal, get_args

ClearanceClass = Literal[
    "hard metal",
    "pad-mounted face",
    "moving at full travel",
    "exhaust, bare",
    "exhaust, shielded",
    "cover or body skin",
    "ground",
    "rear impact zone",
]

CLEARANCE_MM: dict[ClearanceClass, float] = {
    "hard metal": 10,
    "pad-mounted face": 6,
    "moving at full travel": 25,
    "exhaust, bare": 100,
    "exhaust, shielded": 50,
    "cover or body skin": 15,
    "ground": 150,
    "rear impact zone": 300,
}
"""Least gap to each kind of neighbour [mm]; a workshop can change each of them."""

assert set(CLEARANCE_MM) == set(get_args(ClearanceClass))
