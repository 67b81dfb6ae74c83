"""How true two wheels should run, by kind of drive: tables/align_tolerances.csv."""

import math
from typing import NamedTuple

from tuyere.core.basis.table import rows


class Tolerance(NamedTuple):
    """The most angle and twist (rad each) and offset (m), and where it is from."""

    angle_rad: float
    offset_m: float
    source: str


def kinds() -> tuple[str, ...]:
    """The kinds that have one."""
    return tuple(r["kind"] for r in rows("align_tolerances"))


def tolerance(kind: str, centre_m: float) -> Tolerance:
    """Of a kind, at these centres. Raises KeyError for an unknown kind.

    >>> t = tolerance("v-belt", 0.8)
    >>> round(math.degrees(t.angle_rad), 3), round(t.offset_m, 4)
    (0.5, 0.004)
    """
    for r in rows("align_tolerances"):
        if r["kind"] == kind:
            offset = max(float(r["least_mm"]), float(r["offset_mm_per_m"]) * centre_m) / 1000
            return Tolerance(math.radians(float(r["angle_deg"])), offset, r["source"])
    raise KeyError(kind)
