"""Toothed belts for the search."""

from __future__ import annotations

import copy
import math
from dataclasses import replace
from typing import TYPE_CHECKING

import numpy as np

from tuyere.core.basis.limit import limit
from tuyere.core.basis.quantity import System, show
from tuyere.core.kinds import synchronous
from tuyere.core.kinds.choose import SAME_M, Array, ChoiceWheel, Choosable, LineKind, Mate, Places, StockLength, fast_shaft, ratio_of
from tuyere.core.kinds.meshing import loop_typed, teeth_typed
from tuyere.core.kinds.rating.own_table import OwnRatings, OwnTable
from tuyere.core.kinds.synchronous import rating as toothed_rating
from tuyere.core.kinds.synchronous.drive import ToothedLine
from tuyere.core.kinds.synchronous.loop import ToothedLoop
from tuyere.core.kinds.teeth import teeth_named
from tuyere.core.kinds.written import Length, Written

if TYPE_CHECKING:
    from tuyere.core.kinds.part_row import PartRow
    from tuyere.core.kinds.problem import Demands, Kept


class ToothedKind(LineKind):
    """One profile of toothed belt; counts are its widths (m)."""

    family = "synchronous"
    pair = ToothedLine
    loop: ToothedLoop

    def __init__(self, of: synchronous.Profile, teeth: tuple[int, ...], belts: tuple[int, ...], own: OwnTable | None = None) -> None:
        self.own = own
        self.of, self.name, self.fits = of, of.name, of.name  # forms of one pitch look alike and do not mesh
        self.driver = self.driven = tuple(self.pulley(z, teeth_named(z)) for z in teeth)
        self.lengths = tuple(StockLength(synchronous.ToothedBelt(of, z, None, True).designation, z * of.pitch_m) for z in belts)
        self.counts = of.widths_m
        self.loop = ToothedLoop(of)
        self._row = toothed_rating.row(of.name)
        self.counted_as = (
            ""
            if own or (self._row and self._row["method"] == "standard")
            else "No standard rates this pitch in figures known here: an engineering estimate on the low side."
        )

    def pulley(self, teeth: int, name: str, widest_m: float = 1e9) -> ChoiceWheel:
        """A pulley for belts up to `widest_m`."""
        outside = synchronous.outside_diameter(self.of, teeth)
        return ChoiceWheel(
            name, synchronous.pitch_diameter(self.of, teeth), outside, outside - 2 * self.of.tooth_height_m, teeth, 0.0, widest_m
        )

    def wheel_kept(self, kept: Kept, drives: bool) -> ChoiceWheel | None:
        return self.pulley(kept.teeth, f"{teeth_named(kept.teeth)}, the one kept") if kept.fits == self.name and kept.teeth else None

    def least_small(self, problem: Demands) -> tuple[float, str]:
        least = self.of.fewest_teeth or 10
        return least, f"{self.name} wants {least} teeth at least"

    def least_teeth(self, fast: Array) -> Array:
        return np.asarray(synchronous.least_teeth_at(self.of, fast))

    def small_measure(self, line_m: Array, teeth: Array) -> Array:
        return teeth

    def of_count(self, count: float, length: StockLength | None) -> ToothedLoop:
        return replace(self.loop, width=count)

    def width(self, count: Array) -> Array:
        return count

    @property
    def most_over_wheel(self) -> float:
        return limit("belt over small wheel").value

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
        self, driver: ChoiceWheel, driven: ChoiceWheel, length: StockLength | None, count: float, wrap_rad: float, problem: Demands
    ) -> float:
        small = min((driver, driven), key=lambda w: w.line_m)
        fast = fast_shaft(driver, driven, problem)
        assert small.teeth
        return toothed_rating.rated_power(
            self.of, count, small.teeth, fast, small.teeth * wrap_rad / math.tau, self.own, ratio_of(driver, driven)
        ).power_w

    def loop_typed(self, length: StockLength | None, count: float) -> Written:
        return loop_typed(self.name, self.of.pitch_m, length) | {"quantities": {"belt_width": Length(count)}}

    def wheels_typed(self, driver: ChoiceWheel, driven: ChoiceWheel, centre_m: float) -> Written:
        return teeth_typed(driver, driven)

    def parts(
        self, driver: ChoiceWheel, driven: ChoiceWheel, length: StockLength | None, count: float, length_m: float
    ) -> list[tuple[float, str]]:
        wide = f"{count * 1000:g} mm wide"
        made = f", {wide}" if self.assumed else ""
        return [
            (1, f"{self.fits} toothed pulley, {driver.name}{made}"),
            (1, f"{self.fits} toothed pulley, {driven.name}{made}"),
            (1, f"{length.name if length else self.name}, {wide}"),
        ]

    def takes(self, row: PartRow, count: float) -> bool:
        return count <= row.width_m * (1 + 1e-9)

    def makes(self, row: PartRow, count: float) -> bool:
        return abs(row.width_m - count) <= SAME_M

    def only(self, rows: list[PartRow], belts: list[PartRow]) -> ToothedKind:
        one = copy.copy(self)
        one.lengths = tuple(StockLength(said, line) for line, said in sorted({(r.size, r.said) for r in belts}))
        one.counts = tuple(sorted({r.width_m for r in belts}))
        return one

    def wheel_of(self, row: PartRow) -> ChoiceWheel:
        teeth, wide = int(row.size), row.width_m * (1 + 1e-9)
        return self.pulley(teeth, f"{teeth_named(teeth)}, to {show(row.width_m, 'length', System.SI)}{row.numbered}", wide)

    def shown(self, count: float) -> str:
        return f"{self.name}, {count * 1000:g} mm wide"


def kinds(own: OwnRatings) -> list[Choosable]:
    """What of it can be chosen: by the tables’ common sizes, rated by a standard or by the shop’s own table."""
    return [
        ToothedKind(of, teeth, belts, own.of(of.name))
        for of in synchronous.profiles().values()
        if (teeth := synchronous.pulley_teeth(of)) and (belts := synchronous.standard_teeth(of)) and of.tooth_height_m
    ]
