"""What is known about a drive on two wheels, in SI: the input of every computation on the sheet."""

from dataclasses import dataclass
from typing import Literal

from tuyere.core.basis.typed import Given
from tuyere.core.kinds.about import About
from tuyere.core.kinds.fitted import NOT_MEASURED, Fitted, Slide
from tuyere.core.kinds.rating.own_table import NONE, OwnRatings

DriverClass = Literal["normal", "high"]
Rotation = Literal["clockwise", "counter-clockwise"]


@dataclass(frozen=True)
class DriveSpec:
    """Driver, machine, readings, and what is fitted between them. None means not known.

    `own`: the shop's rating tables, which override the standards'. `idler`, `surroundings` and `starts`: as the service factor counts them.
    """

    family: About
    fitted: Fitted | None = None
    driver_power: Given | None = None
    driver_speed: Given | None = None
    driver_class: DriverClass = "normal"
    driven_class: str | None = None
    hours_per_day: Given | None = None
    slide: Slide = NOT_MEASURED
    design_speed: Given | None = None
    rotation: Rotation = "clockwise"
    centre_line_deg: float = 0.0
    tach_driver: Given | None = None
    tach_driven: Given | None = None
    own: OwnRatings = NONE
    idler: str = "none"
    surroundings: str = "clean"
    starts: str = "seldom"
    start_times: float | None = None
