"""A chain round the sprockets of a layout."""

import math
from collections.abc import Sequence
from dataclasses import dataclass, field
from typing import TYPE_CHECKING

from tuyere.core.basis.limit import Limit, limit
from tuyere.core.basis.numbers import Numbers
from tuyere.core.basis.reader import FieldReader
from tuyere.core.basis.table import rows
from tuyere.core.basis.verdict import Problem
from tuyere.core.kinds.about import About
from tuyere.core.kinds.loop import Loop, LoopRead, MadeLoop, Rim, Seating, Strand, Turning, on_roller
from tuyere.core.kinds.rating.duties import OutOfRangeError
from tuyere.core.kinds.roller_chain.about import ABOUT
from tuyere.core.kinds.roller_chain.chain import Chain, ChainError, parse_mark
from tuyere.core.kinds.roller_chain.rating import USUAL_PITCHES, rated_power
from tuyere.core.kinds.roller_chain.sprocket import outside_diameter, pitch_diameter, sprocket
from tuyere.core.kinds.roller_chain.tension import tension_ratio
from tuyere.core.kinds.stock_wheel import StockWheel
from tuyere.core.kinds.survey import Part
from tuyere.core.mechanics.on_wheels.wheels import Seat

if TYPE_CHECKING:
    from tuyere.core.kinds.rating.own_table import OwnRatings


@dataclass(frozen=True)
class ChainLoop(Loop):
    """A chain of so many strands; `pitches`: how long it is, None while not counted."""

    chain: Chain
    strands: int = 1
    pitches: int | None = None
    seat: Seat = field(default="sprocket", init=False)
    both_faces: bool = field(default=True, init=False)

    @property
    def family(self) -> About:
        return ABOUT

    @property
    def link_m(self) -> float:
        return self.chain.pitch_m

    @property
    def of(self) -> str:
        return self.chain.name

    def _made(self, pitches: int) -> MadeLoop:
        return MadeLoop(f"{self.chain.name}, {pitches} pitches", pitches * self.chain.pitch_m)

    @property
    def made(self) -> MadeLoop | None:
        return self._made(self.pitches) if self.pitches else None

    def nearest(self, length_m: float) -> Sequence[MadeLoop]:
        """An even number of pitches wants no offset link."""
        below = 2 * math.floor(length_m / self.chain.pitch_m / 2 + 1e-9)
        return [self._made(n) for n in (below, below + 2) if n]

    @property
    def mass_kg_per_m(self) -> float:
        return (self.chain.mass_kg_per_m or 0.0) * self.strands

    @property
    def width_m(self) -> float:
        return (self.chain.inner_width_m or 0.0) + (self.strands - 1) * (self.chain.transverse_pitch_m or 0.0)

    @property
    def faces(self) -> tuple[float, float]:
        half = (self.chain.plate_height_m or 1.2 * self.chain.on_sprocket_m) / 2
        return half, half

    @property
    def fastest(self) -> tuple[float | None, str]:
        return limit("chain speed").value, limit("chain speed").source

    @property
    def least_wrap(self) -> Limit | None:
        return limit("least wrap of a chain")

    @property
    def too_little_wrap(self) -> tuple[str, str]:
        return "The chain", "it wants"

    def grips(self, wrap_rad: Numbers) -> tuple[Numbers, str]:
        return tension_ratio(wrap_rad)

    def stock(self) -> Sequence[StockWheel]:
        c = self.chain
        series = "metric" if c.name[-1:] == "B" else "inch"
        teeth = next(_counts(r["teeth"]) for r in rows("sprockets_stock") if r["series"] == series)
        return [StockWheel(pitch_diameter(c.pitch_m, z), sprocket(c, z).outside_m, z) for z in teeth]

    def speaks_against(self, driver: StockWheel, driven: StockWheel, fastest: float) -> list[str]:
        small_teeth = min(driver.teeth or 999, driven.teeth or 999)
        smooth = limit("smooth sprocket")
        return [f"under {smooth.printed}: runs roughly"] if small_teeth < smooth.value else []

    @property
    def strand(self) -> Strand:
        strength = self.chain.strength_n
        return Strand("chain", self.mass_kg_per_m, sum(self.faces), strength_n=strength * self.strands if strength else None)

    def sits(self, rim: Rim) -> Seating | None:
        """Its rollers on the pitch circle, from either side; speeds go by the teeth, for a chain lies on a polygon."""
        if rim.face == "flat":
            return on_roller(rim.diameter_m / 2, rim.contact, self.faces) if rim.diameter_m else None
        if rim.teeth is None:
            return None
        pitch = self.chain.pitch_m
        return Seating(pitch_diameter(pitch, rim.teeth) / 2, outside_diameter(pitch, rim.teeth) / 2, rim.teeth * pitch / math.tau)

    def rated(self, on: Turning, own: "OwnRatings") -> float:
        if on.teeth is None:
            raise OutOfRangeError("On a smooth roller a chain carries nothing.")
        pitches = self.pitches or (on.length_m / self.chain.pitch_m if on.length_m else USUAL_PITCHES)
        whole = 2 * round(pitches / 2) if self.pitches is None else pitches
        return rated_power(self.chain, on.teeth, on.speed, self.strands, own.of(self.chain.name), on.ratio, whole).power_w


def _counts(text: str) -> list[int]:
    found: list[int] = []
    for part in text.split():
        low, _, high = part.partition("-")
        found += range(int(low), int(high or low) + 1)
    return found


def read_loop(part: Part) -> LoopRead:
    """By the mark on a plate, strands, and its pitches where they were counted."""
    drive = part.more.get("drive", Part())
    reader = FieldReader({}, drive.words)
    strands, pitches = reader.whole("strands", 1, 6), reader.whole("count", 10, 5000)
    name = drive.words.get("name", "").strip()
    try:
        chain, marked = parse_mark(name) if name else (None, 1)
    except ChainError as refusal:
        return LoopRead(None, (*reader.problems, Problem("name", str(refusal))))
    return LoopRead(ChainLoop(chain, strands or marked, pitches) if chain else None, tuple(reader.problems))
