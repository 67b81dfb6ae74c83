"""What to draw of a toothed belt or a chain at 1:1, to lay on it."""

from collections.abc import Sequence
from dataclasses import dataclass


@dataclass(frozen=True)
class DrawnShape:
    """A shape to draw (m), point after point."""

    points: Sequence[Sequence[float]]
    closed: bool


@dataclass(frozen=True)
class Template:
    """A belt's side view over some teeth, or a chain's links and the sprocket tooth under a roller."""

    pitch_m: float
    height_m: float
    teeth: int
    belt: DrawnShape | None = None
    roller_m: float | None = None
    plate_height_m: float | None = None
    pin_m: float | None = None
    inner_width_m: float | None = None
    waisted: bool = False
    tooth: DrawnShape | None = None
    tooth_teeth: int = 0
    wheel_radius_m: float = 0.0
