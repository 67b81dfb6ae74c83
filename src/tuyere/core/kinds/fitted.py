"""What is fitted on two wheels, and what a drive of any kind answers of itself."""

from abc import ABC, abstractmethod
from collections.abc import Sequence
from dataclasses import dataclass
from typing import TYPE_CHECKING, Literal, NamedTuple

from tuyere.core.basis.origin import Origin
from tuyere.core.basis.page import Page
from tuyere.core.basis.typed import Given
from tuyere.core.basis.uncertainty import UFloat
from tuyere.core.kinds.about import About
from tuyere.core.kinds.loop import Loop
from tuyere.core.kinds.stock_wheel import PairBelt, StockWheel
from tuyere.core.kinds.written import Written

if TYPE_CHECKING:
    from tuyere.core.kinds.rating.own_table import OwnRatings

Role = Literal["driver", "driven"]
ROLES: tuple[Role, Role] = ("driver", "driven")
SMALL = "small-sheave"  # the flag of a wheel under its belt's smallest: no rating stands beside it


@dataclass(frozen=True)
class Adjustable:
    """A wheel whose diameter can be set by turns.

    On which shaft, turns open (None: not counted), what its line loses a turn (m), most turns open.
    """

    role: Role
    turns: float | None
    drop_m: float
    most: float
    drop_origin: Origin = Origin.RULE_OF_THUMB


class RatingDuty(NamedTuple):
    """What a rating and its signs look at besides the wheels: the machine's class, and how the line of centres lies (degrees from level)."""

    driven_class: str | None
    centre_line_deg: float


class Slide(NamedTuple):
    """How far the base lets the centres close and open from where they are (m); None where nobody measured."""

    closer: Given | None = None
    away: Given | None = None


NOT_MEASURED = Slide()


class Ratio(NamedTuple):
    """Driver's speed over the driven one's, the formula it comes by, and what to know of it."""

    value: UFloat
    formula: str
    note: str


@dataclass(frozen=True)
class ShortSet:
    """`left` of a set's belts: the share of the set, of the design load (None: load not known), how hard to run, days until whole."""

    left: int
    of_set: float
    of_load: float | None
    run: str
    days: int


class Fitted(ABC):
    """A drive on two wheels, as it is on: what goes round, and the wheels as they were measured.

    The sheet asks it step by step; each step puts on the page what it knows, and leaves out the rest.
    """

    @property
    @abstractmethod
    def family(self) -> About:
        """Which kind it is."""

    @property
    @abstractmethod
    def loop(self) -> Loop | None:
        """What goes round its wheels; None while it is not said which."""

    @property
    def known(self) -> bool:
        """Whether it is said which one of its kind runs."""
        return self.loop is not None and self.loop.named

    @property
    def traits(self) -> str:
        """Which row of the kinds' traits holds for it."""
        return self.loop.traits if self.loop else self.family.key

    @property
    def wanted(self) -> tuple[tuple[str, object], ...]:
        """What a person would measure of it first, by field, with what is known of it."""
        return ()

    @property
    def count_wanted(self) -> tuple[tuple[str, object], ...]:
        """What is still wanted of it last, when the rest is known."""
        return ()

    # --- step by step, for the sheet

    @abstractmethod
    def wheels(self, page: Page) -> None:
        """Put each wheel's `datum` and `outside` diameter on the page, by role.

        And `pitch`, where its speed goes by another than its length.
        """

    @abstractmethod
    def ratio(self, page: Page) -> Ratio | None:
        """By what is on the page; None where these wheels do not run, which is then said."""

    @abstractmethod
    def pays_out(self, page: Page) -> tuple[UFloat, str]:
        """What one turn of the driver pays out, over π (m), and the belt's speed by it as a formula."""

    @abstractmethod
    def centres(self, slide: Slide, page: Page) -> None:
        """Put the centre distance, spans and wraps on the page, and what its length says."""

    @abstractmethod
    def rating(self, own: "OwnRatings", duty: RatingDuty, page: Page) -> None:
        """What it carries on these wheels, by its own method or the shop's table, and whether that will do."""

    def standing_n(self, design_power_w: float, speed_m_per_s: float, page: Page) -> float | None:
        """The tension of the whole set that is set by a target of its own; None where it has none."""
        return None

    def target(self, page: Page) -> None:  # noqa: B027  (nothing to do is an answer)
        """The tension to set, where that is worked out for it."""

    def short_sets(self, page: Page) -> tuple[ShortSet, ...]:
        """One row for each number of belts that may be left of it, most first."""
        return ()

    @property
    def flat_wheel(self) -> Role | None:
        """Which wheel has a plain face though the belt is made for grooves."""
        return None

    # --- as it is drawn

    @property
    def crossed(self) -> bool:
        """Whether it lies otherwise than open, in one plane."""
        return False

    @abstractmethod
    def back_over_line(self, page: Page) -> float:
        """From its line out to its back (m)."""

    @property
    def pieces(self) -> int | None:
        """Belts, bands or chains side by side; None while not counted."""
        return 1

    @property
    def in_bands(self) -> bool:
        """Whether it runs in bands of several ribs, which are counted as so many pieces."""
        return self.loop is not None and self.loop.ribs > 1

    @property
    def bands(self) -> str:
        """Belts joined side by side, in words; empty where they are not."""
        if self.loop is None or not self.in_bands or not self.pieces:
            return ""
        return f"{self.pieces} {'band' if self.pieces == 1 else 'bands'} of {self.loop.ribs} ribs"

    # --- other wheels on it

    adjustable: Adjustable | None = None

    def teeth(self, role: Role) -> int | None:
        """Of a wheel that has them."""
        return None

    @abstractmethod
    def belt_for(self, driver: StockWheel, driven: StockWheel, centre_m: float, now_m: float, slide: Slide) -> PairBelt:
        """What runs on that pair with the centres near `centre_m`, when they are `now_m` apart today."""

    @abstractmethod
    def with_pair(self, driver: StockWheel, driven: StockWheel, on: PairBelt) -> "Fitted":
        """The same kind on that pair, with what runs on it."""

    @abstractmethod
    def pair_written(self, driver: StockWheel, driven: StockWheel, new: Sequence[Role], on: PairBelt) -> Written:
        """That pair, of which `new` wheels are not on yet, written over this drive's own form."""

    @abstractmethod
    def rolls_at(self, role: Role, diameter_m: float, page: Page) -> float:
        """The diameter that speed goes by of a new wheel on that shaft, measured as the old one was (m)."""

    @abstractmethod
    def by_diameters(self, page: Page) -> list[tuple[str, tuple[float, float]]]:
        """Both wheels by each kind of diameter that people go by (m), the one that speeds go by first; none where teeth settle it."""

    @property
    def face_m(self) -> float | None:
        """Over all its belts (m), where known."""
        return None


def small_wheel(page: Page) -> tuple[Role, float]:
    """Which wheel is the small one, and the speed of its shaft (rad/s)."""
    role: Role = "driver" if page.values["ratio"].n >= 1 else "driven"
    return role, page.values[f"{role}_speed"].n


def rolls_by(page: Page, role: str) -> str:
    """The figure of a wheel's diameter that its speed goes by: the pitch diameter of a V-sheave, the line of any other."""
    return f"{role}_pitch" if page.has(f"{role}_pitch") else f"{role}_datum"
