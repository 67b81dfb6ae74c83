"""One V-belt section as it can be chosen."""

from __future__ import annotations

import copy
import math
from dataclasses import replace
from functools import cached_property
from typing import TYPE_CHECKING

import numpy as np

from tuyere.core.basis.origin import Origin
from tuyere.core.basis.quantity import System, from_si, show, to_si
from tuyere.core.kinds import v_belt
from tuyere.core.kinds.choose import (
    FLAT_HUB_SHARE,
    Array,
    ChoiceWheel,
    Choosable,
    Mate,
    Places,
    StockLength,
    chosen,
    fast_shaft,
    ratio_of,
    steps_at,
)
from tuyere.core.kinds.motor import MotorLimit, short
from tuyere.core.kinds.rating.duties import OutOfRangeError
from tuyere.core.kinds.rating.own_table import OwnTable
from tuyere.core.kinds.spec import DriveSpec
from tuyere.core.kinds.v_belt import metric as metric_v
from tuyere.core.kinds.v_belt import rating as vee
from tuyere.core.kinds.v_belt.drive import VDrive
from tuyere.core.kinds.v_belt.ip20 import STEP_REACHED
from tuyere.core.kinds.v_belt.loop import VLoop
from tuyere.core.kinds.v_belt.tension import arc_factor
from tuyere.core.kinds.written import Length, Written
from tuyere.core.mechanics.on_wheels.wheels import Face
from tuyere.core.mechanics.tension import INCH_FORM

if TYPE_CHECKING:
    from tuyere.core.kinds.part_row import PartRow
    from tuyere.core.kinds.problem import Demands, Kept


MOST_JOINED = 5  # ribs of one joined belt: common practice, no source


_NAMES = {"joined V-belt": "{} joined", "V-flat": "{} on flat"}


class VKind(Choosable):
    """One V-belt section: as singles, joined or ribbed (`bands`: ribs that one belt may have), or on flat driven wheels (`flat`: V-flat)."""

    loop: VLoop

    def __init__(
        self,
        of: v_belt.Section,
        family: str,
        wheels: tuple[ChoiceWheel, ...],
        belts: tuple[v_belt.Belt, ...],
        most: int,
        own: OwnTable | None = None,
        bands: tuple[int, ...] = (),
        flat: tuple[ChoiceWheel, ...] = (),
    ) -> None:
        self.of, self.family, self.fits, self.bands, self.flat = of, family, of.groove, bands, bool(flat)
        self.name = _NAMES.get(family, "{}").format(of.name)
        self.driver, self.driven = wheels, flat or wheels
        self._take(belts)
        self.counts = tuple(float(n) for n in bands or range(1, most + 1))
        self.loop = VLoop(of, band=bands[0] if bands else None, on_flat=self.flat)
        self.own, self.how = own, vee.method(of, own)
        self.counted_as = self.how.estimate
        groove = v_belt.grooves_of(of.groove)
        self._spacing = (groove[0].spacing_m if groove else None) or 1.2 * of.top_width_m
        self._edge = (groove[0].edge_m if groove else None) or 0.6 * of.top_width_m

    @property
    def belts_had(self) -> tuple[v_belt.Belt, ...]:
        """The belts that it can be had in, shortest first."""
        return tuple(self._belts.values())

    def _take(self, belts: tuple[v_belt.Belt, ...]) -> None:
        self._belts = {b.designation: b for b in belts}
        self.lengths = tuple(StockLength(b.designation, b.datum_length_m) for b in belts)
        self.forget()

    def with_belts(self, belts: tuple[v_belt.Belt, ...]) -> VKind:
        """The same kind with other belts."""
        one = copy.copy(self)
        one._take(tuple(sorted(belts, key=lambda b: b.datum_length_m)))
        return one

    def wheel_kept(self, kept: Kept, drives: bool) -> ChoiceWheel | None:
        if self.flat and not drives:
            return flat_wheel(self.of, kept.outside_m, "the one kept, flat") if kept.fits == "flat" and kept.outside_m else None
        if kept.fits != self.of.groove or kept.outside_m is None:
            return None
        return sheave(self.of, v_belt.datum_from_outside(self.of, kept.outside_m), kept.outside_m, "the one kept")

    @cached_property
    def _least(self) -> tuple[float, str]:
        least = v_belt.min_datum_diameter(self.of)
        return least, f"section {self.of.name} wants {show(least, 'length', System.US)} ({show(least, 'length', System.SI)}) at least"

    def least_small(self, problem: Demands) -> tuple[float, str]:
        return self._least

    def motor_short(self, driver_line_m: Array, driver_outside_m: Array, problem: Demands) -> Array:
        if problem.motor is None:
            return np.zeros_like(driver_line_m)
        return np.asarray(short(problem.motor, self.loop.narrow_series, driver_line_m, driver_outside_m))

    def motor_width(self, motor: MotorLimit) -> float | None:
        return motor.classical_width_m if "classical" in self.of.series else motor.narrow_width_m

    def on_sheet(
        self, shared: DriveSpec, driver: ChoiceWheel, driven: ChoiceWheel, length: StockLength | None, count: float, centre_m: float
    ) -> DriveSpec:
        assert length
        many, belt = self.belts(length.name, count)
        big = driven.outside_m if self.flat else driven.line_m
        return replace(
            shared,
            fitted=VDrive(
                section=self.of,
                driver_diameter=chosen(driver.line_m, "driver sheave diameter"),
                driver_basis="datum",
                driven_diameter=chosen(big, "driven wheel diameter"),
                driven_basis="flat" if self.flat else "datum",
                centre_distance=chosen(centre_m, "centre distance"),
                belt=v_belt.parse_designation(belt, self.of),
                belt_origin=Origin.CHOSEN,
                belt_count=int(many),
            ),
        )

    def width(self, count: Array) -> Array:
        return np.asarray((count - 1) * self._spacing + 2 * self._edge)

    @property
    def standing(self) -> float:
        return INCH_FORM if self.of.unit == "in" else 1.0

    def forget(self) -> None:
        super().forget()
        self.__dict__.pop("_length_factors", None)

    @cached_property
    def _length_factors(self) -> Array:
        """K_L by length; NaN where the table says nothing."""
        found = []
        for length in self.lengths:
            try:
                found.append(vee.length_factor(self._belts[length.name], self.own))
            except OutOfRangeError:
                found.append(math.nan)
        return np.array(found)

    @cached_property
    def _ratio_steps(self) -> tuple[Array, Array] | None:
        steps = self.how.ratio_steps
        return (np.array([start for start, _ in steps]), np.array([k for _, k in steps])) if steps else None

    def _ratio_factor(self, ratio: Array) -> Array:
        return steps_at(*self._ratio_steps, ratio * STEP_REACHED) if self._ratio_steps else np.ones_like(ratio)

    def unit_capacity(self, mate: Mate, wrap: Array, lengths: Places) -> Array:
        k, of, times = self._ratio_factor(mate.ratio), self.how.rated_as, self.how.likeness
        n, small = from_si(1.0, "rotation", "rpm") * mate.fast / times, mate.small_line_m * times
        power: Array
        if self.own:
            power = self.own.power(mate.small_line_m, mate.fast, mate.ratio)
        elif self.how.standard == "ISO 5292 form":
            fit = metric_v.fits()[of.name]
            basic, added = metric_v.kilowatts(fit, small * 1000, n, k)
            power = np.asarray(1000 * (basic + added))
            power = np.where((n > fit.n_to * 1.001) | (small * mate.fast / times / 2 > of.max_speed_m_per_s), np.nan, power)
        else:
            d, r = from_si(1.0, "length", "in") * small, n / 1000
            basic, added = vee.inch_horsepower(self.how, d, r, k)
            power = to_si(1.0, "power", "hp") * np.asarray(basic + added)
            power = np.where(small * mate.fast / times / 2 > of.max_speed_m_per_s * (1 + 1e-9), np.nan, power)
        rated = np.maximum(power, 0.0) * self.how.share
        if self.flat:
            rated = np.where(mate.driven_line_m < mate.driver_line_m, np.nan, rated)
        return np.asarray(rated * arc_factor(self.of, wrap, self.flat) * self._length_factors[lengths])

    def capacity(self, unit: Array, mate: Mate, wrap: Array, count: Array) -> Array:
        return unit * count

    def rate(
        self, driver: ChoiceWheel, driven: ChoiceWheel, length: StockLength | None, count: float, wrap_rad: float, problem: Demands
    ) -> float:
        small = min(driver.line_m, driven.line_m)
        if self.flat and driven.line_m < driver.line_m:
            raise OutOfRangeError("Only the large wheel of a V-belt drive may be flat: the small one wants grooves.")
        rated = vee.rated_power(self.of, small, fast_shaft(driver, driven, problem), ratio_of(driver, driven), self.own)
        assert length
        return (
            rated.total_w * float(arc_factor(self.of, wrap_rad, self.flat)) * vee.length_factor(self._belts[length.name], self.own) * count
        )

    def loop_typed(self, length: StockLength | None, count: float) -> Written:
        assert length
        many, belt = self.belts(length.name, count)
        return {"choices": {"section": self.of.name, "belt": belt, "belt_count": f"{many:.0f}", "ribs": ""}}

    def wheels_typed(self, driver: ChoiceWheel, driven: ChoiceWheel, centre_m: float) -> Written:
        big = driven.outside_m if self.flat else driven.line_m
        sizes = {"driver_diameter": driver.line_m, "driven_diameter": big, "centre_distance": centre_m}
        words = {
            "driver_basis": "datum",
            "driven_basis": "flat" if self.flat else "datum",
            "driver_groove": "standard",
            "driven_groove": "standard",
        }
        return {"choices": words, "quantities": {key: Length(value) for key, value in sizes.items()}}

    @property
    def driven_face(self) -> Face:
        return "flat" if self.flat else "grooved"

    def parts(
        self, driver: ChoiceWheel, driven: ChoiceWheel, length: StockLength | None, count: float, length_m: float
    ) -> list[tuple[float, str]]:
        made = f", {count:.0f} groove{'' if count == 1 else 's'}" if self.assumed else ""  # a listed sheave's name says it
        assert length
        many, belt = self.belts(length.name, count)
        driven_part = (
            f"flat pulley, {driven.name}, for {show(float(self.width(np.array(count))), 'length', System.SI)}"
            if self.flat
            else f"{self.fits} sheave, {driven.name}{made}"
        )
        return [(1, f"{self.fits} sheave, {driver.name}{made}"), (1, driven_part), (many, belt)]

    def belts(self, name: str, count: float) -> tuple[float, str]:
        """How many belts by the name, for so many grooves: one band, or two, where they are joined or ribbed."""
        if not self.bands:
            return count, name
        if self.family == "ribbed":
            return 1, f"{count:.0f}{name}"
        bands = 1 if count <= MOST_JOINED else 2
        return bands, f"{count / bands:.0f}/{name}"

    @property
    def driven_fits(self) -> str:
        return "flat" if self.flat else self.fits

    @property
    def listed_as(self) -> str:
        return self.of.name

    def lists(self, row: PartRow) -> bool:
        return super().lists(row) and bool(self.bands) == (row.grooves > 1)

    def takes(self, row: PartRow, count: float) -> bool:
        """A listed sheave may stand with a groove empty; a common one is bought to fit."""
        if row.of == "flat":
            return float(self.width(np.array(count))) <= row.width_m * (1 + 1e-9)
        return row.grooves == count if self.assumed else count <= row.grooves

    def makes(self, row: PartRow, count: float) -> bool:
        return not self.bands or row.grooves * self.many(count) == count

    def many(self, count: float) -> float:
        return self.belts("", count)[0]

    def only(self, rows: list[PartRow], belts: list[PartRow]) -> VKind:
        # One length stands once, in however many rows and widths it is listed: 6PK1250 and 4PK1250 are one length of PK.
        named = {b.number: b for b in (v_belt.parse_designation(r.said, self.of) for r in belts)}
        one = self.with_belts(tuple(named.values()))
        most = max(r.grooves for r in rows)
        one.counts = tuple(c for c in self.counts if c <= most) if self.bands else tuple(float(n) for n in range(1, most + 1))
        return one

    def wheel_of(self, row: PartRow) -> ChoiceWheel:
        if row.of == "flat":
            fitting = [c for c in self.counts if self.takes(row, c)]
            return flat_wheel(self.of, row.size, row.pulley_name, max(fitting, default=0.0))
        outside = v_belt.outside_from_datum(self.of, row.size)
        grooves = f"{row.grooves} groove{'' if row.grooves == 1 else 's'}"
        return sheave(self.of, row.size, outside, f"{row.said}, {grooves}{row.numbered}", 0, row.grooves)

    def shown(self, count: float) -> str:
        if not self.bands:
            return f"{count:.0f} × {self.name}"
        many, belt = self.belts(self.of.name, count)
        return f"{belt}{' ribbed' if self.family == 'ribbed' else ' joined'}" if many == 1 else f"{many:.0f} × {belt} joined"

    def made_for(self, wheel: ChoiceWheel) -> str:
        return f"is made with {grooves(wheel)}"

    @property
    def reserve_counts(self) -> bool:
        return not self.bands


def grooves(wheel: ChoiceWheel) -> str:
    """How many grooves a sheave can have, in words."""
    least, most = max(1, int(wheel.fewest)), int(wheel.most)
    return f"{most} groove{'' if most == 1 else 's'}" if least == most else f"{least} to {most} grooves"


def flat_wheel(of: v_belt.Section, rim_m: float, name: str, most: float = 1e9) -> ChoiceWheel:
    """A flat wheel under V-belts, broad enough for `most` of them."""
    line = v_belt.line_on_flat(of, rim_m)
    return ChoiceWheel(name, line, rim_m, FLAT_HUB_SHARE * rim_m, None, 0.0, most, line + v_belt.pitch_over_datum(of))


def sheave(of: v_belt.Section, line_m: float, outside_m: float, name: str, fewest: float = 0.0, most: float = 1e9) -> ChoiceWheel:
    """A V-sheave; its hub may reach to the bottom of the grooves."""
    grooves = v_belt.grooves_of(of.groove)
    depth = grooves[0].depth_min_m if grooves else of.height_m
    return ChoiceWheel(name, line_m, outside_m, max(0.0, outside_m - 2 * depth), None, fewest, most, line_m + v_belt.pitch_over_datum(of))
