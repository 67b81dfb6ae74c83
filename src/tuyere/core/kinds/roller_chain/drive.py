"""A chain on two sprockets."""

import math
from collections.abc import Sequence
from dataclasses import dataclass, replace
from typing import TYPE_CHECKING

from tuyere.core.basis.figure import FAR, Line, both, shown
from tuyere.core.basis.limit import limit
from tuyere.core.basis.origin import Origin
from tuyere.core.basis.page import Page
from tuyere.core.basis.verdict import Tone
from tuyere.core.kinds import roller_chain
from tuyere.core.kinds.fitted import RatingDuty, Role, small_wheel
from tuyere.core.kinds.line import LineDrive
from tuyere.core.kinds.meshing import teeth_written
from tuyere.core.kinds.roller_chain import rating
from tuyere.core.kinds.roller_chain.loop import ChainLoop
from tuyere.core.kinds.roller_chain.lubrication import lubrication
from tuyere.core.kinds.slide import slide_needed
from tuyere.core.kinds.stock_wheel import PairBelt, StockWheel
from tuyere.core.kinds.workings import own_capacity, put, speed_line, teeth_line
from tuyere.core.kinds.written import Written
from tuyere.core.mechanics.tension.hanging import chain_slack, runs_lean

if TYPE_CHECKING:
    from tuyere.core.kinds.rating.own_table import OwnRatings, OwnTable


_FAR = 5.0  # times the limit that governs: the other is not met on this drive, and its figure tells nobody anything; a judgement


@dataclass(frozen=True)
class ChainLine(LineDrive):
    """A chain on two sprockets."""

    of: ChainLoop

    @property
    def rolls_m(self) -> float | None:
        """A chain lies on a polygon: a turn pays out the teeth times the pitch, less than its pitch circle."""
        return self.driver.teeth * self.of.chain.pitch_m / math.pi if self.driver.teeth is not None else None

    def rate(self, own: "OwnRatings", duty: RatingDuty, page: Page) -> None:
        small, fast = small_wheel(page)
        teeth, table = (self.driver if small == "driver" else self.driven).teeth, own.of(self.of.of)
        assert teeth
        if table:
            self._by_own(table, teeth, small, fast, page)
        else:
            self._by_standard(teeth, small, fast, page)
        self._sag(duty, page)

    def _by_own(self, own: "OwnTable", teeth: int, small: str, fast: float, page: Page) -> None:
        ratio = max(page.values["ratio"].n, 1 / page.values["ratio"].n)
        found = rating.rated_power(self.of.chain, teeth, fast, self.of.strands, own, ratio, self.of.pitches or rating.USUAL_PITCHES)
        self._signs(teeth, found, page)
        self._oil(page)
        factors = (("K_2", "strands", found.strand_factor), ("K_o", "offset link", found.offset))
        own_capacity(page, own, teeth_line("wheel", teeth), teeth, fast, small, found.power_w, factors, found.source)

    def _by_standard(self, teeth: int, small: str, fast: float, page: Page) -> None:
        strands = self.of.strands
        found = rating.rated_power(self.of.chain, teeth, fast, strands, pitches=self.of.pitches or rating.USUAL_PITCHES)
        origin = Origin.ASSUMED if found.estimate else Origin.COMPUTED
        shared = [teeth_line("sprocket", teeth), *page.lines(speed_line(small))]
        limits = "hp, p in inches, n in 1/min; 15 000 h, the right lubricant."
        more = {"note": found.estimate, "confidence": found.confidence, "limits": limits, "origin": origin}
        put(
            page,
            "plates_power",
            "one strand, by link-plate fatigue",
            "H_1",
            "power",
            found.plates_w,
            shared,
            "H_1 = k N^1.08 n^0.9 p^(3 - 0.07 p)",
            found.source,
            said=FAR if found.plates_w > _FAR * found.rollers_w else "",
            **more,
        )
        put(
            page,
            "rollers_power",
            "one strand, by roller and bushing impact",
            "H_2",
            "power",
            found.rollers_w,
            [*shared, self._pitches_line()],
            "H_2 = 1000 K_r N^1.5 p^0.8 / n^1.5 · (L_p/100)^0.4",
            found.source,
            said=FAR if found.rollers_w > _FAR * found.plates_w else "",
            **more,
        )
        times = f"{found.strand_factor:g}"
        factors = [Line("K_2", f"strands: {strands}", times, times, Origin.STANDARD, Origin.STANDARD)]
        if found.offset < 1:
            factors.append(Line("K_o", "offset link", f"{found.offset:g}", f"{found.offset:g}", Origin.STANDARD, Origin.STANDARD))
        self._signs(teeth, found, page)
        put(
            page,
            "capacity",
            "power the chain carries",
            "H",
            "power",
            found.power_w,
            [*page.lines("plates_power", "rollers_power"), *factors],
            f"H = {'K_o ' if found.offset < 1 else ''}K_2 min(H_1, H_2)",
            found.source,
            note=f"{found.governs.capitalize()} govern here. {found.estimate}".strip(),
            confidence=found.confidence,
            origin=origin,
        )
        if found.past_table:
            page.flag("past-table", "driver_speed", "Past the speed of the rating tables: pins may gall.")
            page.say(
                "rating",
                Tone.WATCH,
                "Past the speed of the rating tables: pins may gall",
                "Between pin and bushing the oil film breaks down at high speed. Take a smaller pitch in more strands, or ask the "
                "chain's maker.",
            )
        self._oil(page)

    def _oil(self, page: Page) -> None:
        if oiling := lubrication(self.of.chain, page.values["belt_speed"].n):
            page.say("oil", Tone.OPEN, oiling.headline, oiling.detail)

    def _sag(self, duty: RatingDuty, page: Page) -> None:
        """How far the slack run should move at its middle, up and down together.

        4 to 6 % of the span, half of that on steep or shock drives.
        """
        if not page.has("span", "centre_distance", "driver_datum", "driven_datum"):
            return
        apart, *radii = page.values["centre_distance"].n, *(page.values[f"{role}_datum"].n / 2 for role in ("driver", "driven"))
        low, high, why = chain_slack(float(max(runs_lean(math.radians(duty.centre_line_deg), apart, *radii))), duty.driven_class)
        span = page.values["span"].n
        page.say(
            "sag",
            Tone.OPEN,
            f"Slack side: {both(low * span)} to {both(high * span)} of movement in all",
            f"At mid-span, up and down together: {low:.0%} to {high:.0%} of the span on a {why} drive (American Chain Association; common "
            "practice, from memory). Turn the drive so that all the slack is on one side.",
        )

    def _pitches_line(self) -> Line:
        text = str(self.of.pitches or f"{rating.USUAL_PITCHES:.0f}")
        origin = Origin.MEASURED if self.of.pitches else Origin.ASSUMED
        return Line("L_p", "pitches of the chain", text, text, origin, origin)

    def _signs(self, teeth: int, found: rating.ChainRating, page: Page) -> None:
        """An offset link, the polygon's ripple, and the safety of a slow chain against breaking."""
        number = Line("N", "teeth of the small sprocket", str(teeth), str(teeth), Origin.MEASURED, Origin.MEASURED)
        put(
            page,
            "ripple",
            "ripple of the chain's speed",
            "Δv/v",
            "share",
            rating.polygon_ripple(teeth),
            [number],
            "Δv/v = (π/N)(1/sin(180°/N) - 1/tan(180°/N))",
            "kinematics; Shigley, eq. 17-31 (from memory)",
            note="A chain lies on a polygon: at each tooth it is drawn faster and slower by this share.",
        )
        if teeth < limit("smooth sprocket").value:
            page.flag(
                "few-teeth",
                "teeth",
                f"{teeth} teeth run roughly: the chain's speed ripples by {page.figures['ripple'].us} at each tooth. "
                f"{limit('smooth sprocket').printed} or more run smoothly.",
            )
        if found.offset < 1:
            page.flag(
                "offset-link",
                "count",
                f"{self.of.pitches} pitches are an odd number: the chain needs an offset link, and carries {found.offset:.0%} of its rating "
                f"({limit('offset link').source}). Use an even number if the centres can be moved.",
            )
        if found.strength_w is None or not page.has("design_power") or self.of.chain.strength_n is None:
            return
        strands = self.of.strands
        safety = self.of.chain.strength_n * strands * page.values["belt_speed"].n / page.values["design_power"].n
        wanted = limit("slow chain safety")
        put(
            page,
            "breaking_safety",
            "safety against breaking",
            "S",
            "number",
            safety,
            [
                *page.lines("design_power", "belt_speed"),
                Line(
                    "Q",
                    f"breaking load, {strands} strand{'s' if strands > 1 else ''}",
                    *shown(self.of.chain.strength_n * strands, "force"),
                    Origin.STANDARD,
                    Origin.STANDARD,
                ),
            ],
            "S = Q V/P_d",
            wanted.source,
            limits=f"Counts under {limit('slow chain').printed}: at least {wanted.printed}.",
            decimals=(1, 1),
        )
        if safety < wanted.value:
            page.flag(
                "weak-chain",
                "name",
                f"So slow a chain is held by its strength: its breaking load is {safety:.1f} times the working pull with its service "
                f"factor, and {wanted.printed} is wanted ({wanted.source}).",
            )

    def pair_written(self, driver: StockWheel, driven: StockWheel, new: Sequence[Role], on: PairBelt) -> Written:
        return teeth_written(driver, driven, on)

    def runs_on(self, driver: StockWheel, driven: StockWheel, centre_m: float, now_m: float) -> PairBelt:
        c = self.of.chain
        assert driver.teeth and driven.teeth
        pitches = 2 * math.ceil(roller_chain.length_in_pitches(driver.teeth, driven.teeth, centre_m / c.pitch_m) / 2 - 0.5)
        at = roller_chain.centre_distance(driver.teeth, driven.teeth, pitches) * c.pitch_m
        return PairBelt(f"{c.name}, {pitches} pitches", False, at, slide_needed(at, now_m), links=pitches)

    def with_pair(self, driver: StockWheel, driven: StockWheel, on: PairBelt) -> "ChainLine":
        return replace(LineDrive.with_pair(self, driver, driven, on), of=replace(self.of, pitches=on.links))
