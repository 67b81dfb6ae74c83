"""What a layout is made of: wheels, keepers, a carriage, and the belt that ties them."""

from dataclasses import dataclass
from enum import StrEnum
from typing import Literal

Contact = Literal["inside", "back"]
Face = Literal["grooved", "flat"]
Seat = Literal["groove", "teeth", "sprocket", "rim"]


Role = Literal["driver", "driven", "idler"]


class Lay(StrEnum):
    """How a belt lies: all in one plane, crossed between two wheels, or turned by a quarter to a shaft at right angles."""

    OPEN = "open"
    CROSSED = "crossed"
    QUARTER = "quarter-turn"


class KeeperState(StrEnum):
    """What an eye sees of a keeper."""

    IN_PLACE = "in place"
    WORN = "worn off"
    MISSING = "missing"


@dataclass(frozen=True)
class TakeUp:
    """How a wheel is moved to tighten the belt: along a line (`direction_rad`, or straight into the belt) or on an arm about `pivot` (m).

    `tighten_m`, `slacken_m`: how far its centre can still move each way; None where nobody measured.
    """

    direction_rad: float | None = None
    pivot: tuple[float, float] | None = None
    tighten_m: float | None = None
    slacken_m: float | None = None


@dataclass(frozen=True)
class PathWheel:
    """A wheel as it stands: place (m), radius of the belt's line and of the rim (m), what it does, and how the belt touches it.

    `rolls_over_m`: how much more than that line's radius (by which lengths go) the one is by which speeds go. `teeth`: where it has them.
    `power_w`: what its own machine takes (a driven wheel); while a belt is solved, what the belt gives up there, its loss in it.
    `turns_wanted`: the way it must turn, +1 counter-clockwise, if that matters. `shaft`: wheels with the same number sit on one shaft.
    `take_up`: how it moves, where it does.
    """

    name: str
    role: Role
    x_m: float
    y_m: float
    line_radius_m: float
    rim_radius_m: float
    contact: Contact = "inside"
    face: Face = "grooved"
    power_w: float = 0.0
    take_up: TakeUp | None = None
    turns_wanted: int = 0
    shaft: int = -1
    rolls_over_m: float = 0.0
    teeth: int | None = None

    @property
    def rolls_radius_m(self) -> float:
        """The radius that its speed goes by."""
        return self.line_radius_m + self.rolls_over_m


@dataclass(frozen=True)
class Keeper:
    """A finger, pin or plate that keeps the belt in.

    Where it stands (m, None when only its gap was measured) and the face the belt shows it.

    `gap_m`: measured to the taut belt; `least_m`, `most_m`: the manual's figures.
    """

    name: str
    side: Contact
    x_m: float | None = None
    y_m: float | None = None
    gap_m: float | None = None
    least_m: float | None = None
    most_m: float | None = None
    state: KeeperState = KeeperState.IN_PLACE


@dataclass(frozen=True)
class Carriage:
    """A carriage that an open-ended belt is clamped to.

    On the run that leaves wheel `run`, its near clamp `position_m` from that wheel's centre; `length_m` between clamps.
    """

    run: int
    position_m: float
    length_m: float


@dataclass(frozen=True)
class BeltOnWheels:
    """One belt (or set side by side) and the wheels it meets, in order.

    `tension_n`: standing tension of the whole set. `mass_kg_per_m`: of the whole set. `least_line_diameter_m`: the smallest that the
    section bends round. `length_m`: of the belt that is on, if it is known. `half_turn_ratio`: tight over slack strand that a groove
    holds at half a turn. `kept`: share of the power that comes out. `both_faces`: a double-V belt or a chain, which drives from its back
    too. `seat`: what it is held by; `runs`: what goes round, in a word.
    """

    wheels: tuple[PathWheel, ...]
    lay: Lay = Lay.OPEN
    tension_n: float | None = None
    mass_kg_per_m: float = 0.0
    least_line_diameter_m: float = 0.0
    top_width_m: float = 0.0
    length_m: float | None = None
    count: int = 1
    carriage: Carriage | None = None
    half_turn_ratio: float = 5.0
    both_faces: bool = False
    seat: Seat = "groove"
    runs: str = "belt"
    kept: float = 1.0

    @property
    def slips(self) -> bool:
        """Whether it holds by friction; teeth do not slip."""
        return self.seat in ("groove", "rim")
