"""How a tension that nobody touches falls while a new set runs in, and what a second reading says beside the first."""

import math
from typing import NamedTuple

from tuyere.core.basis.table import rows

_T0_H = 0.0025


class Left(NamedTuple):
    """What should be left of a tension, as shares: low, middle, high."""

    low: float
    middle: float
    high: float


def left_after(kind: str, hours: float, since_h: float = 0.0) -> Left | None:
    """Share of a set tension after so many running hours; `since_h`: hours it had run when it was set.

    None for a kind that does not settle.

    >>> after = left_after("V-belt, wrapped", 24)
    >>> round(after.middle, 2), round(after.low, 2), left_after("roller chain", 24)
    (0.63, 0.53, None)
    """
    row = next((r for r in rows("settling") if r["kind"] == kind), None)
    if row is None:
        return None
    fall, band = float(row["s"]), float(row["band"])

    def share(t: float) -> float:
        return 1 - fall * math.log10(1 + max(0.0, t) / _T0_H)

    middle = min(1.0, share(since_h + hours) / share(since_h))
    return Left(middle - band, middle, min(1.0, middle + band))


def beyond_settling(kind: str, first_n: float, first_u: float, second_n: float, second_u: float, hours: float, since_h: float = 0.0) -> str:
    """What a second reading says beside the first, in a sentence; empty where the fall is what settling explains.

    >>> beyond_settling("V-belt, wrapped", 200, 10, 125, 8, 24)
    ''
    >>> beyond_settling("V-belt, wrapped", 200, 10, 60, 8, 24)[:42]
    'It fell to 30% of the last reading, and 53'
    """
    left = left_after(kind, hours, since_h)
    if left is None or first_n <= 0:
        return ""
    share = second_n / first_n
    doubt = share * math.hypot(first_u / first_n, second_u / second_n if second_n > 0 else 0.0)
    if share < left.low - 2 * doubt:
        return f"It fell to {share:.0%} of the last reading, and {left.low:.0%} to {left.high:.0%} is what settling explains: look for a belt not seated, stretched cords, or a base that slipped."
    if share > 1 + 2 * doubt + 0.1:
        return f"It rose to {share:.0%} of the last reading though nobody noted tightening it: read it again, or note that it was set."
    return ""
