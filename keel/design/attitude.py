"""What the fuel feels: gravity in the vehicle's attitude, less the vehicle's acceleration."""

from math import cos, radians, sin
from typing import Annotated

import numpy as np
from numpy.typing import NDArray
from pydantic import Field, model_validator

from keel.design.base import Part, refuse

Angle = Annotated[float, Field(ge=-85, le=85)]
Acceleration = Annotated[float, Field(ge=-6, le=6)]

LEAST_FORCE_G = 0.05


class Attitude(Part):
    """How the vehicle stands and what it is doing. All zeros: at rest on the level."""

    pitch_deg: Angle = Field(default=0, description="Nose up is above zero [degrees]")
    roll_deg: Angle = Field(default=0, description="Right side down is above zero [degrees]")
    forward_g: Acceleration = Field(default=0, description="Accelerating is above zero, braking below [g]")
    left_g: Acceleration = Field(default=0, description="In a left turn above zero, in a right turn below [g]")
    up_g: Acceleration = Field(default=0, description="Thrown upward above zero, dropping away below [g]")

    @model_validator(mode="after")
    def _fuel_feels_something(self) -> "Attitude":
        force = float(np.linalg.norm(specific_force(self)))
        if force < LEAST_FORCE_G:
            refuse(
                f"the fuel would float: it feels {force:.2g} g, a surface needs {LEAST_FORCE_G:g} g or more",
                field="up_g",
                value=self.up_g,
                limit=LEAST_FORCE_G,
            )
        return self


def specific_force(attitude: Attitude) -> NDArray[np.float64]:
    """The force that the fuel feels, in vehicle axes.

    Parameters
    ----------
    attitude : Attitude
        Angles [degrees] and accelerations [g].

    Returns
    -------
    ndarray, shape (3,)
        f = g · (−sin p, −cos p · sin r, −cos p · cos r) − a, in units of g. A free surface at
        rest lies perpendicular to it.
    """
    pitch, roll = radians(attitude.pitch_deg), radians(attitude.roll_deg)
    gravity = np.array([-sin(pitch), -cos(pitch) * sin(roll), -cos(pitch) * cos(roll)])
    return np.asarray(gravity - np.array([attitude.forward_g, attitude.left_g, attitude.up_g]))
