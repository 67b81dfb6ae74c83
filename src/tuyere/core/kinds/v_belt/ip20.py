"""Rated power of classical V-belts by the ARPM/RMA-MPTA IP-20 equations, and what a drive then needs.

The published equations are in inches, horsepower and thousands of rpm; `rated_power` evaluates them in
those units and returns watts. Source: IP-20; Machinery's Handbook (from memory; see docs/provenance.md).
"""

import itertools
import math
from bisect import bisect_right
from dataclasses import dataclass
from functools import cache

import numpy as np

from tuyere.core.basis.numbers import Numbers
from tuyere.core.basis.origin import Confidence, least_sure
from tuyere.core.basis.quantity import from_si, to_si
from tuyere.core.basis.table import rows
from tuyere.core.kinds.rating.duties import OutOfRangeError
from tuyere.core.kinds.v_belt import Belt, Section


@dataclass(frozen=True)
class Coefficients:
    """K1..K4 of the rating equation (hp, in, thousands of rpm)."""

    k1: float
    k2: float
    k3: float
    k4: float
    confidence: Confidence


@cache
def coefficients(section_name: str) -> Coefficients:
    """The coefficients of a section."""
    for r in rows("ip20_power"):
        if r["section"] == section_name:
            return Coefficients(float(r["K1"]), float(r["K2"]), float(r["K3"]), float(r["K4"]), Confidence(r["confidence"]))
    raise OutOfRangeError(
        f"No power rating for section {section_name} is known here yet. Speeds, lengths and wraps are right; for the rating ask the "
        "belt's supplier."
    )


def speed_ratio_factor(ratio: float) -> float:
    """K_SR for a ratio of the larger to the smaller diameter, 1 or more (stepped table).

    >>> speed_ratio_factor(1.5), speed_ratio_factor(1.0)
    (1.0972, 1.0)
    """
    if ratio < 1:
        raise OutOfRangeError("The speed-ratio factor takes the larger diameter over the smaller: 1 or more.")
    return at_step(ratio_steps(), ratio)


@cache
def ratio_steps() -> tuple[tuple[float, float], ...]:
    """The speed-ratio table: each ratio from which a factor holds, and the factor."""
    return tuple((float(r["ratio_from"]), float(r["K_SR"])) for r in rows("ip20_speed_ratio_factor"))


def at_step(steps: tuple[tuple[float, float], ...], ratio: float) -> float:
    """The factor of a stepped table at a ratio: the step last reached, never the one that rounding would lift it to; 1 without a table.

    >>> at_step(ratio_steps(), 1.0199), at_step(ratio_steps(), 1.02)
    (1.0, 1.0112)
    """
    place = bisect_right([start for start, _ in steps], ratio * STEP_REACHED)
    return steps[place - 1][1] if place else 1.0


STEP_REACHED = 1 + 1e-9  # a ratio that arithmetic leaves a hair under a step has reached it


def arc_factor(small_wheel_wrap_rad: float) -> float:
    """K_theta for V-belts on two grooved sheaves: 1.25 (1 - 5^(-theta/pi)), within 0.005 of the printed table."""
    return 1.25 * (1 - 5 ** (-small_wheel_wrap_rad / math.pi))


_BEYOND = {"A": 180}  # the longest that the trade makes: common practice, no source


def length_factor(belt: Belt) -> float:
    """K_L, linear between the tabled lengths. Raises OutOfRangeError outside the table, but for lengths that the trade makes beyond it."""
    points = [(float(r["number"]), float(r["K_L"])) for r in rows("ip20_length_factor") if r["groove"] == belt.section.groove]
    if not points:
        coefficients(belt.section.name)
    if belt.section.groove in _BEYOND and points[-1][0] < belt.number <= _BEYOND[belt.section.groove]:
        # The table stops, the trade does not: on by the power law through its last two lengths, which is a little under the whole table's.
        (n0, k0), (n1, k1) = points[-2], points[-1]
        return float(k1 * (belt.number / n1) ** (math.log(k1 / k0) / math.log(n1 / n0)))
    if not points[0][0] <= belt.number <= points[-1][0]:
        raise OutOfRangeError(
            f"{belt.designation} is outside the length-factor table of section {belt.section.groove} "
            f"({points[0][0]:g} to {points[-1][0]:g}): IP-20 gives no rating for it."
        )
    for (n0, k0), (n1, k1) in itertools.pairwise(points):
        if n0 <= belt.number <= n1:
            return k0 + (k1 - k0) * (belt.number - n0) / (n1 - n0)
    return points[-1][1]


@dataclass(frozen=True)
class RatedPower:
    """Rated power of one belt at 180 degrees and the reference length, W: the basic part and the part the ratio adds."""

    basic_w: float
    added_for_ratio_w: float
    confidence: Confidence

    @property
    def total_w(self) -> float:
        return max(0.0, self.basic_w + self.added_for_ratio_w)


def horsepower(c: Coefficients, d_in: Numbers, r_thousand_rpm: Numbers, k_sr: Numbers) -> tuple[Numbers, Numbers]:
    """The published equation in its own units, for one or many: basic hp and the hp that the ratio adds."""
    basic = d_in * r_thousand_rpm * (c.k1 - c.k2 / d_in - c.k3 * (r_thousand_rpm * d_in) ** 2 - c.k4 * np.log10(r_thousand_rpm * d_in))
    return basic, c.k2 * r_thousand_rpm * (1 - 1 / k_sr)


def rated_power(belt: Section, small_diameter_m: float, fast_shaft_rad_per_s: float, ratio: float) -> RatedPower:
    """Rated power per belt:

        HP = d r [K1 - K2/d - K3 (r d)^2 - K4 log10(r d)] + K2 r (1 - 1/K_SR)

    with d the small sheave's diameter, in, and r the faster shaft's rpm / 1000. Valid to 6500 ft/min: the
    formula keeps rising past that and then falls below zero, so faster belts raise OutOfRangeError. Below the
    section's smallest diameter the formula stays positive; the caller flags that.

    >>> from tuyere.core.kinds.v_belt import section
    >>> b = rated_power(section("B"), to_si(5.4, "length", "in"), to_si(1750, "rotation", "rpm"), 1.0)
    >>> round(from_si(b.total_w, "power", "hp"), 2)
    5.43
    """
    c = coefficients(belt.name)
    d = from_si(small_diameter_m, "length", "in")
    r = from_si(fast_shaft_rad_per_s, "rotation", "rpm") / 1000
    if math.pi * d * r * 1000 / 12 > from_si(belt.max_speed_m_per_s, "velocity", "ft/min"):
        raise OutOfRangeError("The belt runs faster than 6500 ft/min (33 m/s): the rating does not reach that far.")
    basic, added = (float(hp) for hp in horsepower(c, d, r, speed_ratio_factor(ratio)))
    return RatedPower(to_si(basic, "power", "hp"), to_si(added, "power", "hp"), least_sure(c.confidence, Confidence.MEDIUM))


def belts_needed(design_power_w: float, corrected_power_w: float) -> int | None:
    """Whole belts that carry the design power; None when one belt carries nothing."""
    if corrected_power_w <= 0:
        return None
    return max(1, math.ceil(design_power_w / corrected_power_w - 1e-9))
