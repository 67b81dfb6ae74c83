"""Chain length in pitches, exact centre distance, and elongation by wear."""

import math
from dataclasses import dataclass

from scipy.optimize import brentq

from tuyere.core.mechanics.open_belt import GeometryError


def length_in_pitches(teeth_1: int, teeth_2: int, centres: float) -> float:
    """Length of a taut chain round two sprockets, in pitches; `centres` in pitches too. Exact on the pitch circles.

    L = 2 C cos b + (N1 + N2)/2 + (N2 - N1) b / pi, sin b = (R2 - R1)/C, R = 0.5 / sin(180/N). Source: plane geometry;
    ASME B29.1's approximation agrees within 0.01 pitch on usual drives.

    >>> round(length_in_pitches(17, 34, 25), 1)
    75.8
    """
    small, large = sorted((teeth_1, teeth_2))
    r1, r2 = (0.5 / math.sin(math.pi / n) for n in (small, large))
    if centres <= r2 - r1:
        raise GeometryError("The sprockets lie one inside the other: check the centre distance.")
    b = math.asin((r2 - r1) / centres)
    return 2 * centres * math.cos(b) + (small + large) / 2 + (large - small) * b / math.pi


def centre_distance(teeth_1: int, teeth_2: int, length: float) -> float:
    """The centres, in pitches, at which a chain of `length` pitches is taut: the inverse of `length_in_pitches`.

    Raises GeometryError when the chain does not go round both sprockets.
    """
    r1, r2 = (0.5 / math.sin(math.pi / n) for n in sorted((teeth_1, teeth_2)))
    least = max(r2 - r1, 0.0) + 1e-9
    if length <= length_in_pitches(teeth_1, teeth_2, max(least, r1 + r2)):
        raise GeometryError("The chain is too short to go round both sprockets without their teeth touching.")
    return float(brentq(lambda c: length_in_pitches(teeth_1, teeth_2, c) - length, least, length, xtol=1e-12))


@dataclass(frozen=True)
class Elongation:
    """How much longer a chain has grown (share of its pitch), how sure (standard deviation), and the most it may."""

    share: float
    std: float
    limit: float


def elongation(span_m: float, pitches: int, pitch_m: float, std_m: float = 0.0) -> float:
    """Share by which a chain has grown: span / (n p) - 1. Source: chain standards' wear measurement.

    >>> round(elongation(12.36 * 0.0254, 24, 0.0127), 4)
    0.03
    """
    return span_m / (pitches * pitch_m) - 1


def elongation_limit(large_teeth: int | None = None, fixed_centres: bool = False) -> float:
    """The share at which a chain is worn out: 3 %; 200/N % on a sprocket over 66 teeth; 1.5 % on fixed centres.

    Source: American Chain Association; fixed centres general practice (1.5 to 2 %), medium.
    """
    general = 0.03 if not large_teeth or large_teeth <= 66 else 2.0 / large_teeth
    return min(general, 0.015) if fixed_centres else general
