"""How a chain's slack run hangs: how far it should move, and what tension that is."""

import math
from functools import cache
from typing import NamedTuple

import numpy as np
from scipy.interpolate import CubicSpline

from tuyere.core.basis.limit import limit
from tuyere.core.basis.numbers import Numbers
from tuyere.core.mechanics.tension import statics

SHOCK = ("heavy", "extra_heavy", "chokable")


class Hangs(NamedTuple):
    """The tensions (N) of the most and the least movement that a slack run should have, and why so much."""

    low_n: float
    high_n: float
    why: str

    @property
    def middle_n(self) -> float:
        """The geometric middle, N."""
        return math.sqrt(self.low_n * self.high_n)


def chain_slack(steepest_rad: float, driven_class: str | None) -> tuple[float, float, str]:
    """How far a chain's slack run should move at its middle, up and down together, as shares of its span, and why.

    Source: American Chain Association; common practice, from memory.

    >>> low, high, why = chain_slack(0.0, "moderate")
    >>> low, high
    (0.04, 0.06)
    """
    steep = steepest_rad > limit("steep chain").value or driven_class in SHOCK
    kind = "steep" if steep else "level"
    why = "steep or shock" if steep else "level and even"
    return limit(f"{kind} chain slack low").value, limit(f"{kind} chain slack high").value, why


def runs_lean(centre_line_rad: float, apart_m: Numbers, radius_1_m: Numbers, radius_2_m: Numbers) -> tuple[Numbers, Numbers]:
    """How far the two open runs of a pair lean from the level (rad): the one left of the way from wheel 1 to wheel 2, then the other.

    Scalars or arrays.

    >>> [round(math.degrees(a), 2) for a in runs_lean(0.0, 1.0, 0.1, 0.2)]
    [5.74, 5.74]
    """
    off = np.arcsin(np.clip((np.asarray(radius_1_m) - radius_2_m) / apart_m, -1.0, 1.0))
    left, right = (np.abs(np.arcsin(np.sin(centre_line_rad + way * off))) for way in (-1, 1))
    return left, right


def sag_of_movement(movement_m: float) -> float:
    """Sag (m) of a strand that moves so far at its middle, up and down together: drawn to a V it lies 1.155 times its sag to either side.

    The same extra length as an arc, 8 s²/(3 L), and as a V, 2 d²/L.

    >>> round(sag_of_movement(0.0462), 4)
    0.02
    """
    return movement_m / (2 * math.sqrt(4 / 3))


def chain_hangs(mass_kg_per_m: float, length_m: float, slope_rad: float, steepest_rad: float, driven_class: str | None) -> Hangs:
    """The slack run of so much mass (kg/m), length and slope; `steepest_rad`: of the drive's runs.

    >>> [round(n, 1) for n in chain_hangs(1.0, 1.0, 0.0, 0.0, "moderate")[:2]]
    [47.2, 70.8]
    """
    low, high, why = chain_slack(steepest_rad, driven_class)
    slope = min(slope_rad, statics.STEEPEST_RAD)
    slackest, tightest = (statics.chain_tension(sag_of_movement(m * length_m), length_m, slope, mass_kg_per_m) for m in (high, low))
    return Hangs(slackest, tightest, why)


@cache
def _over_weight(movement: float) -> CubicSpline:
    """Tension over the weight of the run, by the slope (rad).

    It goes by the shape alone, so that whole searches can be read off it (to 1e-9).
    """
    slopes = np.linspace(0.0, statics.STEEPEST_RAD, 301)
    sag = sag_of_movement(movement)
    return CubicSpline(slopes, [statics.chain_tension(sag, 1.0, float(slope), 1.0 / statics.GRAVITY) for slope in slopes])


def chain_hang(mass_kg_per_m: Numbers, length_m: Numbers, slope_rad: Numbers, steepest_rad: Numbers, driven_class: str | None) -> Numbers:
    """What a chain's slack run hangs with (N) where it moves as it should: the middle of `chain_hangs`. Scalars or arrays.

    >>> round(float(chain_hang(1.0, 1.0, 0.0, 0.0, "moderate")), 2)
    57.82
    """
    slope = np.minimum(slope_rad, statics.STEEPEST_RAD)
    level, steep = (
        np.sqrt(_over_weight(limit(f"{kind} chain slack low").value)(slope) * _over_weight(limit(f"{kind} chain slack high").value)(slope))
        for kind in ("level", "steep")
    )
    leans = np.asarray(steepest_rad) > limit("steep chain").value
    return np.where(leans | (driven_class in SHOCK), steep, level) * mass_kg_per_m * statics.GRAVITY * length_m


def pair_hang(
    mass_kg_per_m: Numbers,
    apart_m: Numbers,
    driver_m: Numbers,
    driven_m: Numbers,
    centre_line_rad: float,
    clockwise: bool,
    driven_class: str | None,
) -> Numbers:
    """`chain_hang` of a pair, radii in m: its slack run leaves the driver, left of the way to the driven wheel where it turns clockwise.

    Scalars or arrays.
    """
    left, right = runs_lean(centre_line_rad, apart_m, driver_m, driven_m)
    span = np.sqrt(np.asarray(apart_m) ** 2 - (np.asarray(driver_m) - driven_m) ** 2)
    return chain_hang(mass_kg_per_m, span, left if clockwise else right, np.maximum(left, right), driven_class)
