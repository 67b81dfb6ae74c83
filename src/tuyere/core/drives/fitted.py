"""What is fitted on two wheels, and what a drive of any kind answers of itself."""

from abc import ABC, abstractmethod
from dataclasses import dataclass
from typing import TYPE_CHECKING, NamedTuple

from tuyere.core.limit import Limit, limit
from tuyere.core.origin import Origin
from tuyere.core.rating.duties import Numbers
from tuyere.core.working.page import Page

if TYPE_CHECKING:
    from tuyere.core.drives.family import Family
    from tuyere.core.rating.own_table import OwnRatings

SMALL = "small-sheave"  # the flag of a wheel under its belt's smallest: no rating stands beside it


@dataclass(frozen=True)
class LineWheel:
    """A wheel that is no V-sheave: diameter of the belt's or chain's line and over the rim or tips (m), its doubt; teeth where it has them."""

    line_m: float
    rim_m: float
    std_m: float
    origin: Origin
    teeth: int | None = None


@dataclass(frozen=True)
class StockWheel:
    """A wheel on the shelf: diameter of the belt's line and over the rim (m), teeth where it has them. A V-sheave's speed goes by its pitch diameter, `over_m` beyond that line."""

    line_m: float
    rim_m: float
    teeth: int | None = None
    over_m: float = 0.0

    @property
    def rolls(self) -> float:
        """What its speed goes by: its teeth, else its pitch diameter (m)."""
        return float(self.teeth or self.line_m + self.over_m)


class On(NamedTuple):
    """The belt or chain for a pair of stock wheels; empty where none fits, and then which comes `nearest`. `tight_at`: its centres (m).

    `stays`: the one that is on fits within the take-up. `slide`: how far the motor has to slide for it, in words. `links`: how many, where it is
    bought by them.
    """

    belt: str
    stays: bool
    tight_at: float | None
    slide: str = ""
    nearest: str = ""
    links: int | None = None


class Duty(NamedTuple):
    """What a rating and its signs look at besides the wheels: the machine's class, and how the line of centres lies (degrees from level)."""

    driven_class: str | None
    centre_line_deg: float


@dataclass(frozen=True)
class LineDrive(ABC):
    """A drive on two wheels that goes by the line of its belt or chain. `back_m`: the back over the line; `fastest_m_per_s`: its usual limit.

    `size`: its width (m) or its strands; None while not known. `lay`: open, crossed or quarter-turn.
    """

    driver: LineWheel
    driven: LineWheel
    centre_m: float | None
    height_m: float
    back_m: float
    fastest_m_per_s: float | None
    fastest_source: str
    lay: str = "open"
    size: float | None = None

    @property
    @abstractmethod
    def family(self) -> "Family":
        """Which kind it is."""

    @property
    @abstractmethod
    def name(self) -> str:
        """Which one of its kind runs on it; empty while not known."""

    @property
    def traits(self) -> str:
        """Which row of the kinds' traits holds for it."""
        return self.family.key

    @property
    def crossed(self) -> bool:
        """Whether it lies otherwise than open, in one plane."""
        return self.lay != "open"

    @property
    def by_load(self) -> bool:
        """Whether its slack side hangs free, so that its tension follows the load and nothing is set."""
        return False

    @property
    def rolls_m(self) -> float | None:
        """What one turn of the driver pays out, over π (m), where that is not the line's diameter."""
        return None

    @property
    def mass_kg_per_m(self) -> float:
        """Mass of the whole set; zero where its size is not known."""
        return self.mass_of_one * self.size if self.size is not None else 0.0

    @property
    @abstractmethod
    def mass_of_one(self) -> float:
        """Mass of a strand (kg/m), or of a belt one metre wide (kg/m²)."""

    @abstractmethod
    def tension_ratio(self, wrap_rad: Numbers) -> tuple[Numbers, str]:
        """Tight strand over slack at that wrap on the small wheel, and where it is from."""

    @property
    def least_wrap(self) -> Limit | None:
        """The least wrap of the small wheel; None where teeth in mesh decide."""
        return limit("least wrap of a belt")

    @property
    def too_little_wrap(self) -> tuple[str, str]:
        """Who wraps too little, and what comes of it."""
        return "The belt", "it slips early under"

    @property
    @abstractmethod
    def missing(self) -> tuple[str, str] | None:
        """What is still wanted before it can be rated, and what to do; None once it can, or where nothing helps."""

    @abstractmethod
    def too_small(self, page: Page) -> None:
        """A wheel too small for it is kept, and said."""

    @abstractmethod
    def rate(self, own: "OwnRatings", duty: Duty, page: Page) -> None:
        """Put its `capacity` on the page with its working, by the shop's table where it has one. Raises OutOfRangeError."""

    @abstractmethod
    def stock(self) -> tuple[StockWheel, ...]:
        """The wheels that the tables' common sizes hold for it."""

    @abstractmethod
    def belt_for(self, driver: StockWheel, driven: StockWheel, centre_m: float, now_m: float) -> On:
        """What runs on that pair with the centres near `centre_m`, when they are `now_m` apart today."""

    def speaks_against(self, small_teeth: int, fastest: float) -> list[str]:
        """What of a pair's smaller wheel, and its faster shaft (rad/s), speaks against it."""
        return []


def small_wheel(page: Page) -> tuple[str, float]:
    """Which wheel is the small one, and the speed of its shaft (rad/s)."""
    role = "driver" if page.values["ratio"].n >= 1 else "driven"
    return role, page.values[f"{role}_speed"].n
