"""Tension in each run of a belt on many wheels, and which wheel slips first.

Power enters at the driver and leaves at the driven wheels; going with the belt from the driver, the runs grow tighter at
each wheel that takes power, so that the run back to the driver is the tightest and the one that leaves it the slackest.
Wheel 0 is the driver; run i leaves wheel i.
"""

import math
from collections.abc import Sequence

from tuyere.core.mechanics.belt_path import BeltPath
from tuyere.core.mechanics.on_wheels.wheels import PathWheel
from tuyere.core.mechanics.tension.window import off_mean, slip_under

# exp(0.5123 theta): the 5 : 1 of the V-belt arc factor, with its reserve (IP-20; from memory); 4 : 1 of ribbed belts (IP-26). A flat face on a
# belt's back or a flat idler holds far less: 0.3 is common practice, no source.
FLAT = 0.3


def friction(face: str, half_turn_ratio: float = 5.0) -> float:
    """f of the capstan equation on a face: so much that the loop's own face holds `half_turn_ratio` at half a turn, infinite for sprockets.

    >>> round(friction("flat"), 2), round(friction("grooved", 5.0), 2)
    (0.3, 0.51)
    """
    return math.log(half_turn_ratio) / math.pi if face == "grooved" else FLAT


def tension_changes(path: BeltPath, wheels: Sequence[PathWheel], velocity: float) -> list[float]:
    """How the load changes each run's tension from the standing one (N): the belt's length, and so the mean over its runs, stays.

    Source: elastic belt of fixed length, equal stiffness all along.
    """
    rise = [0.0]
    for w in wheels[1:]:
        rise.append(rise[-1] + (w.power_w / velocity if w.role == "driven" else 0.0))
    return list(off_mean(rise, [r.length_m for r in path.runs]))


def run_tensions(path: BeltPath, wheels: Sequence[PathWheel], velocity: float, standing_n: float, load: float = 1.0) -> list[float]:
    """Tension in each run (N) at `load` times the wheels' powers."""
    return [standing_n + load * change for change in tension_changes(path, wheels, velocity)]


def tensions_needed(
    path: BeltPath, wheels: Sequence[PathWheel], velocity: float, mass_kg_per_m: float = 0.0, half_turn_ratio: float = 5.0
) -> list[float]:
    """For each wheel, the standing tension (N) under which it slips at its stated power; 0 for one that cannot slip.

    Capstan equation at the wheel's own wrap, with the centrifugal part taken off both strands:
    T1 - m v^2 = exp(f theta) (T2 - m v^2). The largest belongs to the wheel that slips first.
    """
    change = tension_changes(path, wheels, velocity)
    found = []
    for i, w in enumerate(wheels):
        tight, slack = (i - 1, i) if w.role == "driver" else (i, i - 1)
        # A wheel that is hardly touched holds next to nothing: it wants a tension far beyond any belt's.
        ratio = max(1 + 1e-6, math.exp(friction(w.face, half_turn_ratio) * path.wraps_rad[i]))
        grip = slip_under(change[tight], change[slack], ratio)
        passes = w.role == "driver" or w.power_w > 0
        found.append(grip + mass_kg_per_m * velocity**2 if passes and grip > 0 else 0.0)
    return found


def slip_margins(
    path: BeltPath,
    wheels: Sequence[PathWheel],
    velocity: float,
    standing_n: float,
    mass_kg_per_m: float = 0.0,
    half_turn_ratio: float = 5.0,
) -> list[float]:
    """For each wheel, at how many times the load it slips (infinite for one that cannot)."""
    lost = mass_kg_per_m * velocity**2
    needed = tensions_needed(path, wheels, velocity, mass_kg_per_m, half_turn_ratio)
    return [max(0.0, standing_n - lost) / (n - lost) if n > 0 else math.inf for n in needed]
