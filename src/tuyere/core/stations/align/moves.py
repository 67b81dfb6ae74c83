"""The moves of the feet that cancel an angle, a twist and an offset, as one set from the as-found state. Rigid body, small turns."""

import math
from collections.abc import Callable, Sequence
from dataclasses import dataclass

from tuyere.core.stations.align.frame import turns_of
from tuyere.core.stations.align.readings import Errors

Build = Callable[[float], float]


def any_lift(lift_m: float) -> float:
    """A lift as it is."""
    return lift_m


@dataclass(frozen=True)
class Feet:
    """From the wheel to the front feet, front to back, left to right, and below the shaft (m)."""

    a_m: float
    b_m: float
    width_m: float
    height_m: float


@dataclass(frozen=True)
class Moves:
    """Shims [front-left, front-right, back-left, back-right] (+ lifts), jacks of each pair (+ toward +y), slide (+ toward +x), centres apart
    (+); m.

    None where the readings do not settle what it would mend. `short_m`: what the lift built of whole shims falls short by; `carries_m`:
    how far the shims carry the wheel along x, which the slide allows for.
    """

    shims_m: tuple[float, float, float, float] | None
    jack_front_m: float | None
    jack_back_m: float | None
    slide_m: float | None
    centre_change_m: float | None
    short_m: float = 0.0
    carries_m: float = 0.0


NOT_MOVED = Moves(None, None, None, None, None)


def in_steps(step_m: float | None) -> Build:
    """Lifts rounded to whole steps; as they are where there is none."""
    return (lambda lift: round(lift / step_m) * step_m) if step_m else any_lift


def moves_for(errors: Errors, feet: Feet, slope_rad: float, build: Build = any_lift, shims_now_m: Sequence[float] = ()) -> Moves:
    """Shims at one end only, swing about the middle of the front pair, then slide; what shims do to the offset is allowed for.

    Where enough shims lie under the other end already, as much is taken out there instead. `build`: the lift that can be made nearest to
    one.

    Where the readings do not say what to shim, the slide is of the offset as it stands.

    Shims turn the machine about the line of the other pair's feet, `height_m` under the shaft, and so carry the wheel along x by -wy H.
    """
    about_y, about_z = _turns(errors, slope_rad)
    shims = None
    wanted = lift = 0.0
    moved_front = False
    if about_y is not None:
        wanted = abs(about_y) * feet.b_m
        lift = build(wanted)
        under_front = about_y > 0  # the end to lift
        other = shims_now_m[2:] if under_front else shims_now_m[:2]
        taken_out = len(shims_now_m) == 4 and lift > 0 and min(other) >= lift
        moved_front = under_front != taken_out
        by = -lift if taken_out else lift
        shims = (by, by, 0.0, 0.0) if moved_front else (0.0, 0.0, by, by)
    done_y = math.copysign(lift / feet.b_m, about_y) if about_y and lift else 0.0
    carries = -done_y * feet.height_m
    jack_back = about_z * feet.b_m if about_z is not None else None
    slide = -(errors.offset_m + carries) if errors.offset_m is not None else None
    change = None
    if about_y is not None and about_z is not None:
        pivot = feet.a_m + feet.b_m if moved_front and lift else feet.a_m
        change = -(-about_z * feet.a_m * math.cos(slope_rad) + done_y * pivot * math.sin(slope_rad))
    return Moves(shims, 0.0 if jack_back is not None else None, jack_back, slide, change, wanted - lift, carries)


def _turns(errors: Errors, slope_rad: float) -> tuple[float | None, float | None]:
    """Turns about y and z, as far as angle and twist are settled: on a level or upright line each is one of them alone."""
    angle, twist = errors.angle_rad, errors.twist_rad
    if angle is not None and twist is not None:
        return turns_of(angle, twist, slope_rad)
    if abs(math.sin(slope_rad)) < 1e-9:
        c = math.copysign(1.0, math.cos(slope_rad))
        return (twist * c if twist is not None else None, angle * c if angle is not None else None)
    if abs(math.cos(slope_rad)) < 1e-9:
        s = math.copysign(1.0, math.sin(slope_rad))
        return (-angle * s if angle is not None else None, twist * s if twist is not None else None)
    return None, None
