"""V-belts as a kind of drive: a set on two sheaves, and what it answers."""

import math
from collections.abc import Sequence
from dataclasses import dataclass, replace
from functools import cached_property

from tuyere.core.basis.origin import Origin
from tuyere.core.basis.page import Page
from tuyere.core.basis.quantity import to_si
from tuyere.core.basis.typed import Given
from tuyere.core.basis.uncertainty import UFloat, standard_uncertainty, wrapped
from tuyere.core.kinds import v_belt
from tuyere.core.kinds.about import About
from tuyere.core.kinds.fitted import ROLES, Fitted, RatingDuty, Ratio, Role, ShortSet, Slide
from tuyere.core.kinds.loop import Rim
from tuyere.core.kinds.rating.own_table import OwnRatings
from tuyere.core.kinds.slide import slide_needed
from tuyere.core.kinds.stock_wheel import PairBelt, StockWheel
from tuyere.core.kinds.survey import Record, RecordedWheel
from tuyere.core.kinds.v_belt import carries, on_centres, setting, sheaves, short_set
from tuyere.core.kinds.v_belt.about import ABOUT
from tuyere.core.kinds.v_belt.loop import VLoop
from tuyere.core.kinds.v_belt.tension import half_turn_ratio
from tuyere.core.kinds.v_belt.v_set import DrivenBasis, VSet
from tuyere.core.kinds.written import Length, Written
from tuyere.core.mechanics import open_belt, speed
from tuyere.core.mechanics.open_belt import GeometryError
from tuyere.core.mechanics.tension import static_tension

_NEAR_M = 1e-4  # two centres as near as this are the same
_ratio = wrapped(speed.ratio)
_LOW = to_si(1 / 16, "length", "in")


@dataclass(frozen=True)
class VDrive(VSet, Fitted):
    """A set of V-belts that is on."""

    @property
    def family(self) -> About:
        return ABOUT

    @cached_property
    def loop(self) -> VLoop | None:
        if self.section is None:
            return None
        return VLoop(self.section, self.belt, self.belt_count or 1, self.band_ribs, self.driven_flat)

    @property
    def traits(self) -> str:
        return self.loop.traits if self.loop else "V-belt, wrapped" if self.ribs == 1 else "V-belt, joined"

    @property
    def wanted(self) -> tuple[tuple[str, object], ...]:
        return (
            ("section", self.section),
            ("driver_diameter", self.driver_diameter),
            ("driven_diameter", self.driven_diameter),
            ("centre_distance", self.centre_distance or self.belt),
        )

    @property
    def flat_wheel(self) -> Role | None:
        return "driven" if self.driven_flat else None

    @property
    def count_wanted(self) -> tuple[tuple[str, object], ...]:
        return (("belt_count", self.belt_count),)

    def wheels(self, page: Page) -> None:
        sheaves.diameters(self, page)

    def ratio(self, page: Page) -> Ratio | None:
        driver, driven = (page.values[f"{role}_datum"].n for role in ("driver", "driven"))
        if self.driven_flat and driven < driver:
            page.refuse(
                "driven_diameter", "Only the large wheel of a V-belt drive may be flat: the small one wants grooves, or the belts slip."
            )
            return None
        by_outside = page.values["driven_outside"].n / page.values["driver_outside"].n
        note = f"By outside diameters the ratio would be {by_outside:.3f}, by datum diameters {driven / driver:.3f}; the tachometer settles it."
        return Ratio(_ratio(page.values["driver_pitch"], page.values["driven_pitch"]), "R = D_p / d_p", note)

    def pays_out(self, page: Page) -> tuple[UFloat, str]:
        return page.values["driver_pitch"], "V = π d n_1"

    def centres(self, slide: Slide, page: Page) -> None:
        on_centres.length_and_centres(self, slide, page)

    def rating(self, own: OwnRatings, duty: RatingDuty, page: Page) -> None:
        carries.rating(self, own, page)

    def standing_n(self, design_power_w: float, speed_m_per_s: float, page: Page) -> float | None:
        """By the target that the gauge is set to, for the whole set."""
        if not (self.section and page.has("arc_factor")):
            return None
        arc = page.values["arc_factor"].n
        mass = v_belt.centrifugal_mass(self.section) * (self.parallel or 1)
        return static_tension(design_power_w, speed_m_per_s, 1, arc, mass, half_turn_ratio(self.section), self.section.unit == "in")

    def target(self, page: Page) -> None:
        setting.target(self, page)

    def short_sets(self, page: Page) -> tuple[ShortSet, ...]:
        return short_set.short_sets(self, page)

    def back_over_line(self, page: Page) -> float:
        over: float = page.values["driver_outside"].n - page.values["driver_datum"].n
        return over / 2

    @property
    def pieces(self) -> int | None:
        return self.belt_count

    def belt_for(self, driver: StockWheel, driven: StockWheel, centre_m: float, now_m: float, slide: Slide) -> PairBelt:
        assert self.section
        # A slide that nobody measured is unknown, not none: any belt counts, and its centres are said.
        low = now_m - slide.closer.value if slide.closer else 0.0
        high = now_m + slide.away.value if slide.away else math.inf
        if self.belt and slide.closer and slide.away:
            try:
                at = open_belt.centre_distance(driver.line_m, driven.line_m, self.belt.datum_length_m)
                if low - _NEAR_M <= at <= high + _NEAR_M:
                    return PairBelt(self.belt.designation, True, at)
            except GeometryError:
                pass
        wanted = open_belt.belt_length(driver.line_m, driven.line_m, centre_m)
        for made in sorted(v_belt.standard_belts(self.section.name), key=lambda b: abs(b.datum_length_m - wanted)):
            try:
                at = open_belt.centre_distance(driver.line_m, driven.line_m, made.datum_length_m)
            except GeometryError:
                continue
            fits = low - _NEAR_M <= at <= high + _NEAR_M
            return PairBelt(made.designation if fits else "", False, at, _slide(at, now_m, made), made.designation)
        return PairBelt("", False, None)

    def with_pair(self, driver: StockWheel, driven: StockWheel, on: PairBelt) -> "VDrive":
        assert self.section and self.driver_diameter and self.driven_diameter
        return replace(
            self,
            driver_diameter=replace(self.driver_diameter, value=driver.rim_m),
            driver_basis="outside",
            driver_groove="standard",
            driven_diameter=replace(self.driven_diameter, value=driven.rim_m),
            driven_basis="outside",
            driven_groove="standard",
            belt=v_belt.parse_designation(on.belt, self.section) if on.belt else None,
            centre_distance=replace(self.centre_distance, value=on.tight_at) if self.centre_distance and on.tight_at else None,
            adjustable=None,
        )

    def pair_written(self, driver: StockWheel, driven: StockWheel, new: Sequence[Role], on: PairBelt) -> Written:
        sizes = {f"{role}_diameter": Length(w.rim_m) for role, w in zip(ROLES, (driver, driven), strict=True) if role in new}
        words = {f"{role}_{key}": value for role in new for key, value in (("basis", "outside"), ("groove", "standard"))}
        if on.belt and not on.stays:
            words["belt"] = on.belt
        if on.tight_at is not None:
            sizes["centre_distance"] = Length(on.tight_at)
        return {"quantities": sizes, "choices": words}

    def rolls_at(self, role: Role, diameter_m: float, page: Page) -> float:
        if self.section is None:
            return diameter_m
        basis = self.driver_basis if role == "driver" else self.driven_basis
        if basis == "outside":
            diameter_m = v_belt.datum_from_outside(self.section, diameter_m, self.driver_groove if role == "driver" else self.driven_groove)
        elif basis == "flat":
            diameter_m = v_belt.line_on_flat(self.section, diameter_m)
        return diameter_m + v_belt.pitch_over_datum(self.section)

    def by_diameters(self, page: Page) -> list[tuple[str, tuple[float, float]]]:
        def both(kind: str) -> tuple[float, float]:
            return page.values[f"driver_{kind}"].n, page.values[f"driven_{kind}"].n

        assert self.section
        line, rim, datum = both("pitch"), both("outside"), both("datum")
        sunk = 2 * self.section.height_m
        return [
            ("pitch, which speeds go by", line),
            ("outside", rim),
            *([("datum (pitch in older books)", datum)] if datum != line else []),
            ("belt's narrow face", (rim[0] - sunk, rim[1] - sunk)),
            ("riding 1/16 in low in both", (line[0] - 2 * _LOW, line[1] - 2 * _LOW)),
        ]

    @property
    def face_m(self) -> float | None:
        groove = v_belt.grooves_of(self.section.groove) if self.section else ()
        if not (groove and groove[0].spacing_m and groove[0].edge_m and self.parallel):
            return None
        return (self.parallel - 1) * groove[0].spacing_m + 2 * groove[0].edge_m

    @property
    def record(self) -> Record:
        """What of it the record keeps."""
        sizes = (self.driver_diameter, self.driver_basis), (self.driven_diameter, self.driven_basis)
        return Record(
            self.section.name if self.section else None,
            self.belt.designation if self.belt else None,
            _value(self.centre_distance),
            tuple(_recorded(role, _value(given), basis) for role, (given, basis) in zip(ROLES, sizes, strict=True)),
            count=self.belt_count,
        )


def on_two(loop: VLoop, driver: Rim, driven: Rim, centre_m: float) -> VDrive | None:
    """A set on two wheels as they were measured over the rim; the large one may be flat."""
    if driver.diameter_m is None or driven.diameter_m is None or driver.face == "flat":
        return None
    sizes = (
        (driver.diameter_m, "driver sheave diameter"),
        (driven.diameter_m, "driven sheave diameter"),
        (centre_m, "centre distance"),
    )
    given = [Given(size, standard_uncertainty(size, "length", Origin.MEASURED), Origin.MEASURED, name) for size, name in sizes]
    return VDrive(
        section=loop.section,
        driver_diameter=given[0],
        driven_diameter=given[1],
        driven_basis="flat" if driven.face == "flat" else "outside",
        centre_distance=given[2],
        belt=loop.belt,
        belt_count=loop.count,
        band_ribs=loop.band,
    )


def _recorded(role: Role, diameter_m: float | None, basis: DrivenBasis) -> RecordedWheel:
    """A wheel as the record keeps it: a plain pulley under V-belts is flat, and measured over its rim."""
    if basis == "flat":
        return RecordedWheel(role, diameter_m, "outside", face="flat")
    return RecordedWheel(role, diameter_m, basis)


def _value(given: Given | None) -> float | None:
    return given.value if given else None


def _slide(at: float, now: float, belt: v_belt.Belt) -> str:
    room = v_belt.allowance(belt)
    return slide_needed(at, now, room.installation_m, room.takeup_m) if room else slide_needed(at, now)
