"""A belt between two shafts at right angles (a quarter turn).

The law of belting: a belt stays on a wheel when it arrives in that wheel's mid-plane; so the point where it leaves one wheel
lies in the mid-plane of the other. Both leaving points then lie on the line in which the two mid-planes meet, which is
tangent to both wheels; each run is as long as the shafts are apart. Source: plane geometry in each mid-plane; handbooks'
approximate length agrees to second order in diameter over centres.
"""

import math
from dataclasses import dataclass

from tuyere.core.mechanics.open_belt import GeometryError


@dataclass(frozen=True)
class QuarterTurn:
    """Length of the belt's line, each run, the wraps, how far each wheel's middle stands off the other shaft, and the angle at which the belt
    leaves each wheel's plane.
    """

    length_m: float
    run_m: float
    driver_wrap_rad: float
    driven_wrap_rad: float
    driven_offset_m: float
    driver_offset_m: float
    driver_lead_rad: float
    driven_lead_rad: float


def quarter_turn(driver_radius_m: float, driven_radius_m: float, centre_m: float) -> QuarterTurn:
    """The taut quarter-turn belt; `centre_m` is the shortest distance between the two shafts.

    >>> round(quarter_turn(0.1, 0.15, 1.2).length_m, 4)
    3.2393
    """
    if min(driver_radius_m, driven_radius_m) <= 0:
        raise GeometryError("Every wheel needs a diameter above zero.")
    if centre_m <= driver_radius_m + driven_radius_m:
        raise GeometryError("The shafts are too near each other for a quarter turn: the wheels would touch.")
    half = [math.atan(r / centre_m) for r in (driver_radius_m, driven_radius_m)]
    wraps = [math.pi + 2 * a for a in half]
    length = 2 * centre_m + driver_radius_m * wraps[0] + driven_radius_m * wraps[1]
    # The belt leaves the driver towards the driven wheel's rim, so its lead angle there is the driven wheel's, and the other way.
    return QuarterTurn(length, centre_m, wraps[0], wraps[1], driver_radius_m, driven_radius_m, 2 * half[1], 2 * half[0])
