"""What a feasible candidate is like, in numbers; and the traits of its kind of drive."""

from dataclasses import dataclass
from functools import cache

from tuyere.core.basis.origin import Confidence
from tuyere.core.basis.table import rows


@dataclass(frozen=True)
class Traits:
    """A kind of drive.

    Efficiency well kept and neglected; points 0 (bad) to 4 (good); whether it slips before something breaks; the warmest air for its
    usual make (°C).
    """

    kept: float
    neglected: float
    dirt: int
    shock: int
    no_oil: int
    out_of_line: int
    quiet: int
    fuse: bool
    hottest_c: float
    confidence: Confidence
    source: str


@cache
def traits() -> dict[str, Traits]:
    """Traits by kind of drive."""
    heat = {r["kind"]: float(r["most_c"]) for r in rows("heat_limits")}
    return {
        r["kind"]: Traits(
            float(r["kept"]),
            float(r["neglected"]),
            int(r["dirt"]),
            int(r["shock"]),
            int(r["no_oil"]),
            int(r["out_of_line"]),
            int(r["quiet"]),
            r["fuse"] == "yes",
            heat[r["kind"]],
            Confidence(r["confidence"]),
            r["source"],
        )
        for r in rows("drive_traits")
    }


@dataclass(frozen=True)
class Measures:
    """One candidate: speeds rad/s and m/s, lengths m, powers W, forces N. `margin`: capacity over design power, less one."""

    driven_speed: float
    speed_error: float
    belt_speed: float
    centre_m: float
    wrap_rad: float
    capacity_w: float
    design_w: float
    margin: float
    pull_n: float
    width_m: float
    length_m: float
