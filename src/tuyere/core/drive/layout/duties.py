"""What every wheel, stage and shaft of a train has to do."""

from dataclasses import dataclass

from tuyere.core.basis.page import Page
from tuyere.core.basis.typed import Given
from tuyere.core.basis.verdict import Verdict
from tuyere.core.drive.layout.form import PathReading

ESTIMATE = "Engineering estimate: no standard rates a belt on many wheels. Each wheel counts as the small one of a pair at its own diameter, speed and wrap."


ENOUGH = 1e-6


@dataclass(frozen=True)
class TrainDemands:
    """What the machine asks: class of machine and driver, hours a day, surroundings, starts. None where not known.

    `tach_driver`, `tach_driven`: the driver's shaft and another as read; which other, by its name, or else the last.
    """

    driver_speed: float | None
    driven_class: str | None
    driver_class: str
    hours_per_day: float | None
    surroundings: str
    starts: str
    tach_driver: Given | None = None
    tach_driven: Given | None = None
    shaft: str = ""


@dataclass(frozen=True)
class WheelDuty:
    """One wheel.

    Speed (rad/s), wrap (rad), power of the belt at it (W; at its shaft `shaft_w`: less the loss, where it is driven), pull on its shaft
    (N, and its direction, rad from the right), at how many times the load it slips.

    `rated_w`: what one belt carries there; `belts`: how many it wants; `why_not` where it is not rated. `place`: among the wheels as
    typed, from 0.
    """

    name: str
    role: str
    speed: float | None
    wrap_rad: float
    power_w: float
    shaft_w: float
    pull_n: float | None
    pull_rad: float | None
    slips_at: float | None
    rated_w: float | None
    belts: float | None
    why_not: str
    place: int


@dataclass(frozen=True)
class StageDuty:
    """One stage, by its `number`: that of its belt in the survey, from 1. `first`: whether the machine's driver drives it.

    `runs`: what goes round, in a word; `counted`: whether more of it side by side makes it stronger. `power_w`: what its driver takes in,
    losses included; `factor`: its service factor; `needed`: whole belts; `governs`: the wheel that wants most.

    `slips_first`: the wheel; None where no power is stated. `standing_n`: tension of one belt at rest that the pulls are for; `stated`,
    or else the least that carries the powers.
    """

    number: int
    first: bool
    title: str
    belt: str
    fitted: int
    runs: str
    counted: bool
    belt_speed: float | None
    ratio: float | None
    power_w: float | None
    factor: float | None
    needed: int | None
    governs: str
    slips_first: str | None
    standing_n: float | None
    stated: bool
    wheels: tuple[WheelDuty, ...]
    verdicts: tuple[Verdict, ...]


@dataclass(frozen=True)
class ShaftDuty:
    """A shaft.

    The wheels on it by name, its speed (rad/s), the driver's speed over its own, and the belts' pulls on it added as arrows (N).

    `over`: the stages between the driver and it, by their belt.
    """

    name: str
    wheels: tuple[str, ...]
    speed: float | None
    ratio: float
    pull_n: float | None
    over: tuple[int, ...] = ()


@dataclass(frozen=True)
class TrainDuty:
    """Every stage (as power goes) and shaft, the `last` of them, the figures of the whole, what is still to be said, and the layout."""

    read: PathReading
    stages: tuple[StageDuty, ...]
    shafts: tuple[ShaftDuty, ...]
    last: ShaftDuty | None
    page: Page
    wanted: tuple[str, ...]

    def stage(self, number: int) -> StageDuty | None:
        """A stage by its number; None where its belt does not run."""
        return next((s for s in self.stages if s.number == number), None)
