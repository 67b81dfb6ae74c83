"""What a drive is chosen for: the power, the speeds, the room, and what must stay as it is. SI inside."""

from dataclasses import dataclass
from typing import Literal

from tuyere.core.kinds.about import About
from tuyere.core.kinds.motor import MotorLimit
from tuyere.core.kinds.rating.service import service_factor


@dataclass(frozen=True)
class Kept:
    """A wheel that stays.

    What runs on it (a V-groove, a toothed profile, a chain's number or "flat"), its outside diameter (m) or its teeth.
    """

    fits: str
    outside_m: float | None = None
    teeth: int | None = None


@dataclass(frozen=True)
class Demands:
    """Everything a candidate is held against. Lengths m, speeds rad/s, `tolerance` a share of the driven speed; None: no limit.

    `families`: None for each kind of drive in its plain form.
    """

    power_w: float
    driver_speed: float
    driven_speed: float
    tolerance: float = 0.03
    driven_class: str = "moderate"
    driver_class: Literal["normal", "high"] = "normal"
    hours_per_day: float = 8.0
    idler: str = "none"
    surroundings: str = "clean"
    starts: str = "seldom"
    ambient_c: float | None = None
    centre_low_m: float = 0.0
    centre_high_m: float = 20.0
    driver_most_m: float | None = None
    driven_most_m: float | None = None
    width_most_m: float | None = None
    driver_shaft_m: float | None = None
    driven_shaft_m: float | None = None
    pull_most_n: float | None = None
    motor: MotorLimit | None = None
    reserve: bool = False
    least_chain_teeth: int = 17
    fast_wheels: bool = False
    families: frozenset[str] | None = None
    kinds: frozenset[str] = frozenset()
    keep_driver: Kept | None = None
    keep_driven: Kept | None = None
    centre_line_deg: float = 0.0
    rotation: str = "clockwise"

    def service_factor(self, family: About) -> tuple[float, str]:
        """The factor of a family for this duty, and its source."""
        return service_factor(
            family,
            self.driven_class,
            self.driver_class,
            self.hours_per_day,
            self.driven_speed / self.driver_speed,
            self.idler,
            self.surroundings,
            self.starts,
        )

    @property
    def centre_middle_m(self) -> float:
        """Where a drive cut to length is set: the middle of the room there is."""
        return (self.centre_low_m + self.centre_high_m) / 2
