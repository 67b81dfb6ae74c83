"""Readings of a spring deflection gauge, as a drive that is set by one takes them."""

from dataclasses import dataclass
from typing import Literal

from tuyere.core.entry.typed import Given

BeltState = Literal["new", "run in"]


@dataclass(frozen=True)
class Gauge:
    """One force (N) a belt, the deflection used (m) if not the target, the belts' state."""

    forces: tuple[Given, ...]
    deflection: Given | None
    belt_state: BeltState
