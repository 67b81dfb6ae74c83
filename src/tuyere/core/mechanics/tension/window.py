"""The window of a stage: how slack it may be before it slips, what to aim for, and how tight before something else suffers.

Every tension is of one strand of one belt (or rib, or the band where belts = 1), at rest for fixed centres, N. SI.

Fixed centres, linear belt: the mean of the strands' tensions, weighted by their free length, stays what it was at rest (two wheels: F1 +
F2 = 2T). A spring, weight or lever on the slack side holds F2 - m v² = T; on the tight side F1 - m v² = T. With more than two wheels the
slack strand is the least loaded, the tight one the most. A wheel slips where (F1 - m v²)/(F2 - m v²) = exp(f θ / sin(groove/2)) (Euler;
Shigley); one without power does not.
"""

import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal, NamedTuple

from tuyere.core.mechanics.belt_path import BeltPath, Pulley, belt_path
from tuyere.core.mechanics.loads import BALL, ROLLER
from tuyere.core.mechanics.tension import centrifugal_tension
from tuyere.core.mechanics.tension.published import INCH, HeldBy, published

Contact = Literal["inside", "back"]
UpperName = Literal[
    "bearing life", "overhung load", "bushing pressure", "bushing pressure-velocity", "belt strength", "shaft stress", "mounts"
]

_NO_GRIP = 1e-9


class WindowError(ValueError):
    """The stage cannot be as given: which field, and a sentence for the person."""

    def __init__(self, field: str, sentence: str) -> None:
        super().__init__(sentence)
        self.field = field


@dataclass(frozen=True)
class WindowWheel:
    """A wheel on the belt's way.

    Centre and radius of the belt's line (m), groove (whole angle, rad; None: flat), friction of the material.

    `power_w`: + where it drives the belt, - where the belt drives it, 0 for an idler. `grip`: in place of friction, wrap and groove the
    ratio of the strands that it holds, where that is known otherwise; infinite for teeth.
    """

    x_m: float
    y_m: float
    radius_m: float
    contact: Contact
    friction: float
    power_w: float
    speed_rad_per_s: float
    groove_rad: float | None = None
    toothed: bool = False


@dataclass(frozen=True)
class Shaft:
    """What is known of the shaft under a wheel; None where nobody said. Lengths in m, forces in N, pressures in Pa.

    `overhang_m`: from the wheel's middle to the near bearing. `bushing_*`: a sleeve in place of the near bearing. `mounts_n`: the pull
    that its rubber mounts stand before they lean too far.
    """

    wheel: int
    overhang_m: float | None = None
    bearing_span_m: float | None = None
    bearing_rating_n: float | None = None
    bearing: Literal["ball", "roller"] = "ball"
    life_hours: float | None = None
    overhung_limit_n: float | None = None
    wheel_weight_n: float = 0.0
    bushing_bore_m: float | None = None
    bushing_length_m: float | None = None
    bushing_pressure_pa: float | None = None
    bushing_pv_w_per_m2: float | None = None
    shaft_diameter_m: float | None = None
    shaft_stress_pa: float | None = None
    mounts_n: float | None = None


@dataclass(frozen=True)
class WindowStage:
    """A belt on its wheels, in the order in which it meets them while the first turns `rotation` (+1 counter-clockwise, -1 clockwise).

    `arms`: of a pivoted base, square from its pivot to each strand: the moment of the effective strands stays what its weight gives.
    """

    wheels: tuple[WindowWheel, ...]
    rotation: int = 1
    belts: int = 1
    mass_kg_per_m: float = 0.0
    held_by: HeldBy = "fixed"
    start_factor: float | None = None
    jolt_factor: float = 2.0
    design_factor: float = 1.0
    ratio_at_half_turn: float = 5.0
    belt_strength_n: float | None = None
    shafts: tuple[Shaft, ...] = ()
    crossed: bool = False
    arms: tuple[float, ...] | None = None


class Upper(NamedTuple):
    """The largest tension at which `name` still holds at a wheel (None: the belt itself); `limit_n` None: not judged."""

    name: UpperName
    wheel: int | None
    limit_n: float | None


@dataclass(frozen=True)
class Window:
    """Slip limits running, starting (None.

    Not known) and in a jolt; the target (exact half-sum), the published bands run in and new; upper limits. N.

    `governing_*`: the wheel that slips first. `empty`: the lowest upper limit lies under the higher of the slip limits running and
    starting.
    """

    slip_running_n: float
    slip_starting_n: float | None
    slip_jolt_n: float
    target_n: float
    target_low_n: float
    target_high_n: float
    target_new_low_n: float
    target_new_high_n: float
    governing_running: int | None
    governing_starting: int | None
    upper: tuple[Upper, ...]
    empty: bool

    @property
    def lowest_upper(self) -> Upper | None:
        """The upper limit that is met first."""
        return min((u for u in self.upper if u.limit_n is not None), key=lambda u: u.limit_n or 0.0, default=None)


def slip_under(tight_n: float, slack_n: float, grip: float) -> float:
    """The mean effective tension under which a wheel slips, N: T + tight = grip (T + slack), both as they lie off that mean.

    Teeth (grip infinite) hold anything: only the slack strand must not be pushed. Raises WindowError for a wheel that holds nothing.

    >>> slip_under(200, -200, 5), slip_under(200, -200, math.inf)
    (300.0, 200)
    """
    if grip - 1 < _NO_GRIP:
        raise WindowError(
            "wheels", "A wheel that takes or gives power is hardly touched by the belt: check its place, its friction and the order."
        )
    return -slack_n if math.isinf(grip) else (tight_n - grip * slack_n) / (grip - 1)


def off_mean(rises: Sequence[float], weights: Sequence[float]) -> tuple[float, ...]:
    """How far each strand lies off their mean with weights: free lengths on fixed centres, whose stretch together stays (elastic belt).

    >>> off_mean([0, 100], [1, 1])
    (-50.0, 50.0)
    """
    mean = sum(r * w for r, w in zip(rises, weights, strict=True)) / sum(weights)
    return tuple(r - mean for r in rises)


class Slip(NamedTuple):
    """The tension at rest under which a wheel slips, N, and which does first (None: nothing carries power)."""

    tension_n: float
    wheel: int | None


@dataclass(frozen=True)
class Strained:
    """A stage's path and how its strands share the load.

    `shares[i]` is how far the effective tension of strand i (leaving wheel i) lies off T at load 1, N, one belt.

    `offset_n`: m v² where T counts it (fixed centres), nothing where a spring holds the effective tension itself.
    """

    stage: WindowStage
    path: BeltPath
    shares: tuple[float, ...]
    centrifugal_n: float
    offset_n: float
    speed_m_per_s: float

    @property
    def effective_n(self) -> float:
        """Power of the driving wheels together over belt speed, one belt."""
        return sum(w.power_w for w in self.stage.wheels if w.power_w > 0) / self.speed_m_per_s / self.stage.belts

    def strands(self, tension_n: float, load: float = 1.0) -> list[float]:
        """Effective tension (less m v²) of each strand while running at `load` times the powers, N, one belt."""
        return [tension_n - self.offset_n + load * s for s in self.shares]

    def grip(self, index: int) -> float:
        """Effective tight over slack strand at which that wheel slips; infinite for teeth."""
        w = self.stage.wheels[index]
        if w.toothed:
            return math.inf
        wedge = math.sin(w.groove_rad / 2) if w.groove_rad else 1.0
        return math.exp(min(500.0, w.friction * self.path.wraps_rad[index] / wedge))

    def slips(self, load: float = 1.0, offset_n: float = 0.0) -> list[float | None]:
        """For each wheel, T under which it slips at `load`; None for one without power."""
        found: list[float | None] = []
        for i, w in enumerate(self.stage.wheels):
            if not w.power_w:
                found.append(None)
                continue
            before, after = self.shares[i - 1] * load, self.shares[i] * load
            tight, slack = (before, after) if w.power_w > 0 else (after, before)
            grip = self.grip(i)
            found.append(max(0.0, slip_under(tight, slack, grip)) + offset_n)
        return found

    def first_slip(self, load: float = 1.0, offset_n: float = 0.0) -> Slip:
        """The wheel that slips first, and at which T."""
        at = [(t, i) for i, t in enumerate(self.slips(load, offset_n)) if t is not None]
        if not at:
            return Slip(0.0, None)
        worst = max(t for t, _ in at)
        return Slip(worst, next(i for t, i in at if t >= worst - 1e-9 * abs(worst)))

    def pull_on(self, index: int, tension_n: float, load: float = 1.0) -> tuple[float, float]:
        """All belts' pull on a wheel's shaft while running, as (right, up), N; without its weight."""
        (ax, ay), (bx, by) = self._pull_line(index, load)
        return ax + bx * tension_n, ay + by * tension_n

    def _pull_line(self, index: int, load: float) -> tuple[tuple[float, float], tuple[float, float]]:
        """The pull as A + B T."""
        arriving, leaving = self.path.runs[index - 1].direction_rad, self.path.runs[index].direction_rad
        before, after = (load * self.shares[k] - self.offset_n for k in (index - 1, index))
        n = self.stage.belts
        a = (n * (after * math.cos(leaving) - before * math.cos(arriving)), n * (after * math.sin(leaving) - before * math.sin(arriving)))
        b = (n * (math.cos(leaving) - math.cos(arriving)), n * (math.sin(leaving) - math.sin(arriving)))
        return a, b

    def tension_for_pull(self, index: int, limit_n: float, weight_n: float, load: float) -> float | None:
        """The largest T at which pull and weight together stay within `limit_n`; 0 where none is, None where T does not pull on it."""
        (ax, ay), (bx, by) = self._pull_line(index, load)
        ay -= weight_n
        square, cross, rest = bx * bx + by * by, ax * bx + ay * by, ax * ax + ay * ay - limit_n**2
        if square < 1e-12:
            return None
        inside = cross * cross - square * rest
        return max(0.0, (-cross + math.sqrt(inside)) / square) if inside >= 0 else 0.0


def strain(stage: WindowStage) -> Strained:
    """The path, and how the strands share the load. Raises WindowError; GeometryError where the belt cannot run so."""
    if len(stage.wheels) < 2:
        raise WindowError("wheels", "A belt needs two wheels at least.")
    speeds = [w.radius_m * w.speed_rad_per_s for w in stage.wheels]
    speed = sum(speeds) / len(speeds)
    if speed <= 0 or max(speeds) - min(speeds) > 0.005 * speed:
        raise WindowError("wheels", "Radius times speed is the belt's speed: it must be above zero and the same on every wheel.")
    powers = [w.power_w for w in stage.wheels]
    taken = sum(p for p in powers if p > 0)
    if abs(sum(powers)) > 1e-3 * max(taken, -sum(p for p in powers if p < 0)):
        raise WindowError(
            "wheels", "What the wheels give to the belt and take from it must add up to zero: + drives the belt, - is driven."
        )
    for i, one in enumerate(stage.wheels):
        for k, other in enumerate(stage.wheels[:i]):
            if math.hypot(one.x_m - other.x_m, one.y_m - other.y_m) < (one.radius_m + other.radius_m) * (1 - 1e-6):
                raise WindowError("wheels", f"Wheels {k} and {i} overlap: check their places and radii.")
    way = stage.rotation * (1 if stage.wheels[0].contact == "inside" else -1)

    def turns(index: int, w: WindowWheel) -> int:
        if stage.crossed:
            return way if index == 0 else -way
        return way if w.contact == "inside" else -way

    path = _path([Pulley(w.x_m, w.y_m, w.radius_m, turns(i, w), f"wheel {i}") for i, w in enumerate(stage.wheels)], stage)
    falls, now = [], 0.0
    for p in powers:
        now -= p / speed / stage.belts
        falls.append(now)
    lengths = [r.length_m for r in path.runs]
    if stage.held_by == "fixed":
        # Fixed centres keep the belt's stretch, a pivoted base the strands' moment: either is a mean with weights.
        shares = off_mean(falls, stage.arms or lengths)
    else:
        level = min(falls) if stage.held_by == "slack_side" else max(falls)
        shares = tuple(f - level for f in falls)
    centrifugal = centrifugal_tension(stage.mass_kg_per_m, speed)
    offset = centrifugal if stage.held_by == "fixed" and not stage.arms else 0.0
    return Strained(stage, path, shares, centrifugal, offset, speed)


def _path(pulleys: list[Pulley], stage: WindowStage) -> BeltPath:
    """The path looked at from a wheel that turns with the belt, whichever comes first in the list."""
    first = next((i for i, w in enumerate(stage.wheels) if w.contact == "inside"), 0)
    found = belt_path(pulleys[first:] + pulleys[:first], stage.crossed)
    back = len(pulleys) - first
    return BeltPath(tuple(pulleys), found.runs[back:] + found.runs[:back], found.wraps_rad[back:] + found.wraps_rad[:back])


def target(on: Strained) -> float:
    """The tension to aim for, N: with R the half-turn ratio to the power of the least wrap over half a turn, at the design power

    fixed Te/2 (R + 1)/(R - 1) + m v² (the exact half-sum of the strands), slack side Te/(R - 1), tight side Te R/(R - 1).
    """
    loaded = [wrap for wrap, w in zip(on.path.wraps_rad, on.stage.wheels, strict=True) if w.power_w]
    pull = on.effective_n * on.stage.design_factor
    if not loaded or pull <= 0:
        return on.offset_n
    ratio = math.pow(on.stage.ratio_at_half_turn, min(loaded) / math.pi)
    if ratio - 1 < _NO_GRIP:
        raise WindowError("wheels", "A wheel that takes or gives power is hardly touched by the belt: check its place and the order.")
    tight, slack = ratio / (ratio - 1), 1 / (ratio - 1)
    if on.stage.arms:
        highest, lowest = max(on.shares), min(on.shares)
        # T lies between the strands as the weighted mean does.
        share = slack - lowest / (highest - lowest)
    else:
        share = {"fixed": (tight + slack) / 2, "slack_side": slack, "tight_side": tight}[on.stage.held_by]
    return pull * share + on.offset_n


def window(stage: WindowStage) -> Window:
    """Everything of it. Raises WindowError, GeometryError."""
    on = strain(stage)
    running = on.first_slip(1.0, on.offset_n)
    starting = on.first_slip(stage.start_factor) if stage.start_factor is not None else None
    jolt = on.first_slip(stage.jolt_factor, on.offset_n)
    aim = target(on)
    edges = published(aim, on.offset_n, stage.held_by)
    high = min(edges.high_n, INCH.high * INCH.standing * aim)
    upper = upper_limits(on)
    known = [u.limit_n for u in upper if u.limit_n is not None]
    slips = max(running.tension_n, starting.tension_n if starting else 0.0)
    return Window(
        running.tension_n,
        starting.tension_n if starting else None,
        jolt.tension_n,
        aim,
        edges.standing_n,
        high,
        min(edges.new_low_n, high),
        high,
        running.wheel,
        starting.wheel if starting else None,
        upper,
        bool(known) and min(known) < slips,
    )


def upper_limits(on: Strained) -> tuple[Upper, ...]:
    """The largest T, running at design power, for each shaft that was described, and for the belt."""
    found = []
    for shaft in on.stage.shafts:
        if not 0 <= shaft.wheel < len(on.stage.wheels):
            raise WindowError("shafts", f"There is no wheel {shaft.wheel}: wheels count from 0.")
        for name, pull in _pulls_allowed(shaft, on.stage.wheels[shaft.wheel].speed_rad_per_s).items():
            limit = None if pull is None else on.tension_for_pull(shaft.wheel, pull, shaft.wheel_weight_n, on.stage.design_factor)
            found.append(Upper(name, shaft.wheel, limit))
    strength = on.stage.belt_strength_n
    most = max(on.shares) * on.stage.design_factor
    # The belt itself feels its centrifugal pull too.
    belt = None if strength is None else max(0.0, strength - on.centrifugal_n - most + on.offset_n)
    return (*found, Upper("belt strength", None, belt))


def _pulls_allowed(s: Shaft, speed: float) -> dict[UpperName, float | None]:
    """The largest pull at the wheel (N), weight included, for each of a shaft's limits."""
    lever = None  # pull at the wheel over the near bearing's load, b / (a + b)
    if s.overhang_m is not None and s.bearing_span_m:
        lever = s.bearing_span_m / (s.overhang_m + s.bearing_span_m)
    life = pressure = pv = stress = None
    if lever is not None and s.bearing_rating_n and s.life_hours:
        exponent = BALL if s.bearing == "ball" else ROLLER
        turns_m = s.life_hours * 3600 * speed / math.tau / 1e6
        life = lever * s.bearing_rating_n * math.pow(turns_m, -1 / exponent)
    if lever is not None and s.bushing_bore_m and s.bushing_length_m:
        shadow = s.bushing_bore_m * s.bushing_length_m
        pressure = lever * s.bushing_pressure_pa * shadow if s.bushing_pressure_pa else None
        pv = lever * s.bushing_pv_w_per_m2 * shadow / (speed * s.bushing_bore_m / 2) if s.bushing_pv_w_per_m2 else None
    if s.overhang_m and s.shaft_diameter_m and s.shaft_stress_pa:
        stress = s.shaft_stress_pa * math.pi * s.shaft_diameter_m**3 / (32 * s.overhang_m)
    return {
        "bearing life": life,
        "overhung load": s.overhung_limit_n,
        "bushing pressure": pressure,
        "bushing pressure-velocity": pv,
        "shaft stress": stress,
        "mounts": s.mounts_n,
    }
