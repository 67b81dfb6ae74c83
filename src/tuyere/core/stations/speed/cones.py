"""Step cones: the diameters at which one belt fits every step exactly, and how well a pair that is there does.

Open belt: 2 C cos β + (π + 2β) R + (π - 2β) r is the same on every step, sin β = (R - r)/C. Crossed belt: R + r is the same (exact).
Plane geometry; textbooks on machine design give the same conditions with a series in place of the open one.
"""

import math
from collections.abc import Sequence
from dataclasses import dataclass

from scipy.optimize import brentq

from tuyere.core.mechanics.open_belt import GeometryError, belt_length


def crossed_length(d_m: float, big_m: float, centre_m: float) -> float:
    """Length of a crossed belt, m: L = sqrt(4C² - (D+d)²) + (D+d)/2 (π + 2 asin((D+d)/2C))."""
    total = d_m + big_m
    if total >= 2 * centre_m:
        raise GeometryError("The wheels overlap: the centres must be more than half of both diameters apart.")
    return math.sqrt(4 * centre_m**2 - total**2) + total / 2 * (math.pi + 2 * math.asin(total / (2 * centre_m)))


def length(d_m: float, big_m: float, centre_m: float, crossed: bool) -> float:
    """Length of the belt's line round a step, m."""
    return crossed_length(d_m, big_m, centre_m) if crossed else belt_length(d_m, big_m, centre_m)


@dataclass(frozen=True)
class ConeStep:
    """One step: diameters of the belt's line on both cones (m), turns of the driver to one of the driven, and the belt it wants (m)."""

    driving_m: float
    driven_m: float
    ratio: float
    length_m: float


def design_step(ratio: float, belt_m: float, centre_m: float, crossed: bool, over_m: float = 0.0) -> ConeStep:
    """The step of the wanted ratio (turns of the driver to one of the driven) that the belt fits exactly.

    Raises GeometryError when none does.

    over_m: how much larger the diameters that speeds go by are than those of the line (a V-belt's pitch over its datum).

    >>> step = design_step(2.0, design_step(1.0, 4.0, 1.5, True).length_m, 1.5, True)
    >>> one = design_step(1.0, 4.0, 1.5, True)
    >>> round(step.driving_m + step.driven_m - one.driving_m - one.driven_m, 9)
    0.0
    """
    if ratio <= 0:
        raise GeometryError("A ratio is above zero: turns of the driver to one of the driven.")
    largest = (2 * centre_m * 0.999 + over_m * (1 - ratio)) / (1 + ratio)  # the wheels touch

    def driven(driving: float) -> float:
        return (driving + over_m) * ratio - over_m

    def gap(driving: float) -> float:
        return length(driving, driven(driving), centre_m, crossed) - belt_m

    smallest = max(0.0, over_m * (1 / ratio - 1)) + 1e-9
    if largest <= smallest:
        raise GeometryError("The centres are too near for this ratio: no wheels that clear each other give it.")
    if belt_m <= 2 * centre_m:
        raise GeometryError("The belt is too short for these centres: it is under twice their distance.")
    if gap(largest) < 0:
        raise GeometryError("The belt is too long for these centres: no wheels that clear each other take it up.")
    driving = float(brentq(gap, smallest, largest, xtol=1e-12, rtol=1e-14))
    return ConeStep(driving, driven(driving), ratio, belt_m)


def design(ratios: Sequence[float], first_driving_m: float, centre_m: float, crossed: bool, over_m: float = 0.0) -> list[ConeStep]:
    """A pair of cones: the first step by its driving diameter, the others so that the same belt fits.

    Raises GeometryError, naming the step, where none is possible.
    """
    belt = length(first_driving_m, (first_driving_m + over_m) * ratios[0] - over_m, centre_m, crossed)
    found = []
    for number, ratio in enumerate(ratios, 1):
        try:
            found.append(design_step(ratio, belt, centre_m, crossed, over_m))
        except GeometryError as reason:
            raise GeometryError(f"Step {number}: {reason}") from None
    return found


def as_found(pairs: Sequence[tuple[float, float]], centre_m: float, crossed: bool, over_m: float = 0.0) -> list[ConeStep]:
    """A pair that is there: what belt each of its steps wants at these centres."""
    return [ConeStep(d, big, (big + over_m) / (d + over_m), length(d, big, centre_m, crossed)) for d, big in pairs]


def geometric(slowest: float, fastest: float, count: int) -> list[float]:
    """Ratios in even steps of percentage, slowest driven speed first: each step is the same share faster than the one before.

    >>> [round(r, 3) for r in geometric(4.0, 1.0, 3)]
    [4.0, 2.0, 1.0]
    """
    if count == 1:
        return [slowest]
    return [slowest * (fastest / slowest) ** (k / (count - 1)) for k in range(count)]


@dataclass(frozen=True)
class Converted:
    """One range of a machine before and after a conversion: speeds (rad/s), and the torque there is after over before (the same power)."""

    before: float
    after: float

    @property
    def torque(self) -> float:
        """Torque after over before at the same power: it goes the other way."""
        return self.before / self.after
