"""Flat belts for the search: cut to length, so the centres stand in the middle of the room; counts are widths (m)."""

from __future__ import annotations

import copy
from dataclasses import replace
from functools import cached_property
from typing import TYPE_CHECKING

import numpy as np

from tuyere.core.basis.limit import limit
from tuyere.core.basis.quantity import System, from_si, show
from tuyere.core.basis.table import rows
from tuyere.core.kinds.choose import (
    FLAT_HUB_SHARE,
    SAME_M,
    Array,
    ChoiceWheel,
    Choosable,
    LineKind,
    Mate,
    Places,
    StockLength,
    ratio_of,
    steps_at,
)
from tuyere.core.kinds.flat import FlatBelt, flat_belts
from tuyere.core.kinds.flat import rating as flat_rating
from tuyere.core.kinds.flat.drive import FlatLine
from tuyere.core.kinds.flat.loop import FlatLoop
from tuyere.core.kinds.rating.own_table import OwnRatings, OwnTable
from tuyere.core.kinds.written import Length, Written

if TYPE_CHECKING:
    from tuyere.core.kinds.part_row import PartRow
    from tuyere.core.kinds.problem import Demands, Kept


class FlatKind(LineKind):
    """One kind of flat belt."""

    family = "flat belt"
    pair = FlatLine
    loop: FlatLoop

    def __init__(self, of: FlatBelt, pulleys: tuple[float, ...], widths: tuple[float, ...], own: OwnTable | None = None) -> None:
        self.own = own
        self.of, self.name, self.fits = of, of.name, "flat"
        self.driver = self.driven = tuple(self.pulley(d, f"{show(d, 'length', System.SI)} pulley") for d in pulleys)
        self.lengths = ()
        self.counts = widths
        self.loop = FlatLoop(of.thickness_m, of)
        self._row = next((r for r in rows("flat_pull") if r["belt"] == of.name), None)

    def pulley(self, outside_m: float, name: str, widest_m: float = 1e9) -> ChoiceWheel:
        """A pulley for belts up to `widest_m`."""
        return ChoiceWheel(name, outside_m + self.of.thickness_m, outside_m, FLAT_HUB_SHARE * outside_m, None, 0.0, widest_m)

    def wheel_kept(self, kept: Kept, drives: bool) -> ChoiceWheel | None:
        return self.pulley(kept.outside_m, "the one kept") if kept.fits == "flat" and kept.outside_m else None

    @cached_property
    def _least(self) -> tuple[float, str]:
        least = (self.of.smallest_pulley_m or 0.0) + self.of.thickness_m
        rim = least - self.of.thickness_m
        return least, f"{self.name} wants a pulley of {show(rim, 'length', System.US)} ({show(rim, 'length', System.SI)}) at least"

    def least_small(self, problem: Demands) -> tuple[float, str]:
        return self._least

    def of_count(self, count: float, length: StockLength | None) -> FlatLoop:
        return replace(self.loop, width=count)

    def width(self, count: Array) -> Array:
        return count

    @property
    def most_over_wheel(self) -> float:
        return limit("belt over small wheel").value

    def unit_capacity(self, mate: Mate, wrap: Array, lengths: Places) -> Array:
        """Power per metre of width, W/m."""
        v = mate.belt_speed
        if self.own:
            assert self.own.width_m
            rim = mate.small_line_m - self.of.thickness_m
            power = self.own.power(rim, 2 * v / (rim + self.of.thickness_m), mate.ratio)
            return np.asarray(power * flat_rating.arc_share(self.of, wrap) / self.own.width_m)
        assert self._row
        allowed, held = flat_rating.allowed(self.of, self._row, wrap)
        steps = flat_rating.pulley_steps(self.of)
        c_p = steps_at(*steps, from_si(1.0, "length", "in") * (mate.small_line_m - self.of.thickness_m) * 1.0001) if steps else 1.0
        if steps:
            c_p = np.where(from_si(1.0, "length", "in") * (mate.small_line_m - self.of.thickness_m) * 1.0001 < steps[0][0], np.nan, c_p)
        c_v: float | Array = 1.0
        if self.of.material == "leather":
            ft_min = from_si(1.0, "velocity", "ft/min") * v
            c_v = np.where(
                v > flat_rating.leather_limit() * 1.0001,
                np.nan,
                np.interp(ft_min, [v for v, _ in flat_rating.CV], [c for _, c in flat_rating.CV]),
            )
        centrifugal = self.of.density_kg_m3 * self.of.thickness_m * v**2
        return np.asarray(np.maximum(0.0, (allowed * c_p * c_v - centrifugal) * held * v))

    def capacity(self, unit: Array, mate: Mate, wrap: Array, count: Array) -> Array:
        return unit * count

    def rate(
        self, driver: ChoiceWheel, driven: ChoiceWheel, length: StockLength | None, count: float, wrap_rad: float, problem: Demands
    ) -> float:
        small = min(driver.outside_m, driven.outside_m)
        return flat_rating.rated_power(
            self.of, count, small, problem.driver_speed * driver.line_m / 2, wrap_rad, self.own, ratio_of(driver, driven)
        ).power_w

    def loop_typed(self, length: StockLength | None, count: float) -> Written:
        return {"belt": self.name, "quantities": {"flat_width": Length(count)}}

    def wheels_typed(self, driver: ChoiceWheel, driven: ChoiceWheel, centre_m: float) -> Written:
        sizes = {"driver_diameter": driver.outside_m, "driven_diameter": driven.outside_m, "centre_distance": centre_m}
        return {"quantities": {key: Length(value) for key, value in sizes.items()}}

    def parts(
        self, driver: ChoiceWheel, driven: ChoiceWheel, length: StockLength | None, count: float, length_m: float
    ) -> list[tuple[float, str]]:
        wide = f"{count * 1000:g} mm"
        return [
            (1, f"flat {driver.name} for {wide}"),
            (1, f"flat {driven.name} for {wide}"),
            (1, f"{self.name}, {wide} wide, {show(length_m, 'length', System.SI)} at mid-thickness, less take-off"),
        ]

    per_metre = True

    def takes(self, row: PartRow, count: float) -> bool:
        return count <= row.width_m * (1 + 1e-9)

    def makes(self, row: PartRow, count: float) -> bool:
        return abs(row.width_m - count) <= SAME_M

    def only(self, rows: list[PartRow], belts: list[PartRow]) -> FlatKind:
        one = copy.copy(self)
        one.counts = tuple(sorted({r.width_m for r in belts}))
        return one

    def wheel_of(self, row: PartRow) -> ChoiceWheel:
        return self.pulley(row.size, row.pulley_name, row.width_m * (1 + 1e-9))

    def shown(self, count: float) -> str:
        return f"{self.name}, {count * 1000:g} mm wide"


def kinds(own: OwnRatings) -> list[Choosable]:
    """What of it can be chosen: by the tables’ common sizes, rated by a standard or by the shop’s own table."""
    pulleys = tuple(float(r["diameter"]) / 1000 for r in rows("flat_crowns"))
    widths = tuple(float(r["belt_width"]) / 1000 for r in rows("flat_faces"))
    rated = {r["belt"] for r in rows("flat_pull")}
    return [FlatKind(of, pulleys, widths, own.of(of.name)) for of in flat_belts().values() if of.name in rated or own.of(of.name)]
