"""A drive that goes by the line of its belt or chain: pulleys and sprockets, no V-sheaves."""

from abc import abstractmethod
from dataclasses import dataclass, replace
from typing import TYPE_CHECKING, Self

from tuyere.core.basis.figure import Line, figure, given_figure, over
from tuyere.core.basis.origin import Origin
from tuyere.core.basis.page import Page
from tuyere.core.basis.uncertainty import UFloat, exact, standard_uncertainty, uncertain, wrapped
from tuyere.core.basis.verdict import Tone
from tuyere.core.kinds.about import About
from tuyere.core.kinds.fitted import SMALL, Fitted, RatingDuty, Ratio, Role, Slide
from tuyere.core.kinds.loop import Loop, Rim
from tuyere.core.kinds.rating.duties import OutOfRangeError
from tuyere.core.kinds.stock_wheel import PairBelt, StockWheel
from tuyere.core.kinds.two_wheels import crossed_wraps, spans_and_wraps
from tuyere.core.mechanics import open_belt, speed

if TYPE_CHECKING:
    from tuyere.core.kinds.rating.own_table import OwnRatings

KINEMATICS = "plane geometry and kinematics"
_ratio = wrapped(speed.ratio)


@dataclass(frozen=True)
class LineWheel:
    """A wheel that is no V-sheave.

    Diameter of the belt's or chain's line and over the rim or tips (m), its doubt; teeth where it has them.
    """

    line_m: float
    rim_m: float
    std_m: float
    origin: Origin
    teeth: int | None = None


@dataclass(frozen=True)
class LineDrive(Fitted):
    """`of`: what goes round. `lay`: open, crossed or quarter-turn."""

    driver: LineWheel
    driven: LineWheel
    centre_m: float | None
    of: Loop
    lay: str = "open"

    def too_small(self, page: Page) -> None:
        """A wheel too small for it is kept, and said."""

    @abstractmethod
    def rate(self, own: "OwnRatings", duty: RatingDuty, page: Page) -> None:
        """Put its `capacity` on the page with its working, by the shop's table where it has one. Raises OutOfRangeError."""

    @abstractmethod
    def runs_on(self, driver: StockWheel, driven: StockWheel, centre_m: float, now_m: float) -> PairBelt:
        """What runs on that pair with the centres near `centre_m`."""

    @property
    def rolls_m(self) -> float | None:
        """What one turn of the driver pays out, over π (m), where that is not the line's diameter."""
        return None

    @property
    def family(self) -> About:
        return self.of.family

    @property
    def loop(self) -> Loop:
        return self.of

    @property
    def crossed(self) -> bool:
        return self.lay != "open"

    def back_over_line(self, page: Page) -> float:
        return self.of.faces[1]

    def wheels(self, page: Page) -> None:
        _wheel("driver", self.driver, page)
        _wheel("driven", self.driven, page)

    def ratio(self, page: Page) -> Ratio:
        if self.driver.teeth and self.driven.teeth:
            return Ratio(exact(self.driven.teeth / self.driver.teeth), "R = z_2 / z_1", "Teeth cannot slip: the ratio is exact.")
        by_outside = page.values["driven_outside"].n / page.values["driver_outside"].n
        note = (
            f"By outside diameters the ratio would be {by_outside:.3f}. The belt's line runs at mid-thickness; the tachometer settles it."
        )
        return Ratio(_ratio(page.values["driver_datum"], page.values["driven_datum"]), "R = D / d", note)

    def pays_out(self, page: Page) -> tuple[UFloat, str]:
        if self.rolls_m is not None:
            return exact(self.rolls_m), "V = N p n_1"
        return page.values["driver_datum"], "V = π d n_1"

    def centres(self, slide: Slide, page: Page) -> None:
        """Its own survey has settled them."""
        if self.centre_m is None:
            return
        touching = (self.driver.rim_m + self.driven.rim_m) / 2
        if self.centre_m <= touching:
            page.refuse("centre_distance", open_belt.overlap(touching))
            return
        at = exact(self.centre_m)
        page.put(given_figure("centre_distance", "centre distance", "C", "length", at.n, 0.0, Origin.MEASURED, to_set=True), at)
        if self.crossed:
            crossed_wraps(self.lay, page)
        else:
            spans_and_wraps(page, self.of.least_wrap, self.of.too_little_wrap)

    def rating(self, own: "OwnRatings", duty: RatingDuty, page: Page) -> None:
        if any(p.field == "centre_distance" for p in page.problems):
            return
        self.too_small(page)
        if self.of.missing:
            page.say("rating", Tone.OPEN, *self.of.missing)
            return
        try:
            self.rate(own, duty, page)
        except OutOfRangeError as reason:
            page.say("rating", Tone.STOP, "No rating for this drive", str(reason))
            return
        _judge(page)

    def teeth(self, role: Role) -> int | None:
        return (self.driver if role == "driver" else self.driven).teeth

    def belt_for(self, driver: StockWheel, driven: StockWheel, centre_m: float, now_m: float, slide: Slide) -> PairBelt:
        return self.runs_on(driver, driven, centre_m, now_m)

    def with_pair(self, driver: StockWheel, driven: StockWheel, on: PairBelt) -> Self:
        first, second = (LineWheel(w.line_m, w.rim_m, 0.0, Origin.CHOSEN, w.teeth) for w in (driver, driven))
        return replace(self, driver=first, driven=second, centre_m=on.tight_at if on.tight_at is not None else self.centre_m)

    def rolls_at(self, role: Role, diameter_m: float, page: Page) -> float:
        over: float = page.values[f"{role}_datum"].n - page.values[f"{role}_outside"].n
        return diameter_m + over

    def by_diameters(self, page: Page) -> list[tuple[str, tuple[float, float]]]:
        if self.driver.teeth:
            return []
        line, rim = ((page.values[f"driver_{k}"].n, page.values[f"driven_{k}"].n) for k in ("datum", "outside"))
        return [("at mid-thickness", line), ("outside", rim)]


def on_two(pair: type[LineDrive], loop: Loop, driver: Rim, driven: Rim, centre_m: float) -> LineDrive | None:
    """A drive of that kind on two wheels as they were measured over the rim, or by their teeth."""
    found = []
    for rim in (driver, driven):
        at = loop.sits(rim)
        if at is None:
            return None
        doubt = 0.0 if rim.teeth else standard_uncertainty(2 * at.rim_m, "length", Origin.MEASURED)
        found.append(LineWheel(2 * at.line_m, 2 * at.rim_m, doubt, Origin.MEASURED, rim.teeth))
    return pair(found[0], found[1], centre_m, loop)


def _wheel(role: str, wheel: LineWheel, page: Page) -> None:
    """A toothed or flat wheel: the diameter of its line, and over the rim or tips."""
    small, big = ("d", "d_o") if role == "driver" else ("D", "D_o")
    name = f"{role} diameter of the line"
    line = uncertain(wheel.line_m, wheel.std_m, name)
    if wheel.teeth:
        teeth = Line("z", f"{role} teeth", str(wheel.teeth), str(wheel.teeth), Origin.MEASURED, Origin.MEASURED)
        page.put(
            figure(
                f"{role}_datum",
                f"{role} pitch diameter",
                small,
                "length",
                line,
                [teeth],
                f"{small} from z and the pitch",
                KINEMATICS,
                decimals=(3, 2),
            ),
            line,
        )
    else:
        page.put(given_figure(f"{role}_datum", f"{role} diameter at mid-thickness", small, "length", line.n, line.s, wheel.origin), line)
    rim = uncertain(wheel.rim_m, wheel.std_m, name)
    page.put(
        given_figure(
            f"{role}_outside",
            f"{role} outside diameter",
            big,
            "length",
            rim.n,
            rim.s,
            wheel.origin,
            decimals=(3, 2) if wheel.teeth else None,
        ),
        rim,
    )


def _judge(page: Page) -> None:
    if not page.has("capacity", "design_power"):
        return
    too_small = next((f for f in page.flags if f.code == SMALL), None)
    capacity, wanted = page.values["capacity"].n, page.values["design_power"].n
    weighed = f"It carries {page.figures['capacity'].us} ({page.figures['capacity'].si}); the design power is {page.figures['design_power'].us} ({page.figures['design_power'].si})."
    if capacity >= wanted and too_small:
        page.say(
            "rating",
            Tone.WATCH,
            "By its rating it would carry it, but a wheel is too small",
            standing=True,
            detail=f"{weighed} {too_small.sentence}",
        )
    elif capacity >= wanted:
        share = capacity / wanted
        page.say("rating", Tone.GOOD, f"It will carry it{over(share)}", weighed)
    else:
        page.say(
            "rating",
            Tone.WATCH,
            f"It will not do: {capacity / wanted:.0%} of the design power",
            weighed + " Take larger wheels, more width or strands, or the next size up.",
        )
        page.flag("underrated", "name", f"It carries {capacity / wanted:.0%} of the design power.")
