"""Tension from what hangs, levers and stretches: a chain's sag, an idler on a lever, a weighted base, marks on a belt. Statics, SI."""

import math

from scipy.optimize import brentq

GRAVITY = 9.80665
STEEPEST_RAD = math.radians(75)  # beyond it the sag says little: the chain hangs by its upper sprocket; common practice, no source

TOO_STEEP = "So steep a strand hardly sags whatever its tension: over 75° set it by the manual's take-up."


class SteepError(ValueError):
    """The sag says nothing there; the message is a sentence for the person."""


def chain_tension(sag_m: float, chord_m: float, slope_rad: float, mass_kg_per_m: float) -> float:
    """Tension where a hanging chain runs along its chord, N, from its largest sag square to the chord.

    The catenary y = c cosh(x/c), exactly.

    There T = m g c / cos φ; for a shallow level strand that is m g L²/(8 s). Raises SteepError over about 75° of slope.

    >>> round(chain_tension(0.02, 1.0, 0.0, 1.0), 2)
    61.32
    """
    slope = abs(slope_rad)
    if slope > STEEPEST_RAD:
        raise SteepError(TOO_STEEP)
    c = brentq(lambda ln: _sag(chord_m * math.exp(ln), chord_m, slope) - sag_m, -6.0, 16.0, xtol=1e-12)
    return float(mass_kg_per_m * GRAVITY * chord_m * math.exp(c) / math.cos(slope))


def chain_sag(tension_n: float, chord_m: float, slope_rad: float, mass_kg_per_m: float) -> float:
    """The largest sag square to the chord, m, at a tension along the chord: the inverse of `chain_tension`.

    >>> round(chain_sag(chain_tension(0.02, 1.0, 0.3, 1.0), 1.0, 0.3, 1.0), 9)
    0.02
    """
    slope = abs(slope_rad)
    return _sag(tension_n * math.cos(slope) / (mass_kg_per_m * GRAVITY), chord_m, slope)


def _sag(c_m: float, chord_m: float, slope_rad: float) -> float:
    """Of y = c cosh(x/c) under a chord of that length and slope: where the tangent has the chord's slope."""
    dx, dy = chord_m * math.cos(slope_rad), chord_m * math.sin(slope_rad)
    half = dx / (2 * c_m)
    middle = math.asinh(dy / (2 * c_m * math.sinh(half)))
    start, low = middle - half, math.asinh(math.tan(slope_rad))  # both x/c
    # Heights as differences: cosh a - cosh b = 2 sinh((a+b)/2) sinh((a-b)/2), which keeps its digits on a shallow chain.
    up = 2 * c_m * math.sinh((low + start) / 2) * math.sinh((low - start) / 2)
    return c_m * (low - start) * math.sin(slope_rad) - up * math.cos(slope_rad)


def by_idler_lever(pull_n: float, handle_m: float, arm_m: float, wrap_rad: float, off_square_rad: float = 0.0, belts: int = 1) -> float:
    """Tension of one strand at rest, N, that an idler on a lever holds: pull · handle = 2 T sin(θ/2) · arm · cos ψ · belts.

    `pull_n` square to the handle, `arm_m` from the pivot to the idler's middle, ψ between the belts' resultant and the square to the arm.

    >>> round(by_idler_lever(80, 0.3, 0.2, math.pi), 6)
    60.0
    """
    return pull_n * handle_m / (2 * arm_m * math.cos(off_square_rad) * math.sin(wrap_rad / 2) * belts)


def pull_at_handle(tension_n: float, handle_m: float, arm_m: float, wrap_rad: float, off_square_rad: float = 0.0, belts: int = 1) -> float:
    """The pull at the handle (N) that holds a tension: `by_idler_lever` the other way round.

    >>> from math import pi
    >>> round(pull_at_handle(200.0, 0.3, 0.1, pi / 2), 1)
    94.3
    """
    return tension_n / by_idler_lever(1.0, handle_m, arm_m, wrap_rad, off_square_rad, belts)


def by_weighted_base(weight_n: float, weight_arm_m: float, strand_arms_m: tuple[float, float], belts: int = 1) -> float:
    """Tension of one strand at rest, N, under a pivoted base: W x_w = T (y1 + y2) · belts, arms square from the pivot.

    >>> by_weighted_base(300, 0.2, (0.1, 0.3))
    150.0
    """
    return weight_n * weight_arm_m / (sum(strand_arms_m) * belts)


def by_elongation(mark_slack_m: float, mark_stretched_m: float, rigidity_n: float) -> float:
    """Tension from two marks on the slack belt and their distance when fitted, N: T = EA · strain.

    >>> round(by_elongation(1.0, 1.008, 50_000), 6)
    400.0
    """
    return rigidity_n * (mark_stretched_m - mark_slack_m) / mark_slack_m
