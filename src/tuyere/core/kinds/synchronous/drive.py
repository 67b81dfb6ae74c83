"""A toothed belt on two pulleys."""

import math
from collections.abc import Sequence
from dataclasses import dataclass, field
from typing import TYPE_CHECKING

from tuyere.core.basis.figure import Line, given_figure
from tuyere.core.basis.limit import Limit
from tuyere.core.basis.numbers import Numbers
from tuyere.core.basis.origin import Origin
from tuyere.core.basis.page import Page
from tuyere.core.basis.quantity import System, show
from tuyere.core.basis.table import rows
from tuyere.core.kinds import synchronous
from tuyere.core.kinds.about import About
from tuyere.core.kinds.fitted import SMALL, PairBelt, RatingDuty, Role, StockWheel, small_wheel
from tuyere.core.kinds.line import LineDrive, LineWheel
from tuyere.core.kinds.meshing import teeth_written
from tuyere.core.kinds.slide import slide_needed
from tuyere.core.kinds.synchronous import Profile
from tuyere.core.kinds.synchronous.about import ABOUT
from tuyere.core.kinds.synchronous.rating import mass_per_width, rated_power
from tuyere.core.kinds.synchronous.tension import tension_ratio
from tuyere.core.kinds.workings import factor_line, own_capacity, put, teeth_line
from tuyere.core.kinds.written import Written
from tuyere.core.mechanics import open_belt
from tuyere.core.mechanics.open_belt import GeometryError
from tuyere.core.mechanics.speed import CAST_IRON_RIM_LIMIT, CAST_IRON_RIM_LIMIT_M_PER_S

if TYPE_CHECKING:
    from tuyere.core.kinds.rating.own_table import OwnRatings, OwnTable


@dataclass(frozen=True)
class ToothedLine(LineDrive):
    """`of`: its profile; `size`: its width (m)."""

    of: Profile = field(kw_only=True)

    @property
    def family(self) -> About:
        return ABOUT

    @property
    def name(self) -> str:
        return self.of.name

    @property
    def broad_m(self) -> float | None:
        return self.size

    @property
    def mass_of_one(self) -> float:
        return mass_per_width(self.of)

    def tension_ratio(self, wrap_rad: Numbers) -> tuple[Numbers, str]:
        return tension_ratio(self.of, wrap_rad)

    @property
    def least_wrap(self) -> Limit | None:
        return None

    @property
    def missing(self) -> tuple[str, str] | None:
        if self.size is not None:
            return None
        return "The belt's width is missing", "Measure it, or take it from the name: the rating goes by it."

    def too_small(self, page: Page) -> None:
        """The smallest toothed pulley grows with speed."""
        role, fast = small_wheel(page)
        teeth = (self.driver if role == "driver" else self.driven).teeth or 0
        fewest = max(float(synchronous.least_teeth_at(self.of, fast)), float(self.of.fewest_teeth or 0))
        if teeth >= fewest:
            return
        at = show(fast, "rotation", System.US)
        wants = f"it wants {fewest:.0f} there" if math.isfinite(fewest) else "no pulley is tabled for that speed"
        page.flag(
            SMALL,
            f"{role}_diameter",
            f"{teeth} teeth are too few for {self.of.name} at {at}: {wants} (GB/T 11362, IP-24, JB/T 7512; from memory). Bent so sharply "
            "so often, cords and teeth crack early.",
        )

    def rate(self, own: "OwnRatings", duty: RatingDuty, page: Page) -> None:
        small, fast = small_wheel(page)
        wheel, table = self.driver if small == "driver" else self.driven, own.of(self.of.name)
        assert wheel.teeth and self.size is not None
        wrap = page.values[f"wrap_{small}"].n if page.has(f"wrap_{small}") else None
        if table:
            self._by_own(table, wheel.teeth, math.pi if wrap is None else wrap, small, fast, page)
        elif wrap is not None:
            self._by_standard(self.size, wheel.teeth, wrap, fast, page)

    def _by_own(self, own: "OwnTable", teeth: int, wrap_rad: float, small: str, fast: float, page: Page) -> None:
        assert self.size is not None
        ratio = max(page.values["ratio"].n, 1 / page.values["ratio"].n)
        belt = rated_power(self.of, self.size, teeth, fast, teeth * wrap_rad / math.tau, own, ratio)
        factors = (("K_z", "teeth in mesh", belt.mesh_factor), ("K_w", "width against the table's", belt.width_factor))
        own_capacity(page, own, teeth_line("wheel", teeth), teeth, fast, small, belt.power_w, factors, belt.source)

    def _by_standard(self, width_m: float, teeth: int, wrap_rad: float, fast: float, page: Page) -> None:
        in_mesh = teeth * wrap_rad / math.tau
        found = rated_power(self.of, width_m, teeth, fast, in_mesh)
        whole = f"{int(in_mesh + 1e-9)}"
        mesh = Line("z_m", "teeth in mesh, whole", whole, whole, Origin.COMPUTED, Origin.MEASURED)
        width = given_figure("belt_width", "belt width", "b", "length", width_m, 0.0, Origin.MEASURED, (3, 1)).line()
        k_z = factor_line("K_z", "teeth-in-mesh factor", found.mesh_factor)
        k_w = factor_line("K_w", "width factor", found.width_factor)
        formula = "P = (pull allowed - m v²) v" if found.estimate else "P = (K_z K_w T_a - (b/b_0) m v²) v"
        put(
            page,
            "capacity",
            "power the belt carries",
            "P",
            "power",
            found.power_w,
            [width, mesh, k_z, *([] if found.estimate else [k_w]), *page.lines(("belt_speed", "v"))],
            formula,
            found.source,
            note=found.estimate,
            confidence=found.confidence,
            origin=Origin.ASSUMED if found.estimate else Origin.COMPUTED,
        )
        if found.estimate:
            page.flag("estimated-rating", "name", f"No standard that is known here rates {self.of.name}. {found.estimate}")

    def stock(self) -> tuple[StockWheel, ...]:
        p = self.of
        return tuple(
            StockWheel(synchronous.pitch_diameter(p, int(r["teeth"])), synchronous.outside_diameter(p, int(r["teeth"])), int(r["teeth"]))
            for r in rows("toothed_pulleys")
            if r["pitch_name"] == p.pitch_name
        )

    def pair_written(self, driver: StockWheel, driven: StockWheel, new: Sequence[Role], on: PairBelt) -> Written:
        return teeth_written(driver, driven, on)

    def runs_on(self, driver: StockWheel, driven: StockWheel, centre_m: float, now_m: float) -> PairBelt:
        p, listed = self.of, synchronous.standard_teeth(self.of)
        if not listed:
            return PairBelt("", False, now_m)
        wanted = open_belt.belt_length(driver.line_m, driven.line_m, centre_m) / p.pitch_m
        teeth = min(listed, key=lambda z: abs(z - wanted))
        try:
            at = open_belt.centre_distance(driver.line_m, driven.line_m, teeth * p.pitch_m)
        except GeometryError:
            return PairBelt("", False, now_m)
        return PairBelt(synchronous.ToothedBelt(p, teeth, None, True).designation, False, at, slide_needed(at, now_m))

    def speaks_against(self, driver: StockWheel, driven: StockWheel, fastest: float) -> list[str]:
        small_teeth = min(driver.teeth or 999, driven.teeth or 999)
        return ["too few teeth at this speed"] if small_teeth < synchronous.least_teeth_at(self.of, fastest) else []


def toothed_line(of: Profile, driver: LineWheel, driven: LineWheel, centre_m: float | None, width_m: float | None) -> ToothedLine:
    """A toothed belt on two pulleys."""
    return ToothedLine(
        driver,
        driven,
        centre_m,
        of.belt_height_m,
        of.belt_height_m - of.tooth_height_m - of.line_under_tip_m,
        CAST_IRON_RIM_LIMIT_M_PER_S,
        f"IP-24: {CAST_IRON_RIM_LIMIT} on cast iron; faster wants balanced wheels (high)",
        size=width_m,
        of=of,
    )
