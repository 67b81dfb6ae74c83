"""A flat belt round the pulleys of a layout."""

import math
from collections.abc import Sequence
from dataclasses import dataclass, field
from typing import TYPE_CHECKING

from tuyere.core.basis.figure import both
from tuyere.core.basis.limit import Limit, limit
from tuyere.core.basis.numbers import Numbers
from tuyere.core.basis.reader import FieldReader
from tuyere.core.basis.table import rows
from tuyere.core.kinds.about import About
from tuyere.core.kinds.flat import FlatBelt, flat_belts
from tuyere.core.kinds.flat.about import ABOUT
from tuyere.core.kinds.flat.joint import JOINTS, size_of
from tuyere.core.kinds.flat.rating import rated_power
from tuyere.core.kinds.flat.tension import FRICTION_DRY, tension_ratio
from tuyere.core.kinds.loop import Loop, LoopRead, MadeLoop, Rim, Seating, Strand, Stretch, Turning, on_roller
from tuyere.core.kinds.rating.duties import OutOfRangeError
from tuyere.core.kinds.stock_wheel import StockWheel
from tuyere.core.kinds.survey import Part
from tuyere.core.mechanics.on_wheels.wheels import Seat
from tuyere.core.mechanics.speed import CAST_IRON_RIM_LIMIT, CAST_IRON_RIM_LIMIT_M_PER_S

if TYPE_CHECKING:
    from tuyere.core.kinds.rating.own_table import OwnRatings


@dataclass(frozen=True)
class FlatLoop(Loop):
    """A flat belt, cut to length. `belt`: its kind, None while not known; `thick_m`: its thickness."""

    thick_m: float
    belt: FlatBelt | None = None
    width: float | None = None
    both_faces: bool = field(default=True, init=False)
    seat: Seat = field(default="rim", init=False)

    @property
    def family(self) -> About:
        return ABOUT

    @property
    def of(self) -> str:
        return self.belt.name if self.belt else "flat"

    @property
    def traits(self) -> str:
        return "flat belt, leather" if self.belt and self.belt.material == "leather" else "flat belt, synthetic"

    def nearest(self, length_m: float) -> Sequence[MadeLoop]:
        return []

    @property
    def mass_kg_per_m(self) -> float:
        return self.belt.density_kg_m3 * self.thick_m * (self.width or 0.0) if self.belt else 0.0

    @property
    def width_m(self) -> float:
        return self.width or 0.0

    @property
    def faces(self) -> tuple[float, float]:
        return self.thick_m / 2, self.thick_m / 2

    @property
    def least_m(self) -> float:
        return (self.belt.least_pulley_m(self.thick_m) or 0.0) if self.belt else 0.0

    @property
    def half_turn_ratio(self) -> float:
        """Where it slips: all of its friction on clean iron. Unknown, it counts as leather does dry: 0.3, common practice."""
        return math.exp(math.pi * (self.belt.friction if self.belt else FRICTION_DRY))

    @property
    def named(self) -> bool:
        return self.belt is not None

    @property
    def missing(self) -> tuple[str, str] | None:
        return ("The belt's width is missing", "Measure it: the rating goes by it.") if self.belt is None or self.width is None else None

    @property
    def broad_m(self) -> float | None:
        return self.width

    @property
    def far_apart(self) -> Limit:
        return limit("flat far apart")

    @property
    def fastest(self) -> tuple[float | None, str]:
        """One of a kind that is not known counts as leather."""
        if self.belt is None or self.belt.material == "leather":
            return limit("leather speed").value, limit("leather speed").source
        return CAST_IRON_RIM_LIMIT_M_PER_S, f"{CAST_IRON_RIM_LIMIT} on cast iron (high)"

    def stock(self) -> Sequence[StockWheel]:
        sizes = [float(r["diameter"]) / 1000 for r in rows("flat_crowns")]
        return [StockWheel(d + self.thick_m, d) for d in sizes]

    def speaks_against(self, driver: StockWheel, driven: StockWheel, fastest: float) -> list[str]:
        small = min(driver.rim_m, driven.rim_m) < self.least_m * (1 - 1e-6)
        return [f"under the smallest for {self.of} ({both(self.least_m)})"] if small else []

    @property
    def strand(self) -> Strand:
        return Strand("belt", self.mass_kg_per_m, self.thick_m, self.belt.friction if self.belt else FRICTION_DRY)

    @property
    def stretch(self) -> Stretch | None:
        row = next((r for r in rows("belt_stretch") if self.belt and r["material"] == self.belt.material), None)
        return Stretch(float(row["low"]), float(row["high"]), row["source"]) if row else None

    def joint_n(self, joint: str) -> float | None:
        """Of leather: its allowable stress times the joint's share of the belt's strength."""
        size = next((s for j in JOINTS if j == joint and (s := size_of(j, self.thick_m))), None)
        if size is None or self.width is None or self.belt is None or self.belt.material != "leather":
            return None
        return limit("leather stress").value * size.holds * self.thick_m * self.width

    def grips(self, wrap_rad: Numbers) -> tuple[Numbers, str]:
        return tension_ratio(self.belt.friction if self.belt else FRICTION_DRY, wrap_rad)

    def sits(self, rim: Rim) -> Seating | None:
        return on_roller(rim.diameter_m / 2, rim.contact, self.faces) if rim.diameter_m else None

    def rated(self, on: Turning, own: "OwnRatings") -> float:
        if self.belt is None or self.width is None:
            raise OutOfRangeError("Say which kind of flat belt it is, and how wide: the rating goes by both.")
        rim, velocity = on.line_m - self.thick_m, on.speed * on.line_m / 2
        return rated_power(self.belt, self.width, rim, velocity, on.wrap_rad, own.of(self.belt.name), on.ratio).power_w


def read_loop(part: Part) -> LoopRead:
    """By its kind, width and thickness; its kind's own thickness where that was not measured."""
    reader = FieldReader(part.quantities, part.words)
    width, thick = reader.value("flat_width", "belt_width"), reader.value("flat_thickness", "flat_thickness")
    belt = flat_belts().get(part.words.get("belt", ""))
    thick = thick if thick is not None else belt.thickness_m if belt else None
    return LoopRead(FlatLoop(thick, belt, width) if thick is not None else None, tuple(reader.problems), reader.notes)
