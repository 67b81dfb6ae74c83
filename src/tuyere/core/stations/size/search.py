"""Every combination of a stock at once, in arrays: which hold, what they are like, and what killed the rest.

The same constraints as `judge`, in the same order, on the same formulas; held against it on random problems by the tests.
"""

import math
from collections.abc import Iterable
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from tuyere.core.kinds.choose import Array, ChoiceWheel, Choosable, Mate
from tuyere.core.kinds.problem import Demands
from tuyere.core.kinds.rating.duties import OutOfRangeError
from tuyere.core.kinds.traits import traits
from tuyere.core.stations.size.judge import CLEAR_M, CONSTRAINTS, hang_of

Ints = NDArray[np.int32]
_CHUNK = 100_000  # pairs times lengths worked at a time, so that memory stays flat; fewer where there are more counts than usual
_USUAL_COUNTS = 20
_NEWTON, _TRUE = 6, 1e-9  # steps at most; one as small as this, in m, leaves nothing: Newton squares it
_SLACK_M = 1e-6  # of arithmetic


def _count(mask: NDArray[np.bool_]) -> int:
    return int(np.count_nonzero(mask))


@dataclass(frozen=True)
class Found:
    """The feasible combinations of one kind: indices into its wheels, lengths (0 where cut to length) and counts, and measures (SI)."""

    kind: Choosable
    driver_wheels: tuple[ChoiceWheel, ...]
    driven_wheels: tuple[ChoiceWheel, ...]
    driver: Ints
    driven: Ints
    length: Ints
    count: Ints
    speed_error: Array
    belt_speed: Array
    centre_m: Array
    wrap_rad: Array
    capacity_w: Array
    design_w: float
    pull_n: Array
    width_m: Array

    @property
    def size(self) -> int:
        """How many there are."""
        return len(self.driver)


@dataclass(frozen=True)
class Searched:
    """What a search came to: the feasible ones by kind, how many combinations there were, and how many each constraint killed first."""

    found: tuple[Found, ...]
    looked_at: int
    killed: dict[str, int]

    @property
    def feasible(self) -> int:
        """How many hold every demand."""
        return sum(f.size for f in self.found)


def search(problem: Demands, stock: Iterable[Choosable]) -> Searched:
    """Hold every combination of the stock against the problem."""
    killed = dict.fromkeys(CONSTRAINTS, 0)
    found, looked_at = [], 0
    for kind in stock:
        looked_at += kind.size
        if not kind.wanted_by(problem.families) or (problem.kinds and kind.name not in problem.kinds):
            killed["family"] += kind.size
            continue
        if problem.ambient_c is not None and problem.ambient_c > traits()[kind.traits].hottest_c:
            killed["heat"] += kind.size
            continue
        one = _one_kind(problem, kind, killed)
        if one is not None and one.size:
            found.append(one)
    return Searched(tuple(found), looked_at, killed)


def _sides(problem: Demands, kind: Choosable, killed: dict[str, int]) -> tuple[tuple[ChoiceWheel, ...], tuple[ChoiceWheel, ...]] | None:
    sides = []
    for kept, wheels, drives in ((problem.keep_driver, kind.driver, True), (problem.keep_driven, kind.driven, False)):
        stays = kind.wheel_kept(kept, drives) if kept else None
        if kept and stays is None:
            killed["kept"] += kind.size
            return None
        sides.append((stays,) if stays else wheels)
    lost = len(kind.driver) * len(kind.driven) - len(sides[0]) * len(sides[1])
    killed["kept"] += max(0, lost) * max(1, len(kind.lengths)) * len(kind.counts)
    return sides[0], sides[1]


def _one_kind(problem: Demands, kind: Choosable, killed: dict[str, int]) -> Found | None:
    sides = _sides(problem, kind, killed)
    if sides is None:
        return None
    try:
        factor, _ = problem.service_factor(kind.drive)
    except OutOfRangeError:
        killed["rating"] += kind.size
        return None
    first, second = (_wheels(kind, side) for side in sides)
    each = max(1, len(kind.lengths)) * len(kind.counts)
    i, j = _pairs(problem, kind, first, second, killed, each)
    parts = []
    rows_at_once = max(1, _CHUNK // (max(1, len(kind.lengths)) * max(1, len(kind.counts) // _USUAL_COUNTS)))
    for start in range(0, len(i), rows_at_once):
        part = _lengths(
            problem, kind, first, second, i[start : start + rows_at_once], j[start : start + rows_at_once], problem.power_w * factor, killed
        )
        if part is not None:
            parts.append(part)
    if not parts:
        return None
    whole = [np.concatenate([p[k] for p in parts]) for k in range(len(parts[0]))]
    driver, driven, length, count = (a.astype(np.int32) for a in whole[:4])
    error, speed, centre, wrap, capacity, pull, width = (a.astype(np.float64) for a in whole[4:])
    return Found(kind, *sides, driver, driven, length, count, error, speed, centre, wrap, capacity, problem.power_w * factor, pull, width)


class _Wheels:
    """One side's wheels as arrays."""

    def __init__(self, wheels: tuple[ChoiceWheel, ...]) -> None:
        self.line = np.array([w.line_m for w in wheels])
        self.rolls = np.array([w.rolls_m for w in wheels])
        self.outside = np.array([w.outside_m for w in wheels])
        self.bore = np.array([w.bore_most_m for w in wheels])
        self.teeth = np.array([float(w.teeth or 0) for w in wheels])
        self.fewest = np.array([w.fewest for w in wheels])
        self.most = np.array([w.most for w in wheels])


def _wheels(kind: Choosable, side: tuple[ChoiceWheel, ...]) -> _Wheels:
    """The arrays of a side, kept with the kind while it is the whole stock's."""
    if side is not kind.driver:
        return _Wheels(side)
    kept = kind.kept_arrays
    if not isinstance(kept, _Wheels):
        kept = kind.kept_arrays = _Wheels(side)
    return kept


def _pairs(problem: Demands, kind: Choosable, first: _Wheels, second: _Wheels, killed: dict[str, int], each: int) -> tuple[Ints, Ints]:
    """The pairs of wheels that pass all that needs no length. All but the speed asks one wheel at a time: two masks, and their product."""
    alive = [np.ones(len(first.line), bool), np.ones(len(second.line), bool)]
    left = [len(first.line), len(second.line)]

    def hold(name: str, *passes: NDArray[np.bool_] | None) -> None:
        before = left[0] * left[1]
        for side, mask in enumerate(passes):
            if mask is not None:
                alive[side] &= mask
                left[side] = _count(alive[side])
        killed[name] += (before - left[0] * left[1]) * each

    limits = (first, problem.driver_most_m), (second, problem.driven_most_m)
    hold("room", *(None if most is None else w.outside <= most for w, most in limits))
    shafts = (first, problem.driver_shaft_m), (second, problem.driven_shaft_m)
    hold("bore", *(None if shaft is None else w.bore >= shaft for w, shaft in shafts))
    # The small wheel is large enough when both are.
    least = kind.least_small(problem)[0] * (1 - 1e-9)
    hold("small", *(kind.small_measure(w.line, w.teeth) >= least for w in (first, second)))
    if problem.motor:
        hold("motor", kind.motor_short(first.line, first.outside, problem) <= 1e-9)
    rows, columns = (np.flatnonzero(mask) for mask in alive)
    speed = problem.driver_speed * first.rolls[rows][:, None] / second.rolls[columns][None, :]
    right = np.abs(speed / problem.driven_speed - 1) <= problem.tolerance
    killed["speed"] += (right.size - _count(right)) * each
    i, j = np.nonzero(right)
    i, j = rows[i], columns[j]
    slow = problem.driver_speed * first.rolls[i] / 2 <= kind.fastest(problem)
    killed["fast"] += (len(i) - _count(slow)) * each
    i, j = i[slow], j[slow]
    speed, most = problem.driver_speed * first.rolls[i] / second.rolls[j], kind.rim_limit(problem)
    holds = (first.outside[i] * problem.driver_speed / 2 <= most) & (second.outside[j] * speed / 2 <= most)
    killed["rim"] += (len(i) - _count(holds)) * each
    i, j, speed = i[holds], j[holds], speed[holds]
    small_teeth = np.where(first.line[i] <= second.line[j], first.teeth[i], second.teeth[j])
    enough = small_teeth >= kind.least_teeth(np.maximum(problem.driver_speed, speed))
    killed["teeth"] += (len(i) - _count(enough)) * each
    return i[enough].astype(np.int32), j[enough].astype(np.int32)


def line_at(centre: Array, a: Array, b: Array, h: Array) -> Array:
    """Length of the line at a centre distance: the inverse of `centres`."""
    h = np.abs(h)
    with np.errstate(invalid="ignore", divide="ignore"):
        return np.asarray(
            2 * np.sqrt(np.maximum(0.0, centre**2 - h**2))
            + a
            + np.abs(b) * np.arcsin(np.where(centre > 0, np.minimum(1.0, h / centre), 1.0))
        )


def centres(length: Array, a: Array, b: Array, h: Array) -> Array:
    """Centre distances at which lines of `length` are taut: L = 2 C cos β + a + b β, sin β = h/C.

    NaN where too short. Newton from the series.
    """
    h = np.abs(h)
    b = np.abs(b)
    free = length - a
    with np.errstate(invalid="ignore", divide="ignore"):
        c = (free + np.sqrt(free**2 - 8 * h * (b - h))) / 4
        for _ in range(_NEWTON):
            c = np.maximum(c, h * (1 + 1e-9))
            root = np.sqrt(c**2 - h**2)
            step = (2 * root + b * np.arcsin(h / c) - free) / (2 * c / root - b * h / (c * root))
            c = c - step
            if not np.any(np.abs(step) > _TRUE):
                break
        return np.where(length > a + b * math.pi / 2 + 1e-9, c, np.nan)


def _sorted_lengths(kind: Choosable) -> tuple[Array, NDArray[np.int64]]:
    """Lines of a kind's lengths in order, and the place of each; kept with the kind."""
    if kind.kept_lengths is None:
        of = np.array([x.line_m for x in kind.lengths])
        order = np.argsort(of, kind="stable")
        kind.kept_lengths = of[order], order
    return kind.kept_lengths


def _lengths(
    problem: Demands, kind: Choosable, first: _Wheels, second: _Wheels, i: Ints, j: Ints, design: float, killed: dict[str, int]
) -> tuple[NDArray[np.generic], ...] | None:
    counts = np.array(kind.counts)
    touching = (first.outside[i] + second.outside[j]) / 2 + CLEAR_M
    near, far = np.maximum(touching, problem.centre_low_m * (1 - 1e-9)), problem.centre_high_m * (1 + 1e-9)
    if kind.lengths:
        of, order = _sorted_lengths(kind)
        a, b, h = kind.line_terms(first.line[i], second.line[j], first.teeth[i], second.teeth[j])
        # A line grows with its centres: only those near enough to the room are worth solving.
        shortest, longest = (line_at(np.maximum(c, np.abs(h)), a, b, h) for c in (near, np.full_like(near, far)))
        start = np.searchsorted(of, shortest - _SLACK_M)
        many = np.maximum(0, np.searchsorted(of, longest + _SLACK_M, side="right") - start)
        p = np.repeat(np.arange(len(i)), many)
        near_enough = np.repeat(start, many) + np.arange(len(p)) - np.repeat(np.cumsum(many) - many, many)
        m = order[near_enough]
        centre = centres(of[near_enough], a[p], b[p], h[p])
        with np.errstate(invalid="ignore"):
            fits = (centre >= near[p]) & (centre <= far)
        p, m, centre = p[fits], m[fits], centre[fits]
    else:
        fits = (near <= problem.centre_middle_m) & (problem.centre_middle_m <= far)
        p = np.nonzero(fits)[0]
        m, centre = np.zeros_like(p), np.full(len(p), problem.centre_middle_m)
    killed["centres"] += (len(i) * max(1, len(kind.lengths)) - len(p)) * len(counts)
    wrap = math.pi - 2 * np.arcsin(np.abs(second.line[j[p]] - first.line[i[p]]) / (2 * centre))
    grips = wrap >= kind.least_wrap * (1 - 1e-9)
    killed["wrap"] += (len(p) - _count(grips)) * len(counts)
    p, m, centre, wrap = p[grips], m[grips], centre[grips], wrap[grips]
    if not len(p):
        return None
    i, j = i[p], j[p]
    d, big = first.line[i], second.line[j]
    driver_small = d <= big
    small = np.minimum(d, big)
    belt_speed = problem.driver_speed * first.rolls[i] / 2
    ratio_up = first.rolls[i] / second.rolls[j]
    mate = Mate(
        d,
        big,
        small,
        np.where(driver_small, first.teeth[i], second.teeth[j]),
        problem.driver_speed * np.maximum(1.0, ratio_up),
        belt_speed,
        np.maximum(ratio_up, 1 / ratio_up),
    )
    width = np.asarray(kind.width(counts), dtype=float)
    most_width, _ = kind.widest(problem)
    wide = np.flatnonzero(width <= (math.inf if most_width is None else most_width * (1 + 1e-9)))
    killed["width"] += len(p) * (len(counts) - len(wide))
    ratio = np.asarray(kind.loop.grips(wrap)[0])
    lean = (math.pi - wrap) / 2
    effective = (problem.power_w if np.isinf(ratio).all() else design) / belt_speed
    # From here on counts stand in rows, pairs with a length in columns.
    by_count = counts[wide][:, None]
    hang = hang_of(problem, kind, d, big, centre, by_count)
    both = effective + 2 * hang if np.isinf(ratio).all() else kind.standing * effective * (ratio + 1) / (ratio - 1)
    pull = np.broadcast_to(np.hypot(both * np.cos(lean), effective * np.sin(lean)), (len(by_count), len(centre)))
    fewest, most = np.maximum(first.fewest[i], second.fewest[j]), np.minimum(first.most[i], second.most[j])
    alive = (by_count >= fewest) & (by_count <= most)
    left = alive.size

    def hold(name: str, passes: NDArray[np.bool_]) -> None:
        nonlocal alive, left
        alive = alive & passes
        now = _count(alive)
        killed[name] += left - now
        left = now

    hold("grooves", alive)
    if kind.most_over_wheel is not None:
        hold("proportion", width[wide][:, None] <= kind.most_over_wheel * np.minimum(first.outside[i], second.outside[j]) * (1 + 1e-9))
    if kind.had is not None:
        hold("list", kind.had[m][:, wide].T)
    capacity = np.broadcast_to(kind.capacity(kind.unit_capacity(mate, wrap, m), mate, wrap, by_count), alive.shape)
    hold("rating", ~np.isnan(capacity))
    with np.errstate(invalid="ignore"):
        hold("power", capacity >= design)
        if problem.reserve:
            hold("reserve", capacity * (by_count - 1) / by_count >= design if kind.reserve_counts else np.zeros_like(alive))
    if problem.pull_most_n is not None:
        hold("pull", pull <= problem.pull_most_n)
    if not left:
        return None
    k, w = np.nonzero(alive)
    speed_error = problem.driver_speed * ratio_up / problem.driven_speed - 1
    return (
        i[w],
        j[w],
        m[w],
        wide[k],
        speed_error[w],
        belt_speed[w],
        centre[w],
        wrap[w],
        capacity[k, w],
        pull[k, w],
        width[wide[k]],
    )
