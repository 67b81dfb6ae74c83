"""A wheel on the shelf, and what runs on a pair of them."""

from dataclasses import dataclass
from typing import NamedTuple


@dataclass(frozen=True)
class StockWheel:
    """A wheel on the shelf: diameter of the belt's line and over the rim (m), teeth where it has them.

    A V-sheave's speed goes by its pitch diameter, `over_m` beyond that line.
    """

    line_m: float
    rim_m: float
    teeth: int | None = None
    over_m: float = 0.0

    @property
    def rolls(self) -> float:
        """What its speed goes by: its teeth, else its pitch diameter (m)."""
        return float(self.teeth or self.line_m + self.over_m)


class PairBelt(NamedTuple):
    """The belt or chain for a pair of stock wheels; empty where none fits, and then which comes `nearest`. `tight_at`: its centres (m).

    `stays`: the one that is on fits within the take-up. `slide`: how far the motor has to slide for it, in words. `links`: how many,
    where it is bought by them.
    """

    belt: str
    stays: bool
    tight_at: float | None
    slide: str = ""
    nearest: str = ""
    links: int | None = None
