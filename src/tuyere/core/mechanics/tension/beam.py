"""A belt's strand as a stiff string: pushed at mid-span, and sounding. Statics and vibration of a beam under tension; any mechanics text.

SI. T tension (N), L span (m), q deflection (m), F push (N), f frequency (Hz), m mass per length (kg/m), EI stiffness in bending (N m²).
"""

import math
from typing import Literal

from scipy.optimize import brentq

Ends = Literal["pinned", "clamped"]
_CLAMPED_BEAM = 4.730040744862704  # first root of cosh x cos x = 1


class SlackError(ValueError):
    """What was measured leaves no tension; the message is a sentence for the person."""


def deflection_of(force_n: float, span_m: float, tension_n: float, bending_n_m2: float = 0.0) -> float:
    """Deflection at mid-span of a pinned strand under a push there, m: q = F L/(4T) (1 - tanh k / k), k = (L/2) √(T/EI).

    >>> round(deflection_of(10, 0.64, 160), 9), round(deflection_of(10, 0.64, 160, 0.1), 6)
    (0.01, 0.009219)
    """
    string = force_n * span_m / (4 * tension_n)
    if bending_n_m2 <= 0:
        return string
    k = span_m / 2 * math.sqrt(tension_n / bending_n_m2)
    # For small k the difference 1 - tanh k / k drowns in rounding: its series k²/3 - 2 k⁴/15.
    return string * (k * k / 3 - 2 * k**4 / 15 if k < 1e-3 else 1 - math.tanh(k) / k)


def push_for(deflection_m: float, span_m: float, tension_n: float, bending_n_m2: float = 0.0) -> float:
    """The push (N) that gives a deflection: `deflection_of` is in proportion to it.

    >>> round(push_for(0.01, 0.64, 160), 9)
    10.0
    """
    return deflection_m / deflection_of(1.0, span_m, tension_n, bending_n_m2)


def tension_under(force_n: float, span_m: float, deflection_m: float, bending_n_m2: float = 0.0) -> float:
    """Tension while it is pushed, N: `deflection_of` solved for T. Raises SlackError where the belt's own stiffness takes the whole push.

    >>> round(tension_under(10, 0.64, deflection_of(10, 0.64, 160, 0.1), 0.1), 6)
    160.0
    """
    string = force_n * span_m / (4 * deflection_m)
    if bending_n_m2 <= 0:
        return string
    if deflection_m >= force_n * span_m**3 / (48 * bending_n_m2):
        raise SlackError("The belt's own stiffness takes the whole push: the strand hangs slack, or the deflection is misread.")
    least = string * 1e-12
    return float(
        brentq(lambda t: deflection_of(force_n, span_m, t, bending_n_m2) - deflection_m, least, string * (1 + 1e-9), xtol=1e-9, rtol=1e-12)
    )


def frequency_of(tension_n: float, span_m: float, mass_kg_per_m: float, bending_n_m2: float = 0.0, ends: Ends = "pinned") -> float:
    """Lowest partial, Hz, of a span: pinned f² = T/(4 m L²) + π² EI/(4 m L⁴); clamped by the beam's own equation.

    >>> round(frequency_of(95, 0.5, 0.038), 6), round(frequency_of(0, 1, 1, 1, "clamped"), 4)
    (50.0, 3.5608)
    """
    if ends == "pinned" or bending_n_m2 <= 0:
        return math.sqrt((tension_n + math.pi**2 * bending_n_m2 / span_m**2) / mass_kg_per_m) / (2 * span_m)
    lowest = _clamped_alone(span_m, mass_kg_per_m, bending_n_m2)
    highest = lowest + 2 * frequency_of(tension_n, span_m, mass_kg_per_m, bending_n_m2)
    if tension_n <= 0:
        return lowest
    return float(brentq(lambda f: _clamped_tension(f, span_m, mass_kg_per_m, bending_n_m2) - tension_n, lowest * (1 + 1e-12), highest))


def tension_sounding(frequency_hz: float, span_m: float, mass_kg_per_m: float, bending_n_m2: float = 0.0, ends: Ends = "pinned") -> float:
    """Tension from the lowest partial as sounded, N: pinned T = 4 m L² f² - π² EI/L².

    Raises SlackError where stiffness alone sounds as high.

    >>> round(tension_sounding(50, 0.5, 0.038), 3)
    95.0
    """
    if ends == "pinned" or bending_n_m2 <= 0:
        found = 4 * mass_kg_per_m * span_m**2 * frequency_hz**2 - math.pi**2 * bending_n_m2 / span_m**2
    else:
        alone = _clamped_alone(span_m, mass_kg_per_m, bending_n_m2)
        found = _clamped_tension(frequency_hz, span_m, mass_kg_per_m, bending_n_m2) if frequency_hz > alone else 0.0
    if found <= 0:
        raise SlackError("So low a note the belt's own stiffness sounds alone: the strand hangs slack, or the note is misread.")
    return found


def _clamped_alone(span_m: float, mass_kg_per_m: float, bending_n_m2: float) -> float:
    return _CLAMPED_BEAM**2 * math.sqrt(bending_n_m2 / mass_kg_per_m) / (math.tau * span_m**2)


def _clamped_tension(frequency_hz: float, span_m: float, mass_kg_per_m: float, bending_n_m2: float) -> float:
    """EI y'''' - T y'' = m ω² y with clamped ends.

    2 αβ (1 - cosh αL cos βL) + (α² - β²) sinh αL sin βL = 0, αβ = ω √(m/EI), T = EI (α² - β²).

    The lowest partial has βL between π (a string) and 4.730 (no tension).
    """
    product = math.tau * frequency_hz * math.sqrt(mass_kg_per_m / bending_n_m2) * span_m**2  # αL βL

    def off(b: float) -> float:  # divided by cosh αL, which overflows
        a = product / b
        sech = 1 / math.cosh(a) if a < 700 else 0.0
        return 2 * product * (sech - math.cos(b)) + (a * a - b * b) * math.tanh(a) * math.sin(b)

    b = brentq(off, math.pi, _CLAMPED_BEAM, xtol=1e-14, rtol=1e-14)
    return float(bending_n_m2 / span_m**2 * ((product / b) ** 2 - b * b))
