"""From where an alignment is looked at: views of the two wheels, and what its sides are called at the machine."""

import math
from dataclasses import dataclass

from tuyere.core.stations.align.frame import Vector, along

_MOSTLY = 0.7  # of a unit vector: nearer to upright than to level, or the other way
_X: Vector = along(0.0)[0] * 0.0 + [1.0, 0.0, 0.0]


@dataclass(frozen=True)
class View:
    """A view: from where, and where x (the shaft, out), u (to the stationary wheel) and v point on the page (right, up)."""

    key: str
    title: str
    x: tuple[float, float]
    u: tuple[float, float]
    v: tuple[float, float]


def lie_of(slope_rad: float) -> str:
    """How the line of centres lies: level, steep or upright.

    >>> lie_of(0.1), lie_of(math.pi / 2), lie_of(-0.8)
    ('level', 'upright', 'steep')
    """
    rise = abs(math.sin(slope_rad))
    return "level" if rise < math.sin(math.radians(20)) else "upright" if rise > math.sin(math.radians(70)) else "steep"


def side_of(way: Vector) -> str:
    """A direction as a person behind the machine, looking past it at its wheel, calls it.

    >>> side_of(along(0.0)[1]), side_of(along(0.0)[0]), side_of(along(math.pi / 2)[1])
    ('top', 'left side', 'right side')
    """
    if abs(way[2]) >= _MOSTLY:
        return "top" if way[2] > 0 else "bottom"
    return "left side" if way[1] > 0 else "right side"


def _view(key: str, title: str, toward: Vector, up: Vector, slope_rad: float) -> View:
    import numpy as np

    u, v = along(slope_rad)
    up = up - toward * float(up @ toward)
    up = up / float(np.linalg.norm(up))
    right = np.cross(up, toward)
    on = [(round(float(w @ right), 9), round(float(w @ up), 9)) for w in (_X, u, v)]
    return View(key, title, on[0], on[1], on[2])


def views(slope_rad: float) -> tuple[View, View]:
    """The plane of the shafts, where the angle shows, and along the line of centres, where the twist shows.

    Gravity up where the page allows.
    """
    u, v = along(slope_rad)
    z = along(0.0)[1]
    steep = abs(float(u[2])) >= _MOSTLY
    above = float(v[2]) > 0.3 or (abs(float(v[2])) <= 0.3 and float(v[1]) < 0)
    toward = v if above else -v
    if steep:
        plane = _view(
            "plane", "From the machine's right side" if float(toward[1]) < 0 else "From the machine's left side", toward, z, slope_rad
        )
        line = _view("line", "From above, along the belt", u if float(u[2]) > 0 else -u, _X, slope_rad)
    else:
        plane = _view("plane", "From above" if lie_of(slope_rad) == "level" else "Square on the slope, from above", toward, _X, slope_rad)
        line = _view("line", "Along the belt, behind the mover", -u, z, slope_rad)
    return plane, line
