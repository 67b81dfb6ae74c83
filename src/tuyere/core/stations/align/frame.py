"""Axes of an alignment, and what its errors are.

Right-handed: x along the stationary shaft, from the movable machine's body out through its wheel; z up; y = z × x. u points from the
movable wheel to the stationary one, at `slope_rad` from +y toward +z; v = x × u (up at slope 0). The movable shaft is n = (1, wz, -wy)
for small turns wy, wz about y, z.

    angle = n · u = wz cos g - wy sin g      its +x end swings toward the stationary shaft
    twist = -n · v = wy cos g + wz sin g     its v side leans toward +x
    offset: its groove centre lies toward +x of the stationary groove plane

Source: rigid-body geometry (proved by simulation; reference from memory).
"""

import math
from typing import NamedTuple

import numpy as np
from numpy.typing import NDArray

Vector = NDArray[np.float64]


class Turn(NamedTuple):
    """Small turns about y and z (rad)."""

    about_y: float
    about_z: float


def along(slope_rad: float) -> tuple[Vector, Vector]:
    """u and v."""
    return np.array([0.0, math.cos(slope_rad), math.sin(slope_rad)]), np.array([0.0, -math.sin(slope_rad), math.cos(slope_rad)])


def turns_of(angle_rad: float, twist_rad: float, slope_rad: float) -> Turn:
    """The turns about y and z that make an angle and a twist.

    >>> [round(t, 3) for t in turns_of(0.01, 0.02, 0.0)]
    [0.02, 0.01]
    """
    c, s = math.cos(slope_rad), math.sin(slope_rad)
    return Turn(twist_rad * c - angle_rad * s, angle_rad * c + twist_rad * s)
