"""What every kind of drive must answer for the search: wheels, lengths, counts, and its rating, one at a time and in arrays."""

from __future__ import annotations

import copy
import math
from abc import ABC, abstractmethod
from collections.abc import Callable
from dataclasses import dataclass, replace
from functools import cached_property
from typing import TYPE_CHECKING

import numpy as np
from numpy.typing import NDArray

from tuyere.core.basis.figure import both
from tuyere.core.basis.origin import Origin
from tuyere.core.basis.typed import Given
from tuyere.core.kinds.about import About
from tuyere.core.kinds.line import LineDrive, LineWheel
from tuyere.core.kinds.loop import Loop
from tuyere.core.kinds.motor import MotorLimit
from tuyere.core.kinds.rating.own_table import OwnTable
from tuyere.core.kinds.spec import DriveSpec
from tuyere.core.kinds.written import Written, merged
from tuyere.core.mechanics import open_belt
from tuyere.core.mechanics.on_wheels.wheels import Face
from tuyere.core.mechanics.speed import CAST_IRON_RIM_LIMIT_M_PER_S, rim_limit

if TYPE_CHECKING:
    from tuyere.core.kinds.part_row import PartRow
    from tuyere.core.kinds.problem import Demands, Kept

Array = NDArray[np.float64]
Places = NDArray[np.int64]
CAST_IRON = CAST_IRON_RIM_LIMIT_M_PER_S
SAME_M = 0.0004  # two ways to write one diameter, or one width
FLAT_HUB_SHARE = 0.6  # largest hub of a flat pulley, of its rim: common practice, no source
HUB_OVER_BORE = 1.5  # the least metal round a bore and its key: common practice, no source


@dataclass(frozen=True)
class ChoiceWheel:
    """A wheel that can be had.

    Diameter of the belt's line, over the outside, of the largest hub (m); teeth; fewest and most belts it is made for.

    `rolls`: the diameter that its speed counts by (a V-sheave's pitch diameter; a chain's polygon: teeth times pitch over pi); the line's
    where not given.
    """

    name: str
    line_m: float
    outside_m: float
    hub_m: float
    teeth: int | None = None
    fewest: float = 0.0
    most: float = 1e9
    rolls: float | None = None

    @property
    def rolls_m(self) -> float:
        """The diameter that speeds count by."""
        return self.rolls or self.line_m

    @property
    def bore_most_m(self) -> float:
        """The largest shaft it goes on, as a rule."""
        return self.hub_m / HUB_OVER_BORE


@dataclass(frozen=True)
class StockLength:
    """A belt or chain by its name and the length of its line (m)."""

    name: str
    line_m: float


@dataclass(frozen=True)
class Mate:
    """Two wheels with what runs on them at a centre distance, as a rating needs it: m, rad, rad/s. Arrays or single numbers alike."""

    driver_line_m: Array
    driven_line_m: Array
    small_line_m: Array
    small_teeth: Array
    fast: float | Array
    belt_speed: Array
    ratio: Array  # faster over slower shaft


@dataclass(frozen=True, eq=False)
class Prices:
    """What parts cost by the shop's list, NaN where it does not say.

    Either wheel by wheel and count, the belts (or a metre) by length and count.
    """

    driver: Array
    driven: Array
    belts: Array
    per_metre: bool


def chosen(value: float, name: str) -> Given:
    """A value that a choice has settled."""
    return Given(value, 0.0, Origin.CHOSEN, name)


class Choosable(ABC):
    """One section, profile, chain or flat belt, with the wheels, lengths and counts it can be had in.

    `loop`: one of it, of no certain length. `lengths` empty: cut to length. `counts`: belts, strands, or widths in m. `own`: the shop's
    table that rates it. `had`: by length and count, whether the shop's list has it (None: all can be had).
    """

    loop: Loop
    family: str
    name: str
    fits: str
    assumed: bool = True
    counted_as: str = ""
    driver: tuple[ChoiceWheel, ...]
    driven: tuple[ChoiceWheel, ...]
    lengths: tuple[StockLength, ...]
    counts: tuple[float, ...]
    kept_arrays: object = None
    kept_lengths: tuple[Array, Places] | None = None
    own: OwnTable | None = None
    had: NDArray[np.bool_] | None = None
    prices: Prices | None = None

    @property
    def drive(self) -> About:
        """Which kind of drive it makes."""
        return self.loop.family

    @property
    def traits(self) -> str:
        """Which row of the kinds' traits holds for it."""
        return self.loop.traits

    def wanted_by(self, families: frozenset[str] | None) -> bool:
        """Whether it is among those; of none named, whether it is its kind of drive in its plain form."""
        return self.family in families if families is not None else self.family == self.drive.key

    @property
    def size(self) -> int:
        """How many combinations there are."""
        return len(self.driver) * len(self.driven) * max(1, len(self.lengths)) * len(self.counts)

    def restricted(self, wheel: Callable[[ChoiceWheel], bool], length: Callable[[StockLength], bool]) -> Choosable:
        """The same kind with only some of its wheels and lengths, and no prices."""
        one = copy.copy(self)
        one.forget()
        one.driver, one.driven = tuple(filter(wheel, self.driver)), tuple(filter(wheel, self.driven))
        one.lengths = tuple(filter(length, self.lengths))
        if self.had is not None and self.lengths:
            one.had = self.had[[n for n, x in enumerate(self.lengths) if x in one.lengths]]
        one.prices = None
        return one

    def forget(self) -> None:
        """Drop what was kept of its wheels and lengths, when they change."""
        self.kept_arrays = self.kept_lengths = None

    @abstractmethod
    def wheel_kept(self, kept: Kept, drives: bool) -> ChoiceWheel | None:
        """The wheel that stays on the driver's shaft, or the driven one, if this kind runs on it."""

    @abstractmethod
    def least_small(self, problem: Demands) -> tuple[float, str]:
        """The smallest wheel for this kind: a line diameter (m) or a number of teeth, and how to say it."""

    def small_measure(self, line_m: Array, teeth: Array) -> Array:
        """What `least_small` is held against."""
        return line_m

    def least_teeth(self, fast: Array) -> Array:
        """The fewest teeth of the small wheel at the speed of its shaft (rad/s), where that rises with speed.

        Infinite where none is tabled.
        """
        return np.zeros_like(fast)

    @cached_property
    def least_wrap(self) -> float:
        """The least wrap on the small wheel, rad; 0 where teeth in mesh decide."""
        return self.loop.least_wrap.value if self.loop.least_wrap else 0.0

    def rim_limit(self, problem: Demands) -> float:
        """How fast a rim may run, m/s: ordinary cast iron's, or steel's where wheels are balanced for speed."""
        return rim_limit("steel") if problem.fast_wheels else CAST_IRON

    def motor_short(self, driver_line_m: Array, driver_outside_m: Array, problem: Demands) -> Array:
        """How far the driver stays under what the motor's shaft wants, m; zero or less: none."""
        if problem.motor is None:
            return np.zeros_like(driver_line_m)
        # Where no sheave table holds, the pull by the usual factor may be what V-belts at the smallest sheave would make it.
        least = self.loop.overhung[1] * 2 * problem.power_w / (problem.driver_speed * problem.motor.pull_n)
        return least - driver_line_m

    def motor_width(self, motor: MotorLimit) -> float | None:
        """How wide a drive the motor's shaft takes, m: the usable shaft, as for narrow belts, where the standard says no more."""
        return motor.narrow_width_m

    def widest(self, problem: Demands) -> tuple[float | None, str]:
        """The most width that there is room for, m, and where; None: no limit."""
        on_motor = self.motor_width(problem.motor) if problem.motor else None
        if on_motor is not None and (problem.width_most_m is None or on_motor < problem.width_most_m):
            assert problem.motor
            return on_motor, f"on the motor's shaft ({problem.motor.named})"
        return problem.width_most_m, "there"

    @property
    def most_over_wheel(self) -> float | None:
        """How wide the belt may be for the small wheel, as a share of its diameter: nobody turns a wheel broader than it is high.

        None: counted belts.
        """
        return None

    def fastest(self, problem: Demands) -> float:
        """How fast it may run, m/s: its own limit, and that of cast-iron wheels unless they are balanced for more."""
        own = self.loop.fastest[0] or math.inf
        return own if problem.fast_wheels else min(own, CAST_IRON)

    @abstractmethod
    def width(self, count: Array) -> Array:
        """Over the belts or chain, m."""

    @property
    def standing(self) -> float:
        """The share of the exact half-sum of the strands that it is set to."""
        return 1.0

    @abstractmethod
    def unit_capacity(self, mate: Mate, wrap: Array, lengths: Places) -> Array:
        """Power (W) carried by one belt, or by a set of count 1, shaped as wrap.

        NaN where nothing rates it. lengths: indices into `lengths`.
        """

    @abstractmethod
    def capacity(self, unit: Array, mate: Mate, wrap: Array, count: Array) -> Array:
        """Power (W) of the set, from `unit_capacity`; `count` as a column gives a row for each."""

    @abstractmethod
    def rate(
        self, driver: ChoiceWheel, driven: ChoiceWheel, length: StockLength | None, count: float, wrap_rad: float, problem: Demands
    ) -> float:
        """The same by the rating's own code, one at a time, W. Raises OutOfRangeError with the reason."""

    def centre(self, driver: ChoiceWheel, driven: ChoiceWheel, length: StockLength) -> float:
        """Where a length stands taut (m). Raises GeometryError."""
        return open_belt.centre_distance(driver.line_m, driven.line_m, length.line_m)

    @abstractmethod
    def on_sheet(
        self, shared: DriveSpec, driver: ChoiceWheel, driven: ChoiceWheel, length: StockLength | None, count: float, centre_m: float
    ) -> DriveSpec:
        """What the problem asks, with this drive fitted."""

    @abstractmethod
    def loop_typed(self, length: StockLength | None, count: float) -> Written:
        """What goes round, as a person would have typed it into its kind's form."""

    @abstractmethod
    def wheels_typed(self, driver: ChoiceWheel, driven: ChoiceWheel, centre_m: float) -> Written:
        """Two wheels and their centres, as a person would have typed them into it."""

    def as_typed(self, driver: ChoiceWheel, driven: ChoiceWheel, length: StockLength | None, count: float, centre_m: float) -> Written:
        """The drive as a person would have typed it into its kind's form."""
        return merged(self.loop_typed(length, count), self.wheels_typed(driver, driven, centre_m))

    @property
    def driven_face(self) -> Face:
        """What its driven wheels show it."""
        return "grooved"

    @abstractmethod
    def parts(
        self, driver: ChoiceWheel, driven: ChoiceWheel, length: StockLength | None, count: float, length_m: float
    ) -> list[tuple[float, str]]:
        """What to fetch: how many, and its name."""

    # --- out of a shop's list

    per_metre: bool = False

    @property
    def driven_fits(self) -> str:
        """What runs on its driven wheels, as a list says it."""
        return self.fits

    @property
    def listed_as(self) -> str:
        """What a list calls its belts."""
        return self.name

    def lists(self, row: PartRow) -> bool:
        """Whether a listed belt or chain is of this kind."""
        return row.fits == self.listed_as

    @abstractmethod
    def takes(self, row: PartRow, count: float) -> bool:
        """Whether a listed wheel takes so many belts or strands, or a belt so wide."""

    @abstractmethod
    def makes(self, row: PartRow, count: float) -> bool:
        """Whether a listed belt makes a set of so many strands, or so wide."""

    def many(self, count: float) -> float:
        """How many of what the list sells make such a set."""
        return 1.0

    @abstractmethod
    def only(self, rows: list[PartRow], belts: list[PartRow]) -> Choosable:
        """The same kind in the lengths and counts that are listed."""

    @abstractmethod
    def wheel_of(self, row: PartRow) -> ChoiceWheel:
        """A wheel of the list as the search takes it."""

    @abstractmethod
    def shown(self, count: float) -> str:
        """The belt or chain of so many, in words."""

    def made_for(self, wheel: ChoiceWheel) -> str:
        """What may run on a wheel, in words."""
        return f"takes belts up to {both(wheel.most)} wide"

    def had_at(self, length: StockLength | None, count: float) -> bool:
        """Whether the shop's list has a belt or chain."""
        return self.had is None or bool(self.had[self.lengths.index(length) if length else 0, self.counts.index(count)])

    def caution(self, problem: Demands, driver: ChoiceWheel, driven: ChoiceWheel) -> str:
        """What to mind of an otherwise feasible pair; empty for nothing."""
        return ""

    @property
    def reserve_counts(self) -> bool:
        """Whether one of several may break and the rest run on."""
        return False

    def line_terms(self, d: Array, big: Array, teeth_d: Array, teeth_big: Array) -> tuple[Array, Array, Array]:
        """(a, b, h) in L = 2 C cos β + a + b β, sin β = h/C: an open belt's by its lines."""
        return np.pi * (d + big) / 2, big - d, (big - d) / 2


def ratio_of(driver: ChoiceWheel, driven: ChoiceWheel) -> float:
    """Faster over slower shaft."""
    small, large = sorted((driver.rolls_m, driven.rolls_m))
    return large / small


def fast_shaft(driver: ChoiceWheel, driven: ChoiceWheel, problem: Demands) -> float:
    """Speed of the faster shaft, rad/s."""
    return problem.driver_speed * max(1.0, driver.rolls_m / driven.rolls_m)


def steps_at(froms: Array, values: Array, x: Array) -> Array:
    """The last step at or below each x, of a stepped table."""
    return np.asarray(values[np.clip(np.searchsorted(froms, x, side="right") - 1, 0, len(values) - 1)])


class LineKind(Choosable):
    """A kind that goes by the line of its belt or chain. `pair`: the drive that it makes on two wheels."""

    pair: type[LineDrive]

    @abstractmethod
    def of_count(self, count: float, length: StockLength | None) -> Loop:
        """It, in so many strands or so wide, and that long."""

    def on_sheet(
        self, shared: DriveSpec, driver: ChoiceWheel, driven: ChoiceWheel, length: StockLength | None, count: float, centre_m: float
    ) -> DriveSpec:
        """What the problem asks, with this drive fitted."""
        first, second = (LineWheel(w.line_m, w.outside_m, 0.0, Origin.CHOSEN, w.teeth) for w in (driver, driven))
        return replace(shared, fitted=self.pair(first, second, centre_m, self.of_count(count, length)))
