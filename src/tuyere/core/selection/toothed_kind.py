"""Toothed belts and roller chain for the search."""

import math

import numpy as np

from tuyere.core.drives import roller_chain, synchronous
from tuyere.core.drives.line import LineDrive, LineWheel
from tuyere.core.drives.roller_chain import rating as chain_rating
from tuyere.core.drives.roller_chain.kind import ROLLER_CHAIN, chain_line
from tuyere.core.drives.roller_chain.tension import tension_ratio as chain_ratio
from tuyere.core.drives.synchronous import rating as toothed_rating
from tuyere.core.drives.synchronous.kind import TOOTHED, toothed_line
from tuyere.core.drives.synchronous.tension import tension_ratio as toothed_ratio
from tuyere.core.drives.written import Length, Written
from tuyere.core.entry.quantity import from_si, to_si
from tuyere.core.limit import limit
from tuyere.core.rating.own_table import OwnTable
from tuyere.core.selection.kind import Array, LineKind, Mate, Places, StockLength, StockWheel, fast_shaft, ratio_of
from tuyere.core.selection.problem import Kept, Problem
from tuyere.core.speed import CAST_IRON_RIM_LIMIT_M_PER_S, rim_limit


def teeth_named(teeth: int) -> str:
    """How a toothed wheel is called."""
    return f"{teeth} teeth"


class ToothedKind(LineKind):
    """One profile of toothed belt; counts are its widths (m)."""

    family = "synchronous"
    drive = TOOTHED

    def __init__(self, of: synchronous.Profile, teeth: tuple[int, ...], belts: tuple[int, ...], own: OwnTable | None = None) -> None:
        self.own = own
        self.of, self.name, self.fits = of, of.name, of.name  # forms of one pitch look alike and do not mesh
        self.driver = self.driven = tuple(self.pulley(z, teeth_named(z)) for z in teeth)
        self.lengths = tuple(StockLength(synchronous.ToothedBelt(of, z, None, True).designation, z * of.pitch_m) for z in belts)
        self.counts = of.widths_m
        self.fastest_m_per_s = CAST_IRON_RIM_LIMIT_M_PER_S
        self.traits = "synchronous"
        self._row = toothed_rating.row(of.name)
        self.counted_as = (
            ""
            if own or (self._row and self._row["method"] == "standard")
            else "No standard rates this pitch in figures known here: an engineering estimate on the low side."
        )

    def pulley(self, teeth: int, name: str, widest_m: float = 1e9) -> StockWheel:
        """A pulley for belts up to `widest_m`."""
        outside = synchronous.outside_diameter(self.of, teeth)
        return StockWheel(
            name, synchronous.pitch_diameter(self.of, teeth), outside, outside - 2 * self.of.tooth_height_m, teeth, 0.0, widest_m
        )

    def wheel_kept(self, kept: Kept, drives: bool) -> StockWheel | None:
        return self.pulley(kept.teeth, f"{teeth_named(kept.teeth)}, the one kept") if kept.fits == self.name and kept.teeth else None

    def least_small(self, problem: Problem) -> tuple[float, str]:
        least = self.of.fewest_teeth or 10
        return least, f"{self.name} wants {least} teeth at least"

    def least_teeth(self, fast: Array) -> Array:
        return np.asarray(synchronous.least_teeth_at(self.of, fast))

    def small_measure(self, line_m: Array, teeth: Array) -> Array:
        return teeth

    @property
    def overhung(self) -> float:
        return self.drive.overhung_factor

    def fitted(self, driver: LineWheel, driven: LineWheel, centre_m: float, count: float, length: StockLength | None) -> LineDrive:
        return toothed_line(self.of, driver, driven, centre_m, count)

    def width(self, count: Array) -> Array:
        return count

    def tension_ratio(self, wrap: Array) -> Array:
        return np.asarray(toothed_ratio(self.of, wrap)[0])

    def unit_capacity(self, mate: Mate, wrap: Array, lengths: Places) -> Array:
        """Pull (N) before the width counts, by the teeth in mesh; by an own table its power (W)."""
        mesh = np.floor(mate.small_teeth * wrap / math.tau + 1e-9)
        if self.own:
            k_z = np.where(mesh >= 6, 1.0, np.maximum(0.0, 1 - 0.2 * (6 - mesh)))
            return np.asarray(np.where(mesh < 2, np.nan, self.own.power(mate.small_teeth, mate.fast, mate.ratio) * k_z))
        if not self._row:
            return np.full_like(wrap, np.nan)
        pull = float(self._row["pull_n"])
        if self._row["method"] == "standard":
            found = pull * np.where(mesh >= 6, 1.0, np.maximum(0.0, 1 - 0.2 * (6 - mesh)))
        elif self._row["method"] == "width":
            found = pull * np.minimum(1.0, mesh / 6)
        else:
            found = pull * np.minimum(mesh, 12) * toothed_rating.tooth_speed_share(mate.fast)
        return np.asarray(np.where(mesh < 2, np.nan, found))

    def capacity(self, unit: Array, mate: Mate, wrap: Array, count: Array) -> Array:
        if self.own:
            return unit * toothed_rating.own_width_factor(self.own, count)
        if not self._row:
            return unit
        mm = count * 1000
        if self._row["method"] == "standard":
            share = mm / float(self._row["base_width_mm"])
            return np.asarray(
                np.maximum(0.0, unit * share**1.14 - share * float(self._row["mass_kg_m"]) * mate.belt_speed**2) * mate.belt_speed
            )
        return np.asarray(np.maximum(0.0, unit * mm - float(self._row["mass_per_mm"]) * mm * mate.belt_speed**2) * mate.belt_speed)

    def rate(
        self, driver: StockWheel, driven: StockWheel, length: StockLength | None, count: float, wrap_rad: float, problem: Problem
    ) -> float:
        small = min((driver, driven), key=lambda w: w.line_m)
        fast = fast_shaft(driver, driven, problem)
        assert small.teeth
        return toothed_rating.rated_power(
            self.of, count, small.teeth, fast, small.teeth * wrap_rad / math.tau, self.own, ratio_of(driver, driven)
        ).power_w

    def as_typed(self, driver: StockWheel, driven: StockWheel, length: StockLength | None, count: float, centre_m: float) -> Written:
        return {"drive": _teeth_typed(self, driver, driven, length), "quantities": {"belt_width": Length(count)}}

    def parts(
        self, driver: StockWheel, driven: StockWheel, length: StockLength | None, count: float, length_m: float
    ) -> list[tuple[float, str]]:
        wide = f"{count * 1000:g} mm wide"
        made = f", {wide}" if self.assumed else ""
        return [
            (1, f"{self.fits} toothed pulley, {driver.name}{made}"),
            (1, f"{self.fits} toothed pulley, {driven.name}{made}"),
            (1, f"{length.name if length else self.name}, {wide}"),
        ]

    def shown(self, count: float) -> str:
        return f"{self.name}, {count * 1000:g} mm wide"


class ChainKind(LineKind):
    """One size of roller chain; counts are its strands. Lengths are even numbers of pitches."""

    family = "roller chain"
    drive = ROLLER_CHAIN

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
        self.driver = self.driven = tuple(self.sprocket(z, teeth_named(z)) for z in teeth)
        self.lengths = tuple(StockLength(f"{n} pitches", n * of.pitch_m) for n in pitches)
        self.counts = tuple(float(n) for n in strands)
        self.fastest_m_per_s = limit("chain speed").value
        self.traits = "roller chain"
        self._limits = None if own else chain_rating.constants(of)
        self.counted_as = self._limits[2] if self._limits else ""

    def sprocket(self, teeth: int, name: str, strands: int | None = None) -> StockWheel:
        """A sprocket, made for so many strands where given."""
        found = roller_chain.sprocket(self.of, teeth)
        line = roller_chain.pitch_diameter(self.of.pitch_m, teeth)
        return StockWheel(
            name, line, found.outside_m, max(0.0, found.hub_most_m), teeth, strands or 0, strands or 1e9, teeth * self.of.pitch_m / math.pi
        )

    def wheel_kept(self, kept: Kept, drives: bool) -> StockWheel | None:
        return self.sprocket(kept.teeth, f"{teeth_named(kept.teeth)}, the one kept") if kept.fits == self.name and kept.teeth else None

    @property
    def least_wrap(self) -> float:
        return limit("least wrap of a chain").value

    def rim_limit(self, problem: Problem) -> float:
        return rim_limit("steel")  # sprockets

    def least_small(self, problem: Problem) -> tuple[float, str]:
        return problem.least_chain_teeth, f"{problem.least_chain_teeth} teeth are asked for, so that it runs smoothly"

    def small_measure(self, line_m: Array, teeth: Array) -> Array:
        return teeth

    @property
    def overhung(self) -> float:
        return self.drive.overhung_factor

    def centre(self, driver: StockWheel, driven: StockWheel, length: StockLength) -> float:
        assert driver.teeth and driven.teeth
        return roller_chain.centre_distance(driver.teeth, driven.teeth, length.line_m / self.of.pitch_m) * self.of.pitch_m

    def fitted(self, driver: LineWheel, driven: LineWheel, centre_m: float, count: float, length: StockLength | None) -> LineDrive:
        return chain_line(self.of, driver, driven, centre_m, count, round(length.line_m / self.of.pitch_m) if length else None)

    def width(self, count: Array) -> Array:
        of = self.of
        over_pins = (of.inner_width_m or 0.0) + 5 * (of.plate_thickness_m or 0.1 * of.pitch_m)
        return np.asarray((count - 1) * (of.transverse_pitch_m or 1.6 * over_pins) + over_pins)

    def tension_ratio(self, wrap: Array) -> Array:
        return np.asarray(chain_ratio(wrap)[0])

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
        self, driver: StockWheel, driven: StockWheel, length: StockLength | None, count: float, wrap_rad: float, problem: Problem
    ) -> float:
        small = min((driver, driven), key=lambda w: w.line_m)
        assert small.teeth
        fast = fast_shaft(driver, driven, problem)
        assert length
        pitches = length.line_m / self.of.pitch_m
        return chain_rating.rated_power(self.of, small.teeth, fast, int(count), self.own, ratio_of(driver, driven), pitches).power_w

    def as_typed(self, driver: StockWheel, driven: StockWheel, length: StockLength | None, count: float, centre_m: float) -> Written:
        return {"drive": _teeth_typed(self, driver, driven, length) | {"strands": f"{count:.0f}"}}

    def parts(
        self, driver: StockWheel, driven: StockWheel, length: StockLength | None, count: float, length_m: float
    ) -> list[tuple[float, str]]:
        strand = self.name if count == 1 else f"{self.name}-{count:.0f}"
        return [
            (1, f"{strand} sprocket, {driver.name}"),
            (1, f"{strand} sprocket, {driven.name}"),
            (1, f"{strand} chain, {length.name if length else ''}"),
            (1, f"{strand} connecting link"),
        ]

    def made_for(self, wheel: StockWheel) -> str:
        return f"is for {wheel.most:.0f} strand{'' if wheel.most == 1 else 's'}"

    def shown(self, count: float) -> str:
        return f"{self.name} chain" if count == 1 else f"{self.name} chain, {count:.0f} strands"

    def caution(self, problem: Problem, driver: StockWheel, driven: StockWheel) -> str:
        found = []
        small = min(driver.teeth or 999, driven.teeth or 999)
        if small < limit("smooth sprocket").value:
            found.append(f"speed ripples by {chain_rating.polygon_ripple(small):.1%} at each tooth")
        if self._limits and from_si(fast_shaft(driver, driven, problem), "rotation", "rpm") > float(self._limits[0]["last_rpm"]) * 1.0001:
            found.append("past the rating table's speed: pins may gall")
        return "; ".join(found)

    def line_terms(self, d: Array, big: Array, teeth_d: Array, teeth_big: Array) -> tuple[Array, Array, Array]:
        return (teeth_d + teeth_big) * self.of.pitch_m / 2, (teeth_big - teeth_d) * self.of.pitch_m / math.pi, (big - d) / 2


def _teeth_typed(kind: ToothedKind | ChainKind, driver: StockWheel, driven: StockWheel, length: StockLength | None) -> Written:
    pitches = round(length.line_m / kind.of.pitch_m) if length else 0
    centre = {"text": "", "unit": "", "origin": None}  # the count gives it
    return {"name": kind.name, "teeth_1": str(driver.teeth), "teeth_2": str(driven.teeth), "count": str(pitches), "centre_distance": centre}
