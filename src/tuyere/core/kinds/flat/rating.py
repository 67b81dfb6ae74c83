"""What a flat belt carries.

The allowable tight-side tension with its pulley and speed factors, less the centrifugal, at the design ratio.

F_1a = b F_a C_p C_v; T_e = (F_1a - F_c)(1 - 1/R); P = T_e v: Shigley, Mechanical Engineering Design, flat belts (from memory). R is the
ratio of the strands that a design supposes (tension.py: four fifths of the friction, at most 3), the same that sets the loads on the
shafts, so that a belt within its rating is within its allowable tension at work. C_v is of leather only. Rubber and canvas rows are
allowable effective pulls at 180° and low speed: the tight strand that they suppose is taken at full friction, the least it can be, so
that the centrifugal part counts most.
"""

import math
from dataclasses import dataclass
from functools import cache
from itertools import pairwise

import numpy as np
from numpy.typing import NDArray

from tuyere.core.basis.limit import limit
from tuyere.core.basis.numbers import Numbers
from tuyere.core.basis.origin import Confidence, least_sure
from tuyere.core.basis.quantity import from_si
from tuyere.core.basis.table import rows
from tuyere.core.kinds.flat import FlatBelt
from tuyere.core.kinds.flat.tension import tension_ratio
from tuyere.core.kinds.rating.duties import OutOfRangeError
from tuyere.core.kinds.rating.own_table import OwnTable

# C_v of leather by belt speed (ft/min): Shigley Figure 17-9, one curve, ± 0.03; medium.
CV = ((600, 1.0), (1000, 0.98), (2000, 0.96), (3000, 0.93), (4000, 0.87), (5000, 0.80), (6000, 0.70))
LAYS = {"open": 1.0, "crossed": limit("crossed flat belt").value, "quarter-turn": limit("quarter-turn flat belt").value}


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
    lay_share: float = 1.0


def speed_factor(velocity_m_per_s: float) -> float:
    """C_v of a leather belt, linear between the points of the curve; 1 below 600 ft/min. Raises OutOfRangeError past leather's speed limit.

    >>> round(speed_factor(2500 * 0.00508), 3)
    0.945
    """
    v = from_si(velocity_m_per_s, "velocity", "ft/min")
    if velocity_m_per_s > leather_limit() * 1.0001:
        raise OutOfRangeError(f"Leather is rated to {limit('leather speed').printed}: run it slower.")
    for (a, ka), (b, kb) in pairwise(CV):
        if a <= v <= b:
            return ka + (kb - ka) * (v - a) / (b - a)
    return 1.0


def leather_limit() -> float:
    """How fast leather may run, m/s: one limit, wherever it is asked."""
    return limit("leather speed").value


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


def grip(belt: FlatBelt, wrap_rad: Numbers) -> Numbers:
    """The share of the tight strand (less its centrifugal part) that turns the wheel at a wrap: 1 - 1/R. One or many."""
    return 1 - 1 / tension_ratio(belt.friction, wrap_rad)[0]


def arc_share(belt: FlatBelt, wrap_rad: Numbers) -> Numbers:
    """What the grip at a wrap is of that at half a turn."""
    return grip(belt, wrap_rad) / grip(belt, math.pi)


PLY_SPEED_M_PER_S = 5.08  # of the ply tables: 1000 ft/min


def allowed(belt: FlatBelt, row: dict[str, str], wrap_rad: Numbers) -> tuple[float, Numbers]:
    """Allowable tension of the tight strand at low speed, N per m of width, and the share of it that turns the wheel. One wrap or many.

    As printed; of an allowable effective pull at 180° what full friction leaves the tight strand, and that pull by the arc.
    """
    printed = float(row["pull_n_per_mm"]) * 1000
    if row["kind"] != "effective":
        return printed, grip(belt, wrap_rad)
    full = 1 - math.exp(-belt.friction * math.pi)
    thrown = belt.density_kg_m3 * belt.thickness_m * PLY_SPEED_M_PER_S**2
    return printed / full + thrown, full * arc_share(belt, wrap_rad)


def rated_power(
    belt: FlatBelt,
    width_m: float,
    small_pulley_m: float,
    velocity_m_per_s: float,
    wrap_rad: float,
    own: OwnTable | None = None,
    ratio: float = 1.0,
    lay: str = "open",
) -> FlatRating:
    """Rated power of a flat belt, by the shop's own table (with `ratio`) if there is one. wrap_rad: on the pulley that slips first.

    lay: open, crossed or quarter-turn; the last two carry less. Raises OutOfRangeError for a belt without figures.
    """
    share = LAYS[lay]
    if own:
        assert own.width_m
        fast, arc = 2 * velocity_m_per_s / (small_pulley_m + belt.thickness_m), float(arc_share(belt, wrap_rad))
        power = own.rated(small_pulley_m, fast, ratio) * arc * share * width_m / own.width_m
        return FlatRating(power, 0.0, 0.0, 1.0, 1.0, arc, Confidence.MEDIUM, own.says, share)
    row = next((r for r in rows("flat_pull") if r["belt"] == belt.name), None)
    if row is None:
        raise OutOfRangeError(f"No allowable tension of {belt.name} is known here: ask its maker.")
    per_width, held = allowed(belt, row, wrap_rad)
    centrifugal = belt.density_kg_m3 * belt.thickness_m * width_m * velocity_m_per_s**2
    sure = least_sure(Confidence(row["confidence"]), belt.confidence)
    source = f"{row['source']} (from memory)"
    c_p = pulley_factor(belt, small_pulley_m)
    c_v = speed_factor(velocity_m_per_s) if belt.material == "leather" else 1.0
    tight, held = per_width * width_m * c_p * c_v, float(held)
    return FlatRating(
        max(0.0, (tight - centrifugal) * held * velocity_m_per_s) * share, tight, centrifugal, c_p, c_v, held, sure, source, share
    )
