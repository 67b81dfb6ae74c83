"""A belt section seated in a groove: plane geometry of two trapezoids, both taken as rigid.

A belt whose sides open wider than the groove's touches with its top corners, or at the rim when it is wider than the
groove; one whose sides are steeper touches with its bottom corners. The real belt then gives a little and sits flush on
its sides; the height is the same within a few hundredths of a millimetre.
"""

import math
from dataclasses import dataclass


@dataclass(frozen=True)
class Trapezoid:
    """A belt: top width and height (m) and the angle between its sides (rad). A groove: top width, depth, angle."""

    top_width_m: float
    height_m: float
    angle_rad: float

    def width_at(self, below_top_m: float) -> float:
        """Width (m) at a distance below its top."""
        return self.top_width_m - 2 * below_top_m * math.tan(self.angle_rad / 2)


@dataclass(frozen=True)
class Seat:
    """Where the belt comes to rest: its back above the rim (m, negative: sunk), room left under it, and what it touches with."""

    ride_m: float
    room_below_m: float
    touches: str

    @property
    def bottoms(self) -> bool:
        """Whether the belt sits on the bottom of its groove."""
        return self.touches == "bottom of the groove"


def seat(belt: Trapezoid, groove: Trapezoid) -> Seat:
    """Lower the belt into the groove until it touches.

    >>> b = Trapezoid(0.0168, 0.0104, math.radians(40))
    >>> round(seat(b, Trapezoid(0.0162, 0.014, math.radians(34))).ride_m * 1000, 2)
    0.82
    """
    half_belt, half_groove = math.tan(belt.angle_rad / 2), math.tan(groove.angle_rad / 2)
    depths = {
        # How deep the back lies below the rim (negative: above) when this contact stops it; the shallowest wins.
        "rim": (groove.top_width_m - belt.top_width_m) / (2 * half_belt),
        "top corners": (groove.top_width_m - belt.top_width_m) / (2 * half_groove),
        "bottom corners": (groove.top_width_m - belt.width_at(belt.height_m)) / (2 * half_groove) - belt.height_m,
        "bottom of the groove": groove.height_m - belt.height_m,
    }
    if depths["rim"] > 0:
        del depths["rim"]  # the rim can only stop a belt that is wider than the groove
    else:
        del depths["top corners"]
    touches = min(depths, key=lambda name: depths[name])
    sunk = depths[touches]
    return Seat(-sunk, groove.height_m - belt.height_m - sunk, touches)


def pitch_drop(wall_loss_m: float, groove_angle_rad: float) -> float:
    """How far a belt drops (m, radially) when each wall loses `wall_loss_m` square to its face: w / sin(angle/2).

    >>> round(pitch_drop(0.0004, math.radians(38)) * 1000, 2)
    1.23
    """
    return wall_loss_m / math.sin(groove_angle_rad / 2)
