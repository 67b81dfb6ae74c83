"""What is known about a two-sheave V-belt drive, in SI: the input of every computation on the sheet."""

from dataclasses import dataclass
from typing import Literal

from uncertainties import UFloat

from tuyere.core.families.v_belt import Belt, Section
from tuyere.core.origin import Origin
from tuyere.core.uncertainty import uncertain

Basis = Literal["outside", "datum"]
DriverClass = Literal["normal", "high"]
BeltState = Literal["new", "run in"]
Rotation = Literal["clockwise", "counter-clockwise"]


@dataclass(frozen=True)
class Given:
    """An entered value: SI, its standard uncertainty, its origin, and what to call it in a budget."""

    value: float
    std: float
    origin: Origin
    name: str

    @property
    def u(self) -> UFloat:
        return uncertain(self.value, self.std, self.name)


@dataclass(frozen=True)
class Gauge:
    """Readings of a spring deflection gauge: one force (N) a belt, the deflection used (m) if not the target, the belts' state."""

    forces: tuple[Given, ...]
    deflection: Given | None
    belt_state: BeltState


@dataclass(frozen=True)
class DriveSpec:
    """One driver sheave, one driven sheave, a set of classical V-belts. None means not known."""

    driver_power: Given | None = None
    driver_speed: Given | None = None
    driver_class: DriverClass = "normal"
    driven_class: str | None = None
    hours_per_day: Given | None = None
    section: Section | None = None
    driver_diameter: Given | None = None
    driver_basis: Basis = "outside"
    driven_diameter: Given | None = None
    driven_basis: Basis = "outside"
    centre_distance: Given | None = None
    belt: Belt | None = None
    belt_origin: Origin = Origin.NAMEPLATE
    belt_count: int | None = None
    travel_in: Given | None = None
    travel_out: Given | None = None
    design_speed: Given | None = None
    rotation: Rotation = "clockwise"
    centre_line_deg: float = 0.0
    tach_driver: Given | None = None
    tach_driven: Given | None = None
    gauge: Gauge | None = None
