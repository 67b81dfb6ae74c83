"""The tight strand's pull over the slack one's that a design of V-belts supposes, and the arc factor that follows. Scalars or arrays."""

import math
from functools import cache

import numpy as np

from tuyere.core.basis.numbers import Numbers
from tuyere.core.basis.table import rows
from tuyere.core.kinds.v_belt import Section

FRICTION = 0.3  # rubber on iron, dry, before it slips altogether: textbooks (Shigley: 0.3 to 0.5), medium; oil or wet leave half
STRETCH_AT_A_64TH = 2048  # pushed by 1/64 of its length a strand is 1/2048 longer: K_y = EA/2048 (statics)


@cache
def _bending() -> dict[str, tuple[float, float]]:
    return {r["groove"]: (float(r["ei_n_m2"]), float(r["cogged_share"])) for r in rows("v_bending")}


def bending_stiffness(of: Section) -> float | None:
    """EI of one belt, N m²; None where no figure is known. A guess within a factor of two: textbooks' order of magnitude, low."""
    found = _bending().get(of.groove)
    return found and found[0] * (found[1] if of.cogged else 1.0)


def half_turn_ratio(of: Section) -> float:
    """Tight over slack strand at half a turn: 5 for V-belts (IP-20, high), 4 for ribbed ones (IP-26, medium)."""
    return 4.0 if of.construction == "ribbed" else 5.0


@cache
def _on_flat() -> tuple[tuple[float, ...], tuple[float, ...]]:
    found = sorted((math.radians(float(r["theta_deg"])), float(r["k"])) for r in rows("v_flat_arc"))
    return tuple(t for t, _ in found), tuple(k for _, k in found)


def arc_factor(of: Section, wrap_rad: Numbers, large_is_flat: bool = False) -> Numbers:
    """K_θ of V and ribbed belts by the wrap on the small wheel: c (1 - R^(-θ/180°)), c = R/(R - 1), R the half-turn ratio.

    For V-belts that is 1.25 (1 - 5^(-θ/180°)), the printed V-V column within 0.005. With the large wheel flat, the printed V-flat
    column above 127° (IP-20; from memory, high), the V-V one below.

    >>> from tuyere.core.kinds.v_belt import section
    >>> round(float(arc_factor(section("B"), math.radians(163))), 2), round(float(arc_factor(section("B"), math.radians(163), True)), 2)
    (0.96, 0.79)
    >>> round(float(arc_factor(section("PK"), math.pi)), 6)
    1.0
    """
    ratio = half_turn_ratio(of)
    grooved = ratio / (ratio - 1) * (1 - ratio ** (-np.asarray(wrap_rad) / math.pi))
    if not large_is_flat:
        return grooved
    angles, factors = _on_flat()
    return np.where(np.asarray(wrap_rad) < angles[0], grooved, np.interp(wrap_rad, angles, factors))


def tension_ratio(of: Section, wrap_rad: Numbers, large_is_flat: bool = False) -> tuple[Numbers, str]:
    """The ratio at a wrap on the small wheel, and how to say where it is from.

    >>> from tuyere.core.kinds.v_belt import section
    >>> round(float(tension_ratio(section("B"), math.pi)[0]), 6), round(float(tension_ratio(section("B"), math.pi, True)[0]), 2)
    (5.0, 2.5)
    """
    if large_is_flat:
        return 1.25 / (1.25 - arc_factor(of, wrap_rad, True)), "what the V-flat arc factor leaves (IP-20)"
    ratio = half_turn_ratio(of)
    return np.exp(math.log(ratio) / math.pi * wrap_rad), f"{ratio:g} at half a turn ({'IP-26' if ratio == 4 else 'IP-20'})"
