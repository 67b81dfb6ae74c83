"""A toothed belt on two pulleys."""

import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import TYPE_CHECKING

from tuyere.core.basis.figure import Line, given_figure
from tuyere.core.basis.origin import Origin
from tuyere.core.basis.page import Page
from tuyere.core.basis.quantity import System, show
from tuyere.core.kinds import synchronous
from tuyere.core.kinds.fitted import SMALL, RatingDuty, Role, small_wheel
from tuyere.core.kinds.line import LineDrive
from tuyere.core.kinds.meshing import teeth_written
from tuyere.core.kinds.slide import slide_needed
from tuyere.core.kinds.stock_wheel import PairBelt, StockWheel
from tuyere.core.kinds.synchronous.loop import ToothedLoop
from tuyere.core.kinds.synchronous.rating import rated_power
from tuyere.core.kinds.workings import factor_line, own_capacity, put, teeth_line
from tuyere.core.kinds.written import Written
from tuyere.core.mechanics import open_belt
from tuyere.core.mechanics.open_belt import GeometryError

if TYPE_CHECKING:
    from tuyere.core.kinds.rating.own_table import OwnRatings, OwnTable


@dataclass(frozen=True)
class ToothedLine(LineDrive):
    """A toothed belt on two pulleys."""

    of: ToothedLoop

    def too_small(self, page: Page) -> None:
        """The smallest toothed pulley grows with speed."""
        role, fast = small_wheel(page)
        teeth = (self.driver if role == "driver" else self.driven).teeth or 0
        fewest = max(float(synchronous.least_teeth_at(self.of.profile, fast)), float(self.of.profile.fewest_teeth or 0))
        if teeth >= fewest:
            return
        at = show(fast, "rotation", System.US)
        wants = f"it wants {fewest:.0f} there" if math.isfinite(fewest) else "no pulley is tabled for that speed"
        page.flag(
            SMALL,
            f"{role}_diameter",
            f"{teeth} teeth are too few for {self.of.of} at {at}: {wants} (GB/T 11362, IP-24, JB/T 7512; from memory). Bent so sharply "
            "so often, cords and teeth crack early.",
        )

    def rate(self, own: "OwnRatings", duty: RatingDuty, page: Page) -> None:
        small, fast = small_wheel(page)
        wheel, table = self.driver if small == "driver" else self.driven, own.of(self.of.of)
        assert wheel.teeth and self.of.width is not None
        wrap = page.values[f"wrap_{small}"].n if page.has(f"wrap_{small}") else None
        if table:
            self._by_own(table, wheel.teeth, math.pi if wrap is None else wrap, small, fast, page)
        elif wrap is not None:
            self._by_standard(self.of.width, wheel.teeth, wrap, fast, page)

    def _by_own(self, own: "OwnTable", teeth: int, wrap_rad: float, small: str, fast: float, page: Page) -> None:
        assert self.of.width is not None
        ratio = max(page.values["ratio"].n, 1 / page.values["ratio"].n)
        belt = rated_power(self.of.profile, self.of.width, teeth, fast, teeth * wrap_rad / math.tau, own, ratio)
        factors = (("K_z", "teeth in mesh", belt.mesh_factor), ("K_w", "width against the table's", belt.width_factor))
        own_capacity(page, own, teeth_line("wheel", teeth), teeth, fast, small, belt.power_w, factors, belt.source)

    def _by_standard(self, width_m: float, teeth: int, wrap_rad: float, fast: float, page: Page) -> None:
        in_mesh = teeth * wrap_rad / math.tau
        found = rated_power(self.of.profile, width_m, teeth, fast, in_mesh)
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
            page.flag("estimated-rating", "name", f"No standard that is known here rates {self.of.of}. {found.estimate}")

    def pair_written(self, driver: StockWheel, driven: StockWheel, new: Sequence[Role], on: PairBelt) -> Written:
        return teeth_written(driver, driven, on)

    def runs_on(self, driver: StockWheel, driven: StockWheel, centre_m: float, now_m: float) -> PairBelt:
        p = self.of.profile
        listed = synchronous.standard_teeth(p)
        if not listed:
            return PairBelt("", False, now_m)
        wanted = open_belt.belt_length(driver.line_m, driven.line_m, centre_m) / p.pitch_m
        teeth = min(listed, key=lambda z: abs(z - wanted))
        try:
            at = open_belt.centre_distance(driver.line_m, driven.line_m, teeth * p.pitch_m)
        except GeometryError:
            return PairBelt("", False, now_m)
        return PairBelt(synchronous.ToothedBelt(p, teeth, None, True).designation, False, at, slide_needed(at, now_m))
