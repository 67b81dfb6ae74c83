"""Roller chain for the search."""

from __future__ import annotations

import copy
import math
from dataclasses import replace
from typing import TYPE_CHECKING

import numpy as np

from tuyere.core.basis.limit import limit
from tuyere.core.basis.quantity import from_si, to_si
from tuyere.core.basis.table import rows
from tuyere.core.kinds import roller_chain
from tuyere.core.kinds.choose import Array, ChoiceWheel, Choosable, LineKind, Mate, Places, StockLength, fast_shaft, ratio_of
from tuyere.core.kinds.meshing import loop_typed, teeth_typed
from tuyere.core.kinds.rating.duties import OutOfRangeError
from tuyere.core.kinds.rating.own_table import OwnRatings, OwnTable
from tuyere.core.kinds.roller_chain import rating as chain_rating
from tuyere.core.kinds.roller_chain.drive import ChainLine
from tuyere.core.kinds.roller_chain.loop import ChainLoop
from tuyere.core.kinds.teeth import teeth_named
from tuyere.core.kinds.written import Written, merged
from tuyere.core.mechanics.speed import rim_limit

if TYPE_CHECKING:
    from tuyere.core.kinds.part_row import PartRow
    from tuyere.core.kinds.problem import Demands, Kept


class ChainKind(LineKind):
    """One size of roller chain; counts are its strands. Lengths are even numbers of pitches."""

    family = "roller chain"
    pair = ChainLine
    loop: ChainLoop

    def __init__(
        self,
        of: roller_chain.Chain,
        teeth: tuple[int, ...],
        pitches: tuple[int, ...],
        strands: tuple[int, ...],
        own: OwnTable | None = None,
    ) -> None:
        self.own = own
        self.of, self.name, self.fits = of, of.name, of.name
        self.loop = ChainLoop(of)
        self.driver = self.driven = tuple(self.sprocket(z, teeth_named(z)) for z in teeth)
        self.lengths = tuple(StockLength(f"{n} pitches", n * of.pitch_m) for n in pitches)
        self.counts = tuple(float(n) for n in strands)
        self._limits = None if own else chain_rating.constants(of)
        self.counted_as = self._limits[2] if self._limits else ""

    def sprocket(self, teeth: int, name: str, strands: int | None = None) -> ChoiceWheel:
        """A sprocket, made for so many strands where given."""
        found = roller_chain.sprocket(self.of, teeth)
        line = roller_chain.pitch_diameter(self.of.pitch_m, teeth)
        return ChoiceWheel(
            name, line, found.outside_m, max(0.0, found.hub_most_m), teeth, strands or 0, strands or 1e9, teeth * self.of.pitch_m / math.pi
        )

    def wheel_kept(self, kept: Kept, drives: bool) -> ChoiceWheel | None:
        return self.sprocket(kept.teeth, f"{teeth_named(kept.teeth)}, the one kept") if kept.fits == self.name and kept.teeth else None

    def rim_limit(self, problem: Demands) -> float:
        return rim_limit("steel")  # sprockets

    def least_small(self, problem: Demands) -> tuple[float, str]:
        return problem.least_chain_teeth, f"{problem.least_chain_teeth} teeth are asked for, so that it runs smoothly"

    def small_measure(self, line_m: Array, teeth: Array) -> Array:
        return teeth

    def centre(self, driver: ChoiceWheel, driven: ChoiceWheel, length: StockLength) -> float:
        assert driver.teeth and driven.teeth
        return roller_chain.centre_distance(driver.teeth, driven.teeth, length.line_m / self.of.pitch_m) * self.of.pitch_m

    def of_count(self, count: float, length: StockLength | None) -> ChainLoop:
        return replace(self.loop, strands=int(count), pitches=round(length.line_m / self.of.pitch_m) if length else None)

    def width(self, count: Array) -> Array:
        of = self.of
        over_pins = (of.inner_width_m or 0.0) + 5 * (of.plate_thickness_m or 0.1 * of.pitch_m)
        return np.asarray((count - 1) * (of.transverse_pitch_m or 1.6 * over_pins) + over_pins)

    def unit_capacity(self, mate: Mate, wrap: Array, lengths: Places) -> Array:
        pitches = np.array([x.line_m for x in self.lengths])[lengths] / self.of.pitch_m
        offset = chain_rating.offset_share(pitches)
        if self._limits is None:
            assert self.own
            return np.asarray(self.own.power(mate.small_teeth, mate.fast, mate.ratio) * offset + 0.0 * wrap)
        row, share, _ = self._limits
        n, pitch = from_si(1.0, "rotation", "rpm") * mate.fast, from_si(self.of.pitch_m, "length", "in")
        plates, rollers = chain_rating.horsepower(float(row["k"]), float(row["kr"]), mate.small_teeth, n, pitch)
        rollers = rollers * chain_rating.roller_share(pitches)
        return np.asarray(np.minimum(plates, rollers) * share * offset * to_si(1.0, "power", "hp") + 0.0 * wrap)

    def capacity(self, unit: Array, mate: Mate, wrap: Array, count: Array) -> Array:
        by_wear = unit * np.vectorize(lambda n: chain_rating.strand_factor(int(n)), otypes=[float])(count)
        return np.asarray(np.minimum(by_wear, chain_rating.strength_power(self.of, count, mate.belt_speed)))

    def rate(
        self, driver: ChoiceWheel, driven: ChoiceWheel, length: StockLength | None, count: float, wrap_rad: float, problem: Demands
    ) -> float:
        small = min((driver, driven), key=lambda w: w.line_m)
        assert small.teeth
        fast = fast_shaft(driver, driven, problem)
        assert length
        pitches = length.line_m / self.of.pitch_m
        return chain_rating.rated_power(self.of, small.teeth, fast, int(count), self.own, ratio_of(driver, driven), pitches).power_w

    def loop_typed(self, length: StockLength | None, count: float) -> Written:
        return merged(loop_typed(self.name, self.of.pitch_m, length), {"drive": {"strands": f"{count:.0f}"}})

    def wheels_typed(self, driver: ChoiceWheel, driven: ChoiceWheel, centre_m: float) -> Written:
        return teeth_typed(driver, driven)

    def parts(
        self, driver: ChoiceWheel, driven: ChoiceWheel, length: StockLength | None, count: float, length_m: float
    ) -> list[tuple[float, str]]:
        strand = self.name if count == 1 else f"{self.name}-{count:.0f}"
        return [
            (1, f"{strand} sprocket, {driver.name}"),
            (1, f"{strand} sprocket, {driven.name}"),
            (1, f"{strand} chain, {length.name if length else ''}"),
            (1, f"{strand} connecting link"),
        ]

    def made_for(self, wheel: ChoiceWheel) -> str:
        return f"is for {wheel.most:.0f} strand{'' if wheel.most == 1 else 's'}"

    per_metre = True

    def takes(self, row: PartRow, count: float) -> bool:
        return row.grooves == count

    def makes(self, row: PartRow, count: float) -> bool:
        return row.grooves == count

    def only(self, rows: list[PartRow], belts: list[PartRow]) -> ChainKind:
        one = copy.copy(self)
        one.counts = tuple(sorted({float(r.grooves) for r in belts}))
        return one

    def wheel_of(self, row: PartRow) -> ChoiceWheel:
        strands = f", {row.grooves} strands" if row.grooves > 1 else ""
        return self.sprocket(int(row.size), f"{teeth_named(int(row.size))}{strands}{row.numbered}", row.grooves)

    def shown(self, count: float) -> str:
        return f"{self.name} chain" if count == 1 else f"{self.name} chain, {count:.0f} strands"

    def caution(self, problem: Demands, driver: ChoiceWheel, driven: ChoiceWheel) -> str:
        found = []
        small = min(driver.teeth or 999, driven.teeth or 999)
        if small < limit("smooth sprocket").value:
            found.append(f"speed ripples by {chain_rating.polygon_ripple(small):.1%} at each tooth")
        if self._limits and from_si(fast_shaft(driver, driven, problem), "rotation", "rpm") > float(self._limits[0]["last_rpm"]) * 1.0001:
            found.append("past the rating table's speed: pins may gall")
        return "; ".join(found)

    def line_terms(self, d: Array, big: Array, teeth_d: Array, teeth_big: Array) -> tuple[Array, Array, Array]:
        return (teeth_d + teeth_big) * self.of.pitch_m / 2, (teeth_big - teeth_d) * self.of.pitch_m / math.pi, (big - d) / 2


_PITCHES = tuple(range(24, 241, 2))
_STRANDS = (1, 2, 3, 4)


def kinds(own: OwnRatings) -> list[Choosable]:
    """What of it can be chosen: by the tables’ common sizes, rated by a standard or by the shop’s own table."""
    teeth = {r["series"]: _counts(r["teeth"]) for r in rows("sprockets_stock")}
    found: list[Choosable] = []
    for of in roller_chain.chains().values():
        if of.body not in ("roller", "bushing") or of.series not in ("ANSI", "ISO B", "ANSI heavy"):
            continue
        if not (own.of(of.name) or _rated(of)):
            continue
        strands = _STRANDS if of.transverse_pitch_m else (1,)
        found.append(ChainKind(of, teeth["metric" if of.series == "ISO B" else "inch"], _PITCHES, strands, own.of(of.name)))
    return found


def _rated(of: roller_chain.Chain) -> bool:
    try:
        chain_rating.constants(of)
    except OutOfRangeError:
        return False
    return True


def _counts(text: str) -> tuple[int, ...]:
    found: list[int] = []
    for part in text.split():
        start, _, end = part.partition("-")
        found += range(int(start), int(end or start) + 1)
    return tuple(found)
