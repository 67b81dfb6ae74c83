"""Every combination of a stock at once, in arrays: which hold, what they are like, and what killed the rest.

The same constraints as `judge`, in the same order, on the same formulas; held against it on random problems by the tests.
"""

import math
from collections.abc import Iterable
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from tuyere.core.rating.ip20 import OutOfRangeError
from tuyere.core.selection.judge import CLEAR_M, CONSTRAINTS
from tuyere.core.selection.kind import Array, Kind, Mate, StockWheel
from tuyere.core.selection.measures import traits
from tuyere.core.selection.problem import Problem

Ints = NDArray[np.int32]
_CHUNK = 400_000  # pairs times lengths worked at a time, so that memory stays flat
_NEWTON = 6
_SLACK_M = 1e-6


def _count(mask: NDArray[np.bool_]) -> int:
    return int(np.count_nonzero(mask))


@dataclass(frozen=True)
class Found:
    """The feasible combinations of one kind: indices into its wheels, lengths (0 where cut to length) and counts, and measures (SI)."""

    kind: Kind
    driver_wheels: tuple[StockWheel, ...]
    driven_wheels: tuple[StockWheel, ...]
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
        return len(self.driver)


@dataclass(frozen=True)
class Searched:
    """What a search came to: the feasible ones by kind, how many combinations there were, and how many each constraint killed first."""

    found: tuple[Found, ...]
    looked_at: int
    killed: dict[str, int]

    @property
    def feasible(self) -> int:
        return sum(f.size for f in self.found)


def search(problem: Problem, stock: Iterable[Kind]) -> Searched:
    """Hold every combination of the stock against the problem."""
    killed = dict.fromkeys(CONSTRAINTS, 0)
    found, looked_at = [], 0
    for kind in stock:
        looked_at += kind.size
        if kind.family not in problem.families or (problem.kinds and kind.name not in problem.kinds):
            killed["family"] += kind.size
            continue
        if problem.ambient_c is not None and problem.ambient_c > traits()[kind.traits].hottest_c:
            killed["heat"] += kind.size
            continue
        one = _one_kind(problem, kind, killed)
        if one is not None and one.size:
            found.append(one)
    return Searched(tuple(found), looked_at, killed)


def _sides(problem: Problem, kind: Kind, killed: dict[str, int]) -> tuple[tuple[StockWheel, ...], tuple[StockWheel, ...]] | None:
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


def _one_kind(problem: Problem, kind: Kind, killed: dict[str, int]) -> Found | None:
    sides = _sides(problem, kind, killed)
    if sides is None:
        return None
    try:
        factor, _ = problem.service_factor(kind.family)
    except OutOfRangeError:
        killed["rating"] += kind.size
        return None
    first, second = (_wheels(kind, side) for side in sides)
    each = max(1, len(kind.lengths)) * len(kind.counts)
    i, j = _pairs(problem, kind, first, second, killed, each)
    parts = []
    rows_at_once = max(1, _CHUNK // max(1, len(kind.lengths)))
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

    def __init__(self, wheels: tuple[StockWheel, ...]) -> None:
        self.line = np.array([w.line_m for w in wheels])
        self.rolls = np.array([w.rolls_m for w in wheels])
        self.outside = np.array([w.outside_m for w in wheels])
        self.bore = np.array([w.bore_most_m for w in wheels])
        self.teeth = np.array([float(w.teeth or 0) for w in wheels])
        self.fewest = np.array([w.fewest for w in wheels])
        self.most = np.array([w.most for w in wheels])


def _wheels(kind: Kind, side: tuple[StockWheel, ...]) -> _Wheels:
    """The arrays of a side, kept with the kind while it is the whole stock's."""
    if side is not kind.driver:
        return _Wheels(side)
    kept = kind.kept_arrays
    if not isinstance(kept, _Wheels):
        kept = kind.kept_arrays = _Wheels(side)
    return kept


def _pairs(problem: Problem, kind: Kind, first: _Wheels, second: _Wheels, killed: dict[str, int], each: int) -> tuple[Ints, Ints]:
    """The pairs of wheels that pass all that needs no length."""
    alive = np.ones((len(first.line), len(second.line)), bool)

    def hold(name: str, passes: NDArray[np.bool_]) -> None:
        nonlocal alive
        before = _count(alive)
        alive &= passes
        killed[name] += (before - _count(alive)) * each

    d, big = first.line[:, None], second.line[None, :]
    room = np.ones_like(alive)
    if problem.driver_most_m is not None:
        room &= (first.outside <= problem.driver_most_m)[:, None]
    if problem.driven_most_m is not None:
        room &= (second.outside <= problem.driven_most_m)[None, :]
    hold("room", room)
    bore = np.ones_like(alive)
    if problem.driver_shaft_m is not None:
        bore &= (first.bore >= problem.driver_shaft_m)[:, None]
    if problem.driven_shaft_m is not None:
        bore &= (second.bore >= problem.driven_shaft_m)[None, :]
    hold("bore", bore)
    driver_small = d <= big
    small_teeth = np.where(driver_small, first.teeth[:, None], second.teeth[None, :])
    measure = kind.small_measure(np.minimum(d, big), small_teeth)
    hold("small", measure >= kind.least_small(problem)[0] * (1 - 1e-9))
    hold("motor", np.broadcast_to((kind.motor_short(first.line, first.outside, problem) <= 1e-9)[:, None], alive.shape))
    speed = problem.driver_speed * first.rolls[:, None] / second.rolls[None, :]
    hold("speed", np.abs(speed / problem.driven_speed - 1) <= problem.tolerance)
    hold("fast", np.broadcast_to((problem.driver_speed * first.rolls / 2 <= kind.fastest(problem))[:, None], alive.shape))
    i, j = np.nonzero(alive)
    return i.astype(np.int32), j.astype(np.int32)


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
    """Centre distances at which lines of `length` are taut: L = 2 C cos β + a + b β, sin β = h/C. NaN where too short. Newton from the series."""
    h = np.abs(h)
    b = np.abs(b)
    free = length - a
    with np.errstate(invalid="ignore", divide="ignore"):
        c = (free + np.sqrt(free**2 - 8 * h * (b - h))) / 4
        for _ in range(_NEWTON):
            c = np.maximum(c, h * (1 + 1e-9))
            root = np.sqrt(c**2 - h**2)
            c = c - (2 * root + b * np.arcsin(h / c) - free) / (2 * c / root - b * h / (c * root))
        return np.where(length > a + b * math.pi / 2 + 1e-9, c, np.nan)


def _lengths(
    problem: Problem, kind: Kind, first: _Wheels, second: _Wheels, i: Ints, j: Ints, design: float, killed: dict[str, int]
) -> tuple[NDArray[np.generic], ...] | None:
    counts = np.array(kind.counts)
    touching = (first.outside[i] + second.outside[j]) / 2 + CLEAR_M
    near, far = np.maximum(touching, problem.centre_low_m * (1 - 1e-9)), problem.centre_high_m * (1 + 1e-9)
    if kind.lengths:
        of = np.array([x.line_m for x in kind.lengths])
        a, b, h = kind.line_terms(first.line[i], second.line[j], first.teeth[i], second.teeth[j])
        # A line grows with its centres: only those near enough to the room are worth solving.
        shortest, longest = (line_at(np.maximum(c, np.abs(h)), a, b, h) for c in (near, np.full_like(near, far)))
        p, m = np.nonzero((of >= shortest[:, None] - _SLACK_M) & (of <= longest[:, None] + _SLACK_M))
        centre = centres(of[m], a[p], b[p], h[p])
        with np.errstate(invalid="ignore"):
            fits = (centre >= near[p]) & (centre <= far)
        p, m, centre = p[fits], m[fits], centre[fits]
    else:
        fits = (near <= problem.centre_middle_m) & (problem.centre_middle_m <= far)
        p = np.nonzero(fits)[0]
        m, centre = np.zeros_like(p), np.full(len(p), problem.centre_middle_m)
    killed["centres"] += (len(i) * max(1, len(kind.lengths)) - len(p)) * len(counts)
    if not len(p):
        return None
    i, j = i[p], j[p]
    d, big = first.line[i], second.line[j]
    driver_small = d <= big
    small = np.minimum(d, big)
    belt_speed = problem.driver_speed * first.rolls[i] / 2
    ratio_up = first.rolls[i] / second.rolls[j]
    mate = Mate(
        d, big, small, np.where(driver_small, first.teeth[i], second.teeth[j]), problem.driver_speed * np.maximum(1.0, ratio_up), belt_speed
    )
    wrap = math.pi - 2 * np.arcsin((np.maximum(d, big) - small) / (2 * centre))
    width = np.asarray(kind.width(counts), dtype=float)
    most, _ = kind.widest(problem)
    wide = np.ones(len(counts), bool) if most is None else width <= most * (1 + 1e-9)
    killed["width"] += len(p) * _count(~wide)
    unit = kind.unit_capacity(mate, wrap, m)
    fewest, most = np.maximum(first.fewest[i], second.fewest[j]), np.minimum(first.most[i], second.most[j])
    ratio = kind.tension_ratio(wrap)
    lean = (math.pi - wrap) / 2
    effective = (problem.power_w if np.isinf(ratio).all() else design) / belt_speed
    slack = np.where(np.isinf(ratio), 0.0, effective / (ratio - 1))
    pull = np.hypot((2 * slack + effective) * np.cos(lean), effective * np.sin(lean))
    soft = np.ones(len(p), bool) if problem.pull_most_n is None else pull <= problem.pull_most_n
    out: list[tuple[NDArray[np.generic], ...]] = []
    speed_error = problem.driver_speed * ratio_up / problem.driven_speed - 1
    for k, count in enumerate(kind.counts):
        if not wide[k]:
            continue
        alive = (count >= fewest) & (count <= most)
        killed["grooves"] += len(p) - _count(alive)
        if kind.had is not None:
            fitting, alive = alive, alive & kind.had[m, k]
            killed["list"] += _count(fitting) - _count(alive)
        capacity = kind.capacity(unit, mate, wrap, count)
        rated = alive & ~np.isnan(capacity)
        killed["rating"] += _count(alive) - _count(rated)
        with np.errstate(invalid="ignore"):
            strong = rated & (capacity >= design)
        killed["power"] += _count(rated) - _count(strong)
        held = strong
        if problem.reserve:
            held = strong & (capacity * (count - 1) / count >= design) if kind.reserve_counts else np.zeros_like(strong)
            killed["reserve"] += _count(strong) - _count(held)
        last = held & soft
        killed["pull"] += _count(held) - _count(last)
        w = np.nonzero(last)[0]
        if len(w):
            out.append(
                (
                    i[w],
                    j[w],
                    m[w],
                    np.full(len(w), k),
                    speed_error[w],
                    belt_speed[w],
                    centre[w],
                    wrap[w],
                    capacity[w],
                    pull[w],
                    np.full(len(w), width[k]),
                )
            )
    if not out:
        return None
    return tuple(np.concatenate([o[n] for o in out]) for n in range(len(out[0])))
