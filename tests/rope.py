"""A kind of drive that there is not: ropes in grooves, made up for the tests. All there is to say of it stands here."""

import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Any

from tuyere.core.basis.numbers import Numbers
from tuyere.core.basis.origin import Origin
from tuyere.core.basis.page import Page
from tuyere.core.kinds.about import About, Slip
from tuyere.core.kinds.choose import Array, LineKind, Mate
from tuyere.core.kinds.choose import ChoiceWheel as Wheel
from tuyere.core.kinds.counter import CounterSlip
from tuyere.core.kinds.family import Family
from tuyere.core.kinds.fitted import RatingDuty, Role
from tuyere.core.kinds.line import LineDrive, LineWheel
from tuyere.core.kinds.loop import Loop, LoopRead, MadeLoop, Rim, Seating, Strand, Turning
from tuyere.core.kinds.part_row import PartRow
from tuyere.core.kinds.problem import Demands, Kept
from tuyere.core.kinds.rating.own_table import OwnRatings
from tuyere.core.kinds.stock_wheel import PairBelt, StockWheel
from tuyere.core.kinds.survey import Part, Record, RecordedWheel, Surveyed
from tuyere.core.kinds.told import Called
from tuyere.core.kinds.workings import put
from tuyere.core.kinds.written import Length, Written
from tuyere.core.mechanics.on_wheels.wheels import Seat


@dataclass(frozen=True)
class RopeLoop(Loop):
    """Three of them side by side."""

    seat: Seat = "groove"
    count: int = 3
    counted: bool = True

    @property
    def family(self) -> About:
        return ROPE

    @property
    def of(self) -> str:
        return "rope"

    def nearest(self, length_m: float) -> Sequence[MadeLoop]:
        return ()

    @property
    def mass_kg_per_m(self) -> float:
        return 0.4 * self.count

    @property
    def width_m(self) -> float:
        return 0.03 * self.count

    @property
    def faces(self) -> tuple[float, float]:
        return 0.01, 0.01

    @property
    def set_as(self) -> str:
        return "V-belts, inch"

    @property
    def half_turn_ratio(self) -> float:
        return math.exp(0.9)

    @property
    def strand(self) -> Strand:
        return Strand("rope", 0.4, 0.03, 0.3)

    @property
    def fastest(self) -> tuple[float | None, str]:
        return 30.0, "made up"

    @property
    def overhung(self) -> tuple[str, float]:
        return "rope", 2.0

    @property
    def traits(self) -> str:
        return "flat belt, leather"

    def grips(self, wrap_rad: Numbers) -> tuple[Numbers, str]:
        return math.exp(0.6) + 0.0 * wrap_rad, "made up"

    def stock(self) -> tuple[StockWheel, ...]:
        return (StockWheel(0.3, 0.28),)

    def sits(self, rim: Rim) -> Seating | None:
        return Seating(rim.diameter_m / 2 + 0.01, rim.diameter_m / 2, rim.diameter_m / 2 + 0.01) if rim.diameter_m else None

    def rated(self, on: Turning, own: OwnRatings) -> float:
        return 900.0


@dataclass(frozen=True)
class RopeLine(LineDrive):
    """Ropes in grooves, made up for this test."""

    def rate(self, own: OwnRatings, duty: RatingDuty, page: Page) -> None:
        put(page, "capacity", "power the ropes carry", "P", "power", 900.0 * self.of.count, [], "P = 900 W each", "made up")

    def runs_on(self, driver: StockWheel, driven: StockWheel, centre_m: float, now_m: float) -> PairBelt:
        return PairBelt("rope, spliced", False, now_m)

    def pair_written(self, driver: StockWheel, driven: StockWheel, new: Sequence[Role], on: PairBelt) -> Written:
        return {"quantities": {"driver_diameter": Length(driver.rim_m)}}


class RopeKind(LineKind):
    """Ropes as they can be chosen: a few wheels, one to six ropes, cut to length."""

    family, per_metre, pair = "rope", True, RopeLine

    def __init__(self) -> None:
        self.name, self.fits, self.loop, self.lengths = "rope", "rope groove", RopeLoop(), ()
        self.driver = self.driven = tuple(Wheel(f"{d} m rope wheel", d, d - 0.02, d / 2) for d in (0.3, 0.6, 0.9))
        self.counts = tuple(float(n) for n in range(1, 7))

    def wheel_kept(self, kept: Kept, drives: bool) -> None:
        return None

    def least_small(self, problem: Demands) -> tuple[float, str]:
        return 0.25, "a rope wants 0.25 m"

    def width(self, count: Array) -> Array:
        return count * 0.03

    def unit_capacity(self, mate: Mate, wrap: Array, lengths: Array) -> Array:  # type: ignore[override]
        return 900.0 + 0.0 * wrap

    def capacity(self, unit: Array, mate: Mate, wrap: Array, count: Array) -> Array:
        return unit * count

    def rate(self, driver: Wheel, driven: Wheel, length: Any, count: float, wrap_rad: float, problem: Demands) -> float:
        return 900.0 * count

    def of_count(self, count: float, length: Any) -> RopeLoop:
        return RopeLoop(count=int(count))

    def loop_typed(self, length: Any, count: float) -> Written:
        return {"words": {"ropes": f"{count:.0f}"}}

    def wheels_typed(self, driver: Wheel, driven: Wheel, centre_m: float) -> Written:
        return {"quantities": {"driver_diameter": Length(driver.outside_m)}}

    def parts(self, driver: Wheel, driven: Wheel, length: Any, count: float, length_m: float) -> list[tuple[float, str]]:
        return [(1, driver.name), (1, driven.name), (count, "rope")]

    def takes(self, row: PartRow, count: float) -> bool:
        return True

    def makes(self, row: PartRow, count: float) -> bool:
        return True

    def only(self, rows: list[PartRow], belts: list[PartRow]) -> "RopeKind":
        return self

    def wheel_of(self, row: PartRow) -> Wheel:
        return self.driver[0]

    def shown(self, count: float) -> str:
        return f"{count:.0f} ropes"


class Rope(Family):
    """All there is to say of it, in one place."""

    key = "rope"
    label = "rope"
    group = "v"
    part = "grooved rims"
    slip = Slip((0.01, 0.02), 0.04, "A rope slips a little (made up)")
    overhung_factor = 2.0

    def kinds(self, own: OwnRatings) -> list[RopeKind]:
        return [RopeKind()]

    def loop(self, part: Part) -> LoopRead:
        return LoopRead(RopeLoop() if "driver_diameter" in part.quantities else None)

    def survey(self, part: Part) -> Surveyed:
        if "driver_diameter" not in part.quantities:
            return Surveyed()
        wheels = LineWheel(0.3, 0.28, 0.0, Origin.MEASURED), LineWheel(0.6, 0.58, 0.0, Origin.MEASURED)
        record = Record("rope", None, 2.0, (RecordedWheel("driver", 0.28, "outside"), RecordedWheel("driven", 0.58, "outside")))
        return Surveyed(RopeLine(*wheels, 2.0, RopeLoop()), record)

    def called(self, part: Part) -> Called:
        return Called("", "", "the ropes")

    def counter_slip(self, part: Part, machine_part: str) -> CounterSlip | None:
        return CounterSlip("Rope", "3", (), machine_part, ("hemp",), ("by the yard",), (), ("wire",), ("the splice",))


ROPE = Rope()
