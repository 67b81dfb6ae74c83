"""A wheel that is moved to tighten the belt: how far its movement reaches, the belt for a position and the position for a belt."""

import itertools
import math
from collections.abc import Sequence
from dataclasses import dataclass, replace

from tuyere.core.basis.figure import both
from tuyere.core.basis.verdict import Tone, Verdict
from tuyere.core.mechanics.belt_path import BeltPath, Mover, about_pivot, along_line, length_gradient, moved, possible_path, take_up_for
from tuyere.core.mechanics.on_wheels.wheels import BeltOnWheels, Lay, PathWheel
from tuyere.core.mechanics.open_belt import GeometryError

_UNKNOWN_REACH_M = 0.3  # searched each way where nobody measured how far the wheel moves
_TRACK = 12


@dataclass(frozen=True)
class Reach:
    """The movement of one wheel: travel is metres of its centre, above 0 to tighten.

    `per_m`: belt length taken up by each metre of travel, here. `track`: places (m) from slack end to tight end. `now_m`:
    travel at which the belt that is on is taut, None where it is not known or not within reach.
    """

    wheel: int
    slacken_m: float
    tighten_m: float
    measured: bool
    per_m: float
    least_belt_m: float | None
    most_belt_m: float | None
    track: tuple[tuple[float, float], ...]
    now_m: float | None
    mover: Mover
    rims_m: tuple[float, ...]

    def travel_for(self, path: BeltPath, length_m: float) -> float:
        """The travel at which a belt of the given length is taut. Raises GeometryError when it is too short or too long."""
        crossed = round(path.turning_rad / math.tau) == 0
        return take_up_for(path.pulleys, self.wheel, self.mover, length_m, -self.slacken_m, self.tighten_m, crossed, self.rims_m)


def reaches(belt: BeltOnWheels, path: BeltPath, wheels: Sequence[PathWheel]) -> tuple[tuple[Reach, ...], list[Verdict]]:
    """Every take-up of a belt, and what to say of it. `wheels` from the driver on, as the path has them."""
    if belt.lay is Lay.QUARTER:
        return (), []
    found, said = [], []
    for i, w in enumerate(wheels):
        if not w.take_up:
            continue
        gradient = length_gradient(path, i)
        if math.hypot(*gradient) < 1e-6:
            said.append(Verdict("take-up", Tone.WATCH, f"{w.name} cannot take up anything", "The belt does not bend round it."))
            continue
        reach, verdict = _reach(belt, path, wheels, i, gradient)
        if reach:
            found.append(reach)
        said.append(verdict)
    return tuple(found), said


def _reach(
    belt: BeltOnWheels, path: BeltPath, wheels: Sequence[PathWheel], i: int, gradient: tuple[float, float]
) -> tuple[Reach | None, Verdict]:
    w, rims = wheels[i], tuple(x.rim_radius_m for x in wheels)
    assert w.take_up
    mover, towards = _mover(w, gradient)
    along = gradient[0] * towards[0] + gradient[1] * towards[1]
    if abs(along) < 0.02:
        return None, Verdict(
            "take-up",
            Tone.WATCH,
            f"{w.name} moves along the belt, not into it",
            "Its movement does not tighten: check its line, or where its arm turns.",
        )
    sense = 1 if along > 0 else -1
    measured = w.take_up.tighten_m is not None and w.take_up.slacken_m is not None
    slacken = w.take_up.slacken_m if w.take_up.slacken_m is not None else _UNKNOWN_REACH_M
    tighten = w.take_up.tighten_m if w.take_up.tighten_m is not None else _UNKNOWN_REACH_M

    def to(s: float) -> tuple[float, float]:
        return mover(sense * s)

    def length_at(s: float) -> float | None:
        try:
            return possible_path(moved(path.pulleys, i, to(s)), rims, belt.lay is Lay.CROSSED).length_m
        except GeometryError:
            return None

    steps = [-slacken + (slacken + tighten) * k / _TRACK for k in range(_TRACK + 1)]
    lengths = [length_at(s) for s in steps]
    known = [length for length in lengths if length is not None]
    whole = len(known) == len(lengths)
    reach = Reach(
        i,
        slacken,
        tighten,
        measured,
        abs(along),
        min(known) if whole else None,
        max(known) if whole else None,
        tuple(to(s) for s in steps),
        None,
        to,
        rims,
    )
    if measured and any(b < a for a, b in itertools.pairwise(known)):
        return reach, Verdict(
            "take-up",
            Tone.WATCH,
            f"{w.name} passes its dead point",
            "Somewhere in its movement it stops tightening and slackens again: set it up short of there, or move its pivot.",
        )
    if belt.length_m is None:
        return reach, _range_verdict(w, reach)
    try:
        now = reach.travel_for(path, belt.length_m)
    except GeometryError as reason:
        return reach, Verdict("take-up", Tone.STOP, f"{w.name} cannot tighten this belt", str(reason))
    reach = replace(reach, now_m=now)
    return reach, _now_verdict(w, reach, now)


def _mover(w: PathWheel, gradient: tuple[float, float]) -> tuple[Mover, tuple[float, float]]:
    """Where the centre goes with travel, and the unit direction in which it starts."""
    assert w.take_up
    if w.take_up.pivot:
        px, py = w.take_up.pivot
        arm = math.hypot(w.x_m - px, w.y_m - py)
        if arm > 1e-6:
            swing = about_pivot(w.x_m, w.y_m, px, py)
            return (lambda s: swing(s / arm)), (-(w.y_m - py) / arm, (w.x_m - px) / arm)
    direction = w.take_up.direction_rad
    if direction is None:
        direction = math.atan2(gradient[1], gradient[0])
    return along_line(w.x_m, w.y_m, direction), (math.cos(direction), math.sin(direction))


def _range_verdict(w: PathWheel, reach: Reach) -> Verdict:
    gives = f"Each inch or millimetre of travel takes up {reach.per_m:.2f} of it in belt."
    if not reach.measured:
        return Verdict("take-up", Tone.OPEN, f"Measure how far {w.name} can still move, both ways", gives)
    if reach.least_belt_m is None or reach.most_belt_m is None:
        return Verdict(
            "take-up",
            Tone.WATCH,
            f"{w.name} cannot be moved to both its ends",
            "The belt would leave a wheel on the way: check the movement.",
        )
    low, high = sorted((reach.least_belt_m, reach.most_belt_m))
    return Verdict("take-up", Tone.OPEN, f"{w.name} takes belts from {both(low)} to {both(high)} on their line", gives)


def _now_verdict(w: PathWheel, reach: Reach, now: float) -> Verdict:
    way = "as it was measured" if abs(now) < 0.0005 else f"{both(abs(now))} {'tighter' if now > 0 else 'slacker'} than it was measured"
    if not reach.measured:
        return Verdict("take-up", Tone.OPEN, f"With this belt {w.name} stands {way}", "Measure how far it can still move, both ways.")
    left = reach.tighten_m - now
    tone = Tone.WATCH if left < 0.25 * (reach.tighten_m + reach.slacken_m) else Tone.GOOD
    return Verdict(
        "take-up", tone, f"With this belt {w.name} stands {way}", f"{both(left)} left to tighten, {both(now + reach.slacken_m)} to slacken."
    )
