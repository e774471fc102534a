"""What the vehicle does over time: accelerations at even times, made from a form or taken from a logger."""

from dataclasses import dataclass, replace

import numpy as np

from keel.reference.units import STANDARD_GRAVITY
from keel.solid.polyhedron import Array

MM_PER_M = 1000.0


@dataclass(frozen=True)
class Log:
    """Accelerations of the vehicle.

    Attributes
    ----------
    name : str
    dt_s : float
        From one sample to the next [s].
    forward_g, left_g, up_g : ndarray, shape (n,)
        Gathering speed, turning left, thrown upward [g].
    use : ndarray, shape (n,)
        Share of full draw.
    pitch_deg : ndarray, shape (n,)
        Nose up, for a hill [°].
    """

    name: str
    dt_s: float
    forward_g: Array
    left_g: Array
    up_g: Array
    use: Array
    pitch_deg: Array

    @property
    def times_s(self) -> Array:
        """Times of the samples [s]."""
        return np.asarray(np.arange(len(self.forward_g)) * self.dt_s, dtype=np.float64)

    @property
    def felt(self) -> Array:
        """What the fuel feels, in vehicle axes, shape (n, 3) [mm/s²]."""
        pitch = np.radians(self.pitch_deg)
        g = np.column_stack(
            [-np.sin(pitch) - self.forward_g, -self.left_g, -np.cos(pitch) - self.up_g],
        )
        return np.asarray(g * STANDARD_GRAVITY * MM_PER_M)

    def repeated(self, times: int) -> "Log":
        """The same so many times over, one after the other."""
        return replace(
            self,
            forward_g=np.tile(self.forward_g, times),
            left_g=np.tile(self.left_g, times),
            up_g=np.tile(self.up_g, times),
            use=np.tile(self.use, times),
            pitch_deg=np.tile(self.pitch_deg, times),
        )


def still(name: str, seconds: float, dt_s: float = 0.02) -> Log:
    """Nothing happens, for so long."""
    count = max(2, round(seconds / dt_s) + 1)
    zeros = np.zeros(count)
    return Log(name, dt_s, zeros, zeros.copy(), zeros.copy(), np.ones(count), zeros.copy())
