"""A flat belt on two pulleys."""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import TYPE_CHECKING

from tuyere.core.basis.figure import both, given_figure
from tuyere.core.basis.origin import Origin
from tuyere.core.basis.page import Page
from tuyere.core.basis.uncertainty import standard_uncertainty
from tuyere.core.kinds.fitted import SMALL, RatingDuty, Role, small_wheel
from tuyere.core.kinds.flat import FlatBelt, flat_belts
from tuyere.core.kinds.flat.loop import FlatLoop
from tuyere.core.kinds.flat.rating import rated_power
from tuyere.core.kinds.flat.survey import FlatDrive
from tuyere.core.kinds.line import LineDrive, LineWheel
from tuyere.core.kinds.stock_wheel import PairBelt, StockWheel
from tuyere.core.kinds.workings import factor_line, own_capacity, put, rim_line
from tuyere.core.kinds.written import Length, Written

if TYPE_CHECKING:
    from tuyere.core.kinds.rating.own_table import OwnRatings, OwnTable


@dataclass(frozen=True)
class FlatLine(LineDrive):
    """A flat belt on two pulleys."""

    of: FlatLoop

    def too_small(self, page: Page) -> None:
        role, _ = small_wheel(page)
        wheel = self.driver if role == "driver" else self.driven
        least, belt = self.of.least_m, self.of.belt
        if belt and least and wheel.rim_m < least * (1 - 1e-6):
            page.flag(
                SMALL,
                f"{role}_diameter",
                f"The {role} pulley is below the smallest for {belt.name} ({both(least)}, {belt.source}): bent tighter it cracks.",
            )

    def rate(self, own: "OwnRatings", duty: RatingDuty, page: Page) -> None:
        belt, width = self.of.belt, self.of.width
        assert belt and width is not None
        small, fast = small_wheel(page)
        rim, table = (self.driver if small == "driver" else self.driven).rim_m, own.of(belt.name)
        if not page.has(f"wrap_{small}"):
            return
        wrap = page.values[f"wrap_{small}"].n
        if table:
            self._by_own(belt, width, table, rim, wrap, small, fast, page)
        else:
            self._by_handbook(belt, width, rim, wrap, small, page)

    def _by_own(
        self, of: FlatBelt, width_m: float, own: "OwnTable", rim_m: float, wrap_rad: float, small: str, fast: float, page: Page
    ) -> None:
        assert own.width_m
        ratio = max(page.values["ratio"].n, 1 / page.values["ratio"].n)
        belt = rated_power(of, width_m, rim_m, page.values["belt_speed"].n, wrap_rad, own, ratio, self.lay)
        factors = (
            ("K_θ", "grip at this wrap", belt.friction_share),
            ("b/b_0", "width against the table's", width_m / own.width_m),
            ("K_lay", f"{self.lay} belt", belt.lay_share),
        )
        own_capacity(page, own, rim_line(rim_m), rim_m, fast, small, belt.power_w, factors, belt.source)

    def _by_handbook(self, of: FlatBelt, width_m: float, rim_m: float, wrap_rad: float, small: str, page: Page) -> None:
        found = rated_power(of, width_m, rim_m, page.values["belt_speed"].n, wrap_rad, lay=self.lay)
        width = given_figure("flat_width", "belt width", "b", "length", width_m, 0.0, Origin.MEASURED, (3, 1)).line()
        shares = [
            factor_line("C_p", "pulley factor", found.pulley_factor),
            factor_line("C_v", "velocity factor", found.speed_factor),
            factor_line("1 - 1/R", "share of the tight strand that turns the wheel", found.friction_share),
        ]
        if found.lay_share < 1:
            shares.append(factor_line("K_lay", f"{self.lay} belt carries less", found.lay_share))
        put(
            page,
            "capacity",
            "power the belt carries",
            "P",
            "power",
            found.power_w,
            [width, *shares, *page.lines(f"wrap_{small}", ("belt_speed", "v"))],
            f"P = (b F_a C_p C_v - F_c)(1 - 1/R) v{' K_lay' if found.lay_share < 1 else ''}",
            found.source,
            note=f"Friction {of.friction:g} on clean cast iron; R is the strands' ratio of a sound design, four fifths of the friction and at most 3, the same that the loads go by. C_v is of leather only.",
            confidence=found.confidence,
        )

    def pair_written(self, driver: StockWheel, driven: StockWheel, new: Sequence[Role], on: PairBelt) -> Written:
        return {"quantities": {"driver_diameter": Length(driver.rim_m), "driven_diameter": Length(driven.rim_m)}}

    def runs_on(self, driver: StockWheel, driven: StockWheel, centre_m: float, now_m: float) -> PairBelt:
        return PairBelt("cut to length", False, now_m)


def of_survey(drive: FlatDrive, belt: str, width_m: float | None = None) -> FlatLine:
    """A flat belt as surveyed: its line runs at mid-thickness."""
    driver, driven = (
        LineWheel(
            2 * w.line_radius_m, 2 * w.rim_radius_m, standard_uncertainty(2 * w.rim_radius_m, "length", Origin.MEASURED), Origin.MEASURED
        )
        for w in drive.wheels
    )
    loop = FlatLoop(driver.line_m - driver.rim_m, flat_belts().get(belt), width_m)
    return FlatLine(driver, driven, drive.wheels[1].x_m - drive.wheels[0].x_m, loop, drive.lay.value)
