"""What a flat belt carries: the allowable tight-side tension with its pulley and speed factors, less the centrifugal, at full friction.

F_1a = b F_a C_p C_v; T_e = (F_1a - F_c)(1 - e^(-fφ)); P = T_e v: Shigley, Mechanical Engineering Design, flat belts (from memory). C_v is
of leather only. Rubber and canvas rows are allowable effective pulls at 180° and carry by the arc.
"""

import math
from dataclasses import dataclass
from functools import cache
from itertools import pairwise

import numpy as np
from numpy.typing import NDArray

from tuyere.core.families.flat import FlatBelt
from tuyere.core.origin import Confidence, least_sure
from tuyere.core.quantity import from_si
from tuyere.core.rating.ip20 import OutOfRangeError
from tuyere.core.rating.own import OwnTable
from tuyere.core.table import rows

# C_v of leather by belt speed (ft/min): Shigley Figure 17-9, one curve, ± 0.03; medium.
CV = ((600, 1.0), (1000, 0.98), (2000, 0.96), (3000, 0.93), (4000, 0.87), (5000, 0.80), (6000, 0.70))


@dataclass(frozen=True)
class FlatRating:
    """Power that the belt carries (W), the tensions (N) and factors it rests on, and where they come from."""

    power_w: float
    tight_n: float
    centrifugal_n: float
    pulley_factor: float
    speed_factor: float
    friction_share: float
    confidence: Confidence
    source: str


def speed_factor(velocity_m_per_s: float) -> float:
    """C_v of a leather belt, linear between the points of the curve; 1 below 600 ft/min. Raises OutOfRangeError past 6000 ft/min.

    >>> round(speed_factor(2500 * 0.00508), 3)
    0.945
    """
    v = from_si(velocity_m_per_s, "velocity", "ft/min")
    if v > CV[-1][0] * 1.0001:
        raise OutOfRangeError("Leather is rated to 6000 ft/min: run it slower.")
    for (a, ka), (b, kb) in pairwise(CV):
        if a <= v <= b:
            return ka + (kb - ka) * (v - a) / (b - a)
    return 1.0


@cache
def pulley_steps(belt: FlatBelt) -> tuple[NDArray[np.float64], NDArray[np.float64]] | None:
    """C_p of a belt: small pulleys (in) from which each factor holds; None where the belt has no row."""
    key = "leather" if belt.material == "leather" else belt.name
    row = next((r for r in rows("flat_pulley_factor") if r["belt"] == key), None)
    if row is None:
        return None
    found = [(float(c.removeprefix("from_")), float(row[c])) for c in row if c.startswith("from_") and row[c]]
    return np.array([start for start, _ in found]), np.array([value for _, value in found])


def pulley_factor(belt: FlatBelt, small_pulley_m: float) -> float:
    """C_p by the small pulley, stepped; 1 where the belt has no row. Raises OutOfRangeError where the table leaves the pulley out."""
    steps = pulley_steps(belt)
    if steps is None:
        return 1.0
    d = from_si(small_pulley_m, "length", "in")
    place = int(np.searchsorted(steps[0], d * 1.0001, side="right"))
    if place == 0:
        raise OutOfRangeError(f"A {d:.1f} in pulley is too small for {belt.name}: the table leaves it out.")
    return float(steps[1][place - 1])


def arc_share(belt: FlatBelt, wrap_rad: float) -> float:
    """What the grip at a wrap is of that at half a turn."""
    return (1 - math.exp(-belt.friction * wrap_rad)) / (1 - math.exp(-belt.friction * math.pi))


def rated_power(
    belt: FlatBelt,
    width_m: float,
    small_pulley_m: float,
    velocity_m_per_s: float,
    wrap_rad: float,
    own: OwnTable | None = None,
    ratio: float = 1.0,
) -> FlatRating:
    """Rated power of a flat belt, by the shop's own table (with `ratio`) if there is one. wrap_rad: on the pulley that slips first. Raises OutOfRangeError for a belt without figures."""
    if own:
        assert own.width_m
        fast = 2 * velocity_m_per_s / (small_pulley_m + belt.thickness_m)
        power = own.rated(small_pulley_m, fast, ratio) * arc_share(belt, wrap_rad) * width_m / own.width_m
        return FlatRating(power, 0.0, 0.0, 1.0, 1.0, arc_share(belt, wrap_rad), Confidence.MEDIUM, own.says)
    row = next((r for r in rows("flat_pull") if r["belt"] == belt.name), None)
    if row is None:
        raise OutOfRangeError(f"No allowable tension of {belt.name} is known here: ask its maker.")
    grip = 1 - math.exp(-belt.friction * wrap_rad)
    allowed = float(row["pull_n_per_mm"]) * from_si(width_m, "length", "mm")
    centrifugal = belt.density_kg_m3 * belt.thickness_m * width_m * velocity_m_per_s**2
    sure = least_sure(Confidence(row["confidence"]), belt.confidence)
    source = f"{row['source']} (from memory)"
    if row["kind"] == "effective":
        pull = allowed * arc_share(belt, wrap_rad)
        return FlatRating(pull * velocity_m_per_s, allowed, centrifugal, 1.0, 1.0, grip, sure, source)
    c_p = pulley_factor(belt, small_pulley_m)
    c_v = speed_factor(velocity_m_per_s) if belt.material == "leather" else 1.0
    tight = allowed * c_p * c_v
    return FlatRating(max(0.0, (tight - centrifugal) * grip * velocity_m_per_s), tight, centrifugal, c_p, c_v, grip, sure, source)
