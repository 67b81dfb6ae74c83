"""What is known about a drive on two wheels, in SI: the input of every computation on the sheet."""

from dataclasses import dataclass
from typing import Literal

from tuyere.core.drives.family import Family
from tuyere.core.drives.fitted import LineDrive
from tuyere.core.drives.v_belt import Belt, Section
from tuyere.core.drives.v_belt.family import V_BELT
from tuyere.core.entry.typed import Given
from tuyere.core.origin import Origin
from tuyere.core.rating.own_table import NONE, OwnRatings

Basis = Literal["outside", "datum"]
DrivenBasis = Literal["outside", "datum", "flat"]
GrooveKind = Literal["standard", "deep", "combination"]
DriverClass = Literal["normal", "high"]
BeltState = Literal["new", "run in"]
Rotation = Literal["clockwise", "counter-clockwise"]
Role = Literal["driver", "driven"]


@dataclass(frozen=True)
class Gauge:
    """Readings of a spring deflection gauge: one force (N) a belt, the deflection used (m) if not the target, the belts' state."""

    forces: tuple[Given, ...]
    deflection: Given | None
    belt_state: BeltState


@dataclass(frozen=True)
class Adjustable:
    """A sheave whose flange is screwed in or out: on which shaft, turns open (None: not counted), what the belt's line loses a turn (m), most turns open."""

    role: Role
    turns: float | None
    drop_m: float
    most: float
    drop_origin: Origin = Origin.RULE_OF_THUMB


@dataclass(frozen=True)
class DriveSpec:
    """One driver sheave, one driven sheave, a set of V-belts; or, with `line`, another kind of drive. None means not known.

    `own`: the shop's rating tables, which override the standards'. `idler`, `surroundings` and `starts`: as the service factor counts them. `belt_count`: belts, or bands; `band_ribs`: of each, where counted.
    """

    driver_power: Given | None = None
    driver_speed: Given | None = None
    driver_class: DriverClass = "normal"
    driven_class: str | None = None
    hours_per_day: Given | None = None
    section: Section | None = None
    driver_diameter: Given | None = None
    driver_basis: Basis = "outside"
    driven_diameter: Given | None = None
    driven_basis: DrivenBasis = "outside"
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
    adjustable: Adjustable | None = None
    line: LineDrive | None = None
    gauge: Gauge | None = None
    own: OwnRatings = NONE
    idler: str = "none"
    surroundings: str = "clean"
    starts: str = "seldom"
    band_ribs: int | None = None
    driver_groove: GrooveKind = "standard"
    driven_groove: GrooveKind = "standard"

    @property
    def family(self) -> Family:
        """Which kind of drive it is."""
        return self.line.family if self.line else V_BELT

    @property
    def driven_flat(self) -> bool:
        """V-belts that run on a flat driven wheel (V-flat)."""
        return self.driven_basis == "flat" and self.section is not None

    @property
    def ribs(self) -> int:
        """Ribs of one belt: joined or ribbed ones have several, by the belt's name or as counted."""
        return (self.belt.ribs if self.belt else None) or self.band_ribs or 1

    @property
    def parallel(self) -> int | None:
        """What a rating counts: belts side by side, or bands times the ribs of each."""
        return self.belt_count * self.ribs if self.belt_count else None
