"""A shop's own rating table: power by the small wheel and the fast shaft's speed; it overrides the standard's.

Between the figures it is read straight (bilinear); past them it refuses.
"""

from collections.abc import Mapping
from dataclasses import dataclass, field
from functools import cached_property
from typing import Literal

import numpy as np
from numpy.typing import NDArray
from scipy.interpolate import RegularGridInterpolator

from tuyere.core.basis.quantity import System, from_si, show
from tuyere.core.kinds.rating.duties import OutOfRangeError

_EDGE = 1e-6  # a size typed in inches may miss a millimetre figure by a rounding

Measured = Literal["diameter", "teeth"]
Numbers = NDArray[np.float64] | float


@dataclass(frozen=True, eq=False)
class OwnTable:
    """One thing's table.

    Sizes (m, or teeth), speeds (rad/s), ratios, powers (W) by ratio, size and speed; width (m) where it counts by width.
    """

    name: str
    by: Measured
    sizes: tuple[float, ...]
    speeds: tuple[float, ...]
    ratios: tuple[float, ...]
    powers_w: NDArray[np.float64]
    width_m: float | None
    source: str

    @cached_property
    def _grids(self) -> list[RegularGridInterpolator]:
        return [RegularGridInterpolator((self.sizes, self.speeds), one, bounds_error=False) for one in self.powers_w]

    def power(self, size: Numbers, speed: Numbers, ratio: Numbers = 1.0) -> NDArray[np.float64]:
        """Power (W) for many at once; NaN past the table. ratio: larger over smaller wheel."""
        size, speed, ratio = np.broadcast_arrays(_onto(size, self.sizes), _onto(speed, self.speeds), ratio)
        step = np.searchsorted(self.ratios, np.asarray(ratio) * (1 + _EDGE), side="right") - 1
        out = np.full(size.shape, np.nan)
        for n, grid in enumerate(self._grids):
            here = step == n
            out[here] = grid(np.stack([size[here], speed[here]], axis=-1))
        return out

    def rated(self, size: float, speed: float, ratio: float = 1.0) -> float:
        """Power (W). Raises OutOfRangeError with what the table reaches."""
        found = float(self.power(np.array(size), np.array(speed), np.array(ratio)))
        if np.isnan(found):
            raise OutOfRangeError(f"Your own table of {self.name} goes from {self.reach}: past that it says nothing.")
        return found

    @property
    def reach(self) -> str:
        """What it covers, in words."""
        least, most = (shown_size(s, self.by) for s in (self.sizes[0], self.sizes[-1]))
        slow, fast = (f"{from_si(s, 'rotation', 'rpm'):.0f}" for s in (self.speeds[0], self.speeds[-1]))
        return f"{least} to {most} and {slow} to {fast} rpm{f', from a ratio of {self.ratios[0]:g}' if self.ratios[0] > 1 else ''}"

    @property
    def says(self) -> str:
        """For a working: whose figure it is."""
        return f"your own table ({self.source})" if self.source else "your own table"


def shown_size(size: float, by: Measured) -> str:
    """A size of the small wheel, in words."""
    return f"{size:.0f} teeth" if by == "teeth" else f"{show(size, 'length', System.US)} ({show(size, 'length', System.SI)})"


def _onto(x: Numbers, points: tuple[float, ...]) -> NDArray[np.float64]:
    """A hair past either end counts as the end."""
    x = np.asarray(x, dtype=float)
    x = np.where(np.abs(x - points[0]) <= _EDGE * points[0], points[0], x)
    return np.where(np.abs(x - points[-1]) <= _EDGE * points[-1], points[-1], x)


@dataclass(frozen=True, eq=False)
class OwnRatings:
    """The tables of a shop, by what they rate."""

    tables: Mapping[str, OwnTable] = field(default_factory=dict)

    def of(self, name: str) -> OwnTable | None:
        """The shop's table for a section, profile, chain or flat belt; None where it has none."""
        return self.tables.get(name)


NONE = OwnRatings()
